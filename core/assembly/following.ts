import { jobCount, unitCount } from './day';
import { firstOf, heldBy, isBackwards, itemBefore, itemJob, itemSteps, keeps, pieceCount, place, rowAt, seen, start } from './outline';
import { at, listAt, numberAt, nth, put, putNumber, sizeOf } from './words';

/** Who may come next in a day that is laid out in part, and how everybody who is in gets out (engine/following.ts). */

const NONE: i32 = -1;
const LAG: i32 = 4;

/** Lists of each job: its items; its pieces from the entry on. Of each its entry, and its first piece where that comes before; −1 = none. */
export let own: usize = 0;
export let inside: usize = 0;
export let entry: usize = 0;
export let firstPiece: usize = 0;
/** Of each wash the piece it is for. Lists of each item: those that must be laid out before, and those of them of its own job. */
export let washedFor: usize = 0;
export let needs: usize = 0;
export let ownNeeds: usize = 0;
/** Whether each of the pieces of a job, from the entry on, needs the one before it. */
export let isChain: usize = 0;
/** Of each job, as everybody gets out: how many of those are laid out for sure, its next, and (a number) when that had better begin. */
export let nextInside: usize = 0;
export let nextOf: usize = 0;
export let turnOf: usize = 0;
/** What may come next, as it was found last. */
export let might: usize = 0;
/** Where each item was in the order there was. */
export let placeOf: usize = 0;
/** Lists: in which order jobs come in, and are begun. */
export let entering: usize = 0;
export let beginning: usize = 0;
/** The manner (engine/manner.ts). */
export let isAsItWas: i32 = 0;
export let washesFirst: i32 = 0;
export let share: f64 = 0;

/** Whose turn it is in an order: the first that has not done yet what it is the order of. */
function turnIn(order: usize, items: usize): i32 {
  for (let index = 0; index < sizeOf(order); index++) if (at(seen, at(items, nth(order, index))) === 0) return nth(order, index);
  return NONE;
}

/** Finds what of these items may come next in the plan that is laid out; how many. */
export function find(window: usize, count: i32): i32 {
  const comesIn = turnIn(entering, entry);
  const isBegun = turnIn(beginning, firstPiece);
  let found = 0;
  for (let index = 0; index < count; index++) {
    const item = at(window, index);
    if (at(seen, item) !== 0 || !isReady(needs, item)) continue;
    const job = at(itemJob, item);
    const piece = item < pieceCount ? item : at(washedFor, item);
    if (piece === at(entry, job) ? job !== comesIn : piece === at(firstPiece, job) && job !== isBegun) continue;
    if (isFree(item)) put(might, found++, item);
  }
  return found;
}

/** Nobody washes, or comes into, what somebody else stands in. */
function isFree(item: i32): bool {
  const steps = listAt(itemSteps, item);
  for (let index = 0; index < sizeOf(steps); index++) {
    const row = rowAt(nth(steps, index));
    for (let slot = 0; slot < sizeOf(row.opening); slot++) {
      const holder = at(heldBy, nth(row.opening, slot));
      if (holder >= 0 && holder !== row.job) return false;
    }
  }
  return true;
}

/** Whether all that must come before an item is laid out. */
function isReady(before: usize, item: i32): bool {
  const list = listAt(before, item);
  for (let index = 0; index < sizeOf(list); index++) if (at(seen, nth(list, index)) === 0) return false;
  return true;
}

/** Lays out the rest of all that stand in a unit, told backwards of all that is begun. False when somebody does not get out in time. */
export function getOut(): bool {
  const rows = isBackwards ? jobCount : unitCount;
  for (let job = 0; job < jobCount; job++) {
    put(nextInside, job, 0);
    put(nextOf, job, NONE);
  }
  while (true) {
    let least = Infinity;
    let next = NONE;
    for (let index = 0; index < rows; index++) {
      const job = isBackwards ? index : at(heldBy, index);
      if (job < 0 || (isBackwards && at(seen, at(entry, job)) === 0)) continue;
      // Where each follows the one before, it stays the next until it is laid out.
      const known = at(nextOf, job);
      if (known < 0 || at(isChain, job) === 0 || at(seen, known) !== 0) findNext(job);
      const piece = at(nextOf, job);
      if (piece < 0 || (next >= 0 && numberAt(turnOf, job) >= least)) continue;
      least = numberAt(turnOf, job);
      next = piece;
    }
    if (next < 0) return true;
    if ((washesFirst && !washAfter(next)) || !place(next)) return false;
  }
}

/** What a job in a unit does next. */
function findNext(job: i32): void {
  const pieces = listAt(inside, job);
  let first = at(nextInside, job);
  while (first < sizeOf(pieces) && at(seen, nth(pieces, first)) !== 0) first++;
  put(nextInside, job, first);
  put(nextOf, job, NONE);
  for (let index = first; index < sizeOf(pieces); index++) {
    const piece = nth(pieces, index);
    if (at(seen, piece) !== 0) continue;
    // Washes, and what it is made of, are laid out with it.
    if (isReady(ownNeeds, piece)) {
      const turn: f64 = isAsItWas ? <f64>at(placeOf, piece) : latest(piece) + (share === 0 ? 0 : lasts(piece) * share);
      if (at(nextOf, job) < 0 || turn < numberAt(turnOf, job)) {
        put(nextOf, job, piece);
        putNumber(turnOf, job, turn);
      }
    }
    if (at(isChain, job) === 1) return;
  }
}

/** Washes what the piece after this one of its job comes into, as far as nobody stands in it. */
function washAfter(piece: i32): bool {
  const pieces = listAt(inside, at(itemJob, piece));
  let index = 0;
  while (nth(pieces, index) !== piece) index++;
  if (index + 1 === sizeOf(pieces)) return true;
  const before = listAt(itemBefore, nth(pieces, index + 1));
  for (let wash = 0; wash < sizeOf(before); wash++) {
    const item = nth(before, wash);
    if (item >= pieceCount && isFree(item) && !place(item)) return false;
  }
  return true;
}

/** How many minutes a piece takes. */
function lasts(piece: i32): f64 {
  const steps = listAt(itemSteps, piece);
  let sum = 0;
  for (let index = 0; index < sizeOf(steps); index++) sum += rowAt(nth(steps, index)).duration;
  return sum;
}

/** By when a piece must begin, by what is laid out. */
function latest(piece: i32): f64 {
  const lags = rowAt(firstOf(piece)).incoming;
  let soonest = Infinity;
  for (let lag = 0; lag < sizeOf(lags); lag += LAG) {
    const before = at(start, nth(lags, lag));
    const most = nth(lags, lag + 2);
    if (before >= 0 && most < keeps) soonest = min<f64>(soonest, before + most);
  }
  return soonest;
}
