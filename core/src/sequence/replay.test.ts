import fc from 'fast-check';
import { Explained, Replay, endOf, solve, stepWindows } from './index';
import { anyProblem, inTurn, makeJob, makeJobStep, makeProblem } from './problem.arbitrary';

const SEED = 20_261_126;

describe('a plan played through again', () => {
  test('law: with the times it was planned with, everything ends when it was planned to', () => {
    fc.assert(
      fc.property(anyProblem, (problem) => {
        const plan = solve(problem, { seed: 1, moves: 10 });
        const ends = new Replay(problem, plan).endsIfDelayed('', 0);
        expect(plan.jobs.map((job) => [job.jobId, ends.get(job.jobId)])).toEqual(plan.jobs.map((job) => [job.jobId, endOf(job)]));
      }),
      { seed: SEED, numRuns: 80 },
    );
  });
  test('law: slack is what may be lost and no more', () => {
    fc.assert(
      fc.property(anyProblem, (problem) => {
        const plan = solve(problem, { seed: 1, moves: 5 });
        const replay = new Replay(problem, plan);
        const due = new Map(problem.jobs.map((job) => [job.id, job.readyByMin]));
        const planned = replay.endsIfDelayed('', 0);
        const harms = (jobId: string, byMin: number): boolean =>
          [...replay.endsIfDelayed(jobId, byMin)].some(([id, end]) => (due.get(id) ?? null) !== null && end > Math.max(due.get(id) ?? 0, planned.get(id) ?? 0));
        for (const job of plan.jobs) {
          const slack = replay.slackMin(job.jobId, 60);
          expect(harms(job.jobId, slack)).toBe(false);
          if (slack < 60) expect(harms(job.jobId, slack + 1)).toBe(true);
        }
      }),
      { seed: SEED, numRuns: 40 },
    );
  });
  test('times that do not spread are in time always or never', () => {
    const job = (id: string, readyByMin: number) => makeJob(id, { steps: [makeJobStep('a', 30)], readyByMin });
    const problem = makeProblem({ jobs: [job('early', 100), job('late', 10)] });
    const { chanceByJob, chanceOfAll } = new Replay(problem, solve(problem, { seed: 1, moves: 5 })).onTime(200, 1);
    expect([chanceByJob.get('early'), chanceByJob.get('late'), chanceOfAll]).toEqual([1, 0, 0]);
  });
  test('law: what does not spread is on all days, however many, as it was planned', () => {
    fc.assert(
      fc.property(anyProblem, fc.integer({ min: 1, max: 200 }), (problem, days) => {
        const plan = solve(problem, { seed: 1, moves: 5 });
        const replay = new Replay(problem, plan);
        const planned = replay.endsIfDelayed('', 0);
        const { chanceByJob, chanceOfAll } = replay.onTime(days, 1);
        const wanted = problem.jobs.flatMap(({ id, readyByMin }) => (readyByMin === null || !planned.has(id) ? [] : [[id, planned.get(id)! <= readyByMin ? 1 : 0] as const]));
        expect([...chanceByJob].sort()).toEqual([...wanted].sort());
        expect(chanceOfAll).toBe(wanted.every(([, is]) => is === 1) ? 1 : 0);
      }),
      { seed: SEED, numRuns: 60 },
    );
  });
  test('two that are both needed are in time on the days on which each is: never oftener than the rarer, and by themselves as often as by their product', () => {
    const job = (id: string) => ({
      ...makeJob(id, {
        steps: [
          { ...makeJobStep('a', 30), modes: [{ id: 'only', durationMin: 30, spreadMin: [20, 40] as const, uses: [], unitIds: [] }], fixed: { kind: 'pinned', startMin: 65 } },
        ],
      }),
      readyByMin: 94,
    });
    const problem = makeProblem({ jobs: [job('one'), job('other')] });
    const { chanceByJob, chanceOfAll } = new Replay(problem, solve(problem, { seed: 1, moves: 0 })).onTime(20_000, 5);
    const [one, other] = [chanceByJob.get('one')!, chanceByJob.get('other')!];
    // P(X <= 29.5) = (29.5 - 20)^2 / ((40 - 20) (30 - 20)) = 0.451; by quantiles of a sixty-fourth.
    expect([Math.abs(one - 0.451) < 0.02, Math.abs(other - 0.451) < 0.02]).toEqual([true, true]);
    expect(Math.abs(chanceOfAll - one * other)).toBeLessThan(0.015);
  });
  test('one step of 20 to 40 minutes, 30 most likely, begun 35 before it is wanted: seven in eight (triangular distribution, common practice)', () => {
    const steps = [{ ...makeJobStep('a', 30), modes: [{ id: 'only', durationMin: 30, spreadMin: [20, 40] as const, uses: [], unitIds: [] }] }];
    const problem = makeProblem({ jobs: [makeJob('j', { steps: [{ ...steps[0]!, fixed: { kind: 'pinned', startMin: 65 } }], readyByMin: 100 })] });
    const replay = new Replay(problem, solve(problem, { seed: 1, moves: 0 }));
    // P(X <= 35) = 1 - (40 - 35)^2 / ((40 - 20) (40 - 30)) = 0.875; half a minute of grace makes it 0.899.
    expect(replay.onTime(20_000, 3).chanceByJob.get('j')).toBeCloseTo(0.9, 1);
  });
});

describe('why a step is not sooner', () => {
  const use = [{ resourceId: 'hands', units: 1 }];
  test('the kettle another has, wash and all', () => {
    const job = (id: string, readyByMin: number) =>
      makeJob(id, { steps: [makeJobStep('cook', 30)], spans: [{ id: 'pot', unitIds: ['k'], from: 'cook', to: 'cook', until: 'end' }], changeClass: 'x', readyByMin });
    const problem = makeProblem({
      units: [{ id: 'k', name: '', volume: null, changeoverId: 'wash' }],
      changeovers: [{ id: 'wash', classes: ['x'], min: [[5]], uses: [] }],
      jobs: [job('one', 30), job('two', 30)],
    });
    const plan = solve(problem, { seed: 1, moves: 50 });
    const second = plan.jobs.find((placed) => endOf(placed) > 30)?.jobId ?? '';
    expect(new Explained(problem, plan).bindingOf(second)).toEqual([{ kind: 'unit', id: 'k', byJobIds: [second === 'one' ? 'two' : 'one'], fromMin: 0, toMin: 35 }]);
  });
  test('hands, what it is made of, and the hour somebody comes', () => {
    const stock = makeJob('stock', { steps: [makeJobStep('a', 20, { uses: use })] });
    const soup = makeJob('soup', { steps: [makeJobStep('a', 10, { uses: use, afterJobs: ['stock'] })], readyByMin: 5 });
    const other = makeJob('other', { steps: [makeJobStep('a', 10, { uses: use })], releaseMin: 3, readyByMin: 3 });
    const problem = makeProblem({ resources: [{ id: 'hands', name: '', capacity: 1, windows: [] }], jobs: [stock, soup, other] });
    const explained = new Explained(problem, solve(problem, { seed: 1, moves: 100 }));
    expect(explained.bindingOf('soup').map((one) => one.kind)).toEqual(['input']);
    expect(['resource', 'release']).toContain(explained.bindingOf('other')[0]?.kind);
  });
});

describe('where a step could stand', () => {
  const steps = [makeJobStep('a', 10), makeJobStep('b', 20)];
  const job = (pins: Readonly<Record<string, number>>, maxMin: number | null) =>
    makeJob('j', {
      steps: steps.map((step) => ({ ...step, fixed: pins[step.id] === undefined ? null : { kind: 'pinned' as const, startMin: pins[step.id] ?? 0 } })),
      lags: inTurn(steps, [maxMin]),
      releaseMin: 50,
    });
  test('a pin that its own batch allows', () => {
    expect(stepWindows(job({ b: 100 }, 5), 1000)?.get('a')).toEqual({ soonestMin: 85, latestMin: 90 });
  });
  test('two pins that contradict each other, and where the second could be', () => {
    const both = job({ a: 60, b: 100 }, 5);
    expect(stepWindows(both, 1000)).toBeNull();
    expect(stepWindows(both, 1000, 'b')?.get('b')).toEqual({ soonestMin: 70, latestMin: 75 });
  });
  test('a pin before anybody is there', () => {
    expect(stepWindows(job({ a: 10 }, null), 1000)?.get('a')).toEqual({ soonestMin: 10, latestMin: 10 });
  });
});
