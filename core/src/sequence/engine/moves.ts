import type { Random } from '../random';
import type { Compiled } from './compile';
import type { Item } from './items';

/** How often a move looks for what holds up the end. A choice of the search. */
const CRITICAL = 0.6;
/** Where each is moved by itself: how often two change places. A choice of the search. */
const SWAPPED = 0.3;
/** The job of no item. */
const NONE = -1;
/** How many pairs along the ways that end latest or late are remembered, for each item. A choice of the search. */
const PAIRS = 8;

/** What may be moved in an order of items, and what is worth moving: past another that wants the same, mostly past what holds up the end of the day or something late. */
export class Moves {
  private readonly compiled: Compiled;
  private readonly items: readonly Item[];
  private readonly random: Random;
  private readonly jobOf: Int32Array;
  /** Of each item the others that want something it wants, as a list and as a table. */
  private readonly rivals: readonly (readonly number[])[];
  private readonly isRival: Uint8Array;
  /** Whether those of a job that one is moved past go with it. */
  private readonly goTogether: boolean;
  private readonly longestWash: number;
  /** When each item began and ended where it lay last, and the items by their end. */
  private readonly start: Int32Array;
  private readonly end: Int32Array;
  private readonly byEnd: Int32Array;
  private readonly queue: Int32Array;
  private readonly queued: Uint8Array;
  /** Pairs of an item and one that ended just before it began; and how many, −1 = not yet sought. */
  private readonly pairs: Int32Array;
  private pairCount = -1;
  private readonly aside: Int32Array;

  constructor(compiled: Compiled, items: readonly Item[], rivals: readonly (readonly number[])[], goTogether: boolean, random: Random) {
    const count = items.length;
    this.compiled = compiled;
    this.items = items;
    this.random = random;
    this.jobOf = Int32Array.from(items, ({ job }) => job);
    this.rivals = rivals;
    this.isRival = new Uint8Array(count * count);
    rivals.forEach((others, index) => {
      for (const other of others) this.isRival[index * count + other] = 1;
    });
    this.goTogether = goTogether;
    this.longestWash = compiled.washes.reduce((longest, washes) => washes?.reduce((most, min) => Math.max(most, min), longest) ?? longest, 0);
    this.start = new Int32Array(count);
    this.end = new Int32Array(count);
    this.byEnd = Int32Array.from(items, (_, index) => index);
    this.queue = new Int32Array(count);
    this.queued = new Uint8Array(count);
    this.pairs = new Int32Array(count * PAIRS * 2);
    this.aside = new Int32Array(count);
  }

  private pick(limit: number): number {
    return Math.floor(this.random() * limit);
  }

  /** Takes down when items begin and end: what holds up the end is sought there when it is next asked for. */
  lie(start: Int32Array, end: Int32Array): void {
    this.start.set(start);
    this.end.set(end);
    this.pairCount = -1;
  }

  /** One thing moved past another: moving it past what it never meets would change nothing. */
  moved(order: Int32Array, seeksCritical: boolean): Int32Array {
    if (order.length < 2) return order.slice();
    if (seeksCritical && this.random() < CRITICAL) {
      if (this.pairCount < 0) this.seekPairs();
      if (this.pairCount > 0) {
        const pair = this.pick(this.pairCount) * 2;
        const [from, to] = [order.indexOf(this.pairs[pair]!), order.indexOf(this.pairs[pair + 1]!)];
        return this.random() < 0.5 ? this.shifted(order, from, to < from ? to : to - 1) : this.shifted(order, to, from > to ? from : from + 1);
      }
    }
    const from = this.pick(order.length);
    const rivals = this.rivals[order[from]!]!;
    if (rivals.length === 0) return order.slice();
    let to = order.indexOf(rivals[this.pick(rivals.length)]!);
    // Mostly not far: of a few, the nearest.
    for (let tries = this.pick(4); tries > 0; tries -= 1) {
      const other = order.indexOf(rivals[this.pick(rivals.length)]!);
      if (Math.abs(other - from) < Math.abs(to - from)) to = other;
    }
    if (this.goTogether || this.random() >= SWAPPED) return this.shifted(order, from, to);
    const next = order.slice();
    next[from] = order[to]!;
    next[to] = order[from]!;
    return next;
  }

  /** One item at another place, perhaps with those of its job that it passes. */
  private shifted(order: Int32Array, from: number, to: number): Int32Array {
    const { jobOf, aside } = this;
    const next = order.slice();
    const item = order[from]!;
    const job = this.goTogether ? jobOf[item]! : NONE;
    let at = Math.min(from, to);
    let left = 0;
    if (to < from) {
      for (let place = to; place < from; place += 1) {
        if (jobOf[order[place]!] === job) next[at++] = order[place]!;
        else aside[left++] = order[place]!;
      }
      next[at++] = item;
    } else {
      for (let place = from + 1; place <= to && place < order.length; place += 1) {
        if (jobOf[order[place]!] === job) aside[left++] = order[place]!;
        else next[at++] = order[place]!;
      }
      next[at++] = item;
    }
    for (let index = 0; index < left; index += 1) next[at++] = aside[index]!;
    return next;
  }

  /** All pieces of a job in the places of another's, or all of them sooner or later by as much. */
  jobMoved(order: Int32Array): Int32Array {
    const { jobOf, aside } = this;
    const next = order.slice();
    const one = jobOf[this.pick(order.length)]!;
    const other = jobOf[this.pick(order.length)]!;
    let mine = 0;
    let theirs = 0;
    for (const job of jobOf) {
      if (job === one) mine += 1;
      if (job === other) theirs += 1;
    }
    if (one !== other && mine === theirs && this.random() < 0.5) {
      // Those of the one, and behind them those of the other.
      let [ones, others] = [0, mine];
      for (const item of order) {
        if (jobOf[item] === one) aside[ones++] = item;
        if (jobOf[item] === other) aside[others++] = item;
      }
      [ones, others] = [mine, 0];
      for (let place = 0; place < order.length; place += 1) {
        const job = jobOf[order[place]!]!;
        if (job === one) next[place] = aside[ones++]!;
        if (job === other) next[place] = aside[others++]!;
      }
      return next;
    }
    // Half a place more, so that it comes to stand between two others and not on one.
    const by = 1.5 + this.pick(Math.max(1, order.length >> 1));
    const towards = this.random() < 0.5 ? -by : by;
    let own = 0;
    let rest = 0;
    for (let at = 0; at < order.length; at += 1) {
      while (own < order.length && jobOf[order[own]!] !== one) own += 1;
      while (rest < order.length && jobOf[order[rest]!] === one) rest += 1;
      if (rest >= order.length || (own < order.length && own + towards < rest)) next[at] = order[own++]!;
      else next[at] = order[rest++]!;
    }
    return next;
  }

  /** Along the ways that end latest or late: each item with those that ended just before it began and want the same. */
  private seekPairs(): void {
    const { compiled, items, start, end, byEnd, queue, queued, pairs, isRival, longestWash } = this;
    const { weights } = compiled.problem;
    const count = items.length;
    // They lie much as they lay before.
    for (let at = 1; at < count; at += 1) {
      const item = byEnd[at]!;
      let to = at;
      for (; to > 0 && end[byEnd[to - 1]!]! > end[item]!; to -= 1) byEnd[to] = byEnd[to - 1]!;
      byEnd[to] = item;
    }
    const last = end[byEnd[count - 1]!]!;
    queued.fill(0);
    let waiting = 0;
    for (let index = 0; index < count; index += 1) {
      const { readyByMin, lateWeight } = compiled.jobs[items[index]!.job]!.job;
      const late = weights.late * lateWeight > 0 && readyByMin !== null && end[index]! > readyByMin;
      if (!late && (weights.makespan <= 0 || end[index] !== last)) continue;
      queued[index] = 1;
      queue[waiting++] = index;
    }
    let found = 0;
    for (let next = 0; next < waiting; next += 1) {
      const index = queue[next]!;
      const begins = start[index]!;
      for (const before of items[index]!.before) {
        if (queued[before] !== 0 || end[before] !== begins) continue;
        queued[before] = 1;
        queue[waiting++] = before;
      }
      let at = 0;
      for (let high = count; at < high;) {
        const middle = (at + high) >> 1;
        if (end[byEnd[middle]!]! > begins) high = middle;
        else at = middle + 1;
      }
      for (at -= 1; at >= 0 && begins - end[byEnd[at]!]! <= longestWash; at -= 1) {
        const rival = byEnd[at]!;
        if (isRival[index * count + rival] === 0) continue;
        if (found < pairs.length) {
          pairs[found++] = index;
          pairs[found++] = rival;
        }
        if (queued[rival] !== 0) continue;
        queued[rival] = 1;
        queue[waiting++] = rival;
      }
    }
    this.pairCount = found >> 1;
  }
}
