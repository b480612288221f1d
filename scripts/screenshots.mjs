import { randomUUID } from 'node:crypto';
import { mkdirSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { ROOT, checkNode, ensureChromium, ensurePackages } from './lib/install.mjs';
import { freePort, startCluster } from './lib/postgres.mjs';
import { failPlainly, step } from './lib/say.mjs';
import { ensureServer, startServer } from './lib/server.mjs';
import { WEB_ROOT, ensureWeb } from './lib/web.mjs';

/** `npm run screenshots`: one current picture of each main view, from the demo day under way. */

const DAY = '2026-11-25';
const OUT = path.join(ROOT, 'docs/screenshots');
const PHONE = { width: 390, height: 844 };
const WIDE = { width: 1280, height: 800 };

async function main() {
  checkNode();
  await ensurePackages();
  await ensureChromium();
  await step('Bundling the server', ensureServer);
  await ensureWeb();
  const { chromium } = await import('@playwright/test');
  const folder = mkdtempSync(path.join(tmpdir(), 'broth-shots-'));
  const cluster = await startCluster({ folder, durable: false, quiet: true });
  const port = await freePort();
  const address = `http://127.0.0.1:${port}`;
  let server = null;
  const serveAt = async (clock) => {
    if (server !== null) {
      server.child.kill('SIGTERM');
      await server.closed;
    }
    server = startServer({ DATABASE_URL: cluster.url, PORT: String(port), HOST: '127.0.0.1', BROTH_WEB_ROOT: WEB_ROOT, BROTH_NOW: `${DAY}T${clock}:00-05:00` }, { quiet: true });
    await server.ready;
  };
  const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--headless', '--no-sandbox', '--disable-gpu', '--disable-background-networking'] });
  const pageIn = async (viewport, look) => {
    const page = await browser.newPage({ viewport });
    await page.addInitScript((chosen) => {
      localStorage.setItem('broth-board', JSON.stringify({ state: { who: 'maren', device: 'phone of Maren', look: chosen }, version: 0 }));
    }, look);
    return page;
  };
  mkdirSync(OUT, { recursive: true });
  const shoot = async (name, viewport, look, where, ready) => {
    const page = await pageIn(viewport, look);
    await page.goto(address + where);
    await page.getByText(ready).first().waitFor();
    // The planner answers twice: wait for the better plan where there is a draft.
    await page.getByText('Looking for a better one').waitFor({ state: 'detached' });
    await page.evaluate(() => document.fonts.ready);
    await page.screenshot({ path: path.join(OUT, `${name}.png`) });
    await page.close();
  };
  try {
    await serveAt('05:10');
    await shoot('par-phone', PHONE, 'enamel', '/par', 'to make');
    await shoot('batches-phone', PHONE, 'enamel', '/batches', 'Lentil 1');
    await shoot('book-phone', PHONE, 'enamel', '/book', 'Red lentil and roast carrot');
    await shoot('soup-phone', PHONE, 'enamel', '/book/celeriac', 'Peel and cut celeriac, apple, onion');
    await shoot('edit-phone', PHONE, 'enamel', '/book/lentil/edit', 'What goes in, for 10 L');
    await shoot('sheet-wide', WIDE, 'enamel', '/book/chowder/sheet', 'Too thin, too thick?');
    await shoot('prep-phone', PHONE, 'enamel', '/prep', 'On the board by');
    await shoot('desk-wide', WIDE, 'enamel', '/par', 'Lentil 1');
    const page = await pageIn(PHONE, 'enamel');
    const tap = async (name) => page.getByRole('button', { name }).first().click();
    await page.goto(`${address}/board`);
    await tap('Use this plan');
    await page.getByRole('button', { name: 'Use this plan' }).waitFor({ state: 'detached' });
    await shoot('board-phone', PHONE, 'enamel', '/board', 'All in time');
    await shoot('board-wide', WIDE, 'enamel', '/board', 'All in time');
    // What is cooked in the pictures is recorded as a phone would; which batch the plan begins with is the planner's affair.
    const { plan } = await (await fetch(`${address}/api/kitchens/landing/days/${DAY}`)).json();
    const cook = async (soupId, ordinal, steps, after = []) => {
      const batchId = `${DAY}.${soupId}.${ordinal}`;
      const { name, volumeL, vesselId, soupVersion } = plan.plan.batches.find((one) => one.id === batchId);
      const { now } = await (await fetch(`${address}/api/health`)).json();
      const events = [
        ['batch.started/1', { soupId, soupVersion, name, ordinal, volumeL, vesselId }],
        ...steps.flatMap(({ stepId, done }) => [['step.started/1', { stepId }], ...(done ? [['step.done/1', { stepId }]] : [])]),
        ...after,
      ].map(([kind, data], index) => ({ id: randomUUID(), kind, day: DAY, at: now + index, by: 'maren', device: 'phone of Maren', data: { batchId, ...data } }));
      const answer = await fetch(`${address}/api/kitchens/landing/events`, { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify({ events }) });
      const refused = (await answer.json()).results?.find((one) => one.status === 'refused');
      if (!answer.ok || refused !== undefined) throw new Error(`The day of the pictures was refused: ${JSON.stringify(refused)}`);
    };
    const done = (stepId) => ({ stepId, done: true });
    await cook('vegstock', 1, ['prep', 'boil', 'simmer', 'empty'].map(done), [
      ['batch.finished/1', { volumeOutL: 14 }],
      ['cooling.started/1', { placeId: 'icebath', ambientC: 0 }],
    ]);
    const read = async (digits) => {
      await page.goto(`${address}/log/${DAY}.vegstock.1`);
      for (const digit of digits) await page.getByRole('button', { name: digit, exact: true }).click();
      await tap(new RegExp(`^Log ${digits} `));
      await page.getByRole('group', { name: 'Readings' }).getByText(`${digits} °F`).first().waitFor();
    };
    await read('141');
    await serveAt('05:35');
    await read('112');
    await serveAt('06:02');
    await read('93');
    await cook('vegstock', 2, [done('prep'), { stepId: 'boil', done: false }]);
    await shoot('log-phone', PHONE, 'enamel', `/log/${DAY}.vegstock.1`, 'On course');
    await serveAt('06:31');
    await shoot('now-phone', PHONE, 'enamel', '/now', 'Veg stock 1');
    await shoot('now-wide', WIDE, 'enamel', '/now', 'Veg stock 1');
    await shoot('now-phone-iron', PHONE, 'iron', '/now', 'Veg stock 1');
    await shoot('pass-wide', WIDE, 'enamel', '/pass', 'Coming');
    await page.goto(`${address}/happened`);
    await page.getByRole('radio', { name: 'Handing over' }).click();
    await page.getByRole('group', { name: 'Handing over' }).waitFor();
    await page.evaluate(() => document.fonts.ready);
    await page.screenshot({ path: path.join(OUT, 'happened-phone.png') });
    await shoot('board-wide-iron', WIDE, 'iron', '/board', 'All in time');
    await serveAt('07:20');
    await shoot('log-wide', WIDE, 'enamel', '/log', 'read at the warmest point');
    await shoot('record-phone', PHONE, 'enamel', '/record', 'Verdicts');
  } finally {
    await browser.close();
    server?.child.kill('SIGKILL');
    await cluster.stop('immediate');
    rmSync(folder, { recursive: true, force: true });
  }
}

main().catch(failPlainly);
