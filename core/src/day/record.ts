import type { Instant } from '../quantity/index';
import type { ReadingRecord } from './dayState';

/** What a reviewer may want to look at: a pattern, never an accusation. */
export type PatternNote =
  | { readonly code: 'identical'; readonly by: string; readonly count: number; readonly value: number; readonly unit: 'C' | 'F' }
  | { readonly code: 'onTheHour'; readonly by: string; readonly count: number; readonly of: number }
  | { readonly code: 'roundNumbers'; readonly by: string; readonly count: number; readonly of: number }
  | { readonly code: 'allAtOnce'; readonly by: string; readonly count: number; readonly fromAt: Instant; readonly toAt: Instant };

/** So many alike before it is said. Design choices. */
const IDENTICAL = 4;
const ENOUGH = 6;
const SHARE = 0.8;
const AT_ONCE_MIN = 2;
const AT_ONCE = 4;

function longestRun(readings: readonly ReadingRecord[]): readonly ReadingRecord[] {
  let best: ReadingRecord[] = [];
  let run: ReadingRecord[] = [];
  for (const reading of readings) {
    const before = run.at(-1);
    run = before?.shown.value === reading.shown.value && before.shown.unit === reading.shown.unit ? [...run, reading] : [reading];
    if (run.length > best.length) best = run;
  }
  return best;
}

/**
 * `recordedAt` by event id: entries of different times that were all made within two minutes are told. `minuteOf` is the minute on the kitchen's own clock:
 * there are zones that lie half an hour off. Probes' samples are left out: they repeat themselves.
 */
export function patternNotes(readings: readonly ReadingRecord[], recordedAt: ReadonlyMap<string, Instant>, minuteOf: (at: Instant) => number): readonly PatternNote[] {
  const people = [...new Set(readings.map((reading) => reading.by))];
  return people.flatMap((by): PatternNote[] => {
    const own = readings.filter((reading) => reading.by === by && reading.source === 'hand').sort((left, right) => left.at - right.at);
    const notes: PatternNote[] = [];
    const run = longestRun(own);
    const [first] = run;
    if (first !== undefined && run.length >= IDENTICAL) notes.push({ code: 'identical', by, count: run.length, value: first.shown.value, unit: first.shown.unit });
    const onTheHour = own.filter((reading) => minuteOf(reading.at) === 0).length;
    if (own.length >= ENOUGH && onTheHour >= own.length * SHARE) notes.push({ code: 'onTheHour', by, count: onTheHour, of: own.length });
    const round = own.filter((reading) => Number.isInteger(reading.shown.value) && reading.shown.value % 5 === 0).length;
    if (own.length >= ENOUGH && round >= own.length * SHARE) notes.push({ code: 'roundNumbers', by, count: round, of: own.length });
    const entered = own.flatMap((reading) => {
      const at = recordedAt.get(reading.eventId);
      return at === undefined || at - reading.at < AT_ONCE_MIN * 60_000 ? [] : [{ at, taken: reading.at }];
    });
    const sorted = entered.sort((left, right) => left.at - right.at);
    // A window of two minutes that runs along: the first of it is dropped when it falls out.
    let begin = 0;
    let most: { readonly count: number; readonly from: Instant; readonly to: Instant } | undefined;
    sorted.forEach((last, index) => {
      while (last.at - (sorted[begin]?.at ?? last.at) > AT_ONCE_MIN * 60_000) begin += 1;
      const count = index - begin + 1;
      const first = sorted[begin];
      if (first !== undefined && count >= AT_ONCE && count > (most?.count ?? 0) && Math.abs(last.taken - first.taken) > AT_ONCE_MIN * 60_000)
        most = { count, from: first.at, to: last.at };
    });
    if (most !== undefined) notes.push({ code: 'allAtOnce', by, count: most.count, fromAt: most.from, toAt: most.to });
    return notes;
  });
}
