import type { Label, Origin } from './allergen';

/** What a line does in the soup. `main` is what the soup is scaled by when a delivery decides. */
export const PARTS = ['main', 'vegetable', 'liquid', 'thickener', 'dairy', 'fat', 'salt', 'salty', 'spice', 'herb', 'acid', 'protein', 'grain', 'garnish', 'other'] as const;
export type Part = (typeof PARTS)[number];

export interface Price {
  readonly amount: number;
  readonly per: 'kg' | 'L' | 'each';
}

/** One thing of the pantry: what it weighs, what is left after peeling, what its label says, what it costs. null = not known. */
export interface Food {
  readonly id: string;
  readonly name: string;
  /** Other words for it, in lower case, as cards write them. */
  readonly aliases: readonly string[];
  readonly part: Part;
  /** As it is measured in a cup: chopped, diced or whole. */
  readonly gPerMl: number | null;
  readonly gramsEach: number | null;
  /** Edible share of what is bought, above 0 and at most 1. */
  readonly edibleShare: number | null;
  /** Share of its mass that is salt (NaCl), 0 to 1. */
  readonly saltShare: number;
  readonly allergens: Label;
  readonly origin: Origin;
  /** Leaves and roots that hide sand. */
  readonly holdsGrit: boolean;
  /** Bursts in the oven when it goes in whole and was not pierced. */
  readonly hardSkin: boolean;
  readonly price: Price | null;
  /** Where density and yield are from. */
  readonly source: string;
}
