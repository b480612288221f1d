import { byId } from '../quantity/index';
import { ovenAt } from '../batch/index';
import type { Equipment, Station } from '../batch/index';
import type { Step } from '../soup/index';
import type { Resource, ResourceUse } from '../sequence/index';

/** Ovens and places to cool: how much of them a step takes, and how much there is. */

type Oven = Extract<Equipment, { readonly kind: 'oven' }>;
type CoolingPlace = Extract<Equipment, { readonly kind: 'cooling' }>;

/** Litres a tray takes. A design choice. */
const TRAY_L = 4;

/** One way of having room for a step: in which oven or bath, and how much of it. */
export interface PlaceWay {
  readonly id: string;
  readonly uses: readonly ResourceUse[];
}

function isOven(thing: Equipment): thing is Oven {
  return thing.kind === 'oven' && thing.inUse;
}

function isCooling(thing: Equipment): thing is CoolingPlace {
  return thing.kind === 'cooling' && thing.inUse;
}

/** Each thing that has room for all of it is a way; where none has, it is spread over them, the largest first, as far as they go. */
function waysIn(room: readonly { readonly id: string; readonly resourceId: string; readonly units: number }[], wanted: number): readonly PlaceWay[] {
  const enough = room.filter(({ units }) => units >= wanted);
  if (enough.length > 0) return enough.map(({ id, resourceId }) => ({ id, uses: [{ resourceId, units: wanted }] }));
  let left = wanted;
  const uses: ResourceUse[] = [];
  for (const { resourceId, units } of [...room].sort((one, other) => other.units - one.units || byId(one.id, other.id))) {
    if (left > 0 && units > 0) uses.push({ resourceId, units: Math.min(left, units) });
    left -= units;
  }
  return [{ id: 'only', uses }];
}

/** Of the places to cool the coldest that are large enough, so that nothing warm goes into the walk-in while the ice bath would do. */
function coldestFor(places: readonly CoolingPlace[], wantedL: number): readonly CoolingPlace[] {
  const enough = places.filter((place) => Math.floor(place.capacityL) >= wantedL);
  const coldest = Math.min(...enough.map((place) => place.ambientC));
  return enough.length === 0 ? places : enough.filter((place) => place.ambientC === coldest);
}

/** The ways there are to have room for a step; one that takes nothing where it needs none, or the station has none in use. */
export function placeWays(step: Step, volumeL: number, { equipment }: Station): readonly PlaceWay[] {
  const { place } = step;
  if (place.kind === 'oven') {
    const trays = Math.ceil(volumeL / TRAY_L);
    return waysIn(
      equipment.filter(isOven).map((oven) => ({ id: oven.id, resourceId: ovenAt(oven.id, place.temperatureC), units: oven.trays })),
      trays,
    );
  }
  if (!isCooled(step)) return [{ id: 'only', uses: [] }];
  const litres = Math.ceil(volumeL);
  return waysIn(
    coldestFor(equipment.filter(isCooling), litres).map(({ id, capacityL }) => ({ id, resourceId: id, units: Math.floor(capacityL) })),
    litres,
  );
}

/** Whether a step takes up a place to cool: in its pot or out of it. */
export function isCooled({ phase, place }: Step): boolean {
  return phase === 'cool' && (place.kind === 'vessel' || place.kind === 'bench');
}

/** Trays of every oven at each temperature these steps want, where one temperature excludes the others; litres of every place to cool. */
export function placeResources(station: Station, steps: readonly Step[]): readonly Resource[] {
  const heats = [...new Set(steps.flatMap(({ place }) => (place.kind === 'oven' ? [place.temperatureC] : [])))];
  return station.equipment.flatMap((thing): readonly Resource[] => {
    if (isCooling(thing)) return [{ id: thing.id, name: thing.name, capacity: Math.floor(thing.capacityL), windows: [] }];
    if (!isOven(thing)) return [];
    const ids = heats.map((heat) => ovenAt(thing.id, heat));
    return ids.map((id): Resource => ({ id, name: thing.name, capacity: thing.trays, windows: [], excludes: ids.filter((other) => other !== id) }));
  });
}
