import { nearest } from '../quantity/index';
import { THICKENING, allergensOf, dietOf } from '../soup/index';
import type { Soup, Texture } from '../soup/index';

const US_CUP_L = 0.2365882365;
/** Plain flour, grams a tablespoon: 125 g a cup (USDA SR Legacy, from memory). */
const FLOUR_G_PER_TBSP = 125 / 16;

/** Grams of flour a litre for so many level tablespoons a US cup of liquid: 1, 2 and 3 are a thin, medium and thick white sauce, 33.0, 66.0 and 99.1 g/L (classic home-economics ratio). */
export function flourPerLitre(tablespoonsPerCup: number): number {
  return (tablespoonsPerCup * FLOUR_G_PER_TBSP) / US_CUP_L;
}

/**
 * Flour in grams a litre that gives a texture by itself. Thin, medium and thick white sauce for light, coating and holds-a-line; a soup that
 * pours takes half the thin figure. A purée needs less: it thickens too. Gisslen, Professional Cooking: a cream soup is at about the thin figure.
 */
export const FLOUR_FOR: Readonly<Record<Texture, number>> = {
  pouring: flourPerLitre(0.5),
  light: flourPerLitre(1),
  coating: flourPerLitre(2),
  holdsALine: flourPerLitre(3),
};

/** Roux, half flour and half fat, a US gallon of liquid: thin 12 oz, medium 1 lb, heavy 1½ lb. Gisslen, Professional Cooking, table of sauces (from memory). Grams a litre. */
export const ROUX_FOR: { readonly thin: number; readonly medium: number; readonly heavy: number } = {
  thin: (0.75 * 453.59237) / 3.785411784,
  medium: 453.59237 / 3.785411784,
  heavy: (1.5 * 453.59237) / 3.785411784,
};

/** Grams of another thickener for grams of flour: 1198 g of flour are 599 g of cornflour. Factors: CIA, The Professional Chef (from memory). */
export function thickenerFor(flourG: number, foodId: string): number {
  const factor = THICKENING[foodId];
  if (factor === undefined) throw new RangeError(`Invariant: ${foodId} is a thickener`);
  return flourG * factor;
}

/** Kilograms of water to boil off to go from one share of solids to another: 20 kg from 10 to 12 % is 3.333 kg. */
export function boilOffKg(massKg: number, solids: number, target: number): number {
  return massKg * (1 - solids / target);
}

/** Kilograms of a thinner liquid to stir in: 20 kg from 12 to 10 % with stock of 1 % is 4.444 kg. */
export function thinWithKg(massKg: number, solids: number, target: number, liquidSolids: number): number {
  return (massKg * (solids - target)) / (target - liquidSolids);
}

export type Thickening =
  | { readonly way: 'slurry'; readonly foodId: string; readonly starchG: number; readonly coldL: number; readonly firstG: number; readonly forbidden: readonly string[] }
  | { readonly way: 'reduce'; readonly kg: number; readonly saltRises: number }
  | { readonly way: 'mash' | 'blendMore'; readonly volumeL: number };

export interface TextureAdvice {
  readonly ways: readonly Thickening[];
  /** Salt after it, as a factor on the share there was. */
  readonly saltFactor: number;
}

/** Grams of flour's worth between two textures, a litre. */
function flourStep(from: Texture, to: Texture): number {
  return Math.max(0, FLOUR_FOR[to] - FLOUR_FOR[from]);
}

/** Water in a slurry, a gram of starch: Gisslen and CIA give 1 to 2 parts of cold liquid; two pours more easily. */
const SLURRY_WATER = 2;

/**
 * Too thin: what brings the litres in the pot from one texture to another, first what the soup's own diet and thickener allow. Wheat flour is never proposed to
 * a soup without gluten. A slurry goes half in first, into boiling soup, must boil again, and only then the rest is judged.
 */
export function thicken(soup: Soup, soupById: ReadonlyMap<string, Soup>, volumeL: number, from: Texture, to: Texture): TextureAdvice {
  const flourG = flourStep(from, to) * volumeL;
  const glutenFree = dietOf(soup, soupById, 'glutenFree').kind !== 'no';
  const own = allergensOf(soup, soupById).contains;
  const candidates = soup.schools.thickener === 'flour' && !glutenFree ? ['flour', 'cornstarch'] : ['cornstarch', 'potatostarch'];
  const slurries = candidates.map((foodId): Thickening => {
    const starchG = thickenerFor(flourG, foodId);
    return {
      way: 'slurry',
      foodId,
      starchG,
      coldL: (starchG * SLURRY_WATER) / 1000,
      firstG: starchG / 2,
      forbidden: foodId === 'flour' && !own.includes('gluten') ? ['gluten'] : [],
    };
  });
  // From light to coating by reduction: roughly a fifth of the pot for every doubling of the thickener already there.
  const solids = 0.1;
  const target = solids * (1 + flourStep(from, to) / 250);
  const kg = boilOffKg(volumeL * 1.03, solids, target);
  const chunky: readonly Thickening[] = soup.schools.texture === 'chunky' || soup.schools.texture === 'pulses' ? [{ way: 'mash', volumeL: volumeL / 4 }] : [];
  return { ways: [...slurries, ...chunky, { way: 'reduce', kg, saltRises: target / solids }], saltFactor: 1 };
}

/** Too thick: litres of liquid to stir in, and what that does to the salt. Source of the balance: mass of solids stays the same. */
export function thin(volumeL: number, from: Texture, to: Texture): { readonly addL: number; readonly firstL: number; readonly saltFactor: number } {
  const [thick, aimed] = [FLOUR_FOR[from], FLOUR_FOR[to]];
  if (aimed >= thick) return { addL: 0, firstL: 0, saltFactor: 1 };
  // Texture as grams of flour's worth in a litre: the same thickener in more litres. Half of it is taken, because vegetables hold their own.
  const addL = (volumeL * (thick / aimed - 1)) / 2;
  return { addL: nearest(addL, 0.1), firstL: nearest(addL / 2, 0.1), saltFactor: volumeL / (volumeL + addL) };
}
