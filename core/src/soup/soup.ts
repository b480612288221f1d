import type { Amount } from '../quantity/index';
import type { Label, Origin, Part } from '../food/index';

/** What a soup is: ordered steps, each with what it needs, how long it takes, when it is done and why; and the lines that go in at them. */

export const PHASES = ['gather', 'prep', 'roast', 'sweat', 'boil', 'simmer', 'blend', 'finish', 'hold', 'cool', 'freeze', 'reheat', 'wash'] as const;
export type Phase = (typeof PHASES)[number];

/** hands = someone works at it; looks = a look or a stir at intervals; none = it runs by itself. */
export type Attention = 'hands' | 'looks' | 'none';

/** Where a step happens. `vessel` is whichever kettle or pot the batch was given. */
export type Place =
  | { readonly kind: 'bench' }
  | { readonly kind: 'vessel' }
  | { readonly kind: 'oven'; readonly temperatureC: number | null }
  | { readonly kind: 'blender'; readonly tool: 'jar' | 'immersion' };

/** Minutes a step takes: from `lowMin` to `highMin`, plus `perLitreMin` for every litre. A single time has low = high. */
export interface DurationModel {
  readonly lowMin: number;
  readonly highMin: number;
  readonly perLitreMin: number;
}

/** What the step's clock runs from: its start, a real boil, something going in, a colour reached. */
export const CLOCKS = ['start', 'boil', 'adding', 'colour'] as const;
export const HEATS = ['off', 'low', 'medium', 'high'] as const;
export const LIDS = ['off', 'ajar', 'on'] as const;

export interface Step {
  readonly id: string;
  readonly phase: Phase;
  /** What hands do, in one line. */
  readonly name: string;
  readonly place: Place;
  readonly attention: Attention;
  readonly duration: DurationModel;
  readonly clockFrom: (typeof CLOCKS)[number];
  readonly heat: (typeof HEATS)[number];
  readonly lid: (typeof LIDS)[number];
  /** Share of the pot a blend takes, above 0 and at most 1; 1 for every other step. */
  readonly blendShare: number;
  /** Longest the next step may wait after this one; null when it keeps. Minutes. */
  readonly maxWaitMin: number | null;
  readonly lookEveryMin: number | null;
  readonly check: string | null;
  readonly caution: string | null;
  readonly why: string;
  readonly irreversible: boolean;
}

/** What is done to a thing before it is cut. */
export const PREP_ACTS = ['wash', 'peel', 'seed', 'pierce', 'rinse', 'soak', 'rest'] as const;
export type PrepAct = (typeof PREP_ACTS)[number];

/** linear = with the litres; staged = most of it first, taste, then the rest; fixed = the same however much is made. */
export const SCALINGS = ['linear', 'staged', 'fixed'] as const;

/** One line of the card. Amounts are for `makesL` litres of finished soup. */
export interface Ingredient {
  readonly id: string;
  readonly name: string;
  /** The pantry's food it is; null when the pantry has none. */
  readonly foodId: string | null;
  readonly part: Part;
  readonly amount: Amount;
  /** Whether the amount is weighed as it is bought or as it goes in. */
  readonly basis: 'edible' | 'purchased';
  readonly cut: string | null;
  readonly acts: readonly PrepAct[];
  readonly gPerMl: number | null;
  readonly gramsEach: number | null;
  /** Above 0, at most 1; null = not known. */
  readonly edibleShare: number | null;
  /** Share of its mass that is salt. */
  readonly saltShare: number;
  readonly allergens: Label;
  readonly origin: Origin;
  /** Set when this line is itself made here (stock, roast carrot). */
  readonly componentId: string | null;
  /** The step it goes in at. */
  readonly stepId: string;
  /** Lifted out or kept aside after `stepId`, and back in at this step; null when it stays. */
  readonly returnsAtStepId: string | null;
  /** Is to be found whole in the bowl: never blended. */
  readonly whole: boolean;
  /** Strained or lifted out before serving: it flavours, but is no part of the yield. */
  readonly removed: boolean;
  readonly scaling: (typeof SCALINGS)[number];
}

/** Ways of making soup that cooks disagree on: a soup follows one of each, and says so. */
export const SCHOOLS = {
  liquid: ['fixed', 'cover', 'below', 'after'],
  cream: ['none', 'offHeat', 'boiled', 'withStock', 'gentle', 'bowl'],
  thickener: ['none', 'flour', 'starch', 'potato', 'puree', 'mash'],
  onion: ['none', 'pale', 'caramelised', 'leftOut'],
  garlic: ['none', 'lastMinute', 'firstInOil', 'together', 'roasted'],
  vegetables: ['together', 'staged'],
  texture: ['full', 'half', 'pulses', 'chunky'],
  measuring: ['exact', 'byEye'],
} as const;
export type School = keyof typeof SCHOOLS;
export type Schools = { readonly [Name in School]: (typeof SCHOOLS)[Name][number] };

/** How it should run off the ladle, from thin to thick. */
export const TEXTURES = ['pouring', 'light', 'coating', 'holdsALine'] as const;
export type Texture = (typeof TEXTURES)[number];

/** Another soup from the same pot: blended otherwise, with or without some lines. */
export interface Variant {
  readonly id: string;
  readonly name: string;
  /** Share of the pot that is blended; 0 leaves it chunky. */
  readonly blendShare: number;
  readonly adds: readonly Ingredient[];
  /** Ids of lines it does without. */
  readonly leavesOut: readonly string[];
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
  /** Litres of finished soup the amounts are written for. Above 0. */
  readonly makesL: number;
  readonly texture: Texture;
  /** Salt in the finished soup as a share of its mass, aimed at. */
  readonly saltTarget: number;
  /** What a portion is sold at; null when it is not. */
  readonly salesPrice: number | null;
  readonly schools: Schools;
  readonly ingredients: readonly Ingredient[];
  readonly steps: readonly Step[];
  readonly variants: readonly Variant[];
}
