import { addMinutes, limitIn, minutesBetween, readingIn } from '../quantity/index';
import type { Instant, TemperatureUnit } from '../quantity/index';
import type { CoolingRule } from './rulePack';
import { inOrder } from './verdict';
import type { TimedReading } from './verdict';

/** Newton's law: T(t) = ambient + excess × e^(−k t), t in minutes from `zeroAt`, temperatures in `unit`. */
export interface NewtonFit {
  readonly unit: TemperatureUnit;
  readonly zeroAt: Instant;
  readonly ambient: number;
  readonly excess: number;
  readonly kPerMin: number;
  /** One standard error of k, from a reading error of ±2 °F (the accuracy the Food Code asks of a thermometer, 4-203.11). */
  readonly kErrorPerMin: number;
}

/** Below these a fit says more about the thermometer than about the soup. A design choice. */
const MIN_SPAN_MIN = 15;
const MIN_EXCESS = { F: 5, C: 5 / 1.8 };
const READING_ERROR = { F: 2, C: 1 };

/**
 * Least squares of ln(T − ambient) on time, ambient known. Null with fewer than two readings 15 min apart, a reading within
 * 5 °F of the ambient, or food that does not cool. Source: Incropera & DeWitt, Fundamentals of Heat and Mass Transfer, ch. 5.
 */
export function fitNewton(readings: readonly TimedReading[], ambient: number, unit: TemperatureUnit): NewtonFit | null {
  const points = inOrder(readings).map((timed) => ({ at: timed.at, excess: readingIn(timed.reading, unit) - ambient }));
  const first = points[0];
  const last = points.at(-1);
  if (first === undefined || last === undefined || minutesBetween(first.at, last.at) < MIN_SPAN_MIN) return null;
  if (points.some((point) => point.excess < MIN_EXCESS[unit])) return null;
  const rows = points.map((point) => ({ t: minutesBetween(first.at, point.at), y: Math.log(point.excess), sigma: READING_ERROR[unit] / point.excess }));
  const meanT = rows.reduce((sum, row) => sum + row.t, 0) / rows.length;
  const meanY = rows.reduce((sum, row) => sum + row.y, 0) / rows.length;
  const sxx = rows.reduce((sum, row) => sum + (row.t - meanT) ** 2, 0);
  const kPerMin = -rows.reduce((sum, row) => sum + (row.t - meanT) * (row.y - meanY), 0) / sxx;
  if (!(kPerMin > 0)) return null;
  const kErrorPerMin = Math.sqrt(rows.reduce((sum, row) => sum + ((row.t - meanT) * row.sigma) ** 2, 0)) / sxx;
  return { unit, zeroAt: first.at, ambient, excess: Math.exp(meanY + kPerMin * meanT), kPerMin, kErrorPerMin };
}

/** The fitted temperature at an instant, in the fit's unit. */
export function temperatureAt(fit: NewtonFit, at: Instant): number {
  return fit.ambient + fit.excess * Math.exp(-fit.kPerMin * minutesBetween(fit.zeroAt, at));
}

/** When the fit reaches a temperature; null when the ambient is not below it, so that it never does. */
export function reaches(fit: NewtonFit, temperature: number): Instant | null {
  if (temperature <= fit.ambient) return null;
  return addMinutes(fit.zeroAt, Math.log(fit.excess / (temperature - fit.ambient)) / fit.kPerMin);
}

/** Advice, never a verdict. Spare minutes are negative when the limit will be missed; null when the target is never reached. */
export interface CoolingForecast {
  readonly fit: NewtonFit;
  readonly midAt: Instant | null;
  readonly endAt: Instant | null;
  readonly spareMidMin: number | null;
  readonly spareEndMin: number | null;
}

/** Where a cooling batch is heading, given the readings of its present method and that method's ambient. `clockFrom` starts the limits. */
export function coolingForecast(input: {
  readonly readings: readonly TimedReading[];
  readonly ambient: number;
  readonly unit: TemperatureUnit;
  readonly rule: CoolingRule;
  readonly clockFrom: Instant;
}): CoolingForecast | null {
  const fit = fitNewton(input.readings, input.ambient, input.unit);
  if (fit === null) return null;
  const midAt = reaches(fit, limitIn(input.rule.mid, input.unit));
  const endAt = reaches(fit, limitIn(input.rule.end, input.unit));
  const endFrom = input.rule.basis === 'total' ? input.clockFrom : midAt;
  return {
    fit,
    midAt,
    endAt,
    spareMidMin: midAt === null ? null : input.rule.midWithinMin - minutesBetween(input.clockFrom, midAt),
    spareEndMin: endAt === null || endFrom === null ? null : input.rule.endWithinMin - minutesBetween(endFrom, endAt),
  };
}
