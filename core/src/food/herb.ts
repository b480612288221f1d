/** How much dried herb stands for fresh: one part for two, some say for three. Common practice. `driedFor(10)` is 5. */
export function driedFor(fresh: number, freshParts: 2 | 3 = 2): number {
  return fresh / freshParts;
}
