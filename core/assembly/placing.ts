import { holdingAt, includes, isDone, Job, jobAt, LAG, LINK, lineOf, placeIn, stayAfter, Way, wayAt } from './jobs';
import { earliestFit, horizon, latestFit } from './minutes';
import { end, forget, NEVER, start, startOf, variantOf } from './state';
import { holdAt, holds, later, sooner, washMinOf } from './units';
import { at, listAt, nth, put, sizeOf } from './words';

/**
 * Finds where one block of steps fits on the table. That is exact: `forward` gives the soonest and `backward` the latest start of every step at once, because every rule
 * that pushes a step only ever pushes it one way.
 */

const MAX_ROUNDS: i32 = 400;

/** What no step may begin before (going forward) or after (going backward) while its block is placed. */
export let bound: usize = 0;
/** Of one job: what its steps may not begin before, going backward. */
export let lower: usize = 0;

/** Looking for ends up to here only. */
export const NO_CUT: i32 = i32.MAX_VALUE;
let cut: i32 = NO_CUT;

export function cutAt(minute: i32): void {
  cut = minute;
}

/** Who would be overtaken in a line: the step that is to clear it, and when. */
let clears: i32 = 0;
let clearsFrom: i32 = 0;

/** Lower bounds of a job's steps from its release and what it waits for. */
export function setLower(job: Job): void {
  for (let step = 0; step < job.size; step++) put(bound, job.offset + step, job.releaseMin);
  for (let index = 0; index < sizeOf(job.inputs); index += LINK) {
    const over = at(end, nth(job.inputs, index + 1));
    const step = job.offset + nth(job.inputs, index);
    put(bound, step, max(at(bound, step), over >= 0 ? over : soonestEndOf(jobAt(nth(job.inputs, index + 1)))));
  }
}

/** By when a job that is laid out in part, or not at all, ends at the soonest: what is laid of it from the end stays where it is. */
function soonestEndOf(job: Job): i32 {
  const index = at(variantOf, job.index);
  let ends = job.soonestEnd;
  if (index < 0) return ends;
  const durations = wayAt(job, index).durations;
  for (let step = 0; step < job.size; step++) if (startOf(job, step) >= 0) ends = max(ends, startOf(job, step) + at(durations, step));
  return ends;
}

/** Going backward: what is in `bound` is what a job's steps may not begin before. */
export function keepLower(job: Job): void {
  memory.copy(lower, bound + ((<usize>job.offset) << 2), (<usize>job.size) << 2);
}

/** Whether a holding from then on would overtake a job in a line; `clears` and `clearsFrom` then say what must clear that job. */
function overtakes(job: Job, way: Way, index: i32, from: i32): bool {
  const holding = holdingAt(way, index);
  const line = at(lineOf, holding.unit);
  if (line < 0) return false;
  let first = 0;
  while (at(lineOf, holdingAt(way, first).unit) !== line) first++;
  if (first === index) return false;
  const entry = holdingAt(way, first);
  const mine = startOf(job, entry.from);
  const list = listAt(holds, holding.unit);
  const firstHolds = listAt(holds, entry.unit);
  for (let other = 0; other < sizeOf(list); other++) {
    const hold = holdAt(list, other);
    let place = 0;
    while (place < sizeOf(firstHolds) && holdAt(firstHolds, place).job !== hold.job) place++;
    if (place === sizeOf(firstHolds)) continue;
    const there = holdAt(firstHolds, place);
    if (there.from < mine && hold.from >= from) {
      clears = holding.from;
      clearsFrom = hold.to + washMinOf(holding.unit, hold.job, job.index);
      return true;
    }
    if (there.from > mine && hold.from < from) {
      clears = entry.from;
      clearsFrom = there.to + washMinOf(entry.unit, hold.job, job.index);
      return true;
    }
  }
  return false;
}

/** Soonest starts of a block's steps, not before `bound`; false when there are none. */
export function forward(job: Job, way: Way, block: usize): bool {
  forget(job, block);
  const count = sizeOf(block);
  let place = 0;
  let rounds = 0;
  while (place < count) {
    rounds++;
    if (rounds > MAX_ROUNDS) return false;
    const step = nth(block, place);
    if (!isDone(job, step)) {
      const from = soonestOf(job, way, step);
      if (from < 0) return false;
      put(start, job.offset + step, from);
      if (from + at(way.tail, step) > cut) return false;
      const first = pushEarlier(job, way, block, place, from);
      if (first < place) {
        place = first;
        continue;
      }
      if (at(job.crosses, step) && waitsTooLong(job, way, block, step, from)) return false;
      const free = job.isBegun ? from : freeFor(job, way, step, from);
      if (free !== from) {
        if (free >= horizon) return false;
        put(bound, job.offset + step, free);
        continue;
      }
    }
    const pushed = pushStay(job, way, step);
    if (pushed === NEVER) {
      place++;
      continue;
    }
    place = pushed < NEVER ? NEVER : placeIn(block, pushed);
    if (place < 0) return false;
  }
  return respectsOthers(job, way, block, false);
}

/** When a step can begin at the soonest, by what is laid before it, where it is pinned and who is free; −1 = never. */
function soonestOf(job: Job, way: Way, step: i32): i32 {
  let from = at(bound, job.offset + step);
  const lags = listAt(way.incoming, step);
  for (let lag = 0; lag < sizeOf(lags); lag += LAG) {
    const before = startOf(job, nth(lags, lag));
    if (before >= 0) from = max(from, before + nth(lags, lag + 1));
  }
  const pinned = at(job.pinned, step);
  if (pinned >= 0 && from <= pinned) from = pinned;
  from = earliestFit(listAt(way.uses, step), from, at(way.durations, step));
  return pinned >= 0 && from !== pinned ? NEVER : from;
}

/** Whatever of the block would wait too long begins later, all at once. A wait that has already happened cannot be planned away. Gives the first of them. */
function pushEarlier(job: Job, way: Way, block: usize, place: i32, from: i32): i32 {
  const step = nth(block, place);
  let first = place;
  for (let earlier = place - 1; earlier >= 0; earlier--) {
    const before = nth(block, earlier);
    const soonest = from - at(way.apart, before * job.size + step);
    if (startOf(job, before) >= soonest || isDone(job, before)) continue;
    put(bound, job.offset + before, soonest);
    first = earlier;
  }
  return first;
}

/** Whether what is laid outside the block would wait too long for a step of it. */
function waitsTooLong(job: Job, way: Way, block: usize, step: i32, from: i32): bool {
  const lags = listAt(way.incoming, step);
  for (let lag = 0; lag < sizeOf(lags); lag += LAG) {
    const other = nth(lags, lag);
    const before = startOf(job, other);
    if (before >= 0 && from > before + nth(lags, lag + 2) && !isDone(job, other) && !includes(block, other)) return true;
  }
  return false;
}

/** When the units a step comes into are free for it: a unit that is taken is not waited for with everything laid out up to it. */
function freeFor(job: Job, way: Way, step: i32, from: i32): i32 {
  const opening = listAt(way.opening, step);
  for (let index = 0; index < sizeOf(opening); index++) {
    const holding = holdingAt(way, nth(opening, index));
    const free = later(holding.unit, job.index, from, from - at(way.apart, holding.to * job.size + step) + stayAfter(way, holding));
    if (free !== from) return free;
  }
  return from;
}

/** Where a unit a step leaves is not free for all of the stay, its first step is bound to begin later. Gives that step; −1 = they all are, −2 = it cannot be. */
function pushStay(job: Job, way: Way, step: i32): i32 {
  const closing = listAt(way.closing, step);
  for (let index = 0; index < sizeOf(closing); index++) {
    const holding = holdingAt(way, nth(closing, index));
    if (isDone(job, holding.from)) continue;
    const from = startOf(job, holding.from);
    let push = later(holding.unit, job.index, from, startOf(job, step) + stayAfter(way, holding));
    let pushed = holding.from;
    if (push === from) {
      if (!overtakes(job, way, nth(closing, index), from)) continue;
      push = clearsFrom;
      pushed = clears;
    }
    if (push >= horizon) return NEVER - 1;
    put(bound, job.offset + pushed, max(push, at(bound, job.offset + pushed)));
    return pushed;
  }
  return NEVER;
}

/** Latest starts of a block's steps, not after `bound`; false when there are none. `lower` holds what they may not begin before. */
export function backward(job: Job, way: Way, block: usize): bool {
  forget(job, block);
  const count = sizeOf(block);
  let place = count - 1;
  let rounds = 0;
  while (place >= 0) {
    rounds++;
    if (rounds > MAX_ROUNDS) return false;
    const step = nth(block, place);
    if (isDone(job, step)) {
      place--;
      continue;
    }
    const from = latestOf(job, way, step);
    if (from < 0) return false;
    put(start, job.offset + step, from);
    const last = pullLater(job, way, block, place, from);
    if (last > place) {
      place = last;
      continue;
    }
    if (at(job.crosses, step) && isWaitedTooLong(job, way, block, step, from)) return false;
    const pulled = pullStay(job, way, step, from);
    if (pulled === NEVER) {
      place--;
      continue;
    }
    place = pulled < NEVER ? NEVER : placeIn(block, pulled);
    if (place < 0) return false;
  }
  for (let index = 0; index < way.holdingCount; index++) {
    const holding = holdingAt(way, index);
    if (includes(block, holding.to) && overtakes(job, way, index, startOf(job, holding.from))) return false;
  }
  return respectsOthers(job, way, block, false);
}

function latestOf(job: Job, way: Way, step: i32): i32 {
  let from = at(bound, job.offset + step);
  const lags = listAt(way.outgoing, step);
  for (let lag = 0; lag < sizeOf(lags); lag += LAG) {
    const after = startOf(job, nth(lags, lag));
    if (after >= 0) from = min(from, after - nth(lags, lag + 1));
  }
  const pinned = at(job.pinned, step);
  if (pinned >= 0 && from >= pinned) from = pinned;
  from = latestFit(listAt(way.uses, step), from, at(way.durations, step), at(lower, step));
  return pinned >= 0 && from !== pinned ? NEVER : from;
}

function pullLater(job: Job, way: Way, block: usize, place: i32, from: i32): i32 {
  const step = nth(block, place);
  let last = place;
  for (let behind = place + 1; behind < sizeOf(block); behind++) {
    const after = nth(block, behind);
    const latest = from + at(way.apart, step * job.size + after);
    if (startOf(job, after) <= latest || isDone(job, after)) continue;
    put(bound, job.offset + after, latest);
    last = behind;
  }
  return last;
}

function isWaitedTooLong(job: Job, way: Way, block: usize, step: i32, from: i32): bool {
  const lags = listAt(way.outgoing, step);
  for (let lag = 0; lag < sizeOf(lags); lag += LAG) {
    const after = startOf(job, nth(lags, lag));
    if (after >= 0 && after > from + nth(lags, lag + 2) && !includes(block, nth(lags, lag))) return true;
  }
  return false;
}

/** Where a unit is not free for a stay, its last step is bound to begin sooner. Gives that step; −1 = all units are free, −2 = it cannot be. */
function pullStay(job: Job, way: Way, step: i32, from: i32): i32 {
  const closing = listAt(way.closing, step);
  for (let index = 0; index < sizeOf(closing) && !job.isBegun; index++) {
    const holding = holdingAt(way, nth(closing, index));
    const stay = stayAfter(way, holding);
    const push = sooner(holding.unit, job.index, from + at(way.apart, step * job.size + holding.from), from + stay);
    if (push === from + stay) continue;
    if (push < stay) return NEVER - 1;
    put(bound, job.offset + step, push - stay);
    return step;
  }
  const opening = listAt(way.opening, step);
  for (let index = 0; index < sizeOf(opening); index++) {
    const holding = holdingAt(way, nth(opening, index));
    const stay = stayAfter(way, holding);
    const to = startOf(job, holding.to) + stay;
    const push = sooner(holding.unit, job.index, from, to);
    if (push === to) continue;
    if (push < stay) return NEVER - 1;
    put(bound, job.offset + holding.to, push - stay);
    return holding.to;
  }
  return NEVER;
}

/** Lags between this block and what is placed of the job outside it; or all lags there are. */
export function respectsOthers(job: Job, way: Way, block: usize, all: bool): bool {
  if (!all && sizeOf(block) === job.size) return true;
  for (let index = 0; index < sizeOf(block); index++) {
    const step = nth(block, index);
    if (!all && !at(job.crosses, step)) continue;
    const begins = startOf(job, step);
    const isOver = isDone(job, step);
    const leading = listAt(way.outgoing, step);
    for (let lag = 0; lag < sizeOf(leading); lag += LAG) {
      const after = startOf(job, nth(leading, lag));
      if (after >= 0 && (after < begins + nth(leading, lag + 1) || (after > begins + nth(leading, lag + 2) && !isOver))) return false;
    }
    if (isOver) continue;
    const lags = listAt(way.incoming, step);
    for (let lag = 0; lag < sizeOf(lags); lag += LAG) {
      const before = startOf(job, nth(lags, lag));
      if (before >= 0 && (begins < before + nth(lags, lag + 1) || (begins > before + nth(lags, lag + 2) && !isDone(job, nth(lags, lag))))) return false;
    }
  }
  return true;
}
