import { addMinutes, foldDay, planDay } from '@broth/core';
import type { DayEvent } from '@broth/core';
import { demo } from '@broth/demo';

/** Figures of core, in a process of its own: the first plan is timed cold, as the first one after a page is opened. */

const DAY = '2026-11-25';
const input = { date: DAY, nowMin: 300, soups: demo.soups, station: demo.station, pars: demo.standingPars, lots: demo.lots(DAY), started: [], dateMarkLastDay: 7 };

function timeMs(work: () => unknown): number {
  const from = performance.now();
  work();
  return performance.now() - from;
}
function median(values: readonly number[]): number {
  return [...values].sort((left, right) => left - right)[Math.floor(values.length / 2)] ?? Number.NaN;
}

const firstPlanMs = timeMs(() => planDay(input, { seed: 1, moves: 0 }));
const warmPlanMs = median(Array.from({ length: 30 }, () => timeMs(() => planDay(input, { seed: 1, moves: 0 }))));
const improvedPlanMs = median(Array.from({ length: 3 }, () => timeMs(() => planDay(input, { seed: 1, moves: 250 }))));

/** A day of twenty batches with steps and readings, about as many events as asked for. */
function dayOf(count: number): readonly DayEvent[] {
  const shared = { day: DAY, by: 'maren', device: 'bench' };
  const T0 = 1_764_000_000_000;
  return Array.from({ length: count }, (_, index): DayEvent => {
    const batchId = `${DAY}.lentil.${String(index % 20)}`;
    const fixed = { ...shared, id: `e${String(index)}`, at: addMinutes(T0, index) };
    if (index < 20) return { ...fixed, kind: 'batch.started/1', data: { batchId, soupId: 'lentil', soupVersion: 1, name: batchId, ordinal: 1, volumeL: 18, vesselId: 'kettle1' } };
    if (index % 3 === 0)
      return {
        ...fixed,
        kind: 'reading.taken/1',
        data: { batchId, purpose: 'cool', reading: { value: 120, unit: 'F', rawText: '120' }, heldS: null, packId: 'p', packVersion: 1 },
      };
    return { ...fixed, kind: index % 3 === 1 ? 'step.started/1' : 'step.done/1', data: { batchId, stepId: `s${String(index % 9)}` } };
  });
}
const thousand = dayOf(1000);
const foldMs = median(Array.from({ length: 50 }, () => timeMs(() => foldDay(thousand))));

console.log(JSON.stringify({ firstPlanMs, warmPlanMs, improvedPlanMs, foldMs }));
