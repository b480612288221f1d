import { FAMILIES, madeDay } from '../core/src/testing/days';
import { published } from '../core/src/testing/published';
import { movedPins } from '@broth/core';
import { Replay, boundOf, planDay, solve, startPlanning, startSolving, violations } from '@broth/core/planner';
import { SHOPS } from '@broth/core/shops';
import type { Problem, Sequence } from '@broth/core';
import { demo } from '@broth/demo';

/**
 * How near the engine comes, in seconds of this process: made days of every family against the best any search of this run finds, published problems against
 * their published values. `long` as an argument: more sizes, more seeds, longer; kinds of days: those.
 */

const long = process.argv.includes('long');
/** Of all kinds of days where none is named. */
const named = FAMILIES.filter((family) => process.argv.includes(family));
const families = named.length > 0 ? named : FAMILIES;
const SIZES = long ? [6, 8, 12, 20, 60] : [8, 20];
const SEEDS = long ? [1, 2] : [1];
const TIMES = long ? [0.1, 1, 10] : [0.1, 1];
/** What everything is measured against: the best of these searches of the same day. */
const BEST = long ? { seeds: [11], seconds: 20 } : { seeds: [11], seconds: 4 };
const PUBLISHED_S = long ? 30 : 2;
/** Another day of the kind is searched for so long first: a planner that has been at work has compiled what a new process has not, which is as quick after some seconds only. */
const WARM = { size: 8, number: 99, seconds: long ? 4 : 1 };

const workedS = (): number => process.cpuUsage().user / 1e6;

/** The best there is after each time. */
function search(problem: Problem, seed: number, times: readonly number[]): readonly Sequence[] {
  const from = workedS();
  const solving = startSolving(problem, { seed });
  return times.map((time) => {
    while (workedS() - from < time) solving.run(4);
    return solving.sequence();
  });
}

const mean = (values: readonly number[]): number => values.reduce((sum, value) => sum + value, 0) / Math.max(1, values.length);

function days(): unknown {
  return families.flatMap((family) => {
    search(madeDay(family, WARM.size, WARM.number), 1, [WARM.seconds]);
    return SIZES.map((size) => {
      const runs = SEEDS.map((seed) => {
        const problem = madeDay(family, size, seed);
        const found = search(problem, 1, TIMES);
        const all = [...found, ...BEST.seeds.flatMap((other) => search(problem, other, [BEST.seconds]))];
        const best = all.reduce((least, one) => (one.objective.cost < least.objective.cost ? one : least));
        const { cost, lateMin } = best.objective;
        return {
          gaps: found.map(({ objective }) => (objective.cost - cost) / cost),
          boundGap: (cost - boundOf(problem).cost) / cost,
          lates: [...found.map(({ objective }) => objective.lateMin), lateMin],
          unplaced: found.at(-1)?.unplaced.length ?? 0,
          wrong: all.reduce((sum, one) => sum + violations(problem, one).length, 0),
        };
      });
      return {
        family,
        size,
        gaps: TIMES.map((_, at) => mean(runs.map((run) => run.gaps[at] ?? 0))),
        boundGap: mean(runs.map((run) => run.boundGap)),
        lates: [...TIMES, null].map((_, at) => mean(runs.map((run) => run.lates[at] ?? 0))),
        unplaced: runs.reduce((sum, run) => sum + run.unplaced, 0),
        violations: runs.reduce((sum, run) => sum + run.wrong, 0),
      };
    });
  });
}

function textbook(): unknown {
  return published().map(({ name, problem, value, proved }) => {
    const from = workedS();
    const solving = startSolving(problem, { seed: 1, guides: SHOPS });
    while (workedS() - from < PUBLISHED_S && solving.cost() > value) solving.run(25);
    const plan = solving.sequence();
    return { name, value, proved, found: plan.objective.cost, seconds: workedS() - from, violations: violations(problem, plan).length };
  });
}

/** Until the first repaired plan of a batch moved by hand, of every batch of the demo day both ways; and days played through in a second. */
function repair(): { readonly repairMs: number; readonly replicationsPerS: number; readonly steps: number } {
  const DAY = '2026-11-25';
  const input = { date: DAY, nowMin: 312, soups: demo.soups, station: demo.station, pars: demo.standingPars, lots: demo.lots(DAY), started: [], dateMarkLastDay: 7 };
  const base = planDay(input, { seed: 1, moves: 1500 });
  const isInVessel = (stepId: string): boolean => demo.soups.some((soup) => soup.steps.some((step) => step.id === stepId && step.place.kind === 'vessel'));
  const times = base.batches.flatMap((batch) =>
    [-20, 15].map((byMin) => {
      const pins = movedPins(base, batch.id, { byMin, vesselId: null }, isInVessel) ?? [];
      const from = workedS();
      startPlanning({ ...input, pins, agreed: base }, 1, base).plan();
      return workedS() - from;
    }),
  );
  const made = madeDay('calm', 32, 1);
  // Every step takes longer or shorter by chance: what always takes as long is played through sooner.
  const problem: Problem = {
    ...made,
    jobs: made.jobs.map((job) => ({
      ...job,
      steps: job.steps.map((step) => ({ ...step, modes: step.modes.map((mode) => ({ ...mode, spreadMin: [mode.durationMin * 0.8, mode.durationMin * 1.4] as const })) })),
    })),
  };
  const replay = new Replay(problem, solve(problem, { seed: 1, moves: 0 }));
  replay.onTime(2000, 1);
  const from = workedS();
  replay.onTime(50_000, 1);
  const inOrder = [...times].sort((left, right) => left - right);
  return { repairMs: (inOrder[Math.floor(times.length * 0.95)] ?? Number.NaN) * 1000, replicationsPerS: 50_000 / (workedS() - from), steps: replay.size };
}

process.stdout.write(JSON.stringify({ times: TIMES, warmS: WARM.seconds, best: BEST, publishedS: PUBLISHED_S, days: days(), textbook: textbook(), ...repair() }));
