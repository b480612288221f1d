import type { Soup } from '../soup/index';

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
 * Litres of each component the soups ask for, through any depth. Component lines are in mL per litre; lines in grams count
 * at 1 kg a litre (common practice, good to 5 % for roast vegetables and stocks). Throws RangeError on a component that contains itself.
 */
export function componentDemand(cooking: readonly Cooking[], soupById: ReadonlyMap<string, Soup>): readonly ComponentDemand[] {
  const total = new Map<string, { demandL: number; takenL: number; from: { soupId: string; volumeL: number }[] }>();
  const ask = ({ soupId, volumeL, begunSteps }: Cooking, path: readonly string[]): void => {
    if (path.includes(soupId)) throw new RangeError(`Invariant: ${[...path, soupId].join(' → ')} contains itself`);
    for (const line of soupById.get(soupId)?.ingredients ?? []) {
      if (line.componentId === null || line.perLitre === null || line.perLitre.unit === 'each') continue;
      const wantedL = (line.perLitre.amount / 1000) * volumeL;
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
  return [...total].map(([componentId, entry]) => ({ componentId, ...entry })).sort((left, right) => left.componentId.localeCompare(right.componentId));
}
