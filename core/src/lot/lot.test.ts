import fc from 'fast-check';
import { allocate, preparedOn, useBy } from './index';
import type { Lot } from './index';

const lot = (some: Partial<Lot>): Lot => ({ id: 'a', soupId: 'bean', volumeL: 4, state: 'chilled', preparedOn: '2026-11-20', frozenDays: 0, ...some });

describe('date mark (FDA Food Code 2022, 3-501.17(A): the day of preparation is day 1)', () => {
  test('prepared on the 20th, last used on the 26th', () => {
    expect(useBy(lot({}), 7)).toBe('2026-11-26');
  });
  test('a mixture keeps the earliest date of what went into it (3-501.17(C))', () => {
    expect([preparedOn('2026-11-25', [lot({}), lot({ preparedOn: '2026-11-23' })]), preparedOn('2026-11-25', [])]).toEqual(['2026-11-20', '2026-11-25']);
  });
  test('days frozen pause the count and do not start it again (3-501.18(A)(1))', () => {
    expect(useBy(lot({ frozenDays: 10 }), 7)).toBe('2026-12-06');
  });
});

describe('allocate', () => {
  const told = (lots: readonly Lot[], neededL: number, on = '2026-11-25'): string[] =>
    allocate(lots, neededL, on, 7).map((use) => `${use.lot.id} ${use.kind}${use.kind === 'counts' ? ` ${String(use.takenL)}` : ''}`);
  test('first expired goes first, the rest is spare', () => {
    expect(told([lot({ id: 'new', preparedOn: '2026-11-24' }), lot({ id: 'old' }), lot({ id: 'newest', preparedOn: '2026-11-25' })], 6)).toEqual([
      'old counts 4',
      'new counts 2',
      'newest spare',
    ]);
  });
  test('the last day of the mark still counts, the day after does not', () => {
    expect([told([lot({})], 4, '2026-11-26'), told([lot({})], 4, '2026-11-27')]).toEqual([['a counts 4'], ['a pastDate']]);
  });
  test('frozen does not count for today', () => {
    expect(told([lot({ state: 'frozen' })], 4)).toEqual(['a frozen']);
  });
  test('law: never more than is there, never more than is needed', () => {
    const lots = fc.array(fc.record({ volumeL: fc.integer({ min: 1, max: 20 }), day: fc.integer({ min: 10, max: 28 }), state: fc.constantFrom('hot', 'chilled', 'frozen') }), {
      maxLength: 6,
    });
    fc.assert(
      fc.property(lots, fc.integer({ min: 0, max: 60 }), (some, neededL) => {
        const made = some.map(({ volumeL, day, state }, index) => lot({ id: String(index), volumeL, state: state, preparedOn: `2026-11-${String(day)}` }));
        const uses = allocate(made, neededL, '2026-11-25', 7);
        const takenL = uses.reduce((sum, use) => sum + (use.kind === 'counts' ? use.takenL : 0), 0);
        expect(uses).toHaveLength(made.length);
        expect(takenL).toBeLessThanOrEqual(neededL);
        expect(uses.filter((use) => use.kind === 'counts' && use.takenL > use.lot.volumeL)).toEqual([]);
      }),
      { seed: 7 },
    );
  });
});
