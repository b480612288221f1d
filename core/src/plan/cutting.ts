import type { Step } from '../soup/index';
import type { Job, JobStep, Lag, Mode, PlacedJob, PlacedStep, Problem } from '../sequence/index';
import type { DayInput, PlannedStep, StartedStep } from './dayPlan';

/**
 * Cutting that may be put down for something else and taken up again: to the sequence it is several goes, each a step of its own with nothing but an order between
 * them; to everybody else one step that may have a pause in it.
 */

/** Nobody takes up a knife for less, or puts down the same work more often. Design choices. */
const SHORTEST_GO_MIN = 10;
const MOST_GOES = 3;
/** Between the id of a step and which go of it. The last go has the step's own. */
const GO = '~';

/** So long somebody is at it without a pause. */
export type Stretch = Pick<PlacedStep, 'startMin' | 'endMin'>;

export function stepIdOf(goId: string): string {
  return goId.split(GO)[0] ?? goId;
}

/** When somebody is at a step. */
export function stretchesOf(step: Stretch & Pick<PlannedStep, 'parts'>): readonly Stretch[] {
  return step.parts ?? [step];
}

/** The day with nothing put down. */
export function inOneGo(input: DayInput): DayInput {
  return input.station.interruptsCutting === true ? { ...input, station: { ...input.station, interruptsCutting: false } } : input;
}

function lengthsOf(durationMin: number): readonly number[] {
  const goes = Math.max(1, Math.min(MOST_GOES, Math.floor(durationMin / SHORTEST_GO_MIN)));
  const until = (go: number): number => Math.round((durationMin * go) / goes);
  return Array.from({ length: goes }, (_, go) => until(go + 1) - until(go));
}

function isCutting(step: Step): boolean {
  return step.phase === 'prep' && step.attention === 'hands' && step.place.kind === 'bench' && !step.id.includes(GO);
}

/** Of cutting that is under way, the goes that have begun by the plan people work by; null where that has it in one go. */
function begunGoes(parts: readonly Stretch[] | undefined, record: StartedStep, nowMin: number): Stretch[] | null {
  const [first, ...later] = parts ?? [];
  if (first === undefined || record.endMin !== null) return null;
  return [{ startMin: record.startMin, endMin: record.startMin + first.endMin - first.startMin }, ...later.filter(({ startMin }) => startMin < nowMin)];
}

/** What is known of a step besides itself. */
interface Known {
  /** What of it has happened, if anything. */
  readonly record: StartedStep | undefined;
  /** How it is cut up in the plan people work by. */
  readonly parts: readonly Stretch[] | undefined;
  readonly nowMin: number;
}

/** The goes a step may be done in; itself where it is no cutting, somebody has put it where it is, or it is under way in one go. */
export function goesOf(step: Step, own: JobStep, { record, parts, nowMin }: Known): readonly JobStep[] {
  const [mode, ...others] = own.modes;
  if (mode === undefined || others.length > 0 || !isCutting(step) || own.fixed?.kind === 'pinned') return [own];
  const begun = record === undefined ? [] : begunGoes(parts, record, nowMin);
  if (begun === null) return [own];
  const wholeMin = mode.durationMin + (record?.extendedMin ?? 0);
  const workedMin = begun.reduce((sum, { startMin, endMin }) => sum + endMin - startMin, 0);
  const last = begun.at(-1);
  const isLastGo = begun.length === parts?.length || workedMin >= wholeMin;
  if (last !== undefined && isLastGo) {
    // All of it has begun: the last go takes what the others have left, or ends in the next minute.
    const leftMin = wholeMin - (workedMin - (last.endMin - last.startMin));
    begun.splice(-1, 1, { startMin: last.startMin, endMin: Math.max(last.startMin + leftMin, nowMin + 1) });
  }
  const lengths = [...begun.map(({ startMin, endMin }) => endMin - startMin), ...(isLastGo ? [] : lengthsOf(wholeMin - workedMin))];
  if (lengths.length === 1) return [own];
  // What may be quicker or slower is the whole: the last go has all of that.
  const spreadOf = ([low, high]: readonly [number, number], lastMin: number): readonly [number, number] => {
    const before = mode.durationMin - lastMin;
    return [Math.max(1, low - before), Math.max(1, high - before)];
  };
  return lengths.map((durationMin, go): JobStep => {
    const isLast = go === lengths.length - 1;
    const { spreadMin: spread, ...rest } = mode;
    const done = begun[go];
    const way: Mode = { ...rest, durationMin, ...(spread === undefined ? {} : { spreadMin: isLast ? spreadOf(spread, durationMin) : ([durationMin, durationMin] as const) }) };
    return {
      ...own,
      id: isLast ? own.id : `${own.id}${GO}${String(go + 1)}`,
      modes: [way],
      afterJobs: go === 0 ? own.afterJobs : [],
      fixed: done === undefined ? null : { kind: 'done', ...done },
    };
  });
}

/** What is cut first waits no longer for what comes next than if all were cut in one go. */
export function goLags(goes: readonly JobStep[], next: JobStep | undefined, maxWaitMin: number | null): readonly Lag[] {
  const [first, ...later] = goes;
  if (first === undefined || later.length === 0 || next === undefined || maxWaitMin === null || next.fixed?.kind === 'done') return [];
  const wholeMin = goes.reduce((sum, { modes }) => sum + (modes[0]?.durationMin ?? 0), 0);
  return [{ from: first.id, to: next.id, kind: 'startStart', minMin: 0, maxMin: wholeMin + maxWaitMin }];
}

/** The goes of each step put together: one step, with its stretches where there is a pause in it. */
export function wholeSteps(steps: readonly PlacedStep[]): readonly { readonly first: number; readonly last: number; readonly parts: readonly Stretch[] }[] {
  const whole: { first: number; last: number; parts: Stretch[] }[] = [];
  steps.forEach(({ stepId, startMin, endMin }, at) => {
    const open = whole.at(-1);
    const before = steps[at - 1];
    if (open === undefined || before === undefined || stepIdOf(before.stepId) !== stepIdOf(stepId)) {
      whole.push({ first: at, last: at, parts: [{ startMin, endMin }] });
      return;
    }
    const part = open.parts.at(-1);
    if (part !== undefined && part.endMin >= startMin) open.parts.splice(-1, 1, { startMin: part.startMin, endMin });
    else open.parts.push({ startMin, endMin });
    open.last = at;
  });
  return whole;
}

/** A step of a plan as the goes its job has; as it is where it has but one. What does not come out even keeps to the plan's own stretches. */
function asGoes(step: PlacedStep & Pick<PlannedStep, 'parts'>, job: Job | undefined): readonly PlacedStep[] {
  const goes = job?.steps.filter(({ id }) => stepIdOf(id) === step.stepId) ?? [];
  if (goes.length < 2) return [step];
  const stretches = [...stretchesOf(step)];
  let at = 0;
  let fromMin = step.startMin;
  return goes.map(({ id, modes: [mode] }, go): PlacedStep => {
    const stretch = stretches[at] ?? step;
    const isLast = go === goes.length - 1;
    const startMin = Math.max(fromMin, stretch.startMin);
    const endMin = isLast ? (stretches[at] ?? step).endMin : Math.min(stretch.endMin, startMin + (mode?.durationMin ?? 0));
    fromMin = endMin;
    if (endMin >= stretch.endMin && at < stretches.length - 1) at += 1;
    return { stepId: id, modeId: step.modeId, unitId: step.unitId, startMin, endMin };
  });
}

/** Jobs that were placed, each step in the goes its job has by the problem. */
export function inGoes(problem: Problem, placed: readonly PlacedJob[]): readonly PlacedJob[] {
  const jobById = new Map(problem.jobs.map((job) => [job.id, job]));
  return placed.map((job) => ({ ...job, steps: job.steps.flatMap((step) => asGoes(step, jobById.get(job.jobId))) }));
}
