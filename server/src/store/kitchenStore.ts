import type { DayView, StoredPlan } from '@broth/contract';
import type { CalendarDate, DayPlan, Lot, Par, Soup, Station } from '@broth/core';
import { QueryTypes } from 'sequelize';
import type { Sequelize, Transaction } from 'sequelize';
import { DayParRow, DayPlanRow, KitchenRow, LotRow, SoupRow, StandingParRow, StationRow } from './models';

export async function findKitchen(kitchenId: string): Promise<KitchenRow | null> {
  return KitchenRow.findByPk(kitchenId);
}

/** The newest version of every soup that is in the book, in its order. */
export async function soupsOf(kitchenId: string): Promise<readonly Soup[]> {
  const rows = await SoupRow.findAll({
    where: { kitchenId, retired: false },
    order: [
      ['position', 'ASC'],
      ['version', 'DESC'],
    ],
  });
  const newest = new Map<string, Soup>();
  for (const row of rows) if (!newest.has(row.soupId)) newest.set(row.soupId, row.body);
  return [...newest.values()];
}

/** Two who change one thing at the same moment take turns: the second sees what the first has done. */
export function takingTurns<Result>(sequelize: Sequelize, key: string, work: (transaction: Transaction) => Promise<Result>): Promise<Result> {
  return sequelize.transaction(async (transaction) => {
    await sequelize.query('SELECT pg_advisory_xact_lock(hashtext($key))', { bind: { key }, transaction, type: QueryTypes.SELECT });
    return work(transaction);
  });
}

/** The newest version of a kitchen's station. */
export async function stationOf(kitchenId: string, transaction: Transaction | null = null): Promise<{ version: number; station: Station }> {
  const row = await StationRow.findOne({ where: { kitchenId }, order: [['version', 'DESC']], transaction });
  if (row === null) throw new Error(`Invariant: kitchen ${kitchenId} has a station`);
  return { version: row.version, station: row.body };
}

/** A changed station, as a new version of it. */
export async function changeStation(sequelize: Sequelize, kitchenId: string, change: (station: Station, transaction: Transaction) => Station | Promise<Station>): Promise<void> {
  await takingTurns(sequelize, `${kitchenId} station`, async (transaction) => {
    const { version, station } = await stationOf(kitchenId, transaction);
    await StationRow.create({ kitchenId, version: version + 1, body: await change(station, transaction) }, { transaction });
  });
  await notify(sequelize, { kitchen: kitchenId, topic: 'book' });
}

/** The soups that are wanted at a service, by id. */
export async function soupsAt(kitchenId: string, serviceId: string, transaction: Transaction): Promise<readonly string[]> {
  return (await StandingParRow.findAll({ where: { kitchenId, serviceId }, order: [['position', 'ASC']], transaction })).map(({ soupId }) => soupId);
}

/** Has a soup wanted at another service, on every day. What it needs is the soup on the list and the service at the station: the first that is missing is named; null = done. */
export async function serveAt(sequelize: Sequelize, kitchenId: string, soupId: string, serviceId: string): Promise<'service' | 'soup' | null> {
  const missing = await takingTurns(sequelize, `${kitchenId} station`, async (transaction) => {
    const { station } = await stationOf(kitchenId, transaction);
    if (station.services.every(({ id }) => id !== serviceId)) return 'service';
    const [count] = await StandingParRow.update({ serviceId }, { where: { kitchenId, soupId }, transaction });
    return count === 0 ? 'soup' : null;
  });
  if (missing === null) await notify(sequelize, { kitchen: kitchenId, topic: 'book' });
  return missing;
}

/** The day's pars: what was put for the day, else what stands. In the order of the list. */
export async function parsOf(kitchenId: string, day: CalendarDate): Promise<readonly Par[]> {
  const [standing, changed] = await Promise.all([StandingParRow.findAll({ where: { kitchenId }, order: [['position', 'ASC']] }), DayParRow.findAll({ where: { kitchenId, day } })]);
  const put = new Map(changed.map((row) => [row.soupId, row.parL]));
  return standing.map(({ soupId, serviceId, parL }) => ({ soupId, serviceId, parL: put.get(soupId) ?? parL }));
}

/** Puts one soup's par for a day. false when the soup is not on the list. */
export async function putPar(sequelize: Sequelize, kitchenId: string, day: CalendarDate, soupId: string, parL: number): Promise<boolean> {
  if ((await StandingParRow.count({ where: { kitchenId, soupId } })) === 0) return false;
  await DayParRow.upsert({ kitchenId, day, soupId, parL });
  await notify(sequelize, { kitchen: kitchenId, topic: 'day', day });
  return true;
}

/** So far back a batch may still be on hand. Days. */
const ON_HAND_DAYS = 30;

interface StoredBatchRow {
  readonly batch_id: string;
  readonly soup_id: string;
  readonly volume_l: number;
  readonly prepared_on: CalendarDate;
}

/**
 * What of the batches of the days before went into the cold and was not thrown away, heated again or taken out by time: leftovers are on hand without anybody
 * entering them. Stock and other components are not: how much of those went into the day's soups nobody logs.
 */
async function storedBatches(sequelize: Sequelize, kitchenId: string, day: CalendarDate): Promise<readonly Lot[]> {
  const rows = await sequelize.query<StoredBatchRow>(
    `WITH counted AS (
       SELECT e.* FROM event e WHERE e.kitchen_id = $kitchenId AND e.day >= ($day::date - ${String(ON_HAND_DAYS)}) AND e.day < $day::date
         AND e.kind IN ('batch.started/1', 'cold.stored/2', 'reheat.started/1', 'corrective.taken/1', 'timeControl.started/1')
         AND NOT EXISTS (SELECT 1 FROM event v WHERE v.kitchen_id = e.kitchen_id AND v.kind = 'event.voided/1' AND v.data->>'eventId' = e.id::text)
     )
     SELECT DISTINCT ON (s.data->>'batchId') s.data->>'batchId' AS batch_id, s.data->>'soupId' AS soup_id, (c.data->>'volumeL')::float AS volume_l,
       to_char(s.at AT TIME ZONE k.time_zone, 'YYYY-MM-DD') AS prepared_on
     FROM counted c JOIN kitchen k ON k.kitchen_id = c.kitchen_id
       JOIN counted s ON s.kind = 'batch.started/1' AND s.data->>'batchId' = c.data->>'batchId'
       JOIN soup p ON p.kitchen_id = c.kitchen_id AND p.soup_id = s.data->>'soupId' AND p.version = (s.data->>'soupVersion')::int AND p.body->>'role' <> 'component'
     WHERE c.kind = 'cold.stored/2' AND (c.data->>'volumeL')::float > 0 AND NOT EXISTS (
       SELECT 1 FROM counted g WHERE g.data->>'batchId' = c.data->>'batchId' AND g.at >= c.at AND (g.kind IN ('reheat.started/1', 'timeControl.started/1') OR g.data->>'action' = 'discard')
     ) ORDER BY s.data->>'batchId', c.at DESC`,
    { bind: { kitchenId, day }, type: QueryTypes.SELECT },
  );
  return rows.map((row) => ({ id: row.batch_id, soupId: row.soup_id, volumeL: row.volume_l, state: 'chilled', preparedOn: row.prepared_on, frozenDays: 0 }));
}

/** What is on hand as a day begins: what was entered, and what stands in the cold from the days before; nothing that was thrown away. */
export async function lotsOf(sequelize: Sequelize, kitchenId: string, day: CalendarDate): Promise<readonly Lot[]> {
  const [rows, stored, gone] = await Promise.all([
    LotRow.findAll({ where: { kitchenId }, order: [['lotId', 'ASC']] }),
    storedBatches(sequelize, kitchenId, day),
    sequelize.query<{ lot_id: string }>(
      `SELECT data->>'lotId' AS lot_id FROM event e WHERE kitchen_id = $kitchenId AND kind = 'lot.discarded/1'
         AND NOT EXISTS (SELECT 1 FROM event v WHERE v.kitchen_id = e.kitchen_id AND v.kind = 'event.voided/1' AND v.data->>'eventId' = e.id::text)`,
      { bind: { kitchenId }, type: QueryTypes.SELECT },
    ),
  ]);
  const discarded = new Set(gone.map((row) => row.lot_id));
  const entered = rows.map(({ lotId, soupId, volumeL, state, preparedOn, frozenDays }): Lot => ({ id: lotId, soupId, volumeL, state, preparedOn, frozenDays }));
  // The same batch stored twice is one lot.
  const once = new Map([...entered, ...stored].map((lot) => [lot.id, lot]));
  return [...once.values()].filter((lot) => !discarded.has(lot.id));
}

function storedPlanOf(row: DayPlanRow): StoredPlan {
  return { version: row.version, acceptedAt: row.acceptedAt.getTime(), by: row.acceptedBy, plan: row.body } as StoredPlan;
}

export async function planOf(kitchenId: string, day: CalendarDate): Promise<DayView['plan']> {
  const row = await DayPlanRow.findOne({ where: { kitchenId, day }, order: [['version', 'DESC']] });
  return row === null ? null : storedPlanOf(row);
}

/** Every accepted plan of a day, the newest first. */
export async function plansOf(kitchenId: string, day: CalendarDate): Promise<StoredPlan[]> {
  return (await DayPlanRow.findAll({ where: { kitchenId, day }, order: [['version', 'DESC']] })).map(storedPlanOf);
}

/** Stores an accepted plan as the next version. */
export async function acceptPlan(
  sequelize: Sequelize,
  kitchenId: string,
  plan: DayPlan,
  accepted: { readonly by: string; readonly at: Date; readonly basedOn: number | null },
): Promise<{ readonly kind: 'accepted' | 'overtaken'; readonly plan: StoredPlan }> {
  const { by, at, basedOn } = accepted;
  const { row, isNew } = await takingTurns(sequelize, `${kitchenId} ${plan.date}`, async (transaction) => {
    const newest = await DayPlanRow.findOne({ where: { kitchenId, day: plan.date }, order: [['version', 'DESC']], transaction });
    if (newest !== null && basedOn !== null && newest.version > basedOn) return { row: newest, isNew: false };
    const version = (newest?.version ?? 0) + 1;
    return { row: await DayPlanRow.create({ kitchenId, day: plan.date, version, acceptedAt: at, acceptedBy: by, body: plan }, { transaction }), isNew: true };
  });
  if (!isNew) return { kind: 'overtaken', plan: storedPlanOf(row) };
  await notify(sequelize, { kitchen: kitchenId, topic: 'day', day: plan.date });
  return { kind: 'accepted', plan: storedPlanOf(row) };
}

export type Notice =
  | { readonly kitchen: string; readonly topic: 'events' }
  | { readonly kitchen: string; readonly topic: 'book' }
  | { readonly kitchen: string; readonly topic: 'day'; readonly day: CalendarDate };

export async function notify(sequelize: Sequelize, notice: Notice): Promise<void> {
  await sequelize.query("SELECT pg_notify('broth', $notice)", { bind: { notice: JSON.stringify(notice) }, type: QueryTypes.SELECT });
}
