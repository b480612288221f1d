import { at, listAt, nth, numberAt, putNumber, sizeOf } from './words';

/** Days played through side by side, step by step: what is asked for one after the other lies beside each other (sequence/replay.ts). */

const BOUND: i32 = 3;
const STEP: u32 = 0x6d2b79f5;

export let nodeCount: i32 = 0;
/** Days that are played through at once. */
export let days: i32 = 0;
/** Numbers of each node: when it begins at the soonest, what has to be over put aside; and how long it takes where that is always as long. */
export let floorMin: usize = 0;
export let takesMin: usize = 0;
/** Lists of each node: triples of another, whether its beginning counts and not its end, and the place of the minutes in between among `gapMin`. */
export let bounds: usize = 0;
export let gapMin: usize = 0;
/** Rows of numbers, of each node that takes longer or shorter by chance (0 = it does not): how long at the middle of equal shares of chance; and 32 less the bits of how many. */
export let quantiles: usize = 0;
export let quantileShift: i32 = 0;
/** Numbers `[node * days + day]`: when it begins and ends. */
export let begins: usize = 0;
export let over: usize = 0;
/** Of each node the job that asks when it ends, −1 = none; and numbers `[job * days + day]`: when all of it has. */
export let lastOf: usize = 0;
export let jobOver: usize = 0;
/** Where chance goes on (mulberry32). */
export let chance: u32 = 0;

function row(table: usize, index: i32): usize {
  return table + ((<usize>(index * days)) << 3);
}

/** Plays the days through, one node after the other: whatever it waits for stands before it. */
export function playDays(): void {
  for (let node = 0; node < nodeCount; node++) {
    const from = row(begins, node);
    const floor = numberAt(floorMin, node);
    for (let day = 0; day < days; day++) putNumber(from, day, floor);
    const list = listAt(bounds, node);
    for (let index = 0; index < sizeOf(list); index += BOUND) {
      const before = row(nth(list, index + 1) !== 0 ? begins : over, nth(list, index));
      const gap = numberAt(gapMin, nth(list, index + 2));
      for (let day = 0; day < days; day++) {
        const bound = numberAt(before, day) + gap;
        const was = numberAt(from, day);
        putNumber(from, day, bound > was ? bound : was);
      }
    }
    const to = row(over, node);
    const table = listAt(quantiles, node);
    if (table === 0) {
      const takes = numberAt(takesMin, node);
      for (let day = 0; day < days; day++) putNumber(to, day, numberAt(from, day) + takes);
    } else {
      let state = chance;
      for (let day = 0; day < days; day++) {
        state += STEP;
        let mixed = (state ^ (state >>> 15)) * (state | 1);
        mixed ^= mixed + (mixed ^ (mixed >>> 7)) * (mixed | 61);
        putNumber(to, day, numberAt(from, day) + numberAt(table, <i32>((mixed ^ (mixed >>> 14)) >>> (<u32>quantileShift))));
      }
      chance = state;
    }
    const job = at(lastOf, node);
    if (job < 0) continue;
    const all = row(jobOver, job);
    for (let day = 0; day < days; day++) putNumber(all, day, max(numberAt(all, day), numberAt(to, day)));
  }
}
