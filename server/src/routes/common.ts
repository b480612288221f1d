import { refuse } from '@broth/contract/refusals';
import type { CalendarDate, DayInput, Lot, Par, Soup, Station } from '@broth/core';
import { currentRules, dateMarkLastDay, foldDay, liveStation, minutesBetween, parsAt, startedBatches, stationOn } from '@broth/core';
import type { FastifyInstance, FastifyBaseLogger, RawReplyDefaultExpression, RawRequestDefaultExpression, RawServerDefault } from 'fastify';
import type { ZodTypeProvider } from 'fastify-type-provider-zod';
import { z } from 'zod';
import type { Context } from '../context';
import { midnightOf } from '../localTime';
import { eventsOfDay } from '../store/eventLog';
import { findKitchen, lotsOf, parsOf, soupsOf, stationOf } from '../store/kitchenStore';
import type { KitchenRow } from '../store/models';
import { ruleBookOf } from '../store/rules';
import { earlierSoups } from '../store/soupBook';

export type Api = FastifyInstance<RawServerDefault, RawRequestDefaultExpression, RawReplyDefaultExpression, FastifyBaseLogger, ZodTypeProvider>;

export const kitchenParams = z.object({ kitchenId: z.string().max(100) });
export const dayParams = kitchenParams.extend({ date: z.string() });

export async function kitchenOr404(kitchenId: string): Promise<KitchenRow> {
  const kitchen = await findKitchen(kitchenId);
  if (kitchen === null) throw refuse('kitchen.unknown', { id: kitchenId });
  return kitchen;
}

/** The day in an address, or the refusal that says how to write one. */
export function dayOr400(text: string): CalendarDate {
  const parsed = z.iso.date().safeParse(text);
  if (!parsed.success) throw refuse('day.invalid', { text });
  return parsed.data;
}

interface PlanBasis {
  readonly kitchen: KitchenRow;
  readonly midnight: number;
  readonly pars: readonly Par[];
  readonly lots: readonly Lot[];
  readonly soups: readonly Soup[];
  /** As it is on the day when everything works and everybody is there who comes in then. */
  readonly station: Station;
}

export async function planBasis({ database }: Pick<Context, 'database'>, kitchenId: string, date: CalendarDate): Promise<PlanBasis> {
  const kitchen = await kitchenOr404(kitchenId);
  const [pars, lots, soups, { station }] = await Promise.all([parsOf(kitchenId, date), lotsOf(database, kitchenId, date), soupsOf(kitchenId), stationOf(kitchenId)]);
  return { kitchen, midnight: midnightOf(kitchen.timeZone, date), pars, lots, soups, station: stationOn(station, date) };
}

/** The planner's input as the server knows it, for a plan made at a minute of the day. */
export async function dayInput(
  context: Context,
  kitchenId: string,
  date: CalendarDate,
  nowMin: number,
): Promise<DayInput & { readonly serverNowMin: number; /** The station as it is when everything works and everybody is there. */ readonly wholeStation: Station }> {
  const { midnight, pars, lots, soups, station } = await planBasis(context, kitchenId, date);
  const day = foldDay(await eventsOfDay(context.database, kitchenId, date));
  const started = startedBatches(day, midnight);
  const earlier = await earlierSoups(kitchenId, started, soups);
  const serverNowMin = Math.floor(minutesBetween(midnight, context.now()));
  return {
    date,
    nowMin,
    soups,
    earlierSoups: earlier,
    station: liveStation(station, day, midnight),
    pars: parsAt(station, pars),
    lots,
    started,
    dateMarkLastDay: dateMarkLastDay(currentRules(await ruleBookOf(kitchenId))),
    serverNowMin,
    wholeStation: station,
  };
}
