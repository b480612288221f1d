import { startedBatches } from '@broth/core';
import type { DayInput, DayPlan } from '@broth/core';
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
      : JSON.stringify([day.view.date, day.view.pars, day.view.lots, day.book.station, startedBatches(day.state, day.view.midnight), Math.floor((nowMin ?? 0) / 5)]);
  useEffect(() => {
    if (day === null || nowMin === null) return;
    ticket.current += 1;
    const request: PlanRequest = { ticket: ticket.current, input: inputOf(day, nowMin) };
    worker.current?.postMessage(request);
    // The key stands for everything the input is made of.
  }, [key]);
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
  /** Why a draft is shown although a plan was accepted. */
  readonly changed: boolean;
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
    const changed = accepted !== null && fresh !== null && batchesKey(accepted) !== batchesKey(fresh.plan);
    const accept = async (): Promise<void> => {
      if (fresh === null) return;
      setAccepting(true);
      if (await postPlan(fresh.plan, fresh.nowMin, who)) await refresh();
      setAccepting(false);
    };
    if (accepted !== null && !changed) return { plan: accepted, kind: 'accepted', changed: false, improving: false, accept, accepting };
    if (fresh === null) return null;
    return { plan: fresh.plan, kind: 'draft', changed, improving: !fresh.improved, accept, accepting };
  }, [day, draft, accepting, postPlan, refresh, who]);
}
