import { addSpans, edibleG, lineL, middle, span } from './mass';
import { leavesOf } from './leaves';
import type { Soup } from './soup';

/** Grams of salt in a litre of the finished soup, from salt itself and from what is salty: cubes, cheese, soy, smoked fish. `unmeasured` names salty lines without an amount. */
export function saltPerLitre(soup: Soup, soupById: ReadonlyMap<string, Soup>): { readonly low: number; readonly high: number; readonly unmeasured: readonly string[] } {
  const salty = leavesOf(soup, soupById).filter(({ line }) => line.saltShare > 0);
  const known = salty
    .map(({ line, perLitreG }) => (perLitreG === null ? span(0) : span(perLitreG.low * line.saltShare, perLitreG.high * line.saltShare)))
    .reduce(addSpans, span(0));
  return { ...known, unmeasured: salty.filter(({ perLitreG }) => perLitreG === null).map(({ line }) => line.name) };
}

/** Share of salt in the finished soup's mass, as it is written. 1 L counts as `kgPerL` kilograms. */
export function saltShareOf(soup: Soup, soupById: ReadonlyMap<string, Soup>, kgPerL: number): number {
  return middle(saltPerLitre(soup, soupById)) / (kgPerL * 1000);
}

/** Litres of liquid the card has, the middle of each: what a liquid school is measured against. */
export function writtenLiquidL(soup: Soup): number {
  return soup.ingredients
    .filter((line) => line.part === 'liquid')
    .map((line) => lineL(line) ?? span(0))
    .reduce((sum, one) => sum + middle(one), 0);
}

/** Kilograms of vegetables, pulses and grains in the card: what the liquid is to cover. null when one of them is not measured. */
export function solidsKg(soup: Soup): number | null {
  const solids = soup.ingredients.filter((line) => line.part === 'main' || line.part === 'vegetable' || line.part === 'grain');
  const masses = solids.map((line) => edibleG(line));
  return masses.some((mass) => mass === null) ? null : masses.reduce((sum, mass) => sum + middle(mass ?? span(0)), 0) / 1000;
}
