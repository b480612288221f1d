import { words } from '@broth/contract';
import { judgeBatch } from '@broth/core';
import type { BatchRecord, BatchVerdicts, CorrectiveAction, Purpose, RulePack, TemperatureUnit, VerdictKind } from '@broth/core';
import type { OpenDay } from '../../state/useDay';

/** Where a batch's temperature stands: the one verdict that counts for its stage, in words, with the rule and what may be done. */
export interface Standing {
  readonly purpose: Purpose;
  readonly kind: VerdictKind;
  readonly says: string;
  readonly ruleId: string;
  readonly citation: string;
  readonly actions: readonly CorrectiveAction[];
  readonly verdicts: BatchVerdicts;
}

export function standingOf(batch: BatchRecord, { soupById, book, at }: Pick<OpenDay, 'soupById' | 'book' | 'at'>, now: number): Standing | null {
  const soup = soupById.get(batch.soupId);
  const pack = book.pack as RulePack;
  const unit: TemperatureUnit = book.kitchen.temperatureUnit;
  const verdicts = judgeBatch(batch, soup, pack, now);
  const { cooling, hotHold, coldHold, reheat } = verdicts;
  // A failed cooling stays the batch's standing wherever it was carried afterwards.
  if (cooling !== null && (batch.stage.kind === 'cooling' || batch.stage.kind === 'discarded' || cooling.kind === 'fail' || cooling.kind === 'undetermined')) {
    const stage = cooling.stage1.kind === 'pass' ? cooling.stage2 : cooling.stage1;
    return {
      purpose: 'cool',
      kind: cooling.kind,
      says: words.cooling(cooling, pack.cooling, unit, at),
      ruleId: stage.ruleId,
      citation: stage.citation,
      actions: cooling.actions,
      verdicts,
    };
  }
  if (batch.stage.kind === 'reheating' && reheat !== null) {
    const { limit, holdS, withinMin } = pack.reheat;
    return {
      purpose: 'reheat',
      kind: reheat.kind,
      says: words.reheat(reheat, limit, holdS, withinMin, unit),
      ruleId: reheat.ruleId,
      citation: reheat.citation,
      actions: reheat.actions,
      verdicts,
    };
  }
  if (hotHold !== null) {
    return {
      purpose: 'hotHold',
      kind: hotHold.kind,
      says: words.hold(hotHold, pack.hotHold.limit, 'atLeast', unit),
      ruleId: hotHold.ruleId,
      citation: hotHold.citation,
      actions: hotHold.actions,
      verdicts,
    };
  }
  if (coldHold !== null) {
    return {
      purpose: 'coldHold',
      kind: coldHold.kind,
      says: words.hold(coldHold, pack.coldHold.limit, 'atMost', unit),
      ruleId: coldHold.ruleId,
      citation: coldHold.citation,
      actions: coldHold.actions,
      verdicts,
    };
  }
  return null;
}
