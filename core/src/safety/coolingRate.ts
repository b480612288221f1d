/** Rates of cooling by Newton's law, for advice and never for a verdict. Incropera & DeWitt, Fundamentals of Heat and Mass Transfer, ch. 5 (lumped capacitance). Any one unit of temperature; k by the hour. */

/** The rate two readings show: k = ln[(T₁ − Ta)/(T₂ − Ta)] / t. */
export function ratePerH(first: number, second: number, hours: number, ambient: number): number {
  return Math.log((first - ambient) / (second - ambient)) / hours;
}

/** Hours from one temperature to another at a rate; null when the ambient is not below the target, so that it never gets there. */
export function hoursTo(from: number, to: number, kPerH: number, ambient: number): number | null {
  return to <= ambient ? null : Math.log((from - ambient) / (to - ambient)) / kPerH;
}

export interface RequiredRate {
  readonly stage1: number;
  readonly total: number;
  /** Which of the two asks for more. */
  readonly binding: 'stage1' | 'total';
}

/** The rates that just meet a two-stage limit on the total basis, by the ambient: at 38 °F the last degrees bind, in ice the first. */
export function requiredRate(
  limit: { readonly start: number; readonly mid: number; readonly end: number; readonly midH: number; readonly endH: number },
  ambient: number,
): RequiredRate {
  const stage1 = ratePerH(limit.start, limit.mid, limit.midH, ambient);
  const total = ratePerH(limit.start, limit.end, limit.endH, ambient);
  return { stage1, total, binding: stage1 >= total ? 'stage1' : 'total' };
}

/** The ambient three equally spaced readings show. Ill-conditioned: half a degree of noise moves it by several; for display only. */
export function ambientFrom(first: number, second: number, third: number): number {
  return (first * third - second * second) / (first + third - 2 * second);
}

/** Minutes in which the excess over the ambient halves. */
export function halfLifeMin(kPerH: number): number {
  return (Math.LN2 / kPerH) * 60;
}

/** Ball's f: minutes for the excess to fall to a tenth. */
export function fValueMin(kPerMin: number): number {
  return Math.LN10 / kPerMin;
}

/** Biot number h·L/k; a body is of one temperature inside below 0.1. Unstirred thick soup in a pan is not, a stirred pot is. */
export function biot(heatTransferWPerM2K: number, depthM: number, conductivityWPerMK: number): { readonly value: number; readonly lumped: boolean } {
  const value = (heatTransferWPerM2K * depthM) / conductivityWPerMK;
  return { value, lumped: value < 0.1 };
}

/** How much longer a deeper pan takes: with the square of the depth when nothing moves, with the depth when it is stirred. */
export function deeper(hours: number, depthRatio: number): { readonly stillH: number; readonly stirredH: number } {
  return { stillH: hours * depthRatio ** 2, stirredH: hours * depthRatio };
}

/** When a target was passed between two readings: on a straight line, or on Newton's curve when the ambient is given. Information, never a verdict. */
export function crossingMin(from: readonly [number, number], to: readonly [number, number], target: number, ambient: number | null): number {
  const [[startMin, high], [endMin, low]] = [from, to];
  const share = ambient === null ? (high - target) / (high - low) : Math.log((high - ambient) / (target - ambient)) / Math.log((high - ambient) / (low - ambient));
  return startMin + (endMin - startMin) * share;
}
