import { FAMILIES, madeDay } from '../core/src/testing/days';
import { ask, modelOf, quietWashes } from '../core/src/testing/outsideSolver';
import type { OutsideSolver } from '../core/src/testing/outsideSolver';
import { solve, startSolving, violations } from '@broth/core/planner';

/**
 * The engine against outside solvers from scratch, each with as many seconds: the solver's with reading the model, the engine's of this process. Days whose washes ask
 * nobody's hands, which is what the model says.
 */

const SOLVERS: readonly OutsideSolver[] = ['chuffed', 'gecode', 'highs'];
const SIZES = [6, 8, 12];
const seconds = Number(process.argv[2] ?? 60);
/** Of all kinds of days where none is named. */
const families = FAMILIES.filter((family) => process.argv.length < 4 || process.argv.includes(family));

const workedS = (): number => process.cpuUsage().user / 1e6;

async function main(): Promise<void> {
  // The first search of a process is slower than those after it.
  solve(madeDay('calm', 12, 9), { seed: 1, moves: 3000 });
  const days = [];
  for (const size of SIZES)
    for (const family of families) {
      const problem = quietWashes(madeDay(family, size, 1));
      const from = workedS();
      const solving = startSolving(problem, { seed: 1 });
      let foundAfterS = 0;
      let last = solving.cost();
      while (workedS() - from < seconds) {
        solving.run(4);
        if (solving.cost() >= last) continue;
        last = solving.cost();
        foundAfterS = workedS() - from;
      }
      const found = [];
      for (const solver of SOLVERS) {
        const { status, cost } = await ask(solver, modelOf(problem, null), seconds);
        found.push({ solver, cost, proved: status === 'OPTIMAL_SOLUTION' });
      }
      days.push({ family, size, engine: last, foundAfterS, found, violations: violations(problem, solving.sequence()).length });
    }
  process.stdout.write(JSON.stringify(days));
}

void main();
