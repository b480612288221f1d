import fc from 'fast-check';
import { Explained, Replay, boundOf, endOf, solve, violations } from './index';
import type { Job, JobStep, Problem, Sequence } from './index';
import { exactCost, tinyProblem } from './exact.arbitrary';
import { anyProblem, makeJob, makeJobStep, makeProblem } from './problem.arbitrary';

/** One oven at two heats: what is in it at one keeps the other away. */

const SEED = 20_261_202;
const OVEN: Problem['resources'] = [
  { id: 'hot', name: 'Oven', capacity: 2, windows: [], excludes: ['cool'] },
  { id: 'cool', name: 'Oven', capacity: 2, windows: [] },
];

const roast = (id: string, heat: string, units = 1, some: Partial<Job> = {}, durationMin = 30): Job =>
  makeJob(id, { steps: [makeJobStep('roast', durationMin, { uses: [{ resourceId: heat, units }] })], readyByMin: 0, ...some });
const startOf = (plan: Sequence, id: string): number => plan.jobs.find(({ jobId }) => jobId === id)?.steps[0]?.startMin ?? -1;

/** The same day with some of its steps in an oven of `capacity` trays, hot or cool. */
function inOven(problem: Problem, heats: readonly number[], capacity: number): Problem {
  let at = 0;
  const roasted = (step: JobStep): JobStep => {
    const heat = ['hot', 'cool'][heats[at++ % heats.length] ?? 2];
    return heat === undefined ? step : { ...step, modes: step.modes.map((mode) => ({ ...mode, uses: [...mode.uses, { resourceId: heat, units: 1 + (at % capacity) }] })) };
  };
  return {
    ...problem,
    resources: [...problem.resources, ...OVEN.map((one) => ({ ...one, capacity }))],
    jobs: problem.jobs.map((job) => ({ ...job, steps: job.steps.map(roasted) })),
  };
}
/** 0 = hot, 1 = cool, 2 = not in the oven. */
const heats = fc.array(fc.integer({ min: 0, max: 2 }), { minLength: 1, maxLength: 7 });

describe('what excludes each other', () => {
  test('two of one heat share the oven, one of another waits until both are out', () => {
    const problem = makeProblem({ resources: OVEN, jobs: [roast('a', 'hot'), roast('b', 'hot'), roast('c', 'cool', 1, { readyByMin: 40 })] });
    const plan = solve(problem, { seed: 1, moves: 50 });
    expect([startOf(plan, 'a'), startOf(plan, 'b'), startOf(plan, 'c')]).toEqual([0, 0, 30]);
    expect(violations(problem, plan)).toEqual([]);
    expect(new Explained(problem, plan).bindingOf('c')).toEqual([{ kind: 'excluded', id: 'hot', byJobIds: ['a', 'b'], fromMin: 0, toMin: 30 }]);
  });
  test('the checker names both at once, whichever says that it excludes the other', () => {
    const problem = makeProblem({ resources: OVEN, jobs: [roast('a', 'hot'), roast('b', 'cool')] });
    const placed = (jobId: string, startMin: number) => ({ jobId, spanUnitIds: [], steps: [{ stepId: 'roast', modeId: 'only', unitId: null, startMin, endMin: startMin + 30 }] });
    const found = (second: number) => violations(problem, { jobs: [placed('a', 0), placed('b', second)], unplaced: [], changeovers: [] });
    expect(found(29)).toEqual([{ code: 'resource.excluded', resourceId: 'hot', byId: 'cool', atMin: 29 }]);
    expect(found(30)).toEqual([]);
  });
  test('what is in the oven already keeps the other heat out, however full it is', () => {
    const done = { kind: 'done' as const, startMin: 0, endMin: 20 };
    const begun = roast('a', 'hot', 3, { steps: [makeJobStep('roast', 20, { uses: [{ resourceId: 'hot', units: 3 }], fixed: done })] });
    const plan = solve(makeProblem({ resources: OVEN, jobs: [begun, roast('b', 'cool')] }), { seed: 1, moves: 10 });
    expect(startOf(plan, 'b')).toBe(20);
  });
  test('a step that wants both at once is never done, and the rest is', () => {
    const both = makeJob('both', { steps: [makeJobStep('a', 10, { uses: OVEN.map(({ id }) => ({ resourceId: id, units: 1 })) })] });
    expect(solve(makeProblem({ resources: OVEN, jobs: [both, roast('b', 'cool')] }), { seed: 1, moves: 10 }).unplaced).toEqual(['both']);
  });
  test('what is late in the oven makes the other heat later', () => {
    const problem = makeProblem({ resources: OVEN, jobs: [roast('a', 'hot'), roast('c', 'cool', 1, { readyByMin: 40 })] });
    const plan = solve(problem, { seed: 1, moves: 50 });
    const replay = new Replay(problem, plan);
    expect(replay.endsIfDelayed('a', 7).get('c')).toBe(endOf(plan.jobs.find(({ jobId }) => jobId === 'c')!) + 7);
  });
  test('law: the checker finds no fault with plans of random days', () => {
    fc.assert(
      fc.property(anyProblem, heats, fc.integer({ min: 1, max: 3 }), fc.integer({ min: 0, max: 60 }), (day, those, trays, moves) => {
        const problem = inOven(day, those, trays);
        const plan = solve(problem, { seed: 3, moves });
        expect(violations(problem, plan)).toEqual([]);
        if (plan.unplaced.length === 0) expect(boundOf(problem).cost).toBeLessThanOrEqual(plan.objective.cost);
      }),
      { seed: SEED, numRuns: 120 },
    );
  });
  test('law: tiny days come out as cheap as the cheapest of all plans there are', () => {
    fc.assert(
      fc.property(tinyProblem, heats, (day, those) => {
        const problem = inOven(day, those, 2);
        const best = exactCost(problem);
        const plan = solve(problem, { seed: 2, moves: 1500 });
        if (best === null) expect(plan.unplaced).not.toEqual([]);
        else expect(plan.objective.cost).toBeCloseTo(best, 6);
      }),
      { seed: SEED, numRuns: 50 },
    );
  });
});
