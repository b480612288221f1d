import type { QueryInterface } from 'sequelize';

/** Stations from before a plan could aim at a chance: theirs go on being planned on the dot. */
export async function aim(query: QueryInterface): Promise<void> {
  await query.sequelize.query(`UPDATE station SET body = body || '{"aimChance": null}'::jsonb WHERE NOT body ? 'aimChance'`);
}
