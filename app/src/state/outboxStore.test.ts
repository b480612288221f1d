import type { DayEvent } from '@broth/core';
import { enqueue } from './outbox';
import type { Outbox } from './outbox';
import { restore, write } from './outboxStore';

/** The browser's store, as far as it is used here: by name, entries in no particular order. */
const stores = new Map<string, Map<string, unknown>>();
const full = { current: false };
const of = (name: string): Map<string, unknown> => {
  const found = stores.get(name) ?? new Map<string, unknown>();
  stores.set(name, found);
  return found;
};
jest.mock('idb-keyval', () => ({
  createStore: (name: string) => name,
  get: (key: string) => Promise.resolve(of('keyval').get(key)),
  del: (key: string) => Promise.resolve(of('keyval').delete(key)),
  entries: (name: string) => Promise.resolve([...of(name)].reverse()),
  delMany: (keys: string[], name: string) => {
    for (const key of keys) of(name).delete(key);
    return Promise.resolve();
  },
  setMany: (pairs: [string, unknown][], name: string) => {
    if (full.current) return Promise.reject(new Error('QuotaExceededError'));
    for (const [key, value] of pairs) of(name).set(key, value);
    return Promise.resolve();
  },
}));

const event = (n: number): DayEvent => ({
  id: `00000000-0000-4000-8000-${String(n).padStart(12, '0')}`,
  kind: 'step.done/1',
  day: '2026-11-25',
  at: 1000 + n,
  by: 'maren',
  device: 'd',
  data: { batchId: 'b', stepId: 's' },
});
const ids = (outbox: Outbox): readonly string[] => outbox.map((entry) => String(Number(entry.event.id.split('-').at(-1))));

beforeEach(() => {
  stores.clear();
  localStorage.clear();
  full.current = false;
});

describe('the outbox on the device', () => {
  test('comes back in the order it was entered; what was sent is gone', async () => {
    const three = enqueue([], [event(3), event(1), event(2)]);
    await write([], three);
    await write(three, three.slice(1));
    expect(await restore()).toMatchObject({ lost: 0 });
    expect(ids((await restore()).outbox)).toEqual(['1', '2']);
  });
  test('two tabs do not write over each other', async () => {
    const [one, two] = [enqueue([], [event(1)]), enqueue([], [event(2)])];
    await write([], one);
    await write([], two);
    await write(one, []);
    expect(ids((await restore()).outbox)).toEqual(['2']);
  });
  test('storage that was cleared is noticed, and how much is gone', async () => {
    await write([], enqueue([], [event(1), event(2)]));
    stores.clear();
    expect(await restore()).toEqual({ outbox: [], lost: 2 });
  });
  test('storage that is full is told to whoever asked', async () => {
    full.current = true;
    await expect(write([], enqueue([], [event(1)]))).rejects.toThrow('Quota');
  });
  test('what an older app kept as one list is taken over, once', async () => {
    of('keyval').set('outbox', [{ event: event(5), refused: null }]);
    await write([], enqueue([], [event(6)]));
    expect(ids((await restore()).outbox)).toEqual(['5', '6']);
    expect(ids((await restore()).outbox).length).toBe(2);
  });
  test('an entry nobody can read any more is kept, and says so', async () => {
    of('keyval').set('outbox', [{ event: { ...event(7), kind: 'step.done/0' }, refused: null }]);
    const { outbox } = await restore();
    expect(outbox[0]?.refused).toMatchObject({ code: 'event.unreadable', detail: expect.stringContaining('older version') as string });
  });
});
