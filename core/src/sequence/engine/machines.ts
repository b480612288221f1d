import type { Random } from '../random';
import type { Compiled } from './compile';
import type { Guide } from './guide';

/**
 * Machines and nothing else: each step keeps at most one to itself, and all that counts is the end. A plan is then an order on each machine, and its length the
 * longest way through the graph of both kinds of arrows. Tabu search along one longest way: a step goes behind the last or ahead of the first of its block, or
 * those two into it (Balas & Vazacopoulos 1998; Zhang et al. 2007), reckoned before it is made; back to one of the best when nothing has gained for long
 * (Nowicki & Smutnicki 1996).
 */

/** Rounds without gain before it goes back, how many of the best it goes back to, how many swaps it makes there, how long what was undone stays so: tried on ft10. */
const PATIENCE = 3000;
const ELITE = 8;
const SHAKES = 6;
const TENURE = 10;
const TENURE_SPREAD = 8;
/** So many rounds are one move of the search. */
const ROUNDS = 20;

/** A step of a machine from one place in its order to another. */
type Move = readonly [machine: number, from: number, to: number];

/** The arrows of each step, one after the other: those of a step from `from[step]` on, up to where the next one's begin. */
interface Arrows {
  readonly from: Int32Array;
  readonly step: Int32Array;
  readonly min: Int32Array;
}

function arrows(lists: readonly (readonly (readonly [step: number, min: number])[])[]): Arrows {
  const from = new Int32Array(lists.length + 1);
  lists.forEach((list, at) => (from[at + 1] = from[at]! + list.length));
  return { from, step: Int32Array.from(lists.flat(), ([step]) => step), min: Int32Array.from(lists.flat(), ([, min]) => min) };
}

export class Machines implements Guide {
  bestCost: number = Number.POSITIVE_INFINITY;
  private readonly best: Int32Array;
  private readonly random: Random;
  private readonly size: number;
  private readonly weight: number;
  private readonly durations: Int32Array;
  private readonly incoming: Arrows;
  private readonly outgoing: Arrows;
  /** −1 = none. */
  private readonly machineOf: Int32Array;
  /** Steps of each machine in their order, and the place of each step in it. */
  private orders: number[][];
  private readonly place: Int32Array;
  /** Its neighbours there; −1 = none. */
  private readonly ahead: Int32Array;
  private readonly behind: Int32Array;
  /** Longest way to the start of a step, and from it to the end. */
  private readonly head: Int32Array;
  private readonly tail: Int32Array;
  private readonly queue: Int32Array;
  private readonly waiting: Int32Array;
  private readonly shifted: Int32Array;
  private readonly shiftedHead: Int32Array;
  /** Until which round `[ahead * size + behind]` had better not come about again. */
  private readonly tabu: Int32Array;
  /** Of the plan as it is ordered now: its heads and tails are measured. */
  private length: number;
  private round = 0;
  private lastGain = 0;
  private readonly elite: (readonly (readonly number[])[])[] = [];

  /** Begins from a plan's starts. null = the problem has more to it than machines. */
  static of(compiled: Compiled, starts: Int32Array, random: Random): Machines | null {
    const { problem, jobs } = compiled;
    const { weights } = problem;
    if (problem.lines.length > 0 || problem.changeovers.length > 0 || problem.resources.some((resource) => resource.windows.length > 0) || weights.makespan <= 0) return null;
    const isPlain = jobs.every(({ variants: [variant, ...others], job, begun, pinned }) => {
      if (variant === undefined || others.length > 0 || begun || job.releaseMin > 0 || job.readyByMin !== null || pinned.some((start) => start >= 0)) return false;
      if (!variant.holdings.every((hold) => hold.from === hold.to && hold.untilEnd)) return false;
      return variant.durations.every((duration, step) => {
        const uses = variant.uses[step]!.map((level) => compiled.levels[level]!);
        const keeps = uses.length + variant.opening[step]!.length <= 1 && (uses.length === 0 || uses[0]!.units === problem.resources[uses[0]!.resource]!.capacity);
        return keeps && duration > 0 && variant.outgoing[step]!.every((lag) => lag.max === Number.POSITIVE_INFINITY && lag.min >= duration);
      });
    });
    return isPlain ? new Machines(compiled, starts, random) : null;
  }

  private constructor(compiled: Compiled, starts: Int32Array, random: Random) {
    const { jobs, stepCount: size, resources, unitCount } = compiled;
    this.random = random;
    this.size = size;
    this.weight = compiled.problem.weights.makespan;
    this.durations = new Int32Array(size);
    this.machineOf = new Int32Array(size).fill(-1);
    const incoming: [number, number][][] = Array.from({ length: size }, () => []);
    const outgoing: [number, number][][] = Array.from({ length: size }, () => []);
    const link = (from: number, to: number, min: number): void => {
      outgoing[from]!.push([to, min]);
      incoming[to]!.push([from, min]);
    };
    for (const { offset, variants, inputs } of jobs) {
      const variant = variants[0]!;
      variant.durations.forEach((duration, step) => {
        this.durations[offset + step] = duration;
        const [level] = variant.uses[step]!;
        const [held] = variant.opening[step]!;
        if (level !== undefined) this.machineOf[offset + step] = compiled.levels[level]!.resource;
        else if (held !== undefined) this.machineOf[offset + step] = resources + variant.holdings[held]!.unit;
        for (const lag of variant.outgoing[step]!) link(offset + step, offset + lag.to, lag.min);
      });
      for (const input of inputs) {
        const from = jobs[input.job]!;
        from.variants[0]!.durations.forEach((duration, step) => {
          link(from.offset + step, offset + input.step, duration);
        });
      }
    }
    this.incoming = arrows(incoming);
    this.outgoing = arrows(outgoing);
    this.orders = Array.from({ length: resources + unitCount }, () => []);
    for (const step of [...this.durations.keys()].sort((left, right) => starts[left]! - starts[right]!))
      if (this.machineOf[step]! >= 0) this.orders[this.machineOf[step]!]!.push(step);
    this.place = new Int32Array(size);
    this.ahead = new Int32Array(size).fill(-1);
    this.behind = new Int32Array(size).fill(-1);
    this.shifted = new Int32Array(size);
    this.shiftedHead = new Int32Array(size);
    this.head = new Int32Array(size);
    this.tail = new Int32Array(size);
    this.queue = new Int32Array(size);
    this.waiting = new Int32Array(size);
    this.tabu = new Int32Array(size * size);
    this.best = new Int32Array(size);
    this.number();
    this.length = this.measure();
    this.keep();
  }

  starts(): Int32Array {
    return this.best;
  }

  step(): boolean {
    let better = false;
    for (let round = 0; round < ROUNDS; round += 1) if (this.go()) better = true;
    return better;
  }

  private number(): void {
    for (const order of this.orders) this.renumber(order, 0, order.length - 1);
  }

  /** Places and neighbours of what stands between two places of an order. */
  private renumber(order: readonly number[], low: number, high: number): void {
    for (let at = low; at <= high; at += 1) {
      const step = order[at]!;
      const before = order[at - 1];
      const after = order[at + 1];
      this.place[step] = at;
      this.ahead[step] = before ?? -1;
      this.behind[step] = after ?? -1;
      if (before !== undefined) this.behind[before] = step;
      if (after !== undefined) this.ahead[after] = step;
    }
  }

  /** Heads and tails along an order that respects every arrow. Gives the longest way; infinity when the arrows form a circle. */
  private measure(): number {
    const { size, head, tail, queue, waiting, durations, incoming, outgoing, ahead, behind } = this;
    let filled = 0;
    for (let step = 0; step < size; step += 1) {
      head[step] = 0;
      const count = incoming.from[step + 1]! - incoming.from[step]! + (ahead[step]! >= 0 ? 1 : 0);
      waiting[step] = count;
      if (count === 0) queue[filled++] = step;
    }
    let length = 0;
    for (let next = 0; next < filled; next += 1) {
      const step = queue[next]!;
      const start = head[step]!;
      const end = start + durations[step]!;
      if (end > length) length = end;
      for (let at = outgoing.from[step]!; at < outgoing.from[step + 1]!; at += 1) {
        const to = outgoing.step[at]!;
        if (start + outgoing.min[at]! > head[to]!) head[to] = start + outgoing.min[at]!;
        if ((waiting[to]! -= 1) === 0) queue[filled++] = to;
      }
      const to = behind[step]!;
      if (to < 0) continue;
      if (end > head[to]!) head[to] = end;
      if ((waiting[to]! -= 1) === 0) queue[filled++] = to;
    }
    if (filled < size) return Number.POSITIVE_INFINITY;
    for (let next = size - 1; next >= 0; next -= 1) {
      const step = queue[next]!;
      const to = behind[step]!;
      const byJob = this.jobTail(step);
      const byMachine = to < 0 ? 0 : durations[step]! + tail[to]!;
      tail[step] = byJob > byMachine ? byJob : byMachine;
    }
    return length;
  }

  private jobHead(step: number): number {
    const { incoming, head } = this;
    let most = 0;
    for (let at = incoming.from[step]!; at < incoming.from[step + 1]!; at += 1) {
      const start = head[incoming.step[at]!]! + incoming.min[at]!;
      if (start > most) most = start;
    }
    return most;
  }

  private jobTail(step: number): number {
    const { outgoing, tail } = this;
    let most = this.durations[step]!;
    for (let at = outgoing.from[step]!; at < outgoing.from[step + 1]!; at += 1) {
      const rest = outgoing.min[at]! + tail[outgoing.step[at]!]!;
      if (rest > most) most = rest;
    }
    return most;
  }

  /** The blocks of one longest way, chosen by chance where it forks: stretches of a machine's order without a gap, by their first and last place. */
  private blocks(): readonly Move[] {
    const { length, head, tail, durations, machineOf, place, outgoing } = this;
    const firsts: number[] = [];
    for (let step = 0; step < this.size; step += 1) if (head[step] === 0 && tail[step] === length) firsts.push(step);
    const found: Move[] = [];
    let at = firsts[this.pick(firsts.length)]!;
    let from = at;
    for (;;) {
      const ways: number[] = [];
      const behind = this.behind[at]!;
      if (behind >= 0 && head[behind]! + tail[behind]! === length && head[behind] === head[at]! + durations[at]!) ways.push(behind);
      for (let arrow = outgoing.from[at]!; arrow < outgoing.from[at + 1]!; arrow += 1) {
        const to = outgoing.step[arrow]!;
        if (to !== behind && head[to]! + tail[to]! === length && head[to] === head[at]! + outgoing.min[arrow]!) ways.push(to);
      }
      const to = ways[this.pick(ways.length)];
      if (to !== undefined && to === behind) {
        at = to;
        continue;
      }
      if (from !== at) found.push([machineOf[at]!, place[from]!, place[at]!]);
      if (to === undefined) return found;
      at = to;
      from = to;
    }
  }

  /** Moves within the blocks of one longest way that cannot close a circle. */
  private moves(): readonly Move[] {
    const { head, tail, durations } = this;
    const found: Move[] = [];
    for (const [machine, first, last] of this.blocks()) {
      const order = this.orders[machine]!;
      /** No way leads from what follows the step in its job to the one it would go behind; and the other way round. */
      const goesBehind = (at: number, to: number): boolean => to === at + 1 || tail[order[to]!]! >= this.jobTail(order[at]!) - durations[order[at]!]!;
      const goesAhead = (at: number, to: number): boolean => to === at - 1 || head[order[to]!]! + durations[order[to]!]! >= this.jobHead(order[at]!);
      for (let at = first; at < last; at += 1) if (goesBehind(at, last)) found.push([machine, at, last]);
      if (last - first === 1) continue;
      for (let at = last; at > first; at -= 1) if (goesAhead(at, first)) found.push([machine, at, first]);
      for (let to = first + 1; to < last; to += 1) {
        if (goesBehind(first, to)) found.push([machine, first, to]);
        if (goesAhead(last, to)) found.push([machine, last, to]);
      }
    }
    return found;
  }

  /** The longest way through what a move touches, reckoned without making it: never far from the truth, and quick. */
  private estimate([machine, from, to]: Move): number {
    const { head, tail, durations, shifted, shiftedHead } = this;
    const order = this.orders[machine]!;
    const low = Math.min(from, to);
    const high = Math.max(from, to);
    const count = high - low + 1;
    for (let at = 0; at < count; at += 1) shifted[at] = order[from < to ? (at === count - 1 ? low : low + at + 1) : at === 0 ? high : low + at - 1]!;
    const ahead = order[low - 1];
    let end = ahead === undefined ? 0 : head[ahead]! + durations[ahead]!;
    for (let at = 0; at < count; at += 1) {
      const start = Math.max(end, this.jobHead(shifted[at]!));
      shiftedHead[at] = start;
      end = start + durations[shifted[at]!]!;
    }
    const behind = order[high + 1];
    let rest = behind === undefined ? 0 : tail[behind]!;
    let longest = 0;
    for (let at = count - 1; at >= 0; at -= 1) {
      rest = Math.max(durations[shifted[at]!]! + rest, this.jobTail(shifted[at]!));
      longest = Math.max(longest, shiftedHead[at]! + rest);
    }
    return longest;
  }

  private shift([machine, from, to]: Move): void {
    const order = this.orders[machine]!;
    const [step] = order.splice(from, 1);
    order.splice(to, 0, step!);
    this.renumber(order, Math.min(from, to), Math.max(from, to));
    this.length = this.measure();
  }

  private pick(limit: number): number {
    return Math.floor(this.random() * limit);
  }

  /** Whether all that a move would bring about was undone lately. */
  private isTabu([machine, from, to]: Move): boolean {
    const order = this.orders[machine]!;
    const step = order[from]!;
    const way = from < to ? 1 : -1;
    for (let at = from + way; at !== to + way; at += way) {
      const other = order[at]!;
      if (this.tabu[from < to ? other * this.size + step : step * this.size + other]! <= this.round) return false;
    }
    return true;
  }

  private forbid([machine, from, to]: Move): void {
    const order = this.orders[machine]!;
    const step = order[from]!;
    const until = this.round + TENURE + this.pick(TENURE_SPREAD) + Math.floor(this.size / 40);
    const way = from < to ? 1 : -1;
    for (let at = from + way; at !== to + way; at += way) {
      const other = order[at]!;
      this.tabu[from < to ? step * this.size + other : other * this.size + step] = until;
    }
  }

  /** One round. True when it found a better plan than any before. */
  private go(): boolean {
    this.round += 1;
    const moves = this.round - this.lastGain > PATIENCE ? [] : this.moves();
    if (moves.length === 0) {
      this.goBack();
      return false;
    }
    let chosen = moves[this.pick(moves.length)]!;
    let least = Number.POSITIVE_INFINITY;
    for (const move of moves) {
      const length = this.estimate(move);
      // Of equal ones any.
      const cost = length + this.random() * 0.5;
      if (cost >= least || (length * this.weight >= this.bestCost && this.isTabu(move))) continue;
      least = cost;
      chosen = move;
    }
    this.forbid(chosen);
    this.shift(chosen);
    return this.keep();
  }

  private keep(): boolean {
    if (this.length * this.weight >= this.bestCost) return false;
    this.bestCost = this.length * this.weight;
    this.lastGain = this.round;
    this.best.set(this.head);
    this.elite.push(this.orders.map((order) => [...order]));
    if (this.elite.length > ELITE) this.elite.shift();
    return true;
  }

  /** To one of the best, and from there a few swaps along its longest ways. */
  private goBack(): void {
    this.lastGain = this.round;
    this.orders = this.elite[this.pick(this.elite.length)]!.map((order) => [...order]);
    this.number();
    this.length = this.measure();
    for (let shake = this.pick(SHAKES) + 1; shake > 0; shake -= 1) {
      const swaps = this.moves().filter(([, from, to]) => Math.abs(from - to) === 1);
      if (swaps.length > 0) this.shift(swaps[this.pick(swaps.length)]!);
    }
  }
}
