import { words } from '@broth/contract';
import { minutesBetween } from '@broth/core';
import type { Task } from '@broth/core';

/** What the clock of a running step says: to go until it may be done, then until it has to be, then how long it is over. '' while it does not run. */
export function countdown(task: Task, now: number): string {
  const { state, startedAt, checkAt, limitAt, step } = task;
  if (state !== 'running' || startedAt === null) return '';
  const sinceMin = minutesBetween(startedAt, now);
  // Nobody knows when it will boil: that clock counts up until the cook has seen it.
  if (step.phase === 'boil') return sinceMin < 1 ? 'heating up' : `${words.duration(sinceMin)} heating`;
  if (task.waitsForClock || checkAt === null || limitAt === null) return `${words.duration(sinceMin)} ${words.CLOCK_WAIT[step.clockFrom]}`;
  if (now < checkAt) return `${words.countdown(checkAt - now)} to check`;
  if (now < limitAt) return `check: ${words.countdown(limitAt - now)} left`;
  return `${words.duration(minutesBetween(limitAt, now))} over`;
}

/** Whether its time is up: shown in the tone of what wants somebody. */
export function isOver(task: Task, now: number): boolean {
  return task.state === 'running' && task.step.phase !== 'boil' && task.limitAt !== null && task.limitAt <= now;
}
