import fc from 'fast-check';
import { RULE_PACKS } from '../packs';
import { addMinutes, limitIn } from '../quantity/index';
import type { TemperatureLimit, TemperatureUnit } from '../quantity/index';
import { rulesOf } from '../testing/rules';
import { NO_COOLING_EVENTS, coolingVerdict, holdVerdict, reheatVerdict } from './index';
import type { TimedReading } from './index';

/**
 * A source that has two figures means one limit: whoever reads in °C at its °C figure, or five degrees off it, is judged as whoever reads in °F at its °F
 * figure, or nine off. The figures are no conversions of each other (21 °C is 69.8 °F, the code says 70), so a limit that was converted would show here.
 */
const T0 = 1_764_000_000_000;
const heldS = fc.constantFrom(null, 15, 130);
const log = fc
  .array(fc.tuple(fc.integer({ min: 0, max: 500 }), fc.nat(3), fc.constantFrom(-1, 0, 0, 1), heldS), { minLength: 1, maxLength: 7 })
  .map((points) => [...points].sort((left, right) => left[0] - right[0]));

describe.each(RULE_PACKS.map((pack) => pack.id))('by the rules of %s', (packId) => {
  test('°C and °F entry at the same source limits give the same verdicts', () => {
    const rules = rulesOf(packId);
    const { cooked } = rules.cooling;
    const { own } = rules.reheat;
    const cooling = cooked.flatMap((rule) => [...(rule.from.kind === 'falls' ? [rule.from.limit] : []), ...(rule.to.kind === 'temperature' ? [rule.to.limit] : [])]);
    const holds = [rules.hotHold, rules.coldHold].flatMap((rule) => (rule === null ? [] : [rule]));
    const limits: readonly TemperatureLimit[] = [...cooling, ...holds.map((rule) => rule.limit), ...(own === null ? [] : own.points.map((point) => point.limit))];
    let passes = 0;
    fc.assert(
      fc.property(log, fc.integer({ min: 0, max: 700 }), (points, nowMin) => {
        const kinds = (unit: TemperatureUnit): readonly string[] => {
          const readings = points.flatMap(([minute, which, off, held]): TimedReading[] => {
            const limit = limits[which % limits.length];
            const value = limit === undefined ? 0 : limitIn(limit, unit) + off * (unit === 'C' ? 5 : 9);
            return [{ at: addMinutes(T0, minute), reading: { value, unit, rawText: '' }, heldS: held }];
          });
          const now = addMinutes(T0, nowMin);
          return [
            coolingVerdict({ readings, events: { ...NO_COOLING_EVENTS, heatOff: T0, leftHeat: T0, coolingStarted: T0 }, rules: cooked, now }).kind,
            ...holds.map((rule) => holdVerdict({ readings, since: T0, rule, now }).kind),
            ...(own === null ? [] : [reheatVerdict({ readings, startedAt: T0, rule: own, now }).kind]),
          ];
        };
        const inC = kinds('C');
        passes += inC.filter((kind) => kind === 'pass').length;
        expect(kinds('F')).toEqual(inC);
      }),
      { seed: 41, numRuns: 500 },
    );
    // The logs are not all failures, which would be alike without any law.
    expect(passes).toBeGreaterThan(10);
  });
});
