import { KERNEL } from './kernelBinary';

/** What a table is called in core/assembly: rows of words or numbers and lists by their address, what there is one of by its value. */
type Tables = Readonly<Record<string, number>>;

/** What is asked of a table or an outline that is in memory: core/assembly says each. Where it is yes or no, 0 = no. */
interface Running {
  readonly memory: { readonly buffer: ArrayBuffer };
  readonly allocate: (bytes: number) => number;
  readonly copy: (to: number, from: number, bytes: number) => void;
  readonly isAlike: (one: number, other: number, bytes: number) => number;
  readonly earliestFit: (uses: number, from: number, duration: number) => number;
  readonly latestFit: (uses: number, from: number, duration: number, notBefore: number) => number;
  readonly book: (uses: number, start: number, end: number, sign: 1 | -1) => void;
  readonly insert: (unit: number, job: number, from: number, to: number, happened: number) => number;
  readonly washSoon: (unit: number, hold: number) => void;
  readonly saveTable: (into: number) => void;
  readonly restoreTable: (saved: number) => void;
  readonly isAt: (saved: number) => number;
  readonly remove: (job: number) => number;
  readonly placeLate: (job: number, way: number, partition: number, target: number) => number;
  readonly placeSoon: (job: number, way: number, partition: number, target: number, justify: number) => number;
  readonly placeAt: (job: number, way: number) => number;
  readonly bookAt: (job: number, way: number, step: number, from: number) => void;
  readonly finishAt: (job: number, way: number) => void;
  readonly jobCost: (job: number, end: number) => number;
  readonly standsCost: (job: number) => number;
  readonly tableCost: () => number;
  readonly certainCost: () => number;
  readonly isLate: () => number;
  readonly lay: (laying: number, item: number) => number;
  readonly pushBack: (laying: number, root: number, cost: number) => number;
  readonly lie: (laying: number, from: number, to: number) => void;
  readonly lateCost: (job: number, end: number) => number;
  readonly place: (item: number) => number;
  readonly restore: (kept: number) => void;
  readonly total: () => number;
  readonly playDays: () => void;
  readonly sketch: (shared: number, rest: number, changedJob: number, limit: number, was: number) => number;
  readonly acceptSketch: () => number;
  readonly getOut: () => number;
  readonly prepareBeam: () => void;
  readonly beginBeam: (from: number, to: number, limit: number) => void;
  readonly stepBeam: () => void;
  readonly goingOn: () => number;
  readonly setOf: (index: number) => number;
}

type Exports = Running & Readonly<Record<string, { value: number }>>;

/** What browsers and Node have; this room knows neither. */
declare const WebAssembly: {
  readonly Module: new (bytes: Uint8Array) => object;
  readonly Instance: new (module: object, imports: { readonly laying: { readonly random: () => number } }) => { readonly exports: Exports };
};

/** Why nothing can be planned here: WebAssembly is switched off, or there is no room for one more kernel. */
export type KernelLack = 'off' | 'room';

/** There is no kernel, and nothing is planned without one. */
export class KernelError extends Error {
  readonly lack: KernelLack;

  constructor(lack: KernelLack) {
    super(lack === 'off' ? 'Planning needs WebAssembly, which is switched off here.' : 'There is no room left for the planner to work in.');
    this.name = 'KernelError';
    this.lack = lack;
  }
}

/** Memory is asked for in pieces of so many bytes at least. A choice of the engine. */
const PIECE = 32_768;

/** Compiled once, when it is first asked for. */
let compiled: object | null = null;

function compiledOnce(): object {
  if (compiled !== null) return compiled;
  try {
    compiled = new WebAssembly.Module(KERNEL);
    return compiled;
  } catch {
    // Some browsers switch WebAssembly off when somebody asks them to be most careful, and so may a proxy's policy.
    throw new KernelError('off');
  }
}

/** A browser has room for so many memories at once, and gives back what nobody holds any more only after a while. */
function instanceOf(random: () => number): Exports {
  const made = compiledOnce();
  try {
    return new WebAssembly.Instance(made, { laying: { random } }).exports;
  } catch {
    throw new KernelError('room');
  }
}

/**
 * The inner loops of the search (core/assembly), in WebAssembly, with a memory of their own. Compiled ahead, they are twice as quick as the same in JavaScript, and as
 * quick on the first day a process plans as on any later: what reads tables of one problem after another is else compiled anew for each.
 */
export class Kernel {
  readonly run: Running;
  /** Where chance comes from, for what is left to it. */
  random: () => number = () => 0;
  private readonly globals: Readonly<Record<string, { value: number }>>;
  private words: Int32Array;
  private numbers: Float64Array;
  /** Where the next row begins, and how many bytes are left of the piece it is cut from. */
  private next = 0;
  private left = 0;

  constructor() {
    const exports = instanceOf(() => this.random());
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

  /** The same of numbers. */
  numbersAt(address: number, length: number): Float64Array {
    this.look();
    return this.numbers.subarray(address >> 3, (address >> 3) + length);
  }

  write(address: number, words: ArrayLike<number>): void {
    this.look();
    this.words.set(words, address >> 2);
  }

  /** A row of so many words, to be written later. */
  room(length: number): number {
    return this.roomOfNumbers((length + 1) >> 1);
  }

  /** The same of numbers. Most rows are short: they are cut from larger pieces, which is much quicker than to ask for each. */
  roomOfNumbers(length: number): number {
    const bytes = length * Float64Array.BYTES_PER_ELEMENT;
    if (bytes > this.left) {
      const piece = Math.max(PIECE, bytes);
      this.next = this.run.allocate(piece);
      this.left = piece;
    }
    const address = this.next;
    this.next += bytes;
    this.left -= bytes;
    return address;
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

  put(address: number, word: number): void {
    this.look();
    this.words[address >> 2] = word;
  }

  list(words: ArrayLike<number>): number {
    const address = this.room(words.length + 1);
    this.put(address, words.length);
    this.words.set(words, (address >> 2) + 1);
    return address;
  }

  rowOfLists(lists: readonly ArrayLike<number>[]): number {
    return this.row(lists.map((words) => this.list(words)));
  }

  /** What lay in memory that has grown since has no length any more. */
  private look(): void {
    if (this.words.length > 0) return;
    const { buffer } = this.run.memory;
    this.words = new Int32Array(buffer);
    this.numbers = new Float64Array(buffer);
  }
}
