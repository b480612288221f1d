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

export function startSolving(problem: Problem, options: SearchOptions): Solving {
  const search = new Search(problem, options);
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
