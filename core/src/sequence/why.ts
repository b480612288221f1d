import { changeoverMin, endOf, rivalsOf } from './problem';
import type { Job, PlacedJob, PlacedStep, Problem, Sequence } from './problem';

/** Why things stand where they stand: what was not free a minute sooner. */

export interface Blocker {
  /**
   * unit = a kettle or a blender; resource = hands or trays; excluded = a resource that must not be in use meanwhile; input = a job whose product it takes; release =
   * it may not begin sooner; pin = somebody wants it there.
   */
  readonly kind: 'unit' | 'resource' | 'excluded' | 'input' | 'release' | 'pin';
  readonly id: string;
  /** Jobs that have it then, and until when. */
  readonly byJobIds: readonly string[];
  readonly fromMin: number;
  readonly toMin: number;
}

interface Stay {
  readonly unitId: string;
  readonly jobId: string;
  readonly fromMin: number;
  readonly toMin: number;
}

/** What a step, or a wash before a job, takes of a resource. */
interface Load {
  readonly jobId: string;
  /** null = a wash. */
  readonly stepId: string | null;
  readonly fromMin: number;
  readonly toMin: number;
  readonly units: number;
}

/** All a question about a finished sequence needs, gathered once. */
export class Explained {
  private readonly problem: Problem;
  private readonly placed: ReadonlyMap<string, PlacedJob>;
  private readonly job: ReadonlyMap<string, Job>;
  private readonly stays: readonly Stay[];
  private readonly loadsOf: ReadonlyMap<string, readonly Load[]>;
  private readonly rivals: readonly (readonly number[])[];

  constructor(problem: Problem, sequence: Pick<Sequence, 'jobs' | 'changeovers'>) {
    this.problem = problem;
    this.job = new Map(problem.jobs.map((job) => [job.id, job]));
    this.placed = new Map(sequence.jobs.map((placed) => [placed.jobId, placed]));
    this.stays = sequence.jobs.flatMap((placed) => this.staysOf(placed));
    const washUses = new Map(problem.units.map((unit) => [unit.id, problem.changeovers.find(({ id }) => id === unit.changeoverId)?.uses ?? []]));
    const loadsOf = new Map(problem.resources.map(({ id }): [string, Load[]] => [id, []]));
    for (const { jobId, steps } of sequence.jobs)
      for (const { stepId, modeId, startMin, endMin } of steps)
        for (const { resourceId, units } of this.stepOf(jobId, stepId)?.modes.find(({ id }) => id === modeId)?.uses ?? [])
          loadsOf.get(resourceId)?.push({ jobId, stepId, fromMin: startMin, toMin: endMin, units });
    for (const { unitId, toJobId, startMin, endMin } of sequence.changeovers)
      for (const { resourceId, units } of washUses.get(unitId) ?? []) loadsOf.get(resourceId)?.push({ jobId: toJobId, stepId: null, fromMin: startMin, toMin: endMin, units });
    this.loadsOf = loadsOf;
    this.rivals = rivalsOf(problem);
  }

  private stepOf(jobId: string, stepId: string): Job['steps'][number] | undefined {
    return this.job.get(jobId)?.steps.find(({ id }) => id === stepId);
  }

  private staysOf(placed: PlacedJob): readonly Stay[] {
    const at = new Map(placed.steps.map((step) => [step.stepId, step]));
    const spans = this.job.get(placed.jobId)?.spans ?? [];
    return [
      ...spans.flatMap((span, index): Stay[] => {
        const [from, to] = [at.get(span.from), at.get(span.to)];
        const unitId = placed.spanUnitIds[index];
        return from === undefined || to === undefined || unitId === undefined
          ? []
          : [{ unitId, jobId: placed.jobId, fromMin: from.startMin, toMin: span.until === 'end' ? to.endMin : to.startMin }];
      }),
      ...placed.steps.flatMap((step): Stay[] => (step.unitId === null ? [] : [{ unitId: step.unitId, jobId: placed.jobId, fromMin: step.startMin, toMin: step.endMin }])),
    ];
  }

  /** What would be in the way if a step, and the unit it opens, came `byMin` sooner. Null = nothing: it stands there because it is wanted there. */
  blockerOf(jobId: string, stepId: string, byMin = 1): Blocker | null {
    const placed = this.placed.get(jobId);
    const step = placed?.steps.find((one) => one.stepId === stepId);
    const job = this.job.get(jobId);
    const own = this.stepOf(jobId, stepId);
    if (placed === undefined || step === undefined || job === undefined || own === undefined) return null;
    const [fromMin, toMin] = [step.startMin - byMin, step.endMin - byMin];
    if (own.fixed?.kind === 'pinned') return { kind: 'pin', id: jobId, byJobIds: [], fromMin: step.startMin, toMin: step.startMin };
    for (const inputId of own.afterJobs) {
      const input = this.placed.get(inputId);
      if (input !== undefined && endOf(input) > fromMin)
        return { kind: 'input', id: inputId, byJobIds: [inputId], fromMin: Math.min(...input.steps.map((one) => one.startMin)), toMin: endOf(input) };
    }
    const opened = job.spans.flatMap((span, index) => (span.from === stepId ? [placed.spanUnitIds[index] ?? ''] : []));
    for (const unitId of [...opened, ...(step.unitId === null ? [] : [step.unitId])]) {
      const before = this.stays.filter((stay) => stay.unitId === unitId && stay.jobId !== jobId && stay.fromMin < step.startMin).sort((left, right) => right.toMin - left.toMin)[0];
      const unit = this.problem.units.find(({ id }) => id === unitId);
      if (before === undefined || unit === undefined) continue;
      const washMin = changeoverMin(this.problem, unit, this.job.get(before.jobId)?.changeClass ?? null, job.changeClass);
      if (before.toMin + washMin > fromMin) return { kind: 'unit', id: unitId, byJobIds: [before.jobId], fromMin: before.fromMin, toMin: before.toMin + washMin };
    }
    return this.resourceBlocker(jobId, step, fromMin, toMin) ?? (fromMin < job.releaseMin ? { kind: 'release', id: jobId, byJobIds: [], fromMin: 0, toMin: job.releaseMin } : null);
  }

  private resourceBlocker(jobId: string, step: PlacedStep, fromMin: number, toMin: number): Blocker | null {
    const uses = this.stepOf(jobId, step.stepId)?.modes.find(({ id }) => id === step.modeId)?.uses ?? [];
    const meeting = (id: string): readonly Load[] =>
      (this.loadsOf.get(id) ?? []).filter((load) => load.fromMin < toMin && load.toMin > fromMin && !(load.jobId === jobId && load.stepId === step.stepId));
    for (const use of uses) {
      const place = this.problem.resources.findIndex(({ id }) => id === use.resourceId);
      const resource = this.problem.resources[place];
      if (resource === undefined) continue;
      for (const rival of this.rivals[place] ?? []) {
        const id = this.problem.resources[rival]?.id ?? '';
        const meets = meeting(id);
        if (meets.length === 0) continue;
        const jobs = [...new Set(meets.map((load) => load.jobId))];
        return { kind: 'excluded', id, byJobIds: jobs, fromMin: Math.min(...meets.map((load) => load.fromMin)), toMin: Math.max(...meets.map((load) => load.toMin)) };
      }
      const others = meeting(use.resourceId);
      const points = [fromMin, ...others.map((load) => load.fromMin), ...resource.windows.flatMap((window) => [window.fromMin, window.toMin])].filter(
        (at) => at >= fromMin && at < toMin,
      );
      for (const at of points) {
        const capacity =
          resource.windows.length === 0 ? resource.capacity : resource.windows.reduce((sum, window) => sum + (window.fromMin <= at && at < window.toMin ? window.capacity : 0), 0);
        const meets = others.filter((load) => load.fromMin <= at && at < load.toMin);
        if (meets.reduce((sum, load) => sum + load.units, use.units) <= capacity) continue;
        return {
          kind: 'resource',
          id: use.resourceId,
          byJobIds: [...new Set(meets.map((load) => load.jobId))],
          fromMin: Math.min(at, ...meets.map((load) => load.fromMin)),
          toMin: Math.max(at + 1, ...meets.map((load) => load.toMin)),
        };
      }
    }
    return null;
  }

  /** Minutes each step stood although what comes before it was done, and what it waited for. In the order of the steps. */
  waitsOf(jobId: string): readonly { readonly waitedMin: number; readonly blocker: Blocker | null }[] {
    const placed = this.placed.get(jobId);
    const job = this.job.get(jobId);
    if (placed === undefined || job === undefined) return [];
    return placed.steps.map((step) => {
      const before = this.soonestAfter(job, placed, step.stepId);
      const waitedMin = before === null ? 0 : Math.max(0, step.startMin - before);
      const done = this.stepOf(jobId, step.stepId)?.fixed?.kind === 'done';
      return { waitedMin: done ? 0 : waitedMin, blocker: waitedMin > 0 && !done ? this.blockerOf(jobId, step.stepId) : null };
    });
  }

  /** When what comes before a step of the same job lets it begin; null when nothing comes before it. */
  private soonestAfter(job: Job, placed: PlacedJob, stepId: string): number | null {
    const stepOf = (id: string): PlacedStep | undefined => placed.steps.find((step) => step.stepId === id);
    const to = stepOf(stepId);
    const bounds = job.lags.flatMap((lag): number[] => {
      const from = lag.to === stepId ? stepOf(lag.from) : undefined;
      if (from === undefined || to === undefined) return [];
      const leaves = lag.kind === 'startStart' || lag.kind === 'startEnd' ? from.startMin : from.endMin;
      const arrives = lag.kind === 'startEnd' || lag.kind === 'endEnd' ? to.endMin - to.startMin : 0;
      return [leaves + lag.minMin - arrives];
    });
    return bounds.length === 0 ? null : Math.max(...bounds);
  }

  /**
   * What keeps a job from ending sooner: from its last step back along steps that follow each other without a gap, whatever is in the way of any of them.
   * The nearest to the end comes first; what the same thing does twice is said once.
   */
  bindingOf(jobId: string): readonly Blocker[] {
    const placed = this.placed.get(jobId);
    const job = this.job.get(jobId);
    if (placed === undefined || job === undefined) return [];
    const found: Blocker[] = [];
    let at: PlacedStep | undefined = [...placed.steps].sort((left, right) => right.endMin - left.endMin)[0];
    const seen = new Set<string>();
    while (at !== undefined && !seen.has(at.stepId)) {
      const { stepId, startMin } = at;
      seen.add(stepId);
      if (this.stepOf(jobId, stepId)?.fixed?.kind === 'done') break;
      const blocker = this.blockerOf(jobId, stepId);
      if (blocker !== null && !found.some((one) => one.kind === blocker.kind && one.id === blocker.id)) found.push(blocker);
      const soonest = this.soonestAfter(job, placed, stepId);
      // With a gap before it, the step waits for what was found, not for the step before.
      if (soonest === null || soonest < startMin) break;
      const before: readonly string[] = job.lags.filter((lag) => lag.to === stepId).map((lag) => lag.from);
      at = placed.steps.filter((step) => before.includes(step.stepId)).sort((left, right) => right.endMin - left.endMin)[0];
    }
    return found;
  }
}
