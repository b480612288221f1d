import { boilingPointC, coolingReadings, readingIn, standingOf } from '@broth/core';
import type { BatchRecord, Purpose, Standing } from '@broth/core';
import type { EntryContext } from '@broth/core/advice';
import { temperatureAt } from '@broth/core/advice';
import type { OpenDay } from '../../state/useDay';
import { forecastOf } from './curveGeometry';

/** What a reading of a batch is for where it stands; null = none is taken there. */
export function purposeOf(batch: BatchRecord, isCold: boolean): Purpose | null {
  if (batch.timeControl !== null && batch.stage.kind !== 'discarded') return 'timeControl';
  switch (batch.stage.kind) {
    case 'cooking':
      return isCold ? null : 'cook';
    case 'finished':
      return isCold ? 'cool' : 'cook';
    case 'cooling':
      return 'cool';
    case 'holding':
      return 'hotHold';
    case 'stored':
      return 'coldHold';
    case 'reheating':
      return 'reheat';
    case 'used':
    case 'discarded':
      return null;
  }
}

/** What the other batches that cool would show now: a reading that fits one of those was likely taken there. */
function siblingsOf(day: OpenDay, batch: BatchRecord, now: number): EntryContext['siblings'] {
  return Object.values(day.state.batches).flatMap((one) => {
    if (one.batchId === batch.batchId || one.stage.kind !== 'cooling') return [];
    const standing = standingOf(one, day.soupById.get(one.soupId), day.rules, now);
    const cooling = standing?.verdicts.cooling ?? null;
    const forecast = cooling === null ? null : forecastOf(one, cooling, standing?.verdicts.coolingRules ?? [], 'C');
    const last = one.readings.at(-1);
    const expectedC = forecast !== null ? temperatureAt(forecast.fit, now) : last === undefined ? null : readingIn(last.reading, 'C');
    return expectedC === null ? [] : [{ batchId: one.batchId, expectedC }];
  });
}

/** What a typed reading is asked against: what would be likely here. */
export function contextOf(day: OpenDay, batch: BatchRecord, purpose: Purpose, now: number): EntryContext {
  const segment = batch.coolingSegments.at(-1);
  const last = batch.readings.at(-1);
  const changedSince = last !== undefined && ((segment !== undefined && segment.since > last.at) || batch.iced.some((ice) => ice.at > last.at));
  return {
    purpose,
    boilingC: boilingPointC(day.book.station.altitudeM),
    earlier: purpose === 'cool' ? coolingReadings(batch) : [],
    volumeL: (batch.volumeOutL ?? batch.volumeL) / Math.max(1, segment?.pans ?? 1),
    ...(segment === undefined ? {} : { ambientC: segment.ambientC }),
    changedSince,
    siblings: purpose === 'cool' ? (siblingsOf(day, batch, now) ?? []) : [],
    batchStartedAt: batch.startedAt,
  };
}

/** Seconds a reading has to stay at the limit of the rule in force; 0 = at once. */
export function holdOf(standing: Standing | null, purpose: Purpose): number {
  const points = purpose === 'reheat' ? standing?.verdicts.reheat?.points : purpose === 'cook' ? standing?.verdicts.cook?.points : undefined;
  return Math.max(0, ...(points ?? []).map((point) => (point.holdS <= 60 ? point.holdS : 0)));
}
