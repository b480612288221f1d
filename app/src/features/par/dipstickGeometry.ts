import type { Need } from '@broth/core';

/** One stretch of the stick, as fractions of its length. */
interface Stretch {
  readonly kind: 'chilled' | 'hot' | 'make';
  readonly from: number;
  readonly to: number;
}

export interface Dipstick {
  readonly stretches: readonly Stretch[];
  /** Where the par mark stands. */
  readonly par: number;
  /** Litres at the far end of the stick. */
  readonly scaleL: number;
}

/** A par as a stick: what is on hand from the left, then what has to be made, with the par as a mark. All sticks of a screen share one scale. */
export function dipstick(need: Need, scaleL: number): Dipstick {
  const full = Math.max(scaleL, need.parL, 1);
  let reachedL = 0;
  const stretches: Stretch[] = [];
  const add = (kind: Stretch['kind'], volumeL: number): void => {
    if (volumeL <= 0) return;
    stretches.push({ kind, from: reachedL / full, to: Math.min(1, (reachedL + volumeL) / full) });
    reachedL += volumeL;
  };
  for (const use of need.uses) if (use.kind === 'counts') add(use.lot.state === 'hot' ? 'hot' : 'chilled', use.takenL);
  add('make', need.needL);
  return { stretches, par: need.parL / full, scaleL: full };
}
