import * as soupWords from '../words/soup';
import { HANDBOOK } from '@broth/core/handbook';
import { checkSoup, makeLine, makeSoup, makeStep } from '@broth/core';
import type { Soup } from '@broth/core';
import { soupDocument } from '../index';
import { importText, readCard, readIngredientLine, readMinutes, readNumber, recipeOf, slugOf, usualStep } from './index';

const kitchen = { pantry: HANDBOOK, made: [{ id: 'vegstock', name: 'Vegetable stock' }], measures: 'us' } as const;

describe('numbers as a card has them', () => {
  test.each([
    ['2', 2],
    ['1 1/2', 1.5],
    ['1/3', 1 / 3],
    ['½', 0.5],
    ['2½', 2.5],
    ['0,5', 0.5],
    ['1/0', null],
    ['', null],
    ['some', null],
  ])('%p is %p', (text, value) => {
    expect(readNumber(text)).toBe(value);
  });
  test.each([
    ['Simmer 20-30 min', [20, 30]],
    ['about 1 1/2 hours', [90, 90]],
    ['45 to 60 minutes', [45, 60]],
    ['until soft', null],
  ])('%p', (text, minutes) => {
    const read = readMinutes(text);
    expect(read === null ? null : [read.lowMin, read.highMin]).toEqual(minutes);
  });
});

describe('a line of a card', () => {
  const told = (text: string): unknown => {
    const { line, doubts } = readIngredientLine(text, kitchen, new Set());
    const amount = line.amount === null ? 'none' : `${String(line.amount.low)}${line.amount.high === line.amount.low ? '' : `-${String(line.amount.high)}`} ${line.amount.unit}`;
    return [line.name, line.componentId ?? line.foodId, amount, line.cut, doubts.map((doubt) => doubt.code)];
  };
  test.each<readonly [string, unknown]>([
    ['2 lb carrots, peeled and diced', ['Carrots', 'carrot', '2 lb', 'peeled and diced', []]],
    ['1 1/2 cups heavy cream', ['Heavy cream', 'doublecream', '1.5 usCup', null, []]],
    ['2-3 large onions, chopped', ['Onions', 'onion', '2-3 each', 'chopped', []]],
    ['1 pumpkin (3-4 lb), peeled', ['Pumpkin', 'pumpkin', '3-4 lb', 'peeled', []]],
    ['chopped parsley', ['Parsley', 'parsley', 'none', 'chopped', ['amount.none']]],
    ['a pinch of nutmeg', ['Nutmeg', 'nutmeg', 'none', null, ['amount.none']]],
    ['3 T butter', ['Butter', 'butter', '3 usTbsp', null, []]],
    ['4 cups vegetable stock', ['Vegetable stock', 'vegstock', '4 usCup', null, []]],
    ['2 dollops yogurt', ['Dollops yogurt', 'yoghurt', 'none', null, ['unit.unknown']]],
    ['200 g quince', ['Quince', null, '200 g', null, ['food.unknown']]],
    ['½ tsp ground black pepper', ['Ground black pepper', 'blackpepper', '0.5 usTsp', null, []]],
    ['6 cloves garlic, crushed', ['Cloves garlic', 'garlic', '6 each', 'crushed', []]],
  ])('%s', (text, says) => {
    expect(told(text)).toEqual(says);
  });
  test('a thing that is not in the pantry has an unknown label: never free from', () => {
    expect(readIngredientLine('200 g quince', kitchen, new Set()).line).toMatchObject({ allergens: 'unknown', origin: 'unknown' });
  });
  test('pounds and pieces are weighed as they are bought, cups as they go in', () => {
    const basis = (text: string): string => readIngredientLine(text, kitchen, new Set()).line.basis;
    expect([basis('2 lb carrots'), basis('2 carrots'), basis('2 cups carrots')]).toEqual(['purchased', 'purchased', 'edible']);
  });
  test('ids are their own', () => {
    expect([slugOf('Crème & leek!', new Set()), slugOf('leek', new Set(['leek', 'leek-2']))]).toEqual(['cre-me-leek', 'leek-3']);
  });
});

const CARD = {
  name: 'Pumpkin and ginger',
  makesL: 2.4,
  ingredients: '3.5 lb pumpkin, peeled and cubed\n2 onions, chopped\n2 Tbsp butter\n1 Tbsp ginger, grated\n4 cups vegetable stock\n1/2 cup heavy cream\n2 tsp salt',
  method:
    'Soften the onions in butter 8-10 min, then the ginger\nAdd pumpkin and stock, bring to the boil\nSimmer 20-30 min until a knife goes through\nBlend half of it\nStir in the cream off the heat, salt',
};
const stock = makeSoup({ id: 'vegstock', name: 'Vegetable stock', role: 'component', steps: [makeStep({ id: 's', phase: 'boil', name: 'Boil' })] });

describe('a card', () => {
  const { soup, doubts } = readCard(CARD, kitchen, 'pumpkin');
  test('becomes lines and steps in order, with a prep step before and the well after', () => {
    expect(soup.steps.map((step) => step.phase)).toEqual(['prep', 'sweat', 'boil', 'simmer', 'blend', 'finish', 'hold']);
    expect(soup.steps.map((step) => [step.duration.lowMin, step.duration.highMin])).toEqual(
      expect.arrayContaining([
        [8, 10],
        [20, 30],
      ]),
    );
    expect(soup.steps[3]?.check).toBe('A knife goes through');
  });
  test('each line goes in where the method names it, what is cut at the bench', () => {
    expect(soup.ingredients.map((line) => [line.name, line.stepId])).toEqual([
      ['Pumpkin', 'prep'],
      ['Onions', 'prep'],
      ['Butter', 'sweat'],
      ['Ginger', 'sweat'],
      ['Vegetable stock', 'boil'],
      ['Heavy cream', 'finish'],
      ['Salt', 'finish'],
    ]);
  });
  test('schools are told from it: half blended, cream off the heat, onion pale', () => {
    expect(soup.schools).toMatchObject({ texture: 'half', cream: 'offHeat', onion: 'pale' });
    expect(soup.steps[4]?.blendShare).toBe(0.5);
  });
  test('it is a soup the schema takes, and the checks find nothing in it', () => {
    expect(soupDocument.safeParse({ format: 'broth-soup/1', soup }).success).toBe(true);
    expect([doubts, checkSoup(soup, new Map([['vegstock', stock]]), HANDBOOK)]).toEqual([[], []]);
  });
  test('usual times lie where the trade has them (common practice): halves roast 40 to 50 min, roots simmer 20 to 30, onion sweats 5 to 10', () => {
    const minutes = (phase: 'roast' | 'simmer' | 'sweat') => [usualStep(phase, 'x', 'x').duration.lowMin, usualStep(phase, 'x', 'x').duration.highMin];
    expect([minutes('roast'), minutes('simmer'), minutes('sweat')]).toEqual([
      [40, 50],
      [20, 30],
      [5, 10],
    ]);
  });
});

describe('schema.org/Recipe', () => {
  const { soup } = readCard(CARD, kitchen, 'pumpkin');
  const whole: Soup = {
    ...soup,
    variants: [
      { id: 'v', name: 'with seeds', blendShare: 1, adds: [makeLine({ id: 'seeds', name: 'Seeds', stepId: 'finish', amount: { low: 5, high: 8, unit: 'g' } })], leavesOut: [] },
    ],
  };
  const text = JSON.stringify(recipeOf(whole, new Map([['vegstock', stock]])));
  test('says what other programs read: yield, lines, steps, time', () => {
    expect(JSON.parse(text)).toMatchObject({
      '@type': 'Recipe',
      name: 'Pumpkin and ginger',
      recipeYield: ['2.4 L', '8 portions'],
      recipeIngredient: expect.arrayContaining(['950 mL Vegetable stock', '120 mL Heavy cream']) as unknown,
      totalTime: expect.stringMatching(/^PT\d+H\d*M?$/) as unknown,
    });
  });
  test('comes back without loss, component and variant too', () => {
    expect(importText(text, kitchen, 'x')).toEqual({ kind: 'soup', document: { format: 'broth-soup/1', soup: whole, components: [stock] } });
  });
  test('of somebody else is read as a card, and what has no place here is said', () => {
    const theirs = {
      '@context': 'https://schema.org',
      '@graph': [
        { '@type': 'WebPage' },
        {
          '@type': ['Recipe'],
          name: 'Carrot soup',
          recipeYield: '2 quarts',
          image: 'x.jpg',
          nutrition: {},
          recipeIngredient: ['2 lb carrots, peeled', '6 cups water'],
          recipeInstructions: [
            {
              '@type': 'HowToSection',
              itemListElement: [
                { '@type': 'HowToStep', text: 'Boil it.' },
                { '@type': 'HowToStep', text: 'Simmer 20 minutes.' },
              ],
            },
          ],
        },
      ],
    };
    const read = importText(JSON.stringify(theirs), kitchen, 'carrot');
    expect(read).toMatchObject({ kind: 'recipe', notCarried: ['image', 'nutrition'], soup: { name: 'Carrot soup', makesL: 1.89 } });
    expect(read.kind === 'recipe' ? read.soup.steps.map((step) => step.phase) : []).toEqual(['prep', 'boil', 'simmer', 'hold']);
  });
  test('for eight people is eight bowls of 12 fl oz (common practice)', () => {
    const read = importText(JSON.stringify({ '@type': 'Recipe', name: 'x', recipeYield: '8 servings', recipeIngredient: ['1 carrot'] }), kitchen, 'x');
    expect(read.kind === 'recipe' ? read.soup.makesL : 0).toBeCloseTo(2.84, 2);
  });
  test.each<readonly [string, string, string]>([
    ['40 MB', `"${'x'.repeat(2_100_000)}"`, 'tooLarge'],
    ['what is cut off', text.slice(0, 200), 'notJson'],
    ['a web page', '{"@type":"WebPage"}', 'noRecipe'],
    ['a soup of ours with a negative amount', text.replace('"low":3.5', '"low":-3.5'), 'badSoup'],
    ['nothing', '', 'notJson'],
  ])('%s is refused with a sentence', (_, given, code) => {
    const read = importText(given, kitchen, 'x');
    expect(read).toMatchObject({ kind: 'trouble', trouble: { code } });
    expect(read.kind === 'trouble' ? soupWords.importTrouble(read.trouble) : '').toMatch(/Nothing was taken in|take|Save/);
  });
});
