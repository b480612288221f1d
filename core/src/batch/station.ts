import type { Vessel } from './batch';

export interface JarBlender {
  readonly kind: 'jar';
  readonly id: string;
  readonly name: string;
  readonly capacityL: number;
  /** The hot-fill line: steam needs the rest. */
  readonly hotFillL: number;
  readonly cycleMin: number;
  readonly inUse: boolean;
}

/** Everything that stands at the station. A thing out of use stays in the list. */
export type Equipment =
  | ({ readonly kind: 'vessel' } & Vessel)
  | JarBlender
  | { readonly kind: 'immersion'; readonly id: string; readonly name: string; readonly inUse: boolean }
  | { readonly kind: 'oven'; readonly id: string; readonly name: string; readonly trays: number; readonly inUse: boolean }
  | { readonly kind: 'cooling'; readonly id: string; readonly name: string; readonly capacityL: number; readonly ambientC: number; readonly inUse: boolean }
  | { readonly kind: 'well'; readonly id: string; readonly name: string; readonly capacityL: number; readonly inUse: boolean };

/** From one minute of the day to another. */
export interface Stretch {
  readonly fromMin: number;
  readonly toMin: number;
}

export interface Person {
  readonly id: string;
  readonly name: string;
  readonly role: 'lead' | 'cook';
  /** Minutes after the day's local midnight. */
  readonly shift: Stretch;
  /** Off the floor in between, every day. */
  readonly breaks?: readonly Stretch[] | undefined;
  /** Does not come in, until that is changed. */
  readonly off?: boolean | undefined;
  /** The days of the week somebody comes in on, 1 = Monday … 7 = Sunday; left out = every day. */
  readonly days?: readonly number[] | undefined;
  /** Gone in between, today. */
  readonly away?: readonly Stretch[] | undefined;
}

export interface Service {
  readonly id: string;
  readonly name: string;
  readonly startMin: number;
  readonly endMin: number;
  /** The days of the week it is held on, as a person's; left out = every day. */
  readonly days?: readonly number[] | undefined;
}

/** A thermometer: held in by hand, a probe that stays in and reports by itself, or one that logs to a file. */
export interface Thermometer {
  readonly id: string;
  readonly name: string;
  readonly unit: 'C' | 'F';
  readonly kind: 'hand' | 'probe' | 'logger';
  readonly inUse: boolean;
}

export interface Station {
  readonly equipment: readonly Equipment[];
  readonly people: readonly Person[];
  readonly services: readonly Service[];
  readonly rinseMin: number;
  readonly fullWashMin: number;
  /** Soups are to be ready this long before their service opens: cooking runs over more often than under. */
  readonly readyLeadMin: number;
  /** On what share of the days each soup is to be ready in time, 0 to 1: the plan leaves room for it. null = on the dot. */
  readonly aimChance: number | null;
  /** Whether a soup's second batch is wanted only when the first may run out, and not before the doors open. */
  readonly laterBatches: boolean;
  /** Whether cutting may be put down for something else and taken up again. */
  readonly interruptsCutting?: boolean | undefined;
  /** Metres above the sea: where water boils. */
  readonly altitudeM: number;
  readonly thermometers: readonly Thermometer[];
}

export function vesselsOf(station: Station): readonly Vessel[] {
  return station.equipment.flatMap((thing) => (thing.kind === 'vessel' ? [thing] : []));
}

export function jarOf(station: Station): JarBlender | null {
  return station.equipment.find((thing): thing is JarBlender => thing.kind === 'jar' && thing.inUse) ?? null;
}

/** The blender a step is done with: the one its card asks for, else the other one that is in use; null when the station has none. */
export function blenderFor(asked: 'jar' | 'immersion', station: Station): 'jar' | 'immersion' | null {
  const has = (kind: 'jar' | 'immersion'): boolean => station.equipment.some((thing) => thing.kind === kind && thing.inUse);
  const other = asked === 'jar' ? 'immersion' : 'jar';
  return has(asked) ? asked : has(other) ? other : null;
}
