import { horizon } from './minutes';
import { commit, withdraw } from './booking';
import { Holding, holdingAt, includes, isDone, Job, jobAt, stayAfter, Way, wayAt, wholeOf } from './jobs';
import { backward, bound, forward, keepLower, setLower } from './placing';
import { end, forget, NEVER, start, startOf, variantOf, wantedBy } from './state';
import { placeBlock, settle } from './timetable';
import { comesIn, insert, later, remove as removeHold, setWashesLate, sooner } from './units';
import { at, nth, put, sizeOf } from './words';

/**
 * Lays jobs out piece by piece, with others in between: each as soon as it fits, from the first on, or each as late as it may be, from the last on. A unit is held
 * from the first step in it that is laid out, although nobody knows yet where the other end will be; and when a piece comes so far from what is laid of its job that
 * there would be too long a wait, that moves with it. All of it only ever moves one way, so that where a piece ends up is the soonest (latest) it can.
 */

/** A wash that finds no hands sends a piece on; not for ever. */
const MAX_ROUNDS: i32 = 60;

/** Lists of steps of one job, with room for all of them: what is laid of it; that and a piece; and when each of the former begins. */
export let laid: usize = 0;
export let both: usize = 0;
export let starts: usize = 0;

/** The step whose unit could not be held last, and when it could begin or would have to. */
let unheld: i32 = NEVER;
let instead: i32 = 0;

/** Lays a piece out, ended by `latest` if from the last on. False when it finds no place: the table is then to be put back to what it was before. */
export function weave(index: i32, way: i32, piece: usize, latest: i32, isLate: bool): bool {
  const job = jobAt(index);
  const variant = wayAt(job, way);
  setWashesLate(isLate);
  findLaid(job, piece);
  // Until or from when the unit is held is what this piece decides, when it is the last in it to be laid out.
  if (!open(job, variant, piece, true, isLate)) return false;
  const last = isLate ? min(min(latest, wantedBy(job)), horizon) : horizon;
  if (!add(job, variant, piece, last, isLate) && !addAfresh(job, variant, piece, last, isLate)) return false;
  settle(job, way);
  return true;
}

/** Takes out all that is laid of a job. False when a wash between its neighbours finds no hands: then put the saved state back. */
export function unweave(index: i32, isLate: bool): bool {
  const job = jobAt(index);
  const way = at(variantOf, index);
  if (way < 0) return true;
  findLaid(job, 0);
  setWashesLate(isLate);
  put(end, index, NEVER);
  put(variantOf, index, NEVER);
  const variant = wayAt(job, way);
  return open(job, variant, 0, false, isLate) && withdraw(job, variant, laid);
}

/** Finds the steps, but for those of a piece (0 = none), that have their place and have not happened, in an order that respects the lags. */
function findLaid(job: Job, piece: usize): void {
  const whole = wholeOf(job);
  let count = 0;
  for (let index = 0; index < sizeOf(whole); index++) {
    const step = nth(whole, index);
    if (startOf(job, step) >= 0 && !isDone(job, step) && (piece === 0 || !includes(piece, step))) put(laid, ++count, step);
  }
  put(laid, 0, count);
}

function setBounds(job: Job, way: Way, last: i32, isLate: bool): void {
  setLower(job);
  if (!isLate) return;
  keepLower(job);
  for (let step = 0; step < job.size; step++) put(bound, job.offset + step, last - at(way.durations, step));
}

/** Lays a piece beside what is laid of its job, which stays where it is; false, with nothing booked, when it cannot. */
function add(job: Job, way: Way, piece: usize, last: i32, isLate: bool): bool {
  if (sizeOf(laid) === 0) return false;
  setBounds(job, way, last, isLate);
  const fits = isLate ? backward(job, way, piece) : forward(job, way, piece);
  if (fits && isWithinReach(job, way, isLate ? piece : laid, isLate ? laid : piece) && commit(job, way, piece, isLate, way.isChain !== 0) < 0) {
    if (hold(job, way, piece, isLate)) return true;
    withdraw(job, way, piece);
  }
  forget(job, piece);
  return false;
}

/** Whether there is no longer a wait between a piece and what is laid of its job than there may be. */
function isWithinReach(job: Job, way: Way, before: usize, after: usize): bool {
  for (let index = 0; index < sizeOf(before); index++) {
    const first = nth(before, index);
    if (isDone(job, first)) continue;
    for (let place = 0; place < sizeOf(after); place++) {
      const next = nth(after, place);
      if (startOf(job, next) > startOf(job, first) + at(way.apart, first * job.size + next)) return false;
    }
  }
  return true;
}

/** Lays a piece and what is laid of its job out together, none of that sooner (later) than it is. */
function addAfresh(job: Job, way: Way, piece: usize, last: i32, isLate: bool): bool {
  if (!open(job, way, piece, false, isLate)) return false;
  for (let index = 0; index < sizeOf(laid); index++) put(starts, index, startOf(job, nth(laid, index)));
  if (!withdraw(job, way, laid)) return false;
  setBounds(job, way, last, isLate);
  for (let index = 0; index < sizeOf(laid); index++) {
    const step = job.offset + nth(laid, index);
    const was = at(bound, step);
    put(bound, step, isLate ? min(was, at(starts, index)) : max(was, at(starts, index)));
  }
  const whole = wholeOf(job);
  let count = 0;
  for (let index = 0; index < sizeOf(whole); index++) {
    const step = nth(whole, index);
    if (includes(piece, step) || includes(laid, step)) put(both, ++count, step);
  }
  put(both, 0, count);
  for (let round = 0; round < MAX_ROUNDS; round++) {
    if (!placeBlock(job, way, both, isLate, false)) return false;
    if (hold(job, way, both, isLate)) return true;
    const step = job.offset + unheld;
    const from = at(start, step);
    if (!withdraw(job, way, both)) return false;
    put(bound, step, isLate ? min(from - 1, instead) : max(from + 1, instead));
  }
  return false;
}

/** From when a unit is held that is left with the last of its steps: as near as the steps there are allow. */
function comesInBy(job: Job, way: Way, holding: Holding, steps: usize, to: i32): i32 {
  let from = to;
  for (let index = 0; index < sizeOf(steps); index++) {
    const apart = at(way.apart, nth(steps, index) * job.size + holding.from);
    if (apart <= 0) from = min(from, startOf(job, nth(steps, index)) + apart);
  }
  return from;
}

/** Until when one is held that is come into with the first: at least. */
function leavesAfter(job: Job, way: Way, holding: Holding, steps: usize, from: i32): i32 {
  let to = from - at(way.apart, holding.to * job.size + holding.from) + stayAfter(way, holding);
  for (let index = 0; index < sizeOf(steps); index++) to = max(to, startOf(job, nth(steps, index)) + at(way.durations, nth(steps, index)));
  return to;
}

/** Whether a unit is held from these steps on (to them, from the last on) to one that is not among them. */
function isLeftOpen(job: Job, holding: Holding, steps: usize, isLate: bool): bool {
  if (isDone(job, holding.from)) return false;
  return includes(steps, isLate ? holding.to : holding.from) && !includes(steps, isLate ? holding.from : holding.to);
}

/** Holds the units that steps are in and leave open, for as long as is known. False, with nothing changed, when one cannot be. */
function hold(job: Job, way: Way, steps: usize, isLate: bool): bool {
  for (let index = 0; index < way.holdingCount; index++) {
    const holding = holdingAt(way, index);
    if (!isLeftOpen(job, holding, steps, isLate)) continue;
    const known = isLate ? holding.to : holding.from;
    let from = startOf(job, known);
    let to = from + stayAfter(way, holding);
    if (isLate) from = comesInBy(job, way, holding, steps, to);
    else to = leavesAfter(job, way, holding, steps, from);
    const there = from < 0 ? NEVER : isLate ? sooner(holding.unit, job.index, from, to) : later(holding.unit, job.index, from, to);
    if (there === (isLate ? to : from) && insert(holding.unit, job.index, from, to, false)) continue;
    instead = isLate ? there - stayAfter(way, holding) : there;
    unheld = known;
    for (let held = index - 1; held >= 0; held--) if (isLeftOpen(job, holdingAt(way, held), steps, isLate)) letGo(job, way, holdingAt(way, held), isLate);
    return false;
  }
  return true;
}

function letGo(job: Job, way: Way, holding: Holding, isLate: bool): bool {
  const from = isLate ? comesIn(holding.unit, job.index, startOf(job, holding.to) + stayAfter(way, holding)) : startOf(job, holding.from);
  return removeHold(holding.unit, job.index, from);
}

/** Lets go of the units that what is laid holds with the other end open: those a piece (0 = none) decides about, or the others. False when a wash finds no hands then. */
function open(job: Job, way: Way, piece: usize, isDecided: bool, isLate: bool): bool {
  for (let index = 0; index < way.holdingCount; index++) {
    const holding = holdingAt(way, index);
    if (!isLeftOpen(job, holding, laid, isLate)) continue;
    if ((piece !== 0 && includes(piece, isLate ? holding.from : holding.to)) !== isDecided) continue;
    if (!letGo(job, way, holding, isLate)) return false;
  }
  return true;
}
