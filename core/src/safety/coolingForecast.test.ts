import { addMinutes, minutesBetween } from '../quantity/index';
import { coolingForecast, fitNewton, reaches } from '../advice';
import { NO_COOLING_EVENTS, coolingVerdict } from './index';
import type { TimedReading } from './index';
import { rulesOf } from '../testing/rules';

const T0 = 1_764_000_000_000;
const curve = (points: readonly (readonly [number, number])[]): TimedReading[] =>
  points.map(([minute, value]) => ({ at: addMinutes(T0, minute), reading: { value, unit: 'F', rawText: String(value) }, heldS: null }));

describe("Newton's law of cooling (Incropera & DeWitt, Fundamentals of Heat and Mass Transfer, ch. 5)", () => {
  test('150 to 100 °F in an hour at 38 °F: k = ln(112/62) = 0.5914 per hour, 135 to 70 °F in 1.875 h, to 41 °F in 5.878 h', () => {
    const fit = fitNewton(
      curve([
        [0, 150],
        [60, 100],
      ]),
      38,
      'F',
    );
    if (fit === null) throw new Error('no fit');
    expect(fit.kPerMin * 60).toBeCloseTo(0.5914, 4);
    const between = (from: number, to: number): number => minutesBetween(reaches(fit, from) ?? 0, reaches(fit, to) ?? 0) / 60;
    expect(between(135, 70)).toBeCloseTo(1.8753, 3);
    expect(between(135, 41)).toBeCloseTo(5.8781, 3);
  });
  test('least squares through four points: k = 0.009817 per min, 70 °F at 112.9 min, 41 °F at 354.0 min', () => {
    const fit = fitNewton(
      curve([
        [0, 135],
        [30, 110],
        [60, 92],
        [90, 78],
      ]),
      38,
      'F',
    );
    if (fit === null) throw new Error('no fit');
    expect(fit.kPerMin).toBeCloseTo(0.009817, 6);
    expect(fit.excess).toBeCloseTo(96.94, 2);
    expect(minutesBetween(T0, reaches(fit, 70) ?? 0)).toBeCloseTo(112.9, 1);
    expect(minutesBetween(T0, reaches(fit, 41) ?? 0)).toBeCloseTo(354.0, 1);
  });
  test('a walk-in at 42 °F never brings soup to 41 °F', () => {
    const fit = fitNewton(
      curve([
        [0, 135],
        [60, 90],
      ]),
      42,
      'F',
    );
    expect(fit === null ? 'no fit' : reaches(fit, 41)).toBeNull();
  });
  test('readings 14 min apart, within 5 °F of the ambient, or rising give no forecast', () => {
    expect([
      fitNewton(
        curve([
          [0, 135],
          [14, 120],
        ]),
        38,
        'F',
      ),
      fitNewton(
        curve([
          [0, 135],
          [60, 42.9],
        ]),
        38,
        'F',
      ),
      fitNewton(
        curve([
          [0, 100],
          [60, 120],
        ]),
        38,
        'F',
      ),
    ]).toEqual([null, null, null]);
  });
  test('spare minutes count from when the food left 135 °F', () => {
    const readings = curve([
      [0, 135],
      [30, 110],
      [60, 92],
      [90, 78],
    ]);
    const rules = rulesOf().cooling.cooked;
    const verdict = coolingVerdict({ readings, events: NO_COOLING_EVENTS, rules, now: addMinutes(T0, 90) });
    const forecast = coolingForecast({ readings, ambient: 38, unit: 'F', rules, verdict });
    expect(forecast?.stages[0]?.spareMin).toBeCloseTo(7.1, 1);
    expect(forecast?.stages[1]?.spareMin).toBeCloseTo(6.0, 1);
    expect(forecast?.next?.ruleId).toBe('us.cool.1');
  });
});
