import type { QueryInterface } from 'sequelize';

/**
 * Plans accepted before blenders were planned as units: their washes named a vessel, their steps no way and no unit, and nothing was pinned. They are kept as
 * they were, said in today's words.
 */
export async function planUnits(query: QueryInterface): Promise<void> {
  await query.sequelize.query(`
    UPDATE day_plan SET body = body || jsonb_build_object(
      'pins', '[]'::jsonb,
      'batches', (SELECT coalesce(jsonb_agg(b || jsonb_build_object('steps', (
          SELECT coalesce(jsonb_agg('{"modeId": "only", "unitId": null}'::jsonb || s), '[]'::jsonb) FROM jsonb_array_elements(b->'steps') s))), '[]'::jsonb)
        FROM jsonb_array_elements(body->'batches') b),
      'washes', (SELECT coalesce(jsonb_agg((w - 'vesselId') || jsonb_build_object('unitId', w->'vesselId', 'afterBatchId', w->'beforeBatchId')), '[]'::jsonb)
        FROM jsonb_array_elements(body->'washes') w),
      'objective', (body->'objective') - 'washMin' || jsonb_build_object('changeoverMin', body->'objective'->'washMin', 'movedMin', 0, 'cost', 0))
    WHERE NOT body ? 'pins';
  `);
}
