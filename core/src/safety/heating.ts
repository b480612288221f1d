import { addMinutes, limitIn } from '../quantity/index';
import type { Instant } from '../quantity/index';
import type { CookRule, CorrectiveAction, HeatPoint, ReheatRule } from './rule';
import { inOrder } from './verdict';
import type { TimedReading, VerdictKind } from './verdict';

export interface HeatVerdict {
  readonly kind: VerdictKind;
  readonly ruleId: string;
  readonly citation: string;
  /** By when it has to be proven; null = the rule names no time. */
  readonly dueAt: Instant | null;
  readonly points: readonly HeatPoint[];
  readonly withinMin: number | null;
  readonly proof: readonly TimedReading[];
  readonly actions: readonly CorrectiveAction[];
}

/**
 * The readings that prove one of the points: one that was watched as long, or several in a row at or above the limit that span it with none below between.
 * Null when none is proven. A point without a time is proven by one reading.
 */
export function heatProof(readings: readonly TimedReading[], points: readonly HeatPoint[]): readonly TimedReading[] | null {
  const ordered = inOrder(readings);
  for (const { limit, holdS } of points) {
    const isHot = (timed: TimedReading): boolean => timed.reading.value >= limitIn(limit, timed.reading.unit);
    let run: TimedReading[] = [];
    for (const timed of ordered) {
      if (!isHot(timed)) {
        run = [];
        continue;
      }
      run.push(timed);
      const first = run[0] ?? timed;
      if ((timed.heldS ?? 0) >= holdS) return [timed];
      if ((timed.at - first.at) / 1000 >= holdS) return [first, timed];
    }
  }
  return null;
}

/**
 * Judges a reheat for hot holding: every part (coldest point) at a point of the rule within its time from `startedAt`, when the food leaves the cold.
 */
export function reheatVerdict(input: { readonly readings: readonly TimedReading[]; readonly startedAt: Instant; readonly rule: ReheatRule; readonly now: Instant }): HeatVerdict {
  const { rule, startedAt, now } = input;
  const dueAt = rule.withinMin === null ? null : addMinutes(startedAt, rule.withinMin);
  const fixed = { ruleId: rule.id, citation: rule.citation, dueAt, points: rule.points, withinMin: rule.withinMin };
  const isLate = (at: Instant): boolean => dueAt !== null && (rule.strict ? at >= dueAt : at > dueAt);
  const readings = inOrder(input.readings).filter((timed) => timed.at >= startedAt);
  const proof = heatProof(
    readings.filter((timed) => !isLate(timed.at)),
    rule.points,
  );
  if (proof !== null) return { kind: 'pass', ...fixed, proof, actions: [] };
  // Below every limit when the time is over: it cannot have been met in time and still be below, unless it cooled again, which is no better.
  const below = readings.findLast((timed) => dueAt !== null && timed.at >= dueAt && !rule.points.some(({ limit }) => timed.reading.value >= limitIn(limit, timed.reading.unit)));
  if (below !== undefined) return { kind: 'fail', ...fixed, proof: [below], actions: ['discard'] };
  if (!isLate(now)) return { kind: 'inProgress', ...fixed, proof: readings.slice(-1), actions: ['cookOn'] };
  const hotLate = readings.some((timed) => isLate(timed.at));
  if (hotLate) return { kind: 'undetermined', ...fixed, proof: readings.slice(-1), actions: ['personInCharge', 'discard'] };
  return { kind: 'overdue', ...fixed, proof: readings.slice(-1), actions: rule.corrective.filter((action) => action !== 'cookOn') };
}

/**
 * Judges cooking by the coldest point. `endedAt` = it left the heat; until then a low reading only says: go on. `isPast` = it was cooled since, or
 * has gone into something else: nothing shows any more what it was.
 */
export function cookVerdict(input: {
  readonly readings: readonly TimedReading[];
  readonly rule: CookRule;
  readonly endedAt: Instant | null;
  readonly isPast: boolean;
}): HeatVerdict {
  const { rule, endedAt, isPast } = input;
  const readings = inOrder(input.readings);
  const fixed = { ruleId: rule.id, citation: rule.citation, dueAt: endedAt, points: rule.points, withinMin: null };
  const proof = heatProof(readings, rule.points);
  if (proof !== null) return { kind: 'pass', ...fixed, proof, actions: [] };
  const last = readings.slice(-1);
  if (endedAt === null) return { kind: 'inProgress', ...fixed, proof: last, actions: ['cookOn'] };
  // Off the heat without proof. What it was is not known, and a reading below now does not tell: it goes back on, or is read while it is hot.
  return isPast ? { kind: 'undetermined', ...fixed, proof: last, actions: ['personInCharge', 'discard'] } : { kind: 'overdue', ...fixed, proof: last, actions: ['cookOn'] };
}
