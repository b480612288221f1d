import fc from 'fast-check';
import { addMinutes, foldDay, startedBatches } from '@broth/core';
import { checkDayPlan, planDay } from '@broth/core/planner';
import type { DayEvent, DayInput, DayPlan, PlannedBatch } from '@broth/core';
import { demo } from './index';

/** The demo day, with pars, equipment and progress drawn at random: whatever happens, what is planned can be cooked. */

const DAY = '2026-11-25';
const T0 = 1_764_000_000_000;
const SEED = 20_261_124;

const anyPars = fc.tuple(
  ...demo.standingPars.map((par) =>
    fc.oneof({ weight: 1, arbitrary: fc.constant(0) }, { weight: 4, arbitrary: fc.integer({ min: 1, max: 60 }) }).map((parL) => ({ ...par, parL })),
  ),
);
const anyStation = fc.array(fc.boolean(), { minLength: demo.station.equipment.length, maxLength: demo.station.equipment.length }).map((broken) => ({
  ...demo.station,
  // Two coins must both fall badly: most days most things work.
  equipment: demo.station.equipment.map((thing, index) => ({ ...thing, inUse: !(broken[index] === true && broken[(index + 1) % broken.length] === true) })),
}));
const anyDay: fc.Arbitrary<DayInput> = fc
  .record({ pars: anyPars, station: anyStation, nowMin: fc.integer({ min: -300, max: 900 }) })
  .map((some) => ({ date: DAY, soups: demo.soups, lots: demo.lots(DAY), started: [], dateMarkLastDay: 7, ...some }));

/** Cooks the plan up to a minute of the day: what should have begun has, what should be done is, each `lateMin` late. */
function cookedUntil(plan: DayPlan, nowMin: number, lateMin: number): DayInput['started'] {
  const event = (id: string, minute: number, rest: Pick<DayEvent, 'kind' | 'data'>): DayEvent =>
    ({ id, day: DAY, at: addMinutes(T0, minute), by: 'maren', device: 'd', ...rest }) as DayEvent;
  const of = (batch: PlannedBatch): DayEvent[] => {
    const { id: batchId, soupId, soupVersion, name, ordinal, volumeL, vesselId } = batch;
    const begun = batch.steps.filter((step) => step.startMin + lateMin <= nowMin);
    const [first] = begun;
    if (first === undefined) return [];
    const last = batch.steps.at(-1);
    return [
      event(`${batchId} start`, first.startMin + lateMin, { kind: 'batch.started/1', data: { batchId, soupId, soupVersion, name, ordinal, volumeL, vesselId } }),
      ...begun.flatMap((step) => [
        event(`${batchId} ${step.stepId} start`, step.startMin + lateMin, { kind: 'step.started/1', data: { batchId, stepId: step.stepId } }),
        ...(step.endMin + lateMin <= nowMin
          ? [event(`${batchId} ${step.stepId} done`, step.endMin + lateMin, { kind: 'step.done/1', data: { batchId, stepId: step.stepId } })]
          : []),
      ]),
      ...(last !== undefined && last.endMin + lateMin <= nowMin
        ? [event(`${batchId} end`, last.endMin + lateMin, { kind: 'batch.finished/1', data: { batchId, volumeOutL: volumeL } })]
        : []),
    ];
  };
  return startedBatches(foldDay(plan.batches.flatMap(of)), T0);
}

describe('whatever the day brings', () => {
  test('law: the plan holds up to the checker, and is the same when asked again', () => {
    fc.assert(
      fc.property(anyDay, (input) => {
        const plan = planDay(input, { seed: 1, moves: 3 });
        expect(checkDayPlan(input, plan)).toEqual([]);
        expect(planDay(input, { seed: 1, moves: 3 })).toEqual(plan);
      }),
      { seed: SEED, numRuns: 60 },
    );
  });
  test('law: every need is met by its batches and what is on hand, or the plan says why not', () => {
    fc.assert(
      fc.property(anyDay, (input) => {
        const plan = planDay(input, { seed: 1, moves: 0 });
        const excused = new Set(plan.findings.flatMap((finding) => ('soupId' in finding ? [finding.soupId] : 'batchId' in finding ? [finding.batchId.split('.')[1] ?? ''] : [])));
        const short = plan.needs.filter((need) => {
          const cookedL = plan.batches.filter((batch) => batch.soupId === need.soupId).reduce((sum, batch) => sum + batch.volumeL, 0);
          return cookedL + need.onHandL < need.parL - 1e-9 && !excused.has(need.soupId);
        });
        expect(short).toEqual([]);
      }),
      { seed: SEED, numRuns: 60 },
    );
  });
  test('law: a batch is never in a vessel that is out of use, too small or too large for it', () => {
    fc.assert(
      fc.property(anyDay, (input) => {
        const wrong = planDay(input, { seed: 1, moves: 0 }).batches.filter((batch) => {
          const vessel = input.station.equipment.find((thing) => thing.id === batch.vesselId);
          return batch.vesselId !== null && (vessel?.kind !== 'vessel' || !vessel.inUse || batch.volumeL < vessel.minFillL || batch.volumeL > vessel.workingMaxL);
        });
        expect(wrong).toEqual([]);
      }),
      { seed: SEED, numRuns: 60 },
    );
  });
  test('law: planned again in mid-day, what has begun keeps its place and the rest can still be cooked', () => {
    fc.assert(
      fc.property(anyPars, fc.integer({ min: 300, max: 1000 }), fc.integer({ min: 0, max: 30 }), (pars, nowMin, lateMin) => {
        const morning: DayInput = { date: DAY, nowMin: 300, soups: demo.soups, station: demo.station, pars, lots: demo.lots(DAY), started: [], dateMarkLastDay: 7 };
        const started = cookedUntil(planDay(morning, { seed: 1, moves: 0 }), nowMin, lateMin);
        const midDay: DayInput = { ...morning, nowMin, started };
        const plan = planDay(midDay, { seed: 1, moves: 2 });
        expect(checkDayPlan(midDay, plan)).toEqual([]);
        const moved = started.filter((batch) => {
          const planned = plan.batches.find((one) => one.id === batch.batchId);
          return (
            planned !== undefined &&
            (planned.vesselId !== batch.vesselId || batch.steps.some((step) => planned.steps.find((one) => one.stepId === step.stepId)?.startMin !== step.startMin))
          );
        });
        expect(moved).toEqual([]);
      }),
      { seed: SEED, numRuns: 60 },
    );
  });
  test('law: a discarded batch is made up for, and its litres are asked for again', () => {
    const morning: DayInput = { date: DAY, nowMin: 300, soups: demo.soups, station: demo.station, pars: demo.standingPars, lots: demo.lots(DAY), started: [], dateMarkLastDay: 7 };
    const plan = planDay(morning, { seed: 1, moves: 0 });
    const [lentil] = cookedUntil(plan, 1000, 0).filter((batch) => batch.soupId === 'lentil');
    if (lentil === undefined) throw new Error('the lentils were not cooked');
    const again = planDay({ ...morning, nowMin: 600, started: [{ ...lentil, state: 'discarded' }] }, { seed: 1, moves: 0 });
    expect(again.batches.filter((batch) => batch.soupId === 'lentil').map((batch) => [batch.id, batch.volumeL])).toEqual([[`${DAY}.lentil.2`, 18]]);
  });
});
