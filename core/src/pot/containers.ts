/** Shallow pans for a batch to cool in: 40 L at 5 cm in pans of 0.14 m² inside are 6. GN 1/1 is 530 × 325 mm outside (EN 631-1). */
export function pansFor(volumeL: number, depthM: number, insideM2: number = 0.14): number {
  return Math.ceil(volumeL / (depthM * insideM2 * 1000) - 1e-9);
}

/** The outside box of a GN 1/1 container of a depth, litres: what it holds is about four fifths of it. */
export function gastronormBoxL(depthMm: number): number {
  return 5.3 * 3.25 * (depthMm / 100);
}
