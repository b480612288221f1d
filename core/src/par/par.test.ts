import type { Ingredient, Soup } from '../soup/index';
import { componentDemand, needFor } from './index';

const made = (soupId: string, volumeL: number) => ({ id: `lot-${soupId}`, soupId, volumeL, state: 'chilled', preparedOn: '2026-11-24', frozenDays: 0 }) as const;

describe('need', () => {
  const need = (parL: number, onHandL: number): number =>
    needFor({ soupId: 'bean', parL, serviceId: 'midday' }, onHandL === 0 ? [] : [made('bean', onHandL), made('lentil', 50)], '2026-11-25', 7).needL;
  test.each([
    [20, 6, 14],
    [20, 0, 20],
    [6, 6.5, 0],
    [0, 0, 0],
    [10.2, 0, 10.5],
  ])('par %d L with %d L on hand needs %d L', (parL, onHandL, needL) => {
    expect(need(parL, onHandL)).toBe(needL);
  });
});

describe('component demand', () => {
  const line = (componentId: string, amount: number): Ingredient => ({
    id: componentId,
    name: componentId,
    cut: null,
    perLitre: { amount, unit: 'mL' },
    allergens: [],
    componentId,
    stepId: 'boil',
  });
  const soup = (id: string, ...ingredients: Ingredient[]): Soup => ({
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
  const book = (...soups: Soup[]): ReadonlyMap<string, Soup> => new Map(soups.map((one) => [one.id, one]));
  const cook = (soupId: string, volumeL: number, ...begunSteps: string[]) => ({ soupId, volumeL, begunSteps });
  test('what has gone into a pot is no longer asked for', () => {
    const soups = book(soup('lentil', line('stock', 700)), soup('stock'));
    expect(componentDemand([cook('lentil', 10, 'boil'), cook('lentil', 4)], soups)).toMatchObject([{ componentId: 'stock', demandL: 2.8, takenL: 7 }]);
  });
  test('one component asked for by two soups, and one inside another', () => {
    const soups = book(soup('lentil', line('stock', 700), line('onion', 60)), soup('bean', line('stock', 620)), soup('onion', line('stock', 100)), soup('stock'));
    const demand = componentDemand([cook('lentil', 10), cook('bean', 5)], soups).map(({ componentId, demandL }) => [componentId, Number(demandL.toFixed(6))]);
    expect(demand).toEqual([
      ['onion', 0.6],
      ['stock', 10.16],
    ]);
  });
  test('a component that contains itself is refused with its path', () => {
    expect(() => componentDemand([cook('a', 1)], book(soup('a', line('b', 500)), soup('b', line('a', 500))))).toThrow('a → b → a contains itself');
  });
});
