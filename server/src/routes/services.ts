import { kitchenBook, putServedAt, putService } from '@broth/contract';
import type { PutService } from '@broth/contract';
import { slugOf } from '@broth/contract/formats';
import { refuse } from '@broth/contract/refusals';
import type { Station } from '@broth/core';
import { z } from 'zod';
import type { Context } from '../context';
import { serveAt, soupsAt, soupsOf } from '../store/kitchenStore';
import { kitchenOr404, kitchenParams } from './common';
import type { Api } from './common';
import { bookOf, bookWith } from './kitchen';

const serviceParams = kitchenParams.extend({ serviceId: z.string().max(100) });

/** The station with a service as it is given, in the order of the day; `serviceId` null = a new one. */
function withService(station: Station, serviceId: string | null, given: PutService): Station {
  const { services } = station;
  if (serviceId !== null && services.every(({ id }) => id !== serviceId)) throw refuse('service.unknown', { id: serviceId });
  if (services.some(({ id, name }) => id !== serviceId && name.toLowerCase() === given.name.toLowerCase())) throw refuse('service.nameTaken', { name: given.name });
  const id = serviceId ?? slugOf(given.name, new Set(services.map((service) => service.id)));
  const all = [...services.filter((service) => service.id !== id), { id, ...given }];
  return { ...station, services: all.sort((left, right) => left.startMin - right.startMin || left.endMin - right.endMin) };
}

/** When soups are wanted, and which of them when. */
export function serviceRoutes(api: Api, context: Context): void {
  api.post(
    '/kitchens/:kitchenId/services',
    { schema: { summary: 'Another time soups are wanted at', params: kitchenParams, body: putService, response: { 200: kitchenBook } } },
    ({ params, body }) => bookWith(context, params.kitchenId, (station) => withService(station, null, body)),
  );
  api.put(
    '/kitchens/:kitchenId/services/:serviceId',
    { schema: { summary: 'What a service is called and when it opens and closes', params: serviceParams, body: putService, response: { 200: kitchenBook } } },
    ({ params, body }) => bookWith(context, params.kitchenId, (station) => withService(station, params.serviceId, body)),
  );
  api.delete(
    '/kitchens/:kitchenId/services/:serviceId',
    { schema: { summary: 'Remove a service no soup is wanted at', params: serviceParams, response: { 200: kitchenBook } } },
    ({ params: { kitchenId, serviceId } }) =>
      bookWith(context, kitchenId, async (station, transaction) => {
        const services = station.services.filter(({ id }) => id !== serviceId);
        if (services.length === station.services.length) throw refuse('service.unknown', { id: serviceId });
        const wanted = await soupsAt(kitchenId, serviceId, transaction);
        const names = (await soupsOf(kitchenId)).flatMap(({ id, name }) => (wanted.includes(id) ? [name] : []));
        if (wanted.length > 0) throw refuse('service.needed', { names: names.join(', ') });
        if (services.length === 0) throw refuse('service.last');
        return { ...station, services };
      }),
  );
  api.put(
    '/kitchens/:kitchenId/soups/:soupId/service',
    { schema: { summary: 'At which service a soup is wanted', params: kitchenParams.extend({ soupId: z.string().max(100) }), body: putServedAt, response: { 200: kitchenBook } } },
    async ({ params: { kitchenId, soupId }, body: { serviceId } }) => {
      await kitchenOr404(kitchenId);
      const missing = await serveAt(context.database, kitchenId, soupId, serviceId);
      if (missing === 'service') throw refuse('service.unknown', { id: serviceId });
      if (missing === 'soup') throw refuse('soup.unknown', { id: soupId });
      return bookOf(context, kitchenId);
    },
  );
}
