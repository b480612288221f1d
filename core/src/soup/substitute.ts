import type { Food } from '../food/index';
import { allergensOf } from './allergens';
import { DIETS, dietOf } from './diet';
import type { Diet, DietVerdict } from './diet';
import { foodFacts } from './make';
import { edibleG, middle } from './mass';
import type { Ingredient, Soup } from './soup';
import { yieldL } from './yield';

/** One line swapped for another food of the pantry. */
export interface Swap {
  readonly lineId: string;
  readonly foodId: string;
}

export type SwapFinding =
  | { readonly code: 'swap.notLikeFor'; readonly line: string; readonly food: string }
  | { readonly code: 'swap.ratio'; readonly line: string; readonly food: string; readonly factor: number }
  | { readonly code: 'swap.noBoil'; readonly line: string; readonly food: string }
  | { readonly code: 'swap.unread'; readonly food: string }
  | { readonly code: 'swap.noThickening'; readonly line: string; readonly food: string };

export interface Substituted {
  readonly soup: Soup;
  readonly findings: readonly SwapFinding[];
  readonly allergens: { readonly added: readonly string[]; readonly gone: readonly string[] };
  readonly yieldL: { readonly before: number | null; readonly after: number | null };
  readonly diets: Readonly<Record<Diet, DietVerdict>>;
}

/**
 * Mass of another thickener that does the work of one mass of wheat flour. CIA, The Professional Chef (from memory, medium confidence): arrowroot and
 * cornflour 0.5, rice flour 0.6, tapioca 0.4, potato starch 0.2.
 */
export const THICKENING: Readonly<Record<string, number>> = { flour: 1, cornstarch: 0.5, arrowroot: 0.5, riceflour: 0.6, tapioca: 0.4, potatostarch: 0.2 };

const SPLITS_WHEN_BOILED = ['souredcream', 'yoghurt', 'singlecream', 'oatcream'];
/** Which parts may stand in for each other. */
const LIKE: Readonly<Record<string, readonly string[]>> = {
  dairy: ['dairy', 'liquid'],
  liquid: ['liquid', 'dairy'],
  fat: ['fat', 'protein'],
  protein: ['protein', 'fat', 'main', 'vegetable', 'garnish'],
  main: ['main', 'vegetable', 'protein', 'grain'],
  vegetable: ['vegetable', 'main'],
  garnish: ['garnish', 'protein', 'dairy'],
  salty: ['salty', 'salt'],
  salt: ['salt', 'salty'],
};

function swapped(line: Ingredient, food: Food): { readonly line: Ingredient; readonly findings: readonly SwapFinding[] } {
  const findings: SwapFinding[] = [];
  const named = { line: line.name, food: food.name };
  const from = THICKENING[line.foodId ?? ''];
  const to = THICKENING[food.id];
  let factor = 1;
  if (line.part === 'thickener' && from !== undefined) {
    if (to === undefined) findings.push({ code: 'swap.noThickening', ...named });
    else if (to !== from) {
      factor = to / from;
      findings.push({ code: 'swap.ratio', ...named, factor });
    }
  } else if (line.part !== food.part && !(LIKE[line.part] ?? []).includes(food.part)) findings.push({ code: 'swap.notLikeFor', ...named });
  if (food.allergens === 'unknown') findings.push({ code: 'swap.unread', food: food.name });
  // The mass is kept, in grams where it can be told: a cup of one thing is not a cup of the other.
  const massG = edibleG(line);
  const amount = massG === null ? line.amount : ({ low: massG.low * factor, high: massG.high * factor, unit: 'g' } as const);
  const { part: _part, ...facts } = foodFacts(food);
  return { line: { ...line, ...facts, part: line.part, name: food.name, amount, basis: 'edible', componentId: null }, findings };
}

/** The soup with lines swapped, and what the swaps change: allergens, diets, yield, and what does not suit. Unknown lines and foods throw RangeError. */
export function substitute(soup: Soup, swaps: readonly Swap[], soupById: ReadonlyMap<string, Soup>, pantry: readonly Food[]): Substituted {
  const findings: SwapFinding[] = [];
  let ingredients = soup.ingredients;
  for (const { lineId, foodId } of swaps) {
    const line = ingredients.find((one) => one.id === lineId);
    const food = pantry.find((one) => one.id === foodId);
    if (line === undefined || food === undefined) throw new RangeError(`Invariant: ${soup.id} has a line ${lineId} and the pantry a food ${foodId}`);
    const made = swapped(line, food);
    findings.push(...made.findings);
    const boils = soup.steps
      .slice(soup.steps.findIndex((step) => step.id === line.stepId))
      .some((step) => step.heat !== 'off' && (step.phase === 'boil' || step.phase === 'simmer'));
    if (boils && SPLITS_WHEN_BOILED.includes(food.id)) findings.push({ code: 'swap.noBoil', line: line.name, food: food.name });
    ingredients = ingredients.map((one) => (one.id === lineId ? made.line : one));
  }
  const after: Soup = { ...soup, ingredients };
  const before = allergensOf(soup, soupById).contains;
  const now = allergensOf(after, soupById).contains;
  const [yieldBefore, yieldAfter] = [yieldL(soup), yieldL(after)];
  const verdict = (diet: Diet): DietVerdict => dietOf(after, soupById, diet);
  const [vegan, vegetarian, glutenFree, dairyFree, nutFree] = DIETS;
  return {
    soup: after,
    findings,
    allergens: { added: now.filter((one) => !before.includes(one)), gone: before.filter((one) => !now.includes(one)) },
    yieldL: { before: yieldBefore === null ? null : middle(yieldBefore), after: yieldAfter === null ? null : middle(yieldAfter) },
    diets: {
      vegan: verdict(vegan),
      vegetarian: verdict(vegetarian),
      glutenFree: verdict(glutenFree),
      dairyFree: verdict(dairyFree),
      nutFree: verdict(nutFree),
    },
  };
}
