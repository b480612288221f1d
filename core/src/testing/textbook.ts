import type { Job, JobStep, Lag, Problem, Unit, Weights } from '../sequence/index';

/** Published sequencing problems, said in the model a kitchen day is said in. */

const MAKESPAN: Weights = { late: 0, short: 0, early: 0, changeover: 0, moved: 0, makespan: 1 };
const FLOW_TIME: Weights = { ...MAKESPAN, late: 1, makespan: 0 };

interface Operation {
  readonly machine: number;
  readonly duration: number;
}

function problem(some: Partial<Problem> & Pick<Problem, 'horizonMin' | 'jobs'>): Problem {
  return { resources: [], units: [], changeovers: [], lines: [], weights: MAKESPAN, ...some };
}

function job(id: string, some: Partial<Job> & Pick<Job, 'steps'>): Job {
  return { id, volumeL: 0, lags: [], spans: [], changeClass: null, releaseMin: 0, readyByMin: null, lateWeight: 1, earlyWeight: 0, bufferMin: 0, likesEarlyMin: 0, ...some };
}

function step(id: string, durationMin: number, uses: JobStep['modes'][number]['uses'], unitIds: readonly string[] = [], afterJobs: readonly string[] = []): JobStep {
  return { id, modes: [{ id: 'only', durationMin, uses, unitIds }], afterJobs, fixed: null };
}

function machines(count: number): Problem['resources'] {
  return Array.from({ length: count }, (_, index) => ({ id: `m${String(index)}`, name: `Machine ${String(index + 1)}`, capacity: 1, windows: [] }));
}

function unit(id: string, changeoverId: string | null = null): Unit {
  return { id, name: id, volume: null, changeoverId };
}

function inTurn(steps: readonly JobStep[], maxMin: number | null): readonly Lag[] {
  return steps.slice(1).map((to, index): Lag => ({ from: steps[index]?.id ?? '', to: to.id, kind: 'endStart', minMin: 0, maxMin }));
}

function total(jobs: readonly (readonly Operation[])[]): number {
  return jobs.flat().reduce((sum, { duration }) => sum + duration, 0) + 1;
}

/** Each job passes its machines in an order of its own. Makespan. */
export function jobShop(jobs: readonly (readonly Operation[])[], horizonMin: number = total(jobs)): Problem {
  return problem({
    horizonMin,
    resources: machines(Math.max(...jobs.flat().map(({ machine }) => machine)) + 1),
    jobs: jobs.map((operations, index) => {
      const steps = operations.map(({ machine, duration }, at) => step(`s${String(at)}`, duration, [{ resourceId: `m${String(machine)}`, units: 1 }]));
      return job(`j${String(index)}`, { steps, lags: inTurn(steps, null) });
    }),
  });
}

/** Each job passes all machines in any order, one at a time. Makespan. */
export function openShop(jobs: readonly (readonly Operation[])[]): Problem {
  const shop = jobShop(jobs);
  return {
    ...shop,
    resources: [...shop.resources, ...jobs.map((_, index) => ({ id: `self${String(index)}`, name: `Job ${String(index + 1)}`, capacity: 1, windows: [] }))],
    // Every operation a job of its own: nothing but the machine and the workpiece binds them.
    jobs: jobs.flatMap((operations, index) =>
      operations.map(({ machine, duration }, at) =>
        job(`j${String(index)}.${String(at)}`, {
          steps: [
            step('s', duration, [
              { resourceId: `m${String(machine)}`, units: 1 },
              { resourceId: `self${String(index)}`, units: 1 },
            ]),
          ],
        }),
      ),
    ),
  };
}

/** All jobs pass all machines in one order, `times[machine][job]`. */
export function flowShop(times: readonly (readonly number[])[], kind: 'plain' | 'noWait' | 'noWaitFlowTime' | 'blocking' | 'permutation'): Problem {
  const jobs = (times[0] ?? []).map((_, index) => times.map((row, machine): Operation => ({ machine, duration: row[index] ?? 0 })));
  const shop = jobShop(jobs);
  const names = times.map((_, machine) => `m${String(machine)}`);
  switch (kind) {
    case 'plain':
      return shop;
    case 'noWait':
      return { ...shop, jobs: shop.jobs.map((one) => ({ ...one, lags: inTurn(one.steps, 0) })) };
    case 'noWaitFlowTime':
      return { ...shop, weights: FLOW_TIME, jobs: shop.jobs.map((one) => ({ ...one, lags: inTurn(one.steps, 0), readyByMin: 0 })) };
    case 'blocking':
      return {
        ...shop,
        resources: [],
        units: names.map((id) => unit(id)),
        jobs: shop.jobs.map((one) => ({
          ...one,
          steps: one.steps.map((each) => ({ ...each, modes: each.modes.map((mode) => ({ ...mode, uses: [] })) })),
          // A machine is held until the next one takes the workpiece.
          spans: one.steps.map((each, at) => {
            const next = one.steps[at + 1];
            return { id: each.id, unitIds: [names[at] ?? ''], from: each.id, to: next?.id ?? each.id, until: next === undefined ? ('end' as const) : ('start' as const) };
          }),
        })),
      };
    case 'permutation':
      return {
        ...shop,
        resources: [],
        units: names.map((id) => unit(id)),
        lines: [names],
        jobs: shop.jobs.map((one) => ({
          ...one,
          steps: one.steps.map((each, at) => ({ ...each, modes: each.modes.map((mode) => ({ ...mode, uses: [], unitIds: [names[at] ?? ''] })) })),
        })),
      };
  }
}

/** Activities with precedence and shared resources (RCPSP); `successors` count from 1. Makespan. */
export function projectSchedule(data: {
  readonly capacity: readonly number[];
  readonly duration: readonly number[];
  readonly demand: readonly (readonly number[])[];
  readonly successors: readonly (readonly number[])[];
}): Problem {
  const before = (index: number): readonly string[] => data.successors.flatMap((list, from) => (list.includes(index + 1) ? [`a${String(from)}`] : []));
  return problem({
    horizonMin: data.duration.reduce((sum, value) => sum + value, 1),
    resources: data.capacity.map((capacity, index) => ({ id: `r${String(index)}`, name: `Resource ${String(index + 1)}`, capacity, windows: [] })),
    jobs: data.duration.map((duration, index) => {
      const uses = (data.demand[index] ?? []).flatMap((units, at) => (units > 0 ? [{ resourceId: `r${String(at)}`, units }] : []));
      return job(`a${String(index)}`, { steps: [step('s', duration, uses, [], before(index))] });
    }),
  });
}

/** One machine, a common due date, a price for each minute early and late: `[time, early, late]`. */
export function commonDueDate(jobs: readonly (readonly number[])[], dueMin: number): Problem {
  return problem({
    horizonMin: jobs.reduce((sum, [time = 0]) => sum + time, 0) + dueMin,
    weights: { ...MAKESPAN, late: 1, early: 1, makespan: 0 },
    resources: machines(1),
    jobs: jobs.map(([time = 0, earlyWeight = 0, lateWeight = 0], index) =>
      job(`j${String(index)}`, { steps: [step('s', time, [{ resourceId: 'm0', units: 1 }])], readyByMin: dueMin, earlyWeight, lateWeight }),
    ),
  });
}

/** A round through all classes of work of one unit, the least set-up in all: city 0 is left at the start and comes again at the end. */
export function changeoverRound(matrix: readonly (readonly number[])[]): Problem {
  const size = matrix.length;
  const names = [...matrix.keys(), 0].map((city, index) => `c${String(index)}:${String(city)}`);
  const at = (index: number): number => (index === size ? 0 : index);
  const min = names.map((_, from) => names.map((__, to) => (from === to ? 0 : (matrix[at(from)]?.[at(to)] ?? 0))));
  return problem({
    horizonMin: 2000,
    weights: { ...MAKESPAN, changeover: 1, makespan: 0 },
    units: [unit('machine', 'setup')],
    changeovers: [{ id: 'setup', classes: names, min, uses: [] }],
    jobs: names.map((changeClass, index) => ({
      ...job(changeClass, { steps: [{ ...step('s', 1, [], ['machine']), fixed: null }], changeClass }),
      // The first is there at the start and nothing comes after its return.
      releaseMin: index === size ? 1000 : 1,
      ...(index === 0 ? { steps: [{ ...step('s', 1, [], ['machine']), fixed: { kind: 'done' as const, startMin: 0, endMin: 1 } }] } : {}),
    })),
  });
}
