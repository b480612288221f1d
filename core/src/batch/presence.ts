import { weekdayOf } from '../quantity/index';
import type { CalendarDate } from '../quantity/index';
import type { Person, Service, Station, Stretch } from './station';

/** The station as it is on a date: who does not come in on that day of the week is off, and what is not served then is not there. */
export function stationOn(station: Station, date: CalendarDate): Station {
  const weekday = weekdayOf(date);
  const isOn = ({ days }: Pick<Person | Service, 'days'>): boolean => days?.includes(weekday) !== false;
  const { people, services } = station;
  if (people.every(isOn) && services.every(isOn)) return station;
  return { ...station, people: people.map((person) => (isOn(person) ? person : { ...person, off: true })), services: services.filter(isOn) };
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
