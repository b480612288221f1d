import type { SoupHistory } from '@broth/contract';
import { foldDay, minutesBetween, soupOf } from '@broth/core';
import type { Food, Soup } from '@broth/core';
import { Op, QueryTypes } from 'sequelize';
import type { Sequelize, Transaction } from 'sequelize';
import { eventsOfSoup } from './eventLog';
import { notify, soupsOf, stationOf } from './kitchenStore';
import { PantryRow, SoupRow, StandingParRow } from './models';

/** What became of a soup that was to be saved. */
export type Saved =
  | { readonly outcome: 'saved'; readonly soup: Soup }
  | { readonly outcome: 'unknown' }
  | { readonly outcome: 'nameTaken' }
  | { readonly outcome: 'conflict'; readonly version: number; readonly by: string };

/** Two people saving at once take turns: the second sees what the first has saved. */
async function lockBook(sequelize: Sequelize, kitchenId: string, transaction: Transaction): Promise<void> {
  await sequelize.query('SELECT pg_advisory_xact_lock(hashtext($key))', { bind: { key: `${kitchenId} book` }, transaction, type: QueryTypes.SELECT });
}

async function isNameTaken(kitchenId: string, name: string, exceptId: string, transaction: Transaction): Promise<boolean> {
  const rows = await SoupRow.findAll({ where: { kitchenId, retired: false }, order: [['version', 'DESC']], transaction });
  const seen = new Set<string>();
  return rows.some((row) => {
    const isNewest = !seen.has(row.soupId);
    seen.add(row.soupId);
    return isNewest && row.soupId !== exceptId && row.body.name.trim().toLowerCase() === name.trim().toLowerCase();
  });
}

/** Puts a new soup into the book, at its end; its id is made its own. A soup that is served also gets a par of 0 L, so that it stands on the list. */
export async function addSoup(sequelize: Sequelize, kitchenId: string, soup: Soup, by: string, now: Date): Promise<Saved> {
  const saved = await sequelize.transaction(async (transaction): Promise<Saved> => {
    await lockBook(sequelize, kitchenId, transaction);
    if (await isNameTaken(kitchenId, soup.name, '', transaction)) return { outcome: 'nameTaken' };
    const rows = await SoupRow.findAll({ where: { kitchenId }, attributes: ['soupId', 'position'], transaction });
    const taken = new Set(rows.map((row) => row.soupId));
    let soupId = soup.id;
    for (let count = 2; taken.has(soupId); count += 1) soupId = `${soup.id}-${String(count)}`;
    const position = Math.max(-1, ...rows.map((row) => row.position)) + 1;
    const body: Soup = { ...soup, id: soupId, version: 1 };
    await SoupRow.create({ kitchenId, soupId, version: 1, position, body, savedAt: now, savedBy: by }, { transaction });
    if (soup.role === 'soup') {
      const { station } = await stationOf(kitchenId);
      // The busiest service of most stations is the second one; the lead moves it from there.
      const service = station.services[1] ?? station.services[0];
      const last = (await StandingParRow.max<number | null, StandingParRow>('position', { where: { kitchenId }, transaction })) ?? -1;
      if (service !== undefined) await StandingParRow.create({ kitchenId, soupId, parL: 0, serviceId: service.id, position: last + 1 }, { transaction });
    }
    return { outcome: 'saved', soup: body };
  });
  if (saved.outcome === 'saved') await notify(sequelize, { kitchen: kitchenId, topic: 'book' });
  return saved;
}

/** Saves the next version of a soup, if nobody has saved one since `baseVersion`. Older versions stay. */
export async function saveSoup(sequelize: Sequelize, kitchenId: string, soup: Soup, baseVersion: number, by: string, now: Date): Promise<Saved> {
  const saved = await sequelize.transaction(async (transaction): Promise<Saved> => {
    await lockBook(sequelize, kitchenId, transaction);
    const newest = await SoupRow.findOne({ where: { kitchenId, soupId: soup.id, retired: false }, order: [['version', 'DESC']], transaction });
    if (newest === null) return { outcome: 'unknown' };
    if (newest.version !== baseVersion) return { outcome: 'conflict', version: newest.version, by: newest.savedBy ?? 'Somebody' };
    if (await isNameTaken(kitchenId, soup.name, soup.id, transaction)) return { outcome: 'nameTaken' };
    const body: Soup = { ...soup, version: baseVersion + 1 };
    await SoupRow.create({ kitchenId, soupId: soup.id, version: body.version, position: newest.position, body, savedAt: now, savedBy: by }, { transaction });
    return { outcome: 'saved', soup: body };
  });
  if (saved.outcome === 'saved') await notify(sequelize, { kitchen: kitchenId, topic: 'book' });
  return saved;
}

/** Takes a soup out of the book and off the list; its versions stay for the batches made from them. Answers false when it is not there. */
export async function retireSoup(sequelize: Sequelize, kitchenId: string, soupId: string): Promise<boolean> {
  const [count] = await SoupRow.update({ retired: true }, { where: { kitchenId, soupId, retired: false } });
  if (count === 0) return false;
  await StandingParRow.destroy({ where: { kitchenId, soupId } });
  await notify(sequelize, { kitchen: kitchenId, topic: 'book' });
  return true;
}

export interface SoupVersion {
  readonly version: number;
  readonly savedAt: number | null;
  readonly savedBy: string | null;
  readonly soup: Soup;
}

/** Every version of a soup, newest first; of one taken out of the book as well. */
export async function versionsOf(kitchenId: string, soupId: string): Promise<readonly SoupVersion[]> {
  const rows = await SoupRow.findAll({ where: { kitchenId, soupId }, order: [['version', 'DESC']] });
  return rows.map(({ version, savedAt, savedBy, body }) => ({ version, savedAt: savedAt?.getTime() ?? null, savedBy, soup: body }));
}

/** The versions that these batches were made from, where they are not the book's newest. */
export async function earlierSoups(
  kitchenId: string,
  batches: readonly { readonly soupId: string; readonly soupVersion: number }[],
  newest: readonly Soup[] | null = null,
): Promise<readonly Soup[]> {
  if (batches.length === 0) return [];
  const current = new Map((newest ?? (await soupsOf(kitchenId))).map((soup) => [soup.id, soup.version]));
  const wanted = batches.filter(({ soupId, soupVersion }) => current.get(soupId) !== soupVersion);
  if (wanted.length === 0) return [];
  const rows = await SoupRow.findAll({ where: { kitchenId, [Op.or]: wanted.map(({ soupId, soupVersion }) => ({ soupId, version: soupVersion })) } });
  return rows.map((row) => row.body);
}

/** What the last batches of a soup really took: minutes by step, litres of liquid and of soup for every litre planned. */
export async function historyOf(sequelize: Sequelize, kitchenId: string, soupId: string): Promise<SoupHistory> {
  const events = await eventsOfSoup(sequelize, kitchenId, soupId);
  const versions = await versionsOf(kitchenId, soupId);
  const soupByVersion = new Map(versions.map(({ soup }) => [`${soup.id}@${String(soup.version)}`, soup]));
  const stepTimes: Record<string, { volumeL: number; minutes: number }[]> = {};
  const liquidPerLitre: number[] = [];
  const yieldShare: number[] = [];
  const batches = Object.values(foldDay(events).batches).sort((left, right) => left.startedAt - right.startedAt);
  for (const batch of batches) {
    const { volumeL } = batch;
    if (volumeL <= 0) continue;
    for (const [stepId, { startedAt, doneAt }] of Object.entries(batch.steps)) {
      const minutes = doneAt === null ? 0 : minutesBetween(startedAt, doneAt);
      if (minutes >= 0.5) (stepTimes[stepId] ??= []).push({ volumeL, minutes });
    }
    const soup = soupOf(batch, soupByVersion);
    const liquids = new Set(soup?.ingredients.filter((line) => line.part === 'liquid').map((line) => line.id));
    // What was entered as poured is what went in; without it, the ticks of the liquid's lines.
    const entered = batch.additions.filter((added) => added.unit === 'mL' && added.for === 'liquid');
    const poured = entered.length > 0 ? entered : batch.additions.filter((added) => added.unit === 'mL' && added.for === 'card' && liquids.has(added.ingredientId ?? ''));
    const pouredL = poured.reduce((sum, added) => sum + (added.amount ?? 0), 0) / 1000;
    if (pouredL > 0) liquidPerLitre.push(pouredL / volumeL);
    if (batch.volumeOutL !== null && batch.volumeOutL > 0) yieldShare.push(batch.volumeOutL / volumeL);
  }
  return { stepTimes, liquidPerLitre, yieldShare };
}

export async function pantryOf(kitchenId: string): Promise<readonly Food[]> {
  const rows = await PantryRow.findAll({ where: { kitchenId } });
  return rows.map((row) => row.body).sort((left, right) => left.name.localeCompare(right.name));
}

/** Puts things into the pantry, each under its id. */
export async function putPantry(sequelize: Sequelize, kitchenId: string, foods: readonly Food[]): Promise<void> {
  await sequelize.transaction(async (transaction) => {
    for (const body of foods) await PantryRow.upsert({ kitchenId, foodId: body.id, body }, { transaction });
  });
  await notify(sequelize, { kitchen: kitchenId, topic: 'book' });
}
