import { stepRangeMin } from '../soup/index';
import type { Step } from '../soup/index';

/** How long a step took in a batch of so many litres. */
export interface StepTime {
  readonly volumeL: number;
  readonly minutes: number;
}

/** What past batches really did: a median and a range, once there are three. */
export interface Learned {
  readonly median: number;
  readonly low: number;
  readonly high: number;
  readonly count: number;
}

const ENOUGH = 3;
const LAST = 12;

/** The last twelve values as a median with its range; null until there are three. A claim from fewer would be chance. */
export function learned(values: readonly number[]): Learned | null {
  if (values.length < ENOUGH) return null;
  const sorted = values.slice(-LAST).sort((left, right) => left - right);
  const half = Math.floor(sorted.length / 2);
  const upper = sorted[half] ?? 0;
  const lower = sorted[half - 1] ?? upper;
  return { median: sorted.length % 2 === 1 ? upper : (lower + upper) / 2, low: sorted[0] ?? 0, high: sorted.at(-1) ?? 0, count: sorted.length };
}

/**
 * Measured minutes of a step as they would be for these litres: what grows with the litres is stretched by the step's own model, the time to the boil in
 * proportion, a simmer not at all.
 */
export function timesFor(step: Step, times: readonly StepTime[], volumeL: number): readonly number[] {
  return times.map((time) => {
    if (step.phase === 'boil') return (time.minutes * volumeL) / time.volumeL;
    const then = stepRangeMin(step, time.volumeL, null).highMin;
    return then <= 0 ? time.minutes : (time.minutes * stepRangeMin(step, volumeL, null).highMin) / then;
  });
}
