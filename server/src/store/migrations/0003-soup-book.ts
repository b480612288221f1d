import { HANDBOOK } from '@broth/core/handbook';
import { foodFacts, makeLine, makeSoup, makeStep, matchFood } from '@broth/core';
import type { Ingredient, Soup, Step } from '@broth/core';
import { QueryTypes } from 'sequelize';
import type { QueryInterface } from 'sequelize';

/** A soup as it was kept before: amounts by the litre, one time a step, heat on or off. */
interface OldSoup {
  readonly id: string;
  readonly name: string;
  readonly ingredients: readonly (Pick<Ingredient, 'id' | 'name' | 'cut' | 'componentId' | 'stepId' | 'allergens'> & {
    readonly perLitre: { readonly amount: number; readonly unit: 'g' | 'mL' | 'each' } | null;
  })[];
  readonly steps: readonly (Omit<Step, 'duration' | 'heat'> & { readonly duration: { readonly fixedMin: number; readonly perLitreMin: number }; readonly heat: 'on' | 'off' })[];
}

const HEAT = { roast: 'high', boil: 'high', sweat: 'medium' } as const;

/** The same soup as it is kept now: a card that makes one litre. Labels that were entered by hand stay as they were. */
export function liftSoup(old: OldSoup): Soup {
  return makeSoup({
    ...(old as unknown as Soup),
    makesL: 1,
    ingredients: old.ingredients.map(({ perLitre, ...line }) => {
      const food = line.componentId === null ? matchFood(line.name, HANDBOOK) : null;
      const amount = perLitre === null ? null : { low: perLitre.amount, high: perLitre.amount, unit: perLitre.unit };
      return makeLine({ ...(food === null ? {} : foodFacts(food)), ...line, amount });
    }),
    steps: old.steps.map(({ duration, heat, ...step }) =>
      makeStep({
        ...step,
        place: step.place.kind === 'oven' ? { kind: 'oven', temperatureC: null } : step.place,
        duration: { lowMin: duration.fixedMin, highMin: duration.fixedMin, perLitreMin: duration.perLitreMin },
        heat: heat === 'off' ? 'off' : step.phase in HEAT ? HEAT[step.phase as keyof typeof HEAT] : 'low',
      }),
    ),
  });
}

/** The soup book: who saved a version and when, soups taken out of the book, and a pantry with yields, labels and prices. */
export async function createSoupBook(query: QueryInterface): Promise<void> {
  await query.sequelize.query(`
    ALTER TABLE soup ADD COLUMN saved_at timestamptz, ADD COLUMN saved_by text, ADD COLUMN retired boolean NOT NULL DEFAULT false;
    CREATE TABLE pantry (
      kitchen_id text NOT NULL REFERENCES kitchen, food_id text NOT NULL, body jsonb NOT NULL, PRIMARY KEY (kitchen_id, food_id)
    );
    -- What batches really took is asked by soup, across days.
    CREATE INDEX event_soup ON event (kitchen_id, (data->>'soupId')) WHERE kind = 'batch.started/1';
    CREATE INDEX event_batch ON event (kitchen_id, (data->>'batchId'));
  `);
  const rows = await query.sequelize.query<{ kitchen_id: string; soup_id: string; version: number; body: OldSoup | Soup }>('SELECT kitchen_id, soup_id, version, body FROM soup', {
    type: QueryTypes.SELECT,
  });
  for (const { kitchen_id, soup_id, version, body } of rows) {
    if ('makesL' in body) continue;
    await query.sequelize.query('UPDATE soup SET body = $body WHERE kitchen_id = $kitchen_id AND soup_id = $soup_id AND version = $version', {
      bind: { body: JSON.stringify(liftSoup(body)), kitchen_id, soup_id, version },
      type: QueryTypes.UPDATE,
    });
  }
  for (const food of HANDBOOK)
    await query.sequelize.query('INSERT INTO pantry SELECT kitchen_id, $food_id, $body FROM kitchen', {
      bind: { food_id: food.id, body: JSON.stringify(food) },
      type: QueryTypes.INSERT,
    });
}
