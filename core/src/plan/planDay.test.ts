import fc from 'fast-check';
import type { Equipment } from '../batch/index';
import { makeLine, makeSoup, makeStep } from '../soup/index';
import type { Soup, Step } from '../soup/index';
import { stationWith } from '../testing/station';
import { UNITS_PER_PERSON, checkDayPlan, fitsStation, nameHands, planDay, storyOf } from './index';
import type { DayInput, DayPlan, PlanFinding } from './index';

const step = (id: string, some: Partial<Step> = {}): Step =>
  makeStep({ id, phase: 'simmer', name: id, attention: 'looks', duration: { lowMin: 20, highMin: 20, perLitreMin: 0 }, heat: 'low', maxWaitMin: 10, ...some });
const soup = (id: string, some: Partial<Soup> = {}): Soup => makeSoup({ id, name: id, version: 3, steps: [step('cook'), step('empty', { attention: 'hands' })], ...some });
const takesStock = soup('lentil', {
  ingredients: [makeLine({ id: 'stock', name: 'stock', amount: { low: 500, high: 500, unit: 'mL' }, componentId: 'stock', stepId: 'cook' })],
});
const stock = soup('stock', { role: 'component' });
const jarSoup = soup('beet', { steps: [step('cook'), step('blend', { place: { kind: 'blender', tool: 'jar' } }), step('empty')] });
const kettle = (some: Partial<Extract<Equipment, { kind: 'vessel' }>> = {}): Equipment => ({
  kind: 'vessel',
  id: 'k1',
  name: 'Kettle 1',
  capacityL: 30,
  minFillL: 5,
  workingMaxL: 25,
  inUse: true,
  ...some,
});
const station = stationWith({
  equipment: [kettle()],
  people: [{ id: 'lead', name: 'Lead', role: 'lead', shift: { fromMin: 300, toMin: 800 } }],
  services: [{ id: 'midday', name: 'Midday', startMin: 690, endMin: 840 }],
});
const input = (some: Partial<DayInput>): DayInput => ({
  date: '2026-11-25',
  nowMin: 0,
  soups: [takesStock, stock, jarSoup],
  station,
  pars: [],
  lots: [],
  started: [],
  dateMarkLastDay: 7,
  ...some,
});
const par = (soupId: string, parL: number) => ({ soupId, parL, serviceId: 'midday' });
const plan = (some: Partial<DayInput>): DayPlan => planDay(input(some), { seed: 1, moves: 20 });
const codes = (made: DayPlan): PlanFinding['code'][] => made.findings.map((finding) => finding.code);

describe('a day from its pars', () => {
  test('the batch, its stock first, ready its lead time before service', () => {
    const made = plan({ pars: [par('lentil', 18)] });
    expect(made.batches.map((batch) => [batch.id, batch.volumeL, batch.vesselId, batch.readyMin])).toEqual([
      ['2026-11-25.stock.1', 9, 'k1', 625],
      ['2026-11-25.lentil.1', 18, 'k1', 670],
    ]);
    expect(made.components).toMatchObject([{ componentId: 'stock', demandL: 9, needL: 9 }]);
    expect(checkDayPlan(input({ pars: [par('lentil', 18)] }), made)).toEqual([]);
  });
  test('what is on hand in date is not cooked again', () => {
    const lots = [{ id: 'a', soupId: 'lentil', volumeL: 18, state: 'chilled', preparedOn: '2026-11-24', frozenDays: 0 }] as const;
    expect(plan({ pars: [par('lentil', 18)], lots }).batches).toEqual([]);
  });
  test.each<readonly [string, Partial<DayInput>, readonly PlanFinding['code'][]]>([
    ['a step whose blender the station lacks', { pars: [par('beet', 10)] }, ['station.lacks']],
    ['a kettle out of use', { pars: [par('lentil', 10)], station: { ...station, equipment: [kettle({ inUse: false })] } }, ['station.lacks', 'station.lacks']],
    ['more than a day can hold', { pars: [par('lentil', 900)] }, ['batch.tooMany']],
    ['less than a vessel takes', { pars: [par('lentil', 2)] }, ['batch.surplus', 'batch.surplus']],
    [
      'a hot soup whose well is out of use',
      { pars: [par('lentil', 10)], station: { ...station, equipment: [kettle(), { kind: 'well', id: 'w1', name: 'Well', capacityL: 10, inUse: false }] } },
      ['station.wells'],
    ],
    ['a start too late for service', { pars: [par('lentil', 10)], nowMin: 660 }, ['plan.late']],
    ['nobody on shift any more', { pars: [par('lentil', 10)], nowMin: 810 }, ['station.nobody', 'plan.unplaced', 'plan.leftOut']],
    [
      'a lot past its date',
      { pars: [par('lentil', 10)], lots: [{ id: 'a', soupId: 'lentil', volumeL: 9, state: 'chilled', preparedOn: '2026-11-18', frozenDays: 0 }] },
      ['lot.pastDate'],
    ],
  ])('%s is said', (_, some, says) => {
    expect(codes(plan(some))).toEqual(says);
  });
});

describe('more than the shift has room for', () => {
  test('no stock is cooked for soup that is not; what was left out is named, and the plan holds up to the checker', () => {
    // Eight batches and four of stock, 45 minutes each with the rinse; there is room for six.
    const day = input({ pars: [par('lentil', 200)], nowMin: 530 });
    for (const moves of [0, 300]) {
      const made = planDay(day, { seed: 1, moves });
      const count = (soupId: string): number => made.batches.filter((batch) => batch.soupId === soupId).length;
      const out = (code: PlanFinding['code']): number => codes(made).filter((one) => one === code).length;
      expect([count('lentil'), count('stock'), out('plan.unplaced'), out('plan.leftOut')]).toEqual([4, 2, 4, 2]);
      expect(checkDayPlan(day, made)).toEqual([]);
    }
  });
});

describe('two batches of one soup', () => {
  test('are numbered by the clock, and the plan still holds up to the checker', () => {
    const wanted = { pars: [par('lentil', 40)] };
    const made = plan(wanted);
    const lentils = made.batches.filter((batch) => batch.soupId === 'lentil');
    expect(lentils.map((batch) => batch.ordinal)).toEqual([1, 2]);
    expect((lentils[0]?.steps[0]?.startMin ?? 0) < (lentils[1]?.steps[0]?.startMin ?? 0)).toBe(true);
    expect(checkDayPlan(input(wanted), made)).toEqual([]);
  });
});

describe('batches that were agreed on', () => {
  const sizes = (some: Partial<DayInput>): readonly number[] =>
    plan(some)
      .batches.filter((batch) => batch.soupId === 'lentil')
      .map((batch) => batch.volumeL);
  const agreed = plan({ pars: [par('lentil', 40)] });
  test('stay with half a litre too much each; another number of them is another plan', () => {
    expect([sizes({ pars: [par('lentil', 39.5)], agreed }), sizes({ pars: [par('lentil', 39.5)] })]).toEqual([
      [20, 20],
      [20, 20],
    ]);
    expect(sizes({ pars: [par('lentil', 39)], agreed })).toEqual([20, 20]);
    const two = plan({ pars: [par('lentil', 20)], splits: [{ soupId: 'lentil', batches: 2 }] });
    expect([sizes({ pars: [par('lentil', 20)], agreed: two, splits: [] }), sizes({ pars: [par('lentil', 20)], agreed: two, splits: two.splits })]).toEqual([[20], [10, 10]]);
  });
  test('what has begun is one of the batches that were asked for, not one beside them', () => {
    const started = [
      {
        batchId: '2026-11-25.lentil.1',
        soupId: 'lentil',
        soupVersion: 3,
        ordinal: 1,
        volumeL: 10,
        vesselId: 'k1',
        steps: [{ stepId: 'cook', startMin: 400, endMin: null }],
        state: 'running',
      },
    ] as const;
    expect(sizes({ pars: [par('lentil', 20)], splits: [{ soupId: 'lentil', batches: 2 }], started, nowMin: 410 })).toEqual([10, 10]);
  });
});

describe('a second batch that may come later', () => {
  const later = { ...station, laterBatches: true, altitudeM: 0, thermometers: [] };
  const readyBys = (some: Partial<DayInput>): readonly (readonly [number, number | null])[] =>
    plan({ station: later, pars: [par('lentil', 40)], ...some })
      .batches.filter((batch) => batch.soupId === 'lentil')
      .sort((left, right) => left.ordinal - right.ordinal)
      .map((batch) => [batch.ordinal, batch.readyByMin]);
  // Half of the par is served first; it lasts a quarter of the 150 minutes if guests come twice as fast as evenly.
  test('is wanted when what is ahead of it may have run out', () => {
    expect(readyBys({})).toEqual([
      [1, 670],
      [2, 670 + 37],
    ]);
  });
  test('what is on hand is ahead of the first', () => {
    const lots = [{ id: 'a', soupId: 'lentil', volumeL: 20, state: 'chilled', preparedOn: '2026-11-24', frozenDays: 0 }] as const;
    expect(readyBys({ lots })).toEqual([[1, 670 + 37]]);
  });
  test('both are there before the doors open where the kitchen wants it so', () => {
    expect(readyBys({ station })).toEqual([
      [1, 670],
      [2, 670],
    ]);
  });
  test('law: the share that is ahead only grows with the number, and none is wanted after the doors close', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 160 }), (litres) => {
        const times = readyBys({ pars: [par('lentil', litres)] }).map(([, readyBy]) => readyBy ?? Number.NaN);
        expect(times).toEqual([...times].sort((left, right) => left - right));
        expect(Math.max(0, ...times)).toBeLessThanOrEqual(840);
      }),
      { seed: 3, numRuns: 30 },
    );
  });
});

describe('a day that has begun', () => {
  const running = {
    batchId: '2026-11-25.lentil.1',
    soupId: 'lentil',
    soupVersion: 3,
    ordinal: 1,
    volumeL: 18,
    vesselId: 'k1',
    steps: [{ stepId: 'cook', startMin: 400, endMin: null }],
    state: 'running',
  } as const;
  test('a started batch keeps its litres, its kettle and its start when the par rises', () => {
    const made = plan({ pars: [par('lentil', 30)], started: [running], nowMin: 410 });
    expect(made.batches.filter((batch) => batch.soupId === 'lentil').map((batch) => [batch.id, batch.volumeL, batch.state, batch.steps[0]?.startMin])).toEqual([
      ['2026-11-25.lentil.1', 18, 'running', 400],
      ['2026-11-25.lentil.2', 12, 'planned', 630],
    ]);
    expect(checkDayPlan(input({ pars: [par('lentil', 30)], started: [running], nowMin: 410 }), made)).toEqual([]);
  });
  test('a step that has overrun ends in the next minute, and what follows moves with it', () => {
    const made = plan({ pars: [par('lentil', 18)], started: [running], nowMin: 450 });
    expect(made.batches.find((batch) => batch.soupId === 'lentil')?.steps.map((one) => [one.startMin, one.endMin])).toEqual([
      [400, 451],
      [451, 471],
    ]);
  });
  test('a discarded batch is cooked anew under the next number', () => {
    const made = plan({ pars: [par('lentil', 18)], started: [{ ...running, state: 'discarded' }], nowMin: 450 });
    expect(made.batches.filter((batch) => batch.soupId === 'lentil').map((batch) => batch.id)).toEqual(['2026-11-25.lentil.2']);
  });
});

describe('a blender is washed like a kettle', () => {
  const milk = (id: string): Soup =>
    soup(id, { ...jarSoup, id, name: id, ingredients: [makeLine({ id: 'm', name: 'Cream', stepId: 'cook', amount: { low: 1, high: 1, unit: 'g' }, allergens: ['milk'] })] });
  const jar: Equipment = { kind: 'jar', id: 'j', name: 'Jar', capacityL: 2, hotFillL: 1.2, cycleMin: 2.5, inUse: true };
  const soups = [milk('creamed'), { ...jarSoup, id: 'plain', name: 'plain' }];
  const made = planDay(
    input({
      soups,
      station: { ...station, equipment: [kettle(), kettle({ id: 'k2' }), jar] },
      pars: soups.map(({ id }) => ({ soupId: id, parL: 10, serviceId: 'midday' })),
    }),
    { seed: 1, moves: 20 },
  );
  test('fully where milk must not carry over, with a rinse where it may, in the time between the two', () => {
    const start = (id: string): number => made.batches.find((batch) => batch.soupId === id)?.steps.find((one) => one.stepId === 'blend')?.startMin ?? Number.NaN;
    const [first, second] = start('creamed') < start('plain') ? ['creamed', 'plain'] : ['plain', 'creamed'];
    const [wash, none] = made.washes.filter((one) => one.unitId === 'j');
    expect([wash?.afterBatchId, wash?.beforeBatchId, none]).toEqual([`2026-11-25.${first}.1`, `2026-11-25.${second}.1`, undefined]);
    expect([wash?.kind, wash?.carriesOver]).toEqual(first === 'creamed' ? ['full', ['milk']] : ['rinse', []]);
    expect((wash?.endMin ?? Number.NaN) <= start(second)).toBe(true);
  });
});

describe('batches by hand', () => {
  test('a soup in more batches than the fewest: both are planned, checked, and the plan knows that it was asked for', () => {
    const day = input({ pars: [par('lentil', 18)], splits: [{ soupId: 'lentil', batches: 2 }] });
    const made = planDay(day, { seed: 1, moves: 20 });
    expect(made.batches.filter((batch) => batch.soupId === 'lentil').map((batch) => [batch.id, batch.volumeL])).toEqual([
      ['2026-11-25.lentil.1', 9],
      ['2026-11-25.lentil.2', 9],
    ]);
    expect(made.splits).toEqual([{ soupId: 'lentil', batches: 2 }]);
    expect(checkDayPlan(input({ pars: [par('lentil', 18)] }), made)).toEqual([]);
  });
  test('a split that is none any more is passed over', () => {
    const made = plan({
      pars: [par('lentil', 40)],
      splits: [
        { soupId: 'lentil', batches: 1 },
        { soupId: 'gone', batches: 3 },
      ],
    });
    expect(made.batches.filter((batch) => batch.soupId === 'lentil').map((batch) => batch.volumeL)).toEqual([20, 20]);
  });
});

describe('room for steps that take longer', () => {
  const varying = soup('lentil', { steps: ['cut', 'cook', 'empty'].map((id) => step(id, { duration: { lowMin: 15, highMin: 35, perLitreMin: 0 } })) });
  const aiming = (aimChance: number | null): Partial<DayInput> => ({ soups: [varying], station: { ...station, aimChance }, pars: [par('lentil', 18)] });
  const chanceOf = (aimChance: number | null): number => {
    const day = input(aiming(aimChance));
    const made = planDay(day, { seed: 1, moves: 200 });
    return storyOf(day, made).batches.find((batch) => batch.batchId === '2026-11-25.lentil.1')?.chance ?? Number.NaN;
  };
  test.each([0.8, 0.9, 0.95])('a plan that aims at %s is in time at least that often, where there is room, and on the dot it is not', (chance) => {
    expect(chanceOf(chance)).toBeGreaterThanOrEqual(chance - 0.02);
    expect(chanceOf(null)).toBeLessThan(0.7);
  });
  test('the surer, the sooner', () => {
    const readyMin = [null, 0.8, 0.9, 0.95].map((chance) => plan(aiming(chance)).batches.at(-1)?.readyMin ?? Number.NaN);
    expect([...readyMin].sort((left, right) => right - left)).toEqual(readyMin);
    expect(readyMin[0]).toBe(670);
  });
  test('room gives way before anything is late: a lead that comes in late has none', () => {
    const someday = { ...aiming(0.95), nowMin: 590 };
    const made = plan(someday);
    expect(made.batches.at(-1)).toMatchObject({ readyMin: 665, lateMin: 0 });
    expect(made.objective.shortMin).toBeGreaterThan(0);
  });
});

describe('what stands in a kettle when the shift is over', () => {
  const begun = { batchId: '2026-11-25.lentil.1', soupId: 'lentil', soupVersion: 1, ordinal: 1, volumeL: 18, vesselId: 'k1', state: 'running' } as const;
  const late = (nowMin: number): DayInput => {
    const [first] = takesStock.steps;
    return input({ pars: [par('lentil', 18)], lots: [], nowMin, started: [{ ...begun, steps: [{ stepId: first?.id ?? '', startMin: nowMin - 5, endMin: null }] }] });
  };
  test.each([790, 795, 830])('at %s it is not lost: somebody stays, and the plan says until when', (nowMin) => {
    const day = late(nowMin);
    const made = planDay(day, { seed: 1, moves: 20 });
    const stays = made.findings.find((found) => found.code === 'plan.overtime');
    expect(stays).toMatchObject({ batchIds: [begun.batchId], shiftEndMin: 800 });
    const kept = made.batches.find((batch) => batch.id === begun.batchId);
    expect(kept?.state).toBe('running');
    expect(kept?.readyMin).toBeLessThanOrEqual(stays?.code === 'plan.overtime' ? stays.untilMin : 0);
    expect(checkDayPlan(day, made)).toEqual([]);
    // Who stays has a name on the run sheet, and stays no longer than five minutes more than there is to do.
    const named = nameHands(made, station.people).filter((step) => step.endMin > 800 && step.batchId === begun.batchId);
    expect(named.map((step) => step.personId)).toEqual(named.map(() => 'lead'));
    expect((stays?.code === 'plan.overtime' ? stays.untilMin : Number.NaN) - (kept?.readyMin ?? 0)).toBeLessThan(5);
  });
  test('where there is nobody, nobody stays, and the batch is said to have no place', () => {
    const alone = { ...late(795), station: { ...station, people: [] } };
    const told = codes(planDay(alone, { seed: 1, moves: 20 }));
    expect([told.includes('plan.overtime'), told.includes('plan.unplaced')]).toEqual([false, true]);
  });
  test('inside the shift nobody stays', () => {
    expect(codes(planDay(late(500), { seed: 1, moves: 20 }))).not.toContain('plan.overtime');
  });
});

describe('a break', () => {
  const noon: DayInput = input({
    station: { ...station, people: [{ id: 'lead', name: 'Lead', role: 'lead', shift: { fromMin: 300, toMin: 800 }, breaks: [{ fromMin: 600, toMin: 665 }] }] },
    pars: [par('lentil', 10)],
    lots: [{ id: 'a', soupId: 'stock', volumeL: 9, state: 'chilled', preparedOn: '2026-11-24', frozenDays: 0 }],
  });
  test('is nobody at the pot: the soup is ready before it, or after', () => {
    const [batch] = planDay(noon, { seed: 1, moves: 50 }).batches;
    expect(batch?.steps.every((one) => one.endMin <= 600 || one.startMin >= 665)).toBe(true);
    expect(batch?.lateMin).toBe(0);
  });
  test('of one is covered by another', () => {
    const two = { ...noon, station: { ...noon.station, people: [...noon.station.people, { ...noon.station.people[0]!, id: 'cook', breaks: [] }] } };
    expect(planDay(two, { seed: 1, moves: 50 }).batches.map((batch) => batch.readyMin)).toEqual([670]);
  });
  test('nobody who is off is planned with, nor stays longer', () => {
    const off = { ...noon, station: { ...noon.station, people: noon.station.people.map((person) => ({ ...person, off: true })) } };
    expect(codes(planDay(off, { seed: 1, moves: 10 }))).toEqual(['station.nobody', 'plan.unplaced']);
  });
});

describe('a plan that was agreed on, and the station as it is since', () => {
  const asked = input({ pars: [par('lentil', 18)] });
  const made = planDay(asked, { seed: 1, moves: 20 });
  const [stockBatch, soupBatch] = made.batches;
  const since = (station: Partial<DayInput['station']>, some: Partial<DayInput> = {}): boolean =>
    fitsStation({ ...asked, ...some, station: { ...asked.station, ...station }, agreed: made }, made);
  const lead = (some: object): Partial<DayInput['station']> => ({ people: asked.station.people.map((person) => ({ ...person, ...some })) });
  const begun = (some: typeof soupBatch): DayInput['started'] =>
    some === undefined
      ? []
      : [
          {
            batchId: some.id,
            soupId: some.soupId,
            soupVersion: 3,
            ordinal: 1,
            volumeL: some.volumeL,
            vesselId: some.vesselId,
            steps: [{ stepId: 'cook', startMin: 600, endMin: null }],
            state: 'running',
          },
        ];
  test('fits while that is as it was, or more', () => {
    expect([since({}), since(lead({ shift: { fromMin: 200, toMin: 900 } })), since({ equipment: [kettle(), kettle({ id: 'k2' })] })]).toEqual([true, true, true]);
  });
  test('does not when hands are missing while it goes on: off, gone sooner, in a break', () => {
    const during = { fromMin: soupBatch?.steps[0]?.startMin ?? 0, toMin: 800 };
    expect([since(lead({ off: true })), since(lead({ shift: { fromMin: 300, toMin: 640 } })), since(lead({ breaks: [during] }))]).toEqual([false, false, false]);
  });
  test('does not when its kettle is out of use or too small by now', () => {
    expect([since({ equipment: [kettle({ inUse: false }), kettle({ id: 'k2' })] }), since({ equipment: [kettle({ workingMaxL: 17 }), kettle({ id: 'k2' })] })]).toEqual([
      false,
      false,
    ]);
  });
  test('does not when its soup is wanted sooner or later by now, or at another service', () => {
    const services = asked.station.services;
    const later = services.map((service) => ({ ...service, startMin: service.startMin + 30 }));
    const evening = { id: 'evening', name: 'Evening', startMin: 1100, endMin: 1200 };
    expect([
      since({ services: later }),
      since({ readyLeadMin: asked.station.readyLeadMin + 5 }),
      since({ services: [...services, evening] }),
      since({ services: [...services, evening] }, { pars: asked.pars.map((one) => ({ ...one, serviceId: 'evening' })) }),
    ]).toEqual([false, false, true, false]);
  });
  test('what is over already, or stands in the kettle, asks for nothing more', () => {
    const over = Math.max(...(stockBatch?.steps ?? []).map((one) => one.endMin));
    const early = lead({ shift: { fromMin: over, toMin: 800 } });
    expect([since(early), since(early, { nowMin: over })]).toEqual([false, true]);
    expect(since({ equipment: [kettle({ workingMaxL: 17 }), kettle({ id: 'k2' })] }, { nowMin: 610, started: begun(soupBatch) })).toBe(true);
  });
});

describe('names for the hands of a plan', () => {
  const crew = [
    { id: 'a', name: 'A', role: 'lead', shift: { fromMin: 300, toMin: 800 } },
    { id: 'b', name: 'B', role: 'cook', shift: { fromMin: 360, toMin: 800 } },
  ] as const;
  const many = ['p', 'q', 'r', 's'].map((id) =>
    soup(id, { steps: [step('cut', { place: { kind: 'bench' }, phase: 'prep', attention: 'hands' }), step('cook'), step('empty', { attention: 'hands' })] }),
  );
  const plan = planDay(
    input({
      soups: many,
      station: { ...station, people: crew, equipment: [kettle(), kettle({ id: 'k2' })] },
      pars: many.map(({ id }) => ({ soupId: id, parL: 10, serviceId: 'midday' })),
    }),
    {
      seed: 1,
      moves: 20,
    },
  );
  const named = nameHands(plan, crew);
  test('every step that wants hands is named once, within a shift', () => {
    expect(named.length).toBe(plan.batches.flatMap((batch) => batch.steps.filter((one) => one.uses.some((use) => use.resourceId === 'hands'))).length);
    const wrong = named.filter((one) => {
      const person = crew.find(({ id }) => id === one.personId);
      return person !== undefined && (one.startMin < person.shift.fromMin || one.endMin > person.shift.toMin);
    });
    expect(wrong).toEqual([]);
  });
  test('nobody has more than two hands at once', () => {
    const over = named.filter((one) => {
      const mine = named.filter((other) => other.personId !== null && other.personId === one.personId && other.startMin <= one.startMin && other.endMin > one.startMin);
      return mine.reduce((sum, other) => sum + other.units, 0) > UNITS_PER_PERSON;
    });
    expect(over).toEqual([]);
  });
  test('a step no single person is free for stays unnamed', () => {
    expect(nameHands(plan, []).every((one) => one.personId === null)).toBe(true);
  });
});
