import type { SampleColumns } from '@broth/contract/record';
import { celsiusFromFahrenheit, fahrenheitFromCelsius, parseTemperature } from '@broth/core';
import type { Thermometer } from '@broth/core';
import { parse } from 'csv-parse/sync';
import { DateTime } from 'luxon';
import type { Sample } from '../store/samples';

/** A data logger's file, read by the columns somebody picked. */

interface SampleProblem {
  readonly line: number;
  readonly says: string;
}

const FORMATS: readonly string[] = ['yyyy-MM-dd HH:mm:ss', 'yyyy-MM-dd HH:mm', 'yyyy/MM/dd HH:mm:ss', 'yyyy/MM/dd HH:mm', 'dd.MM.yyyy HH:mm:ss', 'dd.MM.yyyy HH:mm'];
const SLASHED = { dmy: ['d/M/yyyy H:mm:ss', 'd/M/yyyy H:mm'], mdy: ['M/d/yyyy H:mm:ss', 'M/d/yyyy H:mm', 'M/d/yyyy h:mm:ss a', 'M/d/yyyy h:mm a'], ymd: [] } as const;

/** An instant: seconds or milliseconds since 1970, ISO with an offset, or a wall clock in the kitchen's zone. An hour that there is twice is taken as the first. */
function instantOf(text: string, zone: string, dates: SampleColumns['dates']): number | null {
  const plain = text.trim();
  if (/^\d{10}$/.test(plain)) return Number(plain) * 1000;
  if (/^\d{13}$/.test(plain)) return Number(plain);
  const iso = DateTime.fromISO(plain.replace(' ', 'T'), { zone });
  if (iso.isValid) return iso.toMillis();
  for (const format of [...FORMATS, ...SLASHED[dates]]) {
    const read = DateTime.fromFormat(plain, format, { zone });
    if (read.isValid) return read.toMillis();
  }
  return null;
}

/** All of it or nothing. Empty cells are gaps of the logger and are left out; anything else that is no number is a problem. */
export function readSamplesCsv(
  text: string,
  columns: SampleColumns,
  thermometer: Thermometer,
  zone: string,
): { readonly samples: readonly Sample[]; readonly problems: readonly SampleProblem[] } {
  const lines = text.replace(/^\uFEFF/, '').split(/\r?\n/);
  // Loggers write some lines about themselves first.
  const headAt = lines.findIndex((line) => line.includes(columns.time) && line.includes(columns.value));
  if (headAt === -1)
    return { samples: [], problems: [{ line: 1, says: `No line names the columns "${columns.time}" and "${columns.value}". The first line has: ${lines[0] ?? ''}.` }] };
  const head = lines[headAt] ?? '';
  const delimiter = [',', ';', '\t'].sort((left, right) => head.split(right).length - head.split(left).length)[0] ?? ',';
  let table: Record<string, string>[];
  try {
    table = parse(lines.slice(headAt).join('\n'), { columns: true, delimiter, skip_empty_lines: true, trim: true, relax_column_count: true });
  } catch {
    return { samples: [], problems: [{ line: headAt + 1, says: 'A quotation mark is opened and never closed.' }] };
  }
  const problems: SampleProblem[] = [];
  const samples = table.flatMap((row, index): Sample[] => {
    const line = headAt + index + 2;
    const [time, value] = [row[columns.time] ?? '', row[columns.value] ?? ''];
    if (value === '') return [];
    const at = instantOf(time, zone, columns.dates);
    if (at === null) {
      problems.push({ line, says: `"${time}" is not a time. Write it like 2026-11-25 14:05:00, or pick how the days are written.` });
      return [];
    }
    const shown = parseTemperature(value.replace(/\s*°?\s*[CF]$/i, ''));
    if (shown === null) {
      problems.push({ line, says: `"${value}" is not a temperature.` });
      return [];
    }
    // The thermometer is registered in one unit; a file in the other is converted. A column "unit" speaks for its own line.
    const own = row['unit']?.trim().toUpperCase();
    const unit = own === 'C' || own === 'F' ? own : columns.unit;
    const converted = unit === thermometer.unit ? shown : thermometer.unit === 'C' ? celsiusFromFahrenheit(shown) : fahrenheitFromCelsius(shown);
    return [{ thermometerId: thermometer.id, at, value: Math.round(converted * 1000) / 1000 }];
  });
  return problems.length > 0 ? { samples: [], problems } : { samples, problems };
}
