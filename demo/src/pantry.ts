import { HANDBOOK } from '@broth/core/handbook';
import type { Food, Price } from '@broth/core';

/** Prices of the demo's delivery, by the kilogram unless said otherwise. Invented. */
const PER_KG: Readonly<Record<string, number>> = {
  onion: 1.1,
  carrot: 1.2,
  celery: 2.4,
  celeriac: 2.6,
  potato: 1.3,
  sweetpotato: 2.2,
  leek: 2.9,
  butternut: 2.1,
  kale: 4.5,
  beetroot: 1.9,
  swede: 1.4,
  fennel: 3.8,
  cucumber: 2.3,
  apple: 2.0,
  garlic: 8.5,
  ginger: 7.5,
  leektops: 0.4,
  redlentil: 2.8,
  whitebean: 2.2,
  barley: 1.8,
  corn: 3.1,
  tinnedtomato: 1.7,
  flour: 1.0,
  cornstarch: 2.4,
  butter: 9.2,
  cheddar: 11.5,
  souredcream: 4.8,
  yoghurt: 3.4,
  peanutbutter: 6.9,
  haddock: 18.5,
  fishtrim: 3.2,
  bacon: 10.4,
  salt: 0.9,
  cumin: 16,
  nutmeg: 38,
  whitepepper: 22,
  spiceblend: 19,
  thyme: 24,
  rosemary: 22,
  parsley: 14,
  mint: 20,
  dill: 21,
  bay: 40,
};
const PER_L: Readonly<Record<string, number>> = {
  doublecream: 6.8,
  milk: 1.3,
  oliveoil: 9.5,
  sunfloweroil: 2.9,
  lemonjuice: 7,
  limejuice: 8.5,
  vinegar: 3.6,
  oatdrink: 1.9,
  oatcream: 5.2,
};

function priceOf(id: string): Price | null {
  const perKg = PER_KG[id];
  const perL = PER_L[id];
  return perKg !== undefined ? { amount: perKg, per: 'kg' } : perL !== undefined ? { amount: perL, per: 'L' } : null;
}

/** The handbook with the demo's prices. */
export const pantry: readonly Food[] = HANDBOOK.map((food) => ({ ...food, price: priceOf(food.id) }));
