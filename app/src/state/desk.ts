import { isBetter } from '@broth/core';
import type { Cures, DayPlan, KernelLack, Pin, PlanStory, Split } from '@broth/core';
import { create } from 'zustand';

interface Draft {
  /** Which question it answers, as counted in `asked`. */
  readonly ticket: number;
  readonly plan: DayPlan;
  readonly nowMin: number;
  /** Whether the station still has what the agreed plan was made with. */
  readonly agreedFits: boolean;
  /** Whether it has been searched for as long as it will be. */
  readonly improved: boolean;
}

/** What has been put somewhere, or split up, by hand. */
interface ByHand {
  readonly pins: readonly Pin[];
  readonly splits: readonly Split[];
}

/** The desk as it was before a change by hand. */
interface Moment extends ByHand {
  readonly plan: DayPlan;
}

interface Desk extends ByHand {
  readonly date: string | null;
  readonly draft: Draft | null;
  /** Counts what the planner has been asked: a draft that answers something earlier is not the last word. */
  readonly asked: number;
  /** The plan the last change was made to: what moved is told, and counted, against it. */
  readonly base: DayPlan | null;
  readonly past: readonly Moment[];
  readonly future: readonly Moment[];
  /** The version of the agreed plan that changes by hand began from; what was agreed since is somebody else's. */
  readonly basedOn: number;
  /** Counts changes by hand: each is planned afresh. */
  readonly revision: number;
  readonly story: { readonly of: DayPlan; readonly story: PlanStory } | null;
  /** A longer search on the server: of which draft, and what came of it. */
  readonly longer: { readonly of: DayPlan; readonly state: 'searching' | 'better' | 'same' } | null;
  /** A change of the day somebody has decided to leave the plan as it is for. */
  readonly kept: string | null;
  readonly cures: { readonly of: DayPlan; readonly cures: Cures | null; readonly done: boolean } | null;
  /** Why nothing is planned on this device at the moment; null = it is. */
  readonly stopped: KernelLack | 'bug' | null;

  /** Another day: nothing of the last one stays. */
  readonly open: (date: string, accepted: DayPlan | null) => void;
  /** Has somebody else look longer; a better plan becomes the draft, if the draft is still the one that was sent. */
  readonly lookLonger: (search: (from: DayPlan, nowMin: number) => Promise<DayPlan | null>) => Promise<void>;
  readonly change: (shown: DayPlan, changes: Partial<ByHand>) => void;
  /** A plan of earlier today becomes the draft: with what was put by hand in it, and minutes moved counted against it. */
  readonly takeUp: (shown: DayPlan, earlier: DayPlan) => void;
  /** Somebody else's plan was agreed on meanwhile: what was put by hand here is planned on top of it. */
  readonly rebase: (agreed: DayPlan, version: number) => void;
  readonly undo: (shown: DayPlan) => void;
  readonly redo: (shown: DayPlan) => void;
  /** Plans again what is on the desk. */
  readonly again: () => void;
  /** Back to the accepted plan, or to a plan without anything put by hand. */
  readonly letGo: (accepted: DayPlan | null) => void;
}

function handOf(accepted: DayPlan | null): ByHand {
  return { pins: accepted?.pins ?? [], splits: accepted?.splits ?? [] };
}

const FRESH = { draft: null, base: null, past: [], future: [], story: null, longer: null, cures: null, kept: null };

/** What is being planned and not accepted yet. */
export const useDesk = create<Desk>()((set, get) => {
  const go = (shown: DayPlan, to: Moment | undefined, past: readonly Moment[], future: readonly Moment[]): void => {
    if (to === undefined) return;
    const { draft, revision } = get();
    // The plan of that moment is shown at once; what the clock has changed since is worked in by the planner.
    set({
      pins: to.pins,
      splits: to.splits,
      base: past.length === 0 ? null : shown,
      past,
      future,
      revision: revision + 1,
      draft: draft === null ? null : { ...draft, plan: to.plan },
    });
  };
  return {
    date: null,
    pins: [],
    splits: [],
    revision: 0,
    basedOn: 0,
    asked: 0,
    stopped: null,
    ...FRESH,
    open: (date, accepted) => {
      if (get().date !== date) set({ ...FRESH, date, ...handOf(accepted), revision: get().revision + 1 });
    },
    lookLonger: async (search) => {
      const { draft } = get();
      if (draft === null) return;
      set({ longer: { of: draft.plan, state: 'searching' } });
      const found = await search(draft.plan, draft.nowMin);
      if (get().longer?.of !== draft.plan) return;
      if (found === null || get().draft?.plan !== draft.plan) set({ longer: null });
      else if (isBetter(found, draft.plan)) set({ draft: { ...draft, plan: found }, longer: { of: found, state: 'better' } });
      else set({ longer: { of: draft.plan, state: 'same' } });
    },
    change: (shown, changes) => {
      const { pins, splits, past, revision } = get();
      set({ ...changes, base: shown, past: [...past, { pins, splits, plan: shown }], future: [], revision: revision + 1 });
    },
    takeUp: (shown, earlier) => {
      const { pins, splits, past, draft, revision } = get();
      if (draft === null) return;
      set({
        pins: earlier.pins,
        splits: earlier.splits,
        base: earlier,
        past: [...past, { pins, splits, plan: shown }],
        future: [],
        draft: { ...draft, plan: earlier },
        revision: revision + 1,
      });
    },
    rebase: (agreed, version) => {
      const { pins, splits, revision } = get();
      const mine = new Set(pins.map((pin) => pin.batchId));
      const split = new Set(splits.map((one) => one.soupId));
      set({
        pins: [...agreed.pins.filter((pin) => !mine.has(pin.batchId)), ...pins],
        splits: [...agreed.splits.filter((one) => !split.has(one.soupId)), ...splits],
        base: agreed,
        basedOn: version,
        past: [],
        future: [],
        revision: revision + 1,
      });
    },
    undo: (shown) => {
      const { past, future, pins, splits } = get();
      go(shown, past.at(-1), past.slice(0, -1), [{ pins, splits, plan: shown }, ...future]);
    },
    redo: (shown) => {
      const { past, future, pins, splits } = get();
      go(shown, future[0], [...past, { pins, splits, plan: shown }], future.slice(1));
    },
    again: () => {
      set({ stopped: null, revision: get().revision + 1 });
    },
    letGo: (accepted) => {
      set({ ...FRESH, draft: get().draft, ...handOf(accepted), revision: get().revision + 1 });
    },
  };
});
