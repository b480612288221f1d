import { addMinutes, minutesBetween } from '../quantity/index';
import type { Instant } from '../quantity/index';
import type { DayPlan, PlannedBatch, StartedBatch } from '../plan/index';
import { stepDurationMin } from '../soup/index';
import type { Soup, Step } from '../soup/index';
import type { BatchRecord, DayState } from './fold';

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
  readonly step: Step;
  /** running = started and not done; next = its batch waits for it; toStart = the batch has not begun. */
  readonly state: 'running' | 'next' | 'toStart';
  readonly plannedAt: Instant | null;
  readonly startedAt: Instant | null;
  /** When a running step is up, by the plan's duration. */
  readonly upAt: Instant | null;
  readonly isLast: boolean;
}

function taskOf(batch: BatchRecord, soup: Soup, planned: PlannedBatch | undefined, midnight: Instant): Task | null {
  const index = soup.steps.findIndex((step) => (batch.steps[step.id]?.doneAt ?? null) === null);
  const step = soup.steps[index];
  if (step === undefined) return null;
  const record = batch.steps[step.id];
  const plannedStep = planned?.steps.find((candidate) => candidate.stepId === step.id);
  const durationMin = plannedStep === undefined ? stepDurationMin(step, batch.volumeL, null) : plannedStep.endMin - plannedStep.startMin;
  return {
    batchId: batch.batchId,
    soupId: batch.soupId,
    soupVersion: batch.soupVersion,
    batchName: batch.name,
    volumeL: batch.volumeL,
    vesselId: batch.vesselId,
    step,
    state: record === undefined ? 'next' : 'running',
    plannedAt: plannedStep === undefined ? null : addMinutes(midnight, plannedStep.startMin),
    startedAt: record?.startedAt ?? null,
    upAt: record === undefined ? null : addMinutes(record.startedAt, durationMin),
    isLast: index === soup.steps.length - 1,
  };
}

/** What hands do, what runs and what comes: one task a batch, by when it wants somebody. `midnight` is the plan's day at 00:00 local. */
export function tasks(day: DayState, plan: DayPlan | null, soupById: ReadonlyMap<string, Soup>, midnight: Instant): readonly Task[] {
  const running = Object.values(day.batches).flatMap((batch): Task[] => {
    const soup = soupOf(batch, soupById);
    if (soup === undefined || batch.stage.kind !== 'cooking') return [];
    const task = taskOf(
      batch,
      soup,
      plan?.batches.find((planned) => planned.id === batch.batchId),
      midnight,
    );
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
        step: first,
        state: 'toStart',
        plannedAt: addMinutes(midnight, at.startMin),
        startedAt: null,
        upAt: null,
        isLast: soup.steps.length === 1,
      },
    ];
  });
  const wantedAt = (task: Task): Instant => task.upAt ?? task.plannedAt ?? 0;
  return [...running, ...coming].sort((left, right) => wantedAt(left) - wantedAt(right));
}

/** The batches begun, as the planner wants them: real times in minutes after the day's midnight. */
export function startedBatches(day: DayState, midnight: Instant): readonly StartedBatch[] {
  const minute = (at: Instant): number => Math.floor(minutesBetween(midnight, at));
  return Object.values(day.batches).map((batch) => ({
    batchId: batch.batchId,
    soupId: batch.soupId,
    soupVersion: batch.soupVersion,
    ordinal: batch.ordinal,
    volumeL: batch.volumeL,
    vesselId: batch.vesselId,
    steps: Object.entries(batch.steps).map(([stepId, record]) => ({
      stepId,
      startMin: minute(record.startedAt),
      endMin: record.doneAt === null ? null : Math.max(minute(record.startedAt), minute(record.doneAt)),
    })),
    state: batch.stage.kind === 'discarded' ? 'discarded' : batch.finishedAt === null ? 'running' : 'finished',
  }));
}
