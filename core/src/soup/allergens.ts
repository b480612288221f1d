import type { Allergen, Soup } from './soup';

export interface AllergenSet {
  readonly contains: readonly Allergen[];
  /** Lines whose label nobody has read: the soup can then never be called free from anything. */
  readonly unknownLines: readonly string[];
}

/** Allergens of a soup from every line, through its components to any depth. A component that is not in the book counts as unknown. */
export function allergensOf(soup: Soup, soupById: ReadonlyMap<string, Soup>, seen: ReadonlySet<string> = new Set()): AllergenSet {
  const contains = new Set<Allergen>();
  const unknownLines: string[] = [];
  for (const line of soup.ingredients) {
    if (line.componentId !== null) {
      const component = soupById.get(line.componentId);
      if (component === undefined || seen.has(line.componentId)) {
        unknownLines.push(line.name);
        continue;
      }
      const inner = allergensOf(component, soupById, new Set([...seen, soup.id]));
      inner.contains.forEach((allergen) => contains.add(allergen));
      unknownLines.push(...inner.unknownLines.map((name) => `${line.name}: ${name}`));
    } else if (line.allergens === 'unknown') {
      unknownLines.push(line.name);
    } else {
      line.allergens.forEach((allergen) => contains.add(allergen));
    }
  }
  return { contains: [...contains].sort(), unknownLines };
}
