import type { Lot, Par, RulePack, Station } from '@broth/core';
import { z } from 'zod';
import { calendarDate } from './event';
import { food, soup } from './soup';

const text = z.string();
const whole = z.int();
const limit = z.object({ c: z.number(), f: z.number().nullable() });
const source = z.object({ id: text, citation: text, kind: z.enum(['law', 'modelCode', 'standard', 'guidance']), confidence: z.enum(['high', 'medium', 'low']) });
const corrective = z.array(z.enum(['faster', 'reheat', 'discard', 'personInCharge', 'reheatHot', 'moveCold', 'cookOn']));
const holdRule = z.object({ limit, side: z.enum(['atLeast', 'atMost']), checkEveryMin: z.number(), source, corrective });

export const rulePack = z.object({
  id: text,
  version: whole,
  name: text,
  cooling: z.object({
    start: limit,
    mid: limit,
    end: limit,
    midWithinMin: z.number(),
    endWithinMin: z.number(),
    basis: z.enum(['total', 'further']),
    strict: z.boolean(),
    checkEveryMin: z.object({ toMid: z.number(), toEnd: z.number() }),
    midSource: source,
    endSource: source,
    corrective,
  }),
  hotHold: holdRule,
  coldHold: holdRule,
  reheat: z.object({ limit, holdS: z.number(), withinMin: z.number(), source, corrective }),
  dateMark: z.object({ lastDay: whole, source }),
}) satisfies z.ZodType<RulePack>;

const thing = { id: text, name: text, inUse: z.boolean() };
export const station = z.object({
  equipment: z.array(
    z.discriminatedUnion('kind', [
      z.object({
        kind: z.literal('vessel'),
        ...thing,
        capacityL: z.number(),
        minFillL: z.number(),
        workingMaxL: z.number(),
        powerKw: z.number().optional(),
        efficiency: z.number().optional(),
        diameterCm: z.number().optional(),
      }),
      z.object({ kind: z.literal('jar'), ...thing, capacityL: z.number(), hotFillL: z.number(), cycleMin: z.number() }),
      z.object({ kind: z.literal('immersion'), ...thing }),
      z.object({ kind: z.literal('oven'), ...thing, trays: whole }),
      z.object({ kind: z.literal('cooling'), ...thing, capacityL: z.number(), ambientC: z.number() }),
      z.object({ kind: z.literal('well'), ...thing, capacityL: z.number() }),
    ]),
  ),
  people: z.array(z.object({ id: text, name: text, role: z.enum(['lead', 'cook']), shift: z.object({ fromMin: whole, toMin: whole }) })),
  services: z.array(z.object({ id: text, name: text, startMin: whole, endMin: whole })),
  rinseMin: z.number(),
  fullWashMin: z.number(),
  readyLeadMin: z.number(),
  aimChance: z.number().min(0.5).max(0.99).nullable().default(null),
  laterBatches: z.boolean().default(false),
}) satisfies z.ZodType<Station>;

export const par = z.object({ soupId: text, parL: z.number(), serviceId: text }) satisfies z.ZodType<Par>;
export const lot = z.object({
  id: text,
  soupId: text,
  volumeL: z.number(),
  state: z.enum(['hot', 'chilled', 'frozen']),
  preparedOn: calendarDate,
  frozenDays: whole,
}) satisfies z.ZodType<Lot>;

/** What a kitchen is, as the app needs it all day: read once, kept for when the network is away. */
export const kitchenBook = z.object({
  kitchen: z.object({ id: text, name: text, place: text, timeZone: text, temperatureUnit: z.enum(['C', 'F']), invented: z.boolean() }),
  soups: z.array(soup),
  pantry: z.array(food),
  station,
  pack: rulePack,
  /** The kitchen's today, and the day the app had better open: tomorrow once today is over or was never begun. */
  today: calendarDate,
  suggestedDay: calendarDate,
  now: z.int(),
});
export type KitchenBook = z.infer<typeof kitchenBook>;
