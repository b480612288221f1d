import { isAlike } from './timetable';
import type { Kept, Outline } from './outline';

const NEVER = -1;
/** How many marks of an order are kept. A choice of the search. */
const MARKS = 20;

/** Orders of pieces and washes, each laid out as an outline. What one shares with the order that was accepted last is not laid out again. */
export class Sketch {
  readonly outline: Outline;
  /** When each item of the accepted order begins and ends. */
  readonly from: Int32Array;
  readonly to: Int32Array;
  private readonly every: number;
  /** Of the accepted order, and of the one that is tried. */
  private readonly marks: Kept[];
  private readonly trial: Kept[];
  private isMarked = false;
  private kept = 0;
  private met = NEVER;

  constructor(outline: Outline) {
    const { items } = outline;
    this.outline = outline;
    this.from = new Int32Array(items.length);
    this.to = new Int32Array(items.length);
    this.every = Math.max(1, Math.ceil(items.length / MARKS));
    const marks = (): Kept[] => Array.from({ length: Math.ceil(items.length / this.every) }, () => outline.kept());
    this.marks = marks();
    this.trial = marks();
  }

  /** Begins anew: what was laid out before is not built on. */
  begin(): void {
    this.isMarked = false;
  }

  /**
   * Lays an order out, in these ways; `accepted` is the one that was taken last, `changedJob` whose way is another (−1 = all as they were). Gives its cost, what is
   * early not counted, or something above `limit` as soon as it is certain to be above; Infinity when it cannot be laid out. What it shares with the accepted order is
   * not laid out again.
   */
  lay(order: Int32Array, ways: Int32Array, accepted: Int32Array, changedJob: number, limit: number, cost: number): number {
    const { every, outline, marks, trial } = this;
    const { length } = order;
    this.met = NEVER;
    let shared = 0;
    let rest = length;
    if (this.isMarked) {
      while (shared < length && order[shared] === accepted[shared]) shared += 1;
      if (changedJob < 0) while (rest > shared && order[rest - 1] === accepted[rest - 1]) rest -= 1;
    }
    let kept = Math.floor(Math.min(shared, length - 1) / every);
    while (kept > 0 && changedJob >= 0 && outline.hasBegun(changedJob, marks[kept]!)) kept -= 1;
    this.kept = kept;
    outline.restore(kept === 0 ? null : marks[kept]!, ways);
    for (let at = kept * every; at < length; at += 1) {
      if (at % every === 0 && at > kept * every) {
        const was = marks[at / every]!;
        if (at >= rest && isAlike(outline.state, was.state) && isAlike(outline.bits, was.bits)) {
          this.met = at / every;
          return cost;
        }
        outline.keep(trial[at / every]!);
      }
      if (!outline.place(order[at]!)) return Number.POSITIVE_INFINITY;
      if (outline.cost > limit) return outline.cost;
    }
    return outline.total();
  }

  /** Takes the order that was laid out last; true when it lies elsewhere than the one before. */
  accept(): boolean {
    const { marks, trial, outline, from, to } = this;
    const end = this.met < 0 ? marks.length : this.met;
    for (let at = this.kept + 1; at < end; at += 1) {
      const mark = marks[at]!;
      marks[at] = trial[at]!;
      trial[at] = mark;
    }
    if (this.met >= 0) return false;
    this.isMarked = true;
    for (let index = 0; index < from.length; index += 1) {
      from[index] = outline.from(index);
      to[index] = outline.to(index);
    }
    return true;
  }
}
