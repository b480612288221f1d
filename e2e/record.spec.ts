import { execFileSync, spawn } from 'node:child_process';
import type { ChildProcess } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { writeFileSync } from 'node:fs';
import path from 'node:path';
import type { DayEvent } from '@broth/core';
import type { APIRequestContext, Page } from '@playwright/test';
import { freePort } from '../scripts/lib/postgres.mjs';
import { ROOT } from '../scripts/lib/install.mjs';
import { planOf } from './plan';
import { Client } from './pg';
import { DAY, expect, holds, startStand, test } from './stand';
import type { Stand } from './stand';

/** The record: probes that report by themselves, a cooling that is saved and one that is not, the paper, the lead's signature. */

const B = `${DAY}.lentil.1`;
const at = (clock: string): number => Date.parse(`${DAY}T${clock}:00-05:00`);
const tap = (page: Page, name: string | RegExp) => page.getByRole('button', { name }).first().click();

/** Simulated probes that report when they are told to: the clock of a test is not the wall's. */
interface Probes {
  readonly set: (id: string, setting: object) => Promise<void>;
  readonly run: (from: string, minutes: number) => Promise<void>;
  readonly kill: () => void;
}
async function startProbes(request: APIRequestContext, stand: Stand): Promise<Probes> {
  const port = await freePort();
  const address = `http://127.0.0.1:${String(port)}`;
  const child: ChildProcess = spawn(
    process.execPath,
    [path.join(ROOT, 'probes/dist/probes.mjs'), '--still', '--port', String(port), '--server', stand.address, '--probes', 'pan1:F,pan2:F'],
    {
      stdio: 'ignore',
    },
  );
  await expect.poll(async () => (await request.get(`${address}/probes`).catch(() => null))?.status() ?? 0).toBe(200);
  return {
    set: async (id, setting) => {
      expect((await request.put(`${address}/probes/${id}`, { data: setting })).status()).toBe(200);
    },
    run: async (from, minutes) => {
      expect((await request.post(`${address}/run`, { data: { fromMs: at(from), minutes, everyS: 20 } })).status()).toBe(200);
    },
    kill: () => child.kill('SIGKILL'),
  };
}

async function post(request: APIRequestContext, stand: Stand, events: readonly DayEvent[]): Promise<void> {
  const answer = await request.post(`${stand.address}/api/kitchens/landing/events`, { data: { events } });
  const { results } = (await answer.json()) as { results: { status: string; problem?: { detail: string } }[] };
  expect(results.map((result) => result.problem?.detail ?? 'stored')).toEqual(events.map(() => 'stored'));
}
function event<Kind extends DayEvent['kind']>(kind: Kind, clock: string, data: Extract<DayEvent, { kind: Kind }>['data'], day: string = DAY): DayEvent {
  return { id: randomUUID(), kind, day, at: at(clock), by: 'maren', device: 'test', data } as DayEvent;
}

/** The lentil soup is out of its kettle at six; the server then stands at `clock`. */
async function lentilOut(request: APIRequestContext, clock: string): Promise<Stand> {
  let stand = await startStand('05:10');
  const plan = await request.post(`${stand.address}/api/kitchens/landing/days/${DAY}/plans`, { data: { by: 'maren', nowMin: 310, plan: planOf(310) } });
  expect(plan.status()).toBe(200);
  await stand.stop();
  stand = await startStand(clock, stand);
  const book = (await (await request.get(`${stand.address}/api/kitchens/landing`)).json()) as { soups: { id: string; steps: { id: string; heat: string }[] }[] };
  const heated = book.soups.find((soup) => soup.id === 'lentil')?.steps.findLast((step) => step.heat !== 'off');
  await post(request, stand, [
    event('batch.started/1', '05:12', { batchId: B, soupId: 'lentil', soupVersion: 1, name: 'Lentil 1', ordinal: 1, volumeL: 18, vesselId: 'kettle1' }),
    event('step.done/1', '05:58', { batchId: B, stepId: heated?.id ?? '' }),
    event('batch.finished/1', '06:00', { batchId: B, volumeOutL: 18 }),
  ]);
  return stand;
}

async function later(page: Page, stand: Stand, clock: string): Promise<Stand> {
  await stand.stop();
  const next = await startStand(clock, stand);
  await page.goto(`${next.address}/log/${B}`);
  return next;
}

test('a cooling by a probe: slow at first, warned in time, moved to the ice bath, passed, signed, and on paper', async ({ page, request }, info) => {
  test.setTimeout(240_000);
  let stand = await lentilOut(request, '06:05');
  await holds(page, 'maren');
  const probes = await startProbes(request, stand);

  await test.step('into the cold room as it is, with a probe in it', async () => {
    await page.goto(`${stand.address}/log/${B}`);
    await tap(page, /^As it is in the cold room/);
    await tap(page, 'Stay-in probe 1 goes into it');
    await expect(page.getByRole('button', { name: 'Stay-in probe 1 is out of it' })).toBeVisible();
    await expect
      .poll(async () => (await (await request.get(`${stand.address}/api/kitchens/landing/events?since=0`)).json()) as unknown)
      .toMatchObject({ events: expect.arrayContaining([expect.objectContaining({ kind: 'probe.placed/1' })]) });
    await probes.set('pan1', { temperatureC: 58, ambientC: 3, kPerH: 0.45 });
    await stand.stop();
    stand = await startStand('07:01', stand);
    await probes.run('06:06', 53);
  });

  await test.step('an hour later it is told that it will miss 70 °F, and what would save it', async () => {
    await page.goto(`${stand.address}/log/${B}`);
    await expect(page.getByText(/It will miss 70 °F by \d+ min\. Do this now: ice bath, stirred \(Ice-bath sink\), \d+ kg of ice; there at about 7:\d\d\./)).toBeVisible({
      timeout: 30_000,
    });
    await tap(page, 'Cool it another way: show the ways');
    await tap(page, /^Ice bath, stirred/);
    await expect(page.getByText(/in Ice-bath sink; ice bath, stirred/)).toBeVisible();
    await probes.set('pan1', { ambientC: 0, kPerH: 2.2 });
    await expect.poll(async () => JSON.stringify(await (await request.get(`${stand.address}/api/kitchens/landing/events?since=0`)).json())).toContain('iceBathStirred');
  });

  await test.step('it passes both stages, and goes into the cold hold', async () => {
    await stand.stop();
    stand = await startStand('08:20', stand);
    await probes.run('07:02', 76);
    await page.goto(`${stand.address}/log/${B}`);
    await expect(page.getByText('Every stage passed: 41 °F (5 °C) in time.')).toBeVisible({ timeout: 30_000 });
    await tap(page, 'Into cold hold');
    await tap(page, 'Stay-in probe 1 is out of it');
    await expect(page.getByText(/^To be held at 41 °F \(5 °C\) or below/)).toBeVisible();
  });

  await test.step('the probe dies: the reading is missed like any other', async () => {
    probes.kill();
    stand = await later(page, stand, '12:30');
    await page.goto(`${stand.address}/log`);
    await expect(page.getByRole('button', { name: /^Lentil 1\. Reading overdue\. Reading due/ })).toBeVisible();
  });

  await test.step('two taps and the digits log it', async () => {
    await tap(page, /^Lentil 1\. /);
    for (const digit of '39') await page.getByRole('button', { name: digit, exact: true }).click();
    await tap(page, 'Log 39 °F for Lentil 1');
    await expect(page.getByText('Held at 41 °F (5 °C) or below.')).toBeVisible();
  });

  await test.step('the lead signs; an entry later opens it again', async () => {
    await page.goto(`${stand.address}/record`);
    await expect(page.getByText('Passed').first()).toBeVisible();
    await tap(page, "Sign the day's record");
    await expect(page.getByText(/^Signed by Maren Oake, 12:3\d$/)).toBeVisible();
    await post(request, stand, [event('note.made/1', '12:30', { batchId: null, text: 'walk-in door was open' })]);
    await expect(page.getByText('Signed by Maren Oake, and entered into since: sign again')).toBeVisible();
  });

  await test.step('every number of it stands on the paper', async () => {
    const record = (await (await request.get(`${stand.address}/api/kitchens/landing/days/${DAY}/record.json`)).json()) as {
      lines: { temperature: number | null; unit: string; takenAt: string; seq: number }[];
      verdicts: { proof: string[] }[];
      head: { hash: string };
    };
    const pdf = await (await request.get(`${stand.address}/api/kitchens/landing/days/${DAY}/record.pdf`)).body();
    const file = info.outputPath('record.pdf');
    writeFileSync(file, pdf);
    const text = execFileSync('pdftotext', ['-layout', file, '-'], { encoding: 'utf8' }).replace(/\s+/g, ' ');
    expect(record.lines.length).toBeGreaterThan(10);
    for (const { temperature, unit, takenAt, seq } of record.lines) {
      expect(text).toContain(`${takenAt.slice(11, 16)} ${takenAt.slice(-6)}`);
      if (temperature !== null) expect(text).toContain(`${String(temperature)} °${unit}`);
      if (seq > 0) expect(text).toContain(`no. ${String(seq)}`);
    }
    expect(text).toContain('PASSED');
    expect(text.replace(/ /g, '')).toContain(record.head.hash);
    expect(text).toContain('Check with your local authority');
  });
  await stand.stop();
});

test('a cooling that fails is told so at once, with what to do in sight, and is discarded', async ({ page, request }) => {
  let stand = await lentilOut(request, '06:05');
  await holds(page, 'tobi');
  const probes = await startProbes(request, stand);
  await page.goto(`${stand.address}/log/${B}`);
  await tap(page, /^As it is in the cold room/);
  await tap(page, 'Stay-in probe 2 goes into it');
  await expect.poll(async () => JSON.stringify(await (await request.get(`${stand.address}/api/kitchens/landing/events?since=0`)).json())).toContain('probe.placed/1');
  await probes.set('pan2', { temperatureC: 58, ambientC: 3, kPerH: 0.2 });
  stand = await later(page, stand, '08:20');
  await probes.run('06:06', 130);
  await expect(page.getByText('Not below 70 °F (21 °C) within 2 h.').first()).toBeVisible({ timeout: 30_000 });
  const discard = page.getByRole('button', { name: 'Discard', exact: true });
  const box = await discard.boundingBox();
  expect((box?.y ?? 9999) + (box?.height ?? 0)).toBeLessThan(844 - 62);
  await page.goto(`${stand.address}/log`);
  await expect(page.getByRole('button', { name: /^Lentil 1: out of its rule, and nothing was done about it yet/ })).toBeVisible();
  await tap(page, /^Lentil 1: out of its rule/);
  await tap(page, 'Discard');
  await page.getByRole('textbox', { name: 'What happened, and why' }).fill('Nobody portioned it');
  await tap(page, 'Record: discard');
  await expect(page.getByText(/^Discarded at 8:2\d$/).first()).toBeVisible();
  await expect(page.getByText(/Corrective action: discard, 18 L\. Nobody portioned it/)).toBeVisible();
  probes.kill();
  await stand.stop();
});

test('rules are changed by the lead, with the source beside them; what was begun before keeps its own', async ({ page, request }) => {
  const stand = await lentilOut(request, '06:05');
  await holds(page, 'maren');
  // A second batch is cooling already when the pack is switched.
  const before = `${DAY}.chowder.1`;
  await post(request, stand, [
    event('batch.started/1', '05:20', { batchId: before, soupId: 'chowder', soupVersion: 1, name: 'Chowder 1', ordinal: 1, volumeL: 20, vesselId: 'kettle1' }),
    event('batch.finished/1', '05:58', { batchId: before, volumeOutL: 20 }),
    event('cooling.started/1', '06:00', { batchId: before, placeId: 'icebath', ambientC: 0 }),
  ]);
  await page.goto(`${stand.address}/rules`);
  await page.getByRole('combobox', { name: 'Rule pack' }).selectOption('us-nyc');
  await tap(page, 'Judge by New York City');
  await expect(page.getByText(/^Limits: New York City Health Code/)).toBeVisible();
  await tap(page, 'Change: Hot holding');
  await page.getByRole('textbox', { name: 'Temperature, °F' }).fill('130');
  await page.getByRole('textbox', { name: 'Why', exact: true }).fill('the wells cannot do more');
  await tap(page, 'Use these figures');
  await expect(page.getByText('This asks for less than the source. Only with the agreement of your authority, in writing.')).toBeVisible();
  await expect(page.getByText(/^The source says: 140 °F \(60 °C\) or above/)).toBeVisible();
  await page.goto(`${stand.address}/log/${B}`);
  await tap(page, /^Ice bath, stirred/);
  await expect(page.getByText(/NYC Health Code Art\. 81/).first()).toBeVisible();
  await page.goto(`${stand.address}/log/${before}`);
  await expect(page.getByText(/FDA Food Code 2022, 3-501\.14/).first()).toBeVisible();
  await expect(page.getByText(/NYC Health Code/)).toHaveCount(0);
  await stand.stop();
});

test('an inspector reads by a link, sees nothing else, and is turned away when it has ended', async ({ page, browser, request }) => {
  let stand = await lentilOut(request, '06:05');
  await holds(page, 'maren');
  await page.goto(`${stand.address}/record`);
  await tap(page, 'Make a link');
  const link = (await page.getByText(/\/inspect\//).textContent()) ?? '';
  const inspector = await browser.newPage();
  await inspector.goto(link);
  await expect(inspector.getByText('Landing Kitchen, Saltmarsh Ferry Terminal (invented)')).toBeVisible();
  await expect(inspector.getByText('This link only reads', { exact: false })).toBeVisible();
  await expect(inspector.getByRole('navigation', { name: 'Places' })).toHaveCount(0);
  await expect(inspector.getByText(/^Entries \(\d+\)$/)).toBeVisible();
  await tap(page, /^End the link of/);
  await expect(page.getByRole('button', { name: /^End the link of/ })).toHaveCount(0);
  await inspector.reload();
  await expect(inspector.getByText('This link does not open anything', { exact: false })).toBeVisible();
  await inspector.close();
  await stand.stop();
  stand = await startStand('06:06', stand);
  await stand.stop();
});

test('a cooling through the night the clocks go back: both half past ones are on the paper, and minutes run through', async ({ request }, info) => {
  const stand = await lentilOut(request, '06:05');
  const NIGHT = '2026-10-31';
  const client = new Client({ connectionString: stand.databaseUrl });
  await client.connect();
  await client.query(`INSERT INTO day_plan SELECT kitchen_id, $1, 1, accepted_at, accepted_by, body FROM day_plan WHERE day = $2`, [NIGHT, DAY]);
  await client.end();
  const on = (one: DayEvent, iso: string): DayEvent => ({ ...one, day: NIGHT, at: Date.parse(iso) });
  const read = (iso: string, value: number): DayEvent =>
    on(
      event('reading.taken/1', '06:00', {
        batchId: B,
        purpose: 'cool',
        reading: { value, unit: 'F', rawText: String(value) },
        heldS: null,
        packId: 'us-fda-fc2022',
        packVersion: 2,
      }),
      iso,
    );
  await post(request, stand, [
    on(
      event('batch.started/1', '06:00', { batchId: B, soupId: 'lentil', soupVersion: 1, name: 'Lentil 1', ordinal: 1, volumeL: 18, vesselId: 'kettle1' }),
      '2026-10-31T23:00:00-04:00',
    ),
    on(event('cooling.started/1', '06:00', { batchId: B, placeId: 'icebath', ambientC: 0 }), '2026-11-01T00:29:00-04:00'),
    read('2026-11-01T00:30:00-04:00', 135),
    read('2026-11-01T01:30:00-04:00', 99),
    read('2026-11-01T01:30:00-05:00', 80),
  ]);
  const file = info.outputPath('night.pdf');
  writeFileSync(file, await (await request.get(`${stand.address}/api/kitchens/landing/days/${NIGHT}/record.pdf?paper=letter`)).body());
  const text = execFileSync('pdftotext', ['-layout', file, '-'], { encoding: 'utf8' }).replace(/\s+/g, ' ');
  expect(text).toMatch(/01:30 -04:00 99 °F/);
  expect(text).toMatch(/01:30 -05:00 80 °F/);
  // An hour and a half by the clock on the wall, two and a half by the one that counts.
  expect(text).toContain('FAILED Not below 70 °F (21 °C) within 2 h.');
  await stand.stop();
});

test('what a probe was told is kept is there after the server was killed, and is digested then', async ({ request }) => {
  const stand = await lentilOut(request, '08:00');
  const samples = Array.from({ length: 600 }, (_, index) => [at('07:00') + index * 1000, 140 - index / 20]);
  const answer = await request.post(`${stand.address}/api/kitchens/landing/samples`, { data: { probes: [{ id: 'pan1', samples }] } });
  expect(await answer.json()).toEqual({ taken: 600, new: 600 });
  stand.kill();
  const next = await startStand('08:01', stand);
  const counted = async (): Promise<number> => {
    const { events } = (await (await request.get(`${next.address}/api/kitchens/landing/events?since=0`)).json()) as { events: DayEvent[] };
    return events.reduce((sum, one) => sum + (one.kind === 'samples.digested/1' ? one.data.count : 0), 0);
  };
  await expect.poll(counted, { timeout: 30_000 }).toBe(600);
  const client = new Client({ connectionString: stand.databaseUrl });
  await client.connect();
  expect((await client.query('SELECT count(*)::int AS n FROM sample')).rows).toEqual([{ n: 600 }]);
  await client.end();
  await next.stop();
});
