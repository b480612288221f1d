import type { Person, Station } from '../batch/index';
import type { DayPlan } from './dayPlan';

/** Who is there until when: by shift, and longer where something stands in a kettle that is not done by then. */

export function shiftEndOf(people: readonly Person[]): number {
  return Math.max(0, ...people.map(({ shift, off = false }) => (off ? 0 : shift.toMin)));
}

/** The same people, whoever would be last to leave staying until then. */
export function staying(people: readonly Person[], untilMin: number): readonly Person[] {
  const last = shiftEndOf(people);
  return people.map((person) => (person.off !== true && person.shift.toMin === last && untilMin > last ? { ...person, shift: { ...person.shift, toMin: untilMin } } : person));
}

/** People as long as a plan needs them. */
export function stayingFor(plan: DayPlan, people: readonly Person[]): readonly Person[] {
  const found = plan.findings.find((finding) => finding.code === 'plan.overtime');
  return found === undefined ? people : staying(people, found.untilMin);
}

export function withPeople<Input extends { readonly station: Station }>(input: Input, people: readonly Person[]): Input {
  return { ...input, station: { ...input.station, people } };
}
