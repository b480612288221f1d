import type { TemperatureLimit } from '../quantity/index';

export const CONFIDENCE = ['high', 'medium', 'low'] as const;
export type Confidence = (typeof CONFIDENCE)[number];
/** What stands behind a number: a law binds, a model code binds where it was adopted, guidance does not bind. `kitchen` = a rule of the kitchen's own. */
export const AUTHORITIES = ['law', 'modelCode', 'standard', 'guidance', 'kitchen'] as const;
export type Authority = (typeof AUTHORITIES)[number];

/** What may be done about a deviation; the words for each live in contract/words. */
export const CORRECTIVES = ['faster', 'reheat', 'discard', 'personInCharge', 'reheatHot', 'moveCold', 'cookOn', 'relabel', 'probeOut', 'clean'] as const;
export type CorrectiveAction = (typeof CORRECTIVES)[number];

/** One rule as its source has it. */
interface Base<Step extends string> {
  readonly step: Step;
  readonly id: string;
  readonly appliesTo: string;
  readonly citation: string;
  readonly authority: Authority;
  /** How sure whoever wrote it down from memory is of it. What is of low confidence is off until the kitchen switches it on. */
  readonly confidence: Confidence;
  readonly note: string;
  readonly corrective: readonly CorrectiveAction[];
  /** true = only for kitchens that do this: off until it is switched on. */
  readonly optional: boolean;
}

/** Heat of the coldest point for so many seconds; 0 = at once. Where a rule has several, any one of them will do. */
export interface HeatPoint {
  readonly limit: TemperatureLimit;
  readonly holdS: number;
}

/** What is being cooked, from what asks for most to what asks for least. */
export const COOKED_FOODS = ['poultry', 'ground', 'intact', 'any', 'plant'] as const;
export type CookedFood = (typeof COOKED_FOODS)[number];
export interface CookRule extends Base<'cook'> {
  readonly food: CookedFood;
  readonly points: readonly HeatPoint[];
}

/** What starts a cooling clock: food that falls through a temperature, or something that is tapped. */
export type CoolingStart =
  | { readonly kind: 'falls'; readonly limit: TemperatureLimit }
  /** `heatOff`: the end of cooking. `leftHeat`: that, or the end of hot holding in which every reading was hot. */
  | { readonly kind: 'event'; readonly event: 'heatOff' | 'leftHeat' | 'coolingStarted' | 'combined' | 'received' }
  /** The end of the stage before: "within a further four hours". */
  | { readonly kind: 'previous' };
/** What ends it: the warmest point at a temperature, or a place it has to be in. */
export type CoolingTarget = { readonly kind: 'temperature'; readonly limit: TemperatureLimit } | { readonly kind: 'event'; readonly event: 'coolingStarted' | 'inColdPlace' };

/** How food is cooled. An ice bath that is stirred takes less than half the time of one that is not. */
export const COOLING_METHODS = ['iceBath', 'iceBathStirred', 'iceWand', 'shallowPans', 'blast', 'walkIn'] as const;
export type CoolingMethod = (typeof COOLING_METHODS)[number];

/** `cooked` food is cooled from hot, `ambient` was made from ingredients at room temperature and never was, `received` came in above the limit. */
export const COOLED_FOODS = ['cooked', 'ambient', 'received'] as const;
export interface CoolRule extends Base<'cool'> {
  readonly food: (typeof COOLED_FOODS)[number];
  readonly from: CoolingStart;
  readonly to: CoolingTarget;
  readonly withinMin: number;
  /** true where the text says "less than" rather than "within": exactly on the limit is then too late. */
  readonly strict: boolean;
  /** How often the kitchen wants a reading on the way. Minutes; common practice, not the source's. */
  readonly checkEveryMin: number;
}

export interface HoldRule extends Base<'hotHold' | 'coldHold' | 'frozenHold'> {
  readonly limit: TemperatureLimit;
  readonly side: 'atLeast' | 'atMost';
  /** How often the kitchen wants a reading. Minutes; common practice, not the source's. */
  readonly checkEveryMin: number;
  /** How long food may have been out of the limit and still be saved; null = the source gives no such time, so a person decides. */
  readonly allowance: { readonly withinMin: number; readonly strict: boolean; readonly citation: string } | null;
}

export interface ReheatRule extends Base<'reheat'> {
  readonly food: 'own' | 'commercial' | 'microwave';
  readonly points: readonly HeatPoint[];
  /** From when the food leaves the cold; null = the source names no time ("rapidly"). */
  readonly withinMin: number | null;
  readonly strict: boolean;
  /** Covered standing afterwards, microwave only. */
  readonly standS: number;
}

/** Time instead of temperature: food out of control that is used or thrown away within a time. */
export interface TimeControlRule extends Base<'timeControl'> {
  /** What it has to be at when it is taken out; null = the source does not say. `cold` may be at or below, `hot` at or above. */
  readonly startCold: TemperatureLimit | null;
  readonly startHot: TemperatureLimit | null;
  /** What it may never be above meanwhile. */
  readonly ceiling: TemperatureLimit | null;
  readonly withinMin: number;
  readonly strict: boolean;
  /** Every minute out counts, whenever it was; else from one removal on. */
  readonly cumulative: boolean;
}

/** Date mark: the day of preparation is day 1, the food is used by the end of day `lastDay`. */
export interface DateMarkRule extends Base<'dateMark'> {
  readonly food: 'made' | 'opened';
  readonly lastDay: number;
}

/** How far a thermometer may be off. Deltas, not temperatures: ±1 °C is ±1.8 °F. */
export interface ThermometerRule extends Base<'thermometer'> {
  readonly what: 'food' | 'air';
  readonly tolerance: { readonly c: number; readonly f: number };
}

/** A rule with nothing to compare: shown, and kept by people. */
export type TextRule = Base<'text'>;

export type Rule = CookRule | CoolRule | HoldRule | ReheatRule | TimeControlRule | DateMarkRule | ThermometerRule | TextRule;

/** A set of rules as data. A record keeps the id and version it was judged by; a change of any number is a new version. */
export interface RulePack {
  readonly id: string;
  readonly version: number;
  readonly name: string;
  readonly place: string;
  readonly rules: readonly Rule[];
}
