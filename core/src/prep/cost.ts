import { costOf, purchasedG } from '../food/index';
import type { Food } from '../food/index';
import { leavesOf, lineL, middle } from '../soup/index';
import type { Soup } from '../soup/index';

export interface SoupCost {
  /** For one litre of finished soup, from the lines that have a price. */
  readonly perLitre: number;
  readonly perPortion: number;
  /** Of what a portion is sold at; null without a price. */
  readonly shareOfPrice: number | null;
  /** Bought things without a price or an amount: the cost is at least this much more. */
  readonly missing: readonly string[];
}

/** What a litre and a portion cost, through components, from the pantry's prices; water is free. */
export function soupCost(soup: Soup, soupById: ReadonlyMap<string, Soup>, pantry: readonly Food[]): SoupCost {
  let perLitre = 0;
  const missing: string[] = [];
  for (const { line, perLitreG, missing: unknown } of leavesOf(soup, soupById)) {
    if (line.foodId === 'water') continue;
    const price = pantry.find((food) => food.id === line.foodId)?.price ?? null;
    const massG = perLitreG === null ? null : purchasedG(middle(perLitreG), line.edibleShare ?? 1);
    const volumeMl = massG === null ? null : massG / (line.gPerMl ?? 1);
    const pieces =
      line.gramsEach === null || massG === null ? (line.amount?.unit === 'each' && lineL(line) === null ? line.amount.low / soup.makesL : null) : massG / line.gramsEach;
    const cost = price === null || unknown ? null : costOf({ massG, volumeMl, pieces }, price);
    if (cost === null) missing.push(line.name);
    else perLitre += cost;
  }
  const perPortion = (perLitre * soup.portionMl) / 1000;
  return { perLitre, perPortion, shareOfPrice: soup.salesPrice === null || soup.salesPrice <= 0 ? null : perPortion / soup.salesPrice, missing: [...new Set(missing)] };
}
