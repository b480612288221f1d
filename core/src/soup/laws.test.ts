import fc from 'fast-check';
import { ALLERGENS } from '../food/index';
import { batchSheet, litresFor, sheetLines } from '../pot/index';
import { DIETS, allergensOf, componentDemand, componentLoop, dietOf, ingredientStatement, leavesOf, makeLine, makeSoup, makeStep, yieldL } from './index';
import type { Ingredient, Soup } from './index';

/** What holds for every soup there could be: books of soups made of each other are drawn at random, near-valid, some lines not measured. */

const SEED = 20_261_125;
const anyLine = (id: string, components: readonly string[]): fc.Arbitrary<Ingredient> =>
  fc
    .record({
      grams: fc.option(fc.tuple(fc.integer({ min: 0, max: 4000 }), fc.integer({ min: 0, max: 500 })), { freq: 8 }),
      allergens: fc.oneof({ weight: 5, arbitrary: fc.subarray([...ALLERGENS], { maxLength: 2 }) }, { weight: 1, arbitrary: fc.constant('unknown' as const) }),
      origin: fc.constantFrom('plant', 'milk', 'fish', 'unknown' as const),
      componentId: components.length === 0 ? fc.constant(null) : fc.option(fc.constantFrom(...components), { freq: 2 }),
      edibleShare: fc.constantFrom(1, 0.8, 0.5),
      basis: fc.constantFrom('edible', 'purchased' as const),
      removed: fc.boolean(),
      scaling: fc.constantFrom('linear', 'staged' as const),
    })
    .map(({ grams, ...some }) =>
      makeLine({ id, name: id, stepId: 's', part: 'vegetable', gPerMl: 1, amount: grams === null ? null : { low: grams[0], high: grams[0] + grams[1], unit: 'g' }, ...some }),
    );
/** Soups that may be made of those before them: never in a circle. */
const anyBook: fc.Arbitrary<readonly Soup[]> = fc.integer({ min: 1, max: 5 }).chain((count) =>
  fc.tuple(
    ...Array.from({ length: count }, (_, index) =>
      fc
        .record({
          lines: fc.array(fc.constant(null), { minLength: 1, maxLength: 6 }),
          makesL: fc.integer({ min: 1, max: 30 }),
          minutes: fc.integer({ min: 0, max: 90 }),
          lid: fc.constantFrom('off', 'ajar', 'on' as const),
        })
        .chain(({ lines, makesL, minutes, lid }) =>
          fc
            .tuple(
              ...lines.map((__, at) =>
                anyLine(
                  `l${String(at)}`,
                  Array.from({ length: index }, (___, before) => `s${String(before)}`),
                ),
              ),
            )
            .map((ingredients) =>
              makeSoup({
                id: `s${String(index)}`,
                name: `S${String(index)}`,
                makesL,
                ingredients,
                steps: [makeStep({ id: 's', phase: 'simmer', name: 's', heat: 'low', lid, duration: { lowMin: minutes, highMin: minutes + 10, perLitreMin: 0 } })],
              }),
            ),
        ),
    ),
  ),
);
const bookOf = (soups: readonly Soup[]): ReadonlyMap<string, Soup> => new Map(soups.map((one) => [one.id, one]));
const last = (soups: readonly Soup[]): Soup => {
  const soup = soups.at(-1);
  if (soup === undefined) throw new Error('an empty book');
  return soup;
};
const holds = (law: (soups: readonly Soup[], volumeL: number) => void): void => {
  fc.assert(
    fc.property(anyBook, fc.integer({ min: 1, max: 400 }), (soups, tenths) => {
      law(soups, tenths / 10);
    }),
    { seed: SEED, numRuns: 300 },
  );
};

describe('laws of the soup book', () => {
  test('twice the litres is twice of every line, to what a scale shows', () => {
    holds((soups, volumeL) => {
      const [once, twice] = [sheetLines(last(soups), volumeL), sheetLines(last(soups), volumeL * 2)];
      once.forEach((line, index) => {
        const double = twice[index];
        if (line.amount === null || double?.amount === null || double === undefined) expect(double?.amount ?? null).toBe(line.amount);
        else {
          const exactOnce = line.amount / (1 + line.roundingError);
          const exactTwice = double.amount / (1 + double.roundingError);
          if (line.amount > 0 && double.amount > 0) expect(exactTwice / exactOnce).toBeCloseTo(2, 6);
        }
      });
    });
  });
  test('rounding never moves an amount above 20 g by more than 2.5 %', () => {
    holds((soups, volumeL) => {
      const off = sheetLines(last(soups), volumeL).filter((line) => line.unit === 'g' && (line.amount ?? 0) > 100 && Math.abs(line.roundingError) > 0.025);
      expect(off).toEqual([]);
    });
  });
  test('what has an unread label is never called anything; what a line speaks against is never met', () => {
    holds((soups) => {
      const soup = last(soups);
      const book = bookOf(soups);
      const leaves = leavesOf(soup, book);
      for (const diet of DIETS) {
        const { kind } = dietOf(soup, book, diet);
        if (leaves.some(({ line, missing }) => missing || line.allergens === 'unknown')) expect(kind).not.toBe('yes');
        if (diet === 'dairyFree' && leaves.some(({ line }) => line.origin === 'milk')) expect(kind).toBe('no');
      }
    });
  });
  test('a soup holds every allergen of what it is made of, and adding a line never takes one away', () => {
    holds((soups) => {
      const soup = last(soups);
      const book = bookOf(soups);
      const whole = allergensOf(soup, book);
      for (const { componentId } of soup.ingredients) {
        const inner = componentId === null ? undefined : book.get(componentId);
        if (inner !== undefined) expect(whole.contains).toEqual(expect.arrayContaining([...allergensOf(inner, book).contains]));
      }
      const less = allergensOf({ ...soup, ingredients: soup.ingredients.slice(1) }, book);
      expect(whole.contains).toEqual(expect.arrayContaining([...less.contains]));
    });
  });
  test('the statement names every bought thing once, in falling order, and its shares are one whole', () => {
    holds((soups) => {
      const book = bookOf(soups);
      const lines = ingredientStatement(last(soups), book);
      expect(new Set(lines.map((line) => line.name)).size).toBe(lines.length);
      const shares = lines.flatMap((line) => (line.share === null ? [] : [line.share]));
      expect(shares).toEqual([...shares].sort((left, right) => right - left));
      const sum = shares.reduce((total, share) => total + share, 0);
      if (sum > 0) expect(sum).toBeCloseTo(1, 9);
    });
  });
  test('component demand grows in proportion, and two soups ask for what each asks alone', () => {
    holds((soups, volumeL) => {
      const book = bookOf(soups);
      const ask = (...ids: readonly string[]): ReadonlyMap<string, number> =>
        new Map(
          componentDemand(
            ids.map((soupId) => ({ soupId, volumeL, begunSteps: [] })),
            book,
          ).map(({ componentId, demandL }) => [componentId, demandL]),
        );
      const [first, second] = [last(soups).id, soups[0]?.id ?? ''];
      const [alone, other, both] = [ask(first), ask(second), ask(first, second)];
      for (const [id, demandL] of both) expect(demandL).toBeCloseTo((alone.get(id) ?? 0) + (other.get(id) ?? 0), 6);
    });
  });
  test('a loop is found exactly where there is one', () => {
    holds((soups) => {
      const soup = last(soups);
      expect(componentLoop(soup, bookOf(soups))).toBeNull();
      const closed = { ...soup, ingredients: [...soup.ingredients, makeLine({ id: 'round', name: 'round', stepId: 's', componentId: soup.id })] };
      expect(componentLoop(closed, bookOf([...soups.slice(0, -1), closed]))).not.toBeNull();
    });
  });
  test('a yield is a range the right way round, never more than what goes in, and not claimed when something that counts was not measured', () => {
    holds((soups, volumeL) => {
      const soup = last(soups);
      const worked = yieldL(soup);
      const counted = soup.ingredients.filter((line) => !line.removed);
      if (counted.some((line) => line.amount === null)) expect(worked).toBeNull();
      if (worked === null) return;
      expect(worked.low).toBeLessThanOrEqual(worked.high);
      const inKg = counted.reduce((sum, line) => sum + (line.amount === null ? 0 : line.amount.high * (line.basis === 'purchased' ? (line.edibleShare ?? 1) : 1)), 0) / 1000;
      expect(worked.high * 1.03).toBeLessThanOrEqual(inKg + 1e-9);
      const sheet = batchSheet(soup, volumeL, { soupById: bookOf(soups) });
      expect(sheet.yieldL?.high).toBeCloseTo((worked.high * volumeL) / soup.makesL, 6);
    });
  });
  test('the litres a delivery makes use up just that delivery', () => {
    holds((soups) => {
      const soup = last(soups);
      const line = soup.ingredients.find((one) => one.componentId === null && (one.amount?.low ?? 0) > 50);
      if (line?.amount == null) return;
      const massG = 5000;
      const volumeL = litresFor(soup, { by: 'main', lineId: line.id, massG, basis: 'edible' });
      const share = line.basis === 'purchased' ? (line.edibleShare ?? 1) : 1;
      const used = (((line.amount.low + line.amount.high) / 2) * share * (volumeL ?? 0)) / soup.makesL;
      expect(used).toBeCloseTo(massG, 3);
    });
  });
});
