import type {
  Allergen,
  AllergenList,
  Diet,
  DietReason,
  Difference,
  KitchenUnit,
  LiquidAdvice,
  Origin,
  Part,
  Phase,
  PrepAct,
  School,
  Schools,
  SoupFinding,
  Step,
  SwapFinding,
  Texture,
  Thickening,
} from '@broth/core';
import type { ImportTrouble, LineDoubt } from '../formats/doubt';
import { ALLERGEN, amountText } from './ingredients';
import { duration, list, litres, number } from './numbers';

/** Everything that is said about soups, their lines, their pots: for the soup book, the sheets and the command line. Apart from the first load. */

export const ALLERGEN_LIST: Readonly<Record<AllergenList, string>> = { fda9: 'US list of nine', eu14: 'EU and UK list of fourteen' };

export const PART: Readonly<Record<Part, string>> = {
  main: 'Main vegetable',
  vegetable: 'Vegetable',
  liquid: 'Liquid',
  thickener: 'Thickener',
  dairy: 'Dairy or cream',
  fat: 'Fat',
  salt: 'Salt',
  salty: 'Salty: cube, soy',
  spice: 'Spice',
  herb: 'Herb',
  acid: 'Acid',
  protein: 'Meat, fish, egg',
  grain: 'Grain',
  garnish: 'Garnish',
  other: 'Other',
};

export const ORIGIN: Readonly<Record<Origin, string>> = {
  plant: 'plant',
  milk: 'milk',
  egg: 'egg',
  honey: 'honey',
  fish: 'fish',
  shellfish: 'shellfish',
  meat: 'meat',
  unknown: 'not known',
};

export const UNIT: Readonly<Record<KitchenUnit, string>> = {
  g: 'g',
  kg: 'kg',
  lb: 'lb',
  oz: 'oz',
  L: 'L',
  mL: 'mL',
  usGal: 'gal',
  usQt: 'qt',
  usPt: 'pt',
  usCup: 'cup',
  usFlOz: 'fl oz',
  usTbsp: 'Tbsp',
  usTsp: 'tsp',
  impGal: 'imp gal',
  impPt: 'imp pt',
  impFlOz: 'imp fl oz',
  metricCup: 'cup 250',
  metricTbsp: 'Tbsp 15',
  metricTsp: 'tsp 5',
  each: 'pieces',
};

export const ACT: Readonly<Record<PrepAct, string>> = { wash: 'wash', peel: 'peel', seed: 'seed', pierce: 'pierce', rinse: 'rinse', soak: 'soak', rest: 'rest' };
export const TEXTURE: Readonly<Record<Texture, string>> = { pouring: 'Pours', light: 'Light', coating: 'Coats the spoon', holdsALine: 'Holds a line' };
export const HEAT: Readonly<Record<Step['heat'], string>> = { off: 'off', low: 'low', medium: 'medium', high: 'high' };
export const LID: Readonly<Record<Step['lid'], string>> = { off: 'lid off', ajar: 'lid ajar', on: 'lid on' };
export const CLOCK_FROM: Readonly<Record<Step['clockFrom'], string>> = {
  start: 'from the start',
  boil: 'from a real boil',
  adding: 'from adding',
  colour: 'from the first colour',
};
export const DIET: Readonly<Record<Diet, string>> = { vegan: 'Vegan', vegetarian: 'Vegetarian', glutenFree: 'Gluten-free', dairyFree: 'Dairy-free', nutFree: 'Nut-free' };

interface Tips {
  readonly check: string | null;
  readonly caution: string | null;
  readonly why: string;
}
/** What is usual at a phase: the check, the caution, and one line of why. Common practice. */
export const PHASE_TIPS: Readonly<Record<Phase, Tips>> = {
  gather: { check: 'All ticked', caution: null, why: 'A missing tool is missed when there is no hand free to fetch it.' },
  prep: { check: 'Even pieces', caution: 'Cut a flat side first. Wash and sanitise the board after raw meat or fish.', why: 'Even pieces are done together.' },
  roast: { check: 'A fork slides out', caution: 'Pierce a whole squash: it can burst. Hot tray: dry cloth, say "behind".', why: 'What browns carries the flavour.' },
  sweat: { check: 'Soft, no colour', caution: 'Hot fat: turn it down once it runs.', why: 'Sweetness first, liquid after. Garlic burns almost at once.' },
  boil: { check: 'A rolling boil, seen and tapped', caution: 'Lift the lid away from you. Steam burns.', why: 'The simmer clock starts at a real boil, not before.' },
  simmer: { check: 'A knife goes through without a push', caution: 'Turn it down: a hard boil goes over and breaks pieces.', why: 'What is not soft now will not blend smooth.' },
  blend: {
    check: 'No skins, no strings',
    caution: 'Head under the surface before it starts, low first. A jar: vent the lid, cloth over it, hot-fill line only. Others stand back.',
    why: 'Steam swells a hot fill; a head that is lifted throws.',
  },
  finish: { check: 'Taste with a clean spoon', caution: null, why: 'Cream off the heat stays whole; acid last; salt in steps.' },
  hold: { check: null, caution: 'Handles are hot. Two people for anything over 10 L.', why: 'The kettle is free only when it is empty.' },
  cool: { check: '41 °F (5 °C) or below', caution: 'Shallow, uncovered, in moving air or ice. Read the warmest place.', why: 'Slow cooling is where soup becomes dangerous.' },
  freeze: { check: 'Labelled and dated', caution: null, why: 'An unlabelled tub is thrown away.' },
  reheat: { check: '165 °F (74 °C) for 15 s', caution: 'On the range, never in the well.', why: 'A well is too slow to get it through the danger zone.' },
  wash: { check: 'No residue, ticked', caution: 'Unplug the blender before the blade comes out.', why: 'An unwashed pot carries allergens over.' },
};

/** Each school: what it is called, what its choices are called, and what follows from each. */
const SCHOOL: {
  readonly [Name in School]: { readonly name: string; readonly choices: { readonly [Choice in Schools[Name]]: readonly [name: string, consequence: string] } };
} = {
  liquid: {
    name: 'Liquid',
    choices: {
      fixed: ['A fixed measure', 'The same every time; a dry batch of vegetables comes out thicker.'],
      cover: ['To just cover', 'Too thick is easily thinned; a fifth is held back and poured by eye.'],
      below: ['Below the vegetables', 'Soft vegetables give water of their own; three quarters of the void, then look.'],
      after: ['After blending', 'The base freezes small; liquid goes in on reheating.'],
    },
  },
  cream: {
    name: 'Cream',
    choices: {
      none: ['None', ''],
      offHeat: ['Off the heat', 'It only enriches: too hot and it splits. Last in, not boiled after.'],
      boiled: ['On a high heat', 'It carries the starch, and starch must boil.'],
      withStock: ['Simmered with the stock', 'Starch keeps it whole; stir the base.'],
      gentle: ['Gently, at room temperature', 'Warmed cream does not shock; no hard boil after.'],
      bowl: ['Only in the bowl', 'The pot stays free of milk; the garnish has it.'],
    },
  },
  thickener: {
    name: 'Thickener',
    choices: {
      none: ['None', 'A broth. Reduction is all that thickens it.'],
      flour: ['Flour', 'Brings wheat and gluten; must boil; weeps when frozen.'],
      starch: ['Starch slurry', 'No wheat; cold liquid, into a boil, boil again; thins when held long.'],
      potato: ['Potato', 'Gentle body; blended hard it turns gluey.'],
      puree: ['The purée itself', 'Thickness is the vegetables: weigh them.'],
      mash: ['Mash half', 'Body and pieces from the same pot.'],
    },
  },
  onion: {
    name: 'Onion',
    choices: {
      none: ['None', ''],
      pale: ['Sweated pale', 'Sweet and white: 5 to 10 min, no colour.'],
      caramelised: ['Caramelised', 'Sweet and brown: 40 to 45 min, stirred every 4 to 5; two thirds of the weight is gone.'],
      leftOut: ['Left out', 'Lets a herb speak.'],
    },
  },
  garlic: {
    name: 'Garlic',
    choices: {
      none: ['None', ''],
      lastMinute: ['In the last minute', 'Bright; it burns almost at once.'],
      firstInOil: ['First in oil, onion after', "The onion's moisture shields it."],
      together: ['With everything', 'Soft in the background.'],
      roasted: ['Roasted', 'Sweet, no edge.'],
    },
  },
  vegetables: { name: 'Vegetables', choices: { together: ['All at once', 'Cut hard ones smaller.'], staged: ['Hard before soft', 'Ten minutes apart; nothing falls to pieces.'] } },
  texture: {
    name: 'Blend',
    choices: {
      full: ['Full purée', 'Smooth; every fill of the jar counts.'],
      half: ['Half', 'Creamy with pieces: half the litres go through the blender.'],
      pulses: ['Pulses', 'Coarse; stop before it is smooth.'],
      chunky: ['Chunky', 'Not blended: even dice is the look.'],
    },
  },
  measuring: {
    name: 'Measuring',
    choices: { exact: ['Exactly', 'It comes out the same each time.'], byEye: ['By eye and taste', 'What went in is recorded, so that it can be repeated.'] },
  },
};

/** What a school is called, the choice a soup made in it, and what follows; an unknown choice is said as it is written. */
export function schoolChoice(name: School, value: string): { readonly school: string; readonly choice: string; readonly consequence: string } {
  const school: { readonly name: string; readonly choices: Readonly<Record<string, readonly [string, string]>> } = SCHOOL[name];
  const [choice, consequence] = school.choices[value] ?? [value, ''];
  return { school: school.name, choice, consequence };
}

/** The same in pounds and ounces, or quarts and cups, for a kitchen that thinks so: `2 lb 12 oz`, `3.2 qt`. Small amounts are left to spoons. */
export function usText(amount: number, unit: 'g' | 'mL' | 'each'): string {
  if (unit === 'each') return '';
  if (unit === 'g') {
    const ounces = amount / 28.349523125;
    if (ounces < 1) return '';
    const pounds = Math.floor(Math.round(ounces * 2) / 2 / 16);
    const rest = Math.round(ounces * 2) / 2 - pounds * 16;
    return pounds === 0 ? `${number(rest)} oz` : `${String(pounds)} lb${rest === 0 ? '' : ` ${number(rest)} oz`}`;
  }
  const quarts = amount / 946.352946;
  return quarts >= 1 ? `${number(quarts)} qt` : amount >= 60 ? `${String(Math.round((amount / 236.5882365) * 4) / 4)} cup` : '';
}

/** `1 ½ tsp`. */
export function spoonText({ amount, unit }: { readonly amount: number; readonly unit: 'usTsp' | 'usTbsp' }): string {
  const whole = Math.floor(amount);
  const part = { 0: '', 0.25: '¼', 0.5: '½', 0.75: '¾' }[amount - whole] ?? '';
  return `${whole === 0 ? '' : String(whole)}${part} ${UNIT[unit]}`;
}

/** `20 to 30 min`, `12 min`. */
export function range(lowMin: number, highMin: number): string {
  const [low, high] = [Math.round(lowMin), Math.round(highMin)];
  return low === high ? duration(low) : high < 60 ? `${String(low)} to ${duration(high)}` : `${duration(low)} to ${duration(high)}`;
}

export function percent(share: number, digits = 1): string {
  return `${String(Number((share * 100).toFixed(digits)))} %`;
}

/** What is wrong with a soup and what to do about it. */
export function soupFinding(found: SoupFinding): string {
  switch (found.code) {
    case 'component.loop':
      return `${found.path.join(' is made of ')}: that never ends. Take one of these lines out, or buy it ready.`;
    case 'component.unknown':
      return `${found.line} is to be made here, but the book has no "${found.componentId}". Write its card, or make the line a bought thing.`;
    case 'line.nowhere':
      return `${found.line} is listed but never used. Say at which step it goes in, or take it off the card.`;
    case 'line.unlisted':
      return `"${found.step}" names ${found.food.toLowerCase()}, which is not listed. Add it with its amount, or change the step.`;
    case 'amount.missing':
      return `Not measured yet: ${list(found.lines)}. ${found.yieldClaimed ? 'Weigh it at the next batch.' : 'No yield is claimed until it is: weigh it at the next batch.'}`;
    case 'amount.unweighable':
      return found.lacks === 'pieceWeight'
        ? `${found.line} is counted in pieces and nobody knows what one weighs. Weigh one.`
        : `${found.line} is measured by volume and its density is not known. Weigh a cup of it.`;
    case 'yield.disagrees':
      return `The card says ${litres(found.writtenL)}; what goes in makes ${number(found.lowL)} to ${litres(found.highL)}. Change what it makes, or an amount.`;
    case 'blend.untested':
      return `Nothing says when it is soft enough for "${found.step}". Write a check at the simmer or the roast: a knife goes through.`;
    case 'pieces.blended':
      return `${found.line} is to stay whole but is in the pot at "${found.step}". Keep it aside and let it return after the last blend.`;
    case 'dairy.curdles':
      return `${found.line} goes in at "${found.step}" and boils after: it may curdle. Put it in off the heat at the end, or let it carry the starch.`;
    case 'dairy.mustBoil':
      return `${found.line} carries ${found.thickener.toLowerCase()}, which thickens only when it boils. Put it in before the boil, or choose cream off the heat.`;
    case 'starch.notBoiled':
      return `${found.line} goes in and nothing boils after it: it will taste raw and not thicken. Add a boil after it, or put it in earlier.`;
    case 'grit.unwashed':
      return `${found.line} hides grit and no wash is written. Tick "wash" on its line.`;
    case 'skin.unpierced':
      return `${found.line} goes whole into "${found.step}": it can burst. Tick "pierce" on its line.`;
    case 'salt.high':
      return `With everything that is salty this is ${number(found.percent)} % salt; most soups lie at 0.7 to 0.9. Take salt out, or less of what brings it.`;
    case 'label.unread':
      return `Nobody has read the label of ${found.line}: its allergens are unknown, and so are the soup's. Read it and enter them.`;
  }
}
/** Whether a finding stops the soup from being made or served safely. */
export function isGrave(found: SoupFinding): boolean {
  return ['component.loop', 'component.unknown', 'skin.unpierced', 'label.unread', 'pieces.blended'].includes(found.code);
}

function inPath(path: readonly string[]): string {
  return path.length <= 1 ? (path[0] ?? '') : `${path.at(-1) ?? ''} in the ${path.slice(0, -1).join(', ').toLowerCase()}`;
}
export function dietReason({ path, because }: DietReason): string {
  if ('carriedOver' in because) return `${ALLERGEN[because.carriedOver]} carried over by equipment that was not washed`;
  if ('unread' in because) return `nobody has read the label of ${inPath(path)}`;
  if ('origin' in because) return `${inPath(path)} is from ${ORIGIN[because.origin]}`;
  return `${inPath(path)} has ${ALLERGEN[because.allergen]}`;
}
/** `Not vegan: butter is from milk and cheddar is from milk.` */
export function dietLine(diet: Diet, verdict: { readonly kind: 'yes' | 'no' | 'unknown'; readonly reasons: readonly DietReason[] }): string {
  const name = DIET[diet].toLowerCase();
  if (verdict.kind === 'yes') return `No line speaks against ${name}.`;
  const reasons = list(verdict.reasons.map(dietReason));
  return verdict.kind === 'no' ? `Not ${name}: ${reasons}.` : `Unknown, so not to be called ${name}: ${reasons}.`;
}
export const FREE_FROM = 'Worked out from what is written here. "Free from" on a label or a menu needs a person who signs for it and for what the equipment carried.';

export function swapFinding(found: SwapFinding): string {
  switch (found.code) {
    case 'swap.notLikeFor':
      return `${found.food} does another job than ${found.line}: the soup will not be the same. Taste before it goes out.`;
    case 'swap.ratio':
      return `${found.food} thickens otherwise than ${found.line}: take ${number(found.factor)} times its weight.`;
    case 'swap.noBoil':
      return `${found.food} splits when it boils, and the soup boils after it. Put it in off the heat at the end.`;
    case 'swap.unread':
      return `The label of ${found.food} has not been read: allergens become unknown.`;
    case 'swap.noThickening':
      return `${found.food} does not thicken as ${found.line} does. Expect a thinner soup.`;
  }
}

export function lineDoubt(doubt: LineDoubt): string {
  switch (doubt.code) {
    case 'unit.unknown':
      return `"${doubt.word}" is no unit known here: the amount is left open. Type it in grams, cups or pieces.`;
    case 'food.unknown':
      return 'not in the pantry: its yield and label are unknown. Pick the food it is, or read the label.';
    case 'amount.none':
      return 'no amount: not measured yet.';
  }
}
export function importTrouble(trouble: ImportTrouble): string {
  switch (trouble.code) {
    case 'tooLarge':
      return `That file has ${number(trouble.mb)} MB; a recipe has a few kB. Nothing was taken in. Pick the file of one recipe.`;
    case 'notJson':
      return 'That is not JSON. Nothing was taken in. Save the recipe as JSON-LD, or type it as a card.';
    case 'noRecipe':
      return 'There is no Recipe of schema.org in it, and no soup of ours. Nothing was taken in. Type it as a card instead.';
    case 'badSoup':
      return `It says it is a soup of ours, but something in it is wrong (${trouble.first}). Nothing was taken in.`;
  }
}

/** What a blender would bring into a batch if nobody washed it fully before. */
export interface CarriedOver {
  readonly tool: 'jar' | 'immersion';
  readonly allergens: readonly Allergen[];
  /** Names of the batches that brought them. */
  readonly from: readonly string[];
}

export function carried({ tool, allergens, from }: CarriedOver): string {
  return `${tool === 'jar' ? 'The jar blender' : 'The immersion blender'} carries ${list(allergens.map((allergen) => ALLERGEN[allergen]))} from ${list(from)}. Take it apart and wash it fully first, or this batch is not free from them.`;
}

export function liquid(advice: LiquidAdvice): string {
  const pour = advice.reserveL > 0 ? `Pour ${litres(advice.firstL)}, look, then up to ${litres(advice.reserveL)} more.` : `${litres(advice.firstL)}.`;
  switch (advice.basis) {
    case 'card':
      return `${pour} The card's measure.`;
    case 'vegetables':
      return `${pour} Worked out from the vegetables and the pot; the card says ${litres(advice.writtenL)}.`;
    case 'remembered':
      return `${pour} What past batches took; the card says ${litres(advice.writtenL)}.`;
  }
}

export function thickening(way: Thickening, foodName: (id: string) => string): string {
  switch (way.way) {
    case 'slurry':
      return `${foodName(way.foodId)}: ${amountText(Math.round(way.starchG), 'g')} stirred into ${amountText(Math.round(way.coldL * 1000), 'mL')} of cold liquid. Re-stir, pour half (${amountText(Math.round(way.firstG), 'g')}) into the boil, boil again a minute, look, then the rest.`;
    case 'reduce':
      return `Or boil off ${number(way.kg)} L, lid off; salt rises to ${number(way.saltRises)} times.`;
    case 'mash':
      return `Or mash a quarter of it, ${litres(way.volumeL)}, against the side.`;
    case 'blendMore':
      return `Or blend another ${litres(way.volumeL)}.`;
  }
}

const FIELD: Readonly<Record<string, string>> = {
  name: 'name',
  shortName: 'short name',
  makesL: 'makes, L',
  portionMl: 'portion, mL',
  texture: 'texture',
  saltTarget: 'salt aimed at',
  salesPrice: 'price',
  schools: 'schools',
  variants: 'variants',
  toneHex: 'colour',
  role: 'kind',
  served: 'served',
  amount: 'amount',
  cut: 'cut',
  acts: 'prep',
  part: 'part',
  basis: 'weighed',
  allergens: 'allergens',
  origin: 'origin',
  componentId: 'component',
  stepId: 'goes in at',
  returnsAtStepId: 'returns at',
  edibleShare: 'left after peeling',
  scaling: 'scaling',
  duration: 'minutes',
  place: 'place',
  heat: 'heat',
  lid: 'lid',
  check: 'check',
  caution: 'caution',
  why: 'why',
};
function value(text: string): string {
  if (text === '' || text === 'null') return 'nothing';
  try {
    const parsed = JSON.parse(text) as unknown;
    if (typeof parsed !== 'object' || parsed === null) return text;
    if ('low' in parsed && 'high' in parsed && 'unit' in parsed) {
      const { low, high, unit } = parsed as { low: number; high: number; unit: KitchenUnit };
      return `${low === high ? number(low) : `${number(low)} to ${number(high)}`} ${UNIT[unit]}`;
    }
    if ('lowMin' in parsed) {
      const { lowMin, highMin } = parsed as { lowMin: number; highMin: number };
      return range(lowMin, highMin);
    }
    if (!Array.isArray(parsed)) return text;
    if (parsed.length === 0) return 'nothing';
    return parsed.every((one) => typeof one === 'string') ? list(parsed) : `${String(parsed.length)} entries`;
  } catch {
    return text;
  }
}
export function difference(found: Difference): string {
  switch (found.kind) {
    case 'line.added':
      return `${found.name} is new.`;
    case 'line.removed':
      return `${found.name} is gone.`;
    case 'step.added':
      return `New step: ${found.name}.`;
    case 'step.removed':
      return `Step gone: ${found.name}.`;
    case 'step.moved':
      return `Moved: ${found.name}.`;
    case 'line.changed':
    case 'step.changed':
      return `${found.name}, ${FIELD[found.what] ?? found.what}: ${value(found.from)} → ${value(found.to)}.`;
    case 'soup.changed':
      return `${FIELD[found.what] ?? found.what}: ${value(found.from)} → ${value(found.to)}.`;
  }
}
