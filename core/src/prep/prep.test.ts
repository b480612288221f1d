import { HANDBOOK } from '../food/handbook';
import { foodFacts, makeLine, makeSoup, makeStep } from '../soup/index';
import type { Ingredient, Soup } from '../soup/index';
import { orderList, prepList, soupCost } from './index';
import type { PrepBatch } from './index';

const g = (low: number) => ({ low, high: low, unit: 'g' }) as const;
const of = (id: string, amount: Ingredient['amount'], some: Partial<Ingredient> = {}): Ingredient => {
  const food = HANDBOOK.find((one) => one.id === id);
  if (food === undefined) throw new Error(id);
  return makeLine({ ...foodFacts(food), id, name: food.name, stepId: 'prep', amount, ...some });
};
const soup = (id: string, ...ingredients: readonly Ingredient[]): Soup => makeSoup({ id, name: id, ingredients, steps: [makeStep({ id: 'prep', phase: 'prep', name: 'prep' })] });
const batch = (one: Soup, volumeL: number, startMin: number | null = 480, ...begunSteps: string[]): PrepBatch => ({
  name: `${one.id} 1`,
  soup: one,
  volumeL,
  startMin,
  begunSteps,
});
const lentil = soup('lentil', of('onion', g(100), { cut: 'thin' }), of('carrot', g(200), { cut: '2 cm' }), of('water', g(600)));
const bean = soup('bean', of('onion', g(60), { cut: 'thin' }), of('onion', g(40), { id: 'o2', cut: 'dice' }), of('kale', null, { cut: 'ribbons', acts: ['wash'] }));
const priced = HANDBOOK.map((food) => ({
  ...food,
  price: food.id === 'onion' ? ({ amount: 1.2, per: 'kg' } as const) : food.id === 'doublecream' ? ({ amount: 6, per: 'L' } as const) : null,
}));

describe('the day’s prep list', () => {
  const list = prepList([batch(lentil, 10, 420), batch(bean, 5, 600)]);
  test('is by vegetable and cut across soups, the earliest first', () => {
    expect(list.map(({ name, cut, edibleG, neededByMin }) => [name, cut, edibleG, neededByMin])).toEqual([
      ['Carrot', '2 cm', 2000, 420],
      ['Onion', 'thin', 1300, 420],
      ['Kale', 'ribbons', 0, 600],
      ['Onion', 'dice', 200, 600],
    ]);
  });
  test('says what to take from the crate, in pieces too, and who it is for', () => {
    expect(list[1]).toMatchObject({
      purchasedG: 1460,
      pieces: 10,
      uses: [
        { batch: 'lentil 1', edibleG: 1000 },
        { batch: 'bean 1', edibleG: 300 },
      ],
    });
  });
  test('a vegetable nobody weighed is on it, and said to be unmeasured', () => {
    expect(list[2]).toMatchObject({ unmeasured: true });
  });
  test('what has been cut already is not', () => {
    expect(prepList([batch(lentil, 10, 420, 'prep')])).toEqual([]);
  });
});

describe('the order list', () => {
  test('merges across soups as bought, with what it costs and what has no price; water is not ordered', () => {
    const { items, cost, unpriced } = orderList([batch(lentil, 10), batch(bean, 5)], priced);
    expect(items.map(({ name, unit, amount }) => [name, unit, amount])).toEqual([
      ['Carrot', 'g', 2440],
      ['Kale', 'mL', 0],
      ['Onion', 'g', 1690],
    ]);
    expect([Number(cost.toFixed(2)), unpriced]).toEqual([2.02, ['Carrot', 'Kale']]);
  });
});

describe('what a soup costs', () => {
  const stock = soup('stock', of('onion', g(100)));
  const one = soup(
    'a',
    of('onion', g(100)),
    of('doublecream', { low: 100, high: 100, unit: 'mL' }),
    makeLine({ id: 's', name: 'Stock', componentId: 'stock', stepId: 'prep', amount: { low: 500, high: 500, unit: 'mL' } }),
  );
  test('goes through components, by what is bought, and names what has no price', () => {
    const cost = soupCost({ ...one, salesPrice: 4.5 }, new Map([['stock', stock]]), priced);
    // 150 g of onion that goes in is 168.5 g bought; 0.1 L of cream.
    expect(cost.perLitre).toBeCloseTo((0.15 / 0.89) * 1.2 + 0.6, 6);
    expect([cost.perPortion, cost.shareOfPrice]).toEqual([expect.closeTo(cost.perLitre * 0.3, 9), expect.closeTo((cost.perLitre * 0.3) / 4.5, 9)]);
    expect(cost.missing).toEqual([]);
  });
  test('without a price it is at least so much', () => {
    expect(soupCost(soup('a', of('carrot', g(100))), new Map(), priced)).toMatchObject({ perLitre: 0, shareOfPrice: null, missing: ['Carrot'] });
  });
});
