import type { Instant } from '../quantity/index';
import type { Soup } from '../soup/index';
import type { DayState, TimerRecord } from './dayState';
import { heldAside, openLines } from './gates';
import { soupOf } from './hands';
import type { Task } from './hands';

/** What whoever takes over has to know of one batch. */
export interface HandoverBatch {
  readonly batchId: string;
  readonly name: string;
  readonly stage: DayState['batches'][string]['stage'];
  /** The step it is at, while it cooks. */
  readonly task: Task | null;
  /** Lines nobody has ticked of steps that are done, or being done. */
  readonly open: readonly string[];
  readonly aside: readonly string[];
  readonly lastNote: string | null;
}

export interface Handover {
  readonly batches: readonly HandoverBatch[];
  readonly timers: readonly TimerRecord[];
  readonly stopped: readonly string[];
  readonly away: readonly string[];
  /** Notes of the day that name no batch, the newest last. */
  readonly notes: readonly string[];
}

/** The day as it stands for a change of cook: what is not over, in the order it began. */
export function handover(day: DayState, tasks: readonly Task[], soupById: ReadonlyMap<string, Soup>, now: Instant): Handover {
  const batches = Object.values(day.batches)
    .filter(({ stage }) => stage.kind !== 'discarded' && stage.kind !== 'stored' && stage.kind !== 'used')
    .sort((left, right) => left.startedAt - right.startedAt)
    .map((batch): HandoverBatch => {
      const soup = soupOf(batch, soupById);
      const begun = new Set(Object.keys(batch.steps));
      return {
        batchId: batch.batchId,
        name: batch.name,
        stage: batch.stage,
        task: tasks.find((task) => task.batchId === batch.batchId) ?? null,
        open:
          soup === undefined || batch.stage.kind !== 'cooking'
            ? []
            : openLines(soup, batch)
                .filter((line) => begun.has(line.stepId))
                .map((line) => line.name),
        aside: soup === undefined ? [] : heldAside(soup, batch),
        lastNote: day.notes.findLast((note) => note.batchId === batch.batchId)?.text ?? null,
      };
    });
  return {
    batches,
    timers: day.timers.filter((timer) => timer.endsAt > now),
    stopped: Object.keys(day.stopped),
    away: Object.keys(day.away),
    notes: day.notes.filter((note) => note.batchId === null).map((note) => note.text),
  };
}
