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

/** Zones change their offset on a quarter of an hour at the soonest: within one it is asked once. A record has hundreds of times, and asking is slow. */
const QUARTER_MS = 900_000;
const offsets = new Map<string, Map<number, number>>();
const MOST_KEPT = 20_000;

function offsetMin(timeZone: string, at: Instant): number {
  const own = offsets.get(timeZone) ?? new Map<number, number>();
  offsets.set(timeZone, own);
  const quarter = Math.floor(at / QUARTER_MS);
  const kept = own.get(quarter);
  if (kept !== undefined) return kept;
  if (own.size > MOST_KEPT) own.clear();
  const { offset } = DateTime.fromMillis(at, { zone: timeZone });
  own.set(quarter, offset);
  return offset;
}

/** The clock on the wall as if it were UTC. */
function onTheWall(timeZone: string, at: Instant): string {
  return new Date(at + offsetMin(timeZone, at) * 60_000).toISOString();
}

/** `2026-11-25T10:06:00-05:00`: local, with its offset, so that the repeated hour of a clock change stays two. */
export function localIso(timeZone: string, at: Instant): string {
  const minutes = offsetMin(timeZone, at);
  const two = (value: number): string => String(value).padStart(2, '0');
  const offset = `${minutes < 0 ? '-' : '+'}${two(Math.floor(Math.abs(minutes) / 60))}:${two(Math.abs(minutes) % 60)}`;
  return `${onTheWall(timeZone, at)
    .replace('Z', '')
    .replace(/[.]000$/, '')}${offset}`;
}

/** `14:05`, as the clock on the kitchen's wall shows it. */
export function localClock(timeZone: string, at: Instant): string {
  return onTheWall(timeZone, at).slice(11, 16).replace(/^0/, '');
}
