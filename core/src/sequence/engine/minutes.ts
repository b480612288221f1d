import type { Compiled, Uses } from './compile';

const NEVER = -1;

/** What is free of every resource, minute by minute. */
export class Minutes {
  readonly free: Int16Array;
  private readonly horizon: number;

  constructor({ capacity, horizon }: Compiled) {
    this.free = capacity.slice();
    this.horizon = horizon;
  }

  /** Soonest start at or after `from` at which all uses fit; −1 past the horizon. */
  earliestFit(uses: Uses, from: number, duration: number): number {
    const { free, horizon } = this;
    let start = from;
    search: while (start + duration <= horizon) {
      for (let at = 0; at < uses.length; at += 2) {
        const units = uses[at + 1]!;
        const base = uses[at]! * horizon;
        for (let minute = base + start + duration - 1; minute >= base + start; minute -= 1) {
          if (free[minute]! < units) {
            start = minute - base + 1;
            continue search;
          }
        }
      }
      return start;
    }
    return NEVER;
  }

  /** Latest start at or before `from` and not before `notBefore`; −1 when there is none. */
  latestFit(uses: Uses, from: number, duration: number, notBefore: number): number {
    const { free, horizon } = this;
    let start = Math.min(from, horizon - duration);
    search: while (start >= notBefore) {
      for (let at = 0; at < uses.length; at += 2) {
        const units = uses[at + 1]!;
        const base = uses[at]! * horizon;
        const last = base + start + duration;
        for (let minute = base + start; minute < last; minute += 1) {
          if (free[minute]! < units) {
            start = minute - base - duration;
            continue search;
          }
        }
      }
      return start;
    }
    return NEVER;
  }

  book(uses: Uses, start: number, end: number, sign: 1 | -1): void {
    const { free, horizon } = this;
    for (let at = 0; at < uses.length; at += 2) {
      const units = uses[at + 1]! * sign;
      const base = uses[at]! * horizon;
      const last = base + Math.min(end, horizon);
      for (let minute = base + Math.max(0, start); minute < last; minute += 1) free[minute]! -= units;
    }
  }

  fits(uses: Uses, start: number, end: number): boolean {
    return this.earliestFit(uses, start, end - start) === start;
  }
}
