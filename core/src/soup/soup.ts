/** What a soup is: ordered steps, each with what it needs, how long it takes, when it is done and why. */

export const PHASES = ['gather', 'prep', 'roast', 'sweat', 'boil', 'simmer', 'blend', 'finish', 'hold', 'cool', 'freeze', 'reheat', 'wash'] as const;
export type Phase = (typeof PHASES)[number];

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

/** hands = someone works at it; looks = a look or a stir at intervals; none = it runs by itself. */
export type Attention = 'hands' | 'looks' | 'none';

/** Where a step happens. `vessel` is whichever kettle or pot the batch was given. */
export type Place = { readonly kind: 'bench' } | { readonly kind: 'vessel' } | { readonly kind: 'oven' } | { readonly kind: 'blender'; readonly tool: 'jar' | 'immersion' };

/** Minutes a step takes: `fixedMin + perLitreMin × litres`. */
export interface DurationModel {
  readonly fixedMin: number;
  readonly perLitreMin: number;
}

export interface Step {
  readonly id: string;
  readonly phase: Phase;
  /** What hands do, in one line. */
  readonly name: string;
  readonly place: Place;
  readonly attention: Attention;
  readonly duration: DurationModel;
  readonly heat: 'on' | 'off';
  /** Longest the next step may wait after this one; null when it keeps. Minutes. */
  readonly maxWaitMin: number | null;
  readonly lookEveryMin: number | null;
  readonly check: string | null;
  readonly caution: string | null;
  readonly why: string;
  readonly irreversible: boolean;
}

/** What one litre of finished soup takes; null when nobody has measured it yet. */
export type PerLitre = { readonly amount: number; readonly unit: 'g' | 'mL' | 'each' } | null;

export interface Ingredient {
  readonly id: string;
  readonly name: string;
  readonly cut: string | null;
  readonly perLitre: PerLitre;
  /** `unknown` until a label has been read: never the same as none. */
  readonly allergens: readonly Allergen[] | 'unknown';
  /** Set when this line is itself made here (stock, roast carrot). */
  readonly componentId: string | null;
  /** The step it goes in at. */
  readonly stepId: string;
}

export interface Soup {
  readonly id: string;
  readonly version: number;
  readonly name: string;
  readonly shortName: string;
  readonly role: 'soup' | 'component';
  readonly served: 'hot' | 'cold';
  /** The soup's own colour, for its ribbon and label: identity, never state. */
  readonly toneHex: string;
  readonly portionMl: number;
  readonly ingredients: readonly Ingredient[];
  readonly steps: readonly Step[];
}
