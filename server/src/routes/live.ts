import { z } from 'zod';
import type { Context } from '../context';
import { oneReader } from '../live/reader';
import { eventsSince } from '../store/eventLog';
import { kitchenOr404, kitchenParams } from './common';
import type { Api } from './common';

const HEARTBEAT_MS = 15_000;
const PAGE = 500;

/** Server-sent events: `events` with what was appended, `day` and `book` when what is planned or configured has changed. */
export function liveRoute(api: Api, context: Context): void {
  api.get(
    '/kitchens/:kitchenId/live',
    { schema: { summary: 'Live stream (text/event-stream)', params: kitchenParams, querystring: z.object({ since: z.coerce.number().int().min(0).optional() }) } },
    async (request, reply) => {
      const { kitchenId } = request.params;
      await kitchenOr404(kitchenId);
      const resumed = Number(request.headers['last-event-id']);
      let since = Number.isInteger(resumed) ? resumed : (request.query.since ?? 0);
      reply.hijack();
      const { raw } = reply;
      raw.writeHead(200, { 'content-type': 'text/event-stream', 'cache-control': 'no-store', 'x-accel-buffering': 'no' });
      const say = (event: string, data: unknown, id?: number): void => {
        raw.write(`${id === undefined ? '' : `id: ${String(id)}\n`}event: ${event}\ndata: ${JSON.stringify(data)}\n\n`);
      };

      const read = oneReader(async () => {
        if (raw.destroyed) return false;
        const events = await eventsSince(context.database, kitchenId, since, PAGE);
        const last = events.at(-1);
        if (last === undefined) return false;
        since = last.seq;
        say('events', { events }, since);
        return events.length === PAGE;
      });
      const sendNew = (): Promise<void> =>
        read().catch((error: unknown) => {
          // The database went away: the hub says "catch up" when it is back.
          request.log.warn(error);
        });

      const stop = context.hub.listen(kitchenId, (notice) => {
        if (notice === 'catchUp') {
          say('book', {});
          say('day', {});
          void sendNew();
        } else if (notice.topic === 'events') void sendNew();
        else if (notice.topic === 'day') say('day', { date: notice.day });
        else say('book', {});
      });
      // Said, not only written: a phone that hears nothing knows that its line is dead, and its clock is measured anew each time.
      const here = (event: 'hello' | 'here'): void => {
        say(event, { now: context.now(), chosen: context.chosenClock });
      };
      const heartbeat = setInterval(here, HEARTBEAT_MS, 'here');
      raw.on('close', () => {
        clearInterval(heartbeat);
        stop();
      });
      here('hello');
      await sendNew();
    },
  );
}
