import { backtest, forecastDemand, suggestPar } from '@broth/core';
import type { DemandForecast, SalesRecord } from '@broth/core';
import * as words from './en';

const record = (day: string, sold: number, soldOutMin: number | null = null, events: SalesRecord['events'] = []): SalesRecord => ({ day, sold, soldOutMin, events });
const forecast = (some: Partial<DemandForecast>): DemandForecast => ({
  mean: 36,
  deviation: 7,
  days: 40,
  alike: [record('2026-11-03', 31), record('2026-11-10', 28), record('2026-11-17', 40, 785)],
  weekdayFactor: 1,
  eventFactor: 1,
  ...some,
});
const service = { by: 'service', level: 0.9 } as const;

describe('a par explains itself', () => {
  test.each([
    [
      words.parAdvice('Tuesday', forecast({}), { portions: 45, level: 0.9 }, service, []),
      'Tuesdays: 31, 28, 40+ ran out 13:05 → 36 expected, give or take 7; 45 for running out at most one day in ten.',
    ],
    [
      words.parAdvice('Tuesday', forecast({ alike: [record('2026-11-17', 20, null, ['rough'])] }), { portions: 45, level: 0.9 }, service, ['rough']),
      'Tuesdays: 20 (rough weather) → 36 expected with rough weather, give or take 7; 45 for running out at most one day in ten.',
    ],
    [
      words.parAdvice('Tuesday', forecast({ alike: [], days: 3 }), { portions: 45, level: 0.75 }, { by: 'service', level: 0.75 }, []),
      'No Tuesday yet; 3 other days → 36 expected, give or take 7; 45 for running out at most one day in four. Few days so far: hardly more than a guess.',
    ],
    [
      words.parAdvice('Tuesday', forecast({ alike: [] }), { portions: 49, level: 0.86 }, { by: 'cost', price: 4.5, cost: 0.63, salvage: 0 }, []),
      'No Tuesday yet; 40 other days → 36 expected, give or take 7; 49 is where a portion more costs as much as it brings.',
    ],
    [words.parAdvice('Tuesday', null, null, service, []), 'Nothing has been sold of it yet: put the par by hand, and enter what was sold.'],
  ])('%s', (said, sentence) => {
    expect(said).toBe(sentence);
  });
  test('of real records it says the same numbers as core', () => {
    const history = Array.from({ length: 10 }, (_, index) => record(`2026-11-${String(index + 10)}`, 30 + (index % 3)));
    const told = forecastDemand(history, '2026-11-24');
    const said = words.parAdvice('Tuesday', told, suggestPar(told, service), service, []);
    expect(said).toContain(`${String(Math.round(told?.mean ?? 0))} expected`);
  });
  test('the backtest in words', () => {
    expect(words.backtestLine({ method: 'forecast', wape: 13.81, bias: -8.7, runOuts: 2, days: 28 })).toBe('off by 13.8 %, 8.7 % too little, would have run out on 2 of 28 days');
    expect(words.backtestLine({ method: 'forecast', wape: 3, bias: 0.2, runOuts: 0, days: 28 })).toBe('off by 3 %, neither high nor low, would have run out on 0 of 28 days');
    expect(backtest([], 28).map(words.backtestLine)).toEqual(Array<string>(4).fill('not enough days yet'));
  });
});
