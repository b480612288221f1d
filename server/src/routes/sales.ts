import { putDayEvents as putDayEventsBody, putSale, salesColumns, salesTaken, salesView } from '@broth/contract';
import { refuse } from '@broth/contract/refusals';
import { addDays } from '@broth/core';
import { z } from 'zod';
import type { Context } from '../context';
import { readSalesCsv } from '../documents/salesCsv';
import { soupsOf, stationOf } from '../store/kitchenStore';
import { putDayEvents, putSales, salesBetween } from '../store/sales';
import { dayOr400, dayParams, kitchenOr404, kitchenParams } from './common';
import type { Api } from './common';

/** A year of days is as far as a forecast looks back. */
const MOST_DAYS = 366;

export function salesRoutes(api: Api, context: Context): void {
  api.get(
    '/kitchens/:kitchenId/sales',
    {
      schema: {
        summary: 'Sales before a day, and what was on',
        params: kitchenParams,
        querystring: z.object({ until: z.string(), days: z.coerce.number().int().min(1).max(MOST_DAYS).default(120) }),
        response: { 200: salesView },
      },
    },
    async (request) => {
      const { kitchenId } = request.params;
      const { timeZone } = await kitchenOr404(kitchenId);
      const until = dayOr400(request.query.until);
      return salesBetween(context.database, { id: kitchenId, timeZone }, addDays(until, -request.query.days), until);
    },
  );

  api.put(
    '/kitchens/:kitchenId/days/:date/sales/:soupId',
    { schema: { summary: 'Put what was sold of a soup on a day', params: dayParams.extend({ soupId: z.string() }), body: putSale, response: { 200: salesTaken } } },
    async (request) => {
      const { kitchenId, soupId } = request.params;
      const day = dayOr400(request.params.date);
      await kitchenOr404(kitchenId);
      if ((await soupsOf(kitchenId)).every((soup) => soup.id !== soupId)) throw refuse('soup.unknown', { id: soupId });
      await putSales(context.database, kitchenId, [{ day, soupId, ...request.body }]);
      return { taken: 1 };
    },
  );

  api.put(
    '/kitchens/:kitchenId/days/:date/events',
    { schema: { summary: 'Put what is on a day: rough weather, a holiday, a large booking', params: dayParams, body: putDayEventsBody, response: { 200: putDayEventsBody } } },
    async (request) => {
      const day = dayOr400(request.params.date);
      await kitchenOr404(request.params.kitchenId);
      await putDayEvents(context.database, request.params.kitchenId, day, request.body.events);
      return { events: request.body.events };
    },
  );

  api.put(
    '/kitchens/:kitchenId/sales.csv',
    { bodyLimit: 2_000_000, schema: { summary: 'Take in a list of sales: all of it or nothing', params: kitchenParams, querystring: salesColumns, response: { 200: salesTaken } } },
    async (request) => {
      const { kitchenId } = request.params;
      await kitchenOr404(kitchenId);
      const [soups, { station }] = await Promise.all([soupsOf(kitchenId), stationOf(kitchenId)]);
      const { sales, problems } = readSalesCsv(typeof request.body === 'string' ? request.body : '', request.query, soups, station.services);
      const [first] = problems;
      if (first !== undefined) throw refuse('sales.unreadable', { first: `Line ${String(first.line)}: ${first.says}`, more: problems.length - 1 });
      await putSales(context.database, kitchenId, sales);
      return { taken: sales.length };
    },
  );
}
