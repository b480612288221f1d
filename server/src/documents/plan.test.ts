import ICAL from 'ical.js';
import { parse } from 'csv-parse/sync';
import { PDFDocument } from 'pdf-lib';
import type { DayPlan } from '@broth/core';
import { demo } from '@broth/demo';
import { planCalendar } from './planCalendar';
import { runSheet } from './runSheet';
import type { RunLine } from './runSheet';
import { DAY, at, testKitchen } from '../testing/kitchen';
import type { TestKitchen } from '../testing/kitchen';

let kitchen: TestKitchen;
let plan: DayPlan;
let batches = 0;
let steps = 0;
let washes = 0;
beforeAll(async () => {
  kitchen = await testKitchen('05:00');
  plan = await kitchen.acceptPlan();
  batches = plan.batches.length;
  steps = plan.batches.reduce((sum, batch) => sum + batch.steps.length, 0);
  washes = plan.washes.length;
});
afterAll(() => kitchen.close());

const get = (path: string) => kitchen.app.inject({ method: 'GET', url: `/api/kitchens/landing/days/${DAY}/${path}` });
interface Line {
  readonly start: string;
  readonly person: string;
  readonly batch: string;
  readonly what: string;
}
const csvOf = async (path: string): Promise<readonly Line[]> => parse((await get(path)).body, { columns: true });

describe('the plan elsewhere', () => {
  test('as iCalendar it is read by another library: every step and wash an event, in the kitchen’s own time', async () => {
    const answer = await get('plan.ics');
    expect(answer.headers['content-type']).toContain('text/calendar');
    const events = new ICAL.Component(ICAL.parse(answer.body) as never).getAllSubcomponents('vevent').map((one) => new ICAL.Event(one));
    expect(events).toHaveLength(steps + washes);
    expect(new Set(events.map((event) => event.uid)).size).toBe(events.length);
    const first = [...events].sort((left, right) => left.startDate.toUnixTime() - right.startDate.toUnixTime())[0];
    const [line] = await csvOf('plan.csv');
    expect([first?.summary, first?.startDate.toJSDate().getTime()]).toEqual([`${line?.batch ?? ''}: ${line?.what ?? ''}`, at(line?.start.padStart(5, '0') ?? '')]);
  });
  test('as CSV it is in order, and every batch is in it', async () => {
    const lines = await csvOf('plan.csv');
    expect([lines.length, new Set(lines.map((line) => line.batch)).size]).toEqual([steps + washes, batches]);
  });
  test('one person’s part is what has that name, and each step that wants one pair of hands has one', async () => {
    const [all, tobi] = [await csvOf('plan.csv'), await csvOf('plan.csv?person=tobi')];
    expect(tobi.length).toBeGreaterThan(3);
    expect(tobi).toEqual(all.filter((line) => line.person === 'Tobi Lund'));
  });
  test('what is cut in two goes is two lines and two events, the first in the place of the whole', () => {
    const parts = [
      { startMin: 400, endMin: 420 },
      { startMin: 450, endMin: 460 },
    ];
    const of = (given: DayPlan): readonly RunLine[] => runSheet(given, new Map(demo.soups.map((soup) => [soup.id, soup])), demo.station);
    const [batch] = plan.batches.filter(({ steps: [first] }) => first !== undefined && first.uses.length > 0);
    const inTwo = {
      ...plan,
      batches: plan.batches.map((one) =>
        one === batch ? { ...one, steps: one.steps.map((step, at) => (at === 0 ? { ...step, startMin: 400, endMin: 460, parts } : step)) } : one,
      ),
    };
    const [whole] = of(plan).filter((line) => line.batch === batch?.name);
    const goes = of(inTwo).filter((line) => line.batch === batch?.name && line.key.startsWith(whole?.key ?? '?'));
    expect(goes.map(({ what, start, end, key }) => [what, start, end, key])).toEqual([
      [`${whole?.what ?? ''} (1 of 2)`, '6:40', '7:00', whole?.key],
      [`${whole?.what ?? ''} (2 of 2)`, '7:30', '7:40', `${whole?.key ?? ''}.2`],
    ]);
    expect(goes.every(({ person }) => person !== '')).toBe(true);
    const text = planCalendar({ lines: of(inTwo), midnight: 0, name: '', day: DAY, stamp: 0 });
    const events = new ICAL.Component(ICAL.parse(text) as never).getAllSubcomponents('vevent').map((one) => new ICAL.Event(one));
    expect(new Set(events.map((event) => event.uid)).size).toBe(steps + washes + 1);
  });
  test.each(['a4', 'letter'])('as a run sheet on %s it is a PDF, for the station and for one', async (paper) => {
    for (const who of ['', '&person=maren']) {
      const answer = await get(`run-sheet.pdf?paper=${paper}${who}`);
      const pdf = await PDFDocument.load(answer.rawPayload);
      expect([answer.statusCode, pdf.getTitle(), Math.round(pdf.getPage(0).getWidth())]).toEqual([
        200,
        `Run sheet ${DAY}, ${who === '' ? 'The station' : 'Maren Oake'}`,
        paper === 'a4' ? 595 : 612,
      ]);
    }
  });
  test('as JSON it is the plan itself', async () => {
    expect((await get('plan.json')).json<{ version: number; plan: { batches: unknown[] } }>()).toMatchObject({ version: 1, plan: { date: DAY } });
  });
  test.each([
    ['a day without a plan', '/api/kitchens/landing/days/2026-12-24/plan.ics', 404, 'plan.none'],
    ['a person nobody knows', `/api/kitchens/landing/days/${DAY}/run-sheet.pdf?person=x`, 422, 'event.personUnknown'],
    ['a day that is none', '/api/kitchens/landing/days/friday/plan.csv', 400, 'day.invalid'],
  ])('%s is refused', async (_, url, status, code) => {
    const answer = await kitchen.app.inject({ method: 'GET', url });
    expect([answer.statusCode, answer.json<{ code: string }>().code]).toEqual([status, code]);
  });
});
