import { mkdirSync, renameSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:http';
import path from 'node:path';
import { parseArgs } from 'node:util';
import { z } from 'zod';
import { FAULTS, after, begin, sample } from './probe';
import type { ProbeState, Setting } from './probe';

/**
 * Simulated probes as a process of their own: they push over HTTP, or drop files as a data logger does, once a second, and are told over HTTP what they stand in
 * and how to fail. See docs/probes.md.
 */

const { values } = parseArgs({
  options: {
    server: { type: 'string', default: 'http://127.0.0.1:8080' },
    kitchen: { type: 'string', default: 'landing' },
    port: { type: 'string', default: '4300' },
    /** A folder to drop files into instead of pushing. */
    drop: { type: 'string' },
    /** Ids and units of the probes: `pan1:F,pan2:F`. */
    probes: { type: 'string', default: 'pan1:F,pan2:F' },
    everyS: { type: 'string', default: '1' },
    /** No clock of its own: samples only when it is told to run. */
    still: { type: 'boolean', default: false },
  },
});

const START: Omit<Setting, 'unit'> = { temperatureC: 85, ambientC: 3, kPerH: 0.6, heatKPerH: 0, noiseC: 0.1, fault: 'none' };
const change = z
  .object({
    temperatureC: z.number().min(-40).max(120),
    ambientC: z.number().min(-60).max(120),
    kPerH: z.number().min(0).max(100),
    heatKPerH: z.number().min(0).max(1000),
    noiseC: z.number().min(0).max(20),
    fault: z.enum(FAULTS),
  })
  .partial();
const run = z.object({ fromMs: z.int(), minutes: z.number().min(0.1).max(1440), everyS: z.number().min(1).max(600).default(10) });

interface Probe {
  readonly id: string;
  setting: Setting;
  state: ProbeState;
}
type Samples = [number, number][];

const probes = values.probes.split(',').map((text): Probe => {
  const [id = '', unit = 'F'] = text.split(':');
  const setting: Setting = { ...START, unit: unit === 'C' ? 'C' : 'F' };
  return { id, setting, state: begin(setting) };
});

let dropped = 0;
/** A file is written under another name first: half a file is never read. */
function drop(folder: string, id: string, unit: string, samples: Samples): void {
  const into = path.join(folder, values.kitchen);
  mkdirSync(into, { recursive: true });
  dropped += 1;
  const rows = samples.map(([at, value]) => `${new Date(at).toISOString()},${String(value)},${unit}`);
  const half = path.join(into, `.${id}-${String(dropped)}.part`);
  writeFileSync(half, `time,temperature,unit\n${rows.join('\n')}\n`);
  renameSync(half, path.join(into, `${id}-${String(dropped)}.csv`));
}

/** What could not be sent waits: nothing is lost while the server is away. */
let waiting: { id: string; samples: Samples }[] = [];
async function send(): Promise<void> {
  const now = waiting.filter((one) => one.samples.length > 0);
  if (now.length === 0) return;
  waiting = [];
  if (values.drop !== undefined) {
    for (const { id, samples } of now) drop(values.drop, id, probes.find((one) => one.id === id)?.setting.unit ?? 'C', samples);
    return;
  }
  try {
    const answer = await fetch(`${values.server}/api/kitchens/${values.kitchen}/samples`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ probes: now }),
    });
    // Refused for good: said, and let go. Away for now: kept.
    if (answer.status >= 500) waiting = [...now, ...waiting];
    else if (!answer.ok) console.error(`Refused: ${await answer.text()}`);
  } catch {
    waiting = [...now, ...waiting];
  }
}

function take(at: number, seconds: number): void {
  for (const probe of probes) {
    probe.state = after(probe.state, probe.setting, seconds);
    const value = sample(probe.state, probe.setting, Math.random);
    if (value === null) continue;
    const mine = waiting.find((one) => one.id === probe.id);
    if (mine === undefined) waiting.push({ id: probe.id, samples: [[at, value]] });
    else mine.samples.push([at, value]);
  }
}

const everyMs = Number(values.everyS) * 1000;
if (!values.still) {
  setInterval(() => {
    take(Date.now(), everyMs / 1000);
    void send();
  }, everyMs);
}

const server = createServer((request, reply) => {
  const answer = (status: number, body: unknown): void => {
    reply.writeHead(status, { 'content-type': 'application/json' }).end(JSON.stringify(body));
  };
  const tell = (): unknown => probes.map(({ id, setting, state }) => ({ id, ...setting, temperatureC: state.temperatureC }));
  let text = '';
  request.on('data', (chunk: Buffer) => (text += chunk.toString()));
  request.on('end', () => {
    void (async () => {
      const { pathname } = new URL(request.url ?? '/', 'http://probes');
      if (request.method === 'GET' && pathname === '/probes') {
        answer(200, tell());
        return;
      }
      let body: unknown;
      try {
        body = JSON.parse(text === '' ? '{}' : text);
      } catch {
        answer(400, { detail: 'What was sent is not JSON.' });
        return;
      }
      if (request.method === 'PUT' && pathname.startsWith('/probes/')) {
        const probe = probes.find((one) => one.id === pathname.slice('/probes/'.length));
        const parsed = change.safeParse(body);
        if (probe === undefined || !parsed.success) {
          answer(probe === undefined ? 404 : 400, { detail: parsed.error?.issues[0]?.message ?? 'No such probe.' });
          return;
        }
        const { temperatureC } = parsed.data;
        probe.setting = { ...probe.setting, ...Object.fromEntries(Object.entries(parsed.data).filter(([, value]) => value !== undefined)) };
        if (temperatureC !== undefined) probe.state = begin(probe.setting);
        answer(200, tell());
        return;
      }
      if (request.method === 'POST' && pathname === '/run') {
        const parsed = run.safeParse(body);
        if (!parsed.success) {
          answer(400, { detail: parsed.error.issues[0]?.message });
          return;
        }
        const { fromMs, minutes, everyS } = parsed.data;
        for (let second = everyS; second <= minutes * 60; second += everyS) take(fromMs + second * 1000, everyS);
        await send();
        answer(200, tell());
        return;
      }
      answer(404, { detail: 'GET /probes, PUT /probes/:id, POST /run' });
    })();
  });
});
server.listen(Number(values.port), '127.0.0.1', () => {
  console.log(`Probes ${probes.map((probe) => probe.id).join(', ')} are ready at http://127.0.0.1:${values.port}, reporting to ${values.drop ?? values.server}`);
});
