import { spawn } from 'node:child_process';
import path from 'node:path';
import { ROOT, checkNode, ensurePackages } from './lib/install.mjs';
import { startCluster } from './lib/postgres.mjs';
import { failPlainly } from './lib/say.mjs';
import { startServer } from './lib/server.mjs';
import { EXPO_ENV } from './lib/web.mjs';

/** `npm run dev`: the app with live reload on PORT (8080); the server beside it, bundled and started anew when its sources change. */

async function main() {
  checkNode();
  await ensurePackages();
  const { DATABASE_URL, PORT = '8080', API_PORT = '8081' } = process.env;
  const cluster = DATABASE_URL ? null : await startCluster({ folder: path.resolve(process.env.BROTH_DATA_DIR ?? path.join(ROOT, '.data')), durable: true });
  const { watchServer } = await import('../server/build.mjs');
  let server = null;
  const restart = async () => {
    if (server !== null) {
      server.child.kill('SIGTERM');
      await server.closed;
    }
    server = startServer({ DATABASE_URL: cluster?.url ?? DATABASE_URL, PORT: API_PORT });
  };
  const stopWatching = await watchServer(restart);
  const { CI: _noWatching, ...quietEnv } = EXPO_ENV;
  const expo = spawn(path.join(ROOT, 'node_modules/.bin/expo'), ['start', '--web', '--port', PORT, '--localhost'], {
    cwd: path.join(ROOT, 'app'),
    env: { ...process.env, ...quietEnv, API_PORT },
    stdio: 'inherit',
  });
  let ending = false;
  const end = async () => {
    if (ending) return;
    ending = true;
    expo.kill('SIGTERM');
    await stopWatching();
    server?.child.kill('SIGTERM');
    await server?.closed;
    if (cluster?.startedHere) await cluster.stop().catch(() => undefined);
    process.exit(0);
  };
  process.on('SIGINT', () => void end());
  process.on('SIGTERM', () => void end());
  expo.on('close', () => void end());
}

main().catch(failPlainly);
