/** An instant: milliseconds since 1970-01-01T00:00Z. Durations are always differences of instants, never of wall clocks. */
export type Instant = number;
/** A calendar date in the kitchen's own time zone, `YYYY-MM-DD`. */
export type CalendarDate = string;

const MS_PER_MIN = 60_000;
const MS_PER_DAY = 86_400_000;

/** Minutes from one instant to another; negative when `to` is earlier. */
export function minutesBetween(from: Instant, to: Instant): number {
  return (to - from) / MS_PER_MIN;
}

/** The instant `durationMin` minutes later. */
export function addMinutes(at: Instant, durationMin: number): Instant {
  return at + durationMin * MS_PER_MIN;
}

/** `addDays('2026-02-27', 2)` is `'2026-03-01'`. Calendar arithmetic only: no zone, no clock. */
export function addDays(date: CalendarDate, days: number): CalendarDate {
  return new Date(Date.parse(`${date}T00:00:00Z`) + days * MS_PER_DAY).toISOString().slice(0, 10);
}

/** The day of the week as ISO 8601 counts it: 1 = Monday … 7 = Sunday. */
export function weekdayOf(date: CalendarDate): number {
  // 2026-01-05 is a Monday.
  return (((daysBetween('2026-01-05', date) % 7) + 7) % 7) + 1;
}

/** Whole days from one calendar date to another. */
export function daysBetween(from: CalendarDate, to: CalendarDate): number {
  return Math.round((Date.parse(`${to}T00:00:00Z`) - Date.parse(`${from}T00:00:00Z`)) / MS_PER_DAY);
}
