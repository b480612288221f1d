import { celsiusFromFahrenheit, fahrenheitFromCelsius } from '../quantity/index';
import type { Reading, TemperatureUnit } from '../quantity/index';

/** What is odd about a reading. `impossible` is refused; the others are asked about and never changed silently. */
export type ReadingDoubt =
  | { readonly code: 'reading.impossible'; readonly highest: number; readonly lowest: number; readonly unit: TemperatureUnit }
  | { readonly code: 'reading.unitSlip'; readonly other: number; readonly otherUnit: TemperatureUnit };

/** No soup in an open kettle is hotter than boiling at sea level, give or take 2 °C of probe, nor colder than a deep freezer. A design choice. */
const POSSIBLE = { C: { lowest: -40, highest: 102 }, F: { lowest: -40, highest: 215.6 } };

/** Where readings for a purpose usually lie. A design choice; cooling runs through all of it, so there the unit cannot be guessed. */
const USUAL: Readonly<Record<'cool' | 'hotHold' | 'coldHold' | 'reheat', Readonly<Record<TemperatureUnit, readonly [number, number]>>>> = {
  hotHold: { F: [100, 213], C: [38, 101] },
  reheat: { F: [38, 213], C: [3, 101] },
  coldHold: { F: [25, 60], C: [-4, 16] },
  cool: { F: [30, 213], C: [-1, 101] },
};

function within([low, high]: readonly [number, number], value: number): boolean {
  return low <= value && value <= high;
}

/** null when there is nothing odd. `doubtReading({ value: 65, unit: 'F' … }, 'hotHold')` asks whether 65 °C was meant. */
export function doubtReading(reading: Reading, purpose: keyof typeof USUAL): ReadingDoubt | null {
  const { value, unit } = reading;
  const { lowest, highest } = POSSIBLE[unit];
  if (!within([lowest, highest], value)) return { code: 'reading.impossible', highest, lowest, unit };
  const otherUnit = unit === 'C' ? 'F' : 'C';
  if (!within(USUAL[purpose][unit], value) && within(USUAL[purpose][otherUnit], value)) {
    return { code: 'reading.unitSlip', other: unit === 'C' ? celsiusFromFahrenheit(value) : fahrenheitFromCelsius(value), otherUnit };
  }
  return null;
}
