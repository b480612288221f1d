import { documentOf, kitchenBook, loopOf, postSoup, putSoup, soup as soupSchema, soupDocument, soupHistory, soupVersions } from '@broth/contract';
import { refuse } from '@broth/contract/refusals';
import { recipeOf } from '@broth/contract/formats';
import { jarOf, variantOf, vesselsOf } from '@broth/core';
import type { Soup } from '@broth/core';
import { z } from 'zod';
import type { Context } from '../context';
import { sheetBlocks } from '../documents/sheetBlocks';
import { sheetPdf } from '../documents/sheetPdf';
import { soupsOf, stationOf } from '../store/kitchenStore';
import { addSoup, historyOf, retireSoup, saveSoup, versionsOf } from '../store/soupBook';
import type { Saved } from '../store/soupBook';
import { kitchenOr404, kitchenParams } from './common';
import type { Api } from './common';
import { bookOf } from './kitchen';

const soupParams = kitchenParams.extend({ soupId: z.string().max(100) });
const sheetQuery = z.object({
  litres: z.coerce.number().optional(),
  vessel: z.string().max(100).optional(),
  variant: z.string().max(100).optional(),
  version: z.coerce.number().int().optional(),
  paper: z.enum(['a4', 'letter']).default('a4'),
});

async function personName(kitchenId: string, by: string): Promise<string> {
  const { station } = await stationOf(kitchenId);
  const person = station.people.find((one) => one.id === by);
  if (person === undefined) throw refuse('event.personUnknown', { by });
  return person.name;
}

/** Refuses a soup that is made of itself, whatever the others in the book say. */
async function refuseLoops(kitchenId: string, soup: Soup): Promise<void> {
  const path = loopOf(soup, await soupsOf(kitchenId));
  if (path !== null) throw refuse('soup.loop', { path: path.join(' is made of ') });
}

function savedOr(saved: Saved, soup: Soup): Soup {
  switch (saved.outcome) {
    case 'saved':
      return saved.soup;
    case 'unknown':
      throw refuse('soup.unknown', { id: soup.id });
    case 'nameTaken':
      throw refuse('soup.nameTaken', { name: soup.name });
    case 'conflict':
      throw refuse('soup.conflict', { version: saved.version, by: saved.by });
  }
}

export function soupRoutes(api: Api, context: Context): void {
  /** A soup of the book, or an earlier version of it, with the book it is made from. */
  const soupOr404 = async (kitchenId: string, soupId: string, version?: number) => {
    const kitchen = await kitchenOr404(kitchenId);
    const soups = await soupsOf(kitchenId);
    const soupById = new Map(soups.map((one) => [one.id, one]));
    if (version !== undefined) {
      const found = (await versionsOf(kitchenId, soupId)).find((one) => one.version === version);
      if (found === undefined) throw refuse('soup.versionUnknown', { id: soupId, version });
      return { kitchen, soupById, soup: found.soup };
    }
    const soup = soupById.get(soupId);
    if (soup === undefined) throw refuse('soup.unknown', { id: soupId });
    return { kitchen, soupById, soup };
  };

  api.post(
    '/kitchens/:kitchenId/soups',
    { schema: { summary: 'Put a new soup into the book', params: kitchenParams, body: postSoup, response: { 200: soupSchema } } },
    async (request) => {
      const { kitchenId } = request.params;
      const { by, soup } = request.body;
      await kitchenOr404(kitchenId);
      const name = await personName(kitchenId, by);
      await refuseLoops(kitchenId, soup);
      return savedOr(await addSoup(context.database, kitchenId, soup, name, new Date(context.now())), soup);
    },
  );

  api.put(
    '/kitchens/:kitchenId/soups/:soupId',
    { schema: { summary: 'Save the next version of a soup', params: soupParams, body: putSoup, response: { 200: soupSchema } } },
    async (request) => {
      const { kitchenId, soupId } = request.params;
      const { by, baseVersion } = request.body;
      const soup: Soup = { ...request.body.soup, id: soupId };
      await kitchenOr404(kitchenId);
      const name = await personName(kitchenId, by);
      await refuseLoops(kitchenId, soup);
      return savedOr(await saveSoup(context.database, kitchenId, soup, baseVersion, name, new Date(context.now())), soup);
    },
  );

  api.delete(
    '/kitchens/:kitchenId/soups/:soupId',
    { schema: { summary: 'Take a soup out of the book; its versions stay', params: soupParams, response: { 200: kitchenBook } } },
    async (request) => {
      const { kitchenId, soupId } = request.params;
      await kitchenOr404(kitchenId);
      const users = (await soupsOf(kitchenId)).filter((one) => one.ingredients.some((line) => line.componentId === soupId));
      if (users.length > 0) throw refuse('soup.used', { names: users.map((one) => one.name).join(', ') });
      if (!(await retireSoup(context.database, kitchenId, soupId))) throw refuse('soup.unknown', { id: soupId });
      return bookOf(context, kitchenId);
    },
  );

  api.get(
    '/kitchens/:kitchenId/soups/:soupId/versions',
    { schema: { summary: 'Every version of a soup, newest first', params: soupParams, response: { 200: soupVersions } } },
    async (request) => {
      const { kitchenId, soupId } = request.params;
      await kitchenOr404(kitchenId);
      const versions = await versionsOf(kitchenId, soupId);
      if (versions.length === 0) throw refuse('soup.unknown', { id: soupId });
      return { versions: [...versions] };
    },
  );

  api.get(
    '/kitchens/:kitchenId/soups/:soupId/history',
    { schema: { summary: 'What batches of a soup really took', params: soupParams, response: { 200: soupHistory } } },
    async (request) => {
      await soupOr404(request.params.kitchenId, request.params.soupId);
      return historyOf(context.database, request.params.kitchenId, request.params.soupId);
    },
  );

  api.get(
    '/kitchens/:kitchenId/soups/:soupId/soup.json',
    { schema: { summary: 'A soup with its components as broth-soup/1', params: soupParams, response: { 200: soupDocument } } },
    async (request, reply) => {
      const { soup, soupById } = await soupOr404(request.params.kitchenId, request.params.soupId);
      return reply.header('content-disposition', `attachment; filename="${soup.id}.soup.json"`).send(documentOf(soup, soupById));
    },
  );

  api.get('/kitchens/:kitchenId/soups/:soupId/recipe.jsonld', { schema: { summary: 'A soup as a schema.org Recipe in JSON-LD', params: soupParams } }, async (request, reply) => {
    const { soup, soupById } = await soupOr404(request.params.kitchenId, request.params.soupId);
    return reply
      .type('application/ld+json')
      .header('content-disposition', `attachment; filename="${soup.id}.recipe.jsonld"`)
      .send(JSON.stringify(recipeOf(soup, soupById), null, 2));
  });

  api.get(
    '/kitchens/:kitchenId/soups/:soupId/sheet.pdf',
    { schema: { summary: 'The batch sheet for printing: litres, vessel, variant, version, paper a4 or letter', params: soupParams, querystring: sheetQuery } },
    async (request, reply) => {
      const { kitchenId, soupId } = request.params;
      const { litres, vessel: vesselId, variant, version, paper } = request.query;
      const { kitchen, soup: base, soupById } = await soupOr404(kitchenId, soupId, version);
      const volumeL = litres ?? base.makesL;
      if (!(volumeL > 0 && volumeL <= 2000)) throw refuse('litres.invalid');
      const { station } = await stationOf(kitchenId);
      const vessel = vesselsOf(station).find((one) => one.id === vesselId) ?? null;
      if (vesselId !== undefined && vessel === null) throw refuse('equipment.unknown', { id: vesselId });
      const soup = variant !== undefined && base.variants.some((one) => one.id === variant) ? variantOf(base, variant) : base;
      const history = await historyOf(context.database, kitchenId, soupId);
      const blocks = sheetBlocks({ soup, volumeL, vessel, jar: jarOf(station), soupById, history, kitchen: kitchen.name });
      const bytes = await sheetPdf(blocks, paper === 'a4' ? 'A4' : 'LETTER');
      return reply
        .type('application/pdf')
        .header('content-disposition', `inline; filename="${soup.id}-${String(volumeL)}L.pdf"`)
        .send(bytes);
    },
  );

  api.get('/formats/soup.schema.json', { schema: { summary: 'JSON Schema of a soup document, broth-soup/1' } }, (_request, reply) =>
    reply.type('application/schema+json').send(JSON.stringify(z.toJSONSchema(soupDocument, { io: 'input' }), null, 2)),
  );
}
