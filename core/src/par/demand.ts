import type { CalendarDate } from '../quantity/index';
import { byId, daysBetween, weekdayOf } from '../quantity/index';
import { zOf } from './normal';

/** What makes a day unlike others of its weekday. */
export const DAY_EVENTS = ['rough', 'holiday', 'booking'] as const;
export type DayEventKind = (typeof DAY_EVENTS)[number];

/** What was sold of one soup at one service. Portions. */
export interface SalesRecord {
  readonly day: CalendarDate;
  readonly sold: number;
  /** Minutes after midnight it ran out at; null when some was left. A day that ran out tells only that demand was at least this. */
  readonly soldOutMin: number | null;
  readonly events: readonly DayEventKind[];
}

export interface DemandForecast {
  /** Expected portions, and the spread of a single day around it. */
  readonly mean: number;
  readonly deviation: number;
  /** Days it was worked out from; below four it is hardly more than a guess. */
  readonly days: number;
  /** The last same weekdays, oldest first, as they were. */
  readonly alike: readonly SalesRecord[];
  readonly weekdayFactor: number;
  /** What today's events do to it; 1 without events. */
  readonly eventFactor: number;
}

/** Weight of a day falls to half in three weeks: a menu's demand drifts. A design choice. */
const HALF_LIFE_DAYS = 21;
/** A factor learned from few days is drawn towards 1 as if that many ordinary days had been seen. Design choices, tried on the backtest. */
const WEEKDAY_PRIOR_DAYS = 0.5;
const EVENT_PRIOR_DAYS = 1;
/** What a kitchen without history may expect: nothing is known, so the spread is wide. */
const UNKNOWN_SPREAD = 0.5;
const ALIKE = 8;
const ROUNDS = 12;

/** Standard normal density and upper tail; the tail by Abramowitz & Stegun 26.2.17, good to 7.5e-8. */
function density(x: number): number {
  return Math.exp((-x * x) / 2) / Math.sqrt(2 * Math.PI);
}
export function upperTail(x: number): number {
  const at = Math.abs(x);
  const t = 1 / (1 + 0.2316419 * at);
  const tail = density(at) * t * (0.31938153 + t * (-0.356563782 + t * (1.781477937 + t * (-1.821255978 + t * 1.330274429))));
  return x < 0 ? 1 - tail : tail;
}

/**
 * Mean and second moment of a normal demand given that it is above what was sold: what a sold-out day stands for. The standard truncated normal,
 * λ = φ(α) / (1 − Φ(α)).
 */
export function beyond(sold: number, mean: number, deviation: number): { readonly mean: number; readonly square: number } {
  const alpha = (sold - mean) / deviation;
  const tail = upperTail(alpha);
  // So far out that the tail cannot be told from nothing: demand was just above.
  const lambda = tail < 1e-12 ? alpha : density(alpha) / tail;
  const expected = mean + deviation * lambda;
  const variance = deviation * deviation * Math.max(0.05, 1 + alpha * lambda - lambda * lambda);
  return { mean: Math.max(sold, expected), square: variance };
}

interface Row {
  /** 0 = Monday. */
  readonly weekday: number;
  readonly events: readonly DayEventKind[];
  readonly weight: number;
  readonly sold: number;
  readonly censored: boolean;
}

interface Model {
  readonly level: number;
  readonly weekday: readonly number[];
  readonly event: Readonly<Record<DayEventKind, number>>;
  /** Spread of a day, as a share of what is expected of it. */
  readonly relative: number;
}

function factorOf(row: Row, model: Pick<Model, 'weekday' | 'event'>): number {
  return row.events.reduce((factor, event) => factor * model.event[event], model.weekday[row.weekday] ?? 1);
}

/** One round: level, weekdays and events in turn, each from what the others leave, sold-out days at what they stand for. */
function refine(rows: readonly Row[], before: Model): Model {
  const demand = rows.map((row) => {
    const expected = before.level * factorOf(row, before);
    return row.censored ? beyond(row.sold, expected, Math.max(expected * before.relative, 0.5)) : { mean: row.sold, square: 0 };
  });
  const sum = (pick: (row: Row, index: number) => number): number => rows.reduce((total, row, index) => total + pick(row, index), 0);
  const at = (index: number): number => demand[index]?.mean ?? 0;
  const level = sum((row, index) => row.weight * at(index)) / sum((row) => row.weight * factorOf(row, before));
  const weekday = before.weekday.map((_, day) => {
    // Weekdays and events change slowly: every day counts the same for them, only the level drifts.
    const mine = (row: Row): number => (row.weekday === day ? 1 : 0);
    const events = (row: Row): number => row.events.reduce((factor, event) => factor * before.event[event], 1);
    const seen = sum((row) => mine(row) * level * events(row));
    const prior = WEEKDAY_PRIOR_DAYS * level;
    return (sum((row, index) => mine(row) * at(index)) + prior) / (seen + prior);
  });
  const eventFactor = (kind: DayEventKind): number => {
    const mine = (row: Row): number => (row.events.includes(kind) ? 1 : 0);
    const other = (row: Row): number => row.events.reduce((factor, event) => (event === kind ? factor : factor * before.event[event]), weekday[row.weekday] ?? 1);
    const seen = sum((row) => mine(row) * level * other(row));
    const prior = EVENT_PRIOR_DAYS * level;
    return (sum((row, index) => mine(row) * at(index)) + prior) / (seen + prior);
  };
  const event = { rough: eventFactor('rough'), holiday: eventFactor('holiday'), booking: eventFactor('booking') };
  const residual = sum((row, index) => {
    const expected = level * factorOf(row, { weekday, event });
    return (row.weight * ((at(index) - expected) ** 2 + (demand[index]?.square ?? 0))) / (expected * expected);
  });
  // Factors were fitted to the same days: as many as were learned are taken off the count.
  const learnt = 1 + new Set(rows.map((row) => row.weekday)).size / 2;
  const freedom = Math.max(1, rows.length - learnt) / rows.length;
  const relative = Math.sqrt(residual / sum((row) => row.weight) / freedom);
  // Whole portions sold to people one by one scatter at least as Poisson does.
  return { level, weekday, event, relative: Math.min(1, Math.max(relative, Math.sqrt(1 / Math.max(level, 1)))) };
}

/**
 * Portions of one soup wanted at one service of a day, from the days before it: a drifting level, the weekday, and what is on. Days that ran out are taken
 * as "at least so much" (expectation-maximisation on the truncated normal), never as demand. Null without any history.
 */
export function forecastDemand(history: readonly SalesRecord[], day: CalendarDate, events: readonly DayEventKind[] = []): DemandForecast | null {
  const past = [...history].filter((record) => record.day < day).sort((left, right) => byId(left.day, right.day));
  if (past.length === 0) return null;
  const rows = past.map((record): Row => ({
    weekday: weekdayOf(record.day) - 1,
    events: record.events,
    weight: 0.5 ** (daysBetween(record.day, day) / HALF_LIFE_DAYS),
    sold: record.sold,
    censored: record.soldOutMin !== null,
  }));
  const total = rows.reduce((sum, row) => sum + row.weight, 0);
  let model: Model = {
    level: Math.max(0.5, rows.reduce((sum, row) => sum + row.weight * row.sold, 0) / total),
    weekday: Array.from({ length: 7 }, () => 1),
    event: { rough: 1, holiday: 1, booking: 1 },
    relative: UNKNOWN_SPREAD,
  };
  for (let round = 0; round < ROUNDS; round += 1) {
    const next = refine(rows, model);
    if (!(next.level > 0)) break;
    model = next;
  }
  const alike = past.filter((record) => weekdayOf(record.day) === weekdayOf(day)).slice(-ALIKE);
  const weekdayFactor = model.weekday[weekdayOf(day) - 1] ?? 1;
  const eventFactor = events.reduce((factor, event) => factor * model.event[event], 1);
  const mean = model.level * weekdayFactor * eventFactor;
  // Little history: the spread is at least what is not known.
  const relative = past.length >= 4 ? model.relative : Math.max(model.relative, UNKNOWN_SPREAD);
  return { mean, deviation: mean * relative, days: past.length, alike, weekdayFactor, eventFactor };
}

/** How a par is decided: by the share of days it should suffice, by what a portion short and one over cost, or by hand. */
export type ParRule =
  | { readonly by: 'service'; readonly level: number }
  | { readonly by: 'cost'; readonly price: number; readonly cost: number; /** What a portion left over is still worth, frozen or as staff food. */ readonly salvage: number }
  | { readonly by: 'hand'; readonly portions: number };

export interface SuggestedPar {
  readonly portions: number;
  /** Share of days it should suffice; null when it was set by hand without a forecast. */
  readonly level: number | null;
}

/** Least and most a service level may be: z of 0 or 1 is infinite. */
const LEVEL_RANGE = { least: 0.5, most: 0.995 };

/** The par for a forecast, in whole portions, rounded up. With a cost that is not below the price nothing is made for profit: the level is the least. */
export function suggestPar(forecast: DemandForecast | null, rule: ParRule): SuggestedPar | null {
  if (rule.by === 'hand') {
    const level = forecast === null || forecast.deviation === 0 ? null : 1 - upperTail((rule.portions - forecast.mean) / forecast.deviation);
    return { portions: rule.portions, level };
  }
  if (forecast === null) return null;
  const under = rule.by === 'cost' ? Math.max(0, rule.price - rule.cost) : 0;
  const over = rule.by === 'cost' ? Math.max(0.01, rule.cost - rule.salvage) : 0;
  const wished = rule.by === 'service' ? rule.level : under / (under + over);
  const level = Math.min(LEVEL_RANGE.most, Math.max(LEVEL_RANGE.least, wished));
  return { portions: Math.max(0, Math.ceil(forecast.mean + zOf(level) * forecast.deviation - 1e-9)), level };
}
