import { createHash } from 'node:crypto';
import { existsSync, readFileSync, readdirSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { quietly } from './run.mjs';
import { Told, step } from './say.mjs';

export const ROOT = path.resolve(import.meta.dirname, '../..');
const isRoot = process.getuid?.() === 0;

export function checkNode() {
  const [major = 0, minor = 0] = process.versions.node.split('.').map(Number);
  if ((major === 20 && minor >= 19) || (major === 22 && minor >= 13) || major > 22) return;
  throw new Told(`Broth Board needs Node 20.19 or newer (20.x), or 22.13 and up. This is ${process.versions.node}.`);
}

/** npm packages exactly as the lock file has them; nothing is done when they already are. */
export async function ensurePackages() {
  const lock = createHash('sha256')
    .update(readFileSync(path.join(ROOT, 'package-lock.json')))
    .digest('hex');
  const mark = path.join(ROOT, 'node_modules/.installed-for');
  if (existsSync(mark) && readFileSync(mark, 'utf8') === lock) return;
  await step('Installing packages (a minute or two)', () => quietly('npm', ['ci', '--no-progress'], { cwd: ROOT }));
  writeFileSync(mark, lock);
}

async function ensureDebian(packages, what) {
  const line = `apt-get install -y --no-install-recommends ${packages.join(' ')}`;
  if (!isRoot) throw new Told(`${what} is missing. Run this once, then start again:\n\n  sudo ${line}\n`);
  await step(`Installing ${what}`, async () => {
    const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
    await quietly('apt-get', ['update'], { env });
    await quietly('apt-get', line.split(' ').slice(1), { env });
  });
}

/** Folder of the newest PostgreSQL's programs; null when there is none. */
function postgresBin() {
  const base = '/usr/lib/postgresql';
  if (!existsSync(base)) return null;
  const newest = readdirSync(base)
    .filter((version) => existsSync(path.join(base, version, 'bin/initdb')))
    .sort((left, right) => Number(right) - Number(left))[0];
  return newest === undefined ? null : path.join(base, newest, 'bin');
}

export async function ensurePostgres() {
  if (postgresBin() === null) await ensureDebian(['postgresql'], 'PostgreSQL');
  const bin = postgresBin();
  if (bin === null) throw new Told('PostgreSQL was installed, but its programs are not under /usr/lib/postgresql. Set DATABASE_URL to a database of your own.');
  return bin;
}

/** Reads what stands on a PDF's pages: for the tests. */
export async function ensurePdftotext() {
  if (!existsSync('/usr/bin/pdftotext')) await ensureDebian(['poppler-utils'], 'pdftotext');
}

const CHROMIUM = '/usr/bin/chromium';
export async function ensureChromium() {
  if (!existsSync(CHROMIUM)) await ensureDebian(['chromium'], 'Chromium');
}
