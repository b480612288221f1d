import { variantOf } from '../soup/index';
import type { Soup } from '../soup/index';
import { batchSheet } from './sheet';
import type { BatchSheet, SheetContext } from './sheet';

export interface PotShare {
  /** null = as the soup itself is written. */
  readonly variantId: string | null;
  readonly volumeL: number;
}

/** One pot shared out between a soup and its variants: 6 L chunky, 4 L puréed. The base is cooked once, for all of them. */
export function splitPot(
  soup: Soup,
  shares: readonly PotShare[],
  context: SheetContext = {},
): { readonly base: BatchSheet; readonly each: readonly { readonly name: string; readonly sheet: BatchSheet }[] } {
  const volumeL = shares.reduce((sum, share) => sum + share.volumeL, 0);
  const named = shares.map((share) => ({ soup: share.variantId === null ? soup : variantOf(soup, share.variantId), volumeL: share.volumeL }));
  return { base: batchSheet(soup, volumeL, context), each: named.map((one) => ({ name: one.soup.name, sheet: batchSheet(one.soup, one.volumeL, context) })) };
}
