import { fahrenheitFromCelsius } from '@broth/core';
import type { TemperatureUnit } from '@broth/core';

/** How numbers are said. */

// Made once: a board says some hundred numbers, and making a format costs more than using it.
const DIGITS = new Intl.NumberFormat('en', { minimumFractionDigits: 0, maximumFractionDigits: 1, useGrouping: false });
const LIST = new Intl.ListFormat('en', { type: 'conjunction' });
const EITHER = new Intl.ListFormat('en', { type: 'disjunction' });
/** `14` and `14.5`, never `14.0`. */
export function number(value: number): string {
  return DIGITS.format(value);
}
export function litres(volumeL: number): string {
  return `${number(volumeL)} L`;
}
export function degrees(value: number, unit: TemperatureUnit): string {
  return `${number(value)} °${unit}`;
}
/** How hot an oven is: `428 °F (220 °C)` where ovens are marked in °F, `220 °C` elsewhere. */
export function ovenHeat(temperatureC: number, unit: TemperatureUnit): string {
  const celsius = degrees(temperatureC, 'C');
  return unit === 'C' ? celsius : `${degrees(Math.round(fahrenheitFromCelsius(temperatureC)), 'F')} (${celsius})`;
}
/** `8:05`, minutes after midnight; a time on the next day says so. */
export function clock(minute: number): string {
  const inDay = ((minute % 1440) + 1440) % 1440;
  const text = `${String(Math.floor(inDay / 60))}:${String(Math.floor(inDay % 60)).padStart(2, '0')}`;
  return minute >= 1440 ? `${text} next day` : text;
}
/** A time as `clock` says it, or as 25:30 past midnight, back to minutes after midnight; NaN when it is none. */
export function readClock(text: string): number {
  const match = /^(\d{1,2})[:.](\d{2})( next day)?$/.exec(text.trim());
  const [hours, minutes] = [Number(match?.[1] ?? Number.NaN), Number(match?.[2] ?? Number.NaN)];
  if (!(hours < 48 && minutes < 60)) return Number.NaN;
  return hours * 60 + minutes + (match?.[3] === undefined ? 0 : 1440);
}
/** `45 min`, `1 h 05`. */
export function duration(durationMin: number): string {
  const whole = Math.round(Math.abs(durationMin));
  return whole < 60 ? `${String(whole)} min` : `${String(Math.floor(whole / 60))} h ${String(whole % 60).padStart(2, '0')}`;
}
/** `2 h`, `1.5 h`, `45 min`: a limit as a rule says it. */
export function hours(durationMin: number): string {
  return durationMin >= 60 && durationMin % 30 === 0 ? `${number(durationMin / 60)} h` : duration(durationMin);
}
export function list(items: readonly string[], by: 'and' | 'or' = 'and'): string {
  return (by === 'and' ? LIST : EITHER).format(items);
}

const WEEKDAY = new Intl.DateTimeFormat('en-GB', { weekday: 'short', timeZone: 'UTC' });
/** Days of the week, 1 = Monday … 7 = Sunday: `Mon to Fri`, `Mon, Wed and Sat`. */
export function weekdays(days: readonly number[]): string {
  // 2026-01-05 is a Monday.
  const name = (day: number): string => WEEKDAY.format(Date.UTC(2026, 0, 4 + day));
  const runs: { readonly from: number; to: number }[] = [];
  for (const day of [...days].sort((left, right) => left - right)) {
    const last = runs.at(-1);
    if (last?.to === day - 1) last.to = day;
    else runs.push({ from: day, to: day });
  }
  return list(runs.flatMap(({ from, to }) => (to - from > 1 ? [`${name(from)} to ${name(to)}`] : Array.from({ length: to - from + 1 }, (_, at) => name(from + at)))));
}
