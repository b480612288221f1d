import { planDay, warmUp } from '@broth/core/planner';
import { demo } from '@broth/demo';

/** What a worker has of itself; Node's types know nothing of it. */
declare const self: { onmessage: () => void; postMessage: (data: readonly number[]) => void };

/** The first plan where phones plan: in a worker of a browser, which has warmed up as the app's has. Told in milliseconds, one for each plan. */

const DAY = '2026-11-25';
const PLANS = 230;
const input = { date: DAY, nowMin: 300, soups: demo.soups, station: demo.station, pars: demo.standingPars, lots: demo.lots(DAY), started: [], dateMarkLastDay: 7 };

warmUp();
self.onmessage = () => {
  self.postMessage(
    Array.from({ length: PLANS }, () => {
      const from = performance.now();
      planDay(input, { seed: 1, moves: 0 });
      return performance.now() - from;
    }),
  );
};
