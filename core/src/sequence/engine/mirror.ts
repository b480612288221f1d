import type { Changeover, Job, Lag, LagKind, Problem, Resource } from '../problem';
import { compile } from './compile';
import type { Compiled } from './compile';
import type { Hold } from './units';

/**
 * A day told backwards: minute t is minute `horizonMin` − t, what ends begins, what follows comes before. Laid out as soon as it fits, a day told backwards is one in
 * which everything is as late as it may be. Ready-bys are when a job may begin at the soonest; a job is late when it would have to begin before it may.
 */
export interface Mirror {
  /** For outlines: who takes from whom stands in the inputs alone. */
  readonly compiled: Compiled;
  readonly standing: Standing;
}

/** What it costs, told backwards, that jobs begin later than they might: that they stand ready early. It is reckoned in the kernel (core/assembly/outline.ts). */
export interface Standing {
  readonly horizonMin: number;
  /** Of each job the step it begins with. */
  readonly first: readonly number[];
  /** When it had better begin, and what a minute after that costs; and those it is measured by instead when nobody wants it for itself. */
  readonly from: readonly number[];
  readonly costMin: readonly number[];
  readonly takers: readonly (readonly number[])[];
  /** What it is made of, as far as nobody wants that for itself. */
  readonly parts: readonly (readonly number[])[];
  /** What begins only when a step of a job is over. */
  readonly waiting: readonly (readonly { readonly step: number; readonly job: number }[])[];
}

function standingOf({ jobs, problem }: Compiled, horizonMin: number): Standing {
  return {
    horizonMin,
    first: jobs.map(({ offset, sink }) => offset + sink),
    from: jobs.map(({ job }) => horizonMin - (wantedMin(job) ?? horizonMin) + job.likesEarlyMin),
    // What nobody wants, for itself or for others, may stand.
    costMin: jobs.map(({ job, consumers }) => (job.readyByMin === null && consumers.length === 0 ? 0 : job.earlyWeight * problem.weights.early)),
    takers: jobs.map(({ job, consumers }) => (job.readyByMin === null ? consumers.map((consumer) => consumer.job) : [])),
    parts: jobs.map(({ inputs }) => inputs.flatMap((input) => (jobs[input.job]!.job.readyByMin === null ? [input.job] : []))),
    waiting: jobs.map(({ inputs }) => inputs),
  };
}

/** What stood in a unit, told backwards: washed for after what came after it. */
export function holdsMirrored(list: readonly Hold[], horizonMin: number): readonly Hold[] {
  return list
    .map(({ job, from, to }, at) => {
      const next = list[at + 1];
      const begin = horizonMin - to;
      return {
        job,
        from: begin,
        to: horizonMin - from,
        washFrom: next === undefined ? begin : horizonMin - next.washTo,
        washTo: next === undefined ? begin : horizonMin - next.washFrom,
      };
    })
    .reverse();
}

const TURNED: Readonly<Record<LagKind, LagKind>> = { startStart: 'endEnd', endEnd: 'startStart', startEnd: 'startEnd', endStart: 'endStart' };

/** When a job had better be ready. */
function wantedMin({ readyByMin, bufferMin }: Job): number | null {
  return readyByMin === null ? null : readyByMin - bufferMin;
}

function lagMirrored({ from, to, kind, minMin, maxMin }: Lag): Lag {
  return { from: to, to: from, kind: TURNED[kind], minMin, maxMin };
}

function jobMirrored(job: Job, horizonMin: number): Job {
  return {
    ...job,
    steps: job.steps.map((step) => ({ ...step, afterJobs: [] })),
    lags: job.lags.map(lagMirrored),
    spans: job.spans.map((span) => ({ ...span, from: span.to, to: span.from })),
    releaseMin: horizonMin - (wantedMin(job) ?? horizonMin),
    readyByMin: horizonMin - job.releaseMin,
    lateWeight: 1,
    bufferMin: 0,
  };
}

function resourceMirrored(resource: Resource, horizonMin: number): Resource {
  return { ...resource, windows: resource.windows.map(({ fromMin, toMin, capacity }) => ({ fromMin: horizonMin - toMin, toMin: horizonMin - fromMin, capacity })) };
}

function changeoverMirrored(changeover: Changeover): Changeover {
  return { ...changeover, min: changeover.classes.map((_, from) => changeover.classes.map((__, to) => changeover.min[to]?.[from] ?? 0)) };
}

/** Null where something has happened already or is pinned, or a job has no last step: then the day is not told backwards. */
export function mirrored(forward: Compiled): Mirror | null {
  const { problem, jobs } = forward;
  const horizonMin = problem.jobs.reduce((latest, job) => Math.max(latest, wantedMin(job) ?? 0), 0);
  const canBe = jobs.every(({ job, sink, begun, pinned }) => sink >= 0 && !begun && pinned.every((start) => start < 0) && job.spans.every(({ until }) => until === 'end'));
  if (!canBe || horizonMin === 0) return null;
  const turned: Problem = {
    ...problem,
    horizonMin,
    resources: problem.resources.map((resource) => resourceMirrored(resource, horizonMin)),
    changeovers: problem.changeovers.map(changeoverMirrored),
    jobs: problem.jobs.map((job) => jobMirrored(job, horizonMin)),
  };
  // What is made of something comes first; only the step it goes into must be over.
  const inputs = jobs.map(({ consumers, sink }) => consumers.map(({ job, step }) => ({ step: sink, job, after: step })));
  return { compiled: compile(turned, inputs), standing: standingOf(forward, horizonMin) };
}
