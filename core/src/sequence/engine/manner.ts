import type { Random } from '../random';

/**
 * How often what is laid out anew is so in the plain manner; else how often those who are in get out in the order there was, how many partial plans with the same laid
 * out go on where they are few, and what part counts where it is a part. Choices of the search.
 */
const PLAINLY = 0.5;
const AS_IT_WAS = 0.4;
const FEW = 4;
const PART = 0.5;

/** How partial plans look ahead, and which of them go on. */
export interface Manner {
  /** Those who are in get out in the order there was, instead of by how urgent their next is. */
  readonly isAsItWas: boolean;
  /** How much of its own minutes counts in how urgent something is, beside by when it must begin: from nothing to all. */
  readonly share: number;
  /** What is washed for the piece after the next is washed before the next. */
  readonly washesFirst: boolean;
  /** What part of what it costs more that everybody gets out counts. Nobody is given up for what counts in part. */
  readonly part: number;
  /** How many go on that have the same items laid out. */
  readonly alike: number;
}

/** By when each must begin, washed for when its turn comes, and the cheapest go on whatever they have laid out. */
export const PLAIN: Manner = { isAsItWas: false, share: 0, washesFirst: false, part: 1, alike: Number.POSITIVE_INFINITY };

/** The plain one, which is best at first, or any other: each misses what another finds. */
export function anyManner(random: Random): Manner {
  if (random() < PLAINLY) return PLAIN;
  return {
    share: random(),
    isAsItWas: random() < AS_IT_WAS,
    washesFirst: random() < 0.5,
    part: random() < 0.5 ? PART : 1,
    alike: random() < 0.5 ? FEW : Number.POSITIVE_INFINITY,
  };
}
