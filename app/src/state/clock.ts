/** What two clocks of a device said at the same instant: the one that people set, and the one that only runs on. Milliseconds. */
export interface ClockReading {
  readonly wallMs: number;
  readonly runMs: number;
}

/** A wall clock may be nudged by this much without anybody having set it. Milliseconds. */
const NUDGE_MS = 2000;

/**
 * How far the wall clock was set back between two readings: what must be added to its offset for the kitchen's now to run on. Forward it may have been set, or
 * the device has slept: nobody can tell until the server has been heard, so that is left alone. 0 where it was not set back.
 */
export function setBackMs(before: ClockReading, after: ClockReading): number {
  const drift = after.wallMs - before.wallMs - (after.runMs - before.runMs);
  return drift < -NUDGE_MS ? -drift : 0;
}

/** From here on a device's clock is worth a line in the record. Milliseconds. */
const WRONG_MS = 5000;

/** Whether an offset is to be recorded: the clock is wrong, and by another amount than the record has. */
export function isNews(offsetMs: number, recordedMs: number): boolean {
  return Math.abs(offsetMs - recordedMs) > WRONG_MS;
}
