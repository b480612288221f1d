import { KEEPS } from './compile';
import type { Compiled } from './compile';
import type { Kernel } from './kernel';

/** Words of one row (core/assembly/outline.ts, `Row`). */
const WORDS = 11;

/** What is asked of each step, in the way its job is done: where that stands in the kernel's memory. Those of a way are written when it is first asked for. */
export class Rows {
  private readonly compiled: Compiled;
  private readonly kernel: Kernel;
  /** Of each job and way its rows and its holdings. */
  private readonly made: ({ readonly rows: readonly number[]; readonly holdings: number } | undefined)[][];
  private readonly ways: Int32Array;
  private readonly rowOf: number;
  private readonly holdings: number;

  constructor(compiled: Compiled, kernel: Kernel) {
    const { jobs, stepCount } = compiled;
    this.compiled = compiled;
    this.kernel = kernel;
    this.made = jobs.map(() => []);
    this.ways = new Int32Array(jobs.length).fill(-1);
    this.rowOf = kernel.room(stepCount);
    this.holdings = kernel.row(jobs.map(() => kernel.list([])));
    kernel.set({ rowOf: this.rowOf, holdings: this.holdings, keeps: KEEPS });
  }

  /** Jobs are done in these ways from now on. */
  turn(ways: Int32Array): void {
    const { compiled, kernel, made, rowOf, holdings } = this;
    for (let index = 0; index < ways.length; index += 1) {
      const way = ways[index]!;
      if (way === this.ways[index] || compiled.jobs[index]!.variants[way] === undefined) continue;
      this.ways[index] = way;
      const its = (made[index]![way] ??= this.write(index, way));
      kernel.write(rowOf + compiled.jobs[index]!.offset * Int32Array.BYTES_PER_ELEMENT, its.rows);
      kernel.write(holdings + index * Int32Array.BYTES_PER_ELEMENT, [its.holdings]);
    }
  }

  private write(index: number, way: number): { readonly rows: readonly number[]; readonly holdings: number } {
    const { kernel } = this;
    const { jobs } = this.compiled;
    const { offset, size, doneStart, inputs, variants, job } = jobs[index]!;
    const { durations, uses, incoming, holdings, opening, closing, tail } = variants[way]!;
    const isDone = (step: number): number => (doneStart[step]! >= 0 ? 1 : 0);
    const rows = kernel.room(size * WORDS);
    for (let step = 0; step < size; step += 1)
      kernel.write(rows + step * WORDS * Int32Array.BYTES_PER_ELEMENT, [
        index,
        offset + step,
        isDone(step),
        durations[step]!,
        job.releaseMin,
        tail[step]!,
        kernel.list(uses[step]!),
        kernel.list(incoming[step]!.flatMap(({ from, min, max }) => [offset + from, min, Math.min(KEEPS, max), isDone(from)])),
        kernel.list(opening[step]!.map((at) => holdings[at]!.unit)),
        kernel.list(closing[step]!.flatMap((at) => [holdings[at]!.unit, holdings[at]!.untilEnd ? 1 : 0])),
        kernel.list(inputs.flatMap((input) => (input.step === step ? [input.job, input.after === undefined ? -1 : jobs[input.job]!.offset + input.after] : []))),
      ]);
    return {
      rows: Array.from({ length: size }, (_, step) => rows + step * WORDS * Int32Array.BYTES_PER_ELEMENT),
      holdings: kernel.list(holdings.flatMap(({ unit, from, to }) => [unit, offset + from, offset + to])),
    };
  }
}
