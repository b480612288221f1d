import { zOf } from '../par/index';
import { Replay } from '../sequence/index';
import type { Job, Problem, Sequence } from '../sequence/index';

/** Room before a ready-by, so that a soup is in time on a wished share of the days and not only when every step takes what its card says. */

/** Days that are played through to see how much room a plan needs. */
const DAYS = 1000;
/** More room than this is another plan, not a buffer. A design choice. */
const MOST_ROOM_MIN = 60;

/** Minutes by batch. */
export type Room = ReadonlyMap<string, number>;

export function withRoom(problem: Problem, room: Room): Problem {
  return { ...problem, jobs: problem.jobs.map((job) => ({ ...job, bufferMin: Math.max(job.bufferMin, room.get(job.id) ?? 0) })) };
}

/** What a batch's own steps may take longer than planned: mean and variance of their triangles, as if the sum were normal (common practice, PERT). */
function ownRoomMin(job: Job, chance: number): number {
  let meanMin = 0;
  let variance = 0;
  for (const { modes, fixed } of job.steps) {
    const [mode] = modes;
    if (mode?.spreadMin === undefined || fixed?.kind === 'done') continue;
    const [low, high] = mode.spreadMin;
    const peak = Math.min(high, Math.max(low, mode.durationMin));
    meanMin += (low + peak + high) / 3 - mode.durationMin;
    variance += (low * low + peak * peak + high * high - low * peak - low * high - peak * high) / 18;
  }
  return meanMin + zOf(chance) * Math.sqrt(variance);
}

function capped(minutes: number): number {
  return Math.min(MOST_ROOM_MIN, Math.max(0, Math.ceil(minutes)));
}

/** Before there is a plan: by what each batch takes itself. */
export function firstRoom(problem: Problem, chance: number): Room {
  return new Map(problem.jobs.filter((job) => job.readyByMin !== null).map((job) => [job.id, capped(ownRoomMin(job, chance))]));
}

/** With a plan: by how much later than planned each batch is on that share of the days, whatever holds it up. */
export function roomIn(problem: Problem, sequence: Pick<Sequence, 'jobs' | 'changeovers'>, chance: number): Room {
  const { overrunMin } = new Replay(problem, sequence).onTime(DAYS, 1);
  return new Map(sequence.jobs.map(({ jobId }) => [jobId, capped(overrunMin(jobId, chance))]));
}
