import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { build } from 'esbuild';

const here = path.dirname(fileURLToPath(import.meta.url));

/** Bundles our own sources; packages stay where npm put them. */
export function buildServer() {
  return build({
    absWorkingDir: here,
    entryPoints: ['src/main.ts', 'src/verify.ts'],
    outdir: 'dist',
    bundle: true,
    platform: 'node',
    target: 'node20',
    format: 'esm',
    splitting: true,
    sourcemap: true,
    logLevel: 'warning',
    plugins: [
      {
        name: 'packages-stay-outside',
        setup(hooks) {
          hooks.onResolve({ filter: /^[^./]/ }, ({ kind, path: name }) =>
            kind === 'entry-point' || name.startsWith('@broth/') || path.isAbsolute(name) ? undefined : { path: name, external: true },
          );
        },
      },
    ],
  });
}

if (process.argv[1] === fileURLToPath(import.meta.url)) await buildServer();
