import { addMinutes, limitIn, minutesBetween } from '../quantity/index';
import type { Instant } from '../quantity/index';
import type { CorrectiveAction, HoldRule } from './rulePack';
import { inOrder } from './verdict';
import type { TimedReading, VerdictKind } from './verdict';

export interface HoldVerdict {
  readonly kind: VerdictKind;
  readonly ruleId: string;
  readonly citation: string;
  /** When the next reading is due. */
  readonly dueAt: Instant;
  /** The food may have been out of its limit for as long as this; null while it never was. Minutes. */
  readonly outAtMostMin: number | null;
  readonly actions: readonly CorrectiveAction[];
}

/** Whether one reading meets a hold limit, compared in the unit that was read. */
export function meetsHold(timed: TimedReading, rule: HoldRule): boolean {
  const limit = limitIn(rule.limit, timed.reading.unit);
  return rule.side === 'atLeast' ? timed.reading.value >= limit : timed.reading.value <= limit;
}

/**
 * Judges hot or cold holding by its latest reading (coldest point when hot, warmest when cold). `since` is when holding began.
 * A bad reading counts from the last good one, since nobody knows when in between the food left its limit.
 */
export function holdVerdict(input: { readonly readings: readonly TimedReading[]; readonly since: Instant; readonly rule: HoldRule; readonly now: Instant }): HoldVerdict {
  const { rule, since, now } = input;
  const readings = inOrder(input.readings);
  const last = readings.at(-1);
  const dueAt = addMinutes(last?.at ?? since, rule.checkEveryMin);
  const fixed = { ruleId: rule.source.id, citation: rule.source.citation, dueAt };
  if (last !== undefined && !meetsHold(last, rule)) {
    const lastGood = readings.findLast((timed) => meetsHold(timed, rule));
    const outAtMostMin = minutesBetween(lastGood?.at ?? since, now);
    return { kind: 'fail', ...fixed, outAtMostMin, actions: rule.corrective };
  }
  if (now > dueAt) return { kind: 'overdue', ...fixed, outAtMostMin: null, actions: [] };
  return { kind: last === undefined ? 'inProgress' : 'pass', ...fixed, outAtMostMin: null, actions: [] };
}
