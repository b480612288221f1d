import { limitIn, minutesBetween, addMinutes } from '../quantity/index';
import type { Instant, TemperatureLimit } from '../quantity/index';
import type { CoolingRule, CorrectiveAction } from './rulePack';
import { inOrder } from './verdict';
import type { TimedReading, VerdictKind } from './verdict';

export interface CoolingStage {
  readonly kind: VerdictKind;
  readonly ruleId: string;
  readonly citation: string;
  readonly limitMin: number;
  /** The stage took at least and at most this long, as far as the readings prove it. `atMostMin` null = no upper bound. */
  readonly atLeastMin: number;
  readonly atMostMin: number | null;
  /** The latest instant a reading can still prove this stage; null while its clock has no known start. */
  readonly dueAt: Instant | null;
}

export interface CoolingVerdict {
  readonly kind: VerdictKind;
  readonly stage1: CoolingStage;
  readonly stage2: CoolingStage;
  /** When the clock started at the earliest: the last reading at or above the start, else heat off. */
  readonly clockFrom: Instant | null;
  /** true when a reading rose by more than 3 °F (1.7 °C) over the one before: the probe or the pan was changed. */
  readonly rose: boolean;
  readonly actions: readonly CorrectiveAction[];
}

/** 3 °F as a difference, the rise that is questioned. Common practice. */
const QUESTIONED_RISE = { F: 3, C: 3 / 1.8 };

/** When the food passed below a limit: after `after` (null: unknown), not later than `by` (null: not yet). */
interface Crossing {
  readonly after: Instant | null;
  readonly by: Instant | null;
}

function isAbove(timed: TimedReading, limit: TemperatureLimit): boolean {
  return timed.reading.value > limitIn(limit, timed.reading.unit);
}

function isAt(timed: TimedReading, limit: TemperatureLimit): boolean {
  return timed.reading.value === limitIn(limit, timed.reading.unit);
}

/** The crossing that is kindest to nobody: after the last reading above the limit, even if an earlier one was below. */
function lastCrossing(readings: readonly TimedReading[], limit: TemperatureLimit): Crossing {
  const lastAbove = readings.findLastIndex((timed) => isAbove(timed, limit));
  const first = readings[lastAbove + 1];
  const above = readings[lastAbove];
  if (first === undefined) return { after: above?.at ?? null, by: null };
  return { after: isAt(first, limit) ? first.at : (above?.at ?? null), by: first.at };
}

/** The clock: the food leaves the start temperature between its last reading at or above it and the first below. */
function clockStart(readings: readonly TimedReading[], start: TemperatureLimit, heatOffAt: Instant | null): Crossing {
  const firstBelow = readings.findIndex((timed) => !isAbove(timed, start) && !isAt(timed, start));
  const hot = firstBelow === -1 ? readings : readings.slice(0, firstBelow);
  const lastHot = hot.at(-1);
  const below = firstBelow === -1 ? null : (readings[firstBelow]?.at ?? null);
  if (lastHot !== undefined) return { after: lastHot.at, by: isAt(lastHot, start) ? lastHot.at : below };
  // Food that comes off the heat is above the start temperature, so heat off is a safe stand-in: never later than the true start.
  if (heatOffAt !== null && (below === null || heatOffAt <= below)) return { after: heatOffAt, by: below };
  return { after: null, by: below };
}

interface StageInput {
  readonly from: Crossing;
  readonly to: Crossing;
  readonly lastAt: Instant | null;
  readonly now: Instant;
  readonly limitMin: number;
  readonly strict: boolean;
  readonly ruleId: string;
  readonly citation: string;
}

function judgeStage(input: StageInput): CoolingStage {
  const { from, to, lastAt, now, limitMin, strict } = input;
  const stillAbove = to.by === null ? lastAt : to.after;
  // `to.after` is null when the very first reading was already below: then nothing bounds the stage from below.
  const atLeastMin = from.by !== null && stillAbove !== null ? Math.max(0, minutesBetween(from.by, stillAbove)) : 0;
  const atMostMin = to.by !== null && from.after !== null ? minutesBetween(from.after, to.by) : null;
  const strictlyLater = to.by === null || to.after !== to.by;
  const proven = atLeastMin > limitMin || (atLeastMin === limitMin && (strictlyLater || strict) && atLeastMin > 0);
  const dueAt = from.after === null ? null : addMinutes(from.after, limitMin);
  const fixed = { ruleId: input.ruleId, citation: input.citation, limitMin, atLeastMin, atMostMin, dueAt };
  if (proven) return { kind: 'fail', ...fixed };
  if (to.by !== null) {
    const inTime = atMostMin !== null && (strict ? atMostMin < limitMin : atMostMin <= limitMin);
    return { kind: inTime ? 'pass' : 'undetermined', ...fixed };
  }
  const knownFrom = from.after ?? from.by;
  if (knownFrom === null) return { kind: 'undetermined', ...fixed };
  return { kind: minutesBetween(knownFrom, now) > limitMin ? 'overdue' : 'inProgress', ...fixed };
}

const WORST_FIRST: readonly VerdictKind[] = ['fail', 'overdue', 'undetermined', 'inProgress', 'pass'];

function worst(first: VerdictKind, second: VerdictKind): VerdictKind {
  return WORST_FIRST.find((kind) => kind === first || kind === second) ?? first;
}

function actionsFor(kind: VerdictKind, stage1: CoolingStage, rule: CoolingRule): readonly CorrectiveAction[] {
  switch (kind) {
    case 'fail':
      return ['discard'];
    case 'undetermined':
      return ['personInCharge', 'discard'];
    case 'overdue':
    case 'inProgress':
      // Once stage 1 is over a reheat no longer rescues the batch.
      return rule.corrective.filter((action) => action === 'faster' || (action === 'reheat' && stage1.kind === 'inProgress'));
    case 'pass':
      return [];
  }
}

function roseBetween(readings: readonly TimedReading[]): boolean {
  return readings.some((timed, index) => {
    const before = readings[index - 1];
    return before?.reading.unit === timed.reading.unit && timed.reading.value - before.reading.value > QUESTIONED_RISE[timed.reading.unit];
  });
}

/**
 * Judges two-stage cooling from readings of the warmest point, taken whenever somebody took them.
 *
 * The true crossing times are only known to lie between readings, so a stage passes when even the longest possible time is
 * within the limit, and fails when even the shortest is not. Anything else is not decided.
 * `heatOffAt` stands in for a missing hot reading; null when it was not recorded.
 * Source: the rule's own (FDA Food Code 2022, 3-501.14 and its Annex 3 examples); the bracket method is ours.
 */
export function coolingVerdict(input: {
  readonly readings: readonly TimedReading[];
  readonly heatOffAt: Instant | null;
  readonly rule: CoolingRule;
  readonly now: Instant;
}): CoolingVerdict {
  const { rule, heatOffAt, now } = input;
  const readings = inOrder(input.readings);
  const lastAt = readings.at(-1)?.at ?? null;
  const start = clockStart(readings, rule.start, heatOffAt);
  const mid = lastCrossing(readings, rule.mid);
  const end = lastCrossing(readings, rule.end);
  const stage1 = judgeStage({
    from: start,
    to: mid,
    lastAt,
    now,
    limitMin: rule.midWithinMin,
    strict: rule.strict,
    ruleId: rule.midSource.id,
    citation: rule.midSource.citation,
  });
  const from2 = rule.basis === 'total' ? start : mid;
  const waiting = rule.basis === 'further' && mid.by === null;
  const judged2 = judgeStage({
    from: from2,
    to: end,
    lastAt,
    now,
    limitMin: rule.endWithinMin,
    strict: rule.strict,
    ruleId: rule.endSource.id,
    citation: rule.endSource.citation,
  });
  const stage2: CoolingStage = waiting && stage1.kind !== 'undetermined' ? { ...judged2, kind: 'inProgress', dueAt: null } : judged2;
  const kind = worst(stage1.kind, stage2.kind);
  return { kind, stage1, stage2, clockFrom: start.after, rose: roseBetween(readings), actions: actionsFor(kind, stage1, rule) };
}
