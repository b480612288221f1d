import type { Outline } from './outline';

/** How many marks of an order are kept. A choice of the search. */
const MARKS = 20;

/** Orders of pieces and washes, each laid out as an outline. What one shares with the order that was accepted last is not laid out again (core/assembly/sketch.ts). */
export class Sketch {
  readonly outline: Outline;
  private isMarked = false;
  /** Where the order that is tried stands, and when each item of the accepted one begins and ends. */
  private readonly tried: number;
  private readonly begins: number;
  private readonly over: number;

  constructor(outline: Outline) {
    const { items, kernel } = outline;
    const { length } = items;
    const every = Math.max(1, Math.ceil(length / MARKS));
    const stateBytes = kernel.get('stateBytes');
    const marks = (): number => kernel.row(Array.from({ length: Math.ceil(length / every) }, () => kernel.run.allocate(stateBytes)));
    this.outline = outline;
    this.tried = kernel.room(length);
    this.begins = kernel.room(length);
    this.over = kernel.room(length);
    kernel.set({ every, marks: marks(), trial: marks(), sketchOrder: this.tried, sketchFrom: this.begins, sketchTo: this.over });
  }

  /** When each item of the accepted order begins. */
  get from(): Int32Array {
    return this.outline.kernel.view(this.begins, this.outline.items.length);
  }

  /** And when it ends. */
  get to(): Int32Array {
    return this.outline.kernel.view(this.over, this.outline.items.length);
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
    const { outline, isMarked, tried } = this;
    const { length } = order;
    let shared = 0;
    let rest = length;
    if (isMarked) {
      while (shared < length && order[shared] === accepted[shared]) shared += 1;
      if (changedJob < 0) while (rest > shared && order[rest - 1] === accepted[rest - 1]) rest -= 1;
    }
    outline.turn(ways);
    outline.kernel.write(tried, order);
    return outline.kernel.run.sketch(shared, rest, changedJob, limit, cost);
  }

  /** Takes the order that was laid out last; true when it lies elsewhere than the one before. */
  accept(): boolean {
    const isElsewhere = this.outline.kernel.run.acceptSketch() !== 0;
    if (isElsewhere) this.isMarked = true;
    return isElsewhere;
  }
}
