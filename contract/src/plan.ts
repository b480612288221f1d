import { ALLERGENS } from '@broth/core';
import type { DayPlan, Pin } from '@broth/core';
import { z } from 'zod';
import { calendarDate, storedEvent } from './event';
import { lot, par } from './book';
import { soup } from './soup';

const id = z.string().max(200);
const minute = z.int('A plan counts in whole minutes.');
const litres = z.number().min(0);
const wait = { waitedMin: minute, waitedFor: id.nullable() };

const lotUse = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('counts'), lot, takenL: litres, useBy: calendarDate }),
  z.object({ kind: z.literal('spare'), lot, useBy: calendarDate }),
  z.object({ kind: z.literal('frozen'), lot }),
  z.object({ kind: z.literal('pastDate'), lot, byDays: z.int() }),
]);

const finding = z.discriminatedUnion('code', [
  z.object({ code: z.literal('batch.noVessel'), soupId: id, needL: litres }),
  z.object({ code: z.literal('batch.tooMany'), soupId: id, needL: litres, batches: z.int(), largestL: litres }),
  z.object({ code: z.literal('batch.surplus'), soupId: id, surplusL: litres }),
  z.object({ code: z.literal('station.lacks'), soupId: id, stepId: id, lacks: z.enum(['vessel', 'oven', 'jar', 'immersion', 'cooling']) }),
  z.object({ code: z.literal('station.instead'), batchId: id, soupId: id, stepId: id, lacks: z.enum(['jar', 'immersion']), instead: z.enum(['jar', 'immersion']) }),
  z.object({ code: z.literal('station.wells'), serviceId: id, soups: z.int(), wells: z.int() }),
  z.object({ code: z.literal('station.nobody') }),
  z.object({ code: z.literal('plan.unplaced'), batchId: id }),
  z.object({ code: z.literal('plan.leftOut'), batchId: id }),
  z.object({ code: z.literal('plan.overtime'), batchIds: z.array(id), shiftEndMin: minute, untilMin: minute }),
  z.object({ code: z.literal('plan.pinDropped'), batchId: id, stepId: id, startMin: minute, soonestMin: minute.nullable(), latestMin: minute.nullable() }),
  z.object({ code: z.literal('plan.late'), batchId: id, lateMin: minute, waitedFor: id.nullable(), pinned: z.boolean().default(false) }),
  z.object({ code: z.literal('lot.pastDate'), soupId: id, volumeL: litres, byDays: z.int() }),
  z.object({ code: z.literal('lot.frozen'), soupId: id, volumeL: litres }),
]);

const step = z.object({
  stepId: id,
  modeId: id,
  unitId: id.nullable(),
  startMin: minute,
  endMin: minute,
  ...wait,
  uses: z.array(z.object({ resourceId: id, units: z.number() })),
  frozen: z.boolean(),
  parts: z.array(z.object({ startMin: minute, endMin: minute })).optional(),
});

/** A step that somebody has put at a minute by hand. */
export const pin = z.object({ batchId: id, stepId: id, startMin: minute, vesselId: id.nullable() }) satisfies z.ZodType<Pin>;

export const dayPlan = z.object({
  date: calendarDate,
  needs: z.array(z.object({ soupId: id, serviceId: id, parL: litres, onHandL: litres, needL: litres, uses: z.array(lotUse) })),
  components: z.array(z.object({ componentId: id, demandL: litres, takenL: litres, onHandL: litres, needL: litres, from: z.array(z.object({ soupId: id, volumeL: litres })) })),
  batches: z
    .array(
      z.object({
        id,
        name: z.string(),
        soupId: id,
        soupVersion: z.int(),
        ordinal: z.int(),
        volumeL: litres,
        vesselId: id.nullable(),
        serviceId: id.nullable(),
        readyByMin: minute.nullable(),
        bufferMin: minute.default(0),
        readyMin: minute,
        lateMin: minute,
        allergens: z.array(z.enum(ALLERGENS)),
        steps: z.array(step),
        state: z.enum(['planned', 'running', 'finished']),
      }),
    )
    .max(200, 'A day holds at most 200 batches.'),
  washes: z.array(
    z.object({ unitId: id, kind: z.enum(['rinse', 'full']), startMin: minute, endMin: minute, afterBatchId: id, beforeBatchId: id, carriesOver: z.array(z.enum(ALLERGENS)) }),
  ),
  findings: z.array(finding),
  pins: z.array(pin).max(500),
  splits: z
    .array(z.object({ soupId: id, batches: z.int().min(1).max(8) }))
    .max(200)
    .default([]),
  aimChance: z.number().nullable().default(null),
  objective: z.object({
    lateMin: z.number(),
    shortMin: z.number().default(0),
    earlyMin: z.number(),
    changeoverMin: minute,
    movedMin: minute,
    makespanMin: minute,
    cost: z.number(),
  }),
}) satisfies z.ZodType<DayPlan>;

/** A plan the lead has accepted: the next one is a new version, the old ones stay. */
export const storedPlan = z.object({ version: z.int(), acceptedAt: z.int(), by: z.string(), plan: dayPlan });
export type StoredPlan = z.infer<typeof storedPlan>;
/** Every plan accepted for a day, the newest first. */
export const storedPlans = z.object({ plans: z.array(storedPlan) });

/** One day as the app shows it. `midnight` is the day's 00:00 in the kitchen's zone: plan minutes count from there. */
export const dayView = z.object({
  date: calendarDate,
  midnight: z.int(),
  pars: z.array(par),
  lots: z.array(lot),
  plan: storedPlan.nullable(),
  events: z.array(storedEvent),
  /** Versions of soups that batches of this day were made from, where the book has a newer one. */
  earlierSoups: z.array(soup),
  /** Place of the newest event of the kitchen: the live stream goes on from here. */
  lastSeq: z.int(),
});
export type DayView = z.infer<typeof dayView>;
