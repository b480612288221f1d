import type { Random } from '../random';
import type { Compiled } from './compile';
import type { Saved, Timetable } from './timetable';
import type { Waiting } from './waits';

const VARIANTS_TRIED = 8;
/** How often a job is put back with a longer wait than it needs. A choice of the search. */
const STRETCHED = 0.25;

/** Puts jobs in beside what is on the table, each where it costs least: latest before its ready-by, or soonest. `noise` makes the second best choice now and then. */
export class Inserting {
  private readonly compiled: Compiled;
  private readonly table: Timetable;
  private readonly random: Random;
  private readonly spare: Saved;
  private readonly aside: Saved;
  private readonly hasWashes: boolean;
  /** Jobs that are not taken out again: those that stand in a unit now. */
  private readonly fixed: readonly boolean[];
  /** Waits that may be longer: sought when one is first to be. */
  private readonly waiting: () => Waiting;

  constructor(table: Timetable, fixed: readonly boolean[], waiting: () => Waiting, random: Random) {
    this.compiled = table.compiled;
    this.table = table;
    this.fixed = fixed;
    this.waiting = waiting;
    this.random = random;
    this.spare = table.save();
    this.aside = table.save();
    this.hasWashes = this.compiled.washes.some((washes) => washes !== null);
  }

  /** Puts in what is under way or pinned before anything else. */
  putInFirst(jobs: readonly number[]): void {
    this.insertAll([...this.withInputs(jobs)], 0);
  }

  /** What is under way or pinned comes first, and so does what it still waits for. */
  withInputs(jobs: readonly number[]): readonly number[] {
    const wanted = new Set<number>();
    const follow = (index: number): void => {
      if (wanted.has(index)) return;
      for (const input of this.compiled.jobs[index]!.inputs) follow(input.job);
      wanted.add(index);
    };
    const inside = jobs.filter((index) => this.compiled.jobs[index]!.inside);
    for (const index of [...inside, ...jobs]) follow(index);
    return [...wanted].filter((index) => !this.table.isPlaced(index));
  }

  /** Puts a job in where it costs least of the ways that are tried. False when it fits nowhere. */
  private insert(index: number, noise: number): boolean {
    const job = this.compiled.jobs[index]!;
    if (job.variants.length === 0) return false;
    for (const input of job.inputs) if (!this.table.isPlaced(input.job) && this.compiled.jobs[input.job]!.variants.length === 0) return false;
    const { table } = this;
    const { weights } = this.compiled.problem;
    const aim = job.job.readyByMin === null ? null : job.job.readyByMin - job.job.bufferMin;
    const wanted = aim ?? (job.consumers.some(({ job: other }) => table.isPlaced(other)) ? this.compiled.horizon : null);
    const agreed = table.moved?.end[index] ?? -1;
    const found: { readonly variant: number; readonly starts: readonly number[]; readonly cost: number }[] = [];
    const many = job.variants.length;
    const offset = many > VARIANTS_TRIED ? Math.floor(this.random() * many) : 0;
    const consider = (variant: number, end: number): void => {
      if (end < 0) return;
      // A little for its length in the unit: of equal ends the plan that holds the kettle for less is the better one to build on.
      let cost = table.jobCost(index, end) + table.unitCost(index, table.variant(index)) + weights.changeover * table.washTotal + weights.makespan * end + 0.001 * end;
      cost += table.standsCost(index) + job.inputs.reduce((sum, input) => sum + table.standsCost(input.job), 0);
      if (noise > 0) cost += this.random() * noise;
      found.push({ variant, starts: this.startsOf(index), cost });
      table.remove(index);
    };
    for (let tried = 0; tried < Math.min(many, VARIANTS_TRIED); tried += 1) {
      const variant = (offset + tried) % many;
      table.setLonger(index, noise > 0 && this.random() < STRETCHED ? this.waiting().oneLonger(index) : null);
      // Taking a job out may wash elsewhere than before it came.
      const before = this.hasWashes ? table.save(this.spare) : null;
      for (let partition = 0; partition < job.partitions.length; partition += 1) {
        let end = -1;
        if (wanted !== null && !job.inside) {
          end = table.placeLate(index, variant, partition, wanted);
          const early = end >= 0 && aim !== null ? aim - end - job.job.likesEarlyMin : end >= 0 ? 0 : 1;
          consider(variant, end);
          if (agreed >= 0 && agreed !== end) consider(variant, table.placeLate(index, variant, partition, agreed));
          if (early <= 0) break;
        }
        const target = aim !== null && !job.begun ? aim : 0;
        const soon = table.placeSoon(index, variant, partition, target, wanted !== null || job.partitions.length > 1);
        consider(variant, soon);
        if (end >= 0 || soon >= 0) break;
      }
      if (before !== null) table.restore(before);
    }
    table.setLonger(index, null);
    return found.sort((left, right) => left.cost - right.cost).some((way) => table.placeAt(index, way.variant, way.starts));
  }

  private startsOf(index: number): readonly number[] {
    const { offset, size } = this.compiled.jobs[index]!;
    return Array.from(this.table.start.subarray(offset, offset + size));
  }

  /** Puts jobs in one after the other. A job that no longer fits before what takes from it throws that out once and comes first. */
  insertAll(queue: number[], noise: number): void {
    const thrown = new Set<number>();
    while (queue.length > 0) {
      const index = queue.shift()!;
      if (this.table.isPlaced(index) || this.insert(index, noise)) continue;
      const takers = this.takersOf(index).filter((taker) => this.table.isPlaced(taker) && !this.fixed[taker]!);
      if (takers.length === 0 || thrown.has(index)) continue;
      thrown.add(index);
      this.table.save(this.aside);
      if (!takers.every((taker) => this.table.remove(taker))) {
        this.table.restore(this.aside);
        continue;
      }
      const order = this.compiled.order.filter((other) => takers.includes(other));
      queue.unshift(index, ...order);
    }
    // Nothing stands on what could not be made.
    for (const index of this.compiled.order) {
      const job = this.compiled.jobs[index]!;
      if (!job.begun && this.table.isPlaced(index) && job.inputs.some((input) => !this.table.isPlaced(input.job))) this.table.remove(index);
    }
    this.leaveUseless();
  }

  /** Nothing is made for what is not made either: what only others take, and none of them has found a place, makes room. What is pinned is wanted as it is. */
  leaveUseless(): void {
    const { compiled, table } = this;
    if (compiled.jobs.every(({ index }) => table.isPlaced(index))) return;
    for (const index of [...compiled.order].reverse()) {
      const { forOthers, consumers, pinned, begun } = compiled.jobs[index]!;
      if (!forOthers || begun || this.fixed[index]! || !table.isPlaced(index) || pinned.some((start) => start >= 0)) continue;
      if (consumers.some(({ job }) => table.isPlaced(job))) continue;
      table.save(this.aside);
      if (!table.remove(index)) table.restore(this.aside);
    }
  }

  /** Jobs that take from a job, directly or by what is made of it. */
  private takersOf(index: number): readonly number[] {
    const found = new Set<number>();
    const follow = (at: number): void => {
      for (const consumer of this.compiled.jobs[at]!.consumers) {
        if (found.has(consumer.job)) continue;
        found.add(consumer.job);
        follow(consumer.job);
      }
    };
    follow(index);
    return [...found];
  }
}
