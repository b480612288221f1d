import { addMinutes, limitIn, minutesBetween } from '../quantity/index';
import type { Instant } from '../quantity/index';
import type { CorrectiveAction, TimeControlRule } from './rule';
import { inOrder } from './verdict';
import type { TimedReading, VerdictKind } from './verdict';

export interface TimeControlVerdict {
  readonly kind: VerdictKind;
  readonly ruleId: string;
  readonly citation: string;
  /** When it has to be used or thrown away: what is written on the container. */
  readonly endsAt: Instant;
  readonly spareMin: number;
  readonly proof: readonly TimedReading[];
  readonly actions: readonly CorrectiveAction[];
}

/** A reading so near the removal counts as taken at it. Minutes; a design choice. */
const AT_START_MIN = 15;

/**
 * Time instead of temperature, from `takenOutAt` on. A reading at the start has to be within the start limits, none may be above the ceiling, and it ends at its
 * time whatever the temperature: there is no way back into temperature control. `outBeforeMin` are minutes it was out before, where every minute counts.
 */
export function timeControlVerdict(input: {
  readonly readings: readonly TimedReading[];
  readonly takenOutAt: Instant;
  readonly outBeforeMin: number;
  readonly rule: TimeControlRule;
  /** When it was used up or thrown away; null = it is still there. */
  readonly endedAt: Instant | null;
  readonly now: Instant;
}): TimeControlVerdict {
  const { rule, takenOutAt, endedAt, now } = input;
  const readings = inOrder(input.readings);
  const endsAt = addMinutes(takenOutAt, rule.withinMin - (rule.cumulative ? input.outBeforeMin : 0));
  const until = endedAt ?? now;
  const fixed = { ruleId: rule.id, citation: rule.citation, endsAt, spareMin: minutesBetween(until, endsAt) };
  const { startCold, startHot, ceiling } = rule;
  const tooWarm = ceiling === null ? [] : readings.filter((timed) => timed.at >= takenOutAt && timed.reading.value > limitIn(ceiling, timed.reading.unit));
  if (tooWarm.length > 0) return { kind: 'fail', ...fixed, proof: tooWarm, actions: ['discard'] };
  if (rule.strict ? until >= endsAt : until > endsAt) return { kind: 'fail', ...fixed, proof: [], actions: ['discard'] };
  const atStart = readings.filter((timed) => Math.abs(minutesBetween(takenOutAt, timed.at)) <= AT_START_MIN);
  if (startCold !== null || startHot !== null) {
    const first = atStart[0];
    // What it was hours before, or is hours after, does not tell what it was when it was taken out.
    if (first === undefined) {
      const isLate = minutesBetween(takenOutAt, now) > AT_START_MIN;
      return { kind: isLate ? 'undetermined' : 'overdue', ...fixed, proof: [], actions: isLate ? ['personInCharge', 'discard'] : [] };
    }
    const isGood = ({ reading: { value, unit } }: TimedReading): boolean =>
      (startCold !== null && value <= limitIn(startCold, unit)) || (startHot !== null && value >= limitIn(startHot, unit));
    if (!isGood(first)) return { kind: 'fail', ...fixed, proof: [first], actions: ['personInCharge', 'discard'] };
  }
  return { kind: endedAt === null ? 'inProgress' : 'pass', ...fixed, proof: atStart.slice(0, 1), actions: [] };
}
