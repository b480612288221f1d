import { SHOPS } from '../shops';
import { published } from '../testing/published';
import { boundOf, solve, violations } from './index';

/**
 * Published problems at their published values: after so many moves from seed 1 each has to be there, and none may ever be below. ft10 takes some ten seconds:
 * it is in the bench, and here the engine keeps above it.
 */
const MOVES: Readonly<Record<string, number>> = {
  ft06: 100,
  la01: 100,
  la02: 100,
  abz6: 400,
  j301_1: 2000,
  tai4_1: 15_000,
  tai4_2: 131_500,
  tai4_3: 72_500,
  tai4_4: 25_500,
  tai4_5: 15_000,
  'ta001 no-wait': 10_100,
  'ta001 no-wait flow time': 50,
  'ta001 blocking': 400,
  'ta001 permutation': 50,
  'ta002 no-wait': 800,
  'ta002 no-wait flow time': 300,
  'ta002 blocking': 3300,
  'ta002 permutation': 400,
  'ta003 no-wait': 600,
  'ta003 no-wait flow time': 50,
  'ta003 blocking': 800,
  'ta003 permutation': 100,
  'ta004 no-wait': 100,
  'ta004 no-wait flow time': 300,
  'ta004 blocking': 500,
  'ta004 permutation': 100,
  'ta005 no-wait': 50,
  'ta005 no-wait flow time': 300,
  'ta005 blocking': 6000,
  'ta005 permutation': 50,
  'Johnson five jobs': 50,
  br17: 3000,
  'common due date, h = 0.2': 3000,
  'common due date, h = 0.4': 3000,
  'common due date, h = 0.6': 12_000,
  'common due date, h = 0.8': 60_000,
};

describe.each(published())('$name ($source)', ({ name, problem, value }) => {
  const moves = MOVES[name];
  test(moves === undefined ? `a short search keeps above ${String(value)} and its bound below` : `is solved at ${String(value)}`, () => {
    const plan = solve(problem, { seed: 1, moves: moves ?? 60, guides: SHOPS });
    expect(violations(problem, plan)).toEqual([]);
    if (moves === undefined) expect(plan.objective.cost).toBeGreaterThanOrEqual(value);
    else expect(plan.objective.cost).toBe(value);
    expect(boundOf(problem).cost).toBeLessThanOrEqual(value);
  });
});
