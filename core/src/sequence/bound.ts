import { changeoverMin } from './problem';
import type { Job, Mode, Problem } from './problem';

/**
 * What no plan can cost less than, from relaxations that can be worked out at once: each job alone on the station; each resource and each group of units as
 * one machine that may put work aside (preemptive, shortest remaining time first: its k-th completion is never later than any plan's, Chu 1992); and the
 * washes that so many jobs in so few units need.
 */
export interface Bound {
  readonly lateMin: number;
  readonly changeoverMin: number;
  readonly makespanMin: number;
  readonly cost: number;
}

function quickest(modes: readonly Mode[], of: (mode: Mode) => number): number {
  return Math.min(...modes.map(of));
}

interface Alone {
  readonly job: Job;
  /** Soonest start of each step, and the least minutes from its start to the end of the job. */
  readonly head: ReadonlyMap<string, number>;
  readonly tail: ReadonlyMap<string, number>;
  readonly endMin: number;
}

function durationOf(step: Job['steps'][number]): number {
  return step.fixed?.kind === 'done' ? step.fixed.endMin - step.fixed.startMin : quickest(step.modes, (mode) => mode.durationMin);
}

/** Longest ways through one job by its shortest times. Lags are relaxed to their shortest; modes to the quickest. */
function alone(job: Job, inputEnd: (id: string) => number): Alone {
  const length = new Map(job.steps.map((step) => [step.id, durationOf(step)]));
  const head = new Map(job.steps.map((step) => [step.id, step.fixed?.startMin ?? Math.max(job.releaseMin, ...step.afterJobs.map(inputEnd))]));
  const tail = new Map(length);
  const fixed = new Set(job.steps.filter((step) => step.fixed !== null).map((step) => step.id));
  const shifted = job.lags.map((lag) => ({
    from: lag.from,
    to: lag.to,
    // Where an end is meant the length may be longer than the quickest; the start can then only be later.
    min:
      lag.minMin +
      (lag.kind === 'endStart' || lag.kind === 'endEnd' ? (length.get(lag.from) ?? 0) : 0) -
      (lag.kind === 'startEnd' || lag.kind === 'endEnd' ? Math.max(0, ...(job.steps.find((step) => step.id === lag.to)?.modes.map((mode) => mode.durationMin) ?? [0])) : 0),
  }));
  for (let round = 0; round < job.steps.length; round += 1)
    for (const { from, to, min } of shifted) {
      if (!fixed.has(to)) head.set(to, Math.max(head.get(to) ?? 0, (head.get(from) ?? 0) + min));
      tail.set(from, Math.max(tail.get(from) ?? 0, (tail.get(to) ?? 0) + min));
    }
  const endMin = Math.max(0, ...job.steps.map((step) => (head.get(step.id) ?? 0) + (length.get(step.id) ?? 0)));
  return { job, head, tail, endMin };
}

/** Jobs alone, each after what it takes from. Jobs in a circle are taken as free of each other. */
function allAlone(problem: Problem): readonly Alone[] {
  const known = new Map<string, Alone>();
  const open = new Set<string>();
  const jobById = new Map(problem.jobs.map((job) => [job.id, job]));
  const work = (id: string): Alone | null => {
    const ready = known.get(id);
    const job = jobById.get(id);
    if (ready !== undefined || job === undefined || open.has(id)) return ready ?? null;
    open.add(id);
    const made = alone(job, (input) => work(input)?.endMin ?? 0);
    open.delete(id);
    known.set(id, made);
    return made;
  };
  return problem.jobs.flatMap((job) => work(job.id) ?? []);
}

/** Work of one job on one machine of the relaxation. */
interface Piece {
  readonly job: Job;
  readonly headMin: number;
  readonly workMin: number;
  /** From the end of the work to the end of the job, at least. */
  readonly tailMin: number;
}

/** Completions, ascending, of one machine of a speed that may put work aside: shortest remaining first. */
function completions(pieces: readonly Piece[], speed: number): readonly number[] {
  const waiting = [...pieces].sort((left, right) => left.headMin - right.headMin).map((piece) => ({ headMin: piece.headMin, leftMin: piece.workMin / speed }));
  const ready: { leftMin: number }[] = [];
  const done: number[] = [];
  let now = Number.NEGATIVE_INFINITY;
  let next = 0;
  while (next < waiting.length || ready.length > 0) {
    if (ready.length === 0) now = Math.max(now, waiting[next]?.headMin ?? now);
    while (next < waiting.length && (waiting[next]?.headMin ?? 0) <= now) ready.push(waiting[next++] ?? { leftMin: 0 });
    ready.sort((left, right) => left.leftMin - right.leftMin);
    const [one] = ready;
    if (one === undefined) continue;
    const until = waiting[next]?.headMin ?? Number.POSITIVE_INFINITY;
    if (now + one.leftMin <= until) {
      now += one.leftMin;
      done.push(now);
      ready.shift();
    } else {
      one.leftMin -= until - now;
      now = until;
    }
  }
  return done;
}

function lateOn(pieces: readonly Piece[], speed: number): number {
  const wanted = pieces.filter(({ job }) => job.readyByMin !== null);
  const weight = Math.min(...wanted.map(({ job }) => job.lateWeight));
  if (wanted.length === 0) return 0;
  const due = wanted.map((piece) => (piece.job.readyByMin ?? 0) - piece.tailMin).sort((left, right) => left - right);
  return weight * completions(wanted, speed).reduce((sum, endMin, index) => sum + Math.max(0, endMin - (due[index] ?? 0)), 0);
}

function makespanOn(pieces: readonly Piece[], speed: number): number {
  // Of any set of pieces, none begins before the first may and all the rest follows the last: taking away the shortest tails one by one.
  const byTail = [...pieces].sort((left, right) => right.tailMin - left.tailMin);
  return byTail.reduce((best, piece, index) => Math.max(best, (completions(byTail.slice(0, index + 1), speed).at(-1) ?? 0) + piece.tailMin), 0);
}

function resourcePieces(problem: Problem, all: readonly Alone[], resourceId: string): readonly Piece[] {
  return all.flatMap(({ job, head, tail }): Piece[] => {
    const own = job.steps.flatMap((step) => {
      const workMin = quickest(step.modes, (mode) => mode.durationMin * (mode.uses.find((use) => use.resourceId === resourceId)?.units ?? 0));
      return step.fixed?.kind === 'done' || workMin === 0 ? [] : [{ step, workMin }];
    });
    if (own.length === 0) return [];
    return [
      {
        job,
        headMin: Math.min(...own.map(({ step }) => head.get(step.id) ?? 0)),
        workMin: own.reduce((sum, one) => sum + one.workMin, 0),
        tailMin: Math.min(...own.map(({ step }) => (tail.get(step.id) ?? 0) - durationOf(step))),
      },
    ];
  });
}

/** What holds one of some units: the span's minutes at the least, and the least wash before it. */
function unitPieces(problem: Problem, all: readonly Alone[], unitIds: readonly string[]): readonly Piece[] {
  const within = (ids: readonly string[]): boolean => ids.length > 0 && ids.every((id) => unitIds.includes(id));
  const leastWash = (job: Job): number =>
    Math.min(
      ...problem.units
        .filter(({ id }) => unitIds.includes(id))
        .flatMap((unit) => problem.jobs.filter((other) => other !== job).map((other) => changeoverMin(problem, unit, other.changeClass, job.changeClass))),
    );
  return all.flatMap(({ job, head, tail }): Piece[] => {
    const from = (id: string): number => head.get(id) ?? 0;
    const stays = [
      ...job.spans
        .filter((span) => within(span.unitIds))
        .map((span) => {
          const last = job.steps.find((step) => step.id === span.to);
          const stay = last !== undefined && span.until === 'end' ? durationOf(last) : 0;
          return { from: span.from, startMin: from(span.from), workMin: Math.max(0, longest(job, span.from, span.to)) + stay, tailMin: (tail.get(span.to) ?? 0) - stay };
        }),
      ...job.steps
        .filter((step) => step.modes.every((mode) => within(mode.unitIds)))
        .map((step) => ({ from: step.id, startMin: from(step.id), workMin: durationOf(step), tailMin: (tail.get(step.id) ?? 0) - durationOf(step) })),
    ].filter((stay) => job.steps.find((step) => step.id === stay.from)?.fixed?.kind !== 'done');
    const wash = leastWash(job);
    const washMin = Number.isFinite(wash) ? wash : 0;
    const [one] = stays;
    if (one === undefined) return [];
    // Several stays of one job: counted as one piece from the soonest, so that it is one completion.
    return [
      {
        job,
        headMin: Math.min(...stays.map((stay) => stay.startMin)) - washMin,
        workMin: stays.reduce((sum, stay) => sum + stay.workMin, 0) + washMin,
        tailMin: Math.min(...stays.map((stay) => stay.tailMin)),
      },
    ];
  });
}

/** Least minutes from the start of one step to the start of another, by shortest times. */
function longest(job: Job, from: string, to: string): number {
  const at = new Map<string, number>([[from, 0]]);
  for (let round = 0; round < job.steps.length; round += 1)
    for (const lag of job.lags) {
      const start = at.get(lag.from);
      if (start === undefined) continue;
      const step = job.steps.find(({ id }) => id === lag.from);
      const target = job.steps.find(({ id }) => id === lag.to);
      const min =
        lag.minMin +
        ((lag.kind === 'endStart' || lag.kind === 'endEnd') && step !== undefined ? durationOf(step) : 0) -
        ((lag.kind === 'startEnd' || lag.kind === 'endEnd') && target !== undefined ? Math.max(...target.modes.map((mode) => mode.durationMin)) : 0);
      at.set(lag.to, Math.max(at.get(lag.to) ?? Number.NEGATIVE_INFINITY, start + min));
    }
  return at.get(to) ?? 0;
}

/** Wash minutes: of the jobs that need one of these units, all but as many as there are units come after another. */
function washesOn(problem: Problem, unitIds: readonly string[], jobs: readonly Job[]): number {
  const units = problem.units.filter(({ id }) => unitIds.includes(id));
  const least = jobs
    .map((job) => Math.min(...units.flatMap((unit) => jobs.filter((other) => other !== job).map((other) => changeoverMin(problem, unit, other.changeClass, job.changeClass)))))
    .filter((min) => Number.isFinite(min))
    .sort((left, right) => left - right);
  return least.slice(0, Math.max(0, least.length - units.length)).reduce((sum, min) => sum + min, 0);
}

/** The groups of units that some span or mode may choose from, and what all of those of one changeover make together. */
function unitGroups(problem: Problem): readonly (readonly string[])[] {
  const groups = new Map<string, readonly string[]>();
  const add = (ids: readonly string[]): void => {
    if (ids.length > 0) groups.set([...ids].sort().join(), ids);
  };
  for (const job of problem.jobs) {
    for (const span of job.spans) add(span.unitIds);
    for (const step of job.steps) add([...new Set(step.modes.flatMap((mode) => mode.unitIds))]);
  }
  for (const left of [...groups.values()]) for (const right of [...groups.values()]) if (left.some((id) => right.includes(id))) add([...new Set([...left, ...right])]);
  return [...groups.values()];
}

/** A lower bound of a problem's cost, with its parts. What is moved against an agreed plan and what stands early are bounded by 0. */
export function boundOf(problem: Problem): Bound {
  const { weights } = problem;
  const all = allAlone(problem);
  const each = all.reduce((sum, { job, endMin }) => sum + (job.readyByMin === null ? 0 : job.lateWeight * Math.max(0, endMin - job.readyByMin)), 0);
  let lateMin = each;
  let makespanMin = Math.max(0, ...all.map(({ endMin }) => endMin));
  const groups = unitGroups(problem);
  const machines = [
    ...problem.resources.map((resource) => ({
      pieces: resourcePieces(problem, all, resource.id),
      speed: Math.max(resource.windows.length === 0 ? resource.capacity : 0, peakOf(resource.windows)),
    })),
    ...groups.map((ids) => ({ pieces: unitPieces(problem, all, ids), speed: ids.length })),
  ];
  for (const { pieces, speed } of machines) {
    if (pieces.length === 0 || speed <= 0) continue;
    lateMin = Math.max(lateMin, lateOn(pieces, speed));
    makespanMin = Math.max(makespanMin, makespanOn(pieces, speed));
  }
  // Groups without a unit in common add up; the largest sums first.
  const washes = groups
    .map((ids) => ({
      ids,
      min: washesOn(
        problem,
        ids,
        problem.jobs.filter(
          (job) => !hasBegun(job) && (job.spans.some((span) => isWithin(span.unitIds, ids)) || job.steps.some((step) => step.modes.every((mode) => isWithin(mode.unitIds, ids)))),
        ),
      ),
    }))
    .sort((left, right) => right.min - left.min);
  const taken = new Set<string>();
  let washed = 0;
  for (const { ids, min } of washes) {
    if (ids.some((id) => taken.has(id))) continue;
    for (const id of ids) taken.add(id);
    washed += min;
  }
  const whole = (value: number): number => Math.ceil(value - 1e-9);
  const parts = { lateMin, changeoverMin: whole(washed), makespanMin: whole(makespanMin) };
  return { ...parts, cost: weights.late * parts.lateMin + weights.changeover * parts.changeoverMin + weights.makespan * parts.makespanMin };
}

/** What was washed for it has been washed. */
function hasBegun(job: Job): boolean {
  return job.steps.some((step) => step.fixed?.kind === 'done');
}

function isWithin(ids: readonly string[], group: readonly string[]): boolean {
  return ids.length > 0 && ids.every((id) => group.includes(id));
}

function peakOf(windows: Problem['resources'][number]['windows']): number {
  return windows.reduce(
    (peak, at) =>
      Math.max(
        peak,
        windows.reduce((sum, window) => sum + (window.fromMin <= at.fromMin && at.fromMin < window.toMin ? window.capacity : 0), 0),
      ),
    0,
  );
}
