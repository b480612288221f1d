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

/** Searches that wait for a core beyond those at work: more would only wait past anybody's patience. */
const MOST_WAITING = 8;
const IDLE_MS = 30_000;

/** `workerFile` is the bundled search worker. One core is left to the server itself. */
export function openSearch(workerFile: string): PlanSearch {
  const threads = Math.max(1, availableParallelism() - 1);
  const pool = new Piscina<SearchTask, DayPlan>({ filename: workerFile, name: 'search', minThreads: 0, maxThreads: threads, maxQueue: MOST_WAITING, idleTimeout: IDLE_MS });
  return {
    search: async (input, from, forMs) => {
      if (pool.queueSize + threads > MOST_WAITING) return null;
      const found = await Promise.all(Array.from({ length: threads }, (_, index) => pool.run({ input, from, seed: index + 2, forMs })));
      return found.reduce((best, plan) => (isBetter(plan, best) ? plan : best));
    },
    close: () => pool.close({ force: true }),
  };
}
