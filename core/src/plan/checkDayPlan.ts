import { violations } from '../sequence/index';
import type { PlacedChangeover, PlacedJob, Problem, Violation } from '../sequence/index';
import { inGoes } from './cutting';
import { dayBatches } from './dayBatches';
import { dayProblem } from './dayProblem';
import { unplacedIn } from './dayPlan';
import type { DayInput, DayPlan } from './dayPlan';
import { stayingFor, withPeople } from './shift';

/** The plan's batches as the checker wants them: with the steps their jobs have. */
export function placedJobsOf(plan: DayPlan, problem: Problem): readonly PlacedJob[] {
  return inGoes(
    problem,
    plan.batches.map(({ id, steps, vesselId }) => ({ jobId: id, steps, spanUnitIds: vesselId === null ? [] : [vesselId] })),
  );
}

/** Its washes, likewise. */
export function changeoversOf(plan: DayPlan): readonly PlacedChangeover[] {
  return plan.washes.map((wash) => ({ unitId: wash.unitId, fromJobId: wash.afterBatchId, toJobId: wash.beforeBatchId, startMin: wash.startMin, endMin: wash.endMin }));
}

/** The problem a plan is an answer to: with its pins, its batches and who stays for it. */
export function problemOf(input: DayInput, plan: DayPlan): Problem {
  const asked = { ...withPeople(input, stayingFor(plan, input.station.people)), splits: plan.splits, agreed: plan };
  return dayProblem(asked, dayBatches(asked).wanted, plan.pins);
}

/** Proves a plan for its input, or names what it breaks. The server asks this of every plan it is handed. */
export function checkDayPlan(input: DayInput, plan: DayPlan): readonly Violation[] {
  const problem = problemOf(input, plan);
  return violations(problem, { jobs: placedJobsOf(plan, problem), unplaced: unplacedIn(plan), changeovers: changeoversOf(plan) });
}

/**
 * Whether what is still to come of a plan has, at the station as it is now, the hands, kettles, blenders, oven and places it was made with: somebody may be off since,
 * or a kettle measured again. What has happened meanwhile is no fault of it.
 */
export function fitsStation(input: DayInput, plan: DayPlan): boolean {
  const asPlanned = { ...input, started: [], nowMin: 0 };
  const begun = new Set(input.started.map(({ batchId }) => batchId));
  const problem = problemOf(asPlanned, plan);
  return violations(problem, { jobs: placedJobsOf(plan, problem), unplaced: [], changeovers: changeoversOf(plan) }).every((found) => {
    if (found.code === 'resource.over' || found.code === 'resource.excluded') return found.atMin < input.nowMin;
    return (found.code !== 'unit.wrong' && found.code !== 'unit.volume') || begun.has(found.jobId);
  });
}
