import { addMinutes } from '../quantity/index';
import type { Instant } from '../quantity/index';
import { cookedFoodOf } from '../safety/index';
import type { RuleBook } from '../safety/index';
import type { Soup } from '../soup/index';
import type { Purpose } from './event';
import type { BatchRecord, DayState } from './dayState';
import { coolingReadings, judgeBatch } from './judge';
import type { BatchVerdicts } from './judge';

/** A temperature somebody has to take, and by when. */
export interface DueReading {
  readonly batchId: string;
  readonly purpose: Purpose;
  readonly dueAt: Instant;
  /** The rule's own deadline, when that is what makes it due; null for a routine check. */
  readonly deadlineRuleId: string | null;
}

/** While it cooks: at the end of what heats it last, as the card has it; once it is off the heat without proof, at once. */
function cookDue(batch: BatchRecord, soup: Soup | undefined, { cook }: BatchVerdicts): DueReading | null {
  // Plants are proven by their first reading in the well.
  if (soup === undefined || cook === null || cook.kind === 'pass' || cook.kind === 'fail' || cookedFoodOf(soup) === 'plant') return null;
  const step = soup.steps.findLast((one) => one.heat !== 'off');
  const record = step === undefined ? undefined : batch.steps[step.id];
  if (step === undefined || record === undefined) return null;
  const dueAt = cook.kind === 'overdue' ? (record.doneAt ?? record.startedAt) : addMinutes(record.startedAt, step.duration.lowMin);
  return { batchId: batch.batchId, purpose: 'cook', dueAt, deadlineRuleId: cook.ruleId };
}

/** The next reading of a cooling: the rule's deadline, or the routine where that comes first. `since` is when it began. */
function coolingDue(batch: BatchRecord, { cooling }: BatchVerdicts, purpose: Purpose, since: Instant): DueReading | null {
  const { batchId } = batch;
  if (cooling === null || cooling.current === null || cooling.kind === 'fail' || cooling.kind === 'pass') return null;
  const { current } = cooling;
  const last = coolingReadings(batch).at(-1);
  const routine = last === undefined ? since : Math.max(since, addMinutes(last.at, current.checkEveryMin));
  const deadline = current.to.kind === 'temperature' ? current.dueAt : null;
  return deadline !== null && deadline <= routine
    ? { batchId, purpose, dueAt: deadline, deadlineRuleId: current.ruleId }
    : { batchId, purpose, dueAt: routine, deadlineRuleId: null };
}

/** The next check of what has to stay hot. */
function hotDue({ batchId }: BatchRecord, { hotHold }: BatchVerdicts): DueReading | null {
  return hotHold === null ? null : { batchId, purpose: 'hotHold', dueAt: hotHold.dueAt, deadlineRuleId: null };
}

function sooner(one: DueReading | null, other: DueReading | null): DueReading | null {
  return one === null || (other !== null && other.dueAt < one.dueAt) ? other : one;
}

function dueOf(batch: BatchRecord, soup: Soup | undefined, book: RuleBook, now: Instant): DueReading | null {
  const { stage, batchId } = batch;
  const verdicts = judgeBatch(batch, soup, book, now);
  if (batch.timeControl !== null) {
    // The rule asks for its temperature at the start and for nothing after.
    return verdicts.timeControl?.kind === 'overdue' ? { batchId, purpose: 'timeControl', dueAt: batch.timeControl.since, deadlineRuleId: batch.timeControl.ruleId } : null;
  }
  switch (stage.kind) {
    case 'cooling':
      // Where no rule has a number a reading is still wanted at the start: it is what anybody could go by.
      return verdicts.cooling?.current == null
        ? coolingReadings(batch).some((reading) => reading.at >= stage.since)
          ? null
          : { batchId, purpose: 'cool', dueAt: stage.since, deadlineRuleId: null }
        : coolingDue(batch, verdicts, 'cool', stage.since);
    case 'holding':
      return hotDue(batch, verdicts);
    case 'stored': {
      const cooling = soup?.served === 'cold' ? coolingDue(batch, verdicts, 'coldHold', stage.since) : null;
      return cooling ?? (verdicts.coldHold === null ? null : { batchId, purpose: 'coldHold', dueAt: verdicts.coldHold.dueAt, deadlineRuleId: null });
    }
    case 'reheating':
      return verdicts.reheat === null || verdicts.reheat.kind === 'pass'
        ? null
        : { batchId, purpose: 'reheat', dueAt: verdicts.reheat.dueAt ?? addMinutes(stage.since, REHEAT_CHECK_MIN), deadlineRuleId: verdicts.reheat.ruleId };
    case 'finished':
      return soup?.served === 'cold' ? coolingDue(batch, verdicts, 'cool', stage.at) : sooner(cookDue(batch, soup, verdicts), hotDue(batch, verdicts));
    case 'cooking':
      return soup?.served === 'cold' ? null : cookDue(batch, soup, verdicts);
    case 'used':
    case 'discarded':
      return null;
  }
}

/** Where the rule says "rapidly" and no time: a reading is wanted after an hour. Common practice. */
const REHEAT_CHECK_MIN = 60;

/** Readings due, soonest first. */
export function dueReadings(day: DayState, soupById: ReadonlyMap<string, Soup>, book: RuleBook, now: Instant): readonly DueReading[] {
  return Object.values(day.batches)
    .flatMap((batch) => {
      const due = dueOf(batch, soupById.get(batch.soupId), book, now);
      return due === null ? [] : [due];
    })
    .sort((left, right) => left.dueAt - right.dueAt);
}
