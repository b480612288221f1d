import { addMinutes, minutesBetween } from '../quantity/index';
import type { TemperatureUnit } from '../quantity/index';
import { holdVerdict, reheatVerdict, usFdaFoodCode2022 } from './index';
import type { TimedReading, VerdictKind } from './index';

const T0 = 1_764_000_000_000;
type Point = readonly [minute: number, value: number, unit?: TemperatureUnit, heldS?: number];
const log = (points: readonly Point[]): TimedReading[] =>
  points.map(([minute, value, unit = 'F', heldS]) => ({ at: addMinutes(T0, minute), reading: { value, unit, rawText: String(value) }, heldS: heldS ?? null }));
const pack = usFdaFoodCode2022;

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
    expect(minutesBetween(T0, reheatVerdict({ readings: [], startedAt: T0, rule: pack.reheat, now: T0 }).dueAt)).toBe(120);
  });
});

describe('the pack is the Code', () => {
  test('FDA Food Code 2022 limits, in both units as the Code prints them', () => {
    expect(pack.cooling).toMatchObject({
      start: { c: 57, f: 135 },
      mid: { c: 21, f: 70 },
      end: { c: 5, f: 41 },
      midWithinMin: 120,
      endWithinMin: 360,
      basis: 'total',
      strict: false,
    });
    expect(pack.hotHold.limit).toEqual({ c: 57, f: 135 });
    expect(pack.coldHold.limit).toEqual({ c: 5, f: 41 });
    expect(pack.reheat).toMatchObject({ limit: { c: 74, f: 165 }, holdS: 15, withinMin: 120 });
    expect(pack.dateMark.lastDay).toBe(7);
  });
});
