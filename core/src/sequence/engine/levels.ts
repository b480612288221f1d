import { rivalsOf } from '../problem';
import type { Mode, Problem, Resource } from '../problem';

/** So much of a resource at once, as something asks for it; resource −1 = one the station has not, and nobody ever gets. */
export interface Level {
  readonly resource: number;
  readonly units: number;
  /** How much of that is taken: all, or nothing where it only has to be free. */
  readonly takes: number;
}

/** Indices of levels. */
export type Uses = readonly number[];

/**
 * The levels of a problem, each made when it is first asked for. Beside a resource that others exclude stands a counter, of which there is always enough: whoever
 * takes of the resource takes as much of it, and whoever the resource excludes asks for all of it and takes nothing.
 */
export class Levels {
  readonly all: Level[] = [];
  /** How much there is of each counter; those stand after the resources. */
  readonly counters: number[] = [];
  private readonly resourceOf: ReadonlyMap<string, number>;
  private readonly rivals: readonly (readonly number[])[];
  private readonly counterOf: readonly number[];

  constructor(problem: Problem) {
    const { resources } = problem;
    this.resourceOf = new Map(resources.map(({ id }, index) => [id, index]));
    this.rivals = rivalsOf(problem);
    this.counterOf = resources.map((resource, index) => (this.rivals[index]!.length === 0 ? -1 : resources.length + this.counters.push(mostTaken(resource, problem)) - 1));
  }

  of(uses: Mode['uses']): Uses {
    return uses.flatMap(({ resourceId, units }) => {
      const resource = this.resourceOf.get(resourceId) ?? -1;
      const rivals = this.rivals[resource] ?? [];
      const own = this.level(resource, units, units);
      if (rivals.length === 0) return [own];
      // What excludes each other is never had at once.
      if (uses.some((use) => rivals.includes(this.resourceOf.get(use.resourceId) ?? -1))) return [this.level(-1, units, units)];
      return [own, this.level(this.counterOf[resource]!, units, units), ...rivals.map((rival) => this.level(this.counterOf[rival]!, this.countOf(rival), 0))];
    });
  }

  private countOf(resource: number): number {
    return this.counters[this.counterOf[resource]! - this.resourceOf.size]!;
  }

  private level(resource: number, units: number, takes: number): number {
    const known = this.all.findIndex((level) => level.resource === resource && level.units === units && level.takes === takes);
    return known >= 0 ? known : this.all.push({ resource, units, takes }) - 1;
  }
}

/** More of a resource than is ever taken at once: all there is, and what has happened, which may have been more. */
function mostTaken({ id, capacity, windows }: Resource, { jobs }: Problem): number {
  let most = windows.reduce((sum, window) => sum + window.capacity, capacity);
  for (const { steps } of jobs)
    for (const { fixed, modes } of steps) if (fixed?.kind === 'done') for (const { uses } of modes) for (const use of uses) if (use.resourceId === id) most += use.units;
  return most;
}
