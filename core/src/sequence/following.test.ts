import { madeDay } from '../testing/days';
import type { Problem } from './index';
import { Beam } from './engine/beam';
import { compile } from './engine/compile';
import { Following } from './engine/following';
import { withWashes } from './engine/items';
import { anyManner, PLAIN } from './engine/manner';
import type { Manner } from './engine/manner';
import { Outline } from './engine/outline';
import { Timetable } from './engine/timetable';
import { inTurn, makeJob, makeJobStep, makeProblem } from './problem.arbitrary';
import { seeded } from './random';

const hands = (units: number): { readonly uses: Problem['jobs'][number]['steps'][number]['modes'][number]['uses'] } => ({ uses: [{ resourceId: 'hands', units }] });
const RESOURCES = [{ id: 'hands', name: '', capacity: 4, windows: [] }];

function outlineOf(problem: Problem): Outline {
  const compiled = compile(problem);
  return new Outline(
    compiled,
    new Timetable(compiled).save(),
    withWashes(
      compiled,
      compiled.jobs.map(({ index }) => index),
    ),
  );
}

/** When each job ends once all have come in, in their order, and got out in this manner. */
function endsOf(problem: Problem, manner: Manner, order: readonly number[] = []): readonly number[] {
  const outline = outlineOf(problem);
  const following = new Following(outline);
  outline.compiled.jobs.forEach(({ index }) => {
    for (const item of following.itemsOf(index, 'entry')) expect(outline.place(item)).toBe(true);
  });
  const placeOf = new Int32Array(outline.items.length);
  order.forEach((item, place) => {
    placeOf[item] = place;
  });
  expect(following.getOut(manner, placeOf)).toBe(true);
  return Array.from(outline.ends());
}

describe('how everybody who is in gets out', () => {
  const inKettle = (id: string, thenMin: number, withinMin: number): Problem['jobs'][number] => {
    const steps = [makeJobStep('in', 5, hands(4)), makeJobStep('out', thenMin, hands(4))];
    return makeJob(id, { steps, lags: inTurn(steps, [withinMin]), spans: [{ id: 'pot', unitIds: [`${id}'s`], from: 'in', to: 'out', until: 'end' }] });
  };
  /** One takes forty minutes and must begin by 25, the other five and by 35. */
  const two = makeProblem({
    resources: RESOURCES,
    units: ['long', 'short'].map((id) => ({ id: `${id}'s`, name: '', volume: null, changeoverId: null })),
    jobs: [inKettle('long', 40, 20), inKettle('short', 5, 25)],
  });

  test('by when the next must begin, the short one comes in after the long one is out; by when it must be over, it goes first', () => {
    // Both are in after ten minutes; the long one is out forty later, and the short one waits too long unless it comes in after that.
    expect(endsOf(two, PLAIN)).toEqual([10 + 40, 10 + 40 + 5 + 5 + 5]);
    expect(endsOf(two, { ...PLAIN, share: 1 })).toEqual([55, 15]);
    // Five minutes of forty are not enough to make it wait: 25 + 5 is before 35.
    expect(endsOf(two, { ...PLAIN, share: 0.125 })).toEqual(endsOf(two, PLAIN));
  });
  test('as it was, whatever is urgent', () => {
    const [longOut, shortOut] = outlineOf(two).items.flatMap(({ block }, item) => (block.includes(1) ? [item] : []));
    expect(endsOf(two, { ...PLAIN, isAsItWas: true }, [shortOut!, longOut!])).toEqual([55, 15]);
    expect(endsOf(two, { ...PLAIN, isAsItWas: true, share: 1 }, [longOut!, shortOut!])).toEqual(endsOf(two, PLAIN));
  });
  test('washed first, a jar is clean by when the soup has simmered; otherwise it is washed when the soup is to be blended', () => {
    const steps = [makeJobStep('sweat', 5, hands(4)), makeJobStep('boil', 8), makeJobStep('simmer', 30, hands(1)), makeJobStep('blend', 5, { ...hands(4), unitIds: ['jar'] })];
    const before = [makeJobStep('blend', 5, { ...hands(4), unitIds: ['jar'] })];
    const problem = makeProblem({
      resources: RESOURCES,
      units: [
        { id: 'k', name: '', volume: null, changeoverId: null },
        { id: 'jar', name: '', volume: null, changeoverId: 'wash' },
      ],
      changeovers: [{ id: 'wash', classes: ['milk', 'plain'], min: [[4, 12], [4, 4]], uses: hands(4).uses }], // prettier-ignore
      jobs: [
        makeJob('cold', { steps: before, lags: [], spans: [], changeClass: 'milk' }),
        makeJob('soup', {
          steps,
          lags: inTurn(steps, [5, 0, 10]),
          spans: [{ id: 'pot', unitIds: ['k'], from: 'sweat', to: 'blend', until: 'end' }],
          changeClass: 'plain',
        }),
      ],
    });
    const ends = (manner: Manner): number => endsOf(problem, manner)[1]!;
    // Sweated by 10, it may wait five minutes: washed by 22, when it boils and hands are wanted for it again.
    expect(ends({ ...PLAIN, washesFirst: true })).toBe(22 + 30 + 5);
    // Otherwise washed from 48 on, once it has simmered; by then it may not wait for that any more and has to come in later.
    expect(ends(PLAIN)).toBeGreaterThan(48 + 12 + 5);
  });
});

describe('in which manner', () => {
  test('half are plain; of the others each is drawn: the order there was or not, washes first or not, all that everybody costs or a part, few alike or any', () => {
    const random = seeded(1);
    const drawn = Array.from({ length: 1000 }, () => anyManner(random));
    const others = drawn.filter((manner) => manner !== PLAIN);
    const share = (is: (manner: Manner) => boolean): number => others.filter(is).length / others.length;
    const shares = [
      others.length / drawn.length,
      share((one) => one.isAsItWas),
      share((one) => one.washesFirst),
      share((one) => one.part < 1),
      share((one) => one.alike < Number.POSITIVE_INFINITY),
      share((one) => one.share < 0.5),
    ];
    for (const is of shares) expect(Math.abs(is - 0.5)).toBeLessThan(0.2);
  });
  test('law: no more go on with the same laid out than may', () => {
    const outline = outlineOf(madeDay('cook', 8, 1));
    const beam = new Beam(outline);
    const order = Int32Array.from(outline.items.keys());
    const most = (alike: number): number => {
      const manner = { ...PLAIN, alike };
      beam.begin(
        { order, from: 0, to: order.length, ways: new Int32Array(8), manner, entering: [0, 1, 2, 3, 4, 5, 6, 7], beginning: [0, 1, 2, 3, 4, 5, 6, 7] },
        Number.POSITIVE_INFINITY,
      );
      let met = 0;
      while (!beam.isOver) {
        beam.step();
        const sets = beam.sets();
        for (const set of sets) met = Math.max(met, sets.filter((other) => other === set).length);
      }
      return met;
    };
    expect([most(2), most(4), most(Number.POSITIVE_INFINITY) > 4]).toEqual([2, 4, true]);
  });
});
