/** Heat and water in a pot. Latent heats 334 and 2257 kJ/kg, water 4.19 and ice 2.1 kJ/kgK: standard tables. Soup 3.9 kJ/kgK: common practice. */
export const SOUP_KJ_PER_KG_K = 3.9;
const WATER_KJ_PER_KG_K = 4.19;
const ICE_KJ_PER_KG_K = 2.1;
const MELTING_KJ_PER_KG = 334;
const BOILING_KJ_PER_KG = 2257;

/** A kettle or pot as far as heat and filling ask. */
export interface PotVessel {
  readonly capacityL: number;
  readonly workingMaxL: number;
  /** Heating power; missing = nobody has looked it up. */
  readonly powerKw?: number | undefined;
  /** Share of the power that reaches the food. */
  readonly efficiency?: number | undefined;
  readonly diameterCm?: number | undefined;
}

/** Minutes to heat a mass through `riseK` degrees: m·c·ΔT ÷ (P·η). 40 kg through 85 K at 12 kW and 0.75 is 24.6 min. */
export function heatingMin(massKg: number, riseK: number, powerKw: number, efficiency: number, kJPerKgK: number = SOUP_KJ_PER_KG_K): number {
  return (massKg * kJPerKgK * Math.max(0, riseK)) / (powerKw * efficiency) / 60;
}

/** Kilograms of water a net power boils away in an hour: 3 kW is 4.785 kg/h. */
export function evaporationKgPerH(netPowerKw: number): number {
  return (netPowerKw * 3600) / BOILING_KJ_PER_KG;
}

/** Minutes to reduce from one mass to another at a rate of evaporation: 20 to 18 kg at 3 kg/h is 40. */
export function reductionMin(fromKg: number, toKg: number, rateKgPerH: number): number {
  return ((fromKg - toKg) / rateKgPerH) * 60;
}

/** Kilograms of ice that, stirred in, bring a soup to a temperature; drinking-water ice, and it is water in the soup. `iceC` 0 or below. */
export function iceToAddKg(massKg: number, fromC: number, toC: number, iceC: number = 0, kJPerKgK: number = SOUP_KJ_PER_KG_K): number {
  return (massKg * kJPerKgK * (fromC - toC)) / (MELTING_KJ_PER_KG + WATER_KJ_PER_KG_K * toC + ICE_KJ_PER_KG_K * Math.abs(iceC));
}

/** Temperature after ice of 0 °C has melted in a soup; null when not all of it melts. 8 kg at 80 °C and 3 kg of ice is 34.13 °C. */
export function afterIceC(massKg: number, fromC: number, iceKg: number, kJPerKgK: number = SOUP_KJ_PER_KG_K): number | null {
  const temperatureC = (massKg * kJPerKgK * fromC - iceKg * MELTING_KJ_PER_KG) / (massKg * kJPerKgK + iceKg * WATER_KJ_PER_KG_K);
  return temperatureC > 0 ? temperatureC : null;
}

/** The least ice an ice bath melts to cool a soup: 20 kg from 57 to 21 °C is 8.41 kg. Order one and a half times to twice as much (common practice). */
export function iceBathKg(massKg: number, fromC: number, toC: number, kJPerKgK: number = SOUP_KJ_PER_KG_K): number {
  return (massKg * kJPerKgK * (fromC - toC)) / MELTING_KJ_PER_KG;
}

/**
 * Where water boils, by altitude in metres: pressure by ISO 2533 (ICAO standard atmosphere), temperature by Antoine's equation for water. From memory;
 * weather moves it by half a degree.
 */
export function boilingPointC(altitudeM: number): number {
  const pressureKPa = 101.325 * (1 - 2.25577e-5 * altitudeM) ** 5.25588;
  return 1730.63 / (8.07131 - Math.log10((pressureKPa / 101.325) * 760)) - 233.426;
}

/** Efficiencies of kettles nobody has measured: a steam jacket or induction. Common practice, low confidence. */
export const USUAL_EFFICIENCY = 0.75;
/** Vegetables from the walk-in and water from the tap. Common practice. */
export const USUAL_START_C = 15;

/** Minutes to the boil in a vessel; null when its power is not known. Sea level. */
export function boilMin(massKg: number, vessel: PotVessel, startC: number = USUAL_START_C): number | null {
  return vessel.powerKw === undefined || vessel.powerKw <= 0 ? null : heatingMin(massKg, 100 - startC, vessel.powerKw, vessel.efficiency ?? USUAL_EFFICIENCY);
}
