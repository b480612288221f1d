/** A job in a unit, with the wash before it. */
export interface Hold {
  readonly job: number;
  readonly from: number;
  readonly to: number;
  readonly washFrom: number;
  readonly washTo: number;
}

/** A held unit whose end nobody knows yet: the job stands in it and is still to be laid out. As the kernel has it (core/assembly/units.ts). */
export const OPEN: number = 1 << 28;

/** Words of one hold in the kernel's memory. */
export const HOLD_WORDS = 5;

/** The holds of a unit, as its words have them. */
export function holdsIn(words: Int32Array): readonly Hold[] {
  return Array.from({ length: words[0]! }, (_, index) => {
    const at = 1 + index * HOLD_WORDS;
    return { job: words[at]!, from: words[at + 1]!, to: words[at + 2]!, washFrom: words[at + 3]!, washTo: words[at + 4]! };
  });
}

export function holdWords(holds: readonly Hold[]): readonly number[] {
  return [holds.length, ...holds.flatMap(({ job, from, to, washFrom, washTo }) => [job, from, to, washFrom, washTo])];
}
