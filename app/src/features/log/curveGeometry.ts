import { addMinutes, fahrenheitFromCelsius, limitIn, minutesBetween, readingIn } from '@broth/core';
import type { BatchRecord, CoolRule, CoolingVerdict, Instant, TemperatureUnit, TimedReading } from '@broth/core';
import { coolingForecast, temperatureAt } from '@broth/core/advice';
import type { CoolingForecast } from '@broth/core/advice';
import { coolingReadings } from '@broth/core';

export interface Point {
  readonly x: number;
  readonly y: number;
}

export interface CurveGeometry {
  readonly readings: readonly (Point & { readonly source: 'hand' | 'probe' })[];
  /** The limit as a stair: below it, to its left, is in time. */
  readonly stair: readonly Point[];
  readonly forecast: readonly Point[];
  /** Where it may run, one standard error to either side: upper edge forth, lower edge back. */
  readonly band: readonly Point[];
  /** Where the method changed, or ice went in. */
  readonly changes: readonly { readonly x: number; readonly label: string }[];
  readonly hours: readonly { readonly x: number; readonly label: string }[];
  readonly limits: readonly { readonly y: number; readonly temperature: number }[];
}

export interface Frame {
  readonly width: number;
  readonly height: number;
  readonly left: number;
  readonly bottom: number;
}

/** The readings a forecast may use: those of the present method, and after ice went in; the first after a change is still settling. */
function segmentReadings(batch: BatchRecord): readonly TimedReading[] {
  const segment = batch.coolingSegments.at(-1);
  if (segment === undefined) return [];
  const since = Math.max(segment.since, ...batch.iced.map((ice) => ice.at));
  const own = coolingReadings(batch).filter((reading) => reading.at >= since);
  return batch.coolingSegments.length > 1 || batch.iced.length > 0 ? own.slice(1) : own;
}

export function forecastOf(batch: BatchRecord, verdict: CoolingVerdict, rules: readonly CoolRule[], unit: TemperatureUnit): CoolingForecast | null {
  const segment = batch.coolingSegments.at(-1);
  if (segment === undefined) return null;
  const ambient = unit === 'C' ? segment.ambientC : fahrenheitFromCelsius(segment.ambientC);
  return coolingForecast({ readings: segmentReadings(batch), ambient, unit, rules, verdict });
}

const POINTS = 40;

/** The stages that end at a temperature, with the minute from the first clock at which each has to be there. */
function deadlines(rules: readonly CoolRule[], unit: TemperatureUnit): readonly { readonly byMin: number; readonly temperature: number }[] {
  let before = 0;
  return rules.flatMap((rule) => {
    const byMin = rule.from.kind === 'previous' || (rule.from.kind === 'event' && rule.from.event === 'coolingStarted') ? before + rule.withinMin : rule.withinMin;
    before = byMin;
    return rule.to.kind === 'temperature' ? [{ byMin, temperature: limitIn(rule.to.limit, unit) }] : [];
  });
}

/** Lays the cooling of a batch out in a frame: time from when the clock started, at least over the whole limit. */
export function curveGeometry(
  batch: BatchRecord,
  verdict: CoolingVerdict,
  forecast: CoolingForecast | null,
  rules: readonly CoolRule[],
  unit: TemperatureUnit,
  frame: Frame,
): CurveGeometry {
  const readings = coolingReadings(batch);
  const zero: Instant = verdict.clockFrom ?? readings[0]?.at ?? batch.coolingSegments[0]?.since ?? batch.startedAt;
  const steps = deadlines(rules, unit);
  const totalMin = steps.at(-1)?.byMin ?? 360;
  const firstMin = Math.min(0, ...readings.map((reading) => minutesBetween(zero, reading.at)));
  const lastMin = Math.max(totalMin, ...readings.map((reading) => minutesBetween(zero, reading.at))) * 1.04;
  const temperatures = readings.map((reading) => readingIn(reading.reading, unit));
  const from = rules[0]?.from;
  const start = from?.kind === 'falls' ? limitIn(from.limit, unit) : Math.max(unit === 'F' ? 140 : 60, ...temperatures);
  const last = steps.at(-1)?.temperature ?? (unit === 'F' ? 41 : 5);
  const top = Math.max(start, ...temperatures) + (unit === 'F' ? 8 : 4);
  const floor = Math.min(last, ...temperatures) - (unit === 'F' ? 9 : 5);
  const x = (minute: number): number => frame.left + ((minute - firstMin) / (lastMin - firstMin)) * (frame.width - frame.left);
  const y = (temperature: number): number => (1 - (Math.min(top, Math.max(floor, temperature)) - floor) / (top - floor)) * (frame.height - frame.bottom);
  const along = (kPerMin: number): Point[] => {
    if (forecast === null) return [];
    const begin = minutesBetween(zero, readings.at(-1)?.at ?? zero);
    return Array.from({ length: POINTS + 1 }, (_, index) => {
      const minute = begin + ((lastMin - begin) * index) / POINTS;
      return { x: x(minute), y: y(temperatureAt({ ...forecast.fit, kPerMin }, addMinutes(zero, minute))) };
    });
  };
  const stair: Point[] = steps.length === 0 ? [] : [{ x: x(0), y: y(start) }];
  let level = start;
  for (const { byMin, temperature } of steps) {
    stair.push({ x: x(byMin), y: y(level) }, { x: x(byMin), y: y(temperature) });
    level = temperature;
  }
  const fit = forecast?.fit;
  return {
    readings: readings.map((reading, index) => ({ x: x(minutesBetween(zero, reading.at)), y: y(temperatures[index] ?? 0), source: reading.source })),
    stair,
    forecast: fit === undefined ? [] : along(fit.kPerMin),
    band: fit === undefined ? [] : [...along(Math.max(0, fit.kPerMin - fit.kErrorPerMin)), ...along(fit.kPerMin + fit.kErrorPerMin).reverse()],
    changes: [
      ...batch.coolingSegments.slice(1).map(({ since }) => ({ x: x(minutesBetween(zero, since)), label: 'moved' })),
      ...batch.iced.map((ice) => ({ x: x(minutesBetween(zero, ice.at)), label: 'ice' })),
    ],
    hours: Array.from({ length: Math.floor(lastMin / 120) + 1 }, (_, index) => ({ x: x(index * 120), label: `${String(index * 2)} h` })),
    limits: [...(from?.kind === 'falls' ? [start] : []), ...steps.map((step) => step.temperature)].map((temperature) => ({ y: y(temperature), temperature })),
  };
}
