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
  test('for three thousand moves nobody is challenged', () => {
    const { race, moves } = raceOf(LEADER);
    race.run(2999);
    expect([moves(), race.bestKnown]).toEqual([[2999], 30]);
  });
  test('a challenger no cheaper at its first look than the leader was then is given up, and another begins, until they have made a quarter of what the leader has; then that goes on by half', () => {
    const { race, moves } = raceOf(LEADER, [
      [0, 100],
      [400, 50],
    ]);
    race.run(4000);
    expect(moves()).toEqual([3000, 500, 500]);
    race.run(1500);
    expect(moves()).toEqual([4500, 500, 500]);
    race.run(1);
    expect(moves()).toEqual([4500, 500, 500, 1]);
  });
  test('one that is cheaper at a look goes on to the next, and is given up when it has fallen behind', () => {
    const { race, moves } = raceOf(LEADER, [
      [0, 49],
      [900, 39],
    ]);
    race.run(3000 + 2000);
    expect(moves()).toEqual([3000, 2000]);
    race.run(1);
    expect(moves()).toEqual([3001, 2000]);
    race.run(1499);
    expect(moves()).toEqual([4500, 2000]);
  });
  test('one that is cheaper at every look and at the age of the leader takes its place, and the best is known before that', () => {
    const { race, moves } = raceOf(LEADER, [
      [0, 49],
      [900, 39],
      [1900, 29],
      [2500, 20],
    ]);
    race.run(3000 + 2600);
    expect([race.bestKnown, moves()]).toEqual([20, [3000, 2600]]);
    race.run(400 + 1500);
    expect([race.bestKnown, moves()]).toEqual([20, [3000, 4500]]);
  });
  test('one as dear at the age of the leader does not', () => {
    const { race, moves } = raceOf(LEADER, [
      [0, 49],
      [900, 39],
      [1900, 29],
    ]);
    const same = raceOf(LEADER, [
      [0, 49],
      [900, 39],
      [1900, 29.5],
      [2100, 29],
    ]);
    const dearer = raceOf(LEADER.concat([[2900, 29]]), [
      [0, 49],
      [900, 39],
      [1900, 29],
    ]);
    for (const one of [race, same.race, dearer.race]) one.run(3000 + 3000 + 1500);
    expect([moves(), same.moves(), dearer.moves()]).toEqual([
      [3000, 4500],
      [3000, 4500],
      [4500, 3000],
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
    solving.run(4000);
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
