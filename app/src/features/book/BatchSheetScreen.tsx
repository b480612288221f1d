import type { CarriedOver } from '@broth/contract/soupWords';
import { words } from '@broth/contract';
import { DOUBTED_DOSE, doseFactor, soupOf, vesselsOf } from '@broth/core';
import type { AdditionRecord, DayPlan, SheetLine } from '@broth/core';
import { useLocalSearchParams, useRouter } from 'expo-router';
import { useState } from 'react';
import { View } from 'react-native';
import { useKitchen } from '../../state/kitchen';
import { useBook } from '../../state/useBook';
import { useDay } from '../../state/useDay';
import { Action } from '../../ui/Action';
import { Screen, Waiting, useIsWide } from '../../ui/Screen';
import { Sheet } from '../../ui/Sheet';
import { Body, Note, Strong, Title } from '../../ui/Type';
import type { Addition } from './PutRight';
import { SheetView } from './SheetView';
import { useAwake } from './useAwake';
import { useBack } from './useBack';

/** What went into the pot, in order; each entry can be taken back. */
function Ledger({
  additions,
  at,
  onVoid,
}: {
  readonly additions: readonly AdditionRecord[];
  readonly at: (instant: number) => string;
  readonly onVoid: (eventId: string) => void;
}) {
  if (additions.length === 0) return null;
  const salt = additions.filter((added) => added.for === 'salt' && added.unit === 'g').reduce((sum, added) => sum + (added.amount ?? 0), 0);
  return (
    <Sheet label="What went in">
      <Title level={2}>What went in</Title>
      {salt > 0 ? <Strong>{`${words.amountText(salt, 'g')} of salt in steps so far.`}</Strong> : null}
      {[...additions].reverse().map((added) => (
        <View key={added.eventId} style={{ flexDirection: 'row', alignItems: 'center', gap: 8 }}>
          <Note style={{ width: 48 }}>{at(added.at)}</Note>
          <Body style={{ flex: 1, fontSize: 15 }}>{`${added.amount === null ? 'by eye' : words.amountText(added.amount, added.unit)} ${added.name}`}</Body>
          <Action
            label="Take back"
            hint={`Take back ${added.name}`}
            onPress={() => {
              onVoid(added.eventId);
            }}
          />
        </View>
      ))}
    </Sheet>
  );
}

/** The sheet of a batch of the day: ticks are entered in the record, with what really went in. */
export function BatchSheetScreen() {
  const { batchId } = useLocalSearchParams<{ batchId: string }>();
  const open = useBook();
  const day = useDay();
  const wide = useIsWide();
  const router = useRouter();
  const back = useBack('/now');
  const record = useKitchen((state) => state.record);
  const [chosen, setChosen] = useState<number | null>(null);
  const [doubted, setDoubted] = useState<{ readonly addition: Addition; readonly factor: number } | null>(null);
  useAwake(true);
  if (open === null || day === null) {
    return (
      <Screen title="Batch sheet" back={back}>
        <Waiting />
      </Screen>
    );
  }
  const batch = day.state.batches[batchId];
  const plan = day.view.plan?.plan as DayPlan | undefined;
  const planned = plan?.batches.find((one) => one.id === batchId);
  const washes = plan?.washes.filter((one) => one.beforeBatchId === batchId) ?? [];
  const carried = washes.flatMap((wash): CarriedOver[] => {
    const kind = day.equipmentById.get(wash.unitId)?.kind;
    return wash.carriesOver.length > 0 && (kind === 'jar' || kind === 'immersion') ? [{ tool: kind, allergens: wash.carriesOver, from: [day.names.batch(wash.afterBatchId)] }] : [];
  });
  const made = batch ?? planned;
  const soup = made === undefined ? undefined : soupOf(made, day.soupById);
  if (made === undefined || soup === undefined) {
    return (
      <Screen title="Batch sheet" back={back}>
        <Body>There is no such batch today. Pick one under Batches, or another day at the top.</Body>
      </Screen>
    );
  }
  const firstOpen = soup.steps.findIndex((step) => (batch?.steps[step.id]?.doneAt ?? null) === null);
  const at = chosen ?? Math.max(0, firstOpen);
  const additions = batch?.additions ?? [];
  const tickOf = (key: string): AdditionRecord | undefined => additions.find((added) => added.ingredientId === key && added.for === 'card');
  const ticked = new Set(additions.filter((added) => added.for === 'card' && added.ingredientId !== null).map((added) => added.ingredientId ?? ''));
  const takeBack = (eventId: string): void => {
    record([{ kind: 'event.voided/1', data: { eventId, reason: 'Taken back on the sheet' } }]);
  };
  const tick = (line: SheetLine): void => {
    const before = tickOf(line.ingredientId);
    if (before !== undefined) takeBack(before.eventId);
    else
      record([
        { kind: 'ingredient.added/1', data: { batchId, ingredientId: line.ingredientId, name: line.name, amount: line.amount, unit: line.unit, for: 'card', allergens: null } },
      ]);
  };
  const add = (addition: Addition): void => {
    setDoubted(null);
    record([{ kind: 'ingredient.added/1', data: { batchId, ...addition, allergens: open.pantry.find((food) => food.name === addition.name)?.allergens ?? null } }]);
  };
  return (
    <Screen
      title={made.name}
      day={false}
      back={back}
      foot={
        doubted !== null ? (
          <View role="alert" style={{ gap: 8 }}>
            <Body>{`With ${words.amountText(doubted.addition.amount, doubted.addition.unit)} of ${doubted.addition.name.toLowerCase()} the pot has ${words.number(doubted.factor)} times what the card says. What is in cannot be taken out.`}</Body>
            <View style={{ flexDirection: 'row', gap: 8 }}>
              <Action
                style={{ flex: 1 }}
                label="No, a slip"
                onPress={() => {
                  setDoubted(null);
                }}
              />
              <Action
                style={{ flex: 1 }}
                kind="main"
                label="Yes, it went in"
                onPress={() => {
                  add(doubted.addition);
                }}
              />
            </View>
          </View>
        ) : batch === undefined ? (
          <View style={{ flexDirection: 'row', alignItems: 'center', gap: 12 }}>
            <Body style={{ flex: 1 }}>Not begun yet: ticks count from when it is.</Body>
            <Action
              kind="main"
              label="To Now"
              onPress={() => {
                router.navigate('/now');
              }}
            />
          </View>
        ) : undefined
      }
    >
      <View style={wide ? { maxWidth: 1180, gap: 12 } : { gap: 12 }}>
        {soup.version !== (open.soupById.get(soup.id)?.version ?? soup.version) ? (
          <Note>{`By version ${String(soup.version)}, as it was when this batch was begun. The book has a newer one.`}</Note>
        ) : null}
        {washes.map((wash) => (
          <Note key={wash.unitId}>
            {`Before it: ${wash.kind === 'full' ? 'a full wash' : 'a rinse'} of ${day.names.resource(wash.unitId)}${wash.carriesOver.length === 0 ? '' : `, which carries ${words.list(wash.carriesOver.map((one) => words.ALLERGEN[one]))}`}.`}
          </Note>
        ))}
        <SheetView
          open={open}
          soup={soup}
          volumeL={made.volumeL}
          vessel={vesselsOf(open.book.station).find((one) => one.id === made.vesselId) ?? null}
          at={at}
          carried={carried}
          onGo={setChosen}
          ticked={ticked}
          onTick={batch === undefined ? () => undefined : tick}
          onAdd={
            batch === undefined
              ? null
              : (addition) => {
                  const factor = doseFactor(soup, batch, addition);
                  if (factor !== null && factor >= DOUBTED_DOSE) setDoubted({ addition, factor });
                  else add(addition);
                }
          }
        />
        <Ledger additions={additions} at={day.at} onVoid={takeBack} />
      </View>
    </Screen>
  );
}
