import { fileURLToPath } from 'node:url';
import { buildApp } from './app';
import { openHub } from './live/hub';
import { dateIn } from './localTime';
import { startDigester } from './probes/digest';
import { watchDrop } from './probes/drop';
import { openSearch } from './search/pool';
import { isDatabaseAway, migrate, openDatabase } from './store/database';
import { seedIfEmpty } from './store/seed';

/** The server as a process: the one place that reads the environment and the clock. */

const { PORT = '8080', HOST = '127.0.0.1', DATABASE_URL, BROTH_WEB_ROOT, BROTH_NOW, BROTH_DROP } = process.env;
if (DATABASE_URL === undefined || DATABASE_URL === '') {
  console.error('DATABASE_URL is not set. Start with "npm start", which starts a database of its own, or set it to a PostgreSQL address.');
  process.exit(2);
}

// BROTH_NOW starts the clock at a chosen instant, for tests and pictures of the demo; it runs on from there.
const offsetMs = BROTH_NOW === undefined ? 0 : Date.parse(BROTH_NOW) - Date.now();
if (Number.isNaN(offsetMs)) {
  console.error(`BROTH_NOW is "${BROTH_NOW ?? ''}", which is not a time. Write it like 2026-11-25T05:30:00-05:00.`);
  process.exit(2);
}
const now = (): number => Date.now() + offsetMs;

const database = openDatabase(DATABASE_URL);
const hub = openHub(DATABASE_URL);
const search = openSearch(fileURLToPath(new URL('search/search.worker.js', import.meta.url)));
const context = { database, hub, now, chosenClock: BROTH_NOW !== undefined, search };
const digester = startDigester(context);
const app = await buildApp(context, { webRoot: BROTH_WEB_ROOT ?? null, logger: { level: process.env['LOG_LEVEL'] ?? 'warn' } });

const RETRY_MS = 1000;
/** Migrates and seeds as soon as the database answers; until then every request is told that it is away. */
async function prepare(): Promise<void> {
  for (let said = false; ;) {
    try {
      await migrate(database);
      if (await seedIfEmpty(database, (timeZone) => dateIn(timeZone, now()))) console.log('The invented demo kitchen was loaded.');
      return;
    } catch (error) {
      if (!isDatabaseAway(error)) throw error;
      if (!said) console.error('The database does not answer yet. Trying again every second.');
      said = true;
      await new Promise((resolve) => setTimeout(resolve, RETRY_MS));
    }
  }
}

// Data loggers that write files drop them here.
const drop = BROTH_DROP === undefined || BROTH_DROP === '' ? null : watchDrop(context, BROTH_DROP, app.log);

async function stop(): Promise<void> {
  await app.close();
  await drop?.close();
  await digester.close();
  await hub.close();
  await search.close();
  await database.close().catch(() => undefined);
  process.exit(0);
}
process.on('SIGINT', () => void stop());
process.on('SIGTERM', () => void stop());

try {
  await app.listen({ port: Number(PORT), host: HOST });
} catch (error) {
  const { code } = error as { code?: string };
  console.error(code === 'EADDRINUSE' ? `Port ${PORT} is taken by another program. Choose another one: PORT=8081 npm start` : `Cannot listen on ${HOST}:${PORT}: ${String(error)}`);
  process.exit(1);
}
await prepare();
const address = app.server.address();
const port = typeof address === 'object' && address !== null ? address.port : PORT;
console.log(`Broth Board is ready at http://${HOST}:${String(port)}`);
