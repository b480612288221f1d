import { byId } from '../quantity/index';
import { lineL, middle } from './mass';
import type { Soup } from './soup';

/** Litres of one soup to be cooked, and the steps that have begun: what went in at those has been taken already. */
export interface Cooking {
  readonly soupId: string;
  readonly volumeL: number;
  readonly begunSteps: readonly string[];
}

export interface ComponentDemand {
  readonly componentId: string;
  /** Still to be taken. */
  readonly demandL: number;
  /** Already gone into a pot. */
  readonly takenL: number;
  /** Which soups ask for it, and for how much. */
  readonly from: readonly { readonly soupId: string; readonly volumeL: number }[];
}

/**
 * Litres of each component the soups ask for, through any depth, merged across them. Lines in grams count at 1 kg a litre. A line that is
 * not measured asks for nothing. Throws RangeError on a component that contains itself: `componentLoop` says so beforehand.
 */
export function componentDemand(cooking: readonly Cooking[], soupById: ReadonlyMap<string, Soup>): readonly ComponentDemand[] {
  const total = new Map<string, { demandL: number; takenL: number; from: { soupId: string; volumeL: number }[] }>();
  const ask = ({ soupId, volumeL, begunSteps }: Cooking, path: readonly string[]): void => {
    if (path.includes(soupId)) throw new RangeError(`Invariant: ${[...path, soupId].join(' → ')} contains itself`);
    const soup = soupById.get(soupId);
    for (const line of soup?.ingredients ?? []) {
      const written = line.componentId === null ? null : lineL(line);
      if (soup === undefined || line.componentId === null || written === null) continue;
      const wantedL = (middle(written) / soup.makesL) * volumeL;
      const entry = total.get(line.componentId) ?? { demandL: 0, takenL: 0, from: [] };
      total.set(line.componentId, entry);
      if (begunSteps.includes(line.stepId)) {
        entry.takenL += wantedL;
        continue;
      }
      entry.demandL += wantedL;
      entry.from.push({ soupId, volumeL: wantedL });
      ask({ soupId: line.componentId, volumeL: wantedL, begunSteps: [] }, [...path, soupId]);
    }
  };
  cooking.forEach((batch) => {
    ask(batch, []);
  });
  return [...total].map(([componentId, entry]) => ({ componentId, ...entry })).sort((left, right) => byId(left.componentId, right.componentId));
}

/** The path of a component that contains itself, as ids from the soup back to where it closes; null when there is none. */
export function componentLoop(soup: Soup, soupById: ReadonlyMap<string, Soup>): readonly string[] | null {
  const walk = (one: Soup, path: readonly string[]): readonly string[] | null => {
    if (path.includes(one.id)) return [...path.slice(path.indexOf(one.id)), one.id];
    for (const { componentId } of one.ingredients) {
      const inner = componentId === null ? undefined : componentId === soup.id ? soup : soupById.get(componentId);
      const found = inner === undefined ? null : walk(inner, [...path, one.id]);
      if (found !== null) return found;
    }
    return null;
  };
  return walk(soup, []);
}
