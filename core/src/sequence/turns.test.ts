import fc from 'fast-check';
import { TURNS, Turns } from './engine/turns';
import type { Turn } from './engine/turns';
import { seeded } from './random';

const SEED = 71;
const turns = (jobs = 4): Turns => new Turns('whole', jobs, 1000, seeded(1));
/** Moves until a cycle is over. */
const lengthOf = (given: Turns): number => {
  let moves = 1;
  while (!given.cool()) moves += 1;
  return moves;
};

test('a cycle is as long as the day is large, up to a thousand moves at first; a short one a quarter of that, a long one four times as long', () => {
  const lengths = [1, 4, 30].map((jobs) => {
    const one = turns(jobs);
    return (['plain', 'short', 'long'] as const).map((length) => {
      one.begin(length, 9);
      return lengthOf(one);
    });
  });
  expect(lengths).toEqual([
    [100, 25, 400],
    [400, 100, 1600],
    [1000, 250, 4000],
  ]);
});
test('it only cools, from a quarter of what a worse neighbour costs to a hundredth', () => {
  const one = turns();
  one.begin('plain', 9);
  const temperatures = [];
  do temperatures.push(one.temperature);
  while (!one.cool());
  temperatures.push(one.temperature);
  expect(temperatures.slice(1)).toEqual(temperatures.slice(1).sort((left, right) => right - left));
  expect([temperatures[1]! < 250, temperatures[1]! > 240, temperatures.at(-1)!.toFixed(6)]).toEqual([true, true, '10.000000']);
});
test('law: what is better is always taken, and what is worse the less often the worse it is', () => {
  const one = turns();
  let taken = [0, 0, 0];
  for (let draw = 0; draw < 4000; draw += 1) {
    const limit = one.limit(100);
    expect(one.accepts(100, 100, limit)).toBe(true);
    taken = taken.map((count, at) => count + (100 + [300, 1000, 3000][at]! <= limit ? 1 : 0));
  }
  // At 1000 degrees: e to the minus 0.3, 1 and 3 (Metropolis et al. 1953).
  taken.forEach((count, at) => {
    expect(Math.abs(count / 4000 - Math.exp(-[0.3, 1, 3][at]!))).toBeLessThan(0.03);
  });
});
test('law: the next is the first after this one that has anything to do, and a round twice as long as the one before, up to a limit', () => {
  fc.assert(
    fc.property(fc.subarray([...TURNS], { minLength: 1 }), fc.constantFrom(...TURNS), (able, first) => {
      const one = turns();
      one.turn = first;
      const seen: Turn[] = [];
      for (let round = 0; round < TURNS.length * 2; round += 1) {
        one.turn = one.next((turn) => able.includes(turn));
        seen.push(one.turn);
      }
      const at = TURNS.indexOf(first);
      const round = [...TURNS.slice(at + 1), ...TURNS.slice(0, at + 1)].filter((turn) => able.includes(turn));
      expect(seen).toEqual(seen.map((_, index) => round[index % round.length]));
      one.begin('plain', 9);
      const longest = Math.min(50_000, 400 * 2 ** seen.filter((turn) => turn === 'whole').length);
      expect(lengthOf(one)).toBe(longest);
    }),
    { seed: SEED, numRuns: 60 },
  );
});
test('a cycle that is cut short ends with its next move; it has gained where the best is cheaper than it began with', () => {
  const one = turns();
  one.begin('plain', 9);
  one.cutShort();
  expect([one.cool(), one.hasGained(9), one.hasGained(8)]).toEqual([true, false, true]);
});
