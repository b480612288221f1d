import fc from 'fast-check';
import { makeSoup, makeStep } from '../soup/index';
import type { Soup, Step } from '../soup/index';
import { stationWith } from '../testing/station';
import { checkDayPlan, curesOf, fitsStation, nameHands, planDay, storyOf, stretchesOf } from './index';
import type { DayInput, DayPlan, PlannedStep, StartedBatch } from './index';

const lasting = (lowMin: number, highMin = lowMin): Step['duration'] => ({ lowMin, highMin, perLitreMin: 0 });
const step = (id: string, some: Partial<Step> & Pick<Step, 'phase'>): Step =>
  makeStep({ id, name: id, place: { kind: 'vessel' }, attention: 'hands', duration: lasting(10), ...some });
const cut = (durationMin: number, some: Partial<Step> = {}): Step => step('cut', { phase: 'prep', place: { kind: 'bench' }, duration: lasting(durationMin), ...some });
const soup = (id: string, steps: readonly Step[]): Soup => makeSoup({ id, name: id, version: 1, served: 'cold', steps });
/** Ten minutes with hands, so long without, and ten with hands again, all at once. */
const potful = (id: string, cookMin: number): Soup =>
  soup(id, [
    step('load', { phase: 'sweat', maxWaitMin: 0 }),
    step('cook', { phase: 'simmer', attention: 'none', duration: lasting(cookMin), maxWaitMin: 0 }),
    step('empty', { phase: 'hold' }),
  ]);
const salad = (durationMin: number, some: Partial<Step> = {}): Soup => soup('salad', [cut(durationMin, some)]);

const dayWith = (soups: readonly Soup[], fromMin: number, interruptsCutting = true): DayInput => ({
  date: '2026-11-25',
  nowMin: 0,
  soups,
  station: stationWith({
    equipment: (['k1', 'k2', 'k3'] as const).map((id) => ({ kind: 'vessel', id, name: id, capacityL: 30, minFillL: 5, workingMaxL: 25, inUse: true })),
    people: [{ id: 'lead', name: 'Lead', role: 'lead', shift: { fromMin, toMin: 1000 } }],
    services: [{ id: 'midday', name: 'Midday', startMin: 690, endMin: 840 }],
    interruptsCutting,
  }),
  pars: soups.map(({ id }) => ({ soupId: id, parL: 10, serviceId: 'midday' })),
  lots: [],
  started: [],
  dateMarkLastDay: 7,
});
const planned = (input: DayInput, moves = 600): DayPlan => {
  const plan = planDay(input, { seed: 1, moves });
  expect(checkDayPlan(input, plan)).toEqual([]);
  return plan;
};
const cutOf = (plan: DayPlan, soupId = 'salad'): PlannedStep => {
  const found = plan.batches.find((batch) => batch.soupId === soupId)?.steps.find(({ stepId }) => stepId === 'cut');
  if (found === undefined) throw new Error('nothing is cut');
  return found;
};
const minutesAt = (one: PlannedStep): readonly number[] => stretchesOf(one).map(({ startMin, endMin }) => endMin - startMin);
const sum = (minutes: readonly number[]): number => minutes.reduce((total, one) => total + one, 0);
/** What has begun by a minute of a day that goes as planned. */
const begunBy = (plan: DayPlan, nowMin: number): readonly StartedBatch[] =>
  plan.batches
    .filter(({ steps: [first] }) => first !== undefined && first.startMin < nowMin)
    .map(({ id, soupId, soupVersion, ordinal, volumeL, vesselId, steps, readyMin }) => ({
      batchId: id,
      soupId,
      soupVersion,
      ordinal,
      volumeL,
      vesselId,
      state: readyMin <= nowMin ? ('finished' as const) : ('running' as const),
      steps: steps.filter(({ startMin }) => startMin < nowMin).map(({ stepId, startMin, endMin }) => ({ stepId, startMin, endMin: endMin <= nowMin ? endMin : null })),
    }));
const times = (plan: DayPlan): unknown =>
  plan.batches.map(({ id, steps }) => [id, steps.map((one) => [one.stepId, ...stretchesOf(one).map(({ startMin, endMin }) => [startMin, endMin])])]);

// Fifty minutes of hands in the fifty there are before both are wanted, but for the potful they are in two pieces.
const tight = (interruptsCutting: boolean): DayInput => dayWith([potful('pot', 20), salad(30)], 620, interruptsCutting);

describe('cutting that may be put down', () => {
  test('fills what the others leave of a pair of hands, where in one go it would be late', () => {
    const whole = planned(tight(false));
    expect([whole.objective.lateMin, minutesAt(cutOf(whole))]).toEqual([20, [30]]);
    const plan = planned(tight(true));
    expect([plan.objective.lateMin, [...minutesAt(cutOf(plan))].sort()]).toEqual([0, [10, 20]]);
    expect(nameHands(plan, tight(true).station.people).filter(({ stepId }) => stepId === 'cut')).toMatchObject(
      stretchesOf(cutOf(plan)).map(({ startMin, endMin }) => ({ startMin, endMin, personId: 'lead' })),
    );
    expect(storyOf(tight(true), plan).chanceOfAll).toBe(1);
  });
  test('is asked for among what would help', () => {
    const last = [...curesOf(tight(false), planned(tight(false)), { seed: 1, moves: 200 })].at(-1);
    expect(last?.cures.find(({ whatIf }) => whatIf.kind === 'cutting')).toMatchObject({ gainsMin: 20, lateMin: 0 });
    const none = [...curesOf(tight(true), planned(tight(true)), { seed: 1, moves: 20 })].at(-1);
    expect(none?.cures.some(({ whatIf }) => whatIf.kind === 'cutting')).toBe(false);
  });
  test('is not put down for nothing, nor for less than ten minutes', () => {
    expect(minutesAt(cutOf(planned(dayWith([potful('pot', 20), salad(30)], 300))))).toEqual([30]);
    // Of nineteen minutes no two goes are ten.
    expect(minutesAt(cutOf(planned(dayWith([potful('pot', 20), salad(19)], 631))))).toEqual([19]);
  });
  test('what is cut first waits no longer for the pot than if all were cut at once', () => {
    const stew = (maxWaitMin: number | null): Soup => soup('salad', [cut(30, { maxWaitMin }), step('cook', { phase: 'simmer', duration: lasting(20) })]);
    // The first ten minutes are free, and then not before the pot is emptied.
    const busy = soup('pot', [step('load', { phase: 'sweat', duration: lasting(60) })]);
    for (const maxWaitMin of [null, 40, 5]) {
      const plan = planned(dayWith([busy, stew(maxWaitMin)], 590));
      const cooked = plan.batches.find(({ soupId }) => soupId === 'salad')?.steps[1];
      if (cooked === undefined) throw new Error('nothing is cooked');
      if (maxWaitMin !== null) expect(cooked.startMin - cutOf(plan).startMin).toBeLessThanOrEqual(30 + maxWaitMin);
      else expect(stretchesOf(cutOf(plan)).length).toBeLessThanOrEqual(3);
    }
  });
  test('somebody has put it where it is: then it is done in one go', () => {
    const before = planned(tight(true));
    const batchId = before.batches.find(({ soupId }) => soupId === 'salad')?.id ?? '';
    const pinned = planned({ ...tight(true), pins: [{ batchId, stepId: 'cut', startMin: 625, vesselId: null }] });
    expect(stretchesOf(cutOf(pinned)).map(({ startMin, endMin }) => [startMin, endMin])).toEqual([[625, 655]]);
  });
});

describe('cutting that is under way', () => {
  test.each([1, 5, 12, 25, 33, 39])('%i minutes after the day began as planned, nothing of it moves', (afterMin) => {
    const agreed = planned(tight(true));
    const now = { ...tight(true), nowMin: 620 + afterMin, started: begunBy(agreed, 620 + afterMin), agreed };
    const plan = planned(now, 0);
    expect(times(plan)).toEqual(times(agreed));
    expect(fitsStation(now, agreed)).toBe(true);
  });
  test('in one go, by the plan, is not put down', () => {
    const agreed = planned(tight(false));
    const { id, soupId, soupVersion, ordinal, volumeL } = agreed.batches.find((batch) => batch.soupId === 'salad')!;
    const started: StartedBatch[] = [
      { batchId: id, soupId, soupVersion, ordinal, volumeL, vesselId: null, state: 'running', steps: [{ stepId: 'cut', startMin: 621, endMin: null }] },
    ];
    const plan = planned({ ...tight(true), nowMin: 625, started, agreed });
    expect(stretchesOf(cutOf(plan)).map(({ startMin, endMin }) => [startMin, endMin])).toEqual([[621, 651]]);
  });
  test('begun late, a go is as long as it was to be; what is given more time takes it at the end', () => {
    const agreed = planned(tight(true));
    const first = stretchesOf(cutOf(agreed))[0]!;
    const [batch] = begunBy(agreed, first.startMin + 1).filter(({ soupId }) => soupId === 'salad');
    const late = { ...batch!, steps: [{ stepId: 'cut', startMin: first.startMin + 4, endMin: null, extendedMin: 6 }] };
    const plan = planned({ ...tight(true), nowMin: first.startMin + 6, started: [late], agreed });
    const one = cutOf(plan);
    expect([one.startMin, sum(minutesAt(one))]).toEqual([first.startMin + 4, 36]);
  });
});

test('days of any soups: every plan holds, goes are ten minutes and more and come to the whole, also from any minute of the day on', () => {
  const soups = fc.array(
    fc.record({ cutMin: fc.integer({ min: 5, max: 50 }), cookMin: fc.integer({ min: 5, max: 40 }), maxWaitMin: fc.constantFrom(null, 0, 30, 120), pot: fc.boolean() }),
    { minLength: 3, maxLength: 6 },
  );
  let paused = 0;
  fc.assert(
    fc.property(soups, fc.integer({ min: 1, max: 300 }), (given, afterMin) => {
      const made = given.map(({ cutMin, cookMin, maxWaitMin, pot }, index) =>
        soup(`s${String(index)}`, [cut(cutMin, { maxWaitMin, duration: lasting(cutMin, cutMin + 8) }), ...(pot ? potful('any', cookMin).steps : [])]),
      );
      const input = dayWith(made, 580);
      const whole = planDay({ ...input, station: { ...input.station, interruptsCutting: false } }, { seed: 1, moves: 0 });
      const holds = (plan: DayPlan, nowMin = 0): void => {
        for (const { soupId } of plan.batches) {
          const [goes, all] = [minutesAt(cutOf(plan, soupId)), minutesAt(cutOf(whole, soupId))];
          // Of what is done only its start and its end are known.
          if (cutOf(plan, soupId).frozen && cutOf(plan, soupId).endMin <= nowMin) continue;
          expect(sum(goes)).toBe(sum(all));
          if (goes.length > 1) {
            paused += 1;
            expect(Math.min(...goes)).toBeGreaterThanOrEqual(10);
          }
        }
      };
      const plan = planned(input);
      holds(plan);
      expect(planned({ ...input, agreed: plan }, 0).objective.cost).toBeLessThanOrEqual(plan.objective.cost);
      const nowMin = 580 + afterMin;
      holds(planned({ ...input, nowMin, started: begunBy(plan, nowMin), agreed: plan }), nowMin);
    }),
    { numRuns: 60, seed: 5 },
  );
  expect(paused).toBeGreaterThan(20);
});
