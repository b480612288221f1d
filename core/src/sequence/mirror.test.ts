import fc from 'fast-check';
import { madeDay } from '../testing/days';
import { objectiveOf, violations } from './index';
import type { Problem } from './index';
import { compile } from './engine/compile';
import { EntryOrders } from './engine/entries';
import { holdsMirrored, mirrored } from './engine/mirror';
import { planOf } from './engine/reading';
import { Search } from './engine/search';
import type { Timetable } from './engine/timetable';
import { inOrder, laidAnew } from './inOrder.arbitrary';
import { anyProblem, inTurn, makeJob, makeJobStep, makeProblem } from './problem.arbitrary';

const SEED = 20_261_130;

interface Begun {
  readonly entries: EntryOrders;
  readonly table: Timetable;
  /** Puts what was taken last on the table. */
  readonly put: () => boolean;
}

/** A plan of whole jobs in order, told backwards; null when something finds no place or it cannot be told so. */
function begun(problem: Problem, seed: number): Begun | null {
  const laid = inOrder(problem, seed);
  if (laid === null) return null;
  const { compiled, table, empty, all, random } = laid;
  const entries = EntryOrders.backward(compiled, all, random);
  if (entries === null) return null;
  entries.adopt(table);
  return { entries, table, put: () => entries.put(table, empty) };
}

/** Makes so many moves; tells of each that was taken, and is a plan, what it is said to cost. */
function move({ entries, put }: Begun, moves: number, limitOf: (cost: number) => number, tell: (cost: number) => void): void {
  for (let made = 0; made < moves; made += 1) {
    // At first the plan itself is laid out anew, and is no plan when it comes out dearer.
    const limit = made === 0 ? entries.cost : limitOf(entries.cost);
    if (made > 0) entries.begin(limit);
    const cost = laidAnew(entries);
    if (cost > limit || cost === Number.POSITIVE_INFINITY) continue;
    entries.accept(cost);
    if (put()) tell(cost);
  }
}

const hands = (units: number): { readonly uses: Problem['jobs'][number]['steps'][number]['modes'][number]['uses'] } => ({ uses: [{ resourceId: 'hands', units }] });

describe('a day told backwards', () => {
  test('law: what is put on the table is a plan the checker finds no fault with, nothing in it is late, and it costs what is said', () => {
    let plans = 0;
    fc.assert(
      fc.property(anyProblem, fc.integer({ min: 1, max: 1000 }), (problem, seed) => {
        const made = begun(problem, seed);
        if (made === null) return;
        move(
          made,
          8,
          () => Number.POSITIVE_INFINITY,
          (cost) => {
            const plan = planOf(made.table);
            plans += 1;
            expect(plan.unplaced).toEqual([]);
            expect(violations(problem, plan)).toEqual([]);
            const objective = objectiveOf(problem, plan);
            expect([objective.lateMin, objective.shortMin]).toEqual([0, 0]);
            expect(cost).toBeCloseTo(objective.cost, 6);
          },
        );
      }),
      { seed: SEED, numRuns: 100 },
    );
    expect(plans).toBeGreaterThan(100);
  });
  test('law: on days of one cook, with stocks and washes, within the limit', () => {
    for (const number of [2, 4, 9]) {
      const problem = madeDay('cook', 6, number);
      let plans = 0;
      const made = begun(problem, 1)!;
      move(
        made,
        // From a plan of whole jobs that is hours late it takes 10 to 150, by seed, until nothing is.
        200,
        (cost) => cost * 1.05,
        (cost) => {
          plans += 1;
          const plan = planOf(made.table);
          expect(violations(problem, plan)).toEqual([]);
          expect(cost).toBeCloseTo(objectiveOf(problem, plan).cost, 6);
        },
      );
      expect(plans).toBeGreaterThan(3);
    }
  });
  test('lags, spans, washes and shifts are turned round', () => {
    const steps = [makeJobStep('one', 10), makeJobStep('two', 5)];
    const problem = makeProblem({
      resources: [{ id: 'hands', name: '', capacity: 4, windows: [{ fromMin: 60, toMin: 90, capacity: 4 }] }],
      changeovers: [
        {
          id: 'wash',
          classes: ['x', 'y'],
          min: [
            [1, 2],
            [3, 4],
          ],
          uses: [],
        },
      ],
      units: [{ id: 'k', name: '', volume: null, changeoverId: 'wash' }],
      jobs: [
        makeJob('a', {
          steps,
          lags: [
            { from: 'one', to: 'two', kind: 'endStart', minMin: 2, maxMin: 7 },
            { from: 'one', to: 'two', kind: 'startStart', minMin: 13, maxMin: null },
          ],
          spans: [{ id: 'pot', unitIds: ['k'], from: 'one', to: 'two', until: 'end' }],
          releaseMin: 20,
          readyByMin: 110,
          bufferMin: 10,
        }),
      ],
    });
    const { compiled } = mirrored(compile(problem))!;
    const [job] = compiled.problem.jobs;
    expect(job?.lags).toEqual([
      { from: 'two', to: 'one', kind: 'endStart', minMin: 2, maxMin: 7 },
      { from: 'two', to: 'one', kind: 'endEnd', minMin: 13, maxMin: null },
    ]);
    expect([job?.spans[0]?.from, job?.spans[0]?.to]).toEqual(['two', 'one']);
    // Wanted at 100 with its room: told backwards that is minute 0, and 20 is minute 80.
    expect([compiled.horizon, job?.releaseMin, job?.readyByMin]).toEqual([100, 0, 80]);
    expect(compiled.problem.changeovers[0]?.min).toEqual([
      [1, 3],
      [2, 4],
    ]);
    expect(compiled.problem.resources[0]?.windows).toEqual([{ fromMin: 10, toMin: 40, capacity: 4 }]);
  });
  test('what stood in a unit is washed for after what came after it', () => {
    expect(
      holdsMirrored(
        [
          { job: 0, from: 10, to: 30, washFrom: 10, washTo: 10 },
          { job: 1, from: 45, to: 80, washFrom: 32, washTo: 44 },
        ],
        100,
      ),
    ).toEqual([
      { job: 1, from: 20, to: 55, washFrom: 20, washTo: 20 },
      { job: 0, from: 70, to: 90, washFrom: 56, washTo: 68 },
    ]);
  });
  test('it is not told so once something has happened, is pinned, or a unit is only held until a step begins', () => {
    const steps = [makeJobStep('one', 10), makeJobStep('two', 5)];
    const job = makeJob('a', { steps, lags: inTurn(steps), readyByMin: 60 });
    const told = (some: Partial<typeof job>): boolean =>
      mirrored(compile(makeProblem({ units: [{ id: 'k', name: '', volume: null, changeoverId: null }], jobs: [{ ...job, ...some }] }))) !== null;
    const span = { id: 'pot', unitIds: ['k'], from: 'one', to: 'two' };
    expect(told({})).toBe(true);
    expect(told({ spans: [{ ...span, until: 'end' }] })).toBe(true);
    expect(told({ spans: [{ ...span, until: 'start' }] })).toBe(false);
    expect(told({ steps: [{ ...steps[0]!, fixed: { kind: 'done', startMin: 0, endMin: 10 } }, steps[1]!] })).toBe(false);
    expect(told({ steps: [{ ...steps[0]!, fixed: { kind: 'pinned', startMin: 5 } }, steps[1]!] })).toBe(false);
    // Two last steps: nobody knows which it is ready with.
    expect(told({ lags: [] })).toBe(false);
    expect(told({ readyByMin: null })).toBe(false);
  });
  test('two are to be ready together and one cook empties both: one of them stands for as long as that takes, whichever it is', () => {
    const soup = (id: string, kettle: string, emptyMin: number): Problem['jobs'][number] => {
      const steps = [makeJobStep('cook', 30, hands(1)), makeJobStep('empty', emptyMin, hands(4))];
      return makeJob(id, { steps, lags: inTurn(steps, [20]), spans: [{ id: 'pot', unitIds: [kettle], from: 'cook', to: 'empty', until: 'end' }], readyByMin: 100 });
    };
    const problem = makeProblem({
      resources: [{ id: 'hands', name: '', capacity: 4, windows: [] }],
      units: ['k1', 'k2'].map((id) => ({ id, name: '', volume: null, changeoverId: null })),
      jobs: [soup('slow', 'k1', 9), soup('quick', 'k2', 4)],
    });
    const made = begun(problem, 1)!;
    let least = Number.POSITIVE_INFINITY;
    move(
      made,
      40,
      (cost) => cost * 1.5,
      (cost) => (least = Math.min(least, cost)),
    );
    // The slow one last: the quick one stands its nine minutes; the other way round it would be four.
    expect(least).toBe(4 * problem.weights.early + 100 * problem.weights.makespan);
  });
  test('asked for its plan at any time, a search goes on the way it was going', () => {
    // Late at first: what is found in the middle of a turn makes it fresh.
    for (const [size, number] of [
      [6, 5],
      [6, 10],
      [8, 5],
    ] as const) {
      const day = madeDay('cook', size, number);
      const search = new Search(day, { seed: 1 });
      let [wasLate, isFresh] = [false, false];
      for (let asked = 0; asked < 500 && !isFresh; asked += 1) {
        search.run(7);
        const { lateMin } = search.sequence().objective;
        wasLate ||= lateMin > 0;
        if (lateMin > 0) continue;
        isFresh = true;
        search.run(300);
      }
      expect([wasLate, isFresh]).toEqual([true, true]);
      expect(violations(day, search.sequence())).toEqual([]);
    }
  });
  test('as soon as nothing is late any more, entries go on backwards', () => {
    interface Inside {
      readonly turns: { readonly turn: string };
      readonly bestLateness: number;
      readonly isBackward: boolean;
    }
    let turned = 0;
    for (const number of [2, 5, 7]) {
      const search = new Search(madeDay('cook', 8, number), { seed: 2 });
      const now = search as unknown as Inside;
      const isForward = (): boolean => now.turns.turn === 'entries' && !now.isBackward;
      const isOver = (): boolean => isForward() && now.bestLateness === 0;
      for (let move = 0; move < 4000 && !isOver() && !now.isBackward; move += 1) search.run(1);
      expect(isOver()).toBe(false);
      if (now.isBackward) turned += now.turns.turn === 'entries' ? 1 : 0;
    }
    expect(turned).toBeGreaterThan(0);
  });
  test('entries have as long a turn as others while something is late, told backwards four times as long', () => {
    interface Inside {
      readonly turns: { readonly turn: string };
      readonly moves: number;
    }
    const turnsOf = (size: number, number: number): readonly number[] => {
      const search = new Search(madeDay('cook', size, number), { seed: 1 });
      const now = search as unknown as Inside;
      const lengths: number[] = [];
      let [from, was] = [0, now.turns.turn];
      while (lengths.length < 2 && now.moves < 10_000) {
        search.run(1);
        if (now.turns.turn === was) continue;
        lengths.push(now.moves - from);
        [from, was] = [now.moves, now.turns.turn];
      }
      return lengths;
    };
    // Whole jobs first (five beginnings, then a cycle of a hundred moves for each job), then entries: something is late on this day to the end, and nothing on that.
    expect(turnsOf(12, 1)).toEqual([1005, 1000]);
    expect(turnsOf(6, 2)).toEqual([605, 2400]);
  });
  test('it has its turn on a fresh day of one cook, and the same seed gives the same plan', () => {
    const day = madeDay('cook', 6, 4);
    const plans = [1, 1].map((seed) => {
      const search = new Search(day, { seed });
      search.run(2500);
      expect((search as unknown as { readonly backward: EntryOrders | null | undefined }).backward).toBeInstanceOf(EntryOrders);
      return search.sequence();
    });
    expect(plans[0]).toEqual(plans[1]);
    expect([violations(day, plans[0]!), plans[0]?.objective.lateMin]).toEqual([[], 0]);
  });
});
