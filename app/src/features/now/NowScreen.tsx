import { words } from '@broth/contract';
import { dueReadings, minutesBetween, tasks } from '@broth/core';
import type { DayPlan, DueReading, RulePack, Task } from '@broth/core';
import { useRouter } from 'expo-router';
import { useEffect, useState } from 'react';
import { View } from 'react-native';
import { useKitchen } from '../../state/kitchen';
import type { NewEvent } from '../../state/kitchen';
import { usePreferences } from '../../state/preferences';
import { useDay } from '../../state/useDay';
import type { OpenDay } from '../../state/useDay';
import { usePlan } from '../../state/usePlan';
import { useNow } from '../../state/useNow';
import { Action } from '../../ui/Action';
import { Screen, Waiting, useIsWide } from '../../ui/Screen';
import { Sheet } from '../../ui/Sheet';
import { StateMark } from '../../ui/StateMark';
import { Body, Figure, Note, Strong, Title } from '../../ui/Type';
import { Vessel } from '../../ui/Vessel';
import { TaskCard, countdown } from './TaskCard';
import { WhereTo } from './WhereTo';

/** What starts within this is worth showing now. Minutes. */
const SOON_MIN = 20;
/** A reading is shown here from this long before it is due. Minutes. */
const DUE_AHEAD_MIN = 10;
/** How long the last tap can be taken back here; later it is corrected in the log. */
const UNDO_MS = 30_000;

function DueRow({ day, due, now }: { readonly day: OpenDay; readonly due: DueReading; readonly now: number }) {
  const router = useRouter();
  const batch = day.state.batches[due.batchId];
  const late = minutesBetween(due.dueAt, now);
  return (
    <Sheet rim={day.soupById.get(batch?.soupId ?? '')?.toneHex} label={`Reading due: ${day.names.batch(due.batchId)}`}>
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: 10 }}>
        <StateMark mark={late > 0 ? 'soon' : 'open'} />
        <View style={{ flex: 1 }}>
          <Strong>{`${day.names.batch(due.batchId)}: ${words.PURPOSE[due.purpose].toLowerCase()} reading`}</Strong>
          <Note>{late >= 1 ? `due ${words.duration(late)} ago` : late > -1 ? 'due now' : `due ${day.at(due.dueAt)}`}</Note>
        </View>
        <Action
          kind="main"
          label="Log"
          hint={`Log ${day.names.batch(due.batchId)}`}
          onPress={() => {
            router.push(`/log/${due.batchId}`);
          }}
        />
      </View>
    </Sheet>
  );
}

function RunningRow({ day, task, now, onOpen }: { readonly day: OpenDay; readonly task: Task; readonly now: number; readonly onOpen: () => void }) {
  const soup = day.soupById.get(task.soupId);
  const vessel = day.equipmentById.get(task.vesselId ?? '');
  return (
    <Sheet rim={soup?.toneHex} label={`${task.batchName}: ${task.step.name}`}>
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: 10 }}>
        {vessel?.kind === 'vessel' ? <Vessel name={vessel.name} capacityL={vessel.capacityL} fillL={task.volumeL} toneHex={soup?.toneHex ?? '#888888'} scale={14} /> : null}
        <View style={{ flex: 1 }}>
          <Strong>{task.batchName}</Strong>
          <Note>{`${words.PHASE[task.step.phase].toLowerCase()}${task.step.lookEveryMin === null ? '' : `, look every ${String(task.step.lookEveryMin)} min`}`}</Note>
          <Figure style={{ fontSize: 22, lineHeight: 28 }}>{countdown(task, now)}</Figure>
        </View>
        <Action label="Open" hint={`Open ${task.batchName}`} onPress={onOpen} />
      </View>
    </Sheet>
  );
}

export function NowScreen() {
  const day = useDay();
  const router = useRouter();
  const wide = useIsWide();
  const who = usePreferences((state) => state.who);
  const shown = usePlan(who);
  const record = useKitchen((state) => state.record);
  const now = useNow(1000);
  const [opened, setOpened] = useState<string | null>(null);
  const [last, setLast] = useState<{ readonly ids: readonly string[]; readonly says: string } | null>(null);
  useEffect(() => {
    if (last === null) return;
    const timer = setTimeout(() => {
      setLast(null);
    }, UNDO_MS);
    return () => {
      clearTimeout(timer);
    };
  }, [last]);
  if (day === null) {
    return (
      <Screen title="Now">
        <Waiting />
      </Screen>
    );
  }
  const accepted = (day.view.plan?.plan ?? null) as DayPlan | null;
  const all = tasks(day.state, accepted, day.soupById, day.view.midnight);
  const due = dueReadings(day.state, day.soupById, day.book.pack as RulePack, now).filter((one) => minutesBetween(now, one.dueAt) <= DUE_AHEAD_MIN);
  const finished = Object.values(day.state.batches).filter((batch) => batch.stage.kind === 'finished');
  const unattended = all.filter((task) => task.state === 'running' && task.step.attention !== 'hands' && task.batchId !== opened && (task.upAt ?? 0) > now);
  const forHands = all.filter((task) => task.state !== 'toStart' && !unattended.includes(task));
  const coming = all.filter((task) => task.state === 'toStart');
  const soon = coming.filter((task) => minutesBetween(now, task.plannedAt ?? 0) <= SOON_MIN);
  // With nothing else to do, the next batch may be begun early: the card says when it was planned.
  const offered = [...soon, ...(soon.length === 0 && forHands.length === 0 ? coming.slice(0, 1) : [])].slice(0, 3);
  const later = coming.filter((task) => !offered.includes(task)).slice(0, 4);
  const act = (events: readonly NewEvent[], says: string): void => {
    const ids = record(events);
    setLast(ids.length === 0 ? null : { ids, says });
    setOpened(null);
  };
  const undo = (): void => {
    if (last === null) return;
    record(last.ids.map((eventId) => ({ kind: 'event.voided/1', data: { eventId, reason: 'Taken back at once' } })));
    setLast(null);
  };

  // Side by side the columns share the breadth; one below the other they keep their own height.
  const column = wide ? ({ flex: 1, gap: 12 } as const) : ({ gap: 12 } as const);
  const left = (
    <View style={column}>
      {due.map((one) => (
        <DueRow key={one.batchId} day={day} due={one} now={now} />
      ))}
      {finished.map((batch) => (
        <WhereTo key={batch.batchId} day={day} batch={batch} onDo={act} />
      ))}
      {[...forHands, ...offered].map((task) => (
        <TaskCard key={`${task.batchId} ${task.step.id} ${task.state}`} day={day} task={task} now={now} onDo={act} />
      ))}
      {accepted === null ? (
        <Sheet>
          <Title level={2}>No plan yet</Title>
          <Body>{shown === null ? 'The draft is being worked out.' : 'The board has a draft. Look at it and take it; then each pair of hands sees here what to do next.'}</Body>
          <Action
            kind="main"
            label="To the board"
            onPress={() => {
              router.navigate('/board');
            }}
          />
        </Sheet>
      ) : null}
      {accepted !== null && all.length === 0 && finished.length === 0 && due.length === 0 ? (
        <Body>Everything on the plan is done. The log shows what is cooling or held.</Body>
      ) : null}
    </View>
  );
  const right = (
    <View style={column}>
      {unattended.length === 0 ? null : <Title level={2}>Running without hands</Title>}
      {unattended.map((task) => (
        <RunningRow
          key={task.batchId}
          day={day}
          task={task}
          now={now}
          onOpen={() => {
            setOpened(task.batchId);
          }}
        />
      ))}
      {later.length === 0 ? null : (
        <View style={{ gap: 4 }}>
          <Title level={2}>Coming</Title>
          {later.map((task) => (
            <View key={task.batchId} style={{ flexDirection: 'row', gap: 10 }}>
              <Strong style={{ width: 56, textAlign: 'right', fontVariant: ['tabular-nums'] }}>{task.plannedAt === null ? '' : day.at(task.plannedAt)}</Strong>
              <Body style={{ flex: 1 }}>{`${task.batchName}, ${words.litres(task.volumeL)}: ${words.PHASE[task.step.phase].toLowerCase()}`}</Body>
            </View>
          ))}
        </View>
      )}
    </View>
  );
  const foot =
    last === null ? null : (
      <View role="status" style={{ flexDirection: 'row', alignItems: 'center', gap: 12 }}>
        <Body style={{ flex: 1 }}>{last.says}</Body>
        <Action label="Undo" onPress={undo} />
      </View>
    );
  return (
    <Screen title={`Now ${day.at(now)}`} foot={foot}>
      {who === null ? (
        <Sheet>
          <Title level={2}>Who holds this phone?</Title>
          <Body>Each entry carries a name.</Body>
          <Action
            kind="main"
            label="Pick a name"
            onPress={() => {
              router.push('/kitchen');
            }}
          />
        </Sheet>
      ) : null}
      {wide ? (
        <View style={{ flexDirection: 'row', gap: 20 }}>
          {left}
          {right}
        </View>
      ) : (
        <>
          {left}
          {right}
        </>
      )}
    </Screen>
  );
}
