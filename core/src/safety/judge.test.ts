import { addMinutes } from '../quantity/index';
import { seeded } from '../index';
import { rulesOf } from '../testing/rules';
import { NO_COOLING_EVENTS, coolingVerdict } from './index';
import type { CoolRule, TimedReading, VerdictKind } from './index';

/**
 * A judge written apart from the program's: it tries every way the food may have gone between its readings, minute by minute, and asks the rule of each. What
 * all of them satisfy is a pass, what none does is a failure. It knows the rule as four numbers and shares no code with the verdict.
 */
interface Plain {
  readonly start: number;
  readonly mid: number;
  readonly midMin: number;
  readonly end: number;
  readonly endMin: number;
  readonly further: boolean;
  readonly strict: boolean;
}
type Points = readonly (readonly [minute: number, value: number])[];

/** Readings lie on a grid of five minutes, of which every limit is a multiple; crossings on it and just after: with those all ways are tried that differ. */
const STEP = 5;
const JUST_AFTER = 0.01;

/** The minutes at which food may first have been at or below a limit for good. A reading says which side it was on at its minute. */
function crossings(points: Points, limit: number, from: number, to: number): number[] {
  const possible: number[] = [];
  const candidates = Array.from({ length: Math.floor((to - from) / STEP) + 1 }, (_, index) => from + index * STEP).flatMap((minute) => [minute, minute + JUST_AFTER]);
  for (const minute of candidates) {
    const contradicted = points.some(
      ([at, value]) =>
        (at < minute && value <= limit && laterAbove(points, at, limit)) || (at >= minute && value > limit) || (at < minute && value < limit && !laterAbove(points, at, limit)),
    );
    // A value exactly on the limit is on it at that minute and no other.
    const exact = points.find(
      ([, value], index) => value === limit && points.slice(index + 1).every(([, later]) => later <= limit) && points.slice(0, index).every(([, earlier]) => earlier > limit),
    );
    if (exact === undefined ? !contradicted : minute === exact[0]) possible.push(minute);
  }
  return possible;
}
function laterAbove(points: Points, at: number, limit: number): boolean {
  return points.some(([minute, value]) => minute > at && value > limit);
}

function bruteForce(points: Points, rule: Plain, heatOffMin: number | null): 'pass' | 'fail' | 'open' {
  const last = points.at(-1)?.[0] ?? 0;
  const begin = heatOffMin ?? points[0]?.[0] ?? 0;
  const reached = (limit: number): boolean => (points.at(-1)?.[1] ?? Infinity) <= limit;
  // The clock: it left the start temperature at some minute between its last reading at or above it and its first below.
  const lastHot = points.filter(([, value], index) => value >= rule.start && points.slice(0, index).every(([, earlier]) => earlier >= rule.start)).at(-1);
  const firstCool = points.find(([, value]) => value < rule.start);
  const starts: number[] = [];
  const startFrom = lastHot?.[0] ?? begin;
  const startTo = lastHot?.[1] === rule.start ? startFrom : (firstCool?.[0] ?? last);
  // No reading shows it hot and nobody tapped: it left the start at any time before the first reading, the latest being that.
  const unknown = lastHot === undefined && heatOffMin === null;
  for (let minute = startFrom; minute <= startTo; minute += STEP) starts.push(minute);
  if (unknown) starts.splice(0, starts.length, begin - 100_000, begin);
  const never = last + 100_000;
  const mids = reached(rule.mid) ? crossings(points, rule.mid, begin, last) : [never];
  const ends = reached(rule.end) ? crossings(points, rule.end, begin, last) : [never];
  const ok = (minutes: number, limit: number): boolean => (rule.strict ? minutes < limit : minutes <= limit);
  let met = false;
  let broken = false;
  for (const start of starts)
    for (const mid of mids)
      for (const end of ends) {
        if (end < mid || mid < start) continue;
        const good =
          (mid < never ? ok(mid - start, rule.midMin) : last - start < rule.midMin) &&
          (end < never ? ok(end - (rule.further ? mid : start), rule.endMin) : rule.further && mid === never ? true : last - (rule.further ? mid : start) < rule.endMin);
        if (good) met = true;
        else broken = true;
      }
  if (met && broken) return 'open';
  return met ? (ends[0] === never ? 'open' : 'pass') : broken ? 'fail' : 'open';
}

const T0 = 1_764_000_000_000;
const timed = (points: Points): TimedReading[] => points.map(([minute, value]) => ({ at: addMinutes(T0, minute), reading: { value, unit: 'F', rawText: '' }, heldS: null }));
const verdict = (points: Points, rules: readonly CoolRule[], heatOffMin: number | null): VerdictKind =>
  coolingVerdict({
    readings: timed(points),
    events: { ...NO_COOLING_EVENTS, heatOff: heatOffMin === null ? null : addMinutes(T0, heatOffMin) },
    rules,
    now: addMinutes(T0, points.at(-1)?.[0] ?? 0),
  }).kind;

const FDA: Plain = { start: 135, mid: 70, midMin: 120, end: 41, endMin: 360, further: false, strict: false };
const NYC: Plain = { ...FDA, start: 140, endMin: 240, further: true };

/** A cooling as a kitchen logs it: Newton's law with a rate of its own, read now and then, sometimes exactly on a limit. */
function made(random: () => number, rule: Plain): { readonly points: Points; readonly heatOffMin: number | null } {
  const ambient = 32 + random() * 12;
  const kPerMin = (0.25 + random() * 1.4) / 60;
  const from = 130 + random() * 50;
  const count = 1 + Math.floor(random() * 9);
  const minutes = [...new Set(Array.from({ length: count }, () => STEP * Math.floor(random() * 96)))].sort((left, right) => left - right);
  const snapped = (value: number): number => {
    const near = [rule.start, rule.mid, rule.end].find((limit) => Math.abs(limit - value) < 0.7);
    return near !== undefined && random() < 0.7 ? near : Math.round(value * 10) / 10;
  };
  let before = Infinity;
  const points = minutes.map((minute): readonly [number, number] => {
    before = Math.min(before, snapped(ambient + (from - ambient) * Math.exp(-kPerMin * minute)));
    return [minute, before];
  });
  return { points, heatOffMin: random() < 0.5 ? -STEP * Math.floor(random() * 6) : null };
}

describe.each([
  ['FDA Food Code 2022, six hours in all', 'us-fda-fc2022', FDA],
  ['New York City, four hours more', 'us-nyc', NYC],
] as const)('%s', (_, packId, plain) => {
  test('on 5,000 made cooling logs nothing passes that the rule does not, nothing fails that might have met it, and what is proven is said', () => {
    const random = seeded(20_261_126);
    const rules = rulesOf(packId).cooling.cooked;
    const told = { pass: 0, fail: 0, open: 0 };
    for (let index = 0; index < 5000; index += 1) {
      const { points, heatOffMin } = made(random, plain);
      const expected = bruteForce(points, plain, heatOffMin);
      const kind = verdict(points, rules, heatOffMin);
      told[expected] += 1;
      const said = kind === 'pass' || kind === 'fail' ? kind : 'open';
      // Two stages that could each still be met, but not both: the verdict leaves that open, which is no kinder.
      const leftOpen = plain.further && expected === 'fail' && said === 'open';
      if (said !== expected && !leftOpen) throw new Error(`${JSON.stringify({ points, heatOffMin })}: the rule says ${expected}, the verdict ${kind}`);
    }
    // Each side has to have been tried.
    expect(Math.min(told.pass, told.fail, told.open)).toBeGreaterThan(250);
  });
});

test('law: one reading more never turns a proven failure into a pass', () => {
  const random = seeded(7);
  const rules = rulesOf().cooling.cooked;
  let failures = 0;
  for (let index = 0; index < 6000; index += 1) {
    const { points, heatOffMin } = made(random, FDA);
    if (verdict(points, rules, heatOffMin) !== 'fail') continue;
    failures += 1;
    // Food that cools falls: the new reading lies between its neighbours. One that does not is a rise, which is asked about.
    const minute = Math.floor(random() * 500);
    const [above, below] = [points.findLast(([at]) => at < minute)?.[1] ?? 180, points.find(([at]) => at > minute)?.[1] ?? 33];
    const more = [...points.filter(([at]) => at !== minute), [minute, below + random() * (above - below)] as const].sort((left, right) => left[0] - right[0]);
    expect([verdict(more, rules, heatOffMin), more]).not.toEqual(['pass', more]);
  }
  expect(failures).toBeGreaterThan(500);
});
