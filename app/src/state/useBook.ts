import type { KitchenBook } from '@broth/contract';
import type { Food, Soup } from '@broth/core';
import { useMemo } from 'react';
import { useKitchen } from './kitchen';

/** The soup book as it stands: soups by id, the pantry, the station. */
export interface OpenBook {
  readonly book: KitchenBook;
  readonly soups: readonly Soup[];
  readonly soupById: ReadonlyMap<string, Soup>;
  readonly pantry: readonly Food[];
}

export function useBook(): OpenBook | null {
  const book = useKitchen((state) => state.book);
  return useMemo(() => (book === null ? null : { book, soups: book.soups, soupById: new Map(book.soups.map((soup) => [soup.id, soup])), pantry: book.pantry }), [book]);
}
