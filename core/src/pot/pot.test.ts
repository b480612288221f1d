import { HANDBOOK } from '../food/handbook';
import { driedFor, purchasedG } from '../food/index';
import { toLitres } from '../quantity/index';
import { foodFacts, makeLine, makeSoup, makeStep } from '../soup/index';
import type { DurationModel, Ingredient, Soup, Step, Texture } from '../soup/index';
import {
  FLOUR_FOR,
  batchSheet,
  boilMin,
  crossSectionCm2,
  flourPerLitre,
  learned,
  liquidFor,
  litresFor,
  saltPlan,
  sheetLines,
  splitPot,
  thicken,
  timeOffers,
  thin,
  timesFor,
  voidL,
} from './index';
import type { PotVessel } from './index';

const g = (low: number, high = low) => ({ low, high, unit: 'g' }) as const;
const of = (id: string, amount: Ingredient['amount'], some: Partial<Ingredient> = {}): Ingredient => {
  const food = HANDBOOK.find((one) => one.id === id);
  if (food === undefined) throw new Error(id);
  return makeLine({ ...foodFacts(food), id, name: food.name, stepId: 'boil', amount, ...some });
};
const step = (id: string, phase: Step['phase'], some: Partial<Step> = {}): Step => makeStep({ id, phase, name: id, ...some });
const STEPS: readonly Step[] = [
  step('boil', 'boil', { heat: 'high', lid: 'on', duration: { lowMin: 5, highMin: 5, perLitreMin: 0.9 } }),
  step('simmer', 'simmer', { heat: 'low', lid: 'ajar', duration: { lowMin: 20, highMin: 30, perLitreMin: 0 } }),
  step('blend', 'blend', { place: { kind: 'blender', tool: 'jar' }, blendShare: 0.5, duration: { lowMin: 2, highMin: 2, perLitreMin: 0 } }),
];
const soup = (ingredients: readonly Ingredient[], some: Partial<Soup> = {}): Soup => makeSoup({ id: 'a', name: 'A', steps: STEPS, ingredients, ...some });
const KETTLE: PotVessel = { capacityL: 30, workingMaxL: 25, powerKw: 12, efficiency: 0.75, diameterCm: 38 };
const first = <Value>(values: readonly Value[]): Value => {
  const [value] = values;
  if (value === undefined) throw new Error('there is none');
  return value;
};

describe('figures cooks work by (common practice)', () => {
  const cup = toLitres(1, 'usCup');
  test('4 cups just cover 2 lb of squash and 1 lb of parsnip: 0.70 litres a kilogram', () => {
    const vegetablesKg = (3 * 453.59237) / 1000;
    expect(voidL(vegetablesKg)).toBeCloseTo(4 * cup, 2);
    expect(voidL(1)).toBeCloseTo(0.7, 1);
  });
  test('roux of a tablespoon of flour a cup comes out thin, the figure of a thin white sauce; corrected to 1.33 it is 44 g/L', () => {
    expect([FLOUR_FOR.light, flourPerLitre(4 / 3)].map((grams) => Math.round(grams))).toEqual([33, 44]);
  });
  test('the correction, 2 Tbsp of flour for 4 cups, is the step from pouring to light', () => {
    const floured = soup([of('flour', g(30)), of('milk', g(900))], { schools: { ...soup([]).schools, thickener: 'flour' } });
    const way = first(thicken(floured, new Map(), 4 * cup, 'pouring', 'light').ways);
    expect(way).toMatchObject({ way: 'slurry', foodId: 'flour', starchG: expect.closeTo((2 * 125) / 16, 1) as number });
  });
  test('cream at half a cup for 4 cups is 1 : 8, half a pint a quart is 1 : 4', () => {
    expect([toLitres(0.5, 'usCup') / toLitres(4, 'usCup'), toLitres(0.5, 'usPt') / toLitres(1, 'usQt')]).toEqual([1 / 8, 1 / 4]);
  });
  test('a cube for 2 cups and two cubes a litre are the same strength, to 6 %', () => {
    expect(1 / (2 * cup) / 2).toBeCloseTo(1.06, 2);
  });
  test('a serving ladle of 8 fl oz is 237 mL; a stock block is a quart', () => {
    expect([Math.round(toLitres(8, 'usFlOz') * 1000), Math.round(toLitres(1, 'usQt') * 1000)]).toEqual([237, 946]);
  });
  test('a teaspoon of salt on two litres is 0.29 %: our steps are at most a tenth', () => {
    expect((0.006 / (2 * 1.03)) * 100).toBeCloseTo(0.29, 2);
    const { doses } = saltPlan(2 * 1.03, 0, 0.008);
    expect([doses.length, first(doses)]).toEqual([9, expect.closeTo(16.61 / 9, 2)]);
    expect(first(doses)).toBeLessThanOrEqual(2.06);
  });
  test('dried for fresh herb is one for two, some say for three', () => {
    expect([driedFor(6), driedFor(6, 3)]).toEqual([3, 2]);
  });
  test('a pound bought is less than a pound cut', () => {
    expect(purchasedG(453.59237, 0.82)).toBeCloseTo(553.2, 1);
    expect(() => purchasedG(1, 0)).toThrow(RangeError);
  });
});

describe('the batch sheet', () => {
  const line = (ingredient: Ingredient, volumeL = 10) => first(sheetLines(soup([ingredient], { makesL: 10 }), volumeL));
  test('scales by new over old, each line rounded to what can be measured, with the error', () => {
    expect(line(of('carrot', g(3100)), 26)).toMatchObject({ amount: 8050, unit: 'g', roundingError: expect.closeTo(8050 / 8060 - 1, 9) as number });
  });
  test('liquids are poured, solids weighed, even when the card says cups', () => {
    expect([line(of('water', { low: 4, high: 4, unit: 'usCup' })), line(of('flour', { low: 2, high: 2, unit: 'usCup' }))].map(({ amount, unit }) => [amount, unit])).toEqual([
      [950, 'mL'],
      [250, 'g'],
    ]);
  });
  test('small amounts are told in spoons beside the scale', () => {
    expect(line(of('cumin', g(6.3)))).toMatchObject({ amount: 6.5, unit: 'g', spoons: { amount: 1, unit: 'usTbsp' } });
  });
  test('a range stays a range, a thing not measured stays unmeasured', () => {
    expect([line(of('carrot', g(300, 400)), 20), line(of('kale', null))].map(({ amount, upTo }) => [amount, upTo])).toEqual([
      [600, 800],
      [null, null],
    ]);
  });
  test('what is to be taken from the crate stands beside what goes in', () => {
    expect([line(of('leek', g(450))).purchasedG, line(of('leek', g(900), { basis: 'purchased' })).amount]).toEqual([900, 450]);
  });
  test('chillies are staged: seven of ten, taste, then the rest; a bouquet stays one', () => {
    expect(line(of('chilli', g(10), { scaling: 'staged' }))).toMatchObject({ amount: 10, firstAmount: 7 });
    expect(line(of('bay', { low: 1, high: 1, unit: 'each' }, { scaling: 'fixed', gramsEach: null }), 30)).toMatchObject({ amount: 1, unit: 'each', fixed: true });
  });

  const carrot = soup([of('carrot', g(4000)), of('water', { low: 6.4, high: 6.4, unit: 'L' }), of('salt', g(70))], { makesL: 10 });
  test('simmer time does not double with the litres, time to the boil does grow', () => {
    const minutes = (volumeL: number): number[] =>
      batchSheet(carrot, volumeL, { vessel: KETTLE })
        .steps.slice(0, 2)
        .map((one) => one.lowMin);
    const [small, large] = [minutes(10), minutes(20)];
    expect([large[1], small[1]]).toEqual([20, 20]);
    expect((large[0] ?? 0) / (small[0] ?? 1)).toBeCloseTo(2, 1);
  });
  test('the boil is from litres, power and start temperature, until three batches have been timed', () => {
    const boil = (times: readonly number[]) => first(batchSheet(carrot, 20, { vessel: KETTLE, stepTimes: { boil: times.map((minutes) => ({ volumeL: 20, minutes })) } }).steps);
    expect(boil([])).toMatchObject({ basis: 'power', lowMin: expect.closeTo(boilMin(2 * 10.47, KETTLE) ?? 0, 0) as number });
    expect(boil([31, 27])).toMatchObject({ basis: 'power' });
    expect(boil([31, 27, 36])).toMatchObject({ basis: 'measured', lowMin: 27, highMin: 36, learned: { median: 31, count: 3 } });
    expect(first(batchSheet(carrot, 20).steps).basis).toBe('card');
  });
  test('measured boils stretch with the litres, measured simmers do not', () => {
    const times = [{ volumeL: 10, minutes: 15 }];
    expect([timesFor(first(STEPS), times, 20), timesFor(STEPS[1] ?? first(STEPS), times, 20)]).toEqual([[30], [15]]);
  });
  test('half of the pot through the jar is half of the fills', () => {
    const blend = batchSheet(carrot, 12, { jar: { hotFillL: 1.2, cycleMin: 2.5 } }).steps[2];
    expect(blend).toMatchObject({ blendL: 6, fills: 5 });
  });
  test('yield and portions are ranges from steam; with a main amount missing neither is claimed', () => {
    // 10.48 kg in; 14 min lid on loses up to 0.5 %, 20 to 30 min ajar 0.7 to 2 %; 1.03 kg a litre.
    const sheet = batchSheet(carrot, 10);
    expect([sheet.yieldL?.low, sheet.yieldL?.high].map((litres) => Number(litres?.toFixed(2)))).toEqual([9.92, 10.11]);
    expect(sheet.portions).toEqual({ low: 31, high: 32 });
    expect(batchSheet(soup([of('carrot', null)]), 10)).toMatchObject({ yieldL: null, portions: null, unmeasured: ['Carrot'] });
  });
  test('salt: what is salty already counts, the rest goes in by tenths of a percent', () => {
    const plan = batchSheet(carrot, 10).salt;
    expect([plan?.nowShare, plan?.doses.length]).toEqual([0, 9]);
    expect(plan?.doses.reduce((sum, dose) => sum + dose, 0)).toBeCloseTo((10.3 * 1000 * 0.008) / 0.992, 3);
    const cubed = batchSheet(soup([of('bouillon', g(150), { allergens: [] }), of('water', g(10_000))], { makesL: 10 }), 10).salt;
    expect([Number(cubed?.nowShare.toFixed(4)), cubed?.doses.length]).toEqual([0.0072, 1]);
  });
});

describe('how much to make', () => {
  const carrot = soup([of('carrot', g(4000), { id: 'c' })], { makesL: 10 });
  test.each([
    ['litres', { by: 'litres', volumeL: 26 } as const, 26],
    ['portions, with what stays in the well', { by: 'portions', portions: 60, portionMl: 350, servingLoss: 0.03 } as const, 21.649],
    ['a kettle', { by: 'vessel', workingMaxL: 25 } as const, 25],
    ['the carrots that are there', { by: 'main', lineId: 'c', massG: 6000, basis: 'edible' } as const, 15],
    ['the carrots as they were bought', { by: 'main', lineId: 'c', massG: 6000, basis: 'purchased' } as const, 12.3],
    ['a line that is not there', { by: 'main', lineId: 'x', massG: 6000, basis: 'edible' } as const, null],
  ])('%s', (_, target, litres) => {
    const made = litresFor(carrot, target);
    expect(made === null ? null : Number(made.toFixed(3))).toBe(litres);
  });
});

describe('liquid', () => {
  const squash = (liquid: Soup['schools']['liquid'], writtenL = 7): Soup =>
    soup([of('butternut', g(10_000)), of('water', { low: writtenL, high: writtenL, unit: 'L' })], { makesL: 15, schools: { ...soup([]).schools, liquid } });
  test('a fixed measure is the card’s', () => {
    expect(liquidFor(squash('fixed'), 15, KETTLE, null)).toMatchObject({ basis: 'card', firstL: 7, reserveL: 0 });
  });
  test('to just cover: the void between the vegetables and half a centimetre of this kettle, a fifth held back', () => {
    const advice = liquidFor(squash('cover'), 15, KETTLE, null);
    expect(advice).toMatchObject({ basis: 'vegetables', estimateL: expect.closeTo(voidL(10) + (crossSectionCm2(KETTLE) * 0.5) / 1000, 9) as number, firstL: 5.6 });
    expect(advice.firstL + advice.reserveL).toBeGreaterThanOrEqual(advice.estimateL ?? Infinity);
  });
  test('below the vegetables is less, and what past batches took goes before both', () => {
    expect(liquidFor(squash('below'), 15, KETTLE, null).estimateL).toBeCloseTo(voidL(10) * 0.75, 9);
    expect(liquidFor(squash('below'), 15, KETTLE, 0.4)).toMatchObject({ basis: 'remembered', estimateL: expect.closeTo(6, 9) as number });
  });
  test('a vegetable that nobody weighed leaves the card’s measure', () => {
    expect(liquidFor(soup([of('kale', null), of('water', g(500))], { schools: { ...soup([]).schools, liquid: 'cover' } }), 2, null, null).basis).toBe('card');
  });
});

describe('too thin, too thick', () => {
  const plain = soup([of('carrot', g(400)), of('water', g(600))]);
  const floured = soup([of('flour', g(30)), of('milk', g(900))], { schools: { ...plain.schools, thickener: 'flour' } });
  const ways = (one: Soup, from: Texture, to: Texture) => thicken(one, new Map(), 20, from, to).ways;
  test('a soup without gluten is never offered wheat; one with flour is', () => {
    expect(ways(plain, 'light', 'coating').flatMap((way) => (way.way === 'slurry' ? [way.foodId] : []))).toEqual(['cornstarch', 'potatostarch']);
    expect(ways(floured, 'light', 'coating').flatMap((way) => (way.way === 'slurry' ? [way.foodId] : []))).toEqual(['flour', 'cornstarch']);
  });
  test('cornflour for 20 litres from thin to medium is half of 33 g a litre; half of it first', () => {
    expect(first(ways(plain, 'light', 'coating'))).toMatchObject({ starchG: expect.closeTo((33.03 / 2) * 20, 0) as number, firstG: expect.closeTo((33.03 / 4) * 20, 0) as number });
  });
  test('nothing is added to a soup that is thick enough', () => {
    expect(first(ways(plain, 'coating', 'light'))).toMatchObject({ starchG: 0 });
    expect(thin(20, 'light', 'coating').addL).toBe(0);
  });
  test('thinning lowers the salt by what went in', () => {
    const { addL, saltFactor } = thin(20, 'coating', 'light');
    expect([addL, saltFactor]).toEqual([10, expect.closeTo(20 / 30, 9)]);
  });
});

describe('what batches taught', () => {
  test('nothing from two, a median and a range from three, the last twelve of many', () => {
    expect([learned([20, 30]), learned([30, 20, 25]), learned([20, 30, 25, 40])]).toEqual([
      null,
      { median: 25, low: 20, high: 30, count: 3 },
      { median: 27.5, low: 20, high: 40, count: 4 },
    ]);
    expect(learned([99, ...Array.from({ length: 12 }, (_, index) => index + 1)])).toMatchObject({ low: 1, high: 12, count: 12 });
  });
});

describe('one pot shared out', () => {
  test('6 L chunky and 4 L puréed: the base for ten, each with its own blend and garnish', () => {
    const base = soup([of('carrot', g(400))], {
      variants: [{ id: 'chunky', name: 'chunky', blendShare: 0, adds: [of('parsley', g(5), { stepId: 'blend' })], leavesOut: [] }],
    });
    const { base: whole, each } = splitPot(base, [
      { variantId: 'chunky', volumeL: 6 },
      { variantId: null, volumeL: 4 },
    ]);
    expect([whole.lines[0]?.amount, each.map(({ name, sheet }) => [name, sheet.steps.length, sheet.lines.length])]).toEqual([
      4000,
      [
        ['A, chunky', 2, 2],
        ['A', 3, 1],
      ],
    ]);
  });
});

describe('times of the card against past batches', () => {
  const cooked = (some: Partial<DurationModel>): Soup =>
    makeSoup({ id: 'c', name: 'C', makesL: 10, steps: [makeStep({ id: 's', phase: 'simmer', name: 's', duration: { lowMin: 15, highMin: 25, perLitreMin: 0, ...some } })] });
  const times = (...minutes: readonly number[]) => ({ s: minutes.map((one) => ({ volumeL: 10, minutes: one })) });
  const offered = (soup: Soup, ...minutes: readonly number[]) => timeOffers(soup, times(...minutes)).map((offer) => offer.duration);
  test.each([
    ['two batches are too few', [40, 42], []],
    ['three that took longer: the median in the middle, half their range to each side', [40, 30, 50], [{ lowMin: 30, highMin: 50, perLitreMin: 0 }]],
    ['a card that is right is left alone', [19, 20, 22], []],
    ['shorter is offered too', [8, 8, 10], [{ lowMin: 7, highMin: 9, perLitreMin: 0 }]],
  ])('%s', (_, minutes, expected) => {
    expect(offered(cooked({}), ...minutes)).toEqual(expected);
  });
  test('what grows with the litres stays as it is; where that alone is more than it took, nothing is offered', () => {
    expect(offered(cooked({ perLitreMin: 1 }), 50, 50, 50)).toEqual([{ lowMin: 40, highMin: 40, perLitreMin: 1 }]);
    expect(offered(cooked({ perLitreMin: 4 }), 30, 31, 32)).toEqual([]);
  });
});
