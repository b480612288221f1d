import * as soupWords from '@broth/contract/soupWords';
import { words } from '@broth/contract';
import { readIngredientLine, slugOf } from '@broth/contract/formats';
import type { Kitchen } from '@broth/contract/formats';
import type { Soup } from '@broth/core';
import { useState } from 'react';
import { useFieldArray, useFormContext } from 'react-hook-form';
import { View } from 'react-native';
import { usePalette } from '../../../theme/theme';
import { Action } from '../../../ui/Action';
import { Field, Toggles } from '../../../ui/Field';
import { Body, Note } from '../../../ui/Type';
import { NumberOf, TextOf } from './form';
import type { SoupForm } from './form';

/** Other soups from the same pot: blended otherwise, without some lines, with a garnish of their own. */
export function VariantEditor({ values, kitchen }: { readonly values: Soup; readonly kitchen: Kitchen }) {
  const palette = usePalette();
  const form = useFormContext<SoupForm>();
  const variants = useFieldArray({ control: form.control, name: 'variants', keyName: 'key' });
  const [garnish, setGarnish] = useState('');
  const lastStep = values.steps.findLast((step) => step.phase === 'finish') ?? values.steps.at(-1);
  return (
    <View style={{ gap: 10 }}>
      {variants.fields.map((field, index) => {
        const variant = values.variants[index];
        if (variant === undefined) return null;
        const at = `variants.${String(index)}` as `variants.${number}`;
        return (
          <View key={field.key} style={{ gap: 8, borderTopWidth: 1, borderTopColor: palette.hairline, paddingTop: 8 }}>
            <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
              <TextOf path={`${at}.name`} label="Called" />
              <NumberOf path={`${at}.blendShare`} label="Blended, % of the pot" factor={100} width={170} />
            </View>
            <Toggles
              label="Made without"
              options={values.ingredients.map((line) => ({ value: line.id, label: line.name === '' ? 'a new line' : line.name }))}
              value={variant.leavesOut}
              onChange={(leavesOut) => {
                form.setValue(`${at}.leavesOut`, leavesOut, { shouldDirty: true });
              }}
            />
            {variant.adds.map((line) => (
              <View key={line.id} style={{ flexDirection: 'row', alignItems: 'center', gap: 8 }}>
                <Body style={{ flex: 1 }}>{`+ ${line.amount === null ? 'by eye' : `${words.number(line.amount.low)} ${soupWords.UNIT[line.amount.unit]}`} ${line.name}`}</Body>
                <Action
                  label="Take away"
                  hint={`Take ${line.name} away`}
                  onPress={() => {
                    form.setValue(
                      `${at}.adds`,
                      variant.adds.filter((one) => one.id !== line.id),
                      { shouldDirty: true },
                    );
                  }}
                />
              </View>
            ))}
            <View style={{ flexDirection: 'row', gap: 8, alignItems: 'flex-end' }}>
              <Field label="With, as on a card" name={`With, in ${variant.name}`} value={garnish} onChange={setGarnish} />
              <Action
                label="Add"
                hint={`Add to ${variant.name}`}
                onPress={() => {
                  if (garnish.trim() === '') return;
                  const taken = new Set([...values.ingredients, ...variant.adds].map((line) => line.id));
                  const read = readIngredientLine(garnish, kitchen, taken, lastStep?.id ?? '');
                  form.setValue(`${at}.adds`, [...variant.adds, read.line], { shouldDirty: true });
                  setGarnish('');
                }}
              />
            </View>
            <Action
              label="Take the variant away"
              onPress={() => {
                variants.remove(index);
              }}
            />
          </View>
        );
      })}
      <Action
        label="Another soup from this pot"
        onPress={() => {
          const taken = new Set(values.variants.map((variant) => variant.id));
          variants.append({ id: slugOf('variant', taken), name: 'smooth', blendShare: 1, adds: [], leavesOut: [] });
        }}
      />
      <Note>0 % blended is chunky. A garnish brings its own allergens; only this variant has them.</Note>
    </View>
  );
}
