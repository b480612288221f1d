import { VERDICT_KINDS } from '@broth/core';
import type { KitchenRules } from '@broth/core';
import { z } from 'zod';
import { kitchenBook } from './book';
import { caller } from './caller';
import type { Fetch } from './caller';
import { calendarDate } from './event';
import { rule, ruleVersion } from './rules';

/** The record, its rules and its probes: what crosses the wire for screens behind the five places. Apart from the first load. */

const id = z.string().min(1).max(200);
const text = z.string().max(2000);
const instant = z.int('A time is whole milliseconds since 1970 UTC.').min(0).max(8_640_000_000_000_000);

/** What a probe pushes: for each probe its samples, `[milliseconds since 1970, value]`, the value in the unit the probe is registered in. */
export const postSamples = z.object({
  probes: z
    .array(z.object({ id, samples: z.array(z.tuple([instant, z.number('A sample is a number.')])).max(20_000, 'Send at most 20,000 samples of a probe at a time.') }))
    .min(1, 'Send at least one probe.')
    .max(500, 'Send at most 500 probes at a time.'),
});
export const samplesTaken = z.object({ taken: z.int(), new: z.int() });
/** Which columns of a logger's file are what, and whose it is. */
export const sampleColumns = z.object({
  thermometerId: id,
  time: z.string().min(1, 'Say which column is the time.'),
  value: z.string().min(1, 'Say which column is the temperature.'),
  unit: z.enum(['C', 'F']),
  dates: z.enum(['ymd', 'dmy', 'mdy']).default('ymd'),
});
export type SampleColumns = z.infer<typeof sampleColumns>;
/** A stretch of samples as a chart needs it. */
export const thinned = z.object({
  unit: z.enum(['C', 'F']),
  points: z.array(z.object({ at: z.int(), min: z.number(), max: z.number(), last: z.number(), count: z.int() })),
});
export type Thinned = z.infer<typeof thinned>;

export const putThermometer = z.object({
  by: id,
  name: z.string().min(1, 'Give it a name that stands on it.').max(100),
  unit: z.enum(['C', 'F']),
  kind: z.enum(['hand', 'probe', 'logger']),
  inUse: z.boolean(),
});

/** One line of the day's record. */
export const recordLine = z.object({
  seq: z.int(),
  what: z.enum(['reading', 'probe', 'place', 'item', 'thermometer', 'action', 'decision', 'used', 'missed', 'correction', 'discard', 'signature']),
  at: instant,
  takenAt: z.string(),
  recordedAt: z.string(),
  late: z.boolean(),
  batchId: z.string().nullable(),
  batch: z.string(),
  soup: z.string(),
  purpose: z.string(),
  temperature: z.number().nullable(),
  unit: z.enum(['C', 'F']).nullable(),
  asTyped: z.string().nullable(),
  offset: z.number(),
  thermometer: z.string(),
  pan: z.int().nullable(),
  verdict: z.enum(VERDICT_KINDS).nullable(),
  says: z.string(),
  rule: z.string(),
  pack: z.string(),
  by: z.string(),
  device: z.string(),
  note: z.string(),
  litres: z.number().nullable(),
  voided: z.boolean(),
  /** The thermometer failed a check later on, and this was read since its last good one. */
  suspect: z.boolean(),
  eventId: z.string(),
  hash: z.string(),
});
export type RecordLine = z.infer<typeof recordLine>;

/** A batch's end in one line: each verdict with its rule and what proves it. */
export const recordVerdict = z.object({
  batchId: z.string(),
  batch: z.string(),
  purpose: z.string(),
  verdict: z.enum(VERDICT_KINDS),
  says: z.string(),
  rule: z.string(),
  proof: z.array(z.string()),
});

export const dayRecord = z.object({
  kitchen: z.object({ id: z.string(), name: z.string(), place: z.string(), timeZone: z.string(), invented: z.boolean() }),
  day: calendarDate,
  writtenAt: z.string(),
  notice: z.string(),
  packs: z.array(z.string()),
  lines: z.array(recordLine),
  verdicts: z.array(recordVerdict),
  /** Patterns a reviewer may want to look at. */
  patterns: z.array(z.string()),
  open: z.array(z.string()),
  /** Signed, and whether something was entered since: then it is not signed any more. */
  signature: z.object({ by: z.string(), at: z.string(), note: z.string(), upToSeq: z.int(), holds: z.boolean(), recordedThemselves: z.boolean() }).nullable(),
  /** The head of the kitchen's chain when this was written. */
  head: z.object({ seq: z.int(), hash: z.string() }),
});
export type DayRecord = z.infer<typeof dayRecord>;

export const postInspectorLink = z
  .object({ by: id, fromDay: calendarDate, toDay: calendarDate, forDays: z.int('Give whole days.').min(1, 'Give at least a day.').max(90, 'A link is good for 90 days at most.') })
  .refine((link) => link.fromDay <= link.toDay, 'The first day comes before the last.');
export const inspectorLink = z.object({
  id: z.string(),
  fromDay: calendarDate,
  toDay: calendarDate,
  madeAt: z.int(),
  madeBy: z.string(),
  expiresAt: z.int(),
  revokedAt: z.int().nullable(),
});
export const madeInspectorLink = inspectorLink.extend({ token: z.string() });
export const inspectorLinks = z.object({ links: z.array(inspectorLink) });
export type InspectorLink = z.infer<typeof inspectorLink>;
/** What an inspector sees: days he may read. */
export const inspection = z.object({ kitchen: z.object({ name: z.string(), place: z.string(), invented: z.boolean() }), days: z.array(calendarDate), expiresAt: z.int() });
export const patchKeeping = z.object({ retentionDays: z.int('Give whole days.').min(90, 'Keep records for at least 90 days.').max(3650, 'Ten years are enough.') });

const change = z.object({
  ruleId: z.string().max(100),
  on: z.boolean(),
  instead: rule.nullable(),
  reason: z.string().min(1, 'Say why the rule is changed: the reason stands beside it.').max(1000),
});
export const kitchenRules = z.object({
  packId: z.string().max(100),
  changes: z.array(change).max(200).readonly(),
  added: z.array(rule).max(100).readonly(),
}) satisfies z.ZodType<KitchenRules>;
export const putRules = z.object({ by: z.string().min(1), baseVersion: z.int().min(0), rules: kitchenRules });

/** The packs that ship, for choosing: without their rules, but those of one pack. */
export const packList = z.array(z.object({ id: text, version: z.int(), name: text, place: text, rules: z.int() }));
export const kitchenRulesAnswer = z.object({ rules: kitchenRules, version: z.int(), versions: z.array(ruleVersion) });

type Body<Schema extends z.ZodType> = z.input<Schema>;

/** The API of the record as functions. */
export function recordClient(fetch: Fetch, base = '') {
  const call = caller(fetch, base);
  const of = (kitchenId: string): string => `/kitchens/${kitchenId}`;
  return {
    record: (kitchenId: string, day: string) => call(dayRecord, 'GET', `${of(kitchenId)}/days/${day}/record.json`),
    packs: () => call(packList, 'GET', '/rule-packs'),
    rules: (kitchenId: string) => call(kitchenRulesAnswer, 'GET', `${of(kitchenId)}/rules`),
    putRules: (kitchenId: string, body: Body<typeof putRules>) => call(kitchenRulesAnswer, 'PUT', `${of(kitchenId)}/rules`, body),
    putThermometer: (kitchenId: string, thermometerId: string, body: Body<typeof putThermometer>) =>
      call(kitchenBook, 'PUT', `${of(kitchenId)}/thermometers/${encodeURIComponent(thermometerId)}`, body),
    samples: (kitchenId: string, thermometerId: string, from: number, to: number, points: number) =>
      call(thinned, 'GET', `${of(kitchenId)}/thermometers/${encodeURIComponent(thermometerId)}/samples?from=${String(from)}&to=${String(to)}&points=${String(points)}`),
    putSamplesCsv: (kitchenId: string, csv: string, columns: Body<typeof sampleColumns>) => {
      const query = Object.entries(columns).map(([name, value]) => `${name}=${encodeURIComponent(String(value))}`);
      return call(samplesTaken, 'PUT', `${of(kitchenId)}/samples.csv?${query.join('&')}`, csv, 'text/csv');
    },
    inspectorLinks: (kitchenId: string) => call(inspectorLinks, 'GET', `${of(kitchenId)}/inspector-links`),
    postInspectorLink: (kitchenId: string, body: Body<typeof postInspectorLink>) => call(madeInspectorLink, 'POST', `${of(kitchenId)}/inspector-links`, body),
    endInspectorLink: (kitchenId: string, linkId: string) => call(inspectorLinks, 'DELETE', `${of(kitchenId)}/inspector-links/${linkId}`),
    inspect: (token: string) => call(inspection, 'GET', `/inspect/${encodeURIComponent(token)}`),
    inspectDay: (token: string, day: string) => call(dayRecord, 'GET', `/inspect/${encodeURIComponent(token)}/${day}/record.json`),
    patchKeeping: (kitchenId: string, body: Body<typeof patchKeeping>) => call(kitchenBook, 'PATCH', `${of(kitchenId)}/keeping`, body),
  };
}
