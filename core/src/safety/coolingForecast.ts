import { addMinutes, limitIn, minutesBetween, readingIn } from '../quantity/index';
import type { Instant, TemperatureLimit, TemperatureUnit } from '../quantity/index';
import type { CoolingVerdict } from './cooling';
import type { CoolRule } from './rule';
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

/** Where one stage is heading. */
export interface StageForecast {
  readonly ruleId: string;
  readonly limit: TemperatureLimit;
  /** null = what it cools in is not cold enough: it never gets there. */
  readonly at: Instant | null;
  /** Negative when the limit will be missed; null when it is never reached, or its clock has no known start. */
  readonly spareMin: number | null;
  /** The same with the rate a standard error slower and faster: the band. null = never. */
  readonly latestAt: Instant | null;
  readonly earliestAt: Instant | null;
}

/** Advice, never a verdict. */
export interface CoolingForecast {
  readonly fit: NewtonFit;
  readonly stages: readonly StageForecast[];
  /** The first open stage: what the advice is about. null = all are passed. */
  readonly next: StageForecast | null;
  /** What it cools in stands above the last target, or less than 1 °F (0.6 °C) below it: the last degrees never come, or hardly. */
  readonly tooWarmHere: boolean;
}

const HARDLY = { F: 1, C: 1 / 1.8 };

/** Where a cooling batch is heading, given the readings of its present method, that method's ambient, and how its stages stand. */
export function coolingForecast(input: {
  readonly readings: readonly TimedReading[];
  readonly ambient: number;
  readonly unit: TemperatureUnit;
  readonly rules: readonly CoolRule[];
  readonly verdict: CoolingVerdict;
}): CoolingForecast | null {
  const { unit, rules, verdict } = input;
  const fit = fitNewton(input.readings, input.ambient, unit);
  if (fit === null) return null;
  const steady = fit;
  const at = (factor: number, target: number): Instant | null => {
    const kPerMin = steady.kPerMin + factor * steady.kErrorPerMin;
    return kPerMin <= 0 ? null : reaches({ ...steady, kPerMin }, target);
  };
  const stages: StageForecast[] = [];
  let before: Instant | null = null;
  rules.forEach((rule, index) => {
    const stage = verdict.stages[index];
    if (rule.to.kind !== 'temperature' || stage === undefined) return;
    const target = limitIn(rule.to.limit, unit);
    const when = at(0, target);
    const from = rule.from.kind === 'previous' ? (stage.clockFrom ?? before) : stage.clockFrom;
    stages.push({
      ruleId: rule.id,
      limit: rule.to.limit,
      at: when,
      spareMin: when === null || from === null ? null : rule.withinMin - minutesBetween(from, when),
      latestAt: at(-1, target),
      earliestAt: at(1, target),
    });
    before = when;
  });
  const open = verdict.stages.find((stage) => stage.kind !== 'pass' && stage.to.kind === 'temperature');
  const last = stages.at(-1);
  return {
    fit,
    stages,
    next: stages.find((stage) => stage.ruleId === open?.ruleId) ?? null,
    tooWarmHere: last !== undefined && input.ambient > limitIn(last.limit, unit) - HARDLY[unit],
  };
}
