import { violations } from '../sequence/index';
import type { PlacedChangeover, PlacedJob, Problem, Violation } from '../sequence/index';
import { dayBatches } from './dayBatches';
import { dayProblem } from './dayProblem';
import type { DayInput, DayPlan } from './dayPlan';
import { stayingFor, withPeople } from './shift';

/** The plan's batches as the checker wants them. */
export function placedJobsOf(plan: DayPlan): readonly PlacedJob[] {
  return plan.batches.map((batch) => ({ jobId: batch.id, steps: batch.steps, spanUnitIds: batch.vesselId === null ? [] : [batch.vesselId] }));
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
  const unplaced = plan.findings.flatMap((finding) => (finding.code === 'plan.unplaced' || finding.code === 'plan.leftOut' ? [finding.batchId] : []));
  return violations(problem, { jobs: placedJobsOf(plan), unplaced, changeovers: changeoversOf(plan) });
}
