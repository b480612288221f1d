import type { CompiledJob, Variant } from './compile';
import type { Timetable } from './timetable';

/** A wash that finds no hands sends a piece on; not for ever. */
const MAX_ROUNDS = 60;

type Holding = Variant['holdings'][number];

/**
 * Lays jobs out piece by piece, with others in between: each as soon as it fits, from the first on, or each as late as it may be, from the last on. A unit is held
 * from the first step in it that is laid out, although nobody knows yet where the other end will be; and when a piece comes so far from what is laid of its job that
 * there would be too long a wait, that moves with it. All of it only ever moves one way, so that where a piece ends up is the soonest (latest) it can.
 */
export class Weaving {
  private readonly table: Timetable;
  /** Whether pieces are laid out from the last on. */
  private readonly isLate: boolean;
  private readonly lower: Int32Array;
  /** The step whose unit could not be held last, and when it could begin or would have to. */
  private unheld = -1;
  private instead = 0;

  constructor(table: Timetable, isLate: boolean) {
    this.table = table;
    this.isLate = isLate;
    this.lower = new Int32Array(table.compiled.jobs.reduce((most, job) => Math.max(most, job.size), 0));
  }

  /** Lays a piece out, ended by `latest` if from the last on. False when it finds no place: the table is then to be put back to what it was before. */
  place(index: number, variantIndex: number, piece: readonly number[], latest: number): boolean {
    const { table } = this;
    const job = table.compiled.jobs[index]!;
    const variant = job.variants[variantIndex]!;
    table.units.washesLate = this.isLate;
    const laid = this.laidOf(job).filter((step) => !piece.includes(step));
    // Until or from when the unit is held is what this piece decides, when it is the last in it to be laid out.
    if (!this.open(job, variant, laid, piece, true)) return false;
    const last = this.isLate ? Math.min(latest, table.wantedBy(job), table.compiled.horizon) : table.compiled.horizon;
    return (this.add(job, variant, piece, laid, last) || this.addAfresh(job, variant, piece, laid, last)) && table.settle(job, variantIndex);
  }

  /** Takes out all that is laid of a job. False when a wash between its neighbours finds no hands: then put the saved state back. */
  remove(index: number): boolean {
    const { table } = this;
    const job = table.compiled.jobs[index]!;
    const variant = job.variants[table.variantOf[index]!];
    if (variant === undefined) return true;
    const laid = this.laidOf(job);
    table.units.washesLate = this.isLate;
    table.end[index] = -1;
    table.variantOf[index] = -1;
    return this.open(job, variant, laid, [], false) && table.withdraw(job, variant, laid);
  }

  /** Steps that have their place and have not happened, in an order that respects the lags. */
  private laidOf(job: CompiledJob): readonly number[] {
    const [whole] = job.partitions.at(-1)!;
    return whole!.filter((step) => this.table.start[job.offset + step]! >= 0 && job.doneStart[step]! < 0);
  }

  private setBounds(job: CompiledJob, variant: Variant, last: number): void {
    const { bound } = this.table;
    this.table.setLower(job);
    if (!this.isLate) return;
    for (let step = 0; step < job.size; step += 1) {
      this.lower[step] = bound[job.offset + step]!;
      bound[job.offset + step] = last - variant.durations[step]!;
    }
  }

  /** Lays a piece beside what is laid of its job, which stays where it is; false, with nothing booked, when it cannot. */
  private add(job: CompiledJob, variant: Variant, piece: readonly number[], laid: readonly number[], last: number): boolean {
    const { table, isLate } = this;
    if (laid.length === 0) return false;
    this.setBounds(job, variant, last);
    const fits = isLate ? table.backward(job, variant, piece, this.lower) : table.forward(job, variant, piece);
    if (fits && this.isWithinReach(job, variant, piece, laid) && table.commit(job, variant, piece, isLate, variant.isChain) < 0) {
      if (this.hold(job, variant, piece)) return true;
      table.withdraw(job, variant, piece);
    }
    for (const step of piece) if (job.doneStart[step]! < 0) table.start[job.offset + step] = -1;
    return false;
  }

  /** Whether there is no longer a wait between a piece and what is laid of its job than there may be. */
  private isWithinReach(job: CompiledJob, variant: Variant, piece: readonly number[], laid: readonly number[]): boolean {
    const { start } = this.table;
    const [before, after] = this.isLate ? [piece, laid] : [laid, piece];
    for (const first of before) {
      if (job.doneStart[first]! >= 0) continue;
      for (const next of after) if (start[job.offset + next]! > start[job.offset + first]! + variant.apart[first * job.size + next]!) return false;
    }
    return true;
  }

  /** Lays a piece and what is laid of its job out together, none of that sooner (later) than it is. */
  private addAfresh(job: CompiledJob, variant: Variant, piece: readonly number[], laid: readonly number[], last: number): boolean {
    const { table, isLate } = this;
    const { bound, start } = table;
    if (!this.open(job, variant, laid, piece, false)) return false;
    const starts = laid.map((step) => start[job.offset + step]!);
    if (!table.withdraw(job, variant, laid)) return false;
    this.setBounds(job, variant, last);
    laid.forEach((step, at) => {
      const was = bound[job.offset + step]!;
      bound[job.offset + step] = isLate ? Math.min(was, starts[at]!) : Math.max(was, starts[at]!);
    });
    const steps = job.partitions.at(-1)![0]!.filter((step) => piece.includes(step) || laid.includes(step));
    for (let round = 0; round < MAX_ROUNDS; round += 1) {
      if (!table.placeBlock(job, variant, steps, isLate ? this.lower : null)) return false;
      if (this.hold(job, variant, steps)) return true;
      const at = job.offset + this.unheld;
      const from = start[at]!;
      if (!table.withdraw(job, variant, steps)) return false;
      bound[at] = isLate ? Math.min(from - 1, this.instead) : Math.max(from + 1, this.instead);
    }
    return false;
  }

  /** Where a unit is held from the steps there are to where its other end is at the nearest. */
  private stayOf(job: CompiledJob, variant: Variant, { from, to, untilEnd }: Holding, steps: readonly number[]): readonly [number, number] {
    const { start } = this.table;
    const stay = untilEnd ? variant.durations[to]! : 0;
    if (this.isLate) {
      const end = start[job.offset + to]! + stay;
      const soonest = steps.reduce((least, step) => {
        const apart = variant.apart[step * job.size + from]!;
        return apart <= 0 ? Math.min(least, start[job.offset + step]! + apart) : least;
      }, end);
      return [soonest, end];
    }
    const begin = start[job.offset + from]!;
    const least = begin - variant.apart[to * job.size + from]! + stay;
    return [begin, steps.reduce((latest, step) => Math.max(latest, start[job.offset + step]! + variant.durations[step]!), least)];
  }

  /** Holds the units that steps are in and leave open, for as long as is known. False, with nothing changed, when one cannot be. */
  private hold(job: CompiledJob, variant: Variant, steps: readonly number[]): boolean {
    const { units } = this.table;
    const held: Holding[] = [];
    for (const holding of variant.holdings) {
      const [known, unknown] = this.isLate ? [holding.to, holding.from] : [holding.from, holding.to];
      if (!steps.includes(known) || steps.includes(unknown) || job.doneStart[holding.from]! >= 0) continue;
      const [from, to] = this.stayOf(job, variant, holding, steps);
      const wanted = this.isLate ? to : from;
      const there = from < 0 ? -1 : this.isLate ? units.sooner(holding.unit, job.index, from, to) : units.later(holding.unit, job.index, from, to);
      if (there === wanted && units.insert(holding.unit, { job: job.index, from, to, washFrom: from, washTo: from })) {
        held.push(holding);
        continue;
      }
      this.instead = this.isLate && holding.untilEnd ? there - variant.durations[known]! : there;
      this.unheld = known;
      for (const other of held.reverse()) this.letGo(job, variant, other);
      return false;
    }
    return true;
  }

  private letGo(job: CompiledJob, variant: Variant, { unit, from, to, untilEnd }: Holding): boolean {
    const { start, units } = this.table;
    const begin = start[job.offset + from]!;
    const end = start[job.offset + to]! + (untilEnd ? variant.durations[to]! : 0);
    const hold = units.lists[unit]!.find((one) => one.job === job.index && (this.isLate ? one.to === end : one.from === begin))!;
    return units.remove(unit, job.index, hold.from);
  }

  /** Lets go of the units that what is laid holds with the other end open: those a piece decides about, or the others. False when a wash finds no hands then. */
  private open(job: CompiledJob, variant: Variant, laid: readonly number[], piece: readonly number[], decided: boolean): boolean {
    for (const holding of variant.holdings) {
      const [known, unknown] = this.isLate ? [holding.to, holding.from] : [holding.from, holding.to];
      if (!laid.includes(known) || laid.includes(unknown) || job.doneStart[holding.from]! >= 0 || piece.includes(unknown) !== decided) continue;
      if (!this.letGo(job, variant, holding)) return false;
    }
    return true;
  }
}
