import type { Job, PlacedJob, Problem, Sequence } from './problem';

/**
 * Proves a sequence feasible or names what it breaks. Written apart from the scheduler and sharing none of its code, so that a mistake
 * there cannot hide here: everything is worked out again from the problem's own data.
 */

export type Violation =
  | { readonly code: 'job.missing'; readonly jobId: string }
  | { readonly code: 'job.twice'; readonly jobId: string }
  | { readonly code: 'steps.wrong'; readonly jobId: string }
  | { readonly code: 'step.duration'; readonly jobId: string; readonly stepId: string; readonly isMin: number; readonly shouldMin: number }
  | { readonly code: 'step.order'; readonly jobId: string; readonly stepId: string }
  | { readonly code: 'step.wait'; readonly jobId: string; readonly stepId: string; readonly waitedMin: number; readonly maxWaitMin: number }
  | { readonly code: 'step.release'; readonly jobId: string }
  | { readonly code: 'step.horizon'; readonly jobId: string; readonly stepId: string }
  | { readonly code: 'step.moved'; readonly jobId: string; readonly stepId: string }
  | { readonly code: 'step.beforeInput'; readonly jobId: string; readonly stepId: string; readonly inputId: string }
  | { readonly code: 'resource.unknown'; readonly jobId: string; readonly stepId: string; readonly resourceId: string }
  | { readonly code: 'resource.over'; readonly resourceId: string; readonly atMin: number; readonly used: number; readonly capacity: number }
  | { readonly code: 'vessel.wrong'; readonly jobId: string; readonly vesselId: string | null }
  | { readonly code: 'vessel.volume'; readonly jobId: string; readonly vesselId: string; readonly volumeL: number }
  | { readonly code: 'vessel.clash'; readonly vesselId: string; readonly jobId: string; readonly otherJobId: string; readonly missingMin: number };

function checkSteps(problem: Problem, job: Job, placed: PlacedJob, endOf: ReadonlyMap<string, number>): Violation[] {
  if (job.steps.length !== placed.steps.length || job.steps.some((step, index) => placed.steps[index]?.stepId !== step.id)) return [{ code: 'steps.wrong', jobId: job.id }];
  const found: Violation[] = [];
  for (let index = 0; index < job.steps.length; index += 1) {
    const step = job.steps[index];
    const at = placed.steps[index];
    if (step === undefined || at === undefined) continue;
    const named = { jobId: job.id, stepId: step.id };
    if (step.frozen !== null) {
      if (step.frozen.startMin !== at.startMin || step.frozen.endMin !== at.endMin) found.push({ code: 'step.moved', ...named });
      continue;
    }
    if (at.endMin - at.startMin !== step.durationMin) found.push({ code: 'step.duration', ...named, isMin: at.endMin - at.startMin, shouldMin: step.durationMin });
    if (at.startMin < job.releaseMin) found.push({ code: 'step.release', jobId: job.id });
    if (at.endMin > problem.horizonMin) found.push({ code: 'step.horizon', ...named });
    for (const inputId of step.afterJobs) {
      const inputEnd = endOf.get(inputId);
      if (inputEnd !== undefined && at.startMin < inputEnd) found.push({ code: 'step.beforeInput', ...named, inputId });
    }
    const previous = placed.steps[index - 1];
    const previousStep = job.steps[index - 1];
    if (previous === undefined || previousStep === undefined) continue;
    if (at.startMin < previous.endMin) found.push({ code: 'step.order', ...named });
    const { maxWaitMin } = previousStep;
    const waitedMin = at.startMin - previous.endMin;
    if (maxWaitMin !== null && waitedMin > maxWaitMin && previousStep.frozen === null) found.push({ code: 'step.wait', ...named, waitedMin, maxWaitMin });
  }
  return found;
}

interface Load {
  readonly fromMin: number;
  readonly toMin: number;
  readonly units: number;
  readonly frozen: boolean;
}

/** Capacity is checked only where something starts or a window opens or closes: between those points nothing rises or falls against us. */
function checkResources(problem: Problem, pairs: readonly (readonly [Job, PlacedJob])[]): Violation[] {
  const found: Violation[] = [];
  const loads = new Map<string, Load[]>(problem.resources.map((resource) => [resource.id, []]));
  for (const [job, placed] of pairs) {
    for (const step of job.steps) {
      const at = placed.steps.find((candidate) => candidate.stepId === step.id);
      if (at === undefined) continue;
      for (const use of step.uses) {
        const list = loads.get(use.resourceId);
        if (list === undefined) found.push({ code: 'resource.unknown', jobId: job.id, stepId: step.id, resourceId: use.resourceId });
        else list.push({ fromMin: at.startMin, toMin: at.endMin, units: use.units, frozen: step.frozen !== null });
      }
    }
  }
  for (const resource of problem.resources) {
    const list = loads.get(resource.id) ?? [];
    const points = new Set([...list.map((load) => load.fromMin), ...resource.windows.flatMap((window) => [window.fromMin, window.toMin])]);
    for (const atMin of points) {
      const running = list.filter((load) => load.fromMin <= atMin && atMin < load.toMin);
      const used = running.reduce((sum, load) => sum + load.units, 0);
      const capacity =
        resource.windows.length === 0
          ? resource.capacity
          : resource.windows.reduce((sum, window) => sum + (window.fromMin <= atMin && atMin < window.toMin ? window.capacity : 0), 0);
      // Work that has already happened may have been more than the plan allows; that is the day's affair, not the plan's.
      if (used > capacity && running.some((load) => !load.frozen)) found.push({ code: 'resource.over', resourceId: resource.id, atMin, used, capacity });
    }
  }
  return found;
}

interface Occupation {
  readonly job: Job;
  readonly fromMin: number;
  readonly toMin: number;
  readonly frozen: boolean;
}

function checkVessels(problem: Problem, pairs: readonly (readonly [Job, PlacedJob])[]): Violation[] {
  const found: Violation[] = [];
  const byVessel = new Map<string, Occupation[]>();
  for (const [job, placed] of pairs) {
    if (job.span === null) continue;
    const vessel = problem.vessels.find((candidate) => candidate.id === placed.vesselId);
    if (vessel === undefined || !job.span.vesselIds.includes(vessel.id)) {
      found.push({ code: 'vessel.wrong', jobId: job.id, vesselId: placed.vesselId });
      continue;
    }
    const frozen = job.steps[job.span.firstStep]?.frozen !== null;
    if (!frozen && (job.volumeL < vessel.minFillL || job.volumeL > vessel.workingMaxL))
      found.push({ code: 'vessel.volume', jobId: job.id, vesselId: vessel.id, volumeL: job.volumeL });
    const fromMin = placed.steps[job.span.firstStep]?.startMin ?? 0;
    const toMin = placed.steps[job.span.lastStep]?.endMin ?? 0;
    byVessel.set(vessel.id, [...(byVessel.get(vessel.id) ?? []), { job, fromMin, toMin, frozen }]);
  }
  for (const [vesselId, occupations] of byVessel) {
    const inOrder = occupations.sort((left, right) => left.fromMin - right.fromMin);
    for (let index = 1; index < inOrder.length; index += 1) {
      const before = inOrder[index - 1];
      const after = inOrder[index];
      if (before === undefined || after === undefined || (before.frozen && after.frozen)) continue;
      const carriesOver = before.job.allergens.some((allergen) => !after.job.allergens.includes(allergen));
      const missingMin = before.toMin + (carriesOver ? problem.fullWashMin : problem.rinseMin) - after.fromMin;
      if (missingMin > 0) found.push({ code: 'vessel.clash', vesselId, jobId: after.job.id, otherJobId: before.job.id, missingMin });
    }
  }
  return found;
}

/** Everything a sequence breaks; an empty list is the proof that it can be cooked as it stands. Lateness is no violation. */
export function violations(problem: Problem, sequence: Pick<Sequence, 'jobs' | 'unplaced'>): readonly Violation[] {
  const found: Violation[] = [];
  const pairs: (readonly [Job, PlacedJob])[] = [];
  const endOf = new Map(sequence.jobs.map((placed) => [placed.jobId, placed.steps.at(-1)?.endMin ?? 0]));
  for (const job of problem.jobs) {
    const placings = sequence.jobs.filter((placed) => placed.jobId === job.id);
    const [placed] = placings;
    if (placed === undefined) {
      if (!sequence.unplaced.includes(job.id)) found.push({ code: 'job.missing', jobId: job.id });
      continue;
    }
    if (placings.length > 1) found.push({ code: 'job.twice', jobId: job.id });
    pairs.push([job, placed]);
    found.push(...checkSteps(problem, job, placed, endOf));
  }
  for (const placed of sequence.jobs) if (!problem.jobs.some((job) => job.id === placed.jobId)) found.push({ code: 'steps.wrong', jobId: placed.jobId });
  return [...found, ...checkResources(problem, pairs), ...checkVessels(problem, pairs)];
}
