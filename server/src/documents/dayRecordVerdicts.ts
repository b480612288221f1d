import { words } from '@broth/contract';
import type { DayRecord } from '@broth/contract/record';
import { judgeBatch } from '@broth/core';
import type { BatchRecord, BatchVerdicts, Instant, Purpose, TemperatureLimit, TimedReading, VerdictKind } from '@broth/core';
import type { RecordNames } from './dayRecordBasis';

/** What the record says of a batch: the verdict with its sentence, its rule and the readings it stands on. */
export interface Said {
  readonly verdict: VerdictKind;
  readonly says: string;
  readonly rule: string;
  readonly proof: readonly TimedReading[];
}

function said(found: { readonly kind: VerdictKind; readonly citation: string; readonly proof: readonly TimedReading[] }, says: string): Said {
  return { verdict: found.kind, says, rule: found.citation, proof: found.proof };
}

const JUDGED = ['cook', 'cool', 'hotHold', 'coldHold', 'reheat', 'timeControl'] as const satisfies readonly Purpose[];

/** One verdict of a batch in words, of hot holding the last; null = what it is about never happened, or no rule is on. */
export function sayVerdict(verdicts: BatchVerdicts, purpose: Purpose, { unit, clock }: RecordNames): Said | null {
  const { cook, cooling, held, coldHold, reheat, timeControl } = verdicts;
  switch (purpose) {
    case 'cook':
      return cook === null ? null : said(cook, words.cook(cook, unit));
    case 'cool': {
      if (cooling === null) return null;
      const proof = [...new Set(cooling.stages.flatMap((stage) => stage.proof))];
      return said({ kind: cooling.kind, citation: cooling.current?.citation ?? '', proof }, words.cooling(cooling, unit, clock));
    }
    case 'hotHold': {
      const last = held.at(-1)?.verdict;
      return last === undefined ? null : said(last, words.hold(last, unit));
    }
    case 'coldHold':
      return coldHold === null ? null : said(coldHold, words.hold(coldHold, unit));
    case 'reheat':
      return reheat === null ? null : said(reheat, words.reheat(reheat, unit));
    case 'timeControl':
      return timeControl === null ? null : said(timeControl, words.timeControl(timeControl, clock));
  }
}

/** A reading that a verdict stands on; one within a tenth of a limit shows the limit beside it, or rounding would hide which side it is on. */
function proofLine({ at, reading }: TimedReading, { cooling }: BatchVerdicts, purpose: Purpose, { clock }: RecordNames): string {
  const limits = purpose === 'cool' ? (cooling?.stages ?? []).flatMap((stage): TemperatureLimit[] => (stage.to.kind === 'temperature' ? [stage.to.limit] : [])) : [];
  const near = limits.find((limit) => Math.abs(reading.value - (reading.unit === 'C' ? limit.c : (limit.f ?? limit.c * 1.8 + 32))) < 0.1);
  return `${clock(at)} ${near === undefined ? words.degrees(reading.value, reading.unit) : words.degreesBeside(reading.value, reading.unit, near)}`;
}

export interface BatchEnd {
  readonly lines: DayRecord['verdicts'];
  /** When the readings were taken that any of them stands on: a probe's are in the record for it. */
  readonly provenAt: ReadonlySet<Instant>;
}

/** How a batch ended: every verdict there is on it. */
export function batchEnd(batch: BatchRecord, names: RecordNames): BatchEnd {
  const judged = judgeBatch(batch, names.soupOf(batch), names.book, names.now);
  const found = JUDGED.flatMap((purpose) => {
    // Each stretch of hot holding has a verdict of its own.
    const all =
      purpose === 'hotHold'
        ? judged.held.map(({ hold, verdict }) => said(verdict, (hold.until === null ? words.hold : words.holdEnded)(verdict, names.unit)))
        : [sayVerdict(judged, purpose, names)];
    return all.flatMap((one) =>
      // Plants ask for no reading of their own in the pot: nothing is open once they are out of it.
      one === null || (purpose === 'cook' && one.verdict === 'inProgress' && batch.finishedAt !== null) ? [] : [{ purpose, said: one }],
    );
  });
  return {
    lines: found.map(({ purpose, said: { verdict, says, rule, proof } }) => ({
      batchId: batch.batchId,
      batch: batch.name,
      purpose: words.PURPOSE[purpose],
      verdict,
      says,
      rule,
      proof: proof.map((timed) => proofLine(timed, judged, purpose, names)),
    })),
    provenAt: new Set(found.flatMap(({ said }) => said.proof.map(({ at }) => at))),
  };
}
