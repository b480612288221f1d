import { startSolving } from '../sequence/index';
import type { Problem } from '../sequence/index';
import type { DayInput } from './dayPlan';
import { shiftEndOf, staying, withPeople } from './shift';

/** What stands in a kettle is not left alone when the shift is over: somebody stays until it is done. */

const LONGEST_MIN = 12 * 60;
const STEP_MIN = 5;

/** Until when somebody must stay so that these jobs, with what they still wait for, can be finished; null = even half a day would not do. */
export function stayUntil(input: DayInput, jobIds: readonly string[], problemOf: (input: DayInput) => Problem): number | null {
  const { people } = input.station;
  const beginMin = Math.max(shiftEndOf(people), input.nowMin);
  const canEnd = (moreMin: number): boolean => {
    const problem = problemOf(withPeople(input, staying(people, beginMin + moreMin)));
    const wanted = new Set<string>();
    const take = (id: string): void => {
      if (wanted.has(id)) return;
      wanted.add(id);
      for (const step of problem.jobs.find((job) => job.id === id)?.steps ?? []) if (step.fixed?.kind !== 'done') step.afterJobs.forEach(take);
    };
    jobIds.forEach(take);
    const alone = { ...problem, jobs: problem.jobs.filter((job) => wanted.has(job.id) || job.steps.some((step) => step.fixed?.kind === 'done')) };
    const { unplaced } = startSolving(alone, { seed: 1 }).sequence();
    return jobIds.every((id) => !unplaced.includes(id));
  };
  if (!canEnd(LONGEST_MIN)) return null;
  // The longer somebody stays the more fits: halved until the shortest that does.
  let [short, enough] = [0, LONGEST_MIN / STEP_MIN];
  while (enough - short > 1) {
    const middle = Math.floor((short + enough) / 2);
    if (canEnd(middle * STEP_MIN)) enough = middle;
    else short = middle;
  }
  return beginMin + enough * STEP_MIN;
}
