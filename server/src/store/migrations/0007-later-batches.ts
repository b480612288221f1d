import type { QueryInterface } from 'sequelize';

/** Stations from before a soup's second batch could come later: theirs go on being ready before the doors open. */
export async function laterBatches(query: QueryInterface): Promise<void> {
  await query.sequelize.query(`UPDATE station SET body = body || '{"laterBatches": false}'::jsonb WHERE NOT body ? 'laterBatches'`);
}
