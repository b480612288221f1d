/** A probe in a pot, simulated: heat by power, cooling by Newton's law, a sensor that lags, is noisy and fails on demand. Knows nothing of the program it reports to. */

export const FAULTS = ['none', 'dropout', 'flat', 'dead', 'spikes'] as const;
type Fault = (typeof FAULTS)[number];

export interface Setting {
  readonly unit: 'C' | 'F';
  /** What the food is at the start. °C. */
  readonly temperatureC: number;
  /** What it stands in. °C. */
  readonly ambientC: number;
  /** Newton's rate of cooling, per hour. */
  readonly kPerH: number;
  /** Kelvin per hour that heating adds; 0 = the heat is off. Food does not get hotter than boiling. */
  readonly heatKPerH: number;
  /** Standard deviation of a reading. °C. */
  readonly noiseC: number;
  readonly fault: Fault;
}

export interface ProbeState {
  /** The food. */
  readonly temperatureC: number;
  /** The sensor's tip, which is a little behind. */
  readonly tipC: number;
  /** What a flat line goes on showing. */
  readonly stuckC: number | null;
}

const BOILING_C = 100;
/** The tip of a probe takes so long to follow. Seconds. */
const LAG_S = 6;
/** Of samples that are lost while a line drops out. */
const LOST_SHARE = 0.5;
const SPIKE_SHARE = 0.02;
const SPIKE_C = 25;

export function begin({ temperatureC }: Setting): ProbeState {
  return { temperatureC, tipC: temperatureC, stuckC: null };
}

/** So many seconds later. Exact for constant surroundings, however long the step. */
export function after(state: ProbeState, { ambientC, kPerH, heatKPerH, fault }: Setting, seconds: number): ProbeState {
  const hours = seconds / 3600;
  // dT/dt = heat − k (T − ambient): towards the temperature at which both are even.
  const even = kPerH === 0 ? Infinity : ambientC + heatKPerH / kPerH;
  const next = kPerH === 0 ? state.temperatureC + heatKPerH * hours : even + (state.temperatureC - even) * Math.exp(-kPerH * hours);
  const temperatureC = Math.min(BOILING_C, next);
  const tipC = temperatureC + (state.tipC - temperatureC) * Math.exp(-seconds / LAG_S);
  return { temperatureC, tipC, stuckC: fault === 'flat' ? (state.stuckC ?? tipC) : null };
}

/** Two numbers between 0 and 1 make one of a normal distribution (Box and Muller 1958). */
function normal(random: () => number): number {
  return Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
}

/** What the probe sends now, in its own unit, to a tenth; null = nothing. */
export function sample(state: ProbeState, setting: Setting, random: () => number): number | null {
  const { unit, noiseC, fault } = setting;
  if (fault === 'dead' || (fault === 'dropout' && random() < LOST_SHARE)) return null;
  const shown = fault === 'flat' && state.stuckC !== null ? state.stuckC : state.tipC + noiseC * normal(random) + (fault === 'spikes' && random() < SPIKE_SHARE ? SPIKE_C : 0);
  return Math.round((unit === 'C' ? shown : shown * 1.8 + 32) * 10) / 10;
}
