import type { DayInput, DayPlan } from './dayPlan';
import { dayBatches } from './dayBatches';
import { dayProblem } from './dayProblem';
import { violations } from './check';
import type { Violation } from './check';

/** Proves a day's plan feasible for its pars, lots and station, or names what it breaks. The server asks this of every plan it is handed. */
export function checkDayPlan(input: DayInput, plan: DayPlan): readonly Violation[] {
  const problem = dayProblem(input, dayBatches(input).wanted);
  const unplaced = plan.findings.flatMap((finding) => (finding.code === 'plan.unplaced' ? [finding.batchId] : []));
  return violations(problem, { jobs: plan.batches.map((batch) => ({ jobId: batch.id, vesselId: batch.vesselId, steps: batch.steps })), unplaced });
}
