import type { Random } from '../random';
import type { Compiled } from './compile';
import type { Saved, Timetable } from './timetable';

/** A job, or one part of it where its parts are free of each other. */
interface Item {
  readonly job: number;
  readonly block: readonly number[];
  readonly before: readonly number[];
}

/** How often a move looks for what holds up the end. A choice of the search. */
const CRITICAL = 0.6;

/**
 * The other half of the search: a plan as an order. Everything is laid out as soon as it fits, in that order, then pushed back from the end towards its
 * ready-by (justification: Valls, Ballestín & Quintanilla 2005); moving one thing in the order moves everything after it. It finds what taking a few
 * jobs out cannot, because there the rest stands still.
 */
export class Lists {
  private readonly compiled: Compiled;
  private readonly table: Timetable;
  private readonly root: Saved;
  private readonly spare: Saved;
  private readonly random: Random;
  readonly items: readonly Item[];
  private readonly pushes: boolean;
  private readonly parts: readonly Item[];
  /** Items that want something an item wants. */
  private readonly rivals: readonly (readonly number[])[];
  private critical: readonly (readonly [number, number])[] | null = null;
  private readonly soonStart: Int32Array;
  private readonly soonEnd: Int32Array;
  private readonly decodedStart: Int32Array;
  private readonly decodedEnd: Int32Array;
  private readonly longestWash: number;
  order: number[];
  cost: number = Number.POSITIVE_INFINITY;

  constructor(table: Timetable, root: Saved, random: Random, movable: readonly number[]) {
    this.table = table;
    this.compiled = table.compiled;
    this.root = root;
    this.spare = table.save();
    this.random = random;
    this.pushes = this.compiled.jobs.some((job) => job.job.readyByMin !== null);
    const divide = (whole: (job: number) => boolean): Item[] => {
      const items: Item[] = [];
      const last = new Map<number, number[]>();
      for (const index of movable) {
        const job = this.compiled.jobs[index]!;
        const blocks = whole(index) ? job.partitions.at(-1)! : job.partitions[0]!;
        const own: number[] = [];
        for (const block of blocks) {
          // Parts are in an order that respects the lags; only those that lead here must come first.
          const leads = own.filter((at) => items[at]!.block.some((step) => block.some((to) => job.variants[0]!.incoming[to]!.some((lag) => lag.from === step))));
          own.push(items.push({ job: index, block, before: leads }) - 1);
        }
        last.set(index, own);
      }
      return items.map((item) => ({
        ...item,
        before: [...item.before, ...this.compiled.jobs[item.job]!.inputs.flatMap((input) => (item.block.includes(input.step) ? (last.get(input.job) ?? []) : []))],
      }));
    };
    const bound = (index: number): boolean => {
      const job = this.compiled.jobs[index]!;
      return (
        this.compiled.problem.lines.length > 0 || job.variants.length > 1 || job.variants[0]!.incoming.some((lags) => lags.some((lag) => lag.max !== Number.POSITIVE_INFINITY))
      );
    };
    this.items = divide(bound);
    this.parts = divide(() => false);
    this.order = this.items.map((_, index) => index);
    this.soonStart = new Int32Array(this.items.length);
    this.soonEnd = new Int32Array(this.items.length);
    this.decodedStart = new Int32Array(this.items.length);
    this.decodedEnd = new Int32Array(this.items.length);
    this.longestWash = this.compiled.washes.reduce((longest, washes) => washes?.reduce((most, min) => Math.max(most, min), longest) ?? longest, 0);
    const wants = this.items.map((item) => this.wantsOf(item));
    this.rivals = this.items.map((_, index) => this.items.flatMap((__, other) => (other !== index && [...wants[index]!].some((one) => wants[other]!.has(one)) ? [other] : [])));
  }

  /** What an item takes of the station: resources by their index, units by theirs, below zero. */
  private wantsOf({ job, block }: Item): ReadonlySet<number> {
    const wants = new Set<number>();
    for (const variant of this.compiled.jobs[job]!.variants) {
      for (const step of block) for (let at = 0; at < variant.uses[step]!.length; at += 2) wants.add(variant.uses[step]![at]!);
      for (const holding of variant.holdings) if (block.includes(holding.to)) wants.add(-1 - holding.unit);
    }
    return wants;
  }

  /** The order the plan on the table has. */
  adopt(): void {
    const at = (item: number): number => {
      const { job, block } = this.items[item]!;
      return this.table.start[this.compiled.jobs[job]!.offset + block[0]!]!;
    };
    this.order = this.items.map((_, index) => index).sort((left, right) => at(left) - at(right));
  }

  /** All items by a number of their job, smallest first. */
  sortedBy(key: (job: number) => number): number[] {
    return this.items.map((_, index) => index).sort((left, right) => key(this.items[left]!.job) - key(this.items[right]!.job));
  }

  /**
   * One thing moved past another that wants the same: moving it past what it never meets would change nothing. Mostly past what holds up the end of the day or
   * something late.
   */
  neighbour(): number[] {
    const order = this.order.slice();
    if (order.length < 2) return order;
    const at = (item: number): number => order.indexOf(item);
    if (this.random() < CRITICAL) {
      this.critical ??= this.criticalPairs();
      if (this.critical.length > 0) {
        const [item, before] = this.critical[this.pick(this.critical.length)]!;
        const [from, to] = [at(item), at(before)];
        if (this.random() < 0.5) {
          order.splice(from, 1);
          order.splice(to < from ? to : to - 1, 0, item);
        } else {
          order.splice(to, 1);
          order.splice(from > to ? from : from + 1, 0, before);
        }
        return order;
      }
    }
    const from = this.pick(order.length);
    const rivals = this.rivals[order[from]!]!;
    if (rivals.length === 0) return order;
    let to = at(rivals[this.pick(rivals.length)]!);
    // Mostly not far: of a few, the nearest.
    for (let tries = this.pick(4); tries > 0; tries -= 1) {
      const other = at(rivals[this.pick(rivals.length)]!);
      if (Math.abs(other - from) < Math.abs(to - from)) to = other;
    }
    if (this.random() < 0.7) {
      const [item] = order.splice(from, 1);
      order.splice(to, 0, item!);
    } else [order[from], order[to]] = [order[to]!, order[from]!];
    return order;
  }

  /** Takes an order that has just been decoded. */
  accept(order: number[], cost: number): void {
    this.order = order;
    this.cost = cost;
    this.critical = null;
    this.soonStart.set(this.decodedStart);
    this.soonEnd.set(this.decodedEnd);
  }

  /** Along the ways that end latest or late: each item with the one that ended just before it began and wants the same. */
  private criticalPairs(): readonly (readonly [number, number])[] {
    const { compiled, items, soonStart, soonEnd } = this;
    const { weights } = compiled.problem;
    let last = 0;
    for (let index = 0; index < items.length; index += 1) last = Math.max(last, soonEnd[index]!);
    const queue: number[] = [];
    const seen = new Uint8Array(items.length);
    const add = (index: number): void => {
      if (seen[index] !== 0) return;
      seen[index] = 1;
      queue.push(index);
    };
    items.forEach((item, index) => {
      const { readyByMin, lateWeight } = compiled.jobs[item.job]!.job;
      const late = weights.late * lateWeight > 0 && readyByMin !== null && soonEnd[index]! > readyByMin;
      if (late || (weights.makespan > 0 && soonEnd[index] === last)) add(index);
    });
    const pairs: (readonly [number, number])[] = [];
    for (let next = 0; next < queue.length; next += 1) {
      const index = queue[next]!;
      const start = soonStart[index]!;
      for (const before of items[index]!.before) if (soonEnd[before] === start) add(before);
      for (const rival of this.rivals[index]!) {
        const gap = start - soonEnd[rival]!;
        if (gap < 0 || gap > this.longestWash) continue;
        pairs.push([index, rival]);
        add(rival);
      }
    }
    return pairs;
  }

  private pick(limit: number): number {
    return Math.floor(this.random() * limit);
  }

  /** Lays an order out on the table. Gives its cost. */
  decode(order: readonly number[]): number {
    const { table } = this;
    table.restore(this.root);
    const { items } = this;
    const seen = new Uint8Array(items.length);
    const failed = new Uint8Array(this.compiled.jobs.length);
    const laid: number[] = [];
    const place = (index: number): boolean => {
      if (seen[index] !== 0) return true;
      seen[index] = 1;
      const item = items[index]!;
      if (!item.before.every(place)) return false;
      if (failed[item.job] === 0 && this.placeSoon(item)) {
        laid.push(index);
        return true;
      }
      if (failed[item.job] !== 0) return true;
      failed[item.job] = 1;
      // What finds no place at all takes its other parts with it; the rest of the day is laid out without it.
      return (
        laid.filter((other) => items[other]!.job === item.job).every((other) => table.withdrawPart(item.job, table.variantOf[item.job]!, items[other]!.block)) &&
        this.forget(item.job)
      );
    };
    if (!order.every(place)) return Number.POSITIVE_INFINITY;
    items.forEach((item, index) => {
      if (failed[item.job] !== 0) {
        this.decodedStart[index] = 0;
        this.decodedEnd[index] = 0;
        return;
      }
      const { offset, variants } = this.compiled.jobs[item.job]!;
      const variant = variants[table.variantOf[item.job]!]!;
      let start = Number.POSITIVE_INFINITY;
      let end = 0;
      for (const step of item.block) {
        const at = table.start[offset + step]!;
        if (at < start) start = at;
        if (at + variant.durations[step]! > end) end = at + variant.durations[step]!;
      }
      this.decodedStart[index] = start;
      this.decodedEnd[index] = end;
    });
    const cost = table.cost();
    return this.pushes ? this.push(cost) : cost;
  }

  private forget(job: number): true {
    this.table.variantOf[job] = -1;
    return true;
  }

  private placeSoon(item: Item): boolean {
    const { table } = this;
    const job = this.compiled.jobs[item.job]!;
    for (const input of job.inputs) if (item.block.includes(input.step) && !table.isPlaced(input.job)) return false;
    if (job.variants.length === 1) return table.placePartSoon(item.job, 0, item.block);
    let best = -1;
    let bestEnd = Number.POSITIVE_INFINITY;
    const before = table.save(this.spare);
    for (let variant = 0; variant < job.variants.length; variant += 1) {
      if (!table.placePartSoon(item.job, variant, item.block)) continue;
      const end = table.end[item.job]! + this.random() * 0.5;
      if (end < bestEnd) [best, bestEnd] = [variant, end];
      // Taking it out again may wash elsewhere, or find no hands to.
      table.restore(before);
    }
    return best >= 0 && table.placePartSoon(item.job, best, item.block);
  }

  /** Pushes what is laid out back towards when it is wanted. Leaves the better of the two on the table. */
  private push(cost: number): number {
    const { table, compiled } = this;
    const saved = table.save();
    const start = (item: Item): number => saved.start[compiled.jobs[item.job]!.offset + item.block.at(-1)!]!;
    const order = this.parts.filter((item) => saved.end[item.job]! >= 0).sort((left, right) => start(right) - start(left));
    table.restore(this.root);
    for (const item of order) {
      const { readyByMin } = compiled.jobs[item.job]!.job;
      const end = saved.end[item.job]!;
      const target = readyByMin === null ? compiled.horizon : Math.max(readyByMin, end);
      if (table.placePartLate(item.job, saved.variantOf[item.job]!, item.block, readyByMin === null && compiled.jobs[item.job]!.consumers.length === 0 ? end : target)) continue;
      table.restore(saved);
      return cost;
    }
    const pushed = table.cost();
    if (pushed <= cost) return pushed;
    table.restore(saved);
    return cost;
  }
}
