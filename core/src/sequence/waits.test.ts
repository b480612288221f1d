import { madeDay } from '../testing/days';
import { compile } from './engine/compile';
import { Waiting } from './engine/waits';
import { seeded } from './random';

describe('waits on purpose', () => {
  test('law: never longer than the card allows, and what was made longer can be made as short as it may be again', () => {
    const compiled = compile(madeDay('cook', 8, 1));
    const waiting = new Waiting(
      compiled,
      compiled.jobs.map(({ index }) => index),
      seeded(1),
    );
    let waits = waiting.none;
    let longer = 0;
    let shorter = 0;
    for (let turn = 0; turn < 2000; turn += 1) {
      const { waits: next, job } = waiting.changed(waits);
      const total = (of: typeof waits): number => of[job]?.extraMin.reduce((sum, extra) => sum + extra, 0) ?? 0;
      if (total(next) > total(waits)) longer += 1;
      else shorter += 1;
      expect(next.every((one, index) => index === job || one === waits[index])).toBe(true);
      next[job]?.variants.forEach((variant, at) => {
        const plain = compiled.jobs[job]!.variants[at]!;
        variant.outgoing.forEach((lags, step) => {
          lags.forEach((lag, place) => {
            const { min, max } = plain.outgoing[step]![place]!;
            expect(lag.max).toBe(max);
            expect(lag.min).toBeGreaterThanOrEqual(min);
            expect(lag.min).toBeLessThanOrEqual(max);
            expect(variant.incoming[lag.to]).toContainEqual({ from: step, min: lag.min, max: lag.max });
          });
        });
      });
      waits = next;
    }
    expect(longer).toBeGreaterThan(500);
    expect(shorter).toBeGreaterThan(500);
  });
});
