import { jobCount, washes, washUses } from './day';
import { book, earliestFit, latestFit } from './minutes';
import { at, listAt, put, sizeOf } from './words';

/** Who holds which unit, and the washes between them with their hands (engine/timetable.ts). */

const NEVER: i32 = -1;
/** A held unit whose end nobody knows yet: the job stands in it and is still to be laid out. */
export const OPEN: i32 = 1 << 28;

/** A job in a unit, with the wash before it. */
@unmanaged
export class Hold {
  job: i32;
  from: i32;
  to: i32;
  washFrom: i32;
  washTo: i32;
}

const WORDS: i32 = 5;
const BYTES: usize = 20;

/** Of each unit where its holds are: a word that says how many, and room for as many as there may be. */
export let holds: usize = 0;
/** Where the minutes of all washes are. */
export let washTotalAt: usize = 0;
/** Of what found no place last: when it could begin instead, and by when it would have to end. */
export let soonest: i32 = 0;
export let latest: i32 = 0;
/** Whether what is washed is washed as late as it may be, not as soon: laid out from the end, hands are to stay free before. */
let washesLate: bool = false;

export function setWashesLate(isLate: bool): void {
  washesLate = isLate;
}

export function holdAt(list: usize, index: i32): Hold {
  return changetype<Hold>(list + 4 + <usize>index * BYTES);
}

/** How many words the holds of a unit have. */
export function wordsOf(list: usize): i32 {
  return 1 + sizeOf(list) * WORDS;
}

/** Makes room for so many at a place of a list, or takes as many away below zero. */
function shift(list: usize, index: i32, by: i32): void {
  const count = sizeOf(list);
  const from = by < 0 ? index - by : index;
  memory.copy(list + 4 + <usize>(from + by) * BYTES, list + 4 + <usize>from * BYTES, <usize>(count - from) * BYTES);
  put(list, 0, count + by);
}

function addWashes(minutes: i32): void {
  store<i32>(washTotalAt, load<i32>(washTotalAt) + minutes);
}

export function washTotal(): i32 {
  return load<i32>(washTotalAt);
}

export function washMinOf(unit: i32, before: i32, after: i32): i32 {
  const table = listAt(washes, unit);
  return table === 0 ? 0 : at(table, before * jobCount + after);
}

/** When a wash of so many minutes after `from` and before `to` begins, if it finds its hands: −1 or too late for `to` when it does not. */
function washStart(unit: i32, from: i32, to: i32, washMin: i32): i32 {
  const uses = listAt(washUses, unit);
  return washesLate ? latestFit(uses, to - washMin, washMin, from) : earliestFit(uses, from, washMin);
}

/** Puts a job into a unit and its washes around it; false, with nothing changed, when a wash finds no hands. `happened` asks nobody. */
export function insert(unit: i32, job: i32, from: i32, to: i32, happened: bool): bool {
  const list = listAt(holds, unit);
  let index = sizeOf(list);
  while (index > 0 && holdAt(list, index - 1).from > from) index--;
  let washFrom = happened ? 0 : from;
  let washTo = washFrom;
  if (listAt(washes, unit) !== 0) {
    const hasBefore = index > 0;
    const hasAfter = index < sizeOf(list);
    const before = holdAt(list, index - 1);
    const after = holdAt(list, index);
    const uses = listAt(washUses, unit);
    washFrom = from;
    washTo = from;
    // Hands of what has happened were never asked for.
    if (hasAfter && !happened) book(uses, after.washFrom, after.washTo, -1);
    if (hasBefore) {
      const washMin = washMinOf(unit, before.job, job);
      washFrom = happened ? max(before.to, from - washMin) : washStart(unit, before.to, from, washMin);
      washTo = happened ? from : washFrom + washMin;
      if (washFrom < 0 || washTo > from) {
        if (hasAfter) book(uses, after.washFrom, after.washTo, 1);
        soonest = washFrom < 0 ? OPEN : washTo;
        latest = before.from - washMinOf(unit, job, before.job);
        return false;
      }
      if (!happened) book(uses, washFrom, washTo, 1);
    }
    if (hasAfter && !happened) {
      const washMin = washMinOf(unit, job, after.job);
      const nextFrom = washStart(unit, to, after.from, washMin);
      if (nextFrom < 0 || nextFrom + washMin > after.from) {
        soonest = after.to + washMinOf(unit, after.job, job);
        latest = latestFit(uses, after.from - washMin, washMin, 0);
        if (hasBefore) book(uses, washFrom, washTo, -1);
        book(uses, after.washFrom, after.washTo, 1);
        return false;
      }
      book(uses, nextFrom, nextFrom + washMin, 1);
      addWashes(washMin - (after.washTo - after.washFrom));
      after.washFrom = nextFrom;
      after.washTo = nextFrom + washMin;
    }
    washTo = max(washFrom, washTo);
    addWashes(washTo - washFrom);
  }
  shift(list, index, 1);
  const hold = holdAt(list, index);
  hold.job = job;
  hold.from = from;
  hold.to = to;
  hold.washFrom = washFrom;
  hold.washTo = washTo;
  return true;
}

/** Takes a job out of a unit and washes once between its neighbours. False when that one wash finds no hands: then put the saved state back. */
export function remove(unit: i32, job: i32, from: i32): bool {
  const list = listAt(holds, unit);
  let index = 0;
  while (holdAt(list, index).job !== job || holdAt(list, index).from !== from) index++;
  const hold = holdAt(list, index);
  const uses = listAt(washUses, unit);
  book(uses, hold.washFrom, hold.washTo, -1);
  addWashes(hold.washFrom - hold.washTo);
  if (index + 1 < sizeOf(list)) {
    const after = holdAt(list, index + 1);
    book(uses, after.washFrom, after.washTo, -1);
    addWashes(after.washFrom - after.washTo);
    let washFrom = after.from;
    let washTo = after.from;
    if (index > 0) {
      const before = holdAt(list, index - 1);
      const washMin = washMinOf(unit, before.job, after.job);
      washFrom = washStart(unit, before.to, after.from, washMin);
      if (washFrom < 0 || washFrom + washMin > after.from) return false;
      washTo = washFrom + washMin;
    }
    book(uses, washFrom, washTo, 1);
    addWashes(washTo - washFrom);
    after.washFrom = washFrom;
    after.washTo = washTo;
  }
  shift(list, index, -1);
  return true;
}

/** `from` when a job may have the unit from there to `to`; otherwise the soonest it could begin instead. */
export function later(unit: i32, job: i32, from: i32, to: i32): i32 {
  const list = listAt(holds, unit);
  const uses = listAt(washUses, unit);
  const count = sizeOf(list);
  let next = 0;
  let hasAfter = false;
  for (; next < count; next++) {
    const hold = holdAt(list, next);
    if (hold.from < to && from < hold.to) return hold.to + washMinOf(unit, hold.job, job);
    if (hold.from >= to && (hold.from > from || to > from)) {
      hasAfter = true;
      break;
    }
  }
  const after = holdAt(list, next);
  if (next > 0) {
    const before = holdAt(list, next - 1);
    const washMin = washMinOf(unit, before.job, job);
    const inherits = hasAfter && after.washTo - after.washFrom >= washMin && after.washFrom < from;
    const start = inherits ? after.washFrom : earliestFit(uses, before.to, washMin);
    if (start < 0) return OPEN;
    if (start + washMin > from) return start + washMin;
  }
  if (hasAfter) {
    const washMin = washMinOf(unit, job, after.job);
    const inherits = after.washTo - after.washFrom >= washMin && after.washFrom >= to;
    const start = inherits ? after.washFrom : earliestFit(uses, to, washMin);
    if (start < 0 || start + washMin > after.from) return max(from + 1, after.to + washMinOf(unit, after.job, job));
  }
  return from;
}

/** `to` when a job may have the unit from `from` to there; otherwise the latest it could end instead. */
export function sooner(unit: i32, job: i32, from: i32, to: i32): i32 {
  const list = listAt(holds, unit);
  const uses = listAt(washUses, unit);
  const count = sizeOf(list);
  let last = count - 1;
  for (; last >= 0; last--) {
    const hold = holdAt(list, last);
    if (hold.from < to && from < hold.to) return hold.from - washMinOf(unit, job, hold.job);
    if (hold.to <= from) break;
  }
  const hasAfter = last + 1 < count;
  const after = holdAt(list, last + 1);
  if (hasAfter) {
    const washMin = washMinOf(unit, job, after.job);
    const inherits = after.washTo - after.washFrom >= washMin && after.washFrom >= to;
    const start = inherits ? after.washFrom : latestFit(uses, after.from - washMin, washMin, 0);
    if (start < 0) return NEVER;
    if (start < to) return start;
  }
  if (last >= 0) {
    const before = holdAt(list, last);
    const washMin = washMinOf(unit, before.job, job);
    const inherits = hasAfter && after.washTo - after.washFrom >= washMin && after.washFrom + washMin <= from;
    const start = inherits ? after.washFrom : earliestFit(uses, before.to, washMin);
    if (start < 0 || start + washMin > from) return min(to - 1, before.from - washMinOf(unit, job, before.job));
  }
  return to;
}

/** Says when a job that stands in a unit leaves it. */
export function stretch(unit: i32, job: i32, to: i32): bool {
  const list = listAt(holds, unit);
  let index = 0;
  while (holdAt(list, index).job !== job || (holdAt(list, index).to !== OPEN && to !== OPEN)) index++;
  if (index + 1 < sizeOf(list) && to !== OPEN) {
    const after = holdAt(list, index + 1);
    const washMin = washMinOf(unit, job, after.job);
    if (to + washMin > after.from) {
      soonest = NEVER;
      latest = after.from - washMin;
      return false;
    }
  }
  holdAt(list, index).to = to;
  return true;
}

/** When a job comes into a unit that it leaves at `to`. */
export function comesIn(unit: i32, job: i32, to: i32): i32 {
  const list = listAt(holds, unit);
  let index = 0;
  while (holdAt(list, index).job !== job || holdAt(list, index).to !== to) index++;
  return holdAt(list, index).from;
}

/** Moves a wash to when its unit is free and hands are: what stands dirty dries on. */
export function washSoon(unit: i32, index: i32): void {
  const list = listAt(holds, unit);
  const hold = holdAt(list, index);
  const uses = listAt(washUses, unit);
  const washMin = hold.washTo - hold.washFrom;
  book(uses, hold.washFrom, hold.washTo, -1);
  hold.washFrom = earliestFit(uses, holdAt(list, index - 1).to, washMin);
  hold.washTo = hold.washFrom + washMin;
  book(uses, hold.washFrom, hold.washTo, 1);
}
