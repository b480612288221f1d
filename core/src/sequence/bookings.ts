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

/**
 * Free capacity over time as steps: `free[i]` holds from `fromMin[i]` until `fromMin[i + 1]`. A day has a few dozen of them where it
 * has thousands of minutes.
 */
interface Profile {
  readonly fromMin: number[];
  readonly free: number[];
}

function freeProfile(resource: Resource): Profile {
  const profile: Profile = { fromMin: [0], free: [resource.windows.length === 0 ? resource.capacity : 0] };
  for (const window of resource.windows) add(profile, Math.max(0, window.fromMin), window.toMin, window.capacity);
  return profile;
}

/** Index of the step a minute falls into. */
function stepAt({ fromMin }: Profile, minute: number): number {
  let low = 0;
  let high = fromMin.length - 1;
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if ((fromMin[middle] ?? 0) <= minute) low = middle;
    else high = middle - 1;
  }
  return low;
}

/** Makes a step begin at a minute, if none does, and answers its index. */
function splitAt(profile: Profile, minute: number): number {
  const at = stepAt(profile, minute);
  if (profile.fromMin[at] === minute) return at;
  profile.fromMin.splice(at + 1, 0, minute);
  profile.free.splice(at + 1, 0, profile.free[at] ?? 0);
  return at + 1;
}

function add(profile: Profile, fromMin: number, toMin: number, units: number): void {
  if (toMin <= fromMin) return;
  const first = splitAt(profile, fromMin);
  const last = splitAt(profile, toMin);
  for (let at = first; at < last; at += 1) profile.free[at] = (profile.free[at] ?? 0) + units;
}

/** Earliest start at or after `startMin` with `units` free throughout; Infinity when there never are. */
function earliestIn(profile: Profile, startMin: number, durationMin: number, units: number): number {
  const { fromMin, free } = profile;
  let start = startMin;
  for (let at = stepAt(profile, start); ; at += 1) {
    const next = fromMin[at + 1] ?? Number.POSITIVE_INFINITY;
    if ((free[at] ?? 0) < units) {
      if (next === Number.POSITIVE_INFINITY) return next;
      start = next;
    } else if (next >= start + durationMin) return start;
  }
}

/** Wash minutes between any two jobs, worked out once a problem. */
export function washTable(problem: Problem): ReadonlyMap<Job, ReadonlyMap<Job, number>> {
  return new Map(problem.jobs.map((before) => [before, new Map(problem.jobs.map((after) => [after, washMin(problem, before.allergens, after.allergens)]))]));
}

/** Free capacity of every resource before anything is booked, worked out once a problem. */
export function freeProfiles(problem: Problem): readonly Profile[] {
  return problem.resources.map(freeProfile);
}

export function emptyBookings(problem: Problem, free: readonly Profile[], washes: ReturnType<typeof washTable>): Bookings {
  const { horizonMin } = problem;
  const profiles = free.map((profile): Profile => ({ fromMin: profile.fromMin.slice(), free: profile.free.slice() }));
  const spans = new Map(problem.vessels.map((vessel): [string, Span[]] => [vessel.id, []]));
  let blocker = -1;
  let earlierMin = 0;
  const washBetween = (before: Job, after: Job): number => washes.get(before)?.get(after) ?? 0;
  return {
    earliest(uses, fromMin, durationMin) {
      let startMin = fromMin;
      blocker = -1;
      let agreed = 0;
      // Goes round the uses until all of them have agreed to the same start.
      for (let index = 0; agreed < uses.length; index = (index + 1) % uses.length) {
        const use = uses[index];
        const profile = use === undefined ? undefined : profiles[use.resource];
        if (use === undefined || profile === undefined) return -1;
        const start = earliestIn(profile, startMin, durationMin, use.units);
        if (start + durationMin > horizonMin) return -1;
        if (start > startMin) {
          startMin = start;
          blocker = use.resource;
          agreed = 0;
        }
        agreed += 1;
      }
      return startMin + durationMin > horizonMin ? -1 : startMin;
    },
    blockedBy: () => problem.resources[blocker]?.id ?? null,
    book(uses, startMin, endMin) {
      for (const use of uses) {
        const profile = profiles[use.resource];
        if (profile !== undefined) add(profile, Math.max(0, startMin), endMin, -use.units);
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
