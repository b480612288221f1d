import { isMassUnit, measurableG, measurableMl, spoons } from '../quantity/index';
import { purchasedG } from '../food/index';
import { SOUP_KG_PER_L, edibleG, evaporationShare, jarFills, lineL, massIn, middle, saltPerLitre, scaleSpan, span, stepRangeMin, yieldL } from '../soup/index';
import type { Ingredient, Jar, Soup, Span, Step } from '../soup/index';
import { boilMin } from './heat';
import type { PotVessel } from './heat';
import { learned, timesFor } from './learn';
import type { Learned, StepTime } from './learn';
import { liquidFor } from './liquid';
import type { LiquidAdvice } from './liquid';
import { saltPlan } from './season';
import type { SaltPlan } from './season';

export interface SheetLine {
  readonly ingredientId: string;
  readonly name: string;
  readonly cut: string | null;
  readonly acts: Ingredient['acts'];
  readonly part: Ingredient['part'];
  readonly stepId: string;
  readonly returnsAtStepId: string | null;
  readonly whole: boolean;
  readonly componentId: string | null;
  /** Rounded to what the kitchen can measure, as it goes in; null = not measured yet. */
  readonly amount: number | null;
  /** The upper end when the card gives a range. */
  readonly upTo: number | null;
  readonly unit: 'g' | 'mL' | 'each';
  /** A small amount in spoons beside it. */
  readonly spoons: { readonly amount: number; readonly unit: 'usTsp' | 'usTbsp' } | null;
  /** Rounded minus exact, as a fraction of the exact amount. */
  readonly roundingError: number;
  /** Grams to take from the crate for it, when peeling costs something. */
  readonly purchasedG: number | null;
  /** Staged lines: this first, taste, then up to the rest. */
  readonly firstAmount: number | null;
  /** true when it is the same for every size of batch. */
  readonly fixed: boolean;
}

export interface SheetStep {
  readonly step: Step;
  readonly lowMin: number;
  readonly highMin: number;
  /** Where the minutes are from: the card, the kettle's power, or past batches. */
  readonly basis: 'card' | 'power' | 'measured';
  readonly learned: Learned | null;
  /** Litres the blender takes, and fills of the jar for them. */
  readonly blendL: number | null;
  readonly fills: number | null;
}

export interface BatchSheet {
  readonly volumeL: number;
  /** Times the card: on every page of the sheet. */
  readonly factor: number;
  readonly lines: readonly SheetLine[];
  readonly steps: readonly SheetStep[];
  readonly massKg: Span | null;
  readonly yieldL: Span | null;
  readonly portions: Span | null;
  readonly evaporationL: Span;
  readonly liquid: LiquidAdvice | null;
  readonly salt: SaltPlan | null;
  readonly unmeasured: readonly string[];
}

/** What the sheet is worked out for, beside the soup and its litres. All of it may be missing. */
export interface SheetContext {
  readonly vessel?: PotVessel | null;
  readonly jar?: Jar | null;
  readonly startC?: number;
  /** What steps took in past batches, by step id, newest last. */
  readonly stepTimes?: Readonly<Record<string, readonly StepTime[]>>;
  /** Litres of liquid a litre of soup that past batches took. */
  readonly liquidPerLitre?: readonly number[];
  readonly soupById?: ReadonlyMap<string, Soup>;
}

/** Of a staged line this much goes in before it is tasted. Common practice: "7 of 10 chillies, taste, then the rest". */
const FIRST_SHARE = 0.7;
const SERVING_LOSS = 0.04;

function measurable(amount: number, unit: SheetLine['unit']): number {
  switch (unit) {
    case 'g':
      return measurableG(amount);
    case 'mL':
      return measurableMl(amount);
    case 'each':
      return Math.max(0.5, Math.round(amount * 2) / 2);
  }
}

/** Small things with a measured density are told in spoons as well. */
function inSpoons(line: Ingredient, amount: number, unit: SheetLine['unit']): SheetLine['spoons'] {
  const spooned = line.part === 'spice' || line.part === 'salt' || line.part === 'salty' || line.part === 'thickener' || line.part === 'acid' || line.part === 'fat';
  if (!spooned || unit === 'each') return null;
  const volumeMl = unit === 'mL' ? amount : line.gPerMl === null ? null : amount / line.gPerMl;
  return volumeMl === null ? null : spoons(volumeMl);
}

/** How a line is measured at the bench: liquids by volume, what can be weighed by mass, the rest by the piece. */
function exactOf(line: Ingredient): { readonly amount: Span; readonly unit: SheetLine['unit'] } | null {
  if (line.amount === null) return null;
  const poured = line.part === 'liquid' || line.part === 'dairy' || line.part === 'acid' || (line.part === 'fat' && line.amount.unit !== 'each') || line.componentId !== null;
  const volumeL = poured && !isMassUnit(line.amount.unit) ? lineL(line) : null;
  if (volumeL !== null) return { amount: scaleSpan(volumeL, 1000), unit: 'mL' };
  const massG = edibleG(line);
  if (massG !== null) return { amount: massG, unit: 'g' };
  const litres = line.amount.unit === 'each' ? null : lineL(line);
  return litres === null ? { amount: span(line.amount.low, line.amount.high), unit: 'each' } : { amount: scaleSpan(litres, 1000), unit: 'mL' };
}

function sheetLine(line: Ingredient, factor: number): SheetLine {
  const exact = exactOf(line);
  const isFixed = line.scaling === 'fixed';
  const unit = exact?.unit ?? 'g';
  const scale = isFixed ? 1 : factor;
  const low = exact === null ? 0 : exact.amount.low * scale;
  const high = exact === null ? 0 : exact.amount.high * scale;
  const amount = exact === null ? null : measurable(low, unit);
  const upTo = exact !== null && high > low ? measurable(high, unit) : null;
  const share = line.edibleShare ?? 1;
  // Written out: a sheet has hundreds of these, and copying a part into each costs more than all the arithmetic.
  return {
    ingredientId: line.id,
    name: line.name,
    cut: line.cut,
    acts: line.acts,
    part: line.part,
    stepId: line.stepId,
    returnsAtStepId: line.returnsAtStepId,
    whole: line.whole,
    componentId: line.componentId,
    amount,
    upTo,
    unit,
    spoons: amount === null ? null : inSpoons(line, amount, unit),
    roundingError: amount === null || low === 0 ? 0 : amount / low - 1,
    purchasedG: amount !== null && unit === 'g' && share < 1 ? measurableG(purchasedG(upTo ?? amount, share)) : null,
    firstAmount: amount !== null && line.scaling === 'staged' ? measurable(low * FIRST_SHARE, unit) : null,
    fixed: isFixed,
  };
}

/** Every line of a soup for these litres. Scaling is by the conversion factor, new ÷ old, on mass and volume (Gisslen, Professional Cooking). */
export function sheetLines(soup: Soup, volumeL: number): readonly SheetLine[] {
  return soup.ingredients.map((line) => sheetLine(line, volumeL / soup.makesL));
}

function sheetStep(step: Step, volumeL: number, massKg: Span | null, context: SheetContext): SheetStep {
  const jar = context.jar ?? null;
  const blendL = step.phase === 'blend' ? volumeL * step.blendShare : null;
  const fills = blendL !== null && step.place.kind === 'blender' && step.place.tool === 'jar' && jar !== null ? jarFills(blendL, jar.hotFillL) : null;
  const past = learned(timesFor(step, context.stepTimes?.[step.id] ?? [], volumeL));
  if (past !== null) return { step, lowMin: past.low, highMin: past.high, basis: 'measured', learned: past, blendL, fills };
  const heated = step.phase === 'boil' && context.vessel ? boilMin(massKg === null ? volumeL * SOUP_KG_PER_L : middle(massKg), context.vessel, context.startC) : null;
  if (heated !== null) return { step, lowMin: heated, highMin: heated * 1.25, basis: 'power', learned: null, blendL, fills };
  return { step, ...stepRangeMin(step, volumeL, jar), basis: 'card', learned: null, blendL, fills };
}

/**
 * What a cook reads at the pot: this soup, these litres, this kettle. Amounts rounded to what can be measured, with the error; times that do not
 * scale kept, the time to the boil from litres and power until three batches have been timed; steam, yield and portions as ranges, which are null when an
 * amount that counts is missing.
 */
export function batchSheet(soup: Soup, volumeL: number, context: SheetContext = {}): BatchSheet {
  const factor = volumeL / soup.makesL;
  const worked = yieldL(soup);
  const { massKg: writtenKg } = massIn(soup);
  const massKg = writtenKg === null ? null : scaleSpan(writtenKg, factor);
  const yields = worked === null ? null : scaleSpan(worked, factor);
  const steam = evaporationShare(soup, volumeL);
  const hasLiquid = soup.ingredients.some((line) => line.part === 'liquid');
  const remembered = learned(context.liquidPerLitre ?? []);
  const soupById = context.soupById ?? new Map<string, Soup>();
  const salted = saltPerLitre(soup, soupById);
  return {
    volumeL,
    factor,
    lines: sheetLines(soup, volumeL),
    steps: soup.steps.map((step) => sheetStep(step, volumeL, massKg, context)),
    massKg,
    yieldL: yields,
    portions:
      yields === null ? null : span(Math.floor((yields.low * 1000 * (1 - SERVING_LOSS)) / soup.portionMl), Math.floor((yields.high * 1000 * (1 - SERVING_LOSS)) / soup.portionMl)),
    evaporationL: scaleSpan(steam, volumeL),
    liquid: hasLiquid ? liquidFor(soup, volumeL, context.vessel ?? null, remembered?.median ?? null) : null,
    salt:
      soup.role === 'soup' && salted.unmeasured.every((name) => soup.ingredients.some((line) => line.name === name && line.part === 'salt'))
        ? saltPlan(volumeL * SOUP_KG_PER_L, salted.broughtG * volumeL, soup.saltTarget)
        : null,
    unmeasured: soup.ingredients.filter((line) => line.amount === null).map((line) => line.name),
  };
}
