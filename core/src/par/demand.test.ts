import fc from 'fast-check';
import { addDays } from '../quantity/index';
import { seeded } from '../sequence/index';
import { backtest, beyond, forecastDemand, suggestPar, upperTail, zOf } from './index';
import type { BacktestLine, DemandForecast, SalesRecord } from './index';

const START = '2026-09-28';
const sale = (offset: number, sold: number, some: Partial<SalesRecord> = {}): SalesRecord => ({ day: addDays(START, offset), sold, soldOutMin: null, events: [], ...some });
/** A normal deviate from two uniform ones (Box & Muller). */
function normal(random: () => number): number {
  return Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
}
/** Weeks of sales of a known demand; what is above the par is not sold, and the day is marked as run out. */
function season(
  weeks: number,
  { level = 40, spread = 6, par = Infinity, weekday = [1, 1, 1, 1, 1.3, 1.5, 0.7], seed = 7 } = {},
): { readonly sales: readonly SalesRecord[]; readonly demand: readonly number[] } {
  const random = seeded(seed);
  const demand = Array.from({ length: weeks * 7 }, (_, index) => Math.max(0, Math.round(level * (weekday[index % 7] ?? 1) + spread * normal(random))));
  return { demand, sales: demand.map((wanted, index) => (wanted >= par ? sale(index, par, { soldOutMin: 780 }) : sale(index, wanted))) };
}
const told = (forecast: DemandForecast | null): DemandForecast => {
  if (forecast === null) throw new Error('no forecast');
  return forecast;
};

describe('the normal law', () => {
  test('the tail and the quantile are each other’s reverse, to six figures', () => {
    const wrong = Array.from({ length: 99 }, (_, index) => (index + 1) / 100).filter((p) => Math.abs(1 - upperTail(zOf(p)) - p) > 1e-6);
    expect(wrong).toEqual([]);
  });
  test('half of a normal lies above its mean, and there it is 0.798 deviations up on average (√(2/π))', () => {
    expect(upperTail(0)).toBeCloseTo(0.5, 7);
    expect(beyond(10, 10, 2).mean).toBeCloseTo(10 + 2 * Math.sqrt(2 / Math.PI), 6);
  });
  test('what is beyond is never below what was sold, however far out', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 500 }), fc.integer({ min: 1, max: 300 }), fc.integer({ min: 1, max: 60 }), (sold, mean, deviation) => {
        const { mean: expected, square } = beyond(sold, mean, deviation);
        expect(expected).toBeGreaterThanOrEqual(sold);
        expect(square).toBeGreaterThan(0);
      }),
      { seed: 7, numRuns: 500 },
    );
  });
});

describe('a forecast', () => {
  test('without history there is none; from one day it is that day, with a wide spread', () => {
    expect(forecastDemand([], '2026-11-25')).toBeNull();
    const one = told(forecastDemand([sale(0, 30)], addDays(START, 7)));
    expect([one.mean, one.days]).toEqual([expect.closeTo(30, 6), 1]);
    expect(one.deviation / one.mean).toBeGreaterThanOrEqual(0.5);
  });
  test('eight weeks show the weekday: Saturdays half as many again, Sundays fewer', () => {
    const { sales } = season(8);
    const means = [3, 5, 6].map((weekday) => told(forecastDemand(sales, addDays(START, 56 + weekday))).mean);
    // Eight Saturdays of 60 ± 6 have a mean that is off by 2 or so.
    expect(means.filter((mean, index) => Math.abs(mean - (([40, 60, 28] as const)[index] ?? 0)) > 4)).toEqual([]);
  });
  test('days that ran out are not demand: with a third of them cut off at 40, the mean and the spread are those of what was wanted', () => {
    const flat = { weekday: [1, 1, 1, 1, 1, 1, 1], level: 38, spread: 7 };
    const [cut, whole] = [season(10, { ...flat, par: 40 }), season(10, flat)];
    expect(cut.sales.filter((record) => record.soldOutMin !== null).length).toBeGreaterThan(20);
    const [censored, free] = [told(forecastDemand(cut.sales, addDays(START, 70))), told(forecastDemand(whole.sales, addDays(START, 70)))];
    const naive = cut.sales.reduce((sum, record) => sum + record.sold, 0) / cut.sales.length;
    expect(naive).toBeLessThan(36.5);
    expect(Math.abs(censored.mean - free.mean)).toBeLessThan(1.5);
    expect(Math.abs(censored.deviation - free.deviation)).toBeLessThan(2.5);
  });
  test('rough weather is learned from the days it blew, and only used when it does again', () => {
    const { sales } = season(8, { spread: 2 });
    const rough = sales.map((record, index) => (index % 9 === 4 ? { ...record, sold: Math.round(record.sold * 0.5), events: ['rough' as const] } : record));
    const day = addDays(START, 56);
    const [calm, blow] = [told(forecastDemand(rough, day)), told(forecastDemand(rough, day, ['rough']))];
    expect(blow.mean / calm.mean).toBeGreaterThan(0.45);
    expect(blow.mean / calm.mean).toBeLessThan(0.7);
  });
  test('a level that has doubled is followed within weeks', () => {
    const { sales } = season(10, { spread: 2, weekday: [1, 1, 1, 1, 1, 1, 1] });
    const grown = sales.map((record, index) => (index >= 42 ? { ...record, sold: record.sold * 2 } : record));
    expect(told(forecastDemand(grown, addDays(START, 70))).mean).toBeGreaterThan(62);
  });
  test('days after the one asked for are not looked at', () => {
    const { sales } = season(8);
    const day = addDays(START, 30);
    expect(forecastDemand(sales, day)).toEqual(
      forecastDemand(
        sales.filter((record) => record.day < day),
        day,
      ),
    );
  });
});

describe('a par from a forecast', () => {
  const forecast = (mean: number, deviation: number): DemandForecast => ({ mean, deviation, days: 40, alike: [], weekdayFactor: 1, eventFactor: 1 });
  test('running out at most one day in ten is 1.2816 deviations above the mean', () => {
    expect(suggestPar(forecast(36, 7), { by: 'service', level: 0.9 })).toEqual({ portions: 45, level: 0.9 });
  });
  test('price 4.50, cost 0.63, nothing left of a portion over: 49 of a demand of 40 ± 8 (newsvendor, critical ratio 0.86)', () => {
    expect(suggestPar(forecast(40, 8), { by: 'cost', price: 4.5, cost: 0.63, salvage: 0 })).toEqual({ portions: 49, level: expect.closeTo(0.86, 9) });
  });
  test('a leftover that is worth its cost costs nothing to have: the par is as high as it may be', () => {
    expect(suggestPar(forecast(40, 8), { by: 'cost', price: 4.5, cost: 0.63, salvage: 0.63 })?.level).toBe(0.995);
  });
  test('a par put by hand says on how many days it would do; without history it is just a number', () => {
    expect(suggestPar(forecast(40, 8), { by: 'hand', portions: 40 })).toEqual({ portions: 40, level: expect.closeTo(0.5, 6) });
    expect(suggestPar(null, { by: 'hand', portions: 12 })).toEqual({ portions: 12, level: null });
    expect(suggestPar(null, { by: 'service', level: 0.9 })).toBeNull();
  });
  test('law: a higher service level never makes less', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 200 }), fc.integer({ min: 0, max: 80 }), fc.integer({ min: 50, max: 99 }), (mean, deviation, percent) => {
        const at = (level: number): number => suggestPar(forecast(mean, deviation), { by: 'service', level })?.portions ?? 0;
        expect(at((percent + 0.5) / 100)).toBeGreaterThanOrEqual(at(percent / 100));
      }),
      { seed: 7, numRuns: 300 },
    );
  });
});

describe('the backtest', () => {
  // Ten seasons of twelve weeks, the last four foretold, Saturdays often run out at 60.
  const seasons = Array.from({ length: 10 }, (_, index) => backtest(season(12, { par: 60, seed: index + 1 }).sales, 28));
  const sumOf = (method: BacktestLine['method'], what: 'wape' | 'bias' | 'runOuts'): number =>
    seasons.reduce((sum, lines) => sum + (lines.find((line) => line.method === method)?.[what] ?? Number.NaN), 0);
  test('tells four ways on the same days', () => {
    expect(seasons[0]?.map((line) => [line.method, line.days])).toEqual([
      ['forecast', 28],
      ['lastWeek', 28],
      ['lastFour', 28],
      ['lastSeven', 28],
    ]);
  });
  test('over ten seasons the forecast is nearer than each plain way, and runs out on half as many days', () => {
    const plain = ['lastWeek', 'lastFour', 'lastSeven'] as const;
    expect(plain.filter((method) => sumOf(method, 'wape') <= sumOf('forecast', 'wape'))).toEqual([]);
    expect(sumOf('forecast', 'runOuts')).toBeLessThanOrEqual(sumOf('lastFour', 'runOuts') / 2);
  });
  test('is not far off on the whole', () => {
    expect(Math.abs(sumOf('forecast', 'bias') / seasons.length)).toBeLessThan(5);
  });
  test('from a single day there is nothing to tell with', () => {
    expect(backtest([sale(0, 20)], 28).map((line) => line.days)).toEqual([0, 0, 0, 0]);
  });
});
