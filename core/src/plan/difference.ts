import type { DayPlan } from './dayPlan';

/** What differs between two plans, for whoever has to decide between them. */
export type PlanChange =
  | {
      readonly kind: 'moved';
      readonly batchId: string;
      readonly byMin: number;
      readonly readyMin: number;
      readonly lateMin: number;
      readonly wasLateMin: number;
      /** How much later it begins, where that is another thing; null = it moves as one. */
      readonly beginsByMin: number | null;
    }
  /** Ready as before, but begun sooner or later. */
  | { readonly kind: 'begins'; readonly batchId: string; readonly byMin: number }
  | { readonly kind: 'vessel'; readonly batchId: string; readonly fromId: string; readonly toId: string }
  | { readonly kind: 'added'; readonly batchId: string }
  /** No longer asked for, or asked for and without a place. */
  | { readonly kind: 'gone' | 'unplaced'; readonly batchId: string; readonly name: string };

export interface PlanDifference {
  readonly changes: readonly PlanChange[];
  /** Minutes late in all, and of washing: after less before. */
  readonly lateMin: number;
  readonly washMin: number;
  /** Batches that are as they were. */
  readonly same: number;
}

/** Going to another vessel is as much as being moved by so many minutes: what the planner reckons too. */
export const ANOTHER_VESSEL_MIN = 10;

/** A batch that is ready as before and begins less than so much sooner or later is as it was. A design choice. */
const BEGINS_MIN = 5;
/** One that is ready at another time anyway has to begin so much further away for it to be said. A design choice. */
const APART_MIN = 30;

/** From one plan to another. Later by its end; the largest changes first. */
export function planDifference(before: DayPlan, after: DayPlan): PlanDifference {
  const was = new Map(before.batches.map((batch) => [batch.id, batch]));
  const is = new Set(after.batches.map((batch) => batch.id));
  const changes = after.batches.flatMap((batch): PlanChange[] => {
    const old = was.get(batch.id);
    if (old === undefined) return [{ kind: 'added', batchId: batch.id }];
    const byMin = batch.readyMin - old.readyMin;
    const beginsByMin = (batch.steps[0]?.startMin ?? 0) - (old.steps[0]?.startMin ?? 0);
    const isMoved = byMin !== 0 || batch.lateMin !== old.lateMin;
    return [
      ...(old.vesselId !== null && batch.vesselId !== null && old.vesselId !== batch.vesselId
        ? [{ kind: 'vessel' as const, batchId: batch.id, fromId: old.vesselId, toId: batch.vesselId }]
        : []),
      ...(!isMoved && Math.abs(beginsByMin) >= BEGINS_MIN ? [{ kind: 'begins' as const, batchId: batch.id, byMin: beginsByMin }] : []),
      ...(isMoved
        ? [
            {
              kind: 'moved' as const,
              batchId: batch.id,
              byMin,
              readyMin: batch.readyMin,
              lateMin: batch.lateMin,
              wasLateMin: old.lateMin,
              beginsByMin: Math.abs(beginsByMin - byMin) >= APART_MIN ? beginsByMin : null,
            },
          ]
        : []),
    ];
  });
  const unplaced = new Set(after.findings.flatMap((found) => (found.code === 'plan.unplaced' ? [found.batchId] : [])));
  const gone = before.batches
    .filter((batch) => !is.has(batch.id))
    .map((batch): PlanChange => ({ kind: unplaced.has(batch.id) ? 'unplaced' : 'gone', batchId: batch.id, name: batch.name }));
  // What came or went before all of it; of a move and another vessel that weigh the same, the move. When one begins counts a tenth beside when it is ready, and
  // where nothing else of it moves it is told last.
  const size = (change: PlanChange): number => {
    if (change.kind === 'moved') return Math.abs(change.byMin) + Math.abs(change.beginsByMin ?? 0) / 10 + 1000 * Math.abs(change.lateMin - change.wasLateMin);
    if (change.kind === 'begins') return Math.abs(change.byMin) / 1000;
    return change.kind === 'vessel' ? ANOTHER_VESSEL_MIN - 0.5 : 500;
  };
  const touched = new Set(changes.map((change) => change.batchId));
  return {
    changes: [...changes, ...gone].sort((left, right) => size(right) - size(left)),
    lateMin: after.objective.lateMin - before.objective.lateMin,
    washMin: after.objective.changeoverMin - before.objective.changeoverMin,
    same: after.batches.filter((batch) => !touched.has(batch.id)).length,
  };
}
