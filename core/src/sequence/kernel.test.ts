import { madeDay } from '../testing/days';
import { compile } from './engine/compile';
import type { Kernel, KernelError } from './engine/kernel';
import { Timetable } from './engine/timetable';

type Lack = KernelError['lack'];

/** Why there is no kernel in a room of its own, as if the process had just begun, with another WebAssembly. */
function lackWith(webAssembly: unknown): Lack | null {
  const taken = Reflect.get(globalThis, 'WebAssembly') as unknown;
  let lack: Lack | null = null;
  Reflect.set(globalThis, 'WebAssembly', webAssembly);
  try {
    jest.isolateModules(() => {
      const alone = jest.requireActual<{ readonly Kernel: typeof Kernel; readonly KernelError: typeof KernelError }>('./engine/kernel');
      try {
        new alone.Kernel();
      } catch (error) {
        if (!(error instanceof alone.KernelError)) throw error;
        ({ lack } = error);
      }
    });
  } finally {
    Reflect.set(globalThis, 'WebAssembly', taken);
  }
  return lack;
}

describe('where there is no kernel', () => {
  const Refused = function (): never {
    throw new RangeError('Out of memory');
  };
  class Made {
    readonly exports = { memory: { buffer: new ArrayBuffer(8) } };
  }
  test('because WebAssembly is switched off, or may compile nothing, it says so', () => {
    expect(lackWith(undefined)).toBe('off');
    expect(lackWith({ Module: Refused, Instance: Made })).toBe('off');
  });
  test('because there is no room for one more, it says so', () => {
    expect(lackWith({ Module: Made, Instance: Refused })).toBe('room');
    expect(lackWith({ Module: Made, Instance: Made })).toBeNull();
  });
});

describe('memory that grows', () => {
  test('takes with it what is laid out, and it can be laid out on', () => {
    const day = madeDay('calm', 8, 1);
    const table = new Timetable(compile(day));
    const other = new Timetable(compile(day));
    const lay = (on: Timetable, jobs: readonly number[]): readonly number[] => jobs.map((job) => on.placeSoon(job, 0, 0, 0, true));
    expect(lay(table, [0, 1, 2])).toEqual(lay(other, [0, 1, 2]));
    const before = table.start;
    const kept = table.save();
    const address = table.kernel.room(4_000_000);
    expect(before).toHaveLength(0);
    expect(Array.from(table.start)).toEqual(Array.from(other.start));
    expect(table.cost()).toBe(other.cost());
    expect(lay(table, [3, 4, 5])).toEqual(lay(other, [3, 4, 5]));
    expect(Array.from(table.start)).toEqual(Array.from(other.start));
    table.restore(kept);
    expect(table.isAt(kept)).toBe(true);
    expect(lay(table, [3, 4, 5])).toEqual(Array.from(other.end.subarray(3, 6)));
    expect(table.kernel.view(address, 4_000_000)).toHaveLength(4_000_000);
  });
});
