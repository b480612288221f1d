import type { Random } from '../random';

/**
 * Searches in the order they have their turns: sketches after what lays whole jobs out in whichever way ends soonest, because each goes on in the ways it finds;
 * entries before sketches, because what those settle on early they seldom leave again.
 */
export const TURNS = ['whole', 'entries', 'sketch', 'pieces', 'late', 'ruin'] as const;
export type Turn = (typeof TURNS)[number];

/** Moves of the first cycles, for each job and at most, and of any cycle. Choices of the search. */
const CYCLE_BY_JOB = 100;
const FIRST_CYCLE = 1000;
const LONGEST_CYCLE = 50_000;
/** How long a cycle is beside others. Choices of the search. */
const LENGTHS = { short: 0.25, plain: 1, long: 4 } as const;
export type Length = keyof typeof LENGTHS;
/** How warm a cycle begins and ends, in what a worse neighbour usually costs, and how fast that is learnt. Choices of the search. */
const HOT = 0.25;
const COLD = 0.01;
const LEARNS = 0.02;

/** Whose turn it is, for how long, and how much worse it may go: cycles that cool down, each search's by what its own neighbours cost. */
export class Turns {
  turn: Turn;
  /** How much dearer is taken now and then. */
  temperature: number;
  private readonly random: Random;
  /** Moves of a long cycle, of the one that is under way, and how many of those are made. */
  private longest: number;
  private length: number;
  private made = 0;
  /** What the best cost when the cycle began. */
  private from = Number.POSITIVE_INFINITY;
  /** What a worse neighbour usually costs more, as its logarithm, by search. */
  private readonly rise: Record<Turn, number>;

  /** `warmth`: what a worse neighbour may cost more, before anything is known of it. */
  constructor(first: Turn, jobs: number, warmth: number, random: Random) {
    const rise = Math.log(warmth);
    this.turn = first;
    this.temperature = warmth;
    this.random = random;
    this.longest = Math.min(FIRST_CYCLE, CYCLE_BY_JOB * Math.max(1, jobs));
    this.length = this.longest;
    this.rise = { whole: rise, pieces: rise, late: rise, ruin: rise, sketch: rise, entries: rise };
  }

  /** A cycle begins with the best at this cost. */
  begin(length: Length, cost: number): void {
    this.length = Math.ceil(this.longest * LENGTHS[length]);
    this.from = cost;
  }

  /** The cycle ends with its next move. */
  cutShort(): void {
    this.length = 0;
  }

  /** A move was made. True when the cycle is over with it. */
  cool(): boolean {
    this.made += 1;
    this.temperature = Math.exp(this.rise[this.turn]) * HOT * Math.pow(COLD / HOT, this.made / this.length);
    if (this.made < this.length) return false;
    this.made = 0;
    return true;
  }

  /** Whether the cycle has found something better than there was. */
  hasGained(cost: number): boolean {
    return cost < this.from;
  }

  /** The search after this one, of those that have anything to do. Each round is longer than the one before. */
  next(hasTurn: (turn: Turn) => boolean): Turn {
    const at = TURNS.indexOf(this.turn);
    const next = [...TURNS.slice(at + 1), ...TURNS].find(hasTurn)!;
    if (next === 'whole') this.longest = Math.min(this.longest * 2, LONGEST_CYCLE);
    return next;
  }

  /** Better is taken; worse by a chance that falls with how much worse, measured by what a worse neighbour usually is: up to here this time. */
  limit(was: number): number {
    return was - this.temperature * Math.log(1 - this.random());
  }

  accepts(was: number, is: number, limit: number): boolean {
    const rise = Math.log(is - was);
    if (is > was && Number.isFinite(rise)) this.rise[this.turn] += (rise - this.rise[this.turn]) * LEARNS;
    return is <= limit;
  }
}
