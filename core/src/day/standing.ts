import type { Instant } from '../quantity/index';
import type { CoolingVerdict, CorrectiveAction, HeatVerdict, HoldVerdict, RuleBook, TimeControlVerdict, VerdictKind } from '../safety/index';
import type { Soup } from '../soup/index';
import type { BatchRecord, CorrectiveRecord, DayState, DecisionRecord } from './dayState';
import { judgeBatch } from './judge';
import type { BatchVerdicts } from './judge';

/** The one verdict that counts for a batch where it is, with what it is about. */
export type Judged =
  | { readonly purpose: 'cook'; readonly verdict: HeatVerdict }
  | { readonly purpose: 'cool'; readonly verdict: CoolingVerdict }
  | { readonly purpose: 'hotHold' | 'coldHold'; readonly verdict: HoldVerdict }
  | { readonly purpose: 'reheat'; readonly verdict: HeatVerdict }
  | { readonly purpose: 'timeControl'; readonly verdict: TimeControlVerdict };

export type Standing = Judged & {
  readonly kind: VerdictKind;
  readonly ruleId: string;
  readonly citation: string;
  readonly actions: readonly CorrectiveAction[];
  readonly verdicts: BatchVerdicts;
  /** What the person in charge decided about this rule; null = nobody did. It never makes a pass of what was not proven. */
  readonly decision: DecisionRecord | null;
};

/** Hot holding that went wrong for good before it was carried on: being cooled or heated since does not undo it. What was out only as long as is allowed is saved. */
function spoiled({ held }: BatchVerdicts): readonly Judged[] {
  return held
    .filter(({ verdict: { kind, actions } }) => kind === 'undetermined' || (kind === 'fail' && !actions.includes('reheatHot')))
    .map(({ verdict }): Judged => ({ purpose: 'hotHold', verdict }));
}

const WORST_FIRST: readonly VerdictKind[] = ['fail', 'undetermined', 'overdue'];

/**
 * What is wrong counts before what is on its way: a failed cooling, or cooking that nobody proved, stays the batch's standing wherever it was carried. Else what
 * is about where it is now.
 */
function judged(batch: BatchRecord, soup: Soup | undefined, verdicts: BatchVerdicts): Judged | null {
  const { cook, cooling, hotHold, coldHold, reheat, timeControl } = verdicts;
  const { kind } = batch.stage;
  const cooled: Judged | null = cooling === null ? null : { purpose: 'cool', verdict: cooling };
  const cooked: Judged | null = cook === null ? null : { purpose: 'cook', verdict: cook };
  const here: readonly (Judged | null)[] = [
    timeControl === null ? null : { purpose: 'timeControl', verdict: timeControl },
    kind === 'cooling' || kind === 'discarded' || (soup?.served === 'cold' && cooling?.kind !== 'pass') ? cooled : null,
    kind === 'reheating' && reheat !== null ? { purpose: 'reheat', verdict: reheat } : null,
    hotHold === null ? null : { purpose: 'hotHold', verdict: hotHold },
    coldHold === null ? null : { purpose: 'coldHold', verdict: coldHold },
    // Cooking is told of from its first reading on: before that there is nothing to say.
    (kind === 'cooking' || kind === 'finished') && batch.readings.some((reading) => reading.purpose === 'cook') ? cooked : null,
  ];
  for (const wrong of WORST_FIRST) {
    const found = [...here, ...spoiled(verdicts), cooled, cooked].find((one) => one?.verdict.kind === wrong);
    if (found != null) return found;
  }
  return here.find((one) => one !== null) ?? null;
}

/** The rule a judgement stands on. */
function ruleOf({ purpose, verdict }: Judged): { readonly ruleId: string; readonly citation: string } {
  if (purpose !== 'cool') return { ruleId: verdict.ruleId, citation: verdict.citation };
  return { ruleId: verdict.current?.ruleId ?? '', citation: verdict.current?.citation ?? '' };
}

/** Where a batch's temperature stands; null while nothing of it is judged. */
export function standingOf(batch: BatchRecord, soup: Soup | undefined, book: RuleBook, now: Instant): Standing | null {
  const verdicts = judgeBatch(batch, soup, book, now);
  const one = judged(batch, soup, verdicts);
  if (one === null) return null;
  const rule = ruleOf(one);
  const decision = batch.decisions.findLast((made) => made.ruleId === rule.ruleId) ?? null;
  return { ...one, kind: one.verdict.kind, ...rule, actions: one.verdict.actions, verdicts, decision };
}

/** Something about a batch that somebody still has to do. */
export interface OpenAction {
  readonly batchId: string;
  readonly ruleId: string;
  /** act = nothing was done about it yet; followUp = something was, and no reading shows what came of it; decide = it waits for the person in charge. */
  readonly kind: 'act' | 'followUp' | 'decide';
  readonly since: Instant;
  readonly corrective: CorrectiveRecord | null;
  /** Open for so long that the lead has to hear of it wherever he is. */
  readonly escalated: boolean;
}

/** So long an open action may wait before it is the lead's. Minutes; a design choice. */
export const ESCALATE_MIN = 15;

const ASKS_NO_READING: readonly CorrectiveAction[] = ['discard', 'personInCharge', 'relabel'];

function openOf(batch: BatchRecord, soup: Soup | undefined, book: RuleBook, now: Instant): Omit<OpenAction, 'escalated'> | null {
  const { batchId, stage } = batch;
  if (stage.kind === 'discarded') return null;
  const standing = standingOf(batch, soup, book, now);
  const corrective = batch.correctives.at(-1) ?? null;
  const refused = standing !== null && (standing.kind === 'fail' || standing.kind === 'undetermined');
  const ruleId = corrective?.ruleId ?? standing?.ruleId ?? '';
  if (standing?.decision?.keep === true && standing.kind !== 'fail') return null;
  if (corrective?.action === 'personInCharge' && !batch.decisions.some((made) => made.at >= corrective.at))
    return { batchId, ruleId, kind: 'decide', since: corrective.at, corrective };
  if (corrective !== null && !ASKS_NO_READING.includes(corrective.action) && !batch.readings.some((reading) => reading.at > corrective.at)) {
    return { batchId, ruleId, kind: 'followUp', since: corrective.at, corrective };
  }
  if (standing === null || !refused) return null;
  const since = standing.purpose === 'cool' ? (standing.verdict.current?.dueAt ?? now) : (batch.readings.at(-1)?.at ?? now);
  return { batchId, ruleId: standing.ruleId, kind: 'act', since: Math.min(since, now), corrective };
}

/** Everything open, the longest first. It nags until it is closed by what was done and a reading after it, by a decision, or by discarding. */
export function openActions(day: DayState, soupById: ReadonlyMap<string, Soup>, book: RuleBook, now: Instant): readonly OpenAction[] {
  return Object.values(day.batches)
    .flatMap((batch) => {
      const open = openOf(batch, soupById.get(batch.soupId), book, now);
      return open === null ? [] : [{ ...open, escalated: now - open.since > ESCALATE_MIN * 60_000 }];
    })
    .sort((left, right) => left.since - right.since);
}
