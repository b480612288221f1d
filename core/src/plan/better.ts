import type { DayPlan } from './dayPlan';

/** Whether one plan of a day is better than another of the same batches: first by what finds a place, then by what is late, then by all the rest. */
export function isBetter(one: DayPlan, other: DayPlan): boolean {
  const unplaced = (plan: DayPlan): number => plan.findings.filter((found) => found.code === 'plan.unplaced').length;
  const [left, right] = [one, other].map((plan) => [unplaced(plan), plan.objective.lateMin, plan.objective.cost]);
  const at = left?.findIndex((value, index) => value !== right?.[index]) ?? -1;
  return at >= 0 && (left?.[at] ?? 0) < (right?.[at] ?? 0);
}
