import { violations } from '../check';
import type { PlacedJob, Reference, Sequence } from '../problem';
import type { Compiled } from './compile';
import type { Inserting } from './inserting';
import type { Saved, Timetable } from './timetable';

/** What a search begins with: a first plan, or one there is, as far as it still fits. */
export class Beginning {
  private readonly compiled: Compiled;
  private readonly table: Timetable;
  private readonly empty: Saved;
  private readonly fixed: readonly boolean[];
  private readonly inserting: Inserting;
  private readonly pinned: readonly number[];
  /** The table with what is under way, before anything pinned. */
  private readonly under: Saved;

  constructor(table: Timetable, inserting: Inserting, fixed: readonly boolean[], pinned: readonly number[], empty: Saved, under: Saved) {
    this.compiled = table.compiled;
    this.table = table;
    this.inserting = inserting;
    this.fixed = fixed;
    this.pinned = pinned;
    this.empty = empty;
    this.under = under;
  }

  /** The plan there is: whole, or what is left of it, with the rest put in. */
  take(from: Reference | Pick<Sequence, 'jobs' | 'changeovers'>): void {
    const { table } = this;
    if ('changeovers' in from && this.adoptWhole(from)) return;
    // What is put by hand goes first, or last into the room the others leave: whichever turns out better.
    this.rebuild(from);
    if (this.pinned.length === 0) return;
    const first = table.save();
    const cost = table.cost();
    table.restore(this.under);
    this.rebuild(from, new Set(this.inserting.withInputs(this.pinned)));
    if (table.cost() > cost) table.restore(first);
  }

  /** The first plan: what is under way, what is pinned, then by when it is wanted, each with what it waits for before it. */
  build(): void {
    this.putIn(this.compiled.order.filter((index) => !this.fixed[index]! && !this.table.isPlaced(index)));
  }

  /** By when it is wanted; what is wanted by no time last. */
  private putIn(jobs: number[]): void {
    const due = (index: number): number => this.compiled.jobs[index]!.job.readyByMin ?? Number.POSITIVE_INFINITY;
    this.inserting.insertAll(
      jobs.sort((left, right) => due(left) - due(right)),
      0,
    );
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
    this.putIn(left);
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
}
