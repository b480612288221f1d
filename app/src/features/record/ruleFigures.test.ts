import type { TemperatureUnit } from '@broth/core';
import { RULE_PACKS, ruleSet } from '@broth/core/packs';
import { figuresOf, ownLimit, withFigures } from './ruleFigures';

const UNITS: readonly TemperatureUnit[] = ['C', 'F'];
const rules = RULE_PACKS.flatMap((pack) => pack.rules);

test('every rule of every pack, saved with the figures it shows, is the rule it was', () => {
  for (const unit of UNITS) for (const rule of rules) expect(withFigures(rule, rule, figuresOf(rule, unit), unit)).toEqual(rule);
});

test('with its minutes changed alone a rule keeps both figures of its source, in either unit', () => {
  const stage = rules.find((rule) => rule.step === 'cool' && rule.to.kind === 'temperature' && rule.to.limit.f !== null);
  if (stage?.step !== 'cool') throw new Error('No cooling with both figures.');
  for (const unit of UNITS) expect(withFigures(stage, stage, { ...figuresOf(stage, unit), minutes: 90 }, unit)).toEqual({ ...stage, withinMin: 90 });
});

test('a figure set back to the source\u2019s is the source\u2019s limit again, not a conversion of it', () => {
  for (const unit of UNITS) {
    for (const original of rules) {
      const figures = figuresOf(original, unit);
      if (figures.temperature === null) continue;
      const changed = withFigures(original, original, { ...figures, temperature: figures.temperature + 3 }, unit);
      expect(withFigures(changed, original, figures, unit)).toEqual(original);
    }
  }
});

test('a temperature that asks for less is seen to, whichever unit it was typed in, by a tenth of a degree', () => {
  const easier = { cook: -0.1, reheat: -0.1, hotHold: -0.1, cool: 0.1, coldHold: 0.1, frozenHold: 0.1 };
  let tried = 0;
  for (const unit of UNITS) {
    for (const pack of RULE_PACKS) {
      const changes = pack.rules.flatMap((rule) => {
        const figures = figuresOf(rule, unit);
        if (figures.temperature === null || !(rule.step in easier)) return [];
        const temperature = Math.round((figures.temperature + easier[rule.step as keyof typeof easier]) * 10) / 10;
        return [{ ruleId: rule.id, on: true, instead: withFigures(rule, rule, { ...figures, temperature }, unit), reason: 'Tried' }];
      });
      tried += changes.length;
      const standings = ruleSet(pack, { packId: pack.id, changes, added: [] }, 2).standings;
      for (const { ruleId } of changes) expect([ruleId, unit, standings.find(({ rule }) => rule.id === ruleId)?.kinder]).toEqual([ruleId, unit, true]);
    }
  }
  expect(tried).toBeGreaterThan(100);
});

test('a limit of the kitchen\u2019s own is the same temperature in both units', () => {
  // NIST SP 811 B.8: 145 °F is 62.777… °C; 60 °C is 140 °F.
  expect(ownLimit(145, 'F').c).toBeCloseTo(62.7778, 4);
  expect(ownLimit(60, 'C')).toEqual({ c: 60, f: 140 });
});

test('of several ways to heat no temperature is offered, and all stay', () => {
  const cook = rules.find((rule) => rule.step === 'cook' && rule.points.length > 1);
  if (cook === undefined) throw new Error('No rule with several ways to heat.');
  expect(figuresOf(cook, 'C').temperature).toBeNull();
  expect(withFigures(cook, cook, figuresOf(cook, 'C'), 'C')).toEqual(cook);
});

test('a date mark has days, a text has nothing to change', () => {
  const mark = rules.find((rule) => rule.step === 'dateMark');
  const said = rules.find((rule) => rule.step === 'text');
  if (mark?.step !== 'dateMark' || said === undefined) throw new Error('No date mark or no text.');
  expect(withFigures(mark, mark, { ...figuresOf(mark, 'C'), days: 2 }, 'C')).toEqual({ ...mark, lastDay: 2 });
  expect(figuresOf(said, 'C')).toEqual({ temperature: null, minutes: null, days: null });
});
