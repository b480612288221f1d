import { tableCost } from './costs';
import { jobCount, unitCount } from './day';
import { horizon } from './minutes';
import { aimMin, begin, isWanted, Laying, place } from './laying';
import { jobAt, wayAt } from './jobs';
import { end, isPlaced, NEVER, restore, save, startOf, variantOf } from './state';
import { at, listAt, nth, put, sizeOf } from './words';

/** What is laid out on the table is pushed back towards when it is wanted (justification: Valls, Ballestín & Quintanilla 2005; engine/lists.ts). */

/** A state to go back to. Rows of the items that are pushed: an order, room to sort it, and when each ends. */
export let pushSpare: usize = 0;
export let pushOrder: usize = 0;
export let pushRoom: usize = 0;
export let pushEnds: usize = 0;

/** When an item begins and ends: of each so many words in two rows; a job that found no place lies at 0. */
export function lie(laying: usize, from: usize, to: usize): void {
  const its = changetype<Laying>(laying);
  for (let item = 0; item < its.itemCount; item++) {
    const index = at(its.jobs, item);
    let begins = 0;
    let ends = 0;
    if (!at(its.failed, index)) {
      begins = i32.MAX_VALUE;
      const job = jobAt(index);
      const durations = wayAt(job, at(variantOf, index)).durations;
      const block = listAt(its.blocks, item);
      for (let place = 0; place < sizeOf(block); place++) {
        const step = nth(block, place);
        begins = min(begins, startOf(job, step));
        ends = max(ends, startOf(job, step) + at(durations, step));
      }
    }
    put(from, item, begins);
    put(to, item, ends);
  }
}

/** When an item ends; −1 = its job has no place. */
function endOf(its: Laying, item: i32): i32 {
  const job = jobAt(at(its.jobs, item));
  const way = at(variantOf, job.index);
  if (way < 0) return NEVER;
  const durations = wayAt(job, way).durations;
  const block = listAt(its.blocks, item);
  let last = NEVER;
  for (let place = 0; place < sizeOf(block); place++) last = max(last, startOf(job, nth(block, place)) + at(durations, nth(block, place)));
  return last;
}

/** All items by when they end, the last first; of two that end alike, the first. */
function lastFirst(its: Laying): void {
  const count = its.itemCount;
  for (let item = 0; item < count; item++) {
    put(pushOrder, item, item);
    put(pushEnds, item, endOf(its, item));
  }
  for (let width = 1; width < count; width *= 2) {
    for (let from = 0; from < count; from += width * 2) merge(from, min(from + width, count), min(from + width * 2, count));
    memory.copy(pushOrder, pushRoom, (<usize>count) << 2);
  }
}

/** Two sorted stretches of the order as one. */
function merge(from: i32, middle: i32, to: i32): void {
  let left = from;
  let right = middle;
  for (let place = from; place < to; place++) {
    const isLeft = right >= to || (left < middle && at(pushEnds, at(pushOrder, left)) >= at(pushEnds, at(pushOrder, right)));
    put(pushRoom, place, at(pushOrder, isLeft ? left++ : right++));
  }
}

/** Pushes what is laid out back, each job to end no later than it does or than it is wanted. Leaves the better of the two on the table; gives its cost. */
export function pushBack(laying: usize, root: usize, cost: f64): f64 {
  const its = changetype<Laying>(laying);
  save(pushSpare);
  lastFirst(its);
  memory.fill(its.seen, 0, (<usize>its.itemCount) << 2);
  memory.copy(its.ways, variantOf, (<usize>jobCount) << 2);
  for (let unit = 0; unit < unitCount; unit++) put(its.heldBy, unit, NEVER);
  for (let index = 0; index < jobCount; index++) {
    const ends = at(end, index);
    put(its.failed, index, isPlaced(index) ? 0 : 1);
    put(its.latest, index, at(isWanted, index) ? max(at(aimMin, index), ends) : sizeOf(jobAt(index).consumers) === 0 ? ends : horizon);
  }
  restore(root);
  begin(its);
  for (let index = 0; index < its.itemCount; index++) if (!place(at(pushOrder, index))) return takeBack(cost);
  const pushed = tableCost();
  return pushed <= cost ? pushed : takeBack(cost);
}

function takeBack(cost: f64): f64 {
  restore(pushSpare);
  return cost;
}
