import { weekdayOf } from '../quantity/index';
import type { CalendarDate } from '../quantity/index';
import type { Person, Station, Stretch } from './station';

/** The station as it is on a date: who does not come in on that day of the week is off. */
export function stationOn(station: Station, date: CalendarDate): Station {
  const weekday = weekdayOf(date);
  const comes = ({ days }: Person): boolean => days?.includes(weekday) !== false;
  return station.people.every(comes) ? station : { ...station, people: station.people.map((person) => (comes(person) ? person : { ...person, off: true })) };
}

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
