import { kitchenBook } from '@broth/contract';
import { postSamples, putThermometer, sampleColumns, samplesTaken, thinned } from '@broth/contract/record';
import { refuse } from '@broth/contract/refusals';
import { z } from 'zod';
import type { Context } from '../context';
import { readSamplesCsv } from '../documents/samplesCsv';
import { ingest } from '../probes/ingest';
import { changeStation, stationOf } from '../store/kitchenStore';
import { thinnedSamples } from '../store/samples';
import { kitchenOr404, kitchenParams } from './common';
import type { Api } from './common';
import { bookOf } from './kitchen';

const thermometerParams = kitchenParams.extend({ thermometerId: z.string().min(1).max(100) });
/** A chart is as wide as a screen: more points than this nobody sees. */
const MOST_POINTS = 600;

export function thermometerRoutes(api: Api, context: Context): void {
  api.put(
    '/kitchens/:kitchenId/thermometers/:thermometerId',
    { schema: { summary: 'Register a thermometer, rename it, or put it out of use', params: thermometerParams, body: putThermometer, response: { 200: kitchenBook } } },
    async (request) => {
      const { kitchenId, thermometerId } = request.params;
      const { by, ...body } = request.body;
      await kitchenOr404(kitchenId);
      const { station } = await stationOf(kitchenId);
      if (station.people.every((person) => person.id !== by)) throw refuse('event.personUnknown', { by });
      const known = station.thermometers.find((one) => one.id === thermometerId);
      // What was read in one unit stays in it: another unit is another thermometer.
      if (known !== undefined && known.unit !== body.unit) throw refuse('thermometer.unitFixed', { name: known.name });
      if (station.thermometers.some((one) => one.id !== thermometerId && one.name.toLowerCase() === body.name.toLowerCase()))
        throw refuse('thermometer.nameTaken', { name: body.name });
      const next = { id: thermometerId, ...body };
      await changeStation(context.database, kitchenId, (was) => ({
        ...was,
        thermometers: known === undefined ? [...was.thermometers, next] : was.thermometers.map((one) => (one.id === thermometerId ? next : one)),
      }));
      return bookOf(context, kitchenId);
    },
  );

  api.post(
    '/kitchens/:kitchenId/samples',
    {
      bodyLimit: 16_000_000,
      schema: { summary: 'What probes push: all of it or nothing; what came before is not taken twice', params: kitchenParams, body: postSamples, response: { 200: samplesTaken } },
    },
    async (request) => {
      const kitchen = await kitchenOr404(request.params.kitchenId);
      const samples = request.body.probes.flatMap(({ id, samples: own }) => own.map(([at, value]) => ({ thermometerId: id, at, value })));
      return { taken: samples.length, new: await ingest(context, kitchen, samples) };
    },
  );

  api.put(
    '/kitchens/:kitchenId/samples.csv',
    {
      bodyLimit: 16_000_000,
      schema: { summary: "Take in a data logger's file: all of it or nothing", params: kitchenParams, querystring: sampleColumns, response: { 200: samplesTaken } },
    },
    async (request) => {
      const kitchen = await kitchenOr404(request.params.kitchenId);
      const { station } = await stationOf(kitchen.kitchenId);
      const thermometer = station.thermometers.find((one) => one.id === request.query.thermometerId);
      if (thermometer === undefined) throw refuse('thermometer.unknown', { id: request.query.thermometerId });
      const { samples, problems } = readSamplesCsv(typeof request.body === 'string' ? request.body : '', request.query, thermometer, kitchen.timeZone);
      const [first] = problems;
      if (first !== undefined) throw refuse('samples.unreadable', { first: `Line ${String(first.line)}: ${first.says}`, more: problems.length - 1 });
      return { taken: samples.length, new: await ingest(context, kitchen, samples) };
    },
  );

  api.get(
    '/kitchens/:kitchenId/thermometers/:thermometerId/samples',
    {
      schema: {
        summary: 'Samples of a stretch, thinned for a chart: lowest, highest and last of each bucket',
        params: thermometerParams,
        querystring: z.object({ from: z.coerce.number().int(), to: z.coerce.number().int(), points: z.coerce.number().int().min(2).max(MOST_POINTS).default(300) }),
        response: { 200: thinned },
      },
    },
    async (request) => {
      const { kitchenId, thermometerId } = request.params;
      const { from, to, points } = request.query;
      await kitchenOr404(kitchenId);
      const { station } = await stationOf(kitchenId);
      const thermometer = station.thermometers.find((one) => one.id === thermometerId);
      if (thermometer === undefined) throw refuse('thermometer.unknown', { id: thermometerId });
      return { unit: thermometer.unit, points: to <= from ? [] : [...(await thinnedSamples(context.database, kitchenId, thermometerId, from, to, points))] };
    },
  );
}
