import { readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import asc from 'assemblyscript/asc';
import { ROOT } from './lib/install.mjs';

/** `npm run kernel`: compiles core/assembly to WebAssembly, into the engine. `--check`: says whether what is there is what would come of it. */

const SOURCE = path.join(ROOT, 'core/assembly');
const TARGET = path.join(ROOT, 'core/src/sequence/engine/kernelBinary.ts');

async function compiled() {
  let binary;
  const { error, stderr } = await asc.main(
    ['index.ts', '--optimizeLevel', '3', '--shrinkLevel', '0', '--runtime', 'stub', '--noAssert', '--bindings', 'raw', '--use', 'abort=', '--outFile', 'kernel.wasm'],
    {
      readFile: (name, folder) => {
        try {
          return readFileSync(path.join(SOURCE, folder, name), 'utf8');
        } catch {
          return null;
        }
      },
      writeFile: (name, contents) => {
        if (name.endsWith('.wasm')) binary = contents;
      },
      listFiles: () => [],
    },
  );
  if (error !== null) throw new Error(`core/assembly does not compile:\n${stderr.toString()}`);
  // As numbers, not as text: reading text would be a tenth of the first plan, and packed for the way to the browser it is longer.
  return `/** Compiled from core/assembly by \`npm run kernel\`. */\nexport const KERNEL: Uint8Array = new Uint8Array([${[...binary].join(',')}]);\n`;
}

const made = await compiled();
if (!process.argv.includes('--check')) writeFileSync(TARGET, made);
else if (readFileSync(TARGET, 'utf8') !== made) {
  console.error('The kernel is not what core/assembly compiles to: run `npm run kernel`.');
  process.exitCode = 1;
}
