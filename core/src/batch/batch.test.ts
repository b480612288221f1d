import fc from 'fast-check';
import { MAX_BATCHES_A_SOUP, batchIdOf, firstThereMin, keptSplit, presentMin, readBatchId, splitChoices, splitIntoBatches, stationOn } from './index';
import type { Person, Service, Vessel } from './index';
import { stationWith } from '../testing/station';

const kettle = (id: string, minFillL: number, workingMaxL: number, inUse = true): Vessel => ({ id, name: id, capacityL: workingMaxL * 1.2, minFillL, workingMaxL, inUse });
const station = [kettle('k30', 8, 25), kettle('k20', 5, 17), kettle('pot', 2, 10)];

describe('need into batches', () => {
  const told = (needL: number, vessels = station): string => {
    const split = splitIntoBatches(needL, vessels);
    return split.kind === 'split'
      ? `${split.sizes.map((size) => `${String(size.volumeL)} in ${size.vesselIds.join('/')}`).join(', ')}; surplus ${String(split.surplusL)}`
      : split.kind;
  };
  test.each([
    ['one batch where one will do', 18, '18 in k30; surplus 0'],
    ['every vessel it fits is offered', 9, '9 in k30/k20/pot; surplus 0'],
    ['exactly the working maximum is one batch', 25, '25 in k30; surplus 0'],
    ['half a litre more is two', 25.5, '13 in k30/k20, 13 in k30/k20; surplus 0.5'],
    ['under every minimum fill it is made at the smallest and the surplus said', 0.5, '2 in pot; surplus 1.5'],
    ['more batches than a day holds is questioned', 900, 'tooMany'],
  ])('%s', (_, needL, says) => {
    expect(told(needL)).toBe(says);
  });
  test.each([
    ['from one batch to four', 18, ['18 × 1', '9 × 2', '6 × 3', '4.5 × 4']],
    ['not fewer than hold it', 30, ['15 × 2', '10 × 3', '7.5 × 4', '6 × 5']],
    ['no further than half as much again', 3, ['3 × 1', '2 × 2']],
    ['none where one batch is too large already', 900, []],
  ])('the choice: %s', (_, needL, says) => {
    expect(splitChoices(needL, station).map(({ sizes }) => `${String(sizes[0]?.volumeL)} × ${String(sizes.length)}`)).toEqual(says);
  });
  test('as many as are wanted, but never fewer than hold it nor more than a day takes', () => {
    const count = (wanted: number): number => {
      const split = splitIntoBatches(40, station, wanted);
      return split.kind === 'split' ? split.sizes.length : 0;
    };
    expect([count(1), count(3), count(50)]).toEqual([2, 3, MAX_BATCHES_A_SOUP]);
  });
  test('a vessel out of use holds nothing', () => {
    expect([told(5, [kettle('k20', 5, 17, false)]), told(5, [])]).toEqual(['noVessel', 'noVessel']);
  });
  test('law: every batch fits the vessels it names, and together they hold the need', () => {
    const vessel = fc
      .tuple(fc.integer({ min: 1, max: 20 }), fc.integer({ min: 0, max: 40 }))
      .map(([minFillL, more]) => kettle(`${String(minFillL)}+${String(more)}`, minFillL, minFillL + more));
    fc.assert(
      fc.property(fc.array(vessel, { minLength: 1, maxLength: 4 }), fc.integer({ min: 1, max: 400 }), (vessels, halfLitres) => {
        const needL = halfLitres / 2;
        const split = splitIntoBatches(needL, vessels);
        if (split.kind !== 'split') return;
        const bad = split.sizes.filter(
          (size) =>
            size.vesselIds.length === 0 || size.vesselIds.some((id) => vessels.every((one) => one.id !== id || size.volumeL < one.minFillL || size.volumeL > one.workingMaxL)),
        );
        expect(bad).toEqual([]);
        expect(split.sizes.reduce((sum, size) => sum + size.volumeL, 0)).toBeCloseTo(needL + split.surplusL, 6);
        expect(split.surplusL).toBeGreaterThanOrEqual(0);
      }),
      { seed: 7, numRuns: 500 },
    );
  });
});

describe('sizes that were agreed on', () => {
  const surplus = (needL: number, agreedL: readonly number[], vessels = station): number | null => {
    const kept = keptSplit(needL, agreedL, vessels);
    return kept?.kind === 'split' ? kept.surplusL : null;
  };
  test.each([
    ['stay while they are what is needed', 28, [14, 14], 0],
    ['stay with half a litre each too much', 27, [14, 14], 1],
    ['do not with more', 26.5, [14, 14], null],
    ['do not when they are too little', 28.5, [14, 14], null],
    ['do not when no vessel holds them', 40, [40], null],
  ] as const)('%s', (_, needL, agreedL, left) => {
    expect(surplus(needL, agreedL)).toBe(left);
  });
  test('do not when their kettle is out of use', () => {
    expect(surplus(20, [20], [kettle('k30', 8, 25, false), kettle('k20', 5, 17)])).toBeNull();
  });
});

describe('the id of a batch', () => {
  test('says its soup and its number again, whatever the soup is called', () => {
    for (const soupId of ['lentil', 'sweet-potato', 'no.7']) expect(readBatchId(batchIdOf('2026-11-25', soupId, 12))).toEqual({ soupId, ordinal: 12 });
  });
  test('that is of another kind says nothing it does not know', () => {
    expect(readBatchId('fridge')).toEqual({ soupId: 'fridge', ordinal: null });
  });
});

describe('who is there', () => {
  const cook = (some: Partial<Person>): Person => ({ id: 'c', name: 'C', role: 'cook', shift: { fromMin: 360, toMin: 840 }, ...some });
  const stretches = (some: Partial<Person>): string =>
    presentMin(cook(some))
      .map(({ fromMin, toMin }) => `${String(fromMin)}-${String(toMin)}`)
      .join(' ');
  test.each([
    ['all of the shift', {}, '360-840'],
    ['not in a break', { breaks: [{ fromMin: 600, toMin: 630 }] }, '360-600 630-840'],
    ['in two breaks that meet', { breaks: [600, 630].map((fromMin) => ({ fromMin, toMin: fromMin + 30 })) }, '360-600 660-840'],
    ['nor while gone, which may reach into a break', { breaks: [{ fromMin: 600, toMin: 630 }], away: [{ fromMin: 620, toMin: 900 }] }, '360-600'],
    ['on a day off not at all', { off: true }, ''],
    ['nor when gone before the shift began', { shift: { fromMin: 360, toMin: 360 } }, ''],
  ] as const)('%s', (_, some, expected) => {
    expect(stretches(some)).toBe(expected);
  });
  test('the first to come counts, not whoever is off', () => {
    expect(firstThereMin([cook({ off: true }), cook({ shift: { fromMin: 500, toMin: 900 } })])).toBe(500);
  });
});

describe('who comes in on a date', () => {
  const person = (id: string, days?: readonly number[]): Person => ({ id, name: id, role: 'cook', shift: { fromMin: 300, toMin: 800 }, days });
  const kitchen = stationWith({ people: [person('always'), person('weekdays', [1, 2, 3, 4, 5]), person('weekend', [6, 7])] });
  const thereOn = (date: string): readonly string[] => stationOn(kitchen, date).people.flatMap((one) => (presentMin(one).length > 0 ? [one.id] : []));
  // ISO 8601: 2026-11-25 is a Wednesday, 2024-02-29 a Thursday, 2023-12-31 a Sunday, 2000-01-01 a Saturday.
  test.each([
    ['2026-11-25', ['always', 'weekdays']],
    ['2024-02-29', ['always', 'weekdays']],
    ['2023-12-31', ['always', 'weekend']],
    ['2000-01-01', ['always', 'weekend']],
  ])('%s: %s', (date, there) => {
    expect(thereOn(date)).toEqual(there);
  });
  test('a service that is not held on it is not there', () => {
    const service = (id: string, days?: readonly number[]): Service => ({ id, name: id, startMin: 600, endMin: 700, days });
    const held = (date: string): readonly string[] => stationOn({ ...kitchen, services: [service('lunch'), service('brunch', [7])] }, date).services.map(({ id }) => id);
    expect([held('2026-11-25'), held('2023-12-31')]).toEqual([['lunch'], ['lunch', 'brunch']]);
  });
  test('a station where everybody comes is the same one', () => {
    const whole = stationWith({ people: [person('always')] });
    expect(stationOn(whole, '2026-11-25')).toBe(whole);
  });
});
