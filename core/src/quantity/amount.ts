import { GRAMS_PER, toGrams } from './mass';
import type { MassUnit } from './mass';
import { LITRES_PER, toLitres } from './volume';
import type { VolumeUnit } from './volume';

/** Any unit a kitchen writes an amount in. `each` counts pieces. */
export type KitchenUnit = MassUnit | VolumeUnit | 'each';

/** An amount as a card has it: a number (low = high), a range, or null = nobody has measured it yet. Never negative. */
export type Amount = { readonly low: number; readonly high: number; readonly unit: KitchenUnit } | null;

export function isMassUnit(unit: KitchenUnit): unit is MassUnit {
  return unit in GRAMS_PER;
}
export function isVolumeUnit(unit: KitchenUnit): unit is VolumeUnit {
  return unit in LITRES_PER;
}

/** What is needed to weigh a thing that is written by volume or by the piece. null = not known. */
export interface Heft {
  readonly gPerMl: number | null;
  readonly gramsEach: number | null;
}

/**
 * Grams of an amount; null when its unit cannot be weighed with what is known. `gramsOf(2, 'usCup', { gPerMl: 0.528, … })` is 249.9.
 * Pieces need `gramsEach`, volumes `gPerMl`.
 */
export function gramsOf(amount: number, unit: KitchenUnit, heft: Heft): number | null {
  if (isMassUnit(unit)) return toGrams(amount, unit);
  if (isVolumeUnit(unit)) return heft.gPerMl === null ? null : toLitres(amount, unit) * 1000 * heft.gPerMl;
  return heft.gramsEach === null ? null : amount * heft.gramsEach;
}

/** Millilitres of an amount; null when it cannot be told. The reverse of `gramsOf` through the density. */
export function millilitresOf(amount: number, unit: KitchenUnit, heft: Heft): number | null {
  if (isVolumeUnit(unit)) return toLitres(amount, unit) * 1000;
  const massG = gramsOf(amount, unit, heft);
  return massG === null || heft.gPerMl === null ? null : massG / heft.gPerMl;
}
