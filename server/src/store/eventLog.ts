import type { StoredEvent } from '@broth/contract';
import type { CalendarDate, DayEvent } from '@broth/core';
import canonicalizeJson from 'canonicalize';
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
  const text = (canonicalizeJson as unknown as (value: unknown) => string | undefined)(record);
  if (text === undefined) throw new Error('Invariant: an event record is always JSON');
  return text;
}

/** The record as it was hashed, worked out again from its columns. */
export function recordOf(row: EventRow): EventRecord {
  const { id, kind, day, by, device, data } = row;
  return { id, kind, day, at: row.at.getTime(), by, device, data, recordedAt: row.recorded_at.getTime() } as EventRecord;
}

export function storedEventOf(row: EventRow): StoredEvent {
  return { ...recordOf(row), seq: Number(row.seq), hash: row.hash };
}

export interface Appended {
  readonly stored: boolean;
  readonly event: StoredEvent;
  /** false when an event with this id is in the log already, with other content. */
  readonly same: boolean;
}

/** Appends one event durably, or finds the one with its id. One statement, one round trip, one commit. */
export async function appendEvent(sequelize: Sequelize, kitchenId: string, event: DayEvent, recordedAt: number): Promise<Appended> {
  const record = { ...event, recordedAt };
  const [answer] = await sequelize.query<{ seq: string; hash: string; stored: boolean }>('SELECT * FROM append_event($kitchenId, $record)', {
    bind: { kitchenId, record: canonical(record) },
    type: QueryTypes.SELECT,
  });
  if (answer === undefined) throw new Error('Invariant: append_event answers with one row');
  if (answer.stored) return { stored: true, same: true, event: { ...record, seq: Number(answer.seq), hash: answer.hash } };
  const [row] = await sequelize.query<EventRow>(`SELECT ${COLUMNS} FROM event WHERE kitchen_id = $kitchenId AND seq = $seq`, {
    bind: { kitchenId, seq: answer.seq },
    type: QueryTypes.SELECT,
  });
  if (row === undefined) throw new Error(`Invariant: event ${answer.seq} vanished from an append-only log`);
  const known = storedEventOf(row);
  return { stored: false, event: known, same: canonical({ ...event, recordedAt: known.recordedAt }) === canonical(recordOf(row)) };
}

/** Events after `since`, oldest first, at most `limit`. */
export async function eventsSince(sequelize: Sequelize, kitchenId: string, since: number, limit = 1000): Promise<readonly StoredEvent[]> {
  const rows = await sequelize.query<EventRow>(`SELECT ${COLUMNS} FROM event WHERE kitchen_id = $kitchenId AND seq > $since ORDER BY seq LIMIT $limit`, {
    bind: { kitchenId, since, limit },
    type: QueryTypes.SELECT,
  });
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

/** Whether a batch was started on a day, and whether it has been discarded since. Voided events do not count. */
export async function batchStanding(sequelize: Sequelize, kitchenId: string, day: CalendarDate, batchId: string): Promise<{ started: boolean; discarded: boolean; name: string }> {
  const rows = await sequelize.query<{ kind: string; name: string | null }>(
    `SELECT e.kind, e.data->>'name' AS name FROM event e
     WHERE e.kitchen_id = $kitchenId AND e.data->>'batchId' = $batchId AND e.day = $day
       AND (e.kind = 'batch.started/1' OR (e.kind = 'corrective.taken/1' AND e.data->>'action' = 'discard'))
       AND NOT EXISTS (SELECT 1 FROM event v WHERE v.kitchen_id = e.kitchen_id AND v.day = e.day AND v.kind = 'event.voided/1' AND v.data->>'eventId' = e.id::text)`,
    { bind: { kitchenId, day, batchId }, type: QueryTypes.SELECT },
  );
  const begun = rows.find((row) => row.kind === 'batch.started/1');
  return { started: begun !== undefined, discarded: rows.some((row) => row.kind === 'corrective.taken/1'), name: begun?.name ?? batchId };
}

export async function eventExists(sequelize: Sequelize, kitchenId: string, id: string): Promise<boolean> {
  const rows = await sequelize.query('SELECT 1 FROM event WHERE kitchen_id = $kitchenId AND id = $id', { bind: { kitchenId, id }, type: QueryTypes.SELECT });
  return rows.length > 0;
}

/** Place of the newest event of a kitchen; 0 when there is none. */
export async function lastSeqOf(sequelize: Sequelize, kitchenId: string): Promise<number> {
  const [head] = await sequelize.query<{ seq: string }>('SELECT seq FROM event_head WHERE kitchen_id = $kitchenId', { bind: { kitchenId }, type: QueryTypes.SELECT });
  return Number(head?.seq ?? 0);
}
