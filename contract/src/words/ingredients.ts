import type { Allergen } from '@broth/core';
import { number } from './numbers';

export const ALLERGEN: Readonly<Record<Allergen, string>> = {
  celery: 'celery',
  crustacean: 'crustaceans',
  egg: 'egg',
  fish: 'fish',
  gluten: 'gluten',
  lupin: 'lupin',
  milk: 'milk',
  mollusc: 'molluscs',
  mustard: 'mustard',
  peanut: 'peanut',
  sesame: 'sesame',
  soy: 'soy',
  sulphites: 'sulphites',
  treeNut: 'tree nuts',
  wheat: 'wheat',
};

/** `1.25 kg`, `350 g`, `2.4 L`, `80 mL`, `2`. */
export function amountText(amount: number, unit: 'g' | 'mL' | 'each'): string {
  if (unit === 'each') return number(amount);
  const large = unit === 'g' ? 'kg' : 'L';
  return amount >= 1000 ? `${String(Number((amount / 1000).toFixed(2)))} ${large}` : `${number(amount)} ${unit}`;
}
