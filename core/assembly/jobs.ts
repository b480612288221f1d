import { at, nth, sizeOf } from './words';

/** Jobs and the ways of doing them, as the table reads them (engine/ways.ts). */

const NEVER: i32 = -1;
const HOLDING_BYTES: usize = 16;
/** How many words each of a list of lags has (the other step, at least, at most), of inputs and of consumers (both a step and a job). */
export const LAG: i32 = 3;
export const LINK: i32 = 2;

/** A job, as the table reads it. Rows of its steps; times in minutes. */
@unmanaged
export class Job {
  index: i32;
  /** First of its steps in the rows of all steps. */
  offset: i32;
  size: i32;
  isBegun: i32;
  releaseMin: i32;
  /** The step nothing comes after, −1 = there are several. */
  sink: i32;
  soonestEnd: i32;
  /** Lists of pairs of a step and a job: what it waits for; and who waits for it. */
  inputs: usize;
  consumers: usize;
  /** A list of divisions, each a list of blocks, each a list of steps. */
  partitions: usize;
  /** When each step was begun and over, −1 = it is still to come; where it is pinned; whether a lag leads out of its part. */
  doneStart: usize;
  doneEnd: usize;
  pinned: usize;
  crosses: usize;
  /** Its ways; and the same with other waits, where it has them now. */
  wayCount: i32;
  ways: usize;
  longer: usize;
  isLonger: i32;
}

/** A way of doing a job. Rows of its steps. */
@unmanaged
export class Way {
  durations: usize;
  /** Of each step lists: levels; lags. */
  uses: usize;
  incoming: usize;
  outgoing: usize;
  holdingCount: i32;
  holdings: usize;
  /** Of each step lists of the holdings that end with it, and that begin with it. */
  closing: usize;
  opening: usize;
  /** `[from * size + to]`: minutes one step may begin after another at most. */
  apart: usize;
  tail: usize;
  /** Whether its steps never lie beside each other in time. */
  isChain: i32;
}

/** A unit held from the start of one step to another. */
@unmanaged
export class Holding {
  unit: i32;
  from: i32;
  to: i32;
  untilEnd: i32;
}

export let jobs: usize = 0;
/** Of each unit the line it is in, −1 = none. */
export let lineOf: usize = 0;

export function jobAt(index: i32): Job {
  return changetype<Job>(<usize>at(jobs, index));
}

export function wayAt(job: Job, index: i32): Way {
  return changetype<Way>(<usize>at(job.ways, index));
}

/** With the waits it has now. */
export function wayNow(job: Job, index: i32): Way {
  return changetype<Way>(<usize>at(job.isLonger ? job.longer : job.ways, index));
}

export function holdingAt(way: Way, index: i32): Holding {
  return changetype<Holding>(way.holdings + <usize>index * HOLDING_BYTES);
}

/** The last division: all steps in one block. */
export function wholeOf(job: Job): usize {
  return <usize>nth(<usize>nth(job.partitions, sizeOf(job.partitions) - 1), 0);
}

export function includes(list: usize, one: i32): bool {
  return placeIn(list, one) >= 0;
}

export function placeIn(list: usize, one: i32): i32 {
  for (let index = 0; index < sizeOf(list); index++) if (nth(list, index) === one) return index;
  return NEVER;
}

export function isDone(job: Job, step: i32): bool {
  return at(job.doneStart, step) >= 0;
}

/** How long a unit is held after its last step begins. */
export function stayAfter(way: Way, holding: Holding): i32 {
  return holding.untilEnd ? at(way.durations, holding.to) : 0;
}
