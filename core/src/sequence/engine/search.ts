import { seeded } from '../random';
import type { Random } from '../random';
import { violations } from '../check';
import { endOf, objectiveOf } from '../problem';
import type { PlacedJob, Problem, Reference, Sequence } from '../problem';
import { compile } from './compile';
import type { Compiled } from './compile';
import type { Guide, GuideFor } from './guide';
import { Lists } from './lists';
import type { ListKind } from './lists';
import { planOf } from './reading';
import { Sketches } from './sketches';
import { Timetable } from './timetable';
import type { Saved } from './timetable';
import { Waiting } from './waits';
import type { Waits } from './waits';

/**
 * Ruin and recreate: take a few related jobs out, put each back where it costs least, keep the result if it is better, or by a chance that cools
 * down if it is not. Cycles start from the best so far or from a fresh order. Deterministic for a seed and a number of moves.
 */
export interface SearchOptions {
  readonly seed: number;
  /** Begin from this plan as far as it still fits. */
  readonly from?: Reference | Pick<Sequence, 'jobs' | 'changeovers'> | undefined;
  /** Minutes moved against this plan count. */
  readonly reference?: Reference | undefined;
  /** Searches for problems of a known shape; the first that knows it is followed. */
  readonly guides?: readonly GuideFor[] | undefined;
}

/** How a job is put back: latest before its ready-by, or soonest; `noise` makes the second best choice now and then. */
interface Insertion {
  readonly noise: number;
}

/** Searches in the order they have their turns: sketches after what lays whole jobs out in whichever way ends soonest, because each goes on in the ways it finds. */
const TURNS = ['whole', 'sketch', 'pieces', 'late', 'ruin'] as const;
type Turn = (typeof TURNS)[number];
/**
 * Moves of the first cycles of an order laid out, for each job and at most, and what part of that the searches get that seldom find anything by themselves: ruin,
 * orders from the end while anything is late, orders of whole jobs when nothing is; sketches after they have found nothing. Choices of the search.
 */
const CYCLE_BY_JOB = 100;
const FIRST_CYCLE = 1000;
const MINOR = 0.25;
/** Sketches in the time one order takes to be laid out. A choice of the search. */
const SKETCHES = 5;
const LONGEST_CYCLE = 50_000;
const HOT = 0.25;
const COLD = 0.01;
const LEARNS = 0.02;
const VARIANTS_TRIED = 8;
/** How often a job is put back with a longer wait than it needs. A choice of the search. */
const STRETCHED = 0.25;

export class Search {
  readonly compiled: Compiled;
  private readonly table: Timetable;
  private readonly random: Random;
  private readonly spare: Saved;
  private readonly insertSpare: Saved;
  private readonly empty: Saved;
  private readonly hasWashes: boolean;
  private best: Saved;
  private bestCost: number;
  /** The waits the best was laid out with; null when it was not laid out in an order. */
  private bestWaits: Waits | null = null;
  private waitingMade: Waiting | null = null;
  private cost: number;
  /** Jobs that are not taken out again: those that stand in a unit now. */
  private readonly fixed: readonly boolean[];
  private readonly movable: readonly number[];
  private moves = 0;
  /** Orders of whole jobs, of their pieces where that is another thing, and from the end. */
  private lists: ReadonlyMap<ListKind, Lists> | null = null;
  /** Sketches of days that have something late; null = not yet asked for. */
  private sketches: Sketches | null = null;
  private readonly canSketch: boolean;
  /** Whether the last sketches found anything. */
  private sketchesPay = true;
  /** What is late in the best. */
  private bestLateness = 0;
  /** What orders are laid out on: what is under way and what is pinned; and the jobs that are ordered. */
  private readonly root: Saved;
  private readonly free: readonly number[];
  private readonly starts: readonly ((job: number) => number)[];
  private turn: Turn;
  /** Moves of a cycle of whole jobs or their pieces, and of the one that is under way. */
  private longest: number;
  private cycleLength: number;
  /** Nothing is late in the best: what is left to gain is to be ready no sooner than wanted. */
  private isFresh = false;
  private cycleAt = 0;
  private cycleFrom = Number.POSITIVE_INFINITY;
  private temperature: number;
  /** What a worse neighbour usually costs more, as its logarithm, by search. */
  private readonly rise: Record<Turn, number>;
  private readonly reference: Reference | null;
  /** The search for a problem of a shape that has one of its own; null = it has none. Made when it is first asked for. */
  private guide: Guide | null | undefined;
  private readonly guides: readonly GuideFor[];

  constructor(problem: Problem, options: SearchOptions) {
    this.compiled = compile(problem);
    this.table = new Timetable(this.compiled);
    this.insertSpare = this.table.save();
    this.empty = this.table.save();
    this.hasWashes = this.compiled.washes.some((table) => table !== null);
    this.random = seeded(options.seed);
    this.reference = options.reference ?? null;
    this.guides = options.guides ?? [];
    if (options.reference !== undefined) this.setReference(options.reference);
    this.fixed = this.compiled.jobs.map((job) => job.allDone || job.inside || job.variants.length === 0);
    this.movable = this.compiled.jobs.flatMap((job) => (this.fixed[job.index]! ? [] : [job.index]));
    const pinned = this.compiled.jobs.map((job) => job.pinned.some((start) => start >= 0));
    this.insertAll([...this.withInputs(this.compiled.order.filter((index) => this.fixed[index]!))], { noise: 0 });
    const under = this.table.save();
    this.insertAll([...this.withInputs(this.compiled.order.filter((index) => pinned[index]!))], { noise: 0 });
    // An order laid out as soon as it fits begins around what is pinned.
    this.root = this.table.save();
    this.free = this.movable.filter((index) => !this.table.isPlaced(index));
    if (options.from === undefined) this.build();
    else if (!('changeovers' in options.from) || !this.adoptWhole(options.from)) {
      // What is put by hand goes first, or last into the room the others leave: whichever turns out better.
      this.rebuild(options.from);
      if (pinned.includes(true)) {
        const first = this.table.save();
        const cost = this.table.cost();
        this.table.restore(under);
        this.rebuild(options.from, new Set(this.withInputs(this.compiled.order.filter((index) => pinned[index]!))));
        if (this.table.cost() > cost) this.table.restore(first);
      }
    }
    this.canSketch = problem.lines.length === 0 && !pinned.includes(true);
    this.turn = options.from === undefined ? 'whole' : 'ruin';
    this.longest = Math.min(FIRST_CYCLE, CYCLE_BY_JOB * Math.max(1, this.free.length));
    this.cycleLength = this.longest;
    this.cost = this.table.cost();
    this.best = this.table.save();
    this.bestCost = this.cost;
    this.spare = this.table.save();
    this.starts = this.beginnings();
    const rise = Math.log(this.warmth());
    this.rise = { whole: rise, pieces: rise, late: rise, ruin: rise, sketch: rise };
    // A first plan that leaves something out is not shown before the other ways to begin have been tried.
    if (this.movable.some((index) => !this.table.isPlaced(index))) this.run(this.starts.length);
    this.temperature = this.warmth();
  }

  get bestKnown(): number {
    return this.bestCost;
  }

  get movesMade(): number {
    return this.moves;
  }

  private setReference(reference: Reference): void {
    const by = new Map(reference.jobs.map((placed) => [placed.jobId, placed]));
    const placed = this.compiled.jobs.map((job) => by.get(job.job.id));
    this.table.moved = {
      end: Int32Array.from(placed, (one) => (one === undefined ? -1 : endOf(one))),
      units: placed.map((one) => one?.spanUnitIds.join() ?? null),
    };
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

  /** The first plan: what is under way, what is pinned, then by when it is wanted, each with what it waits for before it. */
  private build(): void {
    const due = (index: number): number => this.compiled.jobs[index]!.job.readyByMin ?? Number.POSITIVE_INFINITY;
    const rest = this.compiled.order.filter((index) => !this.fixed[index]! && !this.table.isPlaced(index));
    this.insertAll(
      [...rest].filter((index) => !this.table.isPlaced(index)).sort((left, right) => due(left) - due(right)),
      { noise: 0 },
    );
  }

  /** What is under way or pinned comes first, and so does what it still waits for. */
  private withInputs(jobs: readonly number[]): readonly number[] {
    const wanted = new Set<number>();
    const follow = (index: number): void => {
      if (wanted.has(index)) return;
      for (const input of this.compiled.jobs[index]!.inputs) follow(input.job);
      wanted.add(index);
    };
    const inside = jobs.filter((index) => this.compiled.jobs[index]!.inside);
    for (const index of [...inside, ...jobs]) follow(index);
    return [...wanted].filter((index) => !this.table.isPlaced(index));
  }

  /** Lays a plan out again as far as it fits; what does not is put in afresh. */
  private rebuild(from: Reference, afresh: ReadonlySet<number> = new Set()): void {
    const by = new Map(from.jobs.map((placed) => [placed.jobId, placed]));
    const left: number[] = [];
    for (const index of this.compiled.order) {
      if (this.table.isPlaced(index)) continue;
      const placed = by.get(this.compiled.jobs[index]!.job.id);
      if (placed === undefined || afresh.has(index) || !this.replace(index, placed)) left.push(index);
    }
    const due = (index: number): number => this.compiled.jobs[index]!.job.readyByMin ?? Number.POSITIVE_INFINITY;
    this.insertAll(
      left.sort((one, other) => due(one) - due(other)),
      { noise: 0 },
    );
  }

  /** A plan that still holds as it is, down to its washes, is taken as it is. */
  private adoptWhole(from: Pick<Sequence, 'jobs' | 'changeovers'>): boolean {
    const { problem, jobs } = this.compiled;
    const known = { jobs: from.jobs.filter((placed) => problem.jobs.some(({ id }) => id === placed.jobId)), changeovers: from.changeovers, unplaced: [] };
    if (jobs.some((job) => job.variants.length === 0) || violations(problem, known).length > 0) return false;
    const plan = known.jobs.map((placed) => {
      const job = jobs.findIndex(({ job: one }) => one.id === placed.jobId);
      return { job, variant: this.variantOf(job, placed), starts: placed.steps.map((step) => step.startMin) };
    });
    if (plan.some(({ variant }) => variant < 0)) return false;
    this.table.restore(this.empty);
    this.table.adopt(plan, (unit, before, after) => {
      const wash = from.changeovers.find((one) => one.unitId === problem.units[unit]!.id && one.fromJobId === problem.jobs[before]!.id && one.toJobId === problem.jobs[after]!.id);
      return wash === undefined ? null : [wash.startMin, wash.endMin];
    });
    return true;
  }

  private variantOf(index: number, placed: PlacedJob): number {
    const { job, variants } = this.compiled.jobs[index]!;
    const { units } = this.compiled.problem;
    return variants.findIndex(
      (one) =>
        one.modes.every((mode, step) => job.steps[step]!.modes[mode]!.id === placed.steps[step]?.modeId) &&
        one.spanUnit.every((unit, span) => unit < 0 || units[unit]!.id === placed.spanUnitIds[span]) &&
        one.stepUnit.every((unit, step) => unit < 0 || units[unit]!.id === placed.steps[step]?.unitId),
    );
  }

  private replace(index: number, placed: PlacedJob): boolean {
    const variant = this.variantOf(index, placed);
    return (
      variant >= 0 &&
      this.table.placeAt(
        index,
        variant,
        placed.steps.map((step) => step.startMin),
      )
    );
  }

  /** Puts a job in where it costs least of the ways that are tried. False when it fits nowhere. */
  private insert(index: number, { noise }: Insertion): boolean {
    const job = this.compiled.jobs[index]!;
    if (job.variants.length === 0) return false;
    for (const input of job.inputs) if (!this.table.isPlaced(input.job) && this.compiled.jobs[input.job]!.variants.length === 0) return false;
    const { table } = this;
    const { weights } = this.compiled.problem;
    const aim = job.job.readyByMin === null ? null : job.job.readyByMin - job.job.bufferMin;
    const wanted = aim ?? (job.consumers.some(({ job: other }) => table.isPlaced(other)) ? this.compiled.horizon : null);
    const agreed = table.moved?.end[index] ?? -1;
    const found: { readonly variant: number; readonly starts: readonly number[]; readonly cost: number }[] = [];
    const many = job.variants.length;
    const offset = many > VARIANTS_TRIED ? Math.floor(this.random() * many) : 0;
    const consider = (variant: number, end: number): void => {
      if (end < 0) return;
      // A little for its length in the unit: of equal ends the plan that holds the kettle for less is the better one to build on.
      let cost = table.jobCost(index, end) + table.unitCost(index, table.variant(index)) + weights.changeover * table.units.washTotal + weights.makespan * end + 0.001 * end;
      cost += table.standsCost(index) + job.inputs.reduce((sum, input) => sum + table.standsCost(input.job), 0);
      if (noise > 0) cost += this.random() * noise;
      found.push({ variant, starts: this.startsOf(index), cost });
      table.remove(index);
    };
    for (let tried = 0; tried < Math.min(many, VARIANTS_TRIED); tried += 1) {
      const variant = (offset + tried) % many;
      table.longer[index] = noise > 0 && this.random() < STRETCHED ? this.waiting.oneLonger(index, variant) : null;
      // Taking a job out may wash elsewhere than before it came.
      const before = this.hasWashes ? table.save(this.insertSpare) : null;
      for (let partition = 0; partition < job.partitions.length; partition += 1) {
        let end = -1;
        if (wanted !== null && !job.inside) {
          end = table.placeLate(index, variant, partition, wanted);
          const early = end >= 0 && aim !== null ? aim - end - job.job.likesEarlyMin : end >= 0 ? 0 : 1;
          consider(variant, end);
          if (agreed >= 0 && agreed !== end) consider(variant, table.placeLate(index, variant, partition, agreed));
          if (early <= 0) break;
        }
        const target = aim !== null && !job.begun ? aim : 0;
        const soon = table.placeSoon(index, variant, partition, target, wanted !== null || job.partitions.length > 1);
        consider(variant, soon);
        if (end >= 0 || soon >= 0) break;
      }
      if (before !== null) table.restore(before);
    }
    table.longer[index] = null;
    return found.sort((left, right) => left.cost - right.cost).some((way) => table.placeAt(index, way.variant, way.starts));
  }

  private startsOf(index: number): readonly number[] {
    const { offset, size } = this.compiled.jobs[index]!;
    return Array.from(this.table.start.subarray(offset, offset + size));
  }

  /** Puts jobs in one after the other. A job that no longer fits before what takes from it throws that out once and comes first. */
  private insertAll(queue: number[], insertion: Insertion): void {
    const thrown = new Set<number>();
    while (queue.length > 0) {
      const index = queue.shift()!;
      if (this.table.isPlaced(index) || this.insert(index, insertion)) continue;
      const takers = this.takersOf(index).filter((taker) => this.table.isPlaced(taker) && !this.fixed[taker]!);
      if (takers.length === 0 || thrown.has(index)) continue;
      thrown.add(index);
      const saved = this.table.save();
      if (!takers.every((taker) => this.table.remove(taker))) {
        this.table.restore(saved);
        continue;
      }
      const order = this.compiled.order.filter((other) => takers.includes(other));
      queue.unshift(index, ...order);
    }
    // Nothing stands on what could not be made.
    for (const index of this.compiled.order) {
      const job = this.compiled.jobs[index]!;
      if (!job.begun && this.table.isPlaced(index) && job.inputs.some((input) => !this.table.isPlaced(input.job))) this.table.remove(index);
    }
    this.leaveUseless();
  }

  /** Nothing is made for what is not made either: what only others take, and none of them has found a place, makes room. What is pinned is wanted as it is. */
  private leaveUseless(): void {
    const { compiled, table } = this;
    if (compiled.jobs.every(({ index }) => table.isPlaced(index))) return;
    for (const index of [...compiled.order].reverse()) {
      const { forOthers, consumers, pinned, begun } = compiled.jobs[index]!;
      if (!forOthers || begun || this.fixed[index]! || !table.isPlaced(index) || pinned.some((start) => start >= 0)) continue;
      if (consumers.some(({ job }) => table.isPlaced(job))) continue;
      const saved = table.save();
      if (!table.remove(index)) table.restore(saved);
    }
  }

  /** Jobs that take from a job, directly or by what is made of it. */
  private takersOf(index: number): readonly number[] {
    const found = new Set<number>();
    const follow = (at: number): void => {
      for (const consumer of this.compiled.jobs[at]!.consumers) {
        if (found.has(consumer.job)) continue;
        found.add(consumer.job);
        follow(consumer.job);
      }
    };
    follow(index);
    return [...found];
  }

  private pick(limit: number): number {
    return Math.floor(this.random() * limit);
  }

  /** Jobs to take out: one by chance, and others near it in time or in the same unit. */
  private ruin(): readonly number[] {
    const { movable, table } = this;
    const placed = movable.filter((index) => table.isPlaced(index));
    const missing = movable.filter((index) => !table.isPlaced(index));
    if (placed.length === 0) return missing;
    const most = Math.min(placed.length, 6);
    const count = 1 + this.pick(most);
    const seed = placed[this.pick(placed.length)]!;
    const nearness = (index: number): number => {
      const apart = Math.abs(table.end[index]! - table.end[seed]!);
      const shared = table.variant(index).holdings.some((one) => table.variant(seed).holdings.some((other) => one.unit === other.unit));
      return (apart + 10) * (shared ? 0.5 : 1) * (0.3 + this.random());
    };
    const style = this.random();
    const chosen =
      style < 0.75
        ? [
            seed,
            ...placed
              .filter((index) => index !== seed)
              .map((index) => ({ index, at: nearness(index) }))
              .sort((left, right) => left.at - right.at)
              .slice(0, count - 1)
              .map(({ index }) => index),
          ]
        : this.costly(placed, count);
    return [...chosen, ...missing];
  }

  /** The jobs that cost most, by chance. */
  private costly(placed: readonly number[], count: number): readonly number[] {
    return placed
      .map((index) => ({ index, cost: (this.table.jobCost(index, this.table.end[index]!) + 1) * (0.2 + this.random()) }))
      .sort((left, right) => right.cost - left.cost)
      .slice(0, count)
      .map(({ index }) => index);
  }

  private orderOf(jobs: readonly number[]): number[] {
    const { jobs: compiled } = this.compiled;
    const style = this.random();
    const shuffled = jobs.map((index) => ({ index, at: this.random() }));
    const key = (index: number, chance: number): number => {
      const { job, soonestEnd } = compiled[index]!;
      if (style < 0.3) return chance;
      if (style < 0.6) return (job.readyByMin ?? 0) + chance * 60;
      if (style < 0.8) return (job.readyByMin ?? 0) - (soonestEnd - job.releaseMin) + chance * 60;
      return (job.releaseMin - soonestEnd) * (0.5 + chance);
    };
    const order = shuffled
      .map(({ index, at }) => ({ index, at: key(index, at) }))
      .sort((left, right) => left.at - right.at)
      .map(({ index }) => index);
    if (this.random() < 0.5) return order;
    // Inputs before who takes them.
    const rank = new Map(this.compiled.order.map((index, at) => [index, at]));
    const level = (index: number): number => (compiled[index]!.consumers.length > 0 ? (rank.get(index) ?? 0) - 1e6 : 0);
    return order
      .map((index, at) => ({ index, at }))
      .sort((left, right) => level(left.index) - level(right.index) || left.at - right.at)
      .map(({ index }) => index);
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
    if (this.turn === 'ruin') this.ruinMove();
    else if (this.turn === 'sketch') this.sketchMove(this.sketches!);
    else this.listMove(this.listsMade().get(this.turn)!);
    this.cool();
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
    const limit = this.limit(lists.cost);
    const cost = lists.decode(order, limit);
    lists.learn(cost);
    if (!this.accepts(lists.cost, cost, limit)) return;
    const isChanged = lists.isLaidOut && cost !== lists.cost;
    lists.accept(order, cost);
    this.keepIfBest(cost, lists.waits);
    const again = isChanged ? lists.justified() : null;
    if (again === null) return;
    const justified = lists.decode(again, cost);
    if (justified > cost) return;
    lists.accept(again, justified);
    this.keepIfBest(justified, lists.waits);
  }

  /** Many sketches; those in which no more is late than in the best are laid out. */
  private sketchMove(sketches: Sketches): void {
    // What is laid out on the table now and then finds room no sketch knows of.
    if (sketches.cost === Number.POSITIVE_INFINITY) {
      this.cycleLength = 0;
      return;
    }
    for (let made = 0; made < SKETCHES; made += 1) {
      const limit = this.limit(sketches.cost);
      const cost = sketches.neighbour(limit);
      if (!this.accepts(sketches.cost, cost, limit) || !sketches.accept(cost) || sketches.lateness > this.bestLateness) continue;
      sketches.put(this.table, this.empty);
      const laid = this.whole.pushBack();
      if (laid >= this.bestCost) continue;
      this.keepIfBest(laid);
      this.bestLateness = sketches.latenessOf(this.table);
    }
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
    this.best = this.table.save();
  }

  private cool(): void {
    this.cycleAt += 1;
    this.heat();
    if (this.cycleAt < this.cycleLength) return;
    this.cycleAt = 0;
    const isBetter = this.bestCost < this.cycleFrom;
    if (this.turn === 'sketch') this.sketchesPay = isBetter;
    this.backToBest();
    // What has just found something better goes on; what has not lets the other try, a little longer each time.
    this.beginTurn(isBetter && this.hasTurn(this.turn) ? this.turn : this.nextTurn());
  }

  private nextTurn(): Turn {
    const at = TURNS.indexOf(this.turn);
    const next = [...TURNS.slice(at + 1), ...TURNS].find((turn) => this.hasTurn(turn))!;
    if (next === 'whole') this.longest = Math.min(this.longest * 2, LONGEST_CYCLE);
    return next;
  }

  /** Whether a search has anything to do. Sketches leave out what nothing late is worth. */
  private hasTurn(turn: Turn): boolean {
    if (turn === 'ruin') return true;
    if (turn !== 'sketch') return this.listsMade().has(turn);
    return this.canSketch && !this.isFresh && this.compiled.jobs.every(({ index }) => this.table.isPlaced(index));
  }

  private beginTurn(turn: Turn): void {
    this.turn = turn;
    this.beginCycle();
    if (turn === 'ruin') return;
    if (turn === 'sketch') {
      this.sketches ??= new Sketches(this.compiled, this.root, this.free, this.random);
      this.sketches.adopt(this.table);
      this.bestLateness = this.sketches.latenessOf(this.table);
      return;
    }
    const lists = this.listsMade().get(turn)!;
    lists.adopt(this.bestWaits);
    lists.accept(lists.order, lists.decode(lists.order));
  }

  /** The next cycle starts from the best, however far the last one went astray. */
  private beginCycle(): void {
    this.backToBest();
    this.cycleLength = this.lengthOf(this.turn);
    this.cycleFrom = this.bestCost;
  }

  private lengthOf(turn: Turn): number {
    const isMinor =
      turn === 'ruin' ||
      (turn === 'late' && !this.isFresh) ||
      // The only list there is always has the long turn.
      (turn === 'whole' && this.isFresh && this.listsMade().size > 1) ||
      (turn === 'sketch' && !this.sketchesPay);
    return isMinor ? Math.ceil(this.longest * MINOR) : this.longest;
  }

  private heat(): void {
    const rise = Math.exp(this.rise[this.turn]);
    this.temperature = rise * HOT * Math.pow(COLD / HOT, this.cycleAt / this.cycleLength);
  }

  /** Better is taken; worse by a chance that falls with how much worse, measured by what a worse neighbour usually is: up to here this time. */
  private limit(was: number): number {
    return was - this.temperature * Math.log(1 - this.random());
  }

  private accepts(was: number, is: number, limit: number): boolean {
    const rise = Math.log(is - was);
    if (is > was && Number.isFinite(rise)) this.rise[this.turn] += (rise - this.rise[this.turn]) * LEARNS;
    return is <= limit;
  }

  private ruinMove(): void {
    const { table } = this;
    const before = table.save(this.spare);
    const wasCost = this.cost;
    const jobs = this.ruin();
    if (!jobs.filter((index) => table.isPlaced(index)).every((index) => table.remove(index))) {
      table.restore(before);
      return;
    }
    this.insertAll(this.orderOf(jobs), { noise: this.random() < 0.5 ? 0 : this.temperature });
    const cost = table.cost();
    if (this.accepts(wasCost, cost, this.limit(wasCost))) {
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
    this.leaveUseless();
    this.table.units.washSoon();
    const plan = planOf(this.table);
    this.backToBest();
    return { ...plan, objective: objectiveOf(this.compiled.problem, plan, this.reference) };
  }
}
