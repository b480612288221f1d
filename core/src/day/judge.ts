import { minutesBetween } from '../quantity/index';
import type { Instant } from '../quantity/index';
import { coolingVerdict, cookRuleFor, cookVerdict, cookedFoodOf, holdVerdict, reheatVerdict, rulesAt, timeControlVerdict, worstOf } from '../safety/index';
import type { CoolRule, CoolingEvents, CoolingVerdict, HeatVerdict, HoldVerdict, RuleBook, TimeControlVerdict, VerdictKind } from '../safety/index';
import type { Soup } from '../soup/index';
import type { Purpose } from './event';
import type { BatchRecord, Hold, ReadingRecord } from './dayState';

/** A batch in pans is as cold as its slowest pan: each has a verdict of its own, and the batch the worst. */
export interface PanVerdict {
  readonly pan: number;
  readonly verdict: CoolingVerdict;
}

/** A stretch of hot holding with its verdict: as it stands, or as it ended. */
export interface HeldVerdict {
  readonly hold: Hold;
  readonly verdict: HoldVerdict;
}

export interface BatchVerdicts {
  readonly cook: HeatVerdict | null;
  readonly cooling: CoolingVerdict | null;
  /** The rules it was cooled by: those in force when it began. */
  readonly coolingRules: readonly CoolRule[];
  readonly pans: readonly PanVerdict[];
  /** Of where it is held, or stands, now. */
  readonly hotHold: HoldVerdict | null;
  /** Of every stretch of hot holding there was, the last one too, in their order. */
  readonly held: readonly HeldVerdict[];
  readonly coldHold: HoldVerdict | null;
  readonly reheat: HeatVerdict | null;
  readonly timeControl: TimeControlVerdict | null;
}

/**
 * When the heat went off: the end of the last heated step, if it was ticked; one that was left out heated nothing. Nothing later may stand in for it: that
 * would be kinder.
 */
export function heatOffAt(batch: BatchRecord, soup: Soup | undefined): Instant | null {
  const lastHeated = soup?.steps.findLast((step) => step.heat !== 'off' && batch.steps[step.id]?.skipped == null);
  return lastHeated === undefined ? null : (batch.steps[lastHeated.id]?.doneAt ?? null);
}

function readingsFor(batch: BatchRecord, purposes: readonly Purpose[], since: Instant): readonly ReadingRecord[] {
  return batch.readings.filter((record) => purposes.includes(record.purpose) && record.at >= since);
}

/** When cooling began anew: the last reheat, if it was cooled again since. null = it was cooled once, or never. */
function restartedAt({ reheatingSince, coolingSegments }: BatchRecord): Instant | null {
  return reheatingSince !== null && reheatingSince <= (coolingSegments.at(-1)?.since ?? 0) ? reheatingSince : null;
}

/**
 * Readings that bear on cooling: cooking and hot holding before it prove that the food was still hot, a reheat before it starts anew; of a soup that was never
 * hot those in the cold prove that it got there.
 */
export function coolingReadings(batch: BatchRecord): readonly ReadingRecord[] {
  return readingsFor(batch, batch.coolingSegments.length === 0 ? ['cool', 'coldHold'] : ['cook', 'cool', 'hotHold', 'reheat'], restartedAt(batch) ?? batch.startedAt);
}

const IN_COLD_PLACE = ['shallowPans', 'blast', 'walkIn'];

const DAY_MIN = 24 * 60;

/** A stretch of hot holding by the rule that was in force when it began; one that is over is judged as it ended. null = no rule is on. */
function judgeHold(batch: BatchRecord, { since, until, placeId }: Hold, book: RuleBook, now: Instant): HoldVerdict | null {
  const rule = rulesAt(book, since).hotHold;
  if (rule === null) return null;
  const end = until === null ? now : Math.min(now, until);
  const readings = readingsFor(batch, ['cook', 'hotHold'], since).filter(({ at }) => at <= end);
  const judged = holdVerdict({ readings, since, rule, now: end });
  // What nobody has carried anywhere, nor read again, stays overdue: checks are missed on its day, not on every day after.
  const verdict = { ...judged, missed: judged.missed.filter(({ dueAt, readAt }) => readAt !== null || minutesBetween(batch.startedAt, dueAt) <= DAY_MIN) };
  // What stood so long that a check was due, and has gone into something else since, nobody can read any more.
  const isGone = batch.stage.kind === 'used' && until === batch.stage.at && placeId === null;
  return isGone && verdict.kind === 'overdue' ? { ...verdict, kind: 'undetermined', actions: ['personInCharge', 'discard'] } : verdict;
}

/** Every stretch in which it had to stay hot. What went on from its kettle before anybody had to read it has nothing to tell, and what is never hot no stretch. */
function judgeHolds(batch: BatchRecord, isCold: boolean, book: RuleBook, now: Instant): readonly HeldVerdict[] {
  return batch.holds.flatMap((hold): HeldVerdict[] => {
    const stood = hold.placeId === null;
    if (stood && isCold) return [];
    const verdict = judgeHold(batch, hold, book, now);
    return verdict === null || (stood && hold.until !== null && verdict.kind === 'inProgress') ? [] : [{ hold, verdict }];
  });
}

/** When it left the heat for its cooling: out of the well if it was held hot there and nothing says that it was not; null = it was not. */
function leftWellAt(batch: BatchRecord, coolingStarted: Instant | null, book: RuleBook): Instant | null {
  const hold = batch.holds.find(({ until, placeId }) => placeId !== null && until !== null && until === coolingStarted);
  const verdict = hold === undefined || coolingStarted === null ? null : judgeHold(batch, hold, book, coolingStarted);
  return verdict?.kind === 'pass' && verdict.outAtMostMin === null ? coolingStarted : null;
}

/** What was tapped about a batch's cooling since it last began. */
function coolingEvents(batch: BatchRecord, soup: Soup | undefined, book: RuleBook): CoolingEvents {
  const restart = restartedAt(batch);
  const segments = batch.coolingSegments.filter((segment) => segment.since >= (restart ?? 0));
  const inCold = segments.find((segment) => segment.method !== null && IN_COLD_PLACE.includes(segment.method))?.since ?? null;
  const stored = batch.storedSince !== null && batch.storedSince >= (restart ?? 0) ? batch.storedSince : null;
  const coolingStarted = segments[0]?.since ?? null;
  // The end of the first cooking says nothing of the heat that a reheat put into it.
  const heatOff = restart === null ? heatOffAt(batch, soup) : null;
  return {
    heatOff,
    leftHeat: leftWellAt(batch, coolingStarted, book) ?? heatOff,
    coolingStarted,
    inColdPlace: inCold === null ? stored : stored === null ? inCold : Math.min(inCold, stored),
    // The earliest there is: the batch began when its first thing was opened or put together.
    combined: batch.startedAt,
    received: null,
  };
}

/** The batch as it stood when it was heated again: what was cooled before that has a verdict of its own. */
function beforeRestart(batch: BatchRecord, restart: Instant): BatchRecord {
  return {
    ...batch,
    reheatingSince: null,
    storedSince: batch.storedSince !== null && batch.storedSince < restart ? batch.storedSince : null,
    coolingSegments: batch.coolingSegments.filter((segment) => segment.since < restart),
    readings: batch.readings.filter((reading) => reading.at < restart),
  };
}

/** The pans it stands in, from the last time it was portioned; none = one vessel. */
function pansOf(batch: BatchRecord): { readonly since: Instant; readonly count: number } | null {
  const segment = batch.coolingSegments.findLast((one) => one.pans !== null && one.pans > 1);
  return segment === undefined ? null : { since: segment.since, count: segment.pans ?? 1 };
}

const NOT_SHOWN: readonly VerdictKind[] = ['fail', 'undetermined', 'overdue'];

function judgeCooling(batch: BatchRecord, soup: Soup | undefined, book: RuleBook, rules: readonly CoolRule[], now: Instant): Pick<BatchVerdicts, 'cooling' | 'pans'> {
  const { reheatingSince } = batch;
  const restart = restartedAt(batch);
  // Heated and not cooled again since: the cooling ended there, and the heat that went into it says nothing of how it cooled.
  if (restart === null && reheatingSince !== null) return judgeCooling(beforeRestart(batch, reheatingSince), soup, book, rules, Math.min(now, reheatingSince));
  if (restart !== null) {
    // Heating it again does not undo what it failed before: only a cooling that was still in its window, or had passed, may begin anew.
    const before = judgeCooling(beforeRestart(batch, restart), soup, book, rules, restart);
    if (before.cooling !== null && NOT_SHOWN.includes(before.cooling.kind) && batch.coolingSegments.some((segment) => segment.since < restart)) return before;
  }
  const readings = coolingReadings(batch);
  const events = coolingEvents(batch, soup, book);
  const judge = (some: readonly ReadingRecord[]): CoolingVerdict => {
    const verdict = coolingVerdict({ readings: some, events, rules, now });
    // It starts over once: what was heated for that already is cooled faster, or thrown away.
    return restart === null ? verdict : { ...verdict, actions: verdict.actions.filter((action) => action !== 'reheat') };
  };
  const whole = judge(readings);
  const pans = pansOf(batch);
  // Readings that name no pan are of the warmest, wherever that is: they count for every pan.
  if (pans === null || readings.every((reading) => reading.pan === null)) return { cooling: whole, pans: [] };
  const verdicts = Array.from({ length: pans.count }, (_, index): PanVerdict => {
    const pan = index + 1;
    return { pan, verdict: judge(readings.filter((reading) => reading.pan === null || reading.pan === pan)) };
  });
  const kind = worstOf(verdicts.map(({ verdict }) => verdict.kind));
  const passed = (verdict: CoolingVerdict): number => verdict.stages.filter((stage) => stage.kind === 'pass').length;
  const [slowest] = verdicts.filter(({ verdict }) => verdict.kind === kind).sort((left, right) => passed(left.verdict) - passed(right.verdict));
  return { cooling: slowest?.verdict ?? whole, pans: verdicts };
}

/** Every verdict that applies to a batch at an instant, each by the rules that were in force when what it judges began. What never happened has none. */
export function judgeBatch(batch: BatchRecord, soup: Soup | undefined, book: RuleBook, now: Instant): BatchVerdicts {
  const { coolingSegments, storedSince, reheatingSince, stage, timeControl } = batch;
  const isCold = soup?.served === 'cold';
  // Never hot: its clock runs from when its ingredients were put together, whether or not anybody says that it is being cooled.
  const coolingFrom = coolingSegments[0]?.since ?? (isCold ? batch.startedAt : null);
  const food = isCold ? 'ambient' : 'cooked';
  const coolingRules = coolingFrom === null ? [] : rulesAt(book, coolingFrom).cooling[food];
  const cooled = coolingFrom === null ? { cooling: null, pans: [] } : judgeCooling(batch, soup, book, coolingRules, now);
  const held = judgeHolds(batch, isCold, book, now);
  const coldRule = storedSince === null ? null : rulesAt(book, storedSince).coldHold;
  /** Minutes it may have been out of temperature control before it was taken out for good: where every minute counts these do. */
  const outBefore = (until: Instant): number => {
    const cold =
      storedSince === null || coldRule === null ? null : holdVerdict({ readings: readingsFor(batch, ['coldHold'], storedSince), since: storedSince, rule: coldRule, now: until });
    return [...held.map(({ verdict }) => verdict), ...(cold === null ? [] : [cold])].reduce((sum, verdict) => sum + (verdict.outAtMostMin ?? 0), 0);
  };
  const isHeld = (stage.kind === 'holding' || (stage.kind === 'finished' && !isCold)) && timeControl === null;
  const reheatRule = reheatingSince === null ? null : rulesAt(book, reheatingSince).reheat.own;
  const cookedAs = soup === undefined ? null : cookedFoodOf(soup);
  const cookRule = cookedAs === null ? null : cookRuleFor(cookedAs, rulesAt(book, batch.startedAt));
  const tphc = timeControl === null ? undefined : rulesAt(book, timeControl.since).timeControl.find((rule) => rule.id === timeControl.ruleId);
  return {
    cook:
      cookRule === null
        ? null
        : cookVerdict({
            // Every one of them is of the coldest point: in the pot, in the well, and when it is heated again.
            readings: readingsFor(batch, ['cook', 'hotHold', 'reheat'], batch.startedAt),
            rule: cookRule,
            // Plants are cooked for hot holding only: their first reading in the well proves them, and cooling asks nothing of it.
            endedAt: cookedAs === 'plant' ? null : heatOffAt(batch, soup),
            isPast: batch.coolingSegments.length > 0 || batch.storedSince !== null || stage.kind === 'used',
          }),
    ...cooled,
    coolingRules,
    hotHold: isHeld ? (held.at(-1)?.verdict ?? null) : null,
    held,
    coldHold:
      stage.kind !== 'stored' || timeControl !== null || storedSince === null || coldRule === null
        ? null
        : holdVerdict({ readings: readingsFor(batch, ['coldHold'], storedSince), since: storedSince, rule: coldRule, now }),
    reheat:
      reheatingSince === null || reheatRule === null
        ? null
        : reheatVerdict({ readings: readingsFor(batch, ['reheat'], reheatingSince), startedAt: reheatingSince, rule: reheatRule, now }),
    timeControl:
      timeControl === null || tphc === undefined
        ? null
        : timeControlVerdict({
            readings: batch.readings,
            takenOutAt: timeControl.since,
            outBeforeMin: outBefore(timeControl.since),
            rule: tphc,
            endedAt: timeControl.endedAt ?? (stage.kind === 'discarded' ? stage.at : null),
            now,
          }),
  };
}
