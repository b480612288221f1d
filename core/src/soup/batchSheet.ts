import { measurableG, measurableMl } from '../quantity/index';
import type { Ingredient, Soup } from './soup';

export interface SheetLine {
  readonly ingredientId: string;
  readonly name: string;
  readonly cut: string | null;
  readonly stepId: string;
  /** Rounded to what the kitchen can measure; null = not measured yet. */
  readonly amount: number | null;
  readonly unit: 'g' | 'mL' | 'each';
  /** Rounded minus exact, as a fraction of the exact amount. */
  readonly roundingError: number;
}

function measurable(amount: number, unit: 'g' | 'mL' | 'each'): number {
  switch (unit) {
    case 'g':
      return measurableG(amount);
    case 'mL':
      return measurableMl(amount);
    case 'each':
      return Math.max(1, Math.round(amount));
  }
}

function line(ingredient: Ingredient, volumeL: number): SheetLine {
  const { id, name, cut, stepId, perLitre } = ingredient;
  if (perLitre === null) return { ingredientId: id, name, cut, stepId, amount: null, unit: 'g', roundingError: 0 };
  const exact = perLitre.amount * volumeL;
  const amount = measurable(exact, perLitre.unit);
  return { ingredientId: id, name, cut, stepId, amount, unit: perLitre.unit, roundingError: exact === 0 ? 0 : amount / exact - 1 };
}

/** Every line of a soup for these litres. Scaling is linear on mass and volume (Gisslen, Professional Cooking: conversion factor). */
export function batchSheet(soup: Soup, volumeL: number): readonly SheetLine[] {
  return soup.ingredients.map((ingredient) => line(ingredient, volumeL));
}
