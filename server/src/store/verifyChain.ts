import { createHash } from 'node:crypto';
import { QueryTypes } from 'sequelize';
import type { Sequelize } from 'sequelize';
import { canonical, recordOf } from './eventLog';
import type { EventRow } from './eventLog';
import { digestsAfter, samplesBetween, samplesLateIn, samplesSha256 } from './samples';

export type ChainReport =
  | { readonly kind: 'whole'; readonly kitchenId: string; readonly events: number }
  | { readonly kind: 'broken'; readonly kitchenId: string; readonly seq: number; readonly id: string | null; readonly what: 'changed' | 'missing' | 'cutOff' | 'samples' };

const PAGE = 5000;

async function verifyKitchen(sequelize: Sequelize, kitchenId: string): Promise<ChainReport> {
  let hash = '';
  let seq = 0;
  for (;;) {
    const rows = await sequelize.query<EventRow>(
      `SELECT seq, id, kind, to_char(day, 'YYYY-MM-DD') AS day, at, recorded_at, by, device, data, hash FROM event
       WHERE kitchen_id = $kitchenId AND seq > $seq ORDER BY seq LIMIT ${String(PAGE)}`,
      { bind: { kitchenId, seq }, type: QueryTypes.SELECT },
    );
    for (const row of rows) {
      seq += 1;
      if (Number(row.seq) !== seq) return { kind: 'broken', kitchenId, seq, id: null, what: 'missing' };
      // Worked out here in another language than the database's, from the columns a reader sees: neither can hide a change from the other.
      const expected = createHash('sha256')
        .update(`${hash}\n${String(seq)}\n${canonical(recordOf(row))}`)
        .digest('hex');
      if (expected !== row.hash) return { kind: 'broken', kitchenId, seq, id: row.id, what: 'changed' };
      hash = row.hash;
    }
    if (rows.length < PAGE) break;
  }
  const [head] = await sequelize.query<{ seq: string; hash: string }>('SELECT seq, hash FROM event_head WHERE kitchen_id = $kitchenId', {
    bind: { kitchenId },
    type: QueryTypes.SELECT,
  });
  if (head !== undefined && (Number(head.seq) !== seq || head.hash !== hash)) return { kind: 'broken', kitchenId, seq: seq + 1, id: null, what: 'cutOff' };
  return (await verifySamples(sequelize, kitchenId)) ?? { kind: 'whole', kitchenId, events: seq };
}

/** Works every digest out again from its samples. A minute whose samples were let go, all of them, is left: its digest stands. */
async function verifySamples(sequelize: Sequelize, kitchenId: string): Promise<ChainReport | null> {
  for (let seq = 0; ;) {
    const page = await digestsAfter(sequelize, kitchenId, seq, PAGE);
    for (const { seq: place, id, data } of page) {
      seq = place;
      const { from, to, late, thermometerIds } = data;
      const all = late ? await samplesLateIn(sequelize, kitchenId, id, from, to) : await samplesBetween(sequelize, kitchenId, from, to);
      const own = all.filter((one) => thermometerIds.includes(one.thermometerId));
      if (own.length > 0 && samplesSha256(own) !== data.sha256) return { kind: 'broken', kitchenId, seq: place, id, what: 'samples' };
    }
    if (page.length < PAGE) return null;
  }
}

/** Walks every kitchen's chain from its first event and names the first one that is not what was recorded. */
export async function verifyChain(sequelize: Sequelize): Promise<readonly ChainReport[]> {
  const kitchens = await sequelize.query<{ kitchen_id: string }>('SELECT kitchen_id FROM kitchen ORDER BY kitchen_id', { type: QueryTypes.SELECT });
  const reports: ChainReport[] = [];
  for (const { kitchen_id: kitchenId } of kitchens) reports.push(await verifyKitchen(sequelize, kitchenId));
  return reports;
}
