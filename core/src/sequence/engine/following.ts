import type { Manner } from './manner';
import type { Outline } from './outline';

const NONE = -1;

/** In which order all jobs come into the units they stay in, and in which order all those are begun that have something to be done before. */
export interface Entries {
  readonly entering: readonly number[];
  readonly beginning: readonly number[];
}

/**
 * Who may come next in a day that is laid out in part, when it is given in which orders jobs come in and are begun; and how everybody who is in gets out. Both are found
 * in the kernel (core/assembly/following.ts).
 */
export class Following {
  private readonly outline: Outline;
  /** Of each job its items, its entry, and its first piece where that comes before; −1 = none. */
  private readonly own: readonly (readonly number[])[];
  private readonly entry: Int32Array;
  private readonly first: Int32Array;
  /** Where those stand that change. */
  private readonly entering: number;
  private readonly beginning: number;
  private readonly placeOf: number;

  constructor(outline: Outline) {
    const { compiled, items, pieces, kernel } = outline;
    const { jobs } = compiled;
    this.outline = outline;
    this.own = jobs.map(({ index }) => items.flatMap((item, at) => (item.job === index ? [at] : [])));
    this.entry = new Int32Array(jobs.length).fill(NONE);
    this.first = new Int32Array(jobs.length).fill(NONE);
    // Of each its pieces from the entry on.
    const inside = jobs.map(({ index, variants }) => {
      const own = this.own[index]!.filter((at) => at < pieces);
      const comesIn = own.findIndex((at) => items[at]!.block.some((step) => variants[0]!.holdings.some((holding) => holding.from === step && holding.to !== step)));
      const entry = Math.max(0, comesIn);
      this.entry[index] = own[entry] ?? NONE;
      if (entry > 0) this.first[index] = own[0]!;
      return own.slice(entry);
    });
    const washedFor = new Int32Array(items.length).fill(NONE);
    items.forEach(({ before }, at) => {
      for (const wash of before) if (wash >= pieces) washedFor[wash] = at;
    });
    // Nobody washes for a piece before what comes before it could be laid out.
    const needs = items.map(({ before }, at) => (at < pieces ? before : items[washedFor[at]!]!.before.flatMap((other) => (other >= pieces ? [] : items[other]!.before))));
    const ownNeeds = items.map(({ job }, at) => needs[at]!.filter((other) => other < pieces && items[other]!.job === job));
    const isChain = inside.map((own) => (own.every((piece, at) => at === 0 || ownNeeds[piece]!.includes(own[at - 1]!)) ? 1 : 0));
    this.entering = kernel.room(jobs.length + 1);
    this.beginning = kernel.room(jobs.length + 1);
    this.placeOf = kernel.room(items.length);
    kernel.set({
      own: kernel.rowOfLists(this.own),
      inside: kernel.rowOfLists(inside),
      entry: kernel.row(this.entry),
      firstPiece: kernel.row(this.first),
      washedFor: kernel.row(washedFor),
      needs: kernel.rowOfLists(needs),
      ownNeeds: kernel.rowOfLists(ownNeeds),
      isChain: kernel.row(isChain),
      nextInside: kernel.room(jobs.length),
      nextOf: kernel.room(jobs.length),
      turnOf: kernel.roomOfNumbers(jobs.length),
      might: kernel.room(items.length),
      placeOf: this.placeOf,
      entering: this.entering,
      beginning: this.beginning,
    });
  }

  /** What an order of items does by itself. */
  entriesOf(order: ArrayLike<number>): Entries {
    const { items } = this.outline;
    const those = (of: Int32Array): number[] => Array.from(order).flatMap((at) => (of[items[at]!.job] === at ? [items[at]!.job] : []));
    return { entering: those(this.entry), beginning: those(this.first) };
  }

  /** What is laid out for a job to come in, to be begun, or at all: items whose place in an order may change. */
  itemsOf(job: number, what: 'entry' | 'first' | 'all'): readonly number[] {
    if (what === 'all') return this.own[job]!;
    const item = what === 'entry' ? this.entry[job]! : this.first[job]!;
    return item < 0 ? [] : [item, ...this.outline.items[item]!.before.filter((wash) => wash >= this.outline.pieces)];
  }

  /** Says in which orders jobs come in and are begun. */
  keepTo({ entering, beginning }: Entries): void {
    const { kernel } = this.outline;
    kernel.write(this.entering, [entering.length, ...entering]);
    kernel.write(this.beginning, [beginning.length, ...beginning]);
  }

  /** And in which manner partial plans look ahead. */
  look({ isAsItWas, washesFirst, share }: Manner): void {
    this.outline.kernel.set({ isAsItWas: isAsItWas ? 1 : 0, washesFirst: washesFirst ? 1 : 0, share });
  }

  /**
   * Lays out the rest of all that stand in a unit, told backwards of all that is begun; `placeOf` is where each item was in the order there was. False when somebody
   * does not get out in time.
   */
  getOut(manner: Manner, placeOf: Int32Array): boolean {
    const { kernel } = this.outline;
    this.look(manner);
    kernel.write(this.placeOf, placeOf);
    return kernel.run.getOut() !== 0;
  }
}
