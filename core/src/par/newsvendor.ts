import { zOf } from './normal';

/** Share of days on which what is made should suffice: underage ÷ (underage + overage), what a portion short costs against one over. */
export function criticalRatio(underageCost: number, overageCost: number): number {
  return underageCost / (underageCost + overageCost);
}

/** Quantity for a normal demand: μ + z·σ. Nahmias, Production and Operations Analysis; Cachon & Terwiesch, Matching Supply with Demand. */
export function newsvendorNormal(mean: number, deviation: number, ratio: number): number {
  return mean + zOf(ratio) * deviation;
}

/** Quantity for a demand of single values: the smallest with F(q) ≥ ratio. `pmf` as pairs of value and probability. */
export function newsvendorDiscrete(pmf: readonly (readonly [number, number])[], ratio: number): number | null {
  let sum = 0;
  for (const [value, probability] of [...pmf].sort(([left], [right]) => left - right)) {
    sum += probability;
    if (sum >= ratio - 1e-12) return value;
  }
  return null;
}

/** Stock for a service level over a lead time: z·σ·√L. */
export function safetyStock(z: number, deviation: number, leadDays: number): number {
  return z * deviation * Math.sqrt(leadDays);
}
