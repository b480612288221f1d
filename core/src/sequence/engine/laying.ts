import type { Random } from '../random';
import { isSame } from './items';
import type { Item } from './items';
import type { Saved, Timetable } from './timetable';

/**
 * How things are laid out: whole, each as soon as it fits; or piece by piece, whatever else comes in between: each as soon as it fits, or from the end, each as late as
 * it may be. As the kernel counts them (core/assembly/laying.ts).
 */
const MANNERS = ['soon', 'woven', 'late'] as const;
export type Manner = (typeof MANNERS)[number];

/** How far an order was laid out, beside what was on the table: where it is in the kernel's memory. */
export interface Laid {
  readonly address: number;
}

const NEVER = -1;
const BYTES: number = Int32Array.BYTES_PER_ELEMENT;

/** Lays things out on the table one after the other, each after those that must come before it: in the kernel. */
export class Laying {
  private readonly table: Timetable;
  private readonly random: Random;
  private readonly items: number;
  private readonly units: number;
  /** Where it is in memory; the ways jobs are done in; how far it has come; and when each item begins and ends. */
  private readonly address: number;
  private readonly ways: number;
  private readonly laid: number;
  private readonly laidWords: number;
  private readonly begins: number;
  private readonly ends: number;

  /** `isPushed`: what is laid out is to be pushed back by it. */
  constructor(table: Timetable, items: readonly Item[], ordered: readonly number[], manner: Manner, random: Random, isPushed = false) {
    const { compiled, kernel } = table;
    const { jobs, stepCount, unitCount } = compiled;
    this.table = table;
    this.random = random;
    this.items = items.length;
    this.units = unitCount;
    const itemOf = new Int32Array(stepCount).fill(NEVER);
    items.forEach(({ job, block }, index) => {
      for (const step of block) itemOf[jobs[job]!.offset + step] = index;
    });
    const isOrdered = new Int32Array(jobs.length);
    for (const job of ordered) isOrdered[job] = 1;
    this.ways = kernel.row(new Int32Array(jobs.length).fill(NEVER));
    this.begins = kernel.room(items.length);
    this.ends = kernel.room(items.length);
    this.laidWords = items.length + jobs.length + unitCount;
    this.laid = kernel.room(this.laidWords);
    const failed = this.laid + items.length * BYTES;
    this.address = kernel.row([
      MANNERS.indexOf(manner),
      items.length,
      kernel.row(items.map(({ job }) => job)),
      kernel.row(items.map(({ block }) => table.ways.block(block))),
      kernel.rowOfLists(items.map(({ before }) => before)),
      kernel.row(items.map(({ job, block }) => Number(isSame(jobs[job]!.variants, block)))),
      kernel.row(itemOf),
      kernel.row(isOrdered),
      this.ways,
      isPushed ? kernel.room(jobs.length) : 0,
      this.laid,
      failed,
      failed + jobs.length * BYTES,
    ]);
    this.begin();
  }

  /** The way of doing each job that is laid out piece by piece; −1 = it is laid out whole, in the way that ends soonest. */
  setWays(ways: ArrayLike<number>): void {
    this.table.kernel.write(this.ways, ways);
  }

  begin(): void {
    const words = this.table.kernel.view(this.laid, this.laidWords);
    words.fill(0);
    words.subarray(this.laidWords - this.units).fill(NEVER);
  }

  save(into: Laid = { address: this.table.kernel.room(this.laidWords) }): Laid {
    this.table.kernel.run.copy(into.address, this.laid, this.laidWords * BYTES);
    return into;
  }

  restore(laid: Laid): void {
    this.table.kernel.run.copy(this.laid, laid.address, this.laidWords * BYTES);
  }

  isAt(laid: Laid): boolean {
    return this.table.kernel.run.isAlike(this.laid, laid.address, this.laidWords * BYTES) !== 0;
  }

  /** Which items were laid out then: 0 = not. */
  seenIn(laid: Laid): Int32Array {
    return this.table.kernel.view(laid.address, this.items);
  }

  /** Lays an item out after those that must come before it. False when this order cannot be laid out. */
  place(item: number): boolean {
    const { kernel } = this.table;
    kernel.random = this.random;
    return kernel.run.lay(this.address, item) !== 0;
  }

  /** When each item begins and ends, as it is laid out; 0 where its job found no place. */
  lies(): readonly [Int32Array, Int32Array] {
    const { kernel } = this.table;
    kernel.run.lie(this.address, this.begins, this.ends);
    return [kernel.view(this.begins, this.items), kernel.view(this.ends, this.items)];
  }

  /** Pushes what is on the table back towards when it is wanted, beside what was there at first. Leaves the better of the two on the table; gives its cost. */
  pushBack(root: Saved, cost: number): number {
    const { kernel } = this.table;
    kernel.random = this.random;
    return kernel.run.pushBack(this.address, root.address, cost);
  }
}
