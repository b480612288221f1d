import type { Price } from './food';

/**
 * What to buy for a mass that is to go in: edible mass ÷ edible share. `purchasedG(5000, 0.9)` is 5555.6 g. `edibleShare` above 0, at most 1; throws
 * RangeError otherwise. Method: Gisslen, Professional Cooking; CIA, Culinary Math.
 */
export function purchasedG(edibleG: number, edibleShare: number): number {
  if (!(edibleShare > 0 && edibleShare <= 1)) throw new RangeError(`Invariant: an edible share lies above 0 and at most at 1, not at ${String(edibleShare)}`);
  return edibleG / edibleShare;
}

/** Price of a kilogram that goes in, from the price of a kilogram bought: 1.20 at a yield of 0.90 is 1.333. Method: as above. */
export function ediblePrice(purchasePrice: number, edibleShare: number): number {
  return purchasedG(purchasePrice, edibleShare);
}

/** What a purchased amount costs; null when its price is set by a unit the amount cannot be told in. */
export function costOf(bought: { readonly massG: number | null; readonly volumeMl: number | null; readonly pieces: number | null }, price: Price): number | null {
  switch (price.per) {
    case 'kg':
      return bought.massG === null ? null : (bought.massG / 1000) * price.amount;
    case 'L':
      return bought.volumeMl === null ? null : (bought.volumeMl / 1000) * price.amount;
    case 'each':
      return bought.pieces === null ? null : bought.pieces * price.amount;
  }
}

/** Cost of a portion and its share of the price it is sold at: 42.50 over 68 portions is 0.625, 13.89 % of 4.50. */
export function portionCost(totalCost: number, portions: number, salesPrice: number | null): { readonly cost: number; readonly shareOfPrice: number | null } {
  const cost = totalCost / portions;
  return { cost, shareOfPrice: salesPrice === null || salesPrice <= 0 ? null : cost / salesPrice };
}
