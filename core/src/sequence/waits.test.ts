import { madeDay } from '../testing/days';
import { compile } from './engine/compile';
import { Timetable } from './engine/timetable';
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
      next[job]?.waits.forEach(({ from, to, atFrom, atTo }, at) => {
        for (const { outgoing, incoming } of compiled.jobs[job]!.variants) {
          const { min, max } = outgoing[from]![atFrom]!;
          expect(incoming[to]![atTo]).toEqual({ from, min, max });
          expect(next[job]!.extraMin[at]).toBeGreaterThanOrEqual(0);
          expect(min + next[job]!.extraMin[at]!).toBeLessThanOrEqual(max);
        }
      });
      waits = next;
    }
    expect(longer).toBeGreaterThan(500);
    expect(shorter).toBeGreaterThan(500);
  });
  test('law: a batch that is laid out by itself waits just as long as it is told to, and as short as it may once it is told to again', () => {
    const day = madeDay('cook', 8, 1);
    const compiled = compile(day);
    const table = new Timetable(compiled);
    const empty = table.save();
    const waiting = new Waiting(
      compiled,
      compiled.jobs.map(({ index }) => index),
      seeded(2),
    );
    const lastsMin = (job: number, way: number): number => {
      table.restore(empty);
      const end = table.placeSoon(job, way, compiled.jobs[job]!.partitions.length - 1, 0, false);
      return end - table.start[compiled.jobs[job]!.offset]!;
    };
    let longer = 0;
    let { none: waits } = waiting;
    for (let turn = 0; turn < 300; turn += 1) {
      const { waits: next, job } = waiting.changed(waits);
      waits = next;
      const { variants, inputs } = compiled.jobs[job]!;
      // Where two steps go on at once, or something is waited for anyway, one may wait while the other lasts.
      if (inputs.length > 0 || !variants.every(({ isChain }) => isChain)) continue;
      for (const way of variants.keys()) {
        table.setLonger(job, null);
        const plainMin = lastsMin(job, way);
        table.setLonger(job, next[job] ?? null);
        const extraMin = next[job]?.extraMin.reduce((sum, extra) => sum + extra, 0) ?? 0;
        // One after the other, alone on the station.
        expect(lastsMin(job, way)).toBe(plainMin + extraMin);
        if (extraMin > 0) longer += 1;
      }
    }
    expect(longer).toBeGreaterThan(300);
  });
});
