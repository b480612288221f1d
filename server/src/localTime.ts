import type { CalendarDate, Instant } from '@broth/core';
import { DateTime } from 'luxon';

/** The calendar day an instant falls on in a zone. */
export function dateIn(timeZone: string, at: Instant): CalendarDate {
  return DateTime.fromMillis(at, { zone: timeZone }).toFormat('yyyy-MM-dd');
}

/** The instant a calendar day begins in a zone. Minutes of a plan count from here, through any clock change of the day. */
export function midnightOf(timeZone: string, date: CalendarDate): Instant {
  return DateTime.fromISO(date, { zone: timeZone }).startOf('day').toMillis();
}

/** `2026-11-25T10:06:00-05:00`: local, with its offset, so that the repeated hour of a clock change stays two. */
export function localIso(timeZone: string, at: Instant): string {
  return DateTime.fromMillis(at, { zone: timeZone }).toISO({ suppressMilliseconds: true }) ?? '';
}

/** `14:05`, as the clock on the kitchen's wall shows it. */
export function localClock(timeZone: string, at: Instant): string {
  return DateTime.fromMillis(at, { zone: timeZone }).toFormat('H:mm');
}
