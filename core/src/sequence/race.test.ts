import fc from 'fast-check';
import { madeDay } from '../testing/days';
import { published } from '../testing/published';
import { Race } from './engine/race';
import type { Contestant } from './engine/race';
import { Search } from './engine/search';
import { SHOPS } from './engine/shops';
import { startSolving, violations } from './index';

/** A search that has found something of this cost after so many moves: [moves, cost], the first for nothing. */
class Scripted implements Contestant {
  movesMade = 0;
  readonly isGuided: boolean;
  private readonly script: readonly (readonly [number, number])[];
  constructor(script: readonly (readonly [number, number])[], isGuided = false) {
    this.script = script;
    this.isGuided = isGuided;
  }
  get bestKnown(): number {
    return Math.min(...this.script.flatMap(([moves, cost]) => (moves <= this.movesMade ? [cost] : [])));
  }
  run(moves: number): void {
    this.movesMade += moves;
  }
  sequence(): never {
    throw new Error('It has none.');
  }
}
type Script = readonly (readonly [number, number])[];
const LEADER: Script = [
  [0, 100],
  [500, 50],
  [1000, 40],
  [2000, 30],
];
/** A race of such searches, and the moves each has made. Whoever has no script of its own finds nothing. */
function raceOf(...scripts: readonly Script[]) {
  const searches: Scripted[] = [];
  const race = new Race((before) => {
    searches[before] = new Scripted(scripts[before] ?? [[0, 1000]]);
    return searches[before];
  });
  return { race, moves: () => searches.map(({ movesMade }) => movesMade) };
}

describe('who goes on', () => {
  test('for five thousand moves nobody is challenged', () => {
    const { race, moves } = raceOf(LEADER);
    race.run(5000);
    expect([moves(), race.bestKnown]).toEqual([[5000], 30]);
    race.run(1);
    expect(moves()).toEqual([5000, 1]);
  });
  test('a challenger no cheaper after a thousand moves than the leader was after five hundred is given up; others begin until they have made a quarter of what the leader has, and it goes on by half', () => {
    const { race, moves } = raceOf(LEADER, [
      [0, 100],
      [900, 50],
    ]);
    race.run(7000);
    expect(moves()).toEqual([5000, 1000, 1000]);
    race.run(2500);
    expect(moves()).toEqual([7500, 1000, 1000]);
    race.run(1);
    expect(moves()).toEqual([7500, 1000, 1000, 1]);
  });
  test('one that is cheaper at a look goes on to the next, and is given up when it has fallen behind', () => {
    const { race, moves } = raceOf(LEADER, [
      [0, 100],
      [999, 49],
      [1999, 40],
    ]);
    race.run(5000 + 2000);
    expect(moves()).toEqual([5000, 2000]);
    race.run(1);
    expect(moves()).toEqual([5001, 2000]);
    race.run(2499);
    expect(moves()).toEqual([7500, 2000]);
  });
  test('one that is cheaper at every look and at the age of the leader takes its place, and the best is known before that', () => {
    const { race, moves } = raceOf(LEADER, [
      [0, 49],
      [1900, 39],
      [3900, 29],
      [4500, 20],
    ]);
    race.run(5000 + 4600);
    expect([race.bestKnown, moves()]).toEqual([20, [5000, 4600]]);
    race.run(400 + 2500);
    expect([race.bestKnown, moves()]).toEqual([20, [5000, 7500]]);
  });
  test('one as dear at the age of the leader does not', () => {
    const challenger: Script = [
      [0, 49],
      [1900, 39],
      [3900, 29.5],
      [4900, 29],
    ];
    const [cheaper, same] = [raceOf(LEADER, challenger), raceOf([...LEADER, [4900, 29]], challenger)];
    for (const one of [cheaper, same]) one.race.run(5000 + 5000 + 2500);
    expect([cheaper.moves(), same.moves()]).toEqual([
      [5000, 7500],
      [7500, 5000],
    ]);
  });
  test('a search that knows by itself when to begin anew is alone', () => {
    const alone = new Scripted(LEADER, true);
    let begun = 0;
    const race = new Race(() => {
      begun += 1;
      return alone;
    });
    race.run(50_000);
    expect([begun, alone.movesMade, race.movesMade]).toEqual([1, 50_000, 50_000]);
  });
  test('law: in whatever slices, the same searches make the same moves', () => {
    const scripts: readonly Script[] = [
      LEADER,
      [
        [0, 49],
        [900, 39],
        [1900, 29],
        [2500, 20],
      ],
      [[0, 1]],
    ];
    const whole = raceOf(...scripts);
    whole.race.run(20_000);
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 1, max: 4000 }), { maxLength: 30 }), (slices) => {
        const one = raceOf(...scripts);
        for (const slice of slices) one.race.run(Math.min(slice, 20_000 - one.race.movesMade));
        one.race.run(20_000 - one.race.movesMade);
        expect([one.moves(), one.race.bestKnown, one.race.movesMade]).toEqual([whole.moves(), 1, 20_000]);
        expect(one.moves().reduce((sum, moves) => sum + moves, 0)).toBe(20_000);
      }),
      { seed: 71, numRuns: 200 },
    );
  });
});

describe('with searches', () => {
  const day = madeDay('cook', 6, 1);
  test('a race is one search until it is challenged, and a plan after', () => {
    const [solving, search] = [startSolving(day, { seed: 2 }), new Search(day, { seed: 2 })];
    for (const moves of [1, 499, 1500]) {
      solving.run(moves);
      search.run(moves);
      expect([solving.cost(), solving.movesMade()]).toEqual([search.bestKnown, search.movesMade]);
    }
    expect(solving.sequence()).toEqual(search.sequence());
    solving.run(4500);
    const plan = solving.sequence();
    expect(violations(day, plan)).toEqual([]);
    expect(plan.objective.cost).toBeCloseTo(solving.cost(), 3);
    expect(solving.cost()).toBeLessThanOrEqual(search.bestKnown);
  });
  test('a shop is left to the search of its own', () => {
    const shop = published().find(({ name }) => name === 'ft06');
    if (shop === undefined) throw new Error('ft06 is not among the published problems.');
    const search = new Search(shop.problem, { seed: 1, guides: SHOPS });
    expect(search.isGuided).toBe(false);
    search.run(10);
    expect(search.isGuided).toBe(true);
  });
});
