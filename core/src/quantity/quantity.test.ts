import Qty from 'js-quantities';
import {
  addDays,
  celsiusFromFahrenheit,
  daysBetween,
  fahrenheitDelta,
  fahrenheitFromCelsius,
  fromGrams,
  fromLitres,
  gramsOf,
  limitIn,
  millilitresOf,
  measurableG,
  measurableMl,
  nearest,
  parseTemperature,
  roundUp,
  spoons,
  toGrams,
  toLitres,
  weekdayOf,
} from './index';

describe('units against NIST SP 811 Appendix B and Handbook 44 Appendix C', () => {
  test.each([
    ['usGal', 3.785411784],
    ['usQt', 0.946352946],
    ['usPt', 0.473176473],
    ['usCup', 0.2365882365],
    ['usFlOz', 0.0295735295625],
    ['usTbsp', 0.01478676478125],
    ['usTsp', 0.00492892159375],
    ['impGal', 4.54609],
    ['impPt', 0.56826125],
    ['impFlOz', 0.0284130625],
  ] as const)('one %s is %d L', (unit, litres) => {
    expect(toLitres(1, unit)).toBe(litres);
    expect(fromLitres(litres, unit)).toBeCloseTo(1, 12);
  });
  test('the US gallon is 231 cubic inches of 16.387064 mL', () => {
    expect(toLitres(1, 'usGal')).toBeCloseTo((231 * 16.387064) / 1000, 12);
  });
  test('four quarts, eight pints and sixteen cups are each a US gallon', () => {
    expect([toLitres(4, 'usQt'), toLitres(8, 'usPt'), toLitres(16, 'usCup')]).toEqual([3.785411784, 3.785411784, 3.785411784]);
  });
  test.each([
    ['lb', 453.59237],
    ['oz', 28.349523125],
  ] as const)('one %s is %d g', (unit, grams) => {
    expect(toGrams(1, unit)).toBe(grams);
    expect(fromGrams(grams, unit)).toBe(1);
  });
});

describe('temperature', () => {
  test.each([
    [32, 0],
    [212, 100],
    [-40, -40],
    [135, 57.2222],
    [165, 73.8889],
  ])('%d °F is %d °C (NIST SP 811 B.8)', (temperatureF, temperatureC) => {
    expect(celsiusFromFahrenheit(temperatureF)).toBeCloseTo(temperatureC, 4);
    expect(fahrenheitFromCelsius(temperatureC)).toBeCloseTo(temperatureF, 3);
  });
  test('a difference of 1 °C is 1.8 °F, not 33.8', () => {
    expect(fahrenheitDelta(1)).toBe(1.8);
  });
  test('a limit is taken as its source states it, and converted only when the source is silent', () => {
    expect([limitIn({ c: 57, f: 135 }, 'F'), limitIn({ c: 57, f: 135 }, 'C'), limitIn({ c: 63, f: null }, 'F')]).toEqual([135, 57, 145.4]);
  });
  test.each([
    ['62.5', 62.5],
    ['62,5', 62.5],
    [' 135 ', 135],
    ['−3', -3],
    ['-3', -3],
    ['', null],
    ['abc', null],
    ['1.2.3', null],
    ['12 34', null],
  ])('%p reads as %p', (text, value) => {
    expect(parseTemperature(text)).toBe(value);
  });
});

describe('what a kitchen can measure', () => {
  test('nothing is nothing, and never less than nothing', () => {
    expect([roundUp(0, 0.5), nearest(-0.1, 0.5), roundUp(-0, 1)].map((value) => Object.is(value, 0))).toEqual([true, true, true]);
  });
  test.each([
    [2.24, 2],
    [123, 125],
    [1234, 1230],
    [6320, 6300],
  ])('%d g is weighed as %d g', (exact, rounded) => {
    expect(measurableG(exact)).toBe(rounded);
  });
  test.each([
    [23.4, 23],
    [123, 120],
    [1234, 1250],
    [7770, 7800],
  ])('%d mL is measured as %d mL', (exact, rounded) => {
    expect(measurableMl(exact)).toBe(rounded);
  });
  test('binary dust neither shows nor pushes a value up a step', () => {
    expect([nearest(0.1 + 0.2, 0.1), roundUp(0.1 + 0.2, 0.1), roundUp(14.01, 0.5)]).toEqual([0.3, 0.3, 14.5]);
  });
});

describe('calendar days', () => {
  test('February, leap years and year ends', () => {
    expect([addDays('2026-02-27', 2), addDays('2028-02-28', 1), addDays('2026-12-31', 1)]).toEqual(['2026-03-01', '2028-02-29', '2027-01-01']);
  });
  test('days between survive a clock change in between', () => {
    expect(daysBetween('2026-10-30', '2026-11-02')).toBe(3);
  });
});

describe('against a reference library of units (js-quantities)', () => {
  const THEIRS = {
    g: 'g',
    kg: 'kg',
    lb: 'lb',
    oz: 'oz',
    L: 'l',
    mL: 'ml',
    usGal: 'gal',
    usQt: 'qt',
    usPt: 'pt',
    usCup: 'cu',
    usFlOz: 'floz',
    usTbsp: 'tbsp',
    usTsp: 'tsp',
  } as const;
  const MASS = ['g', 'kg', 'lb', 'oz'] as const;
  const VOLUME = ['L', 'mL', 'usGal', 'usQt', 'usPt', 'usCup', 'usFlOz', 'usTbsp', 'usTsp'] as const;
  test('10,000 random conversions agree to a millionth', () => {
    // A linear congruential generator: the same ten thousand every time.
    let state = 20_261_125;
    const random = (): number => {
      state = (state * 1_664_525 + 1_013_904_223) % 2 ** 32;
      return state / 2 ** 32;
    };
    const pick = <Value>(values: readonly Value[]): Value => values[Math.floor(random() * values.length)]!;
    const wrong: unknown[] = [];
    for (let count = 0; count < 10_000; count += 1) {
      const amount = 10 ** (random() * 6 - 2);
      const [from, to, ours] =
        random() < 0.4
          ? (() => {
              const [a, b] = [pick(MASS), pick(MASS)];
              return [a, b, fromGrams(toGrams(amount, a), b)] as const;
            })()
          : (() => {
              const [a, b] = [pick(VOLUME), pick(VOLUME)];
              return [a, b, fromLitres(toLitres(amount, a), b)] as const;
            })();
      const theirs = new Qty(amount, THEIRS[from]).to(THEIRS[to]).scalar;
      if (Math.abs(ours / theirs - 1) > 1e-6) wrong.push([amount, from, to, ours, theirs]);
    }
    expect(wrong).toEqual([]);
  });
});

describe('amounts of a card', () => {
  const flour = { gPerMl: 125 / 236.5882365, gramsEach: null };
  test.each([
    ['two cups of flour', 2, 'usCup', flour, 250],
    ['pieces with a known weight', 3, 'each', { gPerMl: null, gramsEach: 150 }, 450],
    ['pieces nobody has weighed', 3, 'each', flour, null],
    ['a volume of unknown density', 1, 'usCup', { gPerMl: null, gramsEach: null }, null],
    ['pounds need nothing', 2, 'lb', { gPerMl: null, gramsEach: null }, 907.18474],
  ] as const)('%s', (_, amount, unit, heft, grams) => {
    const told = gramsOf(amount, unit, heft);
    expect(told === null ? null : Number(told.toFixed(6))).toBe(grams);
  });
  test('grams to millilitres go through the density', () => {
    expect([millilitresOf(250, 'g', flour), millilitresOf(1, 'usCup', { gPerMl: null, gramsEach: null }), millilitresOf(1, 'lb', { gPerMl: null, gramsEach: null })]).toEqual([
      expect.closeTo(2 * 236.5882365, 6),
      expect.closeTo(236.5882365, 6),
      null,
    ]);
  });
  test.each([
    [2.5, { amount: 0.5, unit: 'usTsp' }],
    [7.4, { amount: 1.5, unit: 'usTsp' }],
    [15, { amount: 1, unit: 'usTbsp' }],
    [0.3, null],
    [80, null],
  ])('%d mL in spoons', (volumeMl, says) => {
    expect(spoons(volumeMl)).toEqual(says);
  });
});

test('the day of the week is the one Zeller (1882) gives, over four centuries and their leap days', () => {
  const zeller = (year: number, month: number, day: number): number => {
    const [y, m] = month < 3 ? [year - 1, month + 12] : [year, month];
    const saturdayIs0 = (day + Math.floor((13 * (m + 1)) / 5) + (y % 100) + Math.floor((y % 100) / 4) + Math.floor(Math.floor(y / 100) / 4) + 5 * Math.floor(y / 100)) % 7;
    return ((saturdayIs0 + 5) % 7) + 1;
  };
  const dates = Array.from({ length: 400 }, (_, index) => addDays('1900-01-01', index * 365));
  expect(dates.map(weekdayOf)).toEqual(dates.map((date) => zeller(Number(date.slice(0, 4)), Number(date.slice(5, 7)), Number(date.slice(8)))));
});
