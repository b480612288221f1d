import { words } from '@broth/contract';
import * as advice from '@broth/contract/advice';
import type { StoredEvent, ThermometerStanding } from '@broth/contract';
import type { DayRecord, RecordLine } from '@broth/contract/record';
import { currentRules, doubtfulSpans, foldDay, judgeBatch, missedChecks, openActions, rulesAt } from '@broth/core';
import type {
  BatchRecord,
  BatchVerdicts,
  DayState,
  Instant,
  Purpose,
  ReadingRecord,
  RuleBook,
  Soup,
  Station,
  TemperatureLimit,
  TemperatureUnit,
  TimedReading,
  VerdictKind,
} from '@broth/core';
import { patternNotes } from '@broth/core/advice';
import { localClock, localIso } from '../localTime';

/** The record of a day: every temperature with the verdict as it stood when it was taken, and everything that was done about it. */

interface Basis {
  readonly kitchen: DayRecord['kitchen'] & { readonly unit: TemperatureUnit };
  readonly day: string;
  readonly events: readonly StoredEvent[];
  readonly soups: readonly Soup[];
  readonly station: Station;
  readonly book: RuleBook;
  readonly thermometers: readonly ThermometerStanding[];
  readonly head: DayRecord['head'];
  readonly now: Instant;
}

/** A probe says something every second: the record has it every so often, and wherever a verdict stands on it. Minutes. */
const PROBE_LINE_MIN = 10;
/** An entry is late when it was taken more than this before it was recorded. Minutes. */
const LATE_MIN = 15;

interface Said {
  readonly verdict: VerdictKind;
  readonly says: string;
  readonly rule: string;
  readonly proof: readonly TimedReading[];
}

function say(verdicts: BatchVerdicts, purpose: Purpose, { kitchen }: Basis, rules: ReturnType<typeof rulesAt>): Said | null {
  const { unit, timeZone } = kitchen;
  const at = (instant: number): string => localClock(timeZone, instant);
  switch (purpose) {
    case 'cook':
      return verdicts.cook === null ? null : { verdict: verdicts.cook.kind, says: words.cook(verdicts.cook, unit), rule: verdicts.cook.citation, proof: verdicts.cook.proof };
    case 'cool': {
      const { cooling } = verdicts;
      if (cooling === null) return null;
      const proof = [...new Set(cooling.stages.flatMap((stage) => stage.proof))];
      return { verdict: cooling.kind, says: words.cooling(cooling, unit, at), rule: cooling.current?.citation ?? '', proof };
    }
    case 'hotHold':
    case 'coldHold': {
      const [verdict, rule] = [verdicts[purpose], rules[purpose]];
      return verdict === null || rule === null ? null : { verdict: verdict.kind, says: words.hold(verdict, rule, unit), rule: verdict.citation, proof: verdict.proof };
    }
    case 'reheat':
      return verdicts.reheat === null
        ? null
        : { verdict: verdicts.reheat.kind, says: words.reheat(verdicts.reheat, unit), rule: verdicts.reheat.citation, proof: verdicts.reheat.proof };
    case 'timeControl':
      return verdicts.timeControl === null
        ? null
        : { verdict: verdicts.timeControl.kind, says: words.timeControl(verdicts.timeControl, at), rule: verdicts.timeControl.citation, proof: verdicts.timeControl.proof };
  }
}

/** Events that are lines of the record. The others are of the day's work. */
const RECORDED = [
  'reading.taken/1',
  'reading.taken/2',
  'samples.digested/1',
  'place.read/1',
  'item.read/1',
  'thermometer.checked/1',
  'corrective.taken/1',
  'decision.made/1',
  'check.explained/1',
  'event.voided/1',
  'lot.discarded/1',
  'day.signed/1',
] as const;
type Recorded = Extract<StoredEvent, { kind: (typeof RECORDED)[number] }>;
function isRecorded(event: StoredEvent): event is Recorded {
  return (RECORDED as readonly string[]).includes(event.kind);
}

/** What a day's events are asked again and again, sorted once: a batch's own, and those of the probes that stood in it. */
function eventsByBatch(events: readonly StoredEvent[], voided: ReadonlySet<string>): ReadonlyMap<string, readonly StoredEvent[]> {
  const map = new Map<string, StoredEvent[]>();
  const probesOf = new Map<string, Set<string>>();
  for (const event of events) {
    if (event.kind !== 'probe.placed/1') continue;
    const set = probesOf.get(event.data.batchId) ?? new Set();
    probesOf.set(event.data.batchId, set.add(event.data.thermometerId));
  }
  const add = (batchId: string, event: StoredEvent): void => {
    const list = map.get(batchId);
    if (list === undefined) map.set(batchId, [event]);
    else list.push(event);
  };
  for (const event of events) {
    if (voided.has(event.id)) continue;
    if (event.kind === 'samples.digested/1' || event.kind === 'probe.lifted/1') {
      const ids = event.kind === 'probe.lifted/1' ? [event.data.thermometerId] : event.data.probes.map((probe) => probe.thermometerId);
      for (const [batchId, probes] of probesOf) if (ids.some((id) => probes.has(id))) add(batchId, event);
    } else if ('batchId' in event.data && typeof event.data.batchId === 'string') add(event.data.batchId, event);
  }
  return map;
}

export function dayRecord(basis: Basis): DayRecord {
  const { events, soups, station, book, kitchen, now } = basis;
  const { timeZone } = kitchen;
  const state = foldDay(events);
  const voided = new Set(events.flatMap((event) => (event.kind === 'event.voided/1' ? [event.data.eventId] : [])));
  const ofBatch = eventsByBatch(events, voided);
  const soupOf = (batch: BatchRecord | undefined): Soup | undefined =>
    soups.find((one) => one.id === batch?.soupId && one.version === batch.soupVersion) ?? soups.find((one) => one.id === batch?.soupId);
  const person = (id: string): string => station.people.find((one) => one.id === id)?.name ?? (id === 'probes' ? 'Probes' : id);
  const thermometer = (id: string | null): string => (id === null ? '' : (station.thermometers.find((one) => one.id === id)?.name ?? id));
  const clock = (instant: number): string => localClock(timeZone, instant);
  const spans = new Map(basis.thermometers.map(({ thermometerId, checks }) => [thermometerId, doubtfulSpans(checks)]));
  const isSuspect = (id: string | null, at: Instant): boolean => id !== null && (spans.get(id) ?? []).some((span) => (span.from === null || at > span.from) && at <= span.to);

  const blank = (event: StoredEvent): RecordLine => ({
    seq: event.seq,
    what: 'reading',
    at: event.at,
    takenAt: localIso(timeZone, event.at),
    recordedAt: localIso(timeZone, event.recordedAt),
    late: event.recordedAt - event.at > LATE_MIN * 60_000,
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
    by: person(event.by),
    device: event.device,
    note: '',
    litres: null,
    voided: voided.has(event.id),
    suspect: false,
    eventId: event.id,
    hash: event.hash,
  });
  const packName = (version: number | null): string => {
    const rules = book.find((one) => one.rules.version === version)?.rules ?? book[0].rules;
    return `${rules.name}, version ${String(rules.packVersion)}; kitchen's rules ${String(rules.version)}`;
  };
  const named = (line: RecordLine, batchId: string): RecordLine => {
    const batch = state.batches[batchId];
    return { ...line, batchId, batch: batch?.name ?? batchId, soup: soupOf(batch)?.name ?? '' };
  };
  /** The verdict as it stood at that moment: what came later does not colour it. */
  const verdictAt = (batchId: string, purpose: Purpose, at: Instant): Said | null => {
    const then = foldDay((ofBatch.get(batchId) ?? []).filter((one) => one.at <= at)).batches[batchId];
    return then === undefined ? null : say(judgeBatch(then, soupOf(then), book, at), purpose, basis, rulesAt(book, at));
  };
  const readingLine = (event: StoredEvent, batchId: string, reading: ReadingRecord, what: 'reading' | 'probe'): RecordLine => {
    const line = named(blank(event), batchId);
    const said = line.voided ? null : verdictAt(batchId, reading.purpose, reading.at);
    return {
      ...line,
      what,
      at: reading.at,
      takenAt: localIso(timeZone, reading.at),
      purpose: words.PURPOSE[reading.purpose],
      temperature: reading.shown.value,
      unit: reading.shown.unit,
      asTyped: reading.shown.rawText,
      offset: reading.offset,
      thermometer: thermometer(reading.thermometerId),
      pan: reading.pan,
      verdict: said?.verdict ?? null,
      says: line.voided ? 'Voided: does not count' : (said?.says ?? ''),
      rule: said?.rule ?? '',
      pack: packName(reading.rulesVersion),
      note: [reading.doubt === null ? '' : `asked: ${reading.doubt}`, reading.lateReason ?? ''].filter((one) => one !== '').join('; '),
      suspect: isSuspect(reading.thermometerId, reading.at),
    };
  };
  const proofAt = new Set<string>();
  const verdicts = Object.values(state.batches).flatMap((batch) => verdictsOf(batch, soupOf(batch), basis, proofAt));
  const lines = events.flatMap((event): readonly RecordLine[] => lineOf(event));

  function lineOf(event: StoredEvent): readonly RecordLine[] {
    if (!isRecorded(event)) return [];
    const line = blank(event);
    switch (event.kind) {
      case 'reading.taken/1':
      case 'reading.taken/2': {
        const { batchId } = event.data;
        const counted = state.batches[batchId]?.readings.find((reading) => reading.eventId === event.id);
        const shown: ReadingRecord = counted ?? { ...plainReading(event), eventId: event.id, at: event.at, by: event.by };
        return [readingLine(event, batchId, shown, 'reading')];
      }
      case 'samples.digested/1':
        return event.data.probes.flatMap((probe) =>
          Object.values(state.batches).flatMap((batch) => {
            const reading = batch.readings.find((one) => one.eventId === event.id && one.thermometerId === probe.thermometerId);
            if (reading === undefined) return [];
            const nth = batch.readings.filter((one) => one.source === 'probe' && one.thermometerId === probe.thermometerId && one.at < reading.at).length;
            const wanted = nth % PROBE_LINE_MIN === 0 || proofAt.has(`${batch.batchId} ${String(reading.at)}`);
            // A probe's line is late when its samples were, not when its minute was closed.
            return wanted ? [{ ...readingLine(event, batch.batchId, reading, 'probe'), late: event.data.late }] : [];
          }),
        );
      case 'place.read/1': {
        const { equipmentId, reading, offset, thermometerId, note, rulesVersion } = event.data;
        const name = station.equipment.find((one) => one.id === equipmentId)?.name ?? equipmentId;
        const found = { temperature: reading.value, unit: reading.unit, asTyped: reading.rawText, offset, thermometer: thermometer(thermometerId), pack: packName(rulesVersion) };
        return [{ ...line, what: 'place', ...found, purpose: name, note, suspect: isSuspect(thermometerId, event.at) }];
      }
      case 'item.read/1': {
        const { purpose, what, from, reading, offset, thermometerId, accepted, note, rulesVersion } = event.data;
        const found = { temperature: reading.value, unit: reading.unit, asTyped: reading.rawText, offset, thermometer: thermometer(thermometerId), pack: packName(rulesVersion) };
        const says = `${what}${from === '' ? '' : ` from ${from}`}: ${accepted ? 'accepted' : 'refused'}`;
        return [{ ...line, what: 'item', ...found, purpose: purpose === 'receive' ? 'Receiving' : 'Thawing', says, note, suspect: isSuspect(thermometerId, event.at) }];
      }
      case 'thermometer.checked/1': {
        const { thermometerId, method, reading, offset, usable } = event.data;
        const says = `${method === 'ice' ? 'Ice point' : 'Boiling point'}: ${offset === 0 ? 'exact' : `${offset > 0 ? '+' : ''}${words.number(offset)} °${reading.unit}`}, ${usable ? 'in use' : 'out of use'}`;
        const found = { temperature: reading.value, unit: reading.unit, asTyped: reading.rawText, thermometer: thermometer(thermometerId) };
        return [{ ...line, what: 'thermometer', ...found, says, verdict: usable ? 'pass' : 'fail' }];
      }
      case 'corrective.taken/1': {
        const { action, note, volumeL, ruleId, batchId } = event.data;
        return [{ ...named(line, batchId), what: 'action', says: words.ACTION[action].name, rule: ruleId, note, litres: volumeL }];
      }
      case 'decision.made/1': {
        const { keep, reason, ruleId, batchId } = event.data;
        return [{ ...named(line, batchId), what: 'decision', says: keep ? 'Person in charge: kept' : 'Person in charge: not kept', rule: ruleId, note: reason }];
      }
      case 'check.explained/1':
        return [{ ...named(line, event.data.batchId), what: 'missed', says: `Missed check of ${clock(event.data.dueAt)} explained`, note: event.data.reason }];
      case 'event.voided/1':
        return [{ ...line, what: 'correction', says: 'An entry no longer counts', note: `${event.data.eventId}: ${event.data.reason}` }];
      case 'lot.discarded/1': {
        const { lotId, soupId, volumeL, reason } = event.data;
        return [{ ...line, what: 'discard', soup: soups.find((one) => one.id === soupId)?.name ?? soupId, says: `Discarded from stock: ${lotId}`, litres: volumeL, note: reason }];
      }
      case 'day.signed/1':
        return [{ ...line, what: 'signature', says: `Signed as far as entry ${String(event.data.upToSeq)}`, note: event.data.note }];
    }
  }

  const last = state.signatures.at(-1) ?? null;
  const signed = last === null ? undefined : events.find((event) => event.id === last.eventId);
  // What probes outside any batch sent, and what a phone says of its clock, changes nothing that was signed.
  const entered = events.filter(
    (event) => event.kind !== 'day.signed/1' && event.kind !== 'clock.measured/1' && !(event.kind === 'samples.digested/1' && event.data.probes.length === 0),
  );
  const readings = Object.values(state.batches).flatMap((batch) => batch.readings);
  return {
    kitchen: { id: kitchen.id, name: kitchen.name, place: kitchen.place, timeZone, invented: kitchen.invented },
    day: basis.day,
    writtenAt: localIso(timeZone, now),
    notice: words.authority(currentRules(book)),
    packs: [...new Set(lines.map((line) => line.pack).filter((pack) => pack !== ''))],
    lines: [...lines, ...missedLines(state, basis, soupOf)].sort((left, right) => left.at - right.at || left.seq - right.seq),
    verdicts,
    patterns: patternNotes(readings, new Map(events.map((event) => [event.id, event.recordedAt]))).map((note) => advice.pattern(note, person, clock)),
    open: openActions(state, new Map(soups.map((soup) => [soup.id, soup])), book, now).map((open) =>
      advice.openAction(open, state.batches[open.batchId]?.name ?? open.batchId, clock),
    ),
    signature:
      last === null
        ? null
        : {
            by: person(last.by),
            at: localIso(timeZone, last.at),
            note: last.note,
            upToSeq: last.upToSeq,
            holds: signed !== undefined && entered.every((event) => event.seq <= last.upToSeq),
            recordedThemselves: readings.some((reading) => reading.by === last.by),
          },
    head: basis.head,
  };

  function plainReading(event: Extract<StoredEvent, { kind: 'reading.taken/1' | 'reading.taken/2' }>): Omit<ReadingRecord, 'eventId' | 'at' | 'by'> {
    const { purpose, reading, heldS, packId, packVersion } = event.data;
    const more = event.kind === 'reading.taken/2' ? event.data : { rulesVersion: null, pan: null, thermometerId: null, offset: 0, doubt: null, lateReason: null };
    const { rulesVersion, pan, thermometerId, offset, doubt, lateReason } = more;
    return { purpose, reading, shown: reading, heldS, packId, packVersion, rulesVersion, pan, thermometerId, offset, doubt, lateReason, source: 'hand' };
  }

  function verdictsOf(batch: BatchRecord, soup: Soup | undefined, given: Basis, proven: Set<string>): DayRecord['verdicts'] {
    const judged = judgeBatch(batch, soup, book, now);
    return (['cook', 'cool', 'hotHold', 'coldHold', 'reheat', 'timeControl'] as const).flatMap((purpose) => {
      const said = say(judged, purpose, given, rulesAt(book, batch.startedAt));
      // Plants ask for no reading of their own in the pot: nothing is open once they are out of it.
      if (said === null || (purpose === 'cook' && said.verdict === 'inProgress' && batch.finishedAt !== null)) return [];
      for (const timed of said.proof) proven.add(`${batch.batchId} ${String(timed.at)}`);
      const proof = said.proof.map((timed) => `${clock(timed.at)} ${beside(timed, judged, purpose)}`);
      return [{ batchId: batch.batchId, batch: batch.name, purpose: words.PURPOSE[purpose], verdict: said.verdict, says: said.says, rule: said.rule, proof }];
    });
  }

  function beside({ reading }: TimedReading, { cooling }: BatchVerdicts, purpose: Purpose): string {
    const limits = purpose === 'cool' ? (cooling?.stages ?? []).flatMap((stage): TemperatureLimit[] => (stage.to.kind === 'temperature' ? [stage.to.limit] : [])) : [];
    const near = limits.find((limit) => Math.abs(reading.value - (reading.unit === 'C' ? limit.c : (limit.f ?? limit.c * 1.8 + 32))) < 0.1);
    return near === undefined ? words.degrees(reading.value, reading.unit) : words.degreesBeside(reading.value, reading.unit, near);
  }

  function missedLines(day: DayState, given: Basis, of: (batch: BatchRecord) => Soup | undefined): readonly RecordLine[] {
    return Object.values(day.batches).flatMap((batch) => {
      const since = batch.holdingSince;
      const rule = since === null ? null : rulesAt(given.book, since).hotHold;
      if (since === null || rule === null) return [];
      const ends = [batch.coolingSegments.find((segment) => segment.since > since)?.since, batch.stage.kind === 'discarded' ? batch.stage.at : undefined, given.now];
      const until = Math.min(...ends.flatMap((end) => (end === undefined ? [] : [end])));
      const own = batch.readings.filter((reading) => reading.purpose === 'hotHold' && reading.at >= since);
      return missedChecks(own, since, until, rule.checkEveryMin).map(({ dueAt, readAt }): RecordLine => {
        const explained = batch.explained.find((one) => one.dueAt === dueAt);
        return {
          seq: 0,
          what: 'missed',
          at: dueAt,
          takenAt: localIso(timeZone, dueAt),
          recordedAt: '',
          late: false,
          batchId: batch.batchId,
          batch: batch.name,
          soup: of(batch)?.name ?? '',
          purpose: words.PURPOSE.hotHold,
          temperature: null,
          unit: null,
          asTyped: null,
          offset: 0,
          thermometer: '',
          pan: null,
          verdict: null,
          says: `MISSED: no reading was taken${readAt === null ? '' : ` until ${clock(readAt)}`}`,
          rule: rule.citation,
          pack: '',
          by: '',
          device: '',
          note: explained?.reason ?? '',
          litres: null,
          voided: false,
          suspect: false,
          eventId: '',
          hash: '',
        };
      });
    });
  }
}
