import { addMinutes, minutesBetween } from '../quantity/index';
import type { Instant } from '../quantity/index';
import { blenderFor, placesOf } from '../batch/index';
import type { JarBlender, Station } from '../batch/index';
import type { DayPlan, NamedStep, PlannedBatch, PlannedStep, Wash } from '../plan/index';
import { stepRangeMin, withBlender } from '../soup/index';
import type { Soup, Step } from '../soup/index';
import { washKey } from './dayState';
import type { BatchRecord, DayState, StepRecord } from './dayState';

/** The key a book keeps an earlier version of a soup under. */
export function versionKey(soupId: string, version: number): string {
  return `${soupId}@${String(version)}`;
}

/** The soup a batch was made from: its own version where the book keeps it, else the newest. */
export function soupOf(batch: { readonly soupId: string; readonly soupVersion: number }, soupById: ReadonlyMap<string, Soup>): Soup | undefined {
  return soupById.get(versionKey(batch.soupId, batch.soupVersion)) ?? soupById.get(batch.soupId);
}

/** One line of Now: a step that runs, or the next one of a batch. */
export interface Task {
  readonly batchId: string;
  readonly soupId: string;
  readonly soupVersion: number;
  readonly batchName: string;
  readonly volumeL: number;
  readonly vesselId: string | null;
  /** The ovens or places to cool the plan has for it. */
  readonly placeIds: readonly string[];
  /** When somebody is at it by the plan, from and to: more than one where it is put down and taken up again. */
  readonly goes: readonly (readonly [Instant, Instant])[];
  readonly step: Step;
  /** running = started and not done; next = its batch waits for it; toStart = the batch has not begun. */
  readonly state: 'running' | 'next' | 'toStart';
  readonly plannedAt: Instant | null;
  readonly startedAt: Instant | null;
  /** What its clock runs from has not come yet: it counts up until somebody taps it. */
  readonly waitsForClock: boolean;
  /** When to look whether it is done, and when it has to be, by the range of its card and what it was given more. null while it does not run, or waits. */
  readonly checkAt: Instant | null;
  readonly limitAt: Instant | null;
  /** When a running step is up, by the plan's duration. */
  readonly upAt: Instant | null;
  /** When the next look or stir is due. */
  readonly lookAt: Instant | null;
  /** The longest it may wait after the step before; null when it keeps. */
  readonly waitUntil: Instant | null;
  /** Who has begun it, or has hands for it by the plan; null = nobody in particular. */
  readonly personId: string | null;
  readonly isLast: boolean;
}

/** A wash that is planned and not done. */
export interface WashTask {
  readonly wash: Wash;
  readonly plannedAt: Instant;
  /** Whether what was in it is out. */
  readonly ready: boolean;
}

/** What tasks are worked out from. `midnight` is the plan's day at 00:00 local. */
export interface HandsInput {
  readonly day: DayState;
  readonly plan: DayPlan | null;
  readonly soupById: ReadonlyMap<string, Soup>;
  readonly station: Station;
  readonly midnight: Instant;
  /** Whoever has hands for which step of the plan. */
  readonly named: readonly NamedStep[];
}

/** Minutes by the card, with the blender that will really be used. */
function rangeOf(step: Step, volumeL: number, station: Station): { readonly lowMin: number; readonly highMin: number } {
  if (step.place.kind !== 'blender') return stepRangeMin(step, volumeL, null);
  const done = withBlender(step, blenderFor(step.place.tool, station) ?? step.place.tool);
  const jar = station.equipment.find((thing): thing is JarBlender => thing.kind === 'jar' && thing.inUse);
  return stepRangeMin(done, volumeL, jar ?? null);
}

/** A simmer whose clock runs from the boil has it from the boil before it, where the card has that as a step of its own. */
function waitsForClock(step: Step, before: Step | undefined, record: StepRecord | undefined): boolean {
  if (record === undefined || step.clockFrom === 'start' || record.clockAt !== null) return false;
  return !(step.clockFrom === 'boil' && before?.phase === 'boil');
}

function goesAt(step: PlannedStep, midnight: Instant): Task['goes'] {
  return (step.parts ?? [step]).map(({ startMin, endMin }) => [addMinutes(midnight, startMin), addMinutes(midnight, endMin)]);
}

function taskOf(batch: BatchRecord, soup: Soup, planned: PlannedBatch | undefined, input: HandsInput): Task | null {
  const index = soup.steps.findIndex((step) => (batch.steps[step.id]?.doneAt ?? null) === null);
  const step = soup.steps[index];
  if (step === undefined) return null;
  const { midnight, station, named } = input;
  const record = batch.steps[step.id];
  const before = soup.steps[index - 1];
  const beforeDone = before === undefined ? null : (batch.steps[before.id]?.doneAt ?? null);
  const plannedStep = planned?.steps.find((candidate) => candidate.stepId === step.id);
  const { lowMin, highMin } = rangeOf(step, batch.volumeL, station);
  const goes = plannedStep === undefined ? [] : goesAt(plannedStep, midnight);
  // What is put down for a while takes as much longer.
  const pauseMin = goes.slice(1).reduce((sum, [from], at) => sum + minutesBetween(goes[at]?.[1] ?? from, from), 0);
  const durationMin = plannedStep === undefined ? Math.max(1, Math.round((lowMin + highMin) / 2)) : plannedStep.endMin - plannedStep.startMin;
  const waits = waitsForClock(step, before, record);
  const from = record === undefined || waits ? null : addMinutes(record.clockAt ?? record.startedAt, record.extendedMin);
  return {
    batchId: batch.batchId,
    soupId: batch.soupId,
    soupVersion: batch.soupVersion,
    batchName: batch.name,
    volumeL: batch.volumeL,
    vesselId: batch.vesselId,
    placeIds: plannedStep === undefined ? [] : placesOf(plannedStep, station).map(({ id }) => id),
    goes,
    step,
    state: record === undefined ? 'next' : 'running',
    plannedAt: plannedStep === undefined ? null : addMinutes(midnight, plannedStep.startMin),
    startedAt: record?.startedAt ?? null,
    waitsForClock: waits,
    checkAt: from === null ? null : addMinutes(from, lowMin + pauseMin),
    limitAt: from === null ? null : addMinutes(from, highMin + pauseMin),
    upAt: from === null ? null : addMinutes(from, durationMin),
    lookAt: record === undefined || step.lookEveryMin === null ? null : addMinutes(record.lookedAt ?? record.startedAt, step.lookEveryMin),
    waitUntil: record !== undefined || beforeDone === null || before?.maxWaitMin == null ? null : addMinutes(beforeDone, before.maxWaitMin),
    personId: record?.by ?? named.find((one) => one.batchId === batch.batchId && one.stepId === step.id)?.personId ?? null,
    isLast: index === soup.steps.length - 1,
  };
}

/** What hands do, what runs and what comes: one task a batch, by when it wants somebody. */
export function tasks(input: HandsInput): readonly Task[] {
  const { day, plan, soupById, midnight, named } = input;
  const plannedById = new Map((plan?.batches ?? []).map((planned) => [planned.id, planned]));
  const running = Object.values(day.batches).flatMap((batch): Task[] => {
    const soup = soupOf(batch, soupById);
    if (soup === undefined || batch.stage.kind !== 'cooking') return [];
    const task = taskOf(batch, soup, plannedById.get(batch.batchId), input);
    return task === null ? [] : [task];
  });
  const coming = (plan?.batches ?? []).flatMap((planned): Task[] => {
    const soup = soupById.get(planned.soupId);
    const first = soup?.steps[0];
    const at = planned.steps[0];
    if (soup === undefined || first === undefined || at === undefined || day.batches[planned.id] !== undefined) return [];
    return [
      {
        batchId: planned.id,
        soupId: planned.soupId,
        soupVersion: soup.version,
        batchName: planned.name,
        volumeL: planned.volumeL,
        vesselId: planned.vesselId,
        placeIds: placesOf(at, input.station).map(({ id }) => id),
        goes: goesAt(at, midnight),
        step: first,
        state: 'toStart',
        plannedAt: addMinutes(midnight, at.startMin),
        startedAt: null,
        waitsForClock: false,
        checkAt: null,
        limitAt: null,
        upAt: null,
        lookAt: null,
        waitUntil: null,
        personId: named.find((one) => one.batchId === planned.id && one.stepId === first.id)?.personId ?? null,
        isLast: soup.steps.length === 1,
      },
    ];
  });
  const wantedAt = (task: Task): Instant => task.upAt ?? task.plannedAt ?? task.startedAt ?? 0;
  return [...running, ...coming].sort((left, right) => wantedAt(left) - wantedAt(right));
}

/** Whether a step needs hands all the time. */
export function takesHands(task: Task): boolean {
  return task.step.attention === 'hands';
}

/** Whether what a batch had in a unit is out of it: done, thrown away, or past its last step there. */
function isOut(batch: BatchRecord | undefined, planned: PlannedBatch | undefined, unitId: string): boolean {
  if (batch === undefined) return false;
  if (batch.stage.kind !== 'cooking') return true;
  const inUnit = planned?.steps.filter((step) => step.unitId === unitId) ?? [];
  return inUnit.length > 0 && inUnit.every((step) => (batch.steps[step.stepId]?.doneAt ?? null) !== null);
}

/** Washes of the plan that are not done yet, in their order. Those of units whose next batch has begun all the same are past. */
export function washTasks({ day, plan, soupById, midnight }: Pick<HandsInput, 'day' | 'plan' | 'soupById' | 'midnight'>): readonly WashTask[] {
  if (plan === null) return [];
  const plannedById = new Map(plan.batches.map((planned) => [planned.id, planned]));
  const begunIn = (batchId: string, unitId: string): boolean => {
    const batch = day.batches[batchId];
    if (batch === undefined) return false;
    // A batch that is being cut has begun, but not in its kettle.
    const inBlender = plannedById.get(batchId)?.steps.filter((step) => step.unitId === unitId) ?? [];
    const inVessel = soupOf(batch, soupById)?.steps.filter((step) => step.place.kind === 'vessel' && batch.vesselId === unitId) ?? [];
    return [...inBlender.map((step) => step.stepId), ...inVessel.map((step) => step.id)].some((stepId) => batch.steps[stepId] !== undefined);
  };
  return plan.washes
    .filter((wash) => day.washed[washKey(wash)] === undefined && !begunIn(wash.beforeBatchId, wash.unitId))
    .map((wash) => ({ wash, plannedAt: addMinutes(midnight, wash.startMin), ready: isOut(day.batches[wash.afterBatchId], plannedById.get(wash.afterBatchId), wash.unitId) }))
    .sort((left, right) => left.plannedAt - right.plannedAt);
}
