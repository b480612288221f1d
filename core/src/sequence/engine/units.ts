import type { Compiled } from './compile';
import type { Minutes } from './minutes';

/** A job in a unit, with the wash before it. Replaced, never changed: a saved state shares them. */
export interface Hold {
  readonly job: number;
  readonly from: number;
  readonly to: number;
  readonly washFrom: number;
  readonly washTo: number;
}

const NEVER = -1;
/** A held unit whose end nobody knows yet: the job stands in it and is still to be laid out. */
export const OPEN: number = 1 << 28;

/** Who holds which unit, and the washes between them with their hands. */
export class Units {
  readonly lists: (readonly Hold[])[];
  washTotal = 0;
  /** Whether what is washed is washed as late as it may be, not as soon: laid out from the end, hands are to stay free before. */
  washesLate = false;
  /** Of what found no place last: when it could begin instead, and by when it would have to end. */
  soonest = 0;
  latest = 0;
  private readonly compiled: Compiled;
  private readonly minutes: Minutes;

  constructor(compiled: Compiled, minutes: Minutes) {
    this.compiled = compiled;
    this.minutes = minutes;
    this.lists = Array.from({ length: compiled.unitCount }, () => []);
  }

  washMin(unit: number, before: number, after: number): number {
    const table = this.compiled.washes[unit] ?? null;
    return table === null ? 0 : table[before * this.compiled.jobs.length + after]!;
  }

  /** When a wash of so many minutes after `from` and before `to` begins, if it finds its hands: −1 or too late for `to` when it does not. */
  private washStart(unit: number, from: number, to: number, washMin: number): number {
    const washUses = this.compiled.washUses[unit]!;
    return this.washesLate ? this.minutes.latestFit(washUses, to - washMin, washMin, from) : this.minutes.earliestFit(washUses, from, washMin);
  }

  /** Puts a job into a unit and its washes around it; false, with nothing changed, when a wash finds no hands. `happened` asks nobody. */
  insert(unit: number, hold: Hold, happened = false): boolean {
    const list = this.lists[unit]!;
    let at = list.length;
    while (at > 0 && list[at - 1]!.from > hold.from) at -= 1;
    const before = list[at - 1];
    const after = list[at];
    const washUses = this.compiled.washUses[unit]!;
    if (this.compiled.washes[unit] === null) {
      this.lists[unit] = spliced(list, at, 0, hold, null);
      return true;
    }
    // Hands of what has happened were never asked for.
    if (after !== undefined && !happened) this.minutes.book(washUses, after.washFrom, after.washTo, -1);
    let washFrom = hold.from;
    let washTo = hold.from;
    if (before !== undefined) {
      const washMin = this.washMin(unit, before.job, hold.job);
      washFrom = happened ? Math.max(before.to, hold.from - washMin) : this.washStart(unit, before.to, hold.from, washMin);
      washTo = happened ? hold.from : washFrom + washMin;
      if (washFrom < 0 || washTo > hold.from) {
        if (after !== undefined) this.minutes.book(washUses, after.washFrom, after.washTo, 1);
        this.soonest = washFrom < 0 ? OPEN : washTo;
        this.latest = before.from - this.washMin(unit, hold.job, before.job);
        return false;
      }
      if (!happened) this.minutes.book(washUses, washFrom, washTo, 1);
    }
    let next = after;
    if (after !== undefined) {
      const washMin = this.washMin(unit, hold.job, after.job);
      const nextFrom = this.washStart(unit, hold.to, after.from, washMin);
      if (!happened && (nextFrom < 0 || nextFrom + washMin > after.from)) {
        this.soonest = after.to + this.washMin(unit, after.job, hold.job);
        this.latest = this.minutes.latestFit(washUses, after.from - washMin, washMin, 0);
        if (before !== undefined) this.minutes.book(washUses, washFrom, washTo, -1);
        this.minutes.book(washUses, after.washFrom, after.washTo, 1);
        return false;
      }
      next = happened ? after : { job: after.job, from: after.from, to: after.to, washFrom: nextFrom, washTo: nextFrom + washMin };
      if (!happened) this.minutes.book(washUses, nextFrom, nextFrom + washMin, 1);
    }
    const mine = { job: hold.job, from: hold.from, to: hold.to, washFrom, washTo: Math.max(washFrom, washTo) };
    this.washTotal += mine.washTo - mine.washFrom + (next === undefined ? 0 : next.washTo - next.washFrom) - (after === undefined ? 0 : after.washTo - after.washFrom);
    this.lists[unit] = next === undefined ? spliced(list, at, 0, mine, null) : spliced(list, at, 1, mine, next);
    return true;
  }

  /** Takes a job out of a unit and washes once between its neighbours. False when that one wash finds no hands: then put the saved state back. */
  remove(unit: number, job: number, from: number): boolean {
    const list = this.lists[unit]!;
    const at = list.findIndex((hold) => hold.job === job && hold.from === from);
    const hold = list[at]!;
    const before = list[at - 1];
    const after = list[at + 1];
    const washUses = this.compiled.washUses[unit]!;
    this.minutes.book(washUses, hold.washFrom, hold.washTo, -1);
    this.washTotal -= hold.washTo - hold.washFrom;
    if (after === undefined) {
      this.lists[unit] = spliced(list, at, 1, null, null);
      return true;
    }
    this.minutes.book(washUses, after.washFrom, after.washTo, -1);
    this.washTotal -= after.washTo - after.washFrom;
    let washFrom = after.from;
    let washTo = after.from;
    if (before !== undefined) {
      const washMin = this.washMin(unit, before.job, after.job);
      washFrom = this.washStart(unit, before.to, after.from, washMin);
      if (washFrom < 0 || washFrom + washMin > after.from) return false;
      washTo = washFrom + washMin;
    }
    this.minutes.book(washUses, washFrom, washTo, 1);
    this.washTotal += washTo - washFrom;
    this.lists[unit] = spliced(list, at, 2, { job: after.job, from: after.from, to: after.to, washFrom, washTo }, null);
    return true;
  }

  /** Moves every wash that is still to come to when its unit is free and hands are: what stands dirty dries on. What follows stays where it is. */
  washSoon(): void {
    this.lists.forEach((list, unit) => {
      const washUses = this.compiled.washUses[unit]!;
      this.lists[unit] = list.map((hold, at) => {
        const before = list[at - 1];
        const washMin = hold.washTo - hold.washFrom;
        if (before === undefined || washMin <= 0 || this.compiled.jobs[hold.job]!.doneStart.includes(hold.from)) return hold;
        this.minutes.book(washUses, hold.washFrom, hold.washTo, -1);
        const washFrom = this.minutes.earliestFit(washUses, before.to, washMin);
        this.minutes.book(washUses, washFrom, washFrom + washMin, 1);
        return { job: hold.job, from: hold.from, to: hold.to, washFrom, washTo: washFrom + washMin };
      });
    });
  }

  /** `from` when a job may have the unit from there to `to`; otherwise the soonest it could begin instead. */
  later(unit: number, job: number, from: number, to: number): number {
    const list = this.lists[unit]!;
    const washUses = this.compiled.washUses[unit]!;
    let before: Hold | undefined;
    let after: Hold | undefined;
    for (const hold of list) {
      if (hold.from < to && from < hold.to) return hold.to + this.washMin(unit, hold.job, job);
      if (hold.from >= to && (hold.from > from || to > from)) {
        after = hold;
        break;
      }
      before = hold;
    }
    if (before !== undefined) {
      const washMin = this.washMin(unit, before.job, job);
      const inherits = after !== undefined && after.washTo - after.washFrom >= washMin && after.washFrom < from;
      const start = inherits ? after!.washFrom : this.minutes.earliestFit(washUses, before.to, washMin);
      if (start < 0) return OPEN;
      if (start + washMin > from) return start + washMin;
    }
    if (after !== undefined) {
      const washMin = this.washMin(unit, job, after.job);
      const inherits = after.washTo - after.washFrom >= washMin && after.washFrom >= to;
      const start = inherits ? after.washFrom : this.minutes.earliestFit(washUses, to, washMin);
      if (start < 0 || start + washMin > after.from) return Math.max(from + 1, after.to + this.washMin(unit, after.job, job));
    }
    return from;
  }

  /** `to` when a job may have the unit from `from` to there; otherwise the latest it could end instead. */
  sooner(unit: number, job: number, from: number, to: number): number {
    const list = this.lists[unit]!;
    const washUses = this.compiled.washUses[unit]!;
    let before: Hold | undefined;
    let after: Hold | undefined;
    for (let at = list.length - 1; at >= 0; at -= 1) {
      const hold = list[at]!;
      if (hold.from < to && from < hold.to) return hold.from - this.washMin(unit, job, hold.job);
      if (hold.to <= from) {
        before = hold;
        break;
      }
      after = hold;
    }
    if (after !== undefined) {
      const washMin = this.washMin(unit, job, after.job);
      const inherits = after.washTo - after.washFrom >= washMin && after.washFrom >= to;
      const start = inherits ? after.washFrom : this.minutes.latestFit(washUses, after.from - washMin, washMin, 0);
      if (start < 0) return NEVER;
      if (start < to) return start;
    }
    if (before !== undefined) {
      const washMin = this.washMin(unit, before.job, job);
      const inherits = after !== undefined && after.washTo - after.washFrom >= washMin && after.washFrom + washMin <= from;
      const start = inherits ? after!.washFrom : this.minutes.earliestFit(washUses, before.to, washMin);
      if (start < 0 || start + washMin > from) return Math.min(to - 1, before.from - this.washMin(unit, job, before.job));
    }
    return to;
  }

  /** Says when a job that stands in a unit leaves it. */
  stretch(unit: number, job: number, to: number): boolean {
    const list = this.lists[unit]!;
    const at = list.findIndex((hold) => hold.job === job && (hold.to === OPEN || to === OPEN));
    const after = list[at + 1];
    if (after !== undefined && to !== OPEN && to + this.washMin(unit, job, after.job) > after.from) {
      this.soonest = NEVER;
      this.latest = after.from - this.washMin(unit, job, after.job);
      return false;
    }
    this.lists[unit] = spliced(list, at, 1, until(list[at]!, to), null);
    return true;
  }
}

/** The same, to another end. */
export function until({ job, from, washFrom, washTo }: Hold, to: number): Hold {
  return { job, from, to, washFrom, washTo };
}

/** A list with `cut` holds at `at` replaced by these. By hand: it is made for every step that is tried. */
function spliced(list: readonly Hold[], at: number, cut: number, first: Hold | null, second: Hold | null): readonly Hold[] {
  const next: Hold[] = [];
  for (let index = 0; index < at; index += 1) next.push(list[index]!);
  if (first !== null) next.push(first);
  if (second !== null) next.push(second);
  for (let index = at + cut; index < list.length; index += 1) next.push(list[index]!);
  return next;
}
