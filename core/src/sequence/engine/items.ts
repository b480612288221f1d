import { piecesOf } from './compile';
import type { Compiled, CompiledJob, Variant } from './compile';

/** A job, or some of its steps, as one thing among those that are put in order. */
export interface Item {
  readonly job: number;
  readonly block: readonly number[];
  /** Items that must be laid out before it. */
  readonly before: readonly number[];
}

/**
 * Into what jobs are divided: not at all where their parts have to do with each other; into parts with a long wait between them; or into pieces something else
 * may come between.
 */
type Division = 'whole' | 'parts' | 'pieces';

/** Whether a part of a job is the same in every way of doing it, and holds nothing. */
export function isSame(variants: readonly Variant[], block: readonly number[]): boolean {
  const [first] = variants;
  return variants.every((variant) =>
    block.every(
      (step) =>
        variant.closing[step]!.length === 0 &&
        variant.opening[step]!.length === 0 &&
        variant.durations[step] === first!.durations[step] &&
        variant.uses[step]!.join() === first!.uses[step]!.join() &&
        variant.incoming[step]!.every((lag, at) => lag.min === first!.incoming[step]![at]!.min && lag.max === first!.incoming[step]![at]!.max),
    ),
  );
}

/** Whether a job's parts have anything to do with each other beyond their order. */
function isTied({ problem }: Compiled, { variants }: CompiledJob): boolean {
  return problem.lines.length > 0 || variants.length > 1 || variants[0]!.incoming.some((lags) => lags.some((lag) => lag.max !== Number.POSITIVE_INFINITY));
}

function blocksOf(compiled: Compiled, job: CompiledJob, division: Division): readonly (readonly number[])[] {
  const whole = job.partitions.at(-1)!;
  if (division === 'pieces') return compiled.problem.lines.length > 0 ? whole : piecesOf(job.job);
  const parts = job.partitions[0]!;
  // Each part is laid out in the way that suits it: where more than one differs by the way, they have to go the same.
  const isFree = division === 'parts' ? parts.filter((part) => !isSame(job.variants, part)).length < 2 : !isTied(compiled, job);
  return isFree ? parts : whole;
}

/** The jobs that are ordered, as items; from the end, what follows comes first. */
export function itemsOf(compiled: Compiled, ordered: readonly number[], division: Division, fromEnd: boolean): readonly Item[] {
  const items: Item[] = [];
  const last = new Map<number, number[]>();
  for (const index of ordered) {
    const job = compiled.jobs[index]!;
    const own: number[] = [];
    for (const block of blocksOf(compiled, job, division)) {
      // Parts are in an order that respects the lags; only those that lead here must come first.
      const leads = own.filter((at) => items[at]!.block.some((step) => block.some((to) => job.variants[0]!.incoming[to]!.some((lag) => lag.from === step))));
      own.push(items.push({ job: index, block, before: leads }) - 1);
    }
    last.set(index, own);
  }
  const linked = items.map((item) => ({
    ...item,
    before: [...item.before, ...compiled.jobs[item.job]!.inputs.flatMap((input) => (item.block.includes(input.step) ? (last.get(input.job) ?? []) : []))],
  }));
  if (!fromEnd) return linked;
  return linked.map((item, index) => ({ ...item, before: linked.flatMap((other, at) => (other.before.includes(index) ? [at] : [])) }));
}

/** What an item takes of the station: resources by their index, units by theirs, below zero. */
function wantsOf({ jobs, levels }: Compiled, { job, block }: Item): ReadonlySet<number> {
  const wants = new Set<number>();
  for (const variant of jobs[job]!.variants) {
    for (const step of block) for (const level of variant.uses[step]!) wants.add(levels[level]!.resource);
    for (const holding of variant.holdings) if (block.includes(holding.to)) wants.add(-1 - holding.unit);
  }
  return wants;
}

/** Of each item the others that want something it wants, but for those that must come in their own order anyway. */
export function rivalsOf(compiled: Compiled, items: readonly Item[], division: Division): readonly (readonly number[])[] {
  const wants = items.map((item) => wantsOf(compiled, item));
  const own = division !== 'whole';
  return items.map(({ job }, index) =>
    items.flatMap((other, at) => (at !== index && !(own && other.job === job) && [...wants[index]!].some((one) => wants[at]!.has(one)) ? [at] : [])),
  );
}
