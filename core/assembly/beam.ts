import { jobCount, unitCount } from './day';
import { entering, find, getOut, might, own, placeOf } from './following';
import { horizon } from './minutes';
import { cost, end, firstOf, fromOf, itemCount, itemJob, keep, pieceCount, place, restore, seen, slots, start, stateBytes, toOf, total, unitTo, washTo } from './outline';
import { beginRest, guess, keepsBusy, KINDS, reckon, releaseMin, Rest, sure, take } from './outlook';
import { at, listAt, nth, put, sizeOf } from './words';

/** A part of a day laid out anew, forward in time, some partial plans side by side (engine/beam.ts). */

const NONE: i32 = -1;
const NEVER: i32 = i32.MAX_VALUE;
/** Partial plans that go on side by side. A choice of the search. */
const WIDTH: i32 = 16;
/** How often what may come next is met in one step, of each item, at most: room for what is met is twice that. */
const MEETINGS: i32 = WIDTH * 2;

/** Some items laid out, and what the rest is judged by. */
@unmanaged
class Strand {
  kept: usize;
  rest: Rest;
  /** How many items of each job are not yet laid out. */
  items: usize;
  /** Until when somebody is busy, and when what was laid out last begins. */
  busy: i32;
  last: i32;
  /** Which items are laid out, in one number. */
  set: i32;
}

/** One more item on a partial plan. */
@unmanaged
class Candidate {
  /** What it is judged by, and what it costs so far. */
  key: f64;
  cost: f64;
  parent: i32;
  item: i32;
  /** What it comes to in one number, and which items are laid out. */
  hash: i32;
  set: i32;
  /** When the item ends; the rest as of a partial plan. */
  to: i32;
  last: i32;
  busy: i32;
  kept: usize;
}

/** What was met among those that may come next, in which step, with what it costs so far; −1 = somebody does not get out. */
@unmanaged
class Met {
  cost: f64;
  hash: i32;
  step: i32;
}

/** The order there was, the order that is found, and of each item a number by chance. */
export let order: usize = 0;
export let found: usize = 0;
export let signs: usize = 0;
/** The manner (engine/manner.ts): what part of what it costs more that everybody gets out counts; how many go on that have the same items laid out. */
export let part: f64 = 1;
export let alike: i32 = WIDTH;
/** Whether it is through, or nothing below the limit is left; and what the best plan costs: when there is none, something above the limit. */
export let isOver: i32 = 1;
export let foundCost: f64 = Infinity;

let plans: usize = 0;
let nextPlans: usize = 0;
let planCount: i32 = 0;
/** Of each level and partial plan: the one it goes on from, and what was laid out. */
let levelParent: usize = 0;
let levelItem: usize = 0;
let levelCount: i32 = 0;
/** What is laid out anew, what comes before it, and where in the order what comes after begins. */
let window: usize = 0;
let windowCount: i32 = 0;
let head: usize = 0;
let headCount: i32 = 0;
let tailFrom: i32 = 0;
let limit: f64 = 0;
let leastAbove: f64 = 0;
let tried: usize = 0;
let triedCount: i32 = 0;
let best: usize = 0;
let bestCount: i32 = 0;
/** Room for partial plans and candidates, not in use. */
let spare: usize = 0;
let spareCount: i32 = 0;
let pool: usize = 0;
let poolCount: i32 = 0;
let met: usize = 0;
let metMask: i32 = 0;
let stepNumber: i32 = 0;

function rowOfWords(length: i32): usize {
  return heap.alloc((<usize>length) << 2);
}

function strands(): usize {
  const row = rowOfWords(WIDTH);
  for (let index = 0; index < WIDTH; index++) {
    const plan = changetype<Strand>(heap.alloc(offsetof<Strand>()));
    plan.kept = heap.alloc(stateBytes);
    plan.rest = changetype<Rest>(heap.alloc(offsetof<Rest>()));
    plan.rest.work = heap.alloc((<usize>(jobCount * KINDS)) << 3);
    plan.rest.until = rowOfWords(jobCount);
    plan.items = rowOfWords(jobCount);
    put(row, index, <i32>changetype<usize>(plan));
  }
  return row;
}

/** Makes room, once the outline and all tables are in place. */
export function prepareBeam(): void {
  plans = strands();
  nextPlans = strands();
  levelParent = rowOfWords(itemCount * WIDTH);
  levelItem = rowOfWords(itemCount * WIDTH);
  window = rowOfWords(itemCount);
  head = rowOfWords(itemCount);
  best = rowOfWords(WIDTH);
  tried = rowOfWords(itemCount);
  // As many as are tried on one partial plan, beside those that are the best so far.
  const most = itemCount + WIDTH;
  spare = rowOfWords(most + WIDTH);
  pool = rowOfWords(most);
  for (let index = 0; index < most; index++) {
    put(pool, index, <i32>heap.alloc(offsetof<Candidate>()));
    toSpare(heap.alloc(stateBytes));
  }
  poolCount = most;
  let room = 1;
  while (room < itemCount * MEETINGS) room <<= 1;
  met = heap.alloc(<usize>room * offsetof<Met>());
  memory.fill(met, 0, <usize>room * offsetof<Met>());
  metMask = room - 1;
}

function strand(row: usize, index: i32): Strand {
  return changetype<Strand>(<usize>at(row, index));
}

function candidateAt(row: usize, index: i32): Candidate {
  return changetype<Candidate>(<usize>at(row, index));
}

function toSpare(kept: usize): void {
  put(spare, spareCount++, <i32>kept);
}

function toPool(candidate: Candidate): void {
  put(pool, poolCount++, <i32>changetype<usize>(candidate));
}

function drop(candidate: Candidate): void {
  toSpare(candidate.kept);
  toPool(candidate);
}

/** How many partial plans go on, and which items are laid out in one of them. */
export function goingOn(): i32 {
  return planCount;
}

export function setOf(index: i32): i32 {
  return strand(plans, index).set;
}

/** Begins with the items of the order from one place to another, in the entries and the manner that are set. Plans above the limit are not followed. */
export function beginBeam(from: i32, to: i32, above: f64): void {
  for (let index = 0; index < itemCount; index++) put(placeOf, at(order, index), index);
  limit = above;
  leastAbove = Infinity;
  foundCost = Infinity;
  levelCount = 0;
  tailFrom = to;
  headCount = 0;
  const root = strand(plans, 0);
  memory.fill(root.items, 0, (<usize>jobCount) << 2);
  let busy = horizon;
  for (let index = 0; index < sizeOf(entering); index++) busy = min(busy, at(releaseMin, nth(entering, index)));
  root.last = busy;
  root.set = 0;
  planCount = 1;
  restore(0);
  isOver = 1;
  for (let index = 0; index < from; index++) {
    put(head, headCount++, at(order, index));
    if (!place(at(order, index))) return;
  }
  beginRest(root.rest);
  for (let item = 0; item < itemCount; item++) {
    if (at(seen, item) === 0) {
      const job = at(itemJob, item);
      put(root.items, job, at(root.items, job) + 1);
      continue;
    }
    if (keepsBusy(item)) busy = max(busy, toOf(item));
    root.last = max(root.last, fromOf(item));
    root.set ^= at(signs, item);
  }
  root.busy = busy;
  windowCount = 0;
  for (let index = from; index < to; index++) {
    const item = at(order, index);
    // What had to be laid out with what comes before has its place there.
    if (at(seen, item) === 0) put(window, windowCount++, item);
    else put(head, headCount++, item);
  }
  keep(root.kept);
  if (windowCount > 0) isOver = 0;
}

/** One item more on every partial plan. */
export function stepBeam(): void {
  bestCount = 0;
  stepNumber++;
  for (let parent = 0; parent < planCount; parent++) {
    const plan = strand(plans, parent);
    restore(plan.kept);
    const next = find(window, windowCount);
    triedCount = 0;
    let soonestEnd = NEVER;
    for (let index = 0; index < next; index++) {
      if (index > 0) restore(plan.kept);
      soonestEnd = min(soonestEnd, tryOut(parent, plan, at(might, index)));
    }
    // What begins after something else could be over comes after that.
    for (let index = 0; index < triedCount; index++) {
      const candidate = candidateAt(tried, index);
      if (candidate.last < soonestEnd) enter(candidate);
      else drop(candidate);
    }
  }
  goOn();
}

/** Where it stands what comes to this, or where it may stand. */
function metOf(hash: i32): Met {
  let slot = (hash * <i32>0x9e3779b1) >>> 7;
  while (true) {
    const one = changetype<Met>(met + <usize>(slot & metMask) * offsetof<Met>());
    if (one.step !== stepNumber || one.hash === hash) return one;
    slot++;
  }
}

function meet(one: Met, hash: i32, costs: f64): void {
  one.step = stepNumber;
  one.hash = hash;
  one.cost = costs;
}

/** Lays one more item out on the plan that is laid out. Gives when it ends, if it keeps somebody busy; never when it does not, or leads nowhere. */
function tryOut(parent: i32, plan: Strand, item: i32): i32 {
  if (!place(item)) return NEVER;
  const begins = fromOf(item);
  const ends = toOf(item);
  const isBusy = keepsBusy(item);
  const busy = isBusy ? max(plan.busy, ends) : plan.busy;
  const last = max(plan.last, begins);
  // What comes to the same as something before leads no further than that.
  const set = plan.set ^ at(signs, item);
  const hash = set ^ times(plan, item, last);
  const costs = cost();
  const known = metOf(hash);
  const isKnown = known.step === stepNumber;
  if (isKnown && known.cost === NONE) return NEVER;
  const over = isBusy && begins >= plan.last ? ends : NEVER;
  if (isKnown && known.cost <= costs) return over;
  reckon(plan.rest, item, busy);
  // Everybody's way out of the units only makes it later.
  const atLeast = guess();
  if (sure > limit) return above();
  if (bestCount === WIDTH && atLeast >= candidateAt(best, WIDTH - 1).key) return NEVER;
  const kept = <usize>at(spare, --spareCount);
  keep(kept);
  if (!getOut()) {
    toSpare(kept);
    meet(known, hash, NONE);
    return NEVER;
  }
  const key = atLeast + (guess() - atLeast) * part;
  if (part === 1 && sure > limit) {
    toSpare(kept);
    return above();
  }
  const candidate = candidateAt(pool, --poolCount);
  candidate.parent = parent;
  candidate.item = item;
  candidate.key = key;
  candidate.hash = hash;
  candidate.set = set;
  candidate.cost = costs;
  candidate.to = ends;
  candidate.last = last;
  candidate.busy = busy;
  candidate.kept = kept;
  put(tried, triedCount++, <i32>changetype<usize>(candidate));
  return over;
}

function above(): i32 {
  leastAbove = min<f64>(leastAbove, sure);
  return NEVER;
}

/** What lies when, as far as it matters for what comes after `last`, in one number. */
function times(plan: Strand, placed: i32, last: i32): i32 {
  const mine = at(itemJob, placed);
  let hash = 0;
  for (let job = 0; job < jobCount; job++) {
    const items = listAt(own, job);
    const left = at(plan.items, job) - (job === mine ? 1 : 0);
    // Nothing is laid out of it, or all, and that is over.
    if (left === sizeOf(items) || (left <= 0 && at(end, job) <= last)) continue;
    for (let index = 0; index < sizeOf(items); index++) {
      const item = nth(items, index);
      if (at(seen, item) === 0) continue;
      const step = firstOf(item);
      const time = item < pieceCount ? at(start, step) : max(last, at(washTo, step * slots));
      hash = (hash ^ (time + item * 4096)) * <i32>0x9e3779b1;
      hash ^= hash >>> 15;
    }
  }
  for (let unit = 0; unit < unitCount; unit++) {
    const free = at(unitTo, unit);
    if (free <= last) continue;
    hash = (hash ^ (free + unit * 8192)) * <i32>0x85ebca6b;
    hash ^= hash >>> 13;
  }
  return hash;
}

/** Takes its place among the best; of those that come to the same, one stays, of those that have the same laid out as many as may go on. */
function enter(candidate: Candidate): void {
  meet(metOf(candidate.hash), candidate.hash, candidate.cost);
  let crowded = 0;
  while (crowded < bestCount && candidateAt(best, crowded).hash !== candidate.hash) crowded++;
  if (crowded === bestCount) crowded = dearestAlike(candidate.set);
  const out = crowded < 0 && bestCount === WIDTH ? WIDTH - 1 : crowded;
  if (out >= 0) {
    if (candidate.key >= candidateAt(best, out).key) {
      drop(candidate);
      return;
    }
    drop(candidateAt(best, out));
    bestCount--;
    for (let index = out; index < bestCount; index++) put(best, index, at(best, index + 1));
  }
  let index = bestCount++;
  while (index > 0 && candidateAt(best, index - 1).key > candidate.key) {
    put(best, index, at(best, index - 1));
    index--;
  }
  put(best, index, <i32>changetype<usize>(candidate));
}

/** The dearest of those with these items laid out, when there are as many as may go on; −1 = there are not. */
function dearestAlike(set: i32): i32 {
  if (alike >= WIDTH) return NONE;
  let many = 0;
  let dearest = NONE;
  for (let index = 0; index < bestCount; index++) {
    if (candidateAt(best, index).set !== set) continue;
    many++;
    dearest = index;
  }
  return many >= alike ? dearest : NONE;
}

/** The best go on. */
function goOn(): void {
  for (let index = 0; index < bestCount; index++) {
    const candidate = candidateAt(best, index);
    const before = strand(plans, candidate.parent);
    const plan = strand(nextPlans, index);
    const job = at(itemJob, candidate.item);
    toSpare(plan.kept);
    plan.kept = candidate.kept;
    take(candidate.item, candidate.to, before.rest, plan.rest);
    memory.copy(plan.items, before.items, (<usize>jobCount) << 2);
    put(plan.items, job, at(plan.items, job) - 1);
    plan.busy = candidate.busy;
    plan.last = candidate.last;
    plan.set = candidate.set;
    put(levelParent, levelCount * WIDTH + index, candidate.parent);
    put(levelItem, levelCount * WIDTH + index, candidate.item);
    toPool(candidate);
  }
  levelCount++;
  const were = plans;
  plans = nextPlans;
  nextPlans = were;
  planCount = bestCount;
  const isThrough = levelCount === windowCount;
  if (!isThrough && planCount > 0) return;
  isOver = 1;
  let cheapest = NONE;
  for (let index = 0; isThrough && index < planCount; index++) {
    const costs = complete(strand(plans, index));
    if (costs >= foundCost) continue;
    foundCost = costs;
    cheapest = index;
  }
  if (cheapest >= 0) orderTo(cheapest);
  else foundCost = leastAbove;
}

/** What comes after, in its order. */
function complete(plan: Strand): f64 {
  restore(plan.kept);
  for (let index = tailFrom; index < itemCount; index++) {
    if (!place(at(order, index))) return Infinity;
    if (cost() <= limit) continue;
    leastAbove = min<f64>(leastAbove, cost());
    return Infinity;
  }
  return total();
}

function orderTo(plan: i32): void {
  for (let index = 0; index < headCount; index++) put(found, index, at(head, index));
  for (let index = tailFrom; index < itemCount; index++) put(found, headCount + levelCount + index - tailFrom, at(order, index));
  let row = plan;
  for (let level = levelCount - 1; level >= 0; level--) {
    put(found, headCount + level, at(levelItem, level * WIDTH + row));
    row = at(levelParent, level * WIDTH + row);
  }
}
