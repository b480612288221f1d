import { Holding, holdingAt, includes, isDone, Job, stayAfter, Way } from './jobs';
import { book, earliestFit, fits, latestFit } from './minutes';
import { forget, NEVER, startOf } from './state';
import { insert, latest as unitLatest, OPEN, remove as removeHold, soonest as unitSoonest, stretch } from './units';
import { at, listAt, nth, sizeOf } from './words';

/** Books the steps of a block and the units it holds, with their washes. */

export let hasWashes: i32 = 0;

/** Of what could not be booked last: when it could begin instead, or by when it would have to end; and the holding it was, −1 = the step itself. */
export let soonest: i32 = 0;
export let latest: i32 = 0;
export let unheld: i32 = NEVER;

/**
 * Books a block where `start` has it; `isFree`: where every step was found to fit, and they are never in each other's way. Gives the step that does not fit beside the
 * others (or whose unit's wash finds no hands), −1 when all do; `soonest` and `latest` then say where it might.
 */
export function commit(job: Job, way: Way, block: usize, isBackward: bool, isFree: bool): i32 {
  const wrong = commitSteps(job, way, block, isFree);
  if (wrong < 0 || !hasWashes) return wrong;
  const wasSoonest = soonest;
  const wasLatest = latest;
  const wasUnheld = unheld;
  // A wash that gives way to the new one may hold the very hands its steps are to have.
  const washedFirst = commitHolds(job, way, block);
  // Going back, its steps make room for the wash; going on, the unit waits for a wash after them.
  if (washedFirst < 0 || isBackward) return washedFirst;
  soonest = wasSoonest;
  latest = wasLatest;
  unheld = wasUnheld;
  return wrong;
}

/** The steps first. */
function commitSteps(job: Job, way: Way, block: usize, isFree: bool): i32 {
  let wrong = NEVER;
  let booked = 0;
  let held = 0;
  for (; booked < sizeOf(block); booked++) {
    wrong = bookStep(job, way, nth(block, booked), isFree);
    if (wrong >= 0) break;
  }
  if (wrong < 0)
    for (; held < way.holdingCount; held++) {
      wrong = bookHold(job, way, block, held);
      if (wrong >= 0) break;
    }
  if (wrong < 0) return NEVER;
  // Backwards, so that each wash finds again the hands it had.
  releaseHolds(job, way, block, held);
  unbookSteps(job, way, block, booked);
  return wrong;
}

/** The units first, with their washes. */
function commitHolds(job: Job, way: Way, block: usize): i32 {
  let wrong = NEVER;
  let booked = 0;
  let held = 0;
  for (; held < way.holdingCount; held++) {
    wrong = bookHold(job, way, block, held);
    if (wrong >= 0) break;
  }
  if (wrong < 0)
    for (; booked < sizeOf(block); booked++) {
      wrong = bookStep(job, way, nth(block, booked), false);
      if (wrong >= 0) break;
    }
  if (wrong < 0) return NEVER;
  unbookSteps(job, way, block, booked);
  releaseHolds(job, way, block, held);
  return wrong;
}

function bookStep(job: Job, way: Way, step: i32, isFree: bool): i32 {
  if (isDone(job, step)) return NEVER;
  const uses = listAt(way.uses, step);
  const from = startOf(job, step);
  const to = from + at(way.durations, step);
  if (!isFree && !fits(uses, from, to)) {
    soonest = earliestFit(uses, from, to - from);
    latest = latestFit(uses, from, to - from, 0);
    unheld = NEVER;
    return step;
  }
  book(uses, from, to, 1);
  return NEVER;
}

function bookHold(job: Job, way: Way, block: usize, index: i32): i32 {
  const holding = holdingAt(way, index);
  if (!isHeldWith(job, holding, block)) return NEVER;
  const from = startOf(job, holding.from);
  const to = startOf(job, holding.to) + stayAfter(way, holding);
  const goesOn = isDone(job, holding.from);
  if (goesOn ? stretch(holding.unit, job.index, to) : insert(holding.unit, job.index, from, to, false)) return NEVER;
  unheld = index;
  soonest = unitSoonest;
  latest = unitLatest;
  return goesOn ? holding.to : holding.from;
}

/** Whether a unit is held once a block is laid: both ends of it have their place then, one of them in the block. */
function isHeldWith(job: Job, holding: Holding, block: usize): bool {
  if (isDone(job, holding.to)) return false;
  if (includes(block, holding.to)) return startOf(job, holding.from) >= 0;
  return includes(block, holding.from) && startOf(job, holding.to) >= 0;
}

function unbookSteps(job: Job, way: Way, block: usize, count: i32): void {
  for (let index = 0; index < count; index++) {
    const step = nth(block, index);
    if (isDone(job, step)) continue;
    const from = startOf(job, step);
    book(listAt(way.uses, step), from, from + at(way.durations, step), -1);
  }
}

function releaseHolds(job: Job, way: Way, block: usize, count: i32): bool {
  let isWhole = true;
  for (let index = count - 1; index >= 0; index--) {
    const holding = holdingAt(way, index);
    if (!isHeldWith(job, holding, block)) continue;
    isWhole = (isDone(job, holding.from) ? stretch(holding.unit, job.index, OPEN) : removeHold(holding.unit, job.index, startOf(job, holding.from))) && isWhole;
  }
  return isWhole;
}

/** Gives back what a block has taken. False when a wash between its neighbours finds no hands then: put the saved state back. */
export function withdraw(job: Job, way: Way, block: usize): bool {
  unbookSteps(job, way, block, sizeOf(block));
  const isWhole = releaseHolds(job, way, block, way.holdingCount);
  forget(job, block);
  return isWhole;
}
