import type { Random } from '../random';
import { Beam } from './beam';
import type { Compiled } from './compile';
import type { Following } from './following';
import { withWashes } from './items';
import { Known } from './known';
import type { Choice, Laid } from './known';
import { anyManner, PLAIN } from './manner';
import type { Manner } from './manner';
import { mirrored } from './mirror';
import { Outline } from './outline';
import { scarceOf } from './outlook';
import { emptyRoot } from './timetable';
import type { Saved, Timetable } from './timetable';

/** How often a move does a job in another way, only changes when one is begun, and changes neither. Choices of the search. */
const OTHER_WAY = 0.12;
const BEGUN = 0.18;
const NEITHER = 0.1;
/** How often a job moves not far, two change places, and what is begun goes with it. Choices of the search. */
const NEAR = 0.8;
const SWAPPED = 0.4;
const TOGETHER = 0.7;
/** How many items before and after those that a move concerns are laid out anew, at least and at most. Choices of the search. */
const LEAD = [2, 10] as const;
const TRAIL = [6, 30] as const;
/** How often a change is drawn before it is two at once, then three, and at most. Choices of the search. */
const PATIENCE = 5;
const DRAWS = 20;

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
  private readonly compiled: Compiled;
  private readonly random: Random;
  private readonly outline: Outline;
  private readonly beam: Beam;
  private readonly following: Following;
  private readonly many: readonly number[];
  private readonly known = new Known();
  /** What was taken last, and what is being tried. */
  private taken: Laid | null = null;
  private tried: Choice = { entering: [], beginning: [], ways: new Int32Array(0) };

  constructor(outline: Outline, ordered: readonly number[], random: Random) {
    const { compiled } = outline;
    this.compiled = compiled;
    this.random = random;
    this.outline = outline;
    this.beam = new Beam(outline);
    this.following = this.beam.following;
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
    const outline = new Outline(mirror.compiled, emptyRoot(mirror.compiled), withWashes(mirror.compiled, ordered), mirror.standing);
    return new EntryOrders(outline, ordered, random);
  }

  /** Whether the next is still to be begun. */
  get isIdle(): boolean {
    return this.beam.isOver;
  }

  /** Of what was taken last; Infinity when it cannot be laid out. */
  get cost(): number {
    return this.taken?.cost ?? Number.POSITIVE_INFINITY;
  }

  /** Its pieces and washes in order. */
  get order(): Int32Array {
    return this.taken?.order ?? new Int32Array(0);
  }

  get ways(): Int32Array {
    return this.taken?.ways ?? new Int32Array(0);
  }

  /** Above that nothing is worth taking. */
  get limit(): number {
    return this.known.limit;
  }

  /** Begins with the plan on the table, and with all that was found before: told backwards, that may be no plan yet, because somebody would have to begin before the day does. */
  adopt(table: Timetable): void {
    const { outline } = this;
    const order = outline.orderOf(table);
    const ways = Int32Array.from(table.variantOf);
    outline.begin(ways);
    const cost = order.every((item) => outline.place(item)) ? outline.total() : Number.POSITIVE_INFINITY;
    const { entering, beginning } = this.following.entriesOf(order);
    const laid: Laid = { entering, beginning, ways, order, cost };
    this.taken = this.known.add(laid);
    // The plan may lie as no outline lies: all of it is laid out anew at first.
    if (this.taken === laid) this.layOut(laid, laid, 0, order.length, cost, PLAIN);
  }

  /** Begins to lay out what other orders change. */
  begin(limit: number): void {
    const { random, known } = this;
    const from = known.next();
    const { order } = from;
    const choice = this.another(from);
    const places = this.itemsChanged(from, choice).map((item) => order.indexOf(item));
    const between = ([least, most]: readonly [number, number]): number => least + Math.floor(random() * (most - least + 1));
    this.layOut(from, choice, Math.max(0, Math.min(...places) - between(LEAD)), Math.min(order.length, Math.max(...places) + 1 + between(TRAIL)), limit, anyManner(random));
  }

  private layOut({ order }: Laid, { entering, beginning, ways }: Choice, from: number, to: number, limit: number, manner: Manner): void {
    this.tried = { entering, beginning, ways };
    this.beam.begin({ order, entering, beginning, ways, from, to, manner }, limit);
  }

  /** Goes on; what it costs when it is laid out (something above the limit when that is certain), null before. */
  step(): number | null {
    const { beam } = this;
    if (!beam.isOver) beam.step();
    return beam.isOver ? beam.cost : null;
  }

  /** Takes what was laid out last. */
  accept(cost: number): void {
    const { entering, beginning, ways } = this.tried;
    this.taken = { entering, beginning, ways, order: this.beam.order, cost };
    this.known.add(this.taken);
  }

  /** Puts what was taken last on the table. False when it is no plan. */
  put(table: Timetable, empty: Saved): boolean {
    const { outline, order, ways } = this;
    outline.begin(ways);
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

  /** A change that was not tried yet, of more than one thing when none is found soon. */
  private another(from: Laid): Choice {
    let choice: Choice = from;
    for (let draw = 0; draw < DRAWS; draw += 1) {
      choice = from;
      for (let changes = 0; changes <= draw / PATIENCE; changes += 1) choice = this.changed(choice);
      if (this.known.isNew(choice, from)) break;
    }
    return choice;
  }

  private changed(choice: Choice): Choice {
    const { random, many } = this;
    const { entering, beginning, ways } = choice;
    const kind = random();
    if (kind < NEITHER) return choice;
    if (kind < NEITHER + OTHER_WAY && many.length > 0) {
      const job = many[this.pick(many.length)]!;
      const { length } = this.compiled.jobs[job]!.variants;
      return { entering, beginning, ways: ways.with(job, (ways[job]! + 1 + this.pick(length - 1)) % length) };
    }
    if (kind < NEITHER + OTHER_WAY + BEGUN && beginning.length > 1) {
      const from = this.pick(beginning.length);
      return { entering, ways, beginning: moved(beginning, from, this.near(from, beginning.length)) };
    }
    const from = this.pick(entering.length);
    const to = this.near(from, entering.length);
    const [job, other] = [entering[from]!, entering[to]!];
    const isTogether = random() < TOGETHER;
    if (random() < SWAPPED) return { ways, entering: exchanged(entering, job, other), beginning: isTogether ? exchanged(beginning, job, other) : beginning };
    const at = beginning.indexOf(job);
    const beside = beginning.indexOf(other);
    return { ways, entering: moved(entering, from, to), beginning: isTogether && at >= 0 && beside >= 0 ? moved(beginning, at, beside) : beginning };
  }

  /** The items whose places may be others; any one, where nothing is changed. */
  private itemsChanged({ entering, beginning, ways, order }: Laid, choice: Choice): readonly number[] {
    const { following } = this;
    const items = [
      ...choice.entering.flatMap((job, place) => (entering[place] === job ? [] : following.itemsOf(job, 'entry'))),
      ...choice.beginning.flatMap((job, place) => (beginning[place] === job ? [] : following.itemsOf(job, 'first'))),
      ...this.many.flatMap((job) => (ways[job] === choice.ways[job] ? [] : following.itemsOf(job, 'all'))),
    ];
    return items.length > 0 ? items : [order[this.pick(order.length)]!];
  }
}
