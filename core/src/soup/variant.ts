import type { Soup } from './soup';

/** The soup as one of its variants is made: its own blend, its extra lines, without what it leaves out. Throws RangeError for a variant the soup has not. */
export function variantOf(soup: Soup, variantId: string): Soup {
  const variant = soup.variants.find((one) => one.id === variantId);
  if (variant === undefined) throw new RangeError(`Invariant: ${soup.id} has no variant ${variantId}`);
  const steps = soup.steps.flatMap((step) => {
    if (step.phase !== 'blend') return [step];
    return variant.blendShare > 0 ? [{ ...step, blendShare: variant.blendShare }] : [];
  });
  const gone = new Set(soup.steps.filter((step) => !steps.some((kept) => kept.id === step.id)).map((step) => step.id));
  const after = soup.steps.findIndex((step) => gone.has(step.id)) + 1;
  // What went in at a blend that is left out goes in at the step after it.
  const moved = soup.steps.slice(after).find((step) => !gone.has(step.id))?.id ?? steps.at(-1)?.id ?? '';
  const ingredients = [...soup.ingredients.filter((line) => !variant.leavesOut.includes(line.id)), ...variant.adds].map((line) =>
    gone.has(line.stepId) ? { ...line, stepId: moved } : line,
  );
  return { ...soup, name: `${soup.name}, ${variant.name}`, steps, ingredients, variants: [] };
}
