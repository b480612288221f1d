import type { Sale, SalesColumns } from '@broth/contract';
import type { Service, Soup } from '@broth/core';
import { parse } from 'csv-parse/sync';
import { DateTime } from 'luxon';

/** A list of sales as a till or a spreadsheet writes it, read by the columns somebody picked. */

interface SalesProblem {
  readonly line: number;
  readonly says: string;
}

const FORMATS = { ymd: ['yyyy-MM-dd', 'yyyy/M/d', 'yyyy.M.d'], dmy: ['d/M/yyyy', 'd.M.yyyy', 'd-M-yyyy'], mdy: ['M/d/yyyy', 'M-d-yyyy'] } as const;

function dayOf(text: string, dates: SalesColumns['dates']): string | null {
  for (const format of FORMATS[dates]) {
    const read = DateTime.fromFormat(text.trim(), format, { zone: 'utc' });
    if (read.isValid) return read.toISODate();
  }
  return null;
}

/** `13:05`, `1:05 pm`; undefined = the cell is empty, null = it is no time. */
function minuteOf(text: string): number | null | undefined {
  if (text.trim() === '') return undefined;
  const match = /^(\d{1,2})[:.](\d{2})\s*(am|pm)?$/i.exec(text.trim());
  if (match === null) return null;
  const half = match[3]?.toLowerCase();
  const hours = (Number(match[1]) % (half === undefined ? 24 : 12)) + (half === 'pm' ? 12 : 0);
  return Number(match[2]) > 59 ? null : hours * 60 + Number(match[2]);
}

/** All of it or nothing: with a problem, no sale is answered. Two lines of one soup, day and service are a problem: nobody knows which is right. */
export function readSalesCsv(
  text: string,
  columns: SalesColumns,
  soups: readonly Soup[],
  services: readonly Service[],
): { readonly sales: readonly Sale[]; readonly problems: readonly SalesProblem[] } {
  const head = text.split(/\r?\n/, 1)[0] ?? '';
  const delimiter = [',', ';', '\t'].sort((left, right) => head.split(right).length - head.split(left).length)[0] ?? ',';
  let table: Record<string, string>[];
  try {
    table = parse(text, { bom: true, columns: true, delimiter, skip_empty_lines: true, trim: true, relax_column_count: true });
  } catch (error) {
    return { sales: [], problems: [{ line: (error as { lines?: number }).lines ?? 1, says: 'A quotation mark is opened and never closed.' }] };
  }
  const problems: SalesProblem[] = [];
  const lacking = [columns.day, columns.soup, columns.sold].filter((name) => !head.includes(name));
  if (lacking.length > 0) return { sales: [], problems: [{ line: 1, says: `There is no column "${lacking.join('", "')}". The first line has: ${head}.` }] };
  const seen = new Map<string, number>();
  const sales = table.flatMap((row, index): Sale[] => {
    const line = index + 2;
    const cell = (name: string | undefined): string => (name === undefined ? '' : (row[name] ?? ''));
    const say = (says: string): readonly Sale[] => {
      problems.push({ line, says });
      return [];
    };
    const day = dayOf(cell(columns.day), columns.dates);
    if (day === null) return [...say(`"${cell(columns.day)}" is not a day written like ${FORMATS[columns.dates][0]}. Pick how the days are written; one list, one way.`)];
    const named = cell(columns.soup).toLowerCase();
    const soup = soups.find((one) => one.id === named || one.name.toLowerCase() === named || one.shortName.toLowerCase() === named);
    if (soup === undefined) return [...say(`There is no soup "${cell(columns.soup)}" in the book.`)];
    const sold = Number(cell(columns.sold).replace(',', '.'));
    if (cell(columns.sold) === '' || !Number.isInteger(sold)) return [...say(`"${cell(columns.sold)}" is not a whole number of portions.`)];
    if (sold < 0) return [...say(`${String(sold)} sold: below 0 is a return or a slip. Put it right at the till's own list.`)];
    const soldOutMin = minuteOf(cell(columns.soldOut));
    if (soldOutMin === null) return [...say(`"${cell(columns.soldOut)}" is not a time like 13:05.`)];
    const wanted = cell(columns.service).toLowerCase();
    const service = wanted === '' ? (services[1] ?? services[0]) : services.find((one) => one.id === wanted || one.name.toLowerCase() === wanted);
    if (service === undefined) return [...say(`There is no service "${cell(columns.service)}".`)];
    const key = `${day} ${service.id} ${soup.id}`;
    const before = seen.get(key);
    if (before !== undefined) return [...say(`${soup.name} of ${day} stands in line ${String(before)} already.`)];
    seen.set(key, line);
    return [{ day, serviceId: service.id, soupId: soup.id, sold, soldOutMin: soldOutMin ?? null }];
  });
  return problems.length > 0 ? { sales: [], problems } : { sales, problems: [] };
}
