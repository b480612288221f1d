import type { Allergen } from '../food/index';
import { leavesOf } from './leaves';
import type { Soup } from './soup';

export interface AllergenSet {
  readonly contains: readonly Allergen[];
  /** Where each comes from: names from the soup's own line down. */
  readonly from: readonly { readonly allergen: Allergen; readonly path: readonly string[] }[];
  /** Lines whose label nobody has read: the soup can then never be called free from anything. */
  readonly unknownLines: readonly string[];
}

/** Allergens of a soup from every line and garnish, through its components to any depth. A component that is not in the book counts as unknown. */
export function allergensOf(soup: Soup, soupById: ReadonlyMap<string, Soup>): AllergenSet {
  const leaves = leavesOf(soup, soupById);
  const from = leaves.flatMap(({ line, path, missing }) => (missing || line.allergens === 'unknown' ? [] : line.allergens.map((allergen) => ({ allergen, path }))));
  return {
    contains: [...new Set(from.map(({ allergen }) => allergen))].sort(),
    from,
    unknownLines: leaves.filter(({ line, missing }) => missing || line.allergens === 'unknown').map(({ path }) => path.join(': ')),
  };
}
