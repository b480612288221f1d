import type { Ingredient, Soup, Step } from './soup';

/** What is otherwise in the later of two versions. `what` names the field; values are as the card has them. */
export type Difference =
  | { readonly kind: 'line.added' | 'line.removed'; readonly name: string }
  | { readonly kind: 'line.changed'; readonly name: string; readonly what: keyof Ingredient; readonly from: string; readonly to: string }
  | { readonly kind: 'step.added' | 'step.removed' | 'step.moved'; readonly name: string }
  | { readonly kind: 'step.changed'; readonly name: string; readonly what: keyof Step; readonly from: string; readonly to: string }
  | { readonly kind: 'soup.changed'; readonly what: keyof Soup; readonly from: string; readonly to: string };

function text(value: unknown): string {
  return typeof value === 'string' ? value : value === null || value === undefined ? '' : JSON.stringify(value);
}
function keysOf<Thing extends object>(thing: Thing): readonly (keyof Thing)[] {
  const keys: (keyof Thing)[] = [];
  for (const key in thing) keys.push(key);
  return keys;
}

/** Differences from an older version of a soup to a newer one, in the card's order. Versions themselves are not compared. */
export function compareSoups(older: Soup, newer: Soup): readonly Difference[] {
  const found: Difference[] = [];
  for (const what of keysOf(newer)) {
    if (what === 'version' || what === 'ingredients' || what === 'steps') continue;
    if (text(older[what]) !== text(newer[what])) found.push({ kind: 'soup.changed', what, from: text(older[what]), to: text(newer[what]) });
  }
  for (const line of newer.ingredients) {
    const before = older.ingredients.find((one) => one.id === line.id);
    if (before === undefined) found.push({ kind: 'line.added', name: line.name });
    else
      for (const what of keysOf(line))
        if (text(before[what]) !== text(line[what])) found.push({ kind: 'line.changed', name: line.name, what, from: text(before[what]), to: text(line[what]) });
  }
  for (const line of older.ingredients) if (newer.ingredients.every((one) => one.id !== line.id)) found.push({ kind: 'line.removed', name: line.name });
  const order = older.steps.map((step) => step.id).filter((id) => newer.steps.some((step) => step.id === id));
  const kept = newer.steps.filter((step) => order.includes(step.id));
  for (const step of newer.steps) {
    const before = older.steps.find((one) => one.id === step.id);
    if (before === undefined) {
      found.push({ kind: 'step.added', name: step.name });
      continue;
    }
    if (order[kept.indexOf(step)] !== step.id) found.push({ kind: 'step.moved', name: step.name });
    for (const what of keysOf(step))
      if (text(before[what]) !== text(step[what])) found.push({ kind: 'step.changed', name: step.name, what, from: text(before[what]), to: text(step[what]) });
  }
  for (const step of older.steps) if (newer.steps.every((one) => one.id !== step.id)) found.push({ kind: 'step.removed', name: step.name });
  return found;
}
