import type { Random } from '../random';
import type { Timetable } from './timetable';

/** Ruin and recreate (Schrimpf et al. 2000): which few related jobs to take out, and in which order to put them back where they cost least. */
export class Ruin {
  private readonly table: Timetable;
  private readonly movable: readonly number[];
  private readonly random: Random;

  constructor(table: Timetable, movable: readonly number[], random: Random) {
    this.table = table;
    this.movable = movable;
    this.random = random;
  }

  private pick(limit: number): number {
    return Math.floor(this.random() * limit);
  }

  /** Jobs to take out: one by chance, and others near it in time or in the same unit. */
  jobs(): readonly number[] {
    const { movable, table } = this;
    const placed = movable.filter((index) => table.isPlaced(index));
    const missing = movable.filter((index) => !table.isPlaced(index));
    if (placed.length === 0) return missing;
    const most = Math.min(placed.length, 6);
    const count = 1 + this.pick(most);
    const seed = placed[this.pick(placed.length)]!;
    const nearness = (index: number): number => {
      const apart = Math.abs(table.end[index]! - table.end[seed]!);
      const shared = table.variant(index).holdings.some((one) => table.variant(seed).holdings.some((other) => one.unit === other.unit));
      return (apart + 10) * (shared ? 0.5 : 1) * (0.3 + this.random());
    };
    const style = this.random();
    const chosen =
      style < 0.75
        ? [
            seed,
            ...placed
              .filter((index) => index !== seed)
              .map((index) => ({ index, at: nearness(index) }))
              .sort((left, right) => left.at - right.at)
              .slice(0, count - 1)
              .map(({ index }) => index),
          ]
        : this.costly(placed, count);
    return [...chosen, ...missing];
  }

  /** The jobs that cost most, by chance. */
  private costly(placed: readonly number[], count: number): readonly number[] {
    return placed
      .map((index) => ({ index, cost: (this.table.jobCost(index, this.table.end[index]!) + 1) * (0.2 + this.random()) }))
      .sort((left, right) => right.cost - left.cost)
      .slice(0, count)
      .map(({ index }) => index);
  }

  orderOf(jobs: readonly number[]): number[] {
    const { jobs: compiled } = this.table.compiled;
    const style = this.random();
    const shuffled = jobs.map((index) => ({ index, at: this.random() }));
    const key = (index: number, chance: number): number => {
      const { job, soonestEnd } = compiled[index]!;
      if (style < 0.3) return chance;
      if (style < 0.6) return (job.readyByMin ?? 0) + chance * 60;
      if (style < 0.8) return (job.readyByMin ?? 0) - (soonestEnd - job.releaseMin) + chance * 60;
      return (job.releaseMin - soonestEnd) * (0.5 + chance);
    };
    const order = shuffled
      .map(({ index, at }) => ({ index, at: key(index, at) }))
      .sort((left, right) => left.at - right.at)
      .map(({ index }) => index);
    if (this.random() < 0.5) return order;
    // Inputs before who takes them.
    const rank = new Map(this.table.compiled.order.map((index, at) => [index, at]));
    const level = (index: number): number => (compiled[index]!.consumers.length > 0 ? (rank.get(index) ?? 0) - 1e6 : 0);
    return order
      .map((index, at) => ({ index, at }))
      .sort((left, right) => level(left.index) - level(right.index) || left.at - right.at)
      .map(({ index }) => index);
  }
}
