import {
  NO_COOLING_EVENTS,
  addMinutes,
  batchSheet,
  componentDemand,
  coolingVerdict,
  foldDay,
  liveStation,
  makeLine,
  makeSoup,
  makeStep,
  orderList,
  prepList,
  rulesInForce,
  startedBatches,
} from '@broth/core';
import { coolingForecast } from '@broth/core/advice';
import { RULE_PACKS, ruleSet } from '@broth/core/packs';
import { planDay, startPlanning } from '@broth/core/planner';
import type { DayEvent, DayPlan, Ingredient, Soup, TimedReading } from '@broth/core';
import { demo } from '@broth/demo';

/** Figures of core, in a process of its own: the first plan is timed cold, as a server's first one. */

const DAY = '2026-11-25';
const input = { date: DAY, nowMin: 300, soups: demo.soups, station: demo.station, pars: demo.standingPars, lots: demo.lots(DAY), started: [], dateMarkLastDay: 7 };

function timeMs(work: () => unknown): number {
  const from = performance.now();
  work();
  return performance.now() - from;
}
function median(values: readonly number[]): number {
  return [...values].sort((left, right) => left - right)[Math.floor(values.length / 2)] ?? Number.NaN;
}

const firstPlanMs = timeMs(() => planDay(input, { seed: 1, moves: 0 }));
const improvedPlanMs = median(Array.from({ length: 3 }, () => timeMs(() => planDay(input, { seed: 1, moves: 250 }))));

/** A day of twenty batches with steps and readings, about as many events as asked for. */
function dayOf(count: number): readonly DayEvent[] {
  const shared = { day: DAY, by: 'maren', device: 'bench' };
  const T0 = 1_764_000_000_000;
  return Array.from({ length: count }, (_, index): DayEvent => {
    const batchId = `${DAY}.lentil.${String(index % 20)}`;
    const fixed = { ...shared, id: `e${String(index)}`, at: addMinutes(T0, index) };
    if (index < 20) return { ...fixed, kind: 'batch.started/1', data: { batchId, soupId: 'lentil', soupVersion: 1, name: batchId, ordinal: 1, volumeL: 18, vesselId: 'kettle1' } };
    if (index % 3 === 0)
      return {
        ...fixed,
        kind: 'reading.taken/1',
        data: { batchId, purpose: 'cool', reading: { value: 120, unit: 'F', rawText: '120' }, heldS: null, packId: 'p', packVersion: 1 },
      };
    return { ...fixed, kind: index % 3 === 1 ? 'step.started/1' : 'step.done/1', data: { batchId, stepId: `s${String(index % 9)}` } };
  });
}
const thousand = dayOf(1000);
const foldMs = median(Array.from({ length: 50 }, () => timeMs(() => foldDay(thousand))));

const fiveThousand = dayOf(5000);
const bigFoldMs = median(Array.from({ length: 30 }, () => timeMs(() => foldDay(fiveThousand))));

/** What happened up to a minute of a day that went as planned. */
function eventsUntil(plan: DayPlan, minute: number): readonly DayEvent[] {
  const shared = { day: DAY, by: 'maren', device: 'bench' };
  let count = 0;
  const event = (kind: DayEvent['kind'], at: number, data: unknown): DayEvent => {
    count += 1;
    return { ...shared, id: `r${String(count)}`, kind, at: addMinutes(0, at), data } as DayEvent;
  };
  return plan.batches.flatMap((batch) => {
    const { id: batchId, soupId, soupVersion, name, ordinal, volumeL, vesselId } = batch;
    const begun = batch.steps.filter((step) => step.startMin <= minute);
    const last = batch.steps.at(-1);
    if (begun.length === 0) return [];
    return [
      event('batch.started/1', begun[0]?.startMin ?? 0, { batchId, soupId, soupVersion, name, ordinal, volumeL, vesselId }),
      ...begun.flatMap(({ stepId, startMin, endMin }) => [
        event('step.started/1', startMin, { batchId, stepId }),
        ...(endMin <= minute ? [event('step.done/1', endMin, { batchId, stepId })] : []),
      ]),
      ...(last !== undefined && last.endMin <= minute ? [event('batch.finished/1', last.endMin, { batchId, volumeOutL: volumeL })] : []),
    ];
  });
}

/** The worker searches this long before it answers; see the planner's worker. Milliseconds. */
const REPAIR_MS = 90;

/** From something that happens to the first new plan of the rest of the day, at the 95th percentile over many minutes and mishaps. */
function replanMs(): number {
  const agreed = planDay(input, { seed: 1, moves: 250 });
  const mishaps = [
    (at: number) => ({ kind: 'equipment.stopped/1', at, data: { equipmentId: 'jar', reason: 'Broken' } }),
    (at: number) => ({ kind: 'equipment.stopped/1', at, data: { equipmentId: 'kettle2', reason: 'Broken' } }),
    (at: number) => ({ kind: 'person.left/1', at, data: { personId: 'tobi', backAt: addMinutes(at, 40) } }),
    () => null,
  ];
  const took = mishaps.flatMap((mishap) =>
    Array.from({ length: 10 }, (_, index) => {
      const minute = 360 + index * 45;
      const more = mishap(addMinutes(0, minute));
      const day = foldDay([...eventsUntil(agreed, minute), ...(more === null ? [] : [{ ...more, id: 'm', day: DAY, by: 'maren', device: 'bench' } as DayEvent])]);
      // Without a mishap everything is a quarter of an hour late.
      const nowMin = minute + (more === null ? 15 : 1);
      return timeMs(() => {
        const begun = performance.now();
        const planning = startPlanning({ ...input, nowMin, station: liveStation(input.station, day, 0), started: startedBatches(day, 0), agreed }, 1);
        while (performance.now() - begun < REPAIR_MS) planning.run(4);
        planning.plan();
      });
    }),
  );
  return took.sort((left, right) => left - right)[Math.floor(took.length * 0.95)] ?? Number.NaN;
}
const replan95Ms = replanMs();

/** A card of forty lines over four levels of components, eight lines each made here. */
function deepBook(): ReadonlyMap<string, Soup> {
  const lines = (level: number): readonly Ingredient[] =>
    Array.from({ length: 40 }, (_, index) =>
      makeLine({
        id: `l${String(index)}`,
        name: `Line ${String(index)}`,
        stepId: 's',
        part: index % 5 === 0 ? 'spice' : 'vegetable',
        gPerMl: 0.6,
        edibleShare: 0.8,
        amount: { low: 10 + index, high: 12 + index, unit: index % 3 === 0 ? 'usCup' : 'g' },
        componentId: level < 4 && index === 7 ? `c${String(level + 1)}` : null,
      }),
    );
  const one = (id: string, level: number): Soup =>
    makeSoup({ id, name: id, makesL: 10, ingredients: lines(level), steps: [makeStep({ id: 's', phase: 'simmer', name: 's', heat: 'low' })] });
  return new Map([0, 1, 2, 3, 4].map((level) => [`c${String(level)}`, one(`c${String(level)}`, level)]));
}
const deep = deepBook();
const deepSoup = deep.get('c0');
if (deepSoup === undefined) throw new Error('no soup');
/** The sheet of the soup and of every component it asks for, to the fourth level. */
function scaleAll(soup: Soup): unknown {
  const asked = componentDemand([{ soupId: soup.id, volumeL: 26, begunSteps: [] }], deep);
  return [
    batchSheet(soup, 26, { soupById: deep }),
    ...asked.map(({ componentId, demandL }) => {
      const component = deep.get(componentId);
      return component === undefined ? null : batchSheet(component, demandL, { soupById: deep });
    }),
  ];
}
const repeated = (times: number, work: () => unknown): number => median(Array.from({ length: times }, () => timeMs(work)));
repeated(200, () => scaleAll(deepSoup));
const scaleMs = repeated(200, () => scaleAll(deepSoup));
const batches = Array.from({ length: 20 }, (_, index) => {
  const soup = demo.soups[index % demo.soups.length];
  if (soup === undefined) throw new Error('no soup');
  return { name: `${soup.shortName} ${String(index)}`, soup, volumeL: 10 + index, startMin: 300 + index, begunSteps: [] };
});
const prepMs = repeated(100, () => [prepList(batches), orderList(batches, demo.pantry)]);

/** A cooling that a probe wrote down every half minute, somewhat noisy. */
const T500 = 1_764_000_000_000;
const cooled: TimedReading[] = Array.from({ length: 500 }, (_, index) => {
  const value = 38 + 102 * Math.exp(-index / 180) + ((index * 7919) % 11) / 50;
  return { at: addMinutes(T500, index / 2), reading: { value, unit: 'F', rawText: '' }, heldS: null };
});
const fda = RULE_PACKS.find((pack) => pack.id === 'us-fda-fc2022');
if (fda === undefined) throw new Error('no pack');
const coolingRules = rulesInForce(ruleSet(fda, { packId: fda.id, changes: [], added: [] }, 1)).cooling.cooked;
const judged = (): unknown => {
  const verdict = coolingVerdict({ readings: cooled, events: NO_COOLING_EVENTS, rules: coolingRules, now: addMinutes(T500, 250) });
  return coolingForecast({ readings: cooled, ambient: 37, unit: 'F', rules: coolingRules, verdict });
};
repeated(100, judged);
const coolingMs = repeated(200, judged);

console.log(JSON.stringify({ coolingMs, scaleMs, prepMs, firstPlanMs, improvedPlanMs, foldMs, bigFoldMs, replan95Ms }));
