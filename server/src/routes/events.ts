import { eventsAnswer, eventsSince as eventsSinceAnswer, postEvents } from '@broth/contract';
import { Refusal, refuse } from '@broth/contract/refusals';
import { minutesBetween } from '@broth/core';
import { doubtReading } from '@broth/core/advice';
import type { DayEvent } from '@broth/core';
import { z } from 'zod';
import type { Context } from '../context';
import { appendEvent, eventsSince } from '../store/eventLog';
import type { Appended } from '../store/eventLog';
import { notify, stationOf } from '../store/kitchenStore';
import { kitchenOr404, kitchenParams } from './common';
import type { Api } from './common';

/** Clocks of phones run a little ahead; more than this is a wrong clock. Minutes. */
const CLOCK_SLACK_MIN = 2;

/** Throws the refusal of an event that cannot be so. What is merely odd was asked on the phone and is kept. */
function examine(event: DayEvent, now: number): void {
  const aheadMin = minutesBetween(now, event.at);
  if (aheadMin > CLOCK_SLACK_MIN) throw refuse('event.future', { aheadMin: Math.round(aheadMin) });
  if (event.kind === 'samples.digested/1') throw refuse('event.serverOnly');
  if (event.kind !== 'reading.taken/1' && event.kind !== 'reading.taken/2') return;
  const { reading, purpose } = event.data;
  const doubt = doubtReading(reading, { purpose }).find((one) => one.code === 'impossible' || one.code === 'decimalSlip');
  if (doubt?.code === 'impossible') throw refuse('event.readingImpossible', { value: reading.value, unit: doubt.unit, lowest: doubt.lowest, highest: doubt.highest });
  if (doubt?.code === 'decimalSlip') throw refuse('event.readingImpossible', { value: reading.value, unit: doubt.unit, lowest: -40, highest: Math.round(doubt.boiling) });
}

type Result = z.infer<typeof eventsAnswer>['results'][number];

function resultOf(kitchenId: string, { id, by }: DayEvent, appended: Appended): Result {
  switch (appended.outcome) {
    case 'stored':
    case 'already':
      return { status: appended.outcome, id, event: appended.event };
    case 'idReused':
      throw refuse('event.idReused');
    case 'kitchenUnknown':
      throw refuse('kitchen.unknown', { id: kitchenId });
    case 'personUnknown':
      throw refuse('event.personUnknown', { by });
    case 'targetUnknown':
      throw refuse('event.targetUnknown');
    case 'batchUnknown':
      throw refuse('event.batchUnknown', { batchId: appended.batchName });
    case 'batchDiscarded':
      throw refuse('event.batchDiscarded', { name: appended.batchName });
  }
}

const OF_THE_LEAD: readonly DayEvent['kind'][] = ['decision.made/1', 'day.signed/1'];

async function append(context: Context, kitchenId: string, event: DayEvent): Promise<Result> {
  const now = context.now();
  try {
    examine(event, now);
    if (OF_THE_LEAD.includes(event.kind)) {
      const { station } = await stationOf(kitchenId);
      if (station.people.find((person) => person.id === event.by)?.role === 'cook') throw refuse('event.leadOnly');
    }
    return resultOf(kitchenId, event, await appendEvent(context.database, kitchenId, event, now));
  } catch (error) {
    // Each event is answered on its own; that the kitchen is none is the whole request's affair.
    if (error instanceof Refusal && error.problem.code !== 'kitchen.unknown') return { status: 'refused', id: event.id, problem: error.problem };
    throw error;
  }
}

export function eventRoutes(api: Api, context: Context): void {
  api.post(
    '/kitchens/:kitchenId/events',
    { schema: { summary: 'Append events; each is answered on its own, in order', params: kitchenParams, body: postEvents, response: { 200: eventsAnswer } } },
    async (request) => {
      const { kitchenId } = request.params;
      const results: Result[] = [];
      // In order, one after the other: a step may belong to the batch that the event before it started.
      for (const event of request.body.events) results.push(await append(context, kitchenId, event));
      // What was thrown away changes what has to be made.
      for (const day of new Set(request.body.events.flatMap((event) => (event.kind === 'lot.discarded/1' ? [event.day] : [])))) {
        await notify(context.database, { kitchen: kitchenId, topic: 'day', day });
      }
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
