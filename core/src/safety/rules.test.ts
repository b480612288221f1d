import { RULE_PACKS } from '../packs';
import { bookOf, packOf, rulesOf } from '../testing/rules';
import { currentRules, dateMarkLastDay, ruleBook, rulesAt } from './index';
import { isKinder, ruleSet } from './kitchenRules';
import type { Rule, TimeControlRule } from './index';

/** The figures of every pack, as they were written down from memory; each rule names its source and how sure that is. */
describe('the packs are their sources', () => {
  const cooling = (packId: string): unknown =>
    rulesOf(packId).cooling.cooked.map(({ from, to, withinMin, strict }) => [
      from.kind === 'falls' ? from.limit.c : from.kind === 'event' ? from.event : 'then',
      to.kind === 'temperature' ? to.limit.c : to.event,
      withinMin,
      strict ? 'less than' : 'within',
    ]);
  test.each<[string, unknown]>([
    // FDA Food Code 2022, 3-501.14(A): six hours in all, not four more.
    [
      'us-fda-fc2022',
      [
        [57, 21, 120, 'within'],
        [57, 5, 360, 'within'],
      ],
    ],
    // NYC Health Code 81.09.
    [
      'us-nyc',
      [
        [60, 21, 120, 'within'],
        ['then', 5, 240, 'within'],
      ],
    ],
    // 10 NYCRR 14-1.40.
    [
      'us-nys',
      [
        [49, 21, 120, 'within'],
        ['then', 7, 240, 'within'],
      ],
    ],
    // FSANZ Standard 3.2.2 cl 7(3): a further four hours.
    [
      'au',
      [
        [60, 21, 120, 'within'],
        ['then', 5, 240, 'within'],
      ],
    ],
    // Codex CXC 39-1993: in less than two hours, begun within thirty minutes.
    [
      'codex',
      [
        ['heatOff', 'coolingStarted', 30, 'within'],
        [60, 10, 120, 'less than'],
      ],
    ],
    // Arrêté du 21 décembre 2009, annexe IV.
    ['fr', [[63, 10, 120, 'less than']]],
    // DoH 1989, cook-chill.
    [
      'uk-cook-chill',
      [
        ['heatOff', 'coolingStarted', 30, 'within'],
        ['coolingStarted', 3, 90, 'within'],
      ],
    ],
    // The EU names no number; what was not surely remembered of Ireland's cook-chill note is off.
    ['ie', []],
  ])('%s', (packId, stages) => {
    expect(cooling(packId)).toEqual(stages);
  });
  test('hot, cold and reheat limits; a source with one figure is not given a second', () => {
    const figures = (packId: string): unknown => {
      const { hotHold, coldHold, reheat } = rulesOf(packId);
      return [hotHold?.limit, coldHold?.limit, reheat.own?.points.map(({ limit, holdS }) => [limit.c, limit.f, holdS]), reheat.own?.withinMin];
    };
    expect(figures('us-fda-fc2022')).toEqual([{ c: 57, f: 135 }, { c: 5, f: 41 }, [[74, 165, 15]], 120]);
    expect(figures('uk')).toEqual([
      { c: 63, f: null },
      { c: 8, f: null },
      [
        [60, null, 2700],
        [65, null, 600],
        [70, null, 120],
        [75, null, 30],
        [80, null, 6],
      ],
      null,
    ]);
    expect(figures('uk-scotland')).toEqual([{ c: 63, f: null }, { c: 8, f: null }, [[82, null, 0]], null]);
    expect(figures('codex')).toEqual([{ c: 60, f: null }, { c: 4, f: null }, [[75, null, 0]], 60]);
    expect(figures('canada')).toEqual([{ c: 60, f: 140 }, { c: 4, f: 40 }, [[74, 165, 15]], 120]);
  });
  test('every rule has a source, an id of its own, and where it is not surely remembered it is off', () => {
    for (const pack of RULE_PACKS) {
      const ids = pack.rules.map((rule) => rule.id);
      expect(new Set(ids).size).toBe(ids.length);
      expect(pack.rules.filter((rule) => rule.citation.length < 3)).toEqual([]);
    }
    const low = RULE_PACKS.flatMap((pack) => rulesOf(pack.id).standings.filter(({ rule }) => rule.confidence === 'low'));
    expect(low.map(({ rule, on }) => [rule.id, on])).toEqual([['ie.cc', false]]);
  });
  test('a date mark: seven days in the US, five by the cook-chill guideline', () => {
    expect([dateMarkLastDay(rulesOf()), dateMarkLastDay(rulesOf('uk-cook-chill'))]).toEqual([7, 5]);
  });
});

describe('what a kitchen changes', () => {
  const hot = packOf('us-fda-fc2022').rules.find((rule) => rule.id === 'us.hot');
  const changed = (limitF: number): Rule => {
    if (hot?.step !== 'hotHold') throw new Error('no rule');
    return { ...hot, limit: { c: hot.limit.c + (limitF - 135) / 1.8, f: limitF } };
  };
  const rules = (limitF: number) => rulesOf('us-fda-fc2022', { changes: [{ ruleId: 'us.hot', on: true, instead: changed(limitF), reason: 'house rule' }] });
  test('the original stays beside it, and asking for less than it is said', () => {
    const standing = (limitF: number) => rules(limitF).standings.find((one) => one.original?.id === 'us.hot');
    expect([rules(140).hotHold?.limit.f, standing(140)?.original, standing(140)?.kinder, standing(130)?.kinder]).toEqual([140, hot, false, true]);
  });
  test('a rule of the source that is switched off is kinder; one that was optional is not', () => {
    const off = rulesOf('us-fda-fc2022', { changes: ['us.cool.1', 'us.tphc.4'].map((ruleId) => ({ ruleId, on: false, instead: null, reason: 'why' })) });
    expect(off.standings.filter((one) => one.kinder).map((one) => one.rule.id)).toEqual(['us.cool.1']);
    expect(off.cooling.cooked.map((rule) => rule.id)).toEqual(['us.cool.2']);
  });
  test('of two rules of a kind the one that asks for more judges', () => {
    const both = rulesOf('uk', { changes: [{ ruleId: 'uk.cold.rec', on: true, instead: null, reason: 'we keep to 5' }] });
    expect([rulesOf('uk').coldHold?.limit.c, both.coldHold?.limit.c]).toEqual([8, 5]);
    const own: Rule = { ...changed(150), id: 'house.hot', authority: 'kitchen' };
    expect(rulesOf('us-fda-fc2022', { added: [own] }).hotHold?.id).toBe('house.hot');
  });
  test('longer, later, less hot and less often allowed are each kinder', () => {
    const [first, second] = rulesOf().cooling.cooked;
    const reheat = rulesOf().reheat.own;
    if (first === undefined || second === undefined || reheat === null) throw new Error('no rule');
    const kinder = [
      [{ ...first, withinMin: 150 }, first],
      [{ ...first, withinMin: 90 }, first],
      [{ ...first, from: { kind: 'falls' as const, limit: { c: 49, f: 120 } } }, first],
      [{ ...second, from: { kind: 'previous' as const }, withinMin: 240 }, second],
      [{ ...reheat, points: [{ limit: { c: 74, f: 165 }, holdS: 0 }] }, reheat],
      [{ ...reheat, points: [{ limit: { c: 80, f: 176 }, holdS: 15 }] }, reheat],
      [{ ...reheat, withinMin: null }, reheat],
    ] as const;
    expect(kinder.map(([instead, original]) => isKinder(instead, original))).toEqual([true, false, true, true, true, false, true]);
  });
  test('time instead of temperature: a longer time, a warmer or no start, a higher or no ceiling', () => {
    const own = (find: (rule: TimeControlRule) => boolean): TimeControlRule => {
      const rule = RULE_PACKS.flatMap((pack) => pack.rules).find((one) => one.step === 'timeControl' && find(one));
      if (rule?.step !== 'timeControl') throw new Error('no rule');
      return rule;
    };
    const rule = own((one) => one.startHot !== null);
    const sixHours = own((one) => one.startCold !== null && one.ceiling !== null);
    const colder = (limit: TimeControlRule['startHot']) => (limit === null ? null : { c: limit.c - 5, f: limit.f === null ? null : limit.f - 9 });
    const warmer = (limit: TimeControlRule['startHot']) => (limit === null ? null : { c: limit.c + 5, f: limit.f === null ? null : limit.f + 9 });
    const kinder: readonly (readonly [Rule, Rule])[] = [
      [rule, rule],
      [{ ...rule, withinMin: rule.withinMin + 30 }, rule],
      [{ ...rule, startHot: colder(rule.startHot) }, rule],
      [{ ...rule, startHot: null }, rule],
      [{ ...rule, startHot: warmer(rule.startHot), startCold: colder(rule.startCold) }, rule],
      [{ ...sixHours, startCold: warmer(sixHours.startCold) }, sixHours],
      [{ ...sixHours, ceiling: warmer(sixHours.ceiling) }, sixHours],
      [{ ...sixHours, ceiling: colder(sixHours.ceiling) }, sixHours],
      [{ ...sixHours, ceiling: null }, sixHours],
    ];
    expect(kinder.map(([instead, original]) => isKinder(instead, original))).toEqual([false, true, true, true, false, true, true, false, true]);
  });
});

test('what began under one pack is judged by it to its end: the rules at an instant', () => {
  const set = (packId: string, version: number) => ruleSet(packOf(packId), { packId, changes: [], added: [] }, version);
  const book = ruleBook([
    { since: 1000, by: 'lead', set: set('au', 2) },
    { since: 0, by: 'lead', set: set('us-fda-fc2022', 1) },
  ]);
  if (book === null) throw new Error('no book');
  expect([rulesAt(book, 500).packId, rulesAt(book, 1000).packId, rulesAt(book, -5).packId, currentRules(book).version]).toEqual(['us-fda-fc2022', 'au', 'us-fda-fc2022', 2]);
  expect(bookOf()[0].rules.packId).toBe('us-fda-fc2022');
});
