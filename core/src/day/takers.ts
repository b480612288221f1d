import { addMinutes } from '../quantity/index';
import type { Instant } from '../quantity/index';
import type { DayPlan } from '../plan/index';
import { soupOf } from './hands';
import type { BatchRecord, DayState } from './dayState';
import type { Soup } from '../soup/index';

export interface Taker {
  readonly batchId: string;
  readonly name: string;
  readonly begun: boolean;
}

/**
 * The batches what is out of its kettle goes into, by their cards and the plan: those that ask for it, are not past the step it goes in at, and come to that before
 * the next batch of the same is out. `midnight` is the instant the plan's minutes count from. The first to take it first.
 */
export function takersOf(batch: BatchRecord, plan: DayPlan | null, day: DayState, soupById: ReadonlyMap<string, Soup>, midnight: Instant): readonly Taker[] {
  const planned = plan?.batches ?? [];
  const isOpen = (other: string): boolean => day.batches[other]?.finishedAt == null;
  const nextOut = planned
    .filter((one) => one.soupId === batch.soupId && one.id !== batch.batchId && one.ordinal > batch.ordinal && isOpen(one.id))
    .reduce((soonest, one) => Math.min(soonest, addMinutes(midnight, one.readyMin)), Number.POSITIVE_INFINITY);
  return planned
    .flatMap((one) => {
      const record = day.batches[one.id];
      const soup = record === undefined ? soupById.get(one.soupId) : soupOf(record, soupById);
      const stepId = soup?.ingredients.find((line) => line.componentId === batch.soupId)?.stepId;
      const step = one.steps.find((other) => other.stepId === stepId);
      if (step === undefined || record?.stage.kind === 'discarded') return [];
      const begun = record?.steps[step.stepId];
      // What was done before this was out took from another batch.
      if (begun?.doneAt != null && begun.doneAt < (batch.finishedAt ?? 0)) return [];
      const at = begun?.startedAt ?? addMinutes(midnight, step.startMin);
      return at >= nextOut ? [] : [{ batchId: one.id, name: one.name, begun: record !== undefined, at }];
    })
    .sort((left, right) => left.at - right.at)
    .map(({ batchId, name, begun }) => ({ batchId, name, begun }));
}
