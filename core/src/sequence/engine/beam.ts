import { seeded } from '../random';
import type { Compiled } from './compile';
import type { Kept, Outline } from './outline';
import { Outlook } from './outlook';
import type { Rest } from './outlook';

const NONE = -1;
/** Partial plans that go on side by side. A choice of the search. */
const WIDTH = 16;

/** In which order all jobs come into the units they stay in, and in which order all those are begun that have something to be done before. */
export interface Entries {
  readonly entering: readonly number[];
  readonly beginning: readonly number[];
}

/** A part of an order that is laid out anew, and what it is to keep to. */
export interface Window extends Entries {
  readonly order: Int32Array;
  readonly from: number;
  readonly to: number;
  readonly ways: Int32Array;
}

/** Some items laid out, and what the rest is judged by. */
interface Strand {
  kept: Kept;
  readonly rest: Rest;
  /** How many items of each job are not yet laid out. */
  readonly items: Int32Array;
  /** Until when somebody is busy, and when what was laid out last begins. */
  busy: number;
  last: number;
  /** Which items are laid out, in one number. */
  set: number;
}

/** One more item on a partial plan. */
interface Candidate {
  readonly parent: number;
  readonly item: number;
  /** What it is judged by, what it comes to in one number, and what it costs so far. */
  readonly key: number;
  readonly hash: number;
  readonly cost: number;
  /** When the item ends; the rest as of a partial plan. */
  readonly to: number;
  readonly last: number;
  readonly busy: number;
  readonly kept: Kept;
}

/** How each level came about: of each partial plan the one it goes on from, and what was laid out. */
interface Level {
  readonly parent: Int32Array;
  readonly item: Int32Array;
}

/**
 * A part of a day laid out anew, forward in time, some partial plans side by side: of all that may come next in each, what leads to the least late day goes on. Who
 * comes into the units when is given, and who is begun when; when to wash, to blend, to empty and what to do meanwhile is found. A partial plan goes on only when
 * everybody who stands in a unit still gets out of it in time. What comes before and after that part keeps its order.
 */
export class Beam {
  /** Over when a plan is found, or nothing below the limit is left. */
  isOver = true;
  /** Of the best plan; when there is none, something above the limit. */
  cost: number = Number.POSITIVE_INFINITY;
  private readonly compiled: Compiled;
  private readonly outline: Outline;
  private readonly outlook: Outlook;
  /** Of each job its items, its pieces from the entry on, its entry, and its first piece where that comes before; −1 = none. */
  private readonly own: readonly Int32Array[];
  private readonly inside: readonly Int32Array[];
  private readonly entry: Int32Array;
  private readonly first: Int32Array;
  /** Of each wash the piece it is for; and of each item those that must be laid out before. */
  private readonly washedFor: Int32Array;
  private readonly needs: readonly Int32Array[];
  /** Of each piece those of its own job that must be laid out before. */
  private readonly ownNeeds: readonly Int32Array[];
  /** Whether each of the pieces of a job, from the entry on, needs the one before it. */
  private readonly isChain: Uint8Array;
  /** Of each, how many of those are laid out for sure. */
  private readonly nextInside: Int32Array;
  private readonly signs: Int32Array;
  /** The step each begins with, by its number among all. */
  private readonly firstStep: Int32Array;
  private plans: Strand[];
  private nextPlans: Strand[];
  private count = 0;
  private levels: Level[] = [];
  /** What is laid out anew, and in which order the rest comes before and after. */
  private window: readonly number[] = [];
  private head: Int32Array = new Int32Array(0);
  private tail: Int32Array = new Int32Array(0);
  /** The best plan, as an order of items. */
  order: Int32Array = new Int32Array(0);
  private limit = 0;
  private leastAbove = 0;
  private ways: Int32Array = new Int32Array(0);
  private entering: readonly number[] = [];
  private beginning: readonly number[] = [];
  private readonly might: Int32Array;
  private readonly tried: Candidate[] = [];
  /** What was met among those that may come next, with what it costs so far; −1 = somebody does not get out. */
  private readonly met = new Map<number, number>();
  /** Room for partial plans, not in use. */
  private readonly spare: Kept[] = [];
  private best: Candidate[] = [];

  constructor(outline: Outline) {
    const { compiled, items, pieces } = outline;
    const { jobs } = compiled;
    this.compiled = compiled;
    this.outline = outline;
    this.outlook = new Outlook(outline);
    this.own = jobs.map(({ index }) => Int32Array.from(items.flatMap((item, at) => (item.job === index ? [at] : []))));
    this.entry = new Int32Array(jobs.length).fill(NONE);
    this.first = new Int32Array(jobs.length).fill(NONE);
    this.inside = jobs.map(({ index, variants }) => {
      const own = Array.from(this.own[index]!).filter((at) => at < pieces);
      const comesIn = own.findIndex((at) => items[at]!.block.some((step) => variants[0]!.holdings.some((holding) => holding.from === step && holding.to !== step)));
      const entry = Math.max(0, comesIn);
      this.entry[index] = own[entry] ?? NONE;
      if (entry > 0) this.first[index] = own[0]!;
      return Int32Array.from(own.slice(entry));
    });
    this.washedFor = new Int32Array(items.length).fill(NONE);
    items.forEach(({ before }, at) => {
      for (const wash of before) if (wash >= pieces) this.washedFor[wash] = at;
    });
    // Nobody washes for a piece before what comes before it could be laid out.
    this.needs = items.map(({ before }, at) =>
      Int32Array.from(at < pieces ? before : items[this.washedFor[at]!]!.before.flatMap((other) => (other >= pieces ? [] : items[other]!.before))),
    );
    this.ownNeeds = items.map(({ job }, at) => this.needs[at]!.filter((other) => other < pieces && items[other]!.job === job));
    this.isChain = Uint8Array.from(this.inside, (own) => (own.every((piece, at) => at === 0 || this.ownNeeds[piece]!.includes(own[at - 1]!)) ? 1 : 0));
    this.nextInside = new Int32Array(jobs.length);
    this.firstStep = Int32Array.from(items, ({ job, block }) => jobs[job]!.offset + block[0]!);
    const random = seeded(items.length);
    this.signs = Int32Array.from(items, () => Math.floor(random() * 2 ** 31));
    const rows = (): Strand[] =>
      Array.from({ length: WIDTH }, () => ({ kept: outline.kept(), rest: this.outlook.rest(), items: new Int32Array(jobs.length), busy: 0, last: 0, set: 0 }));
    this.plans = rows();
    this.nextPlans = rows();
    this.might = new Int32Array(items.length);
  }

  /** What an order of items does by itself. */
  entriesOf(order: ArrayLike<number>): Entries {
    const { items } = this.outline;
    const those = (of: Int32Array): number[] => Array.from(order).flatMap((at) => (of[items[at]!.job] === at ? [items[at]!.job] : []));
    return { entering: those(this.entry), beginning: those(this.first) };
  }

  /** What is laid out for a job to come in, to be begun, or at all: items whose place in an order may change. */
  itemsOf(job: number, what: 'entry' | 'first' | 'all'): readonly number[] {
    if (what === 'all') return Array.from(this.own[job]!);
    const item = what === 'entry' ? this.entry[job]! : this.first[job]!;
    return item < 0 ? [] : [item, ...this.outline.items[item]!.before.filter((wash) => wash >= this.outline.pieces)];
  }

  /** Begins. Plans above the limit are not followed. */
  begin({ order, from, to, entering, beginning, ways }: Window, limit: number): void {
    const { compiled, outline, outlook } = this;
    this.entering = entering;
    this.beginning = beginning;
    this.ways = ways;
    this.limit = limit;
    this.leastAbove = Number.POSITIVE_INFINITY;
    this.cost = Number.POSITIVE_INFINITY;
    this.levels = [];
    this.head = order.subarray(0, from);
    this.tail = order.subarray(to);
    const root = this.plans[0]!;
    root.items.fill(0);
    root.busy = entering.reduce((soonest, job) => Math.min(soonest, compiled.jobs[job]!.job.releaseMin), compiled.horizon);
    root.last = root.busy;
    root.set = 0;
    this.isOver = false;
    this.count = 1;
    outline.restore(null, ways);
    for (const item of this.head)
      if (!outline.place(item)) {
        this.isOver = true;
        return;
      }
    outlook.begin(entering, root.rest);
    outline.items.forEach(({ job }, item) => {
      if (outline.seen[item] === 0) {
        root.items[job]! += 1;
        return;
      }
      if (outlook.keepsBusy(item)) root.busy = Math.max(root.busy, outline.to(item));
      root.last = Math.max(root.last, outline.from(item));
      root.set ^= this.signs[item]!;
    });
    const within = Array.from(order.subarray(from, to));
    this.window = within.filter((item) => outline.seen[item] === 0);
    // What had to be laid out with what comes before has its place there.
    this.head = Int32Array.from([...this.head, ...within.filter((item) => outline.seen[item] !== 0)]);
    outline.keep(root.kept);
    if (this.window.length === 0) this.isOver = true;
  }

  /** One item more on every partial plan. */
  step(): void {
    const { plans, outline, tried } = this;
    this.best = [];
    this.met.clear();
    for (let parent = 0; parent < this.count; parent += 1) {
      const plan = plans[parent]!;
      outline.restore(plan.kept, this.ways);
      const next = this.nextItems();
      tried.length = 0;
      let soonestEnd = Number.POSITIVE_INFINITY;
      for (let index = 0; index < next; index += 1) {
        if (index > 0) outline.restore(plan.kept, this.ways);
        soonestEnd = Math.min(soonestEnd, this.tryOut(parent, plan, this.might[index]!));
      }
      // What begins after something else could be over comes after that.
      for (const candidate of tried) {
        if (candidate.last < soonestEnd) this.enter(candidate);
        else this.spare.push(candidate.kept);
      }
    }
    this.goOn();
  }

  /** What may come next in the plan that is laid out; how many. */
  private nextItems(): number {
    const { outline, window, entry, first, washedFor, might } = this;
    const { seen, items, pieces } = outline;
    const comesIn = this.next(this.entering, entry);
    const isBegun = this.next(this.beginning, first);
    let count = 0;
    for (let at = 0; at < window.length; at += 1) {
      const item = window[at]!;
      if (seen[item] !== 0 || !this.isReady(item)) continue;
      const { job } = items[item]!;
      const piece = item < pieces ? item : washedFor[item]!;
      if (piece === entry[job] ? job !== comesIn : piece === first[job] && job !== isBegun) continue;
      if (this.isFree(item)) might[count++] = item;
    }
    return count;
  }

  /** Whose turn it is in an order: the first that has not done yet what it is the order of. */
  private next(order: readonly number[], items: Int32Array): number {
    const { seen } = this.outline;
    for (let at = 0; at < order.length; at += 1) if (seen[items[order[at]!]!] === 0) return order[at]!;
    return NONE;
  }

  /** Nobody washes, or comes into, what somebody else stands in. */
  private isFree(item: number): boolean {
    const { rowsOfItem, heldBy } = this.outline;
    const rows = rowsOfItem[item]!;
    for (let at = 0; at < rows.length; at += 1) {
      const { job, opening } = rows[at]!;
      for (let slot = 0; slot < opening.length; slot += 1) {
        const holder = heldBy[opening[slot]!]!;
        if (holder >= 0 && holder !== job) return false;
      }
    }
    return true;
  }

  /** Lays one more item out on the plan that is laid out. Gives when it ends, if it keeps somebody busy; Infinity when it does not, or leads nowhere. */
  private tryOut(parent: number, plan: Strand, item: number): number {
    const { outline, outlook, best, limit } = this;
    if (!outline.place(item)) return Number.POSITIVE_INFINITY;
    const from = outline.from(item);
    const to = outline.to(item);
    const isBusy = outlook.keepsBusy(item);
    const busy = isBusy ? Math.max(plan.busy, to) : plan.busy;
    const last = Math.max(plan.last, from);
    const isFull = best.length === WIDTH;
    // What comes to the same as something before leads no further than that.
    const hash = plan.set ^ this.signs[item]! ^ this.times(plan, item, last);
    const { cost } = outline;
    const met = this.met.get(hash);
    if (met === NONE) return Number.POSITIVE_INFINITY;
    const over = isBusy && from >= plan.last ? to : Number.POSITIVE_INFINITY;
    if (met !== undefined && met <= cost) return over;
    outlook.reckon(plan.rest, item, busy);
    // Everybody's way out of the units only makes it later.
    const atLeast = outlook.guess();
    if (outlook.sure > limit) return this.above();
    if (isFull && atLeast >= best[WIDTH - 1]!.key) return Number.POSITIVE_INFINITY;
    const kept = this.spare.pop() ?? outline.kept();
    outline.keep(kept);
    if (!this.getOut()) {
      this.spare.push(kept);
      this.met.set(hash, NONE);
      return Number.POSITIVE_INFINITY;
    }
    const key = outlook.guess();
    if (outlook.sure > limit) {
      this.spare.push(kept);
      return this.above();
    }
    this.tried.push({ parent, item, key, hash, cost, to, last, busy, kept });
    return over;
  }

  private above(): number {
    this.leastAbove = Math.min(this.leastAbove, this.outlook.sure);
    return Number.POSITIVE_INFINITY;
  }

  /** What lies when, as far as it matters for what comes after `last`, in one number. */
  private times(plan: Strand, placed: number, last: number): number {
    const { own, outline, firstStep } = this;
    const { seen, end, items, pieces, start, washTo, slots, unitTo } = outline;
    const mine = items[placed]!.job;
    let hash = 0;
    for (let job = 0; job < own.length; job += 1) {
      const itsItems = own[job]!;
      const left = plan.items[job]! - (job === mine ? 1 : 0);
      // Nothing is laid out of it, or all, and that is over.
      if (left === itsItems.length || (left <= 0 && end[job]! <= last)) continue;
      for (let at = 0; at < itsItems.length; at += 1) {
        const item = itsItems[at]!;
        if (seen[item] === 0) continue;
        const step = firstStep[item]!;
        const time = item < pieces ? start[step]! : Math.max(last, washTo[step * slots]!);
        hash = Math.imul(hash ^ (time + item * 4096), 0x9e3779b1);
        hash ^= hash >>> 15;
      }
    }
    for (let unit = 0; unit < unitTo.length; unit += 1) {
      if (unitTo[unit]! <= last) continue;
      hash = Math.imul(hash ^ (unitTo[unit]! + unit * 8192), 0x85ebca6b);
      hash ^= hash >>> 13;
    }
    return hash;
  }

  /** Whether all that must come before an item is laid out. */
  private isReady(item: number): boolean {
    const { seen } = this.outline;
    const need = this.needs[item]!;
    for (let at = 0; at < need.length; at += 1) if (seen[need[at]!] === 0) return false;
    return true;
  }

  /** Lays out the rest of all that stand in a unit, by when their next must begin; told backwards, of all that is begun. False when somebody does not get out in time. */
  private getOut(): boolean {
    const { outline, inside, entry, isChain, nextInside } = this;
    const { heldBy, seen, standing } = outline;
    const rows = standing === null ? heldBy.length : entry.length;
    nextInside.fill(0);
    for (;;) {
      let soonest = Number.POSITIVE_INFINITY;
      let next = NONE;
      for (let row = 0; row < rows; row += 1) {
        const job = standing === null ? heldBy[row]! : row;
        if (job < 0 || (standing !== null && seen[entry[job]!] === 0)) continue;
        const pieces = inside[job]!;
        let first = nextInside[job]!;
        while (first < pieces.length && seen[pieces[first]!] !== 0) first += 1;
        nextInside[job] = first;
        for (let at = first; at < pieces.length; at += 1) {
          const piece = pieces[at]!;
          if (seen[piece] !== 0) continue;
          if (this.isNextOfJob(piece)) {
            const latest = this.latest(piece);
            if (next < 0 || latest < soonest) {
              soonest = latest;
              next = piece;
            }
          }
          // Each of them follows the one before.
          if (isChain[job] === 1) break;
        }
      }
      if (next < 0) return true;
      if (!outline.place(next)) return false;
    }
  }

  /** Whether what comes before a piece of its own job is laid out: washes, and what it is made of, are laid out with it. */
  private isNextOfJob(piece: number): boolean {
    const { seen } = this.outline;
    const needs = this.ownNeeds[piece]!;
    for (let at = 0; at < needs.length; at += 1) if (seen[needs[at]!] === 0) return false;
    return true;
  }

  /** By when a piece must begin, by what is laid out. */
  private latest(piece: number): number {
    const { start, rowsOfItem } = this.outline;
    const { incoming } = rowsOfItem[piece]![0]!;
    let latest = Number.POSITIVE_INFINITY;
    for (let at = 0; at < incoming.length; at += 1) {
      const { from, max } = incoming[at]!;
      const before = start[from]!;
      if (before >= 0 && before + max < latest) latest = before + max;
    }
    return latest;
  }

  /** Takes its place among the best; of those that come to the same, one stays. */
  private enter(candidate: Candidate): void {
    const { best, met, spare } = this;
    met.set(candidate.hash, candidate.cost);
    const same = best.findIndex(({ hash }) => hash === candidate.hash);
    const isFull = same < 0 && best.length === WIDTH;
    if (candidate.key >= (same >= 0 ? best[same]!.key : isFull ? best[WIDTH - 1]!.key : Number.POSITIVE_INFINITY)) {
      spare.push(candidate.kept);
      return;
    }
    if (same >= 0) spare.push(...best.splice(same, 1).map(({ kept }) => kept));
    else if (isFull) spare.push(best.pop()!.kept);
    let at = best.length;
    while (at > 0 && best[at - 1]!.key > candidate.key) at -= 1;
    best.splice(at, 0, candidate);
  }

  /** The best go on. */
  private goOn(): void {
    const { best, plans, nextPlans, outline, outlook, levels, signs, spare } = this;
    const level: Level = { parent: new Int32Array(best.length), item: new Int32Array(best.length) };
    levels.push(level);
    best.forEach(({ parent, item, to, last, busy, kept }, row) => {
      const before = plans[parent]!;
      const plan = nextPlans[row]!;
      spare.push(plan.kept);
      plan.kept = kept;
      outlook.take(item, to, before.rest, plan.rest);
      plan.items.set(before.items);
      plan.items[outline.items[item]!.job]! -= 1;
      plan.busy = busy;
      plan.last = last;
      plan.set = before.set ^ signs[item]!;
      level.parent[row] = parent;
      level.item[row] = item;
    });
    this.plans = nextPlans;
    this.nextPlans = plans;
    this.count = best.length;
    const isThrough = levels.length === this.window.length;
    this.isOver = isThrough || best.length === 0;
    if (!this.isOver) return;
    let cheapest = NONE;
    for (let row = 0; isThrough && row < this.count; row += 1) {
      const cost = this.complete(this.plans[row]!);
      if (cost >= this.cost) continue;
      this.cost = cost;
      cheapest = row;
    }
    if (cheapest >= 0) this.order = this.orderTo(cheapest);
    else this.cost = this.leastAbove;
  }

  /** What comes after, in its order. */
  private complete({ kept }: Strand): number {
    const { outline, tail, limit } = this;
    outline.restore(kept, this.ways);
    for (const item of tail) {
      if (!outline.place(item)) return Number.POSITIVE_INFINITY;
      if (outline.cost <= limit) continue;
      this.leastAbove = Math.min(this.leastAbove, outline.cost);
      return Number.POSITIVE_INFINITY;
    }
    return outline.total();
  }

  private orderTo(plan: number): Int32Array {
    const { levels, head, tail } = this;
    const order = new Int32Array(head.length + levels.length + tail.length);
    order.set(head);
    order.set(tail, head.length + levels.length);
    let row = plan;
    for (let at = levels.length - 1; at >= 0; at -= 1) {
      order[head.length + at] = levels[at]!.item[row]!;
      row = levels[at]!.parent[row]!;
    }
    return order;
  }
}
