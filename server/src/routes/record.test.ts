import { createHash, randomUUID } from 'node:crypto';
import type { DayEvent } from '@broth/core';
import { RULE_PACKS } from '@broth/core/packs';
import { PDFDocument } from 'pdf-lib';
import { QueryTypes } from 'sequelize';
import { digestAll } from '../probes/digest';
import { samplesSha256 } from '../store/samples';
import { verifyChain } from '../store/verifyChain';
import { DAY, LENTIL, at, event, lentilStarted, reading, testKitchen } from '../testing/kitchen';
import type { TestKitchen } from '../testing/kitchen';

let kitchen: TestKitchen;
beforeEach(async () => {
  kitchen = await testKitchen('05:00');
  await kitchen.acceptPlan();
  kitchen.setNow('19:00');
});
afterEach(() => kitchen.close());

const call = async (method: 'GET' | 'POST' | 'PUT' | 'DELETE' | 'PATCH', url: string, payload?: object | string) => {
  const answer = await kitchen.app.inject({
    method,
    url: `/api${url}`,
    ...(payload === undefined ? {} : { payload }),
    ...(typeof payload === 'string' ? { headers: { 'content-type': 'text/csv' } } : {}),
  });
  return {
    status: answer.statusCode,
    json: answer.headers['content-type']?.toString().includes('json') === true ? answer.json<Record<string, unknown>>() : {},
    raw: answer.rawPayload,
    text: answer.body,
  };
};
const record = async () =>
  (await call('GET', `/kitchens/landing/days/${DAY}/record.json`)).json as unknown as {
    lines: { what: string; verdict: string | null; says: string; suspect: boolean; voided: boolean; late: boolean; temperature: number | null; pack: string }[];
    verdicts: { purpose: string; verdict: string; proof: string[] }[];
    patterns: string[];
    open: string[];
    signature: { holds: boolean; by: string } | null;
    head: { seq: number; hash: string };
  };
const cooled = (): DayEvent[] => [
  lentilStarted('08:00'),
  event('step.done/1', '09:50', { batchId: LENTIL, stepId: 'finish' }),
  event('batch.finished/1', '10:00', { batchId: LENTIL, volumeOutL: 17.5 }),
  event('cooling.started/1', '10:05', { batchId: LENTIL, placeId: 'icebath', ambientC: 0 }),
  reading('10:06', 150),
  reading('10:30', 134),
];

describe('rules', () => {
  const put = (packId: string, baseVersion: number, by = 'maren', changes: object[] = []) =>
    call('PUT', '/kitchens/landing/rules', { by, baseVersion, rules: { packId, changes, added: [] } });
  test('every pack ships with the sources of its rules', async () => {
    const { json } = await call('GET', '/rule-packs');
    expect((json as unknown as { id: string }[]).map((pack) => pack.id)).toEqual(RULE_PACKS.map((pack) => pack.id));
    const nyc = (await call('GET', '/rule-packs/us-nyc')).json as unknown as { rules: { id: string; citation: string }[] };
    expect(nyc.rules.find((rule) => rule.id === 'nyc.cool.2')?.citation).toContain('81.09');
  });
  test('a pack switched in the middle of the week judges what begins then, and nothing of before', async () => {
    await kitchen.post(cooled());
    kitchen.setNow('10:40');
    expect((await put('us-nyc', 1)).status).toBe(200);
    kitchen.setNow('19:00');
    await kitchen.post([reading('11:50', 69), reading('15:55', 41)]);
    // Five hours and twenty-five minutes in all: in time by the Code it began under, four hours more would not have been.
    const { verdicts, lines } = await record();
    expect(verdicts.find((one) => one.purpose === 'Cooling')?.verdict).toBe('pass');
    expect(lines.filter((line) => line.what === 'reading').map((line) => line.pack.split(',')[0])).toEqual([
      'FDA Food Code 2022',
      'FDA Food Code 2022',
      'FDA Food Code 2022',
      'FDA Food Code 2022',
    ]);
  });
  test('only the lead changes rules, nobody over somebody else, and nothing into another kind', async () => {
    expect((await put('uk', 1, 'tobi')).status).toBe(403);
    expect([(await put('uk', 1)).status, (await put('au', 1)).status, (await put('moon', 2)).status]).toEqual([200, 409, 404]);
    const hot = RULE_PACKS[0]?.rules.find((rule) => rule.id === 'us.hot');
    expect((await put('us-fda-fc2022', 2, 'maren', [{ ruleId: 'us.cold', on: true, instead: hot, reason: 'slip' }])).json['code']).toBe('rule.otherKind');
  });
});

describe('the record', () => {
  test('is signed, and opens again with the next entry', async () => {
    await kitchen.post(cooled());
    const { head } = await record();
    const sign = event('day.signed/1', '18:50', { upToSeq: head.seq, hash: head.hash, note: 'looked through' });
    expect((await kitchen.post([{ ...sign, by: 'tobi' }])).results[0]?.problem?.code).toBe('event.leadOnly');
    await kitchen.post([sign]);
    expect((await record()).signature).toMatchObject({ by: 'Maren Oake', holds: true });
    await kitchen.post([reading('11:50', 69)]);
    expect((await record()).signature).toMatchObject({ holds: false });
  });
  test('keeps the check nobody made as missed, and what is entered late as late', async () => {
    await kitchen.post([...cooled().slice(0, 3), event('hold.started/1', '10:05', { batchId: LENTIL, placeId: 'well1' })]);
    const held = (clock: string): DayEvent =>
      event('reading.taken/1', clock, {
        batchId: LENTIL,
        purpose: 'hotHold',
        reading: { value: 150, unit: 'F', rawText: '150' },
        heldS: null,
        packId: 'us-fda-fc2022',
        packVersion: 1,
      });
    await kitchen.post([held('11:00'), held('15:30')]);
    const { lines } = await record();
    expect(lines.filter((line) => line.what === 'missed').map((line) => line.says)).toEqual([
      'MISSED: no reading was taken until 15:30',
      'MISSED: no reading was taken until 15:30',
      'MISSED: no reading was taken',
    ]);
    expect(lines.filter((line) => line.temperature !== null).map((line) => line.late)).toEqual([true, true]);
  });
  test('marks what was read with a thermometer that then failed its check', async () => {
    const check = (clock: string, value: number): DayEvent =>
      event('thermometer.checked/1', clock, {
        thermometerId: 'red',
        method: 'ice',
        reading: { value, unit: 'F', rawText: String(value) },
        offset: value - 32,
        usable: Math.abs(value - 32) <= 2,
      });
    const read: DayEvent = event('reading.taken/2', '10:10', {
      batchId: LENTIL,
      purpose: 'cool',
      reading: { value: 140, unit: 'F', rawText: '140' },
      heldS: null,
      packId: 'us-fda-fc2022',
      packVersion: 2,
      rulesVersion: 1,
      pan: null,
      thermometerId: 'red',
      offset: 0.5,
      doubt: null,
      lateReason: null,
    });
    await kitchen.post([check('07:00', 32.5), ...cooled(), read, check('12:00', 35)]);
    expect((await record()).lines.filter((line) => line.what === 'reading').map((line) => line.suspect)).toEqual([false, true, false]);
    const book = (await call('GET', '/kitchens/landing')).json as unknown as { thermometers: { thermometerId: string; checks: { usable: boolean }[] }[] };
    expect(book.thermometers.find((one) => one.thermometerId === 'red')?.checks.map((one) => one.usable)).toEqual([true, false]);
  });
  test('on paper, in both sizes, every page of it', async () => {
    await kitchen.post([...cooled(), reading('11:50', 69), reading('15:55', 41)]);
    for (const [paper, width] of [
      ['a4', 595.28],
      ['letter', 612],
    ] as const) {
      const { raw, status } = await call('GET', `/kitchens/landing/days/${DAY}/record.pdf?paper=${paper}`);
      const pdf = await PDFDocument.load(raw);
      expect([status, pdf.getPage(0).getWidth()]).toEqual([200, width]);
    }
  });
  test('hours of a clock change keep their offset: both are there, and minutes run through', async () => {
    // The night of 1 November 2026 in New York: 1:30 comes twice.
    const night = (iso: string, value: number): DayEvent => ({ ...reading('11:00', value), day: '2026-10-31', at: Date.parse(iso) });
    const own = (one: DayEvent, iso: string): DayEvent => ({ ...one, day: '2026-10-31', at: Date.parse(iso) });
    await kitchen.database.query(`INSERT INTO day_plan SELECT kitchen_id, '2026-10-31', 1, accepted_at, accepted_by, body FROM day_plan WHERE day = $day`, { bind: { day: DAY } });
    await kitchen.post([
      own(lentilStarted('08:00'), '2026-10-31T23:30:00-04:00'),
      own(event('cooling.started/1', '10:05', { batchId: LENTIL, placeId: 'icebath', ambientC: 0 }), '2026-11-01T00:25:00-04:00'),
      night('2026-11-01T00:30:00-04:00', 135),
      night('2026-11-01T01:30:00-04:00', 100),
      night('2026-11-01T01:30:00-05:00', 71),
      night('2026-11-01T02:00:00-05:00', 70),
    ]);
    const { json } = await call('GET', '/kitchens/landing/days/2026-10-31/record.json');
    const { lines } = json as unknown as { lines: { takenAt: string; temperature: number | null; verdict: string; says: string }[] };
    expect(lines.filter((line) => line.temperature !== null).map((line) => line.takenAt.slice(11))).toEqual([
      '00:30:00-04:00',
      '01:30:00-04:00',
      '01:30:00-05:00',
      '02:00:00-05:00',
    ]);
    // Two and a half hours by the clock that runs, an hour and a half by the one on the wall.
    expect(lines.at(-1)).toMatchObject({ verdict: 'fail', says: 'Not below 70 °F (21 °C) within 2 h.' });
  });
});

describe('what is on hand the next day', () => {
  const lots = async (day = '2026-11-26') =>
    ((await call('GET', `/kitchens/landing/days/${day}`)).json['lots'] as { id: string; volumeL: number; preparedOn: string }[]).filter(
      (lot) => lot.id.startsWith('2026-11-25') || lot.id === 'lot-beetroot-old',
    );
  const stored = (clock: string, volumeL: number): DayEvent => event('cold.stored/2', clock, { batchId: LENTIL, volumeL });
  test('a leftover by the litres that went into the cold, with the day it was made; not on its own day', async () => {
    await kitchen.post([...cooled(), reading('11:50', 69), reading('15:55', 41), stored('16:00', 6.5)]);
    expect(await lots()).toEqual([expect.objectContaining({ id: 'lot-beetroot-old' }), expect.objectContaining({ id: LENTIL, volumeL: 6.5, preparedOn: DAY })]);
    expect((await lots(DAY)).map((lot) => lot.id)).toEqual(['lot-beetroot-old']);
  });
  test('what was heated again or thrown away is not', async () => {
    await kitchen.post([...cooled(), stored('16:00', 6.5), event('reheat.started/1', '17:00', { batchId: LENTIL })]);
    expect((await lots()).map((lot) => lot.id)).toEqual(['lot-beetroot-old']);
    await kitchen.post([stored('18:00', 3)]);
    expect((await lots()).map((lot) => lot.volumeL)).toEqual([2, 3]);
    await kitchen.post([event('lot.discarded/1', '18:10', { lotId: 'lot-beetroot-old', soupId: 'beetroot', volumeL: 2, reason: 'past its date' })]);
    expect((await lots()).map((lot) => lot.id)).toEqual([LENTIL]);
  });
  test('stock is not: how much of it went into the soups of the day nobody logs', async () => {
    const batchId = `${DAY}.vegstock.1`;
    await kitchen.post([
      event('batch.started/1', '08:00', { batchId, soupId: 'vegstock', soupVersion: 1, name: 'Veg stock 1', ordinal: 1, volumeL: 14, vesselId: 'kettle1' }),
      event('cold.stored/2', '12:00', { batchId, volumeL: 14 }),
    ]);
    expect((await lots()).map((lot) => lot.id)).toEqual(['lot-beetroot-old']);
  });
});

describe('an inspector', () => {
  test('reads by a link that ends by itself, or when it is ended, the days it is for and nothing else', async () => {
    await kitchen.post(cooled());
    const made = (await call('POST', '/kitchens/landing/inspector-links', { by: 'maren', fromDay: '2026-11-24', toDay: DAY, forDays: 2 })).json as unknown as {
      token: string;
      id: string;
    };
    expect((await call('GET', `/inspect/${made.token}`)).json['days']).toEqual(['2026-11-24', DAY]);
    expect((await call('GET', `/inspect/${made.token}/${DAY}/record.json`)).status).toBe(200);
    expect((await call('GET', `/inspect/${made.token}/${DAY}/record.pdf`)).raw.subarray(0, 5).toString()).toBe('%PDF-');
    expect((await call('GET', `/inspect/${made.token}/2026-11-23/record.json`)).json['code']).toBe('inspector.linkEnded');
    const rows = await kitchen.database.query<{ token_sha256: string }>('SELECT token_sha256 FROM inspector_link', { type: QueryTypes.SELECT });
    expect(rows.map((row) => row.token_sha256)).toEqual([createHash('sha256').update(made.token).digest('hex')]);
    const other = (await call('POST', '/kitchens/landing/inspector-links', { by: 'maren', fromDay: DAY, toDay: DAY, forDays: 1 })).json as unknown as { token: string; id: string };
    await call('DELETE', `/kitchens/landing/inspector-links/${other.id}`);
    expect((await call('GET', `/inspect/${other.token}`)).status).toBe(404);
    kitchen.context.now = () => at('19:00') + 3 * 86_400_000;
    expect((await call('GET', `/inspect/${made.token}`)).status).toBe(404);
  });
  test('is given one by the lead only, for days in their order', async () => {
    const ask = (by: string, fromDay: string) => call('POST', '/kitchens/landing/inspector-links', { by, fromDay, toDay: DAY, forDays: 2 });
    expect([(await ask('tobi', DAY)).status, (await ask('maren', '2026-11-26')).status]).toEqual([403, 400]);
  });
});

describe('probes', () => {
  const push = (id: string, samples: readonly (readonly [string, number])[]) =>
    call('POST', '/kitchens/landing/samples', { probes: [{ id, samples: samples.map(([clock, value]) => [at(clock), value]) }] });
  /** What the server does of itself every few seconds, and what the log has of it then. */
  const digested = async (): Promise<DayEvent[]> => {
    await digestAll(kitchen.context);
    const events = (await call('GET', '/kitchens/landing/events?since=0')).json['events'] as DayEvent[];
    return events.filter((one) => one.kind === 'samples.digested/1');
  };
  test('what they push becomes a digest a minute in the log, with a hash anybody can work out again', async () => {
    await kitchen.post([...cooled(), event('probe.placed/1', '10:31', { thermometerId: 'pan1', batchId: LENTIL, purpose: 'cool' })]);
    expect(
      (
        await push('pan1', [
          ['10:33', 133.2],
          ['10:32', 133.5],
        ])
      ).json,
    ).toEqual({ taken: 2, new: 2 });
    expect((await push('pan1', [['10:33', 133.2]])).json).toEqual({ taken: 1, new: 0 });
    const [first, second] = await digested();
    if (first?.kind !== 'samples.digested/1') throw new Error('no digest');
    expect(first.data).toMatchObject({
      count: 1,
      probes: [{ thermometerId: 'pan1', last: 133.5 }],
      sha256: samplesSha256([{ thermometerId: 'pan1', at: at('10:32'), value: 133.5 }]),
    });
    expect(second?.kind).toBe('samples.digested/1');
    expect(await verifyChain(kitchen.database)).toMatchObject([{ kind: 'whole' }]);
    const { lines } = await record();
    expect(lines.filter((line) => line.what === 'probe').map((line) => line.temperature)).toEqual([133.5, 133.2]);
  });
  test('a probe shows less what its check found too much, and one that failed its check shows nothing: the reading is due', async () => {
    const check = (clock: string, shown: number): DayEvent =>
      event('thermometer.checked/1', clock, {
        thermometerId: 'pan1',
        method: 'ice',
        reading: { value: shown, unit: 'F', rawText: String(shown) },
        offset: shown - 32,
        usable: shown < 34,
      });
    await kitchen.post([...cooled(), event('probe.placed/1', '10:31', { thermometerId: 'pan1', batchId: LENTIL, purpose: 'cool' }), check('09:00', 33), check('11:00', 36)]);
    await push('pan1', [
      ['10:32', 130],
      ['11:30', 80],
    ]);
    const told = (await digested()).flatMap((one) => (one.kind === 'samples.digested/1' ? [[one.data.count, one.data.probes.map(({ offset, last }) => [offset, last])]] : []));
    expect(told).toEqual([
      [1, [[1, 130]]],
      [1, []],
    ]);
    expect(await verifyChain(kitchen.database)).toMatchObject([{ kind: 'whole' }]);
  });
  test('the same minute is closed once, whichever server is quicker, and after a fall', async () => {
    await push('pan1', [['10:32', 130]]);
    await Promise.all([digestAll(kitchen.context), digestAll(kitchen.context)]);
    expect(await digested()).toHaveLength(1);
  });
  test('a sample that was changed behind the back of the database is found', async () => {
    await push('pan2', [['10:32', 40]]);
    await digested();
    await kitchen.database.query('UPDATE sample SET value = 38 WHERE value = 40');
    expect(await verifyChain(kitchen.database)).toMatchObject([{ kind: 'broken', what: 'samples' }]);
  });
  test('samples that come after their minute was closed are digested as they come', async () => {
    await push('pan1', [['12:00', 100]]);
    await digested();
    await push('pan1', [['11:00', 110]]);
    const events = await digested();
    expect(events.map((one) => (one.kind === 'samples.digested/1' ? [one.data.count, one.data.late] : []))).toEqual([
      [1, false],
      [1, true],
    ]);
    expect(await verifyChain(kitchen.database)).toMatchObject([{ kind: 'whole' }]);
  });
  test.each([
    ['an unknown probe', 'nobody', [['10:00', 40]], 'thermometer.unknown'],
    ['tomorrow', 'pan1', [['23:00', 40]], 'sample.future'],
    ['a broken line', 'pan1', [['10:00', 9999]], 'sample.impossible'],
  ] as const)('%s is refused, and nothing of it is taken', async (_, id, samples, code) => {
    expect((await push(id, samples)).json['code']).toBe(code);
    expect(await kitchen.database.query('SELECT * FROM sample', { type: QueryTypes.SELECT })).toEqual([]);
  });
  test("a logger's file by its columns, with lines about itself first; a wrong line is named and nothing is taken", async () => {
    const file = (time: string, csv: string) => call('PUT', `/kitchens/landing/samples.csv?thermometerId=walkin&time=${time}&value=Temp&unit=C&dates=dmy`, csv);
    const csv = 'Logger 7\r\nserial 12\r\nWhen;Temp\r\n25.11.2026 10:00;3,4\r\n25.11.2026 10:10;\r\n25.11.2026 10:20;3,9\r\n';
    expect((await file('When', csv)).json).toEqual({ taken: 2, new: 2 });
    expect((await file('When', csv)).json).toEqual({ taken: 2, new: 0 });
    expect(String((await file('When', csv.replace('3,9', 'abc'))).json['detail'])).toContain('Line 6: "abc" is not a temperature.');
    expect(String((await file('Clock', csv)).json['detail'])).toContain('No line names the columns');
    const { json } = await call('GET', `/kitchens/landing/thermometers/walkin/samples?from=${String(at('09:00'))}&to=${String(at('11:00'))}&points=12`);
    expect((json['points'] as { last: number }[]).map((point) => Math.round(point.last * 10) / 10)).toEqual([3.4, 3.9]);
  });
  test("a digest is the server's to write", async () => {
    const data = { from: at('10:00'), to: at('10:01'), late: false, thermometerIds: [], count: 0, sha256: '0'.repeat(64), rulesVersion: 1, probes: [] };
    expect((await kitchen.post([event('samples.digested/1', '10:01', data, randomUUID())])).results[0]?.problem?.code).toBe('event.serverOnly');
  });
});

test('the kitchen says how high it lies: water boils by that', async () => {
  const put = await call('PATCH', '/kitchens/landing/station', { altitudeM: 1609 });
  expect((put.json['station'] as { altitudeM: number }).altitudeM).toBe(1609);
  expect((await call('PATCH', '/kitchens/landing/station', { altitudeM: 60_000 })).status).toBe(400);
});
test('a thermometer is registered, keeps its unit, and has a name of its own', async () => {
  const put = (id: string, name: string, unit: 'C' | 'F') => call('PUT', `/kitchens/landing/thermometers/${id}`, { by: 'maren', name, unit, kind: 'hand', inUse: true });
  expect([(await put('green', 'Green probe', 'C')).status, (await put('green', 'Green probe', 'F')).json['code'], (await put('other', 'red PROBE', 'F')).json['code']]).toEqual([
    200,
    'thermometer.unitFixed',
    'thermometer.nameTaken',
  ]);
});
