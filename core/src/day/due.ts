import { addMinutes } from '../quantity/index';
import type { Instant } from '../quantity/index';
import type { RulePack } from '../safety/index';
import type { Soup } from '../soup/index';
import type { Purpose } from './event';
import type { BatchRecord, DayState } from './fold';
import { coolingReadings, judgeBatch } from './judge';

/** A temperature somebody has to take, and by when. */
export interface DueReading {
  readonly batchId: string;
  readonly purpose: Purpose;
  readonly dueAt: Instant;
  /** The rule's own deadline, when that is what makes it due; null for a routine check. */
  readonly deadlineRuleId: string | null;
}

function dueOf(batch: BatchRecord, soup: Soup | undefined, pack: RulePack, now: Instant): DueReading | null {
  const { stage, batchId } = batch;
  const verdicts = judgeBatch(batch, soup, pack, now);
  switch (stage.kind) {
    case 'cooling': {
      const { cooling } = verdicts;
      if (cooling === null) return { batchId, purpose: 'cool', dueAt: stage.since, deadlineRuleId: null };
      if (cooling.kind === 'fail' || cooling.kind === 'pass') return null;
      const last = coolingReadings(batch).at(-1);
      const stageNow = cooling.stage1.kind === 'pass' ? cooling.stage2 : cooling.stage1;
      const every = cooling.stage1.kind === 'pass' ? pack.cooling.checkEveryMin.toEnd : pack.cooling.checkEveryMin.toMid;
      const routine = last === undefined ? stage.since : Math.max(stage.since, addMinutes(last.at, every));
      const deadline = stageNow.dueAt;
      return deadline !== null && deadline <= routine
        ? { batchId, purpose: 'cool', dueAt: deadline, deadlineRuleId: stageNow.ruleId }
        : { batchId, purpose: 'cool', dueAt: routine, deadlineRuleId: null };
    }
    case 'holding':
      return verdicts.hotHold === null ? null : { batchId, purpose: 'hotHold', dueAt: verdicts.hotHold.dueAt, deadlineRuleId: null };
    case 'stored':
      return verdicts.coldHold === null ? null : { batchId, purpose: 'coldHold', dueAt: verdicts.coldHold.dueAt, deadlineRuleId: null };
    case 'reheating':
      return verdicts.reheat === null || verdicts.reheat.kind === 'pass'
        ? null
        : { batchId, purpose: 'reheat', dueAt: verdicts.reheat.dueAt, deadlineRuleId: verdicts.reheat.ruleId };
    case 'cooking':
    case 'finished':
    case 'discarded':
      return null;
  }
}

/** Readings due, soonest first. */
export function dueReadings(day: DayState, soupById: ReadonlyMap<string, Soup>, pack: RulePack, now: Instant): readonly DueReading[] {
  return Object.values(day.batches)
    .flatMap((batch) => {
      const due = dueOf(batch, soupById.get(batch.soupId), pack, now);
      return due === null ? [] : [due];
    })
    .sort((left, right) => left.dueAt - right.dueAt);
}
