import { dayEvent } from '@broth/contract';
import { createStore, delMany, entries, get as load, del as drop, setMany } from 'idb-keyval';
import type { UseStore } from 'idb-keyval';
import type { Outbox, OutboxEntry } from './outbox';

/**
 * The outbox on this device: one record an entry, so that two tabs never write over each other's. How many wait is also counted in another place: if that
 * says more than there is, the device's storage was cleared.
 */

const COUNT = 'broth-board-unsent';
let opened: UseStore | null = null;
const store = (): UseStore => (opened ??= createStore('broth-outbox', 'entry'));

interface Kept {
  readonly entry: OutboxEntry;
  readonly order: number;
}
let order = 0;

export interface Restored {
  readonly outbox: Outbox;
  /** Entries that were counted and are not there. */
  readonly lost: number;
}

/** An entry as today's contract has it. One that an older app wrote and nobody can read now is kept, and says so, rather than dropped. */
function readEntry(given: unknown): OutboxEntry {
  const { event, refused } = given as OutboxEntry;
  const parsed = dayEvent.safeParse(event);
  if (parsed.success) return { event: parsed.data, refused };
  const problem = {
    type: 'urn:broth-board:refusal:event.unreadable',
    title: 'An entry of an older app cannot be read',
    status: 422,
    detail: `An entry kept by an older version of the app cannot be sent: ${JSON.stringify(event).slice(0, 300)}. Enter it again if it is still wanted.`,
    code: 'event.unreadable',
  };
  return { event, refused: refused ?? problem };
}

/** What an earlier visit left unsent, in the order it was entered. */
export async function restore(): Promise<Restored> {
  const counted = Number(localStorage.getItem(COUNT) ?? '0');
  const kept = (await entries<string, Kept>(store())).map(([, value]) => value).sort((left, right) => left.order - right.order);
  // What an app kept before entries had records of their own.
  const older = ((await load<readonly unknown[]>('outbox')) ?? []).map((entry, index) => ({ entry, order: index - 1e6 }));
  const outbox = [...older, ...kept].map(({ entry }) => readEntry(entry));
  if (older.length > 0) {
    await write([], outbox);
    await drop('outbox');
  }
  order = Math.max(order, ...kept.map((one) => one.order));
  return { outbox, lost: Math.max(0, counted - outbox.length) };
}

/** Brings the records from one outbox to another. Rejects when the device has no room. */
export async function write(before: Outbox, after: Outbox): Promise<void> {
  const is = new Set(after.map((entry) => entry.event.id));
  const was = new Set<OutboxEntry>(before);
  const gone = before.filter((entry) => !is.has(entry.event.id)).map((entry) => entry.event.id);
  const fresh = after.filter((entry) => !was.has(entry));
  localStorage.setItem(COUNT, String(after.length));
  if (gone.length > 0) await delMany(gone, store());
  if (fresh.length > 0)
    await setMany(
      fresh.map((entry): [string, Kept] => {
        order += 1;
        return [entry.event.id, { entry, order }];
      }),
      store(),
    );
}

/** Asks the browser not to clear what is kept when room is short; it may say no. */
export function askToPersist(): void {
  if ('storage' in navigator && 'persist' in navigator.storage) void navigator.storage.persist().catch(() => false);
}
