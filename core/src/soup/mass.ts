import { gramsOf, millilitresOf } from '../quantity/index';
import type { Ingredient } from './soup';

export interface Span {
  readonly low: number;
  readonly high: number;
}

export function span(low: number, high: number = low): Span {
  return { low, high };
}
export function scaleSpan(given: Span, factor: number): Span {
  return { low: given.low * factor, high: given.high * factor };
}
export function addSpans(left: Span, right: Span): Span {
  return { low: left.low + right.low, high: left.high + right.high };
}

/** Grams of a line that go in, as the card has it; null when it is not measured or cannot be weighed with what is known. A stock of unknown density counts at 1 kg a litre. */
export function edibleG(line: Ingredient): Span | null {
  if (line.amount === null) return null;
  const heft = { gPerMl: line.gPerMl ?? (line.componentId === null && line.part !== 'liquid' ? null : 1), gramsEach: line.gramsEach };
  const low = gramsOf(line.amount.low, line.amount.unit, heft);
  const high = gramsOf(line.amount.high, line.amount.unit, heft);
  if (low === null || high === null) return null;
  return scaleSpan({ low, high }, line.basis === 'purchased' ? (line.edibleShare ?? 1) : 1);
}

/** Litres of a line that go in; null when it cannot be told. Lines without a density count at 1 kg a litre (common practice, good to 5 % for stocks and cooked vegetables). */
export function lineL(line: Ingredient): Span | null {
  if (line.amount === null) return null;
  const heft = { gPerMl: line.gPerMl ?? 1, gramsEach: line.gramsEach };
  const low = millilitresOf(line.amount.low, line.amount.unit, heft);
  const high = millilitresOf(line.amount.high, line.amount.unit, heft);
  return low === null || high === null ? null : scaleSpan({ low, high }, 0.001);
}

/** The middle of a span. */
export function middle(given: Span): number {
  return (given.low + given.high) / 2;
}
