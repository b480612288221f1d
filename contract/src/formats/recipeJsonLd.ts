import { batchSheet, dietOf, stepRangeMin } from '@broth/core';
import type { Soup } from '@broth/core';
import { z } from 'zod';
import { amountText } from '../words/ingredients';
import { documentOf, soupDocument } from '../soup';
import type { SoupDocument } from '../soup';
import { readCard } from './card';
import type { ImportTrouble } from './doubt';
import type { ReadCard } from './card';
import { readNumber } from './ingredientLine';
import type { Kitchen } from './ingredientLine';

/** schema.org/Recipe as JSON-LD. Our own soup goes along under a name of its own, so that nothing is lost on the way back; other programs read the rest. */
const OURS = 'broth:soup';
const CONTEXT = ['https://schema.org', { broth: 'urn:broth-board:' }];
const DIETS = { vegan: 'VeganDiet', vegetarian: 'VegetarianDiet', glutenFree: 'GlutenFreeDiet' } as const;

function isoDuration(minutes: number): string {
  const whole = Math.round(minutes);
  return whole >= 60 ? `PT${String(Math.floor(whole / 60))}H${whole % 60 === 0 ? '' : `${String(whole % 60)}M`}` : `PT${String(whole)}M`;
}

/** A soup as a schema.org Recipe, its amounts for what its card makes. */
export function recipeOf(soup: Soup, soupById: ReadonlyMap<string, Soup>): Readonly<Record<string, unknown>> {
  const sheet = batchSheet(soup, soup.makesL);
  const minutes = soup.steps.reduce((sum, step) => sum + stepRangeMin(step, soup.makesL, null).highMin, 0);
  const diets = (Object.keys(DIETS) as (keyof typeof DIETS)[]).filter((diet) => dietOf(soup, soupById, diet).kind === 'yes');
  return {
    '@context': CONTEXT,
    '@type': 'Recipe',
    name: soup.name,
    recipeCategory: 'Soup',
    recipeYield: [`${String(soup.makesL)} L`, `${String(Math.floor((soup.makesL * 1000) / soup.portionMl))} portions`],
    totalTime: isoDuration(minutes),
    ...(diets.length === 0 ? {} : { suitableForDiet: diets.map((diet) => `https://schema.org/${DIETS[diet]}`) }),
    recipeIngredient: sheet.lines.map(
      (line) => [line.amount === null ? '' : amountText(line.amount, line.unit), line.name].filter((one) => one !== '').join(' ') + (line.cut === null ? '' : `, ${line.cut}`),
    ),
    recipeInstructions: soup.steps.map((step) => ({
      '@type': 'HowToStep',
      name: step.name,
      text: [step.name, step.check === null ? '' : `Done when: ${step.check}`, step.caution ?? '', step.why].filter((one) => one !== '').join('. '),
    })),
    [OURS]: documentOf(soup, soupById),
  };
}

export type Imported =
  | { readonly kind: 'soup'; readonly document: SoupDocument }
  | ({ readonly kind: 'recipe'; /** Properties of the recipe that have no place here. */ readonly notCarried: readonly string[] } & ReadCard)
  | { readonly kind: 'trouble'; readonly trouble: ImportTrouble };

export const IMPORT_LIMIT_BYTES = 2_000_000;

const CARRIED = [
  '@context',
  '@type',
  '@id',
  '@graph',
  'name',
  'recipeYield',
  'yield',
  'recipeIngredient',
  'ingredients',
  'recipeInstructions',
  'recipeCategory',
  'totalTime',
  'suitableForDiet',
  OURS,
];

function isRecord(value: unknown): value is Readonly<Record<string, unknown>> {
  return typeof value === 'object' && value !== null && !Array.isArray(value);
}

/** The first Recipe in a document, an array of them, or a graph. */
function findRecipe(value: unknown): Readonly<Record<string, unknown>> | null {
  if (Array.isArray(value)) {
    for (const one of value) {
      const found = findRecipe(one);
      if (found !== null) return found;
    }
    return null;
  }
  if (!isRecord(value)) return null;
  const type = value['@type'];
  if (type === 'Recipe' || type === 'https://schema.org/Recipe' || (Array.isArray(type) && type.includes('Recipe'))) return value;
  return findRecipe(value['@graph'] ?? value['mainEntity'] ?? null);
}

function textsOf(value: unknown): readonly string[] {
  if (typeof value === 'string') return [value];
  if (Array.isArray(value)) return value.flatMap(textsOf);
  if (isRecord(value)) {
    const inner = value['itemListElement'];
    return inner !== undefined ? textsOf(inner) : textsOf(value['text'] ?? value['name'] ?? []);
  }
  return [];
}

/** Litres a recipe says it makes: `3 quarts`, `2.5 L`, `10 cups`; null when it counts people. */
function litresIn(texts: readonly string[]): number | null {
  const PER: readonly (readonly [RegExp, number])[] = [
    [/(?:litre|liter|\bl\b)/i, 1],
    [/quart|\bqt\b/i, 0.946352946],
    [/gallon|\bgal\b/i, 3.785411784],
    [/cup/i, 0.2365882365],
    [/\bml\b/i, 0.001],
  ];
  for (const text of texts) {
    const number = readNumber(/[\d.,½¼¾/ ]+/.exec(text)?.[0] ?? '');
    const unit = PER.find(([word]) => word.test(text));
    if (number !== null && number > 0 && unit !== undefined) return number * unit[1];
  }
  return null;
}
/** What a person eats, when a recipe only says for how many: a bowl of 12 US fluid ounces. Common practice. */
const BOWL_L = 0.355;

/** Takes in a text: our own soup, a Recipe that carries it, or any schema.org Recipe. Never throws. */
export function importText(text: string, kitchen: Kitchen, id: string): Imported {
  const bytes = text.length;
  if (bytes > IMPORT_LIMIT_BYTES) return { kind: 'trouble', trouble: { code: 'tooLarge', mb: bytes / 1_000_000 } };
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    return { kind: 'trouble', trouble: { code: 'notJson' } };
  }
  const recipe = findRecipe(value);
  const ours = isRecord(value) && 'format' in value ? value : recipe?.[OURS];
  if (ours !== undefined) {
    const read = soupDocument.safeParse(ours);
    if (read.success) return { kind: 'soup', document: read.data };
    const [issue] = read.error.issues;
    return { kind: 'trouble', trouble: { code: 'badSoup', first: issue === undefined ? '' : `${issue.path.join('.')}: ${issue.message}` } };
  }
  if (recipe === null) return { kind: 'trouble', trouble: { code: 'noRecipe' } };
  const named = z.string().safeParse(recipe['name']);
  const yields = textsOf(recipe['recipeYield'] ?? recipe['yield']).concat(typeof recipe['recipeYield'] === 'number' ? [String(recipe['recipeYield'])] : []);
  const people = readNumber(/\d+/.exec(yields[0] ?? '')?.[0] ?? '');
  const makesL = litresIn(yields) ?? (people !== null && people > 0 ? people * BOWL_L : 1);
  const read = readCard(
    {
      name: named.success && named.data.trim() !== '' ? named.data.slice(0, 80) : 'Soup without a name',
      makesL: Math.min(2000, Number(makesL.toFixed(2))),
      ingredients: textsOf(recipe['recipeIngredient'] ?? recipe['ingredients'])
        .slice(0, 120)
        .join('\n'),
      method: textsOf(recipe['recipeInstructions']).slice(0, 58).join('\n'),
    },
    kitchen,
    id,
  );
  return { kind: 'recipe', notCarried: Object.keys(recipe).filter((key) => !CARRIED.includes(key)), ...read };
}
