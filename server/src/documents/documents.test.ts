import { parse } from 'csv-parse/sync';
import { DAY, LENTIL, event, lentilStarted, reading, testKitchen } from '../testing/kitchen';
import type { TestKitchen } from '../testing/kitchen';

let kitchen: TestKitchen;
beforeAll(async () => {
  kitchen = await testKitchen('05:00');
  await kitchen.acceptPlan();
  kitchen.setNow('19:00');
  const slip = reading('10:31', 14);
  await kitchen.post([
    lentilStarted('08:00'),
    event('step.done/1', '09:50', { batchId: LENTIL, stepId: 'finish' }),
    event('batch.finished/1', '10:00', { batchId: LENTIL, volumeOutL: 17.5 }),
    event('cooling.started/1', '10:05', { batchId: LENTIL, placeId: 'icebath', ambientC: 0 }),
    reading('10:06', 150),
    reading('10:30', 134),
    slip,
    event('event.voided/1', '10:32', { eventId: slip.id, reason: 'a digit was missing' }),
    reading('11:50', 69),
    reading('16:45', 50),
    event('corrective.taken/1', '16:50', { batchId: LENTIL, ruleId: 'us.cool.2', action: 'discard', note: '=1+1, "too slow"', volumeL: 17.5 }),
  ]);
});
afterAll(() => kitchen.close());

const document = (kind: 'csv' | 'json') => kitchen.app.inject({ method: 'GET', url: `/api/kitchens/landing/days/${DAY}/record.${kind}` });

test('the CSV (RFC 4180) holds every reading with its verdict, the voided one marked, and the corrective action', async () => {
  const answer = await document('csv');
  const rows: Record<string, string>[] = parse(answer.body, { columns: true });
  expect(answer.headers['content-type']).toBe('text/csv; charset=utf-8');
  expect(answer.body.split('\r\n').length).toBe(rows.length + 2);
  expect(rows.map((row) => [row['what'], row['temperature'], row['verdict'], row['voided']])).toEqual([
    ['reading', '150', 'inProgress', 'false'],
    ['reading', '134', 'inProgress', 'false'],
    ['reading', '14', '', 'true'],
    ['correction', '', '', 'false'],
    ['reading', '69', 'inProgress', 'false'],
    ['reading', '50', 'fail', 'false'],
    ['action', '', '', 'false'],
  ]);
  expect(rows[5]).toMatchObject({
    takenAt: '2026-11-25T16:45:00-05:00',
    batch: 'Lentil 1',
    rule: 'FDA Food Code 2022, 3-501.14(A)(2)',
    says: 'Not below 41 °F (5 °C) within 6 h.',
    by: 'Maren Oake',
  });
});
test('a note that a spreadsheet would run as a formula is written as text', async () => {
  const rows: Record<string, string>[] = parse((await document('csv')).body, { columns: true });
  expect(rows.at(-1)).toMatchObject({ note: `'=1+1, "too slow"`, litres: '17.5', says: 'Discard' });
});
test('the JSON holds the same lines, the pack and who decides', async () => {
  const log = (await document('json')).json<{ lines: { temperature: number | null }[]; notice: string; kitchen: { invented: boolean } }>();
  expect([log.lines.map((line) => line.temperature), log.kitchen.invented]).toEqual([[150, 134, 14, null, 69, 50, null], true]);
  expect(log.notice).toContain('Check with your local authority');
});
test('a day without readings is a header and nothing else', async () => {
  const answer = await kitchen.app.inject({ method: 'GET', url: '/api/kitchens/landing/days/2026-11-20/record.csv' });
  expect(answer.body.trim().split('\r\n')).toHaveLength(1);
});
