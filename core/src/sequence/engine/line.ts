import type { Random } from '../random';
import type { Compiled, CompiledJob } from './compile';
import type { Guide } from './guide';

/**
 * A line: every job passes the same machines in the same order and nothing overtakes, so an order of jobs is a whole plan, and its times are one recursion.
 * Iterated greedy (Ruiz & Stützle 2007): a few jobs out by chance, each back where it costs least, then every job where it costs least. It begins with the
 * jobs that take longest (Nawaz, Enscore & Ham 1983).
 */

/** Jobs taken out at once, as the authors have it, and how readily a worse order is gone on from: tried on the published flow shops. */
const TAKEN_OUT = 4;
const WARMTH = 0.16;

interface Pass {
  readonly machine: number;
  readonly durationMin: number;
  /** The longest wait before the next machine. */
  readonly waitMin: number;
  /** Held until the next machine takes the workpiece. */
  readonly blocks: boolean;
}

/** The machines a job passes, one step after the other; null when it is anything else. */
function passesOf({ job, size, variants, inputs, begun, pinned }: CompiledJob, compiled: Compiled): readonly Pass[] | null {
  const [variant] = variants;
  if (variant === undefined || variants.length > 1 || inputs.length > 0 || begun || job.releaseMin > 0 || pinned.some((start) => start >= 0)) return null;
  if (job.bufferMin > 0 || job.earlyWeight > 0) return null;
  const passes: Pass[] = [];
  for (let step = 0; step < size; step += 1) {
    const held = variant.opening[step]!.map((at) => variant.holdings[at]!);
    const uses = variant.uses[step]!.map((level) => compiled.levels[level]!);
    const [lag, ...others] = variant.outgoing[step]!;
    const isLast = step === size - 1;
    if (uses.length + held.length !== 1 || others.length > 0 || (lag === undefined) !== isLast) return null;
    if (lag !== undefined && (lag.to !== step + 1 || lag.min !== variant.durations[step]!)) return null;
    const [hold] = held;
    if (hold === undefined && uses[0]!.units !== compiled.problem.resources[uses[0]!.resource]!.capacity) return null;
    const blocks = hold !== undefined && !hold.untilEnd;
    if (hold !== undefined && hold.to !== (blocks ? step + 1 : step)) return null;
    passes.push({
      machine: hold === undefined ? uses[0]!.resource : compiled.resources + hold.unit,
      durationMin: variant.durations[step]!,
      waitMin: lag === undefined ? Number.POSITIVE_INFINITY : lag.max - lag.min,
      blocks,
    });
  }
  return passes;
}

export class Line implements Guide {
  bestCost: number;
  /** The best order of jobs so far, by their index. */
  private best: readonly number[];
  private order: number[];
  private cost: number;
  private readonly random: Random;
  private readonly jobs: readonly CompiledJob[];
  private readonly machines: number;
  private readonly durations: Int32Array;
  private readonly waits: Float64Array;
  private readonly blocks: Uint8Array;
  /** When each machine is free after so many jobs of the order that is laid out, and of the one a job is put into; what those before are late. */
  private readonly heads: Float64Array;
  private readonly stem: Float64Array;
  private readonly spent: Float64Array;
  private readonly start: Float64Array;
  private readonly due: Float64Array;
  private readonly late: number;
  private readonly makespan: number;
  private readonly warmth: number;

  /** null = the problem is no line. */
  static of(compiled: Compiled, random: Random): Line | null {
    const { problem, jobs } = compiled;
    if (problem.resources.some((resource) => resource.windows.length > 0) || problem.changeovers.length > 0 || jobs.length < 2) return null;
    const passes: (readonly Pass[])[] = [];
    for (const job of jobs) {
      const found = passesOf(job, compiled);
      if (found === null) return null;
      passes.push(found);
    }
    const [first] = passes;
    const isSame = passes.every((one) => one.length === first!.length && one.every((pass, at) => pass.machine === first![at]!.machine && pass.blocks === first![at]!.blocks));
    // Without a rule that nothing overtakes, an order of jobs says all only where none can: it may not wait, or waits on its machine. Of two machines nothing gains by
    // overtaking (Johnson 1954).
    const keepsOrder = problem.lines.length > 0 || first!.length < 3 || passes.every((one) => one.slice(0, -1).every((pass) => pass.blocks || pass.waitMin === 0));
    return isSame && keepsOrder ? new Line(compiled, passes, random) : null;
  }

  private constructor(compiled: Compiled, passes: readonly (readonly Pass[])[], random: Random) {
    const { jobs, problem } = compiled;
    this.jobs = jobs;
    this.random = random;
    this.machines = passes[0]!.length;
    this.durations = Int32Array.from(passes.flat(), (pass) => pass.durationMin);
    this.waits = Float64Array.from(passes.flat(), (pass) => pass.waitMin);
    this.blocks = Uint8Array.from(passes[0]!, (pass) => (pass.blocks ? 1 : 0));
    this.heads = new Float64Array((jobs.length + 2) * this.machines);
    this.stem = new Float64Array((jobs.length + 2) * this.machines);
    this.spent = new Float64Array(jobs.length + 2);
    this.due = Float64Array.from(jobs, ({ job }) => job.readyByMin ?? Number.POSITIVE_INFINITY);
    this.start = new Float64Array(this.machines + 1);
    this.late = problem.weights.late;
    this.makespan = problem.weights.makespan;
    const work = this.durations.reduce((sum, duration) => sum + duration, 0);
    const meanMin = work / this.durations.length;
    this.warmth = WARMTH * meanMin * Math.max(this.makespan, this.late * Math.sqrt(jobs.length));
    const long = jobs.map(({ index }) => index).sort((left, right) => this.workOf(right) - this.workOf(left));
    this.order = [];
    this.cost = 0;
    for (const job of long) this.cost = this.insert(this.order, job);
    this.cost = this.settle(this.order, this.cost);
    this.best = [...this.order];
    this.bestCost = this.cost;
  }

  private workOf(job: number): number {
    let sum = 0;
    for (let at = 0; at < this.machines; at += 1) sum += this.durations[job * this.machines + at]!;
    return sum;
  }

  /**
   * Lays a job behind what stands in row `from` of the heads, and writes row `from + 1`: when each machine is free after it. One pass forward, as soon as the
   * machines let it, and one back for how long it may wait. Gives when it ends.
   */
  private lay(job: number, from: number): number {
    const { machines, durations, waits, blocks, heads, start } = this;
    const base = job * machines;
    const row = from * machines;
    let at = 0;
    for (let machine = 0; machine < machines; machine += 1) {
      if (heads[row + machine]! > at) at = heads[row + machine]!;
      start[machine] = at;
      at += durations[base + machine]!;
    }
    start[machines] = at;
    for (let machine = machines - 2; machine >= 0; machine -= 1) {
      const soonest = start[machine + 1]! - waits[base + machine]! - durations[base + machine]!;
      if (soonest > start[machine]!) start[machine] = soonest;
    }
    const next = row + machines;
    for (let machine = 0; machine < machines; machine += 1) heads[next + machine] = blocks[machine] === 1 ? start[machine + 1]! : start[machine]! + durations[base + machine]!;
    return at;
  }

  private lateCost(job: number, end: number): number {
    const due = this.due[job]!;
    return end > due ? this.late * this.jobs[job]!.job.lateWeight * (end - due) : 0;
  }

  /** Puts a job in where the order costs least; of equal places one by chance. Gives what the order costs then. */
  private insert(order: number[], job: number): number {
    const { machines, heads, stem, spent, makespan } = this;
    // What stands before each place is laid out once.
    heads.fill(0, 0, machines);
    for (let at = 0; at < order.length; at += 1) spent[at + 1] = spent[at]! + this.lateCost(order[at]!, this.lay(order[at]!, at));
    stem.set(heads.subarray(0, (order.length + 1) * machines));
    let least = Number.POSITIVE_INFINITY;
    let place = 0;
    let equal = 0;
    for (let behind = order.length; behind >= 0; behind -= 1) {
      for (let machine = 0; machine < machines; machine += 1) heads[behind * machines + machine] = stem[behind * machines + machine]!;
      let end = this.lay(job, behind);
      let cost = spent[behind]! + this.lateCost(job, end);
      for (let at = behind; at < order.length && cost <= least; at += 1) {
        end = this.lay(order[at]!, at + 1);
        cost += this.lateCost(order[at]!, end);
      }
      cost += makespan * end;
      if (cost > least) continue;
      equal = cost < least ? 1 : equal + 1;
      if (cost < least || this.random() * equal < 1) place = behind;
      least = cost;
    }
    order.splice(place, 0, job);
    return least;
  }

  /** Each job where it costs least, over and over, until nothing gains by it. */
  private settle(order: number[], from: number): number {
    let cost = from;
    for (let isBetter = true; isBetter;) {
      isBetter = false;
      const queue = [...order];
      while (queue.length > 0) {
        const [job] = queue.splice(Math.floor(this.random() * queue.length), 1);
        order.splice(order.indexOf(job!), 1);
        const found = this.insert(order, job!);
        if (found < cost) isBetter = true;
        cost = found;
      }
    }
    return cost;
  }

  starts(): Int32Array {
    const { machines, start } = this;
    const starts = new Int32Array(this.durations.length);
    this.heads.fill(0, 0, machines);
    this.best.forEach((job, at) => {
      this.lay(job, at);
      for (let machine = 0; machine < machines; machine += 1) starts[job * machines + machine] = start[machine]!;
    });
    return starts;
  }

  step(): boolean {
    const order = [...this.order];
    const out = Array.from({ length: Math.min(TAKEN_OUT, order.length - 1) }, () => order.splice(Math.floor(this.random() * order.length), 1)[0]!);
    let cost = this.cost;
    for (const job of out) cost = this.insert(order, job);
    cost = this.settle(order, cost);
    if (cost <= this.cost || this.random() < Math.exp((this.cost - cost) / this.warmth)) {
      this.order = order;
      this.cost = cost;
    }
    if (cost >= this.bestCost) return false;
    this.bestCost = cost;
    this.best = [...order];
    return true;
  }
}
