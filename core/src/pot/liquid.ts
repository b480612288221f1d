import { nearest, roundUp } from '../quantity/index';
import { solidsKg, writtenLiquidL } from '../soup/index';
import type { Soup } from '../soup/index';
import type { PotVessel } from './heat';

/** Share of air between cut vegetables in a pot. 0.41 makes 4 US cups just cover 3 lb of squash and parsnip (0.70 L/kg, common practice). */
export const VOID_SHARE = 0.41;
/** Over the top of the vegetables, "to just cover". Common practice. */
const COVER_CM = 0.5;
/** "Below the vegetables": they give water themselves. Common practice. */
const BELOW_SHARE = 0.75;
/** Kept back until the level is seen: too much cannot be taken out. Common practice. */
const RESERVE_SHARE = 0.2;

/** Litres of void between vegetables of this mass, at 1 kg a litre of solid: what "level with the top" takes. */
export function voidL(vegetablesKg: number, voidShare: number = VOID_SHARE): number {
  return (vegetablesKg * voidShare) / (1 - voidShare);
}

/** Inside cross-section in cm²; a pot whose width is not known counts as wide as it is high. */
export function crossSectionCm2(vessel: PotVessel): number {
  const diameterCm = vessel.diameterCm ?? Math.cbrt((4 * vessel.capacityL * 1000) / Math.PI);
  return (Math.PI * diameterCm ** 2) / 4;
}

export interface LiquidAdvice {
  readonly school: Soup['schools']['liquid'];
  /** What the card says for these litres. */
  readonly writtenL: number;
  /** What the level should take: remembered, else worked out from the vegetables and the pot; null when it cannot be told. */
  readonly estimateL: number | null;
  readonly basis: 'card' | 'vegetables' | 'remembered';
  /** Pour this, look, then as much of the reserve as it wants. */
  readonly firstL: number;
  readonly reserveL: number;
}

/**
 * How much liquid to pour for a batch. A fixed measure is the card's; to cover and below are estimated from the vegetables and the vessel's width, or
 * from what batches really took (`rememberedPerLitre`, litres of liquid a litre of soup), with a reserve held back.
 */
export function liquidFor(soup: Soup, volumeL: number, vessel: PotVessel | null, rememberedPerLitre: number | null): LiquidAdvice {
  const factor = volumeL / soup.makesL;
  const { liquid: school } = soup.schools;
  const writtenL = writtenLiquidL(soup) * factor;
  const vegetablesKg = solidsKg(soup);
  const levelled = school === 'cover' || school === 'below';
  if (!levelled) return { school, writtenL, estimateL: null, basis: 'card', firstL: nearest(writtenL, 0.1), reserveL: 0 };
  const fromVegetables =
    vegetablesKg === null
      ? null
      : voidL(vegetablesKg * factor) * (school === 'below' ? BELOW_SHARE : 1) + (school === 'cover' && vessel !== null ? (crossSectionCm2(vessel) * COVER_CM) / 1000 : 0);
  const estimateL = rememberedPerLitre === null ? fromVegetables : rememberedPerLitre * volumeL;
  const basis = rememberedPerLitre !== null ? 'remembered' : fromVegetables === null ? 'card' : 'vegetables';
  const wholeL = estimateL ?? writtenL;
  // The smaller of the two is poured first: a card that asks for more than the level takes is not followed blindly.
  const firstL = nearest(Math.min(wholeL, writtenL > 0 ? writtenL : wholeL) * (1 - RESERVE_SHARE), 0.1);
  return { school, writtenL, estimateL, basis, firstL, reserveL: roundUp(Math.max(0, Math.max(wholeL, writtenL) - firstL), 0.1) };
}
