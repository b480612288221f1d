import { startPlanning } from '@broth/core/planner';
import type { DayInput, DayPlan } from '@broth/core';

/** One search of a pool: the same day from another seed, for as long as it is given. */
export interface SearchTask {
  readonly input: DayInput;
  readonly from: DayPlan | null;
  readonly seed: number;
  readonly forMs: number;
}

const MOVES_A_CHECK = 8;

/** What the pool runs. */
export function search({ input, from, seed, forMs }: SearchTask): DayPlan {
  const planning = startPlanning(input, seed, from);
  const until = performance.now() + forMs;
  while (performance.now() < until) planning.run(MOVES_A_CHECK);
  return planning.plan();
}
