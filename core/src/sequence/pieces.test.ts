import fc from 'fast-check';
import { FAMILIES, madeDay } from '../testing/days';
import { objectiveOf, violations } from './index';
import type { Problem } from './index';
import { compile, piecesOf } from './engine/compile';
import type { Compiled } from './engine/compile';
import { itemsOf } from './engine/items';
import { Laying } from './engine/laying';
import { LIST_KINDS, Lists } from './engine/lists';
import { planOf } from './engine/reading';
import { Search } from './engine/search';
import { Timetable } from './engine/timetable';
import { Waiting } from './engine/waits';
import { anyProblem, inTurn, makeJob, makeJobStep, makeProblem } from './problem.arbitrary';
import { seeded } from './random';

const SEED = 20_261_127;
const allOf = (compiled: Compiled): readonly number[] => compiled.jobs.flatMap(({ index, variants }) => (variants.length > 0 ? [index] : []));

/** Lays pieces out in this order, each said by its job and its first step; gives when each step of each job begins. */
function woven(problem: Problem, order: readonly (readonly [string, string])[], manner: 'woven' | 'late' = 'woven'): Readonly<Record<string, readonly number[]>> {
  const compiled = compile(problem);
  const table = new Timetable(compiled);
  const items = itemsOf(compiled, allOf(compiled), 'pieces', manner === 'late');
  const laying = new Laying(table, items, allOf(compiled), manner, seeded(1));
  laying.setWays(compiled.jobs.map(() => 0));
  for (const [jobId, stepId] of order) {
    const index = items.findIndex(({ job, block }) => problem.jobs[job]!.id === jobId && problem.jobs[job]!.steps[block[0]!]!.id === stepId);
    expect(index).toBeGreaterThanOrEqual(0);
    expect(laying.place(index)).toBe(true);
  }
  const plan = planOf(table);
  expect(plan.unplaced).toEqual([]);
  expect(violations(problem, plan)).toEqual([]);
  return Object.fromEntries(plan.jobs.map(({ jobId, steps }) => [jobId, steps.map(({ startMin }) => startMin)]));
}

describe('jobs in pieces', () => {
  const lawful = (problem: Problem): void => {
    for (const { job, variants } of compile(problem).jobs) {
      if (variants.length === 0) continue;
      const pieces = piecesOf(job);
      expect(pieces.flat().sort((left, right) => left - right)).toEqual(job.steps.map((_, step) => step));
      const pieceOf = (id: string): number => pieces.findIndex((piece) => piece.some((step) => job.steps[step]!.id === id));
      for (const { from, to, minMin, maxMin } of job.lags) {
        expect(pieceOf(from)).toBeLessThanOrEqual(pieceOf(to));
        if (maxMin === minMin) expect(pieceOf(from)).toBe(pieceOf(to));
      }
    }
  };
  test('law: every step is in one of them, none before what leads to it, and what leaves no play in between is in one', () => {
    for (const family of FAMILIES) lawful(madeDay(family, 12, 1));
    fc.assert(fc.property(anyProblem, lawful), { seed: SEED, numRuns: 100 });
  });
  test.each(LIST_KINDS)('law: laid out in any order, in any ways (%s), they are a plan the checker finds no fault with, at the cost that is said', (kind) => {
    let plans = 0;
    fc.assert(
      fc.property(anyProblem, fc.integer({ min: 1, max: 1000 }), (problem, seed) => {
        const compiled = compile(problem);
        const table = new Timetable(compiled);
        const random = seeded(seed);
        const waiting = new Waiting(compiled, allOf(compiled), random);
        const lists = new Lists(table, table.save(), waiting, random, allOf(compiled), kind);
        // Whichever way each job had been done in before.
        table.variantOf.set(compiled.jobs.map(({ variants }) => Math.floor(random() * variants.length)));
        lists.adopt(null);
        lists.accept(lists.order, lists.decode(lists.order));
        for (let move = 0; move < 40; move += 1) {
          const order = lists.neighbour();
          expect(Array.from(order.slice().sort())).toEqual(lists.items.map((_, index) => index));
          const cost = lists.decode(order);
          if (cost === Number.POSITIVE_INFINITY) continue;
          lists.accept(order, cost);
          if (!lists.isLaidOut) continue;
          const plan = planOf(table);
          plans += 1;
          expect(violations(problem, plan)).toEqual([]);
          if (plan.unplaced.length === 0) expect(cost).toBeCloseTo(objectiveOf(problem, plan).cost, 6);
        }
      }),
      { seed: SEED, numRuns: 150 },
    );
    expect(plans).toBeGreaterThan(1000);
  });
});

describe.each(['pieces', 'late'] as const)('orders of pieces (%s)', (kind) => {
  /** What a move has changed: an outside view of the order that was tried last. */
  interface Tried {
    triedWays: readonly number[];
  }
  const listsFor = (problem: Problem, seed: number): { readonly lists: Lists; readonly table: Timetable } => {
    const compiled = compile(problem);
    const table = new Timetable(compiled);
    const random = seeded(seed);
    const lists = new Lists(table, table.save(), new Waiting(compiled, allOf(compiled), random), random, allOf(compiled), kind);
    table.variantOf.fill(0);
    return { lists, table };
  };
  test('law: laid out from what was kept of the last order, a plan is as if laid out from the beginning', () => {
    let compared = 0;
    fc.assert(
      fc.property(anyProblem, fc.integer({ min: 1, max: 1000 }), (problem, seed) => {
        // From the end, what nobody waits for comes as soon as it can in the way that ends soonest, and of two that end alike chance takes one.
        const { jobs } = compile(problem);
        fc.pre(kind === 'pieces' || jobs.every(({ job, consumers, variants }) => job.readyByMin !== null || consumers.length > 0 || variants.length < 2));
        const { lists, table } = listsFor(problem, seed);
        lists.adopt(null);
        lists.accept(lists.order, lists.decode(lists.order));
        for (let move = 0; move < 25; move += 1) {
          const order = lists.neighbour();
          const cost = lists.decode(order);
          if (lists.isLaidOut) {
            const afresh = listsFor(problem, 1);
            afresh.lists.adopt(null);
            (afresh.lists as unknown as Tried).triedWays = (lists as unknown as Tried).triedWays;
            expect(afresh.lists.decode(order)).toBe(cost);
            expect(Array.from(afresh.table.start)).toEqual(Array.from(table.start));
            compared += 1;
          }
          if (cost < Number.POSITIVE_INFINITY) lists.accept(order, cost);
        }
      }),
      { seed: SEED, numRuns: 60 },
    );
    expect(compared).toBeGreaterThan(300);
  });
});

describe('pushed back', () => {
  test('law: nothing ends later than it did, but for what was to be ready later, and the cost is never more', () => {
    let pushed = 0;
    for (const family of FAMILIES)
      for (const size of [4, 8]) {
        const problem = madeDay(family, size, 3);
        const compiled = compile(problem);
        const table = new Timetable(compiled);
        const random = seeded(1);
        const lists = new Lists(table, table.save(), new Waiting(compiled, allOf(compiled), random), random, allOf(compiled), 'pieces');
        table.variantOf.fill(0);
        lists.adopt(null);
        const laying = new Laying(table, lists.items, allOf(compiled), 'woven', random);
        laying.setWays(compiled.jobs.map(() => 0));
        laying.begin();
        expect(lists.order.every((item) => laying.place(item))).toBe(true);
        const [ends, before] = [Array.from(table.end), table.cost()];
        expect(lists.decode(lists.order)).toBeLessThanOrEqual(before);
        compiled.jobs.forEach(({ job }, index) => {
          const end = table.end[index]!;
          if (end === ends[index]) return;
          pushed += 1;
          if (job.readyByMin !== null) expect(end).toBeLessThanOrEqual(Math.max(job.readyByMin - job.bufferMin, ends[index]!));
        });
        expect(violations(problem, planOf(table))).toEqual([]);
      }
    expect(pushed).toBeGreaterThan(5);
  });
});

describe('woven by hand', () => {
  const hands = (units: number): readonly { readonly resourceId: string; readonly units: number }[] => [{ resourceId: 'hands', units }];
  /** One cook; a batch is stirred for 10 minutes by both hands, simmers for 30 with a look now and then, and is blended for 10. It may wait ten minutes after each. */
  const batch = (id: string, kettle: string): Problem['jobs'][number] => {
    const steps = [makeJobStep('sweat', 10, { uses: hands(4) }), makeJobStep('simmer', 30, { uses: hands(1) }), makeJobStep('blend', 10, { uses: hands(4) })];
    return makeJob(id, { steps, lags: inTurn(steps, [10, 10]), changeClass: 'plain', spans: [{ id: 'pot', unitIds: [kettle], from: 'sweat', to: 'blend', until: 'end' }] });
  };
  const station = (jobs: Problem['jobs']): Problem =>
    makeProblem({
      resources: [{ id: 'hands', name: '', capacity: 4, windows: [] }],
      units: ['k1', 'k2'].map((id) => ({ id, name: '', volume: null, changeoverId: 'wash' })),
      changeovers: [{ id: 'wash', classes: ['plain'], min: [[5]], uses: hands(4) }],
      jobs,
    });
  test('two batches give way to each other: one after the other they take 100 minutes, woven 70', () => {
    const two = station([batch('a', 'k1'), batch('b', 'k2')]);
    expect(
      woven(
        two,
        ['a', 'b'].flatMap((id) => ['sweat', 'simmer', 'blend'].map((step) => [id, step] as const)),
      ),
    ).toEqual({ a: [0, 10, 40], b: [50, 60, 90] });
    expect(
      woven(two, [
        ['a', 'sweat'],
        ['b', 'sweat'],
        ['a', 'simmer'],
        ['b', 'simmer'],
        ['a', 'blend'],
        ['b', 'blend'],
      ]),
    ).toEqual({ a: [0, 20, 50], b: [10, 20, 60] });
  });
  test('what is laid of a batch begins later when the rest comes so late that it would wait too long', () => {
    const other = makeJob('c', { steps: [makeJobStep('cut', 60, { uses: hands(4) })], releaseMin: 10 });
    expect(
      woven(station([batch('a', 'k1'), other]), [
        ['a', 'sweat'],
        ['c', 'cut'],
        ['a', 'simmer'],
        ['a', 'blend'],
      ]),
    ).toEqual({ a: [70, 80, 110], c: [10] });
  });
  test('whoever stands in a kettle leaves it before another comes in, and it is washed', () => {
    expect(
      woven(station([batch('a', 'k1'), batch('b', 'k1')]), [
        ['a', 'sweat'],
        ['b', 'sweat'],
        ['b', 'simmer'],
        ['b', 'blend'],
      ]),
    ).toEqual({ a: [0, 10, 40], b: [55, 65, 95] });
  });
  describe('from the end', () => {
    const wanted = (id: string, kettle: string, readyByMin: number): Problem['jobs'][number] => ({ ...batch(id, kettle), readyByMin });
    const backwards = (ids: readonly string[]): readonly (readonly [string, string])[] => ['blend', 'simmer', 'sweat'].flatMap((step) => ids.map((id) => [id, step] as const));
    test('two batches give way to each other: one before the other they begin 100 minutes before they are wanted, woven 70', () => {
      const two = station([wanted('a', 'k1', 200), wanted('b', 'k2', 200)]);
      const inTurns = [...backwards(['b']), ...backwards(['a'])];
      expect(woven(two, inTurns, 'late')).toEqual({ a: [100, 110, 140], b: [150, 160, 190] });
      expect(woven(two, backwards(['b', 'a']), 'late')).toEqual({ a: [130, 150, 180], b: [140, 150, 190] });
    });
    test('what is laid of a batch ends sooner when the rest comes so early that it would wait too long', () => {
      const other = makeJob('c', { steps: [makeJobStep('cut', 60, { uses: hands(4) })], readyByMin: 190 });
      expect(
        woven(
          station([wanted('a', 'k1', 200), other]),
          [
            ['a', 'blend'],
            ['c', 'cut'],
            ['a', 'simmer'],
            ['a', 'sweat'],
          ],
          'late',
        ),
      ).toEqual({ a: [80, 90, 120], c: [130] });
    });
    test('whoever leaves a kettle is laid out to where it came in before another leaves it, and it is washed in between', () => {
      const two = station([wanted('a', 'k1', 200), wanted('b', 'k1', 200)]);
      expect(
        woven(
          two,
          [
            ['b', 'blend'],
            ['a', 'blend'],
            ['a', 'simmer'],
            ['a', 'sweat'],
          ],
          'late',
        ),
      ).toEqual({ a: [95, 105, 135], b: [150, 160, 190] });
    });
    test('what cannot be ready by when it is wanted comes as soon after as it can', () => {
      expect(woven(station([wanted('a', 'k1', 40)]), backwards(['a']), 'late')).toEqual({ a: [0, 10, 40] });
    });
    test('what is begun from the end of a stock stays before the soup, wherever the rest of the soup has to go', () => {
      const hands = [{ resourceId: 'hands', units: 1 }];
      const soupSteps = [makeJobStep('sweat', 10, { uses: hands }), makeJobStep('boil', 20, { afterJobs: ['stock'] })];
      const stockSteps = [makeJobStep('roast', 10), makeJobStep('strain', 10)];
      const problem = makeProblem({
        // Nobody is there from 40 to 80, so that the soup cannot be sweated just before it is to boil at 80.
        resources: [
          {
            id: 'hands',
            name: '',
            capacity: 1,
            windows: [
              { fromMin: 0, toMin: 40, capacity: 1 },
              { fromMin: 80, toMin: 500, capacity: 1 },
            ],
          },
        ],
        jobs: [
          makeJob('soup', { steps: soupSteps, lags: inTurn(soupSteps, [5]), readyByMin: 100 }),
          makeJob('stock', { steps: stockSteps, lags: inTurn(stockSteps, [null]), readyByMin: null }),
        ],
      });
      const order = [
        ['soup', 'boil'],
        ['stock', 'strain'],
        ['soup', 'sweat'],
        ['stock', 'roast'],
      ] as const;
      expect(woven(problem, order, 'late')).toEqual({ soup: [80, 90], stock: [60, 70] });
    });
  });
  test('a batch that is laid out early for what takes from it changes its way with it', () => {
    // The stock comes last in the order, and first on the table: the soup needs it.
    const cook = makeJobStep('cook', 10);
    const stock = makeJob('stock', { steps: [makeJobStep('boil', 30)], spans: [{ id: 'pot', unitIds: ['k1', 'k2'], from: 'boil', to: 'boil', until: 'end' }] });
    const soup = makeJob('soup', { steps: [{ ...cook, afterJobs: ['stock'] }], readyByMin: 60 });
    const fillers = ['x', 'y', 'z'].map((id) => makeJob(id, { steps: [makeJobStep('cut', 5)], readyByMin: 60 }));
    const compiled = compile(station([soup, ...fillers, stock]));
    const table = new Timetable(compiled);
    const random = seeded(3);
    const lists = new Lists(table, table.save(), new Waiting(compiled, allOf(compiled), random), random, allOf(compiled), 'pieces');
    table.variantOf.fill(0);
    lists.adopt(null);
    const inTurns = Int32Array.of(0, 1, 2, 3, 4);
    lists.accept(inTurns, lists.decode(inTurns));
    const at = compiled.jobs.length - 1;
    let changed = 0;
    for (let move = 0; move < 1000; move += 1) {
      const order = lists.neighbour();
      const way = (lists as unknown as { triedWays: readonly number[] }).triedWays[at]!;
      if (way !== table.variantOf[at]) changed += 1;
      lists.accept(order, lists.decode(order));
      expect(table.variantOf[at]).toBe(way);
    }
    expect(changed).toBeGreaterThan(5);
  });
  test('the search finds the weave by itself', () => {
    const search = new Search(station([batch('a', 'k1'), batch('b', 'k2')]), { seed: 1 });
    search.run(2000);
    expect(search.sequence().objective.makespanMin).toBe(70);
  });
});
