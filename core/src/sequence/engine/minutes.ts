import type { Compiled, Uses } from './compile';
import type { Kernel } from './kernel';

const NEVER = -1;
/** Minutes in one word. */
const SHIFT = 5;
const LAST = 31;
const WORD = 32;

/** Up to this much of a resource each amount has its own row. A choice of the engine: of more, digits are shorter. */
const LADDER = 16;

/**
 * What is free of every resource, minute by minute, 32 of them at once: for each amount of a resource that anything asks for, the minutes that have less of it.
 * Looking for a place is asked far more often than anything is booked. Of a resource there is little of, such rows are kept for every amount (booking two units
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

  constructor({ capacity, horizon, levels, resources }: Compiled) {
    const words = (horizon >> SHIFT) + 1;
    const most = Array.from({ length: resources }, (_, resource) =>
      capacity.subarray(resource * horizon, (resource + 1) * horizon).reduce((left, right) => Math.max(left, right), 0),
    );
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
    for (let resource = 0; resource < resources; resource += 1)
      for (let since = 0; since < horizon;) {
        const count = capacity[resource * horizon + since]!;
        let minute = since;
        while (minute < horizon && capacity[resource * horizon + minute] === count) minute += 1;
        for (let index = 0; index < rows[resource]!; index += 1)
          if (isLadder[resource]! ? count <= index : ((count >> index) & 1) === 1) this.set(this.from[resource]! + index * words, since, minute - 1);
        levels.forEach((level, index) => {
          if (level.resource === resource && count < level.units) this.set(this.levelAt[index]!, since, minute - 1);
        });
        since = minute;
      }
    levels.forEach((level, index) => {
      this.set(this.levelAt[index]!, level.resource < 0 ? 0 : horizon, (words << SHIFT) - 1);
    });
  }

  /** Says to a kernel where the rows of these minutes stand, in a copy of them. */
  describe(kernel: Kernel): void {
    const { levels } = this;
    kernel.set({
      horizon: this.horizon,
      words: this.words,
      levelAt: kernel.row(this.levelAt),
      levelResource: kernel.row(levels.map(({ resource }) => resource)),
      levelUnits: kernel.row(levels.map(({ units }) => units)),
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

  /** Soonest start at or after `from` at which all uses fit; −1 past the horizon. */
  earliestFit(uses: Uses, from: number, duration: number): number {
    if (uses.length === 1) return this.soonestRun(uses[0]!, from, duration);
    let start = from;
    let last = NEVER;
    while (start !== last) {
      if (start + duration > this.horizon) return NEVER;
      last = start;
      for (const level of uses) {
        start = this.soonestRun(level, start, duration);
        if (start < 0) return NEVER;
      }
    }
    return start;
  }

  private soonestRun(level: number, from: number, duration: number): number {
    const { bits: lacks, words, horizon } = this;
    const base = this.levelAt[level]!;
    let start = from;
    for (;;) {
      const last = start + duration - 1;
      if (last >= horizon) return NEVER;
      if (last < start) return start;
      // The last minute in the way, if there is one.
      const first = start >> SHIFT;
      let word = last >> SHIFT;
      let bits = lacks[base + word]! & (-1 >>> (LAST - (last & LAST)));
      while (bits === 0 && word > first) {
        word -= 1;
        bits = lacks[base + word]!;
      }
      if (word === first) bits &= -1 << (start & LAST);
      if (bits === 0) return start;
      // And the first free one after it.
      start = (word << SHIFT) + LAST + 1 - Math.clz32(bits);
      word = start >> SHIFT;
      bits = word < words ? ~lacks[base + word]! & (-1 << (start & LAST)) : 0;
      while (bits === 0) {
        word += 1;
        if (word >= words) return NEVER;
        bits = ~lacks[base + word]!;
      }
      start = (word << SHIFT) + LAST - Math.clz32(bits & -bits);
    }
  }

  /** Latest start at or before `from` and not before `notBefore`; −1 when there is none. */
  latestFit(uses: Uses, from: number, duration: number, notBefore: number): number {
    let start = Math.min(from, this.horizon - duration);
    let last = NEVER;
    while (start !== last) {
      last = start;
      for (const level of uses) start = this.latestRun(level, start, duration, notBefore);
      if (start < notBefore) return NEVER;
    }
    return start;
  }

  private latestRun(level: number, from: number, duration: number, notBefore: number): number {
    const { bits: lacks } = this;
    const base = this.levelAt[level]!;
    let start = from;
    while (start >= notBefore) {
      const end = start + duration - 1;
      if (end < start) return start;
      // The first minute in the way, if there is one.
      const last = end >> SHIFT;
      let word = start >> SHIFT;
      let bits = lacks[base + word]! & (-1 << (start & LAST));
      while (bits === 0 && word < last) {
        word += 1;
        bits = lacks[base + word]!;
      }
      if (word === last) bits &= -1 >>> (LAST - (end & LAST));
      if (bits === 0) return start;
      // And the last free one before it.
      let minute = (word << SHIFT) + LAST - Math.clz32(bits & -bits) - 1;
      if (minute < 0) return NEVER;
      word = minute >> SHIFT;
      bits = ~lacks[base + word]! & (-1 >>> (LAST - (minute & LAST)));
      while (bits === 0) {
        word -= 1;
        if (word < 0) return NEVER;
        bits = ~lacks[base + word]!;
      }
      minute = (word << SHIFT) + LAST - Math.clz32(bits);
      start = minute - duration + 1;
    }
    return NEVER;
  }

  /** Takes what is used from `start` to `end` (1) or gives it back (−1). What happened with more than there was leaves nothing. */
  book(uses: Uses, start: number, end: number, sign: 1 | -1): void {
    const first = Math.max(0, start);
    const last = Math.min(end, this.horizon) - 1;
    if (last < first) return;
    const from = first >> SHIFT;
    const to = last >> SHIFT;
    for (let index = 0; index < uses.length; index += 1) {
      const { resource, units } = this.levels[uses[index]!]!;
      for (let word = from; word <= to; word += 1) {
        let mask = word === from ? -1 << (first & LAST) : -1;
        if (word === to) mask &= -1 >>> (LAST - (last & LAST));
        if (!this.isLadder[resource]!) {
          this.count(resource, word, units, mask, sign);
          this.compare(resource, word, mask);
        } else if (sign === 1) this.take(resource, word, units, mask);
        else this.give(resource, word, units, mask);
      }
    }
  }

  /** Less than so much is free where less than so much and what is taken was. */
  private take(resource: number, word: number, units: number, mask: number): void {
    const { bits } = this;
    const to = this.to[resource]!;
    const far = units * this.words;
    for (let at = this.from[resource]! + word; at < to; at += this.words) bits[at] = at + far < to ? (bits[at]! & ~mask) | (bits[at + far]! & mask) : bits[at]! | mask;
  }

  private give(resource: number, word: number, units: number, mask: number): void {
    const { bits } = this;
    const from = this.from[resource]!;
    const far = units * this.words;
    for (let at = this.to[resource]! - this.words + word; at >= from; at -= this.words)
      bits[at] = at - far >= from ? (bits[at]! & ~mask) | (bits[at - far]! & mask) : bits[at]! & ~mask;
  }

  /** Subtracts (1) or adds (−1) in the minutes of a mask, digit by digit. */
  private count(resource: number, word: number, units: number, mask: number, sign: 1 | -1): void {
    const { bits, words } = this;
    const to = this.to[resource]!;
    let carry = 0;
    let left = units;
    for (let at = this.from[resource]! + word; at < to; at += words) {
      const was = bits[at]!;
      const digit = (left & 1) === 1 ? mask : 0;
      const kept = sign === 1 ? ~was : was;
      bits[at] = was ^ digit ^ carry;
      carry = (kept & (digit | carry)) | (digit & carry);
      left >>= 1;
    }
    // More than there was, as its lowest digits or by digits there are none of.
    const wanting = sign === 1 ? carry | (left > 0 ? mask : 0) : 0;
    if (wanting !== 0) for (let at = this.from[resource]! + word; at < to; at += words) bits[at]! &= ~wanting;
  }

  /** Which minutes of a mask have less than each level asks for. */
  private compare(resource: number, word: number, mask: number): void {
    const { bits, words } = this;
    const from = this.from[resource]!;
    const to = this.to[resource]!;
    const levels = this.levelsOf[resource]!;
    for (let index = 0; index < levels.length; index += 2) {
      const level = levels[index]!;
      let less = 0;
      let left = levels[index + 1]!;
      // From the lowest digit up: the highest that differs decides.
      for (let at = from + word; at < to; at += words) {
        const digit = bits[at]!;
        less = (left & 1) === 1 ? less | ~digit : less & ~digit;
        left >>= 1;
      }
      if (left > 0) less = -1;
      bits[level + word] = (bits[level + word]! & ~mask) | (less & mask);
    }
  }

  fits(uses: Uses, start: number, end: number): boolean {
    return this.earliestFit(uses, start, end - start) === start;
  }
}
