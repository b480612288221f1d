import { edibleG, middle } from '../soup/index';
import type { Soup } from '../soup/index';

/** What decides how much is made. */
export type Target =
  | { readonly by: 'litres'; readonly volumeL: number }
  /** Bowls to serve; what stays in the well and on the ladle is made as well. */
  | { readonly by: 'portions'; readonly portions: number; readonly portionMl: number; readonly servingLoss: number }
  | { readonly by: 'vessel'; readonly workingMaxL: number }
  /** So much of the main vegetable is there, as it was bought or as it goes in. */
  | { readonly by: 'main'; readonly lineId: string; readonly massG: number; readonly basis: 'edible' | 'purchased' };

/**
 * Litres to start with for portions: portions × portion ÷ ((1 − serving loss) × (1 − evaporation)). 60 of 350 mL at 3 % and 8 % are 23.53 L. Pass an
 * evaporation of 0 for litres of finished soup.
 */
export function litresForPortions(portions: number, portionMl: number, servingLoss: number, evaporation: number = 0): number {
  return (portions * portionMl) / 1000 / ((1 - servingLoss) * (1 - evaporation));
}

/** Whole portions out of litres: 5 US gallons less 5 % are 76 of 8 fl oz. */
export function portionsFrom(volumeL: number, portionMl: number, servingLoss: number): number {
  return Math.floor((volumeL * 1000 * (1 - servingLoss)) / portionMl + 1e-9);
}

/** Finished litres for a target; null when the main line cannot be weighed. */
export function litresFor(soup: Soup, target: Target): number | null {
  switch (target.by) {
    case 'litres':
      return target.volumeL;
    case 'portions':
      return litresForPortions(target.portions, target.portionMl, target.servingLoss);
    case 'vessel':
      return target.workingMaxL;
    case 'main': {
      const line = soup.ingredients.find((one) => one.id === target.lineId);
      const writtenG = line === undefined ? null : edibleG(line);
      if (line === undefined || writtenG === null || middle(writtenG) === 0) return null;
      const edible = target.basis === 'edible' ? target.massG : target.massG * (line.edibleShare ?? 1);
      return (soup.makesL * edible) / middle(writtenG);
    }
  }
}
