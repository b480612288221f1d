import { readFileSync } from 'node:fs';
import { broth } from './broth';

/** The command line as a process: the one place that touches files and streams. */

process.exitCode = broth(process.argv.slice(2), {
  read: (file) => readFileSync(file === '-' ? 0 : file, 'utf8'),
  print: (text) => process.stdout.write(`${text}\n`),
  complain: (text) => process.stderr.write(`${text}\n`),
  workedS: () => process.cpuUsage().user / 1e6,
});
