import fc from 'fast-check';
import type { Job, JobStep, Problem } from './problem';

/** Random kitchens and days: near what a station really has, with components, waits, shifts and washes. */
export const anyProblem: fc.Arbitrary<Problem> = fc
  .record({
    cooks: fc.integer({ min: 1, max: 3 }),
    shiftGap: fc.boolean(),
    vessels: fc.array(fc.record({ minFillL: fc.integer({ min: 1, max: 8 }), workingMaxL: fc.integer({ min: 9, max: 30 }) }), { minLength: 1, maxLength: 3 }),
    jobs: fc.array(
      fc.record({
        volumeL: fc.integer({ min: 1, max: 30 }),
        allergens: fc.subarray(['celery', 'milk', 'fish', 'gluten']),
        steps: fc.array(
          fc.record({
            durationMin: fc.integer({ min: 1, max: 45 }),
            hands: fc.integer({ min: 0, max: 4 }),
            blender: fc.boolean(),
            maxWaitMin: fc.option(fc.integer({ min: 0, max: 30 }), { nil: null }),
          }),
          { minLength: 1, maxLength: 6 },
        ),
        spanFrom: fc.nat(5),
        inVessel: fc.boolean(),
        releaseMin: fc.integer({ min: 0, max: 120 }),
        readyByMin: fc.option(fc.integer({ min: 100, max: 700 }), { nil: null }),
        after: fc.option(fc.nat(7), { nil: null }),
      }),
      { minLength: 1, maxLength: 8 },
    ),
  })
  .map(({ cooks, shiftGap, vessels, jobs }): Problem => {
    const named = vessels.map((vessel, index) => ({ id: `v${String(index)}`, name: '', ...vessel }));
    return {
      horizonMin: 2000,
      rinseMin: 5,
      fullWashMin: 12,
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
        { id: 'blender', name: '', capacity: 1, windows: [] },
      ],
      vessels: named,
      jobs: jobs.map((some, index): Job => {
        const after = some.after !== null && some.after < index ? [`j${String(some.after)}`] : [];
        const steps = some.steps.map((step, at): JobStep => ({
          id: `s${String(at)}`,
          durationMin: step.durationMin,
          uses: [...(step.hands > 0 ? [{ resourceId: 'hands', units: step.hands }] : []), ...(step.blender ? [{ resourceId: 'blender', units: 1 }] : [])],
          maxWaitMin: step.maxWaitMin,
          afterJobs: at === 0 ? after : [],
          frozen: null,
        }));
        const vesselIds = named.filter((vessel) => vessel.minFillL <= some.volumeL && some.volumeL <= vessel.workingMaxL).map((vessel) => vessel.id);
        const span = some.inVessel && vesselIds.length > 0 ? { vesselIds, firstStep: Math.min(some.spanFrom, steps.length - 1), lastStep: steps.length - 1 } : null;
        return { id: `j${String(index)}`, volumeL: some.volumeL, allergens: some.allergens, steps, span, releaseMin: some.releaseMin, readyByMin: some.readyByMin };
      }),
    };
  });
