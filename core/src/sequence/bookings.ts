import { washMin } from './problem';
import type { Job, Problem, Resource } from './problem';

/** A job's resource uses by index into the problem's resources: the search asks for them thousands of times. */
export interface IndexedUse {
  readonly resource: number;
  readonly units: number;
}

/** What is taken and free on every resource and vessel while a plan is being laid, minute by minute. */
export interface Bookings {
  /** Earliest start at or after `fromMin` at which all uses fit for `durationMin`; −1 past the horizon. */
  earliest(uses: readonly IndexedUse[], fromMin: number, durationMin: number): number;
  /** The resource that made the last `earliest` later than asked; null when it was not. */
  blockedBy(): string | null;
  book(uses: readonly IndexedUse[], startMin: number, endMin: number): void;
  /** 0 when the vessel is free with its washes; otherwise how many minutes later the span could begin at the soonest. */
  spanLater(vesselId: string, job: Job, fromMin: number, toMin: number): number;
  /** How many minutes earlier the last refused span would have to end to fit before what stands in its way. */
  spanEarlier(): number;
  bookSpan(vesselId: string, job: Job, fromMin: number, toMin: number): void;
  /** All washes the booked spans ask for. */
  washTotalMin(): number;
}

interface Span {
  readonly fromMin: number;
  readonly toMin: number;
  readonly job: Job;
}

function freeProfile(resource: Resource, horizonMin: number): Int32Array {
  const free = new Int32Array(horizonMin).fill(resource.windows.length === 0 ? resource.capacity : 0);
  for (const window of resource.windows) {
    const toMin = Math.min(horizonMin, window.toMin);
    for (let minute = Math.max(0, window.fromMin); minute < toMin; minute += 1) free[minute] = (free[minute] ?? 0) + window.capacity;
  }
  return free;
}

/** Wash minutes between any two jobs, worked out once a problem. */
export function washTable(problem: Problem): ReadonlyMap<Job, ReadonlyMap<Job, number>> {
  return new Map(problem.jobs.map((before) => [before, new Map(problem.jobs.map((after) => [after, washMin(problem, before.allergens, after.allergens)]))]));
}

/** Free capacity of every resource before anything is booked, worked out once a problem. */
export function freeProfiles(problem: Problem): readonly Int32Array[] {
  return problem.resources.map((resource) => freeProfile(resource, problem.horizonMin));
}

export function emptyBookings(problem: Problem, profiles: readonly Int32Array[], washes: ReturnType<typeof washTable>): Bookings {
  const { horizonMin } = problem;
  const free = profiles.map((profile) => profile.slice());
  const spans = new Map(problem.vessels.map((vessel): [string, Span[]] => [vessel.id, []]));
  let blocker = -1;
  let earlierMin = 0;
  const washBetween = (before: Job, after: Job): number => washes.get(before)?.get(after) ?? 0;
  return {
    earliest(uses, fromMin, durationMin) {
      let startMin = fromMin;
      blocker = -1;
      let checked = 0;
      // Goes round the uses until all of them have agreed to the same start.
      for (let index = 0; checked < uses.length; index = (index + 1) % uses.length) {
        const use = uses[index];
        const profile = use === undefined ? undefined : free[use.resource];
        if (use === undefined || profile === undefined) return -1;
        if (startMin + durationMin > horizonMin) return -1;
        checked += 1;
        // From the far end: the last blocked minute lets us jump past it at once.
        for (let minute = startMin + durationMin - 1; minute >= startMin; minute -= 1) {
          if ((profile[minute] ?? 0) < use.units) {
            startMin = minute + 1;
            blocker = use.resource;
            checked = 0;
            break;
          }
        }
      }
      return startMin + durationMin > horizonMin ? -1 : startMin;
    },
    blockedBy: () => problem.resources[blocker]?.id ?? null,
    book(uses, startMin, endMin) {
      for (const use of uses) {
        const profile = free[use.resource];
        if (profile === undefined) continue;
        for (let minute = Math.max(0, startMin); minute < Math.min(endMin, horizonMin); minute += 1) profile[minute] = (profile[minute] ?? 0) - use.units;
      }
    },
    spanLater(vesselId, job, fromMin, toMin) {
      let later = 0;
      earlierMin = 0;
      for (const span of spans.get(vesselId) ?? []) {
        const earlier = toMin + washBetween(job, span.job) - span.fromMin;
        const freeAgainMin = span.toMin + washBetween(span.job, job);
        if (earlier > 0 && fromMin < freeAgainMin) {
          later = Math.max(later, freeAgainMin - fromMin);
          earlierMin = Math.max(earlierMin, earlier);
        }
      }
      return later;
    },
    spanEarlier: () => earlierMin,
    bookSpan(vesselId, job, fromMin, toMin) {
      const list = spans.get(vesselId);
      list?.push({ fromMin, toMin, job });
      list?.sort((left, right) => left.fromMin - right.fromMin);
    },
    washTotalMin() {
      let total = 0;
      for (const list of spans.values()) {
        list.forEach((span, index) => {
          const before = list[index - 1];
          if (before !== undefined) total += washBetween(before.job, span.job);
        });
      }
      return total;
    },
  };
}
