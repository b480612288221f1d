import fc from 'fast-check';
import { compile } from './engine/compile';
import { Kernel } from './engine/kernel';
import { Minutes } from './engine/minutes';
import { makeJob, makeJobStep, makeProblem } from './problem.arbitrary';

const SEED = 20_261_127;

/** The same by counting every minute: an oracle that knows nothing of words and bits. */
class Counted {
  readonly free: number[][];
  private readonly uses: readonly (readonly [number, number])[];
  constructor(free: readonly (readonly number[])[], uses: readonly (readonly [number, number])[]) {
    this.free = free.map((minutes) => [...minutes]);
    this.uses = uses;
  }
  fits(levels: readonly number[], start: number, duration: number): boolean {
    return levels.every((level) => {
      const [resource, units] = this.uses[level]!;
      return Array.from({ length: duration }, (_, minute) => this.free[resource]![start + minute]!).every((free) => free >= units);
    });
  }
  earliest(levels: readonly number[], from: number, duration: number): number {
    const horizon = this.free[0]!.length;
    for (let start = from; start + duration <= horizon; start += 1) if (this.fits(levels, start, duration)) return start;
    return -1;
  }
  latest(levels: readonly number[], from: number, duration: number, notBefore: number): number {
    for (let start = Math.min(from, this.free[0]!.length - duration); start >= notBefore; start -= 1) if (this.fits(levels, start, duration)) return start;
    return -1;
  }
  book(levels: readonly number[], start: number, end: number, sign: 1 | -1): void {
    for (const level of levels) {
      const [resource, units] = this.uses[level]!;
      const minutes = this.free[resource]!;
      for (let minute = Math.max(0, start); minute < Math.min(end, minutes.length); minute += 1) minutes[minute] = Math.max(0, minutes[minute]! - sign * units);
    }
  }
}

const HORIZON = 150;
/** A little of one thing, much of another: both ways a count is kept. */
const few = fc.integer({ min: 0, max: 6 });
const many = fc.integer({ min: 0, max: 90 });
const minute = fc.integer({ min: 0, max: HORIZON });
const ask = fc.record({ levels: fc.uniqueArray(fc.integer({ min: 0, max: 5 }), { maxLength: 3 }), from: minute, duration: fc.integer({ min: 0, max: 70 }), takes: fc.boolean() });

describe('what is free, minute by minute', () => {
  test('law: the kernel finds and books the same as counting every minute does', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(minute, minute, few, many), { minLength: 1, maxLength: 4 }),
        fc.array(few, { minLength: 3, maxLength: 3 }),
        fc.array(many, { minLength: 3, maxLength: 3 }),
        fc.array(fc.tuple(fc.integer({ min: 0, max: 5 }), minute, minute), { maxLength: 3 }),
        fc.array(ask, { minLength: 1, maxLength: 25 }),
        (windows, fewUnits, manyUnits, happened, asks) => {
          const window = (capacity: (at: readonly [number, number, number, number]) => number) =>
            windows.map((one) => ({ fromMin: Math.min(one[0], one[1]), toMin: Math.max(one[0], one[1]), capacity: capacity(one) }));
          const uses = [...fewUnits.map((units) => [0, units] as const), ...manyUnits.map((units) => [1, units] as const)];
          const steps = uses.map(([resource, units], index) => makeJobStep(`s${String(index)}`, 1, { uses: [{ resourceId: ['few', 'many'][resource]!, units }] }));
          const compiled = compile(
            makeProblem({
              horizonMin: HORIZON,
              resources: [
                { id: 'few', name: 'Few', capacity: 6, windows: window((one) => one[2]) },
                { id: 'many', name: 'Many', capacity: 90, windows: window((one) => one[3]) },
              ],
              jobs: [makeJob('a', { steps })],
            }),
          );
          const minutes = new Minutes(compiled);
          const kernel = new Kernel();
          minutes.describe(kernel);
          kernel.set({ bits: kernel.row(minutes.bits) });
          const levelOf = compiled.jobs[0]!.variants[0]!.uses.map(([level]) => level!);
          const counted = new Counted(
            compiled.problem.resources.map((resource) =>
              Array.from({ length: HORIZON }, (_, at) => resource.windows.reduce((sum, { fromMin, toMin, capacity }) => sum + (fromMin <= at && at < toMin ? capacity : 0), 0)),
            ),
            uses,
          );
          const each = levelOf.map((level) => kernel.list([level]));
          const levels = (asked: readonly number[]): number[] => asked.map((level) => levelOf[level]!);
          for (const [level, one, other] of happened) {
            kernel.run.book(kernel.list(levels([level])), Math.min(one, other), Math.max(one, other), 1);
            counted.book([level], Math.min(one, other), Math.max(one, other), 1);
          }
          const booked: (readonly [readonly number[], number, number])[] = [];
          for (const { levels: asked, from, duration, takes } of asks) {
            const start = counted.earliest(asked, from, duration);
            expect(kernel.run.earliestFit(kernel.list(levels(asked)), from, duration)).toBe(start);
            expect(kernel.run.latestFit(kernel.list(levels(asked)), from, duration, 5)).toBe(counted.latest(asked, from, duration, 5));
            // Two amounts of one thing at once are each there, not both together.
            const single = asked.slice(0, 1);
            const at = counted.earliest(single, from, duration);
            if (takes && at >= 0) {
              kernel.run.book(kernel.list(levels(single)), at, at + duration, 1);
              counted.book(single, at, at + duration, 1);
              booked.push([single, at, at + duration]);
            } else {
              const back = booked.pop();
              if (back === undefined) continue;
              kernel.run.book(kernel.list(levels(back[0])), back[1], back[2], -1);
              counted.book(back[0], back[1], back[2], -1);
            }
            for (const [level, uses] of each.entries())
              for (let from = 0; from < HORIZON; from += 1)
                if ((kernel.run.earliestFit(uses, from, 1) === from) !== counted.fits([level], from, 1)) throw new Error(`Level ${String(level)} at ${String(from)}.`);
          }
        },
      ),
      { seed: SEED, numRuns: 150 },
    );
  });
});
