import type { Random } from '../random';
import { Beam } from './beam';
import type { Entries } from './beam';
import type { Compiled } from './compile';
import { withWashes } from './items';
import { mirrored } from './mirror';
import { Outline } from './outline';
import { scarceOf } from './outlook';
import { Timetable } from './timetable';
import type { Saved } from './timetable';

/** How often a move does a job in another way, only changes when one is begun, and changes neither. Choices of the search. */
const OTHER_WAY = 0.12;
const BEGUN = 0.18;
const NEITHER = 0.1;
/** How often a job moves not far, two change places, and what is begun goes with it. Choices of the search. */
const NEAR = 0.6;
const SWAPPED = 0.4;
const TOGETHER = 0.7;
/** How many items before and after those that a move concerns are laid out anew, at least and at most. Choices of the search. */
const LEAD = [2, 10] as const;
const TRAIL = [6, 30] as const;

/** Other orders, or another way of doing a job, and the items it concerns. */
interface Change extends Entries {
  readonly ways: Int32Array;
  readonly items: readonly number[];
}

function moved(list: readonly number[], from: number, to: number): readonly number[] {
  const next = list.filter((_, at) => at !== from);
  next.splice(to, 0, list[from]!);
  return next;
}

function exchanged(list: readonly number[], one: number, other: number): readonly number[] {
  return list.map((job) => (job === one ? other : job === other ? one : job));
}

/** Whether that is what such a day is about: jobs stay in units, and what everybody needs is taken whole now and then, so that each is in every other's way. */
export function hasEntries(compiled: Compiled, ordered: readonly number[]): boolean {
  return ordered.filter((job) => compiled.jobs[job]!.job.spans.length > 0).length > 1 && scarceOf(compiled).isTakenWhole;
}

/**
 * A plan as who comes into the units when, and who is begun when: far fewer choices than pieces in order. What one of them changes is laid out anew by a beam. Of a
 * day told backwards it is who leaves them when.
 */
export class EntryOrders {
  /** Of what is accepted: Infinity when it cannot be laid out. */
  cost: number = Number.POSITIVE_INFINITY;
  /** Pieces and washes in order. */
  order: Int32Array = new Int32Array(0);
  ways: Int32Array = new Int32Array(0);
  private readonly compiled: Compiled;
  private readonly random: Random;
  private readonly outline: Outline;
  private readonly beam: Beam;
  private readonly many: readonly number[];
  private entries: Entries = { entering: [], beginning: [] };
  private triedWays: Int32Array = this.ways;

  constructor(outline: Outline, ordered: readonly number[], random: Random) {
    const { compiled } = outline;
    this.compiled = compiled;
    this.random = random;
    this.outline = outline;
    this.beam = new Beam(this.outline);
    this.many = ordered.filter((job) => compiled.jobs[job]!.variants.length > 1);
  }

  /** On a day as it goes. */
  static forward(compiled: Compiled, root: Saved, ordered: readonly number[], random: Random): EntryOrders {
    return new EntryOrders(new Outline(compiled, root, withWashes(compiled, ordered)), ordered, random);
  }

  /** On a day told backwards; null where it cannot be. */
  static backward(compiled: Compiled, ordered: readonly number[], random: Random): EntryOrders | null {
    const mirror = ordered.length < compiled.jobs.length ? null : mirrored(compiled);
    if (mirror === null) return null;
    const outline = new Outline(mirror.compiled, new Timetable(mirror.compiled).save(), withWashes(mirror.compiled, ordered), mirror.standing);
    return new EntryOrders(outline, ordered, random);
  }

  /** Whether the next is still to be begun. */
  get isIdle(): boolean {
    return this.beam.isOver;
  }

  /** Begins with the plan on the table. */
  adopt(table: Timetable): void {
    const { outline } = this;
    const order = outline.orderOf(table);
    const ways = Int32Array.from(table.variantOf);
    outline.restore(null, ways);
    const cost = order.every((item) => outline.place(item)) ? outline.total() : Number.POSITIVE_INFINITY;
    // Told backwards, what was found before may be no plan yet, because somebody would have to begin before the day does: it is gone on from.
    if (outline.standing !== null && this.order.length > 0 && cost >= this.cost) return;
    this.order = order;
    this.ways = ways;
    this.cost = cost;
    this.entries = this.beam.entriesOf(this.order);
    // The plan may lie as no outline lies: all of it is laid out anew at first.
    this.triedWays = this.ways;
    this.beam.begin({ ...this.entries, order: this.order, ways: this.ways, from: 0, to: this.order.length }, this.cost);
  }

  /** Begins to lay out what another order changes. */
  begin(limit: number): void {
    const { order, random } = this;
    const { entering, beginning, ways, items } = this.change();
    const places = items.map((item) => order.indexOf(item));
    const between = ([least, most]: readonly [number, number]): number => least + Math.floor(random() * (most - least + 1));
    this.triedWays = ways;
    this.beam.begin(
      {
        order,
        entering,
        beginning,
        ways,
        from: Math.max(0, Math.min(...places) - between(LEAD)),
        to: Math.min(order.length, Math.max(...places) + 1 + between(TRAIL)),
      },
      limit,
    );
  }

  /** Goes on; what it costs when it is laid out (something above the limit when that is certain), null before. */
  step(): number | null {
    const { beam } = this;
    if (!beam.isOver) beam.step();
    return beam.isOver ? beam.cost : null;
  }

  /** Takes what was laid out last. */
  accept(cost: number): void {
    this.cost = cost;
    this.order = this.beam.order;
    this.ways = this.triedWays;
    this.entries = this.beam.entriesOf(this.order);
  }

  /** Puts what was taken last on the table. False when it is no plan. */
  put(table: Timetable, empty: Saved): boolean {
    const { outline, order, ways } = this;
    outline.restore(null, ways);
    for (const item of order) if (!outline.place(item)) return false;
    // Told backwards, somebody might have to begin before the day does.
    if (outline.standing !== null && outline.lateness() > 0) return false;
    outline.put(table, empty);
    return true;
  }

  private pick(limit: number): number {
    return Math.floor(this.random() * limit);
  }

  /** Another place, mostly not far. */
  private near(from: number, length: number): number {
    if (this.random() >= NEAR) return this.pick(length);
    const by = 1 + this.pick(2);
    return Math.max(0, Math.min(length - 1, this.random() < 0.5 ? from - by : from + by));
  }

  private change(): Change {
    const { random, many, ways, beam, order } = this;
    const { entering, beginning } = this.entries;
    const kind = random();
    if (kind < NEITHER) return { entering, beginning, ways, items: [order[this.pick(order.length)]!] };
    if (kind < NEITHER + OTHER_WAY && many.length > 0) {
      const job = many[this.pick(many.length)]!;
      const { length } = this.compiled.jobs[job]!.variants;
      const others = ways.slice();
      others[job] = (ways[job]! + 1 + this.pick(length - 1)) % length;
      return { entering, beginning, ways: others, items: [...beam.itemsOf(job, 'all')] };
    }
    if (kind < NEITHER + OTHER_WAY + BEGUN && beginning.length > 1) {
      const from = this.pick(beginning.length);
      return this.changed(entering, moved(beginning, from, this.near(from, beginning.length)));
    }
    const from = this.pick(entering.length);
    const to = this.near(from, entering.length);
    const [job, other] = [entering[from]!, entering[to]!];
    const isTogether = random() < TOGETHER;
    if (random() < SWAPPED) return this.changed(exchanged(entering, job, other), isTogether ? exchanged(beginning, job, other) : beginning);
    const at = beginning.indexOf(job);
    const beside = beginning.indexOf(other);
    return this.changed(moved(entering, from, to), isTogether && at >= 0 && beside >= 0 ? moved(beginning, at, beside) : beginning);
  }

  private changed(entering: readonly number[], beginning: readonly number[]): Change {
    const { entries, beam, ways, order } = this;
    const items = [
      ...entering.flatMap((job, place) => (entries.entering[place] === job ? [] : beam.itemsOf(job, 'entry'))),
      ...beginning.flatMap((job, place) => (entries.beginning[place] === job ? [] : beam.itemsOf(job, 'first'))),
    ];
    return { entering, beginning, ways, items: items.length > 0 ? items : [order[this.pick(order.length)]!] };
  }
}
