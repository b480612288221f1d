import type { Allergen } from '../food/index';
import { leavesOf } from './leaves';
import { middle } from './mass';
import type { Soup } from './soup';

export interface StatementLine {
  readonly name: string;
  /** Share of what goes in; null when an amount is missing. */
  readonly share: number | null;
  readonly allergens: readonly Allergen[];
  readonly unread: boolean;
}

/**
 * Ingredients in descending order of mass as they go in, components taken apart and the same thing merged (21 CFR 101.4(a) and (b)(2)(ii);
 * Regulation (EU) 1169/2011 Art. 18; from memory). What was not measured stands at the end, and is said to be.
 */
export function ingredientStatement(soup: Soup, soupById: ReadonlyMap<string, Soup>): readonly StatementLine[] {
  const merged = new Map<string, { massG: number | null; allergens: Set<Allergen>; unread: boolean }>();
  for (const { line, perLitreG, missing } of leavesOf(soup, soupById)) {
    const entry = merged.get(line.name) ?? { massG: 0, allergens: new Set<Allergen>(), unread: false };
    entry.massG = entry.massG === null || perLitreG === null ? null : entry.massG + middle(perLitreG);
    if (line.allergens === 'unknown' || missing) entry.unread = true;
    else line.allergens.forEach((allergen) => entry.allergens.add(allergen));
    merged.set(line.name, entry);
  }
  const totalG = [...merged.values()].reduce((sum, { massG }) => sum + (massG ?? 0), 0);
  return [...merged]
    .sort(([, left], [, right]) => (right.massG ?? -1) - (left.massG ?? -1))
    .map(([name, { massG, allergens, unread }]) => ({ name, share: massG === null || totalG === 0 ? null : massG / totalG, allergens: [...allergens].sort(), unread }));
}
