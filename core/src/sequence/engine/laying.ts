import type { Random } from '../random';
import type { Compiled } from './compile';
import { isSame } from './items';
import type { Item } from './items';
import { isAlike } from './timetable';
import type { Saved, Timetable } from './timetable';
import { Weaving } from './weaving';

/** How things are laid out: each as soon as it fits; each as late as it may be; or piece by piece, each as soon as it fits, whatever else comes in between. */
export type Manner = 'soon' | 'late' | 'woven';

/** How far an order is laid out, beside what is on the table. */
export interface Laid {
  readonly seen: Uint8Array;
  readonly failed: Uint8Array;
  readonly heldBy: Int32Array;
}

const NEVER = -1;

/** Lays things out on the table one after the other, each after those that must come before it. */
export class Laying {
  /** The way of doing each job that is laid out woven; −1 = it is laid out whole, in the way that ends soonest. */
  ways: readonly number[] = [];
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
    this.weaving = new Weaving(table);
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
    if (this.manner === 'woven') return this.ways[item.job]! < 0 ? this.placeWhole(item.job) : this.weave(item);
    if (this.isLaid(item) || (this.manner === 'late' ? this.placeLate(item) : this.placeSoon(item))) return true;
    // What finds no place beside its other parts is laid out whole; what finds none at all leaves the rest of the day without it.
    if (!this.takeOut(item.job)) return false;
    if (this.manner === 'late' ? this.placeAfter(item.job) : this.wholeOf(item.job).block.length > item.block.length && this.placeSoon(this.wholeOf(item.job))) return true;
    return this.leaveOut(item.job);
  }

  private wholeOf(job: number): Item {
    return { job, block: this.compiled.jobs[job]!.partitions.at(-1)![0]!, before: [] };
  }

  /** A job in no way that is known: whole, where its first piece stands in the order. */
  private placeWhole(job: number): boolean {
    return this.table.isPlaced(job) || this.placeSoon(this.wholeOf(job)) || this.leaveOut(job);
  }

  /** Lays a piece out among those of other jobs. What stands in a unit it needs leaves that first. */
  private weave(item: Item): boolean {
    const { table } = this;
    const job = this.compiled.jobs[item.job]!;
    if (item.block.every((step) => job.doneStart[step]! >= 0)) return true;
    for (const input of job.inputs) if (item.block.includes(input.step) && !table.isPlaced(input.job)) return this.leaveOut(item.job);
    // Two that wait for each other to leave a unit stand in a circle.
    if (!item.before.every((before) => this.isThere(this.items[before]!))) return false;
    const way = this.ways[item.job]!;
    const variant = job.variants[way]!;
    for (const step of item.block) for (const at of variant.opening[step]!) if (!this.leave(variant.holdings[at]!.unit)) return false;
    if (!this.weaving.place(item.job, way, item.block)) return false;
    for (const { unit, from, to } of variant.holdings) {
      if (item.block.includes(to)) this.heldBy[unit] = NEVER;
      else if (item.block.includes(from)) this.heldBy[unit] = item.job;
    }
    return true;
  }

  /** Lays out whatever stands in a unit to where it leaves it. */
  private leave(unit: number): boolean {
    const index = this.heldBy[unit]!;
    if (index < 0) return true;
    const { offset, variants } = this.compiled.jobs[index]!;
    return variants[this.ways[index]!]!.holdings.every((holding) => holding.unit !== unit || this.place(this.itemOf[offset + holding.to]!));
  }

  /** Takes out what is laid of a job. False when a wash finds no hands then. */
  private takeOut(job: number): boolean {
    const { table } = this;
    if (this.manner === 'woven') {
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

  /** As late as it may be for its ready-by and what takes from it; of the ways there are the one that begins last. */
  private placeLate(item: Item): boolean {
    const { table } = this;
    const job = this.compiled.jobs[item.job]!;
    const { readyByMin, bufferMin } = job.job;
    if (readyByMin === null && job.consumers.length === 0) return this.placeSoon(item);
    const target = readyByMin === null ? this.compiled.horizon : readyByMin - bufferMin;
    const many = job.variants.length;
    if (many === 1 || this.isSame(item)) return table.placePartLate(item.job, Math.max(0, table.variantOf[item.job]!), item.block, target);
    let best = -1;
    let bestStart = -1;
    let lies = false;
    table.save(this.spare);
    for (let variant = 0; variant < many; variant += 1) {
      if (lies) table.restore(this.spare);
      lies = table.placePartLate(item.job, variant, item.block, target);
      const start = lies ? table.start[job.offset + item.block[0]!]! + this.random() * 0.5 : -1;
      if (start > bestStart) [best, bestStart] = [variant, start];
    }
    if (best === many - 1) return true;
    if (lies) table.restore(this.spare);
    return best >= 0 && table.placePartLate(item.job, best, item.block, target);
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
    if (many === 1 || this.isSame(item)) return table.placePartSoon(item.job, 0, item.block);
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
