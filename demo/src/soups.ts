import { HANDBOOK } from '@broth/core/handbook';
import { USUAL_SCHOOLS, foodFacts, makeLine, makeSoup, makeStep, matchFood } from '@broth/core';
import type { Amount, Ingredient, PrepAct, Schools, Soup } from '@broth/core';
import { boil, empty, finish, jarBlend, minutes, prep, simmer, stickBlend, sweat } from './steps';

/** Cards are written for so many litres; the lines below give what one litre takes. */
const MAKES_L = 10;
const perTen = (perLitre: number): number => Number((perLitre * MAKES_L).toFixed(3));
const g = (perLitre: number): Amount => ({ low: perTen(perLitre), high: perTen(perLitre), unit: 'g' });
const mL = (perLitre: number): Amount => ({ low: perTen(perLitre), high: perTen(perLitre), unit: 'mL' });

const ACTS: readonly (readonly [RegExp, PrepAct])[] = [
  [/wash/, 'wash'],
  [/peel/, 'peel'],
  [/seeded/, 'seed'],
  [/rinse/, 'rinse'],
  [/rested/, 'rest'],
];

/** One line: what, how much, where it goes in, how it is cut. Invented, worked out to be cookable; the handbook knows its yield and label. */
function line(name: string, amount: Amount, stepId: string, cut: string | null = null, some: Partial<Ingredient> = {}): Ingredient {
  const food = matchFood(name, HANDBOOK);
  const acts = ACTS.filter(([word]) => word.test(cut ?? '')).map(([, act]) => act);
  const staged = food?.part === 'salt' || food?.id === 'spiceblend' ? ({ scaling: 'staged' } as const) : {};
  return makeLine({ ...(food === null ? {} : foodFacts(food)), ...staged, id: name.toLowerCase().replaceAll(/[^a-z]+/g, '-'), name, amount, stepId, cut, acts, ...some });
}

function component(name: string, componentId: string, amount: Amount, stepId: string): Ingredient {
  return makeLine({ id: componentId, name, amount, stepId, componentId, part: componentId.endsWith('stock') ? 'liquid' : 'main', gPerMl: 1 });
}
const vegetableStock = (perLitreMl: number): Ingredient => component('Vegetable stock', 'vegstock', mL(perLitreMl), 'boil');

type Some = Pick<Soup, 'id' | 'name' | 'shortName' | 'toneHex' | 'ingredients' | 'steps'> & Partial<Omit<Soup, 'schools'>> & { readonly schools?: Partial<Schools> };
const soup = ({ schools, ...some }: Some): Soup =>
  makeSoup({ makesL: MAKES_L, saltTarget: 0.007, salesPrice: some.role === 'component' ? null : 5.5, ...some, schools: { ...USUAL_SCHOOLS, ...schools } });

const celeriac = soup({
  id: 'celeriac',
  texture: 'coating',
  schools: { liquid: 'below', cream: 'offHeat', thickener: 'puree', onion: 'pale', texture: 'full' },
  variants: [{ id: 'bacon', name: 'with crisp bacon', blendShare: 1, adds: [line('Bacon', g(12), 'finish', 'crisp lardons', { whole: true })], leavesOut: [] }],
  name: 'Celeriac and apple velouté',
  shortName: 'Celeriac',
  toneHex: '#C9AE6B',
  ingredients: [
    line('Celeriac', g(340), 'prep', 'any, even'),
    line('Cooking apple', g(90), 'prep', 'any'),
    line('Onion', g(80), 'prep', 'thin'),
    line('Butter', g(20), 'sweat'),
    vegetableStock(500),
    line('Double cream', mL(60), 'finish'),
    line('Salt', g(7), 'finish'),
    line('Nutmeg', g(0.3), 'finish'),
  ],
  steps: [
    prep('Peel and cut celeriac, apple, onion', 1.1, 'It is all blended: even pieces matter, looks do not.', 'Hard root: cut a flat side and lay it down first.'),
    sweat('Sweat onion and celeriac in butter, pale', 10, 'Pale onion keeps the velouté white.'),
    boil('Add stock to just below the top; lid on, to the boil'),
    simmer(20, 'A knife goes through without a push', 'Raw celeriac never blends smooth.'),
    jarBlend,
    finish('Cream in off the heat; salt, nutmeg', 6, 'The cream only enriches: too hot and it splits.'),
    empty('Into the well'),
  ],
});

const lentil = soup({
  id: 'lentil',
  texture: 'coating',
  schools: { thickener: 'mash', onion: 'caramelised', texture: 'half' },
  variants: [{ id: 'smooth', name: 'smooth, with yoghurt', blendShare: 1, adds: [line('Plain yoghurt', g(25), 'finish')], leavesOut: [] }],
  name: 'Red lentil and roast carrot',
  shortName: 'Lentil',
  toneHex: '#D1703A',
  ingredients: [
    line('Red lentils', g(140), 'prep', 'rinsed until clear'),
    component('Caramelised onion', 'sweetonion', g(60), 'sweat'),
    component('Roast carrot', 'roastcarrot', g(220), 'boil'),
    vegetableStock(650),
    line('Sunflower oil', mL(10), 'sweat'),
    line('Ground cumin', g(2), 'sweat'),
    line('Lemon juice', mL(12), 'finish'),
    line('Salt', g(7), 'finish'),
  ],
  steps: [
    prep('Rinse lentils; weigh spice, squeeze lemons', 0.3, 'Unrinsed lentils foam over.'),
    sweat('Warm the onion in oil, then the cumin', 6, 'Ground spice wants a minute or two in fat, not three.'),
    boil('Lentils, carrot, stock in; to the boil, skim'),
    simmer(22, 'A spatula crushes a lentil', 'Half-cooked lentils thicken later, in the well.'),
    stickBlend('Blend about half with the immersion blender', 'Creamy with pieces', 0.3, 0.5),
    finish('Lemon last, salt in steps', 5, 'Acid stops lentils softening, so it waits until they are done.'),
    empty('Into the well'),
  ],
});

const chowder = soup({
  id: 'chowder',
  texture: 'coating',
  schools: { cream: 'withStock', thickener: 'flour', texture: 'pulses', vegetables: 'staged' },
  name: 'Smoked haddock and sweetcorn chowder',
  shortName: 'Chowder',
  toneHex: '#DBA526',
  ingredients: [
    line('Potato', g(190), 'prep', '1 cm dice, under water'),
    line('Leek', g(80), 'prep', 'thin, washed twice'),
    line('Butter', g(18), 'sweat'),
    line('Plain flour', g(16), 'sweat'),
    component('Fish stock', 'fishstock', mL(360), 'boil'),
    line('Whole milk', mL(230), 'boil'),
    line('Smoked haddock', g(150), 'prep', 'large flakes', { whole: true, returnsAtStepId: 'pieces' }),
    line('Sweetcorn', g(90), 'prep', null, { whole: true, returnsAtStepId: 'pieces' }),
    line('Salt', g(4), 'finish'),
    line('White pepper', g(0.4), 'finish'),
  ],
  steps: [
    prep('Dice potato, wash leek twice, flake the fish aside', 1.0, 'Grit hides in the leek, bones in the fish.', 'Wash and sanitise the board after raw fish.'),
    sweat('Sweat leek in butter, flour over it', 9, 'The flour looks dry and gummy, as it should.'),
    boil('Stock and milk in by thirds; to the boil'),
    simmer(15, 'Potato just tender', 'Flour only thickens once it has truly boiled.'),
    stickBlend('Pulse a third of the pot', 'Thick, with pieces', 0.15, 0.33),
    makeStep({
      id: 'pieces',
      phase: 'finish',
      name: 'Fish and corn back in, simmer gently',
      why: 'They go in after the blender: no blending after this.',
      heat: 'low',
      duration: minutes(6, 0.1),
      maxWaitMin: 10,
      check: '145 °F (63 °C) in the thickest piece for 15 s',
      caution: 'From here on nothing is blended.',
      irreversible: true,
    }),
    finish('Pepper, salt last', 4, 'Smoked fish has salted it already.'),
    empty('Into the well'),
  ],
});

const bean = soup({
  id: 'bean',
  schools: { liquid: 'cover', onion: 'pale', garlic: 'lastMinute' },
  name: 'White bean and kale',
  shortName: 'Bean',
  toneHex: '#7A9E5B',
  ingredients: [
    line('White beans, cooked', g(260), 'boil'),
    line('Kale', g(80), 'kale', 'washed, ribbons'),
    line('Carrot', g(60), 'prep', 'small dice'),
    line('Celery', g(50), 'prep', 'small dice'),
    line('Onion', g(60), 'prep', 'small dice'),
    line('Garlic', g(6), 'prep', 'chopped, rested 10 min'),
    line('Olive oil', mL(15), 'sweat'),
    vegetableStock(590),
    line('Rosemary', g(1), 'boil'),
    line('Salt', g(7), 'finish'),
  ],
  steps: [
    prep('Dice the soffritto small, strip and ribbon the kale', 1.3, 'It stays chunky: even dice is the look.'),
    sweat('Sweat onion, carrot, celery; garlic last', 12, 'Garlic burns almost at once.'),
    boil('Beans, rosemary, stock in; to the boil'),
    simmer(25, 'Beans creamy inside', 'The broth takes its body from the beans.'),
    makeStep({
      id: 'kale',
      phase: 'finish',
      name: 'Kale in, lid off',
      lid: 'off',
      why: 'Lid off keeps it green.',
      heat: 'low',
      duration: minutes(6),
      maxWaitMin: 10,
      check: 'Tender, still green',
    }),
    finish('Salt, a thread of oil', 4, 'Taste after the kale, it drinks salt.'),
    empty('Into the well'),
  ],
});

const beetroot = soup({
  id: 'beetroot',
  texture: 'coating',
  schools: { liquid: 'cover', cream: 'offHeat', thickener: 'puree', texture: 'full' },
  name: 'Beetroot with soured cream',
  shortName: 'Beetroot',
  toneHex: '#9B2C57',
  ingredients: [
    line('Beetroot', g(390), 'prep', '1 cm dice'),
    line('Onion', g(80), 'prep', 'thin'),
    line('Cooking apple', g(40), 'prep', 'any'),
    line('Sunflower oil', mL(12), 'sweat'),
    vegetableStock(530),
    line('Red wine vinegar', mL(10), 'finish'),
    line('Soured cream', mL(45), 'finish'),
    line('Salt', g(7), 'finish'),
  ],
  steps: [
    prep('Peel and dice beetroot, onion, apple', 1.2, 'Small dice halves the simmer.', 'Beetroot stains: gloves and the dark board.'),
    sweat('Sweat onion, then beetroot', 10, 'Sweetness first, liquid after.'),
    boil('Stock in to just cover; to the boil'),
    simmer(30, 'A knife goes through', 'Undercooked beetroot stays grainy however long it is blended.'),
    jarBlend,
    finish('Vinegar, salt; soured cream off the heat', 6, 'Acid last keeps the colour; cream off the heat keeps it whole.'),
    empty('Into the well'),
  ],
});

const sweetPotato = soup({
  id: 'sweetpotato',
  texture: 'coating',
  schools: { thickener: 'puree', onion: 'pale', garlic: 'together', texture: 'full' },
  name: 'Sweet potato and peanut',
  shortName: 'Sweet potato',
  toneHex: '#D9792B',
  ingredients: [
    line('Sweet potato', g(320), 'prep', '2 cm'),
    line('Onion', g(80), 'prep', 'thin'),
    line('Ginger', g(8), 'prep', 'grated'),
    line('Garlic', g(5), 'prep', 'chopped, rested 10 min'),
    line('Sunflower oil', mL(12), 'sweat'),
    line('Smoked spice blend', g(3), 'sweat', null, { allergens: 'unknown' }),
    line('Tinned tomato', g(120), 'boil'),
    line('Peanut butter', g(60), 'boil'),
    vegetableStock(490),
    line('Lime juice', mL(10), 'finish'),
    line('Salt', g(7), 'finish'),
  ],
  steps: [
    prep('Peel and cut sweet potato; grate ginger', 1.0, 'Even pieces are done together.', 'Grater: stop before your fingers do.'),
    sweat('Sweat onion, ginger, garlic; spice for the last minute', 9, 'Potent spice cannot be taken out again: weigh it.'),
    boil('Tomato, peanut butter, stock in; to the boil'),
    simmer(22, 'A spatula crushes it', 'Peanut thickens as it boils: stir the base.'),
    stickBlend('Blend smooth with the immersion blender', 'No skins', 0.5),
    finish('Lime, salt', 4, 'Acid last.'),
    empty('Into the well'),
  ],
});

const cucumber = soup({
  id: 'cucumber',
  texture: 'light',
  schools: { cream: 'none', texture: 'half', measuring: 'byEye' },
  name: 'Chilled cucumber and yoghurt',
  shortName: 'Cucumber',
  toneHex: '#8DBB8F',
  served: 'cold',
  portionMl: 200,
  ingredients: [
    line('Cucumber', g(560), 'prep', 'peeled, seeded'),
    line('Plain yoghurt', g(400), 'mix'),
    line('Garlic', g(4), 'prep', 'crushed'),
    line('Mint', g(6), 'prep', 'leaves'),
    line('Dill', g(4), 'prep', 'fronds'),
    line('Olive oil', mL(15), 'mix'),
    line('Salt', g(6), 'mix'),
  ],
  steps: [
    prep('Peel, seed and chill the cucumber; pick herbs', 1.4, 'Start cold to stay cold: everything from the walk-in.'),
    makeStep({
      id: 'blend',
      phase: 'blend',
      name: 'Blend cucumber and herbs in the jar',
      why: 'Cold fills do not swell.',
      place: { kind: 'blender', tool: 'jar' },
      duration: minutes(2),
      maxWaitMin: 15,
      check: 'No strings',
    }),
    makeStep({
      id: 'mix',
      phase: 'finish',
      name: 'Fold in yoghurt, oil, salt in the pot',
      why: 'Yoghurt thins if it is blended.',
      duration: minutes(5, 0.2),
      maxWaitMin: 5,
      check: 'Taste cold: cold dulls salt',
    }),
    makeStep({
      id: 'chill',
      phase: 'cool',
      name: 'Chill in the pot, standing in ice',
      why: 'Made from ingredients at room temperature it has four hours to 41 °F (5 °C); ours start cold.',
      attention: 'none',
      duration: minutes(30, 1),
      check: '41 °F (5 °C) or below',
      caution: 'Never hot: keep it at 41 °F (5 °C) or below from now on.',
    }),
    empty('Into the cold well'),
  ],
});

const barley = soup({
  id: 'barley',
  name: 'Barley and root broth',
  shortName: 'Barley',
  toneHex: '#A98155',
  ingredients: [
    line('Pearl barley', g(60), 'boil', 'rinsed'),
    line('Carrot', g(90), 'prep', 'small dice'),
    line('Swede', g(90), 'prep', 'small dice'),
    line('Leek', g(60), 'prep', 'thin, washed twice'),
    vegetableStock(800),
    line('Thyme', g(1), 'boil'),
    line('Parsley', g(6), 'finish', 'washed, chopped'),
    line('Salt', g(7), 'finish'),
  ],
  steps: [
    prep('Dice roots, wash leek twice', 1.2, 'Grit hides between the leaves.'),
    sweat('Sweat the leek', 6, 'Softened leek sweetens a clear broth.'),
    boil('Barley, roots, stock in; to the boil'),
    simmer(35, 'Barley tender', 'Barley goes on drinking: leave it loose.'),
    finish('Parsley, salt', 4, 'Parsley last keeps it green.'),
    empty('Into the well'),
  ],
});

const vegstock = soup({
  id: 'vegstock',
  name: 'Vegetable stock',
  shortName: 'Veg stock',
  role: 'component',
  toneHex: '#8C9A5B',
  ingredients: [
    line('Onion', g(120), 'prep', 'rough', { removed: true }),
    line('Carrot', g(100), 'prep', 'rough', { removed: true }),
    line('Celery', g(60), 'prep', 'rough', { removed: true }),
    line('Leek tops', g(60), 'prep', 'washed twice', { removed: true }),
    line('Water', mL(1100), 'boil'),
    line('Bay and peppercorn', g(1), 'boil', null, { removed: true }),
  ],
  steps: [
    prep('Wash and rough-cut the vegetables', 0.4, 'They are strained out: speed over looks.'),
    boil('Cold water in; to the boil, skim'),
    simmer(40, 'Golden and sweet', 'Past an hour it turns flat.'),
    empty('Strain into the stock pans'),
  ],
});

const fishstock = soup({
  id: 'fishstock',
  name: 'Fish stock',
  shortName: 'Fish stock',
  role: 'component',
  toneHex: '#8FA9B8',
  ingredients: [
    line('White fish trimmings', g(300), 'prep', 'rinsed, no gills', { removed: true }),
    line('Onion', g(80), 'prep', 'thin', { removed: true }),
    line('Fennel', g(50), 'prep', 'thin', { removed: true }),
    line('Water', mL(1050), 'boil'),
  ],
  steps: [
    prep('Rinse trimmings, slice onion and fennel', 0.5, 'Gills and blood make it bitter.', 'Wash and sanitise the board after raw fish.'),
    boil('Cold water in; just to the boil, skim'),
    simmer(22, 'Clear, clean smell', 'Past half an hour it turns gluey.'),
    empty('Strain into the stock pans'),
  ],
});

const sweetonion = soup({
  id: 'sweetonion',
  name: 'Caramelised onion',
  shortName: 'Sweet onion',
  role: 'component',
  toneHex: '#8A5A2B',
  ingredients: [line('Onion', g(2800), 'prep', 'thin'), line('Sunflower oil', mL(60), 'sweat'), line('Salt', g(8), 'sweat')],
  steps: [
    prep('Slice onions thin', 5, 'Thin and even browns together.'),
    makeStep({
      id: 'sweat',
      phase: 'sweat',
      name: 'Caramelise low, stir every 5 min',
      why: 'Sugar browns slowly; high heat only burns it.',
      heat: 'low',
      attention: 'looks',
      duration: minutes(42, 1),
      lookEveryMin: 5,
      maxWaitMin: 10,
      check: 'Brown and sweet',
    }),
    empty('Into a lidded pan'),
  ],
});

const roastcarrot = soup({
  id: 'roastcarrot',
  name: 'Roast carrot',
  shortName: 'Roast carrot',
  role: 'component',
  toneHex: '#DE8A3A',
  ingredients: [line('Carrot', g(1250), 'prep', '2 cm'), line('Sunflower oil', mL(40), 'prep'), line('Salt', g(5), 'prep')],
  steps: [
    prep('Wash and cut carrots; oil and salt', 2, 'Even pieces colour together.'),
    makeStep({
      id: 'roast',
      phase: 'roast',
      name: 'Roast at 220 °C (425 °F)',
      why: 'Edges that brown carry the flavour of the soup.',
      place: { kind: 'oven', temperatureC: 220 },
      attention: 'none',
      heat: 'high',
      duration: minutes(40, 0, 5),
      lookEveryMin: 20,
      maxWaitMin: 60,
      check: 'A fork slides out',
      caution: 'Hot tray: dry cloth, say "behind".',
    }),
  ],
});

export const soups: readonly Soup[] = [celeriac, lentil, chowder, bean, beetroot, sweetPotato, cucumber, barley, vegstock, fishstock, sweetonion, roastcarrot];
