import { mustBeWashedOf } from '../food/index';
import type { Allergen } from '../food/index';
import { allergensOf } from '../soup/index';
import type { Soup } from '../soup/index';
import type { DayPlan } from './dayPlan';

export interface CarriedOver {
  readonly tool: 'jar' | 'immersion';
  readonly allergens: readonly Allergen[];
  /** Names of the batches that brought them. */
  readonly from: readonly string[];
}

/**
 * What the blenders would carry into a batch from those before it on the plan, if nobody washes them fully in between: the allergens the batch does not hold
 * itself. Kettles are washed by the plan; a blender's wash is in the hands of whoever uses it.
 */
export function carriedOver(plan: DayPlan, batchId: string, soupById: ReadonlyMap<string, Soup>): readonly CarriedOver[] {
  const uses = (['jar', 'immersion'] as const).map((tool) => ({
    tool,
    order: plan.batches
      .flatMap((batch) => {
        const soup = soupById.get(batch.soupId);
        const step = soup?.steps.find((one) => one.place.kind === 'blender' && one.place.tool === tool);
        const at = batch.steps.find((one) => one.stepId === step?.id);
        return soup === undefined || at === undefined ? [] : [{ batch, at: at.startMin, holds: allergensOf(soup, soupById).contains }];
      })
      .sort((left, right) => left.at - right.at),
  }));
  return uses.flatMap(({ tool, order }): CarriedOver[] => {
    const index = order.findIndex(({ batch }) => batch.id === batchId);
    const own = order[index];
    if (own === undefined) return [];
    const before = order.slice(0, index);
    const allergens = mustBeWashedOf([...new Set(before.flatMap(({ holds }) => holds))], own.holds);
    const from = before.filter(({ holds }) => holds.some((allergen) => allergens.includes(allergen))).map(({ batch }) => batch.name);
    return allergens.length === 0 ? [] : [{ tool, allergens: [...allergens].sort(), from }];
  });
}
