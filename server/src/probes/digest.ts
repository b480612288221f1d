import { createHash } from 'node:crypto';
import type { CalendarDate, DayEvent, Instant } from '@broth/core';
import type { Context } from '../context';
import { dateIn } from '../localTime';
import { appendEvent } from '../store/eventLog';
import { stationOf } from '../store/kitchenStore';
import { KitchenRow } from '../store/models';
import { ruleVersionsOf, thermometerChecks } from '../store/rules';
import { closeSamples, digestedUntil, firstSampleFrom, minutesOf, placedProbes, samplesBetween, samplesSha256 } from '../store/samples';
import type { CheckedProbe, Sample } from '../store/samples';

const MINUTE_MS = 60_000;
/** So long a minute waits for what is still on its way. */
const GRACE_MS = 5_000;
/** A probe that was put in longer ago than this was forgotten. */
const PLACED_MS = 36 * 60 * MINUTE_MS;

/** What a digester needs of the outside: the database and the clock. */
type Clocked = Pick<Context, 'database' | 'now'>;

/** The same stretch has the same id on every server: whoever is second finds it done. */
function idOf(...parts: readonly (string | number)[]): string {
  const hex = createHash('sha256').update(parts.join(' ')).digest('hex');
  return `${hex.slice(0, 8)}-${hex.slice(8, 12)}-8${hex.slice(13, 16)}-8${hex.slice(17, 20)}-${hex.slice(20, 32)}`;
}

/**
 * Puts a digest of samples, in their hash order, into the log: one for each business day that probes stand in a batch of, and one for the rest. `lateIn` is
 * the id of the digest when they came late: those are one, whatever the day.
 */
export async function digestSamples(context: Clocked, kitchen: KitchenRow, samples: readonly Sample[], from: Instant, to: Instant, lateIn: string | null): Promise<void> {
  if (samples.length === 0) return;
  const { kitchenId, timeZone } = kitchen;
  const { database } = context;
  const [placed, { station }, { version }, checks] = await Promise.all([
    placedProbes(database, kitchenId, from - PLACED_MS),
    stationOf(kitchenId),
    ruleVersionsOf(kitchenId),
    thermometerChecks(database, kitchenId),
  ]);
  // One that failed its last check tells nothing: its samples are kept, and the reading becomes due as if it were silent.
  const probes = new Map(
    placed.flatMap(({ thermometerId }): [string, CheckedProbe][] => {
      const thermometer = station.thermometers.find((one) => one.id === thermometerId);
      const check = checks.find((one) => one.thermometerId === thermometerId)?.checks.findLast((one) => one.at <= to);
      return thermometer === undefined || check?.usable === false ? [] : [[thermometerId, { unit: thermometer.unit, offset: check?.offset ?? 0 }]];
    }),
  );
  const dayOf = new Map(placed.map((one) => [one.thermometerId, one.day]));
  const today = dateIn(timeZone, from);
  const firstDay = samples.map((one) => dayOf.get(one.thermometerId)).find((day) => day !== undefined) ?? today;
  const byDay = new Map<CalendarDate, Sample[]>();
  for (const sample of samples) {
    const day = lateIn === null ? (dayOf.get(sample.thermometerId) ?? today) : firstDay;
    const own = byDay.get(day);
    if (own === undefined) byDay.set(day, [sample]);
    else own.push(sample);
  }
  for (const [day, own] of byDay) {
    const sha256 = samplesSha256(own);
    const event: DayEvent = {
      id: lateIn ?? idOf(kitchenId, day, from, to, sha256),
      kind: 'samples.digested/1',
      day,
      at: to,
      by: 'probes',
      device: 'server',
      data: {
        from,
        to,
        late: lateIn !== null,
        thermometerIds: [...new Set(own.map((one) => one.thermometerId))],
        count: own.length,
        sha256,
        rulesVersion: version,
        probes: minutesOf(own, probes),
      },
    };
    await appendEvent(database, kitchenId, event, context.now());
  }
}

async function digestKitchen(context: Clocked, kitchen: KitchenRow): Promise<void> {
  const { database } = context;
  const { kitchenId } = kitchen;
  const until = Math.floor((context.now() - GRACE_MS) / MINUTE_MS) * MINUTE_MS;
  let from = (await digestedUntil(database, kitchenId)) ?? 0;
  for (;;) {
    // Minutes in which nothing came are skipped: a probe may have been silent for weeks.
    const next = await firstSampleFrom(database, kitchenId, from);
    if (next === null || next >= until) return;
    const minute = Math.floor(next / MINUTE_MS) * MINUTE_MS;
    from = minute + MINUTE_MS;
    await closeSamples(database, kitchenId, from);
    await digestSamples(context, kitchen, await samplesBetween(database, kitchenId, minute, from), minute, from, null);
  }
}

/** One round: closes every minute of every kitchen that is over. */
export async function digestAll(context: Clocked): Promise<void> {
  for (const kitchen of await KitchenRow.findAll()) await digestKitchen(context, kitchen);
}

/** Closes each minute of samples once it is over; one that was closed and not digested, because the server fell, is taken up again. */
export function startDigester(context: Clocked, everyMs = 5_000): { readonly close: () => Promise<void> } {
  let running: Promise<void> = Promise.resolve();
  const timer = setInterval(() => {
    // A database that is away is asked again in a while; nothing is lost meanwhile, the samples are in it.
    running = running.then(() => digestAll(context)).catch(() => undefined);
  }, everyMs);
  timer.unref();
  return {
    async close() {
      clearInterval(timer);
      await running;
    },
  };
}
