import { stepRangeMin } from './duration';
import { addSpans, edibleG, scaleSpan, span } from './mass';
import type { Span } from './mass';
import type { Part } from '../food/index';
import type { Ingredient, Soup, Step } from './soup';

/** Share of the pot that boils away in an hour, by lid. Common practice, low confidence: a kitchen's own weighed batches replace it. */
const LOST_PER_H: Readonly<Record<Step['lid'], Span>> = { off: span(0.04, 0.1), ajar: span(0.02, 0.04), on: span(0, 0.02) };

/** Kilograms in a litre of soup. Common practice. */
export const SOUP_KG_PER_L = 1.03;

/** So little of these goes in that a yield can be told without them. */
const MINOR: readonly Part[] = ['spice', 'herb', 'salt', 'acid'];

/** Share of the pot lost to steam from when the liquid is in, at the least and at the most. */
export function evaporationShare(soup: Soup, volumeL: number): Span {
  return soup.steps
    .filter((step) => step.place.kind === 'vessel' && step.heat !== 'off' && (step.phase === 'boil' || step.phase === 'simmer' || step.phase === 'finish'))
    .map((step) => {
      const { lowMin, highMin } = stepRangeMin(step, volumeL, null);
      return { low: (LOST_PER_H[step.lid].low * lowMin) / 60, high: (LOST_PER_H[step.lid].high * highMin) / 60 };
    })
    .reduce(addSpans, span(0));
}

/** Share of a vegetable that is left after an oven or a long low fry. Common practice: roasted 20 to 30 % lost, onion caramelised 60 to 75 %. */
const LEFT_AFTER = { roast: span(0.7, 0.8), caramelise: span(0.25, 0.4) };
const CARAMELISED_FROM_MIN = 30;

/** What is left of a line when the soup is done, as a share of what went in: roasting and caramelising drive out water, a pot with liquid in it does not. */
export function leftOf(line: Ingredient, soup: Soup): Span {
  const first = Math.max(
    0,
    soup.steps.findIndex((step) => step.id === line.stepId),
  );
  return soup.steps.slice(first).reduce((left, step) => {
    if (step.phase === 'roast') return { low: left.low * LEFT_AFTER.roast.low, high: left.high * LEFT_AFTER.roast.high };
    if (step.phase === 'sweat' && step.duration.lowMin >= CARAMELISED_FROM_MIN) return { low: left.low * LEFT_AFTER.caramelise.low, high: left.high * LEFT_AFTER.caramelise.high };
    return left;
  }, span(1));
}

/** Grams of a line that are in the finished soup, as the card has it, steam apart; null when it is not measured. */
export function keptG(line: Ingredient, soup: Soup): Span | null {
  const massG = edibleG(line);
  if (massG === null) return null;
  const left = leftOf(line, soup);
  return { low: massG.low * left.low, high: massG.high * left.high };
}

/** Kilograms that stay in the pot, for `makesL` litres as written; null with the names of what was not measured. */
export function massIn(soup: Soup): { readonly massKg: Span | null; readonly unmeasured: readonly string[] } {
  const lines = soup.ingredients.filter((line) => !line.removed);
  const unmeasured = lines.filter((line) => edibleG(line) === null).map((line) => line.name);
  const blocked = lines.some((line) => edibleG(line) === null && !MINOR.includes(line.part));
  const massKg = scaleSpan(lines.map((line) => keptG(line, soup) ?? span(0)).reduce(addSpans, span(0)), 0.001);
  return { massKg: blocked ? null : massKg, unmeasured };
}

/** Litres of finished soup the card's amounts give, from mass less steam; null when something that counts was not measured: no yield is claimed then. */
export function yieldL(soup: Soup): Span | null {
  const { massKg } = massIn(soup);
  if (massKg === null || massKg.high === 0) return null;
  const lost = evaporationShare(soup, soup.makesL);
  return { low: (massKg.low * (1 - Math.min(lost.high, 0.9))) / SOUP_KG_PER_L, high: (massKg.high * (1 - Math.min(lost.low, 0.9))) / SOUP_KG_PER_L };
}
