import { createHash } from 'node:crypto';
import { words } from '@broth/contract';
import * as advice from '@broth/contract/advice';
import { NO_COOLING_EVENTS, coolingVerdict, fahrenheitFromCelsius, parseTemperature, readingIn, rulesInForce } from '@broth/core';
import type { RulesInForce, TemperatureUnit, TimedReading } from '@broth/core';
import { coolingForecast, coolingWays } from '@broth/core/advice';
import { RULE_PACKS, ruleSet } from '@broth/core/packs';
import canonicalize from 'canonicalize';
import type { Outside } from './outside';

/** The record on the command line: a cooling judged from a file, and a log whose chain is worked out again. */

/** A file's text, or why it cannot be read, which is said. */
function textOf(file: string, { read, complain }: Outside): string | null {
  try {
    return read(file);
  } catch (error) {
    complain(`${file} cannot be read: ${error instanceof Error ? error.message : String(error)}`);
    return null;
  }
}

interface CoolFlags {
  readonly pack?: string | undefined;
  readonly 'heat-off'?: string | undefined;
  readonly ambient?: string | undefined;
  readonly unit?: string | undefined;
  readonly litres?: string | undefined;
  readonly now?: string | undefined;
  readonly json?: boolean | undefined;
}

const MINUTE_MS = 60_000;

/** Minutes from a zero of the file's own, or a time with its offset. Wall clocks without one are refused: an hour may be there twice. */
function instantOf(text: string): number | null {
  if (/^-?\d+([.]\d+)?$/.test(text.trim())) return Number(text) * MINUTE_MS;
  if (!/(Z|[+-]\d\d:?\d\d)$/.test(text.trim())) return null;
  const at = Date.parse(text.trim());
  return Number.isNaN(at) ? null : at;
}

type Read = { readonly readings: readonly TimedReading[] } | { readonly says: string };

function rowsOf(text: string): readonly { readonly time: string; readonly value: string; readonly unit: string }[] | string {
  if (/^\s*[[{]/.test(text)) {
    let given: unknown;
    try {
      given = JSON.parse(text);
    } catch {
      return 'The file is not JSON, though it begins like it.';
    }
    const list = Array.isArray(given) ? given : (given as { readings?: unknown }).readings;
    if (!Array.isArray(list)) return 'The JSON has no list of readings.';
    type Cell = string | number | undefined;
    return (list as { time?: Cell; value?: Cell; temperature?: Cell; unit?: Cell }[]).map((one) => ({
      time: String(one.time ?? ''),
      value: String(one.value ?? one.temperature ?? ''),
      unit: String(one.unit ?? ''),
    }));
  }
  const lines = text
    .replace(/^\uFEFF/, '')
    .split(/\r?\n/)
    .filter((line) => line.trim() !== '');
  const head = lines[0] ?? '';
  const delimiter = [',', ';', '\t'].sort((left, right) => head.split(right).length - head.split(left).length)[0] ?? ',';
  const cells = (line: string): string[] => line.split(delimiter).map((cell) => cell.trim().replace(/^"|"$/g, ''));
  const names = cells(head).map((name) => name.toLowerCase());
  const at = (pattern: RegExp): number => names.findIndex((name) => pattern.test(name));
  const [time, value, unit] = [at(/^(time|takenat|minute)/), at(/^(temperature|value)/), at(/^unit/)];
  if (time === -1 || value === -1) return 'The first line has to name a column "time" and a column "temperature".';
  return lines.slice(1).map((line) => ({ time: cells(line)[time] ?? '', value: cells(line)[value] ?? '', unit: unit === -1 ? '' : (cells(line)[unit] ?? '') }));
}

function readingsOf(text: string, unit: TemperatureUnit): Read {
  const rows = rowsOf(text);
  if (typeof rows === 'string') return { says: rows };
  const readings: TimedReading[] = [];
  for (const [index, row] of rows.entries()) {
    if (row.value === '') continue;
    const [at, value] = [instantOf(row.time), parseTemperature(row.value)];
    if (at === null) return { says: `Reading ${String(index + 1)}: "${row.time}" is neither minutes nor a time with its offset, like 2026-11-25T10:06:00-05:00.` };
    if (value === null) return { says: `Reading ${String(index + 1)}: "${row.value}" is not a temperature.` };
    const own = row.unit.toUpperCase().replace('°', '');
    readings.push({ at, reading: { value, unit: own === 'C' || own === 'F' ? own : unit, rawText: row.value }, heldS: null });
  }
  return readings.length === 0 ? { says: 'The file has no reading.' } : { readings };
}

function rulesOf(packId: string): RulesInForce | null {
  const pack = RULE_PACKS.find((one) => one.id === packId);
  return pack === undefined ? null : rulesInForce(ruleSet(pack, { packId, changes: [], added: [] }, 1));
}

function numberOf(text: string | undefined): number | null | undefined {
  return text === undefined ? undefined : parseTemperature(text);
}

/** Judges a cooling from a file; 0 passed or still on its way, 1 failed or not proven, 2 asked wrongly. */
export function cool(file: string, flags: CoolFlags, outside: Outside): number {
  const { print, complain } = outside;
  const unit = (flags.unit ?? 'F').toUpperCase();
  const [ambient, litres] = [numberOf(flags.ambient), numberOf(flags.litres)];
  const heatOff = flags['heat-off'] === undefined ? null : instantOf(flags['heat-off']);
  const rules = rulesOf(flags.pack ?? 'us-fda-fc2022');
  const wrong =
    unit !== 'C' && unit !== 'F'
      ? '--unit is C or F.'
      : rules === null
        ? `There is no rule pack "${flags.pack ?? ''}". There are: ${RULE_PACKS.map((pack) => pack.id).join(', ')}.`
        : ambient === null || litres === null
          ? '--ambient and --litres want a number.'
          : flags['heat-off'] !== undefined && heatOff === null
            ? '--heat-off wants minutes, or a time with its offset.'
            : null;
  if (wrong !== null || rules === null || (unit !== 'C' && unit !== 'F')) {
    complain(wrong ?? '');
    return 2;
  }
  const text = textOf(file, outside);
  if (text === null) return 2;
  const found = readingsOf(text, unit);
  if ('says' in found) {
    complain(`${file}: ${found.says}`);
    return 2;
  }
  const { readings } = found;
  const last = readings.reduce((latest, one) => (one.at > latest.at ? one : latest));
  const now = (flags.now === undefined ? null : instantOf(flags.now)) ?? last.at;
  const stages = rules.cooling.cooked;
  const verdict = coolingVerdict({ readings, events: { ...NO_COOLING_EVENTS, heatOff, leftHeat: heatOff, coolingStarted: heatOff }, rules: stages, now });
  const zero = verdict.clockFrom ?? readings[0]?.at ?? 0;
  const at = (instant: number): string => `${words.number((instant - zero) / MINUTE_MS)} min`;
  const forecast = ambient == null ? null : coolingForecast({ readings, ambient, unit, rules: stages, verdict });
  if (flags.json === true) print(JSON.stringify({ pack: rules.packId, version: rules.packVersion, verdict, forecast }, null, 2));
  else {
    print(`${words.VERDICT[verdict.kind]}: ${words.cooling(verdict, unit, at)}`);
    for (const stage of verdict.stages) {
      const most = stage.atMostMin === null ? 'no upper bound' : `at most ${words.number(stage.atMostMin)} min`;
      print(
        `  ${stage.citation}: ${words.VERDICT[stage.kind].toLowerCase()}, took at least ${words.number(stage.atLeastMin)} min, ${most}, of ${words.number(stage.limitMin)} allowed`,
      );
    }
    if (verdict.wanted !== null) print(`  ${words.wanted(verdict.wanted, unit, at)}`);
    if (forecast !== null) print(`Advice: ${advice.forecast(forecast, null, unit, at)}`);
    const to = verdict.current?.to;
    if (litres !== undefined && litres !== null && litres > 0 && to?.kind === 'temperature' && verdict.kind !== 'pass' && verdict.kind !== 'fail') {
      const places = [
        { id: 'bath', ambientC: 0 },
        { id: 'room', ambientC: 3 },
      ];
      for (const way of coolingWays({ volumeL: litres, fromC: readingIn(last.reading, 'C'), toC: to.limit.c, places })) {
        print(`  ${advice.way(way, way.placeId === 'bath' ? 'an ice bath' : `a cold room of ${words.degrees(unit === 'C' ? 3 : fahrenheitFromCelsius(3), unit)}`, now, at)}`);
      }
    }
    print(words.authority(rules));
  }
  return verdict.kind === 'fail' || verdict.kind === 'undetermined' || verdict.kind === 'overdue' ? 1 : 0;
}

type Chained = Readonly<Record<string, unknown>> & { readonly seq: number; readonly hash: string; readonly id: string };

function eventsOf(text: string): readonly Chained[] | null {
  try {
    const given = JSON.parse(text) as { events?: unknown };
    const list = Array.isArray(given) ? (given as unknown[]) : given.events;
    return Array.isArray(list) && list.every((one: unknown): one is Chained => typeof one === 'object' && one !== null && 'seq' in one && 'hash' in one && 'id' in one)
      ? list
      : null;
  } catch {
    return null;
  }
}

/** The place of the first event that is not what its hash says; null = all are. The first event given is believed when it is not the log's first. */
function brokenAt(events: readonly Chained[]): { readonly seq: number; readonly what: string } | null {
  let before: Chained | null = null;
  for (const event of events) {
    if (before !== null && event.seq !== before.seq + 1) return { seq: before.seq + 1, what: 'is missing' };
    const { seq, hash, ...record } = event;
    if (before !== null || seq === 1) {
      const expected = createHash('sha256')
        .update(`${before?.hash ?? ''}\n${String(seq)}\n${canonicalize(record) ?? ''}`)
        .digest('hex');
      if (expected !== hash) return { seq, what: 'is not what was recorded' };
    }
    before = event;
  }
  return null;
}

/** Works a log's chain out again from its events, and holds a day's record against it; 0 whole, 1 broken, 2 asked wrongly. */
export function verify(file: string, recordFile: string | undefined, outside: Outside): number {
  const { print, complain } = outside;
  const log = textOf(file, outside);
  if (log === null) return 2;
  const events = eventsOf(log);
  if (events === null) {
    complain(`${file} is not a list of events as GET /api/kitchens/:kitchen/events answers it.`);
    return 2;
  }
  const broken = brokenAt(events);
  if (broken !== null) {
    print(`Event ${String(broken.seq)} ${broken.what}.`);
    return 1;
  }
  print(`${String(events.length)} events, every one as it was recorded${events[0]?.seq === 1 ? '' : `, from ${String(events[0]?.seq ?? 0)} on`}.`);
  if (recordFile === undefined) return 0;
  const text = textOf(recordFile, outside);
  if (text === null) return 2;
  const byId = new Map(events.map((event) => [event.id, event]));
  let lines: readonly { readonly eventId: string; readonly hash: string }[];
  try {
    lines = /^\s*\{/.test(text)
      ? (JSON.parse(text) as { lines: typeof lines }).lines
      : text
          .split(/\r?\n/)
          .slice(1)
          .flatMap((line) => {
            // The last two cells of a line are its event and its hash: no need to read what people wrote before them.
            const match = /,([0-9a-f-]{36}),([0-9a-f]{64})$/.exec(line);
            return match === null ? [] : [{ eventId: match[1] ?? '', hash: match[2] ?? '' }];
          });
  } catch {
    complain(`${recordFile} is not a day's record.`);
    return 2;
  }
  const wrong = lines.filter((line) => line.eventId !== '' && byId.get(line.eventId)?.hash !== line.hash);
  print(
    wrong.length === 0
      ? `${String(lines.filter((line) => line.eventId !== '').length)} lines of the record, every one in the log.`
      : `${String(wrong.length)} lines of the record are not in this log: ${wrong
          .slice(0, 3)
          .map((line) => line.eventId)
          .join(', ')}.`,
  );
  return wrong.length === 0 ? 0 : 1;
}
