import type { Compiled } from './compile';
import type { Kernel } from './kernel';

/** Minutes in one word. */
const SHIFT = 5;
const LAST = 31;
const WORD = 32;

/** Up to this much of a resource each amount has its own row. A choice of the engine: of more, digits are shorter. */
const LADDER = 16;

/**
 * What is free of every resource while nothing is laid out, minute by minute, 32 of them in a word: for each amount of a resource that anything asks for, the minutes that
 * have less of it. It is booked in the kernel (core/assembly/minutes.ts). Looking for a place is asked far more often than anything is booked. Of a resource there is little of, such rows are kept for every amount (booking two units
 * makes the row of three out of that of five); of others the count stands beside them in binary digits.
 */
export class Minutes {
  /** Rows of words: minute m in bit m % 32 of word m / 32. Past the horizon nothing is free. */
  readonly bits: Int32Array;
  private readonly horizon: number;
  private readonly words: number;
  private readonly levels: Compiled['levels'];
  /** Where the rows of each resource begin and end: amounts from 1 up, or digits from the lowest. */
  private readonly from: readonly number[];
  private readonly to: readonly number[];
  private readonly isLadder: readonly boolean[];
  /** Where the row of each level stands. */
  private readonly levelAt: readonly number[];
  /** Of each resource with digits: where each of its levels stands, and the amount it asks for. */
  private readonly levelsOf: readonly Int32Array[];

  constructor({ free, horizon, levels }: Compiled) {
    const words = (horizon >> SHIFT) + 1;
    const most = free.map((stretches) => Math.max(0, ...stretches.map(({ units }) => units)));
    const isLadder = most.map((count) => count <= LADDER);
    const rows = most.map((count, resource) => (isLadder[resource]! ? count : WORD - Math.clz32(count)));
    const before = rows.map((_, resource) => rows.slice(0, resource).reduce((sum, count) => sum + count, 0));
    const total = rows.reduce((sum, count) => sum + count, 0);
    this.horizon = horizon;
    this.words = words;
    this.levels = levels;
    this.isLadder = isLadder;
    this.from = before.map((row) => row * words);
    this.to = before.map((row, resource) => (row + rows[resource]!) * words);
    const isOn = (level: Compiled['levels'][number]): boolean => isLadder[level.resource] === true && level.units > 0 && level.units <= most[level.resource]!;
    let row = total;
    this.levelAt = levels.map((level) => (isOn(level) ? before[level.resource]! + level.units - 1 : row++) * words);
    this.levelsOf = most.map((_, resource) =>
      Int32Array.from(levels.flatMap((level, index) => (level.resource === resource && !isLadder[resource]! ? [this.levelAt[index]!, level.units] : []))),
    );
    this.bits = new Int32Array(row * words);
    free.forEach((stretches, resource) => {
      for (const { fromMin, toMin, units: count } of stretches) {
        for (let index = 0; index < rows[resource]!; index += 1)
          if (isLadder[resource]! ? count <= index : ((count >> index) & 1) === 1) this.set(this.from[resource]! + index * words, fromMin, toMin - 1);
        levels.forEach((level, index) => {
          if (level.resource === resource && count < level.units) this.set(this.levelAt[index]!, fromMin, toMin - 1);
        });
      }
    });
    levels.forEach((level, index) => {
      this.set(this.levelAt[index]!, level.resource < 0 ? 0 : horizon, (words << SHIFT) - 1);
    });
  }

  /** Says to a kernel where the rows stand, in a copy of them. */
  describe(kernel: Kernel): void {
    const { levels } = this;
    kernel.set({
      horizon: this.horizon,
      words: this.words,
      levelAt: kernel.row(this.levelAt),
      // Nothing is booked of what only has to be free.
      levelResource: kernel.row(levels.map(({ resource, takes }) => (takes > 0 ? resource : -1))),
      levelUnits: kernel.row(levels.map(({ takes }) => takes)),
      resourceFrom: kernel.row(this.from),
      resourceTo: kernel.row(this.to),
      isLadder: kernel.row(this.isLadder.map(Number)),
      resourceLevels: kernel.rowOfLists(this.levelsOf),
    });
  }

  private set(at: number, first: number, last: number): void {
    const to = last >> SHIFT;
    let mask = -1 << (first & LAST);
    for (let word = first >> SHIFT; word <= to; word += 1) {
      this.bits[at + word]! |= word === to ? mask & (-1 >>> (LAST - (last & LAST))) : mask;
      mask = -1;
    }
  }
}
