/**
 * The sequencing problem. Times are whole minutes from a zero the caller chooses (midnight for a kitchen day).
 * A textbook problem is the same thing without vessels: a job shop is jobs whose steps use resources of capacity 1.
 */

/** Shared capacity over time: hands, blenders, oven racks. Outside every window the capacity is 0; no windows = always `capacity`. */
export interface Resource {
  readonly id: string;
  readonly name: string;
  readonly capacity: number;
  readonly windows: readonly { readonly fromMin: number; readonly toMin: number; readonly capacity: number }[];
}

/** Something that holds one job at a time, from the first step in it until it is emptied, and is washed in between. */
export interface SpanVessel {
  readonly id: string;
  readonly name: string;
  readonly minFillL: number;
  readonly workingMaxL: number;
}

export interface ResourceUse {
  readonly resourceId: string;
  readonly units: number;
}

export interface JobStep {
  readonly id: string;
  readonly durationMin: number;
  readonly uses: readonly ResourceUse[];
  /** Longest wait before the next step of the job; null = it keeps. */
  readonly maxWaitMin: number | null;
  /** Jobs that must be finished before this step starts (stock before the soup that takes it). */
  readonly afterJobs: readonly string[];
  /** What has happened already: such a step keeps its times. */
  readonly frozen: { readonly startMin: number; readonly endMin: number } | null;
}

/** The steps of a job that hold its vessel, first and last index; null when it needs none. */
export interface JobSpan {
  readonly vesselIds: readonly string[];
  readonly firstStep: number;
  readonly lastStep: number;
}

export interface Job {
  readonly id: string;
  readonly volumeL: number;
  /** Allergens decide the wash after it. */
  readonly allergens: readonly string[];
  readonly steps: readonly JobStep[];
  readonly span: JobSpan | null;
  readonly releaseMin: number;
  /** null = as early as possible. */
  readonly readyByMin: number | null;
}

export interface Problem {
  readonly horizonMin: number;
  readonly resources: readonly Resource[];
  readonly vessels: readonly SpanVessel[];
  readonly jobs: readonly Job[];
  readonly rinseMin: number;
  readonly fullWashMin: number;
}

export interface PlacedStep {
  readonly stepId: string;
  readonly startMin: number;
  readonly endMin: number;
  /** Minutes it stood before this step although the one before was done, and the resource that was not free. */
  readonly waitedMin: number;
  readonly waitedFor: string | null;
}

export interface PlacedJob {
  readonly jobId: string;
  readonly vesselId: string | null;
  readonly steps: readonly PlacedStep[];
}

/** Compared in this order; smaller is better. */
export interface Objective {
  readonly lateMin: number;
  /** Minutes soups stand finished before they are wanted. */
  readonly earlyMin: number;
  readonly washMin: number;
  readonly makespanMin: number;
}

export interface Sequence {
  readonly jobs: readonly PlacedJob[];
  readonly objective: Objective;
  /** Jobs that found no place inside the horizon: nothing may be silently dropped. */
  readonly unplaced: readonly string[];
}

/**
 * Minutes of wash between two jobs in a vessel: a full wash when the first leaves an allergen the second does not have, else a rinse.
 * Looking one job back is enough: where only a rinse was due, the later job's allergens already include the earlier one's.
 */
export function washMin(problem: Problem, before: readonly string[], after: readonly string[]): number {
  return before.some((allergen) => !after.includes(allergen)) ? problem.fullWashMin : problem.rinseMin;
}
