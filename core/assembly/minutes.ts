import { at, listAt, nth, put, sizeOf } from './words';

/**
 * What is free of every resource, minute by minute, 32 of them at once: for each amount of a resource that anything asks for, the minutes that have less of it
 * (engine/minutes.ts). Looking for a place is asked far more often than anything is booked.
 */

const WORD: i32 = 32;
const LAST: i32 = 31;
const SHIFT: i32 = 5;
const NEVER: i32 = -1;

export let bits: usize = 0;
export let horizon: i32 = 0;
/** How many words one row has. */
export let words: i32 = 0;
/** Of each level where its row begins, of which resource it is, and how much it asks for. */
export let levelAt: usize = 0;
export let levelResource: usize = 0;
export let levelUnits: usize = 0;
/** Of each resource where its rows begin and end, whether they are a ladder, and a list of its levels otherwise: where the row begins, and how much is asked. */
export let resourceFrom: usize = 0;
export let resourceTo: usize = 0;
export let isLadder: usize = 0;
export let resourceLevels: usize = 0;

/** Minutes of a word up to one. */
function upTo(minute: i32): i32 {
  return <i32>((<u32>NEVER) >> (<u32>(LAST - (minute & LAST))));
}

/** And from one on. */
function fromOn(minute: i32): i32 {
  return NEVER << (minute & LAST);
}

/** Soonest start at or after `from` at which all uses fit; −1 past the horizon. */
export function earliestFit(uses: usize, from: i32, duration: i32): i32 {
  const count = sizeOf(uses);
  if (count === 1) return soonestRun(nth(uses, 0), from, duration);
  let start = from;
  let last = NEVER;
  while (start !== last) {
    if (start + duration > horizon) return NEVER;
    last = start;
    for (let index = 0; index < count; index++) {
      start = soonestRun(nth(uses, index), start, duration);
      if (start < 0) return NEVER;
    }
  }
  return start;
}

function soonestRun(level: i32, from: i32, duration: i32): i32 {
  const row = bits + ((<usize>at(levelAt, level)) << 2);
  let start = from;
  while (true) {
    const last = start + duration - 1;
    if (last >= horizon) return NEVER;
    if (last < start) return start;
    // The last minute in the way, if there is one.
    const first = start >> SHIFT;
    let word = last >> SHIFT;
    let lacks = at(row, word) & upTo(last);
    while (lacks === 0 && word > first) {
      word--;
      lacks = at(row, word);
    }
    if (word === first) lacks &= fromOn(start);
    if (lacks === 0) return start;
    // And the first free one after it.
    start = (word << SHIFT) + WORD - clz(lacks);
    word = start >> SHIFT;
    let frees = word < words ? ~at(row, word) & fromOn(start) : 0;
    while (frees === 0) {
      word++;
      if (word >= words) return NEVER;
      frees = ~at(row, word);
    }
    start = (word << SHIFT) + ctz(frees);
  }
}

/** Latest start at or before `from` and not before `notBefore`; −1 when there is none. */
export function latestFit(uses: usize, from: i32, duration: i32, notBefore: i32): i32 {
  const count = sizeOf(uses);
  let start = min(from, horizon - duration);
  let last = NEVER;
  while (start !== last) {
    last = start;
    for (let index = 0; index < count; index++) start = latestRun(nth(uses, index), start, duration, notBefore);
    if (start < notBefore) return NEVER;
  }
  return start;
}

function latestRun(level: i32, from: i32, duration: i32, notBefore: i32): i32 {
  const row = bits + ((<usize>at(levelAt, level)) << 2);
  let start = from;
  while (start >= notBefore) {
    const end = start + duration - 1;
    if (end < start) return start;
    // The first minute in the way, if there is one.
    const last = end >> SHIFT;
    let word = start >> SHIFT;
    let lacks = at(row, word) & fromOn(start);
    while (lacks === 0 && word < last) {
      word++;
      lacks = at(row, word);
    }
    if (word === last) lacks &= upTo(end);
    if (lacks === 0) return start;
    // And the last free one before it.
    let minute = (word << SHIFT) + ctz(lacks) - 1;
    if (minute < 0) return NEVER;
    word = minute >> SHIFT;
    let frees = ~at(row, word) & upTo(minute);
    while (frees === 0) {
      word--;
      if (word < 0) return NEVER;
      frees = ~at(row, word);
    }
    minute = (word << SHIFT) + LAST - clz(frees);
    start = minute - duration + 1;
  }
  return NEVER;
}

/** Whether all uses fit from `start` to `end`. */
export function fits(uses: usize, start: i32, end: i32): bool {
  return earliestFit(uses, start, end - start) === start;
}

/** Takes what is used from `start` to `end` (1) or gives it back (−1). What happened with more than there was leaves nothing. */
export function book(uses: usize, start: i32, end: i32, sign: i32): void {
  const first = max(0, start);
  const last = min(end, horizon) - 1;
  if (last < first) return;
  const from = first >> SHIFT;
  const to = last >> SHIFT;
  for (let index = 0; index < sizeOf(uses); index++) {
    const level = nth(uses, index);
    const resource = at(levelResource, level);
    if (resource < 0) continue;
    const units = at(levelUnits, level);
    for (let word = from; word <= to; word++) {
      let mask = word === from ? fromOn(first) : NEVER;
      if (word === to) mask &= upTo(last);
      if (at(isLadder, resource) === 0) {
        count(resource, word, units, mask, sign);
        compare(resource, word, mask);
      } else if (sign === 1) take(resource, word, units, mask);
      else give(resource, word, units, mask);
    }
  }
}

/** Less than so much is free where less than so much and what is taken was. */
function take(resource: i32, word: i32, units: i32, mask: i32): void {
  const to = at(resourceTo, resource);
  const far = units * words;
  for (let row = at(resourceFrom, resource) + word; row < to; row += words) {
    const was = at(bits, row);
    put(bits, row, row + far < to ? (was & ~mask) | (at(bits, row + far) & mask) : was | mask);
  }
}

function give(resource: i32, word: i32, units: i32, mask: i32): void {
  const from = at(resourceFrom, resource);
  const far = units * words;
  for (let row = at(resourceTo, resource) - words + word; row >= from; row -= words) {
    const kept = at(bits, row) & ~mask;
    put(bits, row, row - far >= from ? kept | (at(bits, row - far) & mask) : kept);
  }
}

/** Subtracts (1) or adds (−1) in the minutes of a mask, digit by digit. */
function count(resource: i32, word: i32, units: i32, mask: i32, sign: i32): void {
  const to = at(resourceTo, resource);
  let carry = 0;
  let left = units;
  for (let row = at(resourceFrom, resource) + word; row < to; row += words) {
    const was = at(bits, row);
    const digit = (left & 1) === 1 ? mask : 0;
    const kept = sign === 1 ? ~was : was;
    put(bits, row, was ^ digit ^ carry);
    carry = (kept & (digit | carry)) | (digit & carry);
    left >>= 1;
  }
  // More than there was, as its lowest digits or by digits there are none of.
  const wanting = sign === 1 ? carry | (left > 0 ? mask : 0) : 0;
  if (wanting === 0) return;
  for (let row = at(resourceFrom, resource) + word; row < to; row += words) put(bits, row, at(bits, row) & ~wanting);
}

/** Which minutes of a mask have less than each level asks for. */
function compare(resource: i32, word: i32, mask: i32): void {
  const from = at(resourceFrom, resource);
  const to = at(resourceTo, resource);
  const levels = listAt(resourceLevels, resource);
  for (let index = 0; index < sizeOf(levels); index += 2) {
    const level = nth(levels, index) + word;
    let less = 0;
    let left = nth(levels, index + 1);
    // From the lowest digit up: the highest that differs decides.
    for (let row = from + word; row < to; row += words) {
      const digit = at(bits, row);
      less = (left & 1) === 1 ? less | ~digit : less & ~digit;
      left >>= 1;
    }
    if (left > 0) less = NEVER;
    put(bits, level, (at(bits, level) & ~mask) | (less & mask));
  }
}
