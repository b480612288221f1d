import type { Food } from './food';

function plain(text: string): string {
  return text
    .toLowerCase()
    .normalize('NFD')
    .replaceAll(/\p{Diacritic}/gu, '')
    .replaceAll(/[^a-z0-9 ]+/g, ' ')
    .replaceAll(/\s+/g, ' ')
    .trim();
}

/** The pantry's food some words mean: the longest name or other word for it that stands in them whole, and which word that was. null when there is none. */
export function findFood(words: string, pantry: readonly Food[]): { readonly food: Food; readonly as: string } | null {
  const text = ` ${plain(words)} `;
  let best: { readonly food: Food; readonly as: string } | null = null;
  for (const food of pantry) {
    for (const name of [food.name, ...food.aliases]) {
      const wanted = plain(name);
      if (wanted.length > (best?.as.length ?? 0) && (text.includes(` ${wanted} `) || text.includes(` ${wanted}s `))) best = { food, as: wanted };
    }
  }
  return best;
}

/** `matchFood('2 large carrots, peeled', pantry)` is the carrot. */
export function matchFood(words: string, pantry: readonly Food[]): Food | null {
  return findFood(words, pantry)?.food ?? null;
}
