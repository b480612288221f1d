import type { BacktestLine, DayEventKind, DemandForecast, ParRule, SalesRecord, SuggestedPar } from '@broth/core';
import { clock, list, litres, number } from './numbers';

/** What is said about demand and pars. */

export const DAY_EVENT: Readonly<Record<DayEventKind, string>> = { rough: 'rough weather', holiday: 'a holiday', booking: 'a large booking' };

/** `one day in ten` of 0.9. */
export function oneDayIn(level: number): string {
  const days = Math.round(1 / (1 - level));
  const word = { 2: 'two', 3: 'three', 4: 'four', 5: 'five', 10: 'ten', 20: 'twenty', 50: 'fifty' }[days] ?? String(days);
  return `one day in ${word}`;
}

function soldText({ sold, soldOutMin, events }: SalesRecord): string {
  const on = events.length === 0 ? '' : ` (${events.map((event) => DAY_EVENT[event]).join(', ')})`;
  return soldOutMin === null ? `${String(sold)}${on}` : `${String(sold)}+ ran out ${clock(soldOutMin)}${on}`;
}

/** `Tuesdays: 31, 28, 40+ ran out 13:05, 33 → 36 expected, 45 for running out at most one day in ten.` Portions. */
export function parAdvice(weekday: string, forecast: DemandForecast | null, suggested: SuggestedPar | null, rule: ParRule, events: readonly DayEventKind[]): string {
  if (forecast === null || suggested === null) return 'Nothing has been sold of it yet: put the par by hand, and enter what was sold.';
  const seen = forecast.alike.length === 0 ? `No ${weekday} yet; ${String(forecast.days)} other days` : `${weekday}s: ${forecast.alike.slice(-5).map(soldText).join(', ')}`;
  const on = events.length === 0 ? '' : ` with ${list(events.map((event) => DAY_EVENT[event]))}`;
  const few = forecast.days < 4 ? ' Few days so far: hardly more than a guess.' : '';
  const expected = `${String(Math.round(forecast.mean))} expected${on}, give or take ${String(Math.round(forecast.deviation))}`;
  switch (rule.by) {
    case 'service':
      return `${seen} → ${expected}; ${String(suggested.portions)} for running out at most ${oneDayIn(suggested.level ?? rule.level)}.${few}`;
    case 'cost':
      return `${seen} → ${expected}; ${String(suggested.portions)} is where a portion more costs as much as it brings.${few}`;
    case 'hand':
      return `${seen} → ${expected}; ${String(rule.portions)} put by hand.${few}`;
  }
}

export const METHOD: Readonly<Record<BacktestLine['method'], string>> = {
  forecast: 'This forecast',
  lastWeek: 'Same weekday last week',
  lastFour: 'Mean of four same weekdays',
  lastSeven: 'Mean of the last seven days',
};
export function backtestLine({ wape, bias, runOuts, days }: BacktestLine): string {
  if (days === 0) return 'not enough days yet';
  return `off by ${number(wape)} %, ${Math.abs(bias) < 0.5 ? 'neither high nor low' : `${number(Math.abs(bias))} % too ${bias > 0 ? 'much' : 'little'}`}, would have run out on ${String(runOuts)} of ${String(days)} days`;
}
export function take(volumeL: number): string {
  return `Take ${litres(volumeL)}`;
}
