import { unitCount } from './day';
import { holdingAt, includes, isDone, Job, jobAt, LINK, wayAt, wholeOf } from './jobs';
import { end, isPlaced, NEVER, restore, save, startOf, variantOf } from './state';
import { keepFound, placePartKept, placePartSoon, placeSoon, soonestEnd, withdrawPart } from './timetable';
import { unweave, weave } from './weaving';
import { at, listAt, nth, numberAt, put, putNumber, sizeOf } from './words';

/** Lays things out on the table one after the other, each after those that must come before it (engine/laying.ts). */

/** Chance, as the search has it. */
declare function random(): f64;

/** Whole, each as soon as it fits; or piece by piece, as soon as it fits or from the end. */
const SOON: i32 = 0;
const LATE: i32 = 2;
/** How much of a minute chance decides between two ways that end alike. */
const CHANCE: f64 = 0.5;

/** Whom it lays out, and how. */
@unmanaged
export class Laying {
  manner: i32;
  itemCount: i32;
  /** Of each item its job, lists of its steps and of the items before it, and whether all ways of its job are one for it. */
  jobs: usize;
  blocks: usize;
  before: usize;
  same: usize;
  /** The item of each step, −1 = in none; whether each job is in order here: the others stand. */
  itemOf: usize;
  isOrdered: usize;
  /** The way of doing each job that is laid out piece by piece; −1 = it is laid out whole, in the way that ends soonest. */
  ways: usize;
  /** By when each job is to end, laid out from the end: one that cannot finds no place. 0 = for when it is wanted; what cannot comes soon after. */
  latest: usize;
  /** Which items are laid out; whose job found no place; and the job that has begun in each unit and is not laid out to where it leaves it, −1 = none. */
  seen: usize;
  failed: usize;
  heldBy: usize;
}

/** Of each job whether it is wanted by a time, and by when; and when it had better be ready, the horizon where nobody says. */
export let isWanted: usize = 0;
export let wantedMin: usize = 0;
export let aimMin: usize = 0;
/** By when each way could end; and a state to go back to. */
export let ends: usize = 0;
export let layingSpare: usize = 0;

let its: Laying = changetype<Laying>(0);

/** Whom everything is laid out for from now on. */
export function begin(laying: Laying): void {
  its = laying;
}

/** Lays an item out after those that must come before it. False when this order cannot be laid out. */
export function lay(laying: usize, item: i32): bool {
  its = changetype<Laying>(laying);
  return place(item);
}

export function place(item: i32): bool {
  if (at(its.seen, item)) return true;
  put(its.seen, item, 1);
  const before = listAt(its.before, item);
  for (let index = 0; index < sizeOf(before); index++) if (!place(nth(before, index))) return false;
  const index = at(its.jobs, item);
  if (at(its.failed, index)) return true;
  const job = jobAt(index);
  if (its.manner !== SOON) return isLaidWhole(job) ? placeWhole(job) : weaveIn(job, item);
  const block = listAt(its.blocks, item);
  if (isLaid(job, block) || placeIn(job, block)) return true;
  // What finds no place beside its other parts is laid out whole; what finds none at all leaves the rest of the day without it.
  if (!takeOut(index)) return false;
  const whole = wholeOf(job);
  return (sizeOf(whole) > sizeOf(block) && placeIn(job, whole)) || leaveOut(index);
}

/** Whether a job is laid out whole among pieces: no way of doing it is known, or there is nothing it is wanted for. */
function isLaidWhole(job: Job): bool {
  if (at(its.ways, job.index) < 0) return true;
  return its.manner === LATE && its.latest === 0 && !at(isWanted, job.index) && sizeOf(job.consumers) === 0;
}

/** A whole job, where its first piece stands in the order. */
function placeWhole(job: Job): bool {
  return isPlaced(job.index) || placeIn(job, wholeOf(job)) || leaveOut(job.index);
}

/** Whether all of a block has its place, or is done; and whether any of it was laid out for that. */
function isThere(job: Job, block: usize): bool {
  for (let index = 0; index < sizeOf(block); index++) if (startOf(job, nth(block, index)) < 0) return false;
  return true;
}

function isAllDone(job: Job, block: usize): bool {
  for (let index = 0; index < sizeOf(block); index++) if (!isDone(job, nth(block, index))) return false;
  return true;
}

function isLaid(job: Job, block: usize): bool {
  return isThere(job, block) && !isAllDone(job, block);
}

/** Whether what a block is made of is there. */
function hasInputs(job: Job, block: usize): bool {
  for (let index = 0; index < sizeOf(job.inputs); index += LINK) if (includes(block, nth(job.inputs, index)) && !isPlaced(nth(job.inputs, index + 1))) return false;
  return true;
}

/** Lays a piece out among those of other jobs. What stands in a unit it needs is laid out to its other end first. */
function weaveIn(job: Job, item: i32): bool {
  const isLate = its.manner === LATE;
  const block = listAt(its.blocks, item);
  if (isPlaced(job.index) || isAllDone(job, block)) return true;
  if (!isLate && !hasInputs(job, block)) return leaveOut(job.index);
  // Two that wait for each other to leave a unit stand in a circle.
  const before = listAt(its.before, item);
  for (let index = 0; index < sizeOf(before); index++) {
    const other = at(its.jobs, nth(before, index));
    if (!at(its.failed, other) && !isThere(jobAt(other), listAt(its.blocks, nth(before, index)))) return false;
  }
  const way = at(its.ways, job.index);
  const variant = wayAt(job, way);
  for (let index = 0; index < sizeOf(block); index++) {
    const held = listAt(isLate ? variant.closing : variant.opening, nth(block, index));
    for (let one = 0; one < sizeOf(held); one++) if (!vacate(holdingAt(variant, nth(held, one)).unit)) return false;
  }
  if (!weave(job.index, way, block, latestOf(job.index), isLate)) return isLate && its.latest === 0 && takeOut(job.index) && (placeAfter(job) || leaveOut(job.index));
  for (let index = 0; index < variant.holdingCount; index++) {
    const holding = holdingAt(variant, index);
    if (includes(block, isLate ? holding.from : holding.to)) put(its.heldBy, holding.unit, NEVER);
    else if (includes(block, isLate ? holding.to : holding.from)) put(its.heldBy, holding.unit, job.index);
  }
  return true;
}

function latestOf(index: i32): i32 {
  return its.latest === 0 ? at(aimMin, index) : at(its.latest, index);
}

/** Lays out whatever stands in a unit to where it leaves it; from the end, to where it comes into it. */
function vacate(unit: i32): bool {
  const index = at(its.heldBy, unit);
  if (index < 0) return true;
  const job = jobAt(index);
  const variant = wayAt(job, at(its.ways, index));
  for (let held = 0; held < variant.holdingCount; held++) {
    const holding = holdingAt(variant, held);
    if (holding.unit === unit && !place(at(its.itemOf, job.offset + (its.manner === LATE ? holding.from : holding.to)))) return false;
  }
  return true;
}

/** Takes out what is laid of a job. False when a wash finds no hands then. */
function takeOut(index: i32): bool {
  if (its.manner !== SOON) {
    for (let unit = 0; unit < unitCount; unit++) if (at(its.heldBy, unit) === index) put(its.heldBy, unit, NEVER);
    return unweave(index, its.manner === LATE);
  }
  const job = jobAt(index);
  for (let item = 0; item < its.itemCount; item++) {
    if (at(its.jobs, item) !== index) continue;
    const block = listAt(its.blocks, item);
    if (isLaid(job, block) && !withdrawPart(job, at(variantOf, index), block)) return false;
  }
  put(variantOf, index, NEVER);
  return true;
}

/** A job that finds no place, and whatever would be made of it: nothing stands on what is not there. */
function leaveOut(index: i32): bool {
  if (at(its.failed, index)) return true;
  put(its.failed, index, 1);
  if (!takeOut(index)) return false;
  const consumers = jobAt(index).consumers;
  for (let one = 0; one < sizeOf(consumers); one += LINK) {
    const consumer = nth(consumers, one + 1);
    if (at(its.isOrdered, consumer) && !leaveOut(consumer)) return false;
  }
  return true;
}

/** What does not fit before it is wanted is laid out whole, as soon after as it can be. */
function placeAfter(job: Job): bool {
  let best = NEVER;
  let bestEnd = i32.MAX_VALUE;
  save(layingSpare);
  const partition = sizeOf(job.partitions) - 1;
  const target = max(0, at(wantedMin, job.index));
  for (let way = 0; way < job.wayCount; way++) {
    const ending = placeSoon(job.index, way, partition, target, false);
    if (ending >= 0 && ending < bestEnd) {
      best = way;
      bestEnd = ending;
    }
    if (ending >= 0) restore(layingSpare);
  }
  return best >= 0 && placeSoon(job.index, best, partition, target, true) >= 0;
}

/** Whether it is the same in every way of its job; a whole job is not always among the items, and has as many as it has. */
function isSame(job: Job, block: usize): bool {
  const item = at(its.itemOf, job.offset + nth(block, 0));
  return item >= 0 && listAt(its.blocks, item) === block && at(its.same, item) !== 0;
}

/** As soon as it fits, in the way that ends first. */
function placeIn(job: Job, block: usize): bool {
  if (!hasInputs(job, block)) return false;
  const many = job.wayCount;
  // What is the same in every way goes the way the rest of its job goes.
  if (many === 1 || isSame(job, block)) return placePartSoon(job, max(0, at(variantOf, job.index)), block);
  // By when each way could end if every wash found its hands; whichever really ends first by that is taken.
  // What ends with another part cannot be cut off by its own end.
  const cuts = includes(block, job.sink);
  let cut = i32.MAX_VALUE;
  let kept = Infinity;
  for (let way = 0; way < many; way++) {
    const ending = soonestEnd(job, way, block, cut);
    const likely = ending < 0 ? Infinity : <f64>ending + random() * CHANCE;
    putNumber(ends, way, likely);
    if (ending >= 0 && likely < kept) {
      kept = likely;
      keepFound(job);
    }
    if (cuts && ending >= 0) cut = min(cut, ending);
  }
  let best = NEVER;
  let bestEnd = Infinity;
  let lies = NEVER;
  save(layingSpare);
  while (true) {
    let next = NEVER;
    for (let way = 0; way < many; way++) if (numberAt(ends, way) < (next < 0 ? bestEnd : numberAt(ends, next))) next = way;
    if (next < 0) break;
    const isKept = numberAt(ends, next) === kept;
    putNumber(ends, next, Infinity);
    if (lies >= 0) {
      // Taking it out again may wash elsewhere, or find no hands to.
      restore(layingSpare);
      lies = NEVER;
    }
    if (!(isKept ? placePartKept(job, next, block) : placePartSoon(job, next, block))) continue;
    lies = next;
    const ending = <f64>at(end, job.index);
    if (ending < bestEnd) {
      best = next;
      bestEnd = ending;
    }
  }
  if (best === lies) return best >= 0;
  if (lies >= 0) restore(layingSpare);
  return best >= 0 && placePartSoon(job, best, block);
}
