import { planDay } from '../plan/index';
import type { DayPlan } from '../plan/index';
import { makeLine, makeSoup, makeStep } from '../soup/index';
import type { Soup } from '../soup/index';
import { DAY, T0, eventAt } from '../testing/events.arbitrary';
import { stationWith } from '../testing/station';
import { foldDay, takersOf } from './index';
import type { DayEvent, Taker } from './index';

const cooks = ['prep', 'boil', 'empty'].map((id) =>
  makeStep({
    id,
    phase: id === 'prep' ? 'prep' : id === 'empty' ? 'hold' : 'boil',
    name: id,
    duration: { lowMin: 10, highMin: 10, perLitreMin: 0 },
    place: { kind: id === 'prep' ? 'bench' : 'vessel' },
  }),
);
const stock = makeSoup({ id: 'stock', name: 'Stock', role: 'component', steps: cooks, makesL: 10 });
const taking = (id: string): Soup =>
  makeSoup({
    id,
    name: id,
    steps: cooks,
    makesL: 10,
    ingredients: [makeLine({ id: 'stock', name: 'Stock', amount: { low: 5000, high: 5000, unit: 'mL' }, stepId: 'boil', componentId: 'stock' })],
  });
const soups = [stock, taking('leek'), taking('pea'), makeSoup({ id: 'bean', name: 'Bean', steps: cooks, makesL: 10 })];
const station = stationWith({
  equipment: [1, 2].map((number) => ({ kind: 'vessel', id: `k${String(number)}`, name: `Kettle ${String(number)}`, capacityL: 16, minFillL: 3, workingMaxL: 12, inUse: true })),
  people: [{ id: 'lead', name: 'Lead', role: 'lead', shift: { fromMin: 300, toMin: 1200 } }],
  services: [
    { id: 'midday', name: 'Midday', startMin: 690, endMin: 840 },
    { id: 'evening', name: 'Evening', startMin: 1080, endMin: 1150 },
  ],
});
const pars = [
  { soupId: 'leek', parL: 10, serviceId: 'midday' },
  { soupId: 'bean', parL: 10, serviceId: 'midday' },
  { soupId: 'pea', parL: 10, serviceId: 'evening' },
];
const planned = (splits: readonly { soupId: string; batches: number }[]): DayPlan =>
  planDay({ date: DAY, nowMin: 300, soups, station, pars, lots: [], started: [], dateMarkLastDay: 7, splits }, { seed: 1, moves: 50 });
const once = planned([]);
const twice = planned([{ soupId: 'stock', batches: 2 }]);
const of = (plan: DayPlan, batchId: string) => {
  const batch = plan.batches.find((one) => one.id === batchId);
  if (batch === undefined) throw new Error(`${batchId} is not planned`);
  return batch;
};
/** All of a batch as planned, from its start to its end. */
const cooked = (plan: DayPlan, batchId: string): DayEvent[] => {
  const { soupId, soupVersion, name, ordinal, volumeL, vesselId, steps, readyMin } = of(plan, batchId);
  return [
    eventAt('batch.started/1', steps[0]?.startMin ?? 0, { batchId, soupId, soupVersion, name, ordinal, volumeL, vesselId }),
    ...steps.flatMap(({ stepId, startMin, endMin }) => [eventAt('step.started/1', startMin, { batchId, stepId }), eventAt('step.done/1', endMin, { batchId, stepId })]),
    eventAt('batch.finished/1', readyMin, { batchId, volumeOutL: volumeL }),
  ];
};
const S = `${DAY}.stock.1`;
const takers = (plan: DayPlan | null, events: readonly DayEvent[], batchId = S): readonly Taker[] => {
  const day = foldDay(events);
  const batch = day.batches[batchId];
  if (batch === undefined) throw new Error(`${batchId} has not begun`);
  return takersOf(batch, plan, day, new Map(soups.map((soup) => [soup.id, soup])), T0);
};
const names = (some: readonly Taker[]): readonly string[] => some.map(({ name }) => name);

describe('what a stock goes into', () => {
  test('the soups whose card asks for it, the first to take it first', () => {
    expect(names(takers(once, cooked(once, S)))).toEqual(['leek 1', 'pea 1']);
  });
  test('of two batches of stock each has its own', () => {
    const events = [...cooked(twice, S), ...cooked(twice, `${DAY}.leek.1`), ...cooked(twice, `${DAY}.stock.2`)];
    expect([names(takers(twice, cooked(twice, S))), names(takers(twice, events, `${DAY}.stock.2`))]).toEqual([['leek 1'], ['pea 1']]);
  });
  test('a soup that was thrown away takes nothing', () => {
    const gone = eventAt('corrective.taken/1', 400, { batchId: `${DAY}.leek.1`, ruleId: 'r', action: 'discard', note: 'burnt', volumeL: 10 });
    const begun = cooked(once, `${DAY}.leek.1`).slice(0, 1);
    expect(names(takers(once, [...cooked(once, S), ...begun, gone]))).toEqual(['pea 1']);
  });
  test('which of them are under way is told', () => {
    expect(takers(once, [...cooked(once, S), ...cooked(once, `${DAY}.leek.1`).slice(0, 1)]).map(({ begun }) => begun)).toEqual([true, false]);
  });
  test('without a plan nobody knows', () => {
    expect(takers(null, cooked(once, S))).toEqual([]);
  });
  test('a soup goes into nothing', () => {
    expect(takers(once, cooked(once, `${DAY}.bean.1`), `${DAY}.bean.1`)).toEqual([]);
  });
});

describe('all of it is used', () => {
  const used = eventAt('batch.used/1', of(once, S).readyMin + 5, { batchId: S, intoBatchIds: [`${DAY}.leek.1`] });
  test('it stands nowhere any more', () => {
    expect(foldDay([...cooked(once, S), used]).batches[S]?.stage).toMatchObject({ kind: 'used', intoBatchIds: [`${DAY}.leek.1`] });
  });
  test('what was thrown away is not used', () => {
    const gone = eventAt('corrective.taken/1', of(once, S).readyMin + 1, { batchId: S, ruleId: 'r', action: 'discard', note: 'burnt', volumeL: 5 });
    expect(foldDay([...cooked(once, S), gone, used]).batches[S]?.stage.kind).toBe('discarded');
  });
});
