/**
 * Litres in one of each unit. US customary: exact, NIST SP 811 App. B (gallon 231 in³ of 16.387064 mL each).
 * Imperial: exact, gallon 4.54609 L. Metric cup and spoons: common practice, 250, 15 and 5 mL.
 */
export const LITRES_PER = {
  L: 1,
  mL: 0.001,
  usGal: 3.785411784,
  usQt: 0.946352946,
  usPt: 0.473176473,
  usCup: 0.2365882365,
  usFlOz: 0.0295735295625,
  usTbsp: 0.01478676478125,
  usTsp: 0.00492892159375,
  impGal: 4.54609,
  impPt: 0.56826125,
  impFlOz: 0.0284130625,
  metricCup: 0.25,
  metricTbsp: 0.015,
  metricTsp: 0.005,
} as const;

export type VolumeUnit = keyof typeof LITRES_PER;

/** `toLitres(5, 'usGal')` is 18.92705892. */
export function toLitres(amount: number, unit: VolumeUnit): number {
  return amount * LITRES_PER[unit];
}

/** `fromLitres(1, 'usQt')` is 1.0566882… */
export function fromLitres(volumeL: number, unit: VolumeUnit): number {
  return volumeL / LITRES_PER[unit];
}
