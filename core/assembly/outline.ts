import { jobCount, washes, washUses } from './day';
import { book, earliestFit } from './minutes';
import { at, listAt, numberAt, nth, put, sizeOf } from './words';

/** A plan in outline: pieces and washes laid out one after another, each as soon as it fits (engine/outline.ts). */

const NEVER: i32 = -1;
const MAX_ROUNDS: i32 = 60;
/** How many words each of a list of lags has: from which step, at least, at most, and whether that is done. */
const LAG: i32 = 4;

/** What is asked of a step in one way of doing its job; times in minutes. */
@unmanaged
export class Row {
  job: i32;
  step: i32;
  isDone: i32;
  duration: i32;
  releaseMin: i32;
  /** From its start to the end of the job, at least. */
  tail: i32;
  /** Lists: levels; lags; units it comes into; pairs of a unit it leaves and whether only at its end; pairs of a job and a step that must be over before, −1 = all of it. */
  uses: usize;
  incoming: usize;
  opening: usize;
  closing: usize;
  inputs: usize;
}

export let itemCount: i32 = 0;
/** How many of the items are pieces; the others are washes. */
export let pieceCount: i32 = 0;
/** Units one step comes into at most. */
export let slots: i32 = 0;

/** All that is kept and put back at once: state, minutes, cost. How many bytes that is, how it is before anything is laid out, and where the cost is. */
export let state: usize = 0;
export let stateBytes: usize = 0;
export let rootState: usize = 0;
export let costAt: usize = 0;
/** Parts of the state. When each step begins; −1 = not yet laid out. */
export let start: usize = 0;
/** Of the first step in a unit: when that is free for it, washed; −1 = not yet asked for. */
export let free: usize = 0;
/** Of each step and each unit it comes into: when that is washed for it. */
export let washFrom: usize = 0;
export let washTo: usize = 0;
/** Of the last step in a unit: by when it must be over, because the unit is then washed for another. */
export let mustEnd: usize = 0;
/** By when each job ends at the soonest, by what is laid of it. */
export let end: usize = 0;
/** Of each unit: until when it was taken last, by which job, which step left it last, and who stands in it now. */
export let unitTo: usize = 0;
export let unitBy: usize = 0;
export let leftBy: usize = 0;
export let heldBy: usize = 0;
/** Whether each item is laid out. */
export let seen: usize = 0;

/** What stands for a wait that never ends, in lags. */
export let keeps: i32 = 0;
/** Of each step its row, in the way its job is done, and the piece it is in. */
export let rowOf: usize = 0;
export let pieceOf: usize = 0;
/** Of each job the first of its steps; behind the last, how many there are. */
export let offset: usize = 0;
/** Of each item its job, and lists: its steps, and the items before it. */
export let itemJob: usize = 0;
export let itemSteps: usize = 0;
export let itemBefore: usize = 0;
/** Of each job lists: its steps in an order that respects the lags; and of each unit it stays in the unit, the first and the last step there. */
export let stepsInOrder: usize = 0;
export let holdings: usize = 0;
/** Of each job, as numbers: when it is wanted, how much room it has before, and what a minute late and one of room missing cost. */
export let readyByMin: usize = 0;
export let bufferMin: usize = 0;
export let latePrice: usize = 0;
export let shortPrice: usize = 0;
export let washPrice: f64 = 0;
export let makespanPrice: f64 = 0;

/** Of a day told backwards (engine/mirror.ts): whether it is, from when; of each job the step it begins with, when it had better begin, and what a minute after that costs. */
export let isBackwards: i32 = 0;
export let horizonMin: i32 = 0;
export let firstStep: usize = 0;
export let standFrom: usize = 0;
export let standPrice: usize = 0;
/** Lists: those it is measured by instead; what it is made of; and pairs of one of its steps and who begins only when that is over. */
export let takers: usize = 0;
export let parts: usize = 0;
export let waiting: usize = 0;

export function rowAt(step: i32): Row {
  return changetype<Row>(<usize>at(rowOf, step));
}

/** What is late and washed for of what is laid out so far. */
export function cost(): f64 {
  return load<f64>(costAt);
}

function addCost(more: f64): void {
  store<f64>(costAt, load<f64>(costAt) + more);
}

/** Keeps how it is now. */
export function keep(kept: usize): void {
  memory.copy(kept, state, stateBytes);
}

/** As it was when it was kept; 0 = as before anything is laid out. */
export function restore(kept: usize): void {
  memory.copy(state, kept === 0 ? rootState : kept, stateBytes);
}

/** Whether it is as it was when it was kept, whatever that costs. */
export function isAs(kept: usize): bool {
  return memory.compare(state, kept, costAt - state) === 0;
}

/** What is late, short of room included. Only ever rises with the end. */
export function lateCost(job: i32, ends: f64): f64 {
  const over = ends - numberAt(readyByMin, job);
  const buffer = numberAt(bufferMin, job);
  if (over <= -buffer) return 0;
  return max<f64>(0, over) * numberAt(latePrice, job) + min<f64>(buffer, over + buffer) * numberAt(shortPrice, job);
}

/** With the whole day. */
export function total(): f64 {
  let whole = 0;
  if (isBackwards) {
    let soonest = horizonMin;
    for (let job = 0; job < jobCount; job++) soonest = min(soonest, at(start, at(firstStep, job)));
    whole = horizonMin - soonest;
  } else for (let job = 0; job < jobCount; job++) whole = max(whole, at(end, job));
  return cost() + makespanPrice * <f64>whole;
}

/** The step an item begins with, and the one it ends with. */
export function firstOf(item: i32): i32 {
  return nth(listAt(itemSteps, item), 0);
}

function lastOf(item: i32): i32 {
  const steps = listAt(itemSteps, item);
  return nth(steps, sizeOf(steps) - 1);
}

/** When an item begins and ends. */
export function fromOf(item: i32): i32 {
  const step = firstOf(item);
  return item < pieceCount ? at(start, step) : at(washFrom, step * slots);
}

export function toOf(item: i32): i32 {
  const step = lastOf(item);
  return item < pieceCount ? at(start, step) + rowAt(step).duration : at(washTo, step * slots);
}

/** Lays an item out after those that must come before it. False when this order cannot be laid out. */
export function place(item: i32): bool {
  if (at(seen, item) !== 0) return true;
  put(seen, item, 1);
  const before = listAt(itemBefore, item);
  for (let index = 0; index < sizeOf(before); index++) if (!place(nth(before, index))) return false;
  const steps = listAt(itemSteps, item);
  if (item >= pieceCount) return wash(rowAt(nth(steps, 0)));
  for (let index = 0; index < sizeOf(steps); index++) {
    const row = rowAt(nth(steps, index));
    if (!row.isDone && !placeStep(row)) return false;
  }
  return true;
}

/** Washes the units a step comes into, once whoever stands in them has left. */
function wash(row: Row): bool {
  const job = row.job;
  const step = row.step;
  let freeFrom = 0;
  for (let slot = 0; slot < sizeOf(row.opening); slot++) {
    const unit = nth(row.opening, slot);
    if (!vacate(unit)) return false;
    const since = at(unitTo, unit);
    const by = at(unitBy, unit);
    const table = listAt(washes, unit);
    const washMin = by < 0 || table === 0 ? 0 : at(table, by * jobCount + job);
    const uses = listAt(washUses, unit);
    const begins = washMin > 0 ? earliestFit(uses, since, washMin) : since;
    if (begins < 0) return false;
    if (washMin > 0) book(uses, begins, begins + washMin, 1);
    addCost(washPrice * <f64>washMin);
    put(washFrom, step * slots + slot, begins);
    put(washTo, step * slots + slot, begins + washMin);
    if (at(leftBy, unit) >= 0) put(mustEnd, at(leftBy, unit), begins);
    put(unitBy, unit, job);
    put(heldBy, unit, job);
    freeFrom = max(freeFrom, begins + washMin);
  }
  put(free, step, freeFrom);
  return true;
}

/** Lays out whatever stands in a unit to where it leaves it. False when that waits for what waits for it. */
function vacate(unit: i32): bool {
  const job = at(heldBy, unit);
  if (job < 0) return true;
  const list = listAt(holdings, job);
  for (let index = 0; index < sizeOf(list); index += 3) {
    // It may come into the same unit again later: what it stands in is what was washed for it.
    if (nth(list, index) === unit && at(free, nth(list, index + 1)) >= 0 && !place(at(pieceOf, nth(list, index + 2)))) return false;
  }
  return at(heldBy, unit) < 0;
}

/** Whether all of a job has its place: nothing is made of what waits in a circle. */
function isLaid(job: i32): bool {
  for (let step = at(offset, job); step < at(offset, job + 1); step++) if (at(start, step) < 0) return false;
  return true;
}

function placeStep(row: Row): bool {
  const job = row.job;
  const step = row.step;
  const duration = row.duration;
  let soonest = row.releaseMin;
  for (let index = 0; index < sizeOf(row.inputs); index += 2) {
    const input = nth(row.inputs, index);
    const over = nth(row.inputs, index + 1);
    if (over < 0) {
      if (!isLaid(input)) return false;
      soonest = max(soonest, at(end, input));
      continue;
    }
    if (at(start, over) < 0) return false;
    soonest = max(soonest, at(start, over) + rowAt(over).duration);
  }
  const lags = row.incoming;
  for (let lag = 0; lag < sizeOf(lags); lag += LAG) {
    const before = at(start, nth(lags, lag));
    // Two that wait for each other to leave a unit stand in a circle.
    if (before < 0) return false;
    soonest = max(soonest, before + nth(lags, lag + 1));
  }
  if (sizeOf(row.opening) > 0) {
    if (at(free, step) < 0 && !wash(row)) return false;
    soonest = max(soonest, at(free, step));
  }
  const fit = earliestFit(row.uses, soonest, duration);
  if (fit < 0) return false;
  book(row.uses, fit, fit + duration, 1);
  put(start, step, fit);
  if (isBackwards && at(firstStep, job) === step) addCost(standing(job));
  for (let lag = 0; lag < sizeOf(lags); lag += LAG) {
    if (fit <= at(start, nth(lags, lag)) + nth(lags, lag + 2) || nth(lags, lag + 3) !== 0) continue;
    if (!drawTogether(job)) return false;
    break;
  }
  for (let index = 0; index < sizeOf(row.closing); index += 2) {
    const unit = nth(row.closing, index);
    put(unitTo, unit, at(start, step) + (nth(row.closing, index + 1) !== 0 ? duration : 0));
    put(leftBy, unit, step);
    put(heldBy, unit, NEVER);
  }
  const ends = at(start, step) + row.tail;
  if (ends > at(end, job)) {
    addCost(lateCost(job, ends) - lateCost(job, at(end, job)));
    put(end, job, ends);
  }
  return true;
}

/** Whatever of a job is too long before what follows it comes later. */
function drawTogether(job: i32): bool {
  const steps = listAt(stepsInOrder, job);
  for (let round = 0; round < MAX_ROUNDS; round++) {
    let isChanged = false;
    for (let index = sizeOf(steps) - 1; index >= 0; index--) {
      const row = rowAt(nth(steps, index));
      if (at(start, row.step) < 0) continue;
      for (let lag = 0; lag < sizeOf(row.incoming); lag += LAG) {
        const before = nth(row.incoming, lag);
        const soonest = at(start, row.step) - nth(row.incoming, lag + 2);
        if (at(start, before) >= soonest || nth(row.incoming, lag + 3) !== 0) continue;
        if (!comesLater(rowAt(before), soonest)) return false;
        isChanged = true;
      }
    }
    if (!isChanged) return true;
    for (let index = 0; index < sizeOf(steps); index++) {
      const row = rowAt(nth(steps, index));
      const begins = at(start, row.step);
      if (begins < 0 || row.isDone) continue;
      let soonest = begins;
      for (let lag = 0; lag < sizeOf(row.incoming); lag += LAG) soonest = max(soonest, at(start, nth(row.incoming, lag)) + nth(row.incoming, lag + 1));
      if (soonest > begins && !comesLater(row, soonest)) return false;
    }
  }
  return false;
}

function comesLater(row: Row, from: i32): bool {
  const job = row.job;
  const step = row.step;
  const was = at(start, step);
  book(row.uses, was, was + row.duration, -1);
  const fit = earliestFit(row.uses, from, row.duration);
  if (fit < 0) return false;
  const ends = fit + row.duration;
  book(row.uses, fit, ends, 1);
  if (isBackwards && isInTheWay(job, step - at(offset, job), ends)) return false;
  const isFirst = isBackwards && at(firstStep, job) === step;
  if (isFirst) addCost(-standing(job));
  put(start, step, fit);
  if (isFirst) addCost(standing(job));
  for (let index = 0; index < sizeOf(row.closing); index += 2) {
    const unit = nth(row.closing, index);
    const leaves = nth(row.closing, index + 1) !== 0 ? ends : fit;
    // Who has asked for the unit since has been told when it is free.
    if (leaves > at(mustEnd, step)) return false;
    if (at(leftBy, unit) === step) put(unitTo, unit, leaves);
  }
  return true;
}

/** What it costs, told backwards, that a job begins then: of itself. */
export function standingAt(job: i32, begins: f64): f64 {
  const from = numberAt(standFrom, job);
  return sizeOf(listAt(takers, job)) === 0 && begins > from ? (begins - from) * numberAt(standPrice, job) : 0;
}

/** Of a job that begins when it is laid out, and of what it is made of as far as that is laid out too. */
function standing(job: i32): f64 {
  let sum = ownStanding(job);
  const made = listAt(parts, job);
  for (let index = 0; index < sizeOf(made); index++) if (at(start, at(firstStep, nth(made, index))) >= 0) sum += ownStanding(nth(made, index));
  return sum;
}

function ownStanding(job: i32): f64 {
  const begins = at(start, at(firstStep, job));
  let sum = standingAt(job, begins);
  const by = listAt(takers, job);
  for (let index = 0; index < sizeOf(by); index++)
    sum += max<f64>(0, <f64>(begins - at(start, at(firstStep, nth(by, index)))) - numberAt(standFrom, job)) * numberAt(standPrice, job);
  return sum;
}

/** Whether what waits for a step of a job has its place before then. */
function isInTheWay(job: i32, step: i32, ends: i32): bool {
  const list = listAt(waiting, job);
  for (let index = 0; index < sizeOf(list); index += 2) {
    if (nth(list, index) !== step) continue;
    const begins = at(start, at(firstStep, nth(list, index + 1)));
    if (begins >= 0 && begins < ends) return true;
  }
  return false;
}
