import { randomUUID } from 'node:crypto';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { freePort, startCluster } from './postgres.mjs';
import { startServer } from './server.mjs';

/** What the record has to bear: probes at 5,000 readings a second, and a table of ten million. */

const KITCHEN = 'landing';
const PROBES = 200;
const PER_POST = 1000;
const POSTS_PER_S = 5;
const SECONDS = 60;
const ROWS = 10_000_000;
const BATCHES = 20;
const READINGS_EACH = 15;

async function withKitchen(work) {
  const folder = mkdtempSync(path.join(tmpdir(), 'broth-bench-'));
  const cluster = await startCluster({ folder, durable: true, quiet: true });
  const port = await freePort();
  const server = startServer({ DATABASE_URL: cluster.url, PORT: String(port), HOST: '127.0.0.1' }, { quiet: true });
  try {
    await server.ready;
    const names = Array.from({ length: PROBES }, (_, index) => ({ id: `p${index}`, name: `Probe ${index}`, unit: 'C', kind: 'probe', inUse: true }));
    await cluster.psql(`UPDATE station SET body = jsonb_set(body, '{thermometers}', '${JSON.stringify(names)}'::jsonb)`);
    return await work({ cluster, base: `http://127.0.0.1:${port}/api/kitchens/${KITCHEN}` });
  } finally {
    server.child.kill('SIGTERM');
    await server.closed;
    await cluster.stop('immediate');
    rmSync(folder, { recursive: true, force: true });
  }
}

const send = async (url, body) => {
  const answer = await fetch(url, { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) });
  const said = await answer.json();
  if (!answer.ok) throw new Error(JSON.stringify(said));
  return said;
};
const at = (values, share) => [...values].sort((left, right) => left - right)[Math.min(values.length - 1, Math.floor(values.length * share))];

/** A minute of it at the pace it comes; what the server took, against what was sent. */
async function ingest() {
  return withKitchen(async ({ cluster, base }) => {
    const took = [];
    const under = [];
    const begun = performance.now();
    const each = PER_POST / PROBES;
    for (let post = 0; post < SECONDS * POSTS_PER_S; post += 1) {
      const wait = begun + (post * 1000) / POSTS_PER_S - performance.now();
      if (wait > 0) await new Promise((resolve) => setTimeout(resolve, wait));
      const now = Date.now();
      const probes = Array.from({ length: PROBES }, (_, index) => ({ id: `p${index}`, samples: Array.from({ length: each }, (__, nth) => [now - nth * 40, 60 + index / 10]) }));
      const from = performance.now();
      under.push(
        send(`${base}/samples`, { probes }).then(({ new: fresh }) => {
          took.push(performance.now() - from);
          return fresh;
        }),
      );
    }
    const taken = (await Promise.all(under)).reduce((sum, one) => sum + one, 0);
    const seconds = (performance.now() - begun) / 1000;
    const stored = Number(await cluster.psql('SELECT count(*) FROM sample'));
    return { perSecond: stored / seconds, lost: taken - stored + (SECONDS * POSTS_PER_S * PER_POST - taken), p99Ms: at(took, 0.99) };
  });
}

/** The day's record with the table full of samples of months. */
async function fullTable() {
  return withKitchen(async ({ cluster, base }) => {
    const book = await (await fetch(base)).json();
    const day = book.today;
    const ids = Array.from({ length: BATCHES }, (_, index) => `${day}.lentil.${index + 1}`);
    await cluster.psql(`INSERT INTO day_plan VALUES ('${KITCHEN}', '${day}', 1, now(), 'maren', '${JSON.stringify({ batches: ids.map((id) => ({ id })) })}')`);
    const begin = Date.now() - 5 * 3_600_000;
    const event = (kind, minute, data) => ({ id: randomUUID(), kind, day, at: begin + minute * 60_000, by: 'maren', device: 'bench', data });
    const events = ids.flatMap((batchId, index) => [
      event('batch.started/1', 0, { batchId, soupId: 'lentil', soupVersion: 1, name: `Lentil ${index + 1}`, ordinal: index + 1, volumeL: 18, vesselId: 'kettle1' }),
      event('cooling.started/1', 1, { batchId, placeId: 'icebath', ambientC: 0 }),
      ...Array.from({ length: READINGS_EACH }, (_, nth) =>
        event('reading.taken/1', 2 + nth * 15, {
          batchId,
          purpose: 'cool',
          reading: { value: 140 - nth * 7, unit: 'F', rawText: String(140 - nth * 7) },
          heldS: null,
          packId: 'us-fda-fc2022',
          packVersion: 1,
        }),
      ),
    ]);
    for (let index = 0; index < events.length; index += 400) await send(`${base}/events`, { events: events.slice(index, index + 400) });
    const hours = Math.ceil(ROWS / PROBES / 3600);
    await cluster.psql(
      `SELECT ensure_sample_partition(d::date) FROM generate_series(date_trunc('day', now() AT TIME ZONE 'UTC') - interval '${hours + 48} hours', now() AT TIME ZONE 'UTC', interval '1 hour') d`,
    );
    await cluster.psql(
      `INSERT INTO sample SELECT '${KITCHEN}', 'p' || (g % ${PROBES}), date_trunc('second', now()) - interval '${hours + 6} hours' + (g / ${PROBES}) * interval '1 second', 60 FROM generate_series(1, ${ROWS}) g`,
    );
    await cluster.psql('ANALYZE sample');
    const timed = async (url) => {
      const all = [];
      for (let run = 0; run < 25; run += 1) {
        const from = performance.now();
        const answer = await fetch(url);
        // Until it begins to answer: what the server takes, not what carrying it takes.
        const tookMs = performance.now() - from;
        await answer.text();
        if (!answer.ok) throw new Error(url);
        if (run >= 5) all.push(tookMs);
      }
      return at(all, 0.5);
    };
    const to = Date.now();
    return {
      recordMs: await timed(`${base}/days/${day}/record.json`),
      chartMs: await timed(`${base}/thermometers/p7/samples?from=${to - (hours + 6) * 3_600_000}&to=${to}&points=300`),
    };
  });
}

export async function record() {
  return { ...(await ingest()), ...(await fullTable()) };
}
