import { seeded } from '../random';
import type { Compiled } from './compile';
import { Following } from './following';
import type { Entries } from './following';
import { PLAIN } from './manner';
import type { Manner } from './manner';
import type { Kept, Outline } from './outline';
import { Outlook } from './outlook';
import type { Rest } from './outlook';

const NONE = -1;
/** Partial plans that go on side by side. A choice of the search. */
const WIDTH = 16;

/** A part of an order that is laid out anew, and what it is to keep to. */
export interface Window extends Entries {
  readonly order: Int32Array;
  readonly from: number;
  readonly to: number;
  readonly ways: Int32Array;
  readonly manner: Manner;
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
  /** What it is judged by, what it comes to in one number, which items are laid out, and what it costs so far. */
  readonly key: number;
  readonly hash: number;
  readonly set: number;
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
  /** Who may come next, of the outline it lays out on. */
  readonly following: Following;
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
  private manner: Manner = PLAIN;
  /** Where each item was in the order there was. */
  private readonly placeOf: Int32Array;
  private entries: Entries = { entering: [], beginning: [] };
  private readonly tried: Candidate[] = [];
  /** What was met among those that may come next, with what it costs so far; −1 = somebody does not get out. */
  private readonly met = new Map<number, number>();
  /** Room for partial plans, not in use. */
  private readonly spare: Kept[] = [];
  private best: Candidate[] = [];

  constructor(outline: Outline) {
    const { compiled, items } = outline;
    const { jobs } = compiled;
    this.compiled = compiled;
    this.outline = outline;
    this.outlook = new Outlook(outline);
    this.following = new Following(outline);
    this.firstStep = Int32Array.from(items, ({ job, block }) => jobs[job]!.offset + block[0]!);
    this.placeOf = new Int32Array(items.length);
    const random = seeded(items.length);
    this.signs = Int32Array.from(items, () => Math.floor(random() * 2 ** 31));
    const rows = (): Strand[] =>
      Array.from({ length: WIDTH }, () => ({ kept: outline.kept(), rest: this.outlook.rest(), items: new Int32Array(jobs.length), busy: 0, last: 0, set: 0 }));
    this.plans = rows();
    this.nextPlans = rows();
  }

  /** Begins. Plans above the limit are not followed. */
  begin({ order, from, to, entering, beginning, ways, manner }: Window, limit: number): void {
    const { compiled, outline, outlook } = this;
    this.entries = { entering, beginning };
    this.ways = ways;
    this.manner = manner;
    order.forEach((item, place) => {
      this.placeOf[item] = place;
    });
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
    const { plans, outline, following, tried } = this;
    this.best = [];
    this.met.clear();
    for (let parent = 0; parent < this.count; parent += 1) {
      const plan = plans[parent]!;
      outline.restore(plan.kept, this.ways);
      const next = following.find(this.window, this.entries);
      tried.length = 0;
      let soonestEnd = Number.POSITIVE_INFINITY;
      for (let index = 0; index < next; index += 1) {
        if (index > 0) outline.restore(plan.kept, this.ways);
        soonestEnd = Math.min(soonestEnd, this.tryOut(parent, plan, following.might[index]!));
      }
      // What begins after something else could be over comes after that.
      for (const candidate of tried) {
        if (candidate.last < soonestEnd) this.enter(candidate);
        else this.spare.push(candidate.kept);
      }
    }
    this.goOn();
  }

  /** Lays one more item out on the plan that is laid out. Gives when it ends, if it keeps somebody busy; Infinity when it does not, or leads nowhere. */
  private tryOut(parent: number, plan: Strand, item: number): number {
    const { outline, outlook, best, limit, manner } = this;
    if (!outline.place(item)) return Number.POSITIVE_INFINITY;
    const from = outline.from(item);
    const to = outline.to(item);
    const isBusy = outlook.keepsBusy(item);
    const busy = isBusy ? Math.max(plan.busy, to) : plan.busy;
    const last = Math.max(plan.last, from);
    const isFull = best.length === WIDTH;
    // What comes to the same as something before leads no further than that.
    const set = plan.set ^ this.signs[item]!;
    const hash = set ^ this.times(plan, item, last);
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
    if (!this.following.getOut(manner, this.placeOf)) {
      this.spare.push(kept);
      this.met.set(hash, NONE);
      return Number.POSITIVE_INFINITY;
    }
    const key = atLeast + (outlook.guess() - atLeast) * manner.part;
    if (manner.part === 1 && outlook.sure > limit) {
      this.spare.push(kept);
      return this.above();
    }
    this.tried.push({ parent, item, key, hash, set, cost, to, last, busy, kept });
    return over;
  }

  private above(): number {
    this.leastAbove = Math.min(this.leastAbove, this.outlook.sure);
    return Number.POSITIVE_INFINITY;
  }

  /** What lies when, as far as it matters for what comes after `last`, in one number. */
  private times(plan: Strand, placed: number, last: number): number {
    const { outline, firstStep } = this;
    const { own } = this.following;
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

  /** Takes its place among the best; of those that come to the same, one stays, of those that have the same laid out as many as may go on. */
  private enter(candidate: Candidate): void {
    const { best, met, spare } = this;
    met.set(candidate.hash, candidate.cost);
    const same = best.findIndex(({ hash }) => hash === candidate.hash);
    const crowded = same >= 0 ? same : this.dearestAlike(candidate.set);
    const out = crowded < 0 && best.length === WIDTH ? WIDTH - 1 : crowded;
    if (out >= 0 && candidate.key >= best[out]!.key) {
      spare.push(candidate.kept);
      return;
    }
    if (out >= 0) spare.push(...best.splice(out, 1).map(({ kept }) => kept));
    let at = best.length;
    while (at > 0 && best[at - 1]!.key > candidate.key) at -= 1;
    best.splice(at, 0, candidate);
  }

  /** The dearest of those with these items laid out, when there are as many as may go on; −1 = there are not. */
  private dearestAlike(set: number): number {
    const { best, manner } = this;
    if (manner.alike >= WIDTH) return NONE;
    let count = 0;
    let dearest = NONE;
    for (let at = 0; at < best.length; at += 1) {
      if (best[at]!.set !== set) continue;
      count += 1;
      dearest = at;
    }
    return count >= manner.alike ? dearest : NONE;
  }

  /** The best go on. */
  private goOn(): void {
    const { best, plans, nextPlans, outline, outlook, levels, spare } = this;
    const level: Level = { parent: new Int32Array(best.length), item: new Int32Array(best.length) };
    levels.push(level);
    best.forEach(({ parent, item, set, to, last, busy, kept }, row) => {
      const before = plans[parent]!;
      const plan = nextPlans[row]!;
      spare.push(plan.kept);
      plan.kept = kept;
      outlook.take(item, to, before.rest, plan.rest);
      plan.items.set(before.items);
      plan.items[outline.items[item]!.job]! -= 1;
      plan.busy = busy;
      plan.last = last;
      plan.set = set;
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
