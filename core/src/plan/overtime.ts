import type { Station } from '../batch/index';
import { startSolving } from '../sequence/index';
import type { Problem } from '../sequence/index';
import type { DayInput, DayPlan } from './dayPlan';

/** What stands in a kettle is not left alone when the shift is over: whoever would be last to leave stays until it is done. */

const LONGEST_MIN = 12 * 60;
const STEP_MIN = 5;

export function shiftEndOf(station: Station): number {
  return Math.max(0, ...station.people.map(({ shift }) => shift.toMin));
}

/** The station with those who would be last to leave staying until then. */
export function staying(station: Station, untilMin: number): Station {
  const last = shiftEndOf(station);
  return {
    ...station,
    people: station.people.map((person) => (person.shift.toMin === last && untilMin > last ? { ...person, shift: { ...person.shift, toMin: untilMin } } : person)),
  };
}

/** The same, as a plan says it. */
export function stayingFor(input: DayInput, plan: DayPlan): DayInput {
  const found = plan.findings.find((finding) => finding.code === 'plan.overtime');
  return found === undefined ? input : { ...input, station: staying(input.station, found.untilMin) };
}

/** Until when somebody must stay so that these jobs, with what they still wait for, can be finished; null = even half a day would not do. */
export function stayUntil(input: DayInput, jobIds: readonly string[], problemOf: (input: DayInput) => Problem): number | null {
  const begin = Math.max(shiftEndOf(input.station), input.nowMin);
  for (let moreMin = STEP_MIN; moreMin <= LONGEST_MIN; moreMin += STEP_MIN) {
    const problem = problemOf({ ...input, station: staying(input.station, begin + moreMin) });
    const wanted = new Set<string>();
    const take = (id: string): void => {
      if (wanted.has(id)) return;
      wanted.add(id);
      for (const step of problem.jobs.find((job) => job.id === id)?.steps ?? []) if (step.fixed?.kind !== 'done') step.afterJobs.forEach(take);
    };
    jobIds.forEach(take);
    const alone = { ...problem, jobs: problem.jobs.filter((job) => wanted.has(job.id) || job.steps.some((step) => step.fixed?.kind === 'done')) };
    const { unplaced } = startSolving(alone, { seed: 1 }).sequence();
    if (jobIds.every((id) => !unplaced.includes(id))) return begin + moreMin;
  }
  return null;
}
