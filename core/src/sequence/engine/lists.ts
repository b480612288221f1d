import type { Random } from '../random';
import type { Compiled } from './compile';
import { itemsOf, rivalsOf } from './items';
import type { Item } from './items';
import { Laying } from './laying';
import type { Laid } from './laying';
import type { Saved, Timetable } from './timetable';
import type { Waiting, Waits } from './waits';

/** What is put in order: whole jobs; their parts; their pieces, with others in between; or their pieces from the end, each as late as it may be. */
export const LIST_KINDS = ['whole', 'parts', 'pieces', 'late'] as const;
export type ListKind = (typeof LIST_KINDS)[number];

interface Trace {
  readonly saved: Saved;
  readonly laid: Laid;
}

/** How many traces of an order are kept. A choice of the search. */
const TRACES = 20;

/** How often a move looks for what holds up the end. A choice of the search. */
const CRITICAL = 0.6;

/** How often a move changes a wait, at least and at most: in between as often as such moves have lately been for the better. Choices of the search. */
const LEAST_WAITS = 0.1;
const MOST_WAITS = 0.6;
const REMEMBERS = 0.995;

/** Of pieces: how often a move does a job in another way, and how often it moves all of one. Choices of the search. */
const OTHER_WAY = 0.1;
const WHOLE_JOB = 0.3;

/** How often all parts of a job are moved together. A choice of the search. */
const TOGETHER = 0.5;

const MANNERS = { whole: 'soon', parts: 'soon', pieces: 'woven', late: 'late' } as const;

/**
 * The other half of the search: a plan as an order. Everything is laid out as soon as it fits, in that order, then pushed back from the end towards its
 * ready-by (justification: Valls, Ballestín & Quintanilla 2005); moving one thing in the order moves everything after it. With an order of whole jobs or their parts go waits
 * that are longer than they must be; with one of pieces, the way each job is done. It finds what taking a few jobs out cannot, because there the rest stands still.
 */
export class Lists {
  readonly items: readonly Item[];
  readonly kind: ListKind;
  order: number[];
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
  private readonly pushed: readonly Item[];
  private readonly latest: Int32Array;
  private readonly spare: Saved;
  /** Items that want something an item wants. */
  private readonly rivals: readonly (readonly number[])[];
  private critical: readonly (readonly [number, number])[] | null = null;
  private readonly soonStart: Int32Array;
  private readonly soonEnd: Int32Array;
  private readonly decodedStart: Int32Array;
  private readonly decodedEnd: Int32Array;
  private readonly longestWash: number;
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
  private readonly moves = [1, 1];
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
    this.kind = kind;
    this.isFromEnd = kind === 'late';
    this.items = itemsOf(compiled, ordered, division, this.isFromEnd);
    this.isWoven = kind === 'pieces' || kind === 'late';
    this.hasPieces = this.isWoven && this.items.length > ordered.length;
    this.hasWays = ordered.some((job) => compiled.jobs[job]!.variants.length > 1);
    const isPushed = !this.isFromEnd && compiled.jobs.some((job) => job.job.readyByMin !== null);
    this.pushed = isPushed ? itemsOf(compiled, ordered, 'pieces', true) : [];
    this.pushing = isPushed ? new Laying(table, this.pushed, ordered, 'late', random) : null;
    this.rivals = rivalsOf(compiled, this.items, division);
    this.laying = new Laying(table, this.items, ordered, MANNERS[kind], random);
    this.order = this.items.map((_, index) => index);
    this.latest = new Int32Array(compiled.jobs.length);
    this.spare = table.save();
    this.soonStart = new Int32Array(this.items.length);
    this.soonEnd = new Int32Array(this.items.length);
    this.decodedStart = new Int32Array(this.items.length);
    this.decodedEnd = new Int32Array(this.items.length);
    this.longestWash = compiled.washes.reduce((longest, washes) => washes?.reduce((most, min) => Math.max(most, min), longest) ?? longest, 0);
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
  justified(): number[] | null {
    if (this.pushing === null) return null;
    this.triedWaits = this.waits;
    this.triedWays = this.ways;
    this.changedJob = -1;
    return this.orderOnTable();
  }

  private orderOnTable(): number[] {
    return this.isFromEnd ? this.lastFirst(this.items) : this.firstFirst(this.items);
  }

  private firstFirst(items: readonly Item[]): number[] {
    const { compiled, table } = this;
    const from = items.map(({ job, block }) => table.start[compiled.jobs[job]!.offset + block[0]!]!);
    return from.map((_, index) => index).sort((left, right) => from[left]! - from[right]!);
  }

  private lastFirst(items: readonly Item[]): number[] {
    const { compiled, table } = this;
    const to = items.map(({ job, block }) => {
      const { offset, variants } = compiled.jobs[job]!;
      const variant = variants[table.variantOf[job]!];
      return variant === undefined ? -1 : block.reduce((last, step) => Math.max(last, table.start[offset + step]! + variant.durations[step]!), -1);
    });
    return to.map((_, index) => index).sort((left, right) => to[right]! - to[left]!);
  }

  /** All items by a number of their job, smallest first. */
  sortedBy(key: (job: number) => number): number[] {
    return this.items.map((_, index) => index).sort((left, right) => key(this.items[left]!.job) - key(this.items[right]!.job));
  }

  /** An order to try: the accepted one with one thing moved, or as it is with one wait or one way changed. */
  neighbour(): number[] {
    this.triedWaits = this.waits;
    this.triedWays = this.ways;
    this.changedJob = -1;
    this.moveKind = 0;
    if (this.isWoven) {
      if (this.hasWays && this.random() < OTHER_WAY && this.changeWay()) return this.order.slice();
      return this.hasPieces && this.random() < WHOLE_JOB ? this.jobMoved() : this.moved();
    }
    const gain = (kind: number): number => this.gains[kind]! / this.moves[kind]!;
    const share = Math.min(MOST_WAITS, Math.max(LEAST_WAITS, gain(1) / (gain(0) + gain(1))));
    if (this.waiting.jobs.length === 0 || this.random() >= share) return this.moved();
    this.moveKind = 1;
    const { waits, job } = this.waiting.changed(this.waits);
    this.triedWaits = waits;
    this.changedJob = job;
    return this.order.slice();
  }

  /** What the order last tried costs: its kind of move is made more often when it is for the better. */
  learn(cost: number): void {
    const { moveKind: kind, moves, gains } = this;
    moves[kind] = moves[kind]! * REMEMBERS + 1;
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

  /** All pieces of a job in the places of another's, or all of them sooner or later by as much. */
  private jobMoved(): number[] {
    const { order, items } = this;
    const one = items[this.pick(order.length)]!.job;
    const other = items[this.pick(order.length)]!.job;
    const placesOf = (job: number): number[] => order.flatMap((item, place) => (items[item]!.job === job ? [place] : []));
    const [mine, theirs] = [placesOf(one), placesOf(other)];
    if (one !== other && mine.length === theirs.length && this.random() < 0.5) {
      const next = order.slice();
      mine.forEach((place, index) => {
        next[place] = order[theirs[index]!]!;
        next[theirs[index]!] = order[place]!;
      });
      return next;
    }
    // Half a place more, so that it comes to stand between two others and not on one.
    const by = 1.5 + this.pick(Math.max(1, order.length >> 1));
    const towards = this.random() < 0.5 ? -by : by;
    const placeOf = new Map(order.map((item, place) => [item, items[item]!.job === one ? place + towards : place]));
    return order.slice().sort((left, right) => placeOf.get(left)! - placeOf.get(right)!);
  }

  /**
   * One thing moved past another that wants the same: moving it past what it never meets would change nothing. Mostly past what holds up the end of the day or
   * something late.
   */
  private moved(): number[] {
    const order = this.order.slice();
    if (order.length < 2) return order;
    const at = (item: number): number => order.indexOf(item);
    if (!this.isFromEnd && this.random() < CRITICAL) {
      this.critical ??= this.criticalPairs();
      if (this.critical.length > 0) {
        const [item, before] = this.critical[this.pick(this.critical.length)]!;
        const [from, to] = [at(item), at(before)];
        return this.random() < 0.5 ? this.shifted(order, from, to < from ? to : to - 1) : this.shifted(order, to, from > to ? from : from + 1);
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
    if (this.hasPieces || this.random() < 0.7) return this.shifted(order, from, to);
    [order[from], order[to]] = [order[to]!, order[from]!];
    return order;
  }

  /** One item at another place; of pieces, those of its job that must come before or after it go with it. */
  private shifted(order: number[], from: number, to: number): number[] {
    if (this.kind === 'parts' && this.random() < TOGETHER && this.items[order[from]!]!.job !== this.items[order[to]!]!.job) return this.shiftedTogether(order, from, to);
    const [item] = order.splice(from, 1);
    const { job } = this.items[item!]!;
    const goes = (other: number): boolean => this.hasPieces && this.items[other]!.job === job;
    const [first, last] = to < from ? [to, from] : [from, to];
    const passed = order.slice(first, last);
    const own = passed.filter(goes);
    const others = own.length === 0 ? passed : passed.filter((other) => !goes(other));
    order.splice(first, last - first, ...(to < from ? [...own, item!, ...others] : [...others, item!, ...own]));
    return order;
  }

  /** All parts of a job, one after the other, where an item of another stands. */
  private shiftedTogether(order: readonly number[], from: number, to: number): number[] {
    const { job } = this.items[order[from]!]!;
    const [own, others] = [true, false].map((mine) => order.filter((item) => (this.items[item]!.job === job) === mine));
    const at = others!.indexOf(order[to]!) + (to < from ? 0 : 1);
    return [...others!.slice(0, at), ...own!, ...others!.slice(at)];
  }

  /** Takes an order that has just been decoded. */
  accept(order: number[], cost: number): void {
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
   * Lays an order out on the table. Gives its cost, or something above `limit` as soon as it is certain to be above. What it shares with the order that was
   * accepted last, from its beginning or once the table looks the same again, is not laid out again: the table then holds no whole plan.
   */
  decode(order: readonly number[], limit: number = Number.POSITIVE_INFINITY): number {
    this.setWaits(this.triedWaits);
    const cost = this.layOut(order, limit);
    this.setWaits(this.waiting.none);
    if (this.met >= 0) return this.cost;
    return this.isLaidOut && this.pushing !== null ? this.push(this.pushing, cost) : cost;
  }

  private setWaits(waits: Waits): void {
    for (const job of this.waiting.jobs) this.table.longer[job] = waits[job]?.variants ?? null;
  }

  private layOut(order: readonly number[], limit: number): number {
    const { table, items, laying, every } = this;
    this.isLaidOut = false;
    this.met = -1;
    laying.ways = this.triedWays;
    const isAsBefore = (at: number): boolean => this.traced && order[at] === this.order[at] && items[order[at]!]!.job !== this.changedJob;
    let shared = 0;
    while (shared < order.length && isAsBefore(shared)) shared += 1;
    let rest = order.length;
    while (rest > shared && isAsBefore(rest - 1)) rest -= 1;
    let kept = Math.max(0, Math.floor(Math.min(shared, order.length - 1) / every));
    // What must come before another is laid out with it, sooner than at its own place.
    const isChangedIn = ({ seen }: Laid): boolean => items.some(({ job }, item) => job === this.changedJob && seen[item] !== 0);
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
    items.forEach((item, index) => {
      if (laying.hasFailed(item.job)) {
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

  /** Pushes what is laid out back towards when it is wanted. Leaves the better of the two on the table. */
  private push(pushing: Laying, cost: number): number {
    const { table, compiled, latest } = this;
    const saved = table.save(this.spare);
    const order = this.lastFirst(this.pushed);
    pushing.begin();
    pushing.ways = saved.variantOf;
    pushing.latest = latest;
    for (const { index, job, consumers } of compiled.jobs) {
      const end = saved.end[index]!;
      if (end < 0) pushing.leave(index);
      latest[index] = job.readyByMin !== null ? Math.max(job.readyByMin - job.bufferMin, end) : consumers.length === 0 ? end : compiled.horizon;
    }
    table.restore(this.root);
    if (order.every((item) => pushing.place(item))) {
      const pushed = table.cost();
      if (pushed <= cost) return pushed;
    }
    table.restore(saved);
    return cost;
  }
}
