import type { CalendarDate } from '../quantity/index';

/** A batch's id is its day, its soup and its number among the day's batches of that soup. */
export function batchIdOf(day: CalendarDate, soupId: string, ordinal: number): string {
  return `${day}.${soupId}.${String(ordinal)}`;
}

/** What a batch's id says; of another kind of id, the id itself as the soup and no number. */
export function readBatchId(batchId: string): { readonly soupId: string; readonly ordinal: number | null } {
  const [, soupId, ordinal] = /^\d{4}-\d{2}-\d{2}\.(.+)\.(\d+)$/.exec(batchId) ?? [];
  return { soupId: soupId ?? batchId, ordinal: ordinal === undefined ? null : Number(ordinal) };
}
