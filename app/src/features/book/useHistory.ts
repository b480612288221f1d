import type { SoupHistory } from '@broth/contract';
import { get as load, set as keep } from 'idb-keyval';
import { useEffect, useState } from 'react';
import { api } from '../../state/api';

/** What past batches of a soup took: fetched, kept for when the network is away; null until known. */
export function useSoupHistory(kitchenId: string | null, soupId: string): SoupHistory | null {
  const [history, setHistory] = useState<SoupHistory | null>(null);
  useEffect(() => {
    if (kitchenId === null || soupId === '') return;
    let gone = false;
    const key = `history ${soupId}`;
    api
      .soupHistory(kitchenId, soupId)
      .then((answer) => {
        if (!gone) setHistory(answer);
        void keep(key, answer).catch(() => undefined);
      })
      .catch(async () => {
        const kept = await load<SoupHistory>(key).catch(() => undefined);
        if (!gone && kept !== undefined) setHistory(kept);
      });
    return () => {
      gone = true;
    };
  }, [kitchenId, soupId]);
  return history;
}
