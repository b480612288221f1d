/** Free of binary dust, and of the minus that zero can carry. */
function clean(value: number): number {
  const rounded = Math.round(value * 1e6) / 1e6;
  return rounded === 0 ? 0 : rounded;
}

/** The nearest multiple of `step`, free of binary dust: `nearest(0.30000000000000004, 0.1)` is 0.3. */
export function nearest(value: number, step: number): number {
  return clean(Math.round(value / step) * step);
}

/** The next multiple of `step` at or above the value. */
export function roundUp(value: number, step: number): number {
  return clean(Math.ceil(value / step - 1e-9) * step);
}

/**
 * Mass as a kitchen can weigh it: 0.5 g below 20 g (spoon scale), 5 g below 1 kg, 10 g below 5 kg, 50 g above (bench scale).
 * Common practice. The rounding error is what `rounded - exact` says.
 */
export function measurableG(massG: number): number {
  if (massG < 20) return nearest(massG, 0.5);
  if (massG < 1000) return nearest(massG, 5);
  return nearest(massG, massG < 5000 ? 10 : 50);
}

/** Volume as a kitchen can measure it, in mL: 1 mL below 50, 10 mL below 1 L, 50 mL below 5 L, 100 mL above. Common practice. */
export function measurableMl(volumeMl: number): number {
  if (volumeMl < 50) return nearest(volumeMl, 1);
  if (volumeMl < 1000) return nearest(volumeMl, 10);
  return nearest(volumeMl, volumeMl < 5000 ? 50 : 100);
}

/** A small amount in spoons: quarter teaspoons up to a tablespoon, half tablespoons above. `spoons(7.4)` is 1.5 tsp. null below an eighth of a teaspoon or above 60 mL. Common practice. */
export function spoons(volumeMl: number): { readonly amount: number; readonly unit: 'usTsp' | 'usTbsp' } | null {
  const tsp = volumeMl / 4.92892159375;
  if (tsp < 0.125 || volumeMl > 60) return null;
  return tsp < 3 ? { amount: Math.max(0.25, nearest(tsp, 0.25)), unit: 'usTsp' } : { amount: nearest(tsp / 3, 0.5), unit: 'usTbsp' };
}
