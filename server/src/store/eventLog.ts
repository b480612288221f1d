import type { StoredEvent } from '@broth/contract';
import type { CalendarDate, DayEvent, Instant } from '@broth/core';
import canonicalizeJson from 'canonicalize';
import type { Client } from 'pg';
import { QueryTypes } from 'sequelize';
import type { Sequelize } from 'sequelize';

/** The record of an event: what is hashed. Its recording time is part of it, its place in the chain is not. */
type EventRecord = DayEvent & { readonly recordedAt: number };

export interface EventRow {
  readonly seq: string;
  readonly id: string;
  readonly kind: string;
  readonly day: string;
  readonly at: Date;
  readonly recorded_at: Date;
  readonly by: string;
  readonly device: string;
  readonly data: unknown;
  readonly hash: string;
}

const COLUMNS = `seq, id, kind, to_char(day, 'YYYY-MM-DD') AS day, at, recorded_at, by, device, data, hash`;

/** Canonical JSON (RFC 8785): the same event is the same text on every machine. */
export function canonical(record: unknown): string {
  const text = canonicalizeJson(record);
  if (text === undefined) throw new Error('Invariant: an event record is always JSON');
  return text;
}

/** The record as it was hashed, worked out again from its columns. */
export function recordOf(row: EventRow): EventRecord {
  const { id, kind, day, by, device, data } = row;
  return { id, kind, day, at: row.at.getTime(), by, device, data, recordedAt: row.recorded_at.getTime() } as EventRecord;
}

function storedEventOf(row: EventRow): StoredEvent {
  return { ...recordOf(row), seq: Number(row.seq), hash: row.hash };
}

/** What became of an event that was to be appended. */
export type Appended =
  | { readonly outcome: 'stored' | 'already'; readonly event: StoredEvent }
  /** An event with this id is in the log already, with other content. */
  | { readonly outcome: 'idReused' }
  | { readonly outcome: 'kitchenUnknown' | 'personUnknown' | 'targetUnknown' }
  | { readonly outcome: 'batchUnknown' | 'batchDiscarded'; readonly batchName: string };

interface Answer {
  readonly outcome: Exclude<Appended['outcome'], 'idReused'>;
  readonly seq: string;
  readonly hash: string;
  readonly batch_name: string | null;
}

/**
 * The hottest statement there is, so it goes to the driver of a pooled connection directly: a query through the mapper costs as much
 * again as the append itself.
 */
async function askAppend(sequelize: Sequelize, kitchenId: string, record: string): Promise<Answer | undefined> {
  const connection = (await sequelize.connectionManager.getConnection({ type: 'write' })) as Client;
  try {
    const { rows } = await connection.query<Answer>('SELECT * FROM append_event($1, $2)', [kitchenId, record]);
    return rows[0];
  } finally {
    sequelize.connectionManager.releaseConnection(connection);
  }
}

/** Appends one event durably, finds the one with its id, or says why it may not be: one statement, one round trip, one commit. */
export async function appendEvent(sequelize: Sequelize, kitchenId: string, event: DayEvent, recordedAt: number): Promise<Appended> {
  const record = { ...event, recordedAt };
  const answer = await askAppend(sequelize, kitchenId, canonical(record));
  if (answer === undefined) throw new Error('Invariant: append_event answers with one row');
  switch (answer.outcome) {
    case 'stored':
      return { outcome: 'stored', event: { ...record, seq: Number(answer.seq), hash: answer.hash } };
    case 'already':
      return compareWithStored(sequelize, kitchenId, event, answer.seq);
    case 'batchUnknown':
    case 'batchDiscarded':
      return { outcome: answer.outcome, batchName: answer.batch_name ?? '' };
    case 'kitchenUnknown':
    case 'personUnknown':
    case 'targetUnknown':
      return { outcome: answer.outcome };
  }
}

async function compareWithStored(sequelize: Sequelize, kitchenId: string, event: DayEvent, seq: string): Promise<Appended> {
  const [row] = await sequelize.query<EventRow>(`SELECT ${COLUMNS} FROM event WHERE kitchen_id = $kitchenId AND seq = $seq`, { bind: { kitchenId, seq }, type: QueryTypes.SELECT });
  if (row === undefined) throw new Error(`Invariant: event ${seq} vanished from an append-only log`);
  const stored = storedEventOf(row);
  const same = canonical({ ...event, recordedAt: stored.recordedAt }) === canonical(recordOf(row));
  return same ? { outcome: 'already', event: stored } : { outcome: 'idReused' };
}

/** Events after `since`, oldest first, at most `limit`. */
export async function eventsSince(sequelize: Sequelize, kitchenId: string, since: number, limit = 1000): Promise<readonly StoredEvent[]> {
  const rows = await sequelize.query<EventRow>(`SELECT ${COLUMNS} FROM event WHERE kitchen_id = $kitchenId AND seq > $since ORDER BY seq LIMIT $limit`, {
    bind: { kitchenId, since, limit },
    type: QueryTypes.SELECT,
  });
  return rows.map(storedEventOf);
}

/** Events of the last batches of a soup, whatever the day, oldest first; voided ones left out. At most `batches` batches. */
export async function eventsOfSoup(sequelize: Sequelize, kitchenId: string, soupId: string, batches = 30): Promise<readonly StoredEvent[]> {
  const rows = await sequelize.query<EventRow>(
    `SELECT ${COLUMNS} FROM event e WHERE kitchen_id = $kitchenId
       AND data->>'batchId' IN (
         SELECT data->>'batchId' FROM event WHERE kitchen_id = $kitchenId AND kind = 'batch.started/1' AND data->>'soupId' = $soupId ORDER BY seq DESC LIMIT $batches)
       AND NOT EXISTS (SELECT 1 FROM event v WHERE v.kitchen_id = e.kitchen_id AND v.kind = 'event.voided/1' AND v.data->>'eventId' = e.id::text)
     ORDER BY seq`,
    { bind: { kitchenId, soupId, batches }, type: QueryTypes.SELECT },
  );
  return rows.map(storedEventOf);
}

/** All events of a business day, oldest first. */
export async function eventsOfDay(sequelize: Sequelize, kitchenId: string, day: CalendarDate): Promise<readonly StoredEvent[]> {
  const rows = await sequelize.query<EventRow>(`SELECT ${COLUMNS} FROM event WHERE kitchen_id = $kitchenId AND day = $day ORDER BY seq`, {
    bind: { kitchenId, day },
    type: QueryTypes.SELECT,
  });
  return rows.map(storedEventOf);
}

/** The head of a kitchen's chain: the place and hash that everything before it hangs on. */
export async function headOf(sequelize: Sequelize, kitchenId: string): Promise<{ readonly seq: number; readonly hash: string }> {
  const [head] = await sequelize.query<{ seq: string; hash: string }>('SELECT seq, hash FROM event_head WHERE kitchen_id = $kitchenId', {
    bind: { kitchenId },
    type: QueryTypes.SELECT,
  });
  return { seq: Number(head?.seq ?? 0), hash: head?.hash ?? '' };
}

/** Place of the newest event of a kitchen; 0 when there is none. */
export async function lastSeqOf(sequelize: Sequelize, kitchenId: string): Promise<number> {
  const [head] = await sequelize.query<{ seq: string }>('SELECT seq FROM event_head WHERE kitchen_id = $kitchenId', { bind: { kitchenId }, type: QueryTypes.SELECT });
  return Number(head?.seq ?? 0);
}

/** What was 86ed and not put back on, in a stretch of days: when, by day, service and soup. The last time counts. */
export async function soldOutBetween(
  sequelize: Sequelize,
  kitchenId: string,
  from: CalendarDate,
  until: CalendarDate,
): Promise<readonly { readonly day: CalendarDate; readonly serviceId: string; readonly soupId: string; readonly at: Instant }[]> {
  const rows = await sequelize.query<EventRow>(
    `SELECT DISTINCT ON (day, data->>'serviceId', data->>'soupId') ${COLUMNS} FROM event e
     WHERE kitchen_id = $kitchenId AND kind IN ('soup.out/1', 'soup.back/1') AND day >= $from AND day < $until
       AND NOT EXISTS (SELECT 1 FROM event v WHERE v.kitchen_id = e.kitchen_id AND v.kind = 'event.voided/1' AND v.data->>'eventId' = e.id::text)
     ORDER BY day, data->>'serviceId', data->>'soupId', at DESC`,
    { bind: { kitchenId, from, until }, type: QueryTypes.SELECT },
  );
  return rows.map(storedEventOf).flatMap((event) => (event.kind === 'soup.out/1' ? [{ day: event.day, ...event.data, at: event.at }] : []));
}
