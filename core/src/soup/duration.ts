import type { Step } from './soup';

/** A jar blender: how much hot soup it takes at once and how long one fill takes, door to door. */
export interface Jar {
  readonly hotFillL: number;
  readonly cycleMin: number;
}

/**
 * Fills of a jar for a volume of hot soup. `jarFills(5, 0.473176)` is 11: a 2-cup hot fill takes eleven for five litres (common practice).
 * Throws RangeError for a fill that is not above zero.
 */
export function jarFills(volumeL: number, hotFillL: number): number {
  if (!(hotFillL > 0)) throw new RangeError(`Invariant: a jar's hot fill must be above 0 L, not ${String(hotFillL)}`);
  return Math.ceil(volumeL / hotFillL - 1e-9);
}

/** Minutes a step takes for these litres at the least and at the most. A jar blend is its fills times the cycle, plus the step's fixed part. */
export function stepRangeMin(step: Step, volumeL: number, jar: Jar | null): { readonly lowMin: number; readonly highMin: number } {
  const { lowMin, highMin, perLitreMin } = step.duration;
  const moreMin =
    step.place.kind === 'blender' && step.place.tool === 'jar' && jar !== null ? jarFills(volumeL * step.blendShare, jar.hotFillL) * jar.cycleMin : perLitreMin * volumeL;
  return { lowMin: lowMin + moreMin, highMin: highMin + moreMin };
}

/** Whole minutes to plan a step with, at least one: the middle of its range. */
export function stepDurationMin(step: Step, volumeL: number, jar: Jar | null): number {
  const { lowMin, highMin } = stepRangeMin(step, volumeL, jar);
  return Math.max(1, Math.round((lowMin + highMin) / 2));
}

/** Minutes an immersion blender takes for a litre when the card asks for a jar and says nothing of it: twenty litres in ten minutes. Common practice. */
const IMMERSION_MIN_PER_L = 0.5;

/** The same step done with another blender than its card asks for. */
export function withBlender(step: Step, tool: 'jar' | 'immersion'): Step {
  if (step.place.kind !== 'blender' || step.place.tool === tool) return step;
  const perLitreMin = tool === 'immersion' ? Math.max(step.duration.perLitreMin, IMMERSION_MIN_PER_L * step.blendShare) : step.duration.perLitreMin;
  return { ...step, place: { kind: 'blender', tool }, duration: { ...step.duration, perLitreMin } };
}
