import type { Instant, TemperatureUnit } from '../quantity/index';
import type { ThermometerRule } from './rule';

/** What a thermometer is checked against: crushed ice in water, or water at a rolling boil at the kitchen's altitude. */
export const CHECK_METHODS = ['ice', 'boil'] as const;
export type CheckMethod = (typeof CHECK_METHODS)[number];

const ICE = { C: 0, F: 32 };
/** FDA Food Code 2022, 4-203.11. Deltas, not temperatures: ±1 °C is ±1.8 °F. For a pack that says nothing of thermometers. */
export const TOLERANCE = { c: 1, f: 2 };

export interface CheckResult {
  /** What it shows more than it should, in the unit it was read in. */
  readonly offset: number;
  readonly tolerance: number;
  readonly usable: boolean;
}

/** A thermometer's check: its offset, and whether it may be used. `boilingC` is where water boils here; the weather moves it, so ice is the better check. */
export function checkThermometer(
  given: { readonly reading: number; readonly unit: TemperatureUnit; readonly method: CheckMethod; readonly boilingC: number },
  rule: Pick<ThermometerRule, 'tolerance'> | null = null,
): CheckResult {
  const { reading, unit, method, boilingC } = given;
  const reference = method === 'ice' ? ICE[unit] : unit === 'C' ? boilingC : boilingC * 1.8 + 32;
  const offset = tidy(reading - reference);
  const { c, f } = rule?.tolerance ?? TOLERANCE;
  const tolerance = unit === 'C' ? c : f;
  return { offset, tolerance, usable: Math.abs(offset) <= tolerance };
}

/** Decimal digits that only binary fractions made: 135.2 − 0.2 is 135. */
function tidy(value: number): number {
  return Math.round(value * 1e6) / 1e6;
}

/** An offset found in one unit, in another: a difference, so ×1.8 and no 32. */
export function offsetIn(offset: number, from: TemperatureUnit, to: TemperatureUnit): number {
  return from === to ? offset : tidy(to === 'F' ? offset * 1.8 : offset / 1.8);
}

/** What a reading is, less what its thermometer shows too much, in the reading's own unit. */
export function corrected(value: number, offset: number): number {
  return tidy(value - offset);
}

/** One check as it was made. */
export interface ThermometerCheck {
  readonly at: Instant;
  readonly usable: boolean;
}

/**
 * Since when readings of a thermometer are doubtful: from its last good check before the first one it failed, up to that failure. Null when its latest check
 * was good, or none was ever made. A check passed later does not clear what was read in between.
 */
export function doubtfulSpans(checks: readonly ThermometerCheck[]): readonly { readonly from: Instant | null; readonly to: Instant }[] {
  const ordered = [...checks].sort((left, right) => left.at - right.at);
  return ordered.flatMap((check, index) => {
    if (check.usable) return [];
    const before = ordered.slice(0, index);
    if (before.at(-1)?.usable === false) return [];
    return [{ from: before.findLast((one) => one.usable)?.at ?? null, to: check.at }];
  });
}
