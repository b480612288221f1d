import type { Instant } from '../quantity/index';
import type { CookRule, CoolRule, DateMarkRule, HeatPoint, HoldRule, ReheatRule, Rule, ThermometerRule, TimeControlRule } from './rule';

/** A rule with what became of it in this kitchen. */
export interface RuleStanding {
  readonly rule: Rule;
  /** As the source has it; null for a rule of the kitchen's own. */
  readonly original: Rule | null;
  readonly on: boolean;
  readonly reason: string;
  /** The kitchen's figures ask for less than the source, or a rule of the source that is not of low confidence is off. */
  readonly kinder: boolean;
}

/** A kitchen's rules at a version of its own count, each with what became of it: what travels to a phone. */
export interface RuleSet {
  readonly packId: string;
  readonly packVersion: number;
  /** Every change of pack or rule is one more. */
  readonly version: number;
  readonly name: string;
  readonly place: string;
  readonly standings: readonly RuleStanding[];
}

/** The rules that judge, sorted by what they judge: only what is on. Where several of a kind are, the one that asks for most. */
export interface RulesInForce extends RuleSet {
  readonly cook: readonly CookRule[];
  readonly cooling: Readonly<Record<CoolRule['food'], readonly CoolRule[]>>;
  readonly hotHold: HoldRule | null;
  readonly coldHold: HoldRule | null;
  readonly frozenHold: HoldRule | null;
  readonly reheat: Readonly<Record<ReheatRule['food'], ReheatRule | null>>;
  readonly timeControl: readonly TimeControlRule[];
  readonly dateMark: Readonly<Record<DateMarkRule['food'], DateMarkRule | null>>;
  readonly thermometer: Readonly<Record<ThermometerRule['what'], ThermometerRule | null>>;
}

/** Since when which rules were in force, oldest first: what was begun under one version is judged by it to its end. */
export interface RuleVersion {
  readonly since: Instant;
  readonly by: string;
  readonly rules: RulesInForce;
}
export type RuleBook = readonly [RuleVersion, ...(readonly RuleVersion[])];

/** The versions as they were stored, sorted for judging; null when there is none. */
export function ruleBook(versions: readonly { readonly since: Instant; readonly by: string; readonly set: RuleSet }[]): RuleBook | null {
  const [first, ...rest] = [...versions].sort((left, right) => left.since - right.since).map(({ since, by, set }): RuleVersion => ({ since, by, rules: rulesInForce(set) }));
  return first === undefined ? null : [first, ...rest];
}

/** The rules at an instant; before the first version, the first. */
export function rulesAt(book: RuleBook, at: Instant): RulesInForce {
  return (book.findLast((version) => version.since <= at) ?? book[0]).rules;
}

/** The rules of now. */
export function currentRules(book: RuleBook): RulesInForce {
  return (book.at(-1) ?? book[0]).rules;
}

/** The one that asks for most; of equals the first. */
function strictest<One>(all: readonly One[], asksMore: (one: One, other: One) => boolean): One | null {
  return all.reduce<One | null>((best, one) => (best === null || asksMore(one, best) ? one : best), null);
}

/** What a kitchen goes by. Among several rules of one kind that are on the strictest judges: a second rule can only ask for more. */
export function rulesInForce(set: RuleSet): RulesInForce {
  const on = set.standings.flatMap((standing) => (standing.on ? [standing.rule] : []));
  const of = <Step extends Rule['step']>(step: Step): Extract<Rule, { step: Step }>[] => on.filter((rule): rule is Extract<Rule, { step: Step }> => rule.step === step);
  const holds = (step: HoldRule['step']): HoldRule | null =>
    strictest(
      on.filter((rule): rule is HoldRule => rule.step === step),
      (one, other) => (one.side === 'atLeast' ? one.limit.c > other.limit.c : one.limit.c < other.limit.c),
    );
  const cooling = (food: CoolRule['food']): CoolRule[] => of('cool').filter((rule) => rule.food === food);
  const hottest = (points: readonly HeatPoint[]): number => Math.min(...points.map((point) => point.limit.c));
  const reheat = (food: ReheatRule['food']): ReheatRule | null =>
    strictest(
      of('reheat').filter((rule) => rule.food === food),
      (one, other) => hottest(one.points) > hottest(other.points) || (hottest(one.points) === hottest(other.points) && (one.withinMin ?? Infinity) < (other.withinMin ?? Infinity)),
    );
  const dateMark = (food: DateMarkRule['food']): DateMarkRule | null =>
    strictest(
      of('dateMark').filter((rule) => rule.food === food),
      (one, other) => one.lastDay < other.lastDay,
    );
  const thermometer = (what: ThermometerRule['what']): ThermometerRule | null =>
    strictest(
      of('thermometer').filter((rule) => rule.what === what),
      (one, other) => one.tolerance.c < other.tolerance.c,
    );
  return {
    ...set,
    cook: of('cook'),
    cooling: { cooked: cooling('cooked'), ambient: cooling('ambient'), received: cooling('received') },
    hotHold: holds('hotHold'),
    coldHold: holds('coldHold'),
    frozenHold: holds('frozenHold'),
    reheat: { own: reheat('own'), commercial: reheat('commercial'), microwave: reheat('microwave') },
    timeControl: of('timeControl'),
    dateMark: { made: dateMark('made'), opened: dateMark('opened') },
    thermometer: { food: thermometer('food'), air: thermometer('air') },
  };
}

/** The last day a date mark without a rule would allow. A kitchen whose pack has none still has to be told something: a week is the most any of them gives. */
export const LONGEST_DATE_MARK_DAYS = 7;

/** The date mark's last day, the day of preparation being day 1. */
export function dateMarkLastDay(rules: RulesInForce): number {
  return rules.dateMark.made?.lastDay ?? LONGEST_DATE_MARK_DAYS;
}
