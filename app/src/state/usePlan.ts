import { startedBatches } from '@broth/core';
import type { DayInput, DayPlan, DayState } from '@broth/core';
import { useEffect, useMemo, useRef, useState } from 'react';
import { create } from 'zustand';
import type { PlanAnswer, PlanRequest } from '../workers/plan.worker';
import { useKitchen } from './kitchen';
import type { OpenDay } from './useDay';
import { useDay } from './useDay';
import { useNow } from './useNow';

interface Draft {
  readonly plan: DayPlan;
  readonly nowMin: number;
  readonly improved: boolean;
}

const useDraft = create<{ readonly draft: Draft | null }>()(() => ({ draft: null }));

function inputOf(day: OpenDay, nowMin: number): DayInput {
  const { book, view, state } = day;
  return {
    date: view.date,
    nowMin,
    soups: book.soups,
    earlierSoups: view.earlierSoups,
    station: book.station,
    pars: view.pars,
    lots: view.lots,
    started: startedBatches(state, view.midnight),
    dateMarkLastDay: book.pack.dateMark.lastDay,
  };
}

/** Keeps a draft plan up to date in a worker. Mounted once, at the root. */
export function usePlanner(): void {
  const day = useDay();
  const now = useNow(60_000);
  const worker = useRef<Worker | null>(null);
  const ticket = useRef(0);
  useEffect(() => {
    const made = new Worker(new URL('../workers/plan.worker.ts', import.meta.url));
    made.onmessage = ({ data }: MessageEvent<PlanAnswer>) => {
      if (data.ticket === ticket.current) useDraft.setState({ draft: data });
    };
    worker.current = made;
    return () => {
      made.terminate();
    };
  }, []);
  const nowMin = day === null ? null : Math.floor(day.minuteOf(now));
  // What a plan depends on, as one value: ticks and readings that change nothing for the planner do not set it off.
  const key =
    day === null
      ? null
      : JSON.stringify([
          day.view.date,
          day.view.pars,
          day.view.lots,
          day.book.station,
          day.book.soups.map((soup) => [soup.id, soup.version]),
          startedBatches(day.state, day.view.midnight),
          Math.floor((nowMin ?? 0) / 5),
        ]);
  useEffect(() => {
    if (day === null || nowMin === null) return;
    ticket.current += 1;
    const request: PlanRequest = { ticket: ticket.current, input: inputOf(day, nowMin) };
    worker.current?.postMessage(request);
    // The key stands for everything the input is made of.
  }, [key]);
}

/** A plan this far behind what really happens is no longer what the board should show. Minutes. */
const SLIP_MIN = 10;

/** Whether something that should have begun has not, or something that should be done runs on. */
export function hasSlipped(plan: DayPlan, state: DayState, nowMin: number): boolean {
  return plan.batches.some((planned) => {
    const batch = state.batches[planned.id];
    if (batch !== undefined && batch.finishedAt !== null) return false;
    const open = planned.steps.find((step) => (batch?.steps[step.stepId]?.doneAt ?? null) === null);
    if (open === undefined) return false;
    const begun = batch?.steps[open.stepId] !== undefined;
    return (begun ? open.endMin : open.startMin) < nowMin - SLIP_MIN;
  });
}

/** Which batches and litres a plan has: two plans of the same batches differ only in time. */
function batchesKey(plan: DayPlan): string {
  return plan.batches
    .map((batch) => `${batch.id} ${String(batch.volumeL)}`)
    .sort()
    .join(', ');
}

export interface ShownPlan {
  readonly plan: DayPlan;
  readonly kind: 'draft' | 'accepted';
  /** Why a draft is shown: there is no plan yet, the batches asked for are others, or the day runs behind the accepted one. */
  readonly because: 'none' | 'changed' | 'slipped' | null;
  readonly improving: boolean;
  readonly accept: () => Promise<void>;
  readonly accepting: boolean;
}

/** The plan to show: the accepted one as long as it still has the batches the pars ask for, else the draft. */
export function usePlan(who: string | null): ShownPlan | null {
  const day = useDay();
  const draft = useDraft((state) => state.draft);
  const refresh = useKitchen((state) => state.refresh);
  const postPlan = useKitchen((state) => state.postPlan);
  const [accepting, setAccepting] = useState(false);
  return useMemo(() => {
    if (day === null) return null;
    const accepted = (day.view.plan?.plan ?? null) as DayPlan | null;
    const fresh = draft !== null && draft.plan.date === day.view.date ? draft : null;
    const because =
      accepted === null
        ? 'none'
        : fresh === null
          ? null
          : batchesKey(accepted) !== batchesKey(fresh.plan)
            ? 'changed'
            : hasSlipped(accepted, day.state, fresh.nowMin)
              ? 'slipped'
              : null;
    const accept = async (): Promise<void> => {
      if (fresh === null) return;
      setAccepting(true);
      if (await postPlan(fresh.plan, fresh.nowMin, who)) await refresh();
      setAccepting(false);
    };
    if (accepted !== null && because === null) return { plan: accepted, kind: 'accepted', because, improving: false, accept, accepting };
    if (fresh === null) return null;
    return { plan: fresh.plan, kind: 'draft', because, improving: !fresh.improved, accept, accepting };
  }, [day, draft, accepting, postPlan, refresh, who]);
}
