import type { Mode, PlacedStep, Problem, Sequence } from './problem';
import { seeded } from './random';

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

const QUANTILES = 64;

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
      if (to !== undefined && from !== undefined && from < to) made[to]?.after.push({ node: from, atStart, min });
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
    const random = seeded(seed);
    const { nodes } = this;
    const count = nodes.length;
    // Everything flat: a day is one pass over arrays.
    const tables = new Float64Array(count * QUANTILES);
    const isSure = new Uint8Array(count);
    const floor = new Float64Array(count);
    // Starts and ends in one array, so that an arc is one place in it.
    const times = new Float64Array(count * 2);
    const arcFrom: number[] = [];
    const arcMin: number[] = [];
    const firstArc = new Int32Array(count + 1);
    nodes.forEach((node, index) => {
      isSure[index] = node.mode === null ? 1 : 0;
      tables.set(node.mode === null ? new Float64Array(QUANTILES).fill(node.durationMin) : quantilesOf(node.mode), index * QUANTILES);
      floor[index] = node.done || node.holds || node.after.length === 0 ? node.plannedMin : Number.NEGATIVE_INFINITY;
      firstArc[index] = arcFrom.length;
      if (!node.done)
        for (const one of node.after) {
          arcFrom.push(one.atStart ? one.node : count + one.node);
          arcMin.push(one.min);
        }
    });
    firstArc[count] = arcFrom.length;
    const from = Int32Array.from(arcFrom);
    const gap = Float64Array.from(arcMin);
    const wanted = [...new Set(nodes.map((node) => node.jobId))].filter((id) => (this.readyBy.get(id) ?? null) !== null);
    const jobOf = Int32Array.from(nodes, (node) => (node.stepId === null ? -1 : wanted.indexOf(node.jobId)));
    const by = Float64Array.from(wanted, (id) => this.readyBy.get(id) ?? 0);
    const hits = new Int32Array(wanted.length);
    const ends = wanted.map(() => new Float64Array(days));
    let all = 0;
    const last = new Float64Array(wanted.length);
    for (let day = 0; day < days; day += 1) {
      last.fill(0);
      for (let index = 0; index < count; index += 1) {
        let at = floor[index] ?? 0;
        const end = firstArc[index + 1] ?? 0;
        for (let arc = firstArc[index] ?? 0; arc < end; arc += 1) {
          const bound = (times[from[arc] ?? 0] ?? 0) + (gap[arc] ?? 0);
          if (bound > at) at = bound;
        }
        times[index] = at;
        const done = at + (tables[index * QUANTILES + (isSure[index] === 1 ? 0 : Math.floor(random() * QUANTILES))] ?? 0);
        times[count + index] = done;
        const job = jobOf[index] ?? -1;
        if (job >= 0 && done > (last[job] ?? 0)) last[job] = done;
      }
      let whole = true;
      for (let job = 0; job < wanted.length; job += 1) {
        const done = last[job] ?? 0;
        const list = ends[job];
        if (list !== undefined) list[day] = done;
        if (done <= (by[job] ?? 0) + 0.5) hits[job] = (hits[job] ?? 0) + 1;
        else whole = false;
      }
      if (whole) all += 1;
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

  /** Number of steps and washes a day has: what one replication costs. */
  get size(): number {
    return this.nodes.length;
  }
}
