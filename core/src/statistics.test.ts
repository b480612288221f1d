import { jStat } from 'jstat';
import { newsvendorNormal, upperTail, zOf } from './par/index';
import { Replay, solve } from './sequence/index';
import { makeJob, makeJobStep, makeProblem } from './sequence/problem.arbitrary';

/** Quantiles and chances against a statistics library (jStat) that shares nothing with ours. */

const SHARES = Array.from({ length: 199 }, (_, index) => (index + 1) / 200);

test('the normal quantile and tail, to six figures', () => {
  const wrong = SHARES.filter((p) => Math.abs(zOf(p) - jStat.normal.inv(p, 0, 1)) > 1e-6 || Math.abs(upperTail(zOf(p)) - (1 - jStat.normal.cdf(zOf(p), 0, 1))) > 1e-6);
  expect(wrong).toEqual([]);
});

test('far out, where a lead asks for one day in a thousand', () => {
  for (const p of [0.001, 0.999, 0.9999]) expect(zOf(p)).toBeCloseTo(jStat.normal.inv(p, 0, 1), 5);
});

test('the newsvendor quantity of a normal demand', () => {
  for (const ratio of [0.2, 0.5, 0.8, 0.95]) expect(newsvendorNormal(40, 7, ratio)).toBeCloseTo(jStat.normal.inv(ratio, 40, 7), 4);
});

describe('a step that takes 10 to 40 minutes, mostly 20', () => {
  const low = 10;
  const [high, mode] = [40, 20];
  const day = (readyByMin: number): Replay => {
    const step = makeJobStep('cook', mode);
    const steps = [{ ...step, modes: step.modes.map((one) => ({ ...one, spreadMin: [low, high] as const })) }];
    const problem = makeProblem({ horizonMin: 500, jobs: [makeJob('soup', { steps, releaseMin: 100, readyByMin, earlyWeight: 0 })] });
    const at = 100;
    const plan = solve(problem, { seed: 1, moves: 0 });
    const [job] = plan.jobs;
    // Begun at 100 whatever the engine would rather.
    const placed = job === undefined ? [] : [{ ...job, steps: job.steps.map((one) => ({ ...one, startMin: at, endMin: at + mode })) }];
    return new Replay(problem, { jobs: placed, changeovers: [] });
  };
  test.each([112, 118, 120, 125, 130, 138])('is ready by %i as often as its triangle says', (readyByMin) => {
    // A minute is in time to its half. Durations come from a table of 64 equal shares: no chance is told finer than one of them.
    const told = day(readyByMin).onTime(20_000, 5).chanceByJob.get('soup') ?? Number.NaN;
    expect(Math.abs(told - jStat.triangular.cdf(readyByMin + 0.5 - 100, low, high, mode))).toBeLessThan(1 / 64);
  });
  test.each([0.5, 0.8, 0.9, 0.95])('takes longer than planned, on a share of %f of the days, by no more than its triangle says', (chance) => {
    expect(Math.abs(day(200).onTime(20_000, 5).overrunMin('soup', chance) - (jStat.triangular.inv(chance, low, high, mode) - mode))).toBeLessThan(0.6);
  });
});
