import { stepRangeMin } from '../soup/index';
import type { DurationModel, Soup, Step } from '../soup/index';

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

/** A step whose card says another time than past batches took, and what the card would say by them. */
export interface TimeOffer {
  readonly step: Step;
  /** For the litres of the card. */
  readonly learned: Learned;
  readonly duration: DurationModel;
}

/** A card that is out by less than this is right. A share of the median, and minutes. A design choice. */
const OUT_BY = 0.1;
const OUT_BY_MIN = 1;

/**
 * What the card would say if it followed its past batches: the median in the middle, half their range to each side, for the litres of the card. Only steps with
 * three times or more, and only where the card is out.
 */
export function timeOffers(soup: Soup, stepTimes: Readonly<Record<string, readonly StepTime[]>>): readonly TimeOffer[] {
  return soup.steps.flatMap((step): TimeOffer[] => {
    const found = learned(timesFor(step, stepTimes[step.id] ?? [], soup.makesL));
    // Fills of a jar are counted, not measured on the card.
    if (found === null || step.place.kind === 'blender') return [];
    const card = stepRangeMin(step, soup.makesL, null);
    const outMin = Math.abs(found.median - (card.lowMin + card.highMin) / 2);
    if (outMin < OUT_BY_MIN || outMin < OUT_BY * found.median) return [];
    const { perLitreMin } = step.duration;
    const fixed = found.median - perLitreMin * soup.makesL;
    const spread = Math.min(fixed, (found.high - found.low) / 2);
    // What grows with the litres alone is more than it all took: the model is wrong, not its number.
    if (fixed <= 0) return [];
    return [{ step, learned: found, duration: { lowMin: Math.round(fixed - spread), highMin: Math.round(fixed + spread), perLitreMin } }];
  });
}
