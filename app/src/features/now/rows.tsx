import { words } from '@broth/contract';
import { minutesBetween, soupOf, upNow } from '@broth/core';
import type { Alarm, DayPlan, DueReading, Task, TimerRecord, WashTask } from '@broth/core';
import { useRouter } from 'expo-router';
import type { ReactNode } from 'react';
import { View } from 'react-native';
import type { NewEvent } from '../../state/kitchen';
import type { OpenDay } from '../../state/useDay';
import { Action } from '../../ui/Action';
import { Sheet } from '../../ui/Sheet';
import { StateMark } from '../../ui/StateMark';
import type { Mark } from '../../ui/StateMark';
import { Figure, Note, Strong } from '../../ui/Type';
import { Vessel } from '../../ui/Vessel';
import { countdown } from './countdown';
import { clockTap, nextAsks } from './taskEvents';

export type OnDo = (events: readonly NewEvent[], says: string) => void;

/** One line that wants a tap: its mark, what it is, since when, and the tap. */
function Row({
  rim,
  label,
  mark,
  head,
  note,
  children,
}: {
  readonly rim?: string | undefined;
  readonly label: string;
  readonly mark: Mark;
  readonly head: string;
  readonly note: string;
  readonly children: ReactNode;
}) {
  return (
    <Sheet rim={rim} label={label}>
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: 10 }}>
        <StateMark mark={mark} />
        <View style={{ flex: 1 }}>
          <Strong>{head}</Strong>
          <Note>{note}</Note>
        </View>
        {children}
      </View>
    </Sheet>
  );
}

export function DueRow({ day, due, now }: { readonly day: OpenDay; readonly due: DueReading; readonly now: number }) {
  const router = useRouter();
  const batch = day.state.batches[due.batchId];
  const late = minutesBetween(due.dueAt, now);
  const name = day.names.batch(due.batchId);
  return (
    <Row
      rim={day.soupById.get(batch?.soupId ?? '')?.toneHex}
      label={`Reading due: ${name}`}
      mark={late > 0 ? 'soon' : 'open'}
      head={`${name}: ${words.PURPOSE[due.purpose].toLowerCase()} reading`}
      note={late >= 1 ? `due ${words.duration(late)} ago` : late > -1 ? 'due now' : `due ${day.at(due.dueAt)}`}
    >
      <Action
        kind="main"
        label="Log"
        hint={`Log ${name}`}
        onPress={() => {
          router.push(`/log/${due.batchId}`);
        }}
      />
    </Row>
  );
}

/** A look or a stir that is due. */
export function LookRow({ day, alarm, task, now, onDo }: { readonly day: OpenDay; readonly alarm: Alarm; readonly task: Task; readonly now: number; readonly onDo: OnDo }) {
  const late = minutesBetween(alarm.at, now);
  const { batchId, step, batchName } = task;
  return (
    <Row
      rim={day.soupById.get(task.soupId)?.toneHex}
      label={`Look: ${batchName}`}
      mark="soon"
      head={`${batchName}: look and stir`}
      note={`${step.name}; every ${String(step.lookEveryMin ?? 0)} min${late >= 1 ? `, due ${words.duration(late)} ago` : ''}`}
    >
      <Action
        kind="main"
        label="Looked"
        hint={`Looked at ${batchName}`}
        onPress={() => {
          onDo([{ kind: 'step.looked/1', data: { batchId, stepId: step.id } }], `${batchName}: looked.`);
        }}
      />
    </Row>
  );
}

export function TimerRow({ timer, now, onDo }: { readonly timer: TimerRecord; readonly now: number; readonly onDo: OnDo }) {
  const left = timer.endsAt - now;
  return (
    <Row
      label={`Timer: ${timer.name}`}
      mark={left <= 0 ? 'soon' : 'open'}
      head={timer.name}
      note={left <= 0 ? `up since ${words.duration(-left / 60_000)}` : `${words.countdown(left)} to go`}
    >
      <Action
        label={left <= 0 ? 'Seen' : 'Stop'}
        hint={`${left <= 0 ? 'Seen' : 'Stop'}: ${timer.name}`}
        onPress={() => {
          onDo([{ kind: 'timer.cleared/1', data: { timerId: timer.eventId } }], `${timer.name}: timer ended.`);
        }}
      />
    </Row>
  );
}

export function WashRow({ day, task, now, onDo }: { readonly day: OpenDay; readonly task: WashTask; readonly now: number; readonly onDo: OnDo }) {
  const { wash, plannedAt } = task;
  const unit = day.names.resource(wash.unitId);
  const allergens = wash.carriesOver.map((one) => words.ALLERGEN[one]);
  const late = minutesBetween(plannedAt, now);
  return (
    <Row
      label={`Wash ${unit}`}
      mark={late > 0 ? 'soon' : 'open'}
      head={wash.kind === 'full' ? `Wash ${unit} in full` : `Rinse ${unit}`}
      note={`Before ${day.names.batch(wash.beforeBatchId)}, planned ${day.at(plannedAt)}.${allergens.length === 0 ? '' : ` Must not carry over: ${words.list(allergens)}.`}`}
    >
      <Action
        label="Washed"
        hint={`${unit} is washed`}
        onPress={() => {
          const { unitId, kind, afterBatchId, beforeBatchId } = wash;
          onDo([{ kind: 'wash.done/1', data: { unitId, kind, afterBatchId, beforeBatchId } }], `${unit} is washed.`);
        }}
      />
    </Row>
  );
}

/** What runs by itself, small: its countdown, and one tap to all of it. */
export function RunningRow({
  day,
  task,
  plan,
  now,
  onOpen,
  onDo,
}: {
  readonly day: OpenDay;
  readonly task: Task;
  readonly plan: DayPlan | null;
  readonly now: number;
  readonly onOpen: () => void;
  readonly onDo: OnDo;
}) {
  const soup = soupOf(task, day.soupById);
  const tap = soup === undefined ? null : clockTap(task, soup, nextAsks(task, soup, day, plan));
  const vessel = day.equipmentById.get(task.vesselId ?? '');
  return (
    <Sheet rim={soup?.toneHex} label={`${task.batchName}: ${task.step.name}`}>
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: 10 }}>
        {vessel?.kind === 'vessel' ? <Vessel name={vessel.name} capacityL={vessel.capacityL} fillL={task.volumeL} toneHex={soup?.toneHex ?? '#888888'} scale={14} /> : null}
        <View style={{ flex: 1 }}>
          <Strong>{task.batchName}</Strong>
          <Note>{`${words.PHASE[task.step.phase].toLowerCase()}${task.lookAt === null ? '' : `, look at ${day.at(task.lookAt)}`}`}</Note>
          <Figure style={{ fontSize: 22, lineHeight: 28 }}>{countdown(task, now)}</Figure>
        </View>
        <View style={{ gap: 8 }}>
          {tap === null ? null : (
            <Action
              kind="main"
              label={tap.label}
              hint={`${tap.label}, ${task.batchName}`}
              onPress={() => {
                onDo(tap.events, `${task.batchName}: ${tap.label.toLowerCase()}.`);
              }}
            />
          )}
          <Action label="Open" hint={`Open ${task.batchName}`} onPress={onOpen} />
        </View>
      </View>
    </Sheet>
  );
}

/** Looks that are due, of tasks that are not shown in full. */
export function looksDue(alarms: readonly Alarm[], now: number): readonly Alarm[] {
  return upNow(alarms, now).filter((one) => one.kind === 'look');
}
