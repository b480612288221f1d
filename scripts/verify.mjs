import path from 'node:path';
import { ROOT, checkNode, ensurePackages } from './lib/install.mjs';
import { startCluster } from './lib/postgres.mjs';
import { shown } from './lib/run.mjs';
import { failPlainly } from './lib/say.mjs';
import { ensureServer } from './lib/server.mjs';

/** `npm run verify`: walks the event log and names the first event that is not what was recorded. Works beside a running server too. */

async function main() {
  checkNode();
  await ensurePackages();
  await ensureServer();
  const { DATABASE_URL } = process.env;
  const cluster = DATABASE_URL ? null : await startCluster({ folder: path.resolve(process.env.BROTH_DATA_DIR ?? path.join(ROOT, '.data')), durable: true, quiet: true });
  const code = await shown(process.execPath, [path.join(ROOT, 'server/dist/verify.js')], { env: { ...process.env, DATABASE_URL: cluster?.url ?? DATABASE_URL } });
  if (cluster?.startedHere) await cluster.stop();
  process.exit(code);
}

main().catch(failPlainly);
