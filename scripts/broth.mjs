import path from 'node:path';
import { ROOT, checkNode, ensurePackages } from './lib/install.mjs';
import { shown } from './lib/run.mjs';
import { failPlainly } from './lib/say.mjs';

/** `npm run -s broth -- scale soup.json --litres 26`: the core on the command line. */

async function main() {
  checkNode();
  await ensurePackages();
  const { build } = await import('esbuild');
  const outfile = path.join(ROOT, 'cli/dist/broth.mjs');
  await build({ absWorkingDir: ROOT, entryPoints: ['cli/src/main.ts'], outfile, bundle: true, platform: 'node', target: 'node20', format: 'esm', logLevel: 'warning' });
  process.exit(await shown(process.execPath, [outfile, ...process.argv.slice(2)]));
}

main().catch(failPlainly);
