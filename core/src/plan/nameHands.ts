import { byId } from '../quantity/index';
import { presentMin } from '../batch/index';
import type { Person } from '../batch/index';
import { stretchesOf } from './cutting';
import type { DayPlan } from './dayPlan';
import { HANDS_ID, UNITS_PER_PERSON } from './hands';
import { stayingFor } from './shift';

/** A step of the plan, or one go of it, with whoever has hands for it. */
export interface NamedStep {
  readonly batchId: string;
  readonly batchName: string;
  readonly stepId: string;
  readonly startMin: number;
  readonly endMin: number;
  readonly units: number;
  /** null = the pool has hands for it, but no single person: it is handed over, or shared. */
  readonly personId: string | null;
}

interface Load {
  readonly person: Person;
  readonly busy: { readonly startMin: number; readonly endMin: number; readonly units: number; readonly batchId: string }[];
}

/** The most units a person has in hand at once in a stretch. */
function peak(load: Load, startMin: number, endMin: number): number {
  const meets = load.busy.filter((one) => one.startMin < endMin && one.endMin > startMin);
  return Math.max(
    0,
    ...[startMin, ...meets.map((one) => one.startMin)].map((at) => meets.filter((one) => one.startMin <= at && one.endMin > at).reduce((sum, one) => sum + one.units, 0)),
  );
}

/**
 * Names for the hands of a plan: the pool the planner counts with, given to people by shift. Steps in order of their start, the heaviest first; each goes to
 * somebody who is free for it, rather to who is on that batch already, else to who has had least. Deterministic.
 */
export function nameHands(plan: DayPlan, people: readonly Person[]): readonly NamedStep[] {
  const loads: readonly Load[] = stayingFor(plan, people).map((person) => ({ person, busy: [] }));
  const steps = plan.batches
    .flatMap((batch) =>
      batch.steps.flatMap((step) => {
        const units = step.uses.find((use) => use.resourceId === HANDS_ID)?.units ?? 0;
        const at = { batchId: batch.id, batchName: batch.name, stepId: step.stepId };
        return units === 0 ? [] : stretchesOf(step).map(({ startMin, endMin }) => ({ ...at, startMin, endMin, units }));
      }),
    )
    .sort((left, right) => left.startMin - right.startMin || right.units - left.units || byId(left.batchId, right.batchId));
  return steps.map((step): NamedStep => {
    const able = loads.filter(
      ({ person, busy }) =>
        presentMin(person).some(({ fromMin, toMin }) => fromMin <= step.startMin && step.endMin <= toMin) &&
        peak({ person, busy }, step.startMin, step.endMin) + step.units <= UNITS_PER_PERSON,
    );
    const worked = (load: Load): number => load.busy.reduce((sum, one) => sum + (one.endMin - one.startMin) * one.units, 0);
    const onIt = (load: Load): number => (load.busy.some((one) => one.batchId === step.batchId) ? 0 : 1);
    const [picked] = [...able].sort((left, right) => onIt(left) - onIt(right) || worked(left) - worked(right) || byId(left.person.id, right.person.id));
    picked?.busy.push(step);
    return { ...step, personId: picked?.person.id ?? null };
  });
}
