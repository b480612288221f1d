/**
 * The order of ids and calendar dates, the same wherever it is worked out. A locale's own order differs from machine to machine, and asking for it the first
 * time costs some 25 ms: it is for names that are read, not for ids.
 */
export function byId(left: string, right: string): number {
  return left < right ? -1 : left > right ? 1 : 0;
}
