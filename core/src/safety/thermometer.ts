import type { TemperatureUnit } from '../quantity/index';

/** Where ice in water stands, and how far off a food thermometer may be there: FDA Food Code 2022, 4-203.11. Deltas, not temperatures: ±1 °C is ±1.8 °F. */
const ICE = { C: 0, F: 32 };
const TOLERANCE = { C: 1, F: 2 };

/** A probe's check in ice: its offset, and whether it may be used. Out of tolerance, every record since its last good check is doubtful. */
export function iceCheck(reading: number, unit: TemperatureUnit): { readonly offset: number; readonly usable: boolean } {
  const offset = reading - ICE[unit];
  return { offset, usable: Math.abs(offset) <= TOLERANCE[unit] };
}
