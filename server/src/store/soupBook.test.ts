import { liftSoup } from './migrations/0003-soup-book';

test('a soup kept the old way, by the litre, is the same soup as a card of one litre', () => {
  const lifted = liftSoup({
    id: 'a',
    name: 'Carrot',
    version: 3,
    portionMl: 250,
    ingredients: [
      { id: 'c', name: 'Carrot', cut: 'dice', perLitre: { amount: 300, unit: 'g' }, allergens: [], componentId: null, stepId: 's' },
      { id: 'k', name: 'Cube', cut: null, perLitre: null, allergens: 'unknown', componentId: null, stepId: 's' },
      { id: 't', name: 'Stock', cut: null, perLitre: { amount: 500, unit: 'mL' }, allergens: [], componentId: 'stock', stepId: 's' },
    ],
    steps: [
      {
        id: 's',
        phase: 'boil',
        name: 'Boil',
        place: { kind: 'vessel' },
        attention: 'looks',
        duration: { fixedMin: 5, perLitreMin: 0.9 },
        heat: 'on',
        maxWaitMin: 0,
        lookEveryMin: 5,
        check: null,
        caution: null,
        why: '',
        irreversible: false,
      },
    ],
  } as unknown as Parameters<typeof liftSoup>[0]);
  expect(lifted).toMatchObject({ version: 3, portionMl: 250, makesL: 1 });
  expect(lifted.ingredients.map((line) => [line.id, line.foodId, line.amount, line.allergens, line.componentId])).toEqual([
    ['c', 'carrot', { low: 300, high: 300, unit: 'g' }, [], null],
    ['k', null, null, 'unknown', null],
    ['t', null, { low: 500, high: 500, unit: 'mL' }, [], 'stock'],
  ]);
  expect(lifted.steps[0]).toMatchObject({ duration: { lowMin: 5, highMin: 5, perLitreMin: 0.9 }, heat: 'high' });
});
