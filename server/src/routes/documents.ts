import { words } from '@broth/contract';
import { foldDay } from '@broth/core';
import { stringify } from 'csv-stringify/sync';
import type { Context } from '../context';
import { temperatureLog } from '../documents/temperatureLog';
import type { LogLine } from '../documents/temperatureLog';
import { localIso } from '../localTime';
import { eventsOfDay } from '../store/eventLog';
import { earlierSoups } from '../store/soupBook';
import { dayOr400, dayParams, packOf, planBasis } from './common';
import type { Api } from './common';

const COLUMNS: readonly (keyof LogLine)[] = [
  'seq',
  'what',
  'takenAt',
  'recordedAt',
  'batch',
  'soup',
  'purpose',
  'temperature',
  'unit',
  'asTyped',
  'verdict',
  'says',
  'rule',
  'pack',
  'by',
  'device',
  'note',
  'litres',
  'voided',
  'eventId',
  'hash',
];

export function documentRoutes(api: Api, context: Context): void {
  const linesOf = async (kitchenId: string, date: string) => {
    const { kitchen, soups, station } = await planBasis(kitchenId, date);
    const events = await eventsOfDay(context.database, kitchenId, date);
    const earlier = await earlierSoups(kitchenId, Object.values(foldDay(events).batches));
    return { kitchen, lines: temperatureLog({ events, soups: [...soups, ...earlier], station, pack: packOf(), timeZone: kitchen.timeZone, unit: kitchen.temperatureUnit }) };
  };

  api.get(
    '/kitchens/:kitchenId/days/:date/temperature-log.csv',
    { schema: { summary: "The day's temperature log as CSV (RFC 4180)", params: dayParams } },
    async (request, reply) => {
      const date = dayOr400(request.params.date);
      const { lines } = await linesOf(request.params.kitchenId, date);
      // Notes are typed by people: a cell that a spreadsheet would run as a formula is written so that it does not.
      const csv = stringify([...lines], {
        header: true,
        columns: [...COLUMNS],
        record_delimiter: '\r\n',
        escape_formulas: true,
        cast: { boolean: (value) => (value ? 'true' : 'false') },
      });
      return reply.type('text/csv; charset=utf-8').header('content-disposition', `attachment; filename="temperature-log-${date}.csv"`).send(csv);
    },
  );

  api.get('/kitchens/:kitchenId/days/:date/temperature-log.json', { schema: { summary: "The day's temperature log as JSON", params: dayParams } }, async (request, reply) => {
    const date = dayOr400(request.params.date);
    const { kitchen, lines } = await linesOf(request.params.kitchenId, date);
    const pack = packOf();
    return reply.type('application/json').send({
      kitchen: { id: kitchen.kitchenId, name: kitchen.name, place: kitchen.place, timeZone: kitchen.timeZone, invented: kitchen.invented },
      day: date,
      writtenAt: localIso(kitchen.timeZone, context.now()),
      pack: { id: pack.id, version: pack.version, name: pack.name },
      notice: words.AUTHORITY,
      lines,
    });
  });
}
