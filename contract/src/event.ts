import { ADDED_FOR, CHECK_METHODS, COOLING_METHODS, CORRECTIVES, GATES, ITEM_PURPOSES, PURPOSES, TASTE_RESULTS, TEXTURE_RESULTS } from '@broth/core';
import type { DayEvent } from '@broth/core';
import { z } from 'zod';
import { label } from './soup';

export const calendarDate = z.iso.date('A day is written YYYY-MM-DD.');
const instant = z.int('A time is whole milliseconds since 1970 UTC.').min(0).max(8_640_000_000_000_000);
const id = z.string().min(1).max(200);
const reason = z.string().min(1, 'Say why.').max(1000);
const volumeL = z.number('Litres are a number.').min(0, 'Litres cannot be below 0.').max(10_000, 'That is more than any kitchen holds.');
const action = z.enum(CORRECTIVES);

export const reading = z.object({
  value: z.number('The temperature is not a number. Type digits only.').min(-1000).max(10_000),
  unit: z.enum(['C', 'F'], 'The unit is C or F.'),
  rawText: z.string().max(40),
});

/** With which thermometer, by which rules: what every temperature carries. */
const withThermometer = { thermometerId: id.nullable(), offset: z.number().min(-50).max(50), rulesVersion: z.int() };
const ambientC = z.number().min(-60).max(40);

function event<Kind extends string, Shape extends z.ZodRawShape>(kind: Kind, data: Shape) {
  return z.object({ id: z.uuid('An event needs a UUID of its own.'), kind: z.literal(kind), day: calendarDate, at: instant, by: id, device: id, data: z.object(data) });
}

/** Everything a phone may append. Unknown kinds are refused here, not guessed at later. */
export const dayEvent = z.discriminatedUnion('kind', [
  event('batch.started/1', { batchId: id, soupId: id, soupVersion: z.int(), name: z.string().max(200), ordinal: z.int().min(1), volumeL, vesselId: id.nullable() }),
  event('step.started/1', { batchId: id, stepId: id }),
  event('step.done/1', { batchId: id, stepId: id }),
  event('ingredient.added/1', {
    batchId: id,
    ingredientId: id.nullable(),
    name: id,
    amount: z.number('An amount is a number.').min(0, 'An amount cannot be below 0.').max(1_000_000).nullable(),
    unit: z.enum(['g', 'mL', 'each']),
    for: z.enum(ADDED_FOR),
    allergens: label.nullable(),
  }),
  event('batch.finished/1', { batchId: id, volumeOutL: volumeL }),
  event('batch.used/1', { batchId: id, intoBatchIds: z.array(id).min(1, 'Say what it went into.').max(20).readonly() }),
  event('hold.started/1', { batchId: id, placeId: id }),
  event('cooling.started/1', { batchId: id, placeId: id, ambientC }),
  event('cooling.started/2', {
    batchId: id,
    placeId: id,
    ambientC,
    method: z.enum(COOLING_METHODS).nullable(),
    pans: z.int('Give whole pans.').min(1, 'Give at least one pan.').max(60, 'More than 60 pans is a typing slip.').nullable(),
    depthCm: z.number('Give the depth in centimetres.').min(0.5).max(100).nullable(),
  }),
  event('ice.added/1', { batchId: id, massKg: z.number('Kilograms are a number.').min(0.05, 'Give at least 0.05 kg.').max(500, 'That is more than any kettle holds.') }),
  event('cold.stored/1', { batchId: id }),
  event('cold.stored/2', { batchId: id, volumeL }),
  event('reheat.started/1', { batchId: id }),
  event('reading.taken/1', { batchId: id, purpose: z.enum(PURPOSES), reading, heldS: z.number().min(0).max(3600).nullable(), packId: id, packVersion: z.int() }),
  event('reading.taken/2', {
    batchId: id,
    purpose: z.enum(PURPOSES),
    reading,
    heldS: z.number().min(0).max(3600).nullable(),
    packId: id,
    packVersion: z.int(),
    pan: z.int().min(1).max(60).nullable(),
    ...withThermometer,
    doubt: z.string().max(100).nullable(),
    lateReason: z.string().max(1000).nullable(),
  }),
  event('check.explained/1', { batchId: id, dueAt: instant, reason }),
  event('decision.made/1', { batchId: id, ruleId: id, keep: z.boolean(), reason }),
  event('timeControl.started/1', { batchId: id, ruleId: id }),
  event('timeControl.ended/1', { batchId: id }),
  event('place.read/1', { equipmentId: id, reading, ...withThermometer, note: z.string().max(1000) }),
  event('item.read/1', {
    purpose: z.enum(ITEM_PURPOSES),
    what: z.string().min(1, 'Say what it is.').max(200),
    from: z.string().max(200),
    reading,
    ...withThermometer,
    accepted: z.boolean(),
    note: z.string().max(1000),
  }),
  event('thermometer.checked/1', { thermometerId: id, method: z.enum(CHECK_METHODS), reading, offset: z.number(), usable: z.boolean() }),
  event('probe.placed/1', { thermometerId: id, batchId: id, purpose: z.enum(PURPOSES) }),
  event('probe.lifted/1', { thermometerId: id }),
  event('samples.digested/1', {
    from: instant,
    to: instant,
    late: z.boolean(),
    thermometerIds: z.array(id).max(1000).readonly(),
    count: z.int().min(0),
    sha256: z.string().length(64),
    rulesVersion: z.int(),
    probes: z
      .array(
        z.object({ thermometerId: id, unit: z.enum(['C', 'F']), offset: z.number(), count: z.int().min(1), min: z.number(), max: z.number(), lastAt: instant, last: z.number() }),
      )
      .max(500)
      .readonly(),
  }),
  event('lot.discarded/1', { lotId: id, soupId: id, volumeL, reason }),
  event('day.signed/1', { upToSeq: z.int().min(0), hash: z.string().max(64), note: z.string().max(2000) }),
  event('corrective.taken/1', { batchId: id, ruleId: id, action, note: z.string().max(1000), volumeL: volumeL.nullable() }),
  event('step.extended/1', { batchId: id, stepId: id, byMin: z.int('Give whole minutes.').min(1, 'Give at least one minute.').max(240, 'Give at most four hours.') }),
  event('step.skipped/1', { batchId: id, stepId: id, reason }),
  event('step.looked/1', { batchId: id, stepId: id }),
  event('step.clockStarted/1', { batchId: id, stepId: id }),
  event('wash.done/1', { unitId: id, kind: z.enum(['rinse', 'full']), afterBatchId: id, beforeBatchId: id }),
  event('gate.confirmed/1', { batchId: id, stepId: id, gate: z.enum(GATES) }),
  event('ingredient.waived/1', { batchId: id, ingredientId: id, reason }),
  event('result.noted/1', { batchId: id, texture: z.enum(TEXTURE_RESULTS).nullable(), taste: z.enum(TASTE_RESULTS).nullable(), cause: z.string().max(1000) }),
  event('note.made/1', { batchId: id.nullable(), text: z.string().min(1, 'Write the note first.').max(2000, 'Keep a note under 2,000 letters.') }),
  event('equipment.stopped/1', { equipmentId: id, reason: z.string().max(1000) }),
  event('equipment.resumed/1', { equipmentId: id }),
  event('person.left/1', { personId: id, backAt: instant.nullable() }),
  event('person.back/1', { personId: id }),
  event('timer.set/1', {
    name: z.string().min(1, 'Name the timer.').max(100),
    durationS: z.int('Give whole seconds.').min(5, 'Give at least 5 seconds.').max(86_400, 'Give at most a day.'),
    batchId: id.nullable(),
  }),
  event('timer.cleared/1', { timerId: z.uuid() }),
  event('level.noted/1', { batchId: id, leftL: volumeL, how: z.enum(['ladles', 'eye']) }),
  event('soup.out/1', { soupId: id, serviceId: id }),
  event('soup.back/1', { soupId: id, serviceId: id }),
  event('shift.handedOver/1', { toId: id, note: z.string().max(2000) }),
  event('clock.measured/1', { offsetMs: z.int() }),
  event('event.voided/1', { eventId: z.uuid(), reason: z.string().min(1, 'Say why the entry is corrected.').max(1000) }),
]) satisfies z.ZodType<DayEvent>;

/** An event as the log gives it back: with its place in the chain. */
export const storedEvent = z.intersection(dayEvent, z.object({ seq: z.int(), recordedAt: instant, hash: z.string() }));
export type StoredEvent = z.infer<typeof storedEvent>;
