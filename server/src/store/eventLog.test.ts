import { createHash } from 'node:crypto';
import type { StoredEvent } from '@broth/contract';
import type { DayEvent } from '@broth/core';
import { QueryTypes } from 'sequelize';
import { at, lentilStarted, reading, testKitchen } from '../testing/kitchen';
import type { TestKitchen } from '../testing/kitchen';
import { appendEvent, canonical, eventsSince } from './eventLog';
import { verifyChain } from './verifyChain';

let kitchen: TestKitchen;
beforeEach(async () => {
  kitchen = await testKitchen('05:00');
  await kitchen.acceptPlan();
});
afterEach(() => kitchen.close());

async function append(event: DayEvent): Promise<StoredEvent> {
  const appended = await appendEvent(kitchen.database, 'landing', event, at('12:00'));
  if (!('event' in appended)) throw new Error(appended.outcome);
  return appended.event;
}
const outcome = async (event: DayEvent): Promise<string> => (await appendEvent(kitchen.database, 'landing', event, at('12:00'))).outcome;
const refused = (sql: string) =>
  kitchen.database.query(sql).then(
    () => 'went through',
    (error: unknown) => (error as Error).message,
  );
/** Changes rows as somebody with the keys to the database could: the triggers are put aside. */
const behindTheBack = async (sql: string): Promise<void> => {
  await kitchen.database.transaction(async (transaction) => {
    await kitchen.database.query("SET LOCAL session_replication_role = 'replica'", { transaction });
    await kitchen.database.query(sql, { transaction });
  });
};

describe('the event log', () => {
  test('keeps the order, and the same id twice is the same event', async () => {
    const event = lentilStarted('11:00');
    const first = await append(event);
    expect([await outcome(event), await append(event)]).toEqual(['already', first]);
    expect((await eventsSince(kitchen.database, 'landing', 0)).map((one) => one.seq)).toEqual([1]);
  });
  test('the same id with other content is told apart, and the first is kept', async () => {
    const event = lentilStarted('11:00');
    await append(event);
    expect([await outcome({ ...event, at: at('11:30') }), (await eventsSince(kitchen.database, 'landing', 0)).map((one) => one.at)]).toEqual(['idReused', [at('11:00')]]);
  });
  test('writers at the same moment get places without gaps', async () => {
    await append(lentilStarted('10:00'));
    await Promise.all(Array.from({ length: 40 }, (_, index) => append(reading('11:00', 100 + index / 10))));
    expect((await eventsSince(kitchen.database, 'landing', 0)).map((event) => event.seq)).toEqual(Array.from({ length: 41 }, (_, index) => index + 1));
    expect(await verifyChain(kitchen.database)).toEqual([{ kind: 'whole', kitchenId: 'landing', events: 41 }]);
  });
  test('the hash is SHA-256 over the hash before it, the place and the record as canonical JSON', async () => {
    const event = lentilStarted('11:00');
    const { hash } = await append(event);
    expect(hash).toBe(
      createHash('sha256')
        .update(`\n1\n${canonical({ ...event, recordedAt: at('12:00') })}`)
        .digest('hex'),
    );
  });
  test('an unknown kitchen has no log', async () => {
    expect((await appendEvent(kitchen.database, 'nowhere', lentilStarted('11:00'), at('12:00'))).outcome).toBe('kitchenUnknown');
  });
  test('canonical JSON sorts keys and keeps numbers as JavaScript writes them (RFC 8785, 3.2.3 and 3.2.2.3)', () => {
    expect(canonical({ peach: 'This sorting order', péché: 'is wrong according to French', pêche: 'but canonicalization MUST', sin: 'ignore locale' })).toBe(
      '{"peach":"This sorting order","péché":"is wrong according to French","pêche":"but canonicalization MUST","sin":"ignore locale"}',
    );
    expect(canonical([1e30, 4.5, 0.002, 1e-27])).toBe('[1e+30,4.5,0.002,1e-27]');
  });
});

describe('the database itself refuses change', () => {
  test.each(["UPDATE event SET by = 'somebody'", 'DELETE FROM event', 'TRUNCATE event'])('%s', async (sql) => {
    await append(lentilStarted('11:00'));
    expect(await refused(sql)).toMatch('The event log is append-only');
    const [row] = await kitchen.database.query<{ n: string }>("SELECT count(*) AS n FROM event WHERE by = 'maren'", { type: QueryTypes.SELECT });
    expect(row?.n).toBe('1');
  });
});

describe('verify names the first bad event', () => {
  beforeEach(async () => {
    await append(lentilStarted('10:00'));
    for (const value of [150, 120, 95, 80]) await append(reading('11:00', value));
  });
  test.each([
    ['a temperature made kinder', `UPDATE event SET data = jsonb_set(data, '{reading,value}', '60') WHERE seq = 3`, 3, 'changed'],
    ['a time moved', `UPDATE event SET at = at - interval '20 minutes' WHERE seq = 2`, 2, 'changed'],
    ['a name changed', `UPDATE event SET by = 'tobi' WHERE seq = 4`, 4, 'changed'],
    ['an event taken out', 'DELETE FROM event WHERE seq = 3', 3, 'missing'],
    ['the last one cut off', 'DELETE FROM event WHERE seq = 5', 5, 'cutOff'],
    ['an event changed with a hash made to fit it', `UPDATE event SET by = 'tobi', hash = encode(sha256('x'), 'hex') WHERE seq = 1`, 1, 'changed'],
  ] as const)('%s', async (_, sql, seq, what) => {
    await behindTheBack(sql);
    expect(await verifyChain(kitchen.database)).toMatchObject([{ kind: 'broken', seq, what }]);
  });
  test('an untouched log is whole', async () => {
    expect(await verifyChain(kitchen.database)).toEqual([{ kind: 'whole', kitchenId: 'landing', events: 5 }]);
  });
});
