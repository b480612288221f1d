import { KernelError, curesOf, fitsStation, startPlanning, storyOf, warmUp } from '@broth/core/planner';
import type { Cures, DayInput, DayPlan, KernelLack, PlanStory } from '@broth/core/planner';

export type PlanRequest =
  | { readonly kind: 'plan'; readonly ticket: number; readonly input: DayInput; readonly from: DayPlan | null }
  | { readonly kind: 'story'; readonly ticket: number; readonly input: DayInput; readonly plan: DayPlan }
  | { readonly kind: 'cures'; readonly ticket: number; readonly input: DayInput; readonly plan: DayPlan };

export type PlanAnswer =
  | {
      readonly kind: 'plan';
      readonly ticket: number;
      readonly plan: DayPlan;
      readonly nowMin: number;
      /** Whether the station still has what the agreed plan was made with; true where none was agreed on. */
      readonly agreedFits: boolean;
      /** Whether it has been searched for as long as it will be. */
      readonly improved: boolean;
    }
  | { readonly kind: 'story'; readonly ticket: number; readonly story: PlanStory }
  | { readonly kind: 'cures'; readonly ticket: number; readonly cures: Cures; readonly done: boolean }
  /** Nothing more comes of what was asked. */
  | { readonly kind: 'failed'; readonly why: KernelLack | 'bug' };

const SEED = 1;
/** Searched for as long as this after the first plan has been shown; a better one is shown as it is found, but not more often than so. Milliseconds. */
const SEARCH_MS = 1500;
const SHOW_EVERY_MS = 200;
/** Messages are looked for between slices. Milliseconds. */
const SLICE_MS = 25;
const MOVES_A_CHECK = 4;
const REPAIR_MS = 90;
const CURE_MOVES = 150;

/** What is being worked at, a slice at a time; false when it is done. A search and a round of questions do not put each other out; the search goes first. */
let search: (() => boolean) | null = null;
let questions: (() => boolean) | null = null;
let scheduled = false;

function answer(message: PlanAnswer): void {
  self.postMessage(message);
}

/** What cannot go on is said, and not tried again until somebody asks. */
function trying(work: () => void): void {
  try {
    work();
  } catch (error) {
    search = null;
    questions = null;
    console.error(error);
    answer({ kind: 'failed', why: error instanceof KernelError ? error.lack : 'bug' });
  }
}

function goOn(): void {
  if (scheduled || (search === null && questions === null)) return;
  scheduled = true;
  setTimeout(() => {
    scheduled = false;
    trying(() => {
      if (search !== null) {
        if (!search()) search = null;
      } else if (questions?.() === false) questions = null;
    });
    goOn();
  }, 0);
}

function planning({ ticket, input, from }: Extract<PlanRequest, { kind: 'plan' }>): () => boolean {
  const planner = startPlanning(input, SEED, from);
  // A repair of what is on the screen is looked at twice before it is shown, so that nothing jumps there and back.
  const begunAt = performance.now();
  while (from !== null && performance.now() - begunAt < REPAIR_MS) planner.run(MOVES_A_CHECK);
  let shown = planner.cost();
  const agreedFits = input.agreed == null || fitsStation(input, input.agreed);
  answer({ kind: 'plan', ticket, plan: planner.plan(), nowMin: input.nowMin, agreedFits, improved: false });
  let spentMs = 0;
  let sinceMs = 0;
  return () => {
    const begun = performance.now();
    while (performance.now() - begun < SLICE_MS) planner.run(MOVES_A_CHECK);
    const took = performance.now() - begun;
    spentMs += took;
    sinceMs += took;
    const last = spentMs >= SEARCH_MS;
    if (last || (sinceMs >= SHOW_EVERY_MS && planner.cost() < shown)) {
      shown = planner.cost();
      sinceMs = 0;
      answer({ kind: 'plan', ticket, plan: planner.plan(), nowMin: input.nowMin, agreedFits, improved: last });
    }
    return !last;
  };
}

function curing({ ticket, input, plan }: Extract<PlanRequest, { kind: 'cures' }>): () => boolean {
  const asking = curesOf(input, plan, { seed: SEED, moves: CURE_MOVES });
  return () => {
    const { value, done } = asking.next();
    answer({ kind: 'cures', ticket, cures: value, done: done === true });
    return done !== true;
  };
}

function take(data: PlanRequest): void {
  switch (data.kind) {
    case 'story':
      answer({ kind: 'story', ticket: data.ticket, story: storyOf(data.input, data.plan) });
      return;
    case 'plan':
      search = planning(data);
      return;
    case 'cures':
      questions = curing(data);
  }
}

self.onmessage = ({ data }: MessageEvent<PlanRequest>) => {
  trying(() => {
    take(data);
  });
  goOn();
};

// While the page still fetches its day. What cannot be is said when somebody asks for it.
try {
  warmUp();
} catch {
  /* Asked again with the first plan. */
}
