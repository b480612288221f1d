import { doubtReading } from './index';
import type { Reading } from '../quantity/index';

const reading = (value: number, unit: 'C' | 'F'): Reading => ({ value, unit, rawText: String(value) });

test.each([
  ['700 °F is no soup', reading(700, 'F'), 'cool', 'reading.impossible'],
  ['212 °F is a boil', reading(212, 'F'), 'cool', undefined],
  ['103 °C is above any boil', reading(103, 'C'), 'reheat', 'reading.impossible'],
  ['65 in a °F hot hold was probably °C', reading(65, 'F'), 'hotHold', 'reading.unitSlip'],
  ['140 in °C is impossible before it is a slip', reading(140, 'C'), 'hotHold', 'reading.impossible'],
  ['38 in a °C cold hold was probably °F', reading(38, 'C'), 'coldHold', 'reading.unitSlip'],
  ['65 while cooling is possible in both units', reading(65, 'F'), 'cool', undefined],
  ['a bad hot hold is bad, not doubtful', reading(128, 'F'), 'hotHold', undefined],
] as const)('%s', (_, given, purpose, code) => {
  expect(doubtReading(given, purpose)?.code).toBe(code);
});
