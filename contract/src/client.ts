import type { DayEvent, DayPlan, Food, Soup } from '@broth/core';
import type { z } from 'zod';
import { kitchenBook } from './book';
import { dayPlan, dayView, storedPlan, storedPlans } from './plan';
import { putDayEvents, salesTaken, salesView } from './sales';
import type { SalesColumns, putSale } from './sales';
import { food, soup as soupSchema } from './soup';
import { eventsAnswer, pantryAnswer, problem, soupHistory, soupVersions } from './requests';
import type { Problem, patchStation } from './requests';

/** What went wrong with a call: the server refused (its problem says why), or could not be reached at all. */
export class CallFailed extends Error {
  readonly problem: Problem | null;
  constructor(message: string, given: Problem | null) {
    super(message);
    this.name = 'CallFailed';
    this.problem = given;
  }
}

type Fetch = (url: string, init?: { method?: string; headers?: Record<string, string>; body?: string }) => Promise<{ ok: boolean; status: number; json(): Promise<unknown> }>;

/** The API as functions. `fetch` is handed in, so that tests and the app use the same client. */
export function client(fetch: Fetch, base = '') {
  async function call<Schema extends z.ZodType>(schema: Schema, method: string, path: string, body?: unknown, type = 'application/json'): Promise<z.infer<Schema>> {
    let response;
    let answer: unknown;
    try {
      response = await fetch(
        `${base}/api${path}`,
        body === undefined ? { method } : { method, headers: { 'content-type': type }, body: typeof body === 'string' ? body : JSON.stringify(body) },
      );
      answer = await response.json();
    } catch {
      throw new CallFailed('The server cannot be reached. What you entered stays on this device.', null);
    }
    if (!response.ok) {
      const refused = problem.safeParse(answer);
      throw new CallFailed(refused.success ? refused.data.detail : `The server answered ${String(response.status)}.`, refused.success ? refused.data : null);
    }
    return schema.parse(answer);
  }
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
    putEquipment: (kitchenId: string, equipmentId: string, inUse: boolean) => call(kitchenBook, 'PUT', `/kitchens/${kitchenId}/equipment/${equipmentId}`, { inUse }),
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
