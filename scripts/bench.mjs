import { randomUUID } from 'node:crypto';
import { mkdirSync, mkdtempSync, readFileSync, readdirSync, rmSync, statSync } from 'node:fs';
import http from 'node:http';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { pathToFileURL } from 'node:url';
import { ROOT, checkNode, ensureChromium, ensurePackages } from './lib/install.mjs';
import { record } from './lib/benchRecord.mjs';
import { freePort, startCluster } from './lib/postgres.mjs';
import { quietly } from './lib/run.mjs';
import { Told, failPlainly, step } from './lib/say.mjs';
import { ensureServer, startServer } from './lib/server.mjs';
import { WEB_ROOT, ensureWeb } from './lib/web.mjs';

/**
 * `npm run bench`: measured figures beside their limits. Figures are of this machine; the ratio says how far from the limit they are. `long`: the planner on days of more
 * sizes, for longer, perhaps of chosen kinds. `solvers`, a number of seconds and perhaps kinds of days: the planner against outside solvers, and nothing else.
 */

const DAY = '2026-11-25';
const NOW = `${DAY}T05:10:00-05:00`;

async function core() {
  const { build } = await import('esbuild');
  const out = path.join(ROOT, 'test-results/bench-core.mjs');
  mkdirSync(path.dirname(out), { recursive: true });
  await build({ entryPoints: [path.join(ROOT, 'bench/core.ts')], outfile: out, bundle: true, platform: 'node', format: 'esm', logLevel: 'warning' });
  // Cold figures from several processes: the median, so that one busy moment decides nothing.
  const runs = [];
  for (let run = 0; run < 5; run += 1) runs.push(JSON.parse(await quietly(process.execPath, [out])));
  const median = (name) => runs.map((one) => one[name]).sort((left, right) => left - right)[2];
  return {
    firstPlanMs: median('firstPlanMs'),
    improvedPlanMs: median('improvedPlanMs'),
    foldMs: median('foldMs'),
    bigFoldMs: median('bigFoldMs'),
    replan95Ms: median('replan95Ms'),
    scaleMs: median('scaleMs'),
    prepMs: median('prepMs'),
    coolingMs: median('coolingMs'),
  };
}

/** The first plan in a worker of a browser, and those that follow it: the median of several browsers, each new. */
async function firstPlans() {
  const { build } = await import('esbuild');
  const { outputFiles } = await build({ entryPoints: [path.join(ROOT, 'bench/firstPlan.ts')], bundle: true, minify: true, format: 'iife', write: false, logLevel: 'warning' });
  const [{ text }] = outputFiles;
  const runs = [];
  for (let run = 0; run < 5; run += 1)
    runs.push(
      await withPage({}, (page) =>
        page.evaluate(
          (script) =>
            new Promise((resolve, reject) => {
              const worker = new Worker(URL.createObjectURL(new Blob([script], { type: 'text/javascript' })));
              worker.onmessage = ({ data }) => resolve(data);
              worker.onerror = ({ message }) => reject(new Error(message));
              // A browser that has just been started is busy with itself.
              setTimeout(() => worker.postMessage('plan'), 2000);
            }),
          text,
        ),
      ),
    );
  const of = (from, to) => middle(runs.map((plans) => middle(plans.slice(from, to))));
  return { coldMs: of(0, 1), nextMs: of(1, 31), warmMs: of(31, 61), settledMs: of(200) };
}

/** How near the planner comes: made days and published problems. */
async function sequence(long, families) {
  const { build } = await import('esbuild');
  const out = path.join(ROOT, 'test-results/bench-sequence.mjs');
  await build({ entryPoints: [path.join(ROOT, 'bench/sequence.ts')], outfile: out, bundle: true, platform: 'node', format: 'esm', logLevel: 'warning' });
  return JSON.parse(await quietly(process.execPath, [out, ...(long ? ['long'] : []), ...families]));
}

/** The engine against solvers from scratch, each with as many seconds. Answers on how many days one of them was ahead, or the engine's plan was none. */
async function solvers(seconds, families) {
  const { build } = await import('esbuild');
  const out = path.join(ROOT, 'test-results/bench-solvers.cjs');
  await build({ entryPoints: [path.join(ROOT, 'bench/solvers.ts')], outfile: out, bundle: true, platform: 'node', format: 'cjs', external: ['minizinc'], logLevel: 'warning' });
  const days = JSON.parse(await quietly(process.execPath, [out, String(seconds), ...families]));
  console.log(`\nDays whose washes ask nobody's hands: what the cheapest plan costs that each finds in ${seconds} s`);
  console.log(`${'family'.padEnd(12)}${'batches'.padStart(8)}${'engine'.padStart(12)}${'after'.padStart(10)}${days[0].found.map(({ solver }) => solver.padStart(20)).join('')}`);
  for (const { family, size, engine, foundAfterS, found, violations } of days) {
    const others = found.map(({ cost, proved }) => (cost === null ? 'none' : `${cost}${proved ? ' (proved)' : ''}${cost < engine ? ' AHEAD' : ''}`).padStart(20));
    console.log(
      `${family.padEnd(12)}${String(size).padStart(8)}${String(engine).padStart(12)}${`${foundAfterS.toFixed(1)} s`.padStart(10)}${others.join('')}${violations > 0 ? '  BREAKS A RULE' : ''}`,
    );
  }
  return days.filter(({ engine, found, violations }) => violations > 0 || found.some(({ cost }) => cost !== null && cost < engine)).length;
}

const percent = (share) => `${(share * 100).toFixed(1)} %`;

/** Gaps by family and size beside their targets. Answers how many feasible plans were none. */
function printSequence({ times, warmS, best, publishedS, days, textbook }) {
  const target = (size, time) => (time < 1 || size > 20 ? null : size <= 8 ? (time < 10 ? 0.02 : 0.0001) : time < 10 ? 0.05 : 0.02);
  console.log(
    `\nMade days: gap to the best of ${best.seeds.length} more searches of ${best.seconds} s, by seconds of search, after ${warmS} s on another day of the kind (beside it what is aimed at)`,
  );
  console.log(
    `${'family'.padEnd(12)}${'batches'.padStart(8)}${times.map((time) => `${time} s`.padStart(28)).join('')}${'bound below best'.padStart(28)}${'late / of the best, min'.padStart(32)}`,
  );
  let wrong = 0;
  for (const day of days) {
    wrong += day.violations;
    const gaps = times.map((time, at) => {
      const aim = target(day.size, time);
      return `${percent(day.gaps[at])}${aim === null ? '' : ` (${percent(aim)}${day.gaps[at] <= aim ? '' : ', not reached'})`}`.padStart(28);
    });
    console.log(
      `${day.family.padEnd(12)}${String(day.size).padStart(8)}${gaps.join('')}${percent(day.boundGap).padStart(28)}${day.lates
        .map((late) => late.toFixed(0))
        .join(' / ')
        .padStart(32)}${day.unplaced > 0 ? `  ${day.unplaced} without a place` : ''}`,
    );
  }
  console.log(`\nPublished problems, at most ${publishedS} s each`);
  for (const one of textbook) {
    wrong += one.violations;
    const gap = one.found / one.value - 1;
    console.log(
      `${one.name.padEnd(28)}${String(one.value).padStart(8)}${String(one.found).padStart(8)}${percent(gap).padStart(10)}${`${one.seconds.toFixed(1)} s`.padStart(9)}${one.proved ? '' : '  (best known)'}`,
    );
  }
  return wrong;
}

/**
 * Events a second, each in a request of its own and acknowledged durably; a phone sends its next when its last has been answered.
 * With one phone the figure is the round trip's latency, with four it is what the server and its database can take.
 */
async function eventsPerSecond() {
  const folder = mkdtempSync(path.join(tmpdir(), 'broth-bench-'));
  const cluster = await startCluster({ folder, durable: true, quiet: true });
  const port = await freePort();
  const server = startServer({ DATABASE_URL: cluster.url, PORT: String(port), HOST: '127.0.0.1', BROTH_NOW: NOW }, { quiet: true });
  try {
    await server.ready;
    const phone = () => new http.Agent({ keepAlive: true, maxSockets: 1 });
    const post = (agent, url, body) =>
      new Promise((resolve, reject) => {
        const text = JSON.stringify(body);
        const request = http.request(
          {
            agent,
            host: '127.0.0.1',
            port,
            path: `/api/kitchens/landing${url}`,
            method: 'POST',
            headers: { 'content-type': 'application/json', 'content-length': Buffer.byteLength(text) },
          },
          (answer) => {
            let said = '';
            answer.on('data', (data) => (said += data));
            answer.on('end', () => resolve(JSON.parse(said)));
          },
        );
        request.on('error', reject);
        request.end(text);
      });
    const batchId = `${DAY}.lentil.1`;
    await cluster.psql(`INSERT INTO day_plan VALUES ('landing', '${DAY}', 1, now(), 'maren', '{"batches": [{"id": "${batchId}"}]}')`);
    const event = (kind, data) => ({ id: randomUUID(), kind, day: DAY, at: Date.parse(NOW), by: 'maren', device: 'bench', data });
    const started = await post(phone(), '/events', {
      events: [event('batch.started/1', { batchId, soupId: 'lentil', soupVersion: 1, name: 'Lentil 1', ordinal: 1, volumeL: 18, vesselId: 'kettle1' })],
    });
    if (started.results?.[0]?.status !== 'stored') throw new Error(JSON.stringify(started));
    const reading = () =>
      event('reading.taken/1', { batchId, purpose: 'cool', reading: { value: 120, unit: 'F', rawText: '120' }, heldS: null, packId: 'us-fda-fc2022', packVersion: 1 });
    const postFrom = async (agent, count) => {
      for (let index = 0; index < count; index += 1) {
        const answer = await post(agent, '/events', { events: [reading()] });
        if (answer.results[0].status !== 'stored') throw new Error(JSON.stringify(answer));
      }
    };
    const rate = async (phones, count) => {
      const agents = Array.from({ length: phones }, phone);
      await Promise.all(agents.map((agent) => postFrom(agent, 100)));
      const from = performance.now();
      await Promise.all(agents.map((agent) => postFrom(agent, count)));
      return (phones * count * 1000) / (performance.now() - from);
    };
    const figures = { onePhone: await rate(1, 1000), fourPhones: await rate(4, 500) };
    return { ...figures, seenByAll99Ms: await seenByAll99Ms(port, post, reading) };
  } finally {
    server.child.kill('SIGTERM');
    await server.closed;
    await cluster.stop('immediate');
    rmSync(folder, { recursive: true, force: true });
  }
}

/** Fifty phones on one day, each listening, each with an entry every five seconds: how long until an entry has reached every one of them. */
async function seenByAll99Ms(port, post, reading) {
  const PHONES = 50;
  const EVERY_MS = 5000;
  const ROUNDS = 4;
  const sentAt = new Map();
  const seen = new Map();
  const lags = [];
  const hear = (id) => {
    const at = sentAt.get(id);
    if (at === undefined) return;
    const count = (seen.get(id) ?? 0) + 1;
    seen.set(id, count);
    if (count === PHONES) lags.push(performance.now() - at);
  };
  const { seq } = (await post(new http.Agent({ keepAlive: true }), '/events', { events: [reading()] })).results[0].event;
  const streams = await Promise.all(
    Array.from(
      { length: PHONES },
      () =>
        new Promise((resolve, reject) => {
          const request = http.get({ host: '127.0.0.1', port, path: `/api/kitchens/landing/live?since=${seq}`, agent: new http.Agent() }, (answer) => {
            let rest = '';
            answer.setEncoding('utf8');
            answer.on('data', (text) => {
              const parts = (rest + text).split('\n\n');
              rest = parts.pop() ?? '';
              for (const part of parts) if (part.includes('event: events')) for (const event of JSON.parse(part.slice(part.indexOf('data: ') + 6)).events) hear(event.id);
            });
            resolve(request);
          });
          request.on('error', reject);
        }),
    ),
  );
  const wait = (ms) => new Promise((done) => setTimeout(done, ms));
  await Promise.all(
    Array.from({ length: PHONES }, async (_, phone) => {
      const agent = new http.Agent({ keepAlive: true, maxSockets: 1 });
      // Nobody taps in step with the others.
      await wait((phone * EVERY_MS) / PHONES);
      for (let round = 0; round < ROUNDS; round += 1) {
        const event = reading();
        sentAt.set(event.id, performance.now());
        await post(agent, '/events', { events: [event] });
        await wait(EVERY_MS - (performance.now() - sentAt.get(event.id)));
      }
    }),
  );
  await wait(1500);
  for (const stream of streams) {
    stream.on('error', () => undefined);
    stream.destroy();
  }
  // What never reached everybody counts as the longest there is.
  while (lags.length < PHONES * ROUNDS) lags.push(Number.POSITIVE_INFINITY);
  return lags.sort((left, right) => left - right)[Math.floor(lags.length * 0.99)];
}

/** A server with the demo at a time of its day, over a database of its own. */
async function withServer(clock, work) {
  const folder = mkdtempSync(path.join(tmpdir(), 'broth-bench-'));
  const cluster = await startCluster({ folder, durable: false, quiet: true });
  const port = await freePort();
  const server = startServer(
    { DATABASE_URL: cluster.url, PORT: String(port), HOST: '127.0.0.1', BROTH_WEB_ROOT: WEB_ROOT, BROTH_NOW: `${DAY}T${clock}:00-05:00` },
    { quiet: true },
  );
  try {
    await server.ready;
    return await work(`http://127.0.0.1:${port}`);
  } finally {
    server.child.kill('SIGTERM');
    await server.closed;
    await cluster.stop('immediate');
    rmSync(folder, { recursive: true, force: true });
  }
}

/** A page of whoever leads the kitchen. */
async function withPage(options, work) {
  await ensureChromium();
  const { chromium } = await import('@playwright/test');
  const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--headless', '--no-sandbox', '--disable-gpu'] });
  try {
    const page = await browser.newPage(options);
    await page.addInitScript(() => localStorage.setItem('broth-board', JSON.stringify({ state: { who: 'maren', device: 'bench' }, version: 0 })));
    return await work(page);
  } finally {
    await browser.close();
  }
}

const middle = (values) => [...values].sort((left, right) => left - right)[Math.floor(values.length / 2)];

/** From a tap on Now to the next picture that shows it, on a phone four times slower than this machine: the browser's own account of each tap. */
async function tapMs(page, address) {
  await page.goto(`${address}/board`);
  await page.getByRole('button', { name: 'Use this plan' }).click();
  await page.getByRole('link', { name: 'Now', exact: true }).click();
  await page
    .getByRole('button', { name: /^Start / })
    .first()
    .click();
  const more = page.getByRole('button', { name: /more minutes for/ }).first();
  await more.waitFor();
  // The planner follows every tap: the first figures are of a phone that is planning too.
  const slow = await page.context().newCDPSession(page);
  await slow.send('Emulation.setCPUThrottlingRate', { rate: 4 });
  const took = [];
  for (let tap = 0; tap < 15; tap += 1) {
    took.push(
      await more.evaluate(
        (button) =>
          new Promise((resolve) => {
            const said = document.body.innerText;
            const from = performance.now();
            const look = () => {
              if (document.body.innerText === said) requestAnimationFrame(look);
              else resolve(performance.now() - from);
            };
            button.click();
            requestAnimationFrame(look);
          }),
      ),
    );
    // The planner takes up the change before the next tap.
    await page.evaluate(() => new Promise((idle) => requestIdleCallback(idle)));
  }
  return middle(took);
}

/** From a par that is put on the desk until the board beside it shows a batch of that size. */
async function followMs(page, address) {
  const ON_HAND_L = 3;
  await page.goto(`${address}/par`);
  const field = page.getByRole('textbox', { name: 'Par, White bean and kale, litres' });
  const took = [];
  for (const parL of [9, 12, 10, 13, 11, 14, 9]) {
    await field.fill(String(parL));
    const seen = page.evaluate(
      (name) =>
        new Promise((resolve) => {
          const from = performance.now();
          const look = () => {
            const isThere = [...document.querySelectorAll('[role=radio]')].some((one) => one.getAttribute('aria-label')?.startsWith(name));
            if (isThere) resolve(performance.now() - from);
            else requestAnimationFrame(look);
          };
          look();
        }),
      `Bean 1, ${parL - ON_HAND_L} L,`,
    );
    await field.press('Enter');
    took.push(await seen);
  }
  return middle(took);
}

/** What a first visit fetches, compressed as it is served: page, script and faces; the planner's worker comes after. */
function firstLoadKb() {
  const sizeOf = (file) => statSync(readdirSync(path.dirname(file)).includes(`${path.basename(file)}.br`) ? `${file}.br` : file).size;
  const page = readFileSync(path.join(WEB_ROOT, 'index.html'), 'utf8');
  const scripts = [...page.matchAll(/src="([^"]+\.js)"/g)].map((match) => path.join(WEB_ROOT, match[1]));
  const under = (folder) =>
    readdirSync(folder, { withFileTypes: true }).flatMap((entry) => (entry.isDirectory() ? under(path.join(folder, entry.name)) : [path.join(folder, entry.name)]));
  const faces = under(path.join(WEB_ROOT, 'assets')).filter((file) => file.endsWith('.woff2'));
  const worker = under(path.join(WEB_ROOT, '_expo')).filter((file) => /plan-[0-9a-f]+\.js$/.test(file));
  return [path.join(WEB_ROOT, 'index.html'), ...scripts, ...faces, ...worker].reduce((sum, file) => sum + sizeOf(file), 0) / 1000;
}

/** Kinds of made days that are asked for. */
async function familiesOf(named) {
  const { build } = await import('esbuild');
  const out = path.join(ROOT, 'test-results/bench-days.mjs');
  await build({ entryPoints: [path.join(ROOT, 'core/src/testing/days.ts')], outfile: out, bundle: true, platform: 'node', format: 'esm', logLevel: 'warning' });
  const { FAMILIES } = await import(pathToFileURL(out).href);
  const unknown = named.filter((one) => !FAMILIES.includes(one));
  if (unknown.length > 0) throw new Told(`No kind of day is called ${unknown.join(', ')}. There are: ${FAMILIES.join(', ')}.`);
  return named;
}

async function main() {
  checkNode();
  await ensurePackages();
  const against = process.argv.indexOf('solvers');
  if (against >= 0) {
    const seconds = Number(process.argv[against + 1] ?? 60);
    const families = await familiesOf(process.argv.slice(against + 2));
    const days = 3 * (families.length === 0 ? 6 : families.length);
    process.exit((await step(`Solvers from scratch (${Math.ceil((seconds * 4 * days) / 60)} minutes)`, () => solvers(seconds, families))) === 0 ? 0 : 1);
  }
  const long = process.argv.includes('long');
  const families = await familiesOf(process.argv.slice(2).filter((argument) => argument !== 'long'));
  await step('Bundling the server', ensureServer);
  await ensureWeb();
  const figures = await step('Planning and folding', core);
  const first = await step('Planning in a browser', firstPlans);
  const near = await step(long ? 'Sequencing (half an hour)' : 'Sequencing (three minutes)', () => sequence(long, families));
  // Printed at once: half an hour's figures are not lost to what comes after.
  const wrongPlans = printSequence(near);
  const perSecond = await step('Posting events, fifty phones', eventsPerSecond);
  const log = await step('Probes for a minute, ten million samples', record);
  const tap = await step('Tapping', () => withServer('07:20', (address) => withPage({ viewport: { width: 390, height: 844 }, hasTouch: true }, (page) => tapMs(page, address))));
  const follow = await step('Putting pars', () => withServer('05:10', (address) => withPage({ viewport: { width: 1280, height: 800 } }, (page) => followMs(page, address))));
  const rows = [
    ["First plan of the demo day, in a page's worker", first.coldMs, 50, 'ms', 'most'],
    ['The same, the thirty after it', first.nextMs, 5, 'ms', 'aim'],
    ['The same, warm: after thirty', first.warmMs, 5, 'ms', 'most'],
    ['The same, after two hundred', first.settledMs, 5, 'ms', 'most'],
    ["A server's first plan, nothing warmed up", figures.firstPlanMs, 50, 'ms', 'aim'],
    ['Improved plan, 250 moves', figures.improvedPlanMs, 1000, 'ms', 'most'],
    ['A batch moved by hand: the first repaired day', near.repairMs, 100, 'ms', 'most'],
    [`Days played through, ${near.steps} steps each`, near.replicationsPerS, 50_000, '/s', 'least'],
    ['Plans that break a rule, of all made here', wrongPlans, 0, '', 'none'],
    ['Fold of 1000 events', figures.foldMs, 5, 'ms', 'most'],
    ['Fold of 5000 events', figures.bigFoldMs, 10, 'ms', 'most'],
    ['A mishap: the first new plan, 95th percentile', figures.replan95Ms, 300, 'ms', 'most'],
    ['Sheets of 40 lines, 4 levels of components', figures.scaleMs, 1, 'ms', 'most'],
    ['Prep and order list of 20 batches', figures.prepMs, 20, 'ms', 'most'],
    ['Verdict and forecast of 500 readings', figures.coolingMs, 2, 'ms', 'most'],
    ['Probes: samples a second, for a minute', log.perSecond, 4900, '/s', 'least'],
    ['The same: samples lost', log.lost, 0, '', 'none'],
    ['The same: a push of 1,000, 99th percentile', log.p99Ms, 1000, 'ms', 'most'],
    ["The day's record, 10 million samples there", log.recordMs, 50, 'ms', 'most'],
    ["A probe's chart out of them", log.chartMs, 500, 'ms', 'most'],
    ['Events one by one, one phone, durable', perSecond.onePhone, 300, '/s', 'aimLeast'],
    ['The same, four phones at once', perSecond.fourPhones, 300, '/s', 'least'],
    ['50 phones: an entry seen by all, 99th percentile', perSecond.seenByAll99Ms, 1000, 'ms', 'most'],
    ['A tap on Now, 4x slowed, median', tap, 100, 'ms', 'most'],
    ['A par put: the board beside it follows, median', follow, 1000, 'ms', 'most'],
    ['First load, compressed', firstLoadKb(), 500, 'kB', 'most'],
  ];
  console.log(`\n${'Figure'.padEnd(46)}${'measured'.padStart(12)}${'limit'.padStart(12)}${'ratio'.padStart(8)}`);
  let over = 0;
  for (const [name, value, limit, unit, side] of rows) {
    const ratio = side === 'none' ? (value === 0 ? 0 : 9) : side.endsWith('east') ? limit / value : value / limit;
    const mark = ratio <= 1 ? '' : side.startsWith('aim') ? '  (aim, not reached)' : '  OVER';
    if (mark.includes('OVER')) over += 1;
    console.log(`${name.padEnd(46)}${`${value.toFixed(1)} ${unit}`.padStart(12)}${`${limit} ${unit}`.padStart(12)}${ratio.toFixed(2).padStart(8)}${mark}`);
  }
  process.exit(over === 0 ? 0 : 1);
}

main().catch(failPlainly);
