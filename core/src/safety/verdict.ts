import type { Instant, Reading } from '../quantity/index';

/**
 * pass and fail are proven by readings; overdue = a decisive reading is due now; undetermined = the readings cannot decide it
 * any more; inProgress = still inside the window; notApplicable = no rule in force says anything here. An estimate is never a verdict.
 */
export const VERDICT_KINDS = ['pass', 'fail', 'inProgress', 'overdue', 'undetermined', 'notApplicable'] as const;
export type VerdictKind = (typeof VERDICT_KINDS)[number];

export interface TimedReading {
  readonly at: Instant;
  /** As it counts: what the probe showed less its known offset, in the unit it was taken in. */
  readonly reading: Reading;
  /** Seconds the display stayed at or beyond the limit, when somebody watched it. */
  readonly heldS: number | null;
}

/** Readings in the order they were taken; the given order is kept for equal instants. */
export function inOrder<One extends TimedReading>(readings: readonly One[]): readonly One[] {
  return [...readings].sort((left, right) => left.at - right.at);
}

const WORST_FIRST: readonly VerdictKind[] = ['fail', 'overdue', 'undetermined', 'inProgress', 'pass', 'notApplicable'];

/** The worst of several verdicts: one pan that failed is a batch that failed. None at all is not applicable. */
export function worstOf(kinds: readonly VerdictKind[]): VerdictKind {
  return WORST_FIRST.find((kind) => kinds.includes(kind)) ?? 'notApplicable';
}
