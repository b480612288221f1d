import { words } from '@broth/contract';
import * as advice from '@broth/contract/advice';
import type { DayRecord } from '@broth/contract/record';
import { currentRules, foldDay, openActions } from '@broth/core';
import type { DayState } from '@broth/core';
import { patternNotes } from '@broth/core/advice';
import { recordNames } from './dayRecordBasis';
import type { RecordBasis, RecordNames } from './dayRecordBasis';
import { recordLines } from './dayRecordLines';
import { batchEnd } from './dayRecordVerdicts';

/** The last signature, and whether it holds: any entry after it opens the day again. */
function signatureOf(events: RecordBasis['events'], state: DayState, { person, iso }: RecordNames): DayRecord['signature'] {
  const last = state.signatures.at(-1);
  if (last === undefined) return null;
  const { by, at, note, upToSeq } = last;
  // What probes outside any batch sent, and what a phone says of its clock, changes nothing that was signed.
  const entered = events.filter(
    (event) => event.kind !== 'day.signed/1' && event.kind !== 'clock.measured/1' && !(event.kind === 'samples.digested/1' && event.data.probes.length === 0),
  );
  const recordedThemselves = Object.values(state.batches).some((batch) => batch.readings.some((reading) => reading.by === by));
  return { by: person(by), at: iso(at), note, upToSeq, holds: entered.every((event) => event.seq <= upToSeq), recordedThemselves };
}

/** The record of a day, as a reviewer or an inspector reads it. */
export function dayRecord(basis: RecordBasis): DayRecord {
  const { kitchen, day, events, soups, book, head, now } = basis;
  const state = foldDay(events);
  const names = recordNames(basis, state);
  const batches = Object.values(state.batches);
  const ends = batches.map((batch) => ({ batchId: batch.batchId, ...batchEnd(batch, names) }));
  const lines = recordLines(events, state, new Map(ends.map(({ batchId, provenAt }) => [batchId, provenAt])), names);
  const recordedAt = new Map(events.map((event) => [event.id, event.recordedAt]));
  const cards = new Map(soups.map((soup) => [soup.id, soup]));
  return {
    kitchen: { id: kitchen.id, name: kitchen.name, place: kitchen.place, timeZone: kitchen.timeZone, invented: kitchen.invented },
    day,
    writtenAt: names.iso(now),
    notice: words.authority(currentRules(book)),
    packs: [...new Set(lines.map((line) => line.pack).filter((pack) => pack !== ''))],
    lines: [...lines],
    verdicts: ends.flatMap((end) => end.lines),
    patterns: patternNotes(
      batches.flatMap((batch) => batch.readings),
      recordedAt,
      (at) => Number(names.clock(at).slice(-2)),
    ).map((note) => advice.pattern(note, names.person, names.clock)),
    open: openActions(state, cards, book, now).map((open) => advice.openAction(open, state.batches[open.batchId]?.name ?? open.batchId, names.clock)),
    signature: signatureOf(events, state, names),
    head,
  };
}
