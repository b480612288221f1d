import { measurableG, measurableMl } from '../quantity/index';
import { purchasedG } from '../food/index';
import type { Food } from '../food/index';
import { edibleG, lineL, middle } from '../soup/index';
import type { Soup } from '../soup/index';

/** A batch to get ready for. `startMin` is when its first step begins, minutes after the day's midnight; null when it is not planned. */
export interface PrepBatch {
  readonly name: string;
  readonly soup: Soup;
  readonly volumeL: number;
  readonly startMin: number | null;
  /** Steps that have begun: what goes in at them has been prepared. */
  readonly begunSteps: readonly string[];
}

export interface PrepUse {
  readonly batch: string;
  /** null = not measured. */
  readonly edibleG: number | null;
  readonly neededByMin: number | null;
}

/** One vegetable in one cut, for all the day's batches. */
export interface PrepItem {
  readonly name: string;
  readonly cut: string | null;
  readonly acts: readonly string[];
  readonly edibleG: number;
  readonly purchasedG: number;
  /** Pieces to fetch, by the usual weight of one; null when it is not known. */
  readonly pieces: number | null;
  readonly unmeasured: boolean;
  readonly neededByMin: number | null;
  readonly uses: readonly PrepUse[];
}

const PREPARED = ['main', 'vegetable', 'herb', 'spice', 'protein', 'grain'];

/**
 * What is washed, peeled and cut today, across soups, by vegetable and cut, the earliest first: as it goes in and as it is taken from the crate. Components
 * are batches of their own, so their vegetables stand here too.
 */
export function prepList(batches: readonly PrepBatch[]): readonly PrepItem[] {
  type Draft = { name: string; cut: string | null; acts: readonly string[]; share: number; gramsEach: number | null; uses: PrepUse[] };
  const merged = new Map<string, Draft>();
  for (const { name, soup, volumeL, startMin, begunSteps } of batches) {
    for (const line of soup.ingredients) {
      if (line.componentId !== null || !PREPARED.includes(line.part) || begunSteps.includes(line.stepId)) continue;
      if (line.cut === null && line.acts.length === 0) continue;
      const massG = edibleG(line);
      const acts = [...line.acts].sort();
      const key = [line.foodId ?? line.name.toLowerCase(), line.cut?.toLowerCase() ?? '', acts.join(' ')].join(' | ');
      const entry = merged.get(key) ?? { name: line.name, cut: line.cut, acts, share: line.edibleShare ?? 1, gramsEach: line.gramsEach, uses: [] };
      entry.uses.push({ batch: name, edibleG: massG === null ? null : (middle(massG) * volumeL) / soup.makesL, neededByMin: startMin });
      merged.set(key, entry);
    }
  }
  const items = [...merged.values()].map(({ name, cut, acts, share, gramsEach, uses }): PrepItem => {
    const edible = uses.reduce((sum, use) => sum + (use.edibleG ?? 0), 0);
    const bought = purchasedG(edible, share);
    const times = uses.flatMap((use) => (use.neededByMin === null ? [] : [use.neededByMin]));
    return {
      name,
      cut,
      acts,
      edibleG: measurableG(edible),
      purchasedG: measurableG(bought),
      pieces: gramsEach === null || gramsEach < 10 ? null : Math.ceil(bought / gramsEach - 1e-9),
      unmeasured: uses.some((use) => use.edibleG === null),
      neededByMin: times.length === 0 ? null : Math.min(...times),
      uses,
    };
  });
  return items.sort((left, right) => (left.neededByMin ?? Infinity) - (right.neededByMin ?? Infinity) || left.name.localeCompare(right.name));
}

export interface OrderItem {
  readonly name: string;
  readonly foodId: string | null;
  readonly unit: 'g' | 'mL' | 'each';
  /** As it is bought. */
  readonly amount: number;
  readonly unmeasured: boolean;
  readonly cost: number | null;
}

/** Everything bought for the day's batches, merged across them, with what it costs where the pantry has a price. */
export function orderList(
  batches: readonly PrepBatch[],
  pantry: readonly Food[],
): { readonly items: readonly OrderItem[]; readonly cost: number; readonly unpriced: readonly string[] } {
  const merged = new Map<string, { name: string; foodId: string | null; poured: boolean; massG: number; volumeL: number; pieces: number; unmeasured: boolean }>();
  for (const { soup, volumeL } of batches) {
    for (const line of soup.ingredients) {
      if (line.componentId !== null || line.foodId === 'water') continue;
      const factor = line.scaling === 'fixed' ? 1 : volumeL / soup.makesL;
      const massG = edibleG(line);
      const litres = lineL(line);
      const poured = line.part === 'liquid' || line.part === 'dairy' || line.part === 'acid';
      const key = line.foodId ?? line.name.toLowerCase();
      const entry = merged.get(key) ?? { name: line.name, foodId: line.foodId, poured, massG: 0, volumeL: 0, pieces: 0, unmeasured: false };
      if (massG === null && litres === null && line.amount?.unit === 'each') entry.pieces += middle({ low: line.amount.low, high: line.amount.high }) * factor;
      else if (massG === null && litres === null) entry.unmeasured = true;
      if (massG !== null) entry.massG += purchasedG(middle(massG) * factor, line.edibleShare ?? 1);
      if (litres !== null) entry.volumeL += middle(litres) * factor;
      merged.set(key, entry);
    }
  }
  const items = [...merged.values()].map((entry): OrderItem => {
    const unit = entry.pieces > 0 && entry.massG === 0 ? 'each' : entry.poured || entry.massG === 0 ? 'mL' : 'g';
    const exact = unit === 'each' ? entry.pieces : unit === 'mL' ? entry.volumeL * 1000 : entry.massG;
    const price = pantry.find((food) => food.id === entry.foodId)?.price ?? null;
    const cost =
      price === null
        ? null
        : price.per === 'kg'
          ? (entry.massG / 1000) * price.amount
          : price.per === 'L'
            ? entry.volumeL * price.amount
            : entry.pieces > 0
              ? entry.pieces * price.amount
              : null;
    const amount = unit === 'each' ? Math.ceil(exact) : unit === 'mL' ? measurableMl(exact) : measurableG(exact);
    return { name: entry.name, foodId: entry.foodId, unit, amount, unmeasured: entry.unmeasured, cost };
  });
  return {
    items: items.sort((left, right) => left.name.localeCompare(right.name)),
    cost: items.reduce((sum, item) => sum + (item.cost ?? 0), 0),
    unpriced: items.filter((item) => item.cost === null).map((item) => item.name),
  };
}
