import fc from 'fast-check';
import { SHOPS } from '../shops';
import { flowShop, jobShop, openShop } from '../testing/textbook';
import { Line } from './engine/line';
import { Machines } from './engine/machines';
import { compile } from './engine/compile';
import { makeJob, makeJobStep, makeProblem } from './problem.arbitrary';
import { seeded } from './random';
import { solve, startSolving, violations } from './index';
import type { Problem } from './index';

/** Shops so small that every order can be tried, by the recurrences of the textbooks: oracles that know nothing of the engine. */

const SEED = 20_261_126;
function permutations<T>(items: readonly T[]): T[][] {
  if (items.length <= 1) return [[...items]];
  return items.flatMap((item, index) => permutations(items.filter((_, other) => other !== index)).map((rest) => [item, ...rest]));
}
type Kind = 'noWait' | 'noWaitFlowTime' | 'blocking' | 'permutation';
/** `times[machine][job]`, an order of jobs → what it costs. */
function byRecurrence(times: readonly (readonly number[])[], order: readonly number[], kind: Kind): number {
  const at = (machine: number, job: number): number => times[machine]?.[job] ?? 0;
  // Leaving times of the job before, by machine; row 0 is when it began on the first.
  let before: number[] = times.map(() => 0);
  let beganBefore = 0;
  let flow = 0;
  for (const [place, job] of order.entries()) {
    const leaves: number[] = [];
    if (kind === 'noWait' || kind === 'noWaitFlowTime') {
      // The delay between two starts that keeps every machine free when the second comes to it (Reddi & Ramamoorthy 1972).
      const previous = order[place - 1];
      const sum = (of: number, count: number): number => times.slice(0, count).reduce((total, _, machine) => total + at(machine, of), 0);
      const delay = previous === undefined ? 0 : Math.max(...times.map((_, machine) => sum(previous, machine + 1) - sum(job, machine)));
      beganBefore += previous === undefined ? 0 : delay;
      leaves.push(...times.map((_, machine) => beganBefore + sum(job, machine + 1)));
    } else {
      let ready = kind === 'blocking' ? (before[0] ?? 0) : 0;
      for (const machine of times.keys()) {
        const start = kind === 'blocking' ? ready : Math.max(ready, before[machine] ?? 0);
        const done = start + at(machine, job);
        // It stays where it is until the next machine is free.
        ready = kind === 'blocking' ? Math.max(done, before[machine + 1] ?? 0) : done;
        leaves.push(ready);
      }
    }
    before = leaves;
    flow += leaves.at(-1) ?? 0;
  }
  return kind === 'noWaitFlowTime' ? flow : (before.at(-1) ?? 0);
}
const someTimes = fc
  .record({ machines: fc.integer({ min: 3, max: 4 }), jobs: fc.integer({ min: 2, max: 6 }) })
  .chain(({ machines, jobs }) => fc.array(fc.array(fc.integer({ min: 1, max: 40 }), { minLength: jobs, maxLength: jobs }), { minLength: machines, maxLength: machines }));

describe('a line', () => {
  test.each<Kind>(['noWait', 'noWaitFlowTime', 'blocking', 'permutation'])('%s: the best of all orders, laid out without a fault', (kind) => {
    fc.assert(
      fc.property(someTimes, (times) => {
        const problem = flowShop(times, kind);
        const plan = solve(problem, { seed: 1, moves: 60, guides: SHOPS });
        const least = Math.min(...permutations((times[0] ?? []).map((_, job) => job)).map((order) => byRecurrence(times, order, kind)));
        expect([plan.objective.cost, violations(problem, plan)]).toEqual([least, []]);
      }),
      { seed: SEED, numRuns: 30 },
    );
  });
  test('is only seen where an order of jobs says all', () => {
    const times = [
      [3, 2, 4],
      [2, 5, 1],
      [4, 1, 3],
    ];
    const isLine = (problem: Problem): boolean => Line.of(compile(problem), seeded(1)) !== null;
    const noWait = flowShop(times, 'noWait');
    const changed = (change: (problem: Problem) => Problem): boolean => isLine(change(noWait));
    expect([isLine(noWait), isLine(flowShop(times, 'blocking')), isLine(flowShop(times, 'permutation'))]).toEqual([true, true, true]);
    // With room between three machines or more a job may overtake another.
    expect(isLine(flowShop(times, 'plain'))).toBe(false);
    expect([
      changed((one) => ({ ...one, jobs: one.jobs.map((job, index) => ({ ...job, releaseMin: index })) })),
      changed((one) => ({ ...one, jobs: one.jobs.map((job) => ({ ...job, readyByMin: 9, earlyWeight: 1 })) })),
      changed((one) => ({ ...one, resources: one.resources.map((resource) => ({ ...resource, capacity: 2 })) })),
      changed((one) => ({ ...one, resources: one.resources.map((resource) => ({ ...resource, windows: [{ fromMin: 0, toMin: 50, capacity: 1 }] })) })),
      changed((one) => ({ ...one, jobs: one.jobs.map((job, index) => (index === 0 ? { ...job, steps: [...job.steps].reverse(), lags: [] } : job)) })),
      changed((one) => ({
        ...one,
        jobs: one.jobs.map((job) => ({ ...job, steps: job.steps.map((step, at) => (at === 0 ? { ...step, fixed: { kind: 'pinned', startMin: 3 } } : step)) })),
      })),
    ]).toEqual([false, false, false, false, false, false]);
  });
});

/** Longest way of every choice of orders on all machines; infinity where they form a circle. */
function bestOfAllOrders(jobs: readonly (readonly { readonly machine: number; readonly duration: number }[])[]): number {
  const steps = jobs.flatMap((operations, job) => operations.map((operation, at) => ({ ...operation, job, at })));
  const machines = [...new Set(steps.map((step) => step.machine))].map((machine) => permutations(steps.filter((step) => step.machine === machine)));
  let least = Number.POSITIVE_INFINITY;
  const choose = (from: number, chosen: readonly (readonly (typeof steps)[number][])[]): void => {
    if (from < machines.length) {
      for (const order of machines[from] ?? []) choose(from + 1, [...chosen, order]);
      return;
    }
    const end = new Map<(typeof steps)[number], number>();
    for (let left = steps.length; left > 0;) {
      const ready = steps.find((step) => {
        const ahead = chosen.find((order) => order.includes(step));
        const previous = ahead?.[ahead.indexOf(step) - 1];
        const before = steps.find((other) => other.job === step.job && other.at === step.at - 1);
        return !end.has(step) && (previous === undefined || end.has(previous)) && (before === undefined || end.has(before));
      });
      if (ready === undefined) return;
      const order = chosen.find((one) => one.includes(ready));
      const previous = order?.[order.indexOf(ready) - 1];
      const before = steps.find((other) => other.job === ready.job && other.at === ready.at - 1);
      end.set(ready, Math.max(previous === undefined ? 0 : (end.get(previous) ?? 0), before === undefined ? 0 : (end.get(before) ?? 0)) + ready.duration);
      left -= 1;
    }
    least = Math.min(least, Math.max(...end.values()));
  };
  choose(0, []);
  return least;
}

describe('machines and nothing else', () => {
  const someShop = fc.array(
    fc
      .tuple(fc.shuffledSubarray([0, 1, 2], { minLength: 3 }), fc.array(fc.integer({ min: 1, max: 30 }), { minLength: 3, maxLength: 3 }))
      .map(([order, durations]) => order.map((machine, at) => ({ machine, duration: durations[at] ?? 1 }))),
    { minLength: 2, maxLength: 3 },
  );
  test('the best of all orders on all machines, laid out without a fault', () => {
    fc.assert(
      fc.property(someShop, (jobs) => {
        const problem = jobShop(jobs);
        const plan = solve(problem, { seed: 1, moves: 60, guides: SHOPS });
        expect([plan.objective.makespanMin, violations(problem, plan)]).toEqual([bestOfAllOrders(jobs), []]);
      }),
      { seed: SEED, numRuns: 30 },
    );
  });
  test('are only seen where there is nothing else to it', () => {
    const shop = jobShop([
      [
        { machine: 0, duration: 3 },
        { machine: 1, duration: 2 },
      ],
      [
        { machine: 1, duration: 4 },
        { machine: 0, duration: 1 },
      ],
    ]);
    const isSeen = (problem: Problem): boolean => {
      const compiled = compile(problem);
      return Machines.of(compiled, new Int32Array(compiled.stepCount), seeded(1)) !== null;
    };
    expect(isSeen(shop)).toBe(true);
    expect([
      isSeen({ ...shop, jobs: shop.jobs.map((job) => ({ ...job, readyByMin: 5 })) }),
      isSeen({ ...shop, jobs: shop.jobs.map((job) => ({ ...job, lags: job.lags.map((lag) => ({ ...lag, maxMin: 4 })) })) }),
      isSeen({ ...shop, resources: shop.resources.map((resource) => ({ ...resource, capacity: 3 })) }),
      isSeen({ ...shop, weights: { ...shop.weights, makespan: 0, late: 1 } }),
      isSeen(openShop([[{ machine: 0, duration: 2 }]])),
    ]).toEqual([false, false, false, false, false]);
  });
  test('something fixed leaves it to the search for everything', () => {
    const steps = [makeJobStep('a', 3), makeJobStep('b', 2)];
    const problem = makeProblem({
      jobs: [makeJob('one', { steps: steps.map((step, at) => (at === 0 ? { ...step, fixed: { kind: 'done', startMin: 0, endMin: 3 } } : step)) }), makeJob('two', { steps })],
    });
    const solving = startSolving(problem, { seed: 1, guides: SHOPS });
    solving.run(40);
    expect(violations(problem, solving.sequence())).toEqual([]);
  });
});
