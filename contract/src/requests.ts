import { z } from 'zod';
import { dayEvent, storedEvent } from './event';
import { dayPlan } from './plan';
import { food, soup } from './soup';

/** The par as it is put; the message is what the cook reads beside the field. */
export const putPar = z.object({
  parL: z
    .number('A par is a number of litres, like 18 or 7.5.')
    .min(0, 'A par cannot be below 0 L. Put 0 to leave the soup out today.')
    .max(2000, 'More than 2000 L is a typing slip. Check the digits.'),
});

/** Reads what was typed into a par field: `'7,5'` is 7.5; the error is the schema's own sentence. */
export function parsePar(typed: string): { readonly ok: true; readonly parL: number } | { readonly ok: false; readonly message: string } {
  const plain = typed.trim().replace(',', '.').replace('−', '-');
  const parsed = putPar.safeParse({ parL: plain === '' ? Number.NaN : Number(plain) });
  return parsed.success ? { ok: true, parL: parsed.data.parL } : { ok: false, message: parsed.error.issues[0]?.message ?? '' };
}

export const postPlan = z.object({
  by: z.string().min(1),
  /** The minute of the day the plan was made at. */
  nowMin: z.int(),
  plan: dayPlan,
  /** The version it was made to follow, 0 = the first: a newer one means that somebody else took a plan in between. null = whichever. */
  basedOn: z.int().min(0).nullable().default(null),
});
/** A longer search on the server, from the plan on the screen with what was put by hand. */
export const postSearch = z.object({ nowMin: z.int(), from: dayPlan, forS: z.number().min(1).max(30).default(10) });
const by = z.string().min(1);
/** A new soup; the server gives it an id of its own when the one it brings is taken. */
export const postSoup = z.object({ by, soup });
/** The next version of a soup. `baseVersion` is the one it was written on: a newer one in the book means that somebody else saved in between. */
export const putSoup = z.object({ by, baseVersion: z.int().min(1), soup });
export const soupVersions = z.object({ versions: z.array(z.object({ version: z.int(), savedAt: z.int().nullable(), savedBy: z.string().nullable(), soup })) });
/** What batches of a soup really took: minutes by step, litres of liquid and of soup out of each litre planned. Oldest first. */
export const soupHistory = z.object({
  stepTimes: z.record(z.string(), z.array(z.object({ volumeL: z.number(), minutes: z.number() }))),
  liquidPerLitre: z.array(z.number()),
  yieldShare: z.array(z.number()),
});
export type SoupHistory = z.infer<typeof soupHistory>;
export const pantryAnswer = z.object({ pantry: z.array(food), changed: z.int() });

const someMinutes = (mostMin: number) =>
  z
    .int('Give whole minutes.')
    .min(0, 'Give 0 minutes or more.')
    .max(mostMin, `Give at most ${String(mostMin)} minutes.`);
/** What plans go by; what is left out stays. */
export const patchStation = z
  .object({
    rinseMin: someMinutes(60),
    fullWashMin: someMinutes(120),
    readyLeadMin: someMinutes(240),
    aimChance: z.number().min(0.5, 'Aim at 0.5 or more, or at null.').max(0.99, 'Aim at 0.99 at most: nothing is certain.').nullable(),
    laterBatches: z.boolean(),
    interruptsCutting: z.boolean(),
    altitudeM: z.number('Metres are a number.').min(-450, 'No kitchen is that deep.').max(6000, 'No kitchen is that high.'),
  })
  .partial();
const minuteOfDay = z
  .int('Write the time like 13:05.')
  .min(0, 'Write the time like 13:05.')
  .max(2 * 24 * 60, 'Nobody stays two nights.');
const stretch = z.object({ fromMin: minuteOfDay, toMin: minuteOfDay });
/** 1 = Monday … 7 = Sunday, as ISO 8601 counts them; where they may be left out, that is every day. */
const daysOfTheWeek = (none: string) => z.array(z.int().min(1).max(7)).min(1, none).max(7);
/** Somebody who works at the station: by name, when, and when they are off the floor. Times past midnight count on: 25:30 is half past one. */
export const putPerson = z
  .object({
    name: z.string().trim().min(1, 'Everybody needs a name: entries carry it.').max(60, 'A name of at most 60 letters.'),
    shift: stretch,
    breaks: z.array(stretch).max(4, 'At most four breaks.').default([]),
    off: z.boolean().default(false),
    days: daysOfTheWeek('Pick a day at least, or say that they do not come in.').optional(),
  })
  .superRefine(({ shift, breaks }, context) => {
    const say = (path: (string | number)[], message: string): void => {
      context.addIssue({ code: 'custom', path, message });
    };
    if (shift.toMin <= shift.fromMin) say(['shift', 'toMin'], 'The shift ends before it begins. For one past midnight count on: 25:30 is half past one.');
    breaks.forEach(({ fromMin, toMin }, index) => {
      if (toMin <= fromMin) say(['breaks', index, 'toMin'], 'The break ends before it begins.');
      else if (fromMin < shift.fromMin || shift.toMin < toMin) say(['breaks', index, 'fromMin'], 'The break lies outside the shift.');
    });
  });
export type PutPerson = z.infer<typeof putPerson>;
/** A time soups are wanted at: they are ready before it opens, and what is sold is kept by it. */
export const putService = z
  .object({
    name: z.string().trim().min(1, 'Give it the name it is called by.').max(60, 'A name of at most 60 letters.'),
    startMin: minuteOfDay,
    endMin: minuteOfDay,
    days: daysOfTheWeek('Pick a day at least, or remove the service.').optional(),
  })
  .superRefine(({ startMin, endMin }, context) => {
    if (endMin <= startMin) context.addIssue({ code: 'custom', path: ['endMin'], message: 'It closes before it opens. For one past midnight count on: 25:30 is half past one.' });
  });
export type PutService = z.infer<typeof putService>;
/** At which service a soup is wanted, on every day until it is changed. */
export const putServedAt = z.object({ serviceId: z.string().max(100) });
export const patchEquipment = z.object({ inUse: z.boolean() });

const thingName = z.string().trim().min(1, 'Give it the name it is called by.').max(60, 'A name of at most 60 letters.');
const some = (what: string, most: number) =>
  z
    .number(`${what} is a number.`)
    .positive(`${what} is more than 0.`)
    .max(most, `${what} of more than ${String(most)} is a typing slip. Check the digits.`);
const shared = { name: thingName, inUse: z.boolean().default(true) };
/** A thing at the station: how much it takes, and what plans need to know of it. The most and the least are a design choice, against slips of the finger. */
export const putEquipment = z
  .discriminatedUnion('kind', [
    z.object({
      kind: z.literal('vessel'),
      ...shared,
      capacityL: some('What it holds', 2000),
      minFillL: z.number('What it works from is a number.').min(0, 'What it works from is 0 L or more.'),
      workingMaxL: some('What it works up to', 2000),
      powerKw: some('Its power', 500).optional(),
      efficiency: z.number('A share is a number.').min(0.05, 'Some of the heat arrives.').max(1, 'A share is at most 1.').optional(),
      diameterCm: some('Its diameter', 300).optional(),
    }),
    z.object({ kind: z.literal('jar'), ...shared, capacityL: some('What it holds', 50), hotFillL: some('Its hot-fill line', 50), cycleMin: some('A fill', 60) }),
    z.object({ kind: z.literal('immersion'), ...shared }),
    z.object({
      kind: z.literal('oven'),
      ...shared,
      trays: z.int('Trays are a whole number.').min(1, 'An oven has a tray at least.').max(100, 'No oven here has that many trays.'),
    }),
    z.object({
      kind: z.literal('cooling'),
      ...shared,
      capacityL: some('What it holds', 2000),
      ambientC: z.number('Degrees are a number.').min(-60, 'Nothing here is that cold.').max(15, 'That does not cool: 15 °C at most.'),
    }),
    z.object({ kind: z.literal('well'), ...shared, capacityL: some('What it holds', 200) }),
  ])
  .superRefine((thing, context) => {
    const say = (path: string, message: string): void => {
      context.addIssue({ code: 'custom', path: [path], message });
    };
    if (thing.kind === 'vessel') {
      if (thing.workingMaxL > thing.capacityL) say('workingMaxL', 'It works up to less than it holds, or it boils over.');
      if (thing.minFillL > thing.workingMaxL) say('minFillL', 'It works from less than it works up to.');
    }
    if (thing.kind === 'jar' && thing.hotFillL > thing.capacityL) say('hotFillL', 'The hot-fill line lies below the rim: steam needs the rest.');
  });
export type PutEquipment = z.infer<typeof putEquipment>;
export const postEvents = z.object({ events: z.array(dayEvent).min(1, 'Send at least one event.').max(500, 'Send at most 500 events at a time.') });

/** A refusal on the wire: RFC 9457, with our code and, for a body, what is wrong where. */
export const problem = z.object({
  type: z.string(),
  title: z.string(),
  status: z.int(),
  detail: z.string(),
  code: z.string(),
  errors: z.array(z.object({ path: z.string(), message: z.string() })).optional(),
});
export type Problem = z.infer<typeof problem>;

/** One answer an event, in the order they were sent. */
export const eventsAnswer = z.object({
  results: z.array(
    z.discriminatedUnion('status', [
      z.object({ status: z.literal('stored'), id: z.string(), event: storedEvent }),
      z.object({ status: z.literal('already'), id: z.string(), event: storedEvent }),
      z.object({ status: z.literal('refused'), id: z.string(), problem }),
    ]),
  ),
});
export const eventsSince = z.object({ events: z.array(storedEvent), last: z.int() });
export const health = z.object({ ok: z.boolean(), database: z.enum(['up', 'away']), version: z.string(), now: z.int() });
