import { createHash, randomBytes } from 'node:crypto';
import { inspection, inspectorLinks, madeInspectorLink, postInspectorLink } from '@broth/contract/record';
import type { DayRecord, RecordLine } from '@broth/contract/record';
import { refuse } from '@broth/contract/refusals';
import { addDays, foldDay } from '@broth/core';
import type { CalendarDate } from '@broth/core';
import { stringify } from 'csv-stringify/sync';
import type { FastifyReply } from 'fastify';
import { z } from 'zod';
import type { Context } from '../context';
import { dayRecord } from '../documents/dayRecord';
import { dayRecordPdf } from '../documents/dayRecordPdf';
import { eventsOfDay, headOf } from '../store/eventLog';
import { soupsOf, stationOf } from '../store/kitchenStore';
import { InspectorLinkRow } from '../store/models';
import type { KitchenRow } from '../store/models';
import { ruleBookOf, thermometerChecks } from '../store/rules';
import { earlierSoups } from '../store/soupBook';
import { dayOr400, dayParams, kitchenOr404, kitchenParams } from './common';
import type { Api } from './common';

const COLUMNS: readonly (keyof RecordLine)[] = [
  'seq',
  'what',
  'takenAt',
  'recordedAt',
  'late',
  'batch',
  'soup',
  'purpose',
  'pan',
  'temperature',
  'unit',
  'asTyped',
  'offset',
  'thermometer',
  'verdict',
  'says',
  'rule',
  'pack',
  'by',
  'device',
  'note',
  'litres',
  'voided',
  'suspect',
  'eventId',
  'hash',
];
const paper = z.object({ paper: z.enum(['a4', 'letter']).default('a4') });
const DAY_MS = 86_400_000;

function csvOf(record: DayRecord): string {
  // Notes are typed by people: a cell that a spreadsheet would run as a formula is written so that it does not.
  return stringify([...record.lines], {
    header: true,
    columns: [...COLUMNS],
    record_delimiter: '\r\n',
    escape_formulas: true,
    cast: { boolean: (value) => (value ? 'true' : 'false') },
  });
}

export function recordRoutes(api: Api, context: Context): void {
  const recordOf = async (kitchen: KitchenRow, day: CalendarDate): Promise<DayRecord> => {
    const { kitchenId, name, place, timeZone, temperatureUnit, invented } = kitchen;
    const [events, soups, { station }, book, thermometers, head] = await Promise.all([
      eventsOfDay(context.database, kitchenId, day),
      soupsOf(kitchenId),
      stationOf(kitchenId),
      ruleBookOf(kitchenId),
      thermometerChecks(context.database, kitchenId),
      headOf(context.database, kitchenId),
    ]);
    const earlier = await earlierSoups(kitchenId, Object.values(foldDay(events).batches), soups);
    return dayRecord({
      kitchen: { id: kitchenId, name, place, timeZone, invented, unit: temperatureUnit },
      day,
      events,
      soups: [...soups, ...earlier],
      station,
      book,
      thermometers,
      head,
      now: context.now(),
    });
  };
  // Written as it is: its type holds it, and reading hundreds of lines through a schema again would take as long as making them.
  const asJson = (reply: FastifyReply, record: DayRecord): FastifyReply => reply.type('application/json').send(JSON.stringify(record));
  const asCsv = (reply: FastifyReply, record: DayRecord): FastifyReply =>
    reply.type('text/csv; charset=utf-8').header('content-disposition', `attachment; filename="temperature-record-${record.day}.csv"`).send(csvOf(record));
  const asPdf = async (reply: FastifyReply, record: DayRecord, on: 'a4' | 'letter'): Promise<FastifyReply> =>
    reply
      .type('application/pdf')
      .header('content-disposition', `inline; filename="temperature-record-${record.day}.pdf"`)
      .send(await dayRecordPdf(record, on === 'letter' ? 'LETTER' : 'A4'));

  api.get(
    '/kitchens/:kitchenId/days/:date/record.json',
    { schema: { summary: "The day's temperature record: readings, verdicts, actions, signature", params: dayParams } },
    async (request, reply) => asJson(reply, await recordOf(await kitchenOr404(request.params.kitchenId), dayOr400(request.params.date))),
  );
  api.get('/kitchens/:kitchenId/days/:date/record.csv', { schema: { summary: "The day's temperature record as CSV (RFC 4180)", params: dayParams } }, async (request, reply) =>
    asCsv(reply, await recordOf(await kitchenOr404(request.params.kitchenId), dayOr400(request.params.date))),
  );
  api.get(
    '/kitchens/:kitchenId/days/:date/record.pdf',
    { schema: { summary: "The day's temperature record on paper", params: dayParams, querystring: paper } },
    async (request, reply) => asPdf(reply, await recordOf(await kitchenOr404(request.params.kitchenId), dayOr400(request.params.date)), request.query.paper),
  );

  const sha256 = (token: string): string => createHash('sha256').update(token).digest('hex');
  const linkOf = (row: InspectorLinkRow) => ({
    id: row.tokenSha256.slice(0, 12),
    fromDay: row.fromDay,
    toDay: row.toDay,
    madeAt: row.madeAt.getTime(),
    madeBy: row.madeBy,
    expiresAt: row.expiresAt.getTime(),
    revokedAt: row.revokedAt?.getTime() ?? null,
  });
  const links = async (kitchenId: string) => ({ links: (await InspectorLinkRow.findAll({ where: { kitchenId }, order: [['madeAt', 'DESC']], limit: 50 })).map(linkOf) });

  api.get(
    '/kitchens/:kitchenId/inspector-links',
    { schema: { summary: 'Links an inspector may read by', params: kitchenParams, response: { 200: inspectorLinks } } },
    async (request) => {
      await kitchenOr404(request.params.kitchenId);
      return links(request.params.kitchenId);
    },
  );
  api.post(
    '/kitchens/:kitchenId/inspector-links',
    { schema: { summary: 'Make a link that reads some days and ends by itself', params: kitchenParams, body: postInspectorLink, response: { 200: madeInspectorLink } } },
    async (request) => {
      const { kitchenId } = request.params;
      const { by, fromDay, toDay, forDays } = request.body;
      await kitchenOr404(kitchenId);
      const { station } = await stationOf(kitchenId);
      if (station.people.find((person) => person.id === by)?.role !== 'lead') throw refuse('inspector.leadOnly');
      // Only its hash is kept: whoever reads the database cannot open a link.
      const token = randomBytes(24).toString('base64url');
      const now = context.now();
      const row = await InspectorLinkRow.create({
        kitchenId,
        tokenSha256: sha256(token),
        fromDay,
        toDay,
        madeAt: new Date(now),
        madeBy: by,
        expiresAt: new Date(now + forDays * DAY_MS),
      });
      return { ...linkOf(row), token };
    },
  );
  api.delete(
    '/kitchens/:kitchenId/inspector-links/:linkId',
    { schema: { summary: 'End a link before its time', params: kitchenParams.extend({ linkId: z.string() }), response: { 200: inspectorLinks } } },
    async (request) => {
      const { kitchenId, linkId } = request.params;
      await kitchenOr404(kitchenId);
      const rows = await InspectorLinkRow.findAll({ where: { kitchenId } });
      const row = rows.find((one) => one.tokenSha256.startsWith(linkId) && linkId.length === 12);
      if (row === undefined) throw refuse('inspector.linkUnknown');
      await row.update({ revokedAt: row.revokedAt ?? new Date(context.now()) });
      return links(kitchenId);
    },
  );

  /** The kitchen behind a link that still holds. One that ended and one there never was are told apart for nobody. */
  const opened = async (token: string): Promise<{ readonly kitchen: KitchenRow; readonly row: InspectorLinkRow }> => {
    const row = await InspectorLinkRow.findOne({ where: { tokenSha256: sha256(token) } });
    if (row === null || row.revokedAt !== null || row.expiresAt.getTime() <= context.now()) throw refuse('inspector.linkEnded');
    return { row, kitchen: await kitchenOr404(row.kitchenId) };
  };
  const openedDay = async (token: string, date: string) => {
    const { row, kitchen } = await opened(token);
    const day = dayOr400(date);
    if (day < row.fromDay || day > row.toDay) throw refuse('inspector.linkEnded');
    return recordOf(kitchen, day);
  };
  const tokenParams = z.object({ token: z.string().min(10).max(100) });
  const tokenDay = tokenParams.extend({ date: z.string() });
  api.get('/inspect/:token', { schema: { summary: 'What a link reads', params: tokenParams, response: { 200: inspection } } }, async (request, reply) => {
    const { row, kitchen } = await opened(request.params.token);
    const days: string[] = [];
    for (let day = row.fromDay; day <= row.toDay && days.length < 400; day = addDays(day, 1)) days.push(day);
    void reply.header('cache-control', 'no-store').header('referrer-policy', 'no-referrer');
    return { kitchen: { name: kitchen.name, place: kitchen.place, invented: kitchen.invented }, days, expiresAt: row.expiresAt.getTime() };
  });
  api.get('/inspect/:token/:date/record.json', { schema: { summary: "A day's record, for an inspector", params: tokenDay } }, async (request, reply) =>
    asJson(reply, await openedDay(request.params.token, request.params.date)),
  );
  api.get('/inspect/:token/:date/record.csv', { schema: { summary: "A day's record as CSV, for an inspector", params: tokenDay } }, async (request, reply) =>
    asCsv(reply, await openedDay(request.params.token, request.params.date)),
  );
  api.get('/inspect/:token/:date/record.pdf', { schema: { summary: "A day's record on paper, for an inspector", params: tokenDay, querystring: paper } }, async (request, reply) =>
    asPdf(reply, await openedDay(request.params.token, request.params.date), request.query.paper),
  );
}
