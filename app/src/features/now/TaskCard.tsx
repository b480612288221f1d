import { words } from '@broth/contract';
import { minutesBetween, sheetLines, soupOf } from '@broth/core';
import type { Soup, Task } from '@broth/core';
import { useRouter } from 'expo-router';
import { useState } from 'react';
import { Pressable, View } from 'react-native';
import type { NewEvent } from '../../state/kitchen';
import type { OpenDay } from '../../state/useDay';
import { usePalette } from '../../theme/theme';
import { Action } from '../../ui/Action';
import { LitresStepper } from '../../ui/Stepper';
import { PhaseMark } from '../../ui/PhaseMark';
import { Sheet } from '../../ui/Sheet';
import { StateMark } from '../../ui/StateMark';
import { Body, Figure, Note, Strong, Title } from '../../ui/Type';
import { Vessel } from '../../ui/Vessel';

/** From here on a start that is late is said to be. Minutes. */
const BEHIND_MIN = 5;

/** `4:05` to go, `12 min`, `3 min over`; seconds only when they matter. */
export function countdown(task: Task, now: number): string {
  if (task.state !== 'running' || task.startedAt === null || task.upAt === null) return '';
  // Nobody knows when it will boil: that clock counts up until the cook has seen it.
  if (task.step.phase === 'boil') return minutesBetween(task.startedAt, now) < 1 ? 'heating up' : `${words.duration(minutesBetween(task.startedAt, now))} heating`;
  const leftMin = minutesBetween(now, task.upAt);
  if (leftMin < 0) return `${words.duration(leftMin)} over`;
  if (leftMin > 3) return `${String(Math.ceil(leftMin))} min to check`;
  return `${String(Math.floor(leftMin))}:${String(Math.floor((leftMin % 1) * 60)).padStart(2, '0')} to check`;
}

const DONE: Partial<Record<Task['step']['phase'], string>> = { boil: 'Boil reached', blend: 'Blended', hold: 'Emptied', sweat: 'Soft: done', simmer: 'Simmer done' };

/** What the tap on "done" records: the step, the start of the next when that follows at once, and the end of the batch after its last. */
export function doneEvents(task: Task, soup: Soup, volumeOutL: number): readonly NewEvent[] {
  const { batchId, step } = task;
  const next = soup.steps[soup.steps.findIndex((one) => one.id === step.id) + 1];
  return [
    { kind: 'step.done/1', data: { batchId, stepId: step.id } },
    ...(next !== undefined && step.maxWaitMin !== null && step.maxWaitMin <= 15 ? [{ kind: 'step.started/1', data: { batchId, stepId: next.id } } as const] : []),
    ...(next === undefined ? [{ kind: 'batch.finished/1', data: { batchId, volumeOutL } } as const] : []),
  ];
}

/** What the tap on "start" records: the batch, if it has not begun, and the step. */
export function startEvents(task: Task, soup: Soup): readonly NewEvent[] {
  const { batchId, step, batchName, volumeL, vesselId } = task;
  const ordinal = Number(batchId.split('.').at(-1));
  return [
    ...(task.state === 'toStart'
      ? [{ kind: 'batch.started/1', data: { batchId, soupId: soup.id, soupVersion: soup.version, name: batchName, ordinal, volumeL, vesselId } } as const]
      : []),
    { kind: 'step.started/1', data: { batchId, stepId: step.id } },
  ];
}

interface Props {
  readonly day: OpenDay;
  readonly task: Task;
  readonly now: number;
  readonly onDo: (events: readonly NewEvent[], says: string) => void;
}

/** What hands do next: the step in one line, the number that matters large, what goes in, the check, the caution, why. */
export function TaskCard({ day, task, now, onDo }: Props) {
  const palette = usePalette();
  const soup = soupOf(task, day.soupById);
  const router = useRouter();
  const [volumeOutL, setVolumeOutL] = useState(task.volumeL);
  if (soup === undefined) return null;
  const vessel = day.equipmentById.get(task.vesselId ?? '');
  const { step } = task;
  const lines = sheetLines(soup, task.volumeL);
  const goesIn = lines.filter((line) => line.stepId === step.id || line.returnsAtStepId === step.id);
  const place =
    step.place.kind === 'bench'
      ? 'Bench'
      : step.place.kind === 'oven'
        ? 'Oven'
        : step.place.kind === 'blender'
          ? `${vessel?.name ?? ''} → ${step.place.tool === 'jar' ? 'jar blender' : 'immersion blender'}`
          : (vessel?.name ?? '');
  const behindMin = task.plannedAt === null || task.state === 'running' ? 0 : minutesBetween(task.plannedAt, now);
  const planned = task.plannedAt === null ? '' : behindMin >= BEHIND_MIN ? `${words.duration(behindMin)} behind` : `planned ${day.at(task.plannedAt)}`;
  const over = behindMin >= BEHIND_MIN || (task.state === 'running' && task.upAt !== null && task.upAt < now && step.phase !== 'boil');
  return (
    <Sheet rim={soup.toneHex} label={`${task.batchName}: ${step.name}`}>
      <View style={{ flexDirection: 'row', gap: 12 }}>
        {vessel?.kind === 'vessel' && step.place.kind !== 'bench' ? (
          <Vessel
            name={vessel.name}
            capacityL={vessel.capacityL}
            fillL={task.volumeL}
            minFillL={vessel.minFillL}
            workingMaxL={vessel.workingMaxL}
            toneHex={soup.toneHex}
            scale={24}
          />
        ) : (
          <PhaseMark phase={step.phase} color={palette.ink} size={40} />
        )}
        <View style={{ flex: 1 }}>
          <Note>{`${task.batchName}, ${words.litres(task.volumeL)} · ${place}`}</Note>
          <Title level={2}>{step.name}</Title>
          <Figure style={{ fontSize: 28, color: over ? palette.soon : palette.ink }}>
            {task.state === 'running' ? countdown(task, now) : planned === '' ? words.PHASE[step.phase] : planned}
          </Figure>
        </View>
      </View>
      {goesIn.length === 0 ? null : (
        <View style={{ gap: 2 }}>
          {goesIn.map((line) => (
            <View key={line.ingredientId} style={{ flexDirection: 'row', gap: 8 }}>
              <Strong style={{ width: 84, textAlign: 'right', fontVariant: ['tabular-nums'] }}>{line.amount === null ? 'by eye' : words.amountText(line.amount, line.unit)}</Strong>
              <Body style={{ flex: 1 }}>{line.returnsAtStepId === step.id ? `${line.name}, back in` : line.cut === null ? line.name : `${line.name}, ${line.cut}`}</Body>
            </View>
          ))}
        </View>
      )}
      {step.check === null ? null : <Body>{`Done when: ${step.check}.`}</Body>}
      {step.caution === null ? null : (
        <View style={{ flexDirection: 'row', gap: 8 }}>
          <StateMark mark="soon" />
          <Body style={{ flex: 1 }}>{step.caution}</Body>
        </View>
      )}
      {step.irreversible && task.state !== 'running' ? <Strong>This cannot be undone in the pot.</Strong> : null}
      <Note>{step.why}</Note>
      <Pressable
        role="link"
        aria-label={`Batch sheet of ${task.batchName}`}
        onPress={() => {
          router.push(`/sheet/${task.batchId}`);
        }}
        style={{ minHeight: 44, justifyContent: 'center' }}
      >
        <Strong style={{ textDecorationLine: 'underline' }}>Batch sheet: all amounts, ticks, salt, texture</Strong>
      </Pressable>
      {task.isLast && task.state === 'running' ? <LitresStepper label="litres out" volumeL={volumeOutL} onChange={setVolumeOutL} /> : null}
      {task.state === 'running' ? (
        <Action
          kind="main"
          label={DONE[step.phase] ?? 'Done'}
          hint={`${DONE[step.phase] ?? 'Done'}, ${task.batchName}`}
          onPress={() => {
            onDo(doneEvents(task, soup, volumeOutL), `${task.batchName}: ${(DONE[step.phase] ?? `${words.PHASE[step.phase]} done`).toLowerCase()}.`);
          }}
        />
      ) : (
        <Action
          kind="main"
          label={task.state === 'toStart' ? `Start ${task.batchName}` : `Start: ${words.PHASE[step.phase].toLowerCase()}`}
          hint={`Start ${task.batchName}: ${words.PHASE[step.phase].toLowerCase()}`}
          onPress={() => {
            onDo(startEvents(task, soup), `${task.batchName}: ${words.PHASE[step.phase].toLowerCase()} begun.`);
          }}
        />
      )}
    </Sheet>
  );
}
