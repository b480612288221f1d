import type { Equipment } from '../batch/index';
import { makeLine, makeSoup, makeStep } from '../soup/index';
import type { Soup } from '../soup/index';
import { MOVED_UNIT_MIN } from '../sequence/index';
import { stationWith } from '../testing/station';
import { ANOTHER_VESSEL_MIN, checkDayPlan, curesOf, movedPins, planDay, planDifference, storyOf, unpinned, vesselsFor } from './index';
import type { Cures, DayInput, DayPlan } from './index';

const kettle = (id: string, workingMaxL: number): Equipment => ({ kind: 'vessel', id, name: id, capacityL: workingMaxL + 5, minFillL: 2, workingMaxL, inUse: true });
const station = stationWith({
  equipment: [kettle('k1', 25), kettle('k2', 12)],
  people: [{ id: 'lead', name: 'Lead', role: 'lead', shift: { fromMin: 300, toMin: 800 } }],
  services: [{ id: 'midday', name: 'Midday', startMin: 690, endMin: 840 }],
});
const cook = { phase: 'simmer', attention: 'looks', duration: { lowMin: 35, highMin: 45, perLitreMin: 0 }, heat: 'low', maxWaitMin: 10 } as const;
const soup = (id: string): Soup =>
  makeSoup({
    id,
    name: id,
    shortName: id,
    version: 1,
    steps: [
      makeStep({ id: 'cut', name: 'cut', phase: 'prep', place: { kind: 'bench' }, attention: 'hands', duration: { lowMin: 10, highMin: 10, perLitreMin: 0 } }),
      makeStep({ id: 'cook', name: 'cook', ...cook }),
      makeStep({ id: 'empty', name: 'empty', ...cook, attention: 'hands', duration: { lowMin: 5, highMin: 5, perLitreMin: 0 } }),
    ],
  });
const soups = ['a', 'b', 'c'].map(soup);
const input: DayInput = {
  date: '2026-11-25',
  nowMin: 300,
  soups,
  station,
  pars: soups.map(({ id }) => ({ soupId: id, parL: 10, serviceId: 'midday' })),
  lots: [],
  started: [],
  dateMarkLastDay: 7,
};
const inVessel = (stepId: string): boolean => stepId !== 'cut';
const plan = planDay(input, { seed: 1, moves: 1500 });
const A = '2026-11-25.a.1';
const startOf = (given: DayPlan, stepId: string): number | undefined => given.batches.find((batch) => batch.id === A)?.steps.find((step) => step.stepId === stepId)?.startMin;
const moved = (byMin: number, vesselId: string | null = null, from: DayPlan = plan): DayInput => ({
  ...input,
  agreed: from,
  pins: movedPins(from, A, { byMin, vesselId }, inVessel) ?? [],
});

describe('a batch moved by hand', () => {
  test('stands where it was put, in the kettle it was put in, and the rest is planned around it', () => {
    const given = moved(-60, 'k2');
    const again = planDay(given, { seed: 1, moves: 200 });
    expect([startOf(again, 'cook'), again.batches.find((batch) => batch.id === A)?.vesselId]).toEqual([(startOf(plan, 'cook') ?? 0) - 60, 'k2']);
    expect(checkDayPlan(given, again)).toEqual([]);
    expect(again.pins).toEqual([{ batchId: A, stepId: 'cook', startMin: (startOf(plan, 'cook') ?? 0) - 60, vesselId: 'k2' }]);
  });
  test('moved again there is one pin, and it remembers its kettle; let go there is none', () => {
    const once = planDay(moved(-60, 'k2'), { seed: 1, moves: 20 });
    const twice = movedPins(once, A, { byMin: 10, vesselId: null }, inVessel);
    expect(twice).toEqual([{ batchId: A, stepId: 'cook', startMin: (startOf(plan, 'cook') ?? 0) - 50, vesselId: 'k2' }]);
    expect(unpinned(once.pins, A)).toEqual([]);
  });
  const dropped = (given: DayPlan) => given.findings.flatMap((found) => (found.code === 'plan.pinDropped' ? [[found.stepId, found.soonestMin]] : []));
  test('where its own steps leave no room it is not put, and the reason says where it could stand', () => {
    const pins = [{ batchId: A, stepId: 'cook', startMin: 305, vesselId: null }];
    expect(dropped(planDay({ ...input, pins }, { seed: 1, moves: 5 }))).toEqual([['cook', 310]]);
  });
  test('where nobody is there any more it is let go rather than lost', () => {
    const again = planDay(moved(400), { seed: 1, moves: 5 });
    expect([dropped(again), again.pins, again.batches.length]).toEqual([[['cook', null]], [], 3]);
  });
  test('what has begun cannot be moved to another kettle, and what is over not at all', () => {
    const [batch] = plan.batches;
    if (batch === undefined) throw new Error('no batch');
    expect(vesselsFor(batch, station)).toEqual(['k1', 'k2']);
    expect(vesselsFor({ ...batch, state: 'running' }, station)).toEqual([batch.vesselId]);
    const over = { ...plan, batches: plan.batches.map((one) => ({ ...one, steps: one.steps.map((step) => ({ ...step, frozen: true })) })) };
    expect(movedPins(over, A, { byMin: 5, vesselId: null }, inVessel)).toBeNull();
  });
  test('a plan begun from the one that is agreed stays it where nothing asks for more', () => {
    expect(planDifference(plan, planDay({ ...input, agreed: plan }, { seed: 9, moves: 50 }))).toMatchObject({ changes: [], lateMin: 0, same: 3 });
  });
});

describe('what a change is told as', () => {
  test('later, late, gone, new', () => {
    const later = planDay(moved(90), { seed: 1, moves: 100 });
    const told = planDifference(plan, later);
    expect(told.changes.find((change) => change.batchId === A)).toMatchObject({ kind: 'moved', wasLateMin: 0 });
    expect(told.lateMin).toBe(later.objective.lateMin - plan.objective.lateMin);
    const without = { ...plan, batches: plan.batches.filter((batch) => batch.id !== A) };
    expect(planDifference(plan, without).changes).toEqual([{ kind: 'gone', batchId: A, name: 'a 1' }]);
    expect(planDifference(without, plan).changes).toEqual([{ kind: 'added', batchId: A }]);
  });
  test('ready as before, but begun sooner: told after all else, and not for a minute or two', () => {
    const begun = (byMin: readonly number[]): DayPlan => ({
      ...plan,
      batches: plan.batches.map((batch, at) => ({
        ...batch,
        steps: batch.steps.map((step, index) => (index === 0 ? { ...step, startMin: step.startMin + (byMin[at] ?? 0) } : step)),
      })),
    });
    expect(planDifference(plan, begun([-12, -4, 5])).changes).toEqual([
      { kind: 'begins', batchId: plan.batches[0]?.id, byMin: -12 },
      { kind: 'begins', batchId: plan.batches[2]?.id, byMin: 5 },
    ]);
    expect(planDifference(plan, begun([-4])).same).toBe(3);
  });
  test('ready at another time, and begun still further away: both are told', () => {
    const [first] = plan.batches;
    const after = (readyMin: number, beginsMin: number): DayPlan => ({
      ...plan,
      batches: plan.batches.map((batch) =>
        batch.id !== first?.id
          ? batch
          : { ...batch, readyMin: batch.readyMin + readyMin, steps: batch.steps.map((step, index) => (index === 0 ? { ...step, startMin: step.startMin + beginsMin } : step)) },
      ),
    });
    expect([after(-5, -129), after(40, 0), after(-5, -34)].map((one) => planDifference(plan, one).changes)).toMatchObject([
      [{ kind: 'moved', byMin: -5, beginsByMin: -129 }],
      [{ kind: 'moved', byMin: 40, beginsByMin: 0 }],
      [{ kind: 'moved', byMin: -5, beginsByMin: null }],
    ]);
  });
  test('the largest first: another vessel weighs as little as ten minutes', () => {
    expect(ANOTHER_VESSEL_MIN).toBe(MOVED_UNIT_MIN);
    const byMin = [3, 25, 0];
    const after = plan.batches.map((batch, at) => ({
      ...batch,
      readyMin: batch.readyMin + (byMin[at] ?? 0),
      vesselId: at === 2 ? (batch.vesselId === 'k1' ? 'k2' : 'k1') : batch.vesselId,
    }));
    expect(planDifference(plan, { ...plan, batches: after }).changes.map(({ kind, batchId }) => [kind, batchId])).toEqual(
      [
        ['moved', 1],
        ['vessel', 2],
        ['moved', 0],
      ].map(([kind, at]) => [kind, plan.batches[Number(at)]?.id]),
    );
  });
});

describe('a batch moved earlier', () => {
  test.each([null, 0.9])('moves whole, and does not stand with a wait in its middle (aim %s)', (aimChance) => {
    const day = { ...input, station: { ...input.station, aimChance } };
    const base = planDay(day, { seed: 1, moves: 300 });
    for (const byMin of [-5, -20, -45]) {
      const pins = movedPins(base, A, { byMin, vesselId: null }, inVessel) ?? [];
      const made = planDay({ ...day, pins, agreed: base }, { seed: 1, moves: 300 });
      expect([made.pins, made.findings.map((found) => found.code)]).toEqual([pins, []]);
      // 40 minutes of cooking and 5 of emptying from where it was put.
      expect(made.batches.find((batch) => batch.id === A)?.readyMin).toBe((startOf(base, 'cook') ?? 0) + byMin + 45);
    }
  });
  test('let go again, the room of being moved does not stay', () => {
    const base = planDay(input, { seed: 1, moves: 300 });
    const pins = movedPins(base, A, { byMin: -45, vesselId: null }, inVessel) ?? [];
    const made = planDay({ ...input, pins, agreed: base }, { seed: 1, moves: 300 });
    expect(made.batches.find((batch) => batch.id === A)?.bufferMin).toBeGreaterThan(0);
    const back = planDay({ ...input, pins: [], agreed: made }, { seed: 1, moves: 300 });
    expect(back.batches.find((batch) => batch.id === A)?.bufferMin).toBe(0);
  });
});

describe('room that was agreed', () => {
  test('a change by hand keeps it, so that nothing moves for other room alone; another aim measures it anew', () => {
    const day = { ...input, station: { ...input.station, aimChance: 0.9 } };
    const agreed = planDay(day, { seed: 1, moves: 300 });
    const room = (plan: DayPlan): readonly (readonly [string, number])[] => plan.batches.map((batch) => [batch.id, batch.bufferMin] as const).sort();
    const again = planDay({ ...day, agreed, pins: agreed.pins }, { seed: 2, moves: 600 });
    expect(room(again)).toEqual(room(agreed));
    const surer = planDay({ ...day, station: { ...day.station, aimChance: 0.99 }, agreed }, { seed: 2, moves: 600 });
    const total = (plan: DayPlan): number => plan.batches.reduce((sum, batch) => sum + batch.bufferMin, 0);
    expect(total(surer)).toBeGreaterThanOrEqual(total(agreed));
  });
});

describe('what a plan knows of itself', () => {
  test('slack, chance and cause of each batch, and a bound below its lateness', () => {
    const late = planDay(moved(120), { seed: 1, moves: 100 });
    const story = storyOf({ ...input, pins: late.pins }, late);
    expect(story.batches.map((batch) => batch.batchId).sort()).toEqual(late.batches.map((batch) => batch.id).sort());
    expect(story.batches.find((batch) => batch.batchId === A)?.chance).toBe(0);
    expect(story.batches.find((batch) => batch.batchId === A)?.binding.map((one) => one.kind)).toContain('pin');
    expect(late.findings.filter((found) => found.code === 'plan.late')).toMatchObject([{ batchId: A, waitedFor: null, pinned: true }]);
    let found: Cures | null = null;
    for (const one of curesOf(input, late, { seed: 1, moves: 100 })) found = one;
    expect(found?.cures[0]).toMatchObject({ whatIf: { kind: 'letGo', batchId: A }, lateMin: 0 });
    expect(story.leastLateMin).toBeLessThanOrEqual(story.lateMin);
  });
});

describe('what would help', () => {
  test('a day of one kettle and one hour too little: a second kettle does, a faster wash a little, a cook does not; nothing makes it worse', () => {
    const tight: DayInput = { ...input, nowMin: 545, station: { ...station, equipment: [kettle('k1', 25)] } };
    const base = planDay(tight, { seed: 1, moves: 200 });
    expect(base.objective.lateMin).toBeGreaterThan(0);
    let found: Cures | null = null;
    for (const one of curesOf(tight, base, { seed: 1, moves: 60 })) found = one;
    const gain = (kind: string): number => found?.cures.find((cure) => cure.whatIf.kind === kind)?.gainsMin ?? -1;
    expect(gain('equipment')).toBeGreaterThan(0);
    expect(gain('without')).toBeGreaterThan(0);
    expect(gain('cook')).toBe(0);
    expect(found?.cures.every((cure) => cure.lateMin <= base.objective.lateMin)).toBe(true);
  });
  test('a stock that takes long in the one kettle it fits: in two batches side by side it is ready sooner', () => {
    const slow = { ...cook, attention: 'none' as const, duration: { lowMin: 10, highMin: 10, perLitreMin: 2 } };
    const empty = makeStep({ id: 'empty', name: 'empty', ...cook, attention: 'hands', duration: { lowMin: 5, highMin: 5, perLitreMin: 0 } });
    const stock = makeSoup({ id: 'stock', name: 'stock', shortName: 'stock', version: 1, role: 'component', steps: [makeStep({ id: 'cook', name: 'cook', ...slow }), empty] });
    const line = makeLine({ id: 'stock', name: 'stock', amount: { low: 1, high: 1, unit: 'L' }, componentId: 'stock', stepId: 'cook' });
    const taking: Soup = { ...soup('a'), makesL: 1, ingredients: [line] };
    const day: DayInput = { ...input, nowMin: 600, soups: [taking, stock], pars: [{ soupId: 'a', parL: 20, serviceId: 'midday' }] };
    const base = planDay(day, { seed: 1, moves: 100 });
    expect(base.batches.map(({ id, vesselId }) => [id, vesselId])).toEqual([
      ['2026-11-25.stock.1', 'k1'],
      [A, 'k1'],
    ]);
    const found = [...curesOf(day, base, { seed: 1, moves: 60 })].at(-1);
    const cure = found?.cures.find(({ whatIf }) => whatIf.kind === 'split' && whatIf.split.soupId === 'stock');
    const split = planDay({ ...day, splits: [{ soupId: 'stock', batches: 2 }] }, { seed: 1, moves: 100 });
    // Twenty minutes of cooking less, one emptying of five more.
    expect(split.batches).toHaveLength(3);
    expect(base.objective.lateMin - split.objective.lateMin).toBe(15);
    expect(cure).toMatchObject({ whatIf: { split: { batches: 2 } }, lateMin: split.objective.lateMin, gainsMin: 15 });
  });
});
