import { seeded } from '../random';
import { Following } from './following';
import type { Entries } from './following';
import type { Manner } from './manner';
import type { Outline } from './outline';
import { Outlook } from './outlook';

/** A part of an order that is laid out anew, and what it is to keep to. */
export interface Window extends Entries {
  readonly order: Int32Array;
  readonly from: number;
  readonly to: number;
  readonly ways: Int32Array;
  readonly manner: Manner;
}

/**
 * A part of a day laid out anew, forward in time, some partial plans side by side: of all that may come next in each, what leads to the least late day goes on. Who
 * comes into the units when is given, and who is begun when; when to wash, to blend, to empty and what to do meanwhile is found. A partial plan goes on only when
 * everybody who stands in a unit still gets out of it in time. What comes before and after that part keeps its order. It goes on in the kernel (core/assembly/beam.ts).
 */
export class Beam {
  /** Over when a plan is found, or nothing below the limit is left. */
  isOver = true;
  /** Of the best plan; when there is none, something above the limit. */
  cost: number = Number.POSITIVE_INFINITY;
  /** The best plan, as an order of items. */
  order: Int32Array = new Int32Array(0);
  /** Who may come next, of the outline it lays out on. */
  readonly following: Following;
  private readonly outline: Outline;
  private readonly outlook: Outlook;
  /** Where the order there was stands, and the one that is found. */
  private readonly given: number;
  private readonly found: number;

  constructor(outline: Outline) {
    const { items, kernel } = outline;
    const random = seeded(items.length);
    this.outline = outline;
    this.outlook = new Outlook(outline);
    this.following = new Following(outline);
    this.given = kernel.room(items.length);
    this.found = kernel.room(items.length);
    kernel.set({ order: this.given, found: this.found, signs: kernel.row(items.map(() => Math.floor(random() * 2 ** 31))) });
    kernel.run.prepareBeam();
  }

  /** Begins. Plans above the limit are not followed. */
  begin({ order, from, to, entering, beginning, ways, manner }: Window, limit: number): void {
    const { outline, outlook, following } = this;
    const { kernel } = outline;
    outline.turn(ways);
    outlook.turn(ways);
    following.keepTo({ entering, beginning });
    following.look(manner);
    kernel.set({ part: manner.part, alike: Math.min(manner.alike, order.length) });
    kernel.write(this.given, order);
    kernel.run.beginBeam(from, to, limit);
    this.read();
  }

  /** One item more on every partial plan. */
  step(): void {
    this.outline.kernel.run.stepBeam();
    this.read();
  }

  /** Which items are laid out in each of the partial plans that go on, in one number. */
  sets(): readonly number[] {
    const { run } = this.outline.kernel;
    return Array.from({ length: run.goingOn() }, (_, index) => run.setOf(index));
  }

  private read(): void {
    const { kernel, items } = this.outline;
    this.isOver = kernel.get('isOver') !== 0;
    if (!this.isOver) return;
    this.cost = kernel.get('foundCost');
    this.order = kernel.view(this.found, items.length).slice();
  }
}
