import { allergensOf, batchSheet, jarFills, stepDurationMin } from './index';
import type { Ingredient, Soup, Step } from './index';

const line = (some: Partial<Ingredient>): Ingredient => ({
  id: 'x',
  name: 'x',
  cut: null,
  perLitre: { amount: 100, unit: 'g' },
  allergens: [],
  componentId: null,
  stepId: 'prep',
  ...some,
});
const soup = (id: string, ingredients: readonly Ingredient[]): Soup => ({
  id,
  version: 1,
  name: id,
  shortName: id,
  role: 'soup',
  served: 'hot',
  toneHex: '#000000',
  portionMl: 300,
  ingredients,
  steps: [],
});
const step = (some: Partial<Step>): Step => ({
  id: 's',
  phase: 'boil',
  name: 's',
  place: { kind: 'vessel' },
  attention: 'looks',
  duration: { fixedMin: 5, perLitreMin: 0.9 },
  heat: 'on',
  maxWaitMin: null,
  lookEveryMin: null,
  check: null,
  caution: null,
  why: '',
  irreversible: false,
  ...some,
});

describe('jar fills', () => {
  test('a jug that takes two US cups of hot soup needs eleven fills for five litres (common practice)', () => {
    expect(jarFills(5, 2 * 0.2365882365)).toBe(11);
  });
  test('exactly full is no fill more', () => {
    expect([jarFills(6, 1.2), jarFills(6.001, 1.2)]).toEqual([5, 6]);
  });
  test('a jar that holds nothing is a fault of ours', () => {
    expect(() => jarFills(5, 0)).toThrow(RangeError);
  });
});

describe('step duration', () => {
  const jar = { hotFillL: 1.2, cycleMin: 2.5 };
  test.each([
    ['fixed plus per litre', step({}), 18, 21],
    ['a jar blend is its fills times the cycle', step({ place: { kind: 'blender', tool: 'jar' }, duration: { fixedMin: 2, perLitreMin: 9 } }), 14, 32],
    ['never less than a minute', step({ duration: { fixedMin: 0.2, perLitreMin: 0 } }), 1, 1],
  ])('%s', (_, given, volumeL, minutes) => {
    expect(stepDurationMin(given, volumeL, jar)).toBe(minutes);
  });
});

describe('allergens', () => {
  const stock = soup('stock', [line({ name: 'celery', allergens: ['celery'] })]);
  const told = (...lines: Ingredient[]): unknown => allergensOf(soup('a', lines), new Map([['stock', stock]]));
  test('come from every line and through components', () => {
    expect(told(line({ allergens: ['milk'] }), line({ componentId: 'stock' }))).toEqual({ contains: ['celery', 'milk'], unknownLines: [] });
  });
  test('barley brings gluten and not wheat', () => {
    expect(told(line({ allergens: ['gluten'] }))).toEqual({ contains: ['gluten'], unknownLines: [] });
  });
  test('a label nobody read is unknown, never free from', () => {
    expect(told(line({ name: 'cube', allergens: 'unknown' }))).toEqual({ contains: [], unknownLines: ['cube'] });
  });
  test('a component that is not in the book is unknown', () => {
    expect(told(line({ name: 'mystery', componentId: 'nowhere' }))).toEqual({ contains: [], unknownLines: ['mystery'] });
  });
});

describe('batch sheet', () => {
  test('doubling the litres doubles every line: factor 2 to 5 gallons is 2.5, 240 g become 600 g (Gisslen, Professional Cooking, method)', () => {
    const grams = (volumeL: number): number | null => batchSheet(soup('a', [line({ perLitre: { amount: 240 / 7.570823568, unit: 'g' } })]), volumeL)[0]?.amount ?? null;
    expect([grams(7.570823568), grams(18.92705892)]).toEqual([240, 600]);
  });
  test('rounding is to what can be measured and says by how much', () => {
    expect(batchSheet(soup('a', [line({ perLitre: { amount: 0.31, unit: 'g' } })]), 14)[0]).toMatchObject({
      amount: 4.5,
      unit: 'g',
      roundingError: expect.closeTo(0.0369, 4) as number,
    });
  });
  test('a line nobody measured stays unmeasured', () => {
    expect(batchSheet(soup('a', [line({ perLitre: null })]), 14)[0]?.amount).toBeNull();
  });
});
