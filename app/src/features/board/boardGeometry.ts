import { placesOf, presentMin, stretchesOf } from '@broth/core';
import type { DayPlan, Phase, PlannedBatch, PlannedStep, Soup, Station } from '@broth/core';

/** Pure geometry of the ribbon board. Time is in minutes, breadth in px; the drawing decides whether time runs across or down. */

export interface Lane {
  readonly id: string;
  readonly kind: 'bench' | 'vessel' | 'jar' | 'immersion' | 'oven' | 'cooling';
  readonly name: string;
  readonly detail: string;
  readonly capacityL: number | null;
  /** Where the lane lies across the board, and how broad it is. */
  readonly from: number;
  readonly breadth: number;
}

/** A stretch of one batch's ribbon in one lane. */
export interface Stretch {
  readonly batchId: string;
  readonly laneId: string;
  readonly stepId: string | null;
  readonly phase: Phase | null;
  readonly startMin: number;
  readonly endMin: number;
  readonly from: number;
  readonly breadth: number;
  /** step = something happens; wait = it stands; away = the kettle is held while the batch is in the blender. */
  readonly kind: 'step' | 'wait' | 'away';
  /** Fills of the jar, drawn as beads. */
  readonly fills: number | null;
  readonly begun: boolean;
}

/** Where a ribbon crosses from lane to lane. */
export interface Crossing {
  readonly batchId: string;
  readonly atMin: number;
  readonly toMin: number;
  readonly fromMid: number;
  readonly toMid: number;
  readonly breadth: number;
}

export interface BoardGeometry {
  readonly lanes: readonly Lane[];
  readonly stretches: readonly Stretch[];
  readonly crossings: readonly Crossing[];
  readonly washes: readonly {
    readonly laneId: string;
    readonly kind: 'rinse' | 'full';
    readonly startMin: number;
    readonly endMin: number;
    readonly from: number;
    readonly breadth: number;
  }[];
  /** Where a batch's name goes: at its longest stay. `roomMin` is how long it may run before the next name in that lane. */
  readonly labels: readonly {
    readonly batchId: string;
    readonly startMin: number;
    readonly endMin: number;
    readonly from: number;
    readonly breadth: number;
    readonly lane: Lane;
    readonly roomMin: number;
  }[];
  /** Where something has been put by hand. */
  readonly pegs: readonly { readonly batchId: string; readonly atMin: number; readonly from: number; readonly breadth: number }[];
  readonly services: readonly { readonly name: string; readonly atMin: number }[];
  /** Hands taken, minute by minute steps: changes only. Units are quarters of a cook. */
  readonly hands: readonly { readonly fromMin: number; readonly toMin: number; readonly used: number; readonly capacity: number }[];
  readonly breadth: number;
  readonly fromMin: number;
  readonly toMin: number;
}

export interface BoardScale {
  /** px of breadth for one litre in a kettle. */
  readonly pxPerL: number;
  /** A lane that carries names is at least this broad; one that only carries tools, this. */
  readonly leastLane: number;
  readonly toolLane: number;
  readonly gap: number;
}

const TOOL_BREADTH = 14;

/** `named`: lanes that carry names, though nothing stands in a vessel there. `cooled`: places to cool that something stands in without its pot. */
function lanesOf(station: Station, scale: BoardScale, named: ReadonlySet<string>, cooled: ReadonlySet<string>): readonly Lane[] {
  let at = 0;
  const lane = (id: string, kind: Lane['kind'], name: string, detail: string, capacityL: number | null, wanted: number): Lane => {
    const breadth = Math.max(capacityL === null && !named.has(id) ? scale.toolLane : scale.leastLane, wanted);
    const made = { id, kind, name, detail, capacityL, from: at, breadth };
    at += breadth + scale.gap;
    return made;
  };
  const things = station.equipment.filter((thing) => thing.inUse);
  return [
    lane('bench', 'bench', 'Bench', 'prep', null, 0),
    ...things.flatMap((thing) =>
      thing.kind === 'vessel' ? [lane(thing.id, 'vessel', thing.name, `${String(thing.capacityL)} L`, thing.capacityL, thing.capacityL * scale.pxPerL)] : [],
    ),
    ...things.flatMap((thing) => (thing.kind === 'jar' ? [lane(thing.id, 'jar', thing.name, `${String(thing.hotFillL)} L a fill`, null, 0)] : [])),
    ...things.flatMap((thing) => (thing.kind === 'immersion' ? [lane(thing.id, 'immersion', thing.name, 'in the kettle', null, 0)] : [])),
    ...things.flatMap((thing) => (thing.kind === 'oven' ? [lane(thing.id, 'oven', thing.name, `${String(thing.trays)} trays`, null, 0)] : [])),
    ...things.flatMap((thing) => (cooled.has(thing.id) ? [lane(thing.id, 'cooling', thing.name, 'to cool', null, 0)] : [])),
  ];
}

function laneIdOf(step: Soup['steps'][number], planned: PlannedStep, vesselId: string | null, station: Station): string {
  switch (step.place.kind) {
    case 'bench':
    case 'oven':
      return placesOf(planned, station)[0]?.id ?? 'bench';
    case 'vessel':
      return vesselId ?? 'bench';
    case 'blender':
      return planned.unitId ?? 'bench';
  }
}

/** The lane a batch's name goes to: its vessel's, or where its longest step is. */
function homeOf(batch: PlannedBatch, soup: Soup, station: Station): string | null {
  if (batch.vesselId !== null) return batch.vesselId;
  const [longest] = [...batch.steps].sort((left, right) => right.endMin - right.startMin - (left.endMin - left.startMin));
  const step = soup.steps.find(({ id }) => id === longest?.stepId);
  return longest === undefined || step === undefined ? null : laneIdOf(step, longest, null, station);
}

interface Drawn {
  readonly stretches: readonly Stretch[];
  readonly crossings: readonly Crossing[];
}

function drawBatch(batch: PlannedBatch, soup: Soup, station: Station, lanes: ReadonlyMap<string, Lane>, pxPerL: number): Drawn {
  const hotFillL = station.equipment.find((thing) => thing.kind === 'jar')?.hotFillL ?? null;
  const stretches: Stretch[] = [];
  const crossings: Crossing[] = [];
  const breadthIn = (lane: Lane): number =>
    lane.capacityL === null ? Math.min(lane.breadth, Math.max(8, Math.min(TOOL_BREADTH, batch.volumeL * pxPerL))) : Math.min(lane.breadth, Math.max(6, batch.volumeL * pxPerL));
  const put = (
    laneId: string,
    kind: Stretch['kind'],
    startMin: number,
    endMin: number,
    planned: PlannedStep | null,
    phase: Phase | null,
    fills: number | null = null,
  ): Stretch | null => {
    const lane = lanes.get(laneId);
    if (lane === undefined || endMin <= startMin) return null;
    const breadth = breadthIn(lane);
    const made: Stretch = {
      batchId: batch.id,
      laneId,
      stepId: planned?.stepId ?? null,
      phase,
      startMin,
      endMin,
      from: lane.from + lane.breadth - breadth,
      breadth,
      kind,
      fills,
      begun: planned?.frozen ?? false,
    };
    stretches.push(made);
    return made;
  };
  let previous: { readonly stretch: Stretch; readonly laneId: string } | null = null;
  let inVessel = false;
  const lastVesselStep = soup.steps.findLastIndex((step) => step.place.kind === 'vessel');
  batch.steps.forEach((planned) => {
    const index = soup.steps.findIndex((step) => step.id === planned.stepId);
    const step = soup.steps[index];
    if (step === undefined) return;
    const laneId = laneIdOf(step, planned, batch.vesselId, station);
    if (previous !== null && planned.waitedMin > 0)
      put(inVessel && batch.vesselId !== null ? batch.vesselId : previous.laneId, 'wait', previous.stretch.endMin, planned.startMin, null, null);
    const fills = step.place.kind === 'blender' && step.place.tool === 'jar' && hotFillL !== null ? Math.ceil(batch.volumeL / hotFillL) : null;
    if (step.place.kind === 'blender' && inVessel && index < lastVesselStep && batch.vesselId !== null) put(batch.vesselId, 'away', planned.startMin, planned.endMin, null, null);
    const goes = stretchesOf(planned);
    // Between two goes it lies there, as whatever waits.
    goes.slice(1).forEach(({ startMin }, at) => put(laneId, 'wait', goes[at]?.endMin ?? startMin, startMin, null, null));
    const drawn = goes.map(({ startMin, endMin }) => put(laneId, 'step', startMin, endMin, planned, step.phase, fills));
    const [stretch, ends] = [drawn[0] ?? null, drawn.at(-1) ?? null];
    if (stretch === null || ends === null) return;
    if (previous !== null && previous.laneId !== laneId) {
      const mid = (one: Stretch): number => one.from + one.breadth / 2;
      crossings.push({
        batchId: batch.id,
        atMin: previous.stretch.endMin,
        toMin: stretch.startMin,
        fromMid: mid(previous.stretch),
        toMid: mid(stretch),
        breadth: Math.min(previous.stretch.breadth, stretch.breadth),
      });
    }
    if (step.place.kind === 'vessel') inVessel = true;
    previous = { stretch: ends, laneId };
  });
  return { stretches, crossings };
}

function handsOf(plan: DayPlan, station: Station, unitsPerPerson: number): BoardGeometry['hands'] {
  const loads = plan.batches.flatMap((batch) =>
    batch.steps.flatMap((step) =>
      step.uses.filter((use) => use.resourceId === 'hands').flatMap(({ units }) => stretchesOf(step).map(({ startMin, endMin }) => ({ fromMin: startMin, toMin: endMin, units }))),
    ),
  );
  const shifts = station.people.flatMap(presentMin);
  const points = [...new Set([...loads.flatMap((load) => [load.fromMin, load.toMin]), ...shifts.flatMap((shift) => [shift.fromMin, shift.toMin])])].sort(
    (left, right) => left - right,
  );
  return points.slice(1).map((toMin, index) => {
    const fromMin = points[index] ?? toMin;
    const used = loads.reduce((sum, load) => sum + (load.fromMin <= fromMin && fromMin < load.toMin ? load.units : 0), 0);
    const capacity = shifts.filter((shift) => shift.fromMin <= fromMin && fromMin < shift.toMin).length * unitsPerPerson;
    return { fromMin, toMin, used, capacity };
  });
}

/** Lays the plan out: one ribbon a batch, as broad as its litres, crossing from lane to lane. */
export function boardGeometry(plan: DayPlan, station: Station, soupById: ReadonlyMap<string, Soup>, scale: BoardScale, unitsPerPerson: number): BoardGeometry {
  const homes = new Map(
    plan.batches.flatMap((batch): [string, string][] => {
      const soup = soupById.get(batch.soupId);
      const home = soup === undefined ? null : homeOf(batch, soup, station);
      return home === null ? [] : [[batch.id, home]];
    }),
  );
  const cooled = plan.batches.flatMap((batch) =>
    batch.steps.flatMap((planned) => {
      const step = soupById.get(batch.soupId)?.steps.find(({ id }) => id === planned.stepId);
      return step?.place.kind === 'bench' ? placesOf(planned, station).map(({ id }) => id) : [];
    }),
  );
  const lanes = lanesOf(station, scale, new Set(homes.values()), new Set(cooled));
  const laneById = new Map(lanes.map((lane) => [lane.id, lane]));
  const drawn = plan.batches.flatMap((batch) => {
    const soup = soupById.get(batch.soupId);
    return soup === undefined ? [] : [drawBatch(batch, soup, station, laneById, scale.pxPerL)];
  });
  const stretches = drawn.flatMap((one) => one.stretches);
  const named = plan.batches.flatMap((batch) => {
    const home = stretches.filter((stretch) => stretch.batchId === batch.id && stretch.laneId === homes.get(batch.id));
    const [first, last] = [home[0], home.at(-1)];
    const lane = laneById.get(first?.laneId ?? '');
    return first === undefined || last === undefined || lane === undefined
      ? []
      : [{ batchId: batch.id, startMin: first.startMin, endMin: last.endMin, from: first.from, breadth: first.breadth, lane }];
  });
  const labels = named.map((label) => {
    const next = named.filter((other) => other.lane.id === label.lane.id && other.startMin > label.startMin).map((other) => other.startMin);
    return { ...label, roomMin: Math.min(...next, Number.POSITIVE_INFINITY) - label.startMin };
  });
  const starts = stretches.map((stretch) => stretch.startMin);
  const ends = stretches.map((stretch) => stretch.endMin);
  const fromMin = starts.length === 0 ? 300 : Math.floor(Math.min(...starts) / 30) * 30;
  const toMin = ends.length === 0 ? fromMin + 600 : Math.ceil(Math.max(...ends) / 30) * 30 + 30;
  const lastLane = lanes.at(-1);
  return {
    lanes,
    stretches,
    crossings: drawn.flatMap((one) => one.crossings),
    washes: plan.washes.flatMap((wash) => {
      const lane = laneById.get(wash.unitId);
      return lane === undefined
        ? []
        : [{ laneId: lane.id, kind: wash.kind, startMin: wash.startMin, endMin: wash.endMin, from: lane.from + lane.breadth * 0.5, breadth: lane.breadth * 0.5 }];
    }),
    labels,
    pegs: plan.pins.flatMap((pin) => {
      const at = stretches.find((stretch) => stretch.batchId === pin.batchId && stretch.stepId === pin.stepId);
      return at === undefined ? [] : [{ batchId: pin.batchId, atMin: at.startMin, from: at.from, breadth: at.breadth }];
    }),
    services: station.services.map((service) => ({ name: service.name, atMin: service.startMin })).filter((service) => service.atMin >= fromMin && service.atMin <= toMin),
    hands: handsOf(plan, station, unitsPerPerson),
    breadth: lastLane === undefined ? 0 : lastLane.from + lastLane.breadth,
    fromMin,
    toMin,
  };
}
