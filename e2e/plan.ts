import { planDay } from '@broth/core/planner';
import type { DayPlan } from '@broth/core';
import { demo } from '@broth/demo';
import { DAY } from './stand';

/** The demo day's plan, made at a minute of the day. */
export function planOf(nowMin: number): DayPlan {
  return planDay(
    { date: DAY, nowMin, soups: demo.soups, station: demo.station, pars: demo.standingPars, lots: demo.lots(DAY), started: [], dateMarkLastDay: 7 },
    { seed: 1, moves: 0 },
  );
}
