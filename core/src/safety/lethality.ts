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

/** Below this heat counts for nothing, above it no more than at it: one false reading cannot pass a batch. °C. Common practice. */
export const COUNTED_C = { from: 55, capped: 90 };

/** The straight line between two points of a log, cut where counting begins and where it is capped. */
function segmentMin(fromC: number, toC: number, minutes: number, target: LethalityTarget): number {
  const rise = toC - fromC;
  const cap = (temperatureC: number): number => Math.min(COUNTED_C.capped, temperatureC);
  if (Math.abs(rise) < 1e-9) return fromC < COUNTED_C.from ? 0 : minutes * lethalRate(cap(fromC), target);
  const [low, high] = [Math.min(fromC, toC), Math.max(fromC, toC)];
  const share = (lowC: number, highC: number): number => Math.max(0, (highC - lowC) / Math.abs(rise));
  const [countedLow, countedHigh] = [Math.max(low, COUNTED_C.from), Math.min(high, COUNTED_C.capped)];
  const capped = high > COUNTED_C.capped ? minutes * share(Math.max(low, COUNTED_C.capped), high) * lethalRate(COUNTED_C.capped, target) : 0;
  if (countedHigh <= countedLow) return capped;
  const between = lethalRate(countedHigh, target) - lethalRate(countedLow, target);
  return capped + (minutes * share(countedLow, countedHigh) * target.zC * between) / (Math.LN10 * (countedHigh - countedLow));
}

/**
 * Minutes at the reference over a log of the coldest point, exact for straight lines between readings: Δt·z·(L₂ − L₁)/(ln 10·(T₂ − T₁)). Trapezoids on L would
 * say too much, because L is convex. Counted from 55 °C on, and above 90 °C as at 90.
 */
export function accumulatedMin(log: readonly { readonly atMin: number; readonly temperatureC: number }[], target: LethalityTarget): number {
  return log.slice(1).reduce((sum, point, index) => {
    const before = log[index] ?? point;
    return sum + segmentMin(before.temperatureC, point.temperatureC, point.atMin - before.atMin, target);
  }, 0);
}

/** Time and temperature the FSA lists as equal to 70 °C for 2 min ("Cooking safely in your business"; high confidence, from memory). The verdict's table. */
export const FSA_EQUIVALENTS: readonly { readonly temperatureC: number; readonly seconds: number }[] = [
  { temperatureC: 60, seconds: 2700 },
  { temperatureC: 65, seconds: 600 },
  { temperatureC: 70, seconds: 120 },
  { temperatureC: 75, seconds: 30 },
  { temperatureC: 80, seconds: 6 },
];
