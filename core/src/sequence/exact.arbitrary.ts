import fc from 'fast-check';
import { changeoverMin, endOf, objectiveOf } from './problem';
import type { Job, PlacedChangeover, PlacedJob, Problem } from './problem';
import { inTurn, makeJob, makeJobStep, makeProblem } from './problem.arbitrary';

/** Days so small that every plan of them can be tried: up to four batches, times of a few minutes. */
export const tinyProblem: fc.Arbitrary<Problem> = fc
  .record({
    machines: fc.integer({ min: 1, max: 2 }),
    kettles: fc.integer({ min: 1, max: 2 }),
    jobs: fc.array(
      fc.record({
        durations: fc.array(fc.integer({ min: 1, max: 3 }), { minLength: 1, maxLength: 2 }),
        hands: fc.integer({ min: 0, max: 2 }),
        pot: fc.boolean(),
        milk: fc.boolean(),
        maxMin: fc.constantFrom(0, 0, 1),
        releaseMin: fc.integer({ min: 0, max: 3 }),
        readyByMin: fc.option(fc.integer({ min: 3, max: 9 }), { nil: null }),
        after: fc.boolean(),
      }),
      { minLength: 1, maxLength: 4 },
    ),
  })
  .map(({ machines, kettles, jobs }) =>
    makeProblem({
      horizonMin: 16,
      resources: [{ id: 'hands', name: '', capacity: machines + 1, windows: [] }],
      units: Array.from({ length: kettles }, (_, index) => ({ id: `k${String(index)}`, name: '', volume: null, changeoverId: 'wash' })),
      changeovers: [
        {
          id: 'wash',
          classes: ['plain', 'milk'],
          min: [
            [0, 1],
            [2, 0],
          ],
          uses: [],
        },
      ],
      jobs: jobs.map((some, index): Job => {
        const steps = some.durations.map((durationMin, at) =>
          makeJobStep(`s${String(at)}`, durationMin, {
            uses: some.hands > 0 ? [{ resourceId: 'hands', units: some.hands }] : [],
            afterJobs: some.after && at === 0 && index > 0 ? [`j${String(index - 1)}`] : [],
          }),
        );
        return makeJob(`j${String(index)}`, {
          steps,
          lags: inTurn(steps, [some.maxMin]),
          changeClass: some.milk ? 'milk' : 'plain',
          spans: some.pot
            ? [{ id: 'pot', unitIds: Array.from({ length: kettles }, (_, kettle) => `k${String(kettle)}`), from: 's0', to: steps.at(-1)?.id ?? '', until: 'end' }]
            : [],
          releaseMin: some.releaseMin,
          readyByMin: some.readyByMin,
        });
      }),
    }),
  );

/** Every way of laying out one job by itself. */
function layouts(problem: Problem, job: Job): readonly PlacedJob[] {
  const [first, second] = job.steps;
  if (first === undefined) return [];
  const lengthOf = (step: Job['steps'][number]): number => step.modes[0]?.durationMin ?? 0;
  const placed = (step: Job['steps'][number], startMin: number) => ({ stepId: step.id, modeId: 'only', unitId: null, startMin, endMin: startMin + lengthOf(step) });
  const found: PlacedJob[] = [];
  const units = job.spans[0]?.unitIds ?? [null];
  const most = job.lags[0]?.maxMin ?? 0;
  for (let start = job.releaseMin; start + lengthOf(first) <= problem.horizonMin; start += 1)
    for (let wait = 0; wait <= (second === undefined ? 0 : most); wait += 1) {
      const steps = [placed(first, start), ...(second === undefined ? [] : [placed(second, start + lengthOf(first) + wait)])];
      if (steps.some((step) => step.endMin > problem.horizonMin)) continue;
      for (const unit of units) found.push({ jobId: job.id, steps, spanUnitIds: unit === null ? [] : [unit] });
    }
  return found;
}

/** The cost of the best of all plans, by trying every one; null when there is none. Knows the model, not the engine. */
export function exactCost(problem: Problem): number | null {
  const { jobs } = problem;
  const loads = new Map(problem.resources.map(({ id }) => [id, Array.from({ length: problem.horizonMin }, () => 0)]));
  const isFree = (): boolean =>
    problem.resources.every(({ id, capacity, excludes = [] }) =>
      loads.get(id)?.every((used, minute) => used <= capacity && (used === 0 || excludes.every((other) => loads.get(other)?.[minute] === 0))),
    );
  const chosen: PlacedJob[] = [];
  const ways = jobs.map((job) => layouts(problem, job));
  const unitOf = (id: string | undefined) => problem.units.find((unit) => unit.id === id);
  let best: number | null = null;
  const apart = (left: PlacedJob, leftJob: Job, right: PlacedJob, rightJob: Job): boolean => {
    const unit = unitOf(left.spanUnitIds[0]);
    if (unit === undefined || left.spanUnitIds[0] !== right.spanUnitIds[0]) return true;
    const [a, b] = [left.steps[0]?.startMin ?? 0, right.steps[0]?.startMin ?? 0];
    return a < b
      ? endOf(left) + changeoverMin(problem, unit, leftJob.changeClass, rightJob.changeClass) <= b
      : endOf(right) + changeoverMin(problem, unit, rightJob.changeClass, leftJob.changeClass) <= a;
  };
  const washes = (): readonly PlacedChangeover[] =>
    problem.units.flatMap((unit) => {
      const inside = chosen.filter((placed) => placed.spanUnitIds[0] === unit.id).sort((left, right) => (left.steps[0]?.startMin ?? 0) - (right.steps[0]?.startMin ?? 0));
      return inside.slice(1).map((after, index): PlacedChangeover => {
        const before = inside[index] ?? after;
        const classOf = (id: string): string | null => jobs.find((job) => job.id === id)?.changeClass ?? null;
        const startMin = endOf(before);
        return {
          unitId: unit.id,
          fromJobId: before.jobId,
          toJobId: after.jobId,
          startMin,
          endMin: startMin + changeoverMin(problem, unit, classOf(before.jobId), classOf(after.jobId)),
        };
      });
    });
  const choose = (index: number): void => {
    const job = jobs[index];
    if (job === undefined) {
      const { cost } = objectiveOf(problem, { jobs: chosen, changeovers: washes() });
      if (best === null || cost < best) best = cost;
      return;
    }
    // What is laid out already costs at least this, whatever follows.
    if (best !== null && objectiveOf({ ...problem, weights: { ...problem.weights, changeover: 0 } }, { jobs: chosen, changeovers: [] }).cost >= best) return;
    for (const way of ways[index] ?? []) {
      const input = job.steps[0]?.afterJobs[0];
      const before = chosen.find((placed) => placed.jobId === input);
      if (before !== undefined && endOf(before) > (way.steps[0]?.startMin ?? 0)) continue;
      if (chosen.some((other, at) => !apart(other, jobs[at] ?? job, way, job))) continue;
      const add = (sign: number): void => {
        way.steps.forEach((step, at) => {
          for (const { resourceId, units } of job.steps[at]?.modes[0]?.uses ?? []) {
            const load = loads.get(resourceId) ?? [];
            for (let minute = step.startMin; minute < step.endMin; minute += 1) load[minute] = (load[minute] ?? 0) + sign * units;
          }
        });
      };
      add(1);
      chosen.push(way);
      if (isFree()) choose(index + 1);
      chosen.pop();
      add(-1);
    }
  };
  choose(0);
  return best;
}
