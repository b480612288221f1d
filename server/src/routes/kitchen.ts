import { kitchenBook, patchEquipment, patchStation, putEquipment, putPerson } from '@broth/contract';
import { patchKeeping } from '@broth/contract/record';
import { refuse } from '@broth/contract/refusals';
import { slugOf } from '@broth/contract/formats';
import type { KitchenBook, PutEquipment, PutPerson } from '@broth/contract';
import { addDays, minutesBetween } from '@broth/core';
import type { Equipment, Station } from '@broth/core';
import { z } from 'zod';
import type { Context } from '../context';
import { dateIn, midnightOf } from '../localTime';
import { eventsOfDay } from '../store/eventLog';
import { changeStation, soupsOf, stationOf } from '../store/kitchenStore';
import { ruleVersionsOf, thermometerChecks } from '../store/rules';
import { pantryOf } from '../store/soupBook';
import { KitchenRow } from '../store/models';
import { kitchenOr404, kitchenParams } from './common';
import type { Api } from './common';

const equipmentParams = kitchenParams.extend({ equipmentId: z.string() });

/** So far back a phone is given the rules. */
const RULES_MS = 8 * 86_400_000;

/** What a kitchen is, as the app keeps it all day. */
export async function bookOf(context: Context, kitchenId: string): Promise<KitchenBook> {
  const { name, place, timeZone, temperatureUnit, invented, retentionDays } = await kitchenOr404(kitchenId);
  const [soups, pantry, { station }, { versions }, thermometers] = await Promise.all([
    soupsOf(kitchenId),
    pantryOf(kitchenId),
    stationOf(kitchenId),
    ruleVersionsOf(kitchenId),
    thermometerChecks(context.database, kitchenId),
  ]);
  const now = context.now();
  // What was begun a week ago is judged by what stood then; a phone needs nothing older.
  const first = versions.findLastIndex((version) => version.since <= now - RULES_MS);
  const today = dateIn(timeZone, now);
  const begun = (await eventsOfDay(context.database, kitchenId, today)).length > 0;
  // A day nobody began is not opened in the middle of its service: the lead is planning the next one.
  const over = minutesBetween(midnightOf(timeZone, today), now) > Math.min(...station.services.map((service) => service.startMin));
  return {
    kitchen: { id: kitchenId, name, place, timeZone, temperatureUnit, invented, retentionDays },
    soups: [...soups],
    pantry: [...pantry],
    station,
    rules: versions.slice(Math.max(0, first)),
    thermometers: [...thermometers],
    today,
    suggestedDay: !begun && over ? addDays(today, 1) : today,
    now,
  } as KitchenBook;
}

/** The station with somebody's name, shift and breaks as they are given; `personId` null = somebody new, who comes as a cook. */
function withPerson(station: Station, personId: string | null, given: PutPerson): Station {
  const { people } = station;
  if (personId !== null && people.every(({ id }) => id !== personId)) throw refuse('person.unknown', { id: personId });
  if (people.some(({ id, name }) => id !== personId && name.toLowerCase() === given.name.toLowerCase())) throw refuse('person.nameTaken', { name: given.name });
  // Without any days they come in on every one.
  if (personId !== null) return { ...station, people: people.map((person) => (person.id === personId ? { ...person, ...given, days: given.days } : person)) };
  return { ...station, people: [...people, { id: slugOf(given.name, new Set(people.map(({ id }) => id))), role: 'cook', ...given }] };
}

/** The station's things with one of them changed. */
function changedThing({ equipment }: Station, equipmentId: string, change: (thing: Equipment) => Equipment): readonly Equipment[] {
  if (equipment.every(({ id }) => id !== equipmentId)) throw refuse('equipment.unknown', { id: equipmentId });
  return equipment.map((thing) => (thing.id === equipmentId ? change(thing) : thing));
}

/** The station with a thing as it is given; `equipmentId` null = something new. */
function withThing(station: Station, equipmentId: string | null, given: PutEquipment): Station {
  const { equipment } = station;
  if (equipment.some(({ id, name }) => id !== equipmentId && name.toLowerCase() === given.name.toLowerCase())) throw refuse('equipment.nameTaken', { name: given.name });
  if (equipmentId === null) return { ...station, equipment: [...equipment, { id: slugOf(given.name, new Set(equipment.map(({ id }) => id))), ...given }] };
  return {
    ...station,
    equipment: changedThing(station, equipmentId, (thing) => {
      if (thing.kind !== given.kind) throw refuse('equipment.otherKind', { name: thing.name });
      return { id: thing.id, ...given };
    }),
  };
}

/** The kitchen with its station changed. */
export async function bookWith(context: Context, kitchenId: string, change: Parameters<typeof changeStation>[2]): Promise<KitchenBook> {
  await kitchenOr404(kitchenId);
  await changeStation(context.database, kitchenId, change);
  return bookOf(context, kitchenId);
}

export function kitchenRoutes(api: Api, context: Context): void {
  const changed = (kitchenId: string, change: (station: Station) => Station): Promise<KitchenBook> => bookWith(context, kitchenId, change);
  const summary = z.array(z.object({ id: z.string(), name: z.string(), place: z.string() }));
  api.get('/kitchens', { schema: { summary: 'The kitchens of this installation', response: { 200: summary } } }, async () => {
    const rows = await KitchenRow.findAll({ order: [['kitchenId', 'ASC']] });
    return rows.map(({ kitchenId, name, place }) => ({ id: kitchenId, name, place }));
  });
  api.get('/kitchens/:kitchenId', { schema: { summary: 'Soups, station, people and rules of a kitchen', params: kitchenParams, response: { 200: kitchenBook } } }, (request) =>
    bookOf(context, request.params.kitchenId),
  );
  api.patch(
    '/kitchens/:kitchenId/station',
    { schema: { summary: 'Change what plans go by: washes, how long before service, how certain', params: kitchenParams, body: patchStation, response: { 200: kitchenBook } } },
    ({ params, body }) =>
      changed(params.kitchenId, (station) => ({
        ...station,
        rinseMin: body.rinseMin ?? station.rinseMin,
        fullWashMin: body.fullWashMin ?? station.fullWashMin,
        readyLeadMin: body.readyLeadMin ?? station.readyLeadMin,
        aimChance: body.aimChance === undefined ? station.aimChance : body.aimChance,
        laterBatches: body.laterBatches ?? station.laterBatches,
        interruptsCutting: body.interruptsCutting ?? station.interruptsCutting,
        altitudeM: body.altitudeM ?? station.altitudeM,
      })),
  );
  api.patch(
    '/kitchens/:kitchenId/keeping',
    { schema: { summary: 'How long records are kept at least', params: kitchenParams, body: patchKeeping, response: { 200: kitchenBook } } },
    async (request) => {
      const kitchen = await kitchenOr404(request.params.kitchenId);
      await kitchen.update({ retentionDays: request.body.retentionDays });
      return bookOf(context, kitchen.kitchenId);
    },
  );
  api.post(
    '/kitchens/:kitchenId/people',
    { schema: { summary: 'Somebody new at the station, as a cook', params: kitchenParams, body: putPerson, response: { 200: kitchenBook } } },
    ({ params, body }) => changed(params.kitchenId, (station) => withPerson(station, null, body)),
  );
  api.put(
    '/kitchens/:kitchenId/people/:personId',
    {
      schema: {
        summary: 'When somebody works, with breaks, or not at all',
        params: kitchenParams.extend({ personId: z.string() }),
        body: putPerson,
        response: { 200: kitchenBook },
      },
    },
    ({ params, body }) => changed(params.kitchenId, (station) => withPerson(station, params.personId, body)),
  );
  api.patch(
    '/kitchens/:kitchenId/equipment/:equipmentId',
    { schema: { summary: 'Put a thing into or out of use', params: equipmentParams, body: patchEquipment, response: { 200: kitchenBook } } },
    ({ params, body }) =>
      changed(params.kitchenId, (station) => ({ ...station, equipment: changedThing(station, params.equipmentId, (thing) => ({ ...thing, inUse: body.inUse })) })),
  );
  api.put(
    '/kitchens/:kitchenId/equipment/:equipmentId',
    { schema: { summary: 'What a thing is called and how much it takes', params: equipmentParams, body: putEquipment, response: { 200: kitchenBook } } },
    ({ params, body }) => changed(params.kitchenId, (station) => withThing(station, params.equipmentId, body)),
  );
  api.post(
    '/kitchens/:kitchenId/equipment',
    { schema: { summary: 'Something new at the station', params: kitchenParams, body: putEquipment, response: { 200: kitchenBook } } },
    ({ params, body }) => changed(params.kitchenId, (station) => withThing(station, null, body)),
  );
}
