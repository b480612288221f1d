import { addDays, daysBetween, seeded } from '@broth/core';
import type { CalendarDate, DayEventKind, Soup } from '@broth/core';

export interface DemoSale {
  readonly day: CalendarDate;
  readonly serviceId: string;
  readonly soupId: string;
  /** Portions. */
  readonly sold: number;
  readonly soldOutMin: number | null;
}

/** What the sailings want on a plain weekday, portions, and what was usually made: on good days it ran out. Invented. */
const WANTED: readonly { readonly soupId: string; readonly serviceId: string; readonly portions: number; readonly made: number; readonly closesMin: number }[] = [
  { soupId: 'barley', serviceId: 'early', portions: 17, made: 24, closesMin: 540 },
  { soupId: 'lentil', serviceId: 'midday', portions: 48, made: 60, closesMin: 870 },
  { soupId: 'celeriac', serviceId: 'midday', portions: 38, made: 46, closesMin: 870 },
  { soupId: 'chowder', serviceId: 'midday', portions: 54, made: 66, closesMin: 870 },
  { soupId: 'cucumber', serviceId: 'midday', portions: 18, made: 25, closesMin: 870 },
  { soupId: 'bean', serviceId: 'evening', portions: 40, made: 50, closesMin: 1170 },
  { soupId: 'beetroot', serviceId: 'evening', portions: 24, made: 30, closesMin: 1170 },
  { soupId: 'sweetpotato', serviceId: 'evening', portions: 31, made: 40, closesMin: 1170 },
];
/** Monday to Sunday: weekends sail full. */
const WEEKDAY = [0.9, 0.92, 0.95, 1, 1.18, 1.35, 1.2];
const DAYS = 56;

/** Eight weeks before a day, the same for the same day: weekdays, two rough days that kept people ashore, a holiday, a booking. */
export function salesBefore(
  today: CalendarDate,
  soups: readonly Soup[],
): { readonly sales: readonly DemoSale[]; readonly events: Readonly<Record<CalendarDate, readonly DayEventKind[]>> } {
  const random = seeded(56);
  const normal = (): number => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
  const events: Record<CalendarDate, readonly DayEventKind[]> = {
    [addDays(today, -43)]: ['rough'],
    [addDays(today, -17)]: ['rough'],
    [addDays(today, -30)]: ['holiday'],
    [addDays(today, -9)]: ['booking'],
  };
  const factor = { rough: 0.6, holiday: 1.25, booking: 1.4 };
  const known = new Set(soups.map((soup) => soup.id));
  const sales = Array.from({ length: DAYS }, (_, index) => addDays(today, index - DAYS)).flatMap((day) =>
    WANTED.filter(({ soupId }) => known.has(soupId)).map(({ soupId, serviceId, portions, made, closesMin }): DemoSale => {
      const weekday = WEEKDAY[((daysBetween('2026-01-05', day) % 7) + 7) % 7] ?? 1;
      const on = (events[day] ?? []).reduce((sum, event) => sum * factor[event], 1);
      const wanted = Math.max(0, Math.round(portions * weekday * on * (1 + 0.14 * normal())));
      const ranOut = wanted >= made;
      return { day, serviceId, soupId, sold: Math.min(wanted, made), soldOutMin: ranOut ? closesMin - Math.round(20 + random() * 60) : null };
    }),
  );
  return { sales, events };
}
