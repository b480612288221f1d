import { findFood, matchFood } from '../food/index';
import type { Food } from '../food/index';
import { componentLoop } from './components';
import type { Ingredient, Soup, Step } from './soup';
import { saltShareOf } from './salt';
import { SOUP_KG_PER_L, massIn, yieldL } from './yield';

/** What is wrong or doubtful with a soup as it is written. `stop`: it cannot be cooked or served like this. */
export type SoupFinding =
  | { readonly code: 'component.loop'; readonly path: readonly string[] }
  | { readonly code: 'component.unknown'; readonly line: string; readonly componentId: string }
  | { readonly code: 'line.nowhere'; readonly line: string }
  | { readonly code: 'line.unlisted'; readonly food: string; readonly step: string }
  | { readonly code: 'amount.missing'; readonly lines: readonly string[]; readonly yieldClaimed: boolean }
  | { readonly code: 'amount.unweighable'; readonly line: string; readonly lacks: 'density' | 'pieceWeight' }
  | { readonly code: 'yield.disagrees'; readonly writtenL: number; readonly lowL: number; readonly highL: number }
  | { readonly code: 'blend.untested'; readonly step: string }
  | { readonly code: 'pieces.blended'; readonly line: string; readonly step: string }
  | { readonly code: 'dairy.curdles'; readonly line: string; readonly step: string }
  | { readonly code: 'dairy.mustBoil'; readonly line: string; readonly thickener: string }
  | { readonly code: 'starch.notBoiled'; readonly line: string }
  | { readonly code: 'grit.unwashed'; readonly line: string }
  | { readonly code: 'skin.unpierced'; readonly line: string; readonly step: string }
  | { readonly code: 'salt.high'; readonly percent: number }
  | { readonly code: 'label.unread'; readonly line: string };

/** From here on the yield written and the yield worked out are told apart. A design choice. */
const YIELD_TOLERANCE = 0.1;
/** Share of salt above which most find a soup too salty. Common practice: most soups lie at 0.7 to 0.9 %. */
const SALT_HIGH = 0.012;

/** Words that mean the soup itself rather than a line of it. */
const GENERIC = /stock|water/i;

const isHot = (step: Step): boolean => step.heat !== 'off';

function stepChecks(soup: Soup): readonly SoupFinding[] {
  const found: SoupFinding[] = [];
  const at = (id: string): number => soup.steps.findIndex((step) => step.id === id);
  const lastBlend = soup.steps.findLastIndex((step) => step.phase === 'blend');
  const blend = soup.steps[lastBlend];
  const cooked = soup.steps.some((step) => isHot(step) && step.place.kind === 'vessel');
  if (
    blend !== undefined &&
    cooked &&
    !soup.steps.slice(0, lastBlend).some((step) => (step.phase === 'simmer' || step.phase === 'roast' || step.phase === 'boil') && step.check !== null)
  )
    found.push({ code: 'blend.untested', step: blend.name });
  for (const line of soup.ingredients) {
    if (at(line.stepId) === -1 || (line.returnsAtStepId !== null && at(line.returnsAtStepId) === -1)) {
      found.push({ code: 'line.nowhere', line: line.name });
      continue;
    }
    const inAt = at(line.returnsAtStepId ?? line.stepId);
    if (line.whole && blend !== undefined && inAt <= lastBlend && soup.steps[inAt]?.phase !== 'prep') found.push({ code: 'pieces.blended', line: line.name, step: blend.name });
    if (line.part === 'dairy' && soup.served === 'hot') found.push(...dairyChecks(soup, line, inAt));
    if (line.part === 'thickener' && !soup.steps.slice(at(line.stepId)).some((step) => isHot(step) && (step.phase === 'boil' || step.phase === 'simmer')))
      found.push({ code: 'starch.notBoiled', line: line.name });
  }
  return found;
}

/** Dairy that carries starch must boil; dairy that enriches goes in last. Common practice. */
function dairyChecks(soup: Soup, line: Ingredient, inAt: number): readonly SoupFinding[] {
  const step = soup.steps[inAt];
  if (step === undefined) return [];
  const boilsAfter = soup.steps.slice(inAt).some((later) => isHot(later) && (later.phase === 'boil' || later.phase === 'simmer'));
  const starch = soup.ingredients.find((other) => other.part === 'thickener' && soup.steps.findIndex((one) => one.id === other.stepId) <= inAt);
  const carries = starch !== undefined && (soup.schools.thickener === 'flour' || soup.schools.thickener === 'starch');
  switch (soup.schools.cream) {
    case 'boiled':
    case 'withStock':
      return boilsAfter ? [] : starch === undefined ? [] : [{ code: 'dairy.mustBoil', line: line.name, thickener: starch.name }];
    case 'offHeat':
    case 'bowl':
      return boilsAfter ? [{ code: 'dairy.curdles', line: line.name, step: step.name }] : [];
    case 'gentle':
      return step.heat === 'high' || boilsAfter ? [{ code: 'dairy.curdles', line: line.name, step: step.name }] : [];
    case 'none':
      return boilsAfter && !carries ? [{ code: 'dairy.curdles', line: line.name, step: step.name }] : [];
  }
}

function lineChecks(soup: Soup, soupById: ReadonlyMap<string, Soup>, pantry: readonly Food[]): readonly SoupFinding[] {
  const found: SoupFinding[] = [];
  for (const line of soup.ingredients) {
    const food = pantry.find((one) => one.id === line.foodId) ?? matchFood(line.name, pantry);
    const step = soup.steps.find((one) => one.id === line.stepId);
    if (line.componentId !== null && !soupById.has(line.componentId)) found.push({ code: 'component.unknown', line: line.name, componentId: line.componentId });
    if (line.componentId === null && line.allergens === 'unknown') found.push({ code: 'label.unread', line: line.name });
    if (line.amount?.unit === 'each' && line.gramsEach === null) found.push({ code: 'amount.unweighable', line: line.name, lacks: 'pieceWeight' });
    if (food === null || line.componentId !== null) continue;
    if (food.holdsGrit && !line.acts.includes('wash')) found.push({ code: 'grit.unwashed', line: line.name });
    if (food.hardSkin && step?.phase === 'roast' && /whole/i.test(`${line.cut ?? ''} ${step.name}`) && !line.acts.includes('pierce'))
      found.push({ code: 'skin.unpierced', line: line.name, step: step.name });
  }
  for (const step of soup.steps) {
    for (const part of step.name.split(/[,;]| and | with | in /)) {
      const named = findFood(part, pantry);
      if (named === null || GENERIC.test(named.food.name)) continue;
      const { food, as } = named;
      const listed = soup.ingredients.some((line) => line.foodId === food.id || matchFood(line.name, pantry)?.id === food.id || line.name.toLowerCase().includes(as));
      if (!listed) found.push({ code: 'line.unlisted', food: food.name, step: step.name });
    }
  }
  return found;
}

/** Everything that is wrong or doubtful with a soup, what stops it first. `pantry` knows which foods hide grit or burst. */
export function checkSoup(soup: Soup, soupById: ReadonlyMap<string, Soup>, pantry: readonly Food[]): readonly SoupFinding[] {
  const loop = componentLoop(soup, soupById);
  if (loop !== null) return [{ code: 'component.loop', path: loop.map((id) => (id === soup.id ? soup.name : (soupById.get(id)?.name ?? id))) }];
  const { unmeasured } = massIn(soup);
  const worked = yieldL(soup);
  const disagrees = worked !== null && (soup.makesL < worked.low * (1 - YIELD_TOLERANCE) || soup.makesL > worked.high * (1 + YIELD_TOLERANCE));
  const percent = saltShareOf(soup, soupById, SOUP_KG_PER_L) * 100;
  return [
    ...stepChecks(soup),
    ...lineChecks(soup, soupById, pantry),
    ...(unmeasured.length > 0 ? [{ code: 'amount.missing', lines: unmeasured, yieldClaimed: worked !== null } as const] : []),
    ...(worked !== null && disagrees ? [{ code: 'yield.disagrees', writtenL: soup.makesL, lowL: worked.low, highL: worked.high } as const] : []),
    ...(percent > SALT_HIGH * 100 && soup.role === 'soup' ? [{ code: 'salt.high', percent } as const] : []),
  ];
}
