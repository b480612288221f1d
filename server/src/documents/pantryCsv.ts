import { food as foodSchema, words } from '@broth/contract';
import { readNumber, slugOf } from '@broth/contract/formats';
import { ALLERGENS, ORIGINS, PARTS } from '@broth/core';
import type { Allergen, Food, Origin, Part } from '@broth/core';
import { parse } from 'csv-parse/sync';
import { stringify } from 'csv-stringify/sync';

/** The pantry as a table: what things weigh, what is left of them, what their label says, what they cost. RFC 4180 out; in, what spreadsheets really write. */

const COLUMNS = ['id', 'name', 'part', 'gPerMl', 'gramsEach', 'edibleShare', 'saltShare', 'allergens', 'origin', 'price', 'per'] as const;
type Column = (typeof COLUMNS)[number];

/** Other names a price list may have at the head of a column. */
const OTHER: Readonly<Record<string, Column>> = {
  item: 'name',
  product: 'name',
  ingredient: 'name',
  yield: 'edibleShare',
  'yield %': 'edibleShare',
  edible: 'edibleShare',
  density: 'gPerMl',
  'g/ml': 'gPerMl',
  cost: 'price',
  unit: 'per',
  'price per': 'per',
};

export function pantryCsv(pantry: readonly Food[]): string {
  const number = (value: number | null): string => (value === null ? '' : String(Number(value.toFixed(4))));
  const rows = pantry.map((food) => ({
    ...food,
    gPerMl: number(food.gPerMl),
    gramsEach: number(food.gramsEach),
    edibleShare: number(food.edibleShare),
    saltShare: number(food.saltShare),
    allergens: food.allergens === 'unknown' ? 'unknown' : food.allergens.join(' '),
    price: number(food.price?.amount ?? null),
    per: food.price?.per ?? '',
  }));
  return stringify(rows, { header: true, columns: [...COLUMNS], record_delimiter: '\r\n', escape_formulas: true });
}

export interface CsvProblem {
  readonly line: number;
  readonly says: string;
}

/** The separator a list uses: whichever of comma, semicolon and tab its head line has most of. */
function delimiterOf(text: string): string {
  const head = text.split(/\r?\n/, 1)[0] ?? '';
  return [',', ';', '\t'].map((one) => [one, head.split(one).length] as const).sort(([, left], [, right]) => right - left)[0]?.[0] ?? ',';
}

function isOneOf<Value extends string>(all: readonly Value[], text: string): text is Value {
  return (all as readonly string[]).includes(text);
}

interface Row {
  readonly cells: Partial<Record<Column, string>>;
  readonly line: number;
}

function rowsOf(text: string): { readonly rows: readonly Row[]; readonly problems: readonly CsvProblem[] } {
  let table: string[][];
  try {
    table = parse(text, { bom: true, delimiter: delimiterOf(text), relax_column_count: true, skip_empty_lines: true, trim: true });
  } catch (error) {
    return { rows: [], problems: [{ line: (error as { lines?: number }).lines ?? 1, says: 'A quotation mark is opened and never closed.' }] };
  }
  const [head = [], ...body] = table;
  const columns = head.map((cell): Column | null => {
    const name = cell.toLowerCase().trim();
    return COLUMNS.find((column) => column.toLowerCase() === name) ?? OTHER[name] ?? null;
  });
  if (!columns.includes('name') && !columns.includes('id'))
    return { rows: [], problems: [{ line: 1, says: `No column is called "name". The first line must name the columns: ${COLUMNS.join(', ')}.` }] };
  const rows = body.map((cells, index): Row => ({ line: index + 2, cells: Object.fromEntries(cells.flatMap((cell, at) => (columns[at] ? [[columns[at], cell]] : []))) }));
  return { rows, problems: [] };
}

/** A number with a point or a comma for its decimals, `%` and currency signs left off; undefined = the cell is empty, null = it is none. */
function numberIn(cell: string | undefined): number | null | undefined {
  if (cell === undefined || cell === '') return undefined;
  const bare = cell.replaceAll(/[%€$£\s]/g, '').replace(/^'/, '');
  // 1.234,50 and 1,234.50: the last of the two signs is the decimal one.
  const plain = bare.includes(',') && bare.includes('.') ? (bare.lastIndexOf(',') > bare.lastIndexOf('.') ? bare.replaceAll('.', '') : bare.replaceAll(',', '')) : bare;
  const value = readNumber(plain);
  return value === null ? null : cell.includes('%') ? value / 100 : value;
}

const PER: Readonly<Record<string, 'kg' | 'L' | 'each'>> = { kg: 'kg', kilo: 'kg', l: 'L', litre: 'L', liter: 'L', each: 'each', piece: 'each', pc: 'each' };

function foodFrom({ cells, line }: Row, pantry: readonly Food[], taken: ReadonlySet<string>, say: (says: string) => void): Food | null {
  const name = (cells.name ?? '').replace(/^'/, '').trim();
  const known = pantry.find((food) => food.id === cells.id) ?? pantry.find((food) => food.name.toLowerCase() === name.toLowerCase());
  if (known === undefined && name === '') {
    say('It has no name.');
    return null;
  }
  const wrong: string[] = [];
  const bad = (says: string): void => {
    wrong.push(says);
    say(says);
  };
  const number = (column: Column, before: number | null): number | null => {
    const value = numberIn(cells[column]);
    if (value === null) bad(`"${cells[column] ?? ''}" in ${column} is no number.`);
    else if (value !== undefined && value < 0) bad(`${column} is below 0.`);
    return value ?? (value === undefined ? before : null);
  };
  const labels = (cells.allergens ?? '')
    .toLowerCase()
    .split(/[\s,;|]+/)
    .filter((one) => one !== '');
  const named = labels.map((one) => ALLERGENS.find((allergen) => allergen.toLowerCase() === one || words.ALLERGEN[allergen] === one) ?? one);
  const strange = named.filter((one) => !isOneOf(ALLERGENS, one) && one !== 'unknown' && one !== 'none');
  if (strange.length > 0) bad(`"${strange.join(', ')}" is no allergen known here.`);
  const part = cells.part ?? '';
  if (part !== '' && !isOneOf(PARTS, part)) bad(`"${part}" is no part. Known are ${PARTS.join(', ')}.`);
  const origin = cells.origin ?? '';
  if (origin !== '' && !isOneOf(ORIGINS, origin)) bad(`"${origin}" is no origin. Known are ${ORIGINS.join(', ')}.`);
  const share = number('edibleShare', known?.edibleShare ?? 1);
  // A yield of 82 means 82 %.
  const edibleShare = share !== null && share > 1 && share <= 100 ? share / 100 : share;
  if (edibleShare === 0) bad('A yield of 0: nothing would be left. Write what is left after peeling, like 0.82 or 82 %.');
  const amount = number('price', known?.price?.amount ?? null);
  const per = cells.per === undefined || cells.per === '' ? (known?.price?.per ?? 'kg') : PER[cells.per.toLowerCase()];
  if (per === undefined) bad(`A price is by kg, L or each, not by "${cells.per ?? ''}".`);
  if (wrong.length > 0 || per === undefined) return null;
  const made: Food = {
    id: known?.id ?? slugOf(name, taken),
    name: known?.name ?? name,
    aliases: known?.aliases ?? [],
    part: (part === '' ? (known?.part ?? 'other') : part) as Part,
    gPerMl: number('gPerMl', known?.gPerMl ?? null),
    gramsEach: number('gramsEach', known?.gramsEach ?? null),
    edibleShare,
    saltShare: number('saltShare', known?.saltShare ?? 0) ?? 0,
    // Nobody has read the label of a thing whose cell is empty.
    allergens: labels.length === 0 ? (known?.allergens ?? 'unknown') : named.includes('unknown') ? 'unknown' : (named.filter((one) => one !== 'none') as Allergen[]),
    origin: (origin === '' ? (known?.origin ?? 'unknown') : origin) as Origin,
    holdsGrit: known?.holdsGrit ?? false,
    hardSkin: known?.hardSkin ?? false,
    price: amount === null ? null : { amount, per },
    source: known?.source ?? 'entered here',
  };
  const checked = foodSchema.safeParse(made);
  if (checked.success) return made;
  say(checked.error.issues[0]?.message ?? `Line ${String(line)} is wrong.`);
  return null;
}

/** Reads a list over what the pantry has: a cell that is empty changes nothing. All of it or nothing: with a problem, no food is answered. */
export function readPantryCsv(text: string, pantry: readonly Food[]): { readonly foods: readonly Food[]; readonly problems: readonly CsvProblem[] } {
  const { rows, problems: unreadable } = rowsOf(text);
  const problems: CsvProblem[] = [...unreadable];
  const taken = new Set(pantry.map((food) => food.id));
  const foods: Food[] = [];
  const seen = new Map<string, number>();
  for (const row of rows) {
    const food = foodFrom(row, pantry, taken, (says) => problems.push({ line: row.line, says }));
    if (food === null) continue;
    const before = seen.get(food.id);
    if (before !== undefined) problems.push({ line: row.line, says: `${food.name} stands in line ${String(before)} already.` });
    seen.set(food.id, row.line);
    taken.add(food.id);
    foods.push(food);
  }
  return problems.length > 0 ? { foods: [], problems } : { foods, problems: [] };
}
