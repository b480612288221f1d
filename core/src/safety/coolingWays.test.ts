import { LISTERIA, FSA_EQUIVALENTS, accumulatedMin, coolingWays, equivalentMin, fitNewton, hoursTo, iceIn, panRatePerH, potRatePerH } from '../advice';
import { levenbergMarquardt } from 'ml-levenberg-marquardt';
import { addMinutes } from '../quantity/index';
import { seeded } from '../index';

const WALK_IN_F = 38;
const hours = (kPerH: number, ambientF: number): [number, number] => [hoursTo(135, 70, kPerH, ambientF) ?? Infinity, hoursTo(135, 41, kPerH, ambientF) ?? Infinity];

/** Derived for typical set-ups from the same coefficients by the exact solution for a slab, not published: the ranking is what counts. Within a sixth. */
describe('rates of cooling', () => {
  test.each<[string, number, number, number, number]>([
    ['2 in thick in a cold room with a fan', panRatePerH(0.0508, 'walkIn'), WALK_IN_F, 2.4, 7.3],
    ['4 in thick in a cold room with a fan', panRatePerH(0.1016, 'walkIn'), WALK_IN_F, 6.2, 18],
    ['2 in in a blast chiller', panRatePerH(0.0508, 'blast'), 14, 1.0, 1.9],
    ['4 in in a blast chiller', panRatePerH(0.1016, 'blast'), 14, 3.0, 5.5],
    ['a 20 L pot in the cold room', potRatePerH(20, 'walkIn'), WALK_IN_F, 4.1, 12.7],
    ['a 20 L pot in an ice bath, still', potRatePerH(20, 'iceBath'), 32, 1.1, 2.7],
    ['a 20 L pot in an ice bath, stirred', potRatePerH(20, 'iceBathStirred'), 32, 0.44, 1.1],
  ])('%s', (_, kPerH, ambientF, to70, to41) => {
    const [first, second] = hours(kPerH, ambientF);
    expect(Math.abs(first / to70 - 1)).toBeLessThan(1 / 6);
    expect(Math.abs(second / to41 - 1)).toBeLessThan(1 / 6);
  });
  test('for 18 L at 55 °C the stirred bath is quicker than pans, pans than the pot in the cold room, and a room of 6 °C never gets to 5', () => {
    const places = [
      { id: 'bath', ambientC: 0 },
      { id: 'room', ambientC: 3 },
      { id: 'warm', ambientC: 6 },
    ];
    const ways = coolingWays({ volumeL: 18, fromC: 55, toC: 5, places });
    expect(ways.map(({ method, placeId }) => `${method} ${placeId ?? ''}`)).toEqual([
      'iceWand bath',
      'iceBathStirred bath',
      'shallowPans room',
      'walkIn room',
      'shallowPans warm',
      'walkIn warm',
    ]);
    expect(ways.slice(-2).map((way) => way.minutes)).toEqual([null, null]);
    // 18 L in pans of 0.14 m², 5 cm deep: 2.57, so three; 18.54 kg × 3.9 × 50 / 334 = 10.8 kg of ice melt, three quarters more to have.
    expect([ways[2]?.pans, ways[1]?.iceKg]).toEqual([3, expect.closeTo(10.82 * 1.75, 1)]);
  });
  test('ice as an ingredient: 10 kg from 57.2 to 21.1 °C take 3.333 kg, a quarter of what comes of it', () => {
    const given = iceIn(10 / 1.03, 57.2, 21.1);
    expect([given.iceKg, given.share]).toEqual([expect.closeTo(3.333, 3), expect.closeTo(0.25, 3)]);
  });
});

test('the fit agrees with Levenberg and Marquardt on noisy coolings (ml-levenberg-marquardt as the reference)', () => {
  const random = seeded(3);
  const T0 = 1_764_000_000_000;
  for (let run = 0; run < 20; run += 1) {
    const [k, from, ambient] = [0.006 + random() * 0.02, 120 + random() * 40, 33 + random() * 6];
    const minutes = [0, 10, 20, 30, 40, 50, 60];
    const values = minutes.map((minute) => ambient + (from - ambient) * Math.exp(-k * minute) + (random() - 0.5) * 0.2);
    const fit = fitNewton(
      minutes.map((minute, index) => ({ at: addMinutes(T0, minute), reading: { value: values[index] ?? 0, unit: 'F', rawText: '' }, heldS: null })),
      ambient,
      'F',
    );
    const reference = levenbergMarquardt(
      { x: minutes, y: values },
      ([excess = 0, rate = 0]) =>
        (minute: number) =>
          ambient + excess * Math.exp(-rate * minute),
      {
        initialValues: [90, 0.01],
        damping: 0.1,
        maxIterations: 200,
        gradientDifference: 1e-6,
      },
    );
    expect(Math.abs((fit?.kPerMin ?? 0) / (reference.parameterValues[1] ?? 1) - 1)).toBeLessThan(0.01);
    expect(Math.abs((fit?.excess ?? 0) - (reference.parameterValues[0] ?? 0))).toBeLessThan(0.3);
  }
});

describe('lethality', () => {
  test('every row of the FSA table is at least the formula with z 7.5 °C and 70 °C for 2 min: rounded up, on the safe side', () => {
    for (const { temperatureC, seconds } of FSA_EQUIVALENTS) {
      const share = seconds / 60 / equivalentMin(temperatureC, 2, LISTERIA);
      expect(share).toBeGreaterThanOrEqual(1);
      expect(share).toBeLessThan(1.17);
    }
  });
  test('one false reading of 500 °C counts no more than 90, and nothing counts below 55', () => {
    const at = (temperatureC: number): number =>
      accumulatedMin(
        [
          { atMin: 0, temperatureC },
          { atMin: 1, temperatureC },
        ],
        LISTERIA,
      );
    expect([at(500), at(54.9)]).toEqual([at(90), 0]);
    expect(at(55)).toBeGreaterThan(0);
  });
  test('exact on a straight line: a thousand steps of it come to the same', () => {
    const line = [
      { atMin: 0, temperatureC: 40 },
      { atMin: 60, temperatureC: 100 },
    ];
    const fine = Array.from({ length: 60_001 }, (_, index) => ({ atMin: index / 1000, temperatureC: 40 + index / 1000 }));
    const summed = fine.slice(1).reduce((sum, { temperatureC }) => sum + (temperatureC < 55 ? 0 : 10 ** ((Math.min(90, temperatureC - 0.0005) - 70) / 7.5) / 1000), 0);
    expect(accumulatedMin(line, LISTERIA)).toBeCloseTo(summed, 1);
  });
});
