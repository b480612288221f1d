import { MOVED_UNIT_MIN } from '../problem';
import type { Compiled, CompiledJob, Uses, Variant } from './compile';

/** A job in a unit, with the wash before it. Replaced, never changed: a saved state shares them. */
export interface Hold {
  readonly job: number;
  readonly from: number;
  readonly to: number;
  readonly washFrom: number;
  readonly washTo: number;
}

export interface Saved {
  readonly free: Int16Array;
  readonly start: Int32Array;
  readonly end: Int32Array;
  readonly variantOf: Int32Array;
  readonly holds: (readonly Hold[])[];
  washTotal: number;
}

/** What the plan before said of each job: −1 = nothing. */
export interface Moved {
  readonly end: Int32Array;
  readonly units: readonly (string | null)[];
}

const NEVER = -1;
/** A held unit whose end nobody knows yet: the job stands in it and is still to be laid out. */
const OPEN = 1 << 28;
const MAX_ROUNDS = 400;

/**
 * Who has what, minute by minute, while a plan is being laid. Placing one block of steps is exact: `forward` gives the soonest and
 * `backward` the latest start of every step at once, because every rule that pushes a step only ever pushes it one way.
 */
export class Timetable {
  readonly compiled: Compiled;
  readonly free: Int16Array;
  /** Start of every step, −1 = not placed. */
  readonly start: Int32Array;
  /** End of every job, −1 = not placed. */
  readonly end: Int32Array;
  readonly variantOf: Int32Array;
  readonly holds: (readonly Hold[])[];
  washTotal = 0;
  moved: Moved | null = null;
  /** Longer waits than a job needs, for the next time it is laid out: room in between may be worth more than being quick. */
  stretched: { readonly job: number; readonly index: number; readonly variant: Variant } | null = null;
  private readonly bound: Int32Array;
  private readonly lower: Int32Array;
  private readonly justifySpare: Saved;
  private readonly hasWashes: boolean;
  /** Looking for ends up to here only. */
  private cut = Number.POSITIVE_INFINITY;
  /** Of what could not be booked last: when it could begin instead, or by when it would have to end. */
  private soonest = 0;
  private latest = 0;
  /** The holding it was, −1 = the step itself. */
  private unheld = NEVER;

  constructor(compiled: Compiled) {
    this.compiled = compiled;
    this.hasWashes = compiled.washes.some((table) => table !== null);
    this.free = compiled.capacity.slice();
    this.start = new Int32Array(compiled.stepCount).fill(NEVER);
    this.end = new Int32Array(compiled.jobs.length).fill(NEVER);
    this.variantOf = new Int32Array(compiled.jobs.length).fill(NEVER);
    this.holds = Array.from({ length: compiled.unitCount }, () => []);
    this.bound = new Int32Array(compiled.stepCount);
    this.lower = new Int32Array(Math.max(0, ...compiled.jobs.map((job) => job.size)));
    for (const job of compiled.jobs) this.bookDone(job);
    this.justifySpare = this.save();
  }

  save(into?: Saved): Saved {
    if (into === undefined)
      return { free: this.free.slice(), start: this.start.slice(), end: this.end.slice(), variantOf: this.variantOf.slice(), holds: this.holds.slice(), washTotal: this.washTotal };
    into.free.set(this.free);
    into.start.set(this.start);
    into.end.set(this.end);
    into.variantOf.set(this.variantOf);
    for (let unit = 0; unit < this.holds.length; unit += 1) into.holds[unit] = this.holds[unit]!;
    into.washTotal = this.washTotal;
    return into;
  }

  restore(saved: Saved): void {
    this.free.set(saved.free);
    this.start.set(saved.start);
    this.end.set(saved.end);
    this.variantOf.set(saved.variantOf);
    for (let unit = 0; unit < this.holds.length; unit += 1) this.holds[unit] = saved.holds[unit]!;
    this.washTotal = saved.washTotal;
  }

  /**
   * Takes a whole plan over as it stands. Only for one that is known to be feasible: nothing is asked. `washes` says when each job's unit was washed for it.
   */
  adopt(
    plan: readonly { readonly job: number; readonly variant: number; readonly starts: readonly number[] }[],
    washOf: (unit: number, before: number, after: number) => readonly [number, number] | null,
  ): void {
    for (const { job: index, variant: variantIndex, starts } of plan) {
      const job = this.compiled.jobs[index]!;
      if (job.allDone) continue;
      const variant = job.variants[variantIndex]!;
      for (let step = 0; step < job.size; step += 1) {
        if (job.doneStart[step]! >= 0) continue;
        this.start[job.offset + step] = starts[step]!;
        this.book(variant.uses[step]!, starts[step]!, starts[step]! + variant.durations[step]!, 1);
      }
      for (const holding of variant.holdings) {
        const to = this.start[job.offset + holding.to]! + (holding.untilEnd ? variant.durations[holding.to]! : 0);
        const list = this.holds[holding.unit]!;
        if (job.doneStart[holding.to]! >= 0) continue;
        if (job.doneStart[holding.from]! >= 0) this.holds[holding.unit] = list.map((hold) => (hold.job === index && hold.to === OPEN ? { ...hold, to } : hold));
        else this.holds[holding.unit] = [...list, { job: index, from: this.start[job.offset + holding.from]!, to, washFrom: 0, washTo: 0 }];
      }
      this.finish(job, variant, variantIndex);
    }
    this.washTotal = 0;
    this.holds.forEach((list, unit) => {
      const inOrder = [...list].sort((left, right) => left.from - right.from);
      this.holds[unit] = inOrder.map((hold, at) => {
        const before = inOrder[at - 1];
        const wash = before === undefined ? null : washOf(unit, before.job, hold.job);
        const begun = this.compiled.jobs[hold.job]!.doneStart.some((start) => start === hold.from);
        const [washFrom, washTo] = begun ? [hold.washFrom, hold.washTo] : (wash ?? [hold.from, hold.from]);
        if (!begun) this.book(this.compiled.washUses[unit]!, washFrom, washTo, 1);
        this.washTotal += washTo - washFrom;
        return { ...hold, washFrom, washTo };
      });
    });
  }

  isPlaced(job: number): boolean {
    return this.end[job]! >= 0;
  }

  /** What a job costs by its end alone. */
  jobCost(index: number, end: number): number {
    const { job } = this.compiled.jobs[index]!;
    const { weights } = this.compiled.problem;
    let cost = 0;
    if (job.readyByMin !== null) {
      const late = end - job.readyByMin;
      const past = late + job.bufferMin;
      if (late > 0) cost += late * job.lateWeight * weights.late;
      if (past > 0) cost += Math.min(job.bufferMin, past) * job.lateWeight * weights.short;
      else cost += Math.max(0, -past - job.likesEarlyMin) * job.earlyWeight * weights.early;
    }
    const before = this.moved?.end[index] ?? NEVER;
    if (before >= 0) cost += weights.moved * Math.abs(end - before);
    return cost;
  }

  /** Moved to another unit than the one agreed. */
  unitCost(index: number, variant: Variant): number {
    const agreed = this.moved?.units[index] ?? null;
    if (agreed === null) return 0;
    const { units } = this.compiled.problem;
    return variant.spanUnit.map((unit) => units[unit]?.id ?? '').join() === agreed ? 0 : this.compiled.problem.weights.moved * MOVED_UNIT_MIN;
  }

  cost(): number {
    const { weights } = this.compiled.problem;
    let cost = weights.changeover * this.washTotal;
    let makespan = 0;
    for (let job = 0; job < this.end.length; job += 1) {
      const end = this.end[job]!;
      if (end < 0) cost += UNPLACED_COST;
      else {
        cost += this.jobCost(job, end);
        if (this.moved !== null) cost += this.unitCost(job, this.variant(job));
        if (end > makespan) makespan = end;
      }
    }
    return cost + weights.makespan * makespan;
  }

  /** What is late for certain of what is laid out so far, and what found no place is not counted. */
  lateCost(): number {
    const { jobs, problem } = this.compiled;
    const { weights } = problem;
    let cost = 0;
    let makespan = 0;
    for (let index = 0; index < jobs.length; index += 1) {
      const end = this.end[index]!;
      const { readyByMin, lateWeight } = jobs[index]!.job;
      if (readyByMin !== null && end > readyByMin) cost += (end - readyByMin) * lateWeight * weights.late;
      if (end > makespan) makespan = end;
    }
    return cost + weights.makespan * makespan;
  }

  variant(job: number): Variant {
    return this.compiled.jobs[job]!.variants[this.variantOf[job]!]!;
  }

  /** Soonest start at or after `from` at which all uses fit; −1 past the horizon. */
  earliestFit(uses: Uses, from: number, duration: number): number {
    const { horizon } = this.compiled;
    const { free } = this;
    let start = from;
    search: while (start + duration <= horizon) {
      for (let at = 0; at < uses.length; at += 2) {
        const units = uses[at + 1]!;
        const base = uses[at]! * horizon;
        for (let minute = base + start + duration - 1; minute >= base + start; minute -= 1) {
          if (free[minute]! < units) {
            start = minute - base + 1;
            continue search;
          }
        }
      }
      return start;
    }
    return NEVER;
  }

  /** Latest start at or before `from` and not before `notBefore`; −1 when there is none. */
  latestFit(uses: Uses, from: number, duration: number, notBefore: number): number {
    const { horizon } = this.compiled;
    const { free } = this;
    let start = Math.min(from, horizon - duration);
    search: while (start >= notBefore) {
      for (let at = 0; at < uses.length; at += 2) {
        const units = uses[at + 1]!;
        const base = uses[at]! * horizon;
        const last = base + start + duration;
        for (let minute = base + start; minute < last; minute += 1) {
          if (free[minute]! < units) {
            start = minute - base - duration;
            continue search;
          }
        }
      }
      return start;
    }
    return NEVER;
  }

  private book(uses: Uses, start: number, end: number, sign: 1 | -1): void {
    const { horizon } = this.compiled;
    const { free } = this;
    for (let at = 0; at < uses.length; at += 2) {
      const units = uses[at + 1]! * sign;
      const base = uses[at]! * horizon;
      const last = base + Math.min(end, horizon);
      for (let minute = base + Math.max(0, start); minute < last; minute += 1) free[minute]! -= units;
    }
  }

  private fits(uses: Uses, start: number, end: number): boolean {
    return this.earliestFit(uses, start, end - start) === start;
  }

  /** Work that has happened takes what it took, whoever is laid out next. */
  private bookDone(job: CompiledJob): void {
    const variant = job.variants[0];
    if (variant === undefined || !job.begun) return;
    for (let step = 0; step < job.size; step += 1) {
      if (job.doneStart[step]! < 0) continue;
      this.start[job.offset + step] = job.doneStart[step]!;
      this.book(variant.uses[step]!, job.doneStart[step]!, job.doneEnd[step]!, 1);
    }
    for (const holding of variant.holdings) {
      if (job.doneStart[holding.from]! < 0) continue;
      const last = holding.untilEnd ? job.doneEnd[holding.to]! : job.doneStart[holding.to]!;
      const from = job.doneStart[holding.from]!;
      this.insertHold(holding.unit, { job: job.index, from, to: job.doneStart[holding.to]! < 0 ? OPEN : last, washFrom: 0, washTo: 0 }, true);
    }
    if (job.allDone) {
      this.variantOf[job.index] = 0;
      this.end[job.index] = Math.max(...job.doneEnd);
    }
  }

  private washMin(unit: number, before: number, after: number): number {
    const table = this.compiled.washes[unit] ?? null;
    return table === null ? 0 : table[before * this.compiled.jobs.length + after]!;
  }

  /** Puts a job into a unit and its washes around it; false, with nothing changed, when a wash finds no hands. `happened` asks nobody. */
  private insertHold(unit: number, hold: Hold, happened = false): boolean {
    const list = this.holds[unit]!;
    let at = list.length;
    while (at > 0 && list[at - 1]!.from > hold.from) at -= 1;
    const before = list[at - 1];
    const after = list[at];
    const washUses = this.compiled.washUses[unit]!;
    if (this.compiled.washes[unit] === null) {
      this.holds[unit] = spliced(list, at, 0, hold, null);
      return true;
    }
    // Hands of what has happened were never asked for.
    if (after !== undefined && !happened) this.book(washUses, after.washFrom, after.washTo, -1);
    let washFrom = hold.from;
    let washTo = hold.from;
    if (before !== undefined) {
      const washMin = this.washMin(unit, before.job, hold.job);
      washFrom = happened ? Math.max(before.to, hold.from - washMin) : this.earliestFit(washUses, before.to, washMin);
      washTo = happened ? hold.from : washFrom + washMin;
      if (washFrom < 0 || washTo > hold.from) {
        if (after !== undefined) this.book(washUses, after.washFrom, after.washTo, 1);
        this.soonest = washFrom < 0 ? OPEN : washTo;
        this.latest = before.from - this.washMin(unit, hold.job, before.job);
        return false;
      }
      if (!happened) this.book(washUses, washFrom, washTo, 1);
    }
    let next = after;
    if (after !== undefined) {
      const washMin = this.washMin(unit, hold.job, after.job);
      const nextFrom = this.earliestFit(washUses, hold.to, washMin);
      if (!happened && (nextFrom < 0 || nextFrom + washMin > after.from)) {
        this.soonest = after.to + this.washMin(unit, after.job, hold.job);
        this.latest = this.latestFit(washUses, after.from - washMin, washMin, 0);
        if (before !== undefined) this.book(washUses, washFrom, washTo, -1);
        this.book(washUses, after.washFrom, after.washTo, 1);
        return false;
      }
      next = happened ? after : { job: after.job, from: after.from, to: after.to, washFrom: nextFrom, washTo: nextFrom + washMin };
      if (!happened) this.book(washUses, nextFrom, nextFrom + washMin, 1);
    }
    const mine = { job: hold.job, from: hold.from, to: hold.to, washFrom, washTo: Math.max(washFrom, washTo) };
    this.washTotal += mine.washTo - mine.washFrom + (next === undefined ? 0 : next.washTo - next.washFrom) - (after === undefined ? 0 : after.washTo - after.washFrom);
    this.holds[unit] = next === undefined ? spliced(list, at, 0, mine, null) : spliced(list, at, 1, mine, next);
    return true;
  }

  /** Takes a job out of a unit and washes once between its neighbours. False when that one wash finds no hands: then put the saved state back. */
  private removeHold(unit: number, job: number, from: number): boolean {
    const list = this.holds[unit]!;
    const at = list.findIndex((hold) => hold.job === job && hold.from === from);
    const hold = list[at]!;
    const before = list[at - 1];
    const after = list[at + 1];
    const washUses = this.compiled.washUses[unit]!;
    this.book(washUses, hold.washFrom, hold.washTo, -1);
    this.washTotal -= hold.washTo - hold.washFrom;
    if (after === undefined) {
      this.holds[unit] = spliced(list, at, 1, null, null);
      return true;
    }
    this.book(washUses, after.washFrom, after.washTo, -1);
    this.washTotal -= after.washTo - after.washFrom;
    let washFrom = after.from;
    let washTo = after.from;
    if (before !== undefined) {
      const washMin = this.washMin(unit, before.job, after.job);
      washFrom = this.earliestFit(washUses, before.to, washMin);
      if (washFrom < 0 || washFrom + washMin > after.from) return false;
      washTo = washFrom + washMin;
    }
    this.book(washUses, washFrom, washTo, 1);
    this.washTotal += washTo - washFrom;
    this.holds[unit] = spliced(list, at, 2, { job: after.job, from: after.from, to: after.to, washFrom, washTo }, null);
    return true;
  }

  /** `from` when a job may have the unit from there to `to`; otherwise the soonest it could begin instead. */
  private later(unit: number, job: number, from: number, to: number): number {
    const list = this.holds[unit]!;
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
      const start = inherits ? after!.washFrom : this.earliestFit(washUses, before.to, washMin);
      if (start < 0) return OPEN;
      if (start + washMin > from) return start + washMin;
    }
    if (after !== undefined) {
      const washMin = this.washMin(unit, job, after.job);
      const inherits = after.washTo - after.washFrom >= washMin && after.washFrom >= to;
      const start = inherits ? after.washFrom : this.earliestFit(washUses, to, washMin);
      if (start < 0 || start + washMin > after.from) return Math.max(from + 1, after.to + this.washMin(unit, after.job, job));
    }
    return from;
  }

  /** `to` when a job may have the unit from `from` to there; otherwise the latest it could end instead. */
  private sooner(unit: number, job: number, from: number, to: number): number {
    const list = this.holds[unit]!;
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
      const start = inherits ? after.washFrom : this.latestFit(washUses, after.from - washMin, washMin, 0);
      if (start < 0) return NEVER;
      if (start < to) return start;
    }
    if (before !== undefined) {
      const washMin = this.washMin(unit, before.job, job);
      const inherits = after !== undefined && after.washTo - after.washFrom >= washMin && after.washFrom + washMin <= from;
      const start = inherits ? after!.washFrom : this.earliestFit(washUses, before.to, washMin);
      if (start < 0 || start + washMin > from) return Math.min(to - 1, before.from - this.washMin(unit, job, before.job));
    }
    return to;
  }

  /** Lower bounds of a job's steps from its release and what it waits for. */
  private setLower(job: CompiledJob): void {
    for (let step = 0; step < job.size; step += 1) this.bound[job.offset + step] = job.job.releaseMin;
    for (const input of job.inputs) {
      const end = this.end[input.job]!;
      const at = job.offset + input.step;
      this.bound[at] = Math.max(this.bound[at]!, end >= 0 ? end : this.compiled.jobs[input.job]!.soonestEnd);
    }
  }

  /** What a pushed first step of a line must clear: the job that would be overtaken, as the soonest start in the line's first unit. */
  private overtakes(job: CompiledJob, variant: Variant, holdingIndex: number, from: number): { readonly step: number; readonly start: number } | null {
    const holding = variant.holdings[holdingIndex]!;
    const line = this.compiled.lineOf[holding.unit]!;
    if (line < 0) return null;
    const first = variant.holdings.find((other) => this.compiled.lineOf[other.unit] === line)!;
    if (first === holding) return null;
    const mine = this.start[job.offset + first.from]!;
    const firstHolds = this.holds[first.unit]!;
    for (const other of this.holds[holding.unit]!) {
      const there = firstHolds.find((hold) => hold.job === other.job);
      if (there === undefined) continue;
      if (there.from < mine && other.from >= from) return { step: holding.from, start: other.to + this.washMin(holding.unit, other.job, job.index) };
      if (there.from > mine && other.from < from) return { step: first.from, start: there.to + this.washMin(first.unit, other.job, job.index) };
    }
    return null;
  }

  /** Soonest starts of a block's steps, not before `bound`; false when there are none. */
  private forward(job: CompiledJob, variant: Variant, block: readonly number[]): boolean {
    const { start, bound } = this;
    const { offset } = job;
    for (const step of block) if (job.doneStart[step]! < 0) start[offset + step] = NEVER;
    let at = 0;
    let rounds = 0;
    placing: while (at < block.length) {
      if ((rounds += 1) > MAX_ROUNDS) return false;
      const step = block[at]!;
      const duration = variant.durations[step]!;
      if (job.doneStart[step]! < 0) {
        let from = bound[offset + step]!;
        for (const lag of variant.incoming[step]!) {
          const before = start[offset + lag.from]!;
          if (before >= 0 && before + lag.min > from) from = before + lag.min;
        }
        const pinned = job.pinned[step]!;
        if (pinned >= 0 && from <= pinned) from = pinned;
        from = this.earliestFit(variant.uses[step]!, from, duration);
        if (from < 0 || (pinned >= 0 && from !== pinned)) return false;
        start[offset + step] = from;
        if (from + variant.tail[step]! > this.cut) return false;
        // Whatever of the block would wait too long begins later, all at once. A wait that has already happened cannot be planned away.
        let first = at;
        for (let place = at - 1; place >= 0; place -= 1) {
          const before = block[place]!;
          const soonest = from - variant.apart[before * job.size + step]!;
          if (start[offset + before]! >= soonest || job.doneStart[before]! >= 0) continue;
          bound[offset + before] = soonest;
          first = place;
        }
        if (first < at) {
          at = first;
          continue;
        }
        for (const lag of variant.incoming[step]!) {
          const before = start[offset + lag.from]!;
          if (before >= 0 && from > before + lag.max && job.doneStart[lag.from]! < 0 && !block.includes(lag.from)) return false;
        }
        // A unit that is taken is not waited for with everything laid out up to it.
        for (const index of variant.opening[step]!) {
          const { unit, to, untilEnd } = variant.holdings[index]!;
          if (job.begun) continue;
          const push = this.later(unit, job.index, from, from - variant.apart[to * job.size + step]! + (untilEnd ? variant.durations[to]! : 0));
          if (push === from) continue;
          if (push >= this.compiled.horizon) return false;
          bound[offset + step] = push;
          continue placing;
        }
      }
      for (const index of variant.closing[step]!) {
        const holding = variant.holdings[index]!;
        if (job.doneStart[holding.from]! >= 0) continue;
        const from = start[offset + holding.from]!;
        const to = start[offset + step]! + (holding.untilEnd ? duration : 0);
        let push = this.later(holding.unit, job.index, from, to);
        let pushed = holding.from;
        if (push === from) {
          const ahead = this.overtakes(job, variant, index, from);
          if (ahead === null) continue;
          push = ahead.start;
          pushed = ahead.step;
        }
        if (push >= this.compiled.horizon) return false;
        bound[offset + pushed] = Math.max(push, bound[offset + pushed]!);
        at = block.indexOf(pushed);
        if (at < 0) return false;
        continue placing;
      }
      at += 1;
    }
    return this.respectsOthers(job, variant, block);
  }

  /** Latest starts of a block's steps, not after `bound`; false when there are none. `lower` holds what they may not begin before. */
  private backward(job: CompiledJob, variant: Variant, block: readonly number[], lower: Int32Array): boolean {
    const { start, bound } = this;
    const { offset } = job;
    for (const step of block) if (job.doneStart[step]! < 0) start[offset + step] = NEVER;
    let at = block.length - 1;
    let rounds = 0;
    placing: while (at >= 0) {
      if ((rounds += 1) > MAX_ROUNDS) return false;
      const step = block[at]!;
      const duration = variant.durations[step]!;
      if (job.doneStart[step]! >= 0) {
        at -= 1;
        continue;
      }
      let from = bound[offset + step]!;
      for (const lag of variant.outgoing[step]!) {
        const after = start[offset + lag.to]!;
        if (after >= 0 && after - lag.min < from) from = after - lag.min;
      }
      const pinned = job.pinned[step]!;
      if (pinned >= 0 && from >= pinned) from = pinned;
      from = this.latestFit(variant.uses[step]!, from, duration, lower[step]!);
      if (from < 0 || (pinned >= 0 && from !== pinned)) return false;
      start[offset + step] = from;
      let last = at;
      for (let place = at + 1; place < block.length; place += 1) {
        const after = block[place]!;
        const latest = from + variant.apart[step * job.size + after]!;
        if (start[offset + after]! <= latest || job.doneStart[after]! >= 0) continue;
        bound[offset + after] = latest;
        last = place;
      }
      if (last > at) {
        at = last;
        continue;
      }
      for (const lag of variant.outgoing[step]!) {
        const after = start[offset + lag.to]!;
        if (after >= 0 && after > from + lag.max && !block.includes(lag.to)) return false;
      }
      for (const index of variant.closing[step]!) {
        const holding = variant.holdings[index]!;
        if (job.begun) continue;
        const stay = holding.untilEnd ? duration : 0;
        const push = this.sooner(holding.unit, job.index, from + variant.apart[step * job.size + holding.from]!, from + stay);
        if (push === from + stay) continue;
        if (push < stay) return false;
        bound[offset + step] = push - stay;
        continue placing;
      }
      for (const index of variant.opening[step]!) {
        const holding = variant.holdings[index]!;
        const stay = holding.untilEnd ? variant.durations[holding.to]! : 0;
        const to = start[offset + holding.to]! + stay;
        const push = this.sooner(holding.unit, job.index, from, to);
        if (push === to) continue;
        if (push < stay) return false;
        bound[offset + holding.to] = push - stay;
        at = block.indexOf(holding.to);
        if (at < 0) return false;
        continue placing;
      }
      at -= 1;
    }
    for (let index = 0; index < variant.holdings.length; index += 1) {
      const holding = variant.holdings[index]!;
      if (block.includes(holding.to) && this.overtakes(job, variant, index, start[offset + holding.from]!) !== null) return false;
    }
    return this.respectsOthers(job, variant, block);
  }

  /** Lags between this block and what is placed of the job outside it. */
  private respectsOthers(job: CompiledJob, variant: Variant, block: readonly number[]): boolean {
    const { start } = this;
    for (const step of block) {
      const at = start[job.offset + step]!;
      for (const lag of variant.outgoing[step]!) {
        const after = start[job.offset + lag.to]!;
        if (after >= 0 && (after < at + lag.min || (after > at + lag.max && job.doneStart[step]! < 0))) return false;
      }
      for (const lag of variant.incoming[step]!) {
        const before = start[job.offset + lag.from]!;
        if (before >= 0 && job.doneStart[step]! < 0 && (at < before + lag.min || (at > before + lag.max && job.doneStart[lag.from]! < 0))) return false;
      }
    }
    return true;
  }

  /**
   * Books a block where `start` has it. Gives the step that does not fit beside the others (or whose unit's wash finds no hands), −1 when all do; `soonest` and
   * `latest` then say where it might.
   */
  private commit(job: CompiledJob, variant: Variant, block: readonly number[], backward: boolean): number {
    const wrong = this.commitIn(job, variant, block, false);
    if (wrong < 0 || !this.hasWashes) return wrong;
    const { soonest, latest, unheld } = this;
    // A wash that gives way to the new one may hold the very hands its steps are to have.
    const washedFirst = this.commitIn(job, variant, block, true);
    // Going back, its steps make room for the wash; going on, the unit waits for a wash after them.
    if (washedFirst < 0 || backward) return washedFirst;
    this.soonest = soonest;
    this.latest = latest;
    this.unheld = unheld;
    return wrong;
  }

  private commitIn(job: CompiledJob, variant: Variant, block: readonly number[], holdsFirst: boolean): number {
    let booked = 0;
    let held = 0;
    let wrong = NEVER;
    const steps = (): void => {
      for (; booked < block.length; booked += 1) {
        wrong = this.bookStep(job, variant, block[booked]!);
        if (wrong >= 0) return;
      }
    };
    const holds = (): void => {
      for (; held < variant.holdings.length; held += 1) {
        wrong = this.bookHold(job, variant, block, held);
        if (wrong >= 0) return;
      }
    };
    if (holdsFirst) holds();
    else steps();
    if (wrong < 0) {
      if (holdsFirst) steps();
      else holds();
    }
    if (wrong < 0) return NEVER;
    const undoSteps = (): void => {
      for (let index = 0; index < booked; index += 1) this.unbook(job, variant, block[index]!);
    };
    // Backwards, so that each wash finds again the hands it had.
    if (holdsFirst) undoSteps();
    for (let index = held - 1; index >= 0; index -= 1) this.release(job, variant, block, index);
    if (!holdsFirst) undoSteps();
    return wrong;
  }

  private bookStep(job: CompiledJob, variant: Variant, step: number): number {
    if (job.doneStart[step]! >= 0) return NEVER;
    const from = this.start[job.offset + step]!;
    const to = from + variant.durations[step]!;
    if (!this.fits(variant.uses[step]!, from, to)) {
      this.soonest = this.earliestFit(variant.uses[step]!, from, to - from);
      this.latest = this.latestFit(variant.uses[step]!, from, to - from, 0);
      this.unheld = NEVER;
      return step;
    }
    this.book(variant.uses[step]!, from, to, 1);
    return NEVER;
  }

  private bookHold(job: CompiledJob, variant: Variant, block: readonly number[], index: number): number {
    const holding = variant.holdings[index]!;
    if (!block.includes(holding.to) || job.doneStart[holding.to]! >= 0) return NEVER;
    const from = this.start[job.offset + holding.from]!;
    const to = this.start[job.offset + holding.to]! + (holding.untilEnd ? variant.durations[holding.to]! : 0);
    this.unheld = index;
    if (job.doneStart[holding.from]! >= 0) return this.stretch(holding.unit, job.index, to) ? NEVER : holding.to;
    return this.insertHold(holding.unit, { job: job.index, from, to, washFrom: from, washTo: from }) ? NEVER : holding.from;
  }

  private unbook(job: CompiledJob, variant: Variant, step: number): void {
    if (job.doneStart[step]! >= 0) return;
    const from = this.start[job.offset + step]!;
    this.book(variant.uses[step]!, from, from + variant.durations[step]!, -1);
  }

  private release(job: CompiledJob, variant: Variant, block: readonly number[], index: number): boolean {
    const holding = variant.holdings[index]!;
    if (!block.includes(holding.to) || job.doneStart[holding.to]! >= 0) return true;
    if (job.doneStart[holding.from]! >= 0) return this.stretch(holding.unit, job.index, OPEN);
    return this.removeHold(holding.unit, job.index, this.start[job.offset + holding.from]!);
  }

  /** Says when a job that stands in a unit leaves it. */
  private stretch(unit: number, job: number, to: number): boolean {
    const list = this.holds[unit]!;
    const at = list.findIndex((hold) => hold.job === job && (hold.to === OPEN || to === OPEN));
    const after = list[at + 1];
    if (after !== undefined && to !== OPEN && to + this.washMin(unit, job, after.job) > after.from) {
      this.soonest = NEVER;
      this.latest = after.from - this.washMin(unit, job, after.job);
      return false;
    }
    this.holds[unit] = [...list.slice(0, at), { ...list[at]!, to }, ...list.slice(at + 1)];
    return true;
  }

  private withdraw(job: CompiledJob, variant: Variant, block: readonly number[]): boolean {
    let whole = true;
    for (const step of block) this.unbook(job, variant, step);
    for (let index = variant.holdings.length - 1; index >= 0; index -= 1) whole = this.release(job, variant, block, index) && whole;
    for (const step of block) if (job.doneStart[step]! < 0) this.start[job.offset + step] = NEVER;
    return whole;
  }

  /** Takes a whole job out. False when a wash between its old neighbours finds no hands: then put the saved state back. */
  remove(index: number): boolean {
    const job = this.compiled.jobs[index]!;
    const whole = this.withdraw(job, this.variant(index), job.partitions.at(-1)![0]!);
    this.end[index] = NEVER;
    this.variantOf[index] = NEVER;
    return whole;
  }

  private placeBlock(job: CompiledJob, variant: Variant, block: readonly number[], lower: Int32Array | null): boolean {
    for (let round = 0; round < 60; round += 1) {
      if (!(lower === null ? this.forward(job, variant, block) : this.backward(job, variant, block, lower))) break;
      const wrong = this.commit(job, variant, block, lower !== null);
      if (wrong < 0) return true;
      if (job.doneStart[wrong]! >= 0) break;
      if (lower === null) {
        if (this.soonest < 0) break;
        this.bound[job.offset + wrong] = Math.max(this.start[job.offset + wrong]! + 1, this.soonest);
      } else {
        if (this.latest < 0) break;
        const holding = this.unheld < 0 ? null : variant.holdings[this.unheld]!;
        const step = job.offset + (holding?.to ?? wrong);
        this.bound[step] = Math.min(this.start[step]! - 1, this.latest - (holding?.untilEnd === true ? variant.durations[holding.to]! : 0));
      }
    }
    for (const step of block) if (job.doneStart[step]! < 0) this.start[job.offset + step] = NEVER;
    return false;
  }

  private finish(job: CompiledJob, variant: Variant, variantIndex: number): number {
    let end = 0;
    for (let step = 0; step < job.size; step += 1) end = Math.max(end, this.start[job.offset + step]! + variant.durations[step]!);
    this.end[job.index] = end;
    this.variantOf[job.index] = variantIndex;
    return end;
  }

  /** Latest a job may end for the jobs that take from it and are placed. */
  private wantedBy(job: CompiledJob): number {
    let wanted = Number.POSITIVE_INFINITY;
    for (const consumer of job.consumers) {
      const at = this.start[this.compiled.jobs[consumer.job]!.offset + consumer.step]!;
      if (at >= 0 && at < wanted) wanted = at;
    }
    return wanted;
  }

  private variantAt(job: CompiledJob, variantIndex: number): Variant {
    const { stretched } = this;
    return stretched !== null && stretched.job === job.index && stretched.index === variantIndex ? stretched.variant : job.variants[variantIndex]!;
  }

  /** Lays a job out as late as `target` allows. Gives its end, −1 with nothing changed when it does not fit. */
  placeLate(index: number, variantIndex: number, partition: number, target: number): number {
    const job = this.compiled.jobs[index]!;
    const variant = this.variantAt(job, variantIndex);
    const blocks = job.partitions[partition]!;
    const last = Math.min(target, this.wantedBy(job), this.compiled.horizon);
    this.setLower(job);
    const lower = this.bound.slice(job.offset, job.offset + job.size);
    for (let step = 0; step < job.size; step += 1) this.bound[job.offset + step] = last - variant.durations[step]!;
    for (let at = blocks.length - 1; at >= 0; at -= 1) {
      if (this.placeBlock(job, variant, blocks[at]!, lower)) continue;
      for (let placed = at + 1; placed < blocks.length; placed += 1) this.withdraw(job, variant, blocks[placed]!);
      return NEVER;
    }
    return this.finish(job, variant, variantIndex);
  }

  /** Lays a job out as soon as it fits, not ended before `target`; then pulls its earlier blocks up to what follows. −1 as above. */
  placeSoon(index: number, variantIndex: number, partition: number, target: number, justify: boolean): number {
    const job = this.compiled.jobs[index]!;
    const variant = this.variantAt(job, variantIndex);
    const blocks = job.partitions[partition]!;
    this.setLower(job);
    if (target > 0 && job.sink >= 0) {
      const at = job.offset + job.sink;
      this.bound[at] = Math.max(this.bound[at]!, target - variant.durations[job.sink]!);
    }
    const lower = this.bound.slice(job.offset, job.offset + job.size);
    for (let at = 0; at < blocks.length; at += 1) {
      if (this.placeBlock(job, variant, blocks[at]!, null)) continue;
      for (let placed = 0; placed < at; placed += 1) this.withdraw(job, variant, blocks[placed]!);
      return NEVER;
    }
    const end = this.finish(job, variant, variantIndex);
    if (end > this.wantedBy(job)) {
      this.remove(index);
      return NEVER;
    }
    if (!justify || job.begun) return end;
    for (let at = blocks.length - 1; at >= 0; at -= 1) {
      const block = blocks[at]!;
      // Without it, the wash between its neighbours may take the very hands it had.
      const saved = this.save(this.justifySpare);
      this.withdraw(job, variant, block);
      for (const step of block) this.bound[job.offset + step] = end - variant.durations[step]!;
      if (this.placeBlock(job, variant, block, lower)) continue;
      this.restore(saved);
    }
    return end;
  }

  /** Lays out one part of a job as soon as it fits beside what is placed of it. False, with nothing changed, when it does not. */
  placePartSoon(index: number, variantIndex: number, block: readonly number[]): boolean {
    const job = this.compiled.jobs[index]!;
    this.setLower(job);
    return this.placeBlock(job, job.variants[variantIndex]!, block, null) && this.settle(job, variantIndex);
  }

  /** By when such a part would end if every wash found its hands, something after `cut` when it does not end by then, −1 when it does not fit. Nothing is placed. */
  soonestEnd(index: number, variantIndex: number, block: readonly number[], cut: number): number {
    const job = this.compiled.jobs[index]!;
    const variant = job.variants[variantIndex]!;
    this.setLower(job);
    this.cut = cut;
    const found = this.forward(job, variant, block);
    this.cut = Number.POSITIVE_INFINITY;
    let end = found ? 0 : cut === Number.POSITIVE_INFINITY ? NEVER : cut + 1;
    for (const step of block) {
      if (found) end = Math.max(end, this.start[job.offset + step]! + variant.durations[step]!);
      if (job.doneStart[step]! < 0) this.start[job.offset + step] = NEVER;
    }
    return end;
  }

  /** The same, as late as `target` allows. */
  placePartLate(index: number, variantIndex: number, block: readonly number[], target: number): boolean {
    const job = this.compiled.jobs[index]!;
    const variant = job.variants[variantIndex]!;
    this.setLower(job);
    const lower = this.lower;
    const last = Math.min(target, this.wantedBy(job), this.compiled.horizon);
    for (const step of block) {
      lower[step] = this.bound[job.offset + step]!;
      this.bound[job.offset + step] = last - variant.durations[step]!;
    }
    return this.placeBlock(job, variant, block, lower) && this.settle(job, variantIndex);
  }

  /** Takes back a part. False when a wash finds no hands then: put the saved state back. */
  withdrawPart(index: number, variantIndex: number, block: readonly number[]): boolean {
    const job = this.compiled.jobs[index]!;
    this.end[index] = NEVER;
    return this.withdraw(job, job.variants[variantIndex]!, block);
  }

  private settle(job: CompiledJob, variantIndex: number): true {
    this.variantOf[job.index] = variantIndex;
    for (let step = 0; step < job.size; step += 1) if (this.start[job.offset + step]! < 0) return true;
    this.finish(job, job.variants[variantIndex]!, variantIndex);
    return true;
  }

  /** Puts a job exactly where it was. False, with nothing changed, when it no longer fits. */
  placeAt(index: number, variantIndex: number, starts: readonly number[]): boolean {
    const job = this.compiled.jobs[index]!;
    const variant = job.variants[variantIndex]!;
    const block = job.partitions.at(-1)![0]!;
    this.setLower(job);
    let possible = true;
    for (const step of block) {
      if (job.doneStart[step]! >= 0) continue;
      this.start[job.offset + step] = starts[step]!;
      if (starts[step]! < this.bound[job.offset + step]! || (job.pinned[step]! >= 0 && job.pinned[step] !== starts[step])) possible = false;
    }
    possible &&= this.respectsOthers(job, variant, block);
    for (const holding of variant.holdings) {
      if (!possible || job.doneStart[holding.from]! >= 0) continue;
      const from = starts[holding.from]!;
      possible = this.later(holding.unit, index, from, starts[holding.to]! + (holding.untilEnd ? variant.durations[holding.to]! : 0)) === from;
    }
    if (!possible || this.commit(job, variant, block, false) >= 0) {
      for (const step of block) if (job.doneStart[step]! < 0) this.start[job.offset + step] = NEVER;
      return false;
    }
    if (this.finish(job, variant, variantIndex) <= this.wantedBy(job)) return true;
    this.remove(index);
    return false;
  }
}

const UNPLACED_COST = 1e12;

/** A list with `cut` holds at `at` replaced by these. By hand: it is made for every step that is tried. */
function spliced(list: readonly Hold[], at: number, cut: number, first: Hold | null, second: Hold | null): readonly Hold[] {
  const next: Hold[] = [];
  for (let index = 0; index < at; index += 1) next.push(list[index]!);
  if (first !== null) next.push(first);
  if (second !== null) next.push(second);
  for (let index = at + cut; index < list.length; index += 1) next.push(list[index]!);
  return next;
}
