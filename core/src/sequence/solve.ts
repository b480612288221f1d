import { Race } from './engine/race';
import { Search } from './engine/search';
import type { SearchOptions } from './engine/search';
import type { Problem, Sequence } from './problem';

export type { SearchOptions };

export interface SolveOptions extends SearchOptions {
  /** 0 gives the first plan. */
  readonly moves: number;
}

/** A search that is under way: it stops and goes on as its caller has time, and always has a plan. */
export interface Solving {
  readonly run: (moves: number) => void;
  readonly movesMade: () => number;
  /** Of the best so far. */
  readonly cost: () => number;
  readonly sequence: () => Sequence;
}

/** Seeds of searches that begin anew lie apart from those a caller counts up. */
const APART = 7919;

export function startSolving(problem: Problem, options: SearchOptions): Solving {
  const search = new Race((before) => new Search(problem, before === 0 ? options : { ...options, from: undefined, seed: options.seed + APART * before }));
  return {
    run: (moves) => {
      search.run(moves);
    },
    movesMade: () => search.movesMade,
    cost: () => search.bestKnown,
    sequence: () => search.sequence(),
  };
}

/** A sequence of the jobs, as good as `moves` make it. Deterministic for a seed and a number of moves. */
export function solve(problem: Problem, options: SolveOptions): Sequence {
  const search = startSolving(problem, options);
  search.run(options.moves);
  return search.sequence();
}
