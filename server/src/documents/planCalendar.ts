import { addMinutes } from '@broth/core';
import ical from 'ical-generator';
import type { RunLine } from './runSheet';

interface Basis {
  readonly lines: readonly RunLine[];
  readonly midnight: number;
  readonly name: string;
  readonly day: string;
  /** When the plan was accepted: the calendar's own time stamp. */
  readonly stamp: number;
}

/** A day's plan as iCalendar (RFC 5545): one event a line, in UTC, so that it is right in every calendar. */
export function planCalendar({ lines, midnight, name, day, stamp }: Basis): string {
  const calendar = ical({ name, prodId: { company: 'Broth Board', product: 'Plan' } });
  for (const line of lines) {
    calendar.createEvent({
      id: `${day}.${line.batch}.${line.key}`.replaceAll(/[^A-Za-z0-9.]+/g, '-').slice(0, 200),
      start: new Date(addMinutes(midnight, line.startMin)),
      end: new Date(addMinutes(midnight, line.endMin)),
      stamp: new Date(stamp),
      summary: `${line.batch}: ${line.what}`,
      location: line.place,
      description: [
        line.person === '' ? '' : `Hands: ${line.person}`,
        line.litres === null ? '' : `${String(line.litres)} L`,
        line.check === '' ? '' : `Done when: ${line.check}`,
        line.caution,
      ]
        .filter((one) => one !== '')
        .join('\n'),
    });
  }
  return calendar.toString();
}
