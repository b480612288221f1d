/** Grams in one of each unit. Avoirdupois pound 453.59237 g: exact, NIST SP 811 App. B. */
export const GRAMS_PER = { g: 1, kg: 1000, lb: 453.59237, oz: 28.349523125 } as const;

export type MassUnit = keyof typeof GRAMS_PER;

/** `toGrams(1, 'lb')` is 453.59237. */
export function toGrams(amount: number, unit: MassUnit): number {
  return amount * GRAMS_PER[unit];
}

/** `fromGrams(1000, 'lb')` is 2.2046226… */
export function fromGrams(massG: number, unit: MassUnit): number {
  return massG / GRAMS_PER[unit];
}
