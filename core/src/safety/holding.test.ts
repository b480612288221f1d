import { addMinutes, minutesBetween } from '../quantity/index';
import type { TemperatureUnit } from '../quantity/index';
import fc from 'fast-check';
import { boilingPointC } from '../pot/index';
import { checkThermometer, cookVerdict, corrected, doubtfulSpans, holdVerdict, offsetIn, reheatVerdict, timeControlVerdict } from './index';
import type { HoldRule, ReheatRule } from './index';
import { rulesOf } from '../testing/rules';
import type { TimedReading, VerdictKind } from './index';

const T0 = 1_764_000_000_000;
type Point = readonly [minute: number, value: number, unit?: TemperatureUnit, heldS?: number];
const log = (points: readonly Point[]): TimedReading[] =>
  points.map(([minute, value, unit = 'F', heldS]) => ({ at: addMinutes(T0, minute), reading: { value, unit, rawText: String(value) }, heldS: heldS ?? null }));
const rules = rulesOf();
const there = <One>(rule: One | null): One => {
  if (rule === null) throw new Error('no rule');
  return rule;
};
const pack: { hotHold: HoldRule; coldHold: HoldRule; reheat: ReheatRule } = { hotHold: there(rules.hotHold), coldHold: there(rules.coldHold), reheat: there(rules.reheat.own) };

describe('hot hold (FDA Food Code 2022, 3-501.16(A)(1)) and cold hold (3-501.16(A)(2))', () => {
  test.each<{ name: string; rule: 'hotHold' | 'coldHold'; points: readonly Point[]; nowMin: number; says: VerdictKind; outAtMostMin: number | null }>([
    { name: '135 °F is hot enough', rule: 'hotHold', points: [[0, 135]], nowMin: 10, says: 'pass', outAtMostMin: null },
    { name: '134.9 °F is not', rule: 'hotHold', points: [[0, 134.9]], nowMin: 10, says: 'fail', outAtMostMin: 10 },
    { name: '57 °C is hot enough in °C', rule: 'hotHold', points: [[0, 57, 'C']], nowMin: 10, says: 'pass', outAtMostMin: null },
    {
      name: 'a bad reading counts from the last good one',
      rule: 'hotHold',
      points: [
        [0, 150],
        [110, 128],
      ],
      nowMin: 115,
      says: 'fail',
      outAtMostMin: 115,
    },
    { name: 'a good reading 120 min old is still in force', rule: 'hotHold', points: [[0, 150]], nowMin: 120, says: 'pass', outAtMostMin: null },
    { name: 'at 121 min the next one is overdue', rule: 'hotHold', points: [[0, 150]], nowMin: 121, says: 'overdue', outAtMostMin: null },
    { name: 'no reading yet proves nothing', rule: 'hotHold', points: [], nowMin: 10, says: 'inProgress', outAtMostMin: null },
    { name: '41 °F is cold enough', rule: 'coldHold', points: [[0, 41]], nowMin: 10, says: 'pass', outAtMostMin: null },
    { name: '41.1 °F is not', rule: 'coldHold', points: [[0, 41.1]], nowMin: 10, says: 'fail', outAtMostMin: 10 },
    { name: '5.0 °C is cold enough', rule: 'coldHold', points: [[0, 5, 'C']], nowMin: 10, says: 'pass', outAtMostMin: null },
  ])('$name', ({ rule, points, nowMin, says, outAtMostMin }) => {
    const verdict = holdVerdict({ readings: log(points), since: T0, rule: pack[rule], now: addMinutes(T0, nowMin) });
    expect([verdict.kind, verdict.outAtMostMin]).toEqual([says, outAtMostMin]);
  });
});

describe('reheat for hot holding (FDA Food Code 2022, 3-403.11(A) and (D))', () => {
  test.each<{ name: string; points: readonly Point[]; nowMin: number; says: VerdictKind }>([
    { name: '165 °F held 15 s within two hours passes', points: [[100, 165, 'F', 15]], nowMin: 100, says: 'pass' },
    { name: '165 °F at exactly two hours passes', points: [[120, 165, 'F', 15]], nowMin: 120, says: 'pass' },
    { name: '165 °F without the 15 s is not proven', points: [[100, 165]], nowMin: 100, says: 'inProgress' },
    {
      name: 'two readings 15 s apart, both hot, prove the hold',
      points: [
        [100, 166],
        [100.25, 165],
      ],
      nowMin: 101,
      says: 'pass',
    },
    {
      name: 'two readings 14 s apart do not',
      points: [
        [100, 166],
        [100 + 14 / 60, 165],
      ],
      nowMin: 101,
      says: 'inProgress',
    },
    { name: '164.9 °F is not 165 °F', points: [[100, 164.9, 'F', 15]], nowMin: 100, says: 'inProgress' },
    { name: '74 °C passes in °C', points: [[60, 74, 'C', 15]], nowMin: 60, says: 'pass' },
    { name: '73.9 °C does not, though it is 165 °F', points: [[60, 73.9, 'C', 15]], nowMin: 60, says: 'inProgress' },
    { name: 'still below at two hours is a failure', points: [[120, 160]], nowMin: 120, says: 'fail' },
    { name: 'no reading by two hours is overdue', points: [], nowMin: 121, says: 'overdue' },
    { name: 'hot only after two hours: not shown in time', points: [[130, 170, 'F', 20]], nowMin: 130, says: 'undetermined' },
  ])('$name', ({ points, nowMin, says }) => {
    expect(reheatVerdict({ readings: log(points), startedAt: T0, rule: pack.reheat, now: addMinutes(T0, nowMin) }).kind).toBe(says);
  });
  test('the two hours run from when the food leaves the cold', () => {
    expect(minutesBetween(T0, reheatVerdict({ readings: [], startedAt: T0, rule: pack.reheat, now: T0 }).dueAt ?? 0)).toBe(120);
  });
});

describe('time out of the limit is enclosed, never known', () => {
  const held = (points: readonly Point[], nowMin: number, packId = 'us-fda-fc2022') =>
    holdVerdict({ readings: log(points), since: T0, rule: there(rulesOf(packId).hotHold), now: addMinutes(T0, nowMin) });
  test('two hours between checks leave time to save it, four do not (FDA Food Code 2022, 3-501.19 as the measure)', () => {
    const found = (gapMin: number) =>
      held(
        [
          [0, 150],
          [gapMin, 128],
        ],
        gapMin,
      );
    expect([found(120).actions, found(120).allowedMin, found(240).actions]).toEqual([['reheatHot', 'discard'], 120, ['discard']]);
  });
  test('back in its limit within what is allowed: passed, with what is left', () => {
    const verdict = held(
      [
        [0, 150],
        [60, 130],
        [80, 170],
      ],
      90,
    );
    expect([verdict.kind, verdict.outAtMostMin, verdict.outAtLeastMin, verdict.allowedMin]).toEqual(['pass', 80, 0, 160]);
  });
  test('a later good reading does not prove the gap: not proven, and a person decides', () => {
    const verdict = held(
      [
        [0, 150],
        [230, 130],
        [250, 170],
      ],
      251,
    );
    expect([verdict.kind, verdict.actions]).toEqual(['undetermined', ['personInCharge', 'discard']]);
  });
  test('out for longer than allowed even at the shortest is a failure for good', () => {
    const verdict = held(
      [
        [0, 150],
        [10, 130],
        [255, 131],
        [260, 170],
      ],
      261,
    );
    expect([verdict.kind, verdict.outAtLeastMin, verdict.actions]).toEqual(['fail', 245, ['discard']]);
  });
  test('"less than two hours, once" in the UK is over at exactly two (SI 2013/2996 Sch 4)', () => {
    const out = (minutes: number) => held([[0, 62, 'C']], minutes, 'uk');
    expect([out(119).actions, out(120).actions]).toEqual([['reheatHot', 'discard'], ['discard']]);
  });
  test('checks nobody made stay missed, whatever is read later', () => {
    const verdict = held(
      [
        [0, 150],
        [300, 150],
      ],
      300,
    );
    expect(verdict.missed.map(({ dueAt, readAt }) => [minutesBetween(T0, dueAt), readAt === null ? null : minutesBetween(T0, readAt)])).toEqual([
      [120, 300],
      [240, 300],
    ]);
  });
  test('law: a worse reading never makes a better verdict', () => {
    const order: readonly VerdictKind[] = ['fail', 'undetermined', 'overdue', 'inProgress', 'pass'];
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.integer({ min: 0, max: 400 }), fc.integer({ min: 100, max: 180 })), { minLength: 1, maxLength: 6 }),
        fc.nat(5),
        fc.integer({ min: 1, max: 40 }),
        (points, index, colder) => {
          const at = index % points.length;
          const worse = points.map(([minute, value], place): Point => [minute, place === at ? value - colder : value]);
          const rank = (given: readonly Point[]): number => order.indexOf(held(given, 400).kind);
          expect(rank(worse)).toBeLessThanOrEqual(rank(points.map(([minute, value]): Point => [minute, value])));
        },
      ),
      { seed: 11, numRuns: 300 },
    );
  });
});

describe('cooking, by the coldest point', () => {
  const cook = (packId: string, id: string, points: readonly Point[], endedMin: number | null, isPast = false): string => {
    const rule = there(rulesOf(packId).cook.find((one) => one.id === id) ?? null);
    return cookVerdict({ readings: log(points), rule, endedAt: endedMin === null ? null : addMinutes(T0, endedMin), isPast }).kind;
  };
  test.each<[string, string, string, readonly Point[], number | null, VerdictKind]>([
    ['165 °F at once is enough for poultry (3-401.11(A)(3))', 'us-fda-fc2022', 'us.cook.poultry', [[5, 165]], null, 'pass'],
    ['164.9 °F is not', 'us-fda-fc2022', 'us.cook.poultry', [[5, 164.9]], null, 'inProgress'],
    ['158 °F at once is enough for minced meat (3-401.11(A)(2))', 'us-fda-fc2022', 'us.cook.ground', [[5, 158]], null, 'pass'],
    ['155 °F is after 17 s, watched', 'us-fda-fc2022', 'us.cook.ground', [[5, 155, 'F', 17]], null, 'pass'],
    ['and not after 16', 'us-fda-fc2022', 'us.cook.ground', [[5, 155, 'F', 16]], null, 'inProgress'],
    ['145 °F is when it stays there three minutes', 'us-fda-fc2022', 'us.cook.ground', [[5, 145], [6, 146], [8, 147]], null, 'pass'], // prettier-ignore
    ['a dip in between starts it anew', 'us-fda-fc2022', 'us.cook.ground', [[5, 145], [6, 144], [8, 147]], null, 'inProgress'], // prettier-ignore
    ['70 °C for two minutes (FSA)', 'uk', 'uk.cook', [[5, 70, 'C'], [7, 71, 'C']], null, 'pass'], // prettier-ignore
    ['80 °C for six seconds', 'uk', 'uk.cook', [[5, 80, 'C', 6]], null, 'pass'],
    ['off the heat without a reading is overdue', 'us-fda-fc2022', 'us.cook.poultry', [], 10, 'overdue'],
    ['off the heat and too cold now: what it was nobody knows', 'us-fda-fc2022', 'us.cook.poultry', [[12, 150]], 10, 'overdue'],
  ])('%s', (_, packId, id, points, endedMin, says) => {
    expect(cook(packId, id, points, endedMin)).toBe(says);
  });
  test('cooled without a reading it cannot be proven any more: a person decides', () => {
    expect(cook('us-fda-fc2022', 'us.cook.poultry', [], 10, true)).toBe('undetermined');
  });
});

describe('time as a control', () => {
  const rule = (id: string) =>
    there(rulesOf('us-fda-fc2022', { changes: [{ ruleId: id, on: true, instead: null, reason: 'written procedure' }] }).timeControl.find((one) => one.id === id) ?? null);
  const judged = (id: string, points: readonly Point[], nowMin: number, endedMin: number | null = null) =>
    timeControlVerdict({
      readings: log(points),
      takenOutAt: T0,
      outBeforeMin: 0,
      rule: rule(id),
      endedAt: endedMin === null ? null : addMinutes(T0, endedMin),
      now: addMinutes(T0, nowMin),
    }).kind;
  test.each<[string, string, readonly Point[], number, number | null, VerdictKind]>([
    ['cold at the start, four hours not over (3-501.19(B))', 'us.tphc.4', [[0, 41]], 239, null, 'inProgress'],
    ['used at exactly four hours', 'us.tphc.4', [[0, 41]], 300, 240, 'pass'],
    ['a minute later it has failed', 'us.tphc.4', [[0, 41]], 241, null, 'fail'],
    ['hot at the start is as good', 'us.tphc.4', [[0, 135]], 10, null, 'inProgress'],
    ['lukewarm at the start is not', 'us.tphc.4', [[0, 100]], 10, null, 'fail'],
    ['nobody read it at the start yet', 'us.tphc.4', [], 10, null, 'overdue'],
    ['nobody did, and now none can', 'us.tphc.4', [[60, 45]], 61, null, 'undetermined'],
    ['what it was an hour before does not tell', 'us.tphc.4', [[-60, 40]], 20, null, 'undetermined'],
    ['a quarter of an hour before does', 'us.tphc.4', [[-15, 40]], 20, null, 'inProgress'],
    ['six hours, never above 70 °F (3-501.19(C))', 'us.tphc.6', [[0, 40], [100, 70]], 359, null, 'inProgress'], // prettier-ignore
    ['above 70 °F at any moment is over', 'us.tphc.6', [[0, 40], [100, 70.1]], 101, null, 'fail'], // prettier-ignore
  ])('%s', (_, id, points, nowMin, endedMin, says) => {
    expect(judged(id, points, nowMin, endedMin)).toBe(says);
  });
});

describe('thermometers', () => {
  const check = (reading: number, unit: TemperatureUnit, method: 'ice' | 'boil', boilingC = 100) =>
    checkThermometer({ reading, unit, method, boilingC }, rulesOf().thermometer.food);
  test('±2 °F and ±1 °C are differences (FDA Food Code 2022, 4-203.11)', () => {
    expect([check(34, 'F', 'ice').usable, check(34.1, 'F', 'ice').usable, check(-1, 'C', 'ice').usable, check(1.1, 'C', 'ice').usable]).toEqual([true, false, true, false]);
  });
  test('boiling water at 5,000 ft stands at 202.9 °F (ISO 2533, Antoine)', () => {
    expect(check(203, 'F', 'boil', boilingPointC(1524)).offset).toBeCloseTo(0.1, 1);
    expect(check(212, 'F', 'boil', boilingPointC(1524)).usable).toBe(false);
  });
  test('an offset is a difference in any unit, and leaves no binary dust', () => {
    expect([corrected(135.2, 0.2), offsetIn(0.9, 'F', 'C'), offsetIn(0.5, 'C', 'F'), offsetIn(-1, 'F', 'F')]).toEqual([135, 0.5, 0.9, -1]);
  });
  test('what was read between the last good check and the failed one is doubtful, and stays so', () => {
    const at = (minute: number, usable: boolean) => ({ at: addMinutes(T0, minute), usable });
    const told = (checks: readonly { at: number; usable: boolean }[]) =>
      doubtfulSpans(checks).map(({ from, to }) => [from === null ? null : minutesBetween(T0, from), minutesBetween(T0, to)]);
    expect([told([at(0, true), at(100, true)]), told([at(0, true), at(100, false), at(110, true)]), told([at(50, false), at(60, false)])]).toEqual([[], [[0, 100]], [[null, 50]]]);
  });
});
