import type { StoredEvent, ThermometerStanding } from '@broth/contract';
import type { DayRecord } from '@broth/contract/record';
import { doubtfulSpans } from '@broth/core';
import type { BatchRecord, DayState, Instant, RuleBook, Soup, Station, TemperatureUnit } from '@broth/core';
import { localClock, localIso } from '../localTime';

/** All that a day's record is made of. */
export interface RecordBasis {
  readonly kitchen: DayRecord['kitchen'] & { readonly unit: TemperatureUnit };
  readonly day: string;
  readonly events: readonly StoredEvent[];
  /** The book's cards, and the versions before them that were cooked by. */
  readonly soups: readonly Soup[];
  readonly station: Station;
  readonly book: RuleBook;
  readonly thermometers: readonly ThermometerStanding[];
  readonly head: DayRecord['head'];
  readonly now: Instant;
}

/** How the record calls people, things and moments of a day. */
export interface RecordNames {
  readonly unit: TemperatureUnit;
  readonly book: RuleBook;
  readonly now: Instant;
  readonly person: (id: string) => string;
  readonly thermometer: (id: string | null) => string;
  readonly equipment: (id: string) => string;
  readonly soup: (id: string) => string;
  /** The card a batch was cooked by; of a version that is gone, the one there is. */
  readonly soupOf: (batch: BatchRecord | undefined) => Soup | undefined;
  readonly batch: (id: string) => { readonly batchId: string; readonly batch: string; readonly soup: string };
  /** The rules a reading was taken under. */
  readonly pack: (rulesVersion: number | null) => string;
  readonly clock: (at: Instant) => string;
  readonly iso: (at: Instant) => string;
  /** Read since the last good check of a thermometer that failed the next. */
  readonly isSuspect: (thermometerId: string | null, at: Instant) => boolean;
}

export function recordNames({ kitchen, soups, station, book, thermometers, now }: RecordBasis, state: DayState): RecordNames {
  const { timeZone, unit } = kitchen;
  const nameIn = (list: readonly { readonly id: string; readonly name: string }[], id: string): string => list.find((one) => one.id === id)?.name ?? id;
  const spans = new Map(thermometers.map(({ thermometerId, checks }) => [thermometerId, doubtfulSpans(checks)]));
  const soupOf = (batch: BatchRecord | undefined): Soup | undefined =>
    soups.find((one) => one.id === batch?.soupId && one.version === batch.soupVersion) ?? soups.find((one) => one.id === batch?.soupId);
  return {
    unit,
    book,
    now,
    person: (id) => (id === 'probes' ? 'Probes' : nameIn(station.people, id)),
    thermometer: (id) => (id === null ? '' : nameIn(station.thermometers, id)),
    equipment: (id) => nameIn(station.equipment, id),
    soup: (id) => nameIn(soups, id),
    soupOf,
    batch: (batchId) => {
      const batch = state.batches[batchId];
      return { batchId, batch: batch?.name ?? batchId, soup: soupOf(batch)?.name ?? '' };
    },
    pack: (version) => {
      const rules = book.find((one) => one.rules.version === version)?.rules ?? book[0].rules;
      return `${rules.name}, version ${String(rules.packVersion)}; kitchen's rules ${String(rules.version)}`;
    },
    clock: (at) => localClock(timeZone, at),
    iso: (at) => localIso(timeZone, at),
    isSuspect: (id, at) => id !== null && (spans.get(id) ?? []).some((span) => (span.from === null || at > span.from) && at <= span.to),
  };
}
