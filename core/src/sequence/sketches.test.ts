import fc from 'fast-check';
import { FAMILIES, madeDay } from '../testing/days';
import { objectiveOf, violations } from './index';
import type { Problem } from './index';
import { compile } from './engine/compile';
import { rivalsOfWashed, withWashes } from './engine/items';
import { Moves } from './engine/moves';
import { Outline } from './engine/outline';
import { planOf } from './engine/reading';
import { Search } from './engine/search';
import { Sketches } from './engine/sketches';
import type { Sketch } from './engine/sketch';
import { Timetable } from './engine/timetable';
import type { Saved } from './engine/timetable';
import { inOrder, lateOnly } from './inOrder.arbitrary';
import { anyProblem, inTurn, makeJob, makeJobStep, makeProblem } from './problem.arbitrary';
import { seeded } from './random';

const SEED = 20_261_127;

/** What was tried last, and what it is laid out with: an outside view. */
interface Inside {
  readonly sketch: Sketch;
  readonly tried: Int32Array;
  readonly triedWays: Int32Array;
}

interface Drawn {
  readonly sketches: Sketches;
  readonly table: Timetable;
  readonly empty: Saved;
}

/** A plan of whole jobs in order, and sketches that begin with it; null when something finds no place. */
function drawn(problem: Problem, seed: number): Drawn | null {
  const laid = inOrder(problem, seed);
  if (laid === null) return null;
  const { compiled, table, empty, all, random } = laid;
  const sketches = new Sketches(compiled, empty, all, random);
  sketches.adopt(table);
  return { sketches, table, empty };
}

describe('sketches of a day', () => {
  test('law: put on the table, each is a plan the checker finds no fault with, at the cost that is said', () => {
    let plans = 0;
    fc.assert(
      fc.property(anyProblem, fc.integer({ min: 1, max: 1000 }), (problem, seed) => {
        const made = drawn(problem, seed);
        if (made === null || made.sketches.cost === Number.POSITIVE_INFINITY) return;
        const { sketches, table, empty } = made;
        for (let move = 0; move < 60; move += 1) {
          const cost = sketches.neighbour(Number.POSITIVE_INFINITY);
          if (cost === Number.POSITIVE_INFINITY || !sketches.accept(cost)) continue;
          sketches.put(table, empty);
          const bits = table.partAt('bits');
          const { sketch } = sketches as unknown as Inside;
          // What is free of every resource is the same in the kernel's memory and on the table.
          expect(sketch.outline.lies().slice(-bits.length)).toEqual(Array.from(bits));
          const plan = planOf(table);
          plans += 1;
          expect(plan.unplaced).toEqual([]);
          expect(violations(problem, plan)).toEqual([]);
          expect(cost).toBeCloseTo(objectiveOf(lateOnly(problem), plan).cost, 6);
          expect(sketches.lateness).toBeCloseTo(sketches.latenessOf(table), 6);
        }
      }),
      { seed: SEED, numRuns: 120 },
    );
    expect(plans).toBeGreaterThan(1000);
  });
  test('law: laid out from what was kept of the last order, each is as if laid out from the beginning', () => {
    let compared = 0;
    fc.assert(
      fc.property(anyProblem, fc.integer({ min: 1, max: 1000 }), (problem, seed) => {
        const made = drawn(problem, seed);
        const again = drawn(problem, seed);
        if (made === null || again === null || made.sketches.cost === Number.POSITIVE_INFINITY) return;
        const { sketches } = made;
        const { sketch: afresh } = again.sketches as unknown as Inside;
        for (let move = 0; move < 40; move += 1) {
          const cost = sketches.neighbour(Number.POSITIVE_INFINITY);
          const { tried, triedWays } = sketches as unknown as Inside;
          afresh.begin();
          expect(afresh.lay(tried, triedWays, tried, -1, Number.POSITIVE_INFINITY, 0)).toBe(cost);
          if (cost < Number.POSITIVE_INFINITY) sketches.accept(cost);
          compared += 1;
        }
      }),
      { seed: SEED, numRuns: 100 },
    );
    expect(compared).toBeGreaterThan(2000);
  });
  test('law: above the limit it stops, and says so', () => {
    let stopped = 0;
    for (const family of FAMILIES) {
      const made = drawn(madeDay(family, 8, 2), 1);
      const again = drawn(madeDay(family, 8, 2), 1);
      for (let move = 0; move < 200; move += 1) {
        const exact = made!.sketches.neighbour(Number.POSITIVE_INFINITY);
        const said = again!.sketches.neighbour(again!.sketches.cost);
        if (said > again!.sketches.cost) stopped += 1;
        expect(said > again!.sketches.cost).toBe(exact > made!.sketches.cost);
        if (exact > made!.sketches.cost) continue;
        made!.sketches.accept(exact);
        again!.sketches.accept(said);
      }
    }
    expect(stopped).toBeGreaterThan(300);
  });
  test('a wash has its place in the order: hands wash first, or go on with something else', () => {
    const hands = (units: number): readonly { readonly resourceId: string; readonly units: number }[] => [{ resourceId: 'hands', units }];
    const inKettle = (id: string, releaseMin: number): Problem['jobs'][number] =>
      makeJob(id, {
        steps: [makeJobStep('cook', 20, { uses: hands(4) })],
        releaseMin,
        changeClass: 'plain',
        spans: [{ id: 'pot', unitIds: ['k1'], from: 'cook', to: 'cook', until: 'end' }],
      });
    const cut = makeJob('cut', { steps: [makeJobStep('cut', 30, { uses: hands(4) })] });
    const problem = makeProblem({
      resources: [{ id: 'hands', name: '', capacity: 4, windows: [] }],
      units: [{ id: 'k1', name: '', volume: null, changeoverId: 'wash' }],
      changeovers: [{ id: 'wash', classes: ['plain'], min: [[5]], uses: hands(4) }],
      jobs: [inKettle('a', 0), inKettle('b', 25), cut],
    });
    const compiled = compile(problem);
    const { items, pieces } = withWashes(compiled, [0, 1, 2]);
    const washOf = (job: number): number => items.findIndex((item, index) => index >= pieces && item.job === job);
    expect(items).toHaveLength(5);
    const { sketches, table, empty } = drawn(problem, 1)!;
    const { sketch } = sketches as unknown as Inside;
    const startsIn = (order: readonly number[]): readonly number[] => {
      sketch.begin();
      expect(sketch.lay(Int32Array.from(order), new Int32Array(3), Int32Array.from(order), -1, Number.POSITIVE_INFINITY, 0)).toBeLessThan(Number.POSITIVE_INFINITY);
      sketch.accept();
      sketch.outline.put(table, empty);
      return planOf(table).jobs.map(({ steps }) => steps[0]!.startMin);
    };
    expect(startsIn([washOf(0), 0, washOf(1), 1, 2])).toEqual([0, 25, 45]);
    expect(startsIn([washOf(0), 0, washOf(1), 2, 1])).toEqual([0, 55, 25]);
    expect(startsIn([washOf(0), 0, 2, washOf(1), 1])).toEqual([0, 55, 20]);
  });
  test('two that wait for each other to leave a unit cannot be sketched in that order', () => {
    const inTurns = (id: string, first: string, second: string): Problem['jobs'][number] => {
      const steps = [makeJobStep('one', 10), makeJobStep('two', 10)];
      return makeJob(id, {
        steps,
        lags: inTurn(steps),
        spans: [
          { id: 'from', unitIds: [first], from: 'one', to: 'two', until: 'start' },
          { id: 'to', unitIds: [second], from: 'two', to: 'two', until: 'end' },
        ],
      });
    };
    const problem = makeProblem({
      units: ['k1', 'k2'].map((id) => ({ id, name: '', volume: null, changeoverId: null })),
      jobs: [inTurns('a', 'k1', 'k2'), inTurns('b', 'k2', 'k1')],
    });
    const { sketches } = drawn(problem, 1)!;
    const { sketch } = sketches as unknown as Inside;
    const cost = (order: readonly number[]): number => {
      sketch.begin();
      return sketch.lay(Int32Array.from(order), new Int32Array(2), Int32Array.from(order), -1, Number.POSITIVE_INFINITY, 0);
    };
    expect(cost([0, 1, 2, 3])).toBeLessThan(Number.POSITIVE_INFINITY);
    expect(cost([0, 2, 1, 3])).toBe(Number.POSITIVE_INFINITY);
  });
});

describe('an outline', () => {
  test('law: laid out in other ways in between, it comes to what one comes to that never was', () => {
    let laid = 0;
    fc.assert(
      fc.property(anyProblem, fc.integer({ min: 1, max: 1000 }), (problem, seed) => {
        const compiled = compile(problem);
        const { jobs } = compiled;
        const ordered = jobs.flatMap(({ index, variants, begun }) => (variants.length > 0 && !begun ? [index] : []));
        const outline = (): Outline => new Outline(compiled, new Timetable(compiled).save(), withWashes(compiled, ordered));
        const used = outline();
        const random = seeded(seed);
        for (let turn = 0; turn < 6; turn += 1) {
          const ways = Int32Array.from(jobs, ({ variants }) => Math.floor(random() * Math.max(1, variants.length)));
          const once = outline();
          const [before, after] = [used, once].map((one) => {
            one.begin(ways);
            const isLaid = one.items.every((_, item) => one.place(item));
            return isLaid ? [one.lies(), one.total()] : null;
          });
          expect(before).toEqual(after);
          if (after !== null) laid += 1;
        }
      }),
      { seed: SEED, numRuns: 60 },
    );
    expect(laid).toBeGreaterThan(100);
  });
});

describe('moves of an order', () => {
  test('law: whoever meets is met, nobody of its own job, and a wash meets what the piece meets that it is for', () => {
    const compiled = compile(madeDay('cook', 8, 1));
    const washed = withWashes(
      compiled,
      compiled.jobs.map(({ index }) => index),
    );
    const { items, pieces } = washed;
    const rivals = rivalsOfWashed(compiled, washed);
    rivals.forEach((own, at) => {
      expect(own.every((other) => rivals[other]!.includes(at) && items[other]!.job !== items[at]!.job)).toBe(true);
      for (const wash of items[at]!.before.filter((before) => before >= pieces)) expect(rivals[wash]).toEqual(own);
    });
    const hands = compiled.problem.resources.findIndex(({ id }) => id === 'hands');
    const asksHands = items.map(({ job, block }) => block.some((step) => compiled.jobs[job]!.variants[0]!.uses[step]!.some((level) => compiled.levels[level]!.resource === hands)));
    const asking = items.flatMap((_, at) => (at < pieces && asksHands[at] === true ? [at] : []));
    for (const at of asking) for (const other of asking) expect(rivals[at]!.includes(other)).toBe(items[at]!.job !== items[other]!.job);
  });
  test('law: every move is an order of the same things, and mostly another one', () => {
    const compiled = compile(madeDay('cook', 12, 1));
    const washed = withWashes(
      compiled,
      compiled.jobs.map(({ index }) => index),
    );
    const { items } = washed;
    const moves = new Moves(compiled, items, rivalsOfWashed(compiled, washed), true, seeded(5));
    const start = Int32Array.from(items, (_, index) => (index * 37) % 400);
    moves.lie(
      start,
      start.map((at) => at + 10),
    );
    let order: Int32Array = Int32Array.from(items, (_, index) => index);
    let changed = 0;
    for (let move = 0; move < 3000; move += 1) {
      const next: Int32Array = move % 3 === 0 ? moves.jobMoved(order) : moves.moved(order, move % 3 === 1);
      expect(Array.from(next.slice().sort())).toEqual(items.map((_, index) => index));
      if (next.some((item, at) => item !== order[at])) changed += 1;
      order = next;
    }
    expect(changed).toBeGreaterThan(2000);
  });
});

describe('a late day under way', () => {
  test('what is under way stays where it is, and the rest is a plan', () => {
    const day = madeDay('cook', 8, 1);
    const first = new Search(day, { seed: 1 });
    first.run(500);
    const { jobs } = first.sequence();
    const now = 400;
    const problem: Problem = {
      ...day,
      jobs: day.jobs.map((job) => {
        const placed = jobs.find(({ jobId }) => jobId === job.id)!;
        const begun = placed.steps.some(({ startMin }) => startMin < now);
        return {
          ...job,
          releaseMin: now,
          // It stands where it stands.
          spans: begun ? job.spans.map((span, at) => ({ ...span, unitIds: [placed.spanUnitIds[at]!] })) : job.spans,
          steps: job.steps.map((step, at) => {
            const { startMin, endMin, modeId } = placed.steps[at]!;
            if (startMin >= now) return step;
            return { ...step, modes: step.modes.filter(({ id }) => id === modeId), fixed: { kind: 'done' as const, startMin, endMin } };
          }),
        };
      }),
    };
    const search = new Search(problem, { seed: 3 });
    // Sketches have their turn when whole jobs find nothing more, whenever that is.
    const inside = search as unknown as { readonly sketches: Sketches | null };
    while (inside.sketches === null && search.movesMade < 20_000) search.run(500);
    expect(inside.sketches).not.toBeNull();
    search.run(500);
    const plan = search.sequence();
    expect(plan.unplaced).toEqual([]);
    expect(violations(problem, plan)).toEqual([]);
  });
});
