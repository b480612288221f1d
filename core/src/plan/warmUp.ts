import { makeLine, makeSoup, makeStep } from '../soup/index';
import type { Soup, Step } from '../soup/index';
import type { DayInput, DayPlan } from './dayPlan';
import { planDay } from './planDay';

/** A soup nobody cooks: its first step takes the first line. */
function soupOf(id: string, componentId: string | null, steps: readonly Step[]): Soup {
  return makeSoup({ id, name: id, steps, ingredients: [makeLine({ id: 'all', name: 'All', stepId: 'cut', componentId, amount: { low: 1, high: 1, unit: 'kg' } })] });
}

const CUT: Step = makeStep({ id: 'cut', phase: 'prep', name: 'Cut', place: { kind: 'bench' } });
const SIMMER: Step = makeStep({ id: 'simmer', phase: 'simmer', name: 'Simmer', attention: 'looks', maxWaitMin: 10 });
const BLEND: Step = makeStep({ id: 'blend', phase: 'blend', name: 'Blend', place: { kind: 'blender', tool: 'jar' } });

const SHIFT = { fromMin: 0, toMin: 480 };
const INPUT: DayInput = {
  date: '2000-01-01',
  nowMin: 0,
  soups: [soupOf('soup', 'stock', [CUT, SIMMER, BLEND]), soupOf('stock', null, [CUT, SIMMER])],
  station: {
    equipment: [
      ...['one', 'other'].map((id) => ({ kind: 'vessel' as const, id, name: id, capacityL: 12, minFillL: 1, workingMaxL: 10, inUse: true })),
      { kind: 'jar', id: 'jar', name: 'jar', capacityL: 2, hotFillL: 1, cycleMin: 1, inUse: true },
    ],
    people: [{ id: 'cook', name: 'cook', role: 'cook', shift: SHIFT }],
    services: [{ id: 'service', name: 'service', startMin: 400, endMin: 460 }],
    rinseMin: 5,
    fullWashMin: 10,
    readyLeadMin: 10,
    aimChance: 0.9,
    laterBatches: true,
    altitudeM: 0,
    thermometers: [],
  },
  pars: [{ soupId: 'soup', parL: 15, serviceId: 'service' }],
  lots: [],
  started: [],
  dateMarkLastDay: 7,
};

/**
 * Plans a day nobody wants. Most of what the first plan of a process takes is its planner being made ready: the kernel, and all that is run for the first time. Who
 * waits for somebody's first question has that behind them when it comes.
 */
export function warmUp(): DayPlan {
  return planDay(INPUT, { seed: 1, moves: 0 });
}
