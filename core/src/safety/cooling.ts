import { limitIn, minutesBetween, addMinutes } from '../quantity/index';
import type { Instant, TemperatureLimit } from '../quantity/index';
import type { CoolRule, CoolingStart, CoolingTarget, CorrectiveAction } from './rule';
import { inOrder, worstOf } from './verdict';
import type { TimedReading, VerdictKind } from './verdict';

export interface CoolingStage {
  readonly kind: VerdictKind;
  readonly ruleId: string;
  readonly citation: string;
  readonly to: CoolingTarget;
  readonly limitMin: number;
  /** The stage took at least and at most this long, as far as the readings prove it. `atMostMin` null = no upper bound. */
  readonly atLeastMin: number;
  readonly atMostMin: number | null;
  /** When its clock started at the earliest; null = nobody knows. */
  readonly clockFrom: Instant | null;
  /** The latest instant a reading can still prove this stage; null while its clock has no known start. */
  readonly dueAt: Instant | null;
  readonly checkEveryMin: number;
  /** The readings that enclose its beginning and its end: what the verdict stands on. */
  readonly proof: readonly TimedReading[];
}

/** What would decide a verdict that is open: a reading by a time, the tap that says when the heat went off, or that something was begun. */
export type Wanted =
  | { readonly kind: 'reading'; readonly limit: TemperatureLimit; readonly by: Instant | null }
  | { readonly kind: 'event'; readonly event: 'heatOff' | 'leftHeat' | 'coolingStarted' | 'combined' | 'received' | 'inColdPlace'; readonly by: Instant | null };

export interface CoolingVerdict {
  readonly kind: VerdictKind;
  readonly stages: readonly CoolingStage[];
  /** The stage it stands at: the first that has not passed, else the last. null = no rule applies. */
  readonly current: CoolingStage | null;
  /** When the first clock started at the earliest: the last reading at or above the start, else heat off. */
  readonly clockFrom: Instant | null;
  /** true when a reading rose by more than 3 °F (1.7 °C) over the one before: the probe or the pan was changed. */
  readonly rose: boolean;
  readonly wanted: Wanted | null;
  readonly actions: readonly CorrectiveAction[];
}

/** What was tapped about a batch that cools; null = nobody did, or not yet. */
export interface CoolingEvents {
  /** The end of cooking. Food that comes off the heat is above every start temperature. */
  readonly heatOff: Instant | null;
  /** When it left the heat for good: the end of cooking, or of hot holding in which it was hot throughout. */
  readonly leftHeat: Instant | null;
  readonly coolingStarted: Instant | null;
  readonly inColdPlace: Instant | null;
  /** For food that was never hot: the earliest of ingredients combined or opened. */
  readonly combined: Instant | null;
  readonly received: Instant | null;
}
export const NO_COOLING_EVENTS: CoolingEvents = { heatOff: null, leftHeat: null, coolingStarted: null, inColdPlace: null, combined: null, received: null };

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

function at(instant: Instant | null): Crossing {
  return { after: instant, by: instant };
}

function startOf(from: CoolingStart, readings: readonly TimedReading[], events: CoolingEvents, before: Crossing): Crossing {
  switch (from.kind) {
    case 'falls':
      return clockStart(readings, from.limit, events.heatOff);
    case 'event':
      return at(events[from.event]);
    case 'previous':
      return before;
  }
}

/** The readings a crossing lies between. */
function readingsAt(readings: readonly TimedReading[], { after, by }: Crossing): readonly TimedReading[] {
  return readings.filter((timed) => timed.at === after || timed.at === by);
}

interface StageInput {
  readonly rule: CoolRule;
  readonly from: Crossing;
  readonly to: Crossing;
  readonly readings: readonly TimedReading[];
  readonly now: Instant;
}

function judgeStage({ rule, from, to, readings, now }: StageInput): CoolingStage {
  const { withinMin: limitMin, strict } = rule;
  const isEvent = rule.to.kind === 'event';
  // What nobody has tapped may still have happened: it proves nothing, so a time that ran out is overdue and not failed.
  const stillAbove = isEvent ? to.after : to.by === null ? (readings.at(-1)?.at ?? null) : to.after;
  // `to.after` is null when the very first reading was already below: then nothing bounds the stage from below.
  const atLeastMin = from.by !== null && stillAbove !== null ? Math.max(0, minutesBetween(from.by, stillAbove)) : 0;
  const atMostMin = to.by !== null && from.after !== null ? minutesBetween(from.after, to.by) : null;
  const strictlyLater = to.by === null || to.after !== to.by;
  const proven = atLeastMin > limitMin || (atLeastMin === limitMin && (strictlyLater || strict) && atLeastMin > 0);
  const fixed = {
    ruleId: rule.id,
    citation: rule.citation,
    to: rule.to,
    limitMin,
    atLeastMin,
    atMostMin,
    clockFrom: from.after,
    dueAt: from.after === null ? null : addMinutes(from.after, limitMin),
    checkEveryMin: rule.checkEveryMin,
    proof: [
      ...new Set([
        ...(rule.from.kind === 'event' ? [] : readingsAt(readings, from)),
        ...(isEvent ? [] : readingsAt(readings, to)),
        ...(proven ? readings.filter((timed) => timed.at === stillAbove) : []),
      ]),
    ],
  };
  if (proven) return { kind: 'fail', ...fixed };
  if (to.by !== null) {
    const inTime = atMostMin !== null && (strict ? atMostMin < limitMin : atMostMin <= limitMin);
    return { kind: inTime ? 'pass' : 'undetermined', ...fixed };
  }
  const knownFrom = from.after ?? from.by;
  // Before the stage ahead of it is over nothing is late yet.
  if (rule.from.kind === 'previous' && from.by === null) return { kind: 'inProgress', ...fixed, dueAt: null };
  if (knownFrom === null) return { kind: 'undetermined', ...fixed };
  return { kind: minutesBetween(knownFrom, now) > limitMin ? 'overdue' : 'inProgress', ...fixed };
}

function actionsFor(kind: VerdictKind, first: CoolingStage, corrective: readonly CorrectiveAction[]): readonly CorrectiveAction[] {
  switch (kind) {
    case 'fail':
      return ['discard'];
    case 'undetermined':
      return ['personInCharge', 'discard'];
    case 'overdue':
    case 'inProgress':
      // Once the first stage is over a reheat no longer rescues the batch.
      return corrective.filter((action) => action === 'faster' || (action === 'reheat' && first.kind === 'inProgress'));
    case 'pass':
    case 'notApplicable':
      return [];
  }
}

/** What would decide it: for a stage that is open the reading that ends it; for one whose clock nobody knows the tap that starts it. */
function wantedBy(stage: CoolingStage, rule: CoolRule): Wanted | null {
  if (stage.kind === 'pass' || stage.kind === 'fail') return null;
  if (stage.clockFrom === null && rule.from.kind !== 'previous') return { kind: 'event', event: rule.from.kind === 'event' ? rule.from.event : 'heatOff', by: null };
  if (stage.kind === 'undetermined') return null;
  return rule.to.kind === 'event' ? { kind: 'event', event: rule.to.event, by: stage.dueAt } : { kind: 'reading', limit: rule.to.limit, by: stage.dueAt };
}

function roseBetween(readings: readonly TimedReading[]): boolean {
  return readings.some((timed, index) => {
    const before = readings[index - 1];
    return before?.reading.unit === timed.reading.unit && timed.reading.value - before.reading.value > QUESTIONED_RISE[timed.reading.unit];
  });
}

/**
 * Judges cooling in stages from readings of the warmest point, taken whenever somebody took them.
 *
 * The true crossing times are only known to lie between readings, so a stage passes when even the longest possible time is
 * within the limit, and fails when even the shortest is not. Anything else is not decided. `rules` are the stages in their order; none = not applicable.
 * `events.heatOff` stands in for a missing hot reading; null when it was not recorded.
 * Source: the rules' own (FDA Food Code 2022, 3-501.14 and its Annex 3 examples); the bracket method is ours.
 */
export function coolingVerdict(input: {
  readonly readings: readonly TimedReading[];
  readonly events: CoolingEvents;
  readonly rules: readonly CoolRule[];
  readonly now: Instant;
}): CoolingVerdict {
  const { rules, events, now } = input;
  const readings = inOrder(input.readings);
  const stages: CoolingStage[] = [];
  let before: Crossing = at(null);
  for (const rule of rules) {
    const from = startOf(rule.from, readings, events, before);
    const crossed = rule.to.kind === 'event' ? at(events[rule.to.event]) : lastCrossing(readings, rule.to.limit);
    // Where the first reading is below already, it was still above when its clock started.
    const to = { after: crossed.after ?? (crossed.by === null ? null : from.after), by: crossed.by };
    const stage = judgeStage({ rule, from, to, readings, now });
    // Where the stage before is not decided, one that counts from its end is not either.
    const open = rule.from.kind === 'previous' && stage.kind === 'inProgress' && stages.at(-1)?.kind === 'undetermined';
    stages.push(open ? { ...stage, kind: 'undetermined' } : stage);
    before = to;
  }
  const kind = worstOf(stages.map((stage) => stage.kind));
  const openAt = stages.findIndex((stage) => stage.kind !== 'pass');
  const at0 = openAt === -1 ? stages.length - 1 : openAt;
  const [current, rule, first] = [stages[at0], rules[at0], stages[0]];
  if (current === undefined || rule === undefined || first === undefined) {
    return { kind: 'notApplicable', stages: [], current: null, clockFrom: events.heatOff, rose: roseBetween(readings), wanted: null, actions: [] };
  }
  const corrective = [...new Set(rules.flatMap((one) => one.corrective))];
  return { kind, stages, current, clockFrom: first.clockFrom, rose: roseBetween(readings), wanted: wantedBy(current, rule), actions: actionsFor(kind, first, corrective) };
}
