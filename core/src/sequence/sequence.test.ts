import fc from 'fast-check';
import { madeDay } from '../testing/days';
import { flowShop } from '../testing/textbook';
import { boundOf, objectiveOf, solve, violations } from './index';
import type { Job, Problem, Sequence, Violation } from './index';
import { Search } from './engine/search';
import { exactCost, tinyProblem } from './exact.arbitrary';
import { anyProblem, inTurn, makeJob, makeJobStep, makeProblem } from './problem.arbitrary';

const SEED = 20_261_124;

describe("Johnson's two-machine flow shop", () => {
  function permutations<T>(items: readonly T[]): T[][] {
    if (items.length <= 1) return [[...items]];
    return items.flatMap((item, index) => permutations(items.filter((_, other) => other !== index)).map((rest) => [item, ...rest]));
  }
  /** Makespan of a two-machine order by the textbook recurrence: an oracle that knows nothing of the engine. */
  const makespan = (order: readonly (readonly number[])[]): number =>
    order.reduce<[number, number]>(([first, second], [a = 0, b = 0]) => [first + a, Math.max(first + a, second) + b], [0, 0])[1];
  test('on random two-machine shops it reaches the best of all orders', () => {
    fc.assert(
      fc.property(fc.array(fc.tuple(fc.integer({ min: 1, max: 60 }), fc.integer({ min: 1, max: 60 })), { minLength: 1, maxLength: 6 }), (jobs) => {
        const shop = flowShop([jobs.map(([first]) => first), jobs.map(([, second]) => second)], 'plain');
        expect(solve(shop, { seed: 1, moves: 800 }).objective.makespanMin).toBe(Math.min(...permutations(jobs).map(makespan)));
      }),
      { seed: SEED, numRuns: 40 },
    );
  });
});

describe('every plan can be cooked as it stands', () => {
  test('law: a checker that shares no code with the engine finds no fault on random days', () => {
    fc.assert(
      fc.property(anyProblem, fc.integer({ min: 0, max: 60 }), (problem, moves) => {
        expect(violations(problem, solve(problem, { seed: 3, moves }))).toEqual([]);
      }),
      { seed: SEED, numRuns: 120 },
    );
  });
  test('what asks for a resource the station has not is left out, a wash too, and the rest is planned', () => {
    const nobody = [{ resourceId: 'nobody', units: 1 }];
    const step = (uses: typeof nobody): Job['steps'][number] => makeJobStep('cook', 30, { uses, unitIds: ['kettle'] });
    const problem = makeProblem({
      units: [{ id: 'kettle', name: 'Kettle', volume: null, changeoverId: 'wash' }],
      changeovers: [{ id: 'wash', classes: ['plain'], min: [[5]], uses: nobody }],
      jobs: [makeJob('a', { changeClass: 'plain', steps: [step([])] }), makeJob('b', { changeClass: 'plain', steps: [step([])] }), makeJob('c', { steps: [step(nobody)] })],
    });
    const plan = solve(problem, { seed: 1, moves: 50 });
    expect(plan.jobs).toHaveLength(1);
    expect(plan.unplaced).toHaveLength(2);
    expect(plan.unplaced).toContain('c');
    expect(violations(problem, plan)).toEqual([]);
  });
  test('law: with enough time everything is placed that fits a vessel and whose steps may wait', () => {
    fc.assert(
      fc.property(anyProblem, (problem) => {
        const keeps: Problem = {
          ...problem,
          horizonMin: 4000,
          resources: problem.resources.map((resource) => ({ ...resource, windows: [] })),
          jobs: problem.jobs.map((job) => ({ ...job, lags: job.lags.map((lag) => ({ ...lag, maxMin: null })) })),
        };
        expect(solve(keeps, { seed: 3, moves: 0 }).unplaced).toEqual([]);
      }),
      { seed: SEED, numRuns: 100 },
    );
  });
  test('law: the same seed and moves give the same plan; more moves never a dearer one', () => {
    fc.assert(
      fc.property(anyProblem, (problem) => {
        const plan = (moves: number): Sequence => solve(problem, { seed: 5, moves });
        const isWanted = (id: string): boolean =>
          problem.jobs.find((one) => one.id === id)?.readyByMin !== null || !problem.jobs.some(({ steps }) => steps.some(({ afterJobs }) => afterJobs.includes(id)));
        const worth = ({ unplaced, objective }: Sequence): number => unplaced.filter(isWanted).length * 1e12 + objective.cost;
        expect(plan(40)).toEqual(plan(40));
        expect(worth(plan(40))).toBeLessThanOrEqual(worth(plan(0)));
      }),
      { seed: SEED, numRuns: 30 },
    );
  });
  test('law: no plan costs less than the bound, and the cost it says is the cost of its times', () => {
    fc.assert(
      fc.property(anyProblem, (problem) => {
        const plan = solve(problem, { seed: 7, moves: 30 });
        fc.pre(plan.unplaced.length === 0);
        expect(boundOf(problem).cost).toBeLessThanOrEqual(plan.objective.cost);
        expect(objectiveOf(problem, plan)).toEqual(plan.objective);
      }),
      { seed: SEED, numRuns: 70 },
    );
  });
  test.each([
    ['calm', 20, 780],
    ['kettles', 12, 600],
    ['cook', 8, 2000],
  ] as const)('after every move of a search the best there is is a plan, at the cost that is said: a %s day of %i batches', (family, size, moves) => {
    const problem = madeDay(family, size, 1);
    const search = new Search(problem, { seed: 1 });
    let known = Number.POSITIVE_INFINITY;
    let plans = 0;
    for (let move = 0; move < moves; move += 1) {
      search.run(1);
      if (search.bestKnown === known) continue;
      known = search.bestKnown;
      plans += 1;
      const plan = search.sequence();
      expect([violations(problem, plan), plan.unplaced]).toEqual([[], []]);
      expect(plan.objective.cost).toBeCloseTo(known, 3);
    }
    expect(plans).toBeGreaterThan(5);
  });
  test('law: begun again from its own plan it never gets worse', () => {
    fc.assert(
      fc.property(anyProblem, (problem) => {
        const plan = solve(problem, { seed: 7, moves: 20 });
        fc.pre(plan.unplaced.length === 0);
        expect(solve(problem, { seed: 8, moves: 5, from: plan }).objective.cost).toBeLessThanOrEqual(plan.objective.cost);
      }),
      { seed: SEED, numRuns: 60 },
    );
  });
});

describe('tiny days, every plan of them tried', () => {
  test('the engine finds the optimum and the bound is below it', () => {
    fc.assert(
      fc.property(tinyProblem, (problem) => {
        const best = exactCost(problem);
        const plan = solve(problem, { seed: 2, moves: 1500 });
        if (best === null) expect(plan.unplaced).not.toEqual([]);
        else {
          expect(plan.objective.cost).toBeCloseTo(best, 6);
          expect(boundOf(problem).cost).toBeLessThanOrEqual(best);
        }
      }),
      { seed: SEED, numRuns: 60 },
    );
  });
});

describe('what can never be placed is said', () => {
  const job = (id: string, resourceId: string, units: number): Job => makeJob(id, { steps: [makeJobStep('a', 5, { uses: [{ resourceId, units }] })] });
  test('a step that asks for more than a resource ever has, or for one that is not there; the rest is laid out', () => {
    const problem = makeProblem({ resources: [{ id: 'm', name: '', capacity: 1, windows: [] }], jobs: [job('greedy', 'm', 2), job('lost', 'n', 1), job('fine', 'm', 1)] });
    expect(solve(problem, { seed: 1, moves: 20 })).toMatchObject({ jobs: [{ jobId: 'fine' }], unplaced: ['greedy', 'lost'] });
  });
  test('what would be made of it is left out with it, however long one looks', () => {
    const hands = [{ id: 'm', name: '', capacity: 1, windows: [{ fromMin: 0, toMin: 100, capacity: 1 }] }];
    const soup = makeJob('soup', { readyByMin: 90, steps: [makeJobStep('b', 20, { uses: [{ resourceId: 'm', units: 1 }], afterJobs: ['stock'] })] });
    const problem = makeProblem({ resources: hands, jobs: [job('stock', 'm', 2), soup, { ...job('fine', 'm', 1), readyByMin: 50 }] });
    for (const moves of [20, 1500]) {
      const plan = solve(problem, { seed: 1, moves });
      expect([plan.unplaced, violations(problem, plan)]).toEqual([['stock', 'soup'], []]);
    }
  });
  test('nothing is made for what finds no place, and nothing else gives way to it', () => {
    const day = [{ id: 'm', name: '', capacity: 1, windows: [{ fromMin: 0, toMin: 100, capacity: 1 }] }];
    const step = (durationMin: number, afterJobs: readonly string[] = []): Job['steps'][number] =>
      makeJobStep('a', durationMin, { uses: [{ resourceId: 'm', units: 1 }], afterJobs });
    const stocks = [makeJob('stock', { steps: [step(30)] }), makeJob('roast', { steps: [step(30)] })];
    const soup = makeJob('soup', { readyByMin: 90, steps: [step(50, ['stock', 'roast'])] });
    const other = makeJob('other', { readyByMin: 90, steps: [step(60)] });
    for (const moves of [0, 20, 500]) {
      const plan = solve(makeProblem({ resources: day, jobs: [...stocks, soup, other] }), { seed: 1, moves });
      expect([plan.jobs.map(({ jobId }) => jobId), plan.unplaced]).toEqual([['other'], ['stock', 'roast', 'soup']]);
    }
    // What somebody takes who is served is made all the same.
    const both = makeProblem({ resources: day, jobs: [...stocks, soup, makeJob('taken', { readyByMin: 90, steps: [step(20, ['stock'])] })] });
    expect(solve(both, { seed: 1, moves: 200 }).unplaced).toEqual(['roast', 'soup']);
  });
  test('jobs that wait for each other', () => {
    const after = (id: string, other: string): Job => makeJob(id, { steps: [makeJobStep('a', 5, { afterJobs: [other] })] });
    expect(solve(makeProblem({ jobs: [after('a', 'b'), after('b', 'a')] }), { seed: 1, moves: 20 }).unplaced).toEqual(['a', 'b']);
  });
  test('steps whose lags go in a circle', () => {
    const steps = [makeJobStep('a', 5), makeJobStep('b', 5)];
    const lags = [...inTurn(steps), ...inTurn([...steps].reverse())];
    expect(solve(makeProblem({ jobs: [makeJob('round', { steps, lags })] }), { seed: 1, moves: 20 }).unplaced).toEqual(['round']);
  });
});

describe('what is wanted by hand', () => {
  const steps = [makeJobStep('a', 10), makeJobStep('b', 20)];
  const problem = (fixed: Job['steps'][number]['fixed']): Problem =>
    makeProblem({ jobs: [makeJob('j', { steps: [steps[0] ?? makeJobStep('a', 1), { ...makeJobStep('b', 20), fixed }], lags: inTurn(steps, [5]), readyByMin: 500 })] });
  test('a pinned step stands where it is pinned, and what leads to it follows', () => {
    const plan = solve(problem({ kind: 'pinned', startMin: 100 }), { seed: 1, moves: 50 });
    expect(plan.jobs[0]?.steps.map((step) => step.startMin)).toEqual([90, 100]);
  });
  test('minutes moved against an agreed plan count: what needs not move stays', () => {
    const loose = makeProblem({ jobs: [makeJob('j', { steps: [makeJobStep('a', 10)], readyByMin: 400, earlyWeight: 0 })] });
    const agreed = { jobs: [{ jobId: 'j', spanUnitIds: [], steps: [{ stepId: 'a', modeId: 'only', unitId: null, startMin: 200, endMin: 210 }] }] };
    expect(solve(loose, { seed: 1, moves: 50, reference: agreed }).jobs[0]?.steps[0]?.startMin).toBe(200);
  });
});

describe('what soups are made of', () => {
  const stock = makeJob('stock', { steps: [makeJobStep('cook', 30, { uses: [{ resourceId: 'hands', units: 1 }] })], earlyWeight: 0.5 });
  const soup = makeJob('soup', { steps: [makeJobStep('boil', 20, { afterJobs: ['stock'] })], readyByMin: 300 });
  // Somebody else has the hands from 200 to 290.
  const other = makeJob('other', { steps: [makeJobStep('chop', 90, { uses: [{ resourceId: 'hands', units: 1 }], fixed: { kind: 'pinned', startMin: 200 } })] });
  const problem = makeProblem({ resources: [{ id: 'hands', name: '', capacity: 1, windows: [] }], jobs: [stock, soup, other] });
  const at = (jobId: string, stepId: string, startMin: number, endMin: number) => ({ jobId, spanUnitIds: [], steps: [{ stepId, modeId: 'only', unitId: null, startMin, endMin }] });
  const plan = (stockMin: number) => ({ jobs: [at('stock', 'cook', stockMin, stockMin + 30), at('soup', 'boil', 280, 300), at('other', 'chop', 200, 290)], changeovers: [] });
  test('stand from when they are ready to when the soup is, and that costs', () => {
    expect([plan(20), plan(170)].map((one) => objectiveOf(problem, one).earlyMin)).toEqual([0.5 * 250, 0.5 * 100]);
  });
  test('are made as late as the others leave room for', () => {
    const made = solve(problem, { seed: 1, moves: 200 });
    expect(made.jobs.map(({ jobId, steps }) => [jobId, steps[0]?.startMin])).toEqual([
      ['stock', 170],
      ['soup', 280],
      ['other', 200],
    ]);
    expect(made.objective).toEqual(objectiveOf(problem, made));
  });
  test('cost nothing more once they were taken', () => {
    const taken = {
      ...problem,
      jobs: [stock, { ...soup, steps: [makeJobStep('boil', 20, { afterJobs: ['stock'], fixed: { kind: 'done', startMin: 280, endMin: 300 } })] }, other],
    };
    expect(objectiveOf(taken, plan(20)).earlyMin).toBe(0);
  });
});

describe('the checker sees what is wrong', () => {
  const use = (units: number) => [{ resourceId: 'hands', units }];
  const step = (id: string, durationMin: number, some: Parameters<typeof makeJobStep>[2] = {}) => makeJobStep(id, durationMin, { uses: use(2), ...some });
  const job = (id: string, some: Partial<Job> = {}): Job => {
    const steps = some.steps ?? [step('a', 10), step('b', 20)];
    return makeJob(id, { lags: inTurn(steps), changeClass: 'plain', spans: [{ id: 'pot', unitIds: ['k'], from: 'a', to: 'b', until: 'end' }], ...some, steps });
  };
  const problem = (...jobs: Job[]): Problem =>
    makeProblem({
      horizonMin: 500,
      resources: [{ id: 'hands', name: '', capacity: 3, windows: [{ fromMin: 0, toMin: 400, capacity: 3 }] }],
      units: [
        { id: 'k', name: '', volume: { minL: 5, maxL: 12 }, changeoverId: 'wash' },
        { id: 'l', name: '', volume: { minL: 20, maxL: 30 }, changeoverId: null },
      ],
      changeovers: [
        {
          id: 'wash',
          classes: ['plain', 'fish'],
          min: [
            [5, 5],
            [12, 5],
          ],
          uses: use(1),
        },
      ],
      jobs,
    });
  const at = (jobId: string, startA: number, startB: number, unitId: string | null = 'k', lengthA = 10): Sequence['jobs'][number] => ({
    jobId,
    spanUnitIds: unitId === null ? [] : [unitId],
    steps: [
      { stepId: 'a', modeId: 'only', unitId: null, startMin: startA, endMin: startA + lengthA },
      { stepId: 'b', modeId: 'only', unitId: null, startMin: startB, endMin: startB + 20 },
    ],
  });
  const wash = (startMin: number, endMin: number) => [{ unitId: 'k', fromJobId: 'j', toJobId: 'n', startMin, endMin }];
  const codes = (given: Problem, jobs: Sequence['jobs'], changeovers: Sequence['changeovers'] = []): Violation['code'][] =>
    violations(given, { jobs, unplaced: [], changeovers }).map((violation) => violation.code);
  const waits = job('j', { lags: inTurn([step('a', 10), step('b', 20)], [5]) });
  const idle = (id: string): Job => job(id, { steps: [makeJobStep('a', 10), makeJobStep('b', 20)] });
  type Case = readonly [says: string, given: Problem, jobs: Sequence['jobs'], expected: readonly Violation['code'][], washes?: Sequence['changeovers']];
  const cases: readonly Case[] = [
    ['a plan in order', problem(job('j'), job('n')), [at('j', 0, 10), at('n', 35, 45)], [], wash(30, 35)],
    ['a job left out', problem(job('j')), [], ['job.missing']],
    ['a job placed twice', problem(job('j')), [at('j', 0, 10), at('j', 100, 110)], ['job.twice']],
    ['a job nobody asked for', problem(job('j')), [at('j', 0, 10), at('x', 100, 110)], ['steps.wrong']],
    ['a step cut short', problem(job('j')), [at('j', 0, 10, 'k', 9)], ['step.duration']],
    ['a way of doing it that there is not', problem(job('j', { steps: [{ ...step('a', 10), modes: [] }, step('b', 20)] })), [at('j', 0, 10)], ['step.mode']],
    ['a step before the one before it', problem(job('j')), [at('j', 0, 9)], ['step.order', 'resource.over']],
    ['a wait too long', problem(waits), [at('j', 0, 16)], ['step.wait']],
    ['a start before its release', problem(job('j', { releaseMin: 5 })), [at('j', 0, 10)], ['step.release']],
    ['hands taken twice over', problem(job('j'), job('n', { spans: [] })), [at('j', 0, 30), at('n', 5, 60, null)], ['resource.over']],
    ['work outside the shift', problem(job('j')), [at('j', 380, 390)], ['resource.over']],
    ['past the horizon', problem(job('j', { steps: [step('a', 10), makeJobStep('b', 20)] })), [at('j', 390, 490)], ['step.horizon']],
    [
      'before its stock is made',
      problem(job('j', { steps: [step('a', 10, { afterJobs: ['n'] }), step('b', 20)] }), job('n')),
      [at('j', 0, 10), at('n', 50, 60)],
      ['step.beforeInput'],
      wash(30, 35),
    ],
    [
      'on a stock that is not made',
      problem(job('j', { steps: [step('a', 10, { afterJobs: ['n'] }), step('b', 20)] }), job('n')),
      [at('j', 0, 10)],
      ['step.beforeInput', 'job.missing'],
    ],
    ['a unit it may not use', problem(job('j')), [at('j', 0, 10, 'l')], ['unit.wrong']],
    ['a unit too small', problem(job('j', { volumeL: 13 })), [at('j', 0, 10)], ['unit.volume']],
    ['two soups in one kettle', problem(idle('j'), idle('n')), [at('j', 0, 10), at('n', 20, 30)], ['unit.clash']],
    ['no time for the rinse', problem(job('j'), job('n')), [at('j', 0, 10), at('n', 34, 44)], ['unit.clash']],
    ['time for a rinse and nobody rinses', problem(job('j'), job('n')), [at('j', 0, 10), at('n', 50, 60)], ['changeover.missing']],
    ['a rinse where the allergen needs a full wash', problem(job('j', { changeClass: 'fish' }), job('n')), [at('j', 0, 10), at('n', 35, 45)], ['unit.clash'], wash(30, 35)],
    [
      'hands that wash and cook at once',
      problem(job('j'), job('n'), job('o', { spans: [] })),
      [at('j', 0, 10), at('n', 35, 45), at('o', 200, 30, null)],
      ['step.order', 'resource.over', 'resource.over'],
      wash(30, 35),
    ],
    [
      'what has happened, moved',
      problem(job('j', { steps: [{ ...step('a', 10), fixed: { kind: 'done', startMin: 0, endMin: 12 } }, step('b', 20)] })),
      [at('j', 1, 12)],
      ['step.moved'],
    ],
    ['a pin, moved', problem(job('j', { steps: [{ ...step('a', 10), fixed: { kind: 'pinned', startMin: 3 } }, step('b', 20)] })), [at('j', 0, 12)], ['step.moved']],
  ];
  test.each(cases.map(([says, given, jobs, expected, washes = []]) => ({ says, given, jobs, expected, washes })))('$says', ({ given, jobs, expected, washes }) => {
    expect(codes(given, jobs, washes)).toEqual(expected);
  });
});
