import { addMinutes } from '../quantity/index';
import { makeLine, makeSoup, makeStep } from '../soup/index';
import type { Soup } from '../soup/index';
import { patternNotes } from '../advice';
import { DAY, T0, eventAt } from '../testing/events.arbitrary';
import { bookOf, rulesOf } from '../testing/rules';
import type { RuleBook } from '../safety/index';
import { dueReadings, foldDay, judgeBatch, openActions, standingOf } from './index';
import type { BatchRecord, DayEvent, Purpose } from './index';

const B = `${DAY}.chowder.1`;
const steps = [
  makeStep({ id: 'simmer', phase: 'simmer', name: 'Simmer', heat: 'low', duration: { lowMin: 20, highMin: 25, perLitreMin: 0 } }),
  makeStep({ id: 'empty', phase: 'hold', name: 'Empty', heat: 'off' }),
];
const chowder = makeSoup({ id: 'chowder', name: 'Chowder', steps, ingredients: [makeLine({ id: 'fish', name: 'Haddock', origin: 'fish', stepId: 'simmer' })] });
const lentil = makeSoup({ id: 'chowder', name: 'Lentil', steps });
const gazpacho = makeSoup({ id: 'chowder', name: 'Cucumber', served: 'cold', steps: [makeStep({ id: 'blend', phase: 'blend', name: 'Blend', heat: 'off' })] });
const at = (minute: number): number => addMinutes(T0, minute);
const started = eventAt('batch.started/1', 0, { batchId: B, soupId: 'chowder', soupVersion: 1, name: 'Chowder 1', ordinal: 1, volumeL: 18, vesselId: 'k1' });
const cooked = (toMin: number): DayEvent[] => [
  started,
  eventAt('step.started/1', 5, { batchId: B, stepId: 'simmer' }),
  eventAt('step.done/1', toMin, { batchId: B, stepId: 'simmer' }),
  eventAt('batch.finished/1', toMin + 5, { batchId: B, volumeOutL: 18 }),
];
const read = (minute: number, value: number, purpose: Purpose, some: { pan?: number; offset?: number; by?: string; heldS?: number } = {}): DayEvent =>
  eventAt(
    'reading.taken/2',
    minute,
    {
      batchId: B,
      purpose,
      reading: { value, unit: 'F', rawText: String(value) },
      heldS: some.heldS ?? null,
      packId: 'us-fda-fc2022',
      packVersion: 2,
      rulesVersion: 1,
      pan: some.pan ?? null,
      thermometerId: 't1',
      offset: some.offset ?? 0,
      doubt: null,
      lateReason: null,
    },
    { by: some.by ?? 'cook' },
  );
const cooling = (minute: number, pans: number | null = null): DayEvent =>
  eventAt('cooling.started/2', minute, { batchId: B, placeId: 'bath', ambientC: 0, method: pans === null ? 'iceBathStirred' : 'shallowPans', pans, depthCm: null });
const batchOf = (events: readonly DayEvent[]): BatchRecord => {
  const batch = foldDay(events).batches[B];
  if (batch === undefined) throw new Error('no batch');
  return batch;
};
const standing = (events: readonly DayEvent[], minute: number, soup: Soup = lentil, book: RuleBook = bookOf()) => standingOf(batchOf(events), soup, book, at(minute));
const open = (events: readonly DayEvent[], minute: number) =>
  openActions(foldDay(events), new Map([['chowder', lentil]]), bookOf(), at(minute)).map(({ kind, since, escalated }) => [kind, (since - T0) / 60_000, escalated]);

describe('cooking', () => {
  const due = (events: readonly DayEvent[], minute: number, soup: Soup) =>
    dueReadings(foldDay(events), new Map([['chowder', soup]]), bookOf(), at(minute)).map(({ purpose, dueAt }) => [purpose, (dueAt - T0) / 60_000]);
  test('fish is read at the end of its simmer, lentils are not: their first reading in the well proves them', () => {
    const simmering = cooked(30).slice(0, 2);
    expect([due(simmering, 10, chowder), due(simmering, 10, lentil)]).toEqual([[['cook', 25]], []]);
  });
  test('off the heat without a reading is overdue, and that stays its standing', () => {
    expect([standing(cooked(30), 40, chowder)?.kind, due(cooked(30), 40, chowder)]).toEqual(['overdue', [['cook', 30]]]);
  });
  test('gone into something else without a reading, nothing shows any more what it was: somebody decides, and no reading is asked for', () => {
    const used = [...cooked(30), eventAt('batch.used/1', 36, { batchId: B, intoBatchIds: [`${DAY}.other.1`] })];
    expect([standing(used, 40, chowder)?.kind, standing(used, 40, lentil), due(used, 40, chowder)]).toEqual(['undetermined', null, []]);
    const read145 = [...cooked(30), read(28, 150, 'cook', { heldS: 15 }), ...used.slice(-1)];
    expect(judgeBatch(batchOf(read145), chowder, bookOf(), at(40)).cook?.kind).toBe('pass');
  });
  test('145 °F for 15 s: one watched reading, or two', () => {
    const twice = [...cooked(30), read(20, 150, 'cook'), read(21, 160, 'cook')];
    expect(judgeBatch(batchOf(twice), chowder, bookOf(), at(40)).cook?.kind).toBe('pass');
  });
});

describe('out of its kettle and nowhere yet', () => {
  const into = (minute: number): DayEvent => eventAt('batch.used/1', minute, { batchId: B, intoBatchIds: [`${DAY}.other.1`] });
  const due = (events: readonly DayEvent[], minute: number) =>
    dueReadings(foldDay(events), new Map([['chowder', lentil]]), bookOf(), at(minute)).map(({ purpose, dueAt }) => [purpose, (dueAt - T0) / 60_000]);
  test('what is hot has to stay hot while it stands (FDA Food Code 2022, 3-501.16(A)(1)), and is read as often as in a well', () => {
    expect([standing(cooked(30), 40)?.kind, due(cooked(30), 40), standing(cooked(30), 160)?.kind]).toEqual(['inProgress', [['hotHold', 155]], 'overdue']);
    expect(standing([...cooked(30), read(100, 120, 'cook')], 101)).toMatchObject({ purpose: 'hotHold', kind: 'fail', actions: ['reheatHot', 'discard'] });
    expect(standing([...cooked(30), read(100, 140, 'cook')], 101)?.kind).toBe('pass');
  });
  test('poured in after standing for hours that nobody read, it is not proven: somebody decides', () => {
    expect([standing([...cooked(30), into(90)], 400), standing([...cooked(30), into(330)], 400)?.kind]).toEqual([null, 'undetermined']);
    expect(judgeBatch(batchOf([...cooked(30), into(330)]), lentil, bookOf(), at(400)).held[0]?.verdict.missed).toHaveLength(2);
    expect(standing([...cooked(30), read(150, 150, 'cook'), read(260, 140, 'cook'), into(330)], 400)).toBeNull();
  });
  test('carried into a well it has stood since it left its kettle; carried on to be cooled in time there is nothing to tell', () => {
    const held = [...cooked(30), eventAt('hold.started/1', 100, { batchId: B, placeId: 'w1' })];
    expect([batchOf(held).holds, batchOf(held).stage]).toEqual([[{ since: at(35), until: null, placeId: 'w1' }], { kind: 'holding', since: at(100), placeId: 'w1' }]);
    expect(due(held, 110)).toEqual([['hotHold', 155]]);
    expect([judgeBatch(batchOf([...cooked(30), cooling(50)]), lentil, bookOf(), at(60)).held, standing([...cooked(30), cooling(50)], 60)?.purpose]).toEqual([[], 'cool']);
  });
  test('left standing it stays overdue for good, but the days after it miss no checks of their own', () => {
    const days = (count: number) => judgeBatch(batchOf(cooked(30)), lentil, bookOf(), at(count * 1440)).hotHold;
    expect([days(1)?.missed.length, days(5)?.missed.length, days(5)?.kind]).toEqual([11, 11, 'overdue']);
  });
  test('read again on the next day, every check before that was missed', () => {
    const held = [...cooked(30), eventAt('hold.started/1', 40, { batchId: B, placeId: 'w1' }), read(35 + 30 * 60, 150, 'hotHold')];
    expect(judgeBatch(batchOf(held), lentil, bookOf(), at(35 + 30 * 60 + 1)).hotHold?.missed).toHaveLength(14);
  });
  test('what was never hot does not stand hot', () => {
    expect(judgeBatch(batchOf(cooked(30)), gazpacho, bookOf(), at(400)).held).toEqual([]);
  });
});

describe('a batch in pans', () => {
  const events = [...cooked(30), cooling(40, 3), read(41, 140, 'cool'), read(45, 134, 'cool'), read(100, 69, 'cool', { pan: 1 }), read(101, 70, 'cool', { pan: 2 })];
  test('is as cold as its slowest pan, and one without a reading is not passed', () => {
    const verdicts = judgeBatch(batchOf(events), lentil, bookOf(), at(110));
    expect(verdicts.pans.map(({ pan, verdict }) => [pan, verdict.stages[0]?.kind])).toEqual([
      [1, 'pass'],
      [2, 'pass'],
      [3, 'inProgress'],
    ]);
    expect(verdicts.cooling?.stages[0]?.kind).toBe('inProgress');
  });
  test('one pan above 70 °F after two hours is a failed batch', () => {
    const late = [...events, read(170, 75, 'cool', { pan: 3 })];
    expect(standing(late, 171)?.kind).toBe('fail');
  });
});

describe('heated again and cooled anew', () => {
  const reheated = (minute: number): DayEvent => eventAt('reheat.started/1', minute, { batchId: B });
  const again = (minute: number): DayEvent[] => [
    read(minute, 168, 'reheat'),
    cooling(minute + 5),
    read(minute + 6, 150, 'cool'),
    read(minute + 12, 134, 'cool'),
    read(minute + 60, 65, 'cool'),
    read(minute + 200, 40, 'cool'),
  ];
  test('a cooling that had failed stays failed: no second cooking rescues it', () => {
    const events = [...cooked(30), cooling(40), read(41, 140, 'cool'), read(45, 134, 'cool'), read(170, 75, 'cool'), reheated(180), ...again(200)];
    expect([standing(events, 401)?.kind, standing(events, 401)?.ruleId]).toEqual(['fail', 'us.cool.1']);
  });
  test('one that nobody read for too long stays not shown', () => {
    const events = [...cooked(30), cooling(40), read(41, 140, 'cool'), reheated(180), ...again(200)];
    expect(standing(events, 401)?.kind).toBe('overdue');
  });
  test('one still in its first window may start over, once, on a clock of its own', () => {
    const events = [...cooked(30), cooling(40), read(41, 140, 'cool'), read(60, 120, 'cool'), reheated(70), ...again(90)];
    expect(standing(events, 291)?.kind).toBe('pass');
    expect(judgeBatch(batchOf(events), lentil, bookOf(), at(291)).cooling?.clockFrom).toBe(at(96));
  });
  test('it is offered once: cooled anew, a reheat is no way out any more', () => {
    const first = [...cooked(30), cooling(40), read(41, 140, 'cool'), read(60, 120, 'cool')];
    const second = [...first, reheated(70), read(90, 168, 'reheat'), cooling(95), read(96, 150, 'cool'), read(110, 130, 'cool')];
    expect([standing(first, 65)?.actions, standing(second, 115)?.actions]).toEqual([['faster', 'reheat'], ['faster']]);
  });
  test('heating it after it was cooled takes nothing from the cooling it passed', () => {
    // Off the heat at 30 and no reading while hot: the end of cooking stands for it, and goes on doing so.
    const cold = [...cooked(30), cooling(40), read(100, 69, 'cool'), read(300, 41, 'cool'), eventAt('cold.stored/1', 301, { batchId: B })];
    const hot = [...cold, reheated(400), read(430, 120, 'reheat'), read(460, 168, 'reheat', { heldS: 20 })];
    const held = [...hot, eventAt('hold.started/1', 465, { batchId: B, placeId: 'well1' }), read(466, 160, 'hotHold')];
    const kinds = [cold, [...cold, reheated(400)], hot, held].map((events) => judgeBatch(batchOf(events), lentil, bookOf(), at(470)).cooling?.kind);
    expect(kinds).toEqual(['pass', 'pass', 'pass', 'pass']);
    expect([standing(hot, 470)?.kind, standing(hot, 470)?.purpose]).toEqual(['pass', 'reheat']);
  });
  test('a cooling that had failed when it was heated is still failed while it is hot again', () => {
    const failed = [...cooked(30), cooling(40), read(41, 140, 'cool'), read(45, 134, 'cool'), read(170, 75, 'cool'), reheated(180), read(220, 170, 'reheat', { heldS: 20 })];
    expect(standing(failed, 230)?.kind).toBe('fail');
  });
});

test('where every minute out counts, those in the well count before it is taken out by time (FSANZ 3.2.2 clause 25)', () => {
  const au = bookOf('au');
  const rule = au[0].rules.timeControl.find((one) => one.cumulative);
  if (rule === undefined) throw new Error('no rule');
  const events = (value: number): DayEvent[] => [
    ...cooked(30),
    eventAt('hold.started/1', 35, { batchId: B, placeId: 'well1' }),
    read(40, 150, 'hotHold'),
    read(60, value, 'hotHold'),
    read(80, 150, 'hotHold'),
    eventAt('timeControl.started/1', 90, { batchId: B, ruleId: rule.id }),
  ];
  const endsMin = (value: number) => ((judgeBatch(batchOf(events(value)), lentil, au, at(95)).timeControl?.endsAt ?? 0) - T0) / 60_000;
  // Between 40 and 80 it may have been below the limit for forty minutes.
  expect([endsMin(150), endsMin(120)]).toEqual([90 + rule.withinMin, 50 + rule.withinMin]);
});

describe('held hot, and carried on', () => {
  const into = (minute: number, placeId: string): DayEvent => eventAt('hold.started/1', minute, { batchId: B, placeId });
  const verdicts = (events: readonly DayEvent[], minute: number, book = bookOf()) => judgeBatch(batchOf(events), lentil, book, at(minute));
  test('from one well to another it goes on: what it was out of its limit stays counted', () => {
    // Out for four hours at least (40 to 281), which nothing allows, and hot again in another well.
    const events = [...cooked(30), into(35, 'well1'), read(40, 130, 'hotHold'), read(281, 130, 'hotHold'), into(285, 'well2'), read(290, 150, 'hotHold')];
    const { held, hotHold } = verdicts(events, 295);
    expect([held.length, hotHold?.kind, batchOf(events).stage]).toEqual([1, 'fail', { kind: 'holding', since: at(35), placeId: 'well2' }]);
  });
  test('what spoiled in the well is not rescued by cooling it', () => {
    const events = [...cooked(30), into(35, 'well1'), read(40, 130, 'hotHold'), read(281, 130, 'hotHold'), read(285, 150, 'hotHold'), cooling(290), read(291, 150, 'cool')];
    expect([standing(events, 292)?.kind, verdicts(events, 600).held.map(({ verdict }) => [verdict.kind, verdict.actions])]).toEqual(['fail', [['fail', ['discard']]]]);
  });
  test('what was out as long as is allowed, and cooled, stands by its cooling; its holding stays in the record as it ended', () => {
    const events = [...cooked(30), into(35, 'well1'), read(40, 150, 'hotHold'), read(95, 130, 'hotHold'), cooling(100), read(101, 129, 'cool')];
    expect([standing(events, 110)?.purpose, verdicts(events, 600).held.map(({ verdict, hold }) => [verdict.kind, hold.until])]).toEqual(['cool', [['fail', at(100)]]]);
  });
  test('on the heat counts for the guidance of the United Kingdom as long as it was hot there; one cold reading, and the clock runs from the end of cooking', () => {
    const uk = bookOf('uk');
    const held = (value: number): DayEvent[] => [...cooked(30), into(35, 'well1'), read(40, value, 'hotHold'), read(90, 160, 'hotHold'), read(140, 160, 'hotHold'), cooling(180)];
    expect([verdicts(held(160), 190, uk).cooling?.clockFrom, verdicts(held(120), 190, uk).cooling?.clockFrom]).toEqual([at(180), at(30)]);
    // The same after a reheat: the end of the first cooking is no start any more, the well is.
    const cold = eventAt('cold.stored/2', 250, { batchId: B, volumeL: 8 });
    const again = [...held(160), cold, eventAt('reheat.started/1', 300, { batchId: B }), read(330, 185, 'reheat', { heldS: 130 }), into(335, 'well1'), read(340, 160, 'hotHold')];
    expect(verdicts([...again, cooling(400)], 410, uk).cooling?.clockFrom).toBe(at(400));
  });
});

test('a soup that was never hot has four hours from when it was put together to 41 °F (FDA Food Code 2022, 3-501.14(B))', () => {
  const made = [started, eventAt('batch.finished/1', 30, { batchId: B, volumeOutL: 5 })];
  expect([standing(made, 60, gazpacho)?.ruleId, standing(made, 60, gazpacho)?.kind, standing(made, 241, gazpacho)?.kind]).toEqual(['us.cool.ambient', 'inProgress', 'overdue']);
  const cold = [...made, eventAt('cold.stored/1', 40, { batchId: B }), read(200, 41, 'coldHold')];
  expect(judgeBatch(batchOf(cold), gazpacho, bookOf(), at(201)).cooling?.kind).toBe('pass');
  expect(standing(cold, 201, gazpacho)?.purpose).toBe('coldHold');
});

test("a thermometer's offset is taken off, and what it showed stays in the record", () => {
  const batch = batchOf([...cooked(30), eventAt('hold.started/1', 40, { batchId: B, placeId: 'well1' }), read(41, 136, 'hotHold', { offset: 1.5 })]);
  expect([batch.readings[0]?.reading.value, batch.readings[0]?.shown.value]).toEqual([134.5, 136]);
  expect(standingOf(batch, lentil, bookOf(), at(42))?.kind).toBe('fail');
});

test('a pack that is switched while a batch cools does not judge it: the one does it began under', () => {
  const events = [...cooked(30), cooling(40), read(41, 140, 'cool'), read(100, 69, 'cool'), read(370, 41, 'cool')];
  const switched: RuleBook = [
    { since: 0, by: 'lead', rules: rulesOf('us-fda-fc2022') },
    { since: at(90), by: 'lead', rules: rulesOf('us-nyc', {}, 2) },
  ];
  expect(standing(events, 371, lentil, switched)?.citation).toContain('FDA Food Code');
  expect(standing([...cooked(30), cooling(95)], 96, lentil, switched)?.citation).toContain('NYC');
});

describe('what is open nags until it is closed', () => {
  const held = [...cooked(30), eventAt('hold.started/1', 40, { batchId: B, placeId: 'well1' }), read(41, 150, 'hotHold'), read(100, 120, 'hotHold')];
  const took = (minute: number, action: 'reheatHot' | 'personInCharge' | 'discard') =>
    eventAt('corrective.taken/1', minute, { batchId: B, ruleId: 'us.hot', action, note: 'lid was off', volumeL: null });
  test('nothing done, then a reading that is missing, then closed', () => {
    expect([open(held, 105), open(held, 116), open([...held, took(105, 'reheatHot')], 110), open([...held, took(105, 'reheatHot'), read(115, 165, 'hotHold')], 116)]).toEqual([
      [['act', 100, false]],
      [['act', 100, true]],
      [['followUp', 105, false]],
      [],
    ]);
  });
  test('a decision closes what was not proven, and never makes a pass of it', () => {
    const unproven = [...cooked(30), cooling(40), read(41, 140, 'cool'), read(200, 60, 'cool'), read(300, 40, 'cool'), took(301, 'personInCharge')];
    const decided = [...unproven, eventAt('decision.made/1', 320, { batchId: B, ruleId: 'us.cool.1', keep: true, reason: 'logger of the bath shows 70 °F at 95 min' })];
    expect([open(unproven, 305), open(decided, 321), standing(decided, 321)?.kind, standing(decided, 321)?.decision?.keep]).toEqual([
      [['decide', 301, false]],
      [],
      'undetermined',
      true,
    ]);
  });
  test('discarding closes everything', () => {
    expect(open([...held, took(105, 'discard')], 200)).toEqual([]);
  });
});

describe('a probe that stays in', () => {
  const digest = (minute: number, last: number, offset = 0): DayEvent =>
    eventAt('samples.digested/1', minute, {
      from: at(minute - 1),
      to: at(minute),
      late: false,
      thermometerIds: ['p1'],
      count: 60,
      sha256: '0'.repeat(64),
      rulesVersion: 1,
      probes: [{ thermometerId: 'p1', unit: 'F', offset, count: 60, min: last, max: last + 0.4, lastAt: at(minute) - 1000, last }],
    });
  const placed = eventAt('probe.placed/1', 40, { thermometerId: 'p1', batchId: B, purpose: 'cool' });
  test('each minute of it is a reading, as long as it is in the batch', () => {
    const events = [...cooked(30), digest(39, 150), cooling(40), placed, digest(41, 140), digest(42, 139), eventAt('probe.lifted/1', 43, { thermometerId: 'p1' }), digest(44, 70)];
    expect(batchOf(events).readings.map(({ reading, source }) => [reading.value, source])).toEqual([
      [140, 'probe'],
      [139, 'probe'],
    ]);
  });
  test('what it shows too much is taken off, as with one held by hand', () => {
    const events = [...cooked(30), cooling(40), placed, digest(41, 140, 1.5)];
    expect(batchOf(events).readings.map(({ reading, shown }) => [reading.value, shown.value])).toEqual([[138.5, 140]]);
  });
  test('a probe that says nothing any more is a reading that is due', () => {
    const events = [...cooked(30), cooling(40), placed, digest(41, 140)];
    expect(dueReadings(foldDay(events), new Map([['chowder', lentil]]), bookOf(), at(75)).map(({ dueAt }) => Math.round((dueAt - T0) / 60_000))).toEqual([71]);
  });
});

describe('a reviewer is told of patterns, not of people who are honest', () => {
  const codes = (events: readonly DayEvent[], recordedMin: number | null = null, offsetMin = 0) => {
    const all = batchOf([...cooked(30), ...events]).readings;
    const recordedAt = new Map(recordedMin === null ? [] : all.map((reading) => [reading.eventId, at(recordedMin)]));
    return patternNotes(all, recordedAt, (instant) => (((instant - T0) / 60_000 + offsetMin) % 60) | 0).map((note) => note.code);
  };
  const held = (...points: readonly (readonly [minute: number, value: number])[]): DayEvent[] => points.map(([minute, value]) => read(minute, value, 'hotHold'));
  const honest = held([61, 151.2], [122, 148.7], [179, 149.1], [244, 152], [301, 150.3], [363, 147.8]);
  test('readings that differ, at minutes that differ, entered when they were taken: nothing', () => {
    expect(codes(honest)).toEqual([]);
  });
  test('the same value at every full hour', () => {
    expect(codes(held([60, 150], [120, 150], [180, 150], [240, 150], [300, 150], [360, 150]))).toEqual(['identical', 'onTheHour', 'roundNumbers']);
  });
  test("the full hour is that of the kitchen's clock, also where it lies half an hour off", () => {
    const atHalf = held([30, 151.2], [90, 148.7], [150, 149.1], [210, 152], [270, 150.3], [330, 147.8]);
    expect([codes(atHalf), codes(atHalf, null, 30)]).toEqual([[], ['onTheHour']]);
  });
  test('three alike in a row, and five readings on the hour, are too few to speak of', () => {
    expect(codes(held([60, 150.3], [120, 150.3], [180, 150.3], [240, 149.1], [300, 148.4]))).toEqual([]);
  });
  test('a day entered in the evening in one go; not one that was entered as it came', () => {
    expect([codes(honest, 400), codes(honest.slice(0, 3), 400)]).toEqual([['allAtOnce'], []]);
  });
});
