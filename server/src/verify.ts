import { openDatabase } from './store/database';
import { verifyChain } from './store/verifyChain';
import type { ChainReport } from './store/verifyChain';

/** Checks the event log's chain from the first event on, and names the first one that is not what was recorded. Exit 1 when broken. */

const { DATABASE_URL } = process.env;
if (DATABASE_URL === undefined || DATABASE_URL === '') {
  console.error('DATABASE_URL is not set. Run this as "npm run verify".');
  process.exit(2);
}

function sentence(report: ChainReport): string {
  if (report.kind === 'whole') return `${report.kitchenId}: ${String(report.events)} events, every one as it was recorded.`;
  const which = `${report.kitchenId}: event ${String(report.seq)}${report.id === null ? '' : ` (${report.id})`}`;
  switch (report.what) {
    case 'changed':
      return `${which} is not what was recorded. It, or its hash, was changed behind the database's back.`;
    case 'missing':
      return `${which} is missing. It was removed behind the database's back.`;
    case 'samples':
      return `${which}: the samples of its minute are not those its hash was taken over. They were changed behind the database's back.`;
    case 'cutOff':
      return `${which} and all after it are missing: the log was cut off at its end.`;
  }
}

const database = openDatabase(DATABASE_URL);
const reports = await verifyChain(database);
for (const report of reports) console.log(sentence(report));
await database.close();
process.exit(reports.some((report) => report.kind === 'broken') ? 1 : 0);
