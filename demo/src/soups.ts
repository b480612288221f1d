import type { Allergen, Ingredient, PerLitre, Soup } from '@broth/core';
import { boil, empty, finish, jarBlend, prep, simmer, step, stickBlend, sweat } from './steps';

/** One line: what, how much a litre of finished soup, where it goes in. Invented, worked out to be cookable. */
function line(name: string, perLitre: PerLitre, stepId: string, allergens: readonly Allergen[] | 'unknown' = [], cut: string | null = null): Ingredient {
  return { id: name.toLowerCase().replaceAll(/[^a-z]+/g, '-'), name, cut, perLitre, allergens, componentId: null, stepId };
}
const g = (amount: number): PerLitre => ({ amount, unit: 'g' });
const mL = (amount: number): PerLitre => ({ amount, unit: 'mL' });

function component(name: string, componentId: string, perLitre: PerLitre, stepId: string): Ingredient {
  return { id: componentId, name, cut: null, perLitre, allergens: [], componentId, stepId };
}
const vegetableStock = (perLitreMl: number): Ingredient => component('Vegetable stock', 'vegstock', mL(perLitreMl), 'boil');

type Some = Pick<Soup, 'id' | 'name' | 'shortName' | 'toneHex' | 'ingredients' | 'steps'> & Partial<Soup>;
const soup = (some: Some): Soup => ({ version: 1, role: 'soup', served: 'hot', portionMl: 300, ...some });

const celeriac = soup({
  id: 'celeriac',
  name: 'Celeriac and apple velouté',
  shortName: 'Celeriac',
  toneHex: '#C9AE6B',
  ingredients: [
    line('Celeriac', g(380), 'prep', ['celery'], 'any, even'),
    line('Cooking apple', g(110), 'prep', [], 'any'),
    line('Onion', g(90), 'prep', [], 'thin'),
    line('Butter', g(20), 'sweat', ['milk']),
    vegetableStock(550),
    line('Double cream', mL(60), 'finish', ['milk']),
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
  name: 'Red lentil and roast carrot',
  shortName: 'Lentil',
  toneHex: '#D1703A',
  ingredients: [
    line('Red lentils', g(150), 'prep', [], 'rinsed until clear'),
    component('Caramelised onion', 'sweetonion', g(60), 'sweat'),
    component('Roast carrot', 'roastcarrot', g(260), 'boil'),
    vegetableStock(700),
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
    stickBlend('Blend about half with the immersion blender', 'Creamy with pieces', 0.3),
    finish('Lemon last, salt in steps', 5, 'Acid stops lentils softening, so it waits until they are done.'),
    empty('Into the well'),
  ],
});

const chowder = soup({
  id: 'chowder',
  name: 'Smoked haddock and sweetcorn chowder',
  shortName: 'Chowder',
  toneHex: '#DBA526',
  ingredients: [
    line('Potato', g(220), 'prep', [], '1 cm dice, under water'),
    line('Leek', g(90), 'prep', [], 'thin, washed twice'),
    line('Butter', g(18), 'sweat', ['milk']),
    line('Plain flour', g(16), 'sweat', ['wheat', 'gluten']),
    component('Fish stock', 'fishstock', mL(420), 'boil'),
    line('Whole milk', mL(260), 'boil', ['milk']),
    line('Smoked haddock', g(160), 'pieces', ['fish'], 'large flakes, kept aside'),
    line('Sweetcorn', g(100), 'pieces', [], 'kept aside'),
    line('Salt', g(4), 'finish'),
    line('White pepper', g(0.4), 'finish'),
  ],
  steps: [
    prep('Dice potato, wash leek twice, flake the fish aside', 1.0, 'Grit hides in the leek, bones in the fish.', 'Wash and sanitise the board after raw fish.'),
    sweat('Sweat leek in butter, flour over it', 9, 'The flour looks dry and gummy, as it should.'),
    boil('Stock and milk in by thirds; to the boil'),
    simmer(15, 'Potato just tender', 'Flour only thickens once it has truly boiled.'),
    stickBlend('Pulse a third of the pot', 'Thick, with pieces', 0.15),
    step({
      id: 'pieces',
      phase: 'finish',
      name: 'Fish and corn back in, simmer gently',
      why: 'They go in after the blender: no blending after this.',
      heat: 'on',
      duration: { fixedMin: 6, perLitreMin: 0.1 },
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
  name: 'White bean and kale',
  shortName: 'Bean',
  toneHex: '#7A9E5B',
  ingredients: [
    line('White beans, cooked', g(300), 'boil'),
    line('Kale', g(90), 'kale', [], 'ribbons'),
    line('Carrot', g(70), 'prep', [], 'small dice'),
    line('Celery', g(50), 'prep', ['celery'], 'small dice'),
    line('Onion', g(70), 'prep', [], 'small dice'),
    line('Garlic', g(6), 'prep', [], 'chopped, rested 10 min'),
    line('Olive oil', mL(15), 'sweat'),
    vegetableStock(620),
    line('Rosemary', g(1), 'boil'),
    line('Salt', g(7), 'finish'),
  ],
  steps: [
    prep('Dice the soffritto small, strip and ribbon the kale', 1.3, 'It stays chunky: even dice is the look.'),
    sweat('Sweat onion, carrot, celery; garlic last', 12, 'Garlic burns almost at once.'),
    boil('Beans, rosemary, stock in; to the boil'),
    simmer(25, 'Beans creamy inside', 'The broth takes its body from the beans.'),
    step({
      id: 'kale',
      phase: 'finish',
      name: 'Kale in, lid off',
      why: 'Lid off keeps it green.',
      heat: 'on',
      duration: { fixedMin: 6, perLitreMin: 0 },
      maxWaitMin: 10,
      check: 'Tender, still green',
    }),
    finish('Salt, a thread of oil', 4, 'Taste after the kale, it drinks salt.'),
    empty('Into the well'),
  ],
});

const beetroot = soup({
  id: 'beetroot',
  name: 'Beetroot with soured cream',
  shortName: 'Beetroot',
  toneHex: '#9B2C57',
  ingredients: [
    line('Beetroot', g(420), 'prep', [], '1 cm dice'),
    line('Onion', g(80), 'prep', [], 'thin'),
    line('Cooking apple', g(40), 'prep', [], 'any'),
    line('Sunflower oil', mL(12), 'sweat'),
    vegetableStock(560),
    line('Red wine vinegar', mL(10), 'finish', ['sulphites']),
    line('Soured cream', mL(45), 'finish', ['milk']),
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
  name: 'Sweet potato and peanut',
  shortName: 'Sweet potato',
  toneHex: '#D9792B',
  ingredients: [
    line('Sweet potato', g(360), 'prep', [], '2 cm'),
    line('Onion', g(80), 'prep', [], 'thin'),
    line('Ginger', g(8), 'prep', [], 'grated'),
    line('Garlic', g(5), 'prep', [], 'chopped, rested 10 min'),
    line('Sunflower oil', mL(12), 'sweat'),
    line('Smoked spice blend', g(3), 'sweat', 'unknown'),
    line('Tinned tomato', g(120), 'boil'),
    line('Peanut butter', g(60), 'boil', ['peanut']),
    vegetableStock(520),
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
  name: 'Chilled cucumber and yoghurt',
  shortName: 'Cucumber',
  toneHex: '#8DBB8F',
  served: 'cold',
  portionMl: 200,
  ingredients: [
    line('Cucumber', g(560), 'prep', [], 'peeled, seeded'),
    line('Plain yoghurt', g(400), 'mix', ['milk']),
    line('Garlic', g(4), 'prep', [], 'crushed'),
    line('Mint', g(6), 'prep', [], 'leaves'),
    line('Dill', g(4), 'prep', [], 'fronds'),
    line('Olive oil', mL(15), 'mix'),
    line('Salt', g(6), 'mix'),
  ],
  steps: [
    prep('Peel, seed and chill the cucumber; pick herbs', 1.4, 'Start cold to stay cold: everything from the walk-in.'),
    step({
      id: 'blend',
      phase: 'blend',
      name: 'Blend cucumber and herbs in the jar',
      why: 'Cold fills do not swell.',
      place: { kind: 'blender', tool: 'jar' },
      duration: { fixedMin: 2, perLitreMin: 0 },
      maxWaitMin: 15,
      check: 'No strings',
    }),
    step({
      id: 'mix',
      phase: 'finish',
      name: 'Fold in yoghurt, oil, salt in the pot',
      why: 'Yoghurt thins if it is blended.',
      duration: { fixedMin: 5, perLitreMin: 0.2 },
      maxWaitMin: 5,
      check: 'Taste cold: cold dulls salt',
    }),
    step({
      id: 'chill',
      phase: 'cool',
      name: 'Chill in the pot, standing in ice',
      why: 'Made from ingredients at room temperature it has four hours to 41 °F (5 °C); ours start cold.',
      attention: 'none',
      duration: { fixedMin: 30, perLitreMin: 1 },
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
    line('Pearl barley', g(60), 'boil', ['gluten'], 'rinsed'),
    line('Carrot', g(90), 'prep', [], 'small dice'),
    line('Swede', g(90), 'prep', [], 'small dice'),
    line('Leek', g(60), 'prep', [], 'thin, washed twice'),
    vegetableStock(800),
    line('Thyme', g(1), 'boil'),
    line('Parsley', g(6), 'finish', [], 'chopped'),
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
    line('Onion', g(120), 'prep', [], 'rough'),
    line('Carrot', g(100), 'prep', [], 'rough'),
    line('Celery', g(60), 'prep', ['celery'], 'rough'),
    line('Leek tops', g(60), 'prep', [], 'washed twice'),
    line('Water', mL(1100), 'boil'),
    line('Bay and peppercorn', g(1), 'boil'),
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
    line('White fish trimmings', g(300), 'prep', ['fish'], 'rinsed, no gills'),
    line('Onion', g(80), 'prep', [], 'thin'),
    line('Fennel', g(50), 'prep', [], 'thin'),
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
  ingredients: [line('Onion', g(2800), 'prep', [], 'thin'), line('Sunflower oil', mL(60), 'sweat'), line('Salt', g(8), 'sweat')],
  steps: [
    prep('Slice onions thin', 5, 'Thin and even browns together.'),
    step({
      id: 'sweat',
      phase: 'sweat',
      name: 'Caramelise low, stir every 5 min',
      why: 'Sugar browns slowly; high heat only burns it.',
      heat: 'on',
      attention: 'looks',
      duration: { fixedMin: 42, perLitreMin: 1 },
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
  ingredients: [line('Carrot', g(1250), 'prep', [], '2 cm'), line('Sunflower oil', mL(40), 'prep'), line('Salt', g(5), 'prep')],
  steps: [
    prep('Wash and cut carrots; oil and salt', 2, 'Even pieces colour together.'),
    step({
      id: 'roast',
      phase: 'roast',
      name: 'Roast at 220 °C (425 °F)',
      why: 'Edges that brown carry the flavour of the soup.',
      place: { kind: 'oven' },
      attention: 'none',
      heat: 'on',
      duration: { fixedMin: 40, perLitreMin: 0 },
      lookEveryMin: 20,
      maxWaitMin: 60,
      check: 'A fork slides out',
      caution: 'Hot tray: dry cloth, say "behind".',
    }),
  ],
});

export const soups: readonly Soup[] = [celeriac, lentil, chowder, bean, beetroot, sweetPotato, cucumber, barley, vegstock, fishstock, sweetonion, roastcarrot];
