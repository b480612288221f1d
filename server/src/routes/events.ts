import { eventsAnswer, eventsSince as eventsSinceAnswer, postEvents, Refusal, refuse } from '@broth/contract';
import { doubtReading, minutesBetween } from '@broth/core';
import type { DayEvent, Station } from '@broth/core';
import { z } from 'zod';
import type { Context } from '../context';
import { appendEvent, batchStanding, eventExists, eventsSince } from '../store/eventLog';
import { isPlannedBatch, stationOf } from '../store/kitchenStore';
import { kitchenOr404, kitchenParams } from './common';
import type { Api } from './common';

/** Clocks of phones run a little ahead; more than this is a wrong clock. Minutes. */
const CLOCK_SLACK_MIN = 2;

/** Throws the refusal of an event that cannot be so. What is merely odd was asked on the phone and is kept. */
async function examine(context: Context, kitchenId: string, station: Station, event: DayEvent): Promise<void> {
  const aheadMin = minutesBetween(context.now(), event.at);
  if (aheadMin > CLOCK_SLACK_MIN) throw refuse('event.future', { aheadMin: Math.round(aheadMin) });
  if (station.people.every((person) => person.id !== event.by)) throw refuse('event.personUnknown', { by: event.by });
  if (event.kind === 'event.voided/1') {
    if (!(await eventExists(context.database, kitchenId, event.data.eventId))) throw refuse('event.targetUnknown');
    return;
  }
  if (event.kind === 'reading.taken/1') {
    const { reading, purpose } = event.data;
    const doubt = doubtReading(reading, purpose);
    if (doubt?.code === 'reading.impossible') throw refuse('event.readingImpossible', { value: reading.value, unit: doubt.unit, lowest: doubt.lowest, highest: doubt.highest });
  }
  const { batchId } = event.data;
  const standing = await batchStanding(context.database, kitchenId, event.day, batchId);
  if (standing.discarded) throw refuse('event.batchDiscarded', { name: standing.name });
  if (standing.started) return;
  if (event.kind !== 'batch.started/1' || !(await isPlannedBatch(context.database, kitchenId, event.day, batchId))) throw refuse('event.batchUnknown', { batchId });
}

type Result = z.infer<typeof eventsAnswer>['results'][number];

async function append(context: Context, kitchenId: string, station: Station, event: DayEvent): Promise<Result> {
  const { id } = event;
  try {
    // An event that is in the log already is answered from there, whatever has changed since: sending again is always harmless.
    if (!(await eventExists(context.database, kitchenId, id))) await examine(context, kitchenId, station, event);
    const appended = await appendEvent(context.database, kitchenId, event, context.now());
    if (!appended.same) throw refuse('event.idReused');
    return { status: appended.stored ? 'stored' : 'already', id, event: appended.event };
  } catch (error) {
    if (error instanceof Refusal) return { status: 'refused', id, problem: error.problem };
    throw error;
  }
}

export function eventRoutes(api: Api, context: Context): void {
  api.post(
    '/kitchens/:kitchenId/events',
    { schema: { summary: 'Append events; each is answered on its own, in order', params: kitchenParams, body: postEvents, response: { 200: eventsAnswer } } },
    async (request) => {
      const { kitchenId } = request.params;
      await kitchenOr404(kitchenId);
      const { station } = await stationOf(kitchenId);
      const results: Result[] = [];
      // In order, one after the other: a step may belong to the batch that the event before it started.
      for (const event of request.body.events) results.push(await append(context, kitchenId, station, event));
      return { results };
    },
  );

  api.get(
    '/kitchens/:kitchenId/events',
    {
      schema: {
        summary: 'Events after a place in the log',
        params: kitchenParams,
        querystring: z.object({ since: z.coerce.number().int().min(0).default(0) }),
        response: { 200: eventsSinceAnswer },
      },
    },
    async (request) => {
      await kitchenOr404(request.params.kitchenId);
      const events = await eventsSince(context.database, request.params.kitchenId, request.query.since);
      return { events: [...events], last: events.at(-1)?.seq ?? request.query.since };
    },
  );
}
