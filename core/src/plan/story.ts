import { Explained, Replay, boundOf } from '../sequence/index';
import { changeoversOf, placedJobsOf, problemOf } from './checkDayPlan';
import { MOST_SLACK_MIN } from './dayPlan';
import type { DayInput, DayPlan, PlanStory } from './dayPlan';

/** Days that are played through for a chance: enough for two in a hundred at 95 %. */
const DAYS = 2000;

/** A finished plan in facts: slack, what holds each batch up, its chance to be in time. */
export function storyOf(input: DayInput, plan: DayPlan): PlanStory {
  const problem = problemOf(input, plan);
  const known = new Set(problem.jobs.map((job) => job.id));
  const sequence = {
    jobs: placedJobsOf(plan, problem).filter((job) => known.has(job.jobId)),
    changeovers: changeoversOf(plan).filter((wash) => known.has(wash.fromJobId) && known.has(wash.toJobId)),
  };
  const explained = new Explained(problem, sequence);
  const replay = new Replay(problem, sequence);
  const onTime = replay.onTime(DAYS, 1);
  return {
    batches: plan.batches
      .filter((batch) => known.has(batch.id))
      .map((batch) => ({
        batchId: batch.id,
        slackMin: replay.slackMin(batch.id, MOST_SLACK_MIN),
        binding: explained.bindingOf(batch.id),
        chance: onTime.chanceByJob.get(batch.id) ?? null,
      })),
    chanceOfAll: onTime.chanceOfAll,
    lateMin: plan.objective.lateMin,
    leastLateMin: boundOf(problem).lateMin,
  };
}
