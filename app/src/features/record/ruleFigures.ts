import { celsiusFromFahrenheit, fahrenheitFromCelsius, limitIn } from '@broth/core';
import type { Rule, TemperatureLimit, TemperatureUnit } from '@broth/core';

/** The figures of a rule that a kitchen may change, as they are shown; what the rule does not have is null. */
export interface RuleFigures {
  /** In the kitchen's unit, to a tenth. */
  readonly temperature: number | null;
  readonly minutes: number | null;
  readonly days: number | null;
}

const NONE: RuleFigures = { temperature: null, minutes: null, days: null };

/** The one temperature of a rule that can be changed: of several ways to heat none is. */
function limitOfRule(rule: Rule): TemperatureLimit | null {
  switch (rule.step) {
    case 'cool':
      return rule.to.kind === 'temperature' ? rule.to.limit : null;
    case 'hotHold':
    case 'coldHold':
    case 'frozenHold':
      return rule.limit;
    case 'cook':
    case 'reheat':
      return rule.points.length === 1 ? (rule.points[0]?.limit ?? null) : null;
    case 'timeControl':
    case 'dateMark':
    case 'thermometer':
    case 'text':
      return null;
  }
}

function shown(limit: TemperatureLimit | null, unit: TemperatureUnit): number | null {
  return limit === null ? null : Math.round(limitIn(limit, unit) * 10) / 10;
}

export function figuresOf(rule: Rule, unit: TemperatureUnit): RuleFigures {
  const temperature = shown(limitOfRule(rule), unit);
  switch (rule.step) {
    case 'cool':
    case 'reheat':
    case 'timeControl':
      return { temperature, minutes: rule.withinMin, days: null };
    case 'hotHold':
    case 'coldHold':
    case 'frozenHold':
      return { temperature, minutes: rule.checkEveryMin, days: null };
    case 'cook':
      return { ...NONE, temperature };
    case 'dateMark':
      return { ...NONE, days: rule.lastDay };
    case 'thermometer':
    case 'text':
      return NONE;
  }
}

/** A limit of the kitchen's own: typed in one unit and converted unrounded, for a rounded figure would ask for less in the other. */
export function ownLimit(value: number, unit: TemperatureUnit): TemperatureLimit {
  return unit === 'C' ? { c: value, f: fahrenheitFromCelsius(value) } : { c: celsiusFromFahrenheit(value), f: value };
}

/**
 * The rule with other figures. A temperature that is shown already, by the rule or by its source, stays the limit
 * it is, with both the figures its source gives: 135 °F read and left alone does not become 57.2 °C.
 */
export function withFigures(rule: Rule, original: Rule | null, figures: RuleFigures, unit: TemperatureUnit): Rule {
  const { temperature, minutes, days } = figures;
  const had = limitOfRule(rule);
  const known = [had, original === null ? null : limitOfRule(original)].find((limit) => limit !== null && shown(limit, unit) === temperature);
  const limit = temperature === null ? null : (known ?? ownLimit(temperature, unit));
  switch (rule.step) {
    case 'cool':
      return { ...rule, to: limit === null || had === null ? rule.to : { kind: 'temperature', limit }, withinMin: minutes ?? rule.withinMin };
    case 'hotHold':
    case 'coldHold':
    case 'frozenHold':
      return { ...rule, limit: limit ?? rule.limit, checkEveryMin: minutes ?? rule.checkEveryMin };
    case 'cook':
      return { ...rule, points: limit === null ? rule.points : rule.points.map((point) => ({ ...point, limit })) };
    case 'reheat':
      return { ...rule, points: limit === null ? rule.points : rule.points.map((point) => ({ ...point, limit })), withinMin: minutes ?? rule.withinMin };
    case 'timeControl':
      return { ...rule, withinMin: minutes ?? rule.withinMin };
    case 'dateMark':
      return { ...rule, lastDay: days ?? rule.lastDay };
    case 'thermometer':
    case 'text':
      return rule;
  }
}
