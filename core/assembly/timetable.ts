import { commit, latest, soonest, unheld, withdraw } from './booking';
import { holdingAt, isDone, Job, jobAt, stayAfter, Way, wayAt, wayNow, wholeOf } from './jobs';
import { book, horizon } from './minutes';
import { backward, bound, cutAt, forward, keepLower, NO_CUT, respectsOthers, setLower } from './placing';
import { end, forget, NEVER, restore, save, start, startOf, variantOf, wantedBy } from './state';
import { later, setWashesLate } from './units';
import { at, listAt, nth, put, sizeOf } from './words';

/** Lays jobs and parts of them out on the table, and takes them out again (engine/timetable.ts). */

const MAX_TRIES: i32 = 60;

/** Of the steps of one job: where a part was last found to fit, and where the best of its ways did. */
export let found: usize = 0;
export let kept: usize = 0;
/** A state to go back to in the middle of a job. */
export let justifySpare: usize = 0;

/** Takes a whole job out. False when a wash between its old neighbours finds no hands: then put the saved state back. */
export function remove(index: i32): bool {
  const job = jobAt(index);
  const isWhole = withdraw(job, wayAt(job, at(variantOf, index)), wholeOf(job));
  put(end, index, NEVER);
  put(variantOf, index, NEVER);
  return isWhole;
}

/** Places a block: soonest, or latest after what `lower` says it may not begin before. False, with nothing booked, when it fits nowhere. `isFound`: `start` already has what going forward gives. */
export function placeBlock(job: Job, way: Way, block: usize, isLate: bool, isFound: bool): bool {
  setWashesLate(isLate);
  for (let round = 0; round < MAX_TRIES; round++) {
    if (!(isFound && round === 0) && !(isLate ? backward(job, way, block) : forward(job, way, block))) break;
    const wrong = commit(job, way, block, isLate, way.isChain !== 0);
    if (wrong < 0) return true;
    if (isDone(job, wrong)) break;
    if (!isLate) {
      if (soonest < 0) break;
      put(bound, job.offset + wrong, max(startOf(job, wrong) + 1, soonest));
      continue;
    }
    if (latest < 0) break;
    let step = wrong;
    let stay = 0;
    if (unheld >= 0) {
      const holding = holdingAt(way, unheld);
      step = holding.to;
      stay = stayAfter(way, holding);
    }
    put(bound, job.offset + step, min(startOf(job, step) - 1, latest - stay));
  }
  forget(job, block);
  return false;
}

function finish(job: Job, way: Way, index: i32): i32 {
  let ends = 0;
  for (let step = 0; step < job.size; step++) ends = max(ends, startOf(job, step) + at(way.durations, step));
  put(end, job.index, ends);
  put(variantOf, job.index, index);
  return ends;
}

/** Lays a job out as late as `target` allows. Gives its end, −1 with nothing changed when it does not fit. */
export function placeLate(index: i32, way: i32, partition: i32, target: i32): i32 {
  const job = jobAt(index);
  const variant = wayNow(job, way);
  const blocks = <usize>nth(job.partitions, partition);
  const last = min(min(target, wantedBy(job)), horizon);
  setLower(job);
  keepLower(job);
  for (let step = 0; step < job.size; step++) put(bound, job.offset + step, last - at(variant.durations, step));
  for (let block = sizeOf(blocks) - 1; block >= 0; block--) {
    if (placeBlock(job, variant, <usize>nth(blocks, block), true, false)) continue;
    for (let placed = block + 1; placed < sizeOf(blocks); placed++) withdraw(job, variant, <usize>nth(blocks, placed));
    return NEVER;
  }
  return finish(job, variant, way);
}

/** Lays a job out as soon as it fits, not ended before `target`; then pulls its earlier blocks up to what follows. −1 as above. */
export function placeSoon(index: i32, way: i32, partition: i32, target: i32, justify: bool): i32 {
  const job = jobAt(index);
  const variant = wayNow(job, way);
  const blocks = <usize>nth(job.partitions, partition);
  setLower(job);
  if (target > 0 && job.sink >= 0) {
    const sink = job.offset + job.sink;
    put(bound, sink, max(at(bound, sink), target - at(variant.durations, job.sink)));
  }
  keepLower(job);
  for (let block = 0; block < sizeOf(blocks); block++) {
    if (placeBlock(job, variant, <usize>nth(blocks, block), false, false)) continue;
    for (let placed = 0; placed < block; placed++) withdraw(job, variant, <usize>nth(blocks, placed));
    return NEVER;
  }
  const ends = finish(job, variant, way);
  if (ends > wantedBy(job)) {
    remove(index);
    return NEVER;
  }
  if (!justify || job.isBegun) return ends;
  for (let at = sizeOf(blocks) - 1; at >= 0; at--) {
    const block = <usize>nth(blocks, at);
    // Without it, the wash between its neighbours may take the very hands it had.
    save(justifySpare);
    withdraw(job, variant, block);
    for (let place = 0; place < sizeOf(block); place++) put(bound, job.offset + nth(block, place), ends - load<i32>(variant.durations + ((<usize>nth(block, place)) << 2)));
    if (!placeBlock(job, variant, block, true, false)) restore(justifySpare);
  }
  // A wash that went with it may have left its place, and sent it sooner.
  return finish(job, variant, way);
}

/** Lays out one part of a job as soon as it fits beside what is placed of it. False, with nothing changed, when it does not. */
export function placePartSoon(job: Job, way: i32, block: usize): bool {
  setLower(job);
  if (!placeBlock(job, wayNow(job, way), block, false, false)) return false;
  settle(job, way);
  return true;
}

/** The same, where `soonestEnd` has just found its place and `keepFound` has kept it. */
export function placePartKept(job: Job, way: i32, block: usize): bool {
  setLower(job);
  for (let index = 0; index < sizeOf(block); index++) {
    const step = nth(block, index);
    if (!isDone(job, step)) put(start, job.offset + step, at(kept, step));
  }
  if (!placeBlock(job, wayNow(job, way), block, false, true)) return false;
  settle(job, way);
  return true;
}

/** By when such a part would end if every wash found its hands, something after `limit` when it does not end by then, −1 when it does not fit. Nothing is placed. */
export function soonestEnd(job: Job, way: i32, block: usize, limit: i32): i32 {
  const variant = wayNow(job, way);
  setLower(job);
  cutAt(limit);
  const isFound = forward(job, variant, block);
  cutAt(NO_CUT);
  let ends = isFound ? 0 : limit === NO_CUT ? NEVER : limit + 1;
  for (let index = 0; index < sizeOf(block); index++) {
    const step = nth(block, index);
    const begins = startOf(job, step);
    if (isFound) ends = max(ends, begins + at(variant.durations, step));
    put(found, step, begins);
  }
  forget(job, block);
  return ends;
}

/** Keeps where `soonestEnd` was last asked about. */
export function keepFound(job: Job): void {
  memory.copy(kept, found, (<usize>job.size) << 2);
}

/** Takes back a part. False when a wash finds no hands then: put the saved state back. */
export function withdrawPart(job: Job, way: i32, block: usize): bool {
  put(end, job.index, NEVER);
  return withdraw(job, wayAt(job, way), block);
}

/** Keeps the way a job is laid out in, and its end once all of it is. */
export function settle(job: Job, way: i32): void {
  put(variantOf, job.index, way);
  for (let step = 0; step < job.size; step++) if (startOf(job, step) < 0) return;
  finish(job, wayAt(job, way), way);
}

/** Puts a job exactly where `found` says. False, with nothing changed, when it no longer fits. */
export function placeAt(index: i32, way: i32): bool {
  const job = jobAt(index);
  const variant = wayAt(job, way);
  const block = wholeOf(job);
  setLower(job);
  let isPossible = true;
  for (let place = 0; place < sizeOf(block); place++) {
    const step = nth(block, place);
    if (isDone(job, step)) continue;
    const begins = at(found, step);
    put(start, job.offset + step, begins);
    if (begins < at(bound, job.offset + step) || (at(job.pinned, step) >= 0 && at(job.pinned, step) !== begins)) isPossible = false;
  }
  isPossible = isPossible && respectsOthers(job, variant, block, true);
  for (let held = 0; held < variant.holdingCount && isPossible; held++) {
    const holding = holdingAt(variant, held);
    if (isDone(job, holding.from)) continue;
    const from = at(found, holding.from);
    isPossible = later(holding.unit, index, from, at(found, holding.to) + stayAfter(variant, holding)) === from;
  }
  setWashesLate(false);
  if (!isPossible || commit(job, variant, block, false, false) >= 0) {
    forget(job, block);
    return false;
  }
  if (finish(job, variant, way) <= wantedBy(job)) return true;
  remove(index);
  return false;
}

/** Takes over what is known to fit: a step where it is, without asking. */
export function bookAt(index: i32, way: i32, step: i32, from: i32): void {
  const job = jobAt(index);
  const variant = wayAt(job, way);
  put(start, job.offset + step, from);
  book(listAt(variant.uses, step), from, from + at(variant.durations, step), 1);
}

/** And a whole job whose steps are. */
export function finishAt(index: i32, way: i32): void {
  const job = jobAt(index);
  finish(job, wayAt(job, way), way);
}
