import type { Manner } from './manner';
import type { Outline } from './outline';

const NONE = -1;

/** In which order all jobs come into the units they stay in, and in which order all those are begun that have something to be done before. */
export interface Entries {
  readonly entering: readonly number[];
  readonly beginning: readonly number[];
}

/** Who may come next in a day that is laid out in part, when it is given in which orders jobs come in and are begun; and how everybody who is in gets out. */
export class Following {
  /** What may come next, as it was found last. */
  readonly might: Int32Array;
  private readonly outline: Outline;
  /** Of each job its items, its pieces from the entry on, its entry, and its first piece where that comes before; −1 = none. */
  readonly own: readonly Int32Array[];
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
  /** Of each, as everybody gets out: how many of those are laid out for sure, its next, and when that had better begin. */
  private readonly nextInside: Int32Array;
  private readonly nextOf: Int32Array;
  private readonly turnOf: Float64Array;

  constructor(outline: Outline) {
    const { compiled, items, pieces } = outline;
    const { jobs } = compiled;
    this.outline = outline;
    this.might = new Int32Array(items.length);
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
    this.nextOf = new Int32Array(jobs.length);
    this.turnOf = new Float64Array(jobs.length);
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

  /** Finds what of these items may come next in the plan that is laid out; how many. */
  find(window: readonly number[], { entering, beginning }: Entries): number {
    const { outline, entry, first, washedFor, might } = this;
    const { seen, items, pieces } = outline;
    const comesIn = this.next(entering, entry);
    const isBegun = this.next(beginning, first);
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

  /** Whether all that must come before an item is laid out. */
  private isReady(item: number): boolean {
    const { seen } = this.outline;
    const need = this.needs[item]!;
    for (let at = 0; at < need.length; at += 1) if (seen[need[at]!] === 0) return false;
    return true;
  }

  /** Lays out the rest of all that stand in a unit, told backwards of all that is begun; `placeOf` is where each item was in the order there was. False when somebody does not get out in time. */
  getOut(manner: Manner, placeOf: Int32Array): boolean {
    const { outline, entry, isChain, nextInside, nextOf, turnOf } = this;
    const { heldBy, seen, standing } = outline;
    const rows = standing === null ? heldBy.length : entry.length;
    nextInside.fill(0);
    nextOf.fill(NONE);
    for (;;) {
      let least = Number.POSITIVE_INFINITY;
      let next = NONE;
      for (let row = 0; row < rows; row += 1) {
        const job = standing === null ? heldBy[row]! : row;
        if (job < 0 || (standing !== null && seen[entry[job]!] === 0)) continue;
        // Where each follows the one before, it stays the next until it is laid out.
        const known = nextOf[job]!;
        if (known < 0 || isChain[job] === 0 || seen[known] !== 0) this.findNext(job, manner, placeOf);
        const piece = nextOf[job]!;
        if (piece < 0 || (next >= 0 && turnOf[job]! >= least)) continue;
        least = turnOf[job]!;
        next = piece;
      }
      if (next < 0) return true;
      if ((manner.washesFirst && !this.washAfter(next)) || !outline.place(next)) return false;
    }
  }

  /** What a job in a unit does next. */
  private findNext(job: number, manner: Manner, placeOf: Int32Array): void {
    const { isChain, nextInside, nextOf, turnOf } = this;
    const { seen } = this.outline;
    const pieces = this.inside[job]!;
    let first = nextInside[job]!;
    while (first < pieces.length && seen[pieces[first]!] !== 0) first += 1;
    nextInside[job] = first;
    nextOf[job] = NONE;
    for (let at = first; at < pieces.length; at += 1) {
      const piece = pieces[at]!;
      if (seen[piece] !== 0) continue;
      if (this.isNextOfJob(piece)) {
        const turn = manner.isAsItWas ? placeOf[piece]! : this.latest(piece) + (manner.share === 0 ? 0 : this.lasts(piece) * manner.share);
        if (nextOf[job] < 0 || turn < turnOf[job]!) {
          nextOf[job] = piece;
          turnOf[job] = turn;
        }
      }
      if (isChain[job] === 1) return;
    }
  }

  /** Washes what the piece after this one of its job comes into, as far as nobody stands in it. */
  private washAfter(piece: number): boolean {
    const { outline, inside } = this;
    const { items, pieces } = outline;
    const own = inside[items[piece]!.job]!;
    const after = own[own.indexOf(piece) + 1];
    if (after === undefined) return true;
    const { before } = items[after]!;
    for (let at = 0; at < before.length; at += 1) if (before[at]! >= pieces && this.isFree(before[at]!) && !outline.place(before[at]!)) return false;
    return true;
  }

  /** Whether what comes before a piece of its own job is laid out: washes, and what it is made of, are laid out with it. */
  private isNextOfJob(piece: number): boolean {
    const { seen } = this.outline;
    const needs = this.ownNeeds[piece]!;
    for (let at = 0; at < needs.length; at += 1) if (seen[needs[at]!] === 0) return false;
    return true;
  }

  /** How many minutes a piece takes. */
  private lasts(piece: number): number {
    const rows = this.outline.rowsOfItem[piece]!;
    let sum = 0;
    for (let at = 0; at < rows.length; at += 1) sum += rows[at]!.duration;
    return sum;
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
}
