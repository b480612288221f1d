import { roundUp } from '../quantity/index';

/** A kettle or pot a batch can be cooked in. */
export interface Vessel {
  readonly id: string;
  readonly name: string;
  readonly capacityL: number;
  /** Below this the blades or the probe are not covered. */
  readonly minFillL: number;
  /** Above this there is no head-room to boil, stir and blend. */
  readonly workingMaxL: number;
  /** Heating power, the share of it that reaches the food, and the width inside; missing = nobody has looked. */
  readonly powerKw?: number | undefined;
  readonly efficiency?: number | undefined;
  readonly diameterCm?: number | undefined;
  readonly inUse: boolean;
}

/** Litres of one batch and the vessels it fits. */
export interface BatchSize {
  readonly volumeL: number;
  readonly vesselIds: readonly string[];
}

export type BatchSplit =
  | { readonly kind: 'split'; readonly sizes: readonly BatchSize[]; /** Made beyond the need, because no vessel works at less. */ readonly surplusL: number }
  | { readonly kind: 'noVessel' }
  | { readonly kind: 'tooMany'; readonly batches: number; readonly largestL: number };

/** More batches of one soup than this in a day is a typing slip or another kitchen's job. A design choice. */
export const MAX_BATCHES_A_SOUP = 8;

/** Litres a kettle's own scale can be read to. Common practice. */
const SCALE_L = 0.5;

function fitting(volumeL: number, vessels: readonly Vessel[]): readonly string[] {
  return vessels.filter((vessel) => vessel.minFillL <= volumeL && volumeL <= vessel.workingMaxL).map((vessel) => vessel.id);
}

/**
 * The fewest equal batches that hold the need within some vessel's minimum fill and working maximum, or as many as are wanted where that is more; of those, the
 * least surplus. `needL` above 0. A share under every minimum fill is made at the smallest one and the rest is surplus, which is said.
 */
export function splitIntoBatches(needL: number, vessels: readonly Vessel[], wanted = 1): BatchSplit {
  const usable = vessels.filter((vessel) => vessel.inUse);
  const largestL = Math.max(0, ...usable.map((vessel) => vessel.workingMaxL));
  if (largestL === 0) return { kind: 'noVessel' };
  const fewest = Math.ceil(needL / largestL - 1e-9);
  if (fewest > MAX_BATCHES_A_SOUP) return { kind: 'tooMany', batches: fewest, largestL };
  const count = Math.min(MAX_BATCHES_A_SOUP, Math.max(fewest, wanted));
  const share = roundUp(needL / count, SCALE_L);
  // With the fewest batches a share never exceeds the largest working maximum before rounding; rounding up must not push it over.
  const askedL = Math.min(share, largestL);
  const volumeL = fitting(askedL, usable).length > 0 ? askedL : Math.min(...usable.filter((vessel) => vessel.minFillL >= askedL).map((vessel) => vessel.minFillL));
  if (!Number.isFinite(volumeL)) return { kind: 'noVessel' };
  const sizes = Array.from({ length: count }, () => ({ volumeL, vesselIds: fitting(volumeL, usable) }));
  return { kind: 'split', sizes, surplusL: Number((volumeL * count - needL).toFixed(3)) };
}

/**
 * Sizes that were agreed on, where they still do: each in a vessel that is in use, together what is needed and at most a step of the kettle's scale more each.
 * null = they do not.
 */
export function keptSplit(needL: number, agreedL: readonly number[], vessels: readonly Vessel[]): BatchSplit | null {
  const usable = vessels.filter((vessel) => vessel.inUse);
  const sizes = agreedL.map((volumeL) => ({ volumeL, vesselIds: fitting(volumeL, usable) }));
  const surplusL = Number((agreedL.reduce((sum, volumeL) => sum + volumeL, 0) - needL).toFixed(3));
  const keeps = sizes.every((size) => size.vesselIds.length > 0) && surplusL >= 0 && surplusL <= SCALE_L * sizes.length;
  return keeps ? { kind: 'split', sizes, surplusL } : null;
}

/** Ways to cook a need in equal batches, the fewest first: each one batch more, as long as that does not make half as much again as is needed. */
export function splitChoices(needL: number, vessels: readonly Vessel[]): readonly Extract<BatchSplit, { kind: 'split' }>[] {
  const choices: Extract<BatchSplit, { kind: 'split' }>[] = [];
  for (let wanted = 1; wanted <= MAX_BATCHES_A_SOUP && choices.length < MOST_CHOICES; wanted += 1) {
    const split = splitIntoBatches(needL, vessels, wanted);
    if (split.kind !== 'split') return choices;
    if (split.sizes.length !== wanted) continue;
    if (choices.length > 0 && split.surplusL > needL / 2) return choices;
    choices.push(split);
  }
  return choices;
}

const MOST_CHOICES = 4;
