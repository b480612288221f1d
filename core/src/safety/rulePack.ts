import type { TemperatureLimit } from '../quantity/index';

export type Confidence = 'high' | 'medium' | 'low';

/** Where a number comes from and how sure we are of it. */
export interface RuleSource {
  readonly id: string;
  readonly citation: string;
  readonly kind: 'law' | 'modelCode' | 'standard' | 'guidance';
  readonly confidence: Confidence;
}

/** What may be done about a deviation; the words for each live in contract/words. */
export type CorrectiveAction = 'faster' | 'reheat' | 'discard' | 'personInCharge' | 'reheatHot' | 'moveCold' | 'cookOn';

/** Two-stage cooling. Stage 2 counts either from the same zero (`total`) or from the end of stage 1 (`further`). */
export interface CoolingRule {
  readonly start: TemperatureLimit;
  readonly mid: TemperatureLimit;
  readonly end: TemperatureLimit;
  readonly midWithinMin: number;
  readonly endWithinMin: number;
  readonly basis: 'total' | 'further';
  /** true where the text says "less than" rather than "within": exactly on the limit is then too late. */
  readonly strict: boolean;
  /** How often the kitchen wants a reading on the way. Minutes; common practice, not the Code. */
  readonly checkEveryMin: { readonly toMid: number; readonly toEnd: number };
  readonly midSource: RuleSource;
  readonly endSource: RuleSource;
  readonly corrective: readonly CorrectiveAction[];
}

export interface HoldRule {
  readonly limit: TemperatureLimit;
  readonly side: 'atLeast' | 'atMost';
  /** How often the kitchen wants a reading. Minutes; common practice, not the Code. */
  readonly checkEveryMin: number;
  readonly source: RuleSource;
  readonly corrective: readonly CorrectiveAction[];
}

export interface ReheatRule {
  readonly limit: TemperatureLimit;
  readonly holdS: number;
  readonly withinMin: number;
  readonly source: RuleSource;
  readonly corrective: readonly CorrectiveAction[];
}

/** Date mark: the day of preparation is day 1, the food is used by the end of day `lastDay`. */
export interface DateMarkRule {
  readonly lastDay: number;
  readonly source: RuleSource;
}

/** A set of rules as data. A record keeps the id and version it was judged by. */
export interface RulePack {
  readonly id: string;
  readonly version: number;
  readonly name: string;
  readonly cooling: CoolingRule;
  readonly hotHold: HoldRule;
  readonly coldHold: HoldRule;
  readonly reheat: ReheatRule;
  readonly dateMark: DateMarkRule;
}
