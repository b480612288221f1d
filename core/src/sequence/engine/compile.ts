import { changeoverMin } from '../problem';
import type { Job, JobStep, Lag, Mode, Problem, Resource } from '../problem';
import { Levels } from './levels';
import type { Level, Uses } from './levels';

/**
 * A problem as the search reads it: names become indices, every lag a pair of start-to-start bounds, every choice of modes and units of a
 * job one variant. Inside the engine every index comes from here.
 */

/** So many units from one minute to before another. */
interface Stretch {
  readonly fromMin: number;
  readonly toMin: number;
  readonly units: number;
}

interface IncomingLag {
  readonly from: number;
  readonly min: number;
  /** Infinity = it keeps. */
  readonly max: number;
}

interface OutgoingLag {
  readonly to: number;
  readonly min: number;
  readonly max: number;
}

interface Holding {
  readonly unit: number;
  readonly from: number;
  readonly to: number;
  readonly untilEnd: boolean;
}

/** One choice of mode for each step and of unit for each holding. */
export interface Variant {
  readonly modes: readonly number[];
  readonly durations: readonly number[];
  readonly uses: readonly Uses[];
  readonly incoming: readonly (readonly IncomingLag[])[];
  readonly outgoing: readonly (readonly OutgoingLag[])[];
  readonly holdings: readonly Holding[];
  /** Holdings by the step they end with, and by the one they begin with. */
  readonly closing: readonly (readonly number[])[];
  readonly opening: readonly (readonly number[])[];
  /** Minutes one step may begin after another at most, by all lags together: `[from * size + to]`, Infinity = it keeps. Least is minus the way back. */
  readonly apart: Float64Array;
  /** Whether its steps never lie beside each other in time. */
  readonly isChain: boolean;
  /** Minutes from the start of each step to the end of the job, at least. */
  readonly tail: readonly number[];
  /** Unit of each step's mode, −1 = none. */
  readonly stepUnit: readonly number[];
  readonly spanUnit: readonly number[];
}

export interface CompiledJob {
  readonly index: number;
  readonly job: Job;
  readonly size: number;
  /** First of its steps in the arrays of all steps. */
  readonly offset: number;
  readonly variants: readonly Variant[];
  /** Steps that are placed together, each in an order that respects the lags; first the finest such division, then all in one. */
  readonly partitions: readonly (readonly (readonly number[])[])[];
  /** Steps with a lag that leads out of their part in the finest division. */
  readonly crosses: readonly boolean[];
  readonly doneStart: readonly number[];
  readonly doneEnd: readonly number[];
  readonly pinned: readonly number[];
  readonly begun: boolean;
  readonly allDone: boolean;
  /** Stands in a unit now, with steps still to come. */
  readonly inside: boolean;
  /** `after`: the step of that job that must be over; left out = all of it must. */
  readonly inputs: readonly { readonly step: number; readonly job: number; readonly after?: number }[];
  readonly consumers: readonly { readonly job: number; readonly step: number }[];
  /** Wanted for what takes from it, and for nothing else. */
  readonly forOthers: boolean;
  /** The step nothing comes after, when there is only one. */
  readonly sink: number;
  /** Soonest end on an empty station: the longest way through it with its quickest modes. */
  readonly soonestEnd: number;
}

export interface Compiled {
  readonly problem: Problem;
  readonly horizon: number;
  readonly resources: number;
  /** How much there is of each resource, from 0 to the horizon; after them, of each counter. */
  readonly free: readonly (readonly Stretch[])[];
  readonly levels: readonly Level[];
  readonly jobs: readonly CompiledJob[];
  readonly stepCount: number;
  readonly unitCount: number;
  /** `[unit][before * jobs + after]`, null where nothing is washed. */
  readonly washes: readonly (Int32Array | null)[];
  readonly washUses: readonly Uses[];
  /** Jobs in an order that puts inputs before who takes them; jobs in a circle are left out. */
  readonly order: readonly number[];
  /** Place of a unit in a line, and which line; −1 = none. */
  readonly lineOf: readonly number[];
}

/** Waits shorter than this tie two steps into one block; longer ones are windows between blocks. A choice of the search, not a rule. */
const LOOSE_MIN = 60;
const MAX_VARIANTS = 48;
/** Stands in the kernel for what never ends; it counts in whole minutes. */
export const KEEPS: number = 1 << 28;

/** In whole minutes, on the strict side: cards may say 7.5, and nothing begins between two minutes. */
function bounds(lag: Lag, fromMin: number, toMin: number): { min: number; max: number } {
  const shift = (lag.kind === 'endStart' || lag.kind === 'endEnd' ? fromMin : 0) - (lag.kind === 'startEnd' || lag.kind === 'endEnd' ? toMin : 0);
  return { min: Math.ceil(lag.minMin + shift), max: lag.maxMin === null ? Number.POSITIVE_INFINITY : Math.floor(lag.maxMin + shift) };
}

/** What comes after what. */
interface Edge {
  readonly from: number;
  readonly to: number;
}

/** Steps in an order that respects the lags; null when they form a circle. */
function topological(size: number, edges: readonly Edge[]): readonly number[] | null {
  const waiting = Array.from({ length: size }, () => 0);
  for (const { to } of edges) waiting[to]! += 1;
  const ready = waiting.flatMap((count, index) => (count === 0 ? [index] : []));
  const order: number[] = [];
  for (let at = 0; at < ready.length; at += 1) {
    const step = ready[at]!;
    order.push(step);
    for (const { from, to } of edges) if (from === step && (waiting[to]! -= 1) === 0) ready.push(to);
  }
  return order.length === size ? order : null;
}

/** The tightest lags that follow from all of a job's lags: shortest ways (Floyd & Warshall 1962). */
function apartOf(size: number, outgoing: readonly (readonly OutgoingLag[])[]): Float64Array {
  const apart = new Float64Array(size * size).fill(Number.POSITIVE_INFINITY);
  for (let step = 0; step < size; step += 1) apart[step * size + step] = 0;
  outgoing.forEach((lags, from) => {
    for (const { to, min, max } of lags) {
      if (max < apart[from * size + to]!) apart[from * size + to] = max;
      if (-min < apart[to * size + from]!) apart[to * size + from] = -min;
    }
  });
  for (let over = 0; over < size; over += 1)
    for (let from = 0; from < size; from += 1) {
      const there = apart[from * size + over]!;
      if (there === Number.POSITIVE_INFINITY) continue;
      for (let to = 0; to < size; to += 1) {
        const way = there + apart[over * size + to]!;
        if (way < apart[from * size + to]!) apart[from * size + to] = way;
      }
    }
  return apart;
}

/** Whether each step comes before each other, or is it: `[from * size + to]`. */
function reachable(size: number, edges: readonly Edge[], order: readonly number[]): Uint8Array {
  const reach = new Uint8Array(size * size);
  for (let at = order.length - 1; at >= 0; at -= 1) {
    const step = order[at]!;
    reach[step * size + step] = 1;
    for (const { from, to } of edges) if (from === step) for (let end = 0; end < size; end += 1) reach[from * size + end]! |= reach[to * size + end]!;
  }
  return reach;
}

/** Every combination of one item from each list, the first `limit` of them. */
function combinations(lists: readonly (readonly number[])[], limit: number): readonly (readonly number[])[] {
  let found: number[][] = [[]];
  for (const list of lists) {
    // Most lists have one item, and nothing is copied for it.
    if (list.length === 1) for (const chosen of found) chosen.push(list[0]!);
    else found = found.flatMap((chosen) => list.map((item) => [...chosen, item])).slice(0, limit);
  }
  return found;
}

/** What a fixed step really takes: a done one keeps its times, whatever its mode says. */
function durationOf(step: JobStep, mode: Mode): number {
  return step.fixed?.kind === 'done' ? step.fixed.endMin - step.fixed.startMin : mode.durationMin;
}

/** Places of holdings in their list, by the step each begins or ends with. */
function placesBy(holdings: readonly Holding[], end: 'from' | 'to', size: number): readonly (readonly number[])[] {
  const places: number[][] = Array.from({ length: size }, () => []);
  for (const [at, holding] of holdings.entries()) places[holding[end]]!.push(at);
  return places;
}

function variantsOf(job: Job, problem: Problem, levels: Levels, unitIndex: ReadonlyMap<string, number>): readonly Variant[] {
  const stepIndex = new Map(job.steps.map((step, index) => [step.id, index]));
  const modeLists = job.steps.map((step) => step.modes.map((_, index) => index));
  const variants: Variant[] = [];
  for (const modes of combinations(modeLists, MAX_VARIANTS)) {
    const chosen = job.steps.map((step, index) => step.modes[modes[index]!]!);
    const durations = job.steps.map((step, index) => durationOf(step, chosen[index]!));
    const incoming: IncomingLag[][] = job.steps.map(() => []);
    const outgoing: OutgoingLag[][] = job.steps.map(() => []);
    for (const lag of job.lags) {
      const from = stepIndex.get(lag.from)!;
      const to = stepIndex.get(lag.to)!;
      const { min, max } = bounds(lag, durations[from]!, durations[to]!);
      incoming[to]!.push({ from, min, max });
      outgoing[from]!.push({ to, min, max });
    }
    const apart = apartOf(job.steps.length, outgoing);
    const tail = durations.map((_, step) => durations.reduce((most, duration, to) => Math.max(most, duration - apart[to * durations.length + step]!), 0));
    const isChain = durations.every((duration, step) =>
      durations.every((other, to) => to === step || -apart[to * durations.length + step]! >= duration || -apart[step * durations.length + to]! >= other),
    );
    const unitLists = [...job.spans.map((span) => span.unitIds), ...chosen.map((mode) => mode.unitIds)].map((ids) =>
      ids.length === 0 ? [-1] : ids.map((id) => unitIndex.get(id) ?? -1),
    );
    const uses = chosen.map((mode) => levels.of(mode.uses));
    // Where each unit of a combination is held: spans first, then what the modes hold.
    const ends = [
      ...job.spans.map((span) => ({ from: stepIndex.get(span.from)!, to: stepIndex.get(span.to)!, untilEnd: span.until === 'end' })),
      ...job.steps.map((_, step) => ({ from: step, to: step, untilEnd: true })),
    ];
    let [closing, opening, heldIn]: [Variant['closing'], Variant['opening'], string | null] = [[], [], null];
    for (const units of combinations(unitLists, MAX_VARIANTS)) {
      if (variants.length >= MAX_VARIANTS) return variants;
      const holdings: Holding[] = [];
      let held = '';
      for (const [at, unit] of units.entries()) {
        const { from, to, untilEnd } = ends[at]!;
        if (unit < 0) continue;
        holdings.push({ unit, from, to, untilEnd });
        held += `${String(at)} `;
      }
      // Which unit it is makes no difference to where holding begins and ends.
      if (held !== heldIn) [closing, opening, heldIn] = [placesBy(holdings, 'to', job.steps.length), placesBy(holdings, 'from', job.steps.length), held];
      const [spanUnit, stepUnit] = [units.slice(0, job.spans.length), units.slice(job.spans.length)];
      variants.push({ modes, durations, uses, incoming, outgoing, apart, isChain, tail, holdings, closing, opening, stepUnit, spanUnit });
    }
  }
  return variants;
}

/** Steps that a lag ties to each other, or one of these spans in a unit, merged until the blocks themselves have an order. */
function blocksOf(job: Job, order: readonly number[], reach: Uint8Array, ties: (lag: Lag) => boolean, spans: Job['spans']): readonly (readonly number[])[] {
  const size = job.steps.length;
  const stepIndex = new Map(job.steps.map((step, index) => [step.id, index]));
  const root = Array.from({ length: size }, (_, index) => index);
  const find = (step: number): number => (root[step] === step ? step : (root[step] = find(root[step]!)));
  const join = (left: number, right: number): void => {
    root[find(left)] = find(right);
  };
  for (const lag of job.lags) if (ties(lag)) join(stepIndex.get(lag.from)!, stepIndex.get(lag.to)!);
  for (const span of spans) {
    const from = stepIndex.get(span.from)!;
    const to = stepIndex.get(span.to)!;
    for (let step = 0; step < size; step += 1) if (step === to || (reach[from * size + step]! & reach[step * size + to]!) === 1) join(from, step);
  }
  for (let changed = true; changed;) {
    changed = false;
    // Which group leads to which; two that lead to each other are one.
    const group = root.map((_, step) => find(step));
    const leads = new Uint8Array(size * size);
    for (let from = 0; from < size; from += 1) for (let to = 0; to < size; to += 1) leads[group[from]! * size + group[to]!]! |= reach[from * size + to]!;
    for (let left = 0; left < size; left += 1)
      for (let right = 0; right < left; right += 1) {
        if ((leads[left * size + right]! & leads[right * size + left]!) === 0 || find(left) === find(right)) continue;
        join(left, right);
        changed = true;
      }
  }
  const blocks = new Map<number, number[]>();
  for (const step of order) blocks.set(find(step), [...(blocks.get(find(step)) ?? []), step]);
  const list = [...blocks.values()];
  const at = new Map(list.flatMap((block, index) => block.map((step): [number, number] => [step, index])));
  const edges = job.lags.flatMap((lag): Edge[] => {
    const from = at.get(stepIndex.get(lag.from)!)!;
    const to = at.get(stepIndex.get(lag.to)!)!;
    return from === to ? [] : [{ from, to }];
  });
  return (topological(list.length, edges) ?? []).map((index) => list[index]!);
}

/** Steps that leave each other no play at all are one piece: something else may come between two pieces. Each in an order that respects the lags. */
export function piecesOf(job: Job): readonly (readonly number[])[] {
  const edges = edgesOf(job);
  const order = topological(job.steps.length, edges) ?? [];
  return blocksOf(job, order, reachable(job.steps.length, edges, order), ({ minMin, maxMin }) => maxMin === minMin, []);
}

function edgesOf(job: Job): readonly Edge[] {
  const stepIndex = new Map(job.steps.map((step, at) => [step.id, at]));
  return job.lags.map((lag): Edge => ({ from: stepIndex.get(lag.from)!, to: stepIndex.get(lag.to)! }));
}

function compileJob(job: Job, index: number, offset: number, consumers: CompiledJob['consumers'], variants: readonly Variant[], inputs: CompiledJob['inputs']): CompiledJob | null {
  const stepIndex = new Map(job.steps.map((step, at) => [step.id, at]));
  const edges = edgesOf(job);
  const order = topological(job.steps.length, edges);
  if (order === null || variants.length === 0) return null;
  const reach = reachable(job.steps.length, edges, order);
  const fine = blocksOf(job, order, reach, ({ maxMin }) => maxMin !== null && maxMin < LOOSE_MIN, job.spans);
  const sinks = order.filter((step) => edges.every(({ from }) => from !== step));
  const done = job.steps.map((step) => (step.fixed?.kind === 'done' ? step.fixed : null));
  const spanOpen = job.spans.some((span) => done[stepIndex.get(span.from)!] !== null && done[stepIndex.get(span.to)!] === null);
  let soonestEnd = Number.POSITIVE_INFINITY;
  for (const [at, variant] of variants.entries()) {
    // The same modes in other units take as long.
    if (variant.modes === variants[at - 1]?.modes) continue;
    const start = job.steps.map((_, step) => done[step]?.startMin ?? job.releaseMin);
    let end = 0;
    for (const step of order) {
      if (done[step] === null) for (const lag of variant.incoming[step]!) start[step] = Math.max(start[step]!, start[lag.from]! + lag.min);
      end = Math.max(end, start[step]! + variant.durations[step]!);
    }
    soonestEnd = Math.min(soonestEnd, end);
  }
  return {
    index,
    job,
    size: job.steps.length,
    offset,
    variants,
    partitions: fine.length > 1 ? [fine, [order]] : [fine],
    crosses: job.steps.map((_, step) => {
      const own = fine.find((block) => block.includes(step));
      return edges.some(({ from, to }) => (from === step || to === step) && !(own?.includes(from) === true && own.includes(to)));
    }),
    doneStart: done.map((times) => times?.startMin ?? -1),
    doneEnd: done.map((times) => times?.endMin ?? -1),
    pinned: job.steps.map((step) => (step.fixed?.kind === 'pinned' ? step.fixed.startMin : -1)),
    begun: done.some((times) => times !== null),
    allDone: done.every((times) => times !== null),
    inside: spanOpen,
    inputs,
    consumers,
    forOthers: job.readyByMin === null && consumers.length > 0,
    sink: sinks.length === 1 ? sinks[0]! : -1,
    soonestEnd,
  };
}

/** What each step that is still to come waits for of other jobs. */
function inputsOf(job: Job, jobIndex: ReadonlyMap<string, number>): CompiledJob['inputs'] {
  return job.steps.flatMap(({ fixed, afterJobs }, step) => (fixed?.kind === 'done' ? [] : afterJobs.flatMap((id) => (jobIndex.has(id) ? [{ step, job: jobIndex.get(id)! }] : []))));
}

/** Who takes from each job, in which step that is still to come. */
function consumersOf(jobs: readonly Job[]): ReadonlyMap<string, CompiledJob['consumers']> {
  const consumers = new Map<string, { readonly job: number; readonly step: number }[]>(jobs.map(({ id }) => [id, []]));
  for (const [job, { steps }] of jobs.entries())
    for (const [step, { fixed, afterJobs }] of steps.entries()) if (fixed?.kind !== 'done') for (const id of new Set(afterJobs)) consumers.get(id)?.push({ job, step });
  return consumers;
}

/** How much there is of a resource: what its windows add up to, or always all. */
function freeOf({ capacity, windows }: Resource, horizon: number): readonly Stretch[] {
  if (windows.length === 0) return [{ fromMin: 0, toMin: horizon, units: capacity }];
  const within = (minute: number): number => Math.max(0, Math.min(horizon, minute));
  const cuts = [...new Set([0, horizon, ...windows.flatMap(({ fromMin, toMin }) => [within(fromMin), within(toMin)])])].sort((left, right) => left - right);
  return cuts.slice(1).map((toMin, at) => {
    const fromMin = cuts[at]!;
    return { fromMin, toMin, units: windows.reduce((sum, window) => sum + (window.fromMin <= fromMin && fromMin < window.toMin ? window.capacity : 0), 0) };
  });
}

/** A job as any other: callers make them in many ways, and what is copied by a spread has a shape of its own to the compiler, which compiles all that reads it anew. */
function written({ id, volumeL, steps, lags, spans, changeClass, releaseMin, readyByMin, lateWeight, earlyWeight, bufferMin, likesEarlyMin }: Job): Job {
  return { id, volumeL, steps, lags, spans, changeClass, releaseMin, readyByMin, lateWeight, earlyWeight, bufferMin, likesEarlyMin };
}

/** A problem made ready for the search. Jobs whose lags form a circle have no variant and stay unplaced. `inputs`, by job: what each waits for of others, where that is not what its steps say. */
export function compile(problem: Problem, inputs?: readonly CompiledJob['inputs'][]): Compiled {
  const jobIndex = new Map(problem.jobs.map((job, index) => [job.id, index]));
  const levels = new Levels(problem);
  const unitIndex = new Map(problem.units.map(({ id }, index) => [id, index]));
  const consumers = consumersOf(problem.jobs);
  let offset = 0;
  const jobs = problem.jobs.map(written).map((job, index): CompiledJob => {
    const at = offset;
    offset += job.steps.length;
    const known = variantsOf(job, problem, levels, unitIndex).filter(
      (variant) => variant.uses.every((uses) => uses.every((level) => levels.all[level]!.resource >= 0)) && variant.holdings.length >= job.spans.length,
    );
    return (
      compileJob(job, index, at, consumers.get(job.id) ?? [], known, inputs?.[index] ?? inputsOf(job, jobIndex)) ?? {
        index,
        job,
        size: job.steps.length,
        offset: at,
        variants: [],
        partitions: [],
        crosses: [],
        doneStart: [],
        doneEnd: [],
        pinned: [],
        begun: false,
        allDone: false,
        inside: false,
        inputs: [],
        consumers: [],
        forOthers: false,
        sink: -1,
        soonestEnd: job.releaseMin,
      }
    );
  });
  const edges = jobs.flatMap((job) => job.inputs.map((input): Edge => ({ from: input.job, to: job.index })));
  const waiting = jobs.map((job) => new Set(job.inputs.map((input) => input.job)).size);
  const order = waiting.flatMap((count, index) => (count === 0 ? [index] : []));
  for (let at = 0; at < order.length; at += 1)
    for (const next of new Set(edges.filter(({ from }) => from === order[at]).map(({ to }) => to))) if ((waiting[next]! -= 1) === 0) order.push(next);
  // Units that are washed by one table share it.
  const tables = new Map<string, Int32Array>();
  const washes = problem.units.map((unit): Int32Array | null => {
    if (unit.changeoverId === null) return null;
    const known = tables.get(unit.changeoverId);
    if (known !== undefined) return known;
    const table = new Int32Array(jobs.length * jobs.length);
    for (const before of jobs)
      for (const after of jobs) table[before.index * jobs.length + after.index] = changeoverMin(problem, unit, before.job.changeClass, after.job.changeClass);
    tables.set(unit.changeoverId, table);
    return table;
  });
  const washUses = problem.units.map((unit) => levels.of(problem.changeovers.find(({ id }) => id === unit.changeoverId)?.uses ?? []));
  return {
    problem,
    horizon: problem.horizonMin,
    resources: problem.resources.length,
    free: [
      ...problem.resources.map((resource) => freeOf(resource, problem.horizonMin)),
      ...levels.counters.map((units): readonly Stretch[] => [{ fromMin: 0, toMin: problem.horizonMin, units }]),
    ],
    jobs,
    stepCount: offset,
    unitCount: problem.units.length,
    washes,
    washUses,
    levels: levels.all,
    order,
    lineOf: problem.units.map((unit) => problem.lines.findIndex((line) => line.includes(unit.id))),
  };
}
