import { KERNEL } from './kernelBinary';

/** What a table is called in core/assembly: rows of words or numbers and lists by their address, what there is one of by its value. */
type Tables = Readonly<Record<string, number>>;

/** What is asked of an outline that is in memory: core/assembly says each. */
interface Running {
  readonly memory: { readonly buffer: ArrayBuffer };
  readonly allocate: (bytes: number) => number;
  readonly earliestFit: (uses: number, from: number, duration: number) => number;
  readonly book: (uses: number, start: number, end: number, sign: 1 | -1) => void;
  readonly lateCost: (job: number, end: number) => number;
  /** 0 = it cannot be. */
  readonly place: (item: number) => number;
  readonly restore: (kept: number) => void;
  readonly total: () => number;
  readonly sketch: (shared: number, rest: number, changedJob: number, limit: number, was: number) => number;
  readonly acceptSketch: () => number;
  readonly getOut: () => number;
  readonly prepareBeam: () => void;
  readonly beginBeam: (from: number, to: number, limit: number) => void;
  readonly stepBeam: () => void;
  readonly goingOn: () => number;
  readonly setOf: (index: number) => number;
}

/** What browsers and Node have; this room knows neither. */
declare const WebAssembly: {
  readonly Module: new (bytes: Uint8Array) => object;
  readonly Instance: new (module: object) => { readonly exports: Running & Readonly<Record<string, { value: number }>> };
};
declare function atob(base64: string): string;

/** Compiled once, when it is first asked for; null = there is none. */
let compiled: object | null | undefined;

function compiledOnce(): object | null {
  if (compiled !== undefined) return compiled;
  try {
    compiled = new WebAssembly.Module(Uint8Array.from(atob(KERNEL), (character) => character.charCodeAt(0)));
  } catch {
    // Some browsers switch WebAssembly off when somebody asks them to be most careful, and so may a proxy's policy.
    compiled = null;
  }
  return compiled;
}

/** Whether there is a kernel here. */
export function hasKernel(): boolean {
  return compiledOnce() !== null;
}

/**
 * The inner loops of the search (core/assembly), in WebAssembly, with a memory of their own. Compiled ahead, they are twice as quick as the same in JavaScript, and as
 * quick on the first day a process plans as on any later: what reads tables of one problem after another is else compiled anew for each.
 */
export class Kernel {
  readonly run: Running;
  private readonly globals: Readonly<Record<string, { value: number }>>;
  private words: Int32Array;
  private numbers: Float64Array;

  constructor() {
    const made = compiledOnce();
    if (made === null) throw new RangeError('Invariant: nobody asks for a kernel where there is none');
    const { exports } = new WebAssembly.Instance(made);
    this.run = exports;
    this.globals = exports;
    this.words = new Int32Array(exports.memory.buffer);
    this.numbers = new Float64Array(exports.memory.buffer);
  }

  /** Says where tables are. */
  set(tables: Tables): void {
    for (const [name, value] of Object.entries(tables)) this.globals[name]!.value = value;
  }

  get(name: string): number {
    return this.globals[name]!.value;
  }

  /** Words at an address; not to be kept, because memory that grows is another. */
  view(address: number, length: number): Int32Array {
    this.look();
    return this.words.subarray(address >> 2, (address >> 2) + length);
  }

  write(address: number, words: ArrayLike<number>): void {
    this.look();
    this.words.set(words, address >> 2);
  }

  /** A row of so many words, to be written later. */
  room(length: number): number {
    return this.run.allocate(length * Int32Array.BYTES_PER_ELEMENT);
  }

  /** The same of numbers. */
  roomOfNumbers(length: number): number {
    return this.run.allocate(length * Float64Array.BYTES_PER_ELEMENT);
  }

  row(words: ArrayLike<number>): number {
    const address = this.room(words.length);
    this.write(address, words);
    return address;
  }

  rowOfNumbers(numbers: ArrayLike<number>): number {
    const address = this.roomOfNumbers(numbers.length);
    this.look();
    this.numbers.set(numbers, address >> 3);
    return address;
  }

  list(words: ArrayLike<number>): number {
    return this.row([words.length, ...Array.from(words)]);
  }

  rowOfLists(lists: readonly ArrayLike<number>[]): number {
    return this.row(lists.map((words) => this.list(words)));
  }

  private look(): void {
    const { buffer } = this.run.memory;
    if (this.words.buffer === buffer) return;
    this.words = new Int32Array(buffer);
    this.numbers = new Float64Array(buffer);
  }
}
