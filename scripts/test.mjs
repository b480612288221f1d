import { mkdirSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { ROOT, checkNode, ensureChromium, ensurePackages, ensurePdftotext } from './lib/install.mjs';
import { startCluster } from './lib/postgres.mjs';
import { ensureProbes } from './probes.mjs';
import { quietly, shown } from './lib/run.mjs';
import { failPlainly, step } from './lib/say.mjs';
import { ensureServer } from './lib/server.mjs';
import { ensureWeb } from './lib/web.mjs';

/** `npm test`: installs what is missing, then every check there is; ends on one line `N passed, N failed`. Names after it pick stages. */

const bin = (name) => path.join(ROOT, 'node_modules/.bin', name);
const RESULTS = path.join(ROOT, 'test-results');
const ROOMS = ['core', 'contract', 'demo', 'server', 'cli', 'probes', 'app'];
const STAGES = ['static', 'unit', 'browser'];
let passed = 0;
let failed = 0;
/** What failed, said again at the end: what came before is long. */
const broken = [];

/** A check that is whole or not: counts as one. Answers when it is over, and never throws. */
async function check(name, command, args) {
  const from = Date.now();
  try {
    await quietly(path.isAbsolute(command) ? command : bin(command), args, { cwd: ROOT });
    passed += 1;
    console.log(`${name}: whole (${((Date.now() - from) / 1000).toFixed(1)} s)`);
  } catch (error) {
    failed += 1;
    broken.push(name);
    console.error(`${name}: FAILED\n${error.message}`);
  }
}

/** Two at a time: the machines this runs on have two cores at least. */
async function twoAtATime(checks) {
  const waiting = [...checks];
  const worker = async () => {
    for (let next = waiting.shift(); next !== undefined; next = waiting.shift()) await check(...next);
  };
  await Promise.all([worker(), worker()]);
}

async function jest(env) {
  const file = path.join(RESULTS, 'jest.json');
  rmSync(file, { force: true });
  await shown(
    bin('jest'),
    [
      '--projects',
      ...ROOMS.map((room) => path.join(ROOT, room, room === 'app' ? 'jest.config.js' : 'jest.config.cjs')),
      '--json',
      `--outputFile=${file}`,
      '--silent=false',
      '--maxWorkers=2',
      // Finding by role in a simulated page is slow on a busy machine.
      '--testTimeout=30000',
    ],
    { cwd: ROOT, env },
  );
  try {
    const { numPassedTests, numFailedTests, numFailedTestSuites, numRuntimeErrorTestSuites, testResults } = JSON.parse(readFileSync(file, 'utf8'));
    for (const suite of testResults) if (suite.status === 'failed') broken.push(path.relative(ROOT, suite.name));
    passed += numPassedTests;
    // A file that cannot even be loaded has no failed test of its own.
    failed += numFailedTests + (numFailedTests === 0 ? numFailedTestSuites : numRuntimeErrorTestSuites);
  } catch {
    failed += 1;
    broken.push('tests of the rooms, without a result');
  }
}

async function browser(env) {
  const file = path.join(RESULTS, 'e2e.json');
  rmSync(file, { force: true });
  await shown(bin('playwright'), ['test', '--config', path.join(ROOT, 'e2e/playwright.config.ts')], { cwd: ROOT, env });
  try {
    const { stats, suites } = JSON.parse(readFileSync(file, 'utf8'));
    const specsOf = (suite) => [...suite.specs, ...(suite.suites ?? []).flatMap(specsOf)];
    for (const spec of suites.flatMap(specsOf)) if (!spec.ok) broken.push(`e2e/${spec.file}:${spec.line}`);
    passed += stats.expected;
    failed += stats.unexpected + stats.flaky;
    if (stats.expected + stats.unexpected === 0) failed += 1;
  } catch {
    failed += 1;
    broken.push('tests in the browser, without a result');
  }
}

async function main() {
  checkNode();
  await ensurePackages();
  const only = process.argv.slice(2);
  const unknown = only.filter((stage) => !STAGES.includes(stage));
  if (unknown.length > 0) throw new Error(`There is no stage called ${unknown.join(', ')}: name ${STAGES.join(', ')}, or nothing for all.`);
  const wanted = (stage) => only.length === 0 || only.includes(stage);
  mkdirSync(RESULTS, { recursive: true });
  if (wanted('static')) {
    // The longest first, so that the two ends meet.
    await twoAtATime([
      ['Lint', 'eslint', ['.']],
      ...ROOMS.flatMap((room) => [
        [`Types of ${room}`, 'tsc', ['-p', `${room}/tsconfig.json`]],
        [`Types of ${room}'s tests`, 'tsc', ['-p', `${room}/tsconfig.test.json`]],
      ]),
      ['Types of e2e', 'tsc', ['-p', 'e2e/tsconfig.json']],
      ['Types of bench', 'tsc', ['-p', 'bench/tsconfig.json']],
      ['Format', 'prettier', ['--check', '.', '--log-level', 'warn']],
      ['Arrows between the rooms', 'depcruise', ['--config', '.dependency-cruiser.cjs', ...ROOMS]],
      ['Nothing unused', 'knip', []],
      ['Kernel as it is written', process.execPath, [path.join(ROOT, 'scripts/kernel.mjs'), '--check']],
    ]);
  }
  const needsDatabase = wanted('unit') || wanted('browser');
  if (needsDatabase) {
    const folder = mkdtempSync(path.join(tmpdir(), 'broth-test-'));
    const cluster = await startCluster({ folder, durable: false });
    const env = { ...process.env, TEST_DATABASE_URL: cluster.url, NODE_ENV: 'test' };
    try {
      if (wanted('unit')) await jest(env);
      if (wanted('browser')) {
        await ensureChromium();
        await ensurePdftotext();
        await step('Bundling the server and the probes', async () => {
          await ensureServer();
          await ensureProbes();
        });
        await ensureWeb();
        await browser({ ...process.env, TEST_DATABASE_URL: cluster.url });
      }
    } finally {
      await cluster.stop('immediate').catch(() => undefined);
      rmSync(folder, { recursive: true, force: true });
    }
  }
  if (broken.length > 0) console.log(`Failed: ${broken.join(', ')}`);
  console.log(`${passed} passed, ${failed} failed`);
  process.exit(failed === 0 ? 0 : 1);
}

main().catch((error) => {
  console.log(`${passed} passed, ${failed + 1} failed`);
  failPlainly(error);
});
