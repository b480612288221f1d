import * as soupWords from '@broth/contract/soupWords';
import { KITCHEN_UNITS, words } from '@broth/contract';
import { ALLERGENS, ORIGINS, PARTS, PREP_ACTS, foodFacts } from '@broth/core';
import type { Ingredient, KitchenUnit, Label } from '@broth/core';
import { View } from 'react-native';
import { useFormContext, useWatch } from 'react-hook-form';
import type { OpenBook } from '../../../state/useBook';
import { Action } from '../../../ui/Action';
import { Pick, Toggles } from '../../../ui/Field';
import { AmountOf, NumberOf, PickOf, TextOf } from './form';
import type { SoupForm } from './form';

interface Props {
  readonly open: OpenBook;
  readonly index: number;
  readonly steps: SoupForm['steps'];
  readonly onRemove: () => void;
  readonly onClose: () => void;
}

const UNIT_OPTIONS = KITCHEN_UNITS.map((value) => ({ value, label: soupWords.UNIT[value] }));
const FLAGS = [
  { value: 'whole', label: 'stays whole' },
  { value: 'removed', label: 'strained or lifted out' },
] as const;

/** One line of the card, opened: what, how much, how cut, where it goes in, what its label says. */
export function LineEditor({ open, index, steps, onRemove, onClose }: Props) {
  const form = useFormContext<SoupForm>();
  const at = `ingredients.${String(index)}` as `ingredients.${number}`;
  const line = useWatch({ control: form.control, name: at }) as Ingredient;
  const set = (values: Partial<Ingredient>): void => {
    form.setValue(at, { ...form.getValues(at), ...values }, { shouldDirty: true, shouldValidate: form.formState.isSubmitted });
  };
  const stepOptions = steps.map((step, number) => ({ value: step.id, label: `${String(number + 1)}. ${step.name}`.slice(0, 48) }));
  const unit: KitchenUnit = line.amount?.unit ?? 'g';
  const components = open.soups.filter((soup) => soup.role === 'component' && soup.id !== form.getValues('id'));
  const label: Label = line.allergens;
  const unread = label === 'unknown';
  const read = label === 'unknown' ? [] : label;
  const row = { flexDirection: 'row', flexWrap: 'wrap', gap: 8 } as const;
  return (
    <View style={{ gap: 10, paddingVertical: 8 }}>
      <View style={row}>
        <TextOf path={`${at}.name`} label="Name" />
        <Pick
          label="In the pantry it is"
          value={line.foodId ?? ''}
          options={[{ value: '', label: 'not in the pantry' }, ...open.pantry.map((food) => ({ value: food.id, label: food.name }))]}
          onPick={(foodId) => {
            const food = open.pantry.find((one) => one.id === foodId);
            set(food === undefined ? { foodId: null } : { ...foodFacts(food), ...(line.name.trim() === '' ? { name: food.name } : {}) });
          }}
        />
      </View>
      <View style={row}>
        <AmountOf path={`${at}.amount`} label="Amount" unit={unit} />
        <Pick
          label="Unit"
          width={104}
          value={unit}
          options={UNIT_OPTIONS}
          onPick={(picked) => {
            set({ amount: line.amount === null ? { low: 0, high: 0, unit: picked } : { ...line.amount, unit: picked } });
          }}
        />
        <PickOf
          path={`${at}.basis`}
          label="Weighed"
          options={[
            { value: 'edible', label: 'as it goes in' },
            { value: 'purchased', label: 'as it is bought' },
          ]}
        />
      </View>
      <View style={row}>
        <TextOf path={`${at}.cut`} label="Cut or form" orNull />
        <PickOf path={`${at}.stepId`} label="Goes in at" options={[{ value: '', label: 'nowhere yet' }, ...stepOptions]} />
        <PickOf path={`${at}.returnsAtStepId`} label="Kept aside, back in at" orNull options={[{ value: '', label: 'stays in' }, ...stepOptions]} />
      </View>
      <Toggles
        label="Before it is cut"
        options={PREP_ACTS.map((value) => ({ value, label: soupWords.ACT[value] }))}
        value={line.acts}
        onChange={(acts) => {
          set({ acts });
        }}
      />
      <Toggles
        label="In the pot"
        options={FLAGS}
        value={FLAGS.map((flag) => flag.value).filter((flag) => line[flag])}
        onChange={(on) => {
          set({ whole: on.includes('whole'), removed: on.includes('removed') });
        }}
      />
      <View style={row}>
        <PickOf path={`${at}.part`} label="Is" options={PARTS.map((value) => ({ value, label: soupWords.PART[value] }))} />
        <PickOf
          path={`${at}.scaling`}
          label="Scaled"
          options={[
            { value: 'linear', label: 'with the litres' },
            { value: 'staged', label: 'in stages: taste' },
            { value: 'fixed', label: 'always the same' },
          ]}
        />
        <PickOf
          path={`${at}.componentId`}
          label="Made here"
          orNull
          options={[{ value: '', label: 'bought' }, ...components.map((soup) => ({ value: soup.id, label: soup.name }))]}
        />
      </View>
      {line.componentId === null ? (
        <>
          <View style={row}>
            <Pick
              label="Label"
              value={unread ? 'unread' : 'read'}
              options={[
                { value: 'unread', label: 'nobody has read it' },
                { value: 'read', label: 'read' },
              ]}
              onPick={(picked) => {
                set({ allergens: picked === 'unread' ? 'unknown' : [] });
              }}
            />
            <PickOf path={`${at}.origin`} label="Comes from" options={ORIGINS.map((value) => ({ value, label: soupWords.ORIGIN[value] }))} />
          </View>
          {unread ? null : (
            <Toggles
              label="The label says it holds"
              options={ALLERGENS.map((value) => ({ value, label: words.ALLERGEN[value] }))}
              value={read}
              onChange={(allergens) => {
                set({ allergens });
              }}
            />
          )}
          <View style={row}>
            <NumberOf path={`${at}.edibleShare`} label="Left after peeling, %" orNull factor={100} />
            <NumberOf path={`${at}.gramsEach`} label="A piece weighs, g" orNull />
            <NumberOf path={`${at}.gPerMl`} label="Grams a mL" orNull />
          </View>
        </>
      ) : null}
      <View style={{ flexDirection: 'row', gap: 8 }}>
        <Action label="Take the line away" onPress={onRemove} />
        <Action kind="main" style={{ flex: 1 }} label="Close the line" onPress={onClose} />
      </View>
    </View>
  );
}
