/** What could not be read for sure: it is kept as it was written and asked about. */
export type LineDoubt = { readonly code: 'unit.unknown'; readonly word: string } | { readonly code: 'food.unknown' } | { readonly code: 'amount.none' };

/** Why a file could not be taken in, for a person. */
export type ImportTrouble =
  { readonly code: 'tooLarge'; readonly mb: number } | { readonly code: 'notJson' } | { readonly code: 'noRecipe' } | { readonly code: 'badSoup'; readonly first: string };
