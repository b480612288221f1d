import { piecesOf } from './compile';
import type { Compiled, CompiledJob, Variant } from './compile';

/** A job, or some of its steps, as one thing among those that are put in order. */
export interface Item {
  readonly job: number;
  readonly block: readonly number[];
  /** Items that must be laid out before it. */
  readonly before: readonly number[];
}

/** Into what jobs are divided: not at all where their parts have to do with each other; or into pieces something else may come between. */
type Division = 'whole' | 'pieces';

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
  return isTied(compiled, job) ? whole : job.partitions[0]!;
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
  const linked = items.map(({ job: index, block, before }) => ({
    job: index,
    block,
    before: [
      ...before,
      ...compiled.jobs[index]!.inputs.flatMap(({ step, job, after }) =>
        block.includes(step) ? (last.get(job) ?? []).filter((at) => after === undefined || items[at]!.block.includes(after)) : [],
      ),
    ],
  }));
  if (!fromEnd) return linked;
  return linked.map(({ job, block }, index) => ({ job, block, before: linked.flatMap((other, at) => (other.before.includes(index) ? [at] : [])) }));
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
  const wantedBy = new Map<number, number[]>();
  wants.forEach((own, at) => {
    for (const one of own) {
      const others = wantedBy.get(one);
      if (others === undefined) wantedBy.set(one, [at]);
      else others.push(at);
    }
  });
  const isApart = division !== 'whole';
  return items.map(({ job }, index) => {
    const isMet = new Uint8Array(items.length);
    for (const one of wants[index]!) for (const at of wantedBy.get(one)!) isMet[at] = 1;
    const rivals: number[] = [];
    for (let at = 0; at < items.length; at += 1) if (isMet[at] === 1 && at !== index && !(isApart && items[at]!.job === job)) rivals.push(at);
    return rivals;
  });
}

/** The pieces of jobs; behind them the washes of units before one comes in. */
export interface Washed {
  readonly items: readonly Item[];
  /** How many of the items are pieces. The others are washes: their block is the step the unit is washed for. */
  readonly pieces: number;
}

/** Pieces in order with the washes as things of their own: hands may wash first, or go on with something else before. */
export function withWashes(compiled: Compiled, ordered: readonly number[]): Washed {
  const pieces = itemsOf(compiled, ordered, 'pieces', false);
  const items = [...pieces];
  pieces.forEach(({ job: index, block }, piece) => {
    const { doneStart, variants } = compiled.jobs[index]!;
    for (const step of block) {
      if (doneStart[step]! >= 0 || !variants.some((variant) => variant.opening[step]!.some((at) => compiled.washes[variant.holdings[at]!.unit] !== null))) continue;
      const wash = items.push({ job: index, block: [step], before: [] }) - 1;
      items[piece] = { job: index, block, before: [...items[piece]!.before, wash] };
    }
  });
  return { items, pieces: pieces.length };
}

/** The same of pieces with their washes: a wash meets what the piece meets that it is for. */
export function rivalsOfWashed(compiled: Compiled, { items, pieces }: Washed): readonly (readonly number[])[] {
  const among = rivalsOf(compiled, items.slice(0, pieces), 'pieces');
  const pieceOf = items.map((_, at) => at);
  const washesOf = items.map(({ before }) => before.filter((wash) => wash >= pieces));
  washesOf.forEach((washes, piece) => {
    for (const wash of washes) pieceOf[wash] = piece;
  });
  return pieceOf.map((piece) => {
    const washes = among[piece]!.flatMap((other) => washesOf[other]!);
    return [...among[piece]!, ...washes.sort((left, right) => left - right)];
  });
}
