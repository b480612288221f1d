import type { CalendarDate, Par } from '@broth/core';
import { create } from 'zustand';
import { createJSONStorage, persist } from 'zustand/middleware';
import { followOtherTabs } from './tabs';

type Litres = Readonly<Record<string, number>>;

interface UnsentPars {
  /** By day, then by soup. Litres. */
  readonly byDay: Readonly<Record<CalendarDate, Litres>>;
  readonly keep: (date: CalendarDate, soupId: string, parL: number) => void;
  /** It was answered: what has been put since is not. */
  readonly drop: (date: CalendarDate, soupId: string, parL: number) => void;
}

/** Pars the server has not answered yet: shown and planned by at once, kept on this device until they are sent. */
export const useUnsentPars = create<UnsentPars>()(
  persist(
    (set, get) => ({
      byDay: {},
      keep: (date, soupId, parL) => {
        const { byDay } = get();
        set({ byDay: { ...byDay, [date]: { ...byDay[date], [soupId]: parL } } });
      },
      drop: (date, soupId, parL) => {
        const { [date]: day, ...others } = get().byDay;
        if (day?.[soupId] !== parL) return;
        const left = Object.fromEntries(Object.entries(day).filter(([id]) => id !== soupId));
        set({ byDay: Object.keys(left).length === 0 ? others : { ...others, [date]: left } });
      },
    }),
    { name: 'broth-board-unsent-pars', storage: createJSONStorage(() => localStorage), partialize: ({ byDay }) => ({ byDay }) },
  ),
);
followOtherTabs(useUnsentPars);

export function unsentPars(): readonly { readonly date: CalendarDate; readonly soupId: string; readonly parL: number }[] {
  return Object.entries(useUnsentPars.getState().byDay).flatMap(([date, day]) => Object.entries(day).map(([soupId, parL]) => ({ date, soupId, parL })));
}

/** The day's pars as this device has put them. */
export function withUnsent(pars: readonly Par[], unsent: Litres): readonly Par[] {
  return pars.map((par) => ({ ...par, parL: unsent[par.soupId] ?? par.parL }));
}
