import { jobCount } from './day';
import { jobAt, LINK } from './jobs';
import { end, isPlaced, variantOf } from './state';
import { washTotal } from './units';
import { at, listAt, nth, numberAt, sizeOf } from './words';

/** What the plan on the table costs (engine/timetable.ts). */

/** Numbers of each job: when it is wanted (NaN = by no time), the room before, how long it likes to stand, and what late and early count. */
export let wantedAt: usize = 0;
export let roomMin: usize = 0;
export let likesEarlyMin: usize = 0;
export let lateWeight: usize = 0;
export let earlyWeight: usize = 0;
/** And what it costs that it is not placed. */
export let missingCost: usize = 0;
/** By when each job ended in the plan agreed, −1 = it was not in it; and rows of numbers of its ways: what it costs that they are in another unit. 0 = no plan is agreed. */
export let agreedEnd: usize = 0;
export let agreedCosts: usize = 0;
export let lateWeighs: f64 = 0;
export let shortWeighs: f64 = 0;
export let earlyWeighs: f64 = 0;
export let washWeighs: f64 = 0;
export let movedWeighs: f64 = 0;
export let makespanWeighs: f64 = 0;

/** What a job costs by its end alone. */
export function jobCost(index: i32, ends: i32): f64 {
  let cost: f64 = 0;
  const wanted = numberAt(wantedAt, index);
  if (!isNaN(wanted)) {
    const late = <f64>ends - wanted;
    const room = numberAt(roomMin, index);
    const past = late + room;
    if (late > 0) cost += late * numberAt(lateWeight, index) * lateWeighs;
    if (past > 0) cost += min<f64>(room, past) * numberAt(lateWeight, index) * shortWeighs;
    else cost += max<f64>(0, -past - numberAt(likesEarlyMin, index)) * numberAt(earlyWeight, index) * earlyWeighs;
  }
  if (agreedEnd !== 0 && at(agreedEnd, index) >= 0) cost += movedWeighs * <f64>abs(ends - at(agreedEnd, index));
  return cost;
}

/** What it costs that a job is ready before those that take it, and are placed, are. */
export function standsCost(index: i32): f64 {
  const consumers = jobAt(index).consumers;
  if (!isNaN(numberAt(wantedAt, index)) || sizeOf(consumers) === 0) return 0;
  const aim = <f64>at(end, index) + numberAt(likesEarlyMin, index);
  let stands: f64 = 0;
  for (let one = 0; one < sizeOf(consumers); one += LINK) stands += max<f64>(0, <f64>at(end, nth(consumers, one + 1)) - aim);
  return stands * numberAt(earlyWeight, index) * earlyWeighs;
}

export function tableCost(): f64 {
  let cost = washWeighs * <f64>washTotal();
  let makespan = 0;
  for (let job = 0; job < jobCount; job++) {
    if (!isPlaced(job)) {
      cost += numberAt(missingCost, job);
      continue;
    }
    cost += jobCost(job, at(end, job)) + standsCost(job);
    if (agreedCosts !== 0) cost += numberAt(listAt(agreedCosts, job), at(variantOf, job));
    makespan = max(makespan, at(end, job));
  }
  return cost + makespanWeighs * <f64>makespan;
}

/** What is late for certain of what is laid out so far, and what found no place is not counted. */
export function certainCost(): f64 {
  let cost: f64 = 0;
  let makespan = 0;
  for (let job = 0; job < jobCount; job++) {
    const ends = at(end, job);
    const late = <f64>ends - numberAt(wantedAt, job);
    if (late > 0) cost += late * numberAt(lateWeight, job) * lateWeighs;
    makespan = max(makespan, ends);
  }
  return cost + makespanWeighs * <f64>makespan;
}

/** Whether anything is ready later than wanted, or found no place. */
export function isLate(): bool {
  for (let job = 0; job < jobCount; job++) if (!isPlaced(job) || <f64>at(end, job) > numberAt(wantedAt, job)) return true;
  return false;
}
