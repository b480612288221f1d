import { MOVED_UNIT_MIN } from '../problem';
import type { Compiled, CompiledJob, Variant } from './compile';
import { Minutes } from './minutes';
import { OPEN, until, Units } from './units';
import type { Hold } from './units';

export interface Saved {
  readonly bits: Int32Array;
  readonly start: Int32Array;
  readonly end: Int32Array;
  readonly variantOf: Int32Array;
  readonly holds: (readonly Hold[])[];
  washTotal: number;
}

/** Whether two lists of equal length hold the same numbers. */
export function isAlike(one: ArrayLike<number>, other: ArrayLike<number>): boolean {
  for (let at = 0; at < one.length; at += 1) if (one[at] !== other[at]) return false;
  return true;
}

/** What the plan before said of each job: −1 = nothing. */
export interface Moved {
  readonly end: Int32Array;
  readonly units: readonly (string | null)[];
}

const NEVER = -1;
const MAX_ROUNDS = 400;

/**
 * Who has what, minute by minute, while a plan is being laid. Placing one block of steps is exact: `forward` gives the soonest and
 * `backward` the latest start of every step at once, because every rule that pushes a step only ever pushes it one way.
 */
export class Timetable {
  readonly compiled: Compiled;
  readonly minutes: Minutes;
  readonly units: Units;
  /** Start of every step, −1 = not placed. */
  readonly start: Int32Array;
  /** End of every job, −1 = not placed. */
  readonly end: Int32Array;
  readonly variantOf: Int32Array;
  moved: Moved | null = null;
  /** Ways of a job with longer waits than it needs, while it is laid out: room in between may be worth more than being quick. */
  readonly longer: (readonly Variant[] | null)[];
  /** What no step may begin before (going forward) or after (going backward) while its block is placed. */
  readonly bound: Int32Array;
  /** Where the steps of a part were last found to fit, and of the best of its ways. */
  private readonly found: Int32Array;
  private readonly kept: Int32Array;
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
    this.minutes = new Minutes(compiled);
    this.units = new Units(compiled, this.minutes);
    this.start = new Int32Array(compiled.stepCount).fill(NEVER);
    this.end = new Int32Array(compiled.jobs.length).fill(NEVER);
    this.variantOf = new Int32Array(compiled.jobs.length).fill(NEVER);
    this.bound = new Int32Array(compiled.stepCount);
    this.longer = compiled.jobs.map(() => null);
    this.found = new Int32Array(compiled.jobs.reduce((most, job) => Math.max(most, job.size), 0));
    this.kept = this.found.slice();
    for (const job of compiled.jobs) this.bookDone(job);
    this.justifySpare = this.save();
  }

  save(into?: Saved): Saved {
    if (into === undefined)
      return {
        bits: this.minutes.bits.slice(),
        start: this.start.slice(),
        end: this.end.slice(),
        variantOf: this.variantOf.slice(),
        holds: this.units.lists.slice(),
        washTotal: this.units.washTotal,
      };
    into.bits.set(this.minutes.bits);
    into.start.set(this.start);
    into.end.set(this.end);
    into.variantOf.set(this.variantOf);
    for (let unit = 0; unit < this.units.lists.length; unit += 1) into.holds[unit] = this.units.lists[unit]!;
    into.washTotal = this.units.washTotal;
    return into;
  }

  restore(saved: Saved): void {
    this.minutes.bits.set(saved.bits);
    this.start.set(saved.start);
    this.end.set(saved.end);
    this.variantOf.set(saved.variantOf);
    for (let unit = 0; unit < this.units.lists.length; unit += 1) this.units.lists[unit] = saved.holds[unit]!;
    this.units.washTotal = saved.washTotal;
  }

  /** Whether the table looks as it did then. */
  isAt(saved: Saved): boolean {
    return (
      isAlike(this.start, saved.start) &&
      isAlike(this.variantOf, saved.variantOf) &&
      isAlike(this.minutes.bits, saved.bits) &&
      this.units.lists.every((list, unit) => {
        const then = saved.holds[unit]!;
        return list === then || (list.length === then.length && list.every((hold, at) => hold.from === then[at]!.from && hold.washFrom === then[at]!.washFrom));
      })
    );
  }

  /**
   * Takes a whole plan over as it stands. Only for one that is known to be feasible: nothing is asked. `washOf` says when each unit was washed for the job that comes into it at `from`.
   */
  adopt(
    plan: readonly { readonly job: number; readonly variant: number; readonly starts: readonly number[] }[],
    washOf: (unit: number, before: number, after: number, from: number) => readonly [number, number] | null,
  ): void {
    for (const { job: index, variant: variantIndex, starts } of plan) {
      const job = this.compiled.jobs[index]!;
      if (job.allDone) continue;
      const variant = job.variants[variantIndex]!;
      for (let step = 0; step < job.size; step += 1) {
        if (job.doneStart[step]! >= 0) continue;
        this.start[job.offset + step] = starts[step]!;
        this.minutes.book(variant.uses[step]!, starts[step]!, starts[step]! + variant.durations[step]!, 1);
      }
      for (const holding of variant.holdings) {
        const to = this.start[job.offset + holding.to]! + (holding.untilEnd ? variant.durations[holding.to]! : 0);
        const list = this.units.lists[holding.unit]!;
        if (job.doneStart[holding.to]! >= 0) continue;
        if (job.doneStart[holding.from]! >= 0) this.units.lists[holding.unit] = list.map((hold) => (hold.job === index && hold.to === OPEN ? until(hold, to) : hold));
        else this.units.lists[holding.unit] = [...list, { job: index, from: this.start[job.offset + holding.from]!, to, washFrom: 0, washTo: 0 }];
      }
      this.finish(job, variant, variantIndex);
    }
    this.units.washTotal = 0;
    this.units.lists.forEach((list, unit) => {
      const inOrder = [...list].sort((left, right) => left.from - right.from);
      this.units.lists[unit] = inOrder.map((hold, at) => {
        const before = inOrder[at - 1];
        const wash = before === undefined ? null : washOf(unit, before.job, hold.job, hold.from);
        const begun = this.compiled.jobs[hold.job]!.doneStart.some((start) => start === hold.from);
        const [washFrom, washTo] = begun ? [hold.washFrom, hold.washTo] : (wash ?? [hold.from, hold.from]);
        if (!begun) this.minutes.book(this.compiled.washUses[unit]!, washFrom, washTo, 1);
        this.units.washTotal += washTo - washFrom;
        return { job: hold.job, from: hold.from, to: hold.to, washFrom, washTo };
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

  /** What it costs that a job is ready before those that take it, and are placed, are. */
  standsCost(index: number): number {
    const { job, consumers } = this.compiled.jobs[index]!;
    if (job.readyByMin !== null || consumers.length === 0) return 0;
    const aim = this.end[index]! + job.likesEarlyMin;
    let stands = 0;
    for (const consumer of consumers) stands += Math.max(0, this.end[consumer.job]! - aim);
    return stands * job.earlyWeight * this.compiled.problem.weights.early;
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
    let cost = weights.changeover * this.units.washTotal;
    let makespan = 0;
    for (let job = 0; job < this.end.length; job += 1) {
      const end = this.end[job]!;
      if (end < 0) cost += this.compiled.jobs[job]!.forOthers ? 0 : UNPLACED_COST;
      else {
        cost += this.jobCost(job, end) + this.standsCost(job);
        if (this.moved !== null) cost += this.unitCost(job, this.variant(job));
        if (end > makespan) makespan = end;
      }
    }
    return cost + weights.makespan * makespan;
  }

  /** Whether anything is ready later than wanted, or found no place. */
  isLate(): boolean {
    return this.compiled.jobs.some(({ job }, index) => this.end[index]! < 0 || (job.readyByMin !== null && this.end[index]! > job.readyByMin));
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

  /** Work that has happened takes what it took, whoever is laid out next. */
  private bookDone(job: CompiledJob): void {
    const variant = job.variants[0];
    if (variant === undefined || !job.begun) return;
    for (let step = 0; step < job.size; step += 1) {
      if (job.doneStart[step]! < 0) continue;
      this.start[job.offset + step] = job.doneStart[step]!;
      this.minutes.book(variant.uses[step]!, job.doneStart[step]!, job.doneEnd[step]!, 1);
    }
    for (const holding of variant.holdings) {
      if (job.doneStart[holding.from]! < 0) continue;
      const last = holding.untilEnd ? job.doneEnd[holding.to]! : job.doneStart[holding.to]!;
      const from = job.doneStart[holding.from]!;
      this.units.insert(holding.unit, { job: job.index, from, to: job.doneStart[holding.to]! < 0 ? OPEN : last, washFrom: 0, washTo: 0 }, true);
    }
    if (job.allDone) {
      this.variantOf[job.index] = 0;
      this.end[job.index] = Math.max(...job.doneEnd);
    }
  }

  /** Lower bounds of a job's steps from its release and what it waits for. */
  setLower(job: CompiledJob): void {
    for (let step = 0; step < job.size; step += 1) this.bound[job.offset + step] = job.job.releaseMin;
    for (const input of job.inputs) {
      const end = this.end[input.job]!;
      const at = job.offset + input.step;
      this.bound[at] = Math.max(this.bound[at]!, end >= 0 ? end : this.soonestEndOf(this.compiled.jobs[input.job]!));
    }
  }

  /** By when a job that is laid out in part, or not at all, ends at the soonest: what is laid of it from the end stays where it is. */
  private soonestEndOf({ index, offset, size, soonestEnd, variants }: CompiledJob): number {
    const variant = variants[this.variantOf[index]!];
    let end = soonestEnd;
    if (variant === undefined) return end;
    for (let step = 0; step < size; step += 1) if (this.start[offset + step]! >= 0) end = Math.max(end, this.start[offset + step]! + variant.durations[step]!);
    return end;
  }

  /** What a pushed first step of a line must clear: the job that would be overtaken, as the soonest start in the line's first unit. */
  private overtakes(job: CompiledJob, variant: Variant, holdingIndex: number, from: number): { readonly step: number; readonly start: number } | null {
    const holding = variant.holdings[holdingIndex]!;
    const line = this.compiled.lineOf[holding.unit]!;
    if (line < 0) return null;
    const first = variant.holdings.find((other) => this.compiled.lineOf[other.unit] === line)!;
    if (first === holding) return null;
    const mine = this.start[job.offset + first.from]!;
    const firstHolds = this.units.lists[first.unit]!;
    for (const other of this.units.lists[holding.unit]!) {
      const there = firstHolds.find((hold) => hold.job === other.job);
      if (there === undefined) continue;
      if (there.from < mine && other.from >= from) return { step: holding.from, start: other.to + this.units.washMin(holding.unit, other.job, job.index) };
      if (there.from > mine && other.from < from) return { step: first.from, start: there.to + this.units.washMin(first.unit, other.job, job.index) };
    }
    return null;
  }

  /** Soonest starts of a block's steps, not before `bound`; false when there are none. */
  forward(job: CompiledJob, variant: Variant, block: readonly number[]): boolean {
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
        from = this.minutes.earliestFit(variant.uses[step]!, from, duration);
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
        if (job.crosses[step]!)
          for (const lag of variant.incoming[step]!) {
            const before = start[offset + lag.from]!;
            if (before >= 0 && from > before + lag.max && job.doneStart[lag.from]! < 0 && !block.includes(lag.from)) return false;
          }
        // A unit that is taken is not waited for with everything laid out up to it.
        for (const index of variant.opening[step]!) {
          const { unit, to, untilEnd } = variant.holdings[index]!;
          if (job.begun) continue;
          const push = this.units.later(unit, job.index, from, from - variant.apart[to * job.size + step]! + (untilEnd ? variant.durations[to]! : 0));
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
        let push = this.units.later(holding.unit, job.index, from, to);
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
    return this.respectsOthers(job, variant, block, false);
  }

  /** Latest starts of a block's steps, not after `bound`; false when there are none. `lower` holds what they may not begin before. */
  backward(job: CompiledJob, variant: Variant, block: readonly number[], lower: Int32Array): boolean {
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
      from = this.minutes.latestFit(variant.uses[step]!, from, duration, lower[step]!);
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
      if (job.crosses[step]!)
        for (const lag of variant.outgoing[step]!) {
          const after = start[offset + lag.to]!;
          if (after >= 0 && after > from + lag.max && !block.includes(lag.to)) return false;
        }
      for (const index of variant.closing[step]!) {
        const holding = variant.holdings[index]!;
        if (job.begun) continue;
        const stay = holding.untilEnd ? duration : 0;
        const push = this.units.sooner(holding.unit, job.index, from + variant.apart[step * job.size + holding.from]!, from + stay);
        if (push === from + stay) continue;
        if (push < stay) return false;
        bound[offset + step] = push - stay;
        continue placing;
      }
      for (const index of variant.opening[step]!) {
        const holding = variant.holdings[index]!;
        const stay = holding.untilEnd ? variant.durations[holding.to]! : 0;
        const to = start[offset + holding.to]! + stay;
        const push = this.units.sooner(holding.unit, job.index, from, to);
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
    return this.respectsOthers(job, variant, block, false);
  }

  /** Lags between this block and what is placed of the job outside it; or all lags there are. */
  private respectsOthers(job: CompiledJob, variant: Variant, block: readonly number[], all: boolean): boolean {
    const { start } = this;
    if (!all && block.length === job.size) return true;
    for (const step of block) {
      if (!all && !job.crosses[step]!) continue;
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
   * Books a block where `start` has it; `isFree`: where every step was found to fit, and they are never in each other's way. Gives the step that does not fit beside the others (or whose unit's wash finds no hands), −1 when all do; `soonest` and
   * `latest` then say where it might.
   */
  commit(job: CompiledJob, variant: Variant, block: readonly number[], backward: boolean, isFree: boolean): number {
    const wrong = this.commitIn(job, variant, block, false, isFree);
    if (wrong < 0 || !this.hasWashes) return wrong;
    const { soonest, latest, unheld } = this;
    // A wash that gives way to the new one may hold the very hands its steps are to have.
    const washedFirst = this.commitIn(job, variant, block, true, false);
    // Going back, its steps make room for the wash; going on, the unit waits for a wash after them.
    if (washedFirst < 0 || backward) return washedFirst;
    this.soonest = soonest;
    this.latest = latest;
    this.unheld = unheld;
    return wrong;
  }

  private commitIn(job: CompiledJob, variant: Variant, block: readonly number[], holdsFirst: boolean, isFree: boolean): number {
    let booked = 0;
    let held = 0;
    let wrong = NEVER;
    const steps = (): void => {
      for (; booked < block.length; booked += 1) {
        wrong = this.bookStep(job, variant, block[booked]!, isFree);
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

  private bookStep(job: CompiledJob, variant: Variant, step: number, isFree: boolean): number {
    if (job.doneStart[step]! >= 0) return NEVER;
    const from = this.start[job.offset + step]!;
    const to = from + variant.durations[step]!;
    if (!isFree && !this.minutes.fits(variant.uses[step]!, from, to)) {
      this.soonest = this.minutes.earliestFit(variant.uses[step]!, from, to - from);
      this.latest = this.minutes.latestFit(variant.uses[step]!, from, to - from, 0);
      this.unheld = NEVER;
      return step;
    }
    this.minutes.book(variant.uses[step]!, from, to, 1);
    return NEVER;
  }

  private bookHold(job: CompiledJob, variant: Variant, block: readonly number[], index: number): number {
    const holding = variant.holdings[index]!;
    if (!this.isHeldWith(job, holding, block)) return NEVER;
    const from = this.start[job.offset + holding.from]!;
    const to = this.start[job.offset + holding.to]! + (holding.untilEnd ? variant.durations[holding.to]! : 0);
    const { units } = this;
    const goesOn = job.doneStart[holding.from]! >= 0;
    if (goesOn ? units.stretch(holding.unit, job.index, to) : units.insert(holding.unit, { job: job.index, from, to, washFrom: from, washTo: from })) return NEVER;
    this.unheld = index;
    this.soonest = units.soonest;
    this.latest = units.latest;
    return goesOn ? holding.to : holding.from;
  }

  /** Whether a unit is held once a block is laid: both ends of it have their place then, one of them in the block. */
  private isHeldWith(job: CompiledJob, { from, to }: Variant['holdings'][number], block: readonly number[]): boolean {
    if (job.doneStart[to]! >= 0) return false;
    if (block.includes(to)) return this.start[job.offset + from]! >= 0;
    return block.includes(from) && this.start[job.offset + to]! >= 0;
  }

  private unbook(job: CompiledJob, variant: Variant, step: number): void {
    if (job.doneStart[step]! >= 0) return;
    const from = this.start[job.offset + step]!;
    this.minutes.book(variant.uses[step]!, from, from + variant.durations[step]!, -1);
  }

  private release(job: CompiledJob, variant: Variant, block: readonly number[], index: number): boolean {
    const holding = variant.holdings[index]!;
    if (!this.isHeldWith(job, holding, block)) return true;
    if (job.doneStart[holding.from]! >= 0) return this.units.stretch(holding.unit, job.index, OPEN);
    return this.units.remove(holding.unit, job.index, this.start[job.offset + holding.from]!);
  }

  /** Gives back what a block has taken. False when a wash between its neighbours finds no hands then: put the saved state back. */
  withdraw(job: CompiledJob, variant: Variant, block: readonly number[]): boolean {
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

  /** Places a block: soonest, or latest where `lower` says what it may not begin before. False, with nothing booked, when it fits nowhere. `isFound`: `start` already has what going forward gives. */
  placeBlock(job: CompiledJob, variant: Variant, block: readonly number[], lower: Int32Array | null, isFound = false): boolean {
    this.units.washesLate = lower !== null;
    for (let round = 0; round < 60; round += 1) {
      if (!(isFound && round === 0) && !(lower === null ? this.forward(job, variant, block) : this.backward(job, variant, block, lower))) break;
      const wrong = this.commit(job, variant, block, lower !== null, variant.isChain);
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
  wantedBy(job: CompiledJob): number {
    let wanted = Number.POSITIVE_INFINITY;
    for (const consumer of job.consumers) {
      const at = this.start[this.compiled.jobs[consumer.job]!.offset + consumer.step]!;
      if (at >= 0 && at < wanted) wanted = at;
    }
    return wanted;
  }

  private variantAt(job: CompiledJob, variantIndex: number): Variant {
    return (this.longer[job.index] ?? job.variants)[variantIndex]!;
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
    // A wash that went with it may have left its place, and sent it sooner.
    return this.finish(job, variant, variantIndex);
  }

  /** Lays out one part of a job as soon as it fits beside what is placed of it. False, with nothing changed, when it does not. */
  placePartSoon(index: number, variantIndex: number, block: readonly number[]): boolean {
    const job = this.compiled.jobs[index]!;
    this.setLower(job);
    return this.placeBlock(job, this.variantAt(job, variantIndex), block, null) && this.settle(job, variantIndex);
  }

  /** The same, where `soonestEnd` has just found its place and `keep` has kept it. */
  placePartKept(index: number, variantIndex: number, block: readonly number[]): boolean {
    const job = this.compiled.jobs[index]!;
    this.setLower(job);
    for (const step of block) if (job.doneStart[step]! < 0) this.start[job.offset + step] = this.kept[step]!;
    return this.placeBlock(job, this.variantAt(job, variantIndex), block, null, true) && this.settle(job, variantIndex);
  }

  /** By when such a part would end if every wash found its hands, something after `cut` when it does not end by then, −1 when it does not fit. Nothing is placed. */
  soonestEnd(index: number, variantIndex: number, block: readonly number[], cut: number): number {
    const job = this.compiled.jobs[index]!;
    const variant = this.variantAt(job, variantIndex);
    this.setLower(job);
    this.cut = cut;
    const found = this.forward(job, variant, block);
    this.cut = Number.POSITIVE_INFINITY;
    let end = found ? 0 : cut === Number.POSITIVE_INFINITY ? NEVER : cut + 1;
    for (const step of block) {
      if (found) end = Math.max(end, this.start[job.offset + step]! + variant.durations[step]!);
      this.found[step] = this.start[job.offset + step]!;
      if (job.doneStart[step]! < 0) this.start[job.offset + step] = NEVER;
    }
    return end;
  }

  /** Keeps where `soonestEnd` was last asked about. */
  keep(): void {
    this.kept.set(this.found);
  }

  /** Takes back a part. False when a wash finds no hands then: put the saved state back. */
  withdrawPart(index: number, variantIndex: number, block: readonly number[]): boolean {
    const job = this.compiled.jobs[index]!;
    this.end[index] = NEVER;
    return this.withdraw(job, job.variants[variantIndex]!, block);
  }

  /** Keeps the way a job is laid out in, and its end once all of it is. */
  settle(job: CompiledJob, variantIndex: number): true {
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
    possible &&= this.respectsOthers(job, variant, block, true);
    for (const holding of variant.holdings) {
      if (!possible || job.doneStart[holding.from]! >= 0) continue;
      const from = starts[holding.from]!;
      possible = this.units.later(holding.unit, index, from, starts[holding.to]! + (holding.untilEnd ? variant.durations[holding.to]! : 0)) === from;
    }
    this.units.washesLate = false;
    if (!possible || this.commit(job, variant, block, false, false) >= 0) {
      for (const step of block) if (job.doneStart[step]! < 0) this.start[job.offset + step] = NEVER;
      return false;
    }
    if (this.finish(job, variant, variantIndex) <= this.wantedBy(job)) return true;
    this.remove(index);
    return false;
  }
}

const UNPLACED_COST = 1e12;
