/** US FDA major food allergens and EU Annex II, one id space. `gluten` is apart from `wheat`: barley has the one and not the other. */
export const ALLERGENS = [
  'celery',
  'crustacean',
  'egg',
  'fish',
  'gluten',
  'lupin',
  'milk',
  'mollusc',
  'mustard',
  'peanut',
  'sesame',
  'soy',
  'sulphites',
  'treeNut',
  'wheat',
] as const;
export type Allergen = (typeof ALLERGENS)[number];

/** What a label says; `unknown` until somebody has read it, which is never the same as none. */
export type Label = readonly Allergen[] | 'unknown';

/**
 * Who must be told of what. US: FALCPA 2004 (FD&C Act §201(qq)) and the FASTER Act 2021, nine. EU and UK: Regulation (EU) 1169/2011 Annex II, fourteen;
 * there `gluten` covers wheat. Both written from memory, high confidence.
 */
export const ALLERGEN_LISTS: { readonly fda9: readonly Allergen[]; readonly eu14: readonly Allergen[] } = {
  fda9: ['milk', 'egg', 'fish', 'crustacean', 'treeNut', 'wheat', 'peanut', 'soy', 'sesame'],
  eu14: ['gluten', 'crustacean', 'egg', 'fish', 'peanut', 'soy', 'milk', 'treeNut', 'celery', 'mustard', 'sesame', 'sulphites', 'lupin', 'mollusc'],
};
export type AllergenList = keyof typeof ALLERGEN_LISTS;

/** What a thing comes from, as far as diets ask. `unknown` makes no claim possible. */
export const ORIGINS = ['plant', 'milk', 'egg', 'honey', 'fish', 'shellfish', 'meat', 'unknown'] as const;
export type Origin = (typeof ORIGINS)[number];

/**
 * Whether a food may be called gluten-free at a measured content: under 20 ppm in the US (21 CFR 101.91(a)(3)), at most 20 mg/kg in the
 * EU (Regulation (EU) 828/2014) and in Codex CXS 118. From memory, high confidence. `glutenFreeAt(20)` is `{ us: false, eu: true }`.
 */
export function glutenFreeAt(glutenPpm: number): { readonly us: boolean; readonly eu: boolean } {
  return { us: glutenPpm < 20, eu: glutenPpm <= 20 };
}

/**
 * What equipment must be washed of before a batch: what it has carried since its last full clean less what the batch holds anyway.
 * Empty = no wash for allergens' sake. The set rule R \ A; Codex CXC 80-2020 asks for the clean, Regulation (EC) 852/2004 Annex II IX(9) too.
 */
export function mustBeWashedOf(carried: readonly Allergen[], holds: readonly Allergen[]): readonly Allergen[] {
  return carried.filter((allergen) => !holds.includes(allergen));
}

/** Full washes one piece of equipment needs for batches in this order. */
export function fullWashes(order: readonly (readonly Allergen[])[]): number {
  let carried: readonly Allergen[] = [];
  let washes = 0;
  for (const holds of order) {
    if (mustBeWashedOf(carried, holds).length > 0) {
      washes += 1;
      carried = [];
    }
    carried = [...new Set([...carried, ...holds])];
  }
  return washes;
}
