import type { Person, Stretch } from './station';

/** The shift without breaks and without the times somebody is gone, in order; nothing on a day off. */
export function presentMin({ shift, breaks = [], away = [], off = false }: Person): readonly Stretch[] {
  if (off) return [];
  return [...breaks, ...away].reduce<readonly Stretch[]>(
    (stretches, gone) =>
      stretches
        .flatMap(({ fromMin, toMin }) => [
          { fromMin, toMin: Math.min(toMin, gone.fromMin) },
          { fromMin: Math.max(fromMin, gone.toMin), toMin },
        ])
        .filter(({ fromMin, toMin }) => fromMin < toMin),
    shift.fromMin < shift.toMin ? [shift] : [],
  );
}

/** When the first of these people is there; infinity when nobody is. */
export function firstThereMin(people: readonly Person[]): number {
  return Math.min(...people.flatMap(presentMin).map(({ fromMin }) => fromMin));
}
