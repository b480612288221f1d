import type { Random } from '../random';
import type { Compiled, Variant } from './compile';
import type { Saved, Timetable } from './timetable';
import type { Waiting, Waits } from './waits';

/** A job, or one part of it where its parts are free of each other. */
interface Item {
  readonly job: number;
  readonly block: readonly number[];
  readonly before: readonly number[];
}

/** What is put in order: whole jobs, or their parts where that is another thing; or parts laid out from the end, each as late as it may be. */
export type ListKind = 'whole' | 'parts' | 'late';

interface Trace {
  readonly saved: Saved;
  readonly seen: Uint8Array;
  readonly failed: Uint8Array;
}

/** How many traces of an order are kept. A choice of the search. */
const TRACES = 20;

/** How often a move looks for what holds up the end. A choice of the search. */
const CRITICAL = 0.6;

/** How often a move changes a wait, at least and at most: in between as often as such moves have lately been for the better. Choices of the search. */
const LEAST_WAITS = 0.1;
const MOST_WAITS = 0.6;
const REMEMBERS = 0.995;

/** Whether a part of a job is the same in every way of doing it, and holds nothing. */
function isSame(variants: readonly Variant[], block: readonly number[]): boolean {
  const [first] = variants;
  return variants.every((variant) =>
    block.every(
      (step) =>
        variant.closing[step]!.length === 0 &&
        variant.opening[step]!.length === 0 &&
        variant.durations[step] === first!.durations[step] &&
        variant.uses[step]!.join() === first!.uses[step]!.join() &&
        variant.incoming[step]!.every((lag, at) => lag.min === first!.incoming[step]![at]!.min && lag.max === first!.incoming[step]![at]!.max),
    ),
  );
}

/**
 * The other half of the search: a plan as an order. Everything is laid out as soon as it fits, in that order, then pushed back from the end towards its
 * ready-by (justification: Valls, Ballestín & Quintanilla 2005); moving one thing in the order moves everything after it. With the order go waits that are longer
 * than they must be. It finds what taking a few jobs out cannot, because there the rest stands still.
 */
export class Lists {
  private readonly compiled: Compiled;
  private readonly table: Timetable;
  private readonly root: Saved;
  private readonly spare: Saved;
  private readonly random: Random;
  readonly items: readonly Item[];
  private readonly pushes: boolean;
  readonly late: boolean;
  private readonly parts: readonly Item[];
  /** Jobs that are in order here; the others stand. */
  private readonly ordered: ReadonlySet<number>;
  /** Items that want something an item wants. */
  private readonly rivals: readonly (readonly number[])[];
  private critical: readonly (readonly [number, number])[] | null = null;
  private readonly soonStart: Int32Array;
  private readonly soonEnd: Int32Array;
  private readonly decodedStart: Int32Array;
  private readonly decodedEnd: Int32Array;
  private readonly longestWash: number;
  /** Which items are laid out, and whose job found no place, in the order that is being laid out. */
  private readonly seen: Uint8Array;
  private readonly failed: Uint8Array;
  private readonly ends: Float64Array;
  /** Whether all ways of its job are one for an item. */
  private readonly same: Map<Item, boolean> = new Map();
  /** How the table looked after every so many items of the accepted order, and of the one that is tried. */
  private readonly every: number;
  private trace: Trace[];
  private trial: Trace[];
  private traced: boolean;
  /** Whether the order that was tried last was laid out to its end. */
  private whole: boolean;
  /** How many of the accepted order's traces the tried one shares. */
  private taken: number;
  order: number[];
  /** Of the accepted order, and of the one that is tried: other than it in one job at most (−1 = in none). */
  waits: Waits;
  private triedWaits: Waits;
  private changedJob = -1;
  private readonly waiting: Waiting;
  /** Moves of the order and of a wait, how many were for the better, and which kind the last was. */
  private readonly moves = [1, 1];
  private readonly gains = [1, 1];
  private kind = 0;
  cost: number = Number.POSITIVE_INFINITY;

  constructor(table: Timetable, root: Saved, waiting: Waiting, random: Random, movable: readonly number[], by: ListKind) {
    this.table = table;
    this.compiled = table.compiled;
    this.root = root;
    this.waiting = waiting;
    this.waits = waiting.none;
    this.triedWaits = waiting.none;
    this.spare = table.save();
    this.random = random;
    this.ordered = new Set(movable);
    this.late = by === 'late';
    this.pushes = !this.late && this.compiled.jobs.some((job) => job.job.readyByMin !== null);
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
      const linked = items.map((item) => ({
        ...item,
        before: [...item.before, ...this.compiled.jobs[item.job]!.inputs.flatMap((input) => (item.block.includes(input.step) ? (last.get(input.job) ?? []) : []))],
      }));
      if (!this.late) return linked;
      // From the end, what follows comes first.
      return linked.map((item, index) => ({ ...item, before: linked.flatMap((other, at) => (other.before.includes(index) ? [at] : [])) }));
    };
    this.items = divide((index) => (by === 'whole' ? this.isTied(index) : this.isBound(index)));
    this.parts = divide(() => false);
    this.order = this.items.map((_, index) => index);
    this.soonStart = new Int32Array(this.items.length);
    this.soonEnd = new Int32Array(this.items.length);
    this.decodedStart = new Int32Array(this.items.length);
    this.decodedEnd = new Int32Array(this.items.length);
    this.longestWash = this.compiled.washes.reduce((longest, washes) => washes?.reduce((most, min) => Math.max(most, min), longest) ?? longest, 0);
    this.seen = new Uint8Array(this.items.length);
    this.failed = new Uint8Array(this.compiled.jobs.length);
    this.ends = new Float64Array(this.compiled.jobs.reduce((most, job) => Math.max(most, job.variants.length), 0));
    this.every = Math.max(1, Math.ceil(this.items.length / TRACES));
    const traces = (): Trace[] =>
      Array.from({ length: Math.ceil(this.items.length / this.every) }, () => ({ saved: table.save(), seen: this.seen.slice(), failed: this.failed.slice() }));
    this.traced = false;
    this.whole = false;
    this.taken = 0;
    this.trace = traces();
    this.trial = traces();
    const wants = this.items.map((item) => this.wantsOf(item));
    this.rivals = this.items.map((_, index) => this.items.flatMap((__, other) => (other !== index && [...wants[index]!].some((one) => wants[other]!.has(one)) ? [other] : [])));
  }

  /** Whether a job's parts have anything to do with each other beyond their order. */
  private isTied(index: number): boolean {
    const { variants } = this.compiled.jobs[index]!;
    return this.compiled.problem.lines.length > 0 || variants.length > 1 || variants[0]!.incoming.some((lags) => lags.some((lag) => lag.max !== Number.POSITIVE_INFINITY));
  }

  /** Whether a job must be laid out whole: nothing overtakes in a line, and of its parts only one may have more ways than one. */
  private isBound(index: number): boolean {
    const { variants, partitions } = this.compiled.jobs[index]!;
    if (this.compiled.problem.lines.length > 0) return true;
    return partitions[0]!.filter((block) => !isSame(variants, block)).length > 1;
  }

  /** What an item takes of the station: resources by their index, units by theirs, below zero. */
  private wantsOf({ job, block }: Item): ReadonlySet<number> {
    const wants = new Set<number>();
    for (const variant of this.compiled.jobs[job]!.variants) {
      for (const step of block) for (const level of variant.uses[step]!) wants.add(this.compiled.levels[level]!.resource);
      for (const holding of variant.holdings) if (block.includes(holding.to)) wants.add(-1 - holding.unit);
    }
    return wants;
  }

  /** The order the plan on the table has, with the waits it was laid out with. */
  adopt(waits: Waits | null): void {
    this.waits = waits ?? this.waiting.none;
    this.triedWaits = this.waits;
    this.changedJob = -1;
    const at = (item: number): number => {
      const { job, block } = this.items[item]!;
      return this.table.start[this.compiled.jobs[job]!.offset + block[0]!]!;
    };
    this.order = this.items.map((_, index) => index).sort((left, right) => (this.late ? at(right) - at(left) : at(left) - at(right)));
    this.traced = false;
  }

  /** All items by a number of their job, smallest first. */
  sortedBy(key: (job: number) => number): number[] {
    return this.items.map((_, index) => index).sort((left, right) => key(this.items[left]!.job) - key(this.items[right]!.job));
  }

  /** An order to try: the accepted one with one thing moved, or as it is with one wait changed. */
  neighbour(): number[] {
    this.triedWaits = this.waits;
    this.changedJob = -1;
    const gain = (kind: number): number => this.gains[kind]! / this.moves[kind]!;
    const share = Math.min(MOST_WAITS, Math.max(LEAST_WAITS, gain(1) / (gain(0) + gain(1))));
    this.kind = this.waiting.jobs.length > 0 && this.random() < share ? 1 : 0;
    if (this.kind === 0) return this.moved();
    const { waits, job } = this.waiting.changed(this.waits);
    this.triedWaits = waits;
    this.changedJob = job;
    return this.order.slice();
  }

  /** What the order last tried costs: its kind of move is made more often when it is for the better. */
  learn(cost: number): void {
    const { kind, moves, gains } = this;
    moves[kind] = moves[kind]! * REMEMBERS + 1;
    gains[kind] = gains[kind]! * REMEMBERS + (cost < this.cost ? 1 : 0);
  }

  /**
   * One thing moved past another that wants the same: moving it past what it never meets would change nothing. Mostly past what holds up the end of the day or
   * something late.
   */
  private moved(): number[] {
    const order = this.order.slice();
    if (order.length < 2) return order;
    const at = (item: number): number => order.indexOf(item);
    if (!this.late && this.random() < CRITICAL) {
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
    for (let at = 0; at < this.taken; at += 1) {
      const shared = this.trace[at]!;
      this.trace[at] = this.trial[at]!;
      this.trial[at] = shared;
    }
    [this.trace, this.trial] = [this.trial, this.trace];
    // An order that was given up half-way has left only half its traces.
    this.traced = this.whole;
    this.order = order;
    this.waits = this.triedWaits;
    this.changedJob = -1;
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

  /**
   * Lays an order out on the table. Gives its cost, or something above `limit` as soon as it is certain to be above. What it shares with the beginning of the
   * order that was accepted last is not laid out again.
   */
  decode(order: readonly number[], limit: number = Number.POSITIVE_INFINITY): number {
    this.setWaits(this.triedWaits);
    const cost = this.layOut(order, limit);
    this.setWaits(this.waiting.none);
    if (!this.whole || !this.pushes) return cost;
    return this.push(cost);
  }

  private setWaits(waits: Waits): void {
    for (const job of this.waiting.jobs) this.table.longer[job] = waits[job]?.variants ?? null;
  }

  private layOut(order: readonly number[], limit: number): number {
    const { table, items, trial } = this;
    this.whole = false;
    let shared = 0;
    const same = (at: number): boolean => order[at] === this.order[at] && items[order[at]!]!.job !== this.changedJob;
    if (this.traced) while (shared < order.length && same(shared)) shared += 1;
    const kept = Math.max(0, Math.floor(Math.min(shared, order.length - 1) / this.every));
    if (kept === 0) {
      table.restore(this.root);
      this.seen.fill(0);
      this.failed.fill(0);
    } else {
      const trace = this.trace[kept - 1]!;
      table.restore(trace.saved);
      this.seen.set(trace.seen);
      this.failed.set(trace.failed);
    }
    this.taken = kept;
    for (let at = kept * this.every; at < order.length; at += 1) {
      if (at > kept * this.every && at % this.every === 0) {
        const late = table.lateCost();
        if (late > limit) return late;
        const trace = trial[at / this.every - 1]!;
        table.save(trace.saved);
        trace.seen.set(this.seen);
        trace.failed.set(this.failed);
      }
      if (!this.place(order[at]!)) return Number.POSITIVE_INFINITY;
    }
    const late = table.lateCost();
    if (late > limit) return late;
    this.whole = true;
    items.forEach((item, index) => {
      if (this.failed[item.job] !== 0) {
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
    return table.cost();
  }

  /** Places an item after those that must come before it. False when they stand in a circle. */
  private place(index: number): boolean {
    const { seen, failed, items } = this;
    if (seen[index] !== 0) return true;
    seen[index] = 1;
    const item = items[index]!;
    for (const before of item.before) if (!this.place(before)) return false;
    if (failed[item.job] !== 0 || this.isLaid(item) || (this.late ? this.placeLate(item) : this.placeSoon(item))) return true;
    // What finds no place beside its other parts is laid out whole; what finds none at all leaves the rest of the day without it.
    if (!this.takeOut(item.job)) return false;
    const [whole] = this.compiled.jobs[item.job]!.partitions.at(-1)!;
    if (this.late ? this.placeAfter(item.job) : whole!.length > item.block.length && this.placeSoon({ job: item.job, block: whole!, before: [] })) return true;
    return this.leaveOut(item.job);
  }

  /** Takes out what is laid of a job. False when a wash finds no hands then. */
  private takeOut(job: number): boolean {
    const { table } = this;
    for (const item of this.items) {
      if (item.job === job && this.isLaid(item) && !table.withdrawPart(job, table.variantOf[job]!, item.block)) return false;
    }
    table.variantOf[job] = -1;
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

  private isSame(item: Item): boolean {
    const known = this.same.get(item) ?? isSame(this.compiled.jobs[item.job]!.variants, item.block);
    this.same.set(item, known);
    return known;
  }

  private isLaid({ job, block }: Item): boolean {
    const { offset, doneStart } = this.compiled.jobs[job]!;
    return block.every((step) => this.table.start[offset + step]! >= 0) && !block.every((step) => doneStart[step]! >= 0);
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

  /** Pushes what is laid out back towards when it is wanted. Leaves the better of the two on the table. */
  private push(cost: number): number {
    const { table, compiled } = this;
    const saved = table.save();
    const start = (item: Item): number => saved.start[compiled.jobs[item.job]!.offset + item.block.at(-1)!]!;
    const order = this.parts.filter((item) => saved.end[item.job]! >= 0).sort((left, right) => start(right) - start(left));
    table.restore(this.root);
    for (const item of order) {
      const { readyByMin, bufferMin } = compiled.jobs[item.job]!.job;
      const end = saved.end[item.job]!;
      const target = readyByMin === null ? compiled.horizon : Math.max(readyByMin - bufferMin, end);
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
