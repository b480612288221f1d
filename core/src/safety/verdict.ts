import type { Instant, Reading } from '../quantity/index';

/**
 * pass and fail are proven by readings; overdue = a decisive reading is due now; undetermined = the readings cannot decide it
 * any more; inProgress = still inside the window. An estimate is never a verdict.
 */
export type VerdictKind = 'pass' | 'fail' | 'inProgress' | 'overdue' | 'undetermined';

export interface TimedReading {
  readonly at: Instant;
  readonly reading: Reading;
  /** Seconds the display stayed at or beyond the limit, when somebody watched it. */
  readonly heldS: number | null;
}

/** Readings in the order they were taken; the given order is kept for equal instants. */
export function inOrder(readings: readonly TimedReading[]): readonly TimedReading[] {
  return [...readings].sort((left, right) => left.at - right.at);
}
