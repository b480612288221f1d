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

/** Whole minutes a step takes for these litres, at least one. A jar blend is its fills times the cycle, plus the step's fixed part. */
export function stepDurationMin(step: Step, volumeL: number, jar: Jar | null): number {
  const jarMin = step.place.kind === 'blender' && step.place.tool === 'jar' && jar !== null ? jarFills(volumeL, jar.hotFillL) * jar.cycleMin : step.duration.perLitreMin * volumeL;
  return Math.max(1, Math.round(step.duration.fixedMin + jarMin));
}
