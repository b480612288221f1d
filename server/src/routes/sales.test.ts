import { addDays } from '@broth/core';
import { DAY, testKitchen } from '../testing/kitchen';
import type { TestKitchen } from '../testing/kitchen';

let kitchen: TestKitchen;
beforeAll(async () => {
  kitchen = await testKitchen('05:00');
});
afterAll(() => kitchen.close());

const BASE = '/api/kitchens/landing';
interface Sold {
  readonly day: string;
  readonly soupId: string;
  readonly sold: number;
  readonly soldOutMin: number | null;
}
const view = async () => (await kitchen.app.inject({ method: 'GET', url: `${BASE}/sales?until=${DAY}` })).json<{ sales: Sold[]; events: Record<string, string[]> }>();
const soldOf = async (day: string, soupId: string): Promise<Sold | undefined> => (await view()).sales.find((one) => one.day === day && one.soupId === soupId);
const put = async (path: string, payload: object): Promise<[number, string]> => {
  const answer = await kitchen.app.inject({ method: 'PUT', url: `${BASE}${path}`, payload });
  return [answer.statusCode, answer.json<{ code?: string }>().code ?? ''];
};
const csv = async (text: string, columns: string) => {
  const answer = await kitchen.app.inject({ method: 'PUT', url: `${BASE}/sales.csv?${columns}`, headers: { 'content-type': 'text/csv' }, payload: text });
  return { status: answer.statusCode, body: answer.json<{ taken?: number; code?: string; detail?: string }>() };
};
const COLUMNS = 'day=Date&soup=Item&sold=Qty&soldOut=Gone&dates=dmy';

describe('sales', () => {
  test('eight weeks of the demo are there, some of them run out, and nothing of today or later', async () => {
    const { sales, events } = await view();
    expect([sales.length, sales.filter((one) => one.soldOutMin !== null).length > 20, sales.some((one) => one.day >= DAY)]).toEqual([56 * 8, true, false]);
    expect(Object.values(events).flat().sort()).toEqual(['booking', 'holiday', 'rough', 'rough']);
  });
  test('one is put by hand, in the place of what was there', async () => {
    const day = addDays(DAY, -1);
    expect(await put(`/days/${day}/sales/lentil`, { serviceId: 'midday', sold: 33, soldOutMin: 785 })).toEqual([200, '']);
    expect(await put(`/days/${day}/sales/lentil`, { serviceId: 'midday', sold: 34, soldOutMin: null })).toEqual([200, '']);
    expect(await soldOf(day, 'lentil')).toMatchObject({ sold: 34, soldOutMin: null });
  });
  test.each<readonly [string, string, object, number, string]>([
    ['below nothing', `/days/${DAY}/sales/lentil`, { serviceId: 'midday', sold: -1, soldOutMin: null }, 400, 'body.invalid'],
    ['half a portion', `/days/${DAY}/sales/lentil`, { serviceId: 'midday', sold: 1.5, soldOutMin: null }, 400, 'body.invalid'],
    ['a soup that is not there', `/days/${DAY}/sales/x`, { serviceId: 'midday', sold: 1, soldOutMin: null }, 404, 'soup.unknown'],
    ['a day that is none', '/days/yesterday/sales/lentil', { serviceId: 'midday', sold: 1, soldOutMin: null }, 400, 'day.invalid'],
    ['an event nobody knows', `/days/${DAY}/events`, { events: ['moon'] }, 400, 'body.invalid'],
  ])('%s is refused', async (_, path, payload, status, code) => {
    expect(await put(path, payload)).toEqual([status, code]);
  });
  test('what is on today is kept for the forecast', async () => {
    expect(await put(`/days/${DAY}/events`, { events: ['rough'] })).toEqual([200, '']);
    expect((await view()).events[DAY]).toEqual(['rough']);
  });
});

describe('a list of sales', () => {
  test('is read by the columns picked: days written day first, semicolons, the time it ran out', async () => {
    const answer = await csv('Date;Till;Item;Qty;Gone\n20.11.2026;2;Lentil;41;13:05\n21/11/2026;2;White bean and kale;38;\n', COLUMNS);
    expect([answer.status, answer.body.taken]).toEqual([200, 2]);
    expect(await soldOf('2026-11-20', 'lentil')).toMatchObject({ sold: 41, soldOutMin: 785 });
  });
  test.each<readonly [string, string, string]>([
    [
      'two ways to write a day',
      'Date,Item,Qty,Gone\n20.11.2026,Lentil,41,\n2026-11-21,Lentil,40,',
      'Line 3: "2026-11-21" is not a day written like d/M/yyyy. Pick how the days are written; one list, one way.',
    ],
    ['one day twice', 'Date,Item,Qty,Gone\n20.11.2026,Lentil,41,\n20.11.2026,lentil,44,', 'Line 3: Red lentil and roast carrot of 2026-11-20 stands in line 2 already.'],
    ['negative sales', 'Date,Item,Qty,Gone\n20.11.2026,Lentil,-4,', 'Line 2: -4 sold: below 0 is a return or a slip.'],
    ['a soup nobody knows', 'Date,Item,Qty,Gone\n20.11.2026,Gulasch,4,', 'Line 2: There is no soup "Gulasch" in the book.'],
    ['a word for a number', 'Date,Item,Qty,Gone\n20.11.2026,Lentil,many,', 'Line 2: "many" is not a whole number of portions.'],
    ['a time that is none', 'Date,Item,Qty,Gone\n20.11.2026,Lentil,4,noon', 'Line 2: "noon" is not a time like 13:05.'],
    ['a column that is not there', 'Date,Soup,Qty\n20.11.2026,Lentil,4', 'Line 1: There is no column "Item". The first line has: Date,Soup,Qty.'],
  ])('with %s nothing is taken in, and the line is named', async (_, text, sentence) => {
    const before = await soldOf('2026-11-20', 'lentil');
    const answer = await csv(text, COLUMNS);
    expect([answer.status, answer.body.code, answer.body.detail]).toEqual([422, 'sales.unreadable', expect.stringContaining(sentence)]);
    expect(await soldOf('2026-11-20', 'lentil')).toEqual(before);
  });
});
