import { words } from '@broth/contract';
import { dueReadings, minutesBetween, openActions, standingOf } from '@broth/core';
import type { BatchRecord, DueReading, Stage } from '@broth/core';
import { useRouter } from 'expo-router';
import { useState } from 'react';
import { Pressable, ScrollView, View } from 'react-native';
import { useDay } from '../../state/useDay';
import type { OpenDay } from '../../state/useDay';
import { useNow } from '../../state/useNow';
import { usePalette } from '../../theme/theme';
import { Action } from '../../ui/Action';
import { lazyPart } from '../../ui/lazily';
import { Screen, Waiting, useIsWide } from '../../ui/Screen';
import { StateMark, markOf } from '../../ui/StateMark';
import { Body, Note, Strong, Title } from '../../ui/Type';

const BatchLog = lazyPart(() => import('../later').then((part) => part.BatchLog));
const Open = lazyPart(() => import('../later').then((part) => part.OpenActions));
const PastDate = lazyPart(() => import('../later').then((part) => part.PastDate));

interface RowProps {
  readonly day: OpenDay;
  readonly batch: BatchRecord;
  readonly due: DueReading | undefined;
  readonly now: number;
  readonly picked: boolean;
  readonly onOpen: () => void;
}

/** Where a batch is of whose temperature nothing is judged. */
function whereabouts(stage: Stage, day: OpenDay): string {
  if (stage.kind === 'cooking') return 'Cooking';
  return stage.kind === 'used' ? `Gone ${words.usedIn(stage.intoBatchIds.map(day.names.batch))}` : 'Out of the kettle';
}

function BatchRow({ day, batch, due, now, picked, onOpen }: RowProps) {
  const palette = usePalette();
  const soup = day.soupById.get(batch.soupId);
  const standing = standingOf(batch, soup, day.rules, now);
  const last = batch.readings.at(-1);
  const late = due === undefined ? null : minutesBetween(due.dueAt, now);
  const when = late === null ? '' : late >= 1 ? `Reading due ${words.duration(late)} ago` : late > -1 ? 'Reading due now' : `Next reading ${day.at(due?.dueAt ?? 0)}`;
  const { stage } = batch;
  const state = stage.kind === 'discarded' ? 'Discarded' : standing === null ? whereabouts(stage, day) : words.VERDICT[standing.kind];
  return (
    <Pressable
      role="button"
      aria-label={`${batch.name}. ${state}. ${when}. Open its log`}
      aria-current={picked ? 'true' : undefined}
      onPress={onOpen}
      style={{
        backgroundColor: palette.sheet,
        borderTopWidth: 5,
        borderTopColor: soup?.toneHex ?? palette.rim,
        borderRadius: 6,
        padding: 14,
        gap: 4,
        borderWidth: picked ? 2 : 0,
        borderColor: palette.action,
      }}
    >
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: 10 }}>
        <Strong style={{ flex: 1, fontSize: 18 }}>{batch.name}</Strong>
        {standing === null && stage.kind !== 'discarded' ? (
          <Note>{state}</Note>
        ) : (
          <StateMark mark={stage.kind === 'discarded' ? 'stop' : markOf(standing?.kind ?? 'undetermined')} word={state} />
        )}
      </View>
      {standing === null ? null : <Body style={{ fontSize: 15 }}>{words.standing(standing, day.book.kitchen.temperatureUnit, day.at)}</Body>}
      <View style={{ flexDirection: 'row', gap: 10 }}>
        {when === '' ? null : <Strong style={{ fontSize: 15 }}>{when}</Strong>}
        {last === undefined ? null : <Note>{`last ${words.degrees(last.reading.value, last.reading.unit)} at ${day.at(last.at)}`}</Note>}
      </View>
    </Pressable>
  );
}

const DOORS = [
  { path: '/log/other', label: 'Other temperature', hint: 'Log a fridge, a delivery or what thaws' },
  { path: '/record', label: "Day's record", hint: "The day's record: look through, sign, files" },
  { path: '/thermometers', label: 'Thermometers', hint: 'Thermometers: check and register' },
  { path: '/rules', label: 'Rules', hint: 'Rules in force' },
] as const;

export function LogScreen() {
  const day = useDay();
  const router = useRouter();
  const wide = useIsWide();
  const now = useNow(5000);
  const [picked, setPicked] = useState<string | null>(null);
  if (day === null) {
    return (
      <Screen title="Log">
        <Waiting />
      </Screen>
    );
  }
  const dues = dueReadings(day.state, day.soupById, day.rules, now);
  const open = openActions(day.state, day.soupById, day.rules, now);
  const dueOf = (batchId: string): DueReading | undefined => dues.find((due) => due.batchId === batchId);
  const rank = (batch: BatchRecord): number => dueOf(batch.batchId)?.dueAt ?? Number.MAX_SAFE_INTEGER;
  const logged = Object.values(day.state.batches).filter((batch) => batch.stage.kind !== 'cooking' || dueOf(batch.batchId) !== undefined || batch.readings.length > 0);
  const rows = [...logged].sort((left, right) => rank(left) - rank(right));
  const first = rows[0]?.batchId ?? null;
  const shown = day.state.batches[picked ?? first ?? ''];
  const openBatch = (batchId: string): void => {
    if (wide) setPicked(batchId);
    else router.push(`/log/${batchId}`);
  };
  const list = (
    <View style={{ gap: 12 }}>
      {open.length === 0 ? null : <Open day={day} open={open} onOpen={openBatch} />}
      {rows.length === 0 ? (
        <View style={{ gap: 8 }}>
          <Title level={2}>Nothing to log yet</Title>
          <Body>A batch appears here when its temperature counts: cooked, held hot, cooled or stored cold. Start one on Now.</Body>
        </View>
      ) : null}
      {rows.map((batch) => (
        <BatchRow
          key={batch.batchId}
          day={day}
          batch={batch}
          due={dueOf(batch.batchId)}
          now={now}
          picked={wide && shown?.batchId === batch.batchId}
          onOpen={() => {
            openBatch(batch.batchId);
          }}
        />
      ))}
      <PastDate day={day} />
      {day.state.unread.length === 0 ? null : <Body>{`${String(day.state.unread.length)} entries name a batch nobody started. They are kept; the lead decides.`}</Body>}
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        {DOORS.map(({ path, label, hint }) => (
          <Action
            key={path}
            style={{ flexGrow: 1, flexBasis: '45%' }}
            label={label}
            hint={hint}
            onPress={() => {
              router.push(path);
            }}
          />
        ))}
      </View>
      <Note>{words.authority(day.rulesNow)}</Note>
    </View>
  );
  if (!wide) return <Screen title="Log">{list}</Screen>;
  return (
    <Screen title="Log" scroll={false}>
      <View style={{ flex: 1, flexDirection: 'row' }}>
        <ScrollView tabIndex={0} style={{ flex: 2 }} contentContainerStyle={{ padding: 20 }}>
          {list}
        </ScrollView>
        <ScrollView tabIndex={0} style={{ flex: 3 }} contentContainerStyle={{ padding: 20 }}>
          {shown === undefined ? null : (
            <View style={{ gap: 12 }}>
              <Title level={2}>{shown.name}</Title>
              <BatchLog key={shown.batchId} day={day} batch={shown} />
            </View>
          )}
        </ScrollView>
      </View>
    </Screen>
  );
}
