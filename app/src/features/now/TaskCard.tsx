import { words } from '@broth/contract';
import { backKey, doneGates, minutesBetween, openLines, sheetLines, soupOf, startGates } from '@broth/core';
import type { Gate, SheetLine, Task } from '@broth/core';
import { useRouter } from 'expo-router';
import { memo, useState } from 'react';
import { Pressable, View } from 'react-native';
import type { NewEvent } from '../../state/kitchen';
import type { OpenDay } from '../../state/useDay';
import type { Hands } from '../../state/useHands';
import { usePalette } from '../../theme/theme';
import { Action, Choice } from '../../ui/Action';
import { Tick } from '../../ui/Field';
import { useLatest } from '../../ui/useLatest';
import { LitresStepper } from '../../ui/Stepper';
import { PhaseMark } from '../../ui/PhaseMark';
import { Sheet } from '../../ui/Sheet';
import { StateMark } from '../../ui/StateMark';
import { Body, Figure, Note, Strong, Title } from '../../ui/Type';
import { Vessel } from '../../ui/Vessel';
import { GateList } from './GateList';
import { OpenLines } from './OpenLines';
import { countdown, isOver } from './countdown';
import { clockTap, doneEvents, gateEvents, nextAsks, startEvents, tickEvent } from './taskEvents';

/** From here on a start that is late is said to be. Minutes. */
const BEHIND_MIN = 5;
/** What one tap on "more time" gives. Minutes. */
const MORE_MIN = 5;
/** A wait is told of when no more than this is left of it. Minutes. */
const WAIT_TOLD_MIN = 30;

const DONE: Partial<Record<Task['step']['phase'], string>> = { blend: 'Blended', hold: 'Emptied', sweat: 'Soft: done', simmer: 'Simmer done' };

interface Props {
  readonly day: OpenDay;
  readonly hands: Hands;
  readonly task: Task;
  readonly now: number;
  readonly onDo: (events: readonly NewEvent[], says: string) => void;
}

function placeOf(task: Task, day: OpenDay): string {
  const vessel = day.equipmentById.get(task.vesselId ?? '')?.name ?? '';
  const places = words.list(task.placeIds.map((id) => day.equipmentById.get(id)?.name ?? id));
  const { place } = task.step;
  switch (place.kind) {
    case 'bench':
      return places === '' ? 'Bench' : places;
    case 'oven':
      return places === '' ? 'Oven' : places;
    case 'blender':
      return `${vessel} → ${place.tool === 'jar' ? 'jar blender' : 'immersion blender'}`;
    case 'vessel':
      return places === '' ? vessel : `${vessel} in ${places}`;
  }
}

interface LineProps {
  readonly id: string;
  readonly name: string;
  readonly amount: string;
  /** null = the batch has not begun, and nothing is ticked yet. */
  readonly isIn: boolean | null;
  readonly onFlip: (id: string) => void;
}

/** One of what goes in. A card has many, and most are as they were when something is tapped. */
const Line = memo(function Line({ id, name, amount, isIn, onFlip }: LineProps) {
  const text = (
    <View style={{ flexDirection: 'row', gap: 8 }}>
      <Strong style={{ width: 84, textAlign: 'right', fontVariant: ['tabular-nums'] }}>{amount}</Strong>
      <Body style={{ flex: 1 }}>{name}</Body>
    </View>
  );
  return isIn === null ? (
    text
  ) : (
    <Tick
      label={`${name}, ${amount}`}
      done={isIn}
      onPress={() => {
        onFlip(id);
      }}
    >
      {text}
    </Tick>
  );
});

/** What goes in at this step: a tick each once the batch has begun. */
function GoesIn({ day, task, lines, onDo }: { readonly day: OpenDay; readonly task: Task; readonly lines: readonly SheetLine[]; readonly onDo: Props['onDo'] }) {
  const batch = day.state.batches[task.batchId];
  const additions = batch?.additions ?? [];
  const { batchId, step } = task;
  const keyed = lines.map((line) => ({ line, key: line.returnsAtStepId === step.id ? backKey(line.ingredientId) : line.ingredientId }));
  const tickedAs = (key: string) => additions.find((added) => added.ingredientId === key && added.for === 'card');
  const flip = useLatest((id: string) => {
    const line = keyed.find(({ key }) => key === id)?.line;
    if (line === undefined) return;
    const ticked = tickedAs(id);
    if (ticked === undefined) onDo([tickEvent(batchId, { ...line, ingredientId: id })], `${line.name} is in.`);
    else onDo([{ kind: 'event.voided/1', data: { eventId: ticked.eventId, reason: 'Tick taken back' } }], `${line.name} is not in.`);
  });
  return (
    <View style={{ gap: 2 }}>
      {keyed.map(({ line, key }) => (
        <Line
          key={key}
          id={key}
          name={line.returnsAtStepId === step.id ? `${line.name}, back in` : line.cut === null ? line.name : `${line.name}, ${line.cut}`}
          amount={line.amount === null ? 'by eye' : words.amountText(line.amount, line.unit)}
          isIn={batch === undefined ? null : tickedAs(key) !== undefined}
          onFlip={flip}
        />
      ))}
    </View>
  );
}

/** What hands do next: the step in one line, the number that matters large, what goes in, the check, the caution, why. */
export function TaskCard({ day, hands, task, now, onDo }: Props) {
  const palette = usePalette();
  const soup = soupOf(task, day.soupById);
  const router = useRouter();
  const [volumeOutL, setVolumeOutL] = useState(task.volumeL);
  const [asking, setAsking] = useState<readonly Gate[] | null>(null);
  const [leavingOut, setLeavingOut] = useState(false);
  if (soup === undefined) return null;
  const vessel = day.equipmentById.get(task.vesselId ?? '');
  const { step, batchId, batchName } = task;
  const goesIn = sheetLines(soup, task.volumeL).filter((line) => line.stepId === step.id || line.returnsAtStepId === step.id);
  const batch = day.state.batches[batchId];
  const openHere = batch === undefined ? [] : openLines(soup, batch, step.id);
  const running = task.state === 'running';
  const behindMin = task.plannedAt === null || running ? 0 : minutesBetween(task.plannedAt, now);
  const planned = task.plannedAt === null ? '' : behindMin >= BEHIND_MIN ? `${words.duration(behindMin)} behind` : `planned ${day.at(task.plannedAt)}`;
  const waitedMin = task.waitUntil === null ? null : minutesBetween(now, task.waitUntil);
  const over = behindMin >= BEHIND_MIN || isOver(task, now) || (waitedMin !== null && waitedMin <= 0);
  const goes = words.goes(task.goes.map(([from, to]) => [day.at(from), day.at(to)]));
  const openAtEnd = running ? doneGates(task, soup, day.state).flatMap((gate) => (gate.kind === 'open' ? gate.lines : [])) : [];
  const phase = words.PHASE[step.phase].toLowerCase();
  const startLabel = task.state === 'toStart' ? `Start ${batchName}` : `Start: ${phase}`;
  const start = (gates: readonly Gate[]): void => {
    setAsking(null);
    onDo([...startEvents(task, soup), ...gateEvents(task, gates)], `${batchName}: ${phase} begun.`);
  };
  const tryStart = (): void => {
    const gates = startGates(task, soup, day.state, hands.plan, day.soupById);
    if (gates.length === 0) start([]);
    else setAsking(gates);
  };
  const asksFirst = nextAsks(task, soup, day, hands.plan);
  const tap = clockTap(task, soup, asksFirst);
  const doneLabel = DONE[step.phase] ?? 'Done';
  return (
    <Sheet rim={soup.toneHex} label={`${batchName}: ${step.name}`}>
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
          <Note>{`${batchName}, ${words.litres(task.volumeL)} · ${placeOf(task, day)}${task.personId === null ? '' : ` · ${day.nameOf(task.personId)}`}`}</Note>
          <Title level={2}>{step.name}</Title>
          <Figure style={{ fontSize: 28, color: over ? palette.soon : palette.ink }}>{running ? countdown(task, now) : planned === '' ? words.PHASE[step.phase] : planned}</Figure>
          {goes === null ? null : <Note>{`${goes}. Cover it and keep it cold in between.`}</Note>}
          {waitedMin === null || waitedMin > WAIT_TOLD_MIN ? null : (
            <Note>{waitedMin > 0 ? `May wait ${words.duration(Math.ceil(waitedMin))} more.` : 'It has waited as long as it may.'}</Note>
          )}
        </View>
      </View>
      {goesIn.length === 0 ? null : <GoesIn day={day} task={task} lines={goesIn} onDo={onDo} />}
      {openHere.length > 1 && running ? (
        <Action
          style={{ alignSelf: 'flex-start' }}
          label={`All ${String(openHere.length)} are in`}
          hint={`All ${String(openHere.length)} lines of ${batchName} are in`}
          onPress={() => {
            onDo(
              openHere.map((line) => tickEvent(batchId, line)),
              `${batchName}: ${String(openHere.length)} lines are in.`,
            );
          }}
        />
      ) : null}
      {step.check === null ? null : <Body>{`Done when: ${step.check}.`}</Body>}
      {step.caution === null ? null : (
        <View style={{ flexDirection: 'row', gap: 8 }}>
          <StateMark mark="soon" />
          <Body style={{ flex: 1 }}>{step.caution}</Body>
        </View>
      )}
      {step.irreversible && !running ? <Strong>This cannot be undone in the pot.</Strong> : null}
      <Note>{step.why}</Note>
      <Pressable
        role="link"
        aria-label={`Batch sheet of ${batchName}`}
        onPress={() => {
          router.push(`/sheet/${batchId}`);
        }}
        style={{ minHeight: 44, justifyContent: 'center' }}
      >
        <Strong style={{ textDecorationLine: 'underline' }}>Batch sheet: all amounts, salt, texture</Strong>
      </Pressable>
      {openAtEnd.length > 0 ? <OpenLines batchId={batchId} name={batchName} lines={openAtEnd} onDo={onDo} /> : null}
      {task.isLast && running && openAtEnd.length === 0 ? <LitresStepper label="litres out" volumeL={volumeOutL} onChange={setVolumeOutL} /> : null}
      {asking !== null ? (
        <GateList
          day={day}
          gates={asking}
          then={startLabel}
          onPass={() => {
            start(asking);
          }}
          onBack={() => {
            setAsking(null);
          }}
        />
      ) : tap !== null ? (
        <Action
          kind="main"
          label={tap.label}
          hint={`${tap.label}, ${batchName}`}
          onPress={() => {
            onDo(tap.events, `${batchName}: ${tap.label.toLowerCase()}.`);
          }}
        />
      ) : running ? (
        <Action
          kind="main"
          label={doneLabel}
          hint={`${doneLabel}, ${batchName}`}
          disabled={openAtEnd.length > 0}
          onPress={() => {
            onDo(doneEvents(task, soup, volumeOutL, asksFirst), `${batchName}: ${(DONE[step.phase] ?? `${words.PHASE[step.phase]} done`).toLowerCase()}.`);
          }}
        />
      ) : (
        <Action kind="main" label={startLabel} hint={`Start ${batchName}: ${phase}`} onPress={tryStart} />
      )}
      {asking !== null ? null : (
        <View style={{ flexDirection: 'row', gap: 8 }}>
          {running ? (
            <Action
              style={{ flex: 1 }}
              label={`+${String(MORE_MIN)} min`}
              hint={`${String(MORE_MIN)} more minutes for ${batchName}`}
              onPress={() => {
                onDo([{ kind: 'step.extended/1', data: { batchId, stepId: step.id, byMin: MORE_MIN } }], `${batchName}: ${String(MORE_MIN)} min more.`);
              }}
            />
          ) : null}
          {task.state === 'toStart' || task.isLast ? null : (
            <Action
              style={{ flex: 1 }}
              label="Leave out…"
              hint={`Leave out this step of ${batchName}`}
              onPress={() => {
                setLeavingOut(!leavingOut);
              }}
            />
          )}
        </View>
      )}
      {leavingOut ? (
        <Choice
          label="Why it is left out"
          value={null}
          options={words.SKIP_REASONS.map((reason) => ({ value: reason, label: reason }))}
          onPick={(reason) => {
            setLeavingOut(false);
            onDo([{ kind: 'step.skipped/1', data: { batchId, stepId: step.id, reason } }], `${batchName}: ${phase} left out.`);
          }}
        />
      ) : null}
    </Sheet>
  );
}
