import { iceBathKg, iceToAddKg, pansFor } from '../pot/index';
import type { CoolingMethod } from './rule';

/**
 * Ways of cooling soup and how fast each should be: for advice and for ranking, never for a verdict. Heat transfer coefficients are assumed (common practice);
 * the rates follow from them by the lumped balance k = U·A/(m·c), with half the depth of still food in the way of the heat. Derived, not published.
 */
/** Soup: kg/m³, J/kgK, W/mK. Common practice. */
const DENSITY = 1030;
const HEAT_CAPACITY = 3900;
const CONDUCTIVITY = 0.55;
/** W/m²K through a pot's wall into an ice bath, still and stirred, and with a wand of ice stirred in a bath; and into moving air. Assumed. */
const POT_U: Readonly<Record<'iceBath' | 'iceBathStirred' | 'iceWand' | 'walkIn', number>> = { iceBath: 60, iceBathStirred: 150, iceWand: 200, walkIn: 15 };
/** W/m²K above and below a pan. */
const PAN_H = { walkIn: [20, 15], blast: [40, 40] } as const;
/** A pot about as wide as it is filled high. */
const POT_SHAPE = 1;
/** A full-size pan's inside, m². EN 631-1 gives the outside, 530 × 325 mm. */
const PAN_AREA = 0.14;

/** Newton's k of a pot standing in something, per hour. `volumeL` above 0. 20 L in a stirred ice bath: 2.2. */
export function potRatePerH(volumeL: number, method: keyof typeof POT_U): number {
  const volumeM3 = volumeL / 1000;
  // A cylinder of height h = diameter × shape: V = π d³/4.
  const diameter = Math.cbrt((4 * volumeM3) / (Math.PI * POT_SHAPE));
  const end = (Math.PI * diameter * diameter) / 4;
  // In air the open top cools as well as the bottom does; in a bath it does not.
  const area = Math.PI * diameter * diameter * POT_SHAPE + end * (method === 'walkIn' ? 2 : 1);
  return (POT_U[method] * area * 3600) / (volumeM3 * DENSITY * HEAT_CAPACITY);
}

/** Newton's k of thick soup standing in a pan, per hour, by its depth in metres: what still food lets through from its middle is less than the air would take. */
export function panRatePerH(depthM: number, air: keyof typeof PAN_H): number {
  const inside = depthM / 2 / (2.5 * CONDUCTIVITY);
  const [above, below] = PAN_H[air].map((h) => 1 / (1 / h + inside));
  return (((above ?? 0) + (below ?? 0)) * 3600) / (DENSITY * HEAT_CAPACITY * depthM);
}

/** A way of cooling that could be taken now. */
export interface CoolingWay {
  readonly method: CoolingMethod;
  readonly placeId: string | null;
  readonly ambientC: number;
  readonly kPerH: number;
  /** Minutes from now; null = what it would stand in is not cold enough. */
  readonly minutes: number | null;
  /** Set for pans: how many, and how deep. */
  readonly pans: number | null;
  readonly depthCm: number | null;
  /** Ice for a bath: what melts, and what to have. kg. */
  readonly iceKg: number | null;
}

/** A place to cool in, as the station has it. */
export interface ColdPlace {
  readonly id: string;
  readonly ambientC: number;
}

/** Of the ice that melts a bath wants half as much again to twice: it is not all at the pot. Common practice. */
const ICE_TO_HAVE = 1.75;
/** Two inches for what is thick, as trained; the Code names no depth. Common practice. */
export const SHALLOW_CM = 5;
/** Warmer than this is no blast chiller. */
const BLAST_C = -5;
/** An ice bath stands at 0 °C. */
const ICE_BATH_C = 0.6;

/** Ways from a temperature to a target, the fastest first. Places that are not cold enough come last, with no time. */
export function coolingWays(given: { readonly volumeL: number; readonly fromC: number; readonly toC: number; readonly places: readonly ColdPlace[] }): readonly CoolingWay[] {
  const { volumeL, fromC, toC, places } = given;
  const massKg = (volumeL * DENSITY) / 1000;
  const minutes = (kPerH: number, ambientC: number): number | null => (toC <= ambientC ? null : (Math.log((fromC - ambientC) / (toC - ambientC)) / kPerH) * 60);
  const pot = (method: keyof typeof POT_U, place: ColdPlace): CoolingWay => {
    const kPerH = potRatePerH(volumeL, method);
    const iceKg = method === 'walkIn' ? null : iceBathKg(massKg, fromC, toC) * ICE_TO_HAVE;
    return { method, placeId: place.id, ambientC: place.ambientC, kPerH, minutes: minutes(kPerH, place.ambientC), pans: null, depthCm: null, iceKg };
  };
  const pans = (place: ColdPlace): CoolingWay => {
    const kPerH = panRatePerH(SHALLOW_CM / 100, place.ambientC <= BLAST_C ? 'blast' : 'walkIn');
    const method = place.ambientC <= BLAST_C ? 'blast' : 'shallowPans';
    return {
      method,
      placeId: place.id,
      ambientC: place.ambientC,
      kPerH,
      minutes: minutes(kPerH, place.ambientC),
      pans: pansFor(volumeL, SHALLOW_CM / 100, PAN_AREA),
      depthCm: SHALLOW_CM,
      iceKg: null,
    };
  };
  const ways = places.flatMap((place) => (Math.abs(place.ambientC) <= ICE_BATH_C ? [pot('iceBathStirred', place), pot('iceWand', place)] : [pans(place), pot('walkIn', place)]));
  return ways.sort((one, other) => (one.minutes ?? Infinity) - (other.minutes ?? Infinity));
}

/** Ice that brings a soup to a temperature when it is stirred in, and what it does to the recipe. */
export interface IceIn {
  readonly iceKg: number;
  /** Litres it is more afterwards: the card's water has to be less by as much. */
  readonly addsL: number;
  /** Share of the finished soup that is melted ice. */
  readonly share: number;
}

/** Drinking-water ice as an ingredient: 10 kg from 57.2 to 21.1 °C take 3.333 kg. It counts as water in the recipe and in its salt. */
export function iceIn(volumeL: number, fromC: number, toC: number): IceIn {
  const massKg = (volumeL * DENSITY) / 1000;
  const iceKg = iceToAddKg(massKg, fromC, toC);
  return { iceKg, addsL: iceKg, share: iceKg / (massKg + iceKg) };
}
