import { createHash } from 'node:crypto';
import { existsSync, readFileSync, readdirSync, rmSync, statSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { brotliCompressSync, constants, gzipSync } from 'node:zlib';
import { ROOT } from './install.mjs';
import { quietly } from './run.mjs';
import { step } from './say.mjs';

export const WEB_ROOT = path.join(ROOT, 'app/dist');
const MARK = path.join(WEB_ROOT, '.built-from');

/** Nothing is asked of the network, and no question is asked of anybody. */
export const EXPO_ENV = { CI: '1', EXPO_OFFLINE: '1', EXPO_NO_TELEMETRY: '1', EXPO_UNSTABLE_HEADLESS: '1', BROWSER: 'none' };

function filesUnder(folder) {
  return readdirSync(folder, { withFileTypes: true })
    .filter((entry) => !['node_modules', 'dist', '.cache', '.expo'].includes(entry.name))
    .flatMap((entry) => (entry.isDirectory() ? filesUnder(path.join(folder, entry.name)) : [path.join(folder, entry.name)]));
}

/** One hash over everything the web app is built from. */
function sourceHash() {
  const hash = createHash('sha256');
  const files = [...['app', 'contract', 'core'].flatMap((room) => filesUnder(path.join(ROOT, room))), path.join(ROOT, 'package-lock.json')]
    .filter((file) => !/\.test\.tsx?$/.test(file))
    .sort();
  for (const file of files) hash.update(path.relative(ROOT, file)).update(readFileSync(file));
  return hash.digest('hex');
}

function compress(folder) {
  for (const file of filesUnder(folder)) {
    if (!/\.(js|css|html|json|svg)$/.test(file) || statSync(file).size < 1024) continue;
    const body = readFileSync(file);
    writeFileSync(`${file}.gz`, gzipSync(body, { level: 9 }));
    writeFileSync(`${file}.br`, brotliCompressSync(body, { params: { [constants.BROTLI_PARAM_SIZE_HINT]: body.length } }));
  }
}

/** The worker that keeps all of the app on the phone: it opens without a network. The API is never answered from it. */
async function writeServiceWorker() {
  // Asked for here, not above: what only builds needs it.
  const { generateSW } = await import('workbox-build');
  const { warnings } = await generateSW({
    globDirectory: WEB_ROOT,
    globPatterns: ['**/*.{js,html,css,json,svg,png,woff2}'],
    swDest: path.join(WEB_ROOT, 'sw.js'),
    navigateFallback: '/index.html',
    navigateFallbackDenylist: [/^\/api\//],
    dontCacheBustURLsMatching: /[\\/](_expo[\\/]static|assets)[\\/]/,
    maximumFileSizeToCacheInBytes: 8 * 1024 * 1024,
    cleanupOutdatedCaches: true,
    clientsClaim: true,
    inlineWorkboxRuntime: true,
    sourcemap: false,
  });
  if (warnings.length > 0) throw new Error(warnings.join('\n'));
}

/** Builds the web app when its sources have changed since the last build. */
export async function ensureWeb() {
  const hash = sourceHash();
  if (existsSync(MARK) && readFileSync(MARK, 'utf8') === hash) return;
  await step('Building the app (a minute the first time)', async () => {
    rmSync(WEB_ROOT, { recursive: true, force: true });
    await quietly(path.join(ROOT, 'node_modules/.bin/expo'), ['export', '--platform', 'web', '--output-dir', 'dist'], {
      cwd: path.join(ROOT, 'app'),
      env: { ...process.env, ...EXPO_ENV },
    });
    await writeServiceWorker();
    compress(WEB_ROOT);
  });
  writeFileSync(MARK, hash);
}
