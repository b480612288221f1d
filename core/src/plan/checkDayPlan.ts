import { violations } from '../sequence/index';
import type { PlacedChangeover, PlacedJob, Problem, Violation } from '../sequence/index';
import { inGoes } from './cutting';
import { dayBatches } from './dayBatches';
import type { WantedBatch } from './dayBatches';
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

/** What a plan is an answer to: its batches, and the problem with its pins and who stays for it. */
function askedOf(input: DayInput, plan: DayPlan): { readonly wanted: readonly WantedBatch[]; readonly problem: Problem } {
  const asked = { ...withPeople(input, stayingFor(plan, input.station.people)), splits: plan.splits, agreed: plan };
  const { wanted } = dayBatches(asked);
  return { wanted, problem: dayProblem(asked, wanted, plan.pins) };
}

export function problemOf(input: DayInput, plan: DayPlan): Problem {
  return askedOf(input, plan).problem;
}

/** Proves a plan for its input, or names what it breaks. The server asks this of every plan it is handed. */
export function checkDayPlan(input: DayInput, plan: DayPlan): readonly Violation[] {
  const problem = problemOf(input, plan);
  return violations(problem, { jobs: placedJobsOf(plan, problem), unplaced: unplacedIn(plan), changeovers: changeoversOf(plan) });
}

/**
 * Whether a plan has its soups ready for the services they are wanted at now: the first of each as soon as then, and none for another. When later batches are wanted
 * goes by what there is of the soup, and is no matter of the station.
 */
function isForServices(plan: DayPlan, wanted: readonly WantedBatch[], { jobs }: Problem): boolean {
  const now = new Map(wanted.map(({ id, serviceId }, index) => [id, { serviceId, readyByMin: jobs[index]?.readyByMin ?? null }]));
  const first = new Map<string, { planned: number; asked: number }>();
  for (const { id, serviceId, readyByMin } of plan.batches) {
    const asked = now.get(id);
    if (asked === undefined || serviceId === null || readyByMin === null) continue;
    if (asked.serviceId !== serviceId || asked.readyByMin === null) return false;
    const known = first.get(serviceId) ?? { planned: readyByMin, asked: asked.readyByMin };
    first.set(serviceId, { planned: Math.min(known.planned, readyByMin), asked: Math.min(known.asked, asked.readyByMin) });
  }
  return [...first.values()].every(({ planned, asked }) => planned === asked);
}

/**
 * Whether what is still to come of a plan has, at the station as it is now, the hands, kettles, blenders, oven and places it was made with: somebody may be off since,
 * or a kettle measured again, and the services its soups are wanted at. What has happened meanwhile is no fault of it.
 */
export function fitsStation(input: DayInput, plan: DayPlan): boolean {
  const asPlanned = { ...input, started: [], nowMin: 0 };
  const begun = new Set(input.started.map(({ batchId }) => batchId));
  const { wanted, problem } = askedOf(asPlanned, plan);
  if (!isForServices(plan, wanted, problem)) return false;
  return violations(problem, { jobs: placedJobsOf(plan, problem), unplaced: [], changeovers: changeoversOf(plan) }).every((found) => {
    if (found.code === 'resource.over' || found.code === 'resource.excluded') return found.atMin < input.nowMin;
    return (found.code !== 'unit.wrong' && found.code !== 'unit.volume') || begun.has(found.jobId);
  });
}
