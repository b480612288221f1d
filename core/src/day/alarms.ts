import { addMinutes } from '../quantity/index';
import type { Instant } from '../quantity/index';
import type { DueReading } from './due';
import type { TimerRecord } from './dayState';
import type { Task } from './hands';

/**
 * What wants somebody now. check = it may be done: look; limit = it has to be; look = a stir is due; wait = it stands longer than it may; reading = a
 * temperature is due; timer = a clock somebody set is up.
 */
export interface Alarm {
  readonly kind: 'check' | 'limit' | 'look' | 'wait' | 'reading' | 'timer';
  readonly at: Instant;
  readonly batchId: string | null;
  readonly stepId: string | null;
  readonly timerId: string | null;
  /** The same for as long as it is the same alarm, so that it sounds once. */
  readonly key: string;
}

/** How long before the wait is over somebody is told. Minutes. A design choice. */
const WAIT_AHEAD_MIN = 2;

function alarm(kind: Alarm['kind'], at: Instant, of: Partial<Pick<Alarm, 'batchId' | 'stepId' | 'timerId'>>): Alarm {
  const { batchId = null, stepId = null, timerId = null } = of;
  return { kind, at, batchId, stepId, timerId, key: `${kind} ${batchId ?? ''} ${stepId ?? ''} ${timerId ?? ''} ${String(at)}` };
}

function ofTask(task: Task): readonly Alarm[] {
  const { checkAt, limitAt, lookAt, waitUntil } = task;
  const of = { batchId: task.batchId, stepId: task.step.id };
  return [
    ...(checkAt === null ? [] : [alarm('check', checkAt, of)]),
    ...(limitAt === null ? [] : [alarm('limit', limitAt, of)]),
    // A look that falls into the last stretch is the check itself.
    ...(lookAt === null || (checkAt !== null && lookAt >= checkAt) ? [] : [alarm('look', lookAt, of)]),
    ...(waitUntil === null ? [] : [alarm('wait', addMinutes(waitUntil, -WAIT_AHEAD_MIN), of)]),
  ];
}

/** Everything that will want somebody, as far as it is known, soonest first; what is due now is what is at or before the present. */
export function alarms(tasks: readonly Task[], due: readonly DueReading[], timers: readonly TimerRecord[]): readonly Alarm[] {
  return [
    ...tasks.flatMap(ofTask),
    ...due.map((one) => alarm('reading', one.dueAt, { batchId: one.batchId })),
    ...timers.map((timer) => alarm('timer', timer.endsAt, { batchId: timer.batchId, timerId: timer.eventId })),
  ].sort((left, right) => left.at - right.at);
}

/** What is up at an instant: of a step that is past its limit the check is not told as well. */
export function upNow(all: readonly Alarm[], now: Instant): readonly Alarm[] {
  const up = all.filter((one) => one.at <= now);
  const limits = new Set(up.filter((one) => one.kind === 'limit').map((one) => `${one.batchId ?? ''} ${one.stepId ?? ''}`));
  return up.filter((one) => one.kind !== 'check' || !limits.has(`${one.batchId ?? ''} ${one.stepId ?? ''}`));
}
