import { edibleG, lineL, middle, span } from './mass';
import { leavesOf } from './leaves';
import type { Soup } from './soup';

export interface SaltPerLitre {
  readonly low: number;
  readonly high: number;
  /** The part of it, the middle, that is not the soup's own salt: what cubes, cheese, soy and smoked fish bring. */
  readonly broughtG: number;
  /** Salty lines without an amount. */
  readonly unmeasured: readonly string[];
}

/** Grams of salt in a litre of the finished soup, from salt itself and from what is salty. */
export function saltPerLitre(soup: Soup, soupById: ReadonlyMap<string, Soup>): SaltPerLitre {
  let [low, high, broughtG] = [0, 0, 0];
  const unmeasured: string[] = [];
  for (const { line, path, perLitreG } of leavesOf(soup, soupById)) {
    if (line.saltShare === 0) continue;
    if (perLitreG === null) {
      unmeasured.push(line.name);
      continue;
    }
    low += perLitreG.low * line.saltShare;
    high += perLitreG.high * line.saltShare;
    if (line.part !== 'salt' || path.length > 1) broughtG += middle(perLitreG) * line.saltShare;
  }
  return { low, high, broughtG, unmeasured };
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
