import { words } from '@broth/contract';
import { litresFor, variantOf, vesselsOf } from '@broth/core';
import type { Soup, Target } from '@broth/core';
import { useLocalSearchParams } from 'expo-router';
import { useState } from 'react';
import { View } from 'react-native';
import { useBook } from '../../state/useBook';
import type { OpenBook } from '../../state/useBook';
import { Action } from '../../ui/Action';
import { Field, Pick } from '../../ui/Field';
import { Screen, Waiting, useIsWide } from '../../ui/Screen';
import { Sheet } from '../../ui/Sheet';
import { Body } from '../../ui/Type';
import { SheetView } from './SheetView';
import { SplitPanel } from './SplitPanel';
import { useAwake } from './useAwake';
import { useBack } from './useBack';

const SERVING_LOSS = 0.04;
const BY = [
  { value: 'litres', label: 'Litres' },
  { value: 'portions', label: 'Portions' },
  { value: 'vessel', label: 'A full kettle' },
  { value: 'main', label: 'What is there, kg bought' },
] as const;
/** How warm a pot begins: all of it from the walk-in and the tap, or stock kept hot. Common practice. */
const STARTS = [
  { value: '15', label: 'cold' },
  { value: '60', label: 'hot' },
];
type By = (typeof BY)[number]['value'];

/** Reads what was typed: above 0 and no typing slip, or why not. */
function readAmount(text: string): { readonly value: number } | { readonly message: string } {
  const value = Number(text.trim().replace(',', '.'));
  if (text.trim() === '' || Number.isNaN(value)) return { message: 'Type a number, like 26 or 7.5.' };
  if (value <= 0) return { message: 'It must be above 0.' };
  return value > 2000 ? { message: 'Above 2000 is a typing slip. Check the digits.' } : { value };
}

function targetOf(by: By, value: number, soup: Soup, lineId: string, workingMaxL: number): Target {
  switch (by) {
    case 'litres':
      return { by: 'litres', volumeL: value };
    case 'portions':
      return { by: 'portions', portions: value, portionMl: soup.portionMl, servingLoss: SERVING_LOSS };
    case 'vessel':
      return { by: 'vessel', workingMaxL };
    case 'main':
      return { by: 'main', lineId, massG: value * 1000, basis: 'purchased' };
  }
}

function Inner({ open, soup: base }: { readonly open: OpenBook; readonly soup: Soup }) {
  const wide = useIsWide();
  const vessels = vesselsOf(open.book.station).filter((vessel) => vessel.inUse);
  const mains = base.ingredients.filter((line) => line.part === 'main' || line.part === 'vegetable' || line.part === 'protein');
  const [by, setBy] = useState<By>('litres');
  const [text, setText] = useState(words.number(base.makesL));
  const [lineId, setLineId] = useState(mains[0]?.id ?? '');
  const [variantId, setVariantId] = useState('');
  const read = by === 'vessel' ? { value: 1 } : readAmount(text);
  const [picked, setPicked] = useState('');
  const firstVessel = vessels.find((vessel) => vessel.id === picked) ?? vessels[0];
  const asked = 'value' in read ? litresFor(base, targetOf(by, read.value, base, lineId, firstVessel?.workingMaxL ?? base.makesL)) : null;
  const volumeL = asked === null ? null : Number(asked.toFixed(2));
  // The smallest kettle it fits, unless one was picked.
  const vessel =
    vessels.find((one) => one.id === picked) ??
    [...vessels].sort((left, right) => left.workingMaxL - right.workingMaxL).find((one) => volumeL !== null && one.workingMaxL >= volumeL) ??
    vessels[0] ??
    null;
  const [at, setAt] = useState(0);
  const [startC, setStartC] = useState('15');
  const [ticked, setTicked] = useState<ReadonlySet<string>>(new Set());
  const soup = variantId === '' ? base : variantOf(base, variantId);
  useAwake(true);
  const print = (paper: 'a4' | 'letter'): void => {
    if (volumeL === null) return;
    const query = new URLSearchParams({ litres: String(volumeL), paper, ...(vessel === null ? {} : { vessel: vessel.id }), ...(variantId === '' ? {} : { variant: variantId }) });
    window.open(`/api/kitchens/${open.book.kitchen.id}/soups/${base.id}/sheet.pdf?${query.toString()}`, '_blank');
  };
  return (
    <View style={wide ? { maxWidth: 1180, gap: 12 } : { gap: 12 }}>
      <Sheet label="How much">
        <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
          <Pick label="Make it by" value={by} options={BY} onPick={setBy} width={178} />
          {by === 'vessel' ? null : (
            <Field
              label={by === 'litres' ? 'Litres' : by === 'portions' ? `Portions of ${words.number(base.portionMl)} mL` : 'Kilograms'}
              numeric
              value={text}
              onChange={setText}
              message={'message' in read ? read.message : null}
            />
          )}
          {by === 'main' ? <Pick label="Of" value={lineId} options={mains.map((line) => ({ value: line.id, label: line.name }))} onPick={setLineId} /> : null}
        </View>
        <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
          <Pick
            label="In"
            value={vessel?.id ?? ''}
            options={vessels.map((one) => ({ value: one.id, label: `${one.name}, up to ${words.litres(one.workingMaxL)}` }))}
            onPick={setPicked}
          />
          <Pick label="Stock goes in" value={startC} options={STARTS} onPick={setStartC} width={110} />
          {base.variants.length === 0 ? null : (
            <Pick
              label="As"
              value={variantId}
              options={[{ value: '', label: 'written' }, ...base.variants.map((one) => ({ value: one.id, label: one.name }))]}
              onPick={setVariantId}
            />
          )}
        </View>
        <View style={{ flexDirection: 'row', gap: 8 }}>
          <Action
            style={{ flex: 1 }}
            label="Print on A4"
            disabled={volumeL === null}
            onPress={() => {
              print('a4');
            }}
          />
          <Action
            style={{ flex: 1 }}
            label="Print on Letter"
            disabled={volumeL === null}
            onPress={() => {
              print('letter');
            }}
          />
        </View>
      </Sheet>
      {volumeL === null ? (
        <Body>{'message' in read ? 'The sheet comes when the number is right.' : 'That line cannot be weighed: its amount on the card is not measured yet.'}</Body>
      ) : (
        <SheetView
          open={open}
          soup={soup}
          volumeL={volumeL}
          vessel={vessel}
          at={Math.min(at, Math.max(0, soup.steps.length - 1))}
          onGo={setAt}
          ticked={ticked}
          onTick={(line) => {
            const next = new Set(ticked);
            if (!next.delete(line.ingredientId)) next.add(line.ingredientId);
            setTicked(next);
          }}
          onAdd={null}
          startC={Number(startC)}
        />
      )}
      {volumeL === null || base.variants.length === 0 ? null : <SplitPanel soup={base} volumeL={volumeL} />}
    </View>
  );
}

/** The sheet of a soup for any litres, before there is a batch. */
export function FreeSheetScreen() {
  const { soupId } = useLocalSearchParams<{ soupId: string }>();
  const open = useBook();
  const back = useBack(`/book/${soupId}`);
  const soup = open?.soupById.get(soupId);
  return (
    <Screen title={soup === undefined ? 'Batch sheet' : `Sheet: ${soup.shortName}`} day={false} back={back}>
      {open === null ? <Waiting /> : soup === undefined ? <Body>This soup is not in the book.</Body> : <Inner open={open} soup={soup} />}
    </Screen>
  );
}
