import { rivalsOf } from './problem';
import type { Mode, PlacedStep, Problem, Sequence } from './problem';
import { Kernel } from './engine/kernel';

/**
 * A plan as an order of work: who comes after whom in each unit, which step takes over which hands, what waits for what. With the order kept and times that
 * are not as planned, it tells when everything would be done. Hands are handed on one by one (a chained partial order: Policella, Cesta, Oddi & Smith 2007).
 */

interface Node {
  readonly jobId: string;
  readonly stepId: string | null;
  readonly plannedMin: number;
  readonly durationMin: number;
  readonly mode: Mode | null;
  /** Begins no sooner than planned: it has room before it, and nobody starts a soup early because another is done. */
  readonly holds: boolean;
  readonly done: boolean;
  /** What must have ended (or begun, where `atStart`) before it, and minutes in between. */
  readonly after: { readonly node: number; readonly atStart: boolean; readonly min: number }[];
}

const QUANTILE_BITS = 6;
const QUANTILES = 1 << QUANTILE_BITS;
/** So many days are played through side by side, step by step: what is asked for one after the other lies beside each other. */
const BLOCK = 64;

/** Durations at the middle of `QUANTILES` equal shares of chance: a triangle from low to high with its peak at what is planned. */
function quantilesOf(mode: Mode): Float64Array {
  const table = new Float64Array(QUANTILES).fill(mode.durationMin);
  const [low, high] = mode.spreadMin ?? [mode.durationMin, mode.durationMin];
  const peak = Math.min(high, Math.max(low, mode.durationMin));
  if (high <= low) return table;
  const below = (peak - low) / (high - low);
  for (let at = 0; at < QUANTILES; at += 1) {
    const chance = (at + 0.5) / QUANTILES;
    table[at] = chance < below ? low + Math.sqrt(chance * (high - low) * (peak - low)) : high - Math.sqrt((1 - chance) * (high - low) * (high - peak));
  }
  return table;
}

export interface OnTime {
  /** Share of the days on which a job with a ready-by was ready by it. */
  readonly chanceByJob: ReadonlyMap<string, number>;
  /** All of them on the same day. */
  readonly chanceOfAll: number;
  /** Minutes a job is ready after its planned end, at most, on that share of the days. */
  readonly overrunMin: (jobId: string, chance: number) => number;
}

export class Replay {
  private readonly problem: Problem;
  private readonly nodes: Node[] = [];
  private readonly readyBy: ReadonlyMap<string, number | null>;

  constructor(problem: Problem, sequence: Pick<Sequence, 'jobs' | 'changeovers'>) {
    this.problem = problem;
    this.readyBy = new Map(problem.jobs.map((job) => [job.id, job.readyByMin]));
    const jobById = new Map(problem.jobs.map((job) => [job.id, job]));
    const made: { node: Omit<Node, 'after'>; after: { readonly node: number; readonly atStart: boolean; readonly min: number }[]; uses: Mode['uses'] }[] = [];
    const indexOf = new Map<string, number>();
    const items: {
      readonly jobId: string;
      readonly step: PlacedStep | null;
      readonly wash: Sequence['changeovers'][number] | null;
      readonly startMin: number;
      readonly endMin: number;
    }[] = [
      ...sequence.jobs.flatMap((placed) => placed.steps.map((step) => ({ jobId: placed.jobId, step, wash: null, startMin: step.startMin, endMin: step.endMin }))),
      ...sequence.changeovers.map((wash) => ({ jobId: wash.toJobId, step: null, wash, startMin: wash.startMin, endMin: wash.endMin })),
    ];
    // Everything an item waits for has begun before it, so this is an order in which all can be worked out.
    items.sort((left, right) => left.startMin - right.startMin || left.endMin - right.endMin);
    for (const { jobId, step, wash, startMin, endMin } of items) {
      const own = step === null ? undefined : jobById.get(jobId)?.steps.find(({ id }) => id === step.stepId);
      const mode = own?.modes.find(({ id }) => id === step?.modeId) ?? null;
      const done = own?.fixed?.kind === 'done';
      const changeoverId = problem.units.find(({ id }) => id === wash?.unitId)?.changeoverId;
      const uses = mode?.uses ?? problem.changeovers.find(({ id }) => id === changeoverId)?.uses ?? [];
      indexOf.set(wash === null ? `${jobId} ${step?.stepId ?? ''}` : `wash ${wash.unitId} ${wash.fromJobId} ${wash.toJobId}`, made.length);
      made.push({
        node: { jobId, stepId: step?.stepId ?? null, plannedMin: startMin, durationMin: endMin - startMin, mode: done ? null : mode, holds: false, done },
        after: [],
        uses,
      });
    }
    const follow = (to: number | undefined, from: number | undefined, atStart: boolean, min: number): void => {
      if (to === undefined || from === undefined || from >= to) return;
      const after = made[to]?.after;
      // Whoever takes over all hands of another waits for it once.
      if (after?.some((one) => one.node === from && one.atStart === atStart && one.min >= min) === false) after.push({ node: from, atStart, min });
    };
    for (const placed of sequence.jobs) {
      const job = jobById.get(placed.jobId);
      for (const lag of job?.lags ?? []) {
        const atStart = lag.kind === 'startStart' || lag.kind === 'startEnd';
        if (lag.kind === 'endStart' || lag.kind === 'startStart') follow(indexOf.get(`${placed.jobId} ${lag.to}`), indexOf.get(`${placed.jobId} ${lag.from}`), atStart, lag.minMin);
      }
      for (const step of job?.steps ?? [])
        for (const input of step.afterJobs)
          for (const last of sequence.jobs.find((other) => other.jobId === input)?.steps ?? [])
            follow(indexOf.get(`${placed.jobId} ${step.id}`), indexOf.get(`${input} ${last.stepId}`), false, 0);
    }
    this.chainUnits(sequence, indexOf, follow);
    this.chainResources(made, follow);
    this.nodes = made.map(({ node, after }) => {
      const bound = Math.max(
        Number.NEGATIVE_INFINITY,
        ...after.map((one) => (made[one.node]?.node.plannedMin ?? 0) + (one.atStart ? 0 : (made[one.node]?.node.durationMin ?? 0)) + one.min),
      );
      return { ...node, after, holds: bound < node.plannedMin };
    });
  }

  private chainUnits(
    sequence: Pick<Sequence, 'jobs' | 'changeovers'>,
    indexOf: ReadonlyMap<string, number>,
    follow: (to: number | undefined, from: number | undefined, atStart: boolean, min: number) => void,
  ): void {
    const stays = sequence.jobs.flatMap((placed) => {
      const job = this.problem.jobs.find(({ id }) => id === placed.jobId);
      const at = (id: string): PlacedStep | undefined => placed.steps.find((step) => step.stepId === id);
      return [
        ...(job?.spans ?? []).map((span, index) => ({
          unitId: placed.spanUnitIds[index],
          jobId: placed.jobId,
          from: span.from,
          to: span.to,
          untilEnd: span.until === 'end',
          startMin: at(span.from)?.startMin ?? 0,
        })),
        ...placed.steps
          .filter((step) => step.unitId !== null)
          .map((step) => ({ unitId: step.unitId ?? '', jobId: placed.jobId, from: step.stepId, to: step.stepId, untilEnd: true, startMin: step.startMin })),
      ];
    });
    for (const unit of this.problem.units) {
      const inOrder = stays.filter((stay) => stay.unitId === unit.id).sort((left, right) => left.startMin - right.startMin);
      inOrder.slice(1).forEach((after, index) => {
        const before = inOrder[index];
        if (before === undefined) return;
        const [left, next] = [indexOf.get(`${before.jobId} ${before.to}`), indexOf.get(`${after.jobId} ${after.from}`)];
        const wash = indexOf.get(`wash ${unit.id} ${before.jobId} ${after.jobId}`);
        follow(next, left, !before.untilEnd, 0);
        follow(wash, left, !before.untilEnd, 0);
        follow(next, wash, false, 0);
      });
    }
  }

  /** Hands are handed on: each takes over from those who were free longest ago. */
  private chainResources(
    made: readonly { readonly node: Omit<Node, 'after'>; readonly uses: Mode['uses'] }[],
    follow: (to: number | undefined, from: number | undefined, atStart: boolean, min: number) => void,
  ): void {
    for (const resource of this.problem.resources) {
      const peak = Math.max(resource.capacity, ...resource.windows.map((window) => window.capacity));
      const all = Array.from(
        {
          length: Math.max(
            peak,
            resource.windows.reduce((sum, window) => sum + window.capacity, 0),
          ),
        },
        () => ({ freeMin: Number.NEGATIVE_INFINITY, node: -1 }),
      );
      made.forEach(({ node, uses }, index) => {
        let units = uses.find((use) => use.resourceId === resource.id)?.units ?? 0;
        if (node.done) units = 0;
        const able = all.filter((one) => one.freeMin <= node.plannedMin).sort((left, right) => left.freeMin - right.freeMin);
        for (const one of able.slice(0, units)) {
          if (one.node >= 0) follow(index, one.node, false, 0);
          one.freeMin = node.plannedMin + node.durationMin;
          one.node = index;
        }
      });
    }
    // What excludes each other stays in its order.
    const rivals = new Map(rivalsOf(this.problem).map((those, at) => [this.problem.resources[at]?.id ?? '', those.map((rival) => this.problem.resources[rival]?.id ?? '')]));
    made.forEach(({ node, uses }, index) => {
      const before = node.done ? [] : uses.flatMap((use) => rivals.get(use.resourceId) ?? []);
      if (before.length === 0) return;
      made.forEach((other, from) => {
        if (!other.node.done && other.node.plannedMin + other.node.durationMin <= node.plannedMin && other.uses.some((use) => before.includes(use.resourceId)))
          follow(index, from, false, 0);
      });
    });
  }

  /** Starts of all nodes with these durations; `delayMin` is laid before one node. */
  private starts(durationOf: (index: number) => number, start: Float64Array, end: Float64Array, delayed = -1, delayMin = 0): void {
    this.nodes.forEach((node, index) => {
      let at = node.holds || node.after.length === 0 ? node.plannedMin : Number.NEGATIVE_INFINITY;
      if (node.done) at = node.plannedMin;
      else for (const one of node.after) at = Math.max(at, (one.atStart ? (start[one.node] ?? 0) : (end[one.node] ?? 0)) + one.min);
      if (index === delayed) at += delayMin;
      start[index] = at;
      end[index] = at + durationOf(index);
    });
  }

  private endsOf(end: Float64Array): ReadonlyMap<string, number> {
    const ends = new Map<string, number>();
    this.nodes.forEach((node, index) => {
      if (node.stepId !== null) ends.set(node.jobId, Math.max(ends.get(node.jobId) ?? 0, end[index] ?? 0));
    });
    return ends;
  }

  /** When every job ends if a job's next step begins `delayMin` later than planned. */
  endsIfDelayed(jobId: string, delayMin: number): ReadonlyMap<string, number> {
    const start = new Float64Array(this.nodes.length);
    const end = new Float64Array(this.nodes.length);
    const first = this.nodes.findIndex((node) => node.jobId === jobId && node.stepId !== null && !node.done);
    this.starts((index) => this.nodes[index]?.durationMin ?? 0, start, end, first, delayMin);
    return this.endsOf(end);
  }

  /** Minutes a job's next step may begin later with nothing being later than its ready-by that is not so already; at most `mostMin`. */
  slackMin(jobId: string, mostMin: number): number {
    const planned = this.endsIfDelayed(jobId, 0);
    const harmless = (delayMin: number): boolean => {
      for (const [id, end] of this.endsIfDelayed(jobId, delayMin)) {
        const by = this.readyBy.get(id) ?? null;
        if (by !== null && end > Math.max(by, planned.get(id) ?? 0)) return false;
      }
      return true;
    };
    let [low, high] = [0, mostMin];
    while (low < high) {
      const middle = Math.ceil((low + high) / 2);
      if (harmless(middle)) low = middle;
      else high = middle - 1;
    }
    return low;
  }

  /** How often everything is ready in time when steps take as long as they happen to take. Deterministic for a seed. */
  onTime(days: number, seed: number): OnTime {
    const wanted = [...new Set(this.nodes.map((node) => node.jobId))].filter((id) => (this.readyBy.get(id) ?? null) !== null);
    const by = wanted.map((id) => this.readyBy.get(id) ?? 0);
    const hits = wanted.map(() => 0);
    const ends = wanted.map(() => new Float64Array(days));
    const played = this.played(wanted, seed);
    let all = 0;
    for (let first = 0; first < days; first += BLOCK) {
      const count = Math.min(BLOCK, days - first);
      const isWhole = new Uint8Array(count).fill(1);
      played().forEach((end, job) => {
        ends[job]?.set(end.subarray(0, count), first);
        for (let day = 0; day < count; day += 1) {
          if ((end[day] ?? 0) <= (by[job] ?? 0) + 0.5) hits[job] = (hits[job] ?? 0) + 1;
          else isWhole[day] = 0;
        }
      });
      all += isWhole.reduce((sum, is) => sum + is, 0);
    }
    const planned = this.endsIfDelayed('', 0);
    return {
      chanceByJob: new Map(wanted.map((id, job) => [id, (hits[job] ?? 0) / days])),
      chanceOfAll: all / days,
      overrunMin: (jobId, chance) => {
        const inOrder = ends[wanted.indexOf(jobId)]?.slice().sort();
        return Math.max(0, (inOrder?.[Math.min(days - 1, Math.ceil(days * chance) - 1)] ?? 0) - (planned.get(jobId) ?? 0));
      },
    };
  }

  /** Plays days through in the kernel (core/assembly/replay.ts), so many at a time as a block has; gives when each of these jobs has ended on each. */
  private played(wanted: readonly string[], seed: number): () => readonly Float64Array[] {
    const { nodes } = this;
    const kernel = new Kernel();
    const gaps: number[] = [];
    const bounds = nodes.map(({ after, done }) => (done ? [] : after.flatMap(({ node, atStart, min }) => [node, Number(atStart), gaps.push(min) - 1])));
    const jobOver = kernel.roomOfNumbers(wanted.length * BLOCK);
    kernel.set({
      nodeCount: nodes.length,
      days: BLOCK,
      floorMin: kernel.rowOfNumbers(nodes.map(({ done, holds, after, plannedMin }) => (done || holds || after.length === 0 ? plannedMin : Number.NEGATIVE_INFINITY))),
      takesMin: kernel.rowOfNumbers(nodes.map(({ durationMin }) => durationMin)),
      bounds: kernel.rowOfLists(bounds),
      gapMin: kernel.rowOfNumbers(gaps),
      quantiles: kernel.row(nodes.map(({ mode }) => (mode?.spreadMin === undefined ? 0 : kernel.rowOfNumbers(quantilesOf(mode))))),
      quantileShift: 32 - QUANTILE_BITS,
      begins: kernel.roomOfNumbers(nodes.length * BLOCK),
      over: kernel.roomOfNumbers(nodes.length * BLOCK),
      lastOf: kernel.row(nodes.map(({ stepId, jobId }) => (stepId === null ? -1 : wanted.indexOf(jobId)))),
      jobOver,
      chance: seed,
    });
    const ends = kernel.numbersAt(jobOver, wanted.length * BLOCK);
    return () => {
      ends.fill(0);
      kernel.run.playDays();
      return wanted.map((_, job) => ends.subarray(job * BLOCK, (job + 1) * BLOCK));
    };
  }

  /** Number of steps and washes a day has: what one replication costs. */
  get size(): number {
    return this.nodes.length;
  }
}
