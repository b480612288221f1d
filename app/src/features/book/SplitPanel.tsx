import { words } from '@broth/contract';
import { splitPot } from '@broth/core';
import type { Soup } from '@broth/core';
import { useState } from 'react';
import { View } from 'react-native';
import { Field } from '../../ui/Field';
import { Sheet } from '../../ui/Sheet';
import { StateMark } from '../../ui/StateMark';
import { Body, Note, Strong, Title } from '../../ui/Type';
import { amountOf } from './SoupScreen';

/** One pot shared out between the soup and its variants: how many litres of each, what each wants after the pot is cooked. */
export function SplitPanel({ soup, volumeL }: { readonly soup: Soup; readonly volumeL: number }) {
  const parts = [{ id: '', name: 'as written' }, ...soup.variants.map((variant) => ({ id: variant.id, name: variant.name }))];
  const [texts, setTexts] = useState<Readonly<Record<string, string>>>({});
  const read = parts.map((part) => {
    const text = (texts[part.id] ?? '').trim().replace(',', '.');
    return { ...part, volumeL: text === '' ? 0 : Number(text) };
  });
  const wrong = read.some((part) => Number.isNaN(part.volumeL) || part.volumeL < 0);
  const shares = wrong ? [] : read.filter((part) => part.volumeL > 0);
  const sumL = shares.reduce((sum, part) => sum + part.volumeL, 0);
  const split = splitPot(
    soup,
    shares.map((part) => ({ variantId: part.id === '' ? null : part.id, volumeL: part.volumeL })),
  );
  const own = new Set(soup.ingredients.map((line) => line.id));
  return (
    <Sheet label="Share the pot">
      <Title level={2}>Share the pot</Title>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        {parts.map((part) => (
          <Field
            key={part.id}
            label={`${part.name}, L`}
            numeric
            value={texts[part.id] ?? ''}
            onChange={(text) => {
              setTexts({ ...texts, [part.id]: text });
            }}
          />
        ))}
      </View>
      {wrong ? <StateMark mark="stop" word="Litres are numbers, 0 or more." /> : null}
      {sumL === 0 ? (
        <Note>{`Cook ${words.litres(volumeL)} once, then blend and finish each share its own way.`}</Note>
      ) : sumL > volumeL + 0.05 ? (
        <StateMark mark="soon" word={`That is ${words.litres(sumL)} out of a pot of ${words.litres(volumeL)}. Make more, or share less.`} />
      ) : (
        <Note>{`${words.litres(sumL)} of ${words.litres(volumeL)} shared out.`}</Note>
      )}
      {split.each.map(({ name, sheet }, index) => {
        const blend = sheet.steps.find((one) => one.step.phase === 'blend');
        const more = sheet.lines.filter((line) => !own.has(line.ingredientId));
        return (
          <View key={`${name} ${String(index)}`} style={{ gap: 2 }}>
            <Strong>{`${name}, ${words.litres(sheet.volumeL)}`}</Strong>
            <Body style={{ fontSize: 15 }}>
              {blend === undefined
                ? 'Not blended.'
                : `${words.litres(blend.blendL ?? 0)} through the blender${blend.fills === null ? '' : `, ${String(blend.fills)} fills of the jar`}.`}
              {more.length === 0 ? '' : ` With ${words.list(more.map((line) => `${amountOf(line)} ${line.name.toLowerCase()}`))}.`}
            </Body>
          </View>
        );
      })}
    </Sheet>
  );
}
