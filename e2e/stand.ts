import { randomUUID } from 'node:crypto';
import { test as base } from '@playwright/test';
import type { Page } from '@playwright/test';
import { freePort } from '../scripts/lib/postgres.mjs';
import { startServer } from '../scripts/lib/server.mjs';
import { WEB_ROOT } from '../scripts/lib/web.mjs';
import { Client } from './pg';

/** A server of its own over a database of its own, with the demo, its clock at a chosen time of the demo day. */
export interface Stand {
  readonly address: string;
  readonly databaseUrl: string;
  readonly port: number;
  readonly stop: () => Promise<void>;
  /** As a power cut would: nothing is finished. */
  readonly kill: () => void;
}

const { TEST_DATABASE_URL } = process.env;
export const DAY = '2026-11-25';

export async function freshDatabase(): Promise<string> {
  if (TEST_DATABASE_URL === undefined) throw new Error('TEST_DATABASE_URL is not set: run this with "npm test".');
  const name = `e2e_${randomUUID().replaceAll('-', '')}`;
  const admin = new Client({ connectionString: TEST_DATABASE_URL });
  await admin.connect();
  await admin.query(`CREATE DATABASE ${name}`);
  await admin.end();
  return TEST_DATABASE_URL.replace(/\/[^/]*$/, `/${name}`);
}

/** `before` is a stand that was stopped: the new one goes on with its database and address, at a later time of day. */
export async function startStand(clock: string, before?: Pick<Stand, 'databaseUrl' | 'port'>): Promise<Stand> {
  const url = before?.databaseUrl ?? (await freshDatabase());
  const port = before?.port ?? (await freePort());
  const server = startServer({ DATABASE_URL: url, PORT: String(port), HOST: '127.0.0.1', BROTH_WEB_ROOT: WEB_ROOT, BROTH_NOW: `${DAY}T${clock}:00-05:00` }, { quiet: true });
  await server.ready;
  return {
    address: `http://127.0.0.1:${String(port)}`,
    databaseUrl: url,
    port,
    stop: async () => {
      server.child.kill('SIGTERM');
      await server.closed;
    },
    kill: () => server.child.kill('SIGKILL'),
  };
}

/** Says who holds the phone before the page is opened, so that a test starts where the work does. */
export async function holds(page: Page, who: string, look: 'enamel' | 'iron' = 'enamel'): Promise<void> {
  await page.addInitScript(
    ([person, chosen]) => {
      if (localStorage.getItem('broth-board') === null)
        localStorage.setItem('broth-board', JSON.stringify({ state: { who: person, device: `phone of ${person ?? ''}`, look: chosen }, version: 0 }));
    },
    [who, look],
  );
}

/** A day of one soup, so much of it that its stock must begin at once: so it is certain what comes first whatever the planner finds. At 07:20. */
export async function onlyCeleriac(page: Page, { address }: Pick<Stand, 'address'>): Promise<void> {
  for (const soup of ['barley', 'lentil', 'chowder', 'cucumber', 'bean', 'beetroot', 'sweetpotato'])
    await page.request.put(`${address}/api/kitchens/landing/days/${DAY}/pars/${soup}`, { data: { parL: 0 } });
  await page.request.put(`${address}/api/kitchens/landing/days/${DAY}/pars/celeriac`, { data: { parL: 60 } });
}

/** Each test gets a stand of its own. */
export const test = base.extend<{ stand: Stand; clock: string }>({
  clock: ['05:10', { option: true }],
  stand: async ({ clock }, use) => {
    const stand = await startStand(clock);
    await use(stand);
    await stand.stop();
  },
});
export { expect } from '@playwright/test';
