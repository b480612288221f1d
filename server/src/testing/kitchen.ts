import { randomUUID } from 'node:crypto';
import { addMinutes } from '@broth/core';
import { planDay } from '@broth/core/planner';
import type { DayEvent, DayPlan } from '@broth/core';
import { postPlan } from '@broth/contract';
import { demo } from '@broth/demo';
import type { FastifyInstance } from 'fastify';
import { Client } from 'pg';
import type { Sequelize } from 'sequelize';
import { buildApp } from '../app';
import type { Context } from '../context';
import { openHub } from '../live/hub';
import { midnightOf } from '../localTime';
import type { PlanSearch } from '../search/pool';
import { search as searchHere } from '../search/search.worker';
import { migrate, openDatabase } from '../store/database';
import { seedIfEmpty } from '../store/seed';

export const DAY = '2026-11-25';
const MIDNIGHT = midnightOf(demo.kitchen.timeZone, DAY);
/** `at('12:10')` on the demo day, in the kitchen's own time. */
export function at(clock: string): number {
  const [hours = 0, minutes = 0] = clock.split(':').map(Number);
  return addMinutes(MIDNIGHT, hours * 60 + minutes);
}

/** A test may set the clock of the context anew. */
type Mutable<Type> = { -readonly [Key in keyof Type]: Type[Key] };

export interface TestKitchen {
  readonly app: FastifyInstance;
  readonly database: Sequelize;
  readonly url: string;
  readonly context: Mutable<Context>;
  readonly setNow: (clock: string) => void;
  readonly post: (events: readonly DayEvent[]) => Promise<{ status: number; results: { status: string; id: string; problem?: { code: string; detail: string } }[] }>;
  readonly acceptPlan: () => Promise<DayPlan>;
  readonly close: () => Promise<void>;
}

const { TEST_DATABASE_URL } = process.env;

/** Plans are made in this thread, and tests run beside others: what looks like a database that is away may be a busy machine. Milliseconds. */
const PATIENCE_MS = 25_000;

/** A server over a database of its own, with the demo kitchen, at a chosen time of the demo day. */
export async function testKitchen(clock = '05:00'): Promise<TestKitchen> {
  if (TEST_DATABASE_URL === undefined) throw new Error('TEST_DATABASE_URL is not set: run the tests with "npm test", which starts a database for them.');
  const name = `test_${randomUUID().replaceAll('-', '')}`;
  const admin = new Client({ connectionString: TEST_DATABASE_URL });
  await admin.connect();
  await admin.query(`CREATE DATABASE ${name}`);
  await admin.end();
  const url = TEST_DATABASE_URL.replace(/\/[^/]*$/, `/${name}`);
  let now = at(clock);
  const database = openDatabase(url, PATIENCE_MS);
  await migrate(database);
  await seedIfEmpty(database, () => DAY);
  const hub = openHub(url);
  // In the same thread: the pool itself is tried in a browser, on the bundled server.
  const search: PlanSearch = { search: (input, from, forMs) => Promise.resolve(searchHere({ input, from, seed: 2, forMs: Math.min(forMs, 200) })), close: () => Promise.resolve() };
  const context: Mutable<Context> = { database, hub, now: () => now, chosenClock: true, search };
  const app = await buildApp(context, { webRoot: null, logger: false });
  return {
    app,
    database,
    url,
    context,
    setNow: (next) => {
      now = at(next);
    },
    post: async (events) => {
      const answer = await app.inject({ method: 'POST', url: '/api/kitchens/landing/events', payload: { events } });
      return { status: answer.statusCode, results: answer.json<{ results: [] }>().results };
    },
    acceptPlan: async () => {
      const nowMin = Math.floor((now - MIDNIGHT) / 60_000);
      const plan = planDay(
        { date: DAY, nowMin, soups: demo.soups, station: demo.station, pars: demo.standingPars, lots: demo.lots(DAY), started: [], dateMarkLastDay: 7 },
        { seed: 1, moves: 0 },
      );
      const body: ReturnType<typeof postPlan.parse> = postPlan.parse({ by: 'maren', nowMin, plan });
      const answer = await app.inject({ method: 'POST', url: `/api/kitchens/landing/days/${DAY}/plans`, payload: body });
      if (answer.statusCode !== 200) throw new Error(answer.body);
      return plan;
    },
    close: async () => {
      await app.close();
      await hub.close();
      await database.close();
    },
  };
}

/** An event of the demo day, by the lead, from a test device. */
export function event<Kind extends DayEvent['kind']>(kind: Kind, clock: string, data: Extract<DayEvent, { kind: Kind }>['data'], id: string = randomUUID()): DayEvent {
  return { id, kind, day: DAY, at: at(clock), by: 'maren', device: 'test', data } as DayEvent;
}

export const LENTIL = `${DAY}.lentil.1`;
export function lentilStarted(clock: string): DayEvent {
  return event('batch.started/1', clock, { batchId: LENTIL, soupId: 'lentil', soupVersion: 1, name: 'Lentil 1', ordinal: 1, volumeL: 18, vesselId: 'kettle1' });
}
export function reading(clock: string, value: number, unit: 'C' | 'F' = 'F', id?: string): DayEvent {
  return event(
    'reading.taken/1',
    clock,
    { batchId: LENTIL, purpose: 'cool', reading: { value, unit, rawText: String(value) }, heldS: null, packId: 'us-fda-fc2022', packVersion: 1 },
    id,
  );
}
