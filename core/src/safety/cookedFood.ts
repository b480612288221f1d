import type { Origin } from '../food/index';
import type { Soup } from '../soup/index';
import type { CookRule, CookedFood } from './rule';
import { COOKED_FOODS } from './rule';
import type { RulesInForce } from './rules';

/**
 * What an origin has to be cooked as. The card does not say whether meat is poultry or minced, nor what an unread line is: those are taken for what asks for
 * most. FDA Food Code 2022, 3-401.11 and 3-401.13.
 */
const AS_FOOD: Readonly<Record<Origin, CookedFood>> = {
  meat: 'poultry',
  unknown: 'poultry',
  egg: 'ground',
  fish: 'intact',
  shellfish: 'intact',
  plant: 'plant',
  milk: 'plant',
  honey: 'plant',
};

/** What a soup has to be cooked as: its most demanding line, components apart, which were cooked by themselves. null when nothing of it is heated. */
export function cookedFoodOf(soup: Soup): CookedFood | null {
  if (soup.steps.every((step) => step.heat === 'off')) return null;
  const foods = soup.ingredients.flatMap((line) => (line.componentId === null ? [AS_FOOD[line.origin]] : []));
  return COOKED_FOODS.find((food) => foods.includes(food)) ?? 'plant';
}

/** The rule a food is cooked by: its own, or for anything from an animal the one for all. null = none in force. */
export function cookRuleFor(food: CookedFood, rules: RulesInForce): CookRule | null {
  return rules.cook.find((rule) => rule.food === food) ?? (food === 'plant' ? null : (rules.cook.find((rule) => rule.food === 'any') ?? null));
}
