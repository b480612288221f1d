/** Heat treatment as minutes at a reference temperature: L = 10^((T − Tref)/z). Standard P-value method. For information: the verdict is the pack's own table. */

export interface LethalityTarget {
  readonly referenceC: number;
  readonly zC: number;
}

/** Listeria monocytogenes: 70 °C, z 7.5 °C (FDA Fish and Fishery Products Hazards and Controls Guidance, 4th ed., App. 4; from memory). */
export const LISTERIA: LethalityTarget = { referenceC: 70, zC: 7.5 };

/** Minutes at the reference that a minute here is worth. */
export function lethalRate(temperatureC: number, { referenceC, zC }: LethalityTarget): number {
  return 10 ** ((temperatureC - referenceC) / zC);
}

/** Minutes here that are worth so many at the reference: 2 min at 70 °C are 43.09 at 60 °C. */
export function equivalentMin(temperatureC: number, referenceMin: number, target: LethalityTarget): number {
  return referenceMin / lethalRate(temperatureC, target);
}

/**
 * Minutes at the reference over a log of temperatures, exact for straight lines between readings: Δt·z·(L₂ − L₁)/(ln 10·(T₂ − T₁)). Trapezoids on L would
 * say too much, because L is convex.
 */
export function accumulatedMin(log: readonly { readonly atMin: number; readonly temperatureC: number }[], target: LethalityTarget): number {
  return log.slice(1).reduce((sum, point, index) => {
    const before = log[index] ?? point;
    const minutes = point.atMin - before.atMin;
    const rise = point.temperatureC - before.temperatureC;
    const [from, to] = [lethalRate(before.temperatureC, target), lethalRate(point.temperatureC, target)];
    return sum + (Math.abs(rise) < 1e-9 ? minutes * from : (minutes * target.zC * (to - from)) / (Math.LN10 * rise));
  }, 0);
}
