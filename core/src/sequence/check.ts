import { changeoverMin } from './problem';
import type { Job, LagKind, PlacedJob, Problem, Sequence, Unit } from './problem';

/**
 * Proves a sequence feasible or names what it breaks. Written apart from the search and sharing none of its code, so that a mistake
 * there cannot hide here: everything is worked out again from the problem's own data.
 */

export type Violation =
  | { readonly code: 'job.missing'; readonly jobId: string }
  | { readonly code: 'job.twice'; readonly jobId: string }
  | { readonly code: 'steps.wrong'; readonly jobId: string }
  | { readonly code: 'step.mode'; readonly jobId: string; readonly stepId: string }
  | { readonly code: 'step.duration'; readonly jobId: string; readonly stepId: string; readonly isMin: number; readonly shouldMin: number }
  | { readonly code: 'step.order'; readonly jobId: string; readonly stepId: string; readonly missingMin: number }
  | { readonly code: 'step.wait'; readonly jobId: string; readonly stepId: string; readonly waitedMin: number; readonly maxWaitMin: number }
  | { readonly code: 'step.release'; readonly jobId: string; readonly stepId: string }
  | { readonly code: 'step.horizon'; readonly jobId: string; readonly stepId: string }
  | { readonly code: 'step.moved'; readonly jobId: string; readonly stepId: string }
  | { readonly code: 'step.beforeInput'; readonly jobId: string; readonly stepId: string; readonly inputId: string }
  | { readonly code: 'resource.unknown'; readonly resourceId: string }
  | { readonly code: 'resource.over'; readonly resourceId: string; readonly atMin: number; readonly used: number; readonly capacity: number }
  | { readonly code: 'resource.excluded'; readonly resourceId: string; readonly byId: string; readonly atMin: number }
  | { readonly code: 'unit.wrong'; readonly jobId: string; readonly unitId: string | null }
  | { readonly code: 'unit.volume'; readonly jobId: string; readonly unitId: string; readonly volumeL: number }
  | { readonly code: 'unit.clash'; readonly unitId: string; readonly jobId: string; readonly otherJobId: string; readonly missingMin: number }
  | { readonly code: 'unit.overtaken'; readonly unitId: string; readonly jobId: string; readonly otherJobId: string }
  | { readonly code: 'changeover.missing'; readonly unitId: string; readonly fromJobId: string; readonly toJobId: string };

interface Load {
  readonly resourceId: string;
  readonly fromMin: number;
  readonly toMin: number;
  readonly units: number;
  readonly happened: boolean;
}

interface Occupation {
  readonly unitId: string;
  readonly job: Job;
  readonly fromMin: number;
  readonly toMin: number;
  readonly happened: boolean;
}

interface Seen {
  readonly found: Violation[];
  readonly loads: Load[];
  readonly occupations: Occupation[];
}

const STARTS: Readonly<Record<LagKind, readonly ['startMin' | 'endMin', 'startMin' | 'endMin']>> = {
  startStart: ['startMin', 'startMin'],
  startEnd: ['startMin', 'endMin'],
  endStart: ['endMin', 'startMin'],
  endEnd: ['endMin', 'endMin'],
};

function seeJob(problem: Problem, job: Job, placed: PlacedJob, endOfJob: ReadonlyMap<string, number>, seen: Seen): void {
  const { found, loads, occupations } = seen;
  if (job.steps.length !== placed.steps.length || job.steps.some((step, index) => placed.steps[index]?.stepId !== step.id)) {
    found.push({ code: 'steps.wrong', jobId: job.id });
    return;
  }
  const at = new Map(placed.steps.map((step) => [step.stepId, step]));
  const isDone = (stepId: string): boolean => job.steps.some((step) => step.id === stepId && step.fixed?.kind === 'done');
  const hold = (unitIds: readonly string[], unitId: string | null, fromMin: number, toMin: number, happened: boolean): void => {
    const unit = problem.units.find((one) => one.id === unitId);
    if (unit === undefined || !unitIds.includes(unit.id)) {
      found.push({ code: 'unit.wrong', jobId: job.id, unitId });
      return;
    }
    const { volume } = unit;
    if (!happened && volume !== null && (job.volumeL < volume.minL || job.volumeL > volume.maxL))
      found.push({ code: 'unit.volume', jobId: job.id, unitId: unit.id, volumeL: job.volumeL });
    occupations.push({ unitId: unit.id, job, fromMin, toMin, happened });
  };
  job.steps.forEach((step, index) => {
    const is = placed.steps[index];
    if (is === undefined) return;
    const named = { jobId: job.id, stepId: step.id };
    const mode = step.modes.find((one) => one.id === is.modeId);
    if (mode === undefined) {
      found.push({ code: 'step.mode', ...named });
      return;
    }
    const done = step.fixed?.kind === 'done' ? step.fixed : null;
    for (const use of mode.uses) loads.push({ ...use, fromMin: is.startMin, toMin: is.endMin, happened: done !== null });
    if (mode.unitIds.length > 0) hold(mode.unitIds, is.unitId, is.startMin, is.endMin, done !== null);
    if (done !== null) {
      if (done.startMin !== is.startMin || done.endMin !== is.endMin) found.push({ code: 'step.moved', ...named });
      return;
    }
    if (step.fixed !== null && step.fixed.startMin !== is.startMin) found.push({ code: 'step.moved', ...named });
    if (is.endMin - is.startMin !== mode.durationMin) found.push({ code: 'step.duration', ...named, isMin: is.endMin - is.startMin, shouldMin: mode.durationMin });
    if (is.startMin < job.releaseMin) found.push({ code: 'step.release', ...named });
    if (is.endMin > problem.horizonMin) found.push({ code: 'step.horizon', ...named });
    for (const inputId of step.afterJobs) {
      const inputEnd = endOfJob.get(inputId);
      // A job that has begun goes on, whatever becomes of what it waits for.
      const missing = inputEnd === undefined && problem.jobs.some(({ id }) => id === inputId) && job.steps.every((other) => other.fixed?.kind !== 'done');
      if (missing || (inputEnd !== undefined && is.startMin < inputEnd)) found.push({ code: 'step.beforeInput', ...named, inputId });
    }
  });
  for (const lag of job.lags) {
    const from = at.get(lag.from);
    const to = at.get(lag.to);
    if (from === undefined || to === undefined || isDone(lag.to)) continue;
    const [leaves, arrives] = STARTS[lag.kind];
    const waitedMin = to[arrives] - from[leaves];
    if (waitedMin < lag.minMin) found.push({ code: 'step.order', jobId: job.id, stepId: lag.to, missingMin: lag.minMin - waitedMin });
    if (lag.maxMin !== null && waitedMin > lag.maxMin && !isDone(lag.from)) found.push({ code: 'step.wait', jobId: job.id, stepId: lag.to, waitedMin, maxWaitMin: lag.maxMin });
  }
  job.spans.forEach((span, index) => {
    const toMin = span.until === 'end' ? at.get(span.to)?.endMin : at.get(span.to)?.startMin;
    hold(span.unitIds, placed.spanUnitIds[index] ?? null, at.get(span.from)?.startMin ?? 0, toMin ?? 0, isDone(span.from));
  });
}

/** Capacity is checked only where something starts or a window opens or closes: between those points nothing rises or falls against us. */
function checkResources(problem: Problem, loads: readonly Load[]): Violation[] {
  const found: Violation[] = [];
  for (const id of new Set(loads.map((load) => load.resourceId)))
    if (!problem.resources.some((resource) => resource.id === id)) found.push({ code: 'resource.unknown', resourceId: id });
  for (const resource of problem.resources) {
    const own = loads.filter((load) => load.resourceId === resource.id);
    const points = new Set([...own.map((load) => load.fromMin), ...resource.windows.flatMap((window) => [window.fromMin, window.toMin])]);
    for (const atMin of points) {
      const running = own.filter((load) => load.fromMin <= atMin && atMin < load.toMin);
      const used = running.reduce((sum, load) => sum + load.units, 0);
      const capacity =
        resource.windows.length === 0
          ? resource.capacity
          : resource.windows.reduce((sum, window) => sum + (window.fromMin <= atMin && atMin < window.toMin ? window.capacity : 0), 0);
      // Work that has already happened may have been more than the plan allows; that is the day's affair, not the plan's.
      if (used > capacity && running.some((load) => !load.happened)) found.push({ code: 'resource.over', resourceId: resource.id, atMin, used, capacity });
    }
    for (const other of problem.resources) {
      if (resource.excludes?.includes(other.id) !== true) continue;
      for (const one of own)
        for (const load of loads)
          if (load.resourceId === other.id && load.fromMin < one.toMin && one.fromMin < load.toMin && !(load.happened && one.happened))
            found.push({ code: 'resource.excluded', resourceId: resource.id, byId: other.id, atMin: Math.max(load.fromMin, one.fromMin) });
    }
  }
  return found;
}

function checkUnit(problem: Problem, unit: Unit, occupations: readonly Occupation[], sequence: Pick<Sequence, 'changeovers'>): Violation[] {
  const found: Violation[] = [];
  const inOrder = [...occupations].sort((left, right) => left.fromMin - right.fromMin || left.toMin - right.toMin);
  inOrder.slice(1).forEach((after, index) => {
    const before = inOrder[index];
    if (before === undefined || (before.happened && after.happened)) return;
    const washMin = changeoverMin(problem, unit, before.job.changeClass, after.job.changeClass);
    const missingMin = before.toMin + washMin - after.fromMin;
    if (missingMin > 0) found.push({ code: 'unit.clash', unitId: unit.id, jobId: after.job.id, otherJobId: before.job.id, missingMin });
    const washed = sequence.changeovers.some(
      (one) =>
        one.unitId === unit.id &&
        one.fromJobId === before.job.id &&
        one.toJobId === after.job.id &&
        one.endMin - one.startMin >= washMin &&
        one.startMin >= before.toMin &&
        one.endMin <= after.fromMin,
    );
    if (washMin > 0 && missingMin <= 0 && !washed) found.push({ code: 'changeover.missing', unitId: unit.id, fromJobId: before.job.id, toJobId: after.job.id });
  });
  return found;
}

/** Jobs pass the units of a line in one order. */
function checkLine(line: readonly string[], occupations: readonly Occupation[]): Violation[] {
  const orders = line.map((unitId) => occupations.filter((one) => one.unitId === unitId).sort((left, right) => left.fromMin - right.fromMin));
  return orders.slice(1).flatMap((order, index) =>
    order.flatMap((after, place): Violation[] => {
      const rank = (jobId: string): number => orders[0]?.findIndex((one) => one.job.id === jobId) ?? -1;
      const before = order[place - 1];
      if (before === undefined || rank(before.job.id) === -1 || rank(after.job.id) === -1 || rank(before.job.id) < rank(after.job.id)) return [];
      return [{ code: 'unit.overtaken', unitId: line[index + 1] ?? '', jobId: before.job.id, otherJobId: after.job.id }];
    }),
  );
}

/** Everything a sequence breaks; an empty list is the proof that it can be done as it stands. Lateness is no violation. */
export function violations(problem: Problem, sequence: Pick<Sequence, 'jobs' | 'unplaced' | 'changeovers'>): readonly Violation[] {
  const seen: Seen = { found: [], loads: [], occupations: [] };
  const endOfJob = new Map(sequence.jobs.map((placed) => [placed.jobId, Math.max(0, ...placed.steps.map((step) => step.endMin))]));
  for (const job of problem.jobs) {
    const placings = sequence.jobs.filter((placed) => placed.jobId === job.id);
    const [placed] = placings;
    if (placed === undefined) {
      if (!sequence.unplaced.includes(job.id)) seen.found.push({ code: 'job.missing', jobId: job.id });
      continue;
    }
    if (placings.length > 1) seen.found.push({ code: 'job.twice', jobId: job.id });
    seeJob(problem, job, placed, endOfJob, seen);
  }
  for (const placed of sequence.jobs) if (!problem.jobs.some((job) => job.id === placed.jobId)) seen.found.push({ code: 'steps.wrong', jobId: placed.jobId });
  for (const one of sequence.changeovers) {
    const unit = problem.units.find(({ id }) => id === one.unitId);
    const table = problem.changeovers.find(({ id }) => id === unit?.changeoverId);
    // What stands in the unit already was washed for by somebody; hands are counted for the washes that are still to come.
    const happened = seen.occupations.some((stay) => stay.unitId === one.unitId && stay.job.id === one.toJobId && stay.fromMin >= one.endMin && stay.happened);
    for (const use of table?.uses ?? []) seen.loads.push({ ...use, fromMin: one.startMin, toMin: one.endMin, happened });
  }
  return [
    ...seen.found,
    ...checkResources(problem, seen.loads),
    ...problem.units.flatMap((unit) =>
      checkUnit(
        problem,
        unit,
        seen.occupations.filter((one) => one.unitId === unit.id),
        sequence,
      ),
    ),
    ...problem.lines.flatMap((line) => checkLine(line, seen.occupations)),
  ];
}
