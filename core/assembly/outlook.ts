import { entering } from './following';
import { jobCount, unitCount, washes } from './day';
import { cost, end, fromOf, isBackwards, itemCount, itemJob, lateCost, pieceCount, seen, standingAt, toOf, unitBy, unitTo } from './outline';
import { at, listAt, numberAt, nth, put, putNumber, sizeOf } from './words';

/** What a day may come to that is laid out in part, by the work that is left on the resource there is least of (engine/outlook.ts). */

/** What a step asks of it: so much that nothing fits beside it (0), more than half, or little; and, told backwards, all of it until it is out of the unit it stays in. */
const MOST: i32 = 1;
const LITTLE: i32 = 2;
const INSIDE: i32 = 3;
export const KINDS: i32 = 4;
const NONE: i32 = -1;
/** How much longer the rest takes than its work, and what a minute of it counts. Choices of the search. */
const LONGER: f64 = 1.2;
const MINUTE: f64 = 20;
/** The same of a day told backwards; and how much of the work on those who came in last may still be left when one more comes in. Choices of the search. */
const MINUTE_BACKWARDS: f64 = 5;
const LONGER_BACKWARDS: f64 = 1.05;
const AMONG: f64 = 0.2;

/** Numbers of each item and kind: minutes of the scarcest resource; and of each job, all together. */
export let workOf: usize = 0;
export let whole: usize = 0;
/** How much of little work is beside nothing else. */
export let alone: f64 = 0;
export let shortestWash: f64 = 0;
/** Of each job the item it comes with into the unit it stays in; −1 = there is none. And how many stay in units at once. */
export let comesWith: usize = 0;
export let places: i32 = 0;
/** Of each job when it may begin; and, in the way it is done, the unit it stays in (−1 = none), how long at least, from when it comes in until it ends, and until it comes in. */
export let releaseMin: usize = 0;
export let stayUnit: usize = 0;
export let stayMin: usize = 0;
export let throughMin: usize = 0;
export let aheadMin: usize = 0;

/** What the day that was guessed last costs for sure. */
export let sure: f64 = 0;
/** Numbers of each job in the order they come in: by when it ends at the soonest, and when it may; −1 = nothing is left. Told backwards, when it may come in; −1 = it is in. */
export let soonest: usize = 0;
export let likely: usize = 0;
export let comesIn: usize = 0;
/** Of each unit, as jobs come in one after another: when it is free, and who was in it last. */
export let freeAt: usize = 0;
export let freeBy: usize = 0;
let left: f64 = 0;

/** What is not yet laid out of a day. */
@unmanaged
export class Rest {
  /** Numbers of each job and kind: minutes of work on the scarcest resource. */
  work: usize;
  /** Until when each job keeps a little of it. */
  until: usize;
  washes: i32;
}

/** What is left of what is laid out now. */
export function beginRest(rest: Rest): void {
  memory.copy(rest.work, whole, (<usize>(jobCount * KINDS)) << 3);
  memory.fill(rest.until, 0, (<usize>jobCount) << 2);
  rest.washes = itemCount - pieceCount;
  for (let item = 0; item < itemCount; item++) if (at(seen, item) !== 0) take(item, toOf(item), rest, rest);
}

/** What is left when an item is done that ends then. */
export function take(item: i32, ends: i32, before: Rest, after: Rest): void {
  const job = at(itemJob, item);
  if (before !== after) {
    memory.copy(after.work, before.work, (<usize>(jobCount * KINDS)) << 3);
    memory.copy(after.until, before.until, (<usize>jobCount) << 2);
  }
  for (let kind = 0; kind < KINDS; kind++) {
    const index = job * KINDS + kind;
    putNumber(after.work, index, numberAt(after.work, index) - numberAt(workOf, item * KINDS + kind));
  }
  if (numberAt(workOf, item * KINDS + LITTLE) > 0) put(after.until, job, ends);
  after.washes = before.washes - (item < pieceCount ? 0 : 1);
}

/** Whether an item that is laid out keeps somebody busy. */
export function keepsBusy(item: i32): bool {
  return item < pieceCount ? numberAt(workOf, item * KINDS) > 0 || numberAt(workOf, item * KINDS + MOST) > 0 : toOf(item) > fromOf(item);
}

/** When each job that is not over may end once an item is done that is laid out now, by the work that is left of it and of those that come in before it. */
export function reckon(rest: Rest, item: i32, busy: i32): void {
  const work = rest.work;
  const job = at(itemJob, item);
  const mine = item * KINDS;
  const longer: f64 = isBackwards ? LONGER_BACKWARDS : LONGER;
  const untilMine = numberAt(workOf, mine + LITTLE) > 0 ? toOf(item) : at(rest.until, job);
  let all: f64 = busy;
  let most: f64 = 0;
  let little: f64 = 0;
  for (let other = 0; other < jobCount; other++) {
    const until = other === job ? untilMine : at(rest.until, other);
    if (until > busy) little += <f64>(until - busy) * alone;
  }
  for (let place = 0; place < sizeOf(entering); place++) {
    const other = nth(entering, place);
    const index = other * KINDS;
    let wholeLeft = numberAt(work, index);
    let mostLeft = numberAt(work, index + MOST);
    let littleLeft = numberAt(work, index + LITTLE);
    if (other === job) {
      wholeLeft -= numberAt(workOf, mine);
      mostLeft -= numberAt(workOf, mine + MOST);
      littleLeft -= numberAt(workOf, mine + LITTLE);
    }
    all += wholeLeft;
    most += mostLeft;
    little += littleLeft;
    putNumber(soonest, place, wholeLeft <= 0 && mostLeft <= 0 ? NONE : all + most);
    putNumber(likely, place, <f64>busy + (all + max<f64>(most, little) - <f64>busy) * longer);
  }
  let toWash = item < pieceCount ? rest.washes : rest.washes - 1;
  for (let unit = 0; unit < unitCount; unit++) if (at(unitBy, unit) < 0) toWash--;
  left = (all + max<f64>(most, little) + <f64>max(0, toWash) * shortestWash) * (isBackwards ? MINUTE_BACKWARDS : MINUTE);
  if (isBackwards) reckonIn(work, item, busy);
}

/** When each job that is not in yet may come in. */
function reckonIn(work: usize, item: i32, busy: i32): void {
  let before: f64 = 0;
  for (let place = 0; place < sizeOf(entering); place++) {
    const other = nth(entering, place);
    // Those that came in last before it need not be through.
    let among: f64 = 0;
    for (let near = max(0, place - places + 1); near < place; near++) among += insideOf(work, nth(entering, near), item);
    putNumber(comesIn, place, !isToCome(other) ? NONE : <f64>busy + before - among * AMONG);
    before += insideOf(work, other, item);
  }
}

/** Whether a job is not yet in the unit it stays in. */
function isToCome(job: i32): bool {
  const item = at(comesWith, job);
  return item >= 0 && at(seen, item) === 0;
}

/** The work on a job until it is out of the unit it stays in, once an item is done. */
function insideOf(work: usize, job: i32, item: i32): f64 {
  return numberAt(work, job * KINDS + INSIDE) - (job === at(itemJob, item) ? numberAt(workOf, item * KINDS + INSIDE) : 0);
}

/** What a day may cost that goes on from what is laid out; and what it costs for sure. */
export function guess(): f64 {
  let may = cost();
  sure = may;
  memory.copy(freeAt, unitTo, (<usize>unitCount) << 2);
  memory.copy(freeBy, unitBy, (<usize>unitCount) << 2);
  for (let place = 0; place < sizeOf(entering); place++) {
    let atLeast = numberAt(soonest, place);
    if (atLeast < 0) continue;
    const job = nth(entering, place);
    const ends: f64 = at(end, job);
    let mayBe = numberAt(likely, place);
    if (isToCome(job)) {
      let begins = numberAt(comesIn, place);
      if (at(stayUnit, job) >= 0) {
        const comes = comesAfterOthers(job);
        const through: f64 = comes + at(throughMin, job);
        atLeast = max<f64>(atLeast, through);
        mayBe = max<f64>(mayBe, through);
        begins = max<f64>(begins, comes - at(aheadMin, job));
      }
      if (isBackwards) may += standingAt(job, begins);
    }
    if (atLeast <= ends && mayBe <= ends) continue;
    const is = lateCost(job, ends);
    if (atLeast > ends) sure += lateCost(job, atLeast) - is;
    if (mayBe > ends) may += lateCost(job, mayBe) - is;
  }
  return may + left;
}

/** When a job comes into the unit it stays in at the soonest: those before it stay there one after another, each as long as it must. */
function comesAfterOthers(job: i32): i32 {
  const unit = at(stayUnit, job);
  const before = at(freeBy, unit);
  const table = listAt(washes, unit);
  const washMin = before < 0 || table === 0 ? 0 : at(table, before * jobCount + job);
  const comes = max(at(releaseMin, job), at(freeAt, unit) + washMin);
  put(freeAt, unit, comes + at(stayMin, job));
  put(freeBy, unit, job);
  return comes;
}
