import { seeded } from '../random';
import type { Random } from '../random';
import { endOf, objectiveOf } from '../problem';
import type { Problem, Reference, Sequence } from '../problem';
import { Beginning } from './beginning';
import { compile } from './compile';
import type { Compiled } from './compile';
import { EntryOrders, hasEntries } from './entries';
import type { Guide, GuideFor } from './guide';
import { Inserting } from './inserting';
import { Lists } from './lists';
import type { ListKind } from './lists';
import { planOf } from './reading';
import { Ruin } from './ruin';
import { Sketches } from './sketches';
import { Timetable } from './timetable';
import type { Saved } from './timetable';
import { Turns } from './turns';
import type { Length, Turn } from './turns';
import { Waiting } from './waits';
import type { Waits } from './waits';

export interface SearchOptions {
  readonly seed: number;
  /** Begin from this plan as far as it still fits. */
  readonly from?: Reference | Pick<Sequence, 'jobs' | 'changeovers'> | undefined;
  /** Minutes moved against this plan count. */
  readonly reference?: Reference | undefined;
  /** Searches for problems of a known shape; the first that knows it is followed. */
  readonly guides?: readonly GuideFor[] | undefined;
}

/** Sketches in the time one order takes to be laid out. A choice of the search. */
const SKETCHES = 5;

/** Searches that take turns, each from the best there is: in orders, in sketches, and by taking a few jobs out and putting them back. Deterministic for a seed and a number of moves. */
export class Search {
  readonly compiled: Compiled;
  private readonly table: Timetable;
  private readonly random: Random;
  private readonly spare: Saved;
  private readonly empty: Saved;
  private readonly best: Saved;
  private bestCost: number;
  /** The waits the best was laid out with; null when it was not laid out in an order. */
  private bestWaits: Waits | null = null;
  private waitingMade: Waiting | null = null;
  private cost: number;
  /** Jobs that can be moved: all but those that stand in a unit now. */
  private readonly movable: readonly number[];
  private readonly inserting: Inserting;
  private readonly ruin: Ruin;
  private readonly turns: Turns;
  private moves = 0;
  /** Orders of whole jobs, of their pieces where that is another thing, and from the end. */
  private lists: ReadonlyMap<ListKind, Lists> | null = null;
  /** Sketches of days that have something late; null = not yet asked for. */
  private sketches: Sketches | null = null;
  /** Orders in which jobs come into units, on such days when each is in every other's way; null = not yet asked for. And above what cost the next is given up. */
  private entries: EntryOrders | null = null;
  private entriesLimit = 0;
  /** The same of the day told backwards, for when nothing is late; null = it cannot be, undefined = not yet asked for. */
  private backward: EntryOrders | null | undefined;
  /** Which of the two have this turn: what they find, or somebody who asks for the plan, may make the day fresh in the middle of it. */
  private isBackward = false;
  /** Whether a day is one for them; null = not yet asked. */
  private hasEntries: boolean | null = null;
  private readonly canSketch: boolean;
  /** Whether the last sketches found anything. */
  private sketchesPay = true;
  /** What is late in the best. */
  private bestLateness = 0;
  /** What orders are laid out on: what is under way and what is pinned; and the jobs that are ordered. */
  private readonly root: Saved;
  private readonly free: readonly number[];
  private readonly starts: readonly ((job: number) => number)[];
  /** Nothing is late in the best: what is left to gain is to be ready no sooner than wanted. */
  private isFresh = false;
  private readonly reference: Reference | null;
  /** The search for a problem of a shape that has one of its own; null = it has none. Made when it is first asked for. */
  private guide: Guide | null | undefined;
  private readonly guides: readonly GuideFor[];

  constructor(problem: Problem, options: SearchOptions) {
    this.compiled = compile(problem);
    this.table = new Timetable(this.compiled);
    this.empty = this.table.save();
    this.random = seeded(options.seed);
    this.reference = options.reference ?? null;
    this.guides = options.guides ?? [];
    if (options.reference !== undefined) this.setReference(options.reference);
    const { jobs, order } = this.compiled;
    const fixed = jobs.map((job) => job.allDone || job.inside || job.variants.length === 0);
    this.movable = jobs.flatMap((job) => (fixed[job.index]! ? [] : [job.index]));
    const pinned = order.filter((index) => jobs[index]!.pinned.some((start) => start >= 0));
    this.inserting = new Inserting(this.table, fixed, () => this.waiting, this.random);
    this.inserting.putInFirst(order.filter((index) => fixed[index]!));
    const under = this.table.save();
    this.inserting.putInFirst(pinned);
    // An order laid out as soon as it fits begins around what is pinned.
    this.root = this.table.save();
    this.free = this.movable.filter((index) => !this.table.isPlaced(index));
    const beginning = new Beginning(this.table, this.inserting, fixed, pinned, this.empty, under);
    if (options.from === undefined) beginning.build();
    else beginning.take(options.from);
    this.canSketch = problem.lines.length === 0 && pinned.length === 0;
    this.ruin = new Ruin(this.table, this.movable, this.random);
    this.turns = new Turns(options.from === undefined ? 'whole' : 'ruin', this.free.length, this.warmth(), this.random);
    this.cost = this.table.cost();
    this.best = this.table.save();
    this.bestCost = this.cost;
    this.spare = this.table.save();
    this.starts = this.beginnings();
    // A first plan that leaves something out is not shown before the other ways to begin have been tried.
    if (this.movable.some((index) => !this.table.isPlaced(index))) this.run(this.starts.length);
  }

  get bestKnown(): number {
    return this.bestCost;
  }

  get movesMade(): number {
    return this.moves;
  }

  /** Whether a search of its own is followed, for a problem of a shape that has one; known once the first orders are tried. */
  get isGuided(): boolean {
    return this.guide != null;
  }

  private setReference(reference: Reference): void {
    const by = new Map(reference.jobs.map((placed) => [placed.jobId, placed]));
    const placed = this.compiled.jobs.map((job) => by.get(job.job.id));
    this.table.setMoved({
      end: Int32Array.from(placed, (one) => (one === undefined ? -1 : endOf(one))),
      units: placed.map((one) => one?.spanUnitIds.join() ?? null),
    });
  }

  /** The first plan makes no wait longer: which may be is sought when one is first to be. */
  private get waiting(): Waiting {
    this.waitingMade ??= new Waiting(this.compiled, this.free, this.random);
    return this.waitingMade;
  }

  /** The first plan needs no lists: they are made when they have their turn. */
  private listsMade(): ReadonlyMap<ListKind, Lists> {
    if (this.lists !== null) return this.lists;
    const made = (by: ListKind): Lists => new Lists(this.table, this.root, this.waiting, this.random, this.free, by);
    const whole = made('whole');
    const lists = new Map<ListKind, Lists>([['whole', whole]]);
    const pieces = made('pieces');
    if (pieces.items.length > whole.items.length) lists.set('pieces', pieces);
    if (this.compiled.problem.lines.length === 0 && this.compiled.jobs.some((job) => job.job.readyByMin !== null)) lists.set('late', made('late'));
    this.lists = lists;
    return lists;
  }

  private get whole(): Lists {
    return this.listsMade().get('whole')!;
  }

  /** What a step up may cost at first: a small share of what a job costs on the way. */
  private warmth(): number {
    const { late, early, makespan } = this.compiled.problem.weights;
    return Math.max(1, late * 3, early * 10, makespan * 3);
  }

  /** Makes moves; the best so far is never lost. */
  run(moves: number): void {
    if (this.movable.length === 0) return;
    for (let move = 0; move < moves; move += 1) this.move();
  }

  /** Orders worth a try before any chance: by when it is wanted, by when it must begin, the longest first, the shortest first. */
  private beginnings(): readonly ((job: number) => number)[] {
    const { jobs } = this.compiled;
    const due = (index: number): number => jobs[index]!.job.readyByMin ?? 0;
    const length = (index: number): number => jobs[index]!.soonestEnd - jobs[index]!.job.releaseMin;
    return [due, (index) => due(index) - length(index), (index) => -length(index), length, (index) => due(index) * 2 + length(index)];
  }

  private move(): void {
    const beginning = this.moves < this.starts.length ? this.starts[this.moves] : undefined;
    this.moves += 1;
    if (beginning !== undefined) {
      this.tryOrder(beginning);
      if (this.moves === this.starts.length) this.beginCycle();
      return;
    }
    // Asked once: a kitchen day has none, and null stands for that.
    if (this.guide === undefined) this.guide = this.guideFor();
    if (this.guide !== null) {
      if (this.guide.step()) this.follow(this.guide);
      return;
    }
    const { turn } = this.turns;
    if (turn === 'ruin') this.ruinMove();
    else if (turn === 'sketch') this.sketchMove(this.sketches!);
    else if (turn === 'entries') this.entriesMove();
    else this.listMove(this.listsMade().get(turn)!);
    if (this.turns.cool()) this.endCycle();
  }

  private guideFor(): Guide | null {
    const { compiled, table, random } = this;
    if (this.reference !== null || this.free.length < compiled.jobs.length || compiled.jobs.some(({ index }) => !table.isPlaced(index))) return null;
    for (const guideFor of this.guides) {
      const guide = guideFor(compiled, table.start, random);
      if (guide === null) continue;
      this.follow(guide);
      return guide;
    }
    return null;
  }

  /** Lays out what a guide has found. */
  private follow(guide: Guide): void {
    if (guide.bestCost >= this.bestCost) return;
    const { table, compiled } = this;
    const starts = guide.starts();
    table.restore(this.root);
    for (const index of compiled.order) {
      const { offset, size } = compiled.jobs[index]!;
      if (!table.placeAt(index, 0, Array.from(starts.subarray(offset, offset + size)))) return;
    }
    this.keepIfBest(table.cost());
  }

  private listMove(lists: Lists): void {
    const order = lists.neighbour();
    const limit = this.turns.limit(lists.cost);
    const cost = lists.decode(order, limit);
    lists.learn(cost);
    if (!this.turns.accepts(lists.cost, cost, limit)) return;
    const isChanged = lists.isLaidOut && cost !== lists.cost;
    lists.accept(order, cost);
    // What was not laid out to its end, because it is as before from there on, is no plan on the table.
    if (lists.isLaidOut) this.keepIfBest(cost, lists.waits);
    const again = isChanged ? lists.justified() : null;
    if (again === null) return;
    const justified = lists.decode(again, cost);
    if (justified > cost) return;
    lists.accept(again, justified);
    if (lists.isLaidOut) this.keepIfBest(justified, lists.waits);
  }

  /** Many sketches; those in which no more is late than in the best are laid out. */
  private sketchMove(sketches: Sketches): void {
    // What is laid out on the table now and then finds room no sketch knows of.
    if (sketches.cost === Number.POSITIVE_INFINITY) {
      this.turns.cutShort();
      return;
    }
    for (let made = 0; made < SKETCHES; made += 1) {
      const limit = this.turns.limit(sketches.cost);
      const cost = sketches.neighbour(limit);
      if (this.turns.accepts(sketches.cost, cost, limit) && sketches.accept(cost)) this.layIfBest(sketches);
    }
  }

  /** One item more on plans laid out by the order in which jobs come in; from the end where nothing is late. */
  private entriesMove(): void {
    const { isBackward } = this;
    const entries = this.entriesMade();
    if (entries.isIdle) {
      this.entriesLimit = entries.limit;
      entries.begin(this.entriesLimit);
    }
    const cost = entries.step();
    if (cost === null || cost > this.entriesLimit) return;
    if (cost === Number.POSITIVE_INFINITY) {
      // What is laid out on the table now and then finds room no outline knows of. Backwards, other orders are tried until one can be laid out.
      if (!isBackward) this.turns.cutShort();
      return;
    }
    entries.accept(cost);
    if (isBackward) {
      if (cost < this.bestCost && entries.put(this.table, this.empty)) this.keepIfBest(this.table.cost());
      return;
    }
    const sketches = this.sketchesMade();
    if (sketches.take(entries.order, entries.ways)) this.layIfBest(sketches);
    // Forwards nothing is left to gain.
    if (this.bestLateness === 0) this.turns.cutShort();
  }

  private sketchesMade(): Sketches {
    this.sketches ??= new Sketches(this.compiled, this.root, this.free, this.random);
    return this.sketches;
  }

  private entriesMade(): EntryOrders {
    if (this.isBackward) return this.backwardMade()!;
    this.entries ??= EntryOrders.forward(this.compiled, this.root, this.free, this.random);
    return this.entries;
  }

  private backwardMade(): EntryOrders | null {
    if (this.backward === undefined) this.backward = EntryOrders.backward(this.compiled, this.free, this.random);
    return this.backward;
  }

  /** A sketch in which no more is late than in the best is put on the table and pushed back. */
  private layIfBest(sketches: Sketches): void {
    if (sketches.lateness > this.bestLateness) return;
    sketches.put(this.table, this.empty);
    const laid = this.whole.pushBack();
    if (laid >= this.bestCost) return;
    this.keepIfBest(laid);
    this.bestLateness = sketches.latenessOf(this.table);
  }

  private backToBest(): void {
    this.table.restore(this.best);
    this.cost = this.bestCost;
    this.isFresh = !this.table.isLate();
  }

  private tryOrder(key: (job: number) => number): void {
    const lists = this.whole;
    const order = lists.sortedBy(key);
    const cost = lists.decode(order);
    if (cost < lists.cost) lists.accept(order, cost);
    this.keepIfBest(cost);
  }

  private keepIfBest(cost: number, waits: Waits | null = null): void {
    if (cost >= this.bestCost) return;
    this.bestCost = cost;
    this.bestWaits = waits;
    this.table.save(this.best);
  }

  private endCycle(): void {
    const { turns } = this;
    const isBetter = turns.hasGained(this.bestCost);
    if (turns.turn === 'sketch') this.sketchesPay = isBetter;
    this.backToBest();
    // What has just found something better goes on; what has not lets the other try, a little longer each time.
    this.beginTurn(isBetter && this.mayGoOn(turns.turn) ? turns.turn : turns.next((turn) => this.hasTurn(turn)));
  }

  /** Whole jobs give way to entries, and those to sketches, which go on from what they find; but to themselves, told backwards, once nothing is late. */
  private mayGoOn(turn: Turn): boolean {
    if (turn === 'entries') return this.isFresh && !this.isBackward && this.hasTurn(turn);
    return this.hasTurn(turn) && !(turn === 'whole' && this.hasTurn('entries'));
  }

  /** Whether a search has anything to do. Sketches leave out what nothing late is worth. */
  private hasTurn(turn: Turn): boolean {
    if (turn === 'ruin') return true;
    if (turn !== 'sketch' && turn !== 'entries') return this.listsMade().has(turn);
    if (!this.canSketch || (turn === 'sketch' && this.isFresh) || !this.compiled.jobs.every(({ index }) => this.table.isPlaced(index))) return false;
    if (turn === 'sketch') return true;
    this.hasEntries ??= hasEntries(this.compiled, this.free);
    return this.hasEntries && (!this.isFresh || this.backwardMade() !== null);
  }

  private beginTurn(turn: Turn): void {
    this.turns.turn = turn;
    this.beginCycle();
    if (turn === 'ruin') return;
    if (turn === 'sketch' || turn === 'entries') {
      const sketches = this.sketchesMade();
      this.bestLateness = sketches.latenessOf(this.table);
      if (turn === 'sketch') sketches.adopt(this.table);
      else {
        this.isBackward = this.isFresh;
        const entries = this.entriesMade();
        entries.adopt(this.table);
        this.entriesLimit = entries.cost;
      }
      return;
    }
    const lists = this.listsMade().get(turn)!;
    lists.adopt(this.bestWaits);
    lists.accept(lists.order, lists.decode(lists.order));
    if (lists.isLaidOut) this.keepIfBest(lists.cost, lists.waits);
  }

  /** The next cycle starts from the best, however far the last one went astray. */
  private beginCycle(): void {
    this.backToBest();
    this.turns.begin(this.lengthOf(this.turns.turn), this.bestCost);
  }

  /**
   * Short for searches that seldom find anything by themselves: ruin, orders from the end while anything is late, those of whole jobs when nothing is; sketches after
   * they have found nothing. Long for entries told backwards: many moves make one order, and nothing that comes after them finds as much.
   */
  private lengthOf(turn: Turn): Length {
    switch (turn) {
      case 'ruin':
        return 'short';
      case 'late':
        return this.isFresh ? 'plain' : 'short';
      case 'whole':
        // The only list there is always has its full turn.
        return this.isFresh && this.listsMade().size > 1 ? 'short' : 'plain';
      case 'sketch':
        return this.sketchesPay ? 'plain' : 'short';
      case 'pieces':
        return 'plain';
      case 'entries':
        return this.isFresh ? 'long' : 'plain';
    }
  }

  private ruinMove(): void {
    const { table } = this;
    const before = table.save(this.spare);
    const wasCost = this.cost;
    const jobs = this.ruin.jobs();
    if (!jobs.filter((index) => table.isPlaced(index)).every((index) => table.remove(index))) {
      table.restore(before);
      return;
    }
    this.inserting.insertAll(this.ruin.orderOf(jobs), this.random() < 0.5 ? 0 : this.turns.temperature);
    const cost = table.cost();
    if (this.turns.accepts(wasCost, cost, this.turns.limit(wasCost))) {
      this.cost = cost;
      this.keepIfBest(cost);
    } else {
      table.restore(before);
      this.cost = wasCost;
    }
  }

  /** The best plan so far. */
  sequence(): Sequence {
    this.backToBest();
    this.inserting.leaveUseless();
    this.table.washSoon();
    const plan = planOf(this.table);
    this.backToBest();
    return { ...plan, objective: objectiveOf(this.compiled.problem, plan, this.reference) };
  }
}
