import type { GuideFor } from './guide';
import { Line } from './line';
import { Machines } from './machines';

/** What a problem of a known shape is searched with: a line before machines, because a line of two is both. */
export const SHOPS: readonly GuideFor[] = [(compiled, _starts, random) => Line.of(compiled, random), (compiled, starts, random) => Machines.of(compiled, starts, random)];
