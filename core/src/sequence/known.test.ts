import fc from 'fast-check';
import { Known } from './engine/known';
import type { Choice, Laid } from './engine/known';

const SEED = 20_261_201;
const choiceOf = (entering: readonly number[], way = 0): Choice => ({ entering, beginning: [], ways: Int32Array.of(way) });
/** A plan of ten items. */
const laidOf = (entering: readonly number[], cost: number, item = 0): Laid => ({ ...choiceOf(entering), order: new Int32Array(10).fill(item), cost });

test('law: of each choice the cheapest is kept, and never what a cheaper one stands for', () => {
  fc.assert(
    fc.property(fc.array(fc.tuple(fc.integer({ min: 0, max: 5 }), fc.integer({ min: 1, max: 50 })), { minLength: 1, maxLength: 80 }), (added) => {
      const known = new Known();
      const cheapest = new Map<number, number>();
      for (const [who, cost] of added) {
        const laid = laidOf([who], cost);
        const before = cheapest.get(who) ?? Number.POSITIVE_INFINITY;
        expect(known.add(laid).cost).toBe(Math.min(before, cost));
        cheapest.set(who, Math.min(before, cost));
        expect(known.cost).toBe(Math.min(...cheapest.values()));
        expect(known.limit).toBeCloseTo(known.cost * 1.1, 9);
      }
    }),
    { seed: SEED },
  );
});
test('of two that cost the same the later one is gone on from: what lies elsewhere may lead elsewhere', () => {
  const known = new Known();
  known.add(laidOf([1], 7, 0));
  known.add(laidOf([1], 7, 5));
  expect(known.next().order[0]).toBe(5);
});
test('no choice is tried twice, but what changes nothing may be laid out anew', () => {
  const known = new Known();
  const laid = known.add(laidOf([1, 2], 7));
  expect([choiceOf([2, 1]), choiceOf([2, 1]), choiceOf([2, 1], 1), choiceOf([1, 2]), choiceOf([1, 2])].map((choice) => known.isNew(choice, laid))).toEqual([
    true,
    false,
    true,
    true,
    true,
  ]);
  // The orders are told apart: one who comes in is not one who is begun.
  expect(known.isNew({ entering: [2], beginning: [1], ways: Int32Array.of(0) }, laid)).toBe(true);
});
test('the cheapest is gone on from until it is worn out by as much as the next is dearer', () => {
  const known = new Known();
  const best = known.add(laidOf([1], 100));
  const second = known.add(laidOf([2], 109));
  // Each draw of a plan of ten items wears it by four hundredths.
  const gone: Laid[] = [];
  for (let draw = 0; draw < 6; draw += 1) {
    const laid = known.next();
    gone.push(laid);
    known.isNew(choiceOf([3, draw]), laid);
  }
  expect(gone.map((laid) => laid.cost)).toEqual([best.cost, best.cost, best.cost, second.cost, best.cost, second.cost]);
});
test('one that cannot be laid out is gone on from only while nothing else is known', () => {
  const known = new Known();
  const none = known.add(laidOf([1], Number.POSITIVE_INFINITY));
  expect([known.cost, known.limit, known.next()]).toEqual([Number.POSITIVE_INFINITY, Number.POSITIVE_INFINITY, none]);
  const laid = known.add(laidOf([2], 9));
  expect([known.next(), known.add(none)]).toEqual([laid, laid]);
});
test('what is dearest of more than a hundred is let go', () => {
  const known = new Known();
  for (let who = 0; who < 150; who += 1) known.add(laidOf([who], 1000 - who));
  const seen = new Set<number>();
  for (let draw = 0; draw < 20_000; draw += 1) {
    const laid = known.next();
    seen.add(laid.cost);
    known.isNew(choiceOf([draw, draw]), laid);
  }
  expect([seen.size, Math.max(...seen)]).toEqual([100, 950]);
});
