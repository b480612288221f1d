import type { Random } from '../random';
import type { Compiled, CompiledJob } from './compile';

/** A wait of a job that may be longer than it must: its steps, its place among the lags of each, by how much, and whether its steps are laid out together. */
export interface LooseWait {
  /** Its place among those of its job. */
  readonly at: number;
  readonly from: number;
  readonly to: number;
  readonly atFrom: number;
  readonly atTo: number;
  readonly roomMin: number;
  readonly isTied: boolean;
}

/** Some waits of a job, and by how much each is longer than it must be. */
export interface Longer {
  readonly waits: readonly LooseWait[];
  readonly extraMin: readonly number[];
}

/** By job; null = every wait as short as it may be. */
export type Waits = readonly (Longer | null)[];

/** Longer than this no wait is made on purpose. A choice of the search. */
const LONGEST_MIN = 60;

/** The waits of a job that may be longer. */
export function looseWaits({ job, variants, partitions }: CompiledJob): readonly LooseWait[] {
  const [variant] = variants;
  if (variant === undefined) return [];
  const index = new Map(job.steps.map(({ id }, at) => [id, at]));
  const loose = job.lags.flatMap((lag, at): Omit<LooseWait, 'at'>[] => {
    const from = index.get(lag.from)!;
    const to = index.get(lag.to)!;
    const before = job.lags.slice(0, at);
    const atFrom = before.filter((other) => other.from === lag.from).length;
    const atTo = before.filter((other) => other.to === lag.to).length;
    const { min, max } = variant.outgoing[from]![atFrom]!;
    const roomMin = Math.min(LONGEST_MIN, max - min);
    const isTied = partitions[0]!.some((block) => block.includes(from) && block.includes(to));
    return roomMin > 0 ? [{ from, to, atFrom, atTo, roomMin, isTied }] : [];
  });
  return loose.map(({ from, to, atFrom, atTo, roomMin, isTied }, at) => ({ at, from, to, atFrom, atTo, roomMin, isTied }));
}

/**
 * Waits that are longer than they must be. Laid out as soon as it fits, a job never waits for another that comes later in the order; where two are to give way
 * to each other (one is emptied before the other is blended, and cooked before the first is), one must wait on purpose.
 */
export class Waiting {
  readonly none: Waits;
  /** Jobs in an order that have waits between steps that are laid out together. */
  readonly jobs: readonly number[];
  private readonly random: Random;
  private readonly loose: readonly (readonly LooseWait[])[];
  private readonly tied: readonly (readonly LooseWait[])[];

  constructor(compiled: Compiled, ordered: readonly number[], random: Random) {
    this.random = random;
    this.none = compiled.jobs.map(() => null);
    this.loose = compiled.jobs.map(looseWaits);
    this.tied = this.loose.map((waits) => waits.filter(({ isTied }) => isTied));
    this.jobs = ordered.filter((job) => this.tied[job]!.length > 0);
  }

  private pick(limit: number): number {
    return Math.floor(this.random() * limit);
  }

  /** One wait of one job longer, or as short as it may be again. */
  changed(waits: Waits): { readonly waits: Waits; readonly job: number } {
    const index = this.jobs[this.pick(this.jobs.length)]!;
    const tied = this.tied[index]!;
    const at = this.pick(tied.length);
    const extraMin = waits[index]?.extraMin.slice() ?? tied.map(() => 0);
    extraMin[at] = extraMin[at]! > 0 && this.random() < 0.5 ? 0 : 1 + this.pick(tied[at]!.roomMin);
    const made = extraMin.every((extra) => extra === 0) ? null : { waits: tied, extraMin };
    return { waits: waits.map((other, job) => (job === index ? made : other)), job: index };
  }

  /** One wait of a job longer; null when none may be. */
  oneLonger(index: number): Longer | null {
    const loose = this.loose[index]!;
    if (loose.length === 0) return null;
    const wait = loose[this.pick(loose.length)]!;
    return { waits: [wait], extraMin: [1 + this.pick(wait.roomMin)] };
  }
}
