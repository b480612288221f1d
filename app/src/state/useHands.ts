import { alarms, dueReadings, liveStation, nameHands, openActions, tasks, washTasks } from '@broth/core';
import type { Alarm, DayPlan, DueReading, OpenAction, Station, Task, WashTask } from '@broth/core';
import { useMemo } from 'react';
import { lastOnly } from './lastOnly';
import type { OpenDay } from './useDay';
import { useDay } from './useDay';

/** What hands do on the open day, by the plan people work by. */
export interface Hands {
  readonly plan: DayPlan | null;
  readonly station: Station;
  readonly tasks: readonly Task[];
  readonly washes: readonly WashTask[];
  readonly due: readonly DueReading[];
  /** What still has to be done about a batch that is out of its rule. */
  readonly open: readonly OpenAction[];
  /** Everything that will want somebody, soonest first. */
  readonly alarms: readonly Alarm[];
}

/** `minute` is the present to the minute: what is due by the rules is asked no more often. */
function handsOf(day: OpenDay, minute: number): Hands {
  const plan = (day.view.plan?.plan ?? null) as DayPlan | null;
  const station = liveStation(day.book.station, day.state, day.view.midnight);
  const named = plan === null ? [] : nameHands(plan, station.people);
  const all = tasks({ day: day.state, plan, soupById: day.soupById, station, midnight: day.view.midnight, named });
  const due = dueReadings(day.state, day.soupById, day.rules, minute * 60_000);
  return {
    plan,
    station,
    tasks: all,
    washes: washTasks({ day: day.state, plan, soupById: day.soupById, midnight: day.view.midnight }),
    due,
    open: openActions(day.state, day.soupById, day.rules, minute * 60_000),
    alarms: alarms(all, due, day.state.timers),
  };
}

/** Asked by the page and by the alarms every second: worked out once. */
const handsOnce = lastOnly(handsOf);

export function useHands(now: number): { readonly day: OpenDay; readonly hands: Hands } | null {
  const day = useDay();
  const minute = Math.floor(now / 60_000);
  return useMemo(() => (day === null ? null : { day, hands: handsOnce(day, minute) }), [day, minute]);
}
