import type { Instant } from '../quantity/index';
import { coolingVerdict, holdVerdict, reheatVerdict } from '../safety/index';
import type { CoolingVerdict, HoldVerdict, ReheatVerdict, RulePack, TimedReading } from '../safety/index';
import type { Soup } from '../soup/index';
import type { Purpose } from './event';
import type { BatchRecord } from './fold';

export interface BatchVerdicts {
  readonly cooling: CoolingVerdict | null;
  readonly hotHold: HoldVerdict | null;
  readonly coldHold: HoldVerdict | null;
  readonly reheat: ReheatVerdict | null;
}

/**
 * When the heat went off: the end of the last heated step, if it was ticked; one that was left out heated nothing. Nothing later may stand in for it: that
 * would be kinder.
 */
export function heatOffAt(batch: BatchRecord, soup: Soup | undefined): Instant | null {
  const lastHeated = soup?.steps.findLast((step) => step.heat !== 'off' && batch.steps[step.id]?.skipped == null);
  return lastHeated === undefined ? null : (batch.steps[lastHeated.id]?.doneAt ?? null);
}

function readingsFor(batch: BatchRecord, purposes: readonly Purpose[], since: Instant): readonly TimedReading[] {
  return batch.readings.filter((record) => purposes.includes(record.purpose) && record.at >= since);
}

/** Readings that bear on cooling: hot holding before it proves that the food was still hot, a reheat before it starts anew. */
export function coolingReadings(batch: BatchRecord): readonly TimedReading[] {
  const from = batch.reheatingSince !== null && batch.reheatingSince <= (batch.coolingSegments.at(-1)?.since ?? 0) ? batch.reheatingSince : batch.startedAt;
  return readingsFor(batch, ['cool', 'hotHold', 'reheat'], from);
}

/** Every verdict that applies to a batch at an instant. What was never cooled, held or reheated has none. */
export function judgeBatch(batch: BatchRecord, soup: Soup | undefined, pack: RulePack, now: Instant): BatchVerdicts {
  const { coolingSegments, holdingSince, storedSince, reheatingSince, stage } = batch;
  return {
    cooling:
      coolingSegments.length === 0 || soup?.served === 'cold'
        ? null
        : coolingVerdict({ readings: coolingReadings(batch), heatOffAt: heatOffAt(batch, soup), rule: pack.cooling, now }),
    hotHold:
      holdingSince === null || stage.kind !== 'holding'
        ? null
        : holdVerdict({ readings: readingsFor(batch, ['hotHold'], holdingSince), since: holdingSince, rule: pack.hotHold, now }),
    coldHold:
      storedSince === null || stage.kind !== 'stored'
        ? null
        : holdVerdict({ readings: readingsFor(batch, ['coldHold'], storedSince), since: storedSince, rule: pack.coldHold, now }),
    reheat: reheatingSince === null ? null : reheatVerdict({ readings: readingsFor(batch, ['reheat'], reheatingSince), startedAt: reheatingSince, rule: pack.reheat, now }),
  };
}
