import { minutesBetween } from '../quantity/index';
import type { Instant } from '../quantity/index';
import type { BatchRecord } from './dayState';

/** A soup at the counter: what is left of a batch, and until when it lasts. */
export interface Serving {
  readonly leftL: number;
  /** Litres a minute it goes at, and whether that was seen or is what the par says. */
  readonly perMin: number;
  readonly basis: 'levels' | 'par';
  /** null = it lasts beyond the service at this pace. */
  readonly outAt: Instant | null;
}

/** So many of the last levels tell the pace: guests come in waves, and the last wave tells more than the first. A design choice. */
const LAST_LEVELS = 4;

/** Slope of litres over minutes, by least squares: minus the pace. */
function slope(points: readonly { readonly min: number; readonly leftL: number }[]): number {
  const mean = (values: readonly number[]): number => values.reduce((sum, value) => sum + value, 0) / values.length;
  const meanMin = mean(points.map((point) => point.min));
  const meanL = mean(points.map((point) => point.leftL));
  const over = points.reduce((sum, point) => sum + (point.min - meanMin) * (point.leftL - meanL), 0);
  const under = points.reduce((sum, point) => sum + (point.min - meanMin) ** 2, 0);
  return under === 0 ? 0 : over / under;
}

/**
 * What is left of a held batch and when it is gone, from what was seen of it; before there are two levels at the pace the par reckons with. `service` is the one
 * it is for; nobody is served before it opens.
 */
export function serving(batch: BatchRecord, parL: number, service: { readonly startsAt: Instant; readonly endsAt: Instant }, now: Instant): Serving | null {
  const { stage, volumeOutL, levels } = batch;
  if (stage.kind !== 'holding') return null;
  const opensAt = Math.max(stage.since, service.startsAt);
  const first = { at: opensAt, leftL: volumeOutL ?? batch.volumeL };
  const seen = [first, ...levels.filter((level) => level.at > opensAt)].slice(-LAST_LEVELS);
  const last = seen.at(-1) ?? first;
  const lengthMin = Math.max(1, minutesBetween(service.startsAt, service.endsAt));
  const pace = -slope(seen.map((one) => ({ min: minutesBetween(opensAt, one.at), leftL: one.leftL })));
  // A level above the one before is a top-up, or a slip: it tells nothing of the pace.
  const basis = seen.length > 1 && pace > 0 ? 'levels' : 'par';
  const perMin = basis === 'levels' ? pace : parL / lengthMin;
  const leftL = Math.max(0, last.leftL - perMin * Math.max(0, minutesBetween(last.at, now)));
  if (perMin <= 0) return { leftL, perMin, basis, outAt: null };
  const outAt = Math.max(now, opensAt) + (leftL / perMin) * 60_000;
  return { leftL, perMin, basis, outAt: outAt >= service.endsAt ? null : Math.round(outAt) };
}
