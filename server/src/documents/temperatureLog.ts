import { words } from '@broth/contract';
import type { StoredEvent } from '@broth/contract';
import { foldDay, judgeBatch } from '@broth/core';
import type { BatchRecord, BatchVerdicts, CoolingVerdict, HoldVerdict, Purpose, ReheatVerdict, RulePack, Soup, Station, TemperatureUnit, VerdictKind } from '@broth/core';
import { localClock, localIso } from '../localTime';

/** One line of the day's temperature log: a reading with the verdict as it stood at that moment, or a corrective action. */
export interface LogLine {
  readonly seq: number;
  readonly what: 'reading' | 'corrective action' | 'correction of an entry';
  readonly takenAt: string;
  readonly recordedAt: string;
  readonly batch: string;
  readonly soup: string;
  readonly purpose: string;
  readonly temperature: number | null;
  readonly unit: TemperatureUnit | null;
  readonly asTyped: string | null;
  readonly verdict: VerdictKind | null;
  readonly says: string;
  readonly rule: string;
  readonly pack: string;
  readonly by: string;
  readonly device: string;
  readonly note: string;
  readonly litres: number | null;
  readonly voided: boolean;
  readonly eventId: string;
  readonly hash: string;
}

interface Basis {
  readonly events: readonly StoredEvent[];
  readonly soups: readonly Soup[];
  readonly station: Station;
  readonly pack: RulePack;
  readonly timeZone: string;
  readonly unit: TemperatureUnit;
}

interface Said {
  readonly verdict: VerdictKind;
  readonly says: string;
  readonly rule: string;
}

function sayCooling(verdict: CoolingVerdict, { pack, unit, timeZone }: Basis): Said {
  const stage = verdict.stage1.kind === 'pass' ? verdict.stage2 : verdict.stage1;
  return { verdict: verdict.kind, says: words.cooling(verdict, pack.cooling, unit, (instant) => localClock(timeZone, instant)), rule: stage.citation };
}
function sayHold(verdict: HoldVerdict, pack: RulePack, rule: 'hotHold' | 'coldHold', unit: TemperatureUnit): Said {
  return { verdict: verdict.kind, says: words.hold(verdict, pack[rule].limit, pack[rule].side, unit), rule: verdict.citation };
}
function sayReheat(verdict: ReheatVerdict, pack: RulePack, unit: TemperatureUnit): Said {
  return { verdict: verdict.kind, says: words.reheat(verdict, pack.reheat.limit, pack.reheat.holdS, pack.reheat.withinMin, unit), rule: verdict.citation };
}

function say(verdicts: BatchVerdicts, purpose: Purpose, basis: Basis): Said | null {
  const { pack, unit } = basis;
  switch (purpose) {
    case 'cool':
      return verdicts.cooling === null ? null : sayCooling(verdicts.cooling, basis);
    case 'hotHold':
      return verdicts.hotHold === null ? null : sayHold(verdicts.hotHold, pack, 'hotHold', unit);
    case 'coldHold':
      return verdicts.coldHold === null ? null : sayHold(verdicts.coldHold, pack, 'coldHold', unit);
    case 'reheat':
      return verdicts.reheat === null ? null : sayReheat(verdicts.reheat, pack, unit);
  }
}

function lineOf(event: StoredEvent, basis: Basis, batches: Readonly<Record<string, BatchRecord>>, voided: ReadonlySet<string>): LogLine | null {
  const { events, soups, station, pack, timeZone } = basis;
  const fixed = {
    seq: event.seq,
    takenAt: localIso(timeZone, event.at),
    recordedAt: localIso(timeZone, event.recordedAt),
    by: station.people.find((person) => person.id === event.by)?.name ?? event.by,
    device: event.device,
    voided: voided.has(event.id),
    eventId: event.id,
    hash: event.hash,
    temperature: null,
    unit: null,
    asTyped: null,
    verdict: null,
    says: '',
    rule: '',
    pack: `${pack.name}, version ${String(pack.version)}`,
    purpose: '',
    note: '',
    litres: null,
    batch: '',
    soup: '',
  };
  if (event.kind === 'event.voided/1') return { ...fixed, what: 'correction of an entry', note: `${event.data.eventId}: ${event.data.reason}` };
  if (event.kind !== 'reading.taken/1' && event.kind !== 'corrective.taken/1') return null;
  const batch = batches[event.data.batchId];
  const soup = soups.find((one) => one.id === batch?.soupId && one.version === batch.soupVersion) ?? soups.find((one) => one.id === batch?.soupId);
  const named = { ...fixed, batch: batch?.name ?? event.data.batchId, soup: soup?.name ?? '' };
  if (event.kind === 'corrective.taken/1') {
    const { action, note, volumeL, ruleId } = event.data;
    return { ...named, what: 'corrective action', says: words.ACTION[action].name, rule: ruleId, note, litres: volumeL };
  }
  const { reading, purpose, packId, packVersion } = event.data;
  // The verdict as it stood when the reading was taken: what came later does not colour it.
  const then = foldDay(events.filter((other) => other.at <= event.at && !voided.has(other.id))).batches[event.data.batchId];
  const said = then === undefined || fixed.voided ? null : say(judgeBatch(then, soup, pack, event.at), purpose, basis);
  return {
    ...named,
    what: 'reading',
    purpose: words.PURPOSE[purpose],
    temperature: reading.value,
    unit: reading.unit,
    asTyped: reading.rawText,
    pack: `${packId}, version ${String(packVersion)}`,
    ...(said ?? { says: fixed.voided ? 'Voided: does not count' : '' }),
  };
}

/** The day's temperature log, in the order things were recorded. Voided entries stay, marked. */
export function temperatureLog(basis: Basis): readonly LogLine[] {
  const { batches } = foldDay(basis.events);
  const voided = new Set(basis.events.flatMap((event) => (event.kind === 'event.voided/1' ? [event.data.eventId] : [])));
  return basis.events.flatMap((event) => {
    const line = lineOf(event, basis, batches, voided);
    return line === null ? [] : [line];
  });
}
