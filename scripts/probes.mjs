import path from 'node:path';
import { ROOT, checkNode, ensurePackages } from './lib/install.mjs';
import { shown } from './lib/run.mjs';
import { failPlainly } from './lib/say.mjs';

/** `npm run probes -- --probes pan1:F --port 4300`: simulated probes beside a running server. Without arguments: two, to the server of `npm start`. */

export const PROBES = path.join(ROOT, 'probes/dist/probes.mjs');

/** Bundles the simulator; answers its file. */
export async function ensureProbes() {
  const { build } = await import('esbuild');
  await build({ absWorkingDir: ROOT, entryPoints: ['probes/src/main.ts'], outfile: PROBES, bundle: true, platform: 'node', target: 'node20', format: 'esm', logLevel: 'warning' });
  return PROBES;
}

async function main() {
  checkNode();
  await ensurePackages();
  process.exit(await shown(process.execPath, [await ensureProbes(), ...process.argv.slice(2)]));
}

if (process.argv[1] === path.join(ROOT, 'scripts/probes.mjs')) main().catch(failPlainly);
