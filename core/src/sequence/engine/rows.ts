import type { Compiled, Uses } from './compile';

/** A step in one way of doing its job, with all that is asked when it is laid out in one place: steps by their number among all, times in minutes. */
export interface StepRow {
  readonly job: number;
  readonly step: number;
  readonly isDone: boolean;
  readonly duration: number;
  readonly uses: Uses;
  readonly releaseMin: number;
  readonly incoming: readonly { readonly from: number; readonly min: number; readonly max: number; readonly isDone: boolean }[];
  /** Units it comes into, and those it leaves. */
  readonly opening: readonly number[];
  readonly closing: readonly { readonly unit: number; readonly untilEnd: boolean }[];
  /** What must be over before: a step of another job, −1 = all of it. */
  readonly inputs: readonly { readonly job: number; readonly step: number }[];
  /** Minutes from its start to the end of the job, at least. */
  readonly tail: number;
}

function rowsOf({ jobs }: Compiled, index: number, way: number): readonly StepRow[] {
  const { offset, size, doneStart, inputs, variants, job } = jobs[index]!;
  const { durations, uses, incoming, holdings, opening, closing, tail } = variants[way]!;
  return Array.from({ length: size }, (_, step) => ({
    job: index,
    step: offset + step,
    isDone: doneStart[step]! >= 0,
    duration: durations[step]!,
    uses: uses[step]!,
    releaseMin: job.releaseMin,
    incoming: incoming[step]!.map(({ from, min, max }) => ({ from: offset + from, min, max, isDone: doneStart[from]! >= 0 })),
    opening: opening[step]!.map((at) => holdings[at]!.unit),
    closing: closing[step]!.map((at) => ({ unit: holdings[at]!.unit, untilEnd: holdings[at]!.untilEnd })),
    inputs: inputs.flatMap((input) => (input.step === step ? [{ job: input.job, step: input.after === undefined ? -1 : jobs[input.job]!.offset + input.after }] : [])),
    tail: tail[step]!,
  }));
}

/** The rows of all jobs, each in one way. Those of a way are made when it is first asked for. */
export class Rows {
  /** Of each job by its steps; empty = it has none. */
  readonly now: (readonly StepRow[])[];
  private readonly compiled: Compiled;
  private readonly made: (readonly StepRow[] | undefined)[][];
  private readonly ways: Int32Array;

  constructor(compiled: Compiled) {
    this.compiled = compiled;
    this.made = compiled.jobs.map(() => []);
    this.now = compiled.jobs.map(() => []);
    this.ways = new Int32Array(compiled.jobs.length).fill(-1);
  }

  /** Jobs are done in these ways from now on. Gives those that were done in others. */
  turn(ways: Int32Array): readonly number[] {
    const turned: number[] = [];
    for (let index = 0; index < ways.length; index += 1) {
      const way = ways[index]!;
      if (way === this.ways[index] || this.compiled.jobs[index]!.variants[way] === undefined) continue;
      this.ways[index] = way;
      this.now[index] = this.made[index]![way] ??= rowsOf(this.compiled, index, way);
      turned.push(index);
    }
    return turned;
  }
}
