import { typed } from './Keypad';
import { vesselGeometry } from './vesselGeometry';

describe('keypad', () => {
  const type = (...keys: string[]): string => keys.reduce(typed, '');
  test.each([
    [['1', '3', '5'], '135'],
    [['1', '3', 'delete', '4'], '14'],
    [['sign', '4'], '-4'],
    [['4', 'sign', 'sign'], '4'],
    [['.', '5'], '0.5'],
    [['6', '2', '.', '5', '.', '1'], '62.51'],
    [['1', '2', '3', '4', '5', '6', '7'], '123456'],
    [['delete'], ''],
  ])('%p gives %p', (keys, text) => {
    expect(type(...keys)).toBe(text);
  });
});

describe('vessel', () => {
  const vessel = (some: Partial<Parameters<typeof vesselGeometry>[0]>) => vesselGeometry({ capacityL: 30, fillL: 18, minFillL: 8, workingMaxL: 25, pxPerCubeRootL: 28, ...some });
  test('volumes compare: eight times the litres is twice as broad and twice as high', () => {
    const [small, large] = [vessel({ capacityL: 4, fillL: 0 }), vessel({ capacityL: 32, fillL: 0 })];
    expect([(large.width - 8) / (small.width - 8), (large.height - 8) / (small.height - 8)]).toEqual([expect.closeTo(2, 9) as number, expect.closeTo(2, 9) as number]);
  });
  test('the working maximum stands above the fill, the minimum below, and above the maximum is over', () => {
    const { minY, maxY } = vessel({});
    expect((maxY ?? 0) < (minY ?? 0)).toBe(true);
    expect([vessel({ fillL: 25 }).over, vessel({ fillL: 25.5 }).over]).toEqual([false, true]);
  });
  test('an empty one has no fill', () => {
    expect(vessel({ fillL: 0 }).fill).toBeNull();
  });
});
