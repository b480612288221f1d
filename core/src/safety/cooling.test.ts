import { addMinutes, minutesBetween } from '../quantity/index';
import type { TemperatureUnit } from '../quantity/index';
import fc from 'fast-check';
import { NO_COOLING_EVENTS, coolingVerdict } from './index';
import type { CoolRule, CoolingStage, CoolingVerdict, TimedReading, VerdictKind } from './index';
import { rulesOf } from '../testing/rules';

const T0 = 1_764_000_000_000;
const fda = rulesOf().cooling.cooked;
/** FSANZ Standard 3.2.2 clause 7(3): 60 → 21 °C in 2 h, then a further 4 h to 5 °C. */
const fsanz = rulesOf('au').cooling.cooked;
/** The same limits counted in all from the start. */
const fsanzInAll = fsanz.map((rule, index): CoolRule => (index === 0 ? rule : { ...rule, from: { kind: 'falls', limit: { c: 60, f: null } }, withinMin: 360 }));
/** Codex CXC 39-1993: 60 → 10 °C in less than two hours. */
const codex = rulesOf('codex').cooling.cooked.filter((rule) => rule.id === 'cod.cool');

type Curve = readonly (readonly [minute: number, temperature: number])[];
const curve = (points: Curve, unit: TemperatureUnit = 'F'): TimedReading[] =>
  points.map(([minute, value]) => ({ at: addMinutes(T0, minute), reading: { value, unit, rawText: String(value) }, heldS: null }));

interface Case {
  readonly name: string;
  readonly points: Curve;
  readonly unit?: TemperatureUnit;
  readonly rules?: readonly CoolRule[];
  readonly heatOffMin?: number;
  readonly nowMin?: number;
}
function judge({ points, unit = 'F', rules = fda, heatOffMin, nowMin }: Case): CoolingVerdict {
  const now = addMinutes(T0, nowMin ?? points.at(-1)?.[0] ?? 0);
  const events = { ...NO_COOLING_EVENTS, heatOff: heatOffMin === undefined ? null : addMinutes(T0, heatOffMin) };
  return coolingVerdict({ readings: curve(points, unit), events, rules, now });
}

describe('two-stage cooling', () => {
  test.each<Case & { says: VerdictKind; stage1?: readonly [VerdictKind, number, number | null]; stage2?: readonly [VerdictKind, number, number | null] }>([
    {
      name: '1 h then 5 h passes (FDA Food Code 2022, Annex 3 on 3-501.14)',
      points: [
        [0, 135],
        [60, 70],
        [360, 41],
      ],
      says: 'pass',
      stage1: ['pass', 60, 60],
      stage2: ['pass', 360, 360],
    },
    {
      name: '3 h then 3 h fails although 41 °F came at 6 h (Annex 3)',
      points: [
        [0, 135],
        [180, 70],
        [360, 41],
      ],
      says: 'fail',
      stage1: ['fail', 180, 180],
    },
    {
      name: 'both limits met exactly is in time (3-501.14(A): "within")',
      points: [
        [0, 135],
        [120, 70],
        [360, 41],
      ],
      says: 'pass',
      stage1: ['pass', 120, 120],
    },
    {
      name: 'a limit inside the bracket is not decided',
      points: [
        [0, 135],
        [119, 71],
        [121, 69.5],
        [350, 41],
      ],
      says: 'undetermined',
      stage1: ['undetermined', 119, 121],
    },
    {
      name: 'the start bracket counts too',
      points: [
        [0, 160],
        [30, 128],
        [60, 104],
        [90, 86],
        [120, 73],
        [135, 68],
        [350, 41],
      ],
      says: 'undetermined',
      stage1: ['undetermined', 90, 135],
    },
    {
      name: 'no hot reading and no heat-off proves nothing',
      points: [
        [0, 118],
        [60, 88],
        [100, 69],
        [300, 40],
      ],
      says: 'undetermined',
      stage1: ['undetermined', 60, null],
    },
    {
      name: 'heat off 20 min before decides the same readings',
      points: [
        [0, 118],
        [60, 88],
        [100, 69],
        [300, 40],
      ],
      heatOffMin: -20,
      says: 'pass',
      stage1: ['pass', 60, 120],
      stage2: ['pass', 100, 320],
    },
    {
      name: 'above 70 °F at 125 min is a proven failure',
      points: [
        [0, 135],
        [60, 98],
        [125, 71],
      ],
      says: 'fail',
      stage1: ['fail', 125, null],
    },
    {
      name: 'above 70 °F at exactly 120 min is proven too: it crosses later',
      points: [
        [0, 135],
        [120, 70.1],
      ],
      says: 'fail',
      stage1: ['fail', 120, null],
    },
    {
      name: 'a missing mid reading cannot be made good by a cold end',
      points: [
        [0, 135],
        [180, 60],
        [340, 41],
      ],
      says: 'undetermined',
      stage1: ['undetermined', 0, 180],
    },
    {
      name: 'no reading at two hours is overdue',
      points: [
        [0, 135],
        [60, 100],
      ],
      nowMin: 130,
      says: 'overdue',
      stage1: ['overdue', 60, null],
    },
    {
      name: 'still inside the window',
      points: [
        [0, 135],
        [60, 100],
      ],
      nowMin: 100,
      says: 'inProgress',
      stage1: ['inProgress', 60, null],
    },
    {
      name: 'the clock starts when the food leaves 135 °F, not at the first reading',
      points: [
        [0, 165],
        [20, 135],
        [90, 80],
        [120, 70],
        [300, 48],
        [375, 41],
      ],
      says: 'pass',
      stage1: ['pass', 100, 100],
      stage2: ['pass', 355, 355],
    },
    { name: 'no reading at all proves nothing', points: [], nowMin: 0, says: 'undetermined' },
    {
      name: 'a further four hours is not a total of six (FSANZ 3.2.2 cl 7(3))',
      points: [
        [0, 60],
        [60, 21],
        [330, 5],
      ],
      unit: 'C',
      rules: fsanz,
      says: 'fail',
      stage1: ['pass', 60, 60],
      stage2: ['fail', 270, 270],
    },
    {
      name: 'the same curve passes on the total basis',
      points: [
        [0, 60],
        [60, 21],
        [330, 5],
      ],
      unit: 'C',
      rules: fsanzInAll,
      says: 'pass',
      stage2: ['pass', 330, 330],
    },
    {
      name: '"less than two hours" fails at exactly two (Codex CXC 39-1993)',
      points: [
        [0, 60],
        [120, 10],
        [200, 4],
      ],
      unit: 'C',
      rules: codex,
      says: 'fail',
      stage1: ['fail', 120, 120],
    },
    {
      name: '57.0 °C still counts as the start in °C, though it is 134.6 °F',
      points: [
        [0, 57],
        [100, 21],
        [300, 5],
      ],
      unit: 'C',
      says: 'pass',
    },
    {
      name: '21.1 °C is not 21 °C, though it is 70 °F',
      points: [
        [0, 57],
        [100, 21.1],
        [130, 20],
      ],
      unit: 'C',
      says: 'undetermined',
    },
    {
      name: 'a warm reading after a cool one is believed',
      points: [
        [0, 135],
        [100, 69],
        [125, 80],
        [200, 60],
      ],
      says: 'fail',
      stage1: ['fail', 125, 200],
    },
  ])('$name', ({ says, stage1, stage2, ...given }) => {
    const verdict = judge(given);
    expect(verdict.kind).toBe(says);
    const told = (stage: CoolingStage | undefined): unknown => [stage?.kind, stage?.atLeastMin, stage?.atMostMin];
    if (stage1 !== undefined) expect(told(verdict.stages[0])).toEqual(stage1);
    if (stage2 !== undefined) expect(told(verdict.stages[1])).toEqual(stage2);
  });

  test('the verdict names its rule, when a reading is due and what may be done', () => {
    const verdict = judge({
      name: '',
      points: [
        [0, 140],
        [10, 134],
        [60, 100],
      ],
    });
    expect(verdict.stages[0]).toMatchObject({ ruleId: 'us.cool.1', citation: 'FDA Food Code 2022, 3-501.14(A)(1)', limitMin: 120 });
    expect(minutesBetween(T0, verdict.stages[0]?.dueAt ?? 0)).toBe(120);
    expect(verdict.actions).toEqual(['faster', 'reheat']);
  });
  test('after the first stage has failed only discarding is left', () => {
    expect(
      judge({
        name: '',
        points: [
          [0, 135],
          [125, 71],
        ],
      }).actions,
    ).toEqual(['discard']);
  });
  test('after the first stage has passed a reheat is no longer offered', () => {
    expect(
      judge({
        name: '',
        points: [
          [0, 135],
          [100, 69],
          [200, 55],
        ],
      }).actions,
    ).toEqual(['faster']);
  });
  test('a rise of more than 3 °F is noticed, 3 °F is not', () => {
    expect([
      judge({
        name: '',
        points: [
          [0, 135],
          [30, 100],
          [40, 103],
        ],
      }).rose,
      judge({
        name: '',
        points: [
          [0, 135],
          [30, 100],
          [40, 103.1],
        ],
      }).rose,
    ]).toEqual([false, true]);
  });

  const readings = fc.array(fc.tuple(fc.integer({ min: 0, max: 400 }), fc.integer({ min: 35, max: 180 })), { minLength: 1, maxLength: 8 });
  const good: readonly VerdictKind[] = ['pass', 'inProgress'];
  test('law: a later clock with no new reading never improves a verdict', () => {
    fc.assert(
      fc.property(readings, fc.integer({ min: 0, max: 500 }), (points, wait) => {
        const last = Math.max(...points.map(([minute]) => minute));
        const early = judge({ name: '', points, nowMin: last });
        const late = judge({ name: '', points, nowMin: last + wait });
        if (good.includes(late.kind)) expect(early.kind).toBe(late.kind);
      }),
      { seed: 20_261_124 },
    );
  });
  test('law: warmer readings never turn a batch into a pass', () => {
    fc.assert(
      fc.property(readings, fc.integer({ min: 1, max: 20 }), (points, warmer) => {
        const cooled: Curve = [[0, 140], ...points.map(([minute, value]) => [minute + 1, value] as const)];
        const raised: Curve = cooled.map(([minute, value], index) => [minute, index === 0 || value >= 135 ? value : Math.min(134, value + warmer)] as const);
        if (judge({ name: '', points: raised }).kind === 'pass') expect(judge({ name: '', points: cooled }).kind).toBe('pass');
      }),
      { seed: 20_261_124 },
    );
  });
});
