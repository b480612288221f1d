import { dayPlan, dayView, postPlan, postSearch, putPar as putParBody, storedPlan, storedPlans } from '@broth/contract';
import { refuse } from '@broth/contract/refusals';
import type { DayView } from '@broth/contract';
import { foldDay } from '@broth/core';
import { checkDayPlan } from '@broth/core/planner';
import { z } from 'zod';
import type { Context } from '../context';
import { eventsOfDay, lastSeqOf } from '../store/eventLog';
import { acceptPlan, planOf, plansOf, putPar } from '../store/kitchenStore';
import { localClock } from '../localTime';
import { earlierSoups } from '../store/soupBook';
import { dayInput, dayOr400, dayParams, kitchenOr404, planBasis } from './common';
import type { Api } from './common';

/** A draft may be this old when it is accepted: its first steps may have begun to slip by then. Minutes. */
const DRAFT_KEEPS_MIN = 10;

async function viewOf(context: Context, kitchenId: string, date: string): Promise<DayView> {
  const { midnight, pars, lots } = await planBasis(context, kitchenId, date);
  // The place first: an event that comes in between is then sent twice rather than missed.
  const lastSeq = await lastSeqOf(context.database, kitchenId);
  const [plan, events] = await Promise.all([planOf(kitchenId, date), eventsOfDay(context.database, kitchenId, date)]);
  const earlier = await earlierSoups(kitchenId, Object.values(foldDay(events).batches));
  return { date, midnight, pars: [...pars], lots: [...lots], plan, events: [...events], earlierSoups: [...earlier], lastSeq };
}

export function dayRoutes(api: Api, context: Context): void {
  api.get('/kitchens/:kitchenId/days/:date', { schema: { summary: 'Pars, stock, plan and events of a day', params: dayParams, response: { 200: dayView } } }, (request) =>
    viewOf(context, request.params.kitchenId, dayOr400(request.params.date)),
  );

  api.put(
    '/kitchens/:kitchenId/days/:date/pars/:soupId',
    { schema: { summary: "Put a soup's par for a day, in litres", params: dayParams.extend({ soupId: z.string() }), body: putParBody, response: { 200: dayView } } },
    async (request) => {
      const { kitchenId, soupId } = request.params;
      const date = dayOr400(request.params.date);
      await kitchenOr404(kitchenId);
      if (!(await putPar(context.database, kitchenId, date, soupId, request.body.parL))) throw refuse('soup.unknown', { id: soupId });
      return viewOf(context, kitchenId, date);
    },
  );

  api.get(
    '/kitchens/:kitchenId/days/:date/plans',
    { schema: { summary: 'Every plan accepted for a day, the newest first', params: dayParams, response: { 200: storedPlans } } },
    async (request) => {
      const { kitchenId } = request.params;
      await kitchenOr404(kitchenId);
      return { plans: await plansOf(kitchenId, dayOr400(request.params.date)) };
    },
  );

  api.post(
    '/kitchens/:kitchenId/days/:date/searches',
    {
      bodyLimit: 4_194_304,
      schema: { summary: 'Look longer for a better plan than this draft; nothing is accepted', params: dayParams, body: postSearch, response: { 200: dayPlan } },
    },
    async (request) => {
      const { kitchenId } = request.params;
      const date = dayOr400(request.params.date);
      const { from, nowMin, forS } = request.body;
      const input = await dayInput(context, kitchenId, date, nowMin);
      if (from.date !== date || Math.abs(input.serverNowMin - nowMin) > DRAFT_KEEPS_MIN) throw refuse('plan.stale');
      const agreed = (await planOf(kitchenId, date))?.plan ?? null;
      const found = await context.search.search({ ...input, pins: from.pins, splits: from.splits, agreed }, from, forS * 1000);
      if (found === null) throw refuse('search.busy');
      return found as z.infer<typeof dayPlan>;
    },
  );

  api.post(
    '/kitchens/:kitchenId/days/:date/plans',
    { bodyLimit: 4_194_304, schema: { summary: 'Accept a plan: it becomes the next version', params: dayParams, body: postPlan, response: { 200: storedPlan } } },
    async (request) => {
      const { kitchenId } = request.params;
      const date = dayOr400(request.params.date);
      const { plan, nowMin, by, basedOn } = request.body;
      const input = await dayInput(context, kitchenId, date, nowMin);
      if (input.station.people.every((person) => person.id !== by)) throw refuse('event.personUnknown', { by });
      if (plan.date !== date || Math.abs(input.serverNowMin - nowMin) > DRAFT_KEEPS_MIN) throw refuse('plan.stale');
      const wrong = checkDayPlan(input, plan);
      // Jobs that are not the ones we would ask for mean other pars or other started batches; anything else is a plan that cannot be cooked.
      if (wrong.some((violation) => violation.code === 'job.missing' || violation.code === 'steps.wrong' || violation.code === 'step.moved' || violation.code === 'step.duration'))
        throw refuse('plan.stale');
      const [first] = wrong;
      // It would have held the whole station: something was stopped, or somebody has gone, since it was made.
      if (first !== undefined && checkDayPlan({ ...input, station: input.wholeStation }, plan).length === 0) throw refuse('plan.stale');
      if (first !== undefined) throw refuse('plan.infeasible', { first: first.code });
      const accepted = await acceptPlan(context.database, kitchenId, plan, { by, at: new Date(context.now()), basedOn });
      if (accepted.kind === 'accepted') return accepted.plan;
      const taker = input.station.people.find((person) => person.id === accepted.plan.by)?.name ?? accepted.plan.by;
      throw refuse('plan.overtaken', { by: taker, at: localClock((await kitchenOr404(kitchenId)).timeZone, accepted.plan.acceptedAt) });
    },
  );
}
