import fc from 'fast-check';
import { DEFAULT_WEIGHTS } from './problem';
import type { Job, JobStep, Lag, Problem } from './problem';

/** A job with nothing asked of it. */
export function makeJob(id: string, some: Partial<Job> & Pick<Job, 'steps'>): Job {
  return { id, volumeL: 10, lags: [], spans: [], changeClass: null, releaseMin: 0, readyByMin: null, lateWeight: 1, earlyWeight: 1, bufferMin: 0, likesEarlyMin: 0, ...some };
}

export function makeJobStep(
  id: string,
  durationMin: number,
  some: Partial<JobStep> & { readonly uses?: JobStep['modes'][number]['uses']; readonly unitIds?: readonly string[] } = {},
): JobStep {
  const { uses = [], unitIds = [], ...rest } = some;
  return { id, modes: [{ id: 'only', durationMin, uses, unitIds }], afterJobs: [], fixed: null, ...rest };
}

export function makeProblem(some: Partial<Problem> & Pick<Problem, 'jobs'>): Problem {
  return { horizonMin: 2000, resources: [], units: [], changeovers: [], lines: [], weights: DEFAULT_WEIGHTS, ...some };
}

/** Each step after the one before. */
export function inTurn(steps: readonly JobStep[], maxMin: readonly (number | null)[] = []): readonly Lag[] {
  return steps.slice(1).map((to, index): Lag => ({ from: steps[index]?.id ?? '', to: to.id, kind: 'endStart', minMin: 0, maxMin: maxMin[index] ?? null }));
}

const CLASSES = ['plain', 'milk', 'fish', 'milk+fish'];

/** Minutes of wash: full where the first holds what the second does not. */
const WASH_MIN = CLASSES.map((before) => CLASSES.map((after) => (before !== 'plain' && before.split('+').some((one) => !after.split('+').includes(one)) ? 12 : 5)));

/** Random kitchens and days: near what a station really has, with components, waits, shifts, blenders and washes that ask for hands. */
export const anyProblem: fc.Arbitrary<Problem> = fc
  .record({
    cooks: fc.integer({ min: 1, max: 3 }),
    shiftGap: fc.boolean(),
    vessels: fc.array(fc.record({ minL: fc.integer({ min: 1, max: 8 }), maxL: fc.integer({ min: 9, max: 30 }) }), { minLength: 1, maxLength: 3 }),
    jobs: fc.array(
      fc.record({
        volumeL: fc.integer({ min: 1, max: 30 }),
        changeClass: fc.constantFrom(...CLASSES),
        steps: fc.array(
          fc.record({
            durationMin: fc.integer({ min: 1, max: 45 }),
            hands: fc.integer({ min: 0, max: 4 }),
            blender: fc.constantFrom('no', 'no', 'jar', 'either'),
            maxMin: fc.option(fc.integer({ min: 0, max: 30 }), { nil: null }),
          }),
          { minLength: 1, maxLength: 6 },
        ),
        spanFrom: fc.nat(5),
        inVessel: fc.boolean(),
        releaseMin: fc.integer({ min: 0, max: 120 }),
        readyByMin: fc.option(fc.integer({ min: 100, max: 700 }), { nil: null }),
        after: fc.option(fc.nat(7), { nil: null }),
        takenAt: fc.nat(5),
      }),
      { minLength: 1, maxLength: 8 },
    ),
  })
  .map(({ cooks, shiftGap, vessels, jobs }): Problem => {
    const kettles = vessels.map((volume, index) => ({ id: `v${String(index)}`, name: '', volume, changeoverId: 'wash' }));
    const hands = (units: number): JobStep['modes'][number]['uses'] => (units > 0 ? [{ resourceId: 'hands', units }] : []);
    return makeProblem({
      resources: [
        {
          id: 'hands',
          name: '',
          capacity: cooks * 4,
          windows: shiftGap
            ? [
                { fromMin: 0, toMin: 300, capacity: cooks * 4 },
                { fromMin: 360, toMin: 2000, capacity: 4 },
              ]
            : [],
        },
      ],
      units: [...kettles, { id: 'jar', name: '', volume: null, changeoverId: 'wash' }, { id: 'stick', name: '', volume: null, changeoverId: null }],
      changeovers: [{ id: 'wash', classes: CLASSES, min: WASH_MIN, uses: hands(4) }],
      jobs: jobs.map((some, index): Job => {
        const after = some.after !== null && some.after < index ? [`j${String(some.after)}`] : [];
        const steps = some.steps.map((step, at): JobStep => {
          const jar = { id: 'jar', durationMin: step.durationMin, uses: hands(step.hands), unitIds: ['jar'] };
          const stick = { id: 'stick', durationMin: Math.ceil(step.durationMin / 2), uses: hands(step.hands), unitIds: ['stick'] };
          const plain = { id: 'only', durationMin: step.durationMin, uses: hands(step.hands), unitIds: [] };
          return {
            id: `s${String(at)}`,
            modes: step.blender === 'no' ? [plain] : step.blender === 'jar' ? [jar] : [jar, stick],
            afterJobs: at === Math.min(some.takenAt, some.steps.length - 1) ? after : [],
            fixed: null,
          };
        });
        const unitIds = kettles.filter(({ volume }) => volume.minL <= some.volumeL && some.volumeL <= volume.maxL).map(({ id }) => id);
        const from = steps[Math.min(some.spanFrom, steps.length - 1)]?.id ?? '';
        return makeJob(`j${String(index)}`, {
          volumeL: some.volumeL,
          changeClass: some.changeClass,
          steps,
          lags: inTurn(
            steps,
            some.steps.map((step) => step.maxMin),
          ),
          spans: some.inVessel && unitIds.length > 0 ? [{ id: 'pot', unitIds, from, to: steps.at(-1)?.id ?? '', until: 'end' }] : [],
          releaseMin: some.releaseMin,
          readyByMin: some.readyByMin,
        });
      }),
    });
  });
