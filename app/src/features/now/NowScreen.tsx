import { words } from '@broth/contract';
import { heldAside, minutesBetween, soupOf, takesHands } from '@broth/core';
import type { Task } from '@broth/core';
import { useRouter } from 'expo-router';
import { useEffect, useState } from 'react';
import type { ReactNode } from 'react';
import { View } from 'react-native';
import { useKitchen } from '../../state/kitchen';
import type { NewEvent } from '../../state/kitchen';
import { usePreferences } from '../../state/preferences';
import type { OpenDay } from '../../state/useDay';
import { useHands } from '../../state/useHands';
import { isOffer, usePlan } from '../../state/usePlan';
import { useNow } from '../../state/useNow';
import { Action, Choice } from '../../ui/Action';
import { lazyPart } from '../../ui/lazily';
import { Screen, Waiting, useIsWide } from '../../ui/Screen';
import { Sheet } from '../../ui/Sheet';
import { StateMark } from '../../ui/StateMark';
import { Body, Strong, Title } from '../../ui/Type';
import { useAwake } from '../book/useAwake';
import { DayChanged } from './DayChanged';
import { DueRow, LookRow, RunningRow, TimerRow, WashRow, looksDue } from './rows';
import { TaskCard } from './TaskCard';
import { WhereTo } from './WhereTo';

const OpenActions = lazyPart(() => import('../later').then((part) => part.OpenActions));
const AtTheCounter = lazyPart(() => import('../later').then((part) => part.AtTheCounter));

/** What starts within this is worth showing now. Minutes. */
const SOON_MIN = 20;
/** A reading is shown here from this long before it is due. Minutes. */
const DUE_AHEAD_MIN = 10;
/** How long the last tap can be taken back here; later it is corrected in the log. */
const UNDO_MS = 30_000;
/** How long somebody is told whose tap counted. Minutes. */
const SECOND_SHOWN_MIN = 10;

const WHOSE = [
  { value: 'me', label: 'For me' },
  { value: 'all', label: 'For everyone' },
] as const;

/** Pieces that were lifted out stay in sight until they are back in the pot. */
function Aside({ day }: { readonly day: OpenDay }) {
  const trays = Object.values(day.state.batches).flatMap((batch) => {
    const soup = soupOf(batch, day.soupById);
    const held = soup === undefined || batch.stage.kind !== 'cooking' ? [] : heldAside(soup, batch);
    return held.length === 0 ? [] : [{ batch, held }];
  });
  return trays.map(({ batch, held }) => (
    <Sheet key={batch.batchId} rim={day.soupById.get(batch.soupId)?.toneHex} label={`Held aside for ${batch.name}`}>
      <View style={{ flexDirection: 'row', gap: 10 }}>
        <StateMark mark="open" />
        <Body style={{ flex: 1 }}>{`Held aside for ${batch.name}: ${words.list(held)}.`}</Body>
      </View>
    </Sheet>
  ));
}

/** Whose tap counted where two tapped the same: told to the second for a while. */
function Seconds({ day, who, now }: { readonly day: OpenDay; readonly who: string | null; readonly now: number }) {
  const told = day.state.seconds.filter((one) => one.by === who && minutesBetween(one.at, now) < SECOND_SHOWN_MIN);
  return told.map((one) => (
    <Sheet key={one.eventId} label="Somebody was first">
      <Body>{words.second(one, day.nameOf, day.names, day.at)}</Body>
    </Sheet>
  ));
}

/** What hands are at, and where the day is no longer what the plan was made for. Drafts come several times a second: each draws this anew and not the page. */
function WithDayChanged({ day, who, children }: { readonly day: OpenDay; readonly who: string | null; readonly children: ReactNode }) {
  const shown = usePlan(who);
  const changed = shown === null ? null : <DayChanged day={day} shown={shown} />;
  // Nobody waits for an offer: it comes after what hands are at.
  const canWait = shown !== null && isOffer(shown);
  return (
    <>
      {canWait ? null : changed}
      {children}
      {canWait ? changed : null}
    </>
  );
}

function NoPlan({ who }: { readonly who: string | null }) {
  const router = useRouter();
  const shown = usePlan(who);
  return (
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
  );
}

export function NowScreen() {
  const router = useRouter();
  const wide = useIsWide();
  const who = usePreferences((state) => state.who);
  const { nowFor, pickNowFor } = usePreferences();
  const record = useKitchen((state) => state.record);
  const now = useNow(1000);
  const open = useHands(now);
  // It lies on the bench and is looked at: it does not go dark.
  useAwake(true);
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
  if (open === null) {
    return (
      <Screen title="Now">
        <Waiting />
      </Screen>
    );
  }
  const { day, hands } = open;
  const isMine = (task: Task): boolean => nowFor === 'all' || task.personId === null || task.personId === who;
  const all = hands.tasks;
  const due = hands.due.filter((one) => minutesBetween(now, one.dueAt) <= DUE_AHEAD_MIN);
  const finished = Object.values(day.state.batches).filter((batch) => batch.stage.kind === 'finished');
  const isUp = (task: Task): boolean => task.checkAt !== null && task.checkAt <= now;
  const unattended = all.filter((task) => task.state === 'running' && !takesHands(task) && task.batchId !== opened && (task.step.phase === 'boil' || !isUp(task)));
  const forHands = all.filter((task) => task.state !== 'toStart' && !unattended.includes(task) && (isMine(task) || task.batchId === opened));
  const looks = looksDue(hands.alarms, now).flatMap((alarm) => {
    const task = all.find((one) => one.batchId === alarm.batchId);
    return task === undefined ? [] : [{ alarm, task }];
  });
  const coming = all.filter((task) => task.state === 'toStart');
  const soon = coming.filter((task) => isMine(task) && minutesBetween(now, task.plannedAt ?? 0) <= SOON_MIN);
  // With nothing else to do, the next batch may be begun early: the card says when it was planned.
  const early = coming.filter((task) => task.batchId === opened || (soon.length === 0 && forHands.length === 0 && task === coming.find(isMine)));
  const offered = [...new Set([...soon, ...early])].slice(0, 3);
  const later = coming.filter((task) => !offered.includes(task)).slice(0, 4);
  const washes = hands.washes.filter((task) => task.ready && minutesBetween(now, task.plannedAt) <= SOON_MIN);
  const timersUp = day.state.timers.filter((timer) => timer.endsAt <= now);
  const timersOn = day.state.timers.filter((timer) => timer.endsAt > now);
  const act = (events: readonly NewEvent[], says: string): void => {
    const ids = record(events);
    setLast(ids.length === 0 ? null : { ids, says });
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
      {hands.open.length === 0 ? null : (
        <OpenActions
          day={day}
          open={hands.open}
          onOpen={(batchId) => {
            router.push(`/log/${batchId}`);
          }}
        />
      )}
      <Seconds day={day} who={who} now={now} />
      {looks.map(({ alarm, task }) => (
        <LookRow key={alarm.key} day={day} alarm={alarm} task={task} now={now} onDo={act} />
      ))}
      {timersUp.map((timer) => (
        <TimerRow key={timer.eventId} timer={timer} now={now} onDo={act} />
      ))}
      {due.map((one) => (
        <DueRow key={one.batchId} day={day} due={one} now={now} />
      ))}
      {/* Below what is tapped in a hurry: a search ends when it ends, and must not push a button away under a thumb. */}
      <WithDayChanged day={day} who={who}>
        {finished.map((batch) => (
          <WhereTo key={batch.batchId} day={day} plan={hands.plan} batch={batch} onDo={act} />
        ))}
        {forHands.map((task) => (
          <TaskCard key={`${task.batchId} ${task.step.id}`} day={day} hands={hands} task={task} now={now} onDo={act} />
        ))}
        {washes.map((task) => (
          <WashRow key={`${task.wash.unitId} ${task.wash.beforeBatchId}`} day={day} task={task} now={now} onDo={act} />
        ))}
        {offered.map((task) => (
          <TaskCard key={`${task.batchId} ${task.step.id}`} day={day} hands={hands} task={task} now={now} onDo={act} />
        ))}
      </WithDayChanged>
      {hands.plan === null ? <NoPlan who={who} /> : null}
      {hands.plan !== null && all.length === 0 && finished.length === 0 && due.length === 0 ? (
        <Body>Everything on the plan is done. The log shows what is cooling or held.</Body>
      ) : null}
      {hands.plan !== null && all.length > 0 && forHands.length + offered.length + finished.length + due.length === 0 ? (
        <Body>{nowFor === 'me' ? 'Nothing for your hands right now.' : 'Nothing for hands right now.'}</Body>
      ) : null}
    </View>
  );
  const right = (
    <View style={column}>
      <Aside day={day} />
      {unattended.length + timersOn.length === 0 ? null : <Title level={2}>Running without hands</Title>}
      {unattended.map((task) => (
        <RunningRow
          key={task.batchId}
          day={day}
          task={task}
          plan={hands.plan}
          now={now}
          onDo={act}
          onOpen={() => {
            setOpened(task.batchId);
          }}
        />
      ))}
      {timersOn.map((timer) => (
        <TimerRow key={timer.eventId} timer={timer} now={now} onDo={act} />
      ))}
      <AtTheCounter day={day} plan={hands.plan} now={now} onDo={act} />
      {later.length === 0 ? null : (
        <View style={{ gap: 4 }}>
          <Title level={2}>Coming</Title>
          {later.map((task) => (
            <View key={task.batchId} style={{ flexDirection: 'row', alignItems: 'center', gap: 10 }}>
              <Strong style={{ width: 56, textAlign: 'right', fontVariant: ['tabular-nums'] }}>{task.plannedAt === null ? '' : day.at(task.plannedAt)}</Strong>
              <Body style={{ flex: 1 }}>{`${task.batchName}, ${words.litres(task.volumeL)}: ${words.PHASE[task.step.phase].toLowerCase()}`}</Body>
              <Action
                label="Open"
                hint={`Open ${task.batchName}`}
                onPress={() => {
                  setOpened(task.batchId);
                }}
              />
            </View>
          ))}
        </View>
      )}
      {wide ? (
        <Action
          label="For the pass"
          hint="Large, to be read from the pass"
          onPress={() => {
            router.push('/pass');
          }}
        />
      ) : null}
      <Action
        label="Something happened…"
        hint="Something happened: out of order, away, spoiled, a note, a timer, handing over"
        onPress={() => {
          router.push('/happened');
        }}
      />
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
      ) : hands.plan === null ? null : (
        <Choice label="Whose work is shown" value={nowFor} options={WHOSE} onPick={pickNowFor} />
      )}
      {wide ? (
        <View style={{ flexDirection: 'row', gap: 20, alignItems: 'flex-start' }}>
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
