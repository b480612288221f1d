import { AUTHORITIES, CONFIDENCE, COOKED_FOODS, COOLED_FOODS, CORRECTIVES } from '@broth/core';
import type { Rule, RuleSet } from '@broth/core';
import { z } from 'zod';

const text = z.string().max(2000);
const limit = z.object({ c: z.number('A limit is a number.').min(-60).max(200), f: z.number('A limit is a number.').min(-80).max(400).nullable() });
const minutes = z
  .number('Give minutes.')
  .min(1, 'Give at least a minute.')
  .max(60 * 24 * 60, 'That is longer than two months.');
const base = {
  id: z.string().min(1).max(100),
  appliesTo: text,
  citation: text,
  authority: z.enum(AUTHORITIES),
  confidence: z.enum(CONFIDENCE),
  note: text,
  corrective: z.array(z.enum(CORRECTIVES)).readonly(),
  optional: z.boolean(),
};
const points = z
  .array(z.object({ limit, holdS: z.number().min(0).max(86_400) }))
  .min(1, 'Give at least one temperature.')
  .max(10)
  .readonly();
const holdShape = {
  ...base,
  limit,
  side: z.enum(['atLeast', 'atMost']),
  checkEveryMin: minutes,
  allowance: z.object({ withinMin: minutes, strict: z.boolean(), citation: text }).nullable(),
};

/** A rule as the kitchen may change or add it. */
export const rule = z.discriminatedUnion('step', [
  z.object({ step: z.literal('cook'), ...base, food: z.enum(COOKED_FOODS), points }),
  z.object({
    step: z.literal('cool'),
    ...base,
    food: z.enum(COOLED_FOODS),
    from: z.discriminatedUnion('kind', [
      z.object({ kind: z.literal('falls'), limit }),
      z.object({ kind: z.literal('event'), event: z.enum(['heatOff', 'leftHeat', 'coolingStarted', 'combined', 'received']) }),
      z.object({ kind: z.literal('previous') }),
    ]),
    to: z.discriminatedUnion('kind', [
      z.object({ kind: z.literal('temperature'), limit }),
      z.object({ kind: z.literal('event'), event: z.enum(['coolingStarted', 'inColdPlace']) }),
    ]),
    withinMin: minutes,
    strict: z.boolean(),
    checkEveryMin: minutes,
  }),
  z.object({ step: z.literal('hotHold'), ...holdShape }),
  z.object({ step: z.literal('coldHold'), ...holdShape }),
  z.object({ step: z.literal('frozenHold'), ...holdShape }),
  z.object({
    step: z.literal('reheat'),
    ...base,
    food: z.enum(['own', 'commercial', 'microwave']),
    points,
    withinMin: minutes.nullable(),
    strict: z.boolean(),
    standS: z.number().min(0).max(3600),
  }),
  z.object({
    step: z.literal('timeControl'),
    ...base,
    startCold: limit.nullable(),
    startHot: limit.nullable(),
    ceiling: limit.nullable(),
    withinMin: minutes,
    strict: z.boolean(),
    cumulative: z.boolean(),
  }),
  z.object({
    step: z.literal('dateMark'),
    ...base,
    food: z.enum(['made', 'opened']),
    lastDay: z.int('Give whole days.').min(1, 'Give at least one day.').max(90, 'That is longer than any date mark.'),
  }),
  z.object({ step: z.literal('thermometer'), ...base, what: z.enum(['food', 'air']), tolerance: z.object({ c: z.number().min(0).max(10), f: z.number().min(0).max(18) }) }),
  z.object({ step: z.literal('text'), ...base }),
]) satisfies z.ZodType<Rule>;

const standing = z.object({ rule, original: rule.nullable(), on: z.boolean(), reason: z.string(), kinder: z.boolean() });

/** A kitchen's rules at a version, each rule with what became of it. */
const ruleSet = z.object({ packId: text, packVersion: z.int(), version: z.int(), name: text, place: text, standings: z.array(standing) }) satisfies z.ZodType<RuleSet>;
/** Since when which rules were in force. */
export const ruleVersion = z.object({ since: z.int(), by: z.string(), set: ruleSet });
export type RuleVersionOnWire = z.infer<typeof ruleVersion>;
