import type { Allergen, Origin } from '../food/index';
import { leavesOf } from './leaves';
import type { Leaf } from './leaves';
import type { Soup } from './soup';

export const DIETS = ['vegan', 'vegetarian', 'glutenFree', 'dairyFree', 'nutFree'] as const;
export type Diet = (typeof DIETS)[number];

export interface DietReason {
  /** Names from the soup's own line down. */
  readonly path: readonly string[];
  readonly because: { readonly origin: Origin } | { readonly allergen: Allergen } | { readonly unread: true } | { readonly carriedOver: Allergen };
}

/** yes = no line speaks against it and every label was read; no = at least one does; unknown = nothing speaks against it, but a label was not read. */
export interface DietVerdict {
  readonly kind: 'yes' | 'no' | 'unknown';
  readonly reasons: readonly DietReason[];
}

/** What a diet does not allow. Vegan and vegetarian: ISO 23662:2021 (definitions); gluten-free by ingredient: 21 CFR 101.91, Reg (EU) 828/2014; dairy- and nut-free: practice. From memory. */
const AGAINST: Readonly<Record<Diet, { readonly origins: readonly Origin[]; readonly allergens: readonly Allergen[] }>> = {
  vegan: { origins: ['milk', 'egg', 'honey', 'fish', 'shellfish', 'meat'], allergens: ['milk', 'egg', 'fish', 'crustacean', 'mollusc'] },
  vegetarian: { origins: ['fish', 'shellfish', 'meat'], allergens: ['fish', 'crustacean', 'mollusc'] },
  glutenFree: { origins: [], allergens: ['gluten', 'wheat'] },
  dairyFree: { origins: ['milk'], allergens: ['milk'] },
  nutFree: { origins: [], allergens: ['peanut', 'treeNut'] },
};

function reasonsOf({ line, path, missing }: Leaf, diet: Diet): readonly DietReason[] {
  if (missing) return [{ path, because: { unread: true } }];
  const { origins, allergens } = AGAINST[diet];
  if (origins.includes(line.origin)) return [{ path, because: { origin: line.origin } }];
  const against = line.allergens === 'unknown' ? [] : line.allergens.filter((allergen) => allergens.includes(allergen));
  const [first] = against;
  if (first !== undefined) return [{ path, because: { allergen: first } }];
  const asksOrigin = origins.length > 0 && line.origin === 'unknown';
  return line.allergens === 'unknown' || asksOrigin ? [{ path, because: { unread: true } }] : [];
}

/**
 * Whether a soup meets a diet, from every line, component and garnish, never from its name. `carriedOver` is what unwashed equipment brings.
 * A "yes" is no promise on a menu: that needs a person's signature and a look at cross-contact.
 */
export function dietOf(soup: Soup, soupById: ReadonlyMap<string, Soup>, diet: Diet, carriedOver: readonly Allergen[] = []): DietVerdict {
  const carried = carriedOver.filter((allergen) => AGAINST[diet].allergens.includes(allergen)).map((allergen): DietReason => ({ path: [], because: { carriedOver: allergen } }));
  const reasons = [...leavesOf(soup, soupById).flatMap((leaf) => reasonsOf(leaf, diet)), ...carried];
  const proven = reasons.filter(({ because }) => !('unread' in because));
  return { kind: proven.length > 0 ? 'no' : reasons.length > 0 ? 'unknown' : 'yes', reasons: proven.length > 0 ? proven : reasons };
}
