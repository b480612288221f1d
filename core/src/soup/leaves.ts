import { edibleG, lineL, middle, scaleSpan } from './mass';
import type { Span } from './mass';
import type { Ingredient, Soup } from './soup';

/** One line that is bought, found in a soup or in whatever it is made of. */
export interface Leaf {
  readonly line: Ingredient;
  /** Names from the soup's own line down to this one. */
  readonly path: readonly string[];
  /** Grams in one litre of the finished soup; null = not measured, here or above. */
  readonly perLitreG: Span | null;
  /** A component the book does not have, or one that contains itself: nothing is known of it. */
  readonly missing: boolean;
}

/** Every bought line of a soup through its components, to any depth. */
export function leavesOf(soup: Soup, soupById: ReadonlyMap<string, Soup>): readonly Leaf[] {
  const found: Leaf[] = [];
  const walk = (one: Soup, path: readonly string[], ids: readonly string[], factor: number | null): void => {
    for (const line of one.ingredients) {
      const here = [...path, line.name];
      if (line.componentId === null) {
        const massG = edibleG(line);
        found.push({ line, path: here, perLitreG: massG === null || factor === null ? null : scaleSpan(massG, factor / one.makesL), missing: false });
        continue;
      }
      const inner = soupById.get(line.componentId);
      if (inner === undefined || ids.includes(line.componentId)) {
        found.push({ line, path: here, perLitreG: null, missing: true });
        continue;
      }
      const wanted = lineL(line);
      walk(inner, here, [...ids, inner.id], wanted === null || factor === null ? null : (factor * middle(wanted)) / one.makesL);
    }
  };
  walk(soup, [], [soup.id], 1);
  return found;
}
