import path from 'node:path';
import { ROOT, checkNode, ensurePackages } from './lib/install.mjs';
import { startCluster } from './lib/postgres.mjs';
import { failPlainly, step } from './lib/say.mjs';
import { ensureServer, startServer } from './lib/server.mjs';
import { WEB_ROOT, ensureWeb } from './lib/web.mjs';

/** `npm start`: everything a fresh machine needs, then the app and its API on one port. Ctrl-C stops what was started here. */

const WATCH_MS = 2000;

async function main() {
  checkNode();
  await ensurePackages();
  const { DATABASE_URL } = process.env;
  const cluster = DATABASE_URL ? null : await startCluster({ folder: path.resolve(process.env.BROTH_DATA_DIR ?? path.join(ROOT, '.data')), durable: true });
  let server = null;
  let watch = null;
  let ending = false;
  const end = async (code) => {
    if (ending) return;
    ending = true;
    clearInterval(watch);
    if (server !== null && server.child.exitCode === null) {
      server.child.kill('SIGTERM');
      await server.closed;
    }
    if (cluster?.startedHere) await cluster.stop().catch(() => undefined);
    process.exit(code);
  };
  process.on('SIGINT', () => void end(0));
  process.on('SIGTERM', () => void end(0));
  try {
    await step('Bundling the server', ensureServer);
    await ensureWeb();
    server = startServer({ DATABASE_URL: cluster?.url ?? DATABASE_URL, BROTH_WEB_ROOT: WEB_ROOT });
    if (cluster !== null) {
      // Whatever kills the database in mid-day, it is brought back; the server waits for it and goes on.
      let starting = false;
      watch = setInterval(async () => {
        if (starting || ending || cluster.pid() !== null) return;
        starting = true;
        console.error('The database has stopped. Starting it again.');
        await cluster.start().catch((error) => console.error(String(error)));
        starting = false;
      }, WATCH_MS);
    }
    const code = await server.closed;
    await end(code);
  } catch (error) {
    if (!ending) console.error(error.message ?? error);
    await end(1);
  }
}

main().catch(failPlainly);
