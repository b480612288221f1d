import type { Allergen } from '../food/index';
import { allergensOf } from '../soup/index';
import type { DayInput, DayPlan, PlanFinding, PlannedBatch, Wash } from './dayPlan';
import { dayBatches } from './dayBatches';
import type { WantedBatch } from './dayBatches';
import { dayProblem } from './dayProblem';
import { schedule } from './schedule';
import type { Job, PlacedJob, Problem } from './problem';

function plannedBatch(batch: WantedBatch, job: Job, placed: PlacedJob, allergens: readonly Allergen[]): PlannedBatch {
  const readyMin = placed.steps.at(-1)?.endMin ?? 0;
  const state = batch.started === null ? 'planned' : batch.started.state === 'finished' ? 'finished' : 'running';
  return {
    id: batch.id,
    name: `${batch.soup.shortName} ${String(batch.ordinal)}`,
    soupId: batch.soup.id,
    soupVersion: batch.soup.version,
    ordinal: batch.ordinal,
    volumeL: batch.volumeL,
    vesselId: placed.vesselId,
    serviceId: batch.serviceId,
    readyByMin: job.readyByMin,
    readyMin,
    lateMin: job.readyByMin === null ? 0 : Math.max(0, readyMin - job.readyByMin),
    allergens,
    steps: placed.steps.map((step, index) => ({ ...step, uses: job.steps[index]?.uses ?? [], frozen: job.steps[index]?.frozen !== null })),
    state,
  };
}

interface Held {
  readonly batch: PlannedBatch;
  readonly fromMin: number;
  readonly toMin: number;
}

/** The washes between the batches of each vessel, right after the first of the two is emptied. */
function washesOf(problem: Problem, batches: readonly PlannedBatch[]): readonly Wash[] {
  return problem.vessels.flatMap((vessel) => {
    const held = batches
      .filter((batch) => batch.vesselId === vessel.id)
      .flatMap((batch): Held[] => {
        const span = problem.jobs.find((job) => job.id === batch.id)?.span;
        const first = batch.steps[span?.firstStep ?? -1];
        const last = batch.steps[span?.lastStep ?? -1];
        return first === undefined || last === undefined ? [] : [{ batch, fromMin: first.startMin, toMin: last.endMin }];
      })
      .sort((left, right) => left.fromMin - right.fromMin);
    return held.slice(1).map(({ batch }, index): Wash => {
      const before = held[index];
      const carriesOver = (before?.batch.allergens ?? []).filter((allergen) => !batch.allergens.includes(allergen));
      const kind = carriesOver.length > 0 ? 'full' : 'rinse';
      const startMin = before?.toMin ?? 0;
      return { vesselId: vessel.id, kind, startMin, endMin: startMin + (kind === 'full' ? problem.fullWashMin : problem.rinseMin), beforeBatchId: batch.id, carriesOver };
    });
  });
}

/**
 * Batches of one soup that have not begun are alike, so their numbers follow the clock: the first to be cooked is number one. What was
 * placed stays where it is; only the names change hands.
 */
function numberedByTime(wanted: readonly WantedBatch[], jobs: readonly PlacedJob[]): ReadonlyMap<string, PlacedJob> {
  const placed = new Map(jobs.map((job) => [job.jobId, job]));
  const startOf = (job: PlacedJob): number => job.steps[0]?.startMin ?? 0;
  const alike = new Map<string, WantedBatch[]>();
  for (const batch of wanted) {
    if (batch.started !== null || !placed.has(batch.id)) continue;
    const key = `${batch.soup.id} ${String(batch.volumeL)}`;
    alike.set(key, [...(alike.get(key) ?? []), batch]);
  }
  for (const batches of alike.values()) {
    const inTime = batches.flatMap((batch) => placed.get(batch.id) ?? []).sort((left, right) => startOf(left) - startOf(right));
    [...batches]
      .sort((left, right) => left.ordinal - right.ordinal)
      .forEach((batch, index) => {
        const job = inTime[index];
        if (job !== undefined) placed.set(batch.id, { ...job, jobId: batch.id });
      });
  }
  return placed;
}

/** The plan of a day: pars → needs → batches → a timed sequence. Deterministic for its input, seed and number of moves. */
export function planDay(input: DayInput, options: { readonly seed: number; readonly moves: number }): DayPlan {
  const { wanted, needs, components, findings } = dayBatches(input);
  const problem = dayProblem(input, wanted);
  const sequence = schedule(problem, options);
  const soupById = new Map(input.soups.map((soup) => [soup.id, soup]));
  const placedById = numberedByTime(wanted, sequence.jobs);
  const batches = wanted.flatMap((batch): PlannedBatch[] => {
    const job = problem.jobs.find((candidate) => candidate.id === batch.id);
    const placed = placedById.get(batch.id);
    return job === undefined || placed === undefined ? [] : [plannedBatch(batch, job, placed, allergensOf(batch.soup, soupById).contains)];
  });
  const late = batches
    .filter((batch) => batch.lateMin > 0 && batch.state !== 'finished')
    .map((batch): PlanFinding => {
      const longest = [...batch.steps].sort((left, right) => right.waitedMin - left.waitedMin)[0];
      return { code: 'plan.late', batchId: batch.id, lateMin: batch.lateMin, waitedFor: longest?.waitedFor ?? null };
    });
  return {
    date: input.date,
    needs,
    components,
    batches: [...batches].sort((left, right) => (left.steps[0]?.startMin ?? 0) - (right.steps[0]?.startMin ?? 0)),
    washes: washesOf(problem, batches),
    findings: [...findings, ...sequence.unplaced.map((batchId): PlanFinding => ({ code: 'plan.unplaced', batchId })), ...late],
    objective: sequence.objective,
  };
}
