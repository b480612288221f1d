import { endOf } from './problem';
import type { Job, PlacedJob } from './problem';

/** When each step of a job may begin by its lags, release, horizon and what is fixed of it, were it alone on the station. */
export interface StepWindow {
  readonly soonestMin: number;
  readonly latestMin: number;
}

/**
 * Longest paths over the lags of one job (Bellman–Ford); null when shortest and longest times contradict each other. `without` leaves the pin of one step out,
 * so that the answer says where it could stand. `inputs` are jobs it takes from, where they are placed.
 */
export function stepWindows(job: Job, horizonMin: number, without: string | null = null, inputs: readonly PlacedJob[] = []): ReadonlyMap<string, StepWindow> | null {
  const shortest = new Map(
    job.steps.map((step) => [step.id, step.fixed?.kind === 'done' ? step.fixed.endMin - step.fixed.startMin : Math.min(...step.modes.map((mode) => mode.durationMin))]),
  );
  const low = new Map<string, number>();
  const high = new Map<string, number>();
  for (const step of job.steps) {
    const pinned = step.fixed !== null && (step.fixed.kind === 'done' || step.id !== without);
    const inputEnd = Math.max(0, ...inputs.filter((input) => step.afterJobs.includes(input.jobId)).map(endOf));
    low.set(step.id, pinned ? step.fixed.startMin : Math.max(job.releaseMin, inputEnd));
    high.set(step.id, pinned ? step.fixed.startMin : horizonMin - (shortest.get(step.id) ?? 0));
  }
  const done = new Set(job.steps.filter((step) => step.fixed?.kind === 'done').map((step) => step.id));
  let changed = true;
  for (let round = 0; changed; round += 1) {
    if (round > job.steps.length) return null;
    changed = false;
    for (const lag of job.lags) {
      if (done.has(lag.to)) continue;
      const shift =
        (lag.kind === 'endStart' || lag.kind === 'endEnd' ? (shortest.get(lag.from) ?? 0) : 0) -
        (lag.kind === 'startEnd' || lag.kind === 'endEnd' ? (shortest.get(lag.to) ?? 0) : 0);
      const [min, max] = [lag.minMin + shift, lag.maxMin === null || done.has(lag.from) ? Number.POSITIVE_INFINITY : lag.maxMin + shift];
      const lift = (map: Map<string, number>, id: string, value: number, better: (left: number, right: number) => number): void => {
        const was = map.get(id) ?? value;
        const is = better(was, value);
        if (is === was) return;
        map.set(id, is);
        changed = true;
      };
      lift(low, lag.to, (low.get(lag.from) ?? 0) + min, Math.max);
      lift(high, lag.from, (high.get(lag.to) ?? 0) - min, Math.min);
      if (max !== Number.POSITIVE_INFINITY) {
        lift(low, lag.from, (low.get(lag.to) ?? 0) - max, Math.max);
        lift(high, lag.to, (high.get(lag.from) ?? 0) + max, Math.min);
      }
    }
  }
  const windows = new Map(job.steps.map((step) => [step.id, { soonestMin: low.get(step.id) ?? 0, latestMin: high.get(step.id) ?? horizonMin }]));
  const broken = job.steps.some((step) => {
    const window = windows.get(step.id);
    return window !== undefined && !done.has(step.id) && window.soonestMin > window.latestMin;
  });
  return broken ? null : windows;
}
