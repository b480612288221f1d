import { addMinutes, limitIn, minutesBetween } from '../quantity/index';
import type { Instant } from '../quantity/index';
import type { CorrectiveAction, ReheatRule } from './rulePack';
import { inOrder } from './verdict';
import type { TimedReading, VerdictKind } from './verdict';

export interface ReheatVerdict {
  readonly kind: VerdictKind;
  readonly ruleId: string;
  readonly citation: string;
  readonly dueAt: Instant;
  readonly actions: readonly CorrectiveAction[];
}

/**
 * Judges a reheat for hot holding: every part at the limit for `holdS`, within the window from `startedAt` (the food leaves the cold).
 * The hold is proven by a watched reading (`heldS`), or by two readings at or above the limit that far apart with none below between.
 */
export function reheatVerdict(input: { readonly readings: readonly TimedReading[]; readonly startedAt: Instant; readonly rule: ReheatRule; readonly now: Instant }): ReheatVerdict {
  const { rule, startedAt, now } = input;
  const dueAt = addMinutes(startedAt, rule.withinMin);
  const fixed = { ruleId: rule.source.id, citation: rule.source.citation, dueAt };
  const readings = inOrder(input.readings).filter((timed) => timed.at >= startedAt);
  const hot = (timed: TimedReading): boolean => timed.reading.value >= limitIn(rule.limit, timed.reading.unit);
  const holds = readings.some((timed, index) => {
    if (!hot(timed) || timed.at > dueAt) return false;
    if ((timed.heldS ?? 0) >= rule.holdS) return true;
    const next = readings[index + 1];
    return next !== undefined && hot(next) && next.at <= dueAt && (next.at - timed.at) / 1000 >= rule.holdS;
  });
  if (holds) return { kind: 'pass', ...fixed, actions: [] };
  const last = readings.at(-1);
  const late = readings.findLast((timed) => timed.at >= dueAt && !hot(timed));
  if (late !== undefined) return { kind: 'fail', ...fixed, actions: ['discard'] };
  if (minutesBetween(startedAt, now) > rule.withinMin) {
    return last !== undefined && hot(last) ? { kind: 'undetermined', ...fixed, actions: ['personInCharge', 'discard'] } : { kind: 'overdue', ...fixed, actions: rule.corrective };
  }
  return { kind: 'inProgress', ...fixed, actions: ['cookOn'] };
}
