import type { Random } from '../random';
import type { Compiled } from './compile';

/** A search of its own for a problem of a known shape. It finds starts; the search lays them out and reckons what they cost. */
export interface Guide {
  /** Of the best so far. */
  readonly bestCost: number;
  /** Looks a little further. True when it found something better than ever before. */
  step: () => boolean;
  /** When each step begins in the best so far, by its place among all steps. */
  starts: () => Int32Array;
}

/** The guide for a problem, beginning from a plan's starts; null = it is of another shape. */
export type GuideFor = (compiled: Compiled, starts: Int32Array, random: Random) => Guide | null;
