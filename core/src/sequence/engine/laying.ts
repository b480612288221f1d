import type { Random } from '../random';
import type { Compiled } from './compile';
import { isSame } from './items';
import type { Item } from './items';
import { isAlike } from './timetable';
import type { Saved, Timetable } from './timetable';
import { Weaving } from './weaving';

/**
 * How things are laid out: whole, each as soon as it fits; or piece by piece, whatever else comes in between: each as soon as it fits, or from the end, each as late as
 * it may be.
 */
export type Manner = 'soon' | 'woven' | 'late';

/** How far an order is laid out, beside what is on the table. */
export interface Laid {
  readonly seen: Uint8Array;
  readonly failed: Uint8Array;
  readonly heldBy: Int32Array;
}

const NEVER = -1;

/** Lays things out on the table one after the other, each after those that must come before it. */
export class Laying {
  /** The way of doing each job that is laid out piece by piece; −1 = it is laid out whole, in the way that ends soonest. */
  ways: ArrayLike<number> = [];
  /** By when each job is to end, laid out from the end: one that cannot finds no place. Null = for when it is wanted; what cannot comes soon after. */
  latest: Int32Array | null = null;
  private readonly compiled: Compiled;
  private readonly table: Timetable;
  private readonly items: readonly Item[];
  private readonly manner: Manner;
  private readonly random: Random;
  private readonly weaving: Weaving;
  private readonly spare: Saved;
  /** Jobs that are in order here; the others stand. */
  private readonly ordered: ReadonlySet<number>;
  /** Which items are laid out. */
  private readonly seen: Uint8Array;
  /** Whose job found no place. */
  private readonly failed: Uint8Array;
  /** The job that has begun in each unit and is not laid out to where it leaves it; −1 = none. */
  private readonly heldBy: Int32Array;
  private readonly ends: Float64Array;
  /** The item of each step. */
  private readonly itemOf: Int32Array;
  /** Whether all ways of its job are one for an item. */
  private readonly same: readonly boolean[];

  constructor(table: Timetable, items: readonly Item[], ordered: readonly number[], manner: Manner, random: Random) {
    const { compiled } = table;
    this.table = table;
    this.compiled = compiled;
    this.items = items;
    this.manner = manner;
    this.random = random;
    this.weaving = new Weaving(table, manner === 'late');
    this.spare = table.save();
    this.ordered = new Set(ordered);
    this.seen = new Uint8Array(items.length);
    this.failed = new Uint8Array(compiled.jobs.length);
    this.heldBy = new Int32Array(compiled.unitCount).fill(NEVER);
    this.ends = new Float64Array(compiled.jobs.reduce((most, job) => Math.max(most, job.variants.length), 0));
    this.itemOf = new Int32Array(compiled.stepCount).fill(NEVER);
    items.forEach(({ job, block }, index) => {
      for (const step of block) this.itemOf[compiled.jobs[job]!.offset + step] = index;
    });
    this.same = items.map(({ job, block }) => isSame(compiled.jobs[job]!.variants, block));
  }

  begin(): void {
    this.seen.fill(0);
    this.failed.fill(0);
    this.heldBy.fill(NEVER);
  }

  save(into?: Laid): Laid {
    if (into === undefined) return { seen: this.seen.slice(), failed: this.failed.slice(), heldBy: this.heldBy.slice() };
    into.seen.set(this.seen);
    into.failed.set(this.failed);
    into.heldBy.set(this.heldBy);
    return into;
  }

  restore(laid: Laid): void {
    this.seen.set(laid.seen);
    this.failed.set(laid.failed);
    this.heldBy.set(laid.heldBy);
  }

  isAt(laid: Laid): boolean {
    return isAlike(this.seen, laid.seen) && isAlike(this.failed, laid.failed) && isAlike(this.heldBy, laid.heldBy);
  }

  /** Leaves a job out from the beginning. */
  leave(job: number): void {
    this.failed[job] = 1;
  }

  hasFailed(job: number): boolean {
    return this.failed[job] !== 0;
  }

  /** Lays an item out after those that must come before it. False when this order cannot be laid out. */
  place(index: number): boolean {
    const { seen, failed, items } = this;
    if (seen[index] !== 0) return true;
    seen[index] = 1;
    const item = items[index]!;
    for (const before of item.before) if (!this.place(before)) return false;
    if (failed[item.job] !== 0) return true;
    if (this.manner !== 'soon') return this.isLaidWhole(item.job) ? this.placeWhole(item.job) : this.weave(item);
    if (this.isLaid(item) || this.placeSoon(item)) return true;
    // What finds no place beside its other parts is laid out whole; what finds none at all leaves the rest of the day without it.
    if (!this.takeOut(item.job)) return false;
    const whole = this.wholeOf(item.job);
    return (whole.block.length > item.block.length && this.placeSoon(whole)) || this.leaveOut(item.job);
  }

  private wholeOf(job: number): Item {
    return { job, block: this.compiled.jobs[job]!.partitions.at(-1)![0]!, before: [] };
  }

  /** Whether a job is laid out whole among pieces: no way of doing it is known, or there is nothing it is wanted for. */
  private isLaidWhole(index: number): boolean {
    if (this.ways[index]! < 0) return true;
    const { job, consumers } = this.compiled.jobs[index]!;
    return this.manner === 'late' && this.latest === null && job.readyByMin === null && consumers.length === 0;
  }

  /** A whole job, where its first piece stands in the order. */
  private placeWhole(job: number): boolean {
    return this.table.isPlaced(job) || this.placeSoon(this.wholeOf(job)) || this.leaveOut(job);
  }

  /** Lays a piece out among those of other jobs. What stands in a unit it needs is laid out to its other end first. */
  private weave(item: Item): boolean {
    const { table } = this;
    const job = this.compiled.jobs[item.job]!;
    const isLate = this.manner === 'late';
    if (table.isPlaced(item.job) || item.block.every((step) => job.doneStart[step]! >= 0)) return true;
    if (!isLate) for (const input of job.inputs) if (item.block.includes(input.step) && !table.isPlaced(input.job)) return this.leaveOut(item.job);
    // Two that wait for each other to leave a unit stand in a circle.
    if (!item.before.every((before) => this.failed[this.items[before]!.job] !== 0 || this.isThere(this.items[before]!))) return false;
    const way = this.ways[item.job]!;
    const variant = job.variants[way]!;
    for (const step of item.block) for (const at of (isLate ? variant.closing : variant.opening)[step]!) if (!this.vacate(variant.holdings[at]!.unit)) return false;
    if (!this.weaving.place(item.job, way, item.block, this.latestOf(item.job)))
      return isLate && this.latest === null && this.takeOut(item.job) && (this.placeAfter(item.job) || this.leaveOut(item.job));
    for (const { unit, from, to } of variant.holdings) {
      const [first, last] = isLate ? [to, from] : [from, to];
      if (item.block.includes(last)) this.heldBy[unit] = NEVER;
      else if (item.block.includes(first)) this.heldBy[unit] = item.job;
    }
    return true;
  }

  private latestOf(index: number): number {
    const { readyByMin, bufferMin } = this.compiled.jobs[index]!.job;
    return this.latest?.[index] ?? (readyByMin === null ? this.compiled.horizon : readyByMin - bufferMin);
  }

  /** Lays out whatever stands in a unit to where it leaves it; from the end, to where it comes into it. */
  private vacate(unit: number): boolean {
    const index = this.heldBy[unit]!;
    if (index < 0) return true;
    const { offset, variants } = this.compiled.jobs[index]!;
    return variants[this.ways[index]!]!.holdings.every(
      (holding) => holding.unit !== unit || this.place(this.itemOf[offset + (this.manner === 'late' ? holding.from : holding.to)]!),
    );
  }

  /** Takes out what is laid of a job. False when a wash finds no hands then. */
  private takeOut(job: number): boolean {
    const { table } = this;
    if (this.manner !== 'soon') {
      for (let unit = 0; unit < this.heldBy.length; unit += 1) if (this.heldBy[unit] === job) this.heldBy[unit] = NEVER;
      return this.weaving.remove(job);
    }
    for (const item of this.items) {
      if (item.job === job && this.isLaid(item) && !table.withdrawPart(job, table.variantOf[job]!, item.block)) return false;
    }
    table.variantOf[job] = NEVER;
    return true;
  }

  /** A job that finds no place, and whatever would be made of it: nothing stands on what is not there. */
  private leaveOut(job: number): boolean {
    if (this.failed[job] !== 0) return true;
    this.failed[job] = 1;
    if (!this.takeOut(job)) return false;
    for (const consumer of this.compiled.jobs[job]!.consumers) if (this.ordered.has(consumer.job) && !this.leaveOut(consumer.job)) return false;
    return true;
  }

  /** What does not fit before it is wanted is laid out whole, as soon after as it can be. */
  private placeAfter(index: number): boolean {
    const { table } = this;
    const { variants, partitions, job } = this.compiled.jobs[index]!;
    let best = -1;
    let bestEnd = Number.POSITIVE_INFINITY;
    table.save(this.spare);
    const partition = partitions.length - 1;
    for (let variant = 0; variant < variants.length; variant += 1) {
      const end = table.placeSoon(index, variant, partition, job.readyByMin ?? 0, false);
      if (end >= 0 && end < bestEnd) [best, bestEnd] = [variant, end];
      if (end >= 0) table.restore(this.spare);
    }
    return best >= 0 && table.placeSoon(index, best, partition, job.readyByMin ?? 0, true) >= 0;
  }

  /** Whether it is the same in every way of its job; a whole job is not among the items, and has as many as it has. */
  private isSame({ job, block }: Item): boolean {
    const index = this.itemOf[this.compiled.jobs[job]!.offset + block[0]!]!;
    return this.items[index]!.block === block && this.same[index]!;
  }

  /** Whether all of it has its place, or is done. */
  private isThere({ job, block }: Item): boolean {
    const { offset } = this.compiled.jobs[job]!;
    return block.every((step) => this.table.start[offset + step]! >= 0);
  }

  private isLaid(item: Item): boolean {
    return this.isThere(item) && !item.block.every((step) => this.compiled.jobs[item.job]!.doneStart[step]! >= 0);
  }

  private placeSoon(item: Item): boolean {
    const { table } = this;
    const job = this.compiled.jobs[item.job]!;
    for (const input of job.inputs) if (item.block.includes(input.step) && !table.isPlaced(input.job)) return false;
    const many = job.variants.length;
    // What is the same in every way goes the way the rest of its job goes.
    if (many === 1 || this.isSame(item)) return table.placePartSoon(item.job, Math.max(0, table.variantOf[item.job]!), item.block);
    // By when each way could end if every wash found its hands; whichever really ends first by that is taken.
    const { ends } = this;
    // What ends with another part cannot be cut off by its own end.
    const cuts = item.block.includes(job.sink);
    let cut = Number.POSITIVE_INFINITY;
    let kept = Number.POSITIVE_INFINITY;
    for (let variant = 0; variant < many; variant += 1) {
      const end = table.soonestEnd(item.job, variant, item.block, cut);
      ends[variant] = end < 0 ? Number.POSITIVE_INFINITY : end + this.random() * 0.5;
      if (end >= 0 && ends[variant]! < kept) {
        kept = ends[variant]!;
        table.keep();
      }
      if (cuts && end >= 0) cut = Math.min(cut, end);
    }
    let best = -1;
    let bestEnd = Number.POSITIVE_INFINITY;
    let lies = -1;
    table.save(this.spare);
    for (;;) {
      let next = -1;
      for (let variant = 0; variant < many; variant += 1) if (ends[variant]! < (next < 0 ? bestEnd : ends[next]!)) next = variant;
      if (next < 0) break;
      const isKept = ends[next] === kept;
      ends[next] = Number.POSITIVE_INFINITY;
      if (lies >= 0) {
        // Taking it out again may wash elsewhere, or find no hands to.
        table.restore(this.spare);
        lies = -1;
      }
      if (!(isKept ? table.placePartKept(item.job, next, item.block) : table.placePartSoon(item.job, next, item.block))) continue;
      lies = next;
      const end = table.end[item.job]!;
      if (end < bestEnd) [best, bestEnd] = [next, end];
    }
    if (best === lies) return best >= 0;
    if (lies >= 0) {
      table.restore(this.spare);
    }
    return best >= 0 && table.placePartSoon(item.job, best, item.block);
  }
}
