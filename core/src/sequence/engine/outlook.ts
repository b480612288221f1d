import type { Compiled, CompiledJob, Uses, Variant } from './compile';
import type { Outline } from './outline';

const NONE = -1;
/** What a step asks of the scarcest resource: so much that nothing fits beside it, more than half, or little. */
const WHOLE = 0;
const MOST = 1;
const LITTLE = 2;
/** Told backwards: all of it until it is out of the unit it stays in. */
const INSIDE = 3;
const KINDS = 4;
/** How much of little work is beside nothing else, how much longer the rest takes than its work, and what a minute of it counts. Choices of the search. */
const ALONE = 0.8;
const LONGER = 1.2;
const MINUTE = 20;
/** The same of a day told backwards; and how much of the work on those who came in last may still be left when one more comes in. Choices of the search. */
const MINUTE_BACKWARDS = 5;
const LONGER_BACKWARDS = 1.05;
const AMONG = 0.2;

/** What is not yet laid out of a day. */
export interface Rest {
  /** Of each job and kind: minutes of work on the scarcest resource. */
  readonly work: Float64Array;
  /** Until when each job keeps a little of it. */
  readonly until: Int32Array;
  washes: number;
}

/** The unit a job stays in, done in one way; for how long at least, and from when it comes in until it ends; and from its first step until it comes in. */
interface Stay {
  readonly unit: number;
  readonly stayMin: number;
  readonly throughMin: number;
  readonly aheadMin: number;
}

/** Null where it stays in none, or in one after another: then nobody knows in which order jobs come into each. */
function stayOf(job: CompiledJob, variant: Variant, firstStep: number): Stay | null {
  const { size } = job;
  const { apart, durations, holdings, tail } = variant;
  const [holding, another] = holdings.filter(({ from, to }) => from !== to);
  if (holding === undefined || another !== undefined) return null;
  const { unit, from, to, untilEnd } = holding;
  return {
    unit,
    stayMin: Math.max(0, -apart[to * size + from]!) + (untilEnd ? durations[to]! : 0),
    throughMin: tail[from]!,
    aheadMin: Math.max(0, -apart[from * size + firstStep]!),
  };
}

/** The resource there is least of for the work that is left. */
interface Scarce {
  readonly capacity: number;
  /** The least that anything asks of it, and whether something asks so much that nothing else fits beside. */
  readonly least: number;
  readonly isTakenWhole: boolean;
  readonly unitsOf: (uses: Uses) => number;
}

export function scarceOf({ jobs, levels, problem }: Compiled): Scarce {
  const unitsOf = (resource: number, uses: Uses): number => uses.reduce((sum, level) => sum + (levels[level]!.resource === resource ? levels[level]!.units : 0), 0);
  const steps = jobs.flatMap(({ variants: [variant], doneStart }) =>
    (variant?.durations ?? []).flatMap((duration, step) => (doneStart[step]! < 0 ? [{ duration, uses: variant!.uses[step]! }] : [])),
  );
  const load = problem.resources.map(({ capacity }, resource) => steps.reduce((sum, { duration, uses }) => sum + duration * unitsOf(resource, uses), 0) / Math.max(1, capacity));
  const scarce = load.indexOf(Math.max(...load));
  const capacity = problem.resources[scarce]?.capacity ?? 1;
  const asked = steps.map(({ uses }) => unitsOf(scarce, uses)).filter((units) => units > 0);
  const least = Math.min(capacity, ...asked);
  return { capacity, least, isTakenWhole: asked.some((units) => units > capacity - least), unitsOf: (uses) => unitsOf(scarce, uses) };
}

/** What a day may come to that is laid out in part: by the work that is left on the resource there is least of. */
export class Outlook {
  /** What the day that was guessed last costs for sure. */
  sure = 0;
  private readonly outline: Outline;
  /** Of each item and kind: minutes of the scarcest resource; and of each job, all together. */
  private readonly workOf: Float64Array;
  private readonly whole: Float64Array;
  private readonly shortestWash: number;
  private entering: Int32Array = new Int32Array(0);
  /** Of each job in the order they come in: by when it ends at the soonest, and when it may; −1 = nothing is left. And what is left of all. */
  private readonly soonest: Float64Array;
  private readonly likely: Float64Array;
  private left = 0;
  /** Told backwards: of each job in the order they come in, when it may; −1 = it is in. And how many stay in units at once. */
  private readonly comesIn: Float64Array;
  private readonly places: number;
  /** Of each job the item it comes in with, −1 = none; and of each way where it stays. */
  private readonly entryOf: Int32Array;
  private readonly stays: readonly (readonly (Stay | null)[])[];
  /** Of each job, in the way it is done, its stay; unit −1 = it has none. */
  private readonly stayUnit: Int32Array;
  private readonly stayMin: Int32Array;
  private readonly throughMin: Int32Array;
  private readonly aheadMin: Int32Array;
  /** Of each unit, as jobs come in one after another: when it is free, and who was in it last. */
  private readonly freeAt: Int32Array;
  private readonly freeBy: Int32Array;

  constructor(outline: Outline) {
    const { compiled, items } = outline;
    const { jobs, washes, horizon } = compiled;
    this.outline = outline;
    this.workOf = new Float64Array(items.length * KINDS);
    this.whole = new Float64Array(jobs.length * KINDS);
    this.comesIn = new Float64Array(jobs.length);
    this.entryOf = new Int32Array(jobs.length).fill(NONE);
    this.places = new Set(jobs.flatMap(({ variants }) => variants.flatMap(({ spanUnit }) => spanUnit.filter((unit) => unit >= 0)))).size;
    this.stays = jobs.map((job) => job.variants.map((variant) => stayOf(job, variant, outline.standing === null ? 0 : outline.standing.first[job.index]! - job.offset)));
    this.stayUnit = new Int32Array(jobs.length);
    this.stayMin = new Int32Array(jobs.length);
    this.throughMin = new Int32Array(jobs.length);
    this.aheadMin = new Int32Array(jobs.length);
    this.freeAt = new Int32Array(compiled.unitCount);
    this.freeBy = new Int32Array(compiled.unitCount);
    this.measure();
    this.shortestWash = washes.reduce((shortest, table) => table?.reduce((least, min) => (min > 0 ? Math.min(least, min) : least), shortest) ?? shortest, horizon);
    this.soonest = new Float64Array(jobs.length);
    this.likely = new Float64Array(jobs.length);
  }

  /** Room for what is left. */
  rest(): Rest {
    return { work: new Float64Array(this.whole.length), until: new Int32Array(this.outline.compiled.jobs.length), washes: 0 };
  }

  /** What is left of a day whose jobs come in in this order, of what is laid out now. */
  begin(entering: readonly number[], rest: Rest): void {
    const { outline, whole } = this;
    this.entering = Int32Array.from(entering);
    this.stays.forEach((ways, job) => {
      const stay = ways[outline.ways[job]!] ?? null;
      this.stayUnit[job] = stay?.unit ?? NONE;
      this.stayMin[job] = stay?.stayMin ?? 0;
      this.throughMin[job] = stay?.throughMin ?? 0;
      this.aheadMin[job] = stay?.aheadMin ?? 0;
    });
    rest.work.set(whole);
    rest.until.fill(0);
    rest.washes = outline.items.length - outline.pieces;
    outline.items.forEach((_, item) => {
      if (outline.seen[item] !== 0) this.take(item, outline.to(item), rest, rest);
    });
  }

  /** What is left when an item is done that ends then. */
  take(item: number, to: number, before: Rest, after: Rest): void {
    const { outline, workOf } = this;
    const { job } = outline.items[item]!;
    if (before !== after) {
      after.work.set(before.work);
      after.until.set(before.until);
    }
    for (let kind = 0; kind < KINDS; kind += 1) after.work[job * KINDS + kind]! -= workOf[item * KINDS + kind]!;
    if (workOf[item * KINDS + LITTLE]! > 0) after.until[job] = to;
    after.washes = before.washes - (item < outline.pieces ? 0 : 1);
  }

  /** Whether an item that is laid out keeps somebody busy. */
  keepsBusy(item: number): boolean {
    const { outline, workOf } = this;
    return item < outline.pieces ? workOf[item * KINDS + WHOLE]! > 0 || workOf[item * KINDS + MOST]! > 0 : outline.to(item) > outline.from(item);
  }

  /** What everything asks of the resource there is least of, by its work. */
  private measure(): void {
    const { outline, workOf, whole } = this;
    const { jobs } = outline.compiled;
    const { capacity, least, unitsOf } = scarceOf(outline.compiled);
    const isOut = jobs.map(() => false);
    outline.items.slice(0, outline.pieces).forEach(({ job, block }, at) => {
      for (const step of block) {
        if (jobs[job]!.doneStart[step]! >= 0) continue;
        const duration = Math.min(...jobs[job]!.variants.map((variant) => variant.durations[step]!));
        const units = unitsOf(jobs[job]!.variants[0]!.uses[step]!);
        if (units === 0) continue;
        if (units > capacity - least) workOf[at * KINDS + WHOLE]! += duration;
        else if (units * 2 > capacity) workOf[at * KINDS + MOST]! += duration;
        // Two halves go beside each other; what takes little keeps all off that leaves nothing.
        else if (units * 2 === capacity) workOf[at * KINDS + WHOLE]! += duration / 2;
        else workOf[at * KINDS + LITTLE]! += duration * ALONE;
      }
      const stays = jobs[job]!.variants[0]!.holdings.filter(({ from, to }) => from !== to);
      if (this.entryOf[job]! < 0 && stays.some(({ from }) => block.includes(from))) this.entryOf[job] = at;
      if (this.entryOf[job]! >= 0 && !isOut[job]!) workOf[at * KINDS + INSIDE] = workOf[at * KINDS]! + workOf[at * KINDS + MOST]! + workOf[at * KINDS + LITTLE]!;
      if (stays.some(({ to }) => block.includes(to))) isOut[job] = true;
      for (let kind = 0; kind < KINDS; kind += 1) whole[job * KINDS + kind]! += workOf[at * KINDS + kind]!;
    });
  }

  /** When each job that is not over may end once an item is done that is laid out now, by the work that is left of it and of those that come in before it. */
  reckon({ work, until, washes }: Rest, item: number, busy: number): void {
    const { outline, workOf, entering, soonest, likely } = this;
    const { job } = outline.items[item]!;
    const mine = item * KINDS;
    const longer = outline.standing === null ? LONGER : LONGER_BACKWARDS;
    let all = busy;
    let most = 0;
    let little = 0;
    for (let other = 0; other < until.length; other += 1) {
      const is = other === job && workOf[mine + LITTLE]! > 0 ? outline.to(item) : until[other]!;
      if (is > busy) little += (is - busy) * ALONE;
    }
    for (let place = 0; place < entering.length; place += 1) {
      const other = entering[place]!;
      const at = other * KINDS;
      let wholeLeft = work[at]!;
      let mostLeft = work[at + MOST]!;
      let littleLeft = work[at + LITTLE]!;
      if (other === job) {
        wholeLeft -= workOf[mine]!;
        mostLeft -= workOf[mine + MOST]!;
        littleLeft -= workOf[mine + LITTLE]!;
      }
      all += wholeLeft;
      most += mostLeft;
      little += littleLeft;
      const isOver = wholeLeft <= 0 && mostLeft <= 0;
      soonest[place] = isOver ? NONE : all + most;
      likely[place] = busy + (all + Math.max(most, little) - busy) * longer;
    }
    let toWash = item < outline.pieces ? washes : washes - 1;
    for (let unit = 0; unit < outline.compiled.unitCount; unit += 1) if (outline.unitBy[unit]! < 0) toWash -= 1;
    this.left = (all + Math.max(most, little) + Math.max(0, toWash) * this.shortestWash) * (outline.standing === null ? MINUTE : MINUTE_BACKWARDS);
    if (outline.standing !== null) this.reckonIn(work, item, busy);
  }

  /** When each job that is not in yet may come in. */
  private reckonIn(work: Float64Array, item: number, busy: number): void {
    const { outline, entering, comesIn, places, entryOf } = this;
    const { job } = outline.items[item]!;
    let before = 0;
    for (let place = 0; place < entering.length; place += 1) {
      const other = entering[place]!;
      // Those that came in last before it need not be through.
      let among = 0;
      for (let at = Math.max(0, place - places + 1); at < place; at += 1) among += this.insideOf(work, entering[at]!, job, item);
      comesIn[place] = outline.seen[entryOf[other]!] !== 0 ? NONE : busy + before - among * AMONG;
      before += this.insideOf(work, other, job, item);
    }
  }

  /** The work on a job until it is out of the unit it stays in, once an item is done. */
  private insideOf(work: Float64Array, other: number, job: number, item: number): number {
    return work[other * KINDS + INSIDE]! - (other === job ? this.workOf[item * KINDS + INSIDE]! : 0);
  }

  /** What a day may cost that goes on from what is laid out; and what it costs for sure. */
  guess(): number {
    const { outline, entering, soonest, likely, freeAt, freeBy, entryOf, comesIn } = this;
    const { standing } = outline;
    let { cost: sure, cost: guess } = outline;
    freeAt.set(outline.unitTo);
    freeBy.set(outline.unitBy);
    for (let place = 0; place < entering.length; place += 1) {
      if (soonest[place]! < 0) continue;
      const job = entering[place]!;
      const end = outline.end[job]!;
      let atLeast = soonest[place]!;
      let mayBe = likely[place]!;
      if (outline.seen[entryOf[job]!] === 0) {
        let begins = comesIn[place]!;
        if (this.stayUnit[job]! >= 0) {
          const comes = this.comesAfterOthers(job);
          const ends = comes + this.throughMin[job]!;
          if (ends > atLeast) atLeast = ends;
          if (ends > mayBe) mayBe = ends;
          begins = Math.max(begins, comes - this.aheadMin[job]!);
        }
        if (standing !== null) guess += standing.costAt(job, begins);
      }
      if (atLeast <= end && mayBe <= end) continue;
      const is = outline.lateCost(job, end);
      if (atLeast > end) sure += outline.lateCost(job, atLeast) - is;
      if (mayBe > end) guess += outline.lateCost(job, mayBe) - is;
    }
    this.sure = sure;
    return guess + this.left;
  }

  /** When a job comes into the unit it stays in at the soonest: those before it stay there one after another, each as long as it must. */
  private comesAfterOthers(job: number): number {
    const { freeAt, freeBy } = this;
    const { jobs, washes } = this.outline.compiled;
    const unit = this.stayUnit[job]!;
    const before = freeBy[unit]!;
    const washMin = before < 0 ? 0 : (washes[unit]?.[before * jobs.length + job] ?? 0);
    const comes = Math.max(jobs[job]!.job.releaseMin, freeAt[unit]! + washMin);
    freeAt[unit] = comes + this.stayMin[job]!;
    freeBy[unit] = job;
    return comes;
  }
}
