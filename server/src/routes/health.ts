import { health } from '@broth/contract';
import { QueryTypes } from 'sequelize';
import type { Context } from '../context';
import { isDatabaseAway } from '../store/database';
import type { Api } from './common';

export const VERSION = '0.1.0';

export function healthRoute(api: Api, context: Context): void {
  api.get('/health', { schema: { summary: 'Whether server and database answer', response: { 200: health, 503: health } } }, async (_request, reply) => {
    const now = context.now();
    try {
      await context.database.query('SELECT 1 FROM kitchen LIMIT 1', { type: QueryTypes.SELECT });
      return await reply.send({ ok: true, database: 'up', version: VERSION, now });
    } catch (error) {
      if (!isDatabaseAway(error)) throw error;
      return reply.code(503).send({ ok: false, database: 'away', version: VERSION, now });
    }
  });
}
