import { findFood, foodFacts, isMassUnit, makeLine } from '@broth/core';
import type { Amount, Food, Ingredient, KitchenUnit, PrepAct } from '@broth/core';
import type { LineDoubt } from './doubt';

/** Which spoons, cups and pints a card means. */
export type Measures = 'us' | 'imperial' | 'metric';

const FRACTIONS: Readonly<Record<string, number>> = { '½': 1 / 2, '⅓': 1 / 3, '⅔': 2 / 3, '¼': 1 / 4, '¾': 3 / 4, '⅛': 1 / 8, '⅜': 3 / 8, '⅝': 5 / 8, '⅞': 7 / 8, '⅕': 1 / 5 };

type UnitWord = 'cup' | 'tbsp' | 'tsp' | 'pint' | 'quart' | 'gallon' | 'flOz';
const PLAIN: Readonly<Record<string, KitchenUnit>> = {
  g: 'g',
  gram: 'g',
  gr: 'g',
  kg: 'kg',
  kilo: 'kg',
  kilogram: 'kg',
  lb: 'lb',
  pound: 'lb',
  oz: 'oz',
  ounce: 'oz',
  ml: 'mL',
  millilitre: 'mL',
  milliliter: 'mL',
  l: 'L',
  litre: 'L',
  liter: 'L',
};
const MEASURED: Readonly<Record<string, UnitWord>> = {
  cup: 'cup',
  c: 'cup',
  tbsp: 'tbsp',
  tablespoon: 'tbsp',
  tbs: 'tbsp',
  tsp: 'tsp',
  teaspoon: 'tsp',
  pint: 'pint',
  pt: 'pint',
  quart: 'quart',
  qt: 'quart',
  gallon: 'gallon',
  gal: 'gallon',
  'fl oz': 'flOz',
  'fluid ounce': 'flOz',
};
const BY_MEASURE: Readonly<Record<Measures, Readonly<Record<UnitWord, KitchenUnit>>>> = {
  us: { cup: 'usCup', tbsp: 'usTbsp', tsp: 'usTsp', pint: 'usPt', quart: 'usQt', gallon: 'usGal', flOz: 'usFlOz' },
  imperial: { cup: 'metricCup', tbsp: 'metricTbsp', tsp: 'metricTsp', pint: 'impPt', quart: 'usQt', gallon: 'impGal', flOz: 'impFlOz' },
  metric: { cup: 'metricCup', tbsp: 'metricTbsp', tsp: 'metricTsp', pint: 'impPt', quart: 'usQt', gallon: 'impGal', flOz: 'impFlOz' },
};
/** Words that count pieces, or say how large one is. */
const PIECE =
  /^(?:large|small|medium|big|whole|clove|cloves|stick|sticks|stalk|stalks|piece|pieces|head|heads|leaf|leaves|rasher|rashers|tin|tins|can|cans|bulb|bulbs|sprig|sprigs|bunch|bunches|handful|ripe|fresh)\b/i;
const BY_EYE = /^(?:a\s+)?(?:pinch|dash|splash|handful|knob|some|few|little|drizzle|thread)\b(?:\s+of)?/i;

export interface ReadLine {
  readonly line: Ingredient;
  readonly doubts: readonly LineDoubt[];
}

const NUMBER = String.raw`(?:\d+\s+\d+\/\d+|\d+\/\d+|\d+(?:[.,]\d+)?\s*[½⅓⅔¼¾⅛⅜⅝⅞⅕]?|[½⅓⅔¼¾⅛⅜⅝⅞⅕])`;
const LEADING = new RegExp(String.raw`^(?:about |approx\.? |ca\.? )?(${NUMBER})(?:\s*(?:-|–|to|or)\s*(${NUMBER}))?\s*`, 'i');

/** `1 1/2`, `½`, `2½`, `0,5` as numbers; null when it is none. */
export function readNumber(text: string): number | null {
  const plain = text.trim().replace(',', '.');
  const mixed = /^(\d+)\s+(\d+)\/(\d+)$/.exec(plain);
  if (mixed !== null) return Number(mixed[3]) === 0 ? null : Number(mixed[1]) + Number(mixed[2]) / Number(mixed[3]);
  const fraction = /^(\d+)\/(\d+)$/.exec(plain);
  if (fraction !== null) return Number(fraction[2]) === 0 ? null : Number(fraction[1]) / Number(fraction[2]);
  const glyph = /^([\d.]*)\s*([½⅓⅔¼¾⅛⅜⅝⅞⅕])$/.exec(plain);
  if (glyph !== null) return Number(glyph[1] === '' ? 0 : glyph[1]) + (FRACTIONS[glyph[2] ?? ''] ?? 0);
  const value = Number(plain);
  return plain === '' || Number.isNaN(value) ? null : value;
}

function readUnit(rest: string, measures: Measures): { readonly unit: KitchenUnit; readonly rest: string } | null {
  const word = /^(fl\.? ?oz|fluid ounces?|[a-zA-Z]+)\.?\s*(?:of\s+)?/.exec(rest);
  if (word === null) return null;
  const name = (word[1] ?? '').toLowerCase().replace('fl. oz', 'fl oz').replace('floz', 'fl oz');
  // A capital T is a tablespoon on many cards, a small one a teaspoon.
  const spoon = word[1] === 'T' ? 'tbsp' : word[1] === 't' ? 'tsp' : undefined;
  const singular = name.replace(/s$/, '');
  const plain = PLAIN[name] ?? PLAIN[singular];
  const measured = spoon ?? MEASURED[name] ?? MEASURED[singular];
  const unit = plain ?? (measured === undefined ? undefined : BY_MEASURE[measures][measured]);
  return unit === undefined ? null : { unit, rest: rest.slice(word[0].length) };
}

const ACTS: readonly (readonly [RegExp, PrepAct])[] = [
  [/wash|clean/i, 'wash'],
  [/peel/i, 'peel'],
  [/seed|core/i, 'seed'],
  [/pierc|prick/i, 'pierce'],
  [/rins/i, 'rinse'],
  [/soak/i, 'soak'],
];
/** An id from a name that is not taken yet: `white-bean`, `white-bean-2`. */
export function slugOf(name: string, taken: ReadonlySet<string>): string {
  const base =
    name
      .toLowerCase()
      .normalize('NFD')
      .replaceAll(/[^a-z0-9]+/g, '-')
      .replaceAll(/^-+|-+$/g, '')
      .slice(0, 40) || 'line';
  let made = base;
  for (let count = 2; taken.has(made); count += 1) made = `${base}-${String(count)}`;
  return made;
}

/** Capital first, the rest as it was written. */
function capital(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1);
}

/** What a card is read with: the pantry, what the book makes itself, and which cups are meant. */
export interface Kitchen {
  readonly pantry: readonly Food[];
  /** Stocks and roasts of the book: a line that names one is made here. */
  readonly made: readonly { readonly id: string; readonly name: string }[];
  readonly measures: Measures;
}

/** `(3-4 lb)` beside a count of pieces is what they weigh; null when the brackets hold no weight. */
function bracketWeight(text: string, measures: Measures): { readonly low: number; readonly high: number; readonly unit: KitchenUnit } | null {
  for (const match of text.matchAll(/\(([^)]*)\)/g)) {
    const inside = (match[1] ?? '').trim();
    const leading = LEADING.exec(inside);
    const low = leading === null ? null : readNumber(leading[1] ?? '');
    if (leading === null || low === null) continue;
    const unit = readUnit(inside.slice(leading[0].length), measures);
    const high = leading[2] === undefined ? low : (readNumber(leading[2]) ?? low);
    if (unit !== null && unit.unit !== 'each' && isMassUnit(unit.unit)) return { low, high, unit: unit.unit };
  }
  return null;
}

/**
 * One line of a card: `2 lb carrots, peeled and diced` is 2 lb of carrot, peel, "peeled and diced", with what the pantry knows of carrots. What
 * cannot be read stays in the name, without an amount: nothing is invented.
 */
export function readIngredientLine(text: string, { pantry, made, measures }: Kitchen, taken: ReadonlySet<string>, stepId = ''): ReadLine {
  const doubts: LineDoubt[] = [];
  let rest = text.trim().replace(/^[-*•·]\s*/, '');
  let amount: Amount = null;
  const leading = LEADING.exec(rest);
  const low = leading === null ? null : readNumber(leading[1] ?? '');
  if (leading !== null && low !== null) {
    const high = leading[2] === undefined ? low : (readNumber(leading[2]) ?? low);
    const after = rest.slice(leading[0].length).replace(/^\([^)]*\)\s*/, '');
    const unit = readUnit(after, measures);
    const firstWord = /^[A-Za-z]+/.exec(after)?.[0] ?? '';
    if (unit !== null) {
      amount = { low: Math.min(low, high), high: Math.max(low, high), unit: unit.unit };
      rest = unit.rest;
    } else if (PIECE.test(after) || (findFood(after, pantry)?.as ?? '').includes(firstWord.toLowerCase().replace(/s$/, '')) || firstWord === '') {
      amount = { low: Math.min(low, high), high: Math.max(low, high), unit: 'each' };
      rest = after.replace(/^(?:large|small|medium|big|ripe|fresh|whole)\s+/i, '').replace(/^of\s+/i, '');
    } else {
      doubts.push({ code: 'unit.unknown', word: firstWord });
      rest = after;
    }
  } else if (BY_EYE.test(rest)) rest = rest.replace(BY_EYE, '').trim();
  const weighed = amount?.unit === 'each' ? bracketWeight(text, measures) : null;
  if (amount !== null && weighed !== null) {
    amount = { low: amount.low * weighed.low, high: amount.high * weighed.high, unit: weighed.unit };
    rest = rest.replaceAll(/\([^)]*\)/g, '');
  }
  if (amount === null && doubts.length === 0) doubts.push({ code: 'amount.none' });
  const inBrackets = [...rest.matchAll(/\(([^)]*)\)/g)].map((match) => match[1] ?? '');
  const [namePart = '', ...details] = rest.replaceAll(/\([^)]*\)/g, '').split(',');
  const detail = [...details, ...inBrackets]
    .map((one) => one.trim())
    .filter((one) => one !== '')
    .join(', ');
  // "chopped onion": the cut stands before the thing.
  const before = /^((?:(?:finely|roughly|thinly|freshly)\s+)?(?:chopped|diced|sliced|minced|grated|crushed|peeled|cubed|shredded)(?:\s+and\s+\w+ed)?)\s+(.+)$/i.exec(
    namePart.trim(),
  );
  const found = findFood(text, pantry);
  const name = capital((before?.[2] ?? namePart).trim().replace(/\s+/g, ' ')) || capital(text.trim());
  const cut = [before?.[1] ?? '', detail].filter((one) => one !== '').join(', ');
  const own = made.find((one) => name.toLowerCase().includes(one.name.toLowerCase()));
  if (found === null && own === undefined) doubts.push({ code: 'food.unknown' });
  const acts = ACTS.filter(([word]) => word.test(text)).map(([, act]) => act);
  const known = found === null ? { allergens: 'unknown' as const, origin: 'unknown' as const, edibleShare: 1 } : foodFacts(found.food);
  const staged = found?.food.part === 'salt' || found?.food.id === 'chilli' ? ({ scaling: 'staged' } as const) : {};
  const line = makeLine({
    ...known,
    ...staged,
    id: slugOf(name, taken),
    name: name.slice(0, 120),
    amount,
    // A card weighs what it buys: "2 lb carrots" is before the peeler. Cups are filled with what has been cut.
    basis: amount !== null && (amount.unit === 'lb' || amount.unit === 'kg' || amount.unit === 'each') && (known.edibleShare ?? 1) < 1 ? 'purchased' : 'edible',
    cut: cut === '' ? null : cut.slice(0, 80),
    acts,
    stepId,
    // What the kitchen makes itself has the label of what it is made of.
    ...(own === undefined ? {} : { componentId: own.id, foodId: null, allergens: [], origin: 'plant' as const, basis: 'edible' as const }),
    whole: /\b(?:kept aside|set aside|for garnish|to serve)\b/i.test(text),
  });
  return { line, doubts };
}
