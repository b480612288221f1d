import type { Sale, SalesView } from '@broth/contract';
import type { CalendarDate, SalesRecord } from '@broth/core';
import { get as load, set as keep } from 'idb-keyval';
import { useEffect, useState } from 'react';
import { create } from 'zustand';
import { api } from './api';
import { useKitchen } from './kitchen';

/** Told when something was entered here, so that every page that shows sales asks again. */
const useTurn = create<{ readonly turn: number }>()(() => ({ turn: 0 }));
export function salesChanged(): void {
  useTurn.setState(({ turn }) => ({ turn: turn + 1 }));
}

/** Sales before a day with what was on, kept for when the network is away; null until known. */
export function useSales(date: CalendarDate | null): SalesView | null {
  const kitchenId = useKitchen((state) => state.book?.kitchen.id ?? null);
  const turn = useTurn((state) => state.turn);
  const [sales, setSales] = useState<SalesView | null>(null);
  useEffect(() => {
    if (kitchenId === null || date === null) return;
    let gone = false;
    const key = `sales ${date}`;
    api
      .sales(kitchenId, date)
      .then((answer) => {
        if (!gone) setSales(answer);
        void keep(key, answer).catch(() => undefined);
      })
      .catch(async () => {
        const kept = await load<SalesView>(key).catch(() => undefined);
        if (!gone && kept !== undefined) setSales(kept);
      });
    return () => {
      gone = true;
    };
  }, [kitchenId, date, turn]);
  return sales;
}

/** The history of one soup at one service, as the forecast takes it. */
export function historyFor(view: SalesView, soupId: string, serviceId: string): readonly SalesRecord[] {
  const mine = (one: Sale): boolean => one.soupId === soupId && one.serviceId === serviceId;
  return view.sales.filter(mine).map(({ day, sold, soldOutMin }) => ({ day, sold, soldOutMin, events: view.events[day] ?? [] }));
}
