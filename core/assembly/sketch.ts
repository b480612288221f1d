import { cost, fromOf, isAs, itemCount, itemJob, keep, place, restore, seen, state, toOf, total } from './outline';
import { at, put } from './words';

/** Orders laid out one after another; what one shares with the order that was accepted last is not laid out again (engine/sketch.ts). */

const NEVER: i32 = -1;

/** The order that is tried; how it looked after every so many items of the accepted one, and of the one that is tried. */
export let sketchOrder: usize = 0;
export let marks: usize = 0;
export let trial: usize = 0;
export let every: i32 = 1;
/** When each item of the accepted order begins and ends. */
export let sketchFrom: usize = 0;
export let sketchTo: usize = 0;

/** From which mark the one that is tried goes on; and at which it was as it was. */
let begun: i32 = 0;
let met: i32 = NEVER;

function hasBegun(job: i32, kept: usize): bool {
  for (let item = 0; item < itemCount; item++) if (at(itemJob, item) === job && at(kept + (seen - state), item) !== 0) return true;
  return false;
}

/**
 * Lays the order out from the last mark before its first `shared` items are over; those from `rest` on are as they were. Gives its cost, something above `limit` as soon
 * as it is certain to be above, Infinity when it cannot be laid out; `was` when it comes to the same as the accepted one.
 */
export function sketch(shared: i32, rest: i32, changedJob: i32, limit: f64, was: f64): f64 {
  met = NEVER;
  begun = min(shared, itemCount - 1) / every;
  while (begun > 0 && changedJob >= 0 && hasBegun(changedJob, <usize>at(marks, begun))) begun--;
  restore(begun === 0 ? 0 : <usize>at(marks, begun));
  for (let index = begun * every; index < itemCount; index++) {
    if (index % every === 0 && index > begun * every) {
      const mark = index / every;
      if (index >= rest && isAs(<usize>at(marks, mark))) {
        met = mark;
        return was;
      }
      keep(<usize>at(trial, mark));
    }
    if (!place(at(sketchOrder, index))) return Infinity;
    if (cost() > limit) return cost();
  }
  return total();
}

/** Takes the order that was laid out last; true when it lies elsewhere than the one before. */
export function acceptSketch(): bool {
  const last = met < 0 ? (itemCount + every - 1) / every : met;
  for (let mark = begun + 1; mark < last; mark++) {
    const was = at(marks, mark);
    put(marks, mark, at(trial, mark));
    put(trial, mark, was);
  }
  if (met >= 0) return false;
  for (let item = 0; item < itemCount; item++) {
    put(sketchFrom, item, fromOf(item));
    put(sketchTo, item, toOf(item));
  }
  return true;
}
