import type { Instant, TemperatureLimit } from '../quantity/index';
import type { CookRule, CoolRule, DateMarkRule, HeatPoint, HoldRule, ReheatRule, Rule, RulePack, ThermometerRule, TimeControlRule } from './rule';

/** What a kitchen changed about a rule of its pack. The rule as the source has it stays beside it. */
export interface RuleChange {
  readonly ruleId: string;
  readonly on: boolean;
  /** The rule with the kitchen's own figures, of the same id and step; null = as the source has it. */
  readonly instead: Rule | null;
  readonly reason: string;
}

/** A kitchen's choice: a pack, what it changed about it, and rules of its own. Stored in versions. */
export interface KitchenRules {
  readonly packId: string;
  readonly changes: readonly RuleChange[];
  readonly added: readonly Rule[];
}

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

function lower(one: TemperatureLimit, other: TemperatureLimit): boolean {
  return one.c < other.c || (one.f !== null && other.f !== null && one.f < other.f);
}

function lessHeat(instead: readonly HeatPoint[], original: readonly HeatPoint[]): boolean {
  // Every way the kitchen allows has to be at least as hot and as long as some way the source allows.
  return instead.some((point) => !original.some((one) => !lower(point.limit, one.limit) && point.holdS >= one.holdS));
}

function longer(instead: { readonly withinMin: number | null; readonly strict: boolean }, original: { readonly withinMin: number | null; readonly strict: boolean }): boolean {
  if (original.withinMin === null) return false;
  if (instead.withinMin === null || instead.withinMin > original.withinMin) return true;
  return instead.withinMin === original.withinMin && original.strict && !instead.strict;
}

function easierAllowance(instead: HoldRule['allowance'], original: HoldRule['allowance']): boolean {
  if (instead === null) return false;
  return original === null || longer(instead, original);
}

/** Whether a changed rule asks for less than the original in anything. Of another step: yes, for want of a comparison. */
export function isKinder(instead: Rule, original: Rule): boolean {
  if (instead.step === 'cook' && original.step === 'cook') return lessHeat(instead.points, original.points);
  if (instead.step === 'reheat' && original.step === 'reheat') return lessHeat(instead.points, original.points) || longer(instead, original) || instead.standS < original.standS;
  if (instead.step === 'cool' && original.step === 'cool') {
    if (longer(instead, original)) return true;
    if (instead.from.kind !== original.from.kind || instead.to.kind !== original.to.kind) return true;
    // A clock that starts at a lower temperature starts later; a target that is higher is reached sooner.
    if (instead.from.kind === 'falls' && original.from.kind === 'falls' && lower(instead.from.limit, original.from.limit)) return true;
    return instead.to.kind === 'temperature' && original.to.kind === 'temperature' && lower(original.to.limit, instead.to.limit);
  }
  if ('side' in instead && 'side' in original) {
    if (instead.side !== original.side || easierAllowance(instead.allowance, original.allowance)) return true;
    return instead.side === 'atLeast' ? lower(instead.limit, original.limit) : lower(original.limit, instead.limit);
  }
  if (instead.step === 'timeControl' && original.step === 'timeControl') {
    if (longer(instead, original) || (original.cumulative && !instead.cumulative)) return true;
    return original.ceiling !== null && (instead.ceiling === null || lower(original.ceiling, instead.ceiling));
  }
  if (instead.step === 'dateMark' && original.step === 'dateMark') return instead.lastDay > original.lastDay;
  if (instead.step === 'thermometer' && original.step === 'thermometer') return instead.tolerance.c > original.tolerance.c || instead.tolerance.f > original.tolerance.f;
  return instead.step !== original.step;
}

/** Of low confidence, or only for kitchens that do this: off until it is switched on. */
function onByItself(rule: Rule): boolean {
  return rule.confidence !== 'low' && !rule.optional;
}

function standingsOf(pack: RulePack, kitchen: KitchenRules): readonly RuleStanding[] {
  const changeOf = new Map(kitchen.changes.map((change) => [change.ruleId, change]));
  const packed = pack.rules.map((original): RuleStanding => {
    const change = changeOf.get(original.id);
    const rule = change?.instead ?? original;
    const on = change?.on ?? onByItself(original);
    return { rule, original, on, reason: change?.reason ?? '', kinder: (onByItself(original) && !on && original.step !== 'text') || (on && isKinder(rule, original)) };
  });
  const own = kitchen.added.map((rule): RuleStanding => {
    const change = changeOf.get(rule.id);
    return { rule: change?.instead ?? rule, original: null, on: change?.on ?? true, reason: change?.reason ?? '', kinder: false };
  });
  return [...packed, ...own];
}

/** The one that asks for most; of equals the first. */
function strictest<One>(all: readonly One[], asksMore: (one: One, other: One) => boolean): One | null {
  return all.reduce<One | null>((best, one) => (best === null || asksMore(one, best) ? one : best), null);
}

/** A pack as a kitchen has it; `version` is the kitchen's own count. */
export function ruleSet(pack: RulePack, kitchen: KitchenRules, version: number): RuleSet {
  return { packId: pack.id, packVersion: pack.version, version, name: pack.name, place: pack.place, standings: standingsOf(pack, kitchen) };
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
