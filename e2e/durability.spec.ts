import { randomUUID } from 'node:crypto';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { expect, test } from '@playwright/test';
import { freePort, startCluster } from '../scripts/lib/postgres.mjs';
import { quietly } from '../scripts/lib/run.mjs';
import { startServer } from '../scripts/lib/server.mjs';
import { DAY } from './stand';
import { planOf } from './plan';

/** What was acknowledged survives kill -9 of the server and of PostgreSQL. A durable cluster: fsync is on. */

const NOW = `${DAY}T05:10:00-05:00`;
const BATCH = `${DAY}.lentil.1`;

test('no acknowledged reading is lost when the server or the database is killed', async () => {
  const folder = mkdtempSync(path.join(tmpdir(), 'broth-durable-'));
  const cluster = await startCluster({ folder, durable: true, quiet: true });
  const port = await freePort();
  const serve = () => startServer({ DATABASE_URL: cluster.url, PORT: String(port), HOST: '127.0.0.1', BROTH_NOW: NOW }, { quiet: true });
  const url = `http://127.0.0.1:${String(port)}/api/kitchens/landing`;
  const post = async (to: string, body: unknown): Promise<{ status: number; body: { results?: { status: string }[]; code?: string; detail?: string } }> => {
    const answer = await fetch(to, { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) });
    return { status: answer.status, body: (await answer.json()) as never };
  };
  const event = (kind: string, data: object, at = Date.parse(NOW)) => ({ id: randomUUID(), kind, day: DAY, at, by: 'maren', device: 'durability', data });
  const reading = (value: number) =>
    event('reading.taken/1', { batchId: BATCH, purpose: 'cool', reading: { value, unit: 'F', rawText: String(value) }, heldS: null, packId: 'us-fda-fc2022', packVersion: 1 });
  const temperatures = async (): Promise<number[]> => {
    const { events } = (await (await fetch(`${url}/events`)).json()) as { events: { kind: string; data: { reading?: { value: number } } }[] };
    return events.flatMap((one) => one.data.reading?.value ?? []);
  };
  let server = serve();
  await server.ready;
  try {
    const plan = await post(`${url}/days/${DAY}/plans`, { by: 'maren', nowMin: 310, plan: planOf(310) });
    expect(plan.status).toBe(200);
    await post(`${url}/events`, {
      events: [event('batch.started/1', { batchId: BATCH, soupId: 'lentil', soupVersion: 1, name: 'Lentil 1', ordinal: 1, volumeL: 18, vesselId: 'kettle1' })],
    });

    expect((await post(`${url}/events`, { events: [reading(150)] })).body.results?.[0]?.status).toBe('stored');
    server.child.kill('SIGKILL');
    await server.closed;
    server = serve();
    await server.ready;
    expect(await temperatures()).toEqual([150]);

    expect((await post(`${url}/events`, { events: [reading(120)] })).body.results?.[0]?.status).toBe('stored');
    const postmaster = cluster.pid();
    expect(postmaster).not.toBeNull();
    process.kill(postmaster ?? 0, 'SIGKILL');

    const kept = reading(100);
    await expect.poll(async () => (await post(`${url}/events`, { events: [kept] })).body.code).toBe('database.away');
    expect((await fetch(`http://127.0.0.1:${String(port)}/api/health`)).status).toBe(503);

    // Children of a killed postmaster take a moment to notice; only then may a new one start.
    await expect(async () => {
      await cluster.start();
    }).toPass({ timeout: 30_000 });
    await expect.poll(async () => (await post(`${url}/events`, { events: [kept] })).status).toBe(200);
    expect(await temperatures()).toEqual([150, 120, 100]);

    const said = await quietly(process.execPath, [path.join(import.meta.dirname, '../server/dist/verify.js')], { env: { ...process.env, DATABASE_URL: cluster.url } });
    expect(said).toContain('landing: 4 events, every one as it was recorded.');
  } finally {
    server.child.kill('SIGKILL');
    await cluster.stop('immediate').catch(() => undefined);
    rmSync(folder, { recursive: true, force: true });
  }
});

test('a database that is down at the start is waited for', async () => {
  const folder = mkdtempSync(path.join(tmpdir(), 'broth-late-'));
  const cluster = await startCluster({ folder, durable: false, quiet: true });
  await cluster.stop('fast');
  const port = await freePort();
  const server = startServer({ DATABASE_URL: cluster.url, PORT: String(port), HOST: '127.0.0.1', BROTH_NOW: NOW }, { quiet: true });
  try {
    const health = () =>
      fetch(`http://127.0.0.1:${String(port)}/api/health`).then(
        (answer) => answer.status,
        () => 0,
      );
    await expect.poll(health).toBe(503);
    await cluster.start();
    await server.ready;
    expect(await health()).toBe(200);
  } finally {
    server.child.kill('SIGKILL');
    await cluster.stop('immediate').catch(() => undefined);
    rmSync(folder, { recursive: true, force: true });
  }
});
