import type { Random } from '../random';
import type { Compiled } from './compile';
import { rivalsOfWashed, withWashes } from './items';
import { Moves } from './moves';
import { Outline } from './outline';
import { Sketch } from './sketch';
import type { Saved, Timetable } from './timetable';

/** How often a move does a job in another way, and how often it moves all of one. Choices of the search. */
const OTHER_WAY = 0.1;
const WHOLE_JOB = 0.3;

/** A plan as an order of pieces and washes, drawn up as a sketch: what many orders cost, before one is laid out on the table. */
export class Sketches {
  /** Of the order that is accepted: Infinity when it cannot be sketched. */
  cost: number = Number.POSITIVE_INFINITY;
  lateness = 0;
  private readonly compiled: Compiled;
  private readonly random: Random;
  private readonly sketch: Sketch;
  private readonly moves: Moves;
  /** Jobs that can be done in more than one way. */
  private readonly many: readonly number[];
  private order: Int32Array = new Int32Array(0);
  private tried: Int32Array = this.order;
  private ways: Int32Array;
  private triedWays: Int32Array;

  constructor(compiled: Compiled, root: Saved, ordered: readonly number[], random: Random) {
    const washed = withWashes(compiled, ordered);
    this.compiled = compiled;
    this.random = random;
    this.sketch = new Sketch(new Outline(compiled, root, washed));
    this.moves = new Moves(compiled, washed.items, rivalsOfWashed(compiled, washed), true, random);
    this.many = ordered.filter((job) => compiled.jobs[job]!.variants.length > 1);
    this.ways = new Int32Array(compiled.jobs.length);
    this.triedWays = this.ways;
  }

  /** Begins with the plan on the table. */
  adopt(table: Timetable): void {
    this.cost = Number.POSITIVE_INFINITY;
    this.take(this.sketch.outline.orderOf(table), Int32Array.from(table.variantOf));
  }

  /** Takes an order, in these ways, whatever was accepted before. False when it cannot be laid out. */
  take(order: Int32Array, ways: Int32Array): boolean {
    this.tried = order;
    this.triedWays = ways;
    this.sketch.begin();
    const cost = this.sketch.lay(order, ways, order, -1, Number.POSITIVE_INFINITY, 0);
    if (cost === Number.POSITIVE_INFINITY) return false;
    this.accept(cost);
    return true;
  }

  /** Tries another order, or one job in another way. Gives its cost, something above `limit` as soon as it is certain to be above. */
  neighbour(limit: number): number {
    const { random, order, many } = this;
    let changed = -1;
    this.tried = order;
    this.triedWays = this.ways;
    if (many.length > 0 && random() < OTHER_WAY) {
      changed = many[Math.floor(random() * many.length)]!;
      const ways = this.compiled.jobs[changed]!.variants.length;
      this.triedWays = this.ways.slice();
      this.triedWays[changed] = (this.ways[changed]! + 1 + Math.floor(random() * (ways - 1))) % ways;
    } else this.tried = random() < WHOLE_JOB ? this.moves.jobMoved(order) : this.moves.moved(order, true);
    return this.sketch.lay(this.tried, this.triedWays, order, changed, limit, this.cost);
  }

  /** Takes what was tried last. True when anything lies elsewhere for it. */
  accept(cost: number): boolean {
    this.order = this.tried;
    this.ways = this.triedWays;
    this.cost = cost;
    if (!this.sketch.accept()) return false;
    this.moves.lie(this.sketch.from, this.sketch.to);
    this.lateness = this.sketch.outline.lateness();
    return true;
  }

  /** What is late of a plan on the table. */
  latenessOf({ end }: Timetable): number {
    return this.sketch.outline.lateness(end);
  }

  /** Puts what was accepted last, and lies elsewhere for it, on the table. */
  put(table: Timetable, empty: Saved): void {
    this.sketch.outline.put(table, empty);
  }
}
