import { addMinutes } from '../quantity/index';
import type { Reading } from '../quantity/index';
import { doubtReading } from './plausible';
import type { EntryContext, ReadingDoubt } from './plausible';

const reading = (value: number, unit: 'C' | 'F'): Reading => ({ value, unit, rawText: String(value) });
const T0 = 1_764_000_000_000;
const codes = (given: Reading, context: EntryContext): readonly ReadingDoubt['code'][] => doubtReading(given, context).map((doubt) => doubt.code);

test.each([
  ['900 °F is no soup', reading(900, 'F'), 'cool', ['decimalSlip']],
  ['5000 °F is no probe', reading(5000, 'F'), 'hotHold', ['impossible']],
  ['212 °F is a boil', reading(212, 'F'), 'cool', []],
  ['1355 is 135.5 without its point', reading(1355, 'F'), 'hotHold', ['decimalSlip']],
  ['220 °F is above any boil', reading(220, 'F'), 'hotHold', ['aboveBoiling']],
  ['140 in a °C hot hold was probably °F', reading(140, 'C'), 'hotHold', ['unitSlip']],
  ['65 in a °F hot hold was probably °C', reading(65, 'F'), 'hotHold', ['unitSlip']],
  ['38 in a °C cold hold was probably °F', reading(38, 'C'), 'coldHold', ['unitSlip']],
  ['18 in a °C freezer lost its minus', reading(18, 'C'), 'frozenHold', ['minusLost']],
  ['65 while cooling is possible in both units', reading(65, 'F'), 'cool', []],
  ['a bad hot hold is bad, not doubtful', reading(128, 'F'), 'hotHold', []],
] as const)('%s', (_, given, purpose, expected) => {
  expect(codes(given, { purpose })).toEqual(expected);
});

test('on a mountain 203 °F is a boil and 206 is above it (ISO 2533 with Antoine: 94.9 °C at 1,524 m)', () => {
  const context: EntryContext = { purpose: 'cook', boilingC: 94.9 };
  expect([codes(reading(203, 'F'), context), codes(reading(206, 'F'), context)]).toEqual([[], ['aboveBoiling']]);
});

describe('against the curve', () => {
  const earlier = [{ at: T0, reading: reading(98, 'F'), heldS: null }];
  const cooling: EntryContext = { purpose: 'cool', earlier, volumeL: 18, ambientC: 3.3, at: addMinutes(T0, 30) };
  test('24 where 98 °F was half an hour before, in a cold room of 38 °F, was °C: 24 °C is 75.2 °F', () => {
    expect(doubtReading(reading(24, 'F'), cooling)).toMatchObject([{ code: 'unitSlip', otherUnit: 'C', other: 75.2 }]);
  });
  test('a rise is asked about, unless the pan was changed', () => {
    expect([codes(reading(110, 'F'), cooling), codes(reading(101, 'F'), cooling), codes(reading(110, 'F'), { ...cooling, changedSince: true })]).toEqual([['rising'], [], []]);
  });
  test('a drop faster than an ice bath is asked about, a small pan may', () => {
    expect([codes(reading(45, 'F'), { ...cooling, at: addMinutes(T0, 5) }), codes(reading(45, 'F'), { ...cooling, at: addMinutes(T0, 5), volumeL: 2 })]).toEqual([
      ['impossibleDrop'],
      [],
    ]);
  });
  test('what fits a sibling and not this batch asks which one it was', () => {
    const siblings = [{ batchId: 'bean', expectedC: 44 }];
    expect(doubtReading(reading(112, 'F'), { ...cooling, siblings })).toMatchObject([{ code: 'wrongBatch', batchId: 'bean' }]);
  });
});

test('the future is refused after two minutes, the past asks why after fifteen, and nothing is older than its batch', () => {
  const at = (minute: number): EntryContext => ({ purpose: 'hotHold', at: addMinutes(T0, minute), enteredAt: T0, batchStartedAt: addMinutes(T0, -100) });
  expect([2, 3, -15, -16, -101].map((minute) => codes(reading(150, 'F'), at(minute)))).toEqual([[], ['future'], [], ['backdated'], ['beforeBatch']]);
});
