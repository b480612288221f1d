import { mkdir, readFile, readdir, rename, writeFile } from 'node:fs/promises';
import path from 'node:path';
import { Refusal } from '@broth/contract/refusals';
import type { FastifyBaseLogger } from 'fastify';
import type { Context } from '../context';
import { readSamplesCsv } from '../documents/samplesCsv';
import { findKitchen, stationOf } from '../store/kitchenStore';
import { ingest } from './ingest';

/** A file is taken once nobody has written to it for so long: half a file is not read. */
const QUIET_MS = 2_000;

/**
 * A folder that data loggers drop files into: `<kitchen>/<thermometer>.csv` or `<kitchen>/<thermometer>-anything.csv`, with a line that names the columns
 * `time` and `temperature` and, where it is not the thermometer's own, `unit`. What was taken in moves to `taken/`, what could not be read to `refused/` with
 * the reason beside it: nothing is deleted.
 */
export function watchDrop(context: Context, folder: string, log: FastifyBaseLogger, everyMs = 3_000): { readonly close: () => Promise<void> } {
  let running: Promise<void> = Promise.resolve();
  const sizes = new Map<string, { readonly size: number; readonly since: number }>();

  async function take(kitchenId: string, name: string): Promise<void> {
    const file = path.join(folder, kitchenId, name);
    const text = await readFile(file, 'utf8');
    const seen = sizes.get(file);
    if (seen?.size !== text.length) {
      sizes.set(file, { size: text.length, since: Date.now() });
      return;
    }
    if (Date.now() - seen.since < QUIET_MS) return;
    sizes.delete(file);
    const why = await takeIn(kitchenId, name, text);
    const to = path.join(folder, kitchenId, why === null ? 'taken' : 'refused');
    await mkdir(to, { recursive: true });
    const stamped = `${String(Date.now())}-${name}`;
    await rename(file, path.join(to, stamped));
    if (why !== null) await writeFile(path.join(to, `${stamped}.why.txt`), `${why}\n`);
  }

  async function takeIn(kitchenId: string, name: string, text: string): Promise<string | null> {
    const kitchen = await findKitchen(kitchenId);
    if (kitchen === null) return `There is no kitchen "${kitchenId}". Name the folder after the kitchen's id.`;
    const { station } = await stationOf(kitchenId);
    const base = name.replace(/\.csv$/i, '');
    const thermometer = station.thermometers.find((one) => base === one.id || base.startsWith(`${one.id}-`));
    if (thermometer === undefined)
      return `No thermometer is called "${base}". Name the file after the thermometer's id; there are ${station.thermometers.map((one) => one.id).join(', ')}.`;
    const { samples, problems } = readSamplesCsv(
      text,
      { thermometerId: thermometer.id, time: 'time', value: 'temperature', unit: thermometer.unit, dates: 'ymd' },
      thermometer,
      kitchen.timeZone,
    );
    if (problems.length > 0) return problems.map(({ line, says }) => `Line ${String(line)}: ${says}`).join('\n');
    try {
      await ingest(context, kitchen, samples);
      return null;
    } catch (error) {
      if (error instanceof Refusal) return error.message;
      throw error;
    }
  }

  async function look(): Promise<void> {
    await mkdir(folder, { recursive: true });
    for (const kitchen of await readdir(folder, { withFileTypes: true })) {
      if (!kitchen.isDirectory()) continue;
      for (const entry of await readdir(path.join(folder, kitchen.name), { withFileTypes: true })) {
        if (entry.isFile() && /\.csv$/i.test(entry.name)) await take(kitchen.name, entry.name);
      }
    }
  }
  const timer = setInterval(() => {
    running = running.then(look).catch((error: unknown) => {
      log.warn(error);
    });
  }, everyMs);
  timer.unref();
  return {
    async close() {
      clearInterval(timer);
      await running;
    },
  };
}
