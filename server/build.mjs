import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { build, context } from 'esbuild';

/** Bundles our own sources; packages stay where npm put them. */
const OPTIONS = {
  absWorkingDir: path.dirname(fileURLToPath(import.meta.url)),
  entryPoints: ['src/main.ts', 'src/verify.ts', 'src/search/search.worker.ts'],
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
};

export function buildServer() {
  return build(OPTIONS);
}

/** Bundles again whenever a source changes, and says so. Answers how to stop. */
export async function watchServer(onBuilt) {
  const told = { name: 'tell', setup: (hooks) => hooks.onEnd(({ errors }) => (errors.length === 0 ? onBuilt() : undefined)) };
  const watching = await context({ ...OPTIONS, plugins: [...OPTIONS.plugins, told] });
  await watching.watch();
  return () => watching.dispose();
}
