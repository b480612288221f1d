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
    await shoot('par-phone', PHONE, 'enamel', '/par', 'with stocks and roasts');
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
    // The day goes as it is planned, whatever the planner has begun it with; what is left of the first stock is cooled.
    const { plan } = await (await fetch(`${address}/api/kitchens/landing/days/${DAY}`)).json();
    const { soups } = await (await fetch(`${address}/api/kitchens/landing`)).json();
    const { batches, washes } = plan.plan;
    const stock = batches.find((one) => one.id === `${DAY}.vegstock.1`);
    const atMinute = (minute) => Date.parse(`${DAY}T00:00:00-05:00`) + minute * 60_000;
    /** When the soup that a stock or a roast is made for takes it. */
    const usedAt = (componentId, readyMin) =>
      batches
        .flatMap(({ id, soupId, steps }) => {
          const line = soups.find((one) => one.id === soupId).ingredients.find((one) => one.componentId === componentId);
          return line === undefined ? [] : [[steps.find((step) => step.stepId === line.stepId).startMin, id]];
        })
        .filter(([takenMin]) => takenMin >= readyMin)
        .sort(([one], [other]) => one - other)
        .slice(0, 1);
    let recordedMin = 0;
    /** Serves at a minute of the day, when all that was planned until then has happened. */
    const dayAt = async (minute) => {
      await serveAt(`${String(Math.floor(minute / 60)).padStart(2, '0')}:${String(minute % 60).padStart(2, '0')}`);
      const events = [
        ...batches.flatMap(({ id: batchId, soupId, soupVersion, name, ordinal, volumeL, vesselId, steps, readyMin }) => {
          const reading = (min, purpose, value) => [
            min,
            'reading.taken/1',
            { batchId, purpose, reading: { value, unit: 'F', rawText: String(value) }, heldS: purpose === 'cook' ? 20 : null, packId: 'us-fda-fc2022', packVersion: 1 },
          ];
          const { role, served } = soups.find((one) => one.id === soupId);
          return [
            [steps[0].startMin, 'batch.started/1', { batchId, soupId, soupVersion, name, ordinal, volumeL, vesselId }],
            ...steps.flatMap(({ stepId, startMin, endMin }) => [
              [startMin, 'step.started/1', { batchId, stepId }],
              [endMin, 'step.done/1', { batchId, stepId }],
            ]),
            ...(served === 'hot' && vesselId !== null ? [reading(steps.at(-2).endMin, 'cook', 194)] : []),
            [readyMin, 'batch.finished/1', { batchId, volumeOutL: volumeL }],
            ...(role === 'soup' && served === 'hot'
              ? [
                  [readyMin, 'hold.started/1', { batchId, placeId: `well${String((batches.filter((one) => one.readyMin < readyMin).length % 4) + 1)}` }],
                  reading(readyMin + 2, 'hotHold', 178),
                ]
              : []),
            ...(role === 'soup' || batchId === stock.id ? [] : usedAt(soupId, readyMin).map(([min, into]) => [min, 'batch.used/1', { batchId, intoBatchIds: [into] }])),
            ...(batchId === stock.id
              ? [
                  [readyMin, 'cooling.started/1', { batchId, placeId: 'icebath', ambientC: 0 }],
                  reading(readyMin, 'cool', 141),
                  reading(readyMin + 25, 'cool', 112),
                  reading(readyMin + 52, 'cool', 93),
                  reading(readyMin + 112, 'cool', 64),
                ]
              : []),
          ];
        }),
        ...washes.map(({ unitId, kind, endMin, afterBatchId, beforeBatchId }) => [endMin, 'wash.done/1', { unitId, kind, afterBatchId, beforeBatchId }]),
      ]
        .filter(([at]) => at > recordedMin && at <= minute)
        .sort(([one], [other]) => one - other)
        .map(([at, kind, data], index) => ({ id: randomUUID(), kind, day: DAY, at: atMinute(at) + index, by: 'maren', device: 'phone of Maren', data }));
      recordedMin = minute;
      const answer = await fetch(`${address}/api/kitchens/landing/events`, { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify({ events }) });
      const said = await answer.json();
      const refused = answer.ok ? said.results.find((one) => one.status === 'refused') : said;
      if (refused !== undefined) throw new Error(`The day of the pictures was refused: ${JSON.stringify(refused)}`);
    };
    await dayAt(stock.readyMin + 53);
    await shoot('log-phone', PHONE, 'enamel', `/log/${stock.id}`, 'On course');
    await dayAt(stock.readyMin + 60);
    await shoot('now-phone', PHONE, 'enamel', '/now', 'Celeriac 1');
    await shoot('now-wide', WIDE, 'enamel', '/now', 'Celeriac 1');
    await shoot('now-phone-iron', PHONE, 'iron', '/now', 'Celeriac 1');
    await shoot('pass-wide', WIDE, 'enamel', '/pass', 'Coming');
    await page.goto(`${address}/happened`);
    await page.getByRole('radio', { name: 'Handing over' }).click();
    await page.getByRole('group', { name: 'Handing over' }).waitFor();
    await page.evaluate(() => document.fonts.ready);
    await page.screenshot({ path: path.join(OUT, 'happened-phone.png') });
    await shoot('board-wide-iron', WIDE, 'iron', '/board', 'All in time');
    await dayAt(stock.readyMin + 125);
    await shoot('log-wide', WIDE, 'enamel', '/log', 'Readings');
    await shoot('record-phone', PHONE, 'enamel', '/record', 'Verdicts');
  } finally {
    await browser.close();
    server?.child.kill('SIGKILL');
    await cluster.stop('immediate');
    rmSync(folder, { recursive: true, force: true });
  }
}

main().catch(failPlainly);
