import type { Lot, Par, Station, Thermometer } from '@broth/core';
import { z } from 'zod';
import { calendarDate } from './event';
import { ruleVersion } from './rules';
import { food, soup } from './soup';

const text = z.string();
const whole = z.int();
export const thermometer = z.object({
  id: text,
  name: text,
  unit: z.enum(['C', 'F']),
  kind: z.enum(['hand', 'probe', 'logger']),
  inUse: z.boolean(),
}) satisfies z.ZodType<Thermometer>;

/** A thermometer as its checks leave it: its offset at the last one, and whether it may be used. Never checked = usable, and said so. */
export const thermometerStanding = z.object({
  thermometerId: text,
  checks: z.array(z.object({ at: z.int(), by: text, method: z.enum(['ice', 'boil']), unit: z.enum(['C', 'F']), shown: z.number(), offset: z.number(), usable: z.boolean() })),
});
export type ThermometerStanding = z.infer<typeof thermometerStanding>;

const stretch = z.object({ fromMin: whole, toMin: whole });
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
  people: z.array(
    z.object({
      id: text,
      name: text,
      role: z.enum(['lead', 'cook']),
      shift: stretch,
      breaks: z.array(stretch).optional(),
      off: z.boolean().optional(),
      days: z.array(whole).optional(),
    }),
  ),
  services: z.array(z.object({ id: text, name: text, startMin: whole, endMin: whole, days: z.array(whole).optional() })),
  rinseMin: z.number(),
  fullWashMin: z.number(),
  readyLeadMin: z.number(),
  aimChance: z.number().min(0.5).max(0.99).nullable().default(null),
  laterBatches: z.boolean().default(false),
  interruptsCutting: z.boolean().optional(),
  altitudeM: z.number().default(0),
  thermometers: z.array(thermometer).default([]),
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
  kitchen: z.object({ id: text, name: text, place: text, timeZone: text, temperatureUnit: z.enum(['C', 'F']), invented: z.boolean(), retentionDays: z.int().default(365) }),
  soups: z.array(soup),
  pantry: z.array(food),
  station,
  /** Since when which rules were in force, oldest first. */
  rules: z.array(ruleVersion).min(1),
  thermometers: z.array(thermometerStanding).default([]),
  /** The kitchen's today, and the day the app had better open: tomorrow once today is over or was never begun. */
  today: calendarDate,
  suggestedDay: calendarDate,
  now: z.int(),
});
export type KitchenBook = z.infer<typeof kitchenBook>;
