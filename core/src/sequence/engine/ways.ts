import { KEEPS } from './compile';
import type { Compiled, CompiledJob, Variant } from './compile';
import type { Kernel } from './kernel';
import { looseWaits } from './waits';
import type { Longer, LooseWait } from './waits';

/** Words of one job and of one way (core/assembly/jobs.ts, `Job` and `Way`). */
const JOB_WORDS = 18;
const WAY_WORDS = 11;
/** Where a way has its lags; a job its ways, the same with longer waits, and whether it has those now. */
const INCOMING_AT = 2;
const OUTGOING_AT = 3;
const WAYS_AT = 15;
const LONGER_AT = 16;
const IS_LONGER_AT = 17;
/** Words of a lag in a list of them (core/assembly/jobs.ts); the second says the least. */
const LAG_WORDS = 3;
const BYTES: number = Int32Array.BYTES_PER_ELEMENT;

type Lags = Variant['incoming'][number] | Variant['outgoing'][number];

/** Where the least of a lag is said, from where its list begins. */
function leastAt(place: number): number {
  return (1 + place * LAG_WORDS + 1) * BYTES;
}

function lagWords(lags: Lags): readonly number[] {
  const words: number[] = [];
  for (const lag of lags) words.push('from' in lag ? lag.from : lag.to, lag.min, Math.min(KEEPS, lag.max));
  return words;
}

/** The ways of a job with room to make its waits longer. */
interface Room {
  /** Of each wait where its least is said, in the lags of both its steps in every way, and what it is of itself. */
  readonly least: readonly (readonly (readonly [number, number])[])[];
  /** What is said there now. */
  written: Longer | null;
}

/** Jobs and the ways each can be done in: where the kernel's table reads them. */
export class Ways {
  private readonly compiled: Compiled;
  private readonly kernel: Kernel;
  /** Lists and rows that are there already: ways share most of what they have. */
  private readonly there = new Map<object, number>();
  private readonly jobs: readonly number[];
  private readonly rooms: (Room | undefined)[];

  constructor(compiled: Compiled, kernel: Kernel) {
    this.compiled = compiled;
    this.kernel = kernel;
    this.rooms = compiled.jobs.map(() => undefined);
    this.jobs = compiled.jobs.map((job) => this.writeJob(job));
    kernel.set({ jobs: kernel.row(this.jobs) });
  }

  /** A block's steps, as a list: the same one for the same block. */
  block(steps: readonly number[]): number {
    return this.once(steps, () => this.kernel.list(steps));
  }

  /** A job waits longer from now on than it must; null = as short as it may again. */
  setLonger(index: number, longer: Longer | null): void {
    this.kernel.put(this.jobs[index]! + IS_LONGER_AT * BYTES, longer === null ? 0 : 1);
    if (longer === null) return;
    const room = (this.rooms[index] ??= this.makeRoom(index));
    const { written } = room;
    if (written === longer) return;
    room.written = longer;
    if (written !== null && written.waits !== longer.waits)
      written.waits.forEach((wait) => {
        this.say(room, wait, 0);
      });
    longer.waits.forEach((wait, at) => {
      const extraMin = longer.extraMin[at]!;
      if (written?.waits !== longer.waits || written.extraMin[at] !== extraMin) this.say(room, wait, extraMin);
    });
  }

  private say({ least }: Room, wait: LooseWait, extraMin: number): void {
    for (const [address, min] of least[wait.at]!) this.kernel.put(address, min + extraMin);
  }

  private wordAt(address: number, word: number): number {
    return this.kernel.view(address + word * BYTES, 1)[0]!;
  }

  private once(of: object, write: () => number): number {
    const known = this.there.get(of);
    if (known !== undefined) return known;
    const address = write();
    this.there.set(of, address);
    return address;
  }

  private writeJob(job: CompiledJob): number {
    const { kernel } = this;
    const flags = (those: readonly boolean[]): number => kernel.row(those.map(Number));
    const words = [
      job.index,
      job.offset,
      job.size,
      Number(job.begun),
      job.job.releaseMin,
      job.sink,
      Math.min(KEEPS, job.soonestEnd),
      kernel.list(job.inputs.flatMap(({ step, job: other }) => [step, other])),
      kernel.list(job.consumers.flatMap(({ step, job: other }) => [step, other])),
      kernel.list(job.partitions.map((blocks) => kernel.list(blocks.map((block) => this.block(block))))),
      kernel.row(job.doneStart),
      kernel.row(job.doneEnd),
      kernel.row(job.pinned),
      flags(job.crosses),
      job.variants.length,
      kernel.row(job.variants.map((variant) => this.writeWay(variant))),
      kernel.room(job.variants.length),
      0,
    ];
    if (words.length !== JOB_WORDS) throw new RangeError('Invariant: a job has as many words as the kernel reads');
    return kernel.row(words);
  }

  private writeWay({ durations, uses, incoming, outgoing, holdings, closing, opening, apart, tail, isChain }: Variant): number {
    const { kernel } = this;
    const lists = (of: readonly (readonly number[])[]): number => this.once(of, () => kernel.rowOfLists(of));
    return kernel.row([
      this.once(durations, () => kernel.row(durations)),
      lists(uses),
      this.once(incoming, () => kernel.row(incoming.map((lags) => this.lags(lags)))),
      this.once(outgoing, () => kernel.row(outgoing.map((lags) => this.lags(lags)))),
      holdings.length,
      kernel.row(holdings.flatMap(({ unit, from, to, untilEnd }) => [unit, from, to, Number(untilEnd)])),
      lists(closing),
      lists(opening),
      this.once(apart, () => kernel.row(Array.from(apart, (most) => Math.min(KEEPS, most)))),
      this.once(tail, () => kernel.row(tail)),
      Number(isChain),
    ]);
  }

  private lags(lags: Lags): number {
    return this.once(lags, () => this.kernel.list(lagWords(lags)));
  }

  /** Ways that are those of the job but for the lags of its loose waits, which are written once more. */
  private makeRoom(index: number): Room {
    const { kernel, jobs, compiled } = this;
    const job = compiled.jobs[index]!;
    const own = Array.from(kernel.view(this.wordAt(jobs[index]!, WAYS_AT), job.variants.length));
    const loose = looseWaits(job);
    const least = loose.map((): (readonly [number, number])[] => []);
    const ways = own.map((way, at) => {
      const variant = job.variants[at]!;
      const words = Array.from(kernel.view(way, WAY_WORDS));
      const anew = (where: number, lagsOf: readonly Lags[], steps: readonly number[]): readonly number[] => {
        const row = Array.from(kernel.view(words[where]!, job.size));
        for (const step of new Set(steps)) row[step] = kernel.list(lagWords(lagsOf[step]!));
        words[where] = kernel.row(row);
        return row;
      };
      const into = anew(
        INCOMING_AT,
        variant.incoming,
        loose.map(({ to }) => to),
      );
      const outOf = anew(
        OUTGOING_AT,
        variant.outgoing,
        loose.map(({ from }) => from),
      );
      for (const wait of loose) {
        const { min } = variant.outgoing[wait.from]![wait.atFrom]!;
        least[wait.at]!.push([into[wait.to]! + leastAt(wait.atTo), min], [outOf[wait.from]! + leastAt(wait.atFrom), min]);
      }
      return kernel.row(words);
    });
    kernel.write(this.wordAt(jobs[index]!, LONGER_AT), ways);
    return { least, written: null };
  }
}
