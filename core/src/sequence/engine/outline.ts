import type { Compiled, CompiledJob, Variant } from './compile';
import type { Item, Washed } from './items';
import { Minutes } from './minutes';
import { holdsMirrored } from './mirror';
import type { Standing } from './mirror';
import { Rows } from './rows';
import type { StepRow } from './rows';
import type { Saved, Timetable } from './timetable';

const NEVER = -1;
const LATEST: number = 1 << 28;
const MAX_ROUNDS = 60;

/** How an outline looked after so many items. */
export interface Kept {
  readonly state: Int32Array;
  readonly bits: Int32Array;
  cost: number;
}

/**
 * A plan in outline: pieces and washes laid out one after another, each as soon as it fits, nobody in a unit before who is in it already. What is laid of a batch comes
 * later when its next piece would let it wait too long. It knows fewer ways out than what is laid out on the table, costs a fifth of the work, and every outline
 * that is complete is a plan. Only for days on which nothing is pinned and no line is kept.
 */
export class Outline {
  readonly compiled: Compiled;
  readonly items: readonly Item[];
  readonly pieces: number;
  /** When each step begins; −1 = not yet laid out. */
  readonly start: Int32Array;
  /** Of each step and each unit it comes into: when that is washed for it. */
  readonly washFrom: Int32Array;
  readonly washTo: Int32Array;
  /** By when each job ends at the soonest, by what is laid of it. */
  readonly end: Int32Array;
  /** Of each unit: until when it was taken last, by which job, which step left it last, and who stands in it now. */
  readonly unitTo: Int32Array;
  readonly unitBy: Int32Array;
  readonly heldBy: Int32Array;
  /** Whether each item is laid out. */
  readonly seen: Int32Array;
  /** Units one step comes into at most. */
  readonly slots: number;
  /** In which way each job is done. */
  ways: Int32Array;
  /** What is late and washed for of what is laid out so far. */
  cost = 0;
  /** All of it in two parts, to be kept and put back at once; and how it is before anything is laid out. */
  readonly state: Int32Array;
  readonly bits: Int32Array;
  private readonly rootState: Int32Array;
  private readonly root: Saved;
  private readonly minutes: Minutes;
  private readonly leftBy: Int32Array;
  /** Of the first step in a unit: when that is free for it, washed; −1 = not yet asked for. */
  private readonly free: Int32Array;
  /** Of the last step in a unit: by when it must be over, because the unit is then washed for another. */
  private readonly mustEnd: Int32Array;
  private readonly pieceOf: Int32Array;
  private readonly isOrdered: Uint8Array;
  /** What is asked of each step: of an item's, of all, and of a job's in an order that respects the lags. */
  readonly rowsOfItem: (readonly StepRow[])[];
  private readonly rows: Rows;
  private readonly rowsInOrder: (readonly StepRow[])[];
  /** Of each job: when it is wanted (Infinity = nobody does), how much room it has before, and what a minute late and one of room missing cost. */
  private readonly readyByMin: Float64Array;
  private readonly bufferMin: Float64Array;
  private readonly latePrice: Float64Array;
  private readonly shortPrice: Float64Array;
  /** What a minute of washing costs. */
  private readonly washPrice: number;
  /** Where the day is told backwards; null = it is not. */
  readonly standing: Standing | null;

  constructor(compiled: Compiled, root: Saved, { items, pieces }: Washed, standing: Standing | null = null) {
    const { stepCount, unitCount, jobs } = compiled;
    this.compiled = compiled;
    this.items = items;
    this.pieces = pieces;
    this.root = root;
    this.standing = standing;
    this.minutes = new Minutes(compiled);
    this.slots = jobs.reduce((most, job) => job.variants.reduce((more, { opening }) => opening.reduce((longest, one) => Math.max(longest, one.length), more), most), 1);
    const sizes = [stepCount, stepCount, stepCount * this.slots, stepCount * this.slots, stepCount, jobs.length, unitCount, unitCount, unitCount, unitCount, items.length];
    this.state = new Int32Array(sizes.reduce((sum, size) => sum + size, 0));
    let at = 0;
    const part = (length: number): Int32Array => this.state.subarray(at, (at += length));
    this.start = part(stepCount);
    this.free = part(stepCount);
    this.washFrom = part(stepCount * this.slots);
    this.washTo = part(stepCount * this.slots);
    this.mustEnd = part(stepCount);
    this.end = part(jobs.length);
    this.unitTo = part(unitCount);
    this.unitBy = part(unitCount);
    this.leftBy = part(unitCount);
    this.heldBy = part(unitCount);
    this.seen = part(items.length);
    this.start.set(root.start);
    this.end.set(root.end);
    this.free.fill(NEVER);
    this.mustEnd.fill(LATEST);
    this.leftBy.fill(NEVER);
    this.heldBy.fill(NEVER);
    root.holds.forEach((holds, unit) => {
      this.unitTo[unit] = holds.at(-1)?.to ?? 0;
      this.unitBy[unit] = holds.at(-1)?.job ?? NEVER;
    });
    this.rootState = this.state.slice();
    this.pieceOf = new Int32Array(stepCount).fill(NEVER);
    this.isOrdered = new Uint8Array(jobs.length);
    items.slice(0, pieces).forEach(({ job, block }, index) => {
      this.isOrdered[job] = 1;
      for (const step of block) this.pieceOf[jobs[job]!.offset + step] = index;
    });
    this.rows = new Rows(compiled);
    this.rowsOfItem = items.map(() => []);
    this.rowsInOrder = jobs.map(() => []);
    const { late, short, changeover } = compiled.problem.weights;
    this.washPrice = changeover;
    this.readyByMin = Float64Array.from(jobs, ({ job }) => job.readyByMin ?? Number.POSITIVE_INFINITY);
    this.bufferMin = Float64Array.from(jobs, ({ job }) => job.bufferMin);
    this.latePrice = Float64Array.from(jobs, ({ job }) => late * job.lateWeight);
    this.shortPrice = Float64Array.from(jobs, ({ job }) => short * job.lateWeight);
    this.ways = new Int32Array(jobs.length);
    this.turn(this.ways);
    this.bits = this.minutes.bits;
  }

  /** How it is now, to be kept. */
  kept(): Kept {
    return { state: this.state.slice(), bits: this.bits.slice(), cost: this.cost };
  }

  /** Keeps how it is now where something was kept before. */
  keep(kept: Kept): void {
    kept.state.set(this.state);
    kept.bits.set(this.bits);
    kept.cost = this.cost;
  }

  /** As it was when it was kept; null = as before anything is laid out. */
  restore(kept: Kept | null, ways: Int32Array): void {
    this.state.set(kept?.state ?? this.rootState);
    this.bits.set(kept?.bits ?? this.root.bits);
    this.cost = kept?.cost ?? 0;
    if (this.ways !== ways) this.turn(ways);
  }

  /** Jobs are done in these ways from now on. */
  private turn(ways: Int32Array): void {
    const { compiled, items, rows, rowsOfItem, rowsInOrder } = this;
    this.ways = ways;
    for (const index of rows.turn(ways)) {
      const now = rows.now[index]!;
      rowsInOrder[index] = (compiled.jobs[index]!.partitions.at(-1)?.[0] ?? []).map((step) => now[step]!);
      items.forEach(({ job, block }, item) => {
        if (job === index) rowsOfItem[item] = block.map((step) => now[step]!);
      });
    }
  }

  /** Whether anything of a job was laid out by then. */
  hasBegun(job: number, kept: Kept): boolean {
    const seenAt = this.state.length - this.items.length;
    return this.items.some((item, index) => item.job === job && kept.state[seenAt + index] !== 0);
  }

  /** With the whole day. */
  total(): number {
    const { compiled, standing, start, cost } = this;
    const { makespan } = compiled.problem.weights;
    if (standing === null) return cost + makespan * this.end.reduce((last, end) => Math.max(last, end), 0);
    return cost + makespan * (standing.horizonMin - standing.first.reduce((soonest, step) => Math.min(soonest, start[step]!), standing.horizonMin));
  }

  /** What is late, short of room included. Only ever rises with the end. */
  lateCost(job: number, end: number): number {
    const over = end - this.readyByMin[job]!;
    const bufferMin = this.bufferMin[job]!;
    if (over <= -bufferMin) return 0;
    return Math.max(0, over) * this.latePrice[job]! + Math.min(bufferMin, over + bufferMin) * this.shortPrice[job]!;
  }

  /** What is late of what is laid out, or of jobs that end then. */
  lateness(end: ArrayLike<number> = this.end): number {
    let sum = 0;
    for (let job = 0; job < end.length; job += 1) sum += this.lateCost(job, end[job]!);
    return sum;
  }

  /** The order of a plan on the table: pieces and washes by when they first ask for anything; what begins before that is in nobody's way. */
  orderOf(table: Timetable): Int32Array {
    const { compiled, pieces, standing } = this;
    const lists = standing === null ? table.units.lists : table.units.lists.map((list) => holdsMirrored(list, standing.horizonMin));
    const variantOf = (index: number): Variant => compiled.jobs[index]!.variants[table.variantOf[index]!]!;
    const startOf = (index: number, step: number): number => {
      const start = table.start[compiled.jobs[index]!.offset + step]!;
      return standing === null ? start : standing.horizonMin - start - variantOf(index).durations[step]!;
    };
    const asks = this.items.map(({ job: index, block }, at) => {
      const variant = variantOf(index);
      if (at < pieces) return startOf(index, block.find((step) => variant.uses[step]!.length > 0) ?? block[0]!);
      const start = startOf(index, block[0]!);
      const washes = variant.opening[block[0]!]!.map((opening) => lists[variant.holdings[opening]!.unit]!.find((hold) => hold.job === index && hold.from === start));
      // Before whoever asks at the same minute.
      return washes.reduce((soonest, hold) => Math.min(soonest, hold?.washFrom ?? start), start) - 0.5;
    });
    return Int32Array.from(asks, (_, index) => index).sort((left, right) => asks[left]! - asks[right]!);
  }

  /** When an item begins and ends. */
  from(item: number): number {
    const { step } = this.rowsOfItem[item]![0]!;
    return item < this.pieces ? this.start[step]! : this.washFrom[step * this.slots]!;
  }

  to(item: number): number {
    const rows = this.rowsOfItem[item]!;
    const { step, duration } = rows[rows.length - 1]!;
    return item < this.pieces ? this.start[step]! + duration : this.washTo[step * this.slots]!;
  }

  /** Puts what is laid out on the table, as it is. */
  put(table: Timetable, empty: Saved): void {
    const { compiled, root, isOrdered, standing } = this;
    table.restore(empty);
    const startsOf = ({ index, offset, size, variants }: CompiledJob): readonly number[] => {
      const starts = Array.from(this.start.subarray(offset, offset + size));
      return standing === null ? starts : starts.map((start, step) => standing.horizonMin - start - variants[this.ways[index]!]!.durations[step]!);
    };
    const plan = compiled.jobs.flatMap((job) =>
      job.allDone ? [] : [{ job: job.index, variant: isOrdered[job.index] === 0 ? root.variantOf[job.index]! : this.ways[job.index]!, starts: startsOf(job) }],
    );
    table.adopt(plan, (unit, before, after, from) => {
      if (standing !== null) {
        // Told backwards, whoever leaves comes in, and what is washed for that is washed after it.
        const [washFrom, washTo] = this.washOf(unit, before, (begin) => begin >= standing.horizonMin - from);
        return [standing.horizonMin - washTo, standing.horizonMin - washFrom];
      }
      if (isOrdered[after] === 0) {
        const hold = root.holds[unit]!.find((one) => one.job === after && one.from === from)!;
        return [hold.washFrom, hold.washTo];
      }
      return this.washOf(unit, after, (begin) => begin === from);
    });
  }

  /** When a unit was washed for a job that comes in then: the first time it is so. */
  private washOf(unit: number, index: number, isThen: (begin: number) => boolean): readonly [number, number] {
    const { offset, variants } = this.compiled.jobs[index]!;
    const { holdings, opening } = variants[this.ways[index]!]!;
    let found = NEVER;
    holdings.forEach((holding, at) => {
      const begin = this.start[offset + holding.from]!;
      if (holding.unit !== unit || !isThen(begin)) return;
      if (found < 0 || begin < this.start[offset + holdings[found]!.from]!) found = at;
    });
    const step = holdings[found]!.from;
    const slot = (offset + step) * this.slots + opening[step]!.indexOf(found);
    return [this.washFrom[slot]!, this.washTo[slot]!];
  }

  /** Lays an item out after those that must come before it. False when this order cannot be laid out. */
  place(index: number): boolean {
    const { seen } = this;
    if (seen[index] !== 0) return true;
    seen[index] = 1;
    const { before } = this.items[index]!;
    for (let at = 0; at < before.length; at += 1) if (!this.place(before[at]!)) return false;
    const rows = this.rowsOfItem[index]!;
    if (index >= this.pieces) return this.wash(rows[0]!);
    for (let at = 0; at < rows.length; at += 1) if (!rows[at]!.isDone && !this.placeStep(rows[at]!)) return false;
    return true;
  }

  /** Washes the units a step comes into, once whoever stands in them has left. */
  private wash({ job, step, opening }: StepRow): boolean {
    const { compiled, minutes, unitTo, unitBy, leftBy } = this;
    let free = 0;
    for (let slot = 0; slot < opening.length; slot += 1) {
      const unit = opening[slot]!;
      if (!this.vacate(unit)) return false;
      const from = unitTo[unit]!;
      const washMin = unitBy[unit]! < 0 ? 0 : (compiled.washes[unit]?.[unitBy[unit]! * compiled.jobs.length + job] ?? 0);
      const washUses = compiled.washUses[unit]!;
      const washFrom = washMin > 0 ? minutes.earliestFit(washUses, from, washMin) : from;
      if (washFrom < 0) return false;
      if (washMin > 0) minutes.book(washUses, washFrom, washFrom + washMin, 1);
      this.cost += this.washPrice * washMin;
      this.washFrom[step * this.slots + slot] = washFrom;
      this.washTo[step * this.slots + slot] = washFrom + washMin;
      if (leftBy[unit]! >= 0) this.mustEnd[leftBy[unit]!] = washFrom;
      unitBy[unit] = job;
      this.heldBy[unit] = job;
      free = Math.max(free, washFrom + washMin);
    }
    this.free[step] = free;
    return true;
  }

  /** Lays out whatever stands in a unit to where it leaves it. False when that waits for what waits for it. */
  private vacate(unit: number): boolean {
    const index = this.heldBy[unit]!;
    if (index < 0) return true;
    const { offset, variants } = this.compiled.jobs[index]!;
    for (const holding of variants[this.ways[index]!]!.holdings) {
      // It may come into the same unit again later: what it stands in is what was washed for it.
      if (holding.unit === unit && this.free[offset + holding.from]! >= 0 && !this.place(this.pieceOf[offset + holding.to]!)) return false;
    }
    return this.heldBy[unit]! < 0;
  }

  private rowOf(job: number, step: number): StepRow {
    return this.rows.now[job]![step - this.compiled.jobs[job]!.offset]!;
  }

  /** Whether all of a job has its place: nothing is made of what waits in a circle. */
  private isLaid(index: number): boolean {
    const { offset, size } = this.compiled.jobs[index]!;
    for (let step = 0; step < size; step += 1) if (this.start[offset + step]! < 0) return false;
    return true;
  }

  private placeStep(row: StepRow): boolean {
    const { start, end, minutes } = this;
    const { job, step, duration, uses, incoming, inputs, opening, closing } = row;
    let from = row.releaseMin;
    for (let at = 0; at < inputs.length; at += 1) {
      const input = inputs[at]!;
      if (input.step < 0) {
        if (!this.isLaid(input.job)) return false;
        if (end[input.job]! > from) from = end[input.job]!;
        continue;
      }
      const begun = start[input.step]!;
      if (begun < 0) return false;
      from = Math.max(from, begun + this.rowOf(input.job, input.step).duration);
    }
    for (let at = 0; at < incoming.length; at += 1) {
      const before = start[incoming[at]!.from]!;
      // Two that wait for each other to leave a unit stand in a circle.
      if (before < 0) return false;
      if (before + incoming[at]!.min > from) from = before + incoming[at]!.min;
    }
    if (opening.length > 0) {
      if (this.free[step]! < 0 && !this.wash(row)) return false;
      if (this.free[step]! > from) from = this.free[step]!;
    }
    const fit = minutes.earliestFit(uses, from, duration);
    if (fit < 0) return false;
    minutes.book(uses, fit, fit + duration, 1);
    start[step] = fit;
    if (this.standing?.first[job] === step) this.cost += this.standing.costOf(job, start);
    for (let at = 0; at < incoming.length; at += 1) {
      const { from: before, max, isDone } = incoming[at]!;
      if (fit <= start[before]! + max || isDone) continue;
      if (!this.drawTogether(this.rowsInOrder[job]!)) return false;
      break;
    }
    for (let at = 0; at < closing.length; at += 1) {
      const { unit, untilEnd } = closing[at]!;
      this.unitTo[unit] = start[step] + (untilEnd ? duration : 0);
      this.leftBy[unit] = step;
      this.heldBy[unit] = NEVER;
    }
    const soonest = start[step] + row.tail;
    if (soonest > end[job]!) {
      this.cost += this.lateCost(job, soonest) - this.lateCost(job, end[job]!);
      end[job] = soonest;
    }
    return true;
  }

  /** Whatever of a job is too long before what follows it comes later. */
  private drawTogether(rows: readonly StepRow[]): boolean {
    const { start } = this;
    for (let round = 0; round < MAX_ROUNDS; round += 1) {
      let isChanged = false;
      for (let at = rows.length - 1; at >= 0; at -= 1) {
        const { step, incoming } = rows[at]!;
        if (start[step]! < 0) continue;
        for (const lag of incoming) {
          const soonest = start[step]! - lag.max;
          if (start[lag.from]! >= soonest || lag.isDone) continue;
          if (!this.comesLater(this.rowOf(rows[at]!.job, lag.from), soonest)) return false;
          isChanged = true;
        }
      }
      if (!isChanged) return true;
      for (const row of rows) {
        const at = start[row.step]!;
        if (at < 0 || row.isDone) continue;
        let from = at;
        for (const lag of row.incoming) from = Math.max(from, start[lag.from]! + lag.min);
        if (from > at && !this.comesLater(row, from)) return false;
      }
    }
    return false;
  }

  private comesLater({ job, step, uses, duration, closing }: StepRow, from: number): boolean {
    const { start, minutes, standing } = this;
    minutes.book(uses, start[step]!, start[step]! + duration, -1);
    const fit = minutes.earliestFit(uses, from, duration);
    if (fit < 0) return false;
    minutes.book(uses, fit, fit + duration, 1);
    if (standing?.isInTheWay(job, step - this.compiled.jobs[job]!.offset, fit + duration, start) === true) return false;
    const begins = standing?.first[job] === step ? standing : null;
    this.cost -= begins?.costOf(job, start) ?? 0;
    start[step] = fit;
    this.cost += begins?.costOf(job, start) ?? 0;
    for (const { unit, untilEnd } of closing) {
      const to = fit + (untilEnd ? duration : 0);
      // Who has asked for the unit since has been told when it is free.
      if (to > this.mustEnd[step]!) return false;
      if (this.leftBy[unit] === step) this.unitTo[unit] = to;
    }
    return true;
  }
}
