import type { Compiled, CompiledJob, Variant } from './compile';
import type { Uses } from './levels';
import type { Outline } from './outline';

const NONE = -1;
/** What a step asks of the scarcest resource: so much that nothing fits beside it, more than half, or little. As in core/assembly/outlook.ts. */
const WHOLE = 0;
const MOST = 1;
const LITTLE = 2;
/** Told backwards: all of it until it is out of the unit it stays in. */
const INSIDE = 3;
const KINDS = 4;
/** How much of little work is beside nothing else. A choice of the search. */
const ALONE = 0.8;

/** The unit a job stays in, done in one way; for how long at least, and from when it comes in until it ends; and from its first step until it comes in. */
interface Stay {
  readonly unit: number;
  readonly stayMin: number;
  readonly throughMin: number;
  readonly aheadMin: number;
}

/** Null where it stays in none, or in one after another: then nobody knows in which order jobs come into each. */
function stayOf(job: CompiledJob, variant: Variant, firstStep: number): Stay | null {
  const { size } = job;
  const { apart, durations, holdings, tail } = variant;
  const [holding, another] = holdings.filter(({ from, to }) => from !== to);
  if (holding === undefined || another !== undefined) return null;
  const { unit, from, to, untilEnd } = holding;
  return {
    unit,
    stayMin: Math.max(0, -apart[to * size + from]!) + (untilEnd ? durations[to]! : 0),
    throughMin: tail[from]!,
    aheadMin: Math.max(0, -apart[from * size + firstStep]!),
  };
}

/** The resource there is least of for the work that is left. */
interface Scarce {
  readonly capacity: number;
  /** The least that anything asks of it, and whether something asks so much that nothing else fits beside. */
  readonly least: number;
  readonly isTakenWhole: boolean;
  readonly unitsOf: (uses: Uses) => number;
}

export function scarceOf({ jobs, levels, problem }: Compiled): Scarce {
  const unitsOf = (resource: number, uses: Uses): number => uses.reduce((sum, level) => sum + (levels[level]!.resource === resource ? levels[level]!.units : 0), 0);
  const steps = jobs.flatMap(({ variants: [variant], doneStart }) =>
    (variant?.durations ?? []).flatMap((duration, step) => (doneStart[step]! < 0 ? [{ duration, uses: variant!.uses[step]! }] : [])),
  );
  const load = problem.resources.map(({ capacity }, resource) => steps.reduce((sum, { duration, uses }) => sum + duration * unitsOf(resource, uses), 0) / Math.max(1, capacity));
  const scarce = load.indexOf(Math.max(...load));
  const capacity = problem.resources[scarce]?.capacity ?? 1;
  const asked = steps.map(({ uses }) => unitsOf(scarce, uses)).filter((units) => units > 0);
  const least = Math.min(capacity, ...asked);
  return { capacity, least, isTakenWhole: asked.some((units) => units > capacity - least), unitsOf: (uses) => unitsOf(scarce, uses) };
}

/** What a day may come to that is laid out in part: by the work that is left on the resource there is least of. That is reckoned in the kernel (core/assembly/outlook.ts). */
export class Outlook {
  private readonly outline: Outline;
  private readonly stays: readonly (readonly (Stay | null)[])[];
  /** Where that stands of each job, in the way it is done. */
  private readonly stayUnit: number;
  private readonly stayMin: number;
  private readonly throughMin: number;
  private readonly aheadMin: number;

  constructor(outline: Outline) {
    const { compiled, kernel } = outline;
    const { jobs, washes, horizon, unitCount } = compiled;
    this.outline = outline;
    this.stays = jobs.map((job) => job.variants.map((variant) => stayOf(job, variant, outline.standing === null ? 0 : outline.standing.first[job.index]! - job.offset)));
    this.stayUnit = kernel.room(jobs.length);
    this.stayMin = kernel.room(jobs.length);
    this.throughMin = kernel.room(jobs.length);
    this.aheadMin = kernel.room(jobs.length);
    this.describeWork();
    kernel.set({
      stayUnit: this.stayUnit,
      stayMin: this.stayMin,
      throughMin: this.throughMin,
      aheadMin: this.aheadMin,
      releaseMin: kernel.row(jobs.map(({ job }) => job.releaseMin)),
      alone: ALONE,
      shortestWash: washes.reduce((shortest, table) => table?.reduce((least, min) => (min > 0 ? Math.min(least, min) : least), shortest) ?? shortest, horizon),
      places: new Set(jobs.flatMap(({ variants }) => variants.flatMap(({ spanUnit }) => spanUnit.filter((unit) => unit >= 0)))).size,
      soonest: kernel.roomOfNumbers(jobs.length),
      likely: kernel.roomOfNumbers(jobs.length),
      comesIn: kernel.roomOfNumbers(jobs.length),
      freeAt: kernel.room(unitCount),
      freeBy: kernel.room(unitCount),
    });
  }

  /** Jobs are done in these ways from now on. */
  turn(ways: Int32Array): void {
    const { kernel } = this.outline;
    const stays = this.stays.map((its, job) => its[ways[job]!] ?? null);
    kernel.write(
      this.stayUnit,
      Int32Array.from(stays, (stay) => stay?.unit ?? NONE),
    );
    kernel.write(
      this.stayMin,
      Int32Array.from(stays, (stay) => stay?.stayMin ?? 0),
    );
    kernel.write(
      this.throughMin,
      Int32Array.from(stays, (stay) => stay?.throughMin ?? 0),
    );
    kernel.write(
      this.aheadMin,
      Int32Array.from(stays, (stay) => stay?.aheadMin ?? 0),
    );
  }

  /** What everything asks of the resource there is least of, by its work. */
  private describeWork(): void {
    const { compiled, items, pieces, kernel } = this.outline;
    const { jobs } = compiled;
    const { capacity, least, unitsOf } = scarceOf(compiled);
    const workOf = new Float64Array(items.length * KINDS);
    const whole = new Float64Array(jobs.length * KINDS);
    const comesWith = new Int32Array(jobs.length).fill(NONE);
    const isOut = jobs.map(() => false);
    items.slice(0, pieces).forEach(({ job, block }, at) => {
      for (const step of block) {
        if (jobs[job]!.doneStart[step]! >= 0) continue;
        const duration = Math.min(...jobs[job]!.variants.map((variant) => variant.durations[step]!));
        const units = unitsOf(jobs[job]!.variants[0]!.uses[step]!);
        if (units === 0) continue;
        if (units > capacity - least) workOf[at * KINDS + WHOLE]! += duration;
        else if (units * 2 > capacity) workOf[at * KINDS + MOST]! += duration;
        // Two halves go beside each other; what takes little keeps all off that leaves nothing.
        else if (units * 2 === capacity) workOf[at * KINDS + WHOLE]! += duration / 2;
        else workOf[at * KINDS + LITTLE]! += duration * ALONE;
      }
      const stays = jobs[job]!.variants[0]!.holdings.filter(({ from, to }) => from !== to);
      if (comesWith[job]! < 0 && stays.some(({ from }) => block.includes(from))) comesWith[job] = at;
      if (comesWith[job]! >= 0 && isOut[job] === false) workOf[at * KINDS + INSIDE] = workOf[at * KINDS]! + workOf[at * KINDS + MOST]! + workOf[at * KINDS + LITTLE]!;
      if (stays.some(({ to }) => block.includes(to))) isOut[job] = true;
      for (let kind = 0; kind < KINDS; kind += 1) whole[job * KINDS + kind]! += workOf[at * KINDS + kind]!;
    });
    kernel.set({ workOf: kernel.rowOfNumbers(workOf), whole: kernel.rowOfNumbers(whole), comesWith: kernel.row(comesWith) });
  }
}
