import type { Compiled, CompiledJob, Variant } from './compile';
import type { Item, Washed } from './items';
import { Kernel } from './kernel';
import { Minutes } from './minutes';
import { holdsMirrored } from './mirror';
import type { Standing } from './mirror';
import { Rows } from './rows';
import type { Root, Saved, Timetable } from './timetable';

const NEVER = -1;
const LATEST: number = 1 << 28;

/** The parts of what changes while it is laid out, in words. What each is stands in core/assembly/outline.ts. */
interface Parts {
  readonly start: number;
  readonly free: number;
  readonly washFrom: number;
  readonly washTo: number;
  readonly mustEnd: number;
  readonly end: number;
  readonly unitTo: number;
  readonly unitBy: number;
  readonly leftBy: number;
  readonly heldBy: number;
  readonly seen: number;
}

/**
 * A plan in outline: pieces and washes laid out one after another, each as soon as it fits, nobody in a unit before who is in it already. What is laid of a batch comes
 * later when its next piece would let it wait too long. It knows fewer ways out than what is laid out on the table, costs a fifth of the work, and every outline
 * that is complete is a plan. Only for days on which nothing is pinned and no line is kept. It is laid out in the kernel (core/assembly/outline.ts).
 */
export class Outline {
  readonly compiled: Compiled;
  readonly items: readonly Item[];
  readonly pieces: number;
  readonly kernel: Kernel;
  /** Where the day is told backwards; null = it is not. */
  readonly standing: Standing | null;
  private readonly root: Root;
  private readonly isOrdered: Uint8Array;
  private readonly rows: Rows;
  /** Units one step comes into at most. */
  private readonly slots: number;
  /** In which way each job is done. */
  private ways: Int32Array;
  private readonly at: Parts;
  /** All that is kept and put back but its cost, in words. */
  private readonly state: number;
  private readonly stateWords: number;

  constructor(compiled: Compiled, root: Root, { items, pieces }: Washed, standing: Standing | null = null) {
    const { jobs } = compiled;
    this.compiled = compiled;
    this.items = items;
    this.pieces = pieces;
    this.root = root;
    this.standing = standing;
    this.kernel = new Kernel();
    this.slots = jobs.reduce((most, job) => job.variants.reduce((more, { opening }) => opening.reduce((longest, one) => Math.max(longest, one.length), more), most), 1);
    this.isOrdered = new Uint8Array(jobs.length);
    for (const { job } of items) this.isOrdered[job] = 1;
    const before = this.beforeAnything();
    const words = Object.values(before).flatMap((part) => Array.from(part));
    this.stateWords = words.length + root.bits.length;
    const costAt = Math.ceil(this.stateWords / 2) * 2;
    const rootState = this.kernel.row([...words, ...root.bits, ...Array.from({ length: costAt + 2 - this.stateWords }, () => 0)]);
    this.state = this.kernel.room(costAt + 2);
    let next = this.state;
    const part = (name: keyof Parts): number => {
      const address = next;
      next += before[name].length * Int32Array.BYTES_PER_ELEMENT;
      return address;
    };
    this.at = {
      start: part('start'),
      free: part('free'),
      washFrom: part('washFrom'),
      washTo: part('washTo'),
      mustEnd: part('mustEnd'),
      end: part('end'),
      unitTo: part('unitTo'),
      unitBy: part('unitBy'),
      leftBy: part('leftBy'),
      heldBy: part('heldBy'),
      seen: part('seen'),
    };
    const bytes = Int32Array.BYTES_PER_ELEMENT;
    this.kernel.set({ ...this.at, state: this.state, rootState, stateBytes: (costAt + 2) * bytes, costAt: this.state + costAt * bytes, bits: next });
    new Minutes(compiled).describe(this.kernel);
    this.describeDay();
    this.describeStanding();
    this.rows = new Rows(compiled, this.kernel);
    this.ways = new Int32Array(jobs.length);
    this.rows.turn(this.ways);
    this.kernel.run.restore(0);
  }

  /** How each part is before anything is laid out, in the order they stand in. */
  private beforeAnything(): Readonly<Record<keyof Parts, Int32Array>> {
    const { compiled, root, slots, items } = this;
    const { stepCount, unitCount } = compiled;
    const never = (length: number): Int32Array => new Int32Array(length).fill(NEVER);
    return {
      start: root.start,
      free: never(stepCount),
      washFrom: new Int32Array(stepCount * slots),
      washTo: new Int32Array(stepCount * slots),
      mustEnd: new Int32Array(stepCount).fill(LATEST),
      end: root.end,
      unitTo: Int32Array.from(root.holds, (holds) => holds.at(-1)?.to ?? 0),
      unitBy: Int32Array.from(root.holds, (holds) => holds.at(-1)?.job ?? NEVER),
      leftBy: never(unitCount),
      heldBy: never(unitCount),
      seen: new Int32Array(items.length),
    };
  }

  private describeDay(): void {
    const { kernel, compiled, items, pieces } = this;
    const { jobs, stepCount, unitCount, washes, washUses } = compiled;
    const { late, short, changeover, makespan } = compiled.problem.weights;
    const pieceOf = new Int32Array(stepCount).fill(NEVER);
    items.slice(0, pieces).forEach(({ job, block }, index) => {
      for (const step of block) pieceOf[jobs[job]!.offset + step] = index;
    });
    kernel.set({
      jobCount: jobs.length,
      unitCount,
      itemCount: items.length,
      pieceCount: pieces,
      slots: this.slots,
      pieceOf: kernel.row(pieceOf),
      offset: kernel.row([...jobs.map(({ offset }) => offset), stepCount]),
      itemJob: kernel.row(items.map(({ job }) => job)),
      itemSteps: kernel.rowOfLists(items.map(({ job, block }) => block.map((step) => jobs[job]!.offset + step))),
      itemBefore: kernel.rowOfLists(items.map(({ before }) => before)),
      stepsInOrder: kernel.rowOfLists(jobs.map(({ offset, partitions }) => (partitions.at(-1)?.[0] ?? []).map((step) => offset + step))),
      washes: kernel.row(washes.map((table) => (table === null ? 0 : kernel.row(table)))),
      washUses: kernel.rowOfLists(washUses),
      readyByMin: kernel.rowOfNumbers(jobs.map(({ job }) => job.readyByMin ?? Number.POSITIVE_INFINITY)),
      bufferMin: kernel.rowOfNumbers(jobs.map(({ job }) => job.bufferMin)),
      latePrice: kernel.rowOfNumbers(jobs.map(({ job }) => late * job.lateWeight)),
      shortPrice: kernel.rowOfNumbers(jobs.map(({ job }) => short * job.lateWeight)),
      washPrice: changeover,
      makespanPrice: makespan,
    });
  }

  private describeStanding(): void {
    const { kernel, standing } = this;
    if (standing === null) return;
    kernel.set({
      isBackwards: 1,
      horizonMin: standing.horizonMin,
      firstStep: kernel.row(standing.first),
      standFrom: kernel.rowOfNumbers(standing.from),
      standPrice: kernel.rowOfNumbers(standing.costMin),
      takers: kernel.rowOfLists(standing.takers),
      parts: kernel.rowOfLists(standing.parts),
      waiting: kernel.rowOfLists(standing.waiting.map((those) => those.flatMap(({ step, job }) => [step, job]))),
    });
  }

  /** As before anything is laid out, jobs done in these ways. */
  begin(ways: Int32Array): void {
    this.turn(ways);
    this.kernel.run.restore(0);
  }

  /** Jobs are done in these ways from now on. */
  turn(ways: Int32Array): void {
    if (this.ways === ways) return;
    this.ways = ways;
    this.rows.turn(ways);
  }

  /** Lays an item out after those that must come before it. False when this order cannot be laid out. */
  place(item: number): boolean {
    return this.kernel.run.place(item) !== 0;
  }

  /** What it costs, with the whole day; what is early is counted only told backwards. */
  total(): number {
    return this.kernel.run.total();
  }

  /** How everything lies, in numbers. */
  lies(): readonly number[] {
    return Array.from(this.kernel.view(this.state, this.stateWords));
  }

  /** By when each job ends at the soonest, by what is laid of it. */
  ends(): Int32Array {
    return this.kernel.view(this.at.end, this.compiled.jobs.length);
  }

  private starts(): Int32Array {
    return this.kernel.view(this.at.start, this.compiled.stepCount);
  }

  /** What is late, short of room included, of jobs that end then. */
  lateness(end: ArrayLike<number> = this.ends()): number {
    let sum = 0;
    for (let job = 0; job < end.length; job += 1) sum += this.kernel.run.lateCost(job, end[job]!);
    return sum;
  }

  /** The order of a plan on the table: pieces and washes by when they first ask for anything; what begins before that is in nobody's way. */
  orderOf(table: Timetable): Int32Array {
    const { compiled, pieces, standing } = this;
    const lists = standing === null ? table.holdsAt() : table.holdsAt().map((list) => holdsMirrored(list, standing.horizonMin));
    const variantOf = (index: number): Variant => compiled.jobs[index]!.variants[table.variantOf[index]!]!;
    const startOf = (index: number, step: number): number => {
      const start = table.start[compiled.jobs[index]!.offset + step]!;
      return standing === null ? start : standing.horizonMin - start - variantOf(index).durations[step]!;
    };
    const asks = this.items.map(({ job: index, block }, at) => {
      const variant = variantOf(index);
      if (at < pieces) return startOf(index, block.find((step) => variant.uses[step]!.length > 0) ?? block[0]!);
      const start = startOf(index, block[0]!);
      const washes = variant.opening[block[0]!]!.map((opening) => lists[variant.holdings[opening]!.unit]!.find((hold) => hold.job === index && hold.from === start));
      // Before whoever asks at the same minute.
      return washes.reduce((soonest, hold) => Math.min(soonest, hold?.washFrom ?? start), start) - 0.5;
    });
    return Int32Array.from(asks, (_, index) => index).sort((left, right) => asks[left]! - asks[right]!);
  }

  /** Puts what is laid out on the table, as it is. */
  put(table: Timetable, empty: Saved): void {
    const { compiled, root, isOrdered, standing } = this;
    table.restore(empty);
    const startsOf = ({ index, offset, size, variants }: CompiledJob): readonly number[] => {
      const starts = Array.from(this.starts().subarray(offset, offset + size));
      return standing === null ? starts : starts.map((start, step) => standing.horizonMin - start - variants[this.ways[index]!]!.durations[step]!);
    };
    const plan = compiled.jobs.flatMap((job) =>
      job.allDone ? [] : [{ job: job.index, variant: isOrdered[job.index] === 0 ? root.variantOf[job.index]! : this.ways[job.index]!, starts: startsOf(job) }],
    );
    table.adopt(plan, (unit, before, after, from) => {
      if (standing !== null) {
        // Told backwards, whoever leaves comes in, and what is washed for that is washed after it.
        const [washFrom, washTo] = this.washOf(unit, before, (begin) => begin >= standing.horizonMin - from);
        return [standing.horizonMin - washTo, standing.horizonMin - washFrom];
      }
      if (isOrdered[after] === 0) {
        const hold = root.holds[unit]!.find((one) => one.job === after && one.from === from)!;
        return [hold.washFrom, hold.washTo];
      }
      return this.washOf(unit, after, (begin) => begin === from);
    });
  }

  /** When a unit was washed for a job that comes in then: the first time it is so. */
  private washOf(unit: number, index: number, isThen: (begin: number) => boolean): readonly [number, number] {
    const { kernel, at: parts, slots } = this;
    const { offset, variants } = this.compiled.jobs[index]!;
    const { holdings, opening } = variants[this.ways[index]!]!;
    const start = this.starts();
    let found = NEVER;
    holdings.forEach((holding, at) => {
      const begin = start[offset + holding.from]!;
      if (holding.unit !== unit || !isThen(begin)) return;
      if (found < 0 || begin < start[offset + holdings[found]!.from]!) found = at;
    });
    const step = holdings[found]!.from;
    const slot = ((offset + step) * slots + opening[step]!.indexOf(found)) * Int32Array.BYTES_PER_ELEMENT;
    return [kernel.view(parts.washFrom + slot, 1)[0]!, kernel.view(parts.washTo + slot, 1)[0]!];
  }
}
