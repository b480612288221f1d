import type { CompiledJob, Variant } from './compile';
import type { Timetable } from './timetable';

/** A wash that finds no hands sends a piece on; not for ever. */
const MAX_ROUNDS = 60;

type Holding = Variant['holdings'][number];

/**
 * Lays jobs out piece by piece, with others in between. A unit is held from the first step in it on, although nobody knows yet until when; and when a piece comes
 * so late that what is laid of its job would wait too long, that moves later with it. Both only ever push later, so that where a piece ends up is the soonest it can.
 */
export class Weaving {
  private readonly table: Timetable;
  /** The step whose unit could not be held last, and when it could be. */
  private unheld = -1;
  private soonest = 0;

  constructor(table: Timetable) {
    this.table = table;
  }

  /** Lays a piece out as soon as it fits. False when it finds no place: the table is then to be put back to what it was before. */
  place(index: number, variantIndex: number, piece: readonly number[]): boolean {
    const { table } = this;
    const job = table.compiled.jobs[index]!;
    const variant = job.variants[variantIndex]!;
    const [whole] = job.partitions.at(-1)!;
    table.units.washesLate = false;
    const laid = whole!.filter((step) => table.start[job.offset + step]! >= 0 && !piece.includes(step));
    // Until when the unit is held is what this piece decides, when it is the last in it.
    if (!this.open(job, variant, laid, (holding) => piece.includes(holding.to))) return false;
    return (this.add(job, variant, piece, laid) || this.addAfresh(job, variant, piece, laid)) && table.settle(job, variantIndex);
  }

  /** Takes out all that is laid of a job. False when a wash between its neighbours finds no hands: then put the saved state back. */
  remove(index: number): boolean {
    const { table } = this;
    const variant = table.variantOf[index]!;
    const job = table.compiled.jobs[index]!;
    if (variant < 0) return true;
    const laid = job.partitions.at(-1)![0]!.filter((step) => table.start[job.offset + step]! >= 0);
    table.end[index] = -1;
    table.variantOf[index] = -1;
    return this.open(job, job.variants[variant]!, laid, () => true) && table.withdraw(job, job.variants[variant]!, laid);
  }

  /** Lays a piece after what is laid of its job, which stays where it is; false, with nothing booked, when it cannot. */
  private add(job: CompiledJob, variant: Variant, piece: readonly number[], laid: readonly number[]): boolean {
    const { table } = this;
    const { start } = table;
    if (laid.length === 0) return false;
    table.setLower(job);
    if (!table.forward(job, variant, piece)) return false;
    for (const step of piece)
      for (const before of laid) {
        const latest = start[job.offset + before]! + variant.apart[before * job.size + step]!;
        if (start[job.offset + step]! > latest && job.doneStart[before]! < 0) return false;
      }
    if (table.commit(job, variant, piece, false, variant.isChain) >= 0) return false;
    if (this.hold(job, variant, piece)) return true;
    table.withdraw(job, variant, piece);
    return false;
  }

  /** Lays a piece and what is laid of its job out together, none of it sooner than it is. */
  private addAfresh(job: CompiledJob, variant: Variant, piece: readonly number[], laid: readonly number[]): boolean {
    const { table } = this;
    const { bound, start } = table;
    if (!this.open(job, variant, laid, (holding) => !piece.includes(holding.to))) return false;
    const starts = laid.map((step) => start[job.offset + step]!);
    if (!table.withdraw(job, variant, laid)) return false;
    table.setLower(job);
    laid.forEach((step, at) => {
      bound[job.offset + step] = Math.max(bound[job.offset + step]!, starts[at]!);
    });
    const steps = job.partitions.at(-1)![0]!.filter((step) => piece.includes(step) || laid.includes(step));
    for (let round = 0; round < MAX_ROUNDS; round += 1) {
      if (!table.placeBlock(job, variant, steps, null)) return false;
      if (this.hold(job, variant, steps)) return true;
      const at = job.offset + this.unheld;
      const from = start[at]!;
      if (!table.withdraw(job, variant, steps)) return false;
      bound[at] = Math.max(from + 1, this.soonest);
    }
    return false;
  }

  /** Holds the units that steps open and leave open, for as long as is known. False, with nothing changed, when one cannot be. */
  private hold(job: CompiledJob, variant: Variant, steps: readonly number[]): boolean {
    const { start, units } = this.table;
    const held: Holding[] = [];
    for (const holding of variant.holdings) {
      if (!steps.includes(holding.from) || steps.includes(holding.to) || job.doneStart[holding.from]! >= 0) continue;
      const from = start[job.offset + holding.from]!;
      let to = from - variant.apart[holding.to * job.size + holding.from]! + (holding.untilEnd ? variant.durations[holding.to]! : 0);
      for (const step of steps) to = Math.max(to, start[job.offset + step]! + variant.durations[step]!);
      const soonest = units.later(holding.unit, job.index, from, to);
      if (soonest === from && units.insert(holding.unit, { job: job.index, from, to, washFrom: from, washTo: from })) {
        held.push(holding);
        continue;
      }
      this.soonest = soonest;
      this.unheld = holding.from;
      for (const other of held.reverse()) units.remove(other.unit, job.index, start[job.offset + other.from]!);
      return false;
    }
    return true;
  }

  /** Lets go of the units that what is laid has opened and left open. False when a wash finds no hands then. */
  private open(job: CompiledJob, variant: Variant, laid: readonly number[], which: (holding: Holding) => boolean): boolean {
    const { start, units } = this.table;
    for (const holding of variant.holdings) {
      if (!laid.includes(holding.from) || laid.includes(holding.to) || job.doneStart[holding.from]! >= 0 || !which(holding)) continue;
      if (!units.remove(holding.unit, job.index, start[job.offset + holding.from]!)) return false;
    }
    return true;
  }
}
