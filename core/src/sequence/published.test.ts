import { published } from '../testing/published';
import { boundOf, solve, violations } from './index';

/**
 * Published problems at their published values. Those that need more than a second or two of search are in the bench, with their gaps; here the engine must
 * reach the value of the quick ones, and never go below any.
 */
const QUICK: Readonly<Record<string, number>> = {
  ft06: 12_000,
  la01: 12_000,
  j301_1: 2000,
  'Johnson five jobs': 500,
  br17: 3000,
  'common due date, h = 0.2': 3000,
  'common due date, h = 0.4': 3000,
  'common due date, h = 0.6': 12_000,
  'common due date, h = 0.8': 60_000,
};

describe.each(published())('$name ($source)', ({ name, problem, value }) => {
  const moves = QUICK[name];
  test(moves === undefined ? `a short search keeps above ${String(value)} and its bound below` : `is solved at ${String(value)}`, () => {
    const plan = solve(problem, { seed: 1, moves: moves ?? 60 });
    expect(violations(problem, plan)).toEqual([]);
    if (moves === undefined) expect(plan.objective.cost).toBeGreaterThanOrEqual(value);
    else expect(plan.objective.cost).toBe(value);
    expect(boundOf(problem).cost).toBeLessThanOrEqual(value);
  });
});
