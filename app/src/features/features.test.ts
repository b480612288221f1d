import { words } from '@broth/contract';
import { addMinutes, coolingVerdict, foldDay, makeSoup, makeStep, needFor, NO_COOLING_EVENTS } from '@broth/core';
import { rulesNow } from '../testing/rules';
import { planDay } from '@broth/core/planner';
import type { BatchRecord, DayEvent, DayPlan, Soup, Station, Step, Task } from '@broth/core';
import { areOfTheSame, hasSlipped, isWorthTelling, leansOnStopped, runsAhead } from '../state/usePlan';
import { boardGeometry } from './board/boardGeometry';
import { boxPath, hatchPath, ribbonPaths } from './board/boardPaths';
import { curveGeometry, forecastOf } from './log/curveGeometry';
import { countdown } from './now/countdown';
import { clockTap, doneEvents, startEvents } from './now/taskEvents';
import { dipstick } from './par/dipstickGeometry';

const T0 = 1_764_000_000_000;
const step = (id: string, some: Partial<Step> = {}): Step =>
  makeStep({ id, phase: 'simmer', name: id, attention: 'looks', duration: { lowMin: 20, highMin: 20, perLitreMin: 0 }, heat: 'low', maxWaitMin: 10, ...some });
const soup: Soup = makeSoup({
  id: 'beet',
  version: 2,
  name: 'Beet',
  toneHex: '#9B2C57',
  steps: [
    step('prep', { place: { kind: 'bench' }, phase: 'prep', maxWaitMin: 240 }),
    step('simmer'),
    step('blend', { place: { kind: 'blender', tool: 'jar' }, phase: 'blend' }),
    step('empty', { phase: 'hold', maxWaitMin: null }),
  ],
});
const station: Station = {
  equipment: [
    { kind: 'vessel', id: 'k1', name: 'Kettle 1', capacityL: 30, minFillL: 5, workingMaxL: 25, inUse: true },
    { kind: 'jar', id: 'j', name: 'Jar', capacityL: 2, hotFillL: 1.2, cycleMin: 2.5, inUse: true },
  ],
  people: [{ id: 'lead', name: 'Lead', role: 'lead', shift: { fromMin: 300, toMin: 800 } }],
  services: [{ id: 'midday', name: 'Midday', startMin: 690, endMin: 800 }],
  rinseMin: 5,
  fullWashMin: 12,
  readyLeadMin: 20,
  aimChance: null,
  laterBatches: false,
  altitudeM: 0,
  thermometers: [],
};
const par = { soupId: 'beet', parL: 12, serviceId: 'midday' };

describe('dipstick', () => {
  const lots = [{ id: 'a', soupId: 'beet', volumeL: 3, state: 'chilled', preparedOn: '2026-11-24', frozenDays: 0 }] as const;
  test('on hand, then what has to be made, up to the par', () => {
    expect(dipstick(needFor(par, lots, '2026-11-25', 7), 24)).toEqual({
      stretches: [
        { kind: 'chilled', from: 0, to: 0.125 },
        { kind: 'make', from: 0.125, to: 0.5 },
      ],
      par: 0.5,
      scaleL: 24,
    });
  });
  test('a par of nothing is an empty stick', () => {
    expect(dipstick(needFor({ ...par, parL: 0 }, [], '2026-11-25', 7), 0)).toEqual({ stretches: [], par: 0, scaleL: 1 });
  });
});

describe('ribbon board', () => {
  const plan = planDay({ date: '2026-11-25', nowMin: 0, soups: [soup], station, pars: [par], lots: [], started: [], dateMarkLastDay: 7 }, { seed: 1, moves: 0 });
  const board = boardGeometry(plan, station, new Map([['beet', soup]]), { pxPerL: 2, leastLane: 20, toolLane: 20, gap: 10 }, 4);
  test('the ribbon runs from bench to kettle to jar and back, and crosses each time', () => {
    expect(board.stretches.filter((stretch) => stretch.kind === 'step').map((stretch) => stretch.laneId)).toEqual(['bench', 'k1', 'j', 'k1']);
    expect(board.crossings).toHaveLength(3);
  });
  test('in its kettle it is as broad as its litres; the lane is as broad as the kettle', () => {
    expect([board.stretches.find((stretch) => stretch.stepId === 'simmer')?.breadth, board.lanes.find((lane) => lane.id === 'k1')?.breadth]).toEqual([24, 60]);
  });
  test('where a batch never stands in a kettle, the lane that carries its name is as broad as names need', () => {
    const scale = { pxPerL: 2, leastLane: 50, toolLane: 20, gap: 10 };
    const breadthOf = (given: typeof plan): number | undefined =>
      boardGeometry(given, station, new Map([['beet', soup]]), scale, 4).lanes.find((lane) => lane.id === 'bench')?.breadth;
    const cut = { ...plan, batches: plan.batches.map((batch) => ({ ...batch, vesselId: null, steps: batch.steps.slice(0, 1) })) };
    expect([breadthOf(plan), breadthOf(cut)]).toEqual([20, 50]);
    expect(boardGeometry(cut, station, new Map([['beet', soup]]), scale, 4).labels.map((label) => label.lane.id)).toEqual(['bench']);
  });
  test('while it is in the jar the kettle is still held, and every fill is a bead', () => {
    const away = board.stretches.find((stretch) => stretch.kind === 'away');
    const blend = board.stretches.find((stretch) => stretch.stepId === 'blend');
    expect([away?.laneId, away?.startMin, blend?.fills]).toEqual(['k1', blend?.startMin, 10]);
  });
  test('hands are taken while they are needed and never beyond those on shift', () => {
    expect(board.hands.filter((load) => load.used > load.capacity)).toEqual([]);
    expect(Math.max(...board.hands.map((load) => load.used))).toBeGreaterThan(0);
  });
  test('cutting that is put down lies there in between, and hands are free', () => {
    const paused = (startMin: number) => [
      { startMin, endMin: startMin + 12 },
      { startMin: startMin + 30, endMin: startMin + 38 },
    ];
    const uses = [{ resourceId: 'hands', units: 3 }];
    const batches = plan.batches.map((batch) => ({
      ...batch,
      steps: batch.steps.map((one, at) => (at === 0 ? { ...one, startMin: 400, endMin: 438, uses, parts: paused(400) } : one)),
    }));
    const drawn = boardGeometry({ ...plan, batches }, station, new Map([['beet', soup]]), { pxPerL: 2, leastLane: 20, toolLane: 20, gap: 10 }, 4);
    expect(drawn.stretches.filter(({ startMin }) => startMin < 438).map(({ laneId, kind, startMin, endMin }) => [laneId, kind, startMin, endMin])).toEqual([
      ['bench', 'wait', 412, 430],
      ['bench', 'step', 400, 412],
      ['bench', 'step', 430, 438],
    ]);
    expect(drawn.crossings[0]?.atMin).toBe(438);
    expect(drawn.hands.filter(({ toMin }) => toMin <= 438 && toMin > 400).map(({ used }) => used)).toEqual([3, 0, 3]);
  });
  // A px a minute, time down.
  const frame = {
    perMin: 1,
    time: (minute: number) => minute,
    lane: (at: number) => at,
    rect: (startMin: number, endMin: number, from: number, breadth: number) => ({ x: from, y: startMin, width: breadth, height: endMin - startMin }),
    point: (minute: number, at: number) => [at, minute] as const,
    width: 400,
    height: 1440,
  };
  test('what looks alike is one path: three stretches ahead in one, ten beads in one, the kettle held in one', () => {
    const paths = ribbonPaths(board.stretches, frame);
    const shapes = (path: string): number => path.split('z').length - 1;
    expect([shapes(paths.ahead), shapes(paths.begun), shapes(paths.beads), shapes(paths.away)]).toEqual([3, 0, 10, 1]);
  });
  test('a phase has its glyph where there is room for one', () => {
    const simmer = board.stretches.filter((stretch) => stretch.stepId === 'simmer');
    expect(ribbonPaths(simmer, frame).glyphs).toEqual([expect.objectContaining({ phase: 'simmer' })]);
    expect(
      ribbonPaths(
        simmer.map((stretch) => ({ ...stretch, endMin: stretch.startMin + 17 })),
        frame,
      ).glyphs,
    ).toEqual([]);
  });
  test('a box comes back to where it began, its corners never rounder than it is broad; hatching stays inside', () => {
    expect(boxPath({ x: 1, y: 2, width: 10, height: 20 }, 0)).toBe('M1.0 2.0h10.0v20.0h-10.0z');
    expect(boxPath({ x: 0, y: 0, width: 4, height: 20 }, 9)).toBe('M2.0 0.0h0.0a2 2 0 0 1 2 2v16.0a2 2 0 0 1 -2 2h-0.0a2 2 0 0 1 -2 -2v-16.0a2 2 0 0 1 2 -2z');
    const numbers = (hatchPath({ x: 10, y: 100, width: 30, height: 12 }, 5).match(/[\d.]+/g) ?? []).map(Number);
    const [across, along] = [numbers.filter((_, index) => index % 2 === 0), numbers.filter((_, index) => index % 2 === 1)];
    expect([Math.min(...across), Math.max(...across), Math.min(...along), Math.max(...along)]).toEqual([10, 40, 100, 112]);
  });
});

const B = '2026-11-25.beet.1';
let count = 0;
const event = <Kind extends DayEvent['kind']>(kind: Kind, minute: number, data: Extract<DayEvent, { kind: Kind }>['data']): DayEvent =>
  ({ id: `e${String((count += 1))}`, kind, day: '2026-11-25', at: addMinutes(T0, minute), by: 'lead', device: 'd', data }) as DayEvent;
function coolingBatch(...readings: readonly (readonly [number, number])[]): BatchRecord {
  const batch = foldDay([
    event('batch.started/1', -60, { batchId: B, soupId: 'beet', soupVersion: 1, name: 'Beet 1', ordinal: 1, volumeL: 12, vesselId: 'k1' }),
    event('cooling.started/1', 0, { batchId: B, placeId: 'bath', ambientC: 0 }),
    ...readings.map(([minute, value]) =>
      event('reading.taken/1', minute, { batchId: B, purpose: 'cool', reading: { value, unit: 'F', rawText: '' }, heldS: null, packId: 'p', packVersion: 1 }),
    ),
  ]).batches[B];
  if (batch === undefined) throw new Error('no batch');
  return batch;
}

describe('cooling curve', () => {
  const rules = rulesNow.cooling.cooked;
  const frame = { width: 356, height: 150, left: 56, bottom: 24 };
  const draw = (batch: BatchRecord, nowMin: number) => {
    const verdict = coolingVerdict({ readings: batch.readings, events: NO_COOLING_EVENTS, rules, now: addMinutes(T0, nowMin) });
    const forecast = forecastOf(batch, verdict, rules, 'F');
    return { curve: curveGeometry(batch, verdict, forecast, rules, 'F', frame), forecast };
  };
  test('a reading at the start limit lies where the stair begins', () => {
    const { curve } = draw(coolingBatch([0, 135], [30, 110]), 30);
    expect(curve.readings[0]).toMatchObject(curve.stair[0] ?? {});
  });
  test('colder lies lower, later lies to the right', () => {
    const [first, second] = draw(coolingBatch([0, 135], [30, 110]), 30).curve.readings;
    expect([(second?.x ?? 0) > (first?.x ?? 0), (second?.y ?? 0) > (first?.y ?? 0)]).toEqual([true, true]);
  });
  test('the forecast starts at the last reading and stays inside its band', () => {
    const { curve } = draw(coolingBatch([0, 135], [30, 100]), 30);
    const upper = curve.band.slice(0, curve.forecast.length);
    const lower = [...curve.band.slice(curve.forecast.length)].reverse();
    expect(curve.forecast[0]?.x).toBeCloseTo(curve.readings[1]?.x ?? 0, 6);
    expect(curve.forecast.filter((point, index) => point.y < (upper[index]?.y ?? 0) - 1e-6 || point.y > (lower[index]?.y ?? 0) + 1e-6)).toEqual([]);
  });
  test('one reading gives no forecast', () => {
    expect(draw(coolingBatch([0, 135]), 10).forecast).toBeNull();
  });
  test('whatever is read stays inside the frame', () => {
    const { curve } = draw(coolingBatch([0, 190], [400, 20]), 400);
    expect([...curve.readings, ...curve.stair].filter((point) => point.x < 0 || point.x > frame.width || point.y < 0 || point.y > frame.height)).toEqual([]);
  });
});

describe('a plan that has slipped', () => {
  const plan = planDay({ date: '2026-11-25', nowMin: 0, soups: [soup], station, pars: [par], lots: [], started: [], dateMarkLastDay: 7 }, { seed: 1, moves: 0 });
  const startMin = plan.batches[0]?.steps[0]?.startMin ?? 0;
  const id = plan.batches[0]?.id ?? '';
  const begun = [
    event('batch.started/1', startMin, { batchId: id, soupId: 'beet', soupVersion: 2, name: 'Beet 1', ordinal: 1, volumeL: 12, vesselId: 'k1' }),
    event('step.started/1', startMin, { batchId: id, stepId: 'prep' }),
  ];
  test.each([
    ['ten minutes late is still the plan', [], 10, false],
    ['eleven are not', [], 11, true],
    ['a step that runs may run its time and ten minutes', begun, 30, false],
    ['and no longer', begun, 31, true],
    ['what is finished cannot slip', [...begun, event('batch.finished/1', startMin + 5, { batchId: id, volumeOutL: 12 })], 500, false],
  ] as const)('%s', (_, events, afterMin, slipped) => {
    expect(hasSlipped(plan, foldDay(events), startMin + afterMin)).toBe(slipped);
  });
  const early = (byMin: number) => begun.map((one) => ({ ...one, at: addMinutes(one.at, -byMin) }));
  test.each([
    ['begun eleven minutes early', early(11), -11, true],
    ['ten are still the plan', early(10), -10, false],
    ['until the clock has caught up', early(60), -10, false],
    ['finished long before its time', [...early(60), event('batch.finished/1', startMin - 20, { batchId: id, volumeOutL: 12 })], -20, true],
    ['nothing begun is ahead of nothing', [], -60, false],
  ] as const)('a day ahead of its plan: %s', (_, events, afterMin, ahead) => {
    expect(runsAhead(plan, foldDay(events), startMin + afterMin)).toBe(ahead);
  });
});

describe('a plan that leans on what is out', () => {
  const plan = planDay({ date: '2026-11-25', nowMin: 0, soups: [soup], station, pars: [par], lots: [], started: [], dateMarkLastDay: 7 }, { seed: 1, moves: 0 });
  const id = plan.batches[0]?.id ?? '';
  const stopped = event('equipment.stopped/1', 100, { equipmentId: 'k1', reason: 'Broken' });
  const begun = event('batch.started/1', 90, { batchId: id, soupId: 'beet', soupVersion: 2, name: 'Beet 1', ordinal: 1, volumeL: 12, vesselId: 'k1' });
  test('says so while the batch is to come, and not of one that stands in it already', () => {
    expect([[], [stopped], [stopped, begun]].map((events) => leansOnStopped(plan, foldDay(events)))).toEqual([false, true, false]);
  });
});

describe('the batches of two plans', () => {
  const of = (parL: number): DayPlan =>
    planDay({ date: '2026-11-25', nowMin: 0, soups: [soup], station, pars: [{ ...par, parL }], lots: [], started: [], dateMarkLastDay: 7 }, { seed: 1, moves: 0 });
  const [one, two, more] = [of(20), of(40), of(44)];
  const without = (plan: DayPlan, at: number): DayPlan => ({
    ...plan,
    batches: plan.batches.filter((_, index) => index !== at),
    findings: plan.batches.filter((_, index) => index === at).map(({ id }) => ({ code: 'plan.unplaced', batchId: id })),
  });
  test.each([
    ['a plan and itself', two, two, true],
    ['one in which a batch finds no place', two, without(two, 1), true],
    ['two in which another finds none', without(two, 0), without(two, 1), true],
    ['one batch and two', one, two, false],
    ['other litres', two, more, false],
    ['other litres, one of them without a place', without(two, 0), without(more, 1), true],
    ['a batch that nobody wants any more', without(two, 1), one, false],
  ])('are the same, or not: %s', (_, left, right, same) => {
    expect([areOfTheSame(left, right), areOfTheSame(right, left)]).toEqual([same, same]);
  });
});

describe('a plan that is found after one was agreed on', () => {
  const one = planDay({ date: '2026-11-25', nowMin: 0, soups: [soup], station, pars: [{ ...par, parL: 40 }], lots: [], started: [], dateMarkLastDay: 7 }, { seed: 1, moves: 0 });
  const late = (lateMin: number, unplaced = 0, state: DayPlan['batches'][number]['state'] = 'planned'): DayPlan => ({
    ...one,
    batches: one.batches.map((batch, at) => ({ ...batch, state, lateMin: at === 0 ? lateMin : 0 })),
    findings: Array.from({ length: unplaced }, (_, index) => ({ code: 'plan.unplaced', batchId: String(index) })),
  });
  test.each([
    ['as good', late(10), late(10), false],
    ['a few minutes less late', late(10), late(6), false],
    ['much less late', late(10), late(5), true],
    ['later', late(5), late(10), false],
    ['less late in what is finished', late(10), late(0, 0, 'finished'), false],
    ['with more in it', late(0, 2), late(30, 1), true],
    ['with less in it', late(30, 1), late(0, 2), false],
  ])('is told of, or not: %s', (_, agreed, found, told) => {
    expect(isWorthTelling(agreed, found)).toBe(told);
  });
});

describe('taps on Now', () => {
  const task = (stepId: string, some: Partial<Task> = {}): Task => {
    const found = soup.steps.find((one) => one.id === stepId);
    if (found === undefined) throw new Error(stepId);
    return {
      batchId: B,
      soupId: 'beet',
      soupVersion: 2,
      batchName: 'Beet 1',
      volumeL: 12,
      vesselId: 'k1',
      placeIds: [],
      goes: [],
      step: found,
      state: 'running',
      plannedAt: null,
      startedAt: T0,
      waitsForClock: false,
      checkAt: addMinutes(T0, 18),
      limitAt: addMinutes(T0, 24),
      upAt: addMinutes(T0, 21),
      lookAt: null,
      waitUntil: null,
      personId: null,
      isLast: false,
      ...some,
    };
  };
  const never = (): boolean => false;
  const kinds = (events: readonly { kind: string }[]): string[] => events.map((one) => one.kind);
  test('starting a batch starts its first step', () => {
    expect(kinds(startEvents(task('prep', { state: 'toStart' }), soup))).toEqual(['batch.started/1', 'step.started/1']);
  });
  test('a step that must be followed at once starts the next by itself; one that keeps does not', () => {
    expect([kinds(doneEvents(task('simmer'), soup, 12, never)), kinds(doneEvents(task('prep'), soup, 12, never))]).toEqual([['step.done/1', 'step.started/1'], ['step.done/1']]);
  });
  test('"boil reached" begins what follows at once, unless that asks something first; a boil that ends its batch is no such tap', () => {
    const boiling = (isLast: boolean): Task => ({ ...task('simmer'), step: { ...step('simmer'), phase: 'boil' }, isLast });
    const tapped = (isLast: boolean, asks: boolean): unknown => clockTap(boiling(isLast), soup, () => asks)?.events.map((one) => one.kind) ?? null;
    expect([tapped(false, false), tapped(false, true), tapped(true, false)]).toEqual([['step.done/1', 'step.started/1'], ['step.done/1'], null]);
  });
  test('the last step ends the batch with the litres that came out', () => {
    expect(doneEvents(task('empty'), soup, 11.5, never)).toEqual([
      { kind: 'step.done/1', data: { batchId: B, stepId: 'empty' } },
      { kind: 'batch.finished/1', data: { batchId: B, volumeOutL: 11.5 } },
    ]);
  });
  test.each([
    [2, '16 min to check'],
    [16, '2:00 to check'],
    [18, 'check: 6 min left'],
    [22, 'check: 2:00 left'],
    [29, '5 min over'],
  ])('after %d min of 18 to 24 it says %p', (minute, says) => {
    expect(countdown(task('simmer'), addMinutes(T0, minute))).toBe(says);
  });
  test('the time to the boil counts up: nobody knows when', () => {
    const boiling = { ...task('simmer'), step: step('boil', { phase: 'boil' }) };
    expect(countdown(boiling, addMinutes(T0, 25))).toBe('25 min heating');
  });
  test.each([
    [1920, 'g', '1.92 kg'],
    [350, 'g', '350 g'],
    [7700, 'mL', '7.7 L'],
    [4.5, 'g', '4.5 g'],
  ] as const)('%d %s is %p', (amount, unit, text) => {
    expect(words.amountText(amount, unit)).toBe(text);
  });
});
