import { addDays } from '@broth/core';
import type { CalendarDate, DayEventKind, Food, Lot, Par, Soup, Station } from '@broth/core';
import { pantry } from './pantry';
import { salesBefore } from './sales';
import type { DemoSale } from './sales';
import { soups } from './soups';
import { station } from './station';

/** The invented scenario: Saltmarsh Ferry Terminal, the Landing Kitchen. Nothing in it is real. */
export interface Demo {
  readonly kitchen: { readonly id: string; readonly name: string; readonly place: string; readonly timeZone: string; readonly temperatureUnit: 'C' | 'F'; readonly invented: true };
  readonly soups: readonly Soup[];
  readonly pantry: readonly Food[];
  readonly station: Station;
  readonly standingPars: readonly Par[];
  /** Eight weeks of sales up to the day before, with what was on; days that ran out among them. */
  sales(today: CalendarDate): { readonly sales: readonly DemoSale[]; readonly events: Readonly<Record<CalendarDate, readonly DayEventKind[]>> };
  /** What stands in the walk-in and freezer when the demo day begins. */
  lots(today: CalendarDate): readonly Lot[];
}

export const demo: Demo = {
  kitchen: { id: 'landing', name: 'Landing Kitchen', place: 'Saltmarsh Ferry Terminal', timeZone: 'America/New_York', temperatureUnit: 'F', invented: true },
  soups,
  pantry,
  station,
  standingPars: [
    { soupId: 'barley', parL: 6, serviceId: 'early' },
    { soupId: 'lentil', parL: 18, serviceId: 'midday' },
    { soupId: 'celeriac', parL: 14, serviceId: 'midday' },
    { soupId: 'chowder', parL: 20, serviceId: 'midday' },
    { soupId: 'cucumber', parL: 5, serviceId: 'midday' },
    { soupId: 'bean', parL: 15, serviceId: 'evening' },
    { soupId: 'beetroot', parL: 9, serviceId: 'evening' },
    { soupId: 'sweetpotato', parL: 12, serviceId: 'evening' },
  ],
  sales: (today) => salesBefore(today, soups),
  lots: (today) => [
    { id: 'lot-barley', soupId: 'barley', volumeL: 6.5, state: 'chilled', preparedOn: addDays(today, -1), frozenDays: 0 },
    { id: 'lot-bean', soupId: 'bean', volumeL: 3, state: 'chilled', preparedOn: addDays(today, -2), frozenDays: 0 },
    { id: 'lot-beetroot-old', soupId: 'beetroot', volumeL: 2, state: 'chilled', preparedOn: addDays(today, -8), frozenDays: 0 },
    { id: 'lot-sweetpotato', soupId: 'sweetpotato', volumeL: 4, state: 'frozen', preparedOn: addDays(today, -12), frozenDays: 11 },
    { id: 'lot-vegstock', soupId: 'vegstock', volumeL: 8, state: 'chilled', preparedOn: addDays(today, -1), frozenDays: 0 },
  ],
};
