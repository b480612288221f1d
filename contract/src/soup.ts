import { ALLERGENS, CLOCKS, GRAMS_PER, HEATS, LIDS, LITRES_PER, ORIGINS, PARTS, PHASES, PREP_ACTS, SCALINGS, SCHOOLS, TEXTURES, componentLoop } from '@broth/core';
import type { Food, KitchenUnit, Soup } from '@broth/core';
import { z } from 'zod';

/** The soup as it is typed, sent and kept: every message is what the cook reads beside the field. */

const keysOf = <Key extends string>(table: Readonly<Record<Key, number>>): readonly Key[] => Object.keys(table) as Key[];
export const KITCHEN_UNITS: readonly KitchenUnit[] = [...keysOf(GRAMS_PER), ...keysOf(LITRES_PER), 'each'];

const id = z.string().min(1).max(100);
const line = (what: string, most: number) =>
  z
    .string()
    .trim()
    .min(1, `${what} is empty. Type it, or take the line away.`)
    .max(most, `${what} is longer than ${String(most)} letters. Shorten it.`);
const words = (most: number) => z.string().max(most, `That is longer than ${String(most)} letters. Shorten it.`);
const above0 = (what: string) => z.number(`${what} is a number.`).gt(0, `${what} must be above 0.`);
const atLeast0 = (what: string, most: number) =>
  z
    .number(`${what} is a number.`)
    .min(0, `${what} cannot be below 0.`)
    .max(most, `${what} above ${String(most)} is a typing slip. Check the digits.`);
const share = (what: string) => z.number(`${what} is a share between 0 and 1.`).gt(0, `${what} must be above 0 %.`).max(1, `${what} is at most 100 %.`);
export const label = z.union([z.array(z.enum(ALLERGENS)).readonly(), z.literal('unknown')]);

export const kitchenUnit = z.enum(KITCHEN_UNITS, 'That unit is not known here. Pick one from the list.');
export const amount = z
  .object({ low: atLeast0('An amount', 1_000_000), high: atLeast0('An amount', 1_000_000), unit: kitchenUnit })
  .refine(({ low, high }) => low <= high, 'A range goes from the smaller to the larger number.')
  .nullable();

export const ingredient = z.object({
  id,
  name: line('The name', 120),
  foodId: id.nullable(),
  part: z.enum(PARTS),
  amount,
  basis: z.enum(['edible', 'purchased']),
  cut: words(80).nullable(),
  acts: z.array(z.enum(PREP_ACTS)).readonly(),
  gPerMl: above0('Grams a millilitre').max(5, 'Nothing in a kitchen weighs more than 5 g a millilitre.').nullable(),
  gramsEach: above0('The weight of a piece').max(50_000).nullable(),
  edibleShare: share('What is left after peeling').nullable(),
  saltShare: z.number().min(0).max(1, 'Nothing is more than all salt.'),
  allergens: label,
  origin: z.enum(ORIGINS),
  componentId: id.nullable(),
  stepId: z.string().max(100),
  returnsAtStepId: id.nullable(),
  whole: z.boolean(),
  removed: z.boolean(),
  scaling: z.enum(SCALINGS),
});

export const step = z.object({
  id,
  phase: z.enum(PHASES),
  name: line('What hands do', 200),
  place: z.discriminatedUnion('kind', [
    z.object({ kind: z.literal('bench') }),
    z.object({ kind: z.literal('vessel') }),
    z.object({ kind: z.literal('oven'), temperatureC: z.number().min(30).max(300, 'No oven here is hotter than 300 °C.').nullable() }),
    z.object({ kind: z.literal('blender'), tool: z.enum(['jar', 'immersion']) }),
  ]),
  attention: z.enum(['hands', 'looks', 'none']),
  duration: z
    .object({ lowMin: atLeast0('Minutes', 2880), highMin: atLeast0('Minutes', 2880), perLitreMin: atLeast0('Minutes a litre', 120) })
    .refine(({ lowMin, highMin }) => lowMin <= highMin, 'A range of minutes goes from the smaller to the larger.'),
  clockFrom: z.enum(CLOCKS),
  heat: z.enum(HEATS),
  lid: z.enum(LIDS),
  blendShare: share('The share that is blended'),
  maxWaitMin: atLeast0('Minutes it may wait', 2880).nullable(),
  lookEveryMin: above0('Minutes between looks').max(600).nullable(),
  check: words(200).nullable(),
  caution: words(300).nullable(),
  why: words(300),
  irreversible: z.boolean(),
});

const schools = z.object({
  liquid: z.enum(SCHOOLS.liquid),
  cream: z.enum(SCHOOLS.cream),
  thickener: z.enum(SCHOOLS.thickener),
  onion: z.enum(SCHOOLS.onion),
  garlic: z.enum(SCHOOLS.garlic),
  vegetables: z.enum(SCHOOLS.vegetables),
  texture: z.enum(SCHOOLS.texture),
  measuring: z.enum(SCHOOLS.measuring),
});

const unique = (items: readonly { readonly id: string }[]): boolean => new Set(items.map((item) => item.id)).size === items.length;

export const soup = z.object({
  id,
  version: z.int().min(1),
  name: line('The name of the soup', 80),
  shortName: line('The short name', 24),
  role: z.enum(['soup', 'component']),
  served: z.enum(['hot', 'cold']),
  toneHex: z.string().regex(/^#[0-9A-Fa-f]{6}$/, 'A colour is written like #C9AE6B.'),
  portionMl: above0('A portion').max(5000, 'A portion above 5 L is a typing slip.'),
  makesL: above0('What the card makes').max(2000, 'More than 2000 L is a typing slip. Check the digits.'),
  texture: z.enum(TEXTURES),
  saltTarget: z.number('The salt aimed at is a share.').min(0, 'Salt cannot be below 0.').max(0.03, 'More than 3 % salt is brine. Check the digits.'),
  salesPrice: atLeast0('The price', 10_000).nullable(),
  schools,
  ingredients: z.array(ingredient).max(120, 'A soup has at most 120 lines.').refine(unique, 'Two lines have the same id.').readonly(),
  steps: z.array(step).max(60, 'A soup has at most 60 steps.').refine(unique, 'Two steps have the same id.').readonly(),
  variants: z
    .array(
      z.object({
        id,
        name: line('The name of the variant', 60),
        blendShare: z.number().min(0).max(1),
        adds: z.array(ingredient).max(20).readonly(),
        leavesOut: z.array(id).readonly(),
      }),
    )
    .max(12)
    .refine(unique, 'Two variants have the same id.')
    .readonly(),
}) satisfies z.ZodType<Soup>;

export const food = z.object({
  id,
  name: line('The name', 120),
  aliases: z.array(z.string().max(80)).max(20).readonly(),
  part: z.enum(PARTS),
  gPerMl: above0('Grams a millilitre').max(5).nullable(),
  gramsEach: above0('The weight of a piece').max(50_000).nullable(),
  edibleShare: share('What is left after peeling').nullable(),
  saltShare: z.number().min(0).max(1),
  allergens: label,
  origin: z.enum(ORIGINS),
  holdsGrit: z.boolean(),
  hardSkin: z.boolean(),
  price: z.object({ amount: atLeast0('A price', 100_000), per: z.enum(['kg', 'L', 'each']) }).nullable(),
  source: words(200),
}) satisfies z.ZodType<Food>;

/** A soup on its own, with what it is made of: what is written to a file, read back, and given to the command line. */
export const soupDocument = z.object({
  format: z.literal('broth-soup/1', 'This is not a soup in the format broth-soup/1.'),
  soup,
  components: z.array(soup).max(60).readonly().default([]),
});
export type SoupDocument = z.infer<typeof soupDocument>;

/** The document of a soup with its components to any depth, each once. */
export function documentOf(one: Soup, soupById: ReadonlyMap<string, Soup>): SoupDocument {
  const found = new Map<string, Soup>();
  const walk = (soupOfIt: Soup): void => {
    for (const { componentId } of soupOfIt.ingredients) {
      const inner = componentId === null ? undefined : soupById.get(componentId);
      if (inner === undefined || found.has(inner.id) || inner.id === one.id) continue;
      found.set(inner.id, inner);
      walk(inner);
    }
  };
  walk(one);
  return { format: 'broth-soup/1', soup: one, components: [...found.values()] };
}

/** The names round a component that contains itself; null when there is none. */
export function loopOf(one: Soup, book: readonly Soup[]): readonly string[] | null {
  const soupById = new Map(book.map((other) => [other.id, other]));
  const path = componentLoop(one, soupById);
  return path === null ? null : path.map((at) => (at === one.id ? one.name : (soupById.get(at)?.name ?? at)));
}
