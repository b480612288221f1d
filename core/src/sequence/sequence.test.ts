import fc from 'fast-check';
import { schedule, violations } from './index';
import type { Job, JobStep, Problem, Sequence, Violation } from './index';
import { anyProblem } from './problem.arbitrary';

const SEED = 20_261_124;

/** A flow shop: each job passes the machines in the same order. */
function flowShop(durations: readonly (readonly number[])[]): Problem {
  const machines = durations[0]?.length ?? 0;
  return {
    horizonMin: 5000,
    rinseMin: 0,
    fullWashMin: 0,
    vessels: [],
    resources: Array.from({ length: machines }, (_, machine) => ({ id: `m${String(machine)}`, name: '', capacity: 1, windows: [] })),
    jobs: durations.map((row, index): Job => ({
      id: `j${String(index)}`,
      volumeL: 1,
      allergens: [],
      span: null,
      releaseMin: 0,
      readyByMin: null,
      steps: row.map((durationMin, machine): JobStep => ({
        id: `s${String(machine)}`,
        durationMin,
        uses: [{ resourceId: `m${String(machine)}`, units: 1 }],
        maxWaitMin: null,
        afterJobs: [],
        frozen: null,
      })),
    })),
  };
}

function permutations<T>(items: readonly T[]): T[][] {
  if (items.length <= 1) return [[...items]];
  return items.flatMap((item, index) => permutations(items.filter((_, other) => other !== index)).map((rest) => [item, ...rest]));
}

/** Makespan of a two-machine order by the textbook recurrence: an oracle that knows nothing of the scheduler. */
function twoMachineMakespan(order: readonly (readonly number[])[]): number {
  return order.reduce<[number, number]>(([first, second], [a = 0, b = 0]) => [first + a, Math.max(first + a, second) + b], [0, 0])[1];
}

describe("Johnson's two-machine flow shop", () => {
  test('the textbook five jobs are done at 205 (Johnson 1954; tenths of an hour, all 120 orders enumerated)', () => {
    const jobs = [
      [32, 42],
      [47, 15],
      [22, 50],
      [58, 40],
      [31, 28],
    ];
    const problem = flowShop(jobs);
    const sequence = schedule(problem, { seed: 1, moves: 1 });
    expect(Math.min(...permutations(jobs).map(twoMachineMakespan))).toBe(205);
    expect([violations(problem, sequence), sequence.objective.makespanMin]).toEqual([[], 205]);
  });
  test('on random two-machine shops it reaches the best of all orders', () => {
    fc.assert(
      fc.property(fc.array(fc.tuple(fc.integer({ min: 1, max: 60 }), fc.integer({ min: 1, max: 60 })), { minLength: 1, maxLength: 6 }), (jobs) => {
        expect(schedule(flowShop(jobs), { seed: 1, moves: 1 }).objective.makespanMin).toBe(Math.min(...permutations(jobs).map(twoMachineMakespan)));
      }),
      { seed: SEED, numRuns: 60 },
    );
  });
});

describe('every plan can be cooked as it stands', () => {
  test('law: a checker that shares no code with the scheduler finds no fault on random days', () => {
    fc.assert(
      fc.property(anyProblem, fc.integer({ min: 0, max: 6 }), (problem, moves) => {
        expect(violations(problem, schedule(problem, { seed: 3, moves }))).toEqual([]);
      }),
      { seed: SEED, numRuns: 200 },
    );
  });
  test('law: with one cook, one kettle and enough time everything that fits a vessel is placed', () => {
    fc.assert(
      fc.property(anyProblem, (problem) => {
        const open: Problem = { ...problem, horizonMin: 20_000, resources: problem.resources.map((resource) => ({ ...resource, windows: [] })) };
        const keeps = { ...open, jobs: open.jobs.map((job) => ({ ...job, steps: job.steps.map((step) => ({ ...step, maxWaitMin: null })) })) };
        expect(schedule(keeps, { seed: 3, moves: 0 }).unplaced).toEqual([]);
      }),
      { seed: SEED, numRuns: 100 },
    );
  });
  test('law: the same seed and moves give the same plan; more moves never a worse one', () => {
    fc.assert(
      fc.property(anyProblem, (problem) => {
        const plan = (moves: number): Sequence => schedule(problem, { seed: 5, moves });
        const worth = ({ unplaced, objective }: Sequence): number => unplaced.length * 1e12 + objective.lateMin * 1e6 + objective.washMin;
        expect(plan(8)).toEqual(plan(8));
        expect(worth(plan(8))).toBeLessThanOrEqual(worth(plan(0)));
      }),
      { seed: SEED, numRuns: 60 },
    );
  });
});

describe('what can never be placed is said', () => {
  test('a step that asks for more than a resource ever has, or for one that is not there', () => {
    const problem = flowShop([
      [5, 5],
      [5, 5],
    ]);
    const [first, second] = problem.jobs.map((job) => job.steps);
    const asks = (steps: readonly JobStep[] | undefined, resourceId: string, units: number): readonly JobStep[] =>
      (steps ?? []).map((step) => ({ ...step, uses: [{ resourceId, units }] }));
    const greedy: Problem = { ...problem, jobs: problem.jobs.map((job, index) => ({ ...job, steps: index === 0 ? asks(first, 'm0', 2) : asks(second, 'm9', 1) })) };
    expect(schedule(greedy, { seed: 1, moves: 2 })).toMatchObject({ jobs: [], unplaced: ['j0', 'j1'] });
  });
});

describe('the checker sees what is wrong', () => {
  const use = (units: number) => [{ resourceId: 'hands', units }];
  const step = (id: string, durationMin: number, some: Partial<JobStep> = {}): JobStep => ({
    id,
    durationMin,
    uses: use(2),
    maxWaitMin: null,
    afterJobs: [],
    frozen: null,
    ...some,
  });
  const job = (id: string, some: Partial<Job> = {}): Job => ({
    id,
    volumeL: 10,
    allergens: [],
    steps: [step('a', 10), step('b', 20)],
    span: { vesselIds: ['k'], firstStep: 0, lastStep: 1 },
    releaseMin: 0,
    readyByMin: null,
    ...some,
  });
  const problem = (...jobs: Job[]): Problem => ({
    horizonMin: 500,
    rinseMin: 5,
    fullWashMin: 12,
    resources: [{ id: 'hands', name: '', capacity: 3, windows: [{ fromMin: 0, toMin: 400, capacity: 3 }] }],
    vessels: [
      { id: 'k', name: '', minFillL: 5, workingMaxL: 12 },
      { id: 'l', name: '', minFillL: 20, workingMaxL: 30 },
    ],
    jobs,
  });
  const at = (jobId: string, startA: number, startB: number, vesselId: string | null = 'k', lengthA = 10): Sequence['jobs'][number] => ({
    jobId,
    vesselId,
    steps: [
      { stepId: 'a', startMin: startA, endMin: startA + lengthA, waitedMin: 0, waitedFor: null },
      { stepId: 'b', startMin: startB, endMin: startB + 20, waitedMin: 0, waitedFor: null },
    ],
  });
  const codes = (given: Problem, ...jobs: Sequence['jobs']): Violation['code'][] => violations(given, { jobs, unplaced: [] }).map((violation) => violation.code);
  const waits = job('j', { steps: [step('a', 10, { maxWaitMin: 5 }), step('b', 20)] });
  const cases: readonly (readonly [string, Problem, Sequence['jobs'], readonly Violation['code'][]])[] = [
    ['a plan in order', problem(job('j'), job('n')), [at('j', 0, 10), at('n', 35, 45)], []],
    ['a job left out', problem(job('j')), [], ['job.missing']],
    ['a job placed twice', problem(job('j')), [at('j', 0, 10), at('j', 100, 110)], ['job.twice']],
    ['a job nobody asked for', problem(job('j')), [at('j', 0, 10), at('x', 100, 110)], ['steps.wrong']],
    ['a step cut short', problem(job('j')), [at('j', 0, 10, 'k', 9)], ['step.duration']],
    ['a step before the one before it', problem(job('j')), [at('j', 0, 9)], ['step.order', 'resource.over']],
    ['a wait too long', problem(waits), [at('j', 0, 16)], ['step.wait']],
    ['a start before its release', problem(job('j', { releaseMin: 5 })), [at('j', 0, 10)], ['step.release']],
    ['hands taken twice over', problem(job('j'), job('n', { span: null })), [at('j', 0, 30), at('n', 5, 60, null)], ['resource.over']],
    ['work outside the shift', problem(job('j')), [at('j', 380, 390)], ['resource.over']],
    ['past the horizon', problem(job('j', { steps: [step('a', 10), step('b', 20, { uses: [] })] })), [at('j', 390, 490)], ['step.horizon']],
    [
      'before its stock is made',
      problem(job('j', { steps: [step('a', 10, { afterJobs: ['n'] }), step('b', 20)] }), job('n')),
      [at('j', 0, 10), at('n', 50, 60)],
      ['step.beforeInput'],
    ],
    ['a vessel it may not use', problem(job('j')), [at('j', 0, 10, 'l')], ['vessel.wrong']],
    ['a vessel too small', problem(job('j', { volumeL: 13 })), [at('j', 0, 10)], ['vessel.volume']],
    [
      'two soups in one kettle',
      problem(job('j'), job('n', { steps: [step('a', 10, { uses: [] }), step('b', 20, { uses: [] })] })),
      [at('j', 0, 10), at('n', 20, 30)],
      ['vessel.clash'],
    ],
    ['no time for the rinse', problem(job('j'), job('n')), [at('j', 0, 10), at('n', 34, 44)], ['vessel.clash']],
    ['a rinse where the allergen needs a full wash', problem(job('j', { allergens: ['fish'] }), job('n')), [at('j', 0, 10), at('n', 35, 45)], ['vessel.clash']],
    ['a frozen step moved', problem(job('j', { steps: [step('a', 10, { frozen: { startMin: 0, endMin: 12 } }), step('b', 20)] })), [at('j', 1, 12)], ['step.moved']],
  ];
  test.each(cases)('%s', (_, given, jobs, expected) => {
    expect(codes(given, ...jobs)).toEqual(expected);
  });
});
