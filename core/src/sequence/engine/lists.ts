import type { Random } from '../random';
import type { Compiled } from './compile';
import { itemsOf, rivalsOf } from './items';
import type { Item } from './items';
import { Laying } from './laying';
import type { Laid } from './laying';
import { Moves } from './moves';
import type { Saved, Timetable } from './timetable';
import type { Waiting, Waits } from './waits';

/** What is put in order: whole jobs; their pieces, with others in between; or their pieces from the end, each as late as it may be. */
export const LIST_KINDS = ['whole', 'pieces', 'late'] as const;
export type ListKind = (typeof LIST_KINDS)[number];

interface Trace {
  readonly saved: Saved;
  readonly laid: Laid;
}

/** How many traces of an order are kept. A choice of the search. */
const TRACES = 20;

/** How often a move changes a wait, at least and at most: in between as often as such moves have lately been for the better. Choices of the search. */
const LEAST_WAITS = 0.1;
const MOST_WAITS = 0.6;
const REMEMBERS = 0.995;

/** Of pieces: how often a move does a job in another way, and how often it moves all of one. Choices of the search. */
const OTHER_WAY = 0.1;
const WHOLE_JOB = 0.3;

const MANNERS = { whole: 'soon', pieces: 'woven', late: 'late' } as const;

/**
 * The other half of the search: a plan as an order. Everything is laid out as soon as it fits, in that order, then pushed back from the end towards its
 * ready-by (justification: Valls, Ballestín & Quintanilla 2005); moving one thing in the order moves everything after it. With an order of whole jobs go waits
 * that are longer than they must be; with one of pieces, the way each job is done. It finds what taking a few jobs out cannot, because there the rest stands still.
 */
export class Lists {
  readonly items: readonly Item[];
  order: Int32Array;
  cost: number = Number.POSITIVE_INFINITY;
  /** Of the accepted order, and of the one that is tried: other than it in one job at most (−1 = in none). */
  waits: Waits;
  private triedWaits: Waits;
  private ways: readonly number[];
  private triedWays: readonly number[];
  private changedJob = -1;
  private readonly compiled: Compiled;
  private readonly table: Timetable;
  private readonly root: Saved;
  private readonly random: Random;
  private readonly laying: Laying;
  private readonly waiting: Waiting;
  /** Whether others may come between what is laid of a job, with the way each is done; else waits go with the order. */
  private readonly isWoven: boolean;
  /** Whether a job has more than one piece, and whether one can be done in more than one way. */
  private readonly hasPieces: boolean;
  private readonly hasWays: boolean;
  private readonly isFromEnd: boolean;
  /** Pushes back what was laid out as soon as it fits; null where nothing is wanted by a time. */
  private readonly pushing: Laying | null;
  private readonly moves: Moves;
  private readonly decodedStart: Int32Array;
  private readonly decodedEnd: Int32Array;
  /** How the table looked after every so many items of the accepted order, and of the one that is tried. */
  private readonly every: number;
  private readonly trace: Trace[];
  private readonly trial: Trace[];
  private traced = false;
  /** Whether the order that was tried last was laid out to its end: the table holds its plan. */
  isLaidOut = false;
  /** How many of the accepted order's traces the tried one shares from its beginning, and from where on it shares the rest (−1 = it does not). */
  private taken = 0;
  private met = -1;
  /** Moves of the order and of a wait, how many were for the better, and which kind the last was. */
  private readonly made = [1, 1];
  private readonly gains = [1, 1];
  private moveKind = 0;

  constructor(table: Timetable, root: Saved, waiting: Waiting, random: Random, ordered: readonly number[], kind: ListKind) {
    const { compiled } = table;
    const division = kind === 'late' ? 'pieces' : kind;
    this.table = table;
    this.compiled = compiled;
    this.root = root;
    this.waiting = waiting;
    this.waits = waiting.none;
    this.triedWaits = waiting.none;
    this.ways = compiled.jobs.map(() => -1);
    this.triedWays = this.ways;
    this.random = random;
    this.isFromEnd = kind === 'late';
    this.items = itemsOf(compiled, ordered, division, this.isFromEnd);
    this.isWoven = kind === 'pieces' || kind === 'late';
    this.hasPieces = this.isWoven && this.items.length > ordered.length;
    this.hasWays = ordered.some((job) => compiled.jobs[job]!.variants.length > 1);
    const isPushed = !this.isFromEnd && compiled.jobs.some((job) => job.job.readyByMin !== null);
    this.pushing = isPushed ? new Laying(table, itemsOf(compiled, ordered, 'pieces', true), ordered, 'late', random, true) : null;
    this.moves = new Moves(compiled, this.items, rivalsOf(compiled, this.items, division), this.hasPieces, random);
    this.laying = new Laying(table, this.items, ordered, MANNERS[kind], random);
    this.order = Int32Array.from(this.items, (_, index) => index);
    this.decodedStart = new Int32Array(this.items.length);
    this.decodedEnd = new Int32Array(this.items.length);
    this.every = Math.max(1, Math.ceil(this.items.length / TRACES));
    const traces = (): Trace[] => Array.from({ length: Math.ceil(this.items.length / this.every) }, () => ({ saved: table.save(), laid: this.laying.save() }));
    this.trace = traces();
    this.trial = traces();
  }

  /** The order the plan on the table has, with the ways its jobs are done in and the waits it was laid out with. */
  adopt(waits: Waits | null): void {
    this.waits = (this.isWoven ? null : waits) ?? this.waiting.none;
    this.triedWaits = this.waits;
    this.ways = Array.from(this.table.variantOf);
    this.triedWays = this.ways;
    this.changedJob = -1;
    this.order = this.orderOnTable();
    this.traced = false;
  }

  /**
   * The order of the plan on the table, to try: laid out as soon as it fits after it was pushed back, what can wait comes later (justification goes both ways).
   * Null where nothing is pushed back.
   */
  justified(): Int32Array | null {
    if (this.pushing === null) return null;
    this.triedWaits = this.waits;
    this.triedWays = this.ways;
    this.changedJob = -1;
    return this.orderOnTable();
  }

  private orderOnTable(): Int32Array {
    return this.isFromEnd ? this.lastFirst(this.items) : this.firstFirst(this.items);
  }

  private firstFirst(items: readonly Item[]): Int32Array {
    const { compiled, table } = this;
    const from = items.map(({ job, block }) => table.start[compiled.jobs[job]!.offset + block[0]!]!);
    return Int32Array.from(items, (_, index) => index).sort((left, right) => from[left]! - from[right]!);
  }

  private lastFirst(items: readonly Item[]): Int32Array {
    const { compiled, table } = this;
    const to = items.map(({ job, block }) => {
      const { offset, variants } = compiled.jobs[job]!;
      const variant = variants[table.variantOf[job]!];
      return variant === undefined ? -1 : block.reduce((last, step) => Math.max(last, table.start[offset + step]! + variant.durations[step]!), -1);
    });
    return Int32Array.from(items, (_, index) => index).sort((left, right) => to[right]! - to[left]!);
  }

  /** All items by a number of their job, smallest first. */
  sortedBy(key: (job: number) => number): Int32Array {
    return Int32Array.from(this.items, (_, index) => index).sort((left, right) => key(this.items[left]!.job) - key(this.items[right]!.job));
  }

  /** An order to try: the accepted one with one thing moved, or as it is with one wait or one way changed. */
  neighbour(): Int32Array {
    this.triedWaits = this.waits;
    this.triedWays = this.ways;
    this.changedJob = -1;
    this.moveKind = 0;
    if (this.isWoven) {
      if (this.hasWays && this.random() < OTHER_WAY && this.changeWay()) return this.order.slice();
      if (this.hasPieces && this.random() < WHOLE_JOB) return this.moves.jobMoved(this.order);
    } else if (this.waiting.jobs.length > 0) {
      const gain = (kind: number): number => this.gains[kind]! / this.made[kind]!;
      const share = Math.min(MOST_WAITS, Math.max(LEAST_WAITS, gain(1) / (gain(0) + gain(1))));
      if (this.random() < share) return this.waitChanged();
    }
    return this.moves.moved(this.order, !this.isFromEnd);
  }

  private waitChanged(): Int32Array {
    this.moveKind = 1;
    const { waits, job } = this.waiting.changed(this.waits);
    this.triedWaits = waits;
    this.changedJob = job;
    return this.order.slice();
  }

  /** What the order last tried costs: its kind of move is made more often when it is for the better. */
  learn(cost: number): void {
    const { moveKind: kind, made, gains } = this;
    made[kind] = made[kind]! * REMEMBERS + 1;
    gains[kind] = gains[kind]! * REMEMBERS + (cost < this.cost ? 1 : 0);
  }

  /** One job in another way. False when there is only one. */
  private changeWay(): boolean {
    const { job } = this.items[this.pick(this.items.length)]!;
    const many = this.compiled.jobs[job]!.variants.length;
    if (many < 2) return false;
    const way = (this.ways[job]! + 1 + this.pick(many - 1)) % many;
    this.triedWays = this.ways.map((other, index) => (index === job ? way : other));
    this.changedJob = job;
    return true;
  }

  /** Takes an order that has just been decoded. */
  accept(order: Int32Array, cost: number): void {
    const end = this.met < 0 ? this.trace.length : this.met;
    for (let at = this.taken; at < end; at += 1) {
      const shared = this.trace[at]!;
      this.trace[at] = this.trial[at]!;
      this.trial[at] = shared;
    }
    this.order = order;
    this.waits = this.triedWaits;
    this.ways = this.triedWays;
    this.changedJob = -1;
    if (this.met >= 0) return;
    // An order that was given up half-way has left only half its traces.
    this.traced = this.isLaidOut;
    this.cost = cost;
    this.moves.lie(this.decodedStart, this.decodedEnd);
  }

  private pick(limit: number): number {
    return Math.floor(this.random() * limit);
  }

  /**
   * Lays an order out on the table. Gives its cost, or something above `limit` as soon as it is certain to be above. What it shares with the order that was
   * accepted last, from its beginning or once the table looks the same again, is not laid out again: the table then holds no whole plan.
   */
  decode(order: Int32Array, limit: number = Number.POSITIVE_INFINITY): number {
    this.setWaits(this.triedWaits);
    const cost = this.layOut(order, limit);
    this.setWaits(this.waiting.none);
    if (this.met >= 0) return this.cost;
    return this.isLaidOut && this.pushing !== null ? this.pushing.pushBack(this.root, cost) : cost;
  }

  /** Pushes back what is on the table, however it came there. Gives what it costs then. */
  pushBack(): number {
    const cost = this.table.cost();
    return this.pushing?.pushBack(this.root, cost) ?? cost;
  }

  private setWaits(waits: Waits): void {
    for (const job of this.waiting.jobs) this.table.setLonger(job, waits[job] ?? null);
  }

  private layOut(order: Int32Array, limit: number): number {
    const { table, items, laying, every } = this;
    this.isLaidOut = false;
    this.met = -1;
    laying.setWays(this.triedWays);
    const isAsBefore = (at: number): boolean => this.traced && order[at] === this.order[at] && items[order[at]!]!.job !== this.changedJob;
    let shared = 0;
    while (shared < order.length && isAsBefore(shared)) shared += 1;
    let rest = order.length;
    while (rest > shared && isAsBefore(rest - 1)) rest -= 1;
    let kept = Math.max(0, Math.floor(Math.min(shared, order.length - 1) / every));
    // What must come before another is laid out with it, sooner than at its own place.
    const isChangedIn = (laid: Laid): boolean => {
      const seen = laying.seenIn(laid);
      return items.some(({ job }, item) => job === this.changedJob && seen[item] !== 0);
    };
    while (kept > 0 && this.changedJob >= 0 && isChangedIn(this.trace[kept - 1]!.laid)) kept -= 1;
    if (kept === 0) {
      table.restore(this.root);
      laying.begin();
    } else {
      const trace = this.trace[kept - 1]!;
      table.restore(trace.saved);
      laying.restore(trace.laid);
    }
    this.taken = kept;
    for (let at = kept * every; at < order.length; at += 1) {
      if (at > kept * every && at % every === 0) {
        const late = table.lateCost();
        if (late > limit) return late;
        const index = at / every - 1;
        if (at >= rest && laying.isAt(this.trace[index]!.laid) && table.isAt(this.trace[index]!.saved)) {
          this.met = index;
          return this.cost;
        }
        table.save(this.trial[index]!.saved);
        laying.save(this.trial[index]!.laid);
      }
      if (!laying.place(order[at]!)) return Number.POSITIVE_INFINITY;
    }
    const late = table.lateCost();
    if (late > limit) return late;
    this.isLaidOut = true;
    const [start, end] = laying.lies();
    this.decodedStart.set(start);
    this.decodedEnd.set(end);
    return table.cost();
  }
}
