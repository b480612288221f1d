import { dateMarkLastDay, liveStation, planDifference, startedBatches, unplacedIn } from '@broth/core';
import type { DayInput, DayPlan, DayState, PlanDifference } from '@broth/core';
import { useDeferredValue, useEffect, useMemo, useState } from 'react';
import type { PlanAnswer, PlanRequest } from '../workers/plan.worker';
import { useDesk } from './desk';
import { useKitchen } from './kitchen';
import type { OpenDay } from './useDay';
import { useDay } from './useDay';
import { useNow } from './useNow';

function inputOf(day: OpenDay, nowMin: number): DayInput {
  const { book, view, state } = day;
  const { pins, splits, base } = useDesk.getState();
  return {
    date: view.date,
    nowMin,
    soups: book.soups,
    earlierSoups: view.earlierSoups,
    station: liveStation(book.station, state, view.midnight),
    pars: view.pars,
    lots: view.lots,
    started: startedBatches(state, view.midnight),
    dateMarkLastDay: dateMarkLastDay(day.rulesNow),
    pins,
    splits,
    agreed: base ?? view.plan?.plan ?? null,
  };
}

let worker: Worker | null = null;
/** The newest of each kind of question: an answer to an older one is not wanted any more. */
const tickets = { plan: 0, story: 0, cures: 0 };
let told: DayPlan | null = null;

/** One that could not be loaded is tried anew when something is asked next. */
function ask(request: PlanRequest): void {
  worker ??= workerMade();
  worker.postMessage(request);
}

function stop(why: NonNullable<ReturnType<typeof useDesk.getState>['stopped']>): void {
  // What was asked would be waited for for ever.
  useDesk.setState(({ cures }) => ({ stopped: why, cures: cures?.done === true ? cures : null }));
}

function hear({ data }: MessageEvent<PlanAnswer>): void {
  if (data.kind === 'failed') {
    stop(data.why);
    return;
  }
  if (data.ticket !== tickets[data.kind]) return;
  switch (data.kind) {
    case 'plan':
      useDesk.setState({ draft: data, stopped: null });
      return;
    case 'story':
      if (told !== null) useDesk.setState({ story: { of: told, story: data.story } });
      return;
    case 'cures':
      useDesk.setState(({ cures }) => ({ cures: cures === null ? null : { of: cures.of, cures: data.cures, done: data.done } }));
  }
}

function workerMade(): Worker {
  const made = new Worker(new URL('../workers/plan.worker.ts', import.meta.url));
  made.onmessage = hear;
  // It could not be loaded: what goes wrong in it, it says itself.
  made.onerror = () => {
    if (worker === made) worker = null;
    stop('bug');
  };
  return made;
}

/** Has the worker tell slack, causes and chances of a plan that is on the screen. */
export function useStory(day: OpenDay | null, plan: DayPlan | null, nowMin: number): void {
  const minute = Math.floor(nowMin);
  useEffect(() => {
    if (day === null || plan === null || plan.batches.length === 0) return;
    // A plan that is being improved is told once it stands still for a moment.
    const soon = setTimeout(() => {
      told = plan;
      tickets.story += 1;
      ask({ kind: 'story', ticket: tickets.story, input: inputOf(day, minute), plan });
    }, 250);
    return () => {
      clearTimeout(soon);
    };
    // The day is what the plan was made of; its minute does not change what is told.
  }, [plan]);
}

/** Asks what would help a plan that is late. */
export function askCures(day: OpenDay, plan: DayPlan, nowMin: number): void {
  tickets.cures += 1;
  useDesk.setState({ cures: { of: plan, cures: null, done: false } });
  ask({ kind: 'cures', ticket: tickets.cures, input: inputOf(day, Math.floor(nowMin)), plan });
}

/** Keeps a draft plan up to date in a worker. Mounted once, at the root. */
export function usePlanner(): void {
  const day = useDay();
  const now = useNow(60_000);
  const revision = useDesk((state) => state.revision);
  useEffect(() => {
    worker ??= workerMade();
    return () => {
      worker?.terminate();
      worker = null;
    };
  }, []);
  const nowMin = day === null ? null : Math.floor(day.minuteOf(now));
  const accepted = (day?.view.plan?.plan ?? null) as DayPlan | null;
  // What a plan depends on, as one value: ticks and readings that change nothing for the planner do not set it off.
  const key =
    day === null
      ? null
      : JSON.stringify([
          day.view.date,
          day.view.pars,
          day.view.lots,
          day.view.plan?.version ?? 0,
          day.book.station,
          day.state.stopped,
          day.state.away,
          day.book.soups.map((soup) => [soup.id, soup.version]),
          startedBatches(day.state, day.view.midnight),
          Math.floor((nowMin ?? 0) / 5),
          revision,
        ]);
  useEffect(() => {
    if (day === null || nowMin === null) return;
    useDesk.getState().open(day.view.date, accepted);
    // Without anything moved by hand a draft follows whatever is agreed.
    if (useDesk.getState().base === null) useDesk.setState({ basedOn: day.view.plan?.version ?? 0 });
    tickets.plan += 1;
    useDesk.setState({ asked: tickets.plan });
    const { draft, base } = useDesk.getState();
    const input = inputOf(day, nowMin);
    // A change by hand begins from what was on the screen; anything else from what people work by, where there is such a plan.
    const from = base === null ? (input.agreed ?? draft?.plan ?? null) : (draft?.plan ?? base);
    ask({ kind: 'plan', ticket: tickets.plan, input, from });
    // The key stands for everything the input is made of.
  }, [key]);
}

/** A plan this far from what really happens is no longer what the board should show. Minutes. */
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

/** Whether something goes on that should not have begun yet: the board would show it in the hours to come. */
export function runsAhead(plan: DayPlan, state: DayState, nowMin: number): boolean {
  return plan.batches.some((planned) => {
    const begun = state.batches[planned.id]?.steps ?? {};
    return planned.steps.some((step) => begun[step.stepId] !== undefined && step.startMin > nowMin + SLIP_MIN);
  });
}

/** Whether two plans are of the same batches and litres, whatever of them finds a place. */
export function areOfTheSame(one: DayPlan, other: DayPlan): boolean {
  const litresOf = (plan: DayPlan): ReadonlyMap<string, number | null> =>
    new Map([...unplacedIn(plan).map((id): [string, null] => [id, null]), ...plan.batches.map(({ id, volumeL }): [string, number] => [id, volumeL])]);
  const [left, right] = [litresOf(one), litresOf(other)];
  // Of what finds no place no litres are told.
  const isSame = (volumeL: number | null, otherL: number | null | undefined): boolean => otherL !== undefined && (volumeL === null || otherL === null || volumeL === otherL);
  return left.size === right.size && [...left].every(([id, volumeL]) => isSame(volumeL, right.get(id)));
}

export interface ShownPlan {
  readonly plan: DayPlan;
  readonly kind: 'draft' | 'accepted';
  /** Why a draft is shown: there is no plan yet, something was moved by hand, the batches asked for are others, something or somebody went out or came back, the day runs behind the accepted one or ahead of it, or it was agreed on before this better one was found. */
  readonly because: 'none' | 'moved' | 'changed' | 'station' | 'slipped' | 'ahead' | 'better' | null;
  readonly improving: boolean;
  /** What differs from the plan before: the one the last change was made to, else the accepted one. */
  readonly difference: PlanDifference | null;
  /** Goes on by the accepted plan although the day is not as it was; null where that is no choice. */
  readonly keep: (() => void) | null;
  readonly accept: () => Promise<void>;
  readonly accepting: boolean;
}

/** People who work by a plan are not told of every minute. */
const WORTH_MIN = 5;

/** Whether a plan of the same batches is so much better than the agreed one that people should hear of it: more finds a place, or much less is late. */
export function isWorthTelling(agreed: DayPlan, found: DayPlan): boolean {
  const more = unplacedIn(agreed).length - unplacedIn(found).length;
  // What is finished is as late as it was, whatever had been planned of it.
  const open = new Set(found.batches.filter(({ state }) => state !== 'finished').map(({ id }) => id));
  const lateOf = ({ batches }: DayPlan): number => batches.reduce((sum, { id, lateMin }) => sum + (open.has(id) ? lateMin : 0), 0);
  return more > 0 || (more === 0 && lateOf(found) <= lateOf(agreed) - WORTH_MIN);
}

/** Whether a draft is no more than an offer: nothing goes wrong by the accepted plan. */
export function isOffer({ because }: ShownPlan): boolean {
  return because === 'ahead' || because === 'better';
}

/** Whether what is still to come needs something that cannot be used now: it may have been stopped before the plan was agreed on, and be heard of only after. */
export function leansOnStopped(plan: DayPlan, { batches, stopped }: DayState): boolean {
  const isOut = (unitId: string | null): boolean => unitId !== null && stopped[unitId] !== undefined;
  return plan.batches.some((planned) => {
    const batch = batches[planned.id];
    // What stands in a kettle stays there.
    return (batch === undefined && isOut(planned.vesselId)) || planned.steps.some((step) => batch?.steps[step.stepId] === undefined && isOut(step.unitId));
  });
}

/** How long a day that runs behind or ahead is left as it is before it is asked again. Minutes. */
const KEEP_MIN = 15;

/** The plan to show: the accepted one as long as nothing was moved and it still has the batches the pars ask for, else the draft. */
export function usePlan(who: string | null): ShownPlan | null {
  const day = useDay();
  // Each better plan is drawn in slices, between whatever somebody taps meanwhile.
  const draft = useDeferredValue(useDesk((state) => state.draft));
  const base = useDesk((state) => state.base);
  const kept = useDesk((state) => state.kept);
  const refresh = useKitchen((state) => state.refresh);
  const postPlan = useKitchen((state) => state.postPlan);
  const [accepting, setAccepting] = useState(false);
  const shown = useMemo((): ShownPlan | null => {
    if (day === null) return null;
    const accepted = (day.view.plan?.plan ?? null) as DayPlan | null;
    const fresh = draft !== null && draft.plan.date === day.view.date ? draft : null;
    const reason =
      fresh !== null && base !== null
        ? 'moved'
        : accepted === null
          ? 'none'
          : fresh === null
            ? null
            : !areOfTheSame(accepted, fresh.plan)
              ? 'changed'
              : ((day.state.stationSince ?? 0) > (day.view.plan?.acceptedAt ?? 0) || !fresh.agreedFits || leansOnStopped(accepted, day.state)) &&
                  planDifference(accepted, fresh.plan).changes.length > 0
                ? 'station'
                : hasSlipped(accepted, day.state, fresh.nowMin)
                  ? 'slipped'
                  : runsAhead(accepted, day.state, fresh.nowMin)
                    ? 'ahead'
                    : isWorthTelling(accepted, fresh.plan)
                      ? 'better'
                      : null;
    // What is offered is not offered again to who has left it, a changed station not before it changes again; what goes wrong is told anew after a while.
    const station = (): string => JSON.stringify([day.state.stationSince, day.book.station]);
    const since = reason === 'better' ? null : reason === 'station' ? station() : Math.floor((fresh?.nowMin ?? 0) / KEEP_MIN);
    const about = [reason, day.view.plan?.version, since].join(' ');
    const because = kept === about ? null : reason;
    const keep =
      because === 'station' || because === 'slipped' || because === 'ahead' || because === 'better'
        ? (): void => {
            useDesk.setState({ kept: about });
          }
        : null;
    const accept = async (): Promise<void> => {
      if (fresh === null) return;
      setAccepting(true);
      const outcome = await postPlan(fresh.plan, fresh.nowMin, who, useDesk.getState().basedOn);
      if (outcome !== 'refused') await refresh();
      const agreed = useKitchen.getState().day?.plan ?? null;
      if (outcome === 'taken') useDesk.getState().letGo(fresh.plan);
      else if (outcome === 'overtaken' && agreed !== null) useDesk.getState().rebase(agreed.plan, agreed.version);
      setAccepting(false);
    };
    if (accepted !== null && because === null) return { plan: accepted, kind: 'accepted', because, improving: false, difference: null, keep, accept, accepting };
    if (fresh === null) return null;
    const before = base ?? accepted;
    const difference = before === null || before === fresh.plan ? null : planDifference(before, fresh.plan);
    return { plan: fresh.plan, kind: 'draft', because, improving: !fresh.improved, difference, keep, accept, accepting };
  }, [day, draft, base, kept, accepting, postPlan, refresh, who]);
  // Nobody who works by an accepted plan is told of what is only asked.
  const isDraft = shown?.kind === 'draft';
  const isOver = useDesk((state) => isDraft && state.stopped !== null);
  const isAsked = useDesk((state) => isDraft && draft?.ticket !== state.asked);
  return useMemo(() => (shown === null || !isDraft ? shown : { ...shown, improving: !isOver && (isAsked || shown.improving) }), [shown, isDraft, isOver, isAsked]);
}
