import { byId, addDays, daysBetween } from '../quantity/index';
import type { CalendarDate } from '../quantity/index';

/** Soup or component on hand, as one container or set of containers made together. */
export interface Lot {
  readonly id: string;
  readonly soupId: string;
  readonly volumeL: number;
  readonly state: 'hot' | 'chilled' | 'frozen';
  /** The calendar day it was prepared: day 1 of its date mark. */
  readonly preparedOn: CalendarDate;
  /** Whole days it has spent frozen: the count pauses, it does not start again. */
  readonly frozenDays: number;
}

/** Last calendar day a lot may be served. `lastDay` is the date mark's length with the day of preparation as day 1. */
export function useBy(lot: Lot, lastDay: number): CalendarDate {
  return addDays(lot.preparedOn, lastDay - 1 + lot.frozenDays);
}

/**
 * The day a mixture is dated by: the earliest of its own and of everything ready to eat that went into it (FDA Food Code 2022, 3-501.17(C)). Cooking it again
 * does not make it younger: the Code does not say so, and the authority decides.
 */
export function preparedOn(own: CalendarDate, lots: readonly Pick<Lot, 'preparedOn'>[]): CalendarDate {
  return lots.reduce((earliest, lot) => (lot.preparedOn < earliest ? lot.preparedOn : earliest), own);
}

/** Why a lot counts or does not count towards a par on a day. */
export type LotUse =
  | { readonly lot: Lot; readonly kind: 'counts'; readonly takenL: number; readonly useBy: CalendarDate }
  | { readonly lot: Lot; readonly kind: 'spare'; readonly useBy: CalendarDate }
  | { readonly lot: Lot; readonly kind: 'frozen' }
  | { readonly lot: Lot; readonly kind: 'pastDate'; readonly byDays: number };

/**
 * Takes lots towards `neededL`, first expired first out. Frozen lots do not count for the day: they have to be thawed the evening before.
 * Lots past their date mark never count. Volumes are neither made nor lost: a lot counts for at most what it holds.
 */
export function allocate(lots: readonly Lot[], neededL: number, on: CalendarDate, lastDay: number): readonly LotUse[] {
  let leftL = neededL;
  return [...lots]
    .sort((left, right) => byId(useBy(left, lastDay), useBy(right, lastDay)) || byId(left.id, right.id))
    .map((lot): LotUse => {
      const until = useBy(lot, lastDay);
      if (lot.state === 'frozen') return { lot, kind: 'frozen' };
      if (until < on) return { lot, kind: 'pastDate', byDays: daysBetween(until, on) };
      const takenL = Math.min(lot.volumeL, leftL);
      leftL -= takenL;
      return takenL > 0 ? { lot, kind: 'counts', takenL, useBy: until } : { lot, kind: 'spare', useBy: until };
    });
}
