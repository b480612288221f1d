import type { Station } from '../batch/index';
import { vesselsOf } from '../batch/index';
import type { DayPlan, Pin, PlannedBatch } from './dayPlan';

/** The step a batch is moved by: the first that has not begun in its vessel, else the first that has not begun. Null when all have. */
function anchorOf(batch: PlannedBatch, isInVessel: (stepId: string) => boolean): PlannedBatch['steps'][number] | null {
  const open = batch.steps.filter((step) => !step.frozen);
  return open.find((step) => isInVessel(step.stepId)) ?? open[0] ?? null;
}

/** Vessels in use that hold a batch; only its own once it stands in one. */
export function vesselsFor(batch: PlannedBatch, station: Station): readonly string[] {
  if (batch.vesselId === null) return [];
  if (batch.state !== 'planned') return [batch.vesselId];
  return vesselsOf(station)
    .filter((vessel) => vessel.inUse && vessel.minFillL <= batch.volumeL && batch.volumeL <= vessel.workingMaxL)
    .map((vessel) => vessel.id);
}

/**
 * The pins of a plan with one batch put somewhere: so many minutes later (earlier: below zero), in a vessel or in whichever is best. What else was pinned of it is let go. Null when nothing of
 * it is still to come.
 */
export function movedPins(
  plan: DayPlan,
  batchId: string,
  move: { readonly byMin: number; readonly vesselId: string | null },
  isInVessel: (stepId: string) => boolean,
): readonly Pin[] | null {
  const batch = plan.batches.find((one) => one.id === batchId);
  const anchor = batch === undefined ? null : anchorOf(batch, isInVessel);
  if (anchor === null) return null;
  const startMin = Math.max(0, anchor.startMin + move.byMin);
  const before = plan.pins.find((pin) => pin.batchId === batchId);
  return [...unpinned(plan.pins, batchId), { batchId, stepId: anchor.stepId, startMin, vesselId: move.vesselId ?? before?.vesselId ?? null }];
}

export function unpinned(pins: readonly Pin[], batchId: string): readonly Pin[] {
  return pins.filter((pin) => pin.batchId !== batchId);
}
