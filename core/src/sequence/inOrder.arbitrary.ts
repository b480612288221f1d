import { compile } from './engine/compile';
import type { Compiled } from './engine/compile';
import type { EntryOrders } from './engine/entries';
import { Lists } from './engine/lists';
import { planOf } from './engine/reading';
import { Timetable } from './engine/timetable';
import type { Saved } from './engine/timetable';
import { Waiting } from './engine/waits';
import type { Problem } from './problem';
import { seeded } from './random';
import type { Random } from './random';

/** What a search stands on. */
export interface Laid {
  readonly compiled: Compiled;
  readonly table: Timetable;
  readonly empty: Saved;
  /** Jobs that can be laid out. */
  readonly all: readonly number[];
  readonly random: Random;
}

/** A plan of whole jobs in order, on the table; null when something finds no place. */
export function inOrder(problem: Problem, seed: number): Laid | null {
  const compiled = compile(problem);
  const table = new Timetable(compiled);
  const empty = table.save();
  const random = seeded(seed);
  const all = compiled.jobs.flatMap(({ index, variants }) => (variants.length > 0 ? [index] : []));
  const whole = new Lists(table, empty, new Waiting(compiled, all, random), random, all, 'whole');
  whole.decode(whole.order);
  return planOf(table).unplaced.length > 0 ? null : { compiled, table, empty, all, random };
}

/** The same with what is early not counted: no outline counts it. */
export const lateOnly = (problem: Problem): Problem => ({ ...problem, weights: { ...problem.weights, early: 0 } });

/** Goes on with what was begun until it is known what it costs. */
export function laidAnew(entries: EntryOrders): number {
  for (;;) {
    const cost = entries.step();
    if (cost !== null) return cost;
  }
}
