import type { DayEvent, DayPlan, Food, Soup } from '@broth/core';
import type { z } from 'zod';
import { kitchenBook } from './book';
import { caller } from './caller';
import type { Fetch } from './caller';
import { dayPlan, dayView, storedPlan, storedPlans } from './plan';
import { putDayEvents, salesTaken, salesView } from './sales';
import type { SalesColumns, putSale } from './sales';
import { food, soup as soupSchema } from './soup';
import { eventsAnswer, pantryAnswer, soupHistory, soupVersions } from './requests';
import type { PutEquipment, PutPerson, PutService, patchStation } from './requests';

/** The API as functions. `fetch` is handed in, so that tests and the app use the same client. */
export function client(fetch: Fetch, base = '') {
  const call = caller(fetch, base);
  return {
    book: (kitchenId: string) => call(kitchenBook, 'GET', `/kitchens/${kitchenId}`),
    day: (kitchenId: string, date: string) => call(dayView, 'GET', `/kitchens/${kitchenId}/days/${date}`),
    putPar: (kitchenId: string, date: string, soupId: string, parL: number) => call(dayView, 'PUT', `/kitchens/${kitchenId}/days/${date}/pars/${soupId}`, { parL }),
    postPlan: (kitchenId: string, date: string, body: { by: string; nowMin: number; plan: DayPlan; basedOn?: number | null }) =>
      call(storedPlan, 'POST', `/kitchens/${kitchenId}/days/${date}/plans`, body),
    plans: (kitchenId: string, date: string) => call(storedPlans, 'GET', `/kitchens/${kitchenId}/days/${date}/plans`),
    searchPlan: (kitchenId: string, date: string, body: { nowMin: number; from: DayPlan; forS: number }) =>
      call(dayPlan, 'POST', `/kitchens/${kitchenId}/days/${date}/searches`, body),
    patchStation: (kitchenId: string, changes: z.infer<typeof patchStation>) => call(kitchenBook, 'PATCH', `/kitchens/${kitchenId}/station`, changes),
    setInUse: (kitchenId: string, equipmentId: string, inUse: boolean) => call(kitchenBook, 'PATCH', `/kitchens/${kitchenId}/equipment/${equipmentId}`, { inUse }),
    /** `equipmentId` null = something new. */
    putEquipment: (kitchenId: string, equipmentId: string | null, thing: PutEquipment) =>
      equipmentId === null
        ? call(kitchenBook, 'POST', `/kitchens/${kitchenId}/equipment`, thing)
        : call(kitchenBook, 'PUT', `/kitchens/${kitchenId}/equipment/${equipmentId}`, thing),
    /** `personId` null = somebody new. */
    putPerson: (kitchenId: string, personId: string | null, person: PutPerson) =>
      personId === null ? call(kitchenBook, 'POST', `/kitchens/${kitchenId}/people`, person) : call(kitchenBook, 'PUT', `/kitchens/${kitchenId}/people/${personId}`, person),
    /** `serviceId` null = a new one. */
    putService: (kitchenId: string, serviceId: string | null, service: PutService) =>
      serviceId === null
        ? call(kitchenBook, 'POST', `/kitchens/${kitchenId}/services`, service)
        : call(kitchenBook, 'PUT', `/kitchens/${kitchenId}/services/${serviceId}`, service),
    removeService: (kitchenId: string, serviceId: string) => call(kitchenBook, 'DELETE', `/kitchens/${kitchenId}/services/${serviceId}`),
    putServedAt: (kitchenId: string, soupId: string, serviceId: string) => call(kitchenBook, 'PUT', `/kitchens/${kitchenId}/soups/${soupId}/service`, { serviceId }),
    postSoup: (kitchenId: string, body: { by: string; soup: Soup }) => call(soupSchema, 'POST', `/kitchens/${kitchenId}/soups`, body),
    putSoup: (kitchenId: string, body: { by: string; baseVersion: number; soup: Soup }) => call(soupSchema, 'PUT', `/kitchens/${kitchenId}/soups/${body.soup.id}`, body),
    retireSoup: (kitchenId: string, soupId: string) => call(kitchenBook, 'DELETE', `/kitchens/${kitchenId}/soups/${soupId}`),
    soupVersions: (kitchenId: string, soupId: string) => call(soupVersions, 'GET', `/kitchens/${kitchenId}/soups/${soupId}/versions`),
    soupHistory: (kitchenId: string, soupId: string) => call(soupHistory, 'GET', `/kitchens/${kitchenId}/soups/${soupId}/history`),
    putFood: (kitchenId: string, one: Food) => call(food, 'PUT', `/kitchens/${kitchenId}/pantry/${one.id}`, one),
    putPantryCsv: (kitchenId: string, csv: string) => call(pantryAnswer, 'PUT', `/kitchens/${kitchenId}/pantry.csv`, csv, 'text/csv'),
    sales: (kitchenId: string, until: string) => call(salesView, 'GET', `/kitchens/${kitchenId}/sales?until=${until}`),
    putSale: (kitchenId: string, day: string, soupId: string, body: z.infer<typeof putSale>) => call(salesTaken, 'PUT', `/kitchens/${kitchenId}/days/${day}/sales/${soupId}`, body),
    putDayEvents: (kitchenId: string, day: string, body: z.infer<typeof putDayEvents>) => call(putDayEvents, 'PUT', `/kitchens/${kitchenId}/days/${day}/events`, body),
    putSalesCsv: (kitchenId: string, csv: string, columns: SalesColumns) => {
      const query = Object.entries(columns).flatMap(([name, value]) => (value === undefined ? [] : [`${name}=${encodeURIComponent(value)}`]));
      return call(salesTaken, 'PUT', `/kitchens/${kitchenId}/sales.csv?${query.join('&')}`, csv, 'text/csv');
    },
    postEvents: (kitchenId: string, events: readonly DayEvent[]) => call(eventsAnswer, 'POST', `/kitchens/${kitchenId}/events`, { events }),
  };
}
export type Client = ReturnType<typeof client>;
