import { planDay } from '@broth/core/planner';
import type { DayInput, DayPlan } from '@broth/core/planner';

export interface PlanRequest {
  readonly ticket: number;
  readonly input: DayInput;
}
export interface PlanAnswer {
  readonly ticket: number;
  readonly plan: DayPlan;
  readonly nowMin: number;
  /** false for the first plan, true once it has been improved. */
  readonly improved: boolean;
}

const SEED = 1;
const MOVES = 250;

self.onmessage = ({ data: { ticket, input } }: MessageEvent<PlanRequest>) => {
  // A first plan while the finger is still on the screen, then a better one.
  for (const moves of [0, MOVES]) {
    const answer: PlanAnswer = { ticket, plan: planDay(input, { seed: SEED, moves }), nowMin: input.nowMin, improved: moves > 0 };
    self.postMessage(answer);
  }
};
