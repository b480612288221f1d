import { addMinutes, limitIn, minutesBetween } from '../quantity/index';
import type { Instant, TemperatureLimit } from '../quantity/index';
import type { CorrectiveAction, HoldRule } from './rule';
import { inOrder } from './verdict';
import type { TimedReading, VerdictKind } from './verdict';

/** A time out of the limit, as far as the readings enclose it. Minutes. `endedBy` null = it is still out. */
export interface Excursion {
  readonly from: Instant;
  readonly endedBy: Instant | null;
  readonly atLeastMin: number;
  readonly atMostMin: number;
}

/** A check that nobody made: nothing was read in the time it was due. It can be explained, never filled in. */
export interface MissedCheck {
  readonly dueAt: Instant;
  /** The next reading after it; null = none yet. */
  readonly readAt: Instant | null;
}

export interface HoldVerdict {
  readonly kind: VerdictKind;
  readonly ruleId: string;
  readonly citation: string;
  /** What it is held to, and on which side of it. */
  readonly limit: TemperatureLimit;
  readonly side: HoldRule['side'];
  /** When the next reading is due. */
  readonly dueAt: Instant;
  /** The food may have been out of its limit for as long as this, all times together; null while it never was. Minutes. */
  readonly outAtMostMin: number | null;
  readonly outAtLeastMin: number;
  /** Minutes still allowed out of the limit, reckoned from the longest it may have been; null = the rule allows none, or it never was out. */
  readonly allowedMin: number | null;
  readonly excursions: readonly Excursion[];
  readonly missed: readonly MissedCheck[];
  readonly proof: readonly TimedReading[];
  readonly actions: readonly CorrectiveAction[];
}

/** Whether one reading meets a hold limit, compared in the unit that was read. */
export function meetsHold(timed: TimedReading, rule: Pick<HoldRule, 'limit' | 'side'>): boolean {
  const limit = limitIn(rule.limit, timed.reading.unit);
  return rule.side === 'atLeast' ? timed.reading.value >= limit : timed.reading.value <= limit;
}

function excursionsOf(readings: readonly TimedReading[], since: Instant, now: Instant, rule: HoldRule): readonly Excursion[] {
  const excursions: Excursion[] = [];
  let lastGoodAt = since;
  let bad: TimedReading[] = [];
  const close = (endedBy: Instant | null): void => {
    const [first, last] = [bad[0], bad.at(-1)];
    if (first === undefined || last === undefined) return;
    // A reading that is out tells that it is out now as well: until the next good one nobody knows better.
    const known = endedBy ?? now;
    excursions.push({
      from: lastGoodAt,
      endedBy,
      atLeastMin: minutesBetween(first.at, endedBy === null ? now : last.at),
      atMostMin: Math.max(0, minutesBetween(lastGoodAt, known)),
    });
    bad = [];
  };
  for (const timed of readings) {
    if (meetsHold(timed, rule)) {
      close(timed.at);
      lastGoodAt = timed.at;
    } else bad.push(timed);
  }
  close(null);
  return excursions;
}

/** The checks nobody made from `since` to `until`: one for every whole interval without a reading. */
export function missedChecks(readings: readonly TimedReading[], since: Instant, until: Instant, everyMin: number): readonly MissedCheck[] {
  const times = [since, ...inOrder(readings).map((timed) => timed.at)].filter((time) => time <= until);
  return times.flatMap((time, index) => {
    const readAt = times[index + 1] ?? null;
    const count = Math.ceil(minutesBetween(time, readAt ?? until) / everyMin - 1e-9) - 1;
    return Array.from({ length: Math.max(0, count) }, (_, nth) => ({ dueAt: addMinutes(time, everyMin * (nth + 1)), readAt }));
  });
}

function exceeds(minutes: number, { withinMin, strict }: { readonly withinMin: number; readonly strict: boolean }): boolean {
  return strict ? minutes >= withinMin : minutes > withinMin;
}

/**
 * Judges hot or cold holding (coldest point when hot, warmest when cold). `since` is when holding began. Nobody knows when between two readings the food left
 * its limit or came back: the time out is enclosed, and a later good reading does not prove the gap. Out now = fail. Back again = pass only when even the
 * longest it may have been out is allowed; fail when even the shortest is not; else not proven, and a person decides.
 */
export function holdVerdict(input: { readonly readings: readonly TimedReading[]; readonly since: Instant; readonly rule: HoldRule; readonly now: Instant }): HoldVerdict {
  const { rule, since, now } = input;
  const readings = inOrder(input.readings);
  const last = readings.at(-1);
  const excursions = excursionsOf(readings, since, now, rule);
  const sum = (of: (excursion: Excursion) => number): number => excursions.reduce((total, excursion) => total + of(excursion), 0);
  const [atLeastMin, atMostMin] = [sum((one) => one.atLeastMin), sum((one) => one.atMostMin)];
  const dueAt = addMinutes(last?.at ?? since, rule.checkEveryMin);
  const { allowance } = rule;
  const isOut = last !== undefined && !meetsHold(last, rule);
  const fixed = {
    ruleId: rule.id,
    citation: rule.citation,
    limit: rule.limit,
    side: rule.side,
    dueAt,
    outAtMostMin: excursions.length === 0 ? null : atMostMin,
    outAtLeastMin: atLeastMin,
    allowedMin: allowance === null || excursions.length === 0 ? null : Math.max(0, allowance.withinMin - atMostMin),
    excursions,
    missed: missedChecks(readings, since, now, rule.checkEveryMin),
  };
  const bad = readings.filter((timed) => !meetsHold(timed, rule));
  if (isOut) {
    // Saving it asks for a time that is known to be allowed: the longest it may have been, not the shortest.
    const savable = allowance !== null && !exceeds(atMostMin, allowance);
    const actions = savable ? rule.corrective : rule.corrective.filter((action) => action !== 'reheatHot' && action !== 'moveCold');
    return { kind: 'fail', ...fixed, proof: bad, actions: withLastResort(actions) };
  }
  if (excursions.length > 0 && (allowance === null || exceeds(atMostMin, allowance))) {
    const proven = allowance !== null && exceeds(atLeastMin, allowance);
    return { kind: proven ? 'fail' : 'undetermined', ...fixed, proof: bad, actions: proven ? ['discard'] : ['personInCharge', 'discard'] };
  }
  const proof = last === undefined ? [] : [last];
  if (now > dueAt) return { kind: 'overdue', ...fixed, proof, actions: [] };
  return { kind: last === undefined ? 'inProgress' : 'pass', ...fixed, proof, actions: [] };
}

/** Whatever a rule offers, throwing it away is always possible. */
function withLastResort(actions: readonly CorrectiveAction[]): readonly CorrectiveAction[] {
  return actions.includes('discard') ? actions : [...actions, 'discard'];
}
