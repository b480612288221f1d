import { unitCount } from './day';
import { jobAt, Job, isDone, LINK } from './jobs';
import { bits } from './minutes';
import { holds, wordsOf } from './units';
import { at, listAt, nth, put, sizeOf } from './words';

/** What lies on the table, kept and put back at once. */

export const NEVER: i32 = -1;

/** All that is kept and put back at once: the minutes, and the parts below. */
export let state: usize = 0;
export let stateBytes: usize = 0;
/** Start of every step, −1 = not placed; end of every job, −1 = not placed; and its way. */
export let start: usize = 0;
export let end: usize = 0;
export let variantOf: usize = 0;
/** Behind all of that the holds begin. */
export let holdsFrom: usize = 0;

export function startOf(job: Job, step: i32): i32 {
  return at(start, job.offset + step);
}

export function isPlaced(index: i32): bool {
  return at(end, index) >= 0;
}

export function save(into: usize): void {
  memory.copy(into, state, stateBytes);
}

export function restore(saved: usize): void {
  memory.copy(state, saved, stateBytes);
}

/** Whether the table looks as it did then. */
export function isAt(saved: usize): bool {
  if (memory.compare(bits, saved + (bits - state), start - bits) !== 0) return false;
  if (memory.compare(start, saved + (start - state), end - start) !== 0) return false;
  if (memory.compare(variantOf, saved + (variantOf - state), holdsFrom - variantOf) !== 0) return false;
  for (let unit = 0; unit < unitCount; unit++) {
    const list = listAt(holds, unit);
    if (memory.compare(list, saved + (list - state), (<usize>wordsOf(list)) << 2) !== 0) return false;
  }
  return true;
}

/** A block has no place. */
export function forget(job: Job, block: usize): void {
  for (let index = 0; index < sizeOf(block); index++) if (!isDone(job, nth(block, index))) put(start, job.offset + nth(block, index), NEVER);
}

/** Latest a job may end for the jobs that take from it and are placed. */
export function wantedBy(job: Job): i32 {
  let wanted = i32.MAX_VALUE;
  for (let index = 0; index < sizeOf(job.consumers); index += LINK) {
    const begins = startOf(jobAt(nth(job.consumers, index + 1)), nth(job.consumers, index));
    if (begins >= 0) wanted = min(wanted, begins);
  }
  return wanted;
}
