import { food, pantryAnswer } from '@broth/contract';
import { refuse } from '@broth/contract/refusals';
import { z } from 'zod';
import type { Context } from '../context';
import { pantryCsv, readPantryCsv } from '../documents/pantryCsv';
import { pantryOf, putPantry } from '../store/soupBook';
import { kitchenOr404, kitchenParams } from './common';
import type { Api } from './common';

export function pantryRoutes(api: Api, context: Context): void {
  // A list comes as text; anything may stand in it, so it is read in the route.
  api.addContentTypeParser(['text/csv', 'text/plain'], { parseAs: 'string', bodyLimit: 2_000_000 }, (_request, body, done) => {
    done(null, body);
  });

  api.put(
    '/kitchens/:kitchenId/pantry/:foodId',
    {
      schema: { summary: 'Put one thing into the pantry: yield, label, price', params: kitchenParams.extend({ foodId: z.string().max(100) }), body: food, response: { 200: food } },
    },
    async (request) => {
      const { kitchenId, foodId } = request.params;
      await kitchenOr404(kitchenId);
      const made = { ...request.body, id: foodId };
      await putPantry(context.database, kitchenId, [made]);
      return made;
    },
  );

  api.get('/kitchens/:kitchenId/pantry.csv', { schema: { summary: 'Ingredients, yields, labels and prices as CSV (RFC 4180)', params: kitchenParams } }, async (request, reply) => {
    await kitchenOr404(request.params.kitchenId);
    const csv = pantryCsv(await pantryOf(request.params.kitchenId));
    return reply.type('text/csv; charset=utf-8').header('content-disposition', 'attachment; filename="pantry.csv"').send(csv);
  });

  api.put(
    '/kitchens/:kitchenId/pantry.csv',
    { bodyLimit: 2_000_000, schema: { summary: 'Take in a list of ingredients, yields or prices: all of it or nothing', params: kitchenParams, response: { 200: pantryAnswer } } },
    async (request) => {
      const { kitchenId } = request.params;
      await kitchenOr404(kitchenId);
      const before = await pantryOf(kitchenId);
      const { foods, problems } = readPantryCsv(typeof request.body === 'string' ? request.body : '', before);
      const [first] = problems;
      if (first !== undefined) throw refuse('pantry.unreadable', { first: `Line ${String(first.line)}: ${first.says}`, more: problems.length - 1 });
      await putPantry(context.database, kitchenId, foods);
      return { pantry: [...(await pantryOf(kitchenId))], changed: foods.length };
    },
  );
}
