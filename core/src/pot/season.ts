/** Salt by mass of the finished soup. Mass balances; steps of a tenth of a percent are common practice. */

/** Grams of salt to go from one share to another: 20 kg from 0.7 to 0.9 % is 40.36 g. */
export function raiseSaltG(massKg: number, share: number, target: number): number {
  return (massKg * 1000 * (target - share)) / (1 - target);
}

/** Kilograms of unsalted liquid to bring a share down: 20 kg from 1.1 to 0.9 % is 4.444 kg. */
export function diluteSaltKg(massKg: number, share: number, target: number): number {
  return massKg * (share / target - 1);
}

/** Share of salt after a reduction: 0.8 % of 20 kg in 18 kg is 0.889 %. */
export function saltAfterReduction(share: number, fromKg: number, toKg: number): number {
  return (share * fromKg) / toKg;
}

/** Milligrams of salt for milligrams of sodium: by chemistry 2.542, on an EU label 2.5 (Regulation (EU) 1169/2011 Annex I). */
export function saltFromSodiumMg(sodiumMg: number, by: 'chemistry' | 'euLabel' = 'chemistry'): number {
  return sodiumMg * (by === 'chemistry' ? 58.44 / 22.99 : 2.5);
}

const STEP_SHARE = 0.001;

export interface SaltPlan {
  readonly nowShare: number;
  readonly target: number;
  /** Grams at a time, equal and at most a tenth of a percent each, tasted in between. Empty when the soup is there or above. */
  readonly doses: readonly number[];
}

/** How to salt a pot: from what is in it already to the target, in steps small enough to taste. */
export function saltPlan(massKg: number, saltG: number, target: number): SaltPlan {
  const nowShare = saltG / (massKg * 1000 + saltG);
  const missingG = Math.max(0, raiseSaltG(massKg + saltG / 1000, nowShare, target));
  const stepG = massKg * 1000 * STEP_SHARE;
  const steps = Math.ceil(missingG / stepG - 1e-6);
  return { nowShare, target, doses: Array.from({ length: steps }, () => missingG / steps) };
}
