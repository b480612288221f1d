import { celsiusFromFahrenheit, fahrenheitFromCelsius, minutesBetween, readingIn } from '../quantity/index';
import type { Instant, Reading, TemperatureUnit } from '../quantity/index';
import type { TimedReading } from './verdict';

/** What a temperature is taken for, as far as doubts ask. */
export type ReadingPurpose = 'cook' | 'cool' | 'hotHold' | 'coldHold' | 'frozenHold' | 'reheat' | 'timeControl' | 'receive';

/** What is odd about an entry. `impossible` and `future` are refused; the others are asked about, and nothing is ever changed silently. */
export type ReadingDoubt =
  | { readonly code: 'impossible'; readonly highest: number; readonly lowest: number; readonly unit: TemperatureUnit }
  /** The digits are likely in the other unit. `other` is what they would be in the unit that was chosen. */
  | { readonly code: 'unitSlip'; readonly other: number; readonly otherUnit: TemperatureUnit }
  | { readonly code: 'decimalSlip'; readonly likely: number; readonly boiling: number; readonly unit: TemperatureUnit }
  | { readonly code: 'minusLost'; readonly likely: number; readonly unit: TemperatureUnit }
  | { readonly code: 'aboveBoiling'; readonly boiling: number; readonly unit: TemperatureUnit }
  | { readonly code: 'unusual'; readonly lowest: number; readonly highest: number; readonly unit: TemperatureUnit }
  | { readonly code: 'rising'; readonly by: number; readonly unit: TemperatureUnit }
  | { readonly code: 'impossibleDrop'; readonly perHour: number; readonly from: number; readonly unit: TemperatureUnit }
  /** It fits another batch that is cooling, and not this one. */
  | { readonly code: 'wrongBatch'; readonly batchId: string }
  | { readonly code: 'future'; readonly byMin: number }
  | { readonly code: 'backdated'; readonly byMin: number }
  | { readonly code: 'beforeBatch'; readonly byMin: number };

/** Doubts that an entry cannot be made with. */
export const REFUSED: readonly ReadingDoubt['code'][] = ['impossible', 'future'];

/** What is known when a reading is entered. Everything but the purpose may be missing. */
export interface EntryContext {
  readonly purpose: ReadingPurpose;
  /** Where water boils in this kitchen. */
  readonly boilingC?: number;
  /** Earlier readings of the same food. */
  readonly earlier?: readonly TimedReading[];
  /** Litres cooling; a pan of under 5 L may really drop fast. */
  readonly volumeL?: number;
  /** What the food cools in. */
  readonly ambientC?: number;
  /** Ice was stirred in, or the pan was changed, since the reading before. */
  readonly changedSince?: boolean;
  /** What the other batches that cool would show now. */
  readonly siblings?: readonly { readonly batchId: string; readonly expectedC: number }[];
  readonly at?: Instant;
  readonly enteredAt?: Instant;
  readonly batchStartedAt?: Instant;
}

/** No probe in a kitchen shows more or less than this. A design choice. */
const POSSIBLE = { C: { lowest: -45, highest: 300 }, F: { lowest: -49, highest: 572 } };
/** A probe's error over boiling: 2 °F, as a difference. */
const OVER_BOILING = { C: 2 / 1.8, F: 2 };
const SEA_LEVEL_BOILING_C = 100;

/** Where readings for a purpose usually lie. A design choice; cooling runs through all of it, so there the unit cannot be guessed from the number alone. */
const USUAL: Readonly<Record<ReadingPurpose, Readonly<Record<TemperatureUnit, readonly [number, number]>>>> = {
  cook: { F: [100, 213], C: [38, 101] },
  hotHold: { F: [100, 213], C: [38, 101] },
  reheat: { F: [38, 213], C: [3, 101] },
  coldHold: { F: [25, 60], C: [-4, 16] },
  frozenHold: { F: [-40, 32], C: [-40, 0] },
  cool: { F: [30, 213], C: [-1, 101] },
  timeControl: { F: [25, 213], C: [-4, 101] },
  receive: { F: [-20, 60], C: [-29, 16] },
};
/** A rise of more than 3 °F while cooling, as a difference. */
const RISE = { C: 3 / 1.8, F: 3 };
/** Faster than this no more than 5 L of soup cool without ice in them. By the hour, Newton's k. A design choice. */
const FASTEST_K_PER_H = 5;
const SMALL_BATCH_L = 5;
/** A reading of a sibling that is nearer than this fits it. °C. A design choice. */
const FITS_C = 3;
const FUTURE_MIN = 2;
const BACKDATED_MIN = 15;

function within([low, high]: readonly [number, number], value: number): boolean {
  return low <= value && value <= high;
}

function inUnit(temperatureC: number, unit: TemperatureUnit): number {
  return unit === 'C' ? temperatureC : fahrenheitFromCelsius(temperatureC);
}

function valueDoubt({ value, unit }: Reading, context: EntryContext): ReadingDoubt | null {
  const { lowest, highest } = POSSIBLE[unit];
  const boiling = inUnit(context.boilingC ?? SEA_LEVEL_BOILING_C, unit);
  const usual = USUAL[context.purpose];
  if (value > boiling + OVER_BOILING[unit]) {
    if (within(usual[unit], value / 10)) return { code: 'decimalSlip', likely: value / 10, boiling, unit };
    if (!within([lowest, highest], value)) return { code: 'impossible', highest, lowest, unit };
    const asCelsius = unit === 'C' ? celsiusFromFahrenheit(value) : value;
    if (unit === 'C' && within(usual.F, value)) return { code: 'unitSlip', other: asCelsius, otherUnit: 'F' };
    return { code: 'aboveBoiling', boiling, unit };
  }
  if (value < lowest) return { code: 'impossible', highest, lowest, unit };
  if (within(usual[unit], value)) return null;
  if (context.purpose === 'frozenHold' && value > 0 && within(usual[unit], -value)) return { code: 'minusLost', likely: -value, unit };
  const otherUnit = unit === 'C' ? 'F' : 'C';
  if (within(usual[otherUnit], value)) return { code: 'unitSlip', other: unit === 'C' ? celsiusFromFahrenheit(value) : fahrenheitFromCelsius(value), otherUnit };
  return { code: 'unusual', lowest: usual[unit][0], highest: usual[unit][1], unit };
}

/** While cooling the curve speaks where the number alone cannot: 30 to 101 is likely in both units. */
function curveDoubt(reading: Reading, context: EntryContext): ReadingDoubt | null {
  const last = context.earlier?.at(-1);
  if (context.purpose !== 'cool' || last === undefined) return null;
  const { value, unit } = reading;
  const before = readingIn(last.reading, unit);
  const minutes = minutesBetween(last.at, context.at ?? last.at);
  const nowC = readingIn(reading, 'C');
  const ambient = inUnit(context.ambientC ?? 0, unit);
  const rises = value - before > RISE[unit] && context.changedSince !== true;
  const kPerH =
    value > ambient && before > ambient && minutes > 0 ? (Math.log((before - ambient) / (value - ambient)) / minutes) * 60 : value <= ambient && before > ambient ? Infinity : 0;
  // A probe that is off by its tolerance near the ambient looks like any rate: only a real drop counts.
  const drops = context.changedSince !== true && (context.volumeL ?? SMALL_BATCH_L) >= SMALL_BATCH_L && kPerH > FASTEST_K_PER_H && before - value > 5 * RISE[unit];
  if (!rises && !drops) return null;
  const other = unit === 'C' ? celsiusFromFahrenheit(value) : fahrenheitFromCelsius(value);
  const otherK = other > ambient && other <= before + RISE[unit] && minutes > 0 ? (Math.log((before - ambient) / (other - ambient)) / minutes) * 60 : Infinity;
  if (otherK <= FASTEST_K_PER_H) return { code: 'unitSlip', other, otherUnit: unit === 'C' ? 'F' : 'C' };
  const sibling = context.siblings?.find(({ expectedC }) => Math.abs(expectedC - nowC) <= FITS_C);
  if (sibling !== undefined) return { code: 'wrongBatch', batchId: sibling.batchId };
  return rises ? { code: 'rising', by: value - before, unit } : { code: 'impossibleDrop', perHour: kPerH, from: before, unit };
}

function timeDoubt({ at, enteredAt, batchStartedAt }: EntryContext): ReadingDoubt | null {
  if (at === undefined) return null;
  if (enteredAt !== undefined && minutesBetween(enteredAt, at) > FUTURE_MIN) return { code: 'future', byMin: minutesBetween(enteredAt, at) };
  if (batchStartedAt !== undefined && at < batchStartedAt) return { code: 'beforeBatch', byMin: minutesBetween(at, batchStartedAt) };
  if (enteredAt !== undefined && minutesBetween(at, enteredAt) > BACKDATED_MIN) return { code: 'backdated', byMin: minutesBetween(at, enteredAt) };
  return null;
}

/**
 * What is odd about a reading as it is entered, the gravest first; empty when nothing is. `65` typed where °F is logged hot asks whether 65 °C was meant. A
 * batch that was put on ice or into another pan (`changedSince`) may drop or rise.
 */
export function doubtReading(reading: Reading, context: EntryContext): readonly ReadingDoubt[] {
  const value = valueDoubt(reading, context);
  return [timeDoubt(context), value, value === null ? curveDoubt(reading, context) : null].filter((doubt) => doubt !== null);
}
