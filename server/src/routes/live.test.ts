import { once } from 'node:events';
import http from 'node:http';
import type { AddressInfo } from 'node:net';
import { lentilStarted, reading, testKitchen } from '../testing/kitchen';
import type { TestKitchen } from '../testing/kitchen';

let kitchen: TestKitchen;
let port: number;
beforeEach(async () => {
  kitchen = await testKitchen('05:00');
  await kitchen.acceptPlan();
  kitchen.setNow('12:00');
  await kitchen.app.listen({ port: 0, host: '127.0.0.1' });
  port = (kitchen.app.server.address() as AddressInfo).port;
});
afterEach(() => kitchen.close());

/** Reads a live stream until `enough` says so; answers all it said. */
async function listen(path: string, enough: (said: string) => boolean, meanwhile: () => Promise<unknown>): Promise<string> {
  const request = http.get({ port, host: '127.0.0.1', path });
  const [response] = (await once(request, 'response')) as [http.IncomingMessage];
  let said = '';
  let begun = false;
  for await (const chunk of response) {
    said += String(chunk);
    if (!begun && said.includes('event: hello')) {
      begun = true;
      await meanwhile();
    }
    if (enough(said)) break;
  }
  request.destroy();
  return said;
}

test('a listener is told of an event as soon as it is stored, whoever stored it', async () => {
  const said = await listen(
    '/api/kitchens/landing/live',
    (text) => text.includes('batch.started/1'),
    () => kitchen.post([lentilStarted('08:00')]),
  );
  expect(said).toMatch(/id: 1\nevent: events\n/);
});
test('a listener who was away is given what came since', async () => {
  await kitchen.post([lentilStarted('08:00'), reading('11:00', 150), reading('11:30', 120)]);
  const said = await listen(
    '/api/kitchens/landing/live?since=1',
    (text) => text.includes('"seq":3'),
    () => Promise.resolve(),
  );
  expect([said.includes('"seq":1,'), said.includes('"seq":2,')]).toEqual([false, true]);
});
test('a changed par is told too', async () => {
  const change = () => kitchen.app.inject({ method: 'PUT', url: '/api/kitchens/landing/days/2026-11-25/pars/bean', payload: { parL: 3 } });
  // When the hub has just found its line to the database, all days are told before this one.
  const told = 'event: day\ndata: {"date":"2026-11-25"}';
  expect(await listen('/api/kitchens/landing/live', (text) => text.includes(told), change)).toContain(told);
});
