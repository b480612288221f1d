import * as soupWords from '@broth/contract/soupWords';
import { words } from '@broth/contract';
import { orderList, prepList, soupOf } from '@broth/core';
import type { PrepBatch } from '@broth/core';
import { useState } from 'react';
import { View } from 'react-native';
import { usePreferences } from '../../state/preferences';
import { useBook } from '../../state/useBook';
import { useDay } from '../../state/useDay';
import { usePlan } from '../../state/usePlan';
import { Choice } from '../../ui/Action';
import { Tick } from '../../ui/Field';
import { Screen, WaitingForPlan, useIsWide } from '../../ui/Screen';
import { Sheet } from '../../ui/Sheet';
import { Body, Figure, Note, Strong, Title } from '../../ui/Type';
import { useBack } from './useBack';

const PARTS = [
  { value: 'prep', label: 'Prep' },
  { value: 'order', label: 'Order' },
] as const;

/** What is washed, peeled and cut today, and what is bought for it, across all soups. */
export function PrepScreen() {
  const open = useBook();
  const day = useDay();
  const wide = useIsWide();
  const back = useBack('/batches');
  const shown = usePlan(usePreferences((state) => state.who));
  const [part, setPart] = useState<(typeof PARTS)[number]['value']>('prep');
  const [done, setDone] = useState<ReadonlySet<string>>(new Set());
  if (open === null || day === null || shown === null) {
    return (
      <Screen title="Prep" back={back}>
        <WaitingForPlan />
      </Screen>
    );
  }
  const batches = shown.plan.batches.flatMap((batch): PrepBatch[] => {
    const soup = soupOf(batch, day.soupById);
    if (soup === undefined || batch.state === 'finished') return [];
    const begun = Object.keys(day.state.batches[batch.id]?.steps ?? {});
    return [{ name: batch.name, soup, volumeL: batch.volumeL, startMin: batch.steps[0]?.startMin ?? null, begunSteps: begun }];
  });
  const items = prepList(batches);
  const order = orderList(batches, open.pantry);
  const us = open.book.kitchen.temperatureUnit === 'F';
  const both = (grams: number): string => (us && grams > 0 ? `${words.amountText(grams, 'g')} (${soupWords.usText(grams, 'g')})` : words.amountText(grams, 'g'));
  // Who is there by then to have it cut.
  const hands = (by: number | null): string => {
    const people = open.book.station.people.filter((person) => person.off !== true && (by === null || person.shift.fromMin < by));
    return people.length === 0
      ? 'nobody is on shift before it'
      : `hands: ${words.list(people.map((person) => `${person.name.split(' ')[0] ?? person.name} from ${words.clock(person.shift.fromMin)}`))}`;
  };
  const times = [...new Set(items.map((item) => item.neededByMin))];
  return (
    <Screen title="Prep" back={back}>
      <Choice label="List" options={PARTS} value={part} onPick={setPart} />
      <View style={wide ? { maxWidth: 860, gap: 12 } : { gap: 12 }}>
        {part === 'prep' ? (
          <>
            {items.length === 0 ? <Body>Nothing to cut: no batch is planned, or all of it is in the pots.</Body> : null}
            {times.map((time) => (
              <Sheet key={String(time)} label={time === null ? 'Not planned' : `From ${words.clock(time)}`}>
                <Title level={2}>{time === null ? 'Not planned yet' : `On the board by ${words.clock(time)}`}</Title>
                <Note>{hands(time)}</Note>
                {items
                  .filter((item) => item.neededByMin === time)
                  .map((item) => {
                    const key = `${item.name} ${item.cut ?? ''} ${item.acts.join(' ')}`;
                    const what = [item.name, item.cut].filter(Boolean).join(', ');
                    return (
                      <Tick
                        key={key}
                        label={`${what}, ${words.amountText(item.edibleG, 'g')}`}
                        done={done.has(key)}
                        onPress={() => {
                          const next = new Set(done);
                          if (!next.delete(key)) next.add(key);
                          setDone(next);
                        }}
                      >
                        <View style={{ flexDirection: 'row', gap: 8, alignItems: 'baseline' }}>
                          <Strong style={{ fontSize: 19, minWidth: 84 }}>{item.unmeasured && item.edibleG === 0 ? 'by eye' : words.amountText(item.edibleG, 'g')}</Strong>
                          <Body style={{ flex: 1 }}>{what}</Body>
                        </View>
                        <Note>
                          {`take ${both(item.purchasedG)}${item.pieces === null ? '' : `, about ${words.number(item.pieces)}`}${item.acts.length > 0 ? ` · ${item.acts.join(', ')}` : ''} · ${item.uses.map((use) => `${use.batch}${use.edibleG === null ? '' : ` ${words.amountText(Math.round(use.edibleG), 'g')}`}`).join(', ')}`}
                        </Note>
                      </Tick>
                    );
                  })}
              </Sheet>
            ))}
          </>
        ) : (
          <Sheet label="Order">
            <Title level={2}>To buy for these batches</Title>
            <Figure>{order.cost.toFixed(2)}</Figure>
            <Note>{order.unpriced.length === 0 ? 'All of it has a price in the pantry.' : `At least: no price for ${words.list(order.unpriced)}.`}</Note>
            {order.items.map((item) => (
              <View key={`${item.name} ${item.foodId ?? ''}`} style={{ flexDirection: 'row', gap: 8 }}>
                <Strong style={{ width: 92, textAlign: 'right', fontVariant: ['tabular-nums'] }}>{item.unmeasured ? 'by eye' : words.amountText(item.amount, item.unit)}</Strong>
                <Body style={{ flex: 1 }}>{item.name}</Body>
                <Note>{item.cost === null ? '' : item.cost.toFixed(2)}</Note>
              </View>
            ))}
          </Sheet>
        )}
      </View>
    </Screen>
  );
}
