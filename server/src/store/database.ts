import { QueryTypes, Sequelize } from 'sequelize';
import type { QueryInterface } from 'sequelize';
import { SequelizeStorage, Umzug } from 'umzug';
import type { RunnableMigration } from 'umzug';
import { defineModels } from './models';
import { createKitchen } from './migrations/0001-kitchen';
import { createEventLog } from './migrations/0002-event-log';
import { createSoupBook } from './migrations/0003-soup-book';
import { createSales } from './migrations/0004-sales';
import { planUnits } from './migrations/0005-plan-units';
import { aim } from './migrations/0006-aim';
import { laterBatches } from './migrations/0007-later-batches';
import { liveDay } from './migrations/0008-live-day';
import { foodSafety } from './migrations/0009-food-safety';

/** In order; a name is never used again. */
const MIGRATIONS: Readonly<Record<string, (query: QueryInterface) => Promise<void>>> = {
  '0001-kitchen': createKitchen,
  '0002-event-log': createEventLog,
  '0003-soup-book': createSoupBook,
  '0004-sales': createSales,
  '0005-plan-units': planUnits,
  '0006-aim': aim,
  '0007-later-batches': laterBatches,
  '0008-live-day': liveDay,
  '0009-food-safety': foodSafety,
};

/** A database that has not answered by then is away. Milliseconds. */
const CONNECT_MS = 3000;

/** Opens a pool; connects on first use. A database that is away shows as an error of the query, not here. */
export function openDatabase(url: string, connectMs: number = CONNECT_MS): Sequelize {
  const sequelize = new Sequelize(url, {
    dialect: 'postgres',
    logging: false,
    pool: { max: 10, acquire: connectMs + 2000, idle: 10_000 },
    dialectOptions: { connectionTimeoutMillis: connectMs, keepAlive: true },
  });
  defineModels(sequelize);
  return sequelize;
}

/** Brings the schema up to date. Several servers starting at once take turns behind an advisory lock. */
export async function migrate(sequelize: Sequelize): Promise<void> {
  await sequelize.transaction(async (transaction) => {
    await sequelize.query('SELECT pg_advisory_xact_lock(7016081)', { transaction, type: QueryTypes.SELECT });
    const context = sequelize.getQueryInterface();
    const umzug = new Umzug<QueryInterface>({
      migrations: Object.entries(MIGRATIONS).map(([name, up]): RunnableMigration<QueryInterface> => ({ name, up: () => up(context) })),
      context,
      storage: new SequelizeStorage({ sequelize, tableName: 'schema_migration' }),
      logger: undefined,
    });
    await umzug.up();
  });
}

/** SQLSTATE classes and socket errors that mean the database cannot be used right now, rather than that we asked it something wrong. */
const AWAY = /^(08|57P0|53|ECONN|ENOENT|EPIPE|ETIMEDOUT|EHOSTUNREACH|42P01$|42883$|3D000)/;

function codesOf(error: unknown): readonly string[] {
  if (typeof error !== 'object' || error === null) return [];
  const { code, parent, name, message } = error as { code?: unknown; parent?: unknown; name?: unknown; message?: unknown };
  const own = typeof code === 'string' ? [code] : [];
  const lost = typeof name === 'string' && /^SequelizeConnection/.test(name) ? ['08000'] : [];
  const broken = typeof message === 'string' && /Connection terminated|connection is closed|pool is draining/i.test(message) ? ['08006'] : [];
  return [...own, ...lost, ...broken, ...codesOf(parent)];
}

/** Whether an error says that the database is away (down, starting, not migrated yet, out of connections). */
export function isDatabaseAway(error: unknown): boolean {
  return codesOf(error).some((code) => AWAY.test(code));
}
