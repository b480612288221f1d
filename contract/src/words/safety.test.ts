import { NO_COOLING_EVENTS, PURPOSES, addMinutes, cookVerdict, coolingVerdict, holdVerdict, limitIn, reheatVerdict, rulesInForce, timeControlVerdict } from '@broth/core';
import type { CoolingEvents, HoldRule, RulesInForce, TemperatureLimit, TemperatureUnit, TimedReading, VerdictKind } from '@broth/core';
import type { ReadingDoubt } from '@broth/core/advice';
import { RULE_PACKS, ruleSet } from '@broth/core/packs';
import fc from 'fast-check';
import * as advice from './advice';
import * as words from './safety';

/** What is said of food, for every pack of rules: the figures are the source's own, and no sentence is kinder than its verdict. */

const T0 = 1_764_000_000_000;
const at = (instant: number): string => `${String(Math.round((instant - T0) / 60_000))} min`;
const named: readonly (readonly [string, RulesInForce])[] = RULE_PACKS.map((pack) => {
  const set = ruleSet(pack, { packId: pack.id, changes: [], added: [] }, 1);
  // What is off, by confidence or because only some kitchens do it, is switched on: its sentences count as well.
  return [pack.id, rulesInForce({ ...set, standings: set.standings.map((standing) => ({ ...standing, on: true })) })];
});
const fda = named.find(([id]) => id === 'us-fda-fc2022')?.[1];
if (fda === undefined) throw new Error('no default pack');
const read = (minute: number, value: number, unit: TemperatureUnit = 'F', heldS: number | null = null): TimedReading => ({
  at: addMinutes(T0, minute),
  reading: { value, unit, rawText: String(value) },
  heldS,
});

/** Readings every so often that go anywhere: the sentences have to stand for all of them. */
const anyLog = (unit: TemperatureUnit): fc.Arbitrary<readonly TimedReading[]> =>
  fc
    .array(fc.tuple(fc.integer({ min: 0, max: 600 }), fc.integer({ min: unit === 'C' ? -5 : 23, max: unit === 'C' ? 100 : 212 }), fc.constantFrom(null, 15, 120)), { maxLength: 8 })
    .map((points) => points.sort((left, right) => left[0] - right[0]).map(([minute, value, heldS]) => read(minute, value, unit, heldS)));
const anyUnit = fc.constantFrom<TemperatureUnit>('C', 'F');
const anyCase = anyUnit.chain((unit) => fc.record({ unit: fc.constant(unit), readings: anyLog(unit), nowMin: fc.integer({ min: 0, max: 1600 }) }));

/** Every temperature a sentence may have in it: both figures of each limit, as the source prints them. */
function figures(limits: readonly TemperatureLimit[]): ReadonlySet<string> {
  return new Set(limits.flatMap((limit) => [`${String(Number(limitIn(limit, 'C').toFixed(1)))} °C`, `${String(Number(limitIn(limit, 'F').toFixed(1)))} °F`]));
}
function expectOnly(sentence: string, limits: readonly TemperatureLimit[]): void {
  expect(sentence).not.toMatch(/undefined|NaN|null|Infinity|object/);
  const known = figures(limits);
  for (const found of sentence.match(/-?\d+(\.\d+)? °[CF]/g) ?? []) expect([...known]).toContain(found);
}
/** A sentence that tells of success is only said of a pass; one that passed never sounds as if it had not. */
const SUCCESS = /^(Passed|Every stage passed|Held at|Back at|Reached|Cooked to|Used within)/;
function expectHonest(kind: VerdictKind, sentence: string): void {
  expect([kind, sentence, SUCCESS.test(sentence)]).toEqual([kind, sentence, kind === 'pass']);
}

describe.each(named)('the rules of %s', (_id, rules) => {
  test('cooling: its own figures, and nothing kinder than the verdict', () => {
    fc.assert(
      fc.property(anyCase, fc.constantFrom<CoolingEvents>(NO_COOLING_EVENTS, { ...NO_COOLING_EVENTS, heatOff: T0, coolingStarted: addMinutes(T0, 20) }), (given, events) => {
        for (const stages of [rules.cooling.cooked, rules.cooling.ambient]) {
          const verdict = coolingVerdict({ readings: given.readings, events, rules: stages, now: addMinutes(T0, given.nowMin) });
          const sentence = words.cooling(verdict, given.unit, at);
          const limits = stages.flatMap((rule) => [...(rule.to.kind === 'temperature' ? [rule.to.limit] : []), ...(rule.from.kind === 'falls' ? [rule.from.limit] : [])]);
          expectOnly(sentence, limits);
          if (verdict.current !== null) expectHonest(verdict.kind, sentence);
          if (verdict.wanted !== null) expectOnly(words.wanted(verdict.wanted, given.unit, at), limits);
        }
      }),
      { seed: 21, numRuns: 60 },
    );
  });
  test('holding: the same', () => {
    fc.assert(
      fc.property(anyCase, (given) => {
        const kept = [rules.hotHold, rules.coldHold].filter((rule): rule is HoldRule => rule !== null);
        for (const rule of kept) {
          const verdict = holdVerdict({ readings: given.readings, since: T0, rule, now: addMinutes(T0, given.nowMin) });
          const sentence = words.hold(verdict, given.unit);
          expectOnly(sentence, [rule.limit]);
          expectHonest(verdict.kind, sentence);
        }
      }),
      { seed: 22, numRuns: 60 },
    );
  });
  test('heating, and time instead of temperature: the same', () => {
    fc.assert(
      fc.property(anyCase, fc.boolean(), (given, isCold) => {
        const now = addMinutes(T0, given.nowMin);
        if (rules.reheat.own !== null) {
          const verdict = reheatVerdict({ readings: given.readings, startedAt: T0, rule: rules.reheat.own, now });
          const limits = verdict.points.map((point) => point.limit);
          expectOnly(words.reheat(verdict, given.unit), limits);
          expectHonest(verdict.kind, words.reheat(verdict, given.unit));
        }
        for (const rule of rules.cook) {
          const verdict = cookVerdict({ readings: given.readings, rule, endedAt: addMinutes(T0, 60), isPast: isCold });
          expectOnly(
            words.cook(verdict, given.unit),
            rule.points.map((point) => point.limit),
          );
          expectHonest(verdict.kind, words.cook(verdict, given.unit));
        }
        for (const rule of rules.timeControl) {
          const verdict = timeControlVerdict({ readings: given.readings, takenOutAt: T0, outBeforeMin: 0, rule, endedAt: null, now });
          expectOnly(words.timeControl(verdict, at), []);
          expectHonest(verdict.kind, words.timeControl(verdict, at));
        }
      }),
      { seed: 23, numRuns: 60 },
    );
  });
  test('every rule has a line with its own figures, its source and how sure it is', () => {
    for (const unit of ['C', 'F'] as const)
      for (const { rule } of rules.standings) {
        const line = advice.ruleLine(rule, unit);
        expect(line).not.toMatch(/undefined|NaN|null|Infinity|object/);
        expect(line.length).toBeGreaterThan(8);
        expect(advice.source(rule)).toContain(rule.citation);
        expect(advice.source(rule)).toContain('from memory');
      }
    expect(words.authority(rules)).toContain('Check with your local authority: it decides.');
  });
});

test('a kitchen that works in °C reads the °C figure of the source first, never one worked out from the other', () => {
  const { reheat } = fda;
  if (reheat.own === null) throw new Error('no rule');
  // 165 °F is 73.9 °C; the code prints 74 °C.
  expect(words.heat(reheat.own.points, 'C')).toBe('74 °C (165 °F) for 15 s');
  expect(words.limit({ c: 63, f: null }, 'C')).toBe('63 °C');
  expect(words.limit({ c: 63, f: null }, 'F')).toBe('63 °C (145.4 °F)');
});

test('a reading beside a limit has as many digits as it takes to stand on its own side of it', () => {
  const limit = { c: 5, f: 41 };
  expect(words.degreesBeside(41.04, 'F', limit)).toBe('41.04 °F');
  expect(words.degreesBeside(40.996, 'F', limit)).toBe('40.996 °F');
  expect(words.degreesBeside(41.3, 'F', limit)).toBe('41.3 °F');
  expect(words.degreesBeside(41, 'F', limit)).toBe('41 °F');
});

describe('cooking, in each of its states', () => {
  const rule = fda.cook.find((one) => one.food === 'poultry');
  if (rule === undefined) throw new Error('no rule');
  const say = (readings: readonly TimedReading[], endedAt: number | null, isPast = false): string => words.cook(cookVerdict({ readings, rule, endedAt, isPast }), 'F');
  test.each<readonly [string, string, RegExp]>([
    ['in the pot', say([], null), /^Cook to 165 °F .*, at the coldest point\.$/],
    ['proven', say([read(30, 170, 'F', 15)], null), /^Cooked to 165 °F/],
    ['off the heat without one', say([], addMinutes(T0, 40)), /^Off the heat, and no reading shows 165 °F .* Read the coldest point now, or heat on\.$/],
    ['cooled since', say([read(30, 150)], addMinutes(T0, 40), true), /^No reading shows that it was cooked to 165 °F .*, and now none can\.$/],
  ])('%s', (_name, sentence, expected) => {
    expect(sentence).toMatch(expected);
  });
});

describe('time instead of temperature, in each of its states', () => {
  const rule = fda.timeControl.find((one) => one.startHot !== null);
  if (rule === undefined) throw new Error('no rule');
  const say = (readings: readonly TimedReading[], nowMin: number, ended: number | null = null): string =>
    words.timeControl(
      timeControlVerdict({ readings, takenOutAt: T0, outBeforeMin: 0, rule, endedAt: ended === null ? null : addMinutes(T0, ended), now: addMinutes(T0, nowMin) }),
      at,
    );
  test.each<readonly [string, string, string]>([
    ['read at the start', say([read(0, 150)], 30), 'Use or discard by 240 min. It may not go back into the well or the cold room.'],
    ['not read yet', say([], 5), 'Take its temperature now: the rule asks for it at the start. Ends at 240 min.'],
    ['never read', say([], 60), 'Nobody read it when it was taken out, and now nothing shows what it was.'],
    ['taken out too cold', say([read(0, 120)], 30), 'It was not at a temperature that this rule allows.'],
    ['its time over', say([read(0, 150)], 241), 'Its time ended at 240 min.'],
    ['used in time', say([read(0, 150)], 300, 200), 'Used within its time.'],
  ])('%s', (_name, sentence, expected) => {
    expect(sentence).toBe(expected);
  });
  test('on the very minute of a rule that says "less than" its time is over, and that is what is said', () => {
    const strict = timeControlVerdict({ readings: [read(0, 150)], takenOutAt: T0, outBeforeMin: 0, rule: { ...rule, strict: true }, endedAt: null, now: addMinutes(T0, 240) });
    expect([strict.kind, words.timeControl(strict, at)]).toEqual(['fail', 'Its time ended at 240 min.']);
  });
});

test('what would decide it is said for each thing that can', () => {
  const by = addMinutes(T0, 90);
  const said = (['heatOff', 'coolingStarted', 'inColdPlace', 'combined', 'received'] as const).map((event) => words.wanted({ kind: 'event', event, by }, 'F', at));
  expect([words.wanted({ kind: 'reading', limit: { c: 21, f: 70 }, by }, 'C', at), ...said]).toEqual([
    'A reading at or below 21 °C (70 °F) by 90 min decides it.',
    'Ticking the last step on the heat, when it went off, would decide it.',
    'Log that it is being cooled by 90 min.',
    'Log that it is in the cold room by 90 min.',
    'When its ingredients were put together would decide it.',
    'When its ingredients were put together would decide it.',
  ]);
});

describe('what is asked about a reading', () => {
  const doubts: Readonly<Record<ReadingDoubt['code'], readonly [ReadingDoubt, RegExp]>> = {
    impossible: [{ code: 'impossible', lowest: -40, highest: 300, unit: 'F' }, /cannot be right: no probe shows less than -40 °F or more than 300 °F\. Check the digits/],
    unitSlip: [{ code: 'unitSlip', other: 141.8, otherUnit: 'C' }, /Did the probe say 61 °C, which is 141\.8 °F\?/],
    decimalSlip: [{ code: 'decimalSlip', likely: 6.1, boiling: 212, unit: 'F' }, /Is the decimal point missing: 6\.1 °F\?/],
    minusLost: [{ code: 'minusLost', likely: -18, unit: 'F' }, /in a freezer\? Was it -18 °F\?/],
    aboveBoiling: [{ code: 'aboveBoiling', boiling: 203, unit: 'F' }, /Water boils at 203 °F here/],
    unusual: [{ code: 'unusual', lowest: 100, highest: 212, unit: 'F' }, /mostly lies between 100 °F and 212 °F\. Is it right\?/],
    rising: [{ code: 'rising', by: 8, unit: 'F' }, /It rose by 8 °F while cooling/],
    impossibleDrop: [{ code: 'impossibleDrop', from: 150, perHour: 400, unit: 'F' }, /From 150 °F to 61 °F so soon/],
    wrongBatch: [{ code: 'wrongBatch', batchId: 'bean' }, /would with Batch bean\. Which one was it\?/],
    future: [{ code: 'future', byMin: 12 }, /That is 12 min from now\. Put the time it was taken\./],
    backdated: [{ code: 'backdated', byMin: 45 }, /That was 45 min ago\. Why is it entered only now\?/],
    beforeBatch: [{ code: 'beforeBatch', byMin: 20 }, /20 min before the batch was begun\. Check the time and the batch\./],
  };
  test.each(Object.entries(doubts))('%s: named with its figures, and a question or what to check', (_code, [doubt, expected]) => {
    expect(advice.doubt(doubt, 61, 'F', (id) => `Batch ${id}`)).toMatch(expected);
  });
});

test('every purpose, verdict, way of cooling and action has a word of its own', () => {
  const lists = [PURPOSES.map((one) => words.PURPOSE[one]), Object.values(words.VERDICT), Object.values(words.COOLING_METHOD), Object.values(words.ACTION).map(({ name }) => name)];
  for (const list of lists) {
    expect(new Set(list).size).toBe(list.length);
    expect(list.every((word) => word.length > 3)).toBe(true);
  }
  expect(words.ACTION.discard.how).toContain('No second cooking rescues it');
});
