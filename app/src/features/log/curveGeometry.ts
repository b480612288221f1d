import { addMinutes, coolingForecast, coolingReadings, limitIn, minutesBetween, readingIn, temperatureAt } from '@broth/core';
import type { BatchRecord, CoolingForecast, CoolingRule, CoolingVerdict, Instant, TemperatureUnit, TimedReading } from '@broth/core';
import { fahrenheitFromCelsius } from '@broth/core';

export interface Point {
  readonly x: number;
  readonly y: number;
}

export interface CurveGeometry {
  readonly readings: readonly Point[];
  /** The limit as a stair: below it, to its left, is in time. */
  readonly stair: readonly Point[];
  readonly forecast: readonly Point[];
  /** Where it may run, one standard error to either side: upper edge forth, lower edge back. */
  readonly band: readonly Point[];
  readonly hours: readonly { readonly x: number; readonly label: string }[];
  readonly limits: readonly { readonly y: number; readonly temperature: number }[];
}

export interface Frame {
  readonly width: number;
  readonly height: number;
  readonly left: number;
  readonly bottom: number;
}

/** The readings a forecast may use: those of the present method; the first after a move is still settling. */
function segmentReadings(batch: BatchRecord): readonly TimedReading[] {
  const segment = batch.coolingSegments.at(-1);
  if (segment === undefined) return [];
  const own = coolingReadings(batch).filter((reading) => reading.at >= segment.since);
  return batch.coolingSegments.length > 1 ? own.slice(1) : own;
}

export function forecastOf(batch: BatchRecord, verdict: CoolingVerdict, rule: CoolingRule, unit: TemperatureUnit): CoolingForecast | null {
  const segment = batch.coolingSegments.at(-1);
  if (segment === undefined || verdict.clockFrom === null) return null;
  const ambient = unit === 'C' ? segment.ambientC : fahrenheitFromCelsius(segment.ambientC);
  return coolingForecast({ readings: segmentReadings(batch), ambient, unit, rule, clockFrom: verdict.clockFrom });
}

const POINTS = 40;

/** Lays the cooling of a batch out in a frame: time from when the clock started, at least over the whole limit. */
export function curveGeometry(
  batch: BatchRecord,
  verdict: CoolingVerdict,
  forecast: CoolingForecast | null,
  rule: CoolingRule,
  unit: TemperatureUnit,
  frame: Frame,
): CurveGeometry {
  const readings = coolingReadings(batch);
  const zero: Instant = verdict.clockFrom ?? readings[0]?.at ?? batch.coolingSegments[0]?.since ?? batch.startedAt;
  const totalMin = rule.basis === 'total' ? rule.endWithinMin : rule.midWithinMin + rule.endWithinMin;
  const firstMin = Math.min(0, ...readings.map((reading) => minutesBetween(zero, reading.at)));
  const lastMin = Math.max(totalMin, ...readings.map((reading) => minutesBetween(zero, reading.at))) * 1.04;
  const temperatures = readings.map((reading) => readingIn(reading.reading, unit));
  const [start, mid, end] = [limitIn(rule.start, unit), limitIn(rule.mid, unit), limitIn(rule.end, unit)];
  const top = Math.max(start, ...temperatures) + (unit === 'F' ? 8 : 4);
  const floor = Math.min(end, ...temperatures) - (unit === 'F' ? 9 : 5);
  const x = (minute: number): number => frame.left + ((minute - firstMin) / (lastMin - firstMin)) * (frame.width - frame.left);
  const y = (temperature: number): number => (1 - (Math.min(top, Math.max(floor, temperature)) - floor) / (top - floor)) * (frame.height - frame.bottom);
  const along = (kPerMin: number): Point[] => {
    if (forecast === null) return [];
    const from = minutesBetween(zero, readings.at(-1)?.at ?? zero);
    return Array.from({ length: POINTS + 1 }, (_, index) => {
      const minute = from + ((lastMin - from) * index) / POINTS;
      return { x: x(minute), y: y(temperatureAt({ ...forecast.fit, kPerMin }, addMinutes(zero, minute))) };
    });
  };
  const fit = forecast?.fit;
  return {
    readings: readings.map((reading, index) => ({ x: x(minutesBetween(zero, reading.at)), y: y(temperatures[index] ?? 0) })),
    stair: [
      { x: x(0), y: y(start) },
      { x: x(rule.midWithinMin), y: y(start) },
      { x: x(rule.midWithinMin), y: y(mid) },
      { x: x(totalMin), y: y(mid) },
      { x: x(totalMin), y: y(end) },
    ],
    forecast: fit === undefined ? [] : along(fit.kPerMin),
    band: fit === undefined ? [] : [...along(Math.max(0, fit.kPerMin - fit.kErrorPerMin)), ...along(fit.kPerMin + fit.kErrorPerMin).reverse()],
    hours: Array.from({ length: Math.floor(lastMin / 120) + 1 }, (_, index) => ({ x: x(index * 120), label: `${String(index * 2)} h` })),
    limits: [start, mid, end].map((temperature) => ({ y: y(temperature), temperature })),
  };
}
