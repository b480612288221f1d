import type { TemperatureLimit } from '../quantity/index';
import type { HeatPoint, HoldRule, Rule, RulePack } from './rule';
import type { RuleSet, RuleStanding } from './rules';

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
    const { startCold, startHot, ceiling } = original;
    if (startCold !== null && (instead.startCold === null || lower(startCold, instead.startCold))) return true;
    if (startHot !== null && (instead.startHot === null || lower(instead.startHot, startHot))) return true;
    return ceiling !== null && (instead.ceiling === null || lower(ceiling, instead.ceiling));
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

/** A pack as a kitchen has it; `version` is the kitchen's own count. */
export function ruleSet(pack: RulePack, kitchen: KitchenRules, version: number): RuleSet {
  return { packId: pack.id, packVersion: pack.version, version, name: pack.name, place: pack.place, standings: standingsOf(pack, kitchen) };
}
