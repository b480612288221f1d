import fc from 'fast-check';
import { addMinutes } from '../quantity/index';
import { makeSoup, makeStep } from '../soup/index';
import type { Soup, Step } from '../soup/index';
import { dueReadings, foldDay, heatOffAt, judgeBatch, startedBatches, tasks } from './index';
import type { BatchRecord, DayEvent } from './index';
import { T0, eventAt } from '../testing/events.arbitrary';
import { bookOf } from '../testing/rules';
import { stationWith } from '../testing/station';

const step = (id: string, heat: Step['heat'] = 'low'): Step =>
  makeStep({ id, phase: 'simmer', name: id, attention: 'looks', duration: { lowMin: 20, highMin: 20, perLitreMin: 0 }, heat });
const lentil: Soup = makeSoup({ id: 'lentil', name: 'Lentil', steps: [step('boil'), step('simmer'), step('empty', 'off')] });
const book = new Map([[lentil.id, lentil]]);
const station = stationWith();
const B = '2026-11-25.lentil.1';
const event = eventAt;
const started = (): DayEvent => event('batch.started/1', 0, { batchId: B, soupId: 'lentil', soupVersion: 1, name: 'Lentil 1', ordinal: 1, volumeL: 18, vesselId: 'k1' });
const done = (stepId: string, from: number, to: number): DayEvent[] => [event('step.started/1', from, { batchId: B, stepId }), event('step.done/1', to, { batchId: B, stepId })];
const read = (minute: number, value: number, id?: string): DayEvent =>
  event(
    'reading.taken/1',
    minute,
    { batchId: B, purpose: 'cool', reading: { value, unit: 'F', rawText: String(value) }, heldS: null, packId: 'us-fda-fc2022', packVersion: 1 },
    id === undefined ? {} : { id },
  );
const cooling = (minute: number, placeId = 'icebath'): DayEvent => event('cooling.started/1', minute, { batchId: B, placeId, ambientC: 0 });
const finished = (minute: number): DayEvent => event('batch.finished/1', minute, { batchId: B, volumeOutL: 17.5 });
const batchOf = (events: readonly DayEvent[]): BatchRecord => {
  const batch = foldDay(events).batches[B];
  if (batch === undefined) throw new Error('no batch');
  return batch;
};
const cooked = (): DayEvent[] => [started(), ...done('boil', 0, 20), ...done('simmer', 20, 45), ...done('empty', 45, 50), finished(50)];

describe('the day as a fold of its events', () => {
  test('from the first step to the cooling bath', () => {
    const batch = batchOf([...cooked(), cooling(55), read(56, 150)]);
    expect(batch.stage).toEqual({ kind: 'cooling', since: addMinutes(T0, 55) });
    expect([batch.volumeOutL, batch.readings.length, Object.keys(batch.steps)]).toEqual([17.5, 1, ['boil', 'simmer', 'empty']]);
  });
  test('moving on to the walk-in opens a segment and keeps the clock', () => {
    const batch = batchOf([...cooked(), cooling(55), cooling(120, 'walkin')]);
    expect([batch.coolingSegments.map((segment) => segment.placeId), batch.stage]).toEqual([['icebath', 'walkin'], { kind: 'cooling', since: addMinutes(T0, 55) }]);
  });
  test('two people start and finish the same step: the first tap counts', () => {
    const batch = batchOf([started(), ...done('boil', 2, 20), ...done('boil', 5, 30)]);
    expect(batch.steps['boil']).toMatchObject({ startedAt: addMinutes(T0, 2), doneAt: addMinutes(T0, 20), by: 'lead' });
  });
  test('a step ticked done without a start began when it was done', () => {
    expect(batchOf([started(), event('step.done/1', 9, { batchId: B, stepId: 'boil' })]).steps['boil']).toMatchObject({ startedAt: addMinutes(T0, 9), doneAt: addMinutes(T0, 9) });
  });
  test('a voided reading does not count, and stays nobody else', () => {
    const batch = batchOf([...cooked(), cooling(55), read(56, 15, 'slip'), read(57, 150), event('event.voided/1', 58, { eventId: 'slip', reason: 'a digit was missing' })]);
    expect(batch.readings.map((reading) => reading.reading.value)).toEqual([150]);
  });
  test('nothing brings a discarded batch back', () => {
    const batch = batchOf([
      ...cooked(),
      cooling(55),
      event('corrective.taken/1', 200, { batchId: B, ruleId: 'us.cool.1', action: 'discard', note: '', volumeL: 17.5 }),
      event('hold.started/1', 201, { batchId: B, placeId: 'well1' }),
    ]);
    expect(batch.stage).toEqual({ kind: 'discarded', at: addMinutes(T0, 200), ruleId: 'us.cool.1' });
  });
  test('an event for a batch nobody started is kept aside', () => {
    expect(foldDay([read(5, 150, 'lost')])).toMatchObject({ batches: {}, unread: ['lost'] });
  });
  const story = [...cooked(), cooling(55), read(56, 150), read(90, 100), read(170, 71)];
  test('law: order of arrival and repeats change nothing', () => {
    fc.assert(
      fc.property(fc.shuffledSubarray(story, { minLength: story.length }), fc.subarray(story), (shuffled, again) => {
        expect(judgeBatch(batchOf([...shuffled, ...again]), lentil, bookOf(), addMinutes(T0, 170))).toEqual(judgeBatch(batchOf(story), lentil, bookOf(), addMinutes(T0, 170)));
      }),
      { seed: 7, numRuns: 50 },
    );
  });
});

describe('verdicts of a batch', () => {
  const at = (minute: number): number => addMinutes(T0, minute);
  test('heat off is the end of the last heated step, and nothing later', () => {
    expect([heatOffAt(batchOf(cooked()), lentil), heatOffAt(batchOf([started(), finished(50)]), lentil)]).toEqual([at(45), null]);
  });
  test('first stage passed, second failed: the corrective action is to discard', () => {
    const batch = batchOf([...cooked(), cooling(55), read(56, 150), read(70, 134), read(150, 69), read(435, 50)]);
    const { cooling: verdict } = judgeBatch(batch, lentil, bookOf(), at(436));
    expect([verdict?.kind, verdict?.stages[0]?.kind, verdict?.stages[1]?.kind, verdict?.actions]).toEqual(['fail', 'pass', 'fail', ['discard']]);
  });
  test('a batch that never cooled has no cooling verdict', () => {
    expect(judgeBatch(batchOf(cooked()), lentil, bookOf(), at(60)).cooling).toBeNull();
  });
});

describe('what is due', () => {
  const due = (events: readonly DayEvent[], minute: number): unknown =>
    dueReadings(foldDay(events), book, bookOf(), addMinutes(T0, minute)).map(({ purpose, dueAt, deadlineRuleId }) => [purpose, (dueAt - T0) / 60_000, deadlineRuleId]);
  test('a reading as soon as cooling starts, then every half hour', () => {
    expect([due([...cooked(), cooling(55)], 55), due([...cooked(), cooling(55), read(56, 150)], 60)]).toEqual([[['cool', 55, null]], [['cool', 86, null]]]);
  });
  test("the rule's deadline comes before the routine", () => {
    expect(due([...cooked(), cooling(55), read(56, 140), read(150, 75)], 160)).toEqual([['cool', 176, 'us.cool.1']]);
  });
  test('a soup that is to stay hot is read every two hours from when it is out of its kettle', () => {
    expect(due([...cooked(), event('hold.started/1', 52, { batchId: B, placeId: 'well1' })], 60)).toEqual([['hotHold', 170, null]]);
  });
});

describe('hands', () => {
  const tasksOf = (events: readonly DayEvent[]) => tasks({ day: foldDay(events), plan: null, soupById: book, station, midnight: T0, named: [] });
  test('the next step of a running batch, and none of a finished one', () => {
    const told = (events: readonly DayEvent[]): unknown => tasksOf(events).map((task) => [task.step.id, task.state, task.isLast]);
    expect([told([started()]), told([started(), ...done('boil', 0, 20)]), told([started(), event('step.started/1', 0, { batchId: B, stepId: 'boil' })]), told(cooked())]).toEqual([
      [['boil', 'next', false]],
      [['simmer', 'next', false]],
      [['boil', 'running', false]],
      [],
    ]);
  });
  test('a running step is up after its duration', () => {
    expect(tasksOf([started(), event('step.started/1', 3, { batchId: B, stepId: 'boil' })])[0]?.upAt).toBe(addMinutes(T0, 23));
  });
  test('what has begun goes to the planner with its real minutes', () => {
    expect(startedBatches(foldDay([started(), ...done('boil', 2, 20)]), T0)).toMatchObject([
      { batchId: B, state: 'running', steps: [{ stepId: 'boil', startMin: 2, endMin: 20 }] },
    ]);
  });
});
