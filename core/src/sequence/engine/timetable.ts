import { MOVED_UNIT_MIN } from '../problem';
import type { Compiled, CompiledJob, Variant } from './compile';
import { Kernel } from './kernel';
import { Minutes } from './minutes';
import { HOLD_WORDS, holdWords, holdsIn, OPEN } from './units';
import type { Hold } from './units';
import type { Longer } from './waits';
import { Ways } from './ways';

const NEVER = -1;
const BYTES: number = Int32Array.BYTES_PER_ELEMENT;
const UNPLACED_COST = 1e12;

/** What a day looks like that is laid out in part, or not at all. */
export interface Root {
  readonly bits: Int32Array;
  /** Start of every step, −1 = not placed. */
  readonly start: Int32Array;
  /** End of every job, −1 = not placed. */
  readonly end: Int32Array;
  readonly variantOf: Int32Array;
  readonly holds: readonly (readonly Hold[])[];
}

/** A day on which nothing has happened yet. */
export function emptyRoot(compiled: Compiled): Root {
  const never = (length: number): Int32Array => new Int32Array(length).fill(NEVER);
  const { jobs, stepCount, unitCount } = compiled;
  return {
    bits: new Minutes(compiled).bits,
    start: never(stepCount),
    end: never(jobs.length),
    variantOf: never(jobs.length),
    holds: Array.from({ length: unitCount }, () => []),
  };
}

/** What the plan before said of each job: −1 = nothing. */
export interface Moved {
  readonly end: Int32Array;
  readonly units: readonly (string | null)[];
}

/** How a table looked when it was kept. */
export class Saved implements Root {
  /** Where it is in the kernel's memory. */
  readonly address: number;
  private readonly table: Timetable;

  constructor(table: Timetable, address: number) {
    this.table = table;
    this.address = address;
  }

  get bits(): Int32Array {
    return this.table.partAt('bits', this.address);
  }

  get start(): Int32Array {
    return this.table.partAt('start', this.address);
  }

  get end(): Int32Array {
    return this.table.partAt('end', this.address);
  }

  get variantOf(): Int32Array {
    return this.table.partAt('variantOf', this.address);
  }

  get holds(): readonly (readonly Hold[])[] {
    return this.table.holdsAt(this.address);
  }
}

type Part = 'bits' | 'start' | 'end' | 'variantOf';

/**
 * Who has what, minute by minute, while a plan is being laid. It lies in the kernel's memory (core/assembly/timetable.ts), where all of it is kept and put back at once;
 * what is said here of jobs, ways and steps goes by their index.
 */
export class Timetable {
  readonly compiled: Compiled;
  readonly kernel: Kernel;
  readonly ways: Ways;
  moved: Moved | null = null;
  /** Where it is in memory: all of it, and each part, in words from there. */
  private readonly state: number;
  private readonly stateBytes: number;
  private readonly parts: Readonly<Record<Part, readonly [number, number]>>;
  /** Of each unit where its holds begin, in words. */
  private readonly holdsFrom: readonly number[];
  private readonly washTotalAt: number;
  /** Where starts are said. */
  private readonly said: number;
  /** What the parts are as long as memory does not grow: they have no length then. */
  private views: Readonly<Record<Part, Int32Array>> | null = null;

  constructor(compiled: Compiled) {
    const { jobs, stepCount, unitCount } = compiled;
    const kernel = new Kernel();
    this.compiled = compiled;
    this.kernel = kernel;
    const minutes = new Minutes(compiled);
    let words = 0;
    const next = (length: number): readonly [number, number] => {
      words += length;
      return [words - length, length];
    };
    this.parts = { bits: next(minutes.bits.length), start: next(stepCount), end: next(jobs.length), variantOf: next(jobs.length) };
    const firstHolds = words;
    // A job has as many holds in a unit as the way of doing it that has most.
    const most = new Int32Array(unitCount);
    for (const { variants } of jobs) {
      const inOne = new Int32Array(unitCount);
      for (const { holdings } of variants)
        for (const { unit } of holdings)
          inOne[unit] = Math.max(
            inOne[unit]!,
            holdings.reduce((count, holding) => count + (holding.unit === unit ? 1 : 0), 0),
          );
      inOne.forEach((count, unit) => {
        most[unit]! += count;
      });
    }
    this.holdsFrom = Array.from(most, (count) => next(1 + count * HOLD_WORDS)[0]);
    const [washTotal] = next(1);
    this.stateBytes = words * BYTES;
    this.state = kernel.room(words);
    this.washTotalAt = this.state + washTotal * BYTES;
    const size = jobs.reduce((longest, job) => Math.max(longest, job.size), 0);
    const ways = jobs.reduce((longest, job) => Math.max(longest, job.variants.length), 0);
    this.said = kernel.room(size);
    const at = (part: Part): number => this.state + this.parts[part][0] * BYTES;
    minutes.describe(kernel);
    kernel.set({
      tableState: this.state,
      tableBytes: this.stateBytes,
      bits: at('bits'),
      tableStart: at('start'),
      tableEnd: at('end'),
      variantOf: at('variantOf'),
      holdsFrom: this.state + firstHolds * BYTES,
      holds: kernel.row(this.holdsFrom.map((from) => this.state + from * BYTES)),
      washTotalAt: this.washTotalAt,
      bound: kernel.room(stepCount),
      lower: kernel.room(size),
      foundAt: this.said,
      keptAt: kernel.room(size),
      laid: kernel.room(size + 1),
      both: kernel.room(size + 1),
      starts: kernel.room(size),
      ends: kernel.roomOfNumbers(ways),
      justifySpare: kernel.room(words),
      layingSpare: kernel.room(words),
      pushSpare: kernel.room(words),
      pushOrder: kernel.room(stepCount),
      pushRoom: kernel.room(stepCount),
      pushEnds: kernel.room(stepCount),
    });
    this.describeDay();
    this.ways = new Ways(compiled, kernel);
    kernel.write(this.state, minutes.bits);
    for (const part of ['start', 'end', 'variantOf'] as const) this.partAt(part).fill(NEVER);
    for (const from of this.holdsFrom) kernel.put(this.state + from * BYTES, 0);
    kernel.put(this.washTotalAt, 0);
    for (const job of jobs) this.bookDone(job);
  }

  private describeDay(): void {
    const { kernel } = this;
    const { jobs, unitCount, washes, washUses, lineOf, horizon, problem } = this.compiled;
    const { late, short, early, changeover, moved, makespan } = problem.weights;
    const tables = new Map<Int32Array | null, number>([[null, 0]]);
    for (const table of washes) if (!tables.has(table)) tables.set(table, kernel.row(table!));
    kernel.set({
      jobCount: jobs.length,
      unitCount,
      washes: kernel.row(washes.map((table) => tables.get(table)!)),
      washUses: kernel.rowOfLists(washUses),
      hasWashes: Number(washes.some((table) => table !== null)),
      lineOf: kernel.row(lineOf),
      isWanted: kernel.row(jobs.map(({ job }) => Number(job.readyByMin !== null))),
      wantedMin: kernel.row(jobs.map(({ job }) => job.readyByMin ?? NEVER)),
      aimMin: kernel.row(jobs.map(({ job }) => (job.readyByMin === null ? horizon : job.readyByMin - job.bufferMin))),
      wantedAt: kernel.rowOfNumbers(jobs.map(({ job }) => job.readyByMin ?? Number.NaN)),
      roomMin: kernel.rowOfNumbers(jobs.map(({ job }) => job.bufferMin)),
      likesEarlyMin: kernel.rowOfNumbers(jobs.map(({ job }) => job.likesEarlyMin)),
      lateWeight: kernel.rowOfNumbers(jobs.map(({ job }) => job.lateWeight)),
      earlyWeight: kernel.rowOfNumbers(jobs.map(({ job }) => job.earlyWeight)),
      missingCost: kernel.rowOfNumbers(jobs.map(({ forOthers }) => (forOthers ? 0 : UNPLACED_COST))),
      lateWeighs: late,
      shortWeighs: short,
      earlyWeighs: early,
      washWeighs: changeover,
      movedWeighs: moved,
      makespanWeighs: makespan,
    });
  }

  /** A part of the table as it is now, or as it was when it was kept; not to be held on to. */
  partAt(part: Part, address: number = this.state): Int32Array {
    const [from, length] = this.parts[part];
    return this.kernel.view(address + from * BYTES, length);
  }

  private looks(): Readonly<Record<Part, Int32Array>> {
    if (this.views !== null && this.views.bits.length > 0) return this.views;
    this.views = { bits: this.partAt('bits'), start: this.partAt('start'), end: this.partAt('end'), variantOf: this.partAt('variantOf') };
    return this.views;
  }

  /** Start of every step, −1 = not placed. */
  get start(): Int32Array {
    return this.looks().start;
  }

  /** End of every job, −1 = not placed. */
  get end(): Int32Array {
    return this.looks().end;
  }

  get variantOf(): Int32Array {
    return this.looks().variantOf;
  }

  /** Who holds each unit, in order, now or when it was kept. */
  holdsAt(address: number = this.state): readonly (readonly Hold[])[] {
    return this.holdsFrom.map((from, unit) => holdsIn(this.kernel.view(address + from * BYTES, (this.holdsFrom[unit + 1] ?? this.washTotalAt) - from)));
  }

  private setHolds(unit: number, holds: readonly Hold[]): void {
    this.kernel.write(this.state + this.holdsFrom[unit]! * BYTES, holdWords(holds));
  }

  get washTotal(): number {
    return this.kernel.view(this.washTotalAt, 1)[0]!;
  }

  save(into: Saved = new Saved(this, this.kernel.room(this.stateBytes / BYTES))): Saved {
    this.kernel.run.saveTable(into.address);
    return into;
  }

  restore(saved: Saved): void {
    this.kernel.run.restoreTable(saved.address);
  }

  /** Whether the table looks as it did then. */
  isAt(saved: Saved): boolean {
    return this.kernel.run.isAt(saved.address) !== 0;
  }

  /** Minutes moved against this plan count. */
  setMoved(moved: Moved): void {
    const { kernel } = this;
    this.moved = moved;
    kernel.set({
      agreedEnd: kernel.row(moved.end),
      agreedCosts: kernel.row(this.compiled.jobs.map(({ index, variants }) => kernel.rowOfNumbers(variants.map((variant) => this.unitCost(index, variant))))),
    });
  }

  /** A job waits longer than it must from now on: room in between may be worth more than being quick. Null = as short as it may again. */
  setLonger(index: number, longer: Longer | null): void {
    this.ways.setLonger(index, longer);
  }

  /**
   * Takes a whole plan over as it stands. Only for one that is known to be feasible: nothing is asked. `washOf` says when each unit was washed for the job that comes into it at `from`.
   */
  adopt(
    plan: readonly { readonly job: number; readonly variant: number; readonly starts: readonly number[] }[],
    washOf: (unit: number, before: number, after: number, from: number) => readonly [number, number] | null,
  ): void {
    const { run } = this.kernel;
    const lists = this.holdsAt().map((list) => list.slice());
    for (const { job: index, variant: variantIndex, starts } of plan) {
      const job = this.compiled.jobs[index]!;
      if (job.allDone) continue;
      const variant = job.variants[variantIndex]!;
      for (let step = 0; step < job.size; step += 1) if (job.doneStart[step]! < 0) run.bookAt(index, variantIndex, step, starts[step]!);
      const startOf = (step: number): number => (job.doneStart[step]! >= 0 ? job.doneStart[step]! : starts[step]!);
      for (const holding of variant.holdings) {
        if (job.doneStart[holding.to]! >= 0) continue;
        const list = lists[holding.unit]!;
        const to = startOf(holding.to) + (holding.untilEnd ? variant.durations[holding.to]! : 0);
        if (job.doneStart[holding.from]! < 0) list.push({ job: index, from: startOf(holding.from), to, washFrom: 0, washTo: 0 });
        else lists[holding.unit] = list.map((hold) => (hold.job === index && hold.to === OPEN ? { ...hold, to } : hold));
      }
      run.finishAt(index, variantIndex);
    }
    let washTotal = 0;
    lists.forEach((list, unit) => {
      const washUses = this.kernel.view(this.kernel.get('washUses') + unit * BYTES, 1)[0]!;
      list.sort((left, right) => left.from - right.from);
      const washed = list.map((hold, at): Hold => {
        const before = list[at - 1];
        const begun = this.compiled.jobs[hold.job]!.doneStart.some((start) => start === hold.from);
        const [washFrom, washTo] = begun ? [hold.washFrom, hold.washTo] : ((before === undefined ? null : washOf(unit, before.job, hold.job, hold.from)) ?? [hold.from, hold.from]);
        if (!begun) run.book(washUses, washFrom, washTo, 1);
        washTotal += washTo - washFrom;
        return { job: hold.job, from: hold.from, to: hold.to, washFrom, washTo };
      });
      this.setHolds(unit, washed);
    });
    this.kernel.put(this.washTotalAt, washTotal);
  }

  isPlaced(job: number): boolean {
    return this.end[job]! >= 0;
  }

  /** What a job costs by its end alone. */
  jobCost(index: number, end: number): number {
    return this.kernel.run.jobCost(index, end);
  }

  /** What it costs that a job is ready before those that take it, and are placed, are. */
  standsCost(index: number): number {
    return this.kernel.run.standsCost(index);
  }

  /** Moved to another unit than the one agreed. */
  unitCost(index: number, variant: Variant): number {
    const agreed = this.moved?.units[index] ?? null;
    if (agreed === null) return 0;
    const { units } = this.compiled.problem;
    return variant.spanUnit.map((unit) => units[unit]?.id ?? '').join() === agreed ? 0 : this.compiled.problem.weights.moved * MOVED_UNIT_MIN;
  }

  cost(): number {
    return this.kernel.run.tableCost();
  }

  /** Whether anything is ready later than wanted, or found no place. */
  isLate(): boolean {
    return this.kernel.run.isLate() !== 0;
  }

  /** What is late for certain of what is laid out so far, and what found no place is not counted. */
  lateCost(): number {
    return this.kernel.run.certainCost();
  }

  variant(job: number): Variant {
    return this.compiled.jobs[job]!.variants[this.variantOf[job]!]!;
  }

  /** Work that has happened takes what it took, whoever is laid out next. */
  private bookDone(job: CompiledJob): void {
    const variant = job.variants[0];
    if (variant === undefined || !job.begun) return;
    const { kernel } = this;
    for (let step = 0; step < job.size; step += 1) {
      if (job.doneStart[step]! < 0) continue;
      this.start[job.offset + step] = job.doneStart[step]!;
      kernel.run.book(this.ways.block(variant.uses[step]!), job.doneStart[step]!, job.doneEnd[step]!, 1);
    }
    for (const holding of variant.holdings) {
      if (job.doneStart[holding.from]! < 0) continue;
      const last = holding.untilEnd ? job.doneEnd[holding.to]! : job.doneStart[holding.to]!;
      kernel.run.insert(holding.unit, job.index, job.doneStart[holding.from]!, job.doneStart[holding.to]! < 0 ? OPEN : last, 1);
    }
    if (job.allDone) {
      this.variantOf[job.index] = 0;
      this.end[job.index] = Math.max(...job.doneEnd);
    }
  }

  /** Takes a whole job out. False when a wash between its old neighbours finds no hands: then put the saved state back. */
  remove(index: number): boolean {
    return this.kernel.run.remove(index) !== 0;
  }

  /** Lays a job out as late as `target` allows. Gives its end, −1 with nothing changed when it does not fit. */
  placeLate(index: number, variantIndex: number, partition: number, target: number): number {
    return this.kernel.run.placeLate(index, variantIndex, partition, target);
  }

  /** Lays a job out as soon as it fits, not ended before `target`; then pulls its earlier blocks up to what follows. −1 as above. */
  placeSoon(index: number, variantIndex: number, partition: number, target: number, justify: boolean): number {
    return this.kernel.run.placeSoon(index, variantIndex, partition, target, Number(justify));
  }

  /** Puts a job exactly where it was. False, with nothing changed, when it no longer fits. */
  placeAt(index: number, variantIndex: number, starts: ArrayLike<number>): boolean {
    this.kernel.write(this.said, starts);
    return this.kernel.run.placeAt(index, variantIndex) !== 0;
  }

  /** Moves every wash that is still to come to when its unit is free and hands are: what stands dirty dries on. What follows stays where it is. */
  washSoon(): void {
    this.holdsAt().forEach((list, unit) => {
      list.forEach((hold, at) => {
        const isToCome = at > 0 && hold.washTo > hold.washFrom && !this.compiled.jobs[hold.job]!.doneStart.includes(hold.from);
        if (isToCome) this.kernel.run.washSoon(unit, at);
      });
    });
  }
}
