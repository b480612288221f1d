import { availableParallelism } from 'node:os';
import { isBetter } from '@broth/core/planner';
import type { DayInput, DayPlan } from '@broth/core';
import { Piscina } from 'piscina';
import type { SearchTask } from './search.worker';

/** Looks for a better plan than a phone finds: every core from a seed of its own. */
export interface PlanSearch {
  /** The best of all searches; null when too many others are waiting already. */
  readonly search: (input: DayInput, from: DayPlan | null, forMs: number) => Promise<DayPlan | null>;
  readonly close: () => Promise<void>;
}

/** Searches at once: more would only wait past anybody's patience. */
const MOST_SEARCHES = 3;
/** More threads than this find hardly more. A design choice. */
const MOST_THREADS = 8;
/** A thread that has searched before searches twice as much in its first second: it is kept while people are at the plan. */
const IDLE_MS = 300_000;

/** `workerFile` is the bundled search worker. One core is left to the server itself. */
export function openSearch(workerFile: string): PlanSearch {
  const threads = Math.min(MOST_THREADS, Math.max(1, availableParallelism() - 1));
  let searches = 0;
  const pool = new Piscina<SearchTask, DayPlan>({ filename: workerFile, name: 'search', minThreads: 0, maxThreads: threads, idleTimeout: IDLE_MS });
  return {
    search: async (input, from, forMs) => {
      if (searches >= MOST_SEARCHES) return null;
      searches += 1;
      try {
        const found = await Promise.all(Array.from({ length: threads }, (_, index) => pool.run({ input, from, seed: index + 2, forMs })));
        return found.reduce((best, plan) => (isBetter(plan, best) ? plan : best));
      } finally {
        searches -= 1;
      }
    },
    close: () => pool.close({ force: true }),
  };
}
