import { emptyBookings, freeProfiles, washTable } from './bookings';
import type { Bookings, IndexedUse } from './bookings';
import { seeded } from './random';
import type { Job, JobStep, Objective, PlacedJob, PlacedStep, Problem, Sequence } from './problem';

/**
 * List scheduling: jobs are placed one at a time, each as late as its ready-by allows (soup is best fresh) or, without one, as early
 * as possible; a step never starts before its hands, blender or oven are free, and the vessel is held from the first step in it until
 * it is emptied. Several orders are tried (due date, Johnson's rule, longest first), then random moves of one job, keeping the best.
 */

/** Jobs that have begun: what they still wait for must be made in another vessel than the one they stand in. */
interface Started {
  readonly jobs: ReadonlySet<string>;
  /** Those that stand in a vessel now: they are laid out before others that have only begun at the bench. */
  readonly inside: ReadonlySet<string>;
  readonly feeds: ReadonlySet<string>;
  readonly holds: ReadonlySet<string>;
}

function startedOf(problem: Problem): Started {
  const begun = problem.jobs.filter((job) => job.steps.some((step) => step.frozen !== null));
  const feeds = new Set<string>();
  const follow = (job: Job): void => {
    for (const id of openInputs(job)) {
      const input = problem.jobs.find((other) => other.id === id);
      if (input === undefined || feeds.has(id)) continue;
      feeds.add(id);
      follow(input);
    }
  };
  begun.forEach(follow);
  const inside = begun.filter((job) => job.span !== null && job.steps[job.span.firstStep]?.frozen !== null && job.steps[job.span.lastStep]?.frozen === null);
  return { jobs: new Set(begun.map((job) => job.id)), inside: new Set(inside.map((job) => job.id)), feeds, holds: new Set(inside.flatMap((job) => job.span?.vesselIds ?? [])) };
}

/** What the steps of a job that have not begun wait for. */
function openInputs(job: Job): readonly string[] {
  return job.steps.flatMap((step) => (step.frozen === null ? step.afterJobs : []));
}

/** Starts of a job's steps, filled in by one try and read only when it succeeds: a search tries thousands. */
interface Scratch {
  readonly startMin: Int32Array;
  readonly waitedMin: Int32Array;
  readonly waitedFor: (string | null)[];
}

interface Bench {
  readonly problem: Problem;
  readonly bookings: Bookings;
  readonly doneAt: ReadonlyMap<string, number>;
  readonly uses: ReadonlyMap<JobStep, readonly IndexedUse[]>;
  readonly scratch: Scratch;
  readonly started: Started;
}

/** endMin of the job, or how the start must move: `laterMin` for the next try forward, `earlierMin` backward (at least 1 each). */
type Tried =
  | { readonly kind: 'fits'; readonly endMin: number; readonly waited: boolean }
  | { readonly kind: 'move'; readonly laterMin: number; readonly earlierMin: number }
  | { readonly kind: 'never' };

const NEVER: Tried = { kind: 'never' };

/** Tries a job with its first free step not before `fromMin`, each step as soon as it can after the one before. */
function attempt(bench: Bench, job: Job, vesselId: string | null, fromMin: number): Tried {
  const { bookings, doneAt, scratch } = bench;
  let previousEnd = -1;
  let waited = false;
  for (let index = 0; index < job.steps.length; index += 1) {
    const step = job.steps[index];
    if (step === undefined) return NEVER;
    if (step.frozen !== null) {
      scratch.startMin[index] = step.frozen.startMin;
      scratch.waitedMin[index] = 0;
      scratch.waitedFor[index] = null;
      previousEnd = step.frozen.endMin;
      continue;
    }
    const before = job.steps[index - 1];
    const afterFrozen = before === undefined || before.frozen !== null;
    let earliestMin = previousEnd === -1 ? fromMin : Math.max(previousEnd, afterFrozen ? fromMin : 0);
    let input: string | null = null;
    for (const id of step.afterJobs) {
      const endMin = doneAt.get(id) ?? 0;
      if (endMin > earliestMin) [earliestMin, input] = [endMin, id];
    }
    const startMin = bookings.earliest(bench.uses.get(step) ?? [], earliestMin, step.durationMin);
    if (startMin === -1) return NEVER;
    const waitedMin = previousEnd === -1 ? 0 : startMin - previousEnd;
    // A wait that has already happened cannot be planned away: after a frozen step it is accepted.
    if (!afterFrozen && before.maxWaitMin !== null && waitedMin > before.maxWaitMin) return { kind: 'move', laterMin: waitedMin - before.maxWaitMin, earlierMin: 1 };
    scratch.startMin[index] = startMin;
    scratch.waitedMin[index] = waitedMin;
    scratch.waitedFor[index] = waitedMin === 0 ? null : (bookings.blockedBy() ?? input);
    waited ||= waitedMin > 0;
    previousEnd = startMin + step.durationMin;
  }
  const { span } = job;
  const first = span === null ? undefined : job.steps[span.firstStep];
  const last = span === null ? undefined : job.steps[span.lastStep];
  // A batch that stands in its kettle already cannot be told that it does not fit there.
  if (span !== null && vesselId !== null && first?.frozen === null && last !== undefined) {
    const toMin = (scratch.startMin[span.lastStep] ?? 0) + last.durationMin;
    const laterMin = bookings.spanLater(vesselId, job, scratch.startMin[span.firstStep] ?? 0, toMin);
    // Without waits inside, the job is as short as it can be, so nothing between here and that much earlier can fit either.
    if (laterMin > 0) return { kind: 'move', laterMin, earlierMin: waited ? 1 : bookings.spanEarlier() };
  }
  return { kind: 'fits', endMin: previousEnd === -1 ? fromMin : previousEnd, waited };
}

/** As early as possible. */
function forward(bench: Bench, job: Job, vesselId: string | null): number | null {
  let fromMin = job.releaseMin;
  while (fromMin < bench.problem.horizonMin) {
    const tried = attempt(bench, job, vesselId, fromMin);
    if (tried.kind === 'never') return null;
    if (tried.kind === 'fits') return tried.endMin;
    fromMin += Math.max(1, tried.laterMin);
  }
  return null;
}

/** As late as the ready-by allows; null when it cannot be met. */
function backward(bench: Bench, job: Job, vesselId: string | null, readyByMin: number): number | null {
  let fromMin = readyByMin - job.steps.reduce((sum, step) => sum + step.durationMin, 0);
  while (fromMin >= job.releaseMin) {
    const tried = attempt(bench, job, vesselId, fromMin);
    if (tried.kind === 'fits' && tried.endMin <= readyByMin) return tried.endMin;
    fromMin -= tried.kind === 'move' ? Math.max(1, tried.earlierMin) : 1;
  }
  return null;
}

interface Choice {
  readonly vesselId: string | null;
  readonly steps: readonly PlacedStep[];
  readonly endMin: number;
}

function readScratch(job: Job, scratch: Scratch): readonly PlacedStep[] {
  return job.steps.map((step, index) => {
    const startMin = scratch.startMin[index] ?? 0;
    const endMin = step.frozen === null ? startMin + step.durationMin : step.frozen.endMin;
    return { stepId: step.id, startMin, endMin, waitedMin: scratch.waitedMin[index] ?? 0, waitedFor: scratch.waitedFor[index] ?? null };
  });
}

/** The best vessel for a job: in time, then the least spare room, then the freshest. */
function place(bench: Bench, job: Job): Choice | null {
  const { readyByMin } = job;
  const started = job.steps.some((step) => step.frozen !== null);
  let best: Choice | null = null;
  let bestCost: readonly number[] = [];
  for (const vesselId of job.span?.vesselIds ?? [null]) {
    if (bench.started.feeds.has(job.id) && bench.started.holds.has(vesselId ?? '')) continue;
    const endMin = (readyByMin !== null && !started ? backward(bench, job, vesselId, readyByMin) : null) ?? forward(bench, job, vesselId);
    if (endMin === null) continue;
    const roomL = bench.problem.vessels.find((vessel) => vessel.id === vesselId)?.workingMaxL ?? 0;
    const cost = readyByMin === null ? [endMin, roomL] : [Math.max(0, endMin - readyByMin), roomL, -endMin];
    if (best === null || isLess(cost, bestCost)) {
      best = { vesselId, endMin, steps: readScratch(job, bench.scratch) };
      bestCost = cost;
    }
  }
  return best;
}

function isLess(left: readonly number[], right: readonly number[]): boolean {
  const at = left.findIndex((value, index) => value !== right[index]);
  return at !== -1 && (left[at] ?? 0) < (right[at] ?? 0);
}

function measure(problem: Problem, placed: readonly PlacedJob[], bookings: Bookings): Objective {
  let lateMin = 0;
  let earlyMin = 0;
  let makespanMin = 0;
  const byId = new Map(problem.jobs.map((job) => [job.id, job]));
  for (const { jobId, steps } of placed) {
    const endMin = steps.at(-1)?.endMin ?? 0;
    const readyByMin = byId.get(jobId)?.readyByMin ?? null;
    makespanMin = Math.max(makespanMin, endMin);
    if (readyByMin === null) continue;
    lateMin += Math.max(0, endMin - readyByMin);
    earlyMin += Math.max(0, readyByMin - endMin);
  }
  return { lateMin, earlyMin, washMin: bookings.washTotalMin(), makespanMin };
}

/** What started work waits for, started work, then the given order; nobody before what it waits for. */
function placingOrder(order: readonly Job[], started: Started): readonly Job[] {
  const rank = (job: Job): number => (started.feeds.has(job.id) ? 0 : started.inside.has(job.id) ? 1 : started.jobs.has(job.id) ? 2 : 3);
  const waiting = [...order].sort((left, right) => rank(left) - rank(right));
  const known = new Set(order.map((job) => job.id));
  const done = new Set<string>();
  const result: Job[] = [];
  while (waiting.length > 0) {
    const index = waiting.findIndex((job) => openInputs(job).every((id) => done.has(id) || !known.has(id)));
    // A circle of jobs that wait for each other cannot be laid out: the rest is reported as unplaced.
    if (index === -1) break;
    const [job] = waiting.splice(index, 1);
    if (job === undefined) break;
    done.add(job.id);
    result.push(job);
  }
  return result;
}

/** What stays the same over a whole search: worked out once. */
interface Prepared {
  readonly problem: Problem;
  readonly profiles: ReturnType<typeof freeProfiles>;
  readonly washes: ReturnType<typeof washTable>;
  readonly uses: ReadonlyMap<JobStep, readonly IndexedUse[]>;
  readonly scratch: Scratch;
  readonly started: Started;
}

function prepare(problem: Problem): Prepared {
  const indexOf = new Map(problem.resources.map((resource, index) => [resource.id, index]));
  const uses = new Map<JobStep, readonly IndexedUse[]>();
  let longest = 0;
  for (const job of problem.jobs) {
    longest = Math.max(longest, job.steps.length);
    for (const step of job.steps)
      uses.set(
        step,
        step.uses.map((use) => ({ resource: indexOf.get(use.resourceId) ?? -1, units: use.units })),
      );
  }
  const scratch = { startMin: new Int32Array(longest), waitedMin: new Int32Array(longest), waitedFor: Array.from({ length: longest }, () => null) };
  return { problem, profiles: freeProfiles(problem), washes: washTable(problem), uses, scratch, started: startedOf(problem) };
}

function decode(prepared: Prepared, order: readonly Job[]): Sequence {
  const { problem, uses } = prepared;
  const bookings = emptyBookings(problem, prepared.profiles, prepared.washes);
  const doneAt = new Map<string, number>();
  const bench: Bench = { problem, bookings, doneAt, uses, scratch: prepared.scratch, started: prepared.started };
  const known = new Set(problem.jobs.map((job) => job.id));
  const placed: PlacedJob[] = [];
  // What has happened or runs now takes its hands and tools whoever is laid out first.
  for (const job of problem.jobs) for (const step of job.steps) if (step.frozen !== null) bookings.book(uses.get(step) ?? [], step.frozen.startMin, step.frozen.endMin);
  for (const job of placingOrder(order, prepared.started)) {
    if (openInputs(job).some((id) => known.has(id) && !doneAt.has(id))) continue;
    const choice = place(bench, job);
    if (choice === null) continue;
    job.steps.forEach((step, index) => {
      const at = choice.steps[index];
      if (at !== undefined && step.frozen === null) bookings.book(uses.get(step) ?? [], at.startMin, at.endMin);
    });
    const first = job.span === null ? undefined : choice.steps[job.span.firstStep];
    const last = job.span === null ? undefined : choice.steps[job.span.lastStep];
    if (choice.vesselId !== null && first !== undefined && last !== undefined) bookings.bookSpan(choice.vesselId, job, first.startMin, last.endMin);
    doneAt.set(job.id, choice.endMin);
    placed.push({ jobId: job.id, vesselId: choice.vesselId, steps: choice.steps });
  }
  const unplaced = problem.jobs.filter((job) => !doneAt.has(job.id)).map((job) => job.id);
  return { jobs: placed, objective: measure(problem, placed, bookings), unplaced };
}

function isBetter(left: Sequence, right: Sequence): boolean {
  const key = ({ unplaced, objective }: Sequence): readonly number[] => [unplaced.length, objective.lateMin, objective.washMin, objective.earlyMin, objective.makespanMin];
  return isLess(key(left), key(right));
}

/** Johnson's rule (Johnson 1954): first those whose first step is the shorter, by first step; then the rest, by falling last step. */
function johnsonOrder(jobs: readonly Job[]): readonly Job[] {
  const first = (job: Job): number => job.steps[0]?.durationMin ?? 0;
  const last = (job: Job): number => job.steps.at(-1)?.durationMin ?? 0;
  const front = jobs.filter((job) => first(job) < last(job)).sort((left, right) => first(left) - first(right));
  const back = jobs.filter((job) => first(job) >= last(job)).sort((left, right) => last(right) - last(left));
  return [...front, ...back];
}

/**
 * A feasible sequence of the jobs, and how good it is. Deterministic for a seed and a number of moves; `moves: 0` gives the first plan.
 * Jobs that cannot be placed inside the horizon are named in `unplaced`.
 */
export function schedule(problem: Problem, options: { readonly seed: number; readonly moves: number }): Sequence {
  const work = (job: Job): number => job.steps.reduce((sum, step) => sum + step.durationMin, 0);
  const due = (job: Job): number => job.readyByMin ?? 0;
  const dueOrder = [...problem.jobs].sort((left, right) => due(left) - due(right) || work(right) - work(left));
  const prepared = prepare(problem);
  let order: readonly Job[] = dueOrder;
  let best = decode(prepared, dueOrder);
  if (options.moves === 0) return best;
  for (const other of [johnsonOrder(problem.jobs), [...problem.jobs].sort((left, right) => work(right) - work(left))]) {
    const sequence = decode(prepared, other);
    if (isBetter(sequence, best)) [best, order] = [sequence, other];
  }
  const random = seeded(options.seed);
  for (let move = 0; move < options.moves && order.length > 1; move += 1) {
    const changed = [...order];
    const [job] = changed.splice(Math.floor(random() * changed.length), 1);
    if (job === undefined) break;
    changed.splice(Math.floor(random() * (changed.length + 1)), 0, job);
    const sequence = decode(prepared, changed);
    if (isBetter(sequence, best)) [best, order] = [sequence, changed];
  }
  return best;
}
