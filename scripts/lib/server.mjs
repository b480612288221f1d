import { spawn } from 'node:child_process';
import path from 'node:path';
import { ROOT } from './install.mjs';

const SERVER = path.join(ROOT, 'server/dist/main.js');

/** Bundles the server. Loaded only after the packages are there. */
export async function ensureServer() {
  const { buildServer } = await import('../../server/build.mjs');
  await buildServer();
}

/**
 * Starts the server; `ready` resolves when it says so, `closed` when it has ended. Its output goes where ours goes unless `quiet`.
 * @param {Record<string, string | undefined>} env
 * @returns {{ child: import('node:child_process').ChildProcess, ready: Promise<void>, closed: Promise<number>, output: () => string }}
 */
export function startServer(env, { quiet = false } = {}) {
  const child = spawn(process.execPath, ['--enable-source-maps', SERVER], { env: { ...process.env, ...env }, stdio: ['ignore', 'pipe', 'pipe'] });
  let said = '';
  const ready = new Promise((resolve, reject) => {
    child.stdout.on('data', (data) => {
      said += data;
      if (!quiet) process.stdout.write(data);
      if (/ is ready at /.test(said)) resolve();
    });
    child.stderr.on('data', (data) => {
      said += data;
      if (!quiet) process.stderr.write(data);
    });
    child.on('close', (code) => reject(new Error(`The server ended with ${code}.\n${said.slice(-4000)}`)));
  });
  // Whoever only cares about the end of the process must not trip over this.
  ready.catch(() => undefined);
  const closed = new Promise((resolve) => child.on('close', (code) => resolve(code ?? 1)));
  return { child, ready, closed, output: () => said };
}
