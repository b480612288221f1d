import { randomUUID } from 'node:crypto';
import { refuse } from '@broth/contract/refusals';
import { limitIn } from '@broth/core';
import type { Context } from '../context';
import { stationOf } from '../store/kitchenStore';
import type { KitchenRow } from '../store/models';
import { inHashOrder, takeSamples } from '../store/samples';
import type { Sample } from '../store/samples';
import { digestSamples } from './digest';

/** A clock of a probe may be ahead by so much. */
const AHEAD_MS = 2 * 60_000;
/** No probe in a kitchen shows more or less: what does is a broken line, and refused. */
const POSSIBLE = { lowest: { c: -60, f: -76 }, highest: { c: 300, f: 572 } };

/** Takes samples in: all of them or none. Those that were there already are not taken twice. Answers how many were new. */
export async function ingest(context: Context, kitchen: KitchenRow, samples: readonly Sample[]): Promise<number> {
  const { station } = await stationOf(kitchen.kitchenId);
  const unitOf = new Map(station.thermometers.map((one) => [one.id, one.unit]));
  const latest = context.now() + AHEAD_MS;
  for (const { thermometerId, at, value } of samples) {
    const unit = unitOf.get(thermometerId);
    if (unit === undefined) throw refuse('thermometer.unknown', { id: thermometerId });
    if (at > latest) throw refuse('sample.future', { thermometerId, aheadMin: Math.round((at - context.now()) / 60_000) });
    if (!(value >= limitIn(POSSIBLE.lowest, unit) && value <= limitIn(POSSIBLE.highest, unit))) throw refuse('sample.impossible', { thermometerId, value, unit });
  }
  const lateIn = randomUUID();
  const fresh = await takeSamples(context.database, kitchen.kitchenId, samples, lateIn);
  const late = inHashOrder(fresh.filter((one) => one.lateIn !== null));
  if (late.length > 0) {
    const times = late.map((one) => one.at);
    // Not spread into a call: a file may have more lines than a call has room for.
    const [from, to] = times.reduce(([least, most], at) => [Math.min(least, at), Math.max(most, at)], [Infinity, 0]);
    await digestSamples(context, kitchen, late, from, to + 1, lateIn);
  }
  return fresh.length;
}
