import { storedPlan } from '@broth/contract';
import { refuse } from '@broth/contract/refusals';
import { versionKey } from '@broth/core';
import { stringify } from 'csv-stringify/sync';
import { z } from 'zod';
import type { Context } from '../context';
import { planCalendar } from '../documents/planCalendar';
import { runSheet } from '../documents/runSheet';
import { runSheetPdf } from '../documents/runSheetPdf';
import { planOf } from '../store/kitchenStore';
import { earlierSoups } from '../store/soupBook';
import { dayOr400, dayParams, planBasis } from './common';
import type { Api } from './common';

const planQuery = z.object({ person: z.string().max(100).optional(), paper: z.enum(['a4', 'letter']).default('a4') });

export function documentRoutes(api: Api, context: Context): void {
  /** The accepted plan of a day as lines, for everybody or for one person. */
  const runOf = async (kitchenId: string, date: string, personId: string | undefined) => {
    const { kitchen, midnight, soups, station } = await planBasis(context, kitchenId, date);
    const stored = await planOf(kitchenId, date);
    if (stored === null) throw refuse('plan.none', { day: date });
    const person = personId === undefined ? null : station.people.find((one) => one.id === personId);
    if (person === undefined) throw refuse('event.personUnknown', { by: personId ?? '' });
    const earlier = await earlierSoups(kitchenId, stored.plan.batches);
    const soupById = new Map([...soups.map((soup) => [soup.id, soup] as const), ...earlier.map((soup) => [versionKey(soup.id, soup.version), soup] as const)]);
    const all = runSheet(stored.plan, soupById, station);
    return { kitchen, midnight, stored, person, lines: person === null ? all : all.filter((line) => line.personId === person.id) };
  };

  api.get(
    '/kitchens/:kitchenId/days/:date/plan.ics',
    { schema: { summary: 'The plan as iCalendar (RFC 5545)', params: dayParams, querystring: planQuery } },
    async (request, reply) => {
      const date = dayOr400(request.params.date);
      const { kitchen, midnight, stored, person, lines } = await runOf(request.params.kitchenId, date, request.query.person);
      const text = planCalendar({ lines, midnight, day: date, stamp: stored.acceptedAt, name: `${kitchen.name}${person === null ? '' : `, ${person.name}`}` });
      return reply.type('text/calendar; charset=utf-8').header('content-disposition', `attachment; filename="plan-${date}.ics"`).send(text);
    },
  );

  api.get('/kitchens/:kitchenId/days/:date/plan.csv', { schema: { summary: 'The plan as CSV (RFC 4180)', params: dayParams, querystring: planQuery } }, async (request, reply) => {
    const date = dayOr400(request.params.date);
    const { lines } = await runOf(request.params.kitchenId, date, request.query.person);
    const csv = stringify([...lines], {
      header: true,
      columns: ['start', 'end', 'minutes', 'person', 'batch', 'litres', 'phase', 'what', 'place', 'check', 'caution'],
      record_delimiter: '\r\n',
      escape_formulas: true,
    });
    return reply.type('text/csv; charset=utf-8').header('content-disposition', `attachment; filename="plan-${date}.csv"`).send(csv);
  });

  api.get(
    '/kitchens/:kitchenId/days/:date/plan.json',
    { schema: { summary: 'The accepted plan as it is stored', params: dayParams, response: { 200: storedPlan } } },
    async (request) => {
      const date = dayOr400(request.params.date);
      return (await runOf(request.params.kitchenId, date, undefined)).stored;
    },
  );

  api.get(
    '/kitchens/:kitchenId/days/:date/run-sheet.pdf',
    { schema: { summary: 'The run sheet of a day, for the station or a person', params: dayParams, querystring: planQuery } },
    async (request, reply) => {
      const date = dayOr400(request.params.date);
      const { kitchen, stored, person, lines } = await runOf(request.params.kitchenId, date, request.query.person);
      const bytes = await runSheetPdf(
        { kitchen: kitchen.name, day: date, person: person?.name ?? null, version: stored.version, lines },
        request.query.paper === 'a4' ? 'A4' : 'LETTER',
      );
      return reply.type('application/pdf').header('content-disposition', `inline; filename="run-sheet-${date}.pdf"`).send(bytes);
    },
  );
}
