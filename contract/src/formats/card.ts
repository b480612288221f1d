import { makeSoup, makeStep } from '@broth/core';
import type { Food, Ingredient, Phase, Soup, Step } from '@broth/core';
import { PHASE_TIPS } from '../words/soup';
import { readIngredientLine, readNumber, slugOf } from './ingredientLine';
import type { LineDoubt } from './doubt';
import type { Kitchen } from './ingredientLine';

/** A recipe as it stands on a handwritten card: a name, what it makes, lines and a method. */
export interface Card {
  readonly name: string;
  readonly makesL: number;
  readonly ingredients: string;
  readonly method: string;
}

export interface ReadCard {
  readonly soup: Soup;
  /** What could not be read for sure, by the name of its line. */
  readonly doubts: readonly { readonly line: string; readonly doubt: LineDoubt }[];
}

/** Words of a method that tell its phase, the more telling first. */
const PHASE_WORDS: readonly (readonly [RegExp, Phase])[] = [
  [/\b(blend|pur[eé]e|blitz|liquidi[sz]e|mash|whizz|process until smooth)/i, 'blend'],
  [/\b(roast|bake|oven)/i, 'roast'],
  [/\b(simmer|cook until|cook for|bubble gently)/i, 'simmer'],
  [/\b(to the boil|to a boil|bring up|boil)/i, 'boil'],
  [/\b(sweat|soften|saut[eé]|fry|caramelis|caramelize|brown|melt|render|crisp)/i, 'sweat'],
  [/\b(chill|cool)/i, 'cool'],
  [/\b(add the stock|pour in|add stock|add the broth|add the liquid)/i, 'boil'],
  [/\b(season|stir in|cream|serve|garnish|swirl|top with|finish|ladle|taste)/i, 'finish'],
  [/\b(peel|chop|dice|slice|cut|wash|trim|grate|rinse)/i, 'prep'],
];

function phaseOf(text: string): Phase {
  return PHASE_WORDS.find(([word]) => word.test(text))?.[1] ?? 'finish';
}

/** `20-30 min`, `about 1 hour`, `1 1/2 hours` as minutes; null when there are none. */
export function readMinutes(text: string): { readonly lowMin: number; readonly highMin: number } | null {
  const number = String.raw`(\d+(?:[.,]\d+)?(?:\s+\d+\/\d+)?|\d+\/\d+|[½¼¾])`;
  const match = new RegExp(String.raw`${number}(?:\s*(?:-|–|to|or)\s*${number})?\s*(min|hour|hr|h\b)`, 'i').exec(text);
  if (match === null) return null;
  const factor = (match[3] ?? '').toLowerCase().startsWith('m') ? 1 : 60;
  const low = (readNumber(match[1] ?? '') ?? 0) * factor;
  const high = match[2] === undefined ? low : (readNumber(match[2]) ?? low) * factor;
  return { lowMin: Math.min(low, high), highMin: Math.max(low, high) };
}

/** Minutes a phase takes when the card does not say, for a batch of kitchen size. Common practice. */
const USUAL_MIN: Readonly<Record<Phase, Step['duration']>> = {
  gather: { lowMin: 5, highMin: 5, perLitreMin: 0 },
  prep: { lowMin: 6, highMin: 6, perLitreMin: 1 },
  roast: { lowMin: 40, highMin: 50, perLitreMin: 0 },
  sweat: { lowMin: 5, highMin: 10, perLitreMin: 0.2 },
  boil: { lowMin: 5, highMin: 5, perLitreMin: 0.9 },
  simmer: { lowMin: 20, highMin: 30, perLitreMin: 0 },
  blend: { lowMin: 3, highMin: 3, perLitreMin: 0.4 },
  finish: { lowMin: 5, highMin: 5, perLitreMin: 0.1 },
  hold: { lowMin: 3, highMin: 3, perLitreMin: 0.2 },
  cool: { lowMin: 30, highMin: 60, perLitreMin: 1 },
  freeze: { lowMin: 10, highMin: 10, perLitreMin: 0 },
  reheat: { lowMin: 20, highMin: 30, perLitreMin: 0 },
  wash: { lowMin: 5, highMin: 15, perLitreMin: 0 },
};
const HEAT: Partial<Record<Phase, Step['heat']>> = { roast: 'high', sweat: 'medium', boil: 'high', simmer: 'low', reheat: 'medium' };

/** A step of a phase with what is usual there: place, heat, lid, clock, and the words a cook should read. */
export function usualStep(phase: Phase, id: string, name: string): Step {
  const tips = PHASE_TIPS[phase];
  return makeStep({
    id,
    phase,
    name,
    duration: USUAL_MIN[phase],
    place:
      phase === 'prep' || phase === 'gather'
        ? { kind: 'bench' }
        : phase === 'roast'
          ? { kind: 'oven', temperatureC: 220 }
          : phase === 'blend'
            ? { kind: 'blender', tool: 'immersion' }
            : { kind: 'vessel' },
    attention: phase === 'roast' || phase === 'cool' ? 'none' : phase === 'boil' || phase === 'simmer' ? 'looks' : 'hands',
    heat: HEAT[phase] ?? 'off',
    lid: phase === 'boil' ? 'on' : phase === 'simmer' ? 'ajar' : 'off',
    clockFrom: phase === 'simmer' ? 'boil' : 'start',
    lookEveryMin: phase === 'simmer' ? 10 : phase === 'boil' ? 5 : phase === 'roast' ? 20 : null,
    maxWaitMin: phase === 'sweat' || phase === 'boil' ? 0 : phase === 'simmer' || phase === 'blend' || phase === 'finish' ? 10 : null,
    check: tips.check,
    caution: tips.caution,
    why: tips.why,
    irreversible: phase === 'blend',
  });
}

function readStep(text: string, taken: ReadonlySet<string>): Step {
  const phase = phaseOf(text);
  const made = usualStep(phase, slugOf(phase, taken), text.slice(0, 200));
  const minutes = readMinutes(text);
  const half = phase === 'blend' && /\b(half|part)\b/i.test(text) ? 0.5 : phase === 'blend' && /\bthird\b/i.test(text) ? 0.33 : 1;
  const jar = phase === 'blend' && /\b(jug|jar|blender in batches|in batches)\b/i.test(text);
  const until = /\buntil ([^.;,]+)/i.exec(text)?.[1];
  return {
    ...made,
    ...(minutes === null ? {} : { duration: { ...minutes, perLitreMin: phase === 'boil' ? made.duration.perLitreMin : 0 } }),
    ...(jar ? { place: { kind: 'blender', tool: 'jar' } as const } : {}),
    ...(until === undefined ? {} : { check: until.charAt(0).toUpperCase() + until.slice(1) }),
    ...(/lid (?:off|removed)|uncovered/i.test(text) ? { lid: 'off' as const } : /\bcover|lid on\b/i.test(text) ? { lid: 'on' as const } : {}),
    blendShare: half,
  };
}

/** Where a line goes in when the method does not name it, by what it does. */
const USUAL_PHASE: Partial<Record<Ingredient['part'], readonly Phase[]>> = {
  liquid: ['boil', 'simmer'],
  dairy: ['finish', 'simmer'],
  salt: ['finish', 'simmer'],
  acid: ['finish'],
  garnish: ['finish'],
  herb: ['simmer', 'finish'],
  spice: ['sweat', 'simmer', 'finish'],
  salty: ['boil', 'simmer'],
  fat: ['sweat', 'roast'],
  thickener: ['sweat', 'boil'],
  grain: ['boil', 'simmer'],
};

function stepFor(line: Ingredient, steps: readonly Step[], pantry: readonly Food[]): string {
  const cooking = steps.filter((step) => step.phase !== 'prep' && step.phase !== 'gather' && step.phase !== 'hold');
  const named = cooking.find((step) => {
    const food = pantry.find((one) => one.id === line.foodId);
    const words = step.name.toLowerCase();
    return [line.name, food?.name ?? '', ...(food?.aliases ?? [])].some((name) => name.length > 2 && words.includes(name.toLowerCase()));
  });
  const prep = steps.find((step) => step.phase === 'prep');
  // Vegetables are handed in where they are cut: the prep list and the board start there.
  const isCut = line.cut !== null || line.acts.length > 0;
  if (prep !== undefined && isCut && (line.part === 'vegetable' || line.part === 'main' || line.part === 'protein')) return prep.id;
  if (named !== undefined) return named.id;
  for (const phase of USUAL_PHASE[line.part] ?? []) {
    const found = cooking.find((step) => step.phase === phase);
    if (found !== undefined) return found.id;
  }
  return (prep ?? steps[0])?.id ?? '';
}

function sentences(method: string): readonly string[] {
  return method
    .split(/\n+/)
    .flatMap((line) => (/^\s*(?:\d+[.)]|[-*•])/.test(line) || line.length < 90 ? [line] : line.split(/(?<=[.!])\s+(?=[A-Z])/)))
    .map((line) => line.trim().replace(/^(?:\d+[.)]|[-*•])\s*/, ''))
    .filter((line) => line !== '');
}

/** A card as a soup: amounts, foods, yields and labels from the pantry, steps with their usual cautions. What is in doubt is said, never guessed silently. */
export function readCard(card: Card, kitchen: Kitchen, id: string): ReadCard {
  const { pantry } = kitchen;
  const taken = new Set<string>();
  const read = card.ingredients
    .split('\n')
    .map((text) => text.trim())
    .filter((text) => text !== '')
    .map((text) => {
      const made = readIngredientLine(text, kitchen, taken);
      taken.add(made.line.id);
      return made;
    });
  const stepIds = new Set<string>();
  const written = sentences(card.method).map((text) => {
    const made = readStep(text, stepIds);
    stepIds.add(made.id);
    return made;
  });
  const hasPrep = written.some((step) => step.phase === 'prep') || read.every(({ line }) => line.cut === null && line.acts.length === 0);
  const cutNames = read.filter(({ line }) => line.cut !== null || line.acts.length > 0).map(({ line }) => line.name.toLowerCase());
  const steps = [
    ...(hasPrep ? [] : [usualStep('prep', 'prep', `Wash and cut ${cutNames.slice(0, 4).join(', ')}`.slice(0, 200))]),
    ...written,
    ...(written.some((step) => step.phase === 'hold') ? [] : [usualStep('hold', 'empty', 'Into the well')]),
  ];
  const main = read.find(({ line }) => line.part === 'main')?.line ?? read[0]?.line;
  const soup = makeSoup({
    id,
    name: card.name.trim(),
    shortName: card.name.trim().split(/\s+/).slice(0, 2).join(' ').slice(0, 24),
    makesL: card.makesL,
    ingredients: read.map(({ line }) => ({ ...line, stepId: stepFor(line, steps, pantry) })),
    steps,
    schools: schoolsOf(
      read.map(({ line }) => line),
      steps,
    ),
    toneHex: toneOf(main?.foodId ?? ''),
  });
  return { soup, doubts: read.flatMap(({ line, doubts }) => doubts.map((doubt) => ({ line: line.name, doubt }))) };
}

function schoolsOf(lines: readonly Ingredient[], steps: readonly Step[]): Soup['schools'] {
  const blend = steps.find((step) => step.phase === 'blend');
  const text = steps.map((step) => step.name).join(' ');
  const dairy = lines.some((line) => line.part === 'dairy');
  const starch = lines.find((line) => line.part === 'thickener');
  return {
    liquid: /just cover|to cover/i.test(text) ? 'cover' : 'fixed',
    cream: !dairy ? 'none' : /off the heat|heat off/i.test(text) ? 'offHeat' : 'gentle',
    thickener: starch !== undefined ? (starch.foodId === 'flour' ? 'flour' : 'starch') : blend !== undefined && blend.blendShare === 1 ? 'puree' : 'none',
    onion: /carameli[sz]/i.test(text) ? 'caramelised' : lines.some((line) => line.foodId === 'onion' || line.foodId === 'leek') ? 'pale' : 'none',
    garlic: lines.some((line) => line.foodId === 'garlic') ? 'together' : 'none',
    vegetables: 'together',
    texture: blend === undefined ? 'chunky' : blend.blendShare === 1 ? 'full' : 'half',
    measuring: 'exact',
  };
}

/** A colour for a soup nobody has given one: that of its main thing. */
const TONES: Readonly<Record<string, string>> = {
  carrot: '#D9792B',
  tomato: '#C0492F',
  tinnedtomato: '#C0492F',
  beetroot: '#9B2C57',
  peas: '#7FA650',
  broccoli: '#6F9150',
  spinach: '#5F8A4B',
  mushroom: '#8C7355',
  pumpkin: '#D98A2B',
  butternut: '#DB9A3A',
  sweetpotato: '#D9792B',
  corn: '#DBA526',
  redlentil: '#D1703A',
  splitpea: '#9CA653',
  potato: '#CDB98A',
  leek: '#A9B77A',
  courgette: '#97AE6B',
};
function toneOf(foodId: string): string {
  return TONES[foodId] ?? '#B08D57';
}
