/**
 * The sequencing problem: jobs of steps that take shared resources, hold units (a kettle, a blender, a machine) from a first step to a
 * last one, and are bound to each other by shortest and longest times. Times are whole minutes from a zero the caller chooses (midnight
 * for a kitchen day). It knows nothing of soup: a textbook problem is the same thing with other names — a job shop is jobs whose steps
 * use resources of capacity 1, no-wait is a longest time of 0, blocking is a unit held until the next step begins, a changeover
 * is a wash.
 */

/** Shared capacity over time: hands, oven trays. Outside every window the capacity is 0; no windows = always `capacity`. */
export interface Resource {
  readonly id: string;
  readonly name: string;
  readonly capacity: number;
  readonly windows: readonly { readonly fromMin: number; readonly toMin: number; readonly capacity: number }[];
  /** Resources of which nothing is in use while any of this one is, and the other way round (an oven at one heat and the same oven at another). Said of either is said of both. */
  readonly excludes?: readonly string[] | undefined;
}

export interface ResourceUse {
  readonly resourceId: string;
  readonly units: number;
}

/** Minutes of wash or set-up between two classes of work in one unit, `min[from][to]`, and what it takes while it lasts. */
export interface Changeover {
  readonly id: string;
  readonly classes: readonly string[];
  readonly min: readonly (readonly number[])[];
  readonly uses: readonly ResourceUse[];
}

/** Something that holds one job at a time. */
export interface Unit {
  readonly id: string;
  readonly name: string;
  /** What a batch in it may measure; null = it does not matter. */
  readonly volume: { readonly minL: number; readonly maxL: number } | null;
  /** The changeover between what it holds; null = none. */
  readonly changeoverId: string | null;
}

/** One way of doing a step. */
export interface Mode {
  readonly id: string;
  readonly durationMin: number;
  /** The least and the most it may take; left out = it takes what it takes. */
  readonly spreadMin?: readonly [low: number, high: number] | undefined;
  readonly uses: readonly ResourceUse[];
  /** One of these units is held for as long as the step lasts; empty = none. */
  readonly unitIds: readonly string[];
}

export interface JobStep {
  readonly id: string;
  readonly modes: readonly Mode[];
  /** Jobs that must be finished before this step starts (stock before the soup that takes it). */
  readonly afterJobs: readonly string[];
  /** What has happened already keeps its times; a pin is a start that somebody wants. */
  readonly fixed: { readonly kind: 'done'; readonly startMin: number; readonly endMin: number } | { readonly kind: 'pinned'; readonly startMin: number } | null;
}

export type LagKind = 'startStart' | 'startEnd' | 'endStart' | 'endEnd';

/** Minutes from the start or end of one step to the start or end of another, at least and at most. */
export interface Lag {
  readonly from: string;
  readonly to: string;
  readonly kind: LagKind;
  readonly minMin: number;
  /** null = it keeps. */
  readonly maxMin: number | null;
}

/** One of the units is held from the start of one step to the end of another, or to its start. */
export interface UnitSpan {
  readonly id: string;
  readonly unitIds: readonly string[];
  readonly from: string;
  readonly to: string;
  readonly until: 'end' | 'start';
}

export interface Job {
  readonly id: string;
  readonly volumeL: number;
  readonly steps: readonly JobStep[];
  readonly lags: readonly Lag[];
  readonly spans: readonly UnitSpan[];
  /** Its class in every changeover. */
  readonly changeClass: string | null;
  readonly releaseMin: number;
  /** null = as early as possible; what others take, not long before they are ready. */
  readonly readyByMin: number | null;
  readonly lateWeight: number;
  /** Of each minute it is ready before `readyByMin`, or where that is null, before each job that takes it. */
  readonly earlyWeight: number;
  /** Room it had better have before `readyByMin`, for steps that take longer than planned. */
  readonly bufferMin: number;
  /** How long before that it may be ready and nobody minds. */
  readonly likesEarlyMin: number;
}

/** Of each resource, by its place, the places of those that exclude it or that it excludes. */
export function rivalsOf({ resources }: Pick<Problem, 'resources'>): readonly (readonly number[])[] {
  return resources.map(({ id, excludes = [] }, at) =>
    resources.flatMap((other, index) => (index !== at && (excludes.includes(other.id) || other.excludes?.includes(id) === true) ? [index] : [])),
  );
}

/** What a minute of each counts in a problem's cost. */
export interface Weights {
  readonly late: number;
  /** Of the room before a ready-by that is missing. */
  readonly short: number;
  readonly early: number;
  readonly changeover: number;
  readonly moved: number;
  readonly makespan: number;
}

/** Far apart, so that in ordinary numbers none of a later kind makes up for one before it. A design choice. */
export const DEFAULT_WEIGHTS: Weights = { late: 10_000, short: 300, early: 100, changeover: 30, moved: 20, makespan: 1 };

export interface Problem {
  readonly horizonMin: number;
  readonly resources: readonly Resource[];
  readonly units: readonly Unit[];
  readonly changeovers: readonly Changeover[];
  readonly jobs: readonly Job[];
  /** Units every job passes in the same order as every other job: nothing overtakes (a permutation flow shop). */
  readonly lines: readonly (readonly string[])[];
  readonly weights: Weights;
}

export interface PlacedStep {
  readonly stepId: string;
  readonly modeId: string;
  /** The unit its mode holds. */
  readonly unitId: string | null;
  readonly startMin: number;
  readonly endMin: number;
}

export interface PlacedJob {
  readonly jobId: string;
  readonly steps: readonly PlacedStep[];
  /** The unit of each span, in the order of the job's spans. */
  readonly spanUnitIds: readonly string[];
}

export interface PlacedChangeover {
  readonly unitId: string;
  readonly fromJobId: string;
  readonly toJobId: string;
  readonly startMin: number;
  readonly endMin: number;
}

/** Minutes, weighted by job where the job says so; `cost` is what the search makes small. */
export interface Objective {
  readonly lateMin: number;
  /** Minutes of room before a ready-by that are missing. */
  readonly shortMin: number;
  /** Minutes soups stand finished before they are wanted, and what they are made of before they are, beyond what they like. */
  readonly earlyMin: number;
  readonly changeoverMin: number;
  readonly movedMin: number;
  readonly makespanMin: number;
  readonly cost: number;
}

export interface Sequence {
  readonly jobs: readonly PlacedJob[];
  readonly changeovers: readonly PlacedChangeover[];
  readonly objective: Objective;
  /** Jobs that found no place inside the horizon, and those only such jobs would have taken from: nothing may be silently dropped. */
  readonly unplaced: readonly string[];
}

/** A plan the next one is measured against: minutes moved count. */
export type Reference = Pick<Sequence, 'jobs'>;

/** Whether somebody would have to wash longer than a rinse is the caller's business; here it is a number between two classes. */
export function changeoverMin(problem: Problem, unit: Unit, before: string | null, after: string | null): number {
  const table = problem.changeovers.find(({ id }) => id === unit.changeoverId);
  if (table === undefined || before === null || after === null) return 0;
  return table.min[table.classes.indexOf(before)]?.[table.classes.indexOf(after)] ?? 0;
}

/** When a job is done: the end of its last step to end. */
export function endOf(placed: PlacedJob): number {
  return placed.steps.reduce((latest, step) => Math.max(latest, step.endMin), 0);
}

/** What a sequence costs, worked out from its times alone. */
export function objectiveOf(problem: Problem, sequence: Pick<Sequence, 'jobs' | 'changeovers'>, reference: Reference | null = null): Objective {
  const { weights } = problem;
  const before = new Map(reference?.jobs.map((job) => [job.jobId, job]));
  let lateMin = 0;
  let shortMin = 0;
  let earlyMin = 0;
  let movedMin = 0;
  let makespanMin = 0;
  const jobById = new Map(problem.jobs.map((job) => [job.id, job]));
  const placedById = new Map(sequence.jobs.map((placed) => [placed.jobId, placed]));
  for (const placed of sequence.jobs) {
    const job = jobById.get(placed.jobId);
    if (job === undefined) continue;
    const endMin = endOf(placed);
    for (const { afterJobs, fixed } of job.steps) {
      // What was taken already stands no more.
      if (fixed?.kind === 'done') continue;
      for (const id of afterJobs) {
        const [input, made] = [jobById.get(id), placedById.get(id)];
        if (input?.readyByMin === null && made !== undefined) earlyMin += input.earlyWeight * Math.max(0, endMin - input.likesEarlyMin - endOf(made));
      }
    }
    makespanMin = Math.max(makespanMin, endMin);
    const old = before.get(placed.jobId);
    if (old !== undefined) movedMin += Math.abs(endMin - endOf(old)) + (old.spanUnitIds.join() === placed.spanUnitIds.join() ? 0 : MOVED_UNIT_MIN);
    if (job.readyByMin === null) continue;
    lateMin += job.lateWeight * Math.max(0, endMin - job.readyByMin);
    const aimMin = job.readyByMin - job.bufferMin;
    shortMin += job.lateWeight * Math.min(job.bufferMin, Math.max(0, endMin - aimMin));
    earlyMin += job.earlyWeight * Math.max(0, aimMin - job.likesEarlyMin - endMin);
  }
  const changeover = sequence.changeovers.reduce((sum, one) => sum + one.endMin - one.startMin, 0);
  const cost =
    weights.late * lateMin + weights.short * shortMin + weights.early * earlyMin + weights.changeover * changeover + weights.moved * movedMin + weights.makespan * makespanMin;
  return { lateMin, shortMin, earlyMin, changeoverMin: changeover, movedMin, makespanMin, cost };
}

/** Another kettle than the one that was agreed counts like so many minutes. A design choice. */
export const MOVED_UNIT_MIN = 10;
