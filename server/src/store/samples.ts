import { createHash } from 'node:crypto';
import type { CalendarDate, DayEvent, Instant, ProbeMinute, Thermometer } from '@broth/core';
import type { Client } from 'pg';
import { QueryTypes } from 'sequelize';
import type { Sequelize } from 'sequelize';

/** Raw samples of probes: many, in a table of their own, a partition a day. What the log holds of them is a digest and a hash of each minute. */

export interface Sample {
  readonly thermometerId: string;
  readonly at: Instant;
  readonly value: number;
}

/** A sample that is new. `lateIn` is set when its minute had been closed: then it wants a digest of its own. */
export interface TakenSample extends Sample {
  readonly lateIn: string | null;
}

interface SampleRow {
  readonly thermometer_id: string;
  readonly at: Date;
  readonly value: number;
}

function sampleOf({ thermometer_id: thermometerId, at, value }: SampleRow): Sample {
  return { thermometerId, at: at.getTime(), value };
}

/** Days whose partition is known to be there, of each database. */
const known = new WeakMap<Sequelize, Set<string>>();

async function ensurePartitions(sequelize: Sequelize, connection: Client, samples: readonly Sample[]): Promise<void> {
  const there = known.get(sequelize) ?? new Set<string>();
  known.set(sequelize, there);
  for (const day of new Set(samples.map(({ at }) => new Date(at).toISOString().slice(0, 10)))) {
    if (there.has(day)) continue;
    await connection.query('SELECT ensure_sample_partition($1)', [day]);
    there.add(day);
  }
}

/** Takes samples in, each once. Answers those that were new. `lateIn` names the digest that late ones will be in. Straight to the driver: a mapper costs more than the rows. */
export async function takeSamples(sequelize: Sequelize, kitchenId: string, samples: readonly Sample[], lateIn: string): Promise<readonly TakenSample[]> {
  if (samples.length === 0) return [];
  const connection = (await sequelize.connectionManager.getConnection({ type: 'write' })) as Client;
  try {
    await ensurePartitions(sequelize, connection, samples);
    const { rows } = await connection.query<SampleRow & { late_in: string | null }>('SELECT * FROM take_samples($1, $2, $3, $4, $5)', [
      kitchenId,
      lateIn,
      samples.map((one) => one.thermometerId),
      samples.map((one) => one.at),
      samples.map((one) => one.value),
    ]);
    return rows.map((row) => ({ ...sampleOf(row), lateIn: row.late_in }));
  } catch (error) {
    // Somebody dropped a day: its partition is made anew at the next try.
    known.delete(sequelize);
    throw error;
  } finally {
    sequelize.connectionManager.releaseConnection(connection);
  }
}

/** Closes the minutes up to an instant: what comes later for them is late. */
export async function closeSamples(sequelize: Sequelize, kitchenId: string, until: Instant): Promise<void> {
  await sequelize.query('SELECT close_samples($kitchenId, to_timestamp($until / 1000.0))', { bind: { kitchenId, until }, type: QueryTypes.SELECT });
}

/** The samples of a closed stretch, without what came late, by thermometer and time: the order their hash is taken in. */
export async function samplesBetween(sequelize: Sequelize, kitchenId: string, from: Instant, to: Instant): Promise<readonly Sample[]> {
  const rows = await sequelize.query<SampleRow>(
    `SELECT thermometer_id, at, value FROM sample WHERE kitchen_id = $kitchenId AND late_in IS NULL AND at >= to_timestamp($from / 1000.0) AND at < to_timestamp($to / 1000.0)
     ORDER BY thermometer_id COLLATE "C", at`,
    { bind: { kitchenId, from, to }, type: QueryTypes.SELECT },
  );
  return rows.map(sampleOf);
}

/** The samples a late digest is over, in the same order. */
export async function samplesLateIn(sequelize: Sequelize, kitchenId: string, lateIn: string, from: Instant, to: Instant): Promise<readonly Sample[]> {
  const rows = await sequelize.query<SampleRow>(
    `SELECT thermometer_id, at, value FROM sample WHERE kitchen_id = $kitchenId AND late_in = $lateIn AND at >= to_timestamp($from / 1000.0) AND at < to_timestamp($to / 1000.0)
     ORDER BY thermometer_id COLLATE "C", at`,
    { bind: { kitchenId, lateIn, from, to }, type: QueryTypes.SELECT },
  );
  return rows.map(sampleOf);
}

/** The first sample from an instant on that was not late; null = there is none. */
export async function firstSampleFrom(sequelize: Sequelize, kitchenId: string, from: Instant): Promise<Instant | null> {
  const [row] = await sequelize.query<{ at: Date }>(
    `SELECT at FROM sample WHERE kitchen_id = $kitchenId AND late_in IS NULL AND at >= to_timestamp($from / 1000.0) ORDER BY at LIMIT 1`,
    { bind: { kitchenId, from }, type: QueryTypes.SELECT },
  );
  return row?.at.getTime() ?? null;
}

/** The order hashes are taken in, for what does not come from the database. */
export function inHashOrder(samples: readonly Sample[]): readonly Sample[] {
  return [...samples].sort((left, right) => (left.thermometerId === right.thermometerId ? left.at - right.at : left.thermometerId < right.thermometerId ? -1 : 1));
}

/** What a chart needs of a stretch: at most so many buckets of a thermometer, each with its lowest, highest and last. */
export async function thinnedSamples(
  sequelize: Sequelize,
  kitchenId: string,
  thermometerId: string,
  from: Instant,
  to: Instant,
  buckets: number,
): Promise<readonly { readonly at: Instant; readonly min: number; readonly max: number; readonly last: number; readonly count: number }[]> {
  const rows = await sequelize.query<{ at: Date; min: number; max: number; last: number; count: number }>(
    `SELECT max(at) AS at, min(value) AS min, max(value) AS max, (array_agg(value ORDER BY at DESC))[1] AS last, count(*)::int AS count FROM sample
     WHERE kitchen_id = $kitchenId AND thermometer_id = $thermometerId AND at >= to_timestamp($from / 1000.0) AND at < to_timestamp($to / 1000.0)
     GROUP BY width_bucket(extract(epoch FROM at), $from / 1000.0, $to / 1000.0, $buckets) ORDER BY 1`,
    { bind: { kitchenId, thermometerId, from, to, buckets }, type: QueryTypes.SELECT },
  );
  return rows.map((row) => ({ ...row, at: row.at.getTime() }));
}

/** The hash of samples: a line each, `thermometer,milliseconds,value`, in the order of thermometer and time. Anybody can work it out again. */
export function samplesSha256(samples: readonly Sample[]): string {
  const hash = createHash('sha256');
  for (const { thermometerId, at, value } of samples) hash.update(`${thermometerId},${String(at)},${String(value)}\n`);
  return hash.digest('hex');
}

export interface Placed {
  readonly thermometerId: string;
  readonly day: CalendarDate;
  readonly at: Instant;
}

/** Probes that stand in a batch, with the day that is of. */
export async function placedProbes(sequelize: Sequelize, kitchenId: string, since: Instant): Promise<readonly Placed[]> {
  const rows = await sequelize.query<{ thermometer_id: string; day: CalendarDate; at: Date; kind: string }>(
    `SELECT DISTINCT ON (data->>'thermometerId') data->>'thermometerId' AS thermometer_id, to_char(day, 'YYYY-MM-DD') AS day, at, kind FROM event e
     WHERE kitchen_id = $kitchenId AND kind IN ('probe.placed/1', 'probe.lifted/1') AND at >= to_timestamp($since / 1000.0)
       AND NOT EXISTS (SELECT 1 FROM event v WHERE v.kitchen_id = e.kitchen_id AND v.kind = 'event.voided/1' AND v.data->>'eventId' = e.id::text)
     ORDER BY data->>'thermometerId', at DESC`,
    { bind: { kitchenId, since }, type: QueryTypes.SELECT },
  );
  return rows.filter((row) => row.kind === 'probe.placed/1').map(({ thermometer_id: thermometerId, day, at }) => ({ thermometerId, day, at: at.getTime() }));
}

/** When the last digest of a closed minute ended; null = none yet. */
export async function digestedUntil(sequelize: Sequelize, kitchenId: string): Promise<Instant | null> {
  const [row] = await sequelize.query<{ until: string | null }>(
    `SELECT (data->>'to')::bigint AS until FROM event WHERE kitchen_id = $kitchenId AND kind = 'samples.digested/1' AND NOT (data->>'late')::boolean ORDER BY seq DESC LIMIT 1`,
    { bind: { kitchenId }, type: QueryTypes.SELECT },
  );
  return row?.until == null ? null : Number(row.until);
}

/** A digest as the log has it. */
interface Digest {
  readonly seq: number;
  readonly id: string;
  readonly data: Extract<DayEvent, { kind: 'samples.digested/1' }>['data'];
}

/** Digests after a place in the log, oldest first, at most `limit`: to be worked out again from the samples. */
export async function digestsAfter(sequelize: Sequelize, kitchenId: string, seq: number, limit: number): Promise<readonly Digest[]> {
  return sequelize.query<Digest>(
    `SELECT seq::int AS seq, id, data FROM event WHERE kitchen_id = $kitchenId AND kind = 'samples.digested/1' AND seq > $seq ORDER BY seq LIMIT $limit`,
    { bind: { kitchenId, seq, limit }, type: QueryTypes.SELECT },
  );
}

/** A probe as its samples are to be taken: its unit, and what it shows too much. */
export interface CheckedProbe {
  readonly unit: Thermometer['unit'];
  readonly offset: number;
}

/** Samples in few words, by probe; of probes that are not among `probes` nothing is said. */
export function minutesOf(samples: readonly Sample[], probes: ReadonlyMap<string, CheckedProbe>): readonly ProbeMinute[] {
  const minutes = new Map<string, ProbeMinute>();
  for (const { thermometerId, at, value } of samples) {
    const probe = probes.get(thermometerId);
    if (probe === undefined) continue;
    const before = minutes.get(thermometerId);
    const isLast = before === undefined || at >= before.lastAt;
    minutes.set(thermometerId, {
      thermometerId,
      ...probe,
      count: (before?.count ?? 0) + 1,
      min: Math.min(before?.min ?? value, value),
      max: Math.max(before?.max ?? value, value),
      lastAt: isLast ? at : before.lastAt,
      last: isLast ? value : before.last,
    });
  }
  return [...minutes.values()];
}
