import * as soupWords from './soup';
import { ALLERGENS, CLOCKS, DIETS, HEATS, LIDS, ORIGINS, PARTS, PHASES, PREP_ACTS, SCHOOLS, TEXTURES, compareSoups, makeLine, makeSoup, makeStep, thicken } from '@broth/core';
import type { School, SoupFinding } from '@broth/core';
import { KITCHEN_UNITS } from '../soup';
import * as words from './en';

/** Each sentence about soups, once. */

describe('findings of a soup', () => {
  test.each<readonly [SoupFinding, string]>([
    [{ code: 'component.loop', path: ['A', 'B', 'A'] }, 'A is made of B is made of A: that never ends. Take one of these lines out, or buy it ready.'],
    [
      { code: 'component.unknown', line: 'Ham stock', componentId: 'ham' },
      'Ham stock is to be made here, but the book has no "ham". Write its card, or make the line a bought thing.',
    ],
    [{ code: 'line.nowhere', line: 'Salt' }, 'Salt is listed but never used. Say at which step it goes in, or take it off the card.'],
    [{ code: 'line.unlisted', food: 'Butter', step: 'Stir in butter' }, '"Stir in butter" names butter, which is not listed. Add it with its amount, or change the step.'],
    [{ code: 'amount.missing', lines: ['Kale', 'Mint'], yieldClaimed: false }, 'Not measured yet: Kale and Mint. No yield is claimed until it is: weigh it at the next batch.'],
    [{ code: 'amount.missing', lines: ['Nutmeg'], yieldClaimed: true }, 'Not measured yet: Nutmeg. Weigh it at the next batch.'],
    [{ code: 'amount.unweighable', line: 'Quince', lacks: 'pieceWeight' }, 'Quince is counted in pieces and nobody knows what one weighs. Weigh one.'],
    [{ code: 'yield.disagrees', writtenL: 10, lowL: 12.2, highL: 12.5 }, 'The card says 10 L; what goes in makes 12.2 to 12.5 L. Change what it makes, or an amount.'],
    [{ code: 'blend.untested', step: 'Blend' }, 'Nothing says when it is soft enough for "Blend". Write a check at the simmer or the roast: a knife goes through.'],
    [{ code: 'pieces.blended', line: 'Corn', step: 'Blend' }, 'Corn is to stay whole but is in the pot at "Blend". Keep it aside and let it return after the last blend.'],
    [
      { code: 'dairy.curdles', line: 'Cream', step: 'Boil' },
      'Cream goes in at "Boil" and boils after: it may curdle. Put it in off the heat at the end, or let it carry the starch.',
    ],
    [
      { code: 'dairy.mustBoil', line: 'Milk', thickener: 'Plain flour' },
      'Milk carries plain flour, which thickens only when it boils. Put it in before the boil, or choose cream off the heat.',
    ],
    [
      { code: 'starch.notBoiled', line: 'Cornflour' },
      'Cornflour goes in and nothing boils after it: it will taste raw and not thicken. Add a boil after it, or put it in earlier.',
    ],
    [{ code: 'grit.unwashed', line: 'Leek' }, 'Leek hides grit and no wash is written. Tick "wash" on its line.'],
    [{ code: 'skin.unpierced', line: 'Squash', step: 'Roast whole' }, 'Squash goes whole into "Roast whole": it can burst. Tick "pierce" on its line.'],
    [{ code: 'salt.high', percent: 1.46 }, 'With everything that is salty this is 1.5 % salt; most soups lie at 0.7 to 0.9. Take salt out, or less of what brings it.'],
    [{ code: 'label.unread', line: 'Cube' }, "Nobody has read the label of Cube: its allergens are unknown, and so are the soup's. Read it and enter them."],
  ])('%j', (found, sentence) => {
    expect(soupWords.soupFinding(found)).toBe(sentence);
  });
});

describe('diets, swaps, doubts', () => {
  const path = ['Cheddar'];
  test.each([
    [
      soupWords.dietLine('vegan', {
        kind: 'no',
        reasons: [
          { path, because: { origin: 'milk' } },
          { path: ['Stock', 'Bones'], because: { origin: 'fish' } },
        ],
      }),
      'Not vegan: Cheddar is from milk and Bones in the stock is from fish.',
    ],
    [
      soupWords.dietLine('glutenFree', { kind: 'unknown', reasons: [{ path: ['Cube'], because: { unread: true } }] }),
      'Unknown, so not to be called gluten-free: nobody has read the label of Cube.',
    ],
    [
      soupWords.dietLine('nutFree', { kind: 'no', reasons: [{ path: [], because: { carriedOver: 'peanut' } }] }),
      'Not nut-free: peanut carried over by equipment that was not washed.',
    ],
    [soupWords.dietLine('dairyFree', { kind: 'no', reasons: [{ path: ['Oat drink'], because: { allergen: 'milk' } }] }), 'Not dairy-free: Oat drink has milk.'],
    [soupWords.dietLine('vegetarian', { kind: 'yes', reasons: [] }), 'No line speaks against vegetarian.'],
    [
      soupWords.carried({ tool: 'jar', allergens: ['milk'], from: ['Celeriac 1'] }),
      'The jar blender carries milk from Celeriac 1. Take it apart and wash it fully first, or this batch is not free from them.',
    ],
    [soupWords.swapFinding({ code: 'swap.ratio', line: 'Flour', food: 'Cornflour', factor: 0.5 }), 'Cornflour thickens otherwise than Flour: take 0.5 times its weight.'],
    [
      soupWords.swapFinding({ code: 'swap.noBoil', line: 'Cream', food: 'Yoghurt' }),
      'Yoghurt splits when it boils, and the soup boils after it. Put it in off the heat at the end.',
    ],
    [soupWords.swapFinding({ code: 'swap.unread', food: 'Cube' }), 'The label of Cube has not been read: allergens become unknown.'],
    [soupWords.swapFinding({ code: 'swap.noThickening', line: 'Flour', food: 'Sugar' }), 'Sugar does not thicken as Flour does. Expect a thinner soup.'],
    [
      soupWords.swapFinding({ code: 'swap.notLikeFor', line: 'Carrot', food: 'Salt' }),
      'Salt does another job than Carrot: the soup will not be the same. Taste before it goes out.',
    ],
    [soupWords.lineDoubt({ code: 'food.unknown' }), 'not in the pantry: its yield and label are unknown. Pick the food it is, or read the label.'],
    [
      soupWords.importTrouble({ code: 'badSoup', first: 'soup.makesL: above 0' }),
      'It says it is a soup of ours, but something in it is wrong (soup.makesL: above 0). Nothing was taken in.',
    ],
  ])('%s', (said, sentence) => {
    expect(said).toBe(sentence);
  });
});

describe('amounts and times', () => {
  test.each([
    [words.amountText(3640, 'g'), '3.64 kg'],
    [words.amountText(80, 'mL'), '80 mL'],
    [words.amountText(2.5, 'each'), '2.5'],
    [soupWords.usText(3800, 'g'), '8 lb 6 oz'],
    [soupWords.usText(454, 'g'), '1 lb'],
    [soupWords.usText(12, 'g'), ''],
    [soupWords.usText(950, 'mL'), '1 qt'],
    [soupWords.usText(120, 'mL'), '0.5 cup'],
    [soupWords.spoonText({ amount: 1.5, unit: 'usTsp' }), '1½ tsp'],
    [soupWords.spoonText({ amount: 0.25, unit: 'usTbsp' }), '¼ Tbsp'],
    [soupWords.range(20, 30), '20 to 30 min'],
    [soupWords.range(12, 12.2), '12 min'],
    [soupWords.range(50, 75), '50 min to 1 h 15'],
    [soupWords.percent(0.0068, 2), '0.68 %'],
  ])('%s', (said, sentence) => {
    expect(said).toBe(sentence);
  });
});

describe('what is poured, thickened, changed', () => {
  const advice = { school: 'cover', writtenL: 7, estimateL: 6.9, basis: 'vegetables', firstL: 5.5, reserveL: 1.5 } as const;
  test.each([
    [soupWords.liquid(advice), 'Pour 5.5 L, look, then up to 1.5 L more. Worked out from the vegetables and the pot; the card says 7 L.'],
    [soupWords.liquid({ ...advice, basis: 'remembered' }), 'Pour 5.5 L, look, then up to 1.5 L more. What past batches took; the card says 7 L.'],
    [soupWords.liquid({ ...advice, basis: 'card', reserveL: 0 }), "5.5 L. The card's measure."],
  ])('%s', (said, sentence) => {
    expect(said).toBe(sentence);
  });
  test('a slurry is said with its cold liquid, half first, and the boil after it', () => {
    const soup = makeSoup({ id: 'a', name: 'A', schools: { ...makeSoup({ id: 'b', name: 'B' }).schools, texture: 'chunky' } });
    const said = thicken(soup, new Map(), 10, 'light', 'coating').ways.map((way) => soupWords.thickening(way, () => 'Cornflour'));
    expect(said).toEqual([
      'Cornflour: 165 g stirred into 330 mL of cold liquid. Re-stir, pour half (83 g) into the boil, boil again a minute, look, then the rest.',
      'Cornflour: 66 g stirred into 132 mL of cold liquid. Re-stir, pour half (33 g) into the boil, boil again a minute, look, then the rest.',
      'Or mash a quarter of it, 2.5 L, against the side.',
      'Or boil off 1.2 L, lid off; salt rises to 1.1 times.',
    ]);
  });
  test('two versions are told apart in words', () => {
    const line = makeLine({ id: 'c', name: 'Carrot', stepId: 's', amount: { low: 1, high: 1, unit: 'kg' } });
    const step = makeStep({ id: 's', phase: 'simmer', name: 'Simmer' });
    const older = makeSoup({ id: 'a', name: 'A', ingredients: [line], steps: [step] });
    const newer = makeSoup({
      ...older,
      makesL: 2,
      ingredients: [{ ...line, amount: { low: 1, high: 1.5, unit: 'kg' }, acts: ['peel'] }, makeLine({ id: 'o', name: 'Onion', stepId: 's' })],
      steps: [{ ...step, duration: { lowMin: 20, highMin: 30, perLitreMin: 0 }, check: 'Soft' }],
    });
    expect(compareSoups(older, newer).map(soupWords.difference)).toEqual([
      'makes, L: 1 → 2.',
      'Carrot, amount: 1 kg → 1 to 1.5 kg.',
      'Carrot, prep: nothing → peel.',
      'Onion is new.',
      'Simmer, minutes: 5 min → 20 to 30 min.',
      'Simmer, check: nothing → Soft.',
    ]);
  });
});

test('everything that can be picked has a word for it', () => {
  const empty = [
    ...ALLERGENS.map((one) => words.ALLERGEN[one]),
    ...PARTS.map((one) => soupWords.PART[one]),
    ...ORIGINS.map((one) => soupWords.ORIGIN[one]),
    ...KITCHEN_UNITS.map((one) => soupWords.UNIT[one]),
    ...PREP_ACTS.map((one) => soupWords.ACT[one]),
    ...TEXTURES.map((one) => soupWords.TEXTURE[one]),
    ...HEATS.map((one) => soupWords.HEAT[one]),
    ...LIDS.map((one) => soupWords.LID[one]),
    ...CLOCKS.map((one) => soupWords.CLOCK_FROM[one]),
    ...DIETS.map((one) => soupWords.DIET[one]),
    ...PHASES.map((one) => soupWords.PHASE_TIPS[one].why),
    ...(Object.keys(SCHOOLS) as School[]).flatMap((name) => SCHOOLS[name].map((choice) => soupWords.schoolChoice(name, choice).choice)),
  ].filter((word) => word.trim() === '');
  expect(empty).toEqual([]);
});
