import { Client } from 'pg';
import type { Notice } from '../store/kitchenStore';

type Listener = (notice: Notice | 'catchUp') => void;

/** Hears what any server of this database has written, and tells whoever listens for that kitchen. */
export interface Hub {
  listen(kitchenId: string, listener: Listener): () => void;
  close(): Promise<void>;
}

const RETRY_MS = 1000;

/**
 * One connection that LISTENs. When it is lost it is made again, and everybody is told to catch up: a notice may have been missed.
 */
export function openHub(databaseUrl: string): Hub {
  const listeners = new Map<string, Set<Listener>>();
  /** The present connection, whether it is up yet or not: closing must end it either way. */
  let client: Client | null = null;
  let closed = false;
  let retry: NodeJS.Timeout | null = null;

  const everyone = (): Listener[] => [...listeners.values()].flatMap((set) => [...set]);
  const again = (): void => {
    client = null;
    if (!closed) retry ??= setTimeout(connect, RETRY_MS);
  };
  function connect(): void {
    retry = null;
    const next = new Client({ connectionString: databaseUrl, keepAlive: true, connectionTimeoutMillis: 3000 });
    client = next;
    let lost = false;
    const lose = (): void => {
      if (lost) return;
      lost = true;
      void next.end().catch(() => undefined);
      again();
    };
    next.on('error', lose);
    next.on('end', lose);
    next.on('notification', ({ payload }) => {
      if (payload === undefined) return;
      const notice = JSON.parse(payload) as Notice;
      listeners.get(notice.kitchen)?.forEach((listener) => {
        listener(notice);
      });
    });
    next
      .connect()
      .then(() => next.query('LISTEN broth'))
      .then(() => {
        everyone().forEach((listener) => {
          listener('catchUp');
        });
      })
      .catch(lose);
  }
  connect();

  return {
    listen(kitchenId, listener) {
      const set = listeners.get(kitchenId) ?? new Set<Listener>();
      listeners.set(kitchenId, set);
      set.add(listener);
      return () => {
        set.delete(listener);
      };
    },
    async close() {
      closed = true;
      if (retry !== null) clearTimeout(retry);
      await client?.end().catch(() => undefined);
    },
  };
}
