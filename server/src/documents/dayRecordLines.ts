import { words } from '@broth/contract';
import type { StoredEvent } from '@broth/contract';
import type { RecordLine } from '@broth/contract/record';
import { judgeBatch, replayDay } from '@broth/core';
import type { BatchRecord, DayState, Instant, ReadingRecord } from '@broth/core';
import type { RecordNames } from './dayRecordBasis';
import { sayVerdict } from './dayRecordVerdicts';
import type { Said } from './dayRecordVerdicts';

/** A probe says something every second: the record has it every so often, and wherever a verdict stands on it. Minutes. */
const PROBE_LINE_MIN = 10;
/** An entry is late when it was taken more than this before it was recorded. Minutes. */
const LATE_MIN = 15;

/** A line that says nothing yet. */
const EMPTY: Omit<RecordLine, 'what' | 'at' | 'takenAt'> = {
  seq: 0,
  recordedAt: '',
  late: false,
  batchId: null,
  batch: '',
  soup: '',
  purpose: '',
  temperature: null,
  unit: null,
  asTyped: null,
  offset: 0,
  thermometer: '',
  pan: null,
  verdict: null,
  says: '',
  rule: '',
  pack: '',
  by: '',
  device: '',
  note: '',
  litres: null,
  voided: false,
  suspect: false,
  eventId: '',
  hash: '',
};

type ReadingEvent = Extract<StoredEvent, { kind: 'reading.taken/1' | 'reading.taken/2' }>;
type DigestEvent = Extract<StoredEvent, { kind: 'samples.digested/1' }>;
/** A reading of the record: of which event, which batch, and by hand or by a probe. */
interface Shown {
  readonly event: ReadingEvent | DigestEvent;
  readonly batchId: string;
  readonly reading: ReadingRecord;
  readonly what: 'reading' | 'probe';
}

/** A reading that was voided is not in the state any more: it is shown as it was typed. */
function asTyped(event: ReadingEvent): ReadingRecord {
  const { purpose, reading, heldS, packId, packVersion } = event.data;
  const more = event.kind === 'reading.taken/2' ? event.data : { rulesVersion: null, pan: null, thermometerId: null, offset: 0, doubt: null, lateReason: null };
  const { rulesVersion, pan, thermometerId, offset, doubt, lateReason } = more;
  const entry = { eventId: event.id, at: event.at, by: event.by };
  return { ...entry, purpose, reading, shown: reading, heldS, packId, packVersion, rulesVersion, pan, thermometerId, offset, doubt, lateReason, source: 'hand' };
}

/** Of what a probe read in a batch: every tenth minute, and what a verdict stands on. */
function probeReadings(batch: BatchRecord, provenAt: ReadonlySet<Instant>): ReadonlyMap<string, readonly ReadingRecord[]> {
  const nth = new Map<string | null, number>();
  const byEvent = new Map<string, ReadingRecord[]>();
  for (const reading of batch.readings) {
    if (reading.source !== 'probe') continue;
    const before = nth.get(reading.thermometerId) ?? 0;
    nth.set(reading.thermometerId, before + 1);
    if (before % PROBE_LINE_MIN !== 0 && !provenAt.has(reading.at)) continue;
    byEvent.set(reading.eventId, [...(byEvent.get(reading.eventId) ?? []), reading]);
  }
  return byEvent;
}

/** Every reading the record shows, in the order of its events. */
function shownReadings(events: readonly StoredEvent[], state: DayState, provenAt: ReadonlyMap<string, ReadonlySet<Instant>>): readonly Shown[] {
  const batches = Object.values(state.batches);
  const byHand = new Map(batches.flatMap((batch) => batch.readings.filter((one) => one.source === 'hand').map((reading) => [reading.eventId, reading])));
  const byProbe = batches.map(({ batchId, ...batch }) => ({ batchId, readings: probeReadings({ batchId, ...batch }, provenAt.get(batchId) ?? new Set()) }));
  return events.flatMap((event): readonly Shown[] => {
    if (event.kind === 'samples.digested/1')
      return byProbe.flatMap(({ batchId, readings }) => (readings.get(event.id) ?? []).map((reading): Shown => ({ event, batchId, reading, what: 'probe' })));
    if (event.kind !== 'reading.taken/1' && event.kind !== 'reading.taken/2') return [];
    return [{ event, batchId: event.data.batchId, reading: byHand.get(event.id) ?? asTyped(event), what: 'reading' }];
  });
}

/** The verdict on each as it stood when it was taken: what came later does not colour it. One that was voided has none. */
function verdictsAtTheTime(events: readonly StoredEvent[], shown: readonly Shown[], names: RecordNames): ReadonlyMap<Shown, Said> {
  const byEvent = new Map<string, Shown[]>();
  for (const one of shown) byEvent.set(one.event.id, [...(byEvent.get(one.event.id) ?? []), one]);
  const said = new Map<Shown, Said>();
  replayDay(events, (event, then) => {
    for (const one of byEvent.get(event.id) ?? []) {
      const batch = then.batches[one.batchId];
      if (batch === undefined || batch.startedAt > event.at) continue;
      const verdict = sayVerdict(judgeBatch(batch, names.soupOf(batch), names.book, event.at), one.reading.purpose, names);
      if (verdict !== null) said.set(one, verdict);
    }
  });
  return said;
}

function lineBase(event: StoredEvent, voided: ReadonlySet<string>, names: RecordNames): Omit<RecordLine, 'what'> {
  return {
    ...EMPTY,
    seq: event.seq,
    at: event.at,
    takenAt: names.iso(event.at),
    recordedAt: names.iso(event.recordedAt),
    late: event.recordedAt - event.at > LATE_MIN * 60_000,
    by: names.person(event.by),
    device: event.device,
    voided: voided.has(event.id),
    eventId: event.id,
    hash: event.hash,
  };
}

function readingLine({ event, batchId, reading, what }: Shown, said: Said | undefined, base: Omit<RecordLine, 'what'>, names: RecordNames): RecordLine {
  return {
    ...base,
    ...names.batch(batchId),
    what,
    at: reading.at,
    takenAt: names.iso(reading.at),
    // A probe's line is late when its samples were, not when its minute was closed.
    late: event.kind === 'samples.digested/1' ? event.data.late : base.late,
    purpose: words.PURPOSE[reading.purpose],
    temperature: reading.shown.value,
    unit: reading.shown.unit,
    asTyped: reading.shown.rawText,
    offset: reading.offset,
    thermometer: names.thermometer(reading.thermometerId),
    pan: reading.pan,
    verdict: said?.verdict ?? null,
    says: base.voided ? 'Voided: does not count' : (said?.says ?? ''),
    rule: said?.rule ?? '',
    pack: names.pack(reading.rulesVersion),
    note: [reading.doubt === null ? '' : `asked: ${reading.doubt}`, reading.lateReason ?? ''].filter((one) => one !== '').join('; '),
    suspect: names.isSuspect(reading.thermometerId, reading.at),
  };
}

/** What is a line of the record besides readings. The other events are of the day's work. */
const OTHER = [
  'place.read/1',
  'item.read/1',
  'thermometer.checked/1',
  'corrective.taken/1',
  'decision.made/1',
  'batch.used/1',
  'check.explained/1',
  'event.voided/1',
  'lot.discarded/1',
  'day.signed/1',
] as const;
type OtherEvent = Extract<StoredEvent, { kind: (typeof OTHER)[number] }>;
function isOther(event: StoredEvent): event is OtherEvent {
  return (OTHER as readonly string[]).includes(event.kind);
}

/** What a thermometer showed that was held into no batch. */
function readIn({ at, data }: Extract<OtherEvent, { kind: 'place.read/1' | 'item.read/1' }>, names: RecordNames) {
  const { reading, offset, thermometerId, rulesVersion } = data;
  return {
    temperature: reading.value,
    unit: reading.unit,
    asTyped: reading.rawText,
    offset,
    thermometer: names.thermometer(thermometerId),
    pack: names.pack(rulesVersion),
    suspect: names.isSuspect(thermometerId, at),
  };
}

function otherLine(event: OtherEvent, line: Omit<RecordLine, 'what'>, names: RecordNames): RecordLine {
  switch (event.kind) {
    case 'place.read/1': {
      const { equipmentId, note } = event.data;
      return { ...line, what: 'place', ...readIn(event, names), purpose: names.equipment(equipmentId), note };
    }
    case 'item.read/1': {
      const { purpose, what, from, accepted, note } = event.data;
      const says = `${what}${from === '' ? '' : ` from ${from}`}: ${accepted ? 'accepted' : 'refused'}`;
      return { ...line, what: 'item', ...readIn(event, names), purpose: purpose === 'receive' ? 'Receiving' : 'Thawing', says, note };
    }
    case 'thermometer.checked/1': {
      const { thermometerId, method, reading, offset, usable } = event.data;
      const says = `${method === 'ice' ? 'Ice point' : 'Boiling point'}: ${offset === 0 ? 'exact' : `${offset > 0 ? '+' : ''}${words.number(offset)} °${reading.unit}`}, ${usable ? 'in use' : 'out of use'}`;
      const found = { temperature: reading.value, unit: reading.unit, asTyped: reading.rawText, thermometer: names.thermometer(thermometerId) };
      return { ...line, what: 'thermometer', ...found, says, verdict: usable ? 'pass' : 'fail' };
    }
    case 'corrective.taken/1': {
      const { action, note, volumeL, ruleId, batchId } = event.data;
      return { ...line, ...names.batch(batchId), what: 'action', says: words.ACTION[action].name, rule: ruleId, note, litres: volumeL };
    }
    case 'decision.made/1': {
      const { keep, reason, ruleId, batchId } = event.data;
      return { ...line, ...names.batch(batchId), what: 'decision', says: keep ? 'Person in charge: kept' : 'Person in charge: not kept', rule: ruleId, note: reason };
    }
    case 'batch.used/1': {
      const { batchId, intoBatchIds } = event.data;
      return { ...line, ...names.batch(batchId), what: 'used', says: `Gone ${words.usedIn(intoBatchIds.map((into) => names.batch(into).batch))}` };
    }
    case 'check.explained/1':
      return { ...line, ...names.batch(event.data.batchId), what: 'missed', says: `Missed check of ${names.clock(event.data.dueAt)} explained`, note: event.data.reason };
    case 'event.voided/1':
      return { ...line, what: 'correction', says: 'An entry no longer counts', note: `${event.data.eventId}: ${event.data.reason}` };
    case 'lot.discarded/1': {
      const { lotId, soupId, volumeL, reason } = event.data;
      return { ...line, what: 'discard', soup: names.soup(soupId), says: `Discarded from stock: ${lotId}`, litres: volumeL, note: reason };
    }
    case 'day.signed/1':
      return { ...line, what: 'signature', says: `Signed as far as entry ${String(event.data.upToSeq)}`, note: event.data.note };
  }
}

/** Checks of what was held hot that nobody made. */
function missedLines(batch: BatchRecord, names: RecordNames): readonly RecordLine[] {
  return judgeBatch(batch, names.soupOf(batch), names.book, names.now).held.flatMap(({ verdict: { missed, citation } }) =>
    missed.map(({ dueAt, readAt }): RecordLine => ({
      ...EMPTY,
      ...names.batch(batch.batchId),
      what: 'missed',
      at: dueAt,
      takenAt: names.iso(dueAt),
      purpose: words.PURPOSE.hotHold,
      says: `MISSED: no reading was taken${readAt === null ? '' : ` until ${names.clock(readAt)}`}`,
      rule: citation,
      note: batch.explained.find((one) => one.dueAt === dueAt)?.reason ?? '',
    })),
  );
}

/**
 * The lines of a day's record in the order of time: every temperature with the verdict as it stood when it was taken, and everything that was done about it.
 * `provenAt`: for each batch when the readings were taken that its verdicts stand on.
 */
export function recordLines(events: readonly StoredEvent[], state: DayState, provenAt: ReadonlyMap<string, ReadonlySet<Instant>>, names: RecordNames): readonly RecordLine[] {
  const voided = new Set(events.flatMap((event) => (event.kind === 'event.voided/1' ? [event.data.eventId] : [])));
  const shown = shownReadings(events, state, provenAt);
  const said = verdictsAtTheTime(events, shown, names);
  const lines = [
    ...shown.map((one) => readingLine(one, said.get(one), lineBase(one.event, voided, names), names)),
    ...events.filter(isOther).map((event) => otherLine(event, lineBase(event, voided, names), names)),
    ...Object.values(state.batches).flatMap((batch) => missedLines(batch, names)),
  ];
  return lines.sort((left, right) => left.at - right.at || left.seq - right.seq);
}
