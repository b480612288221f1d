import { NO_COOLING_EVENTS, addMinutes, coolingVerdict, holdVerdict, reheatVerdict, rulesInForce } from '@broth/core';
import { ruleSet } from '@broth/core/packs';
import { coolingForecast } from '@broth/core/advice';
import { RULE_PACKS } from '@broth/core/packs';
import * as advice from './advice';
import type { DayPlan, PlanFinding, TimedReading } from '@broth/core';
import * as words from './en';

/** Each sentence about a temperature, once: said of the verdict that core gives for these readings. */

const T0 = 1_764_000_000_000;
const packs = RULE_PACKS.map((pack) => rulesInForce(ruleSet(pack, { packId: pack.id, changes: [], added: [] }, 1)));
const fda = packs.find((one) => one.packId === 'us-fda-fc2022');
if (fda?.hotHold == null || fda.coldHold === null || fda.reheat.own === null) throw new Error('no rules');
const { hotHold, coldHold } = fda;
const { own } = fda.reheat;
const cooled = fda.cooling.cooked;
type Points = readonly (readonly [minute: number, value: number, heldS?: number])[];
const log = (points: Points): TimedReading[] =>
  points.map(([minute, value, heldS]) => ({ at: addMinutes(T0, minute), reading: { value, unit: 'F', rawText: '' }, heldS: heldS ?? null }));
const at = (instant: number): string => `${String((instant - T0) / 60_000)} min`;

describe('cooling', () => {
  const say = (points: Points, nowMin: number): string =>
    words.cooling(coolingVerdict({ readings: log(points), events: NO_COOLING_EVENTS, rules: cooled, now: addMinutes(T0, nowMin) }), 'F', at);
  test.each<readonly [Points, number, string]>([
    [
      [
        [0, 140],
        [10, 134],
        [30, 110],
      ],
      30,
      'To be at 70 °F (21 °C) by 120 min.',
    ],
    [
      [
        [0, 135],
        [100, 69],
      ],
      110,
      'First stage passed. To be at 41 °F (5 °C) by 360 min.',
    ],
    [
      [
        [0, 135],
        [100, 69],
        [300, 41],
      ],
      300,
      'Every stage passed: 41 °F (5 °C) in time.',
    ],
    [
      [
        [0, 135],
        [125, 71],
      ],
      125,
      'Not below 70 °F (21 °C) within 2 h.',
    ],
    [
      [
        [0, 135],
        [100, 69],
        [370, 50],
      ],
      370,
      'Not below 41 °F (5 °C) within 6 h.',
    ],
    [
      [
        [0, 135],
        [60, 100],
      ],
      130,
      'No reading at or below 70 °F (21 °C) within 2 h. Take one now.',
    ],
    [
      [
        [0, 135],
        [100, 69],
      ],
      365,
      'No reading at or below 41 °F (5 °C) within 6 h. Take one now.',
    ],
    [
      [
        [0, 118],
        [60, 69],
      ],
      60,
      'The readings do not show when it left the heat.',
    ],
    [
      [
        [0, 135],
        [180, 60],
      ],
      180,
      'The readings do not show that it reached 70 °F (21 °C) within 2 h.',
    ],
    [
      [
        [0, 135],
        [100, 69],
        [400, 40],
      ],
      400,
      'The readings do not show that it reached 41 °F (5 °C) within 6 h.',
    ],
  ])('%j at %d min', (points, nowMin, says) => {
    expect(say(points, nowMin)).toBe(says);
  });
});

describe('forecast', () => {
  const say = (points: Points, ambient: number): string | null => {
    const verdict = coolingVerdict({ readings: log(points), events: NO_COOLING_EVENTS, rules: cooled, now: addMinutes(T0, points.at(-1)?.[0] ?? 0) });
    const given = coolingForecast({ readings: log(points), ambient, unit: 'F', rules: cooled, verdict });
    return given === null ? null : advice.forecast(given, null, 'F', () => '10:06');
  };
  // k = ln(103/63)/30 per min, 70 °F after ln(103/38)/k = 60.9 min.
  test('on course, with the minutes to spare', () => {
    expect(
      say(
        [
          [0, 135],
          [30, 95],
        ],
        32,
      ),
    ).toBe('On course: 70 °F at 10:06, 59 min to spare.');
  });
  test('a time that has passed is no course any more: only a reading shows it', () => {
    const readings = log([
      [0, 135],
      [30, 95],
    ]);
    const verdict = coolingVerdict({ readings, events: NO_COOLING_EVENTS, rules: cooled, now: addMinutes(T0, 130) });
    const given = coolingForecast({ readings, ambient: 32, unit: 'F', rules: cooled, verdict });
    expect(given === null ? '' : advice.forecast(given, null, 'F', () => '10:06', addMinutes(T0, 130))).toBe(
      'It should have reached 70 °F at 10:06, had it gone on like that. Only a reading shows it.',
    );
  });
  // k = ln(97/87)/30 per min, 70 °F after ln(97/32)/k = 305.8 min.
  test('about to miss, with what to do', () => {
    expect(
      say(
        [
          [0, 135],
          [30, 125],
        ],
        38,
      ),
    ).toBe('It will miss 70 °F by 3 h 06. Cool it faster now: shallow pans, an ice bath that is stirred, an ice wand.');
  });
  test('a place that is too warm never gets there', () => {
    expect(
      say(
        [
          [0, 135],
          [60, 60],
        ],
        42,
      ),
    ).toBe('It will not reach 41 °F here. Cool it faster now: shallow pans, an ice bath that is stirred, an ice wand.');
  });
});

describe('holding and reheating', () => {
  const hold = (points: Points, nowMin: number): string => words.hold(holdVerdict({ readings: log(points), since: T0, rule: hotHold, now: addMinutes(T0, nowMin) }), 'F');
  const reheat = (points: Points, nowMin: number): string => words.reheat(reheatVerdict({ readings: log(points), startedAt: T0, rule: own, now: addMinutes(T0, nowMin) }), 'F');
  test.each<readonly [string, string]>([
    [hold([], 5), 'To be held at 135 °F (57 °C) or above. No reading yet.'],
    [hold([[0, 150]], 5), 'Held at 135 °F (57 °C) or above.'],
    [
      hold(
        [
          [0, 150],
          [90, 130],
        ],
        95,
      ),
      'Not at 135 °F (57 °C) or above; out for up to 1 h 35. 2 h 25 of what is allowed is left.',
    ],
    [hold([[0, 150]], 130), 'A reading is overdue. Take one now.'],
    [reheat([], 5), 'Heat to 165 °F (74 °C) for 15 s within 2 h 00.'],
    [reheat([[60, 166, 15]], 60), 'Reached 165 °F (74 °C) for 15 s in time.'],
    [reheat([[120, 150]], 121), 'Not at 165 °F (74 °C) for 15 s within 2 h 00.'],
    [reheat([], 121), 'The 2 h 00 are over without 165 °F (74 °C) for 15 s. Take a reading now.'],
    [reheat([[130, 170, 20]], 130), 'The readings do not show 165 °F (74 °C) for 15 s within 2 h 00.'],
  ])('%s', (said, expected) => {
    expect(said).toBe(expected);
  });
  test('the cold side says below', () => {
    expect(words.hold(holdVerdict({ readings: [], since: T0, rule: coldHold, now: T0 }), 'C')).toBe('To be held at 5 °C (41 °F) or below. No reading yet.');
  });
});

test('batches of one soup that find no place are told in one sentence, with what of it can be made', () => {
  const names: words.Names = { soup: (id) => `The ${id}`, step: (_, id) => id, batch: (id) => id, resource: (id) => id, service: (id) => id };
  const batch = (soupId: string, volumeL: number) => ({ soupId, volumeL }) as DayPlan['batches'][number];
  const plan = { batches: [batch('lentil', 25), batch('lentil', 24.5)], needs: [{ soupId: 'lentil', needL: 200 } as DayPlan['needs'][number]], findings: [] };
  const out = (code: 'plan.unplaced' | 'plan.leftOut', ...ids: string[]): PlanFinding[] => ids.map((id) => ({ code, batchId: `2026-11-25.${id}` }));
  const frozen: PlanFinding = { code: 'lot.frozen', soupId: 'Bean', volumeL: 4 };
  const given = [...out('plan.unplaced', 'lentil.1', 'bean.1', 'lentil.2', 'chowder.1', 'chowder.2'), frozen, ...out('plan.leftOut', 'stock.3', 'stock.4', 'roast.1')];
  const rest = 'For the rest nobody is on shift, or the kettle is never free. Add hands or a kettle, or lower the par.';
  expect(words.findings(given, plan, names)).toEqual([
    `The lentil: 2 of 4 batches find a place, 49.5 L of 200 L. ${rest}`,
    '2026-11-25.bean.1 finds no place: nobody is on shift, or its kettle is never free. Add hands or lower a par.',
    `The chowder: none of 2 batches finds a place. ${rest}`,
    words.finding(frozen, names),
    'The stock: 2 batches are left out: nothing that takes from them finds a place.',
    '2026-11-25.roast.1 is left out: nothing that takes it finds a place.',
  ]);
  expect(words.findings(out('plan.unplaced', 'lentil.1'), { ...plan, batches: [batch('lentil', 25)] }, names)).toEqual([
    `The lentil: one batch of 2 finds a place, 25 L of 200 L. ${rest}`,
  ]);
  const nobody: PlanFinding = { code: 'station.nobody' };
  expect(words.findings([nobody, ...given], { ...plan, findings: [nobody] }, names)).toEqual([words.finding(nobody, names), words.finding(frozen, names)]);
});

test('every finding of a plan has a sentence with what to do or why', () => {
  const names: words.Names = { soup: (id) => id, step: (_, id) => id, batch: (id) => id, resource: (id) => id, service: (id) => id };
  const said = [
    words.finding({ code: 'batch.tooMany', soupId: 'Bean', needL: 900, batches: 36, largestL: 25 }, names),
    words.finding({ code: 'station.nobody' }, names),
    words.finding({ code: 'batch.surplus', soupId: 'Bean', surplusL: 1.5 }, names),
    words.finding({ code: 'station.wells', serviceId: 'Midday', soups: 6, wells: 4 }, names),
    words.finding({ code: 'station.wells', serviceId: 'Midday', soups: 1, wells: 0 }, names),
    words.finding({ code: 'plan.unplaced', batchId: 'Bean 1' }, names),
    words.finding({ code: 'plan.leftOut', batchId: 'Stock 1' }, names),
    words.finding({ code: 'plan.overtime', batchIds: ['Bean 1'], shiftEndMin: 840, untilMin: 880 }, names),
    words.finding({ code: 'plan.late', batchId: 'Bean 1', lateMin: 5, waitedFor: null, pinned: false }, names),
    words.finding({ code: 'lot.pastDate', soupId: 'Bean', volumeL: 2, byDays: 3 }, names),
    words.finding({ code: 'lot.frozen', soupId: 'Bean', volumeL: 4 }, names),
  ];
  expect(said).toEqual([
    'Bean: 900 L would be 36 batches of 25 L, more than a day holds. Check the par.',
    'Nobody is there to cook: what is still to be made finds no place. Say who comes in, and when, behind your initials, under Hands.',
    'Bean: 1.5 L more than needed, the least a vessel takes.',
    'Midday: 6 hot soups and 4 wells in use. 2 have to be held in the kettle, or served later.',
    'Midday: 1 hot soup and no well in use. One has to be held in the kettle, or served later.',
    'Bean 1 finds no place: nobody is on shift, or its kettle is never free. Add hands or lower a par.',
    'Stock 1 is left out: nothing that takes it finds a place.',
    'Bean 1 is under way and cannot be finished before everybody leaves at 14:00. Somebody stays until 14:40, or it is discarded.',
    'Bean 1 is 5 min late. Start earlier, lower a par, or serve it later.',
    'Bean: 2 L on hand is 3 days past its date mark. It does not count. Discard it.',
    'Bean: 4 L frozen is not counted. Thaw it the evening before to use it.',
  ]);
});
