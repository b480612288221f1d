import { byId } from '../quantity/index';
import { componentDemand, stepDurationMin, stepRangeMin, withBlender } from '../soup/index';
import type { Jar, Soup, Step } from '../soup/index';
import { blenderFor, firstThereMin, presentMin, vesselsOf } from '../batch/index';
import type { JarBlender, Station } from '../batch/index';
import { DEFAULT_WEIGHTS } from '../sequence/index';
import type { Changeover, Job, JobStep, Lag, Mode, Problem, Resource, ResourceUse, UnitSpan, Unit } from '../sequence/index';
import type { DayInput, Pin, PlannedBatch, StartedBatch } from './dayPlan';
import type { WantedBatch } from './dayBatches';
import { goLags, goesOf } from './cutting';
import { HANDS_ID, UNITS_PER_PERSON } from './hands';
import { placeResources, placeWays } from './placeWays';

const WASH_ID = 'wash';
/** A cold soup keeps: a minute it stands ready counts a tenth of a hot one's. A design choice. */
const COLD_EARLY_WEIGHT = 0.1;
/** Stock or a roast that stands until a soup takes it: less than a soup that stands, more than a longer day. A design choice. */
const COMPONENT_EARLY_WEIGHT = 0.03;

function handsUnits(step: Step): number {
  switch (step.attention) {
    case 'none':
      return 0;
    case 'looks':
      return 1;
    case 'hands':
      return step.phase === 'prep' ? 3 : step.phase === 'finish' ? 2 : UNITS_PER_PERSON;
  }
}

function handsOf(step: Step): readonly ResourceUse[] {
  const units = handsUnits(step);
  return units > 0 ? [{ resourceId: HANDS_ID, units }] : [];
}

/** Each jar has its own fill and cycle, so each is a way of its own, as is each oven and each bath with room for all of it; immersion blenders are alike. */
function modesOf(step: Step, volumeL: number, station: Station): readonly Mode[] {
  const hands = handsOf(step);
  const { place } = step;
  const done = place.kind === 'blender' ? withBlender(step, blenderFor(place.tool, station) ?? place.tool) : step;
  const mode = (id: string, jar: Jar | null, unitIds: readonly string[], uses: readonly ResourceUse[] = hands): Mode => {
    const { lowMin, highMin } = stepRangeMin(done, volumeL, jar);
    return { id, durationMin: stepDurationMin(done, volumeL, jar), spreadMin: [lowMin, highMin], uses, unitIds };
  };
  if (place.kind !== 'blender') {
    const ways = placeWays(step, volumeL, station);
    return ways.map(({ id, uses }) => mode(ways.length === 1 ? 'only' : id, null, [], [...hands, ...uses]));
  }
  const tool = blenderFor(place.tool, station);
  const inUse = station.equipment.filter((thing) => thing.kind === tool && thing.inUse);
  const jars = inUse.filter((thing): thing is JarBlender => thing.kind === 'jar');
  if (jars.length > 0) return jars.map((jar) => mode(jar.id, jar, [jar.id]));
  return [
    mode(
      'only',
      null,
      inUse.map((thing) => thing.id),
    ),
  ];
}

/** Nobody washes or cuts in the past: hands begin now. */
function resourcesOf(station: Station, nowMin: number, steps: readonly Step[]): readonly Resource[] {
  const windows = station.people.flatMap((person) =>
    presentMin(person).map(({ fromMin, toMin }) => ({ fromMin: Math.max(fromMin, nowMin), toMin: Math.max(toMin, nowMin), capacity: UNITS_PER_PERSON })),
  );
  return [
    // No windows would mean always: with nobody there, there are no hands at all.
    { id: HANDS_ID, name: 'Hands', capacity: windows.length === 0 ? 0 : station.people.length * UNITS_PER_PERSON, windows },
    ...placeResources(station, steps),
  ];
}

function unitsOf(station: Station): readonly Unit[] {
  return [
    ...vesselsOf(station).map(({ id, name, minFillL, workingMaxL }) => ({ id, name, volume: { minL: minFillL, maxL: workingMaxL }, changeoverId: WASH_ID })),
    ...station.equipment.flatMap(({ kind, id, name }) => (kind === 'jar' || kind === 'immersion' ? [{ id, name, volume: null, changeoverId: WASH_ID }] : [])),
  ];
}

/** A full wash when the first leaves an allergen the second does not have, else a rinse. */
function washOf(station: Station, classes: ReadonlyMap<string, readonly string[]>): Changeover {
  const ids = [...classes.keys()];
  const holds = [...classes.values()];
  return {
    id: WASH_ID,
    classes: ids,
    min: holds.map((before) => holds.map((after) => (before.some((allergen) => !after.includes(allergen)) ? station.fullWashMin : station.rinseMin))),
    uses: [{ resourceId: HANDS_ID, units: UNITS_PER_PERSON }],
  };
}

/**
 * A blend that has begun goes on as it was begun, as far as anybody knows, whatever has become of the blender: that it would be quicker with another is not
 * taken for granted. null for every other step.
 */
function begunDurationMin(step: Step, volumeL: number, station: Station): number | null {
  if (step.place.kind !== 'blender') return null;
  const jar = step.place.tool === 'jar' ? station.equipment.find((thing): thing is JarBlender => thing.kind === 'jar') : undefined;
  return stepDurationMin(step, volumeL, jar ?? null);
}

/** What has happened of a step: done keeps its times; running ends when its time is up, or in the next minute if that has passed. */
function happened(started: StartedBatch | null, step: Step, durationMin: number, nowMin: number): JobStep['fixed'] {
  const record = started?.steps.find((candidate) => candidate.stepId === step.id);
  if (record === undefined) return null;
  const endMin = record.endMin ?? Math.max(record.startMin + durationMin + (record.extendedMin ?? 0), nowMin + 1);
  return { kind: 'done', startMin: record.startMin, endMin: Math.max(record.startMin, endMin) };
}

/** Each step after the one before it; one that was left out while a later one began binds nothing that has happened. */
function chainOf(steps: readonly JobStep[], shown: readonly Step[]): readonly Lag[] {
  return steps.slice(1).flatMap((to, index): Lag[] => {
    const before = steps[index];
    if (before === undefined || (to.fixed?.kind === 'done' && before.fixed?.kind !== 'done')) return [];
    const lag: Lag = { from: before.id, to: to.id, kind: 'endStart', minMin: 0, maxMin: shown[index]?.maxWaitMin ?? null };
    const open = steps.slice(0, index).findLast((step) => step.fixed?.kind !== 'done');
    return open !== undefined && before.fixed?.kind === 'done' && to.fixed?.kind !== 'done' ? [lag, { ...lag, from: open.id, maxMin: null }] : [lag];
  });
}

function spanOf(batch: WantedBatch, steps: readonly JobStep[], shown: readonly Step[], pins: readonly Pin[]): readonly UnitSpan[] {
  const inVessel = steps.filter((_, index) => shown[index]?.place.kind === 'vessel');
  const [first] = [...inVessel.filter((step) => step.fixed?.kind === 'done'), ...inVessel];
  const last = inVessel.at(-1);
  if (batch.vesselIds.length === 0 || first === undefined || last === undefined) return [];
  const asked = pins.find((pin) => pin.batchId === batch.id && pin.vesselId !== null && batch.vesselIds.includes(pin.vesselId))?.vesselId;
  return [{ id: 'vessel', unitIds: asked == null ? batch.vesselIds : [asked], from: first.id, to: last.id, until: 'end' }];
}

/**
 * Whoever moves a batch moves all of it: its ready-by goes with it, to where it ends without a wait. As room before the ready-by, so that it is no reason to
 * be late.
 */
function movedRoomMin(steps: readonly JobStep[], readyByMin: number): number {
  const at = steps.findIndex((step) => step.fixed?.kind === 'pinned');
  const pin = steps[at]?.fixed;
  if (pin?.kind !== 'pinned') return 0;
  const takesMin = steps.slice(at).reduce((sum, step) => sum + Math.min(...step.modes.map((mode) => mode.durationMin)), 0);
  return Math.max(0, readyByMin - pin.startMin - takesMin);
}

interface Basis {
  readonly input: DayInput;
  readonly pins: readonly Pin[];
  /** Batches of a component that a batch takes from, by its id and the component's. */
  readonly drawn: ReadonlyMap<string, readonly string[]>;
  /** Batches of the plan people work by. */
  readonly agreed: ReadonlyMap<string, PlannedBatch>;
}

/** Guests come unevenly: what is ahead of a batch is reckoned to go as if they came this much faster than evenly. A design choice, on the safe side. */
const RUSH = 2;

/** Before the doors open; a later batch, where the kitchen wants it so, before what is ahead of it may have run out. */
function readyBy({ serviceId, servedBefore }: WantedBatch, { services, laterBatches, readyLeadMin }: Station): number | null {
  const service = services.find((candidate) => candidate.id === serviceId);
  if (service === undefined) return null;
  const lastsMin = laterBatches ? Math.floor((servedBefore * (service.endMin - service.startMin)) / RUSH) : 0;
  return service.startMin + lastsMin - readyLeadMin;
}

function classOf(allergens: readonly string[]): string {
  return [...allergens].sort().join('+');
}

function withWait(card: Step | undefined, isLast: boolean): readonly Step[] {
  if (card === undefined) return [];
  return [isLast ? card : { ...card, maxWaitMin: null }];
}

function jobOf(batch: WantedBatch, basis: Basis): Job {
  const { soup, volumeL, started } = batch;
  const { input, pins } = basis;
  const { station } = input;
  // A finished batch is what happened; a step somebody left out is not planned again.
  const cards = soup.steps.filter((step) => started?.state !== 'finished' || started.steps.some((record) => record.stepId === step.id));
  const whole = cards.map((step): JobStep => {
    const modes = modesOf(step, volumeL, station);
    const pin = pins.find((one) => one.batchId === batch.id && one.stepId === step.id);
    return {
      id: step.id,
      modes,
      afterJobs: soup.ingredients
        .filter((line) => line.componentId !== null && line.stepId === step.id)
        .flatMap((line) => basis.drawn.get(`${batch.id} ${line.componentId ?? ''}`) ?? []),
      fixed:
        happened(started, step, begunDurationMin(step, volumeL, station) ?? modes[0]?.durationMin ?? 1, input.nowMin) ??
        (pin === undefined ? null : { kind: 'pinned', startMin: pin.startMin }),
    };
  });
  const planned = basis.agreed.get(batch.id)?.steps;
  const cut = whole.map((own, index) => {
    const card = cards[index];
    if (card === undefined || station.interruptsCutting !== true) return [own];
    const known = (one: { readonly stepId: string }): boolean => one.stepId === card.id;
    return goesOf(card, own, { record: started?.steps.find(known), parts: planned?.find(known)?.parts, nowMin: input.nowMin });
  });
  const steps = cut.flat();
  // What may wait after a step waits after the last go of it.
  const shown = cut.flatMap((goes, index) => goes.flatMap((_, go): readonly Step[] => withWait(cards[index], go === goes.length - 1)));
  const readyByMin = readyBy(batch, station);
  return {
    id: batch.id,
    volumeL,
    steps,
    lags: [...chainOf(steps, shown), ...cut.flatMap((goes, index) => goLags(goes, cut[index + 1]?.[0], cards[index]?.maxWaitMin ?? null))],
    spans: spanOf(batch, steps, shown, pins),
    changeClass: classOf(batch.allergens),
    releaseMin: Math.max(input.nowMin, firstThereMin(station.people), 0),
    readyByMin,
    lateWeight: 1,
    earlyWeight: readyByMin === null ? COMPONENT_EARLY_WEIGHT : soup.served === 'hot' ? 1 : COLD_EARLY_WEIGHT,
    bufferMin: readyByMin === null ? 0 : movedRoomMin(steps, readyByMin),
    likesEarlyMin: 0,
  };
}

/**
 * Which batches of a component each batch takes from: what is on hand first, then its batches in their order, whoever is wanted first first. A soup of the
 * evening does not wait for its stock before midday, nor the midday soup for the stock of the evening.
 */
function drawnFrom(input: DayInput, wanted: readonly WantedBatch[], soupById: ReadonlyMap<string, Soup>): ReadonlyMap<string, readonly string[]> {
  const dueOf = ({ serviceId }: WantedBatch): number => input.station.services.find((service) => service.id === serviceId)?.startMin ?? 0;
  const inTurn = [...wanted].sort((left, right) => dueOf(left) - dueOf(right) || left.ordinal - right.ordinal || byId(left.id, right.id));
  const demands = inTurn.map(
    ({ soup, volumeL }) =>
      new Map(
        soup.ingredients.every((line) => line.componentId === null)
          ? []
          : componentDemand([{ soupId: soup.id, volumeL, begunSteps: [] }], soupById.get(soup.id) === soup ? soupById : new Map([...soupById, [soup.id, soup]])).map((demand) => [
              demand.componentId,
              demand.from.reduce((sum, one) => sum + (one.soupId === soup.id ? one.volumeL : 0), 0),
            ]),
      ),
  );
  const drawn = new Map<string, readonly string[]>();
  for (const componentId of new Set(wanted.flatMap((batch) => batch.soup.ingredients.flatMap((line) => line.componentId ?? [])))) {
    const made = wanted.filter((batch) => batch.soup.id === componentId).sort((left, right) => left.ordinal - right.ordinal);
    const asked = inTurn.map((batch, index) => ({ batch, volumeL: demands[index]?.get(componentId) ?? 0 }));
    const total = asked.reduce((sum, one) => sum + one.volumeL, 0);
    const madeL = made.reduce((sum, batch) => sum + batch.volumeL, 0);
    // What the batches do not cover is there already.
    let takenL = Math.min(0, madeL - total);
    for (const { batch, volumeL } of asked) {
      if (volumeL <= 0) continue;
      const [fromL, toL] = [takenL, takenL + volumeL];
      takenL = toL;
      let endL = 0;
      const from = made.filter((one) => {
        const startL = endL;
        endL += one.volumeL;
        return startL < toL - 1e-9 && endL > fromL + 1e-9;
      });
      drawn.set(
        `${batch.id} ${componentId}`,
        from.map((one) => one.id),
      );
    }
  }
  return drawn;
}

/** Two days' minutes: what does not fit today is shown as late, not lost. */
const HORIZON_MIN = 2 * 24 * 60;

/** The wanted batches of a day on its station, as a sequencing problem. `pins` are those that are to be kept. */
export function dayProblem(input: DayInput, wanted: readonly WantedBatch[], pins: readonly Pin[] = input.pins ?? []): Problem {
  const soupById = new Map(input.soups.map((soup) => [soup.id, soup]));
  const agreed = new Map(input.station.interruptsCutting === true ? input.agreed?.batches.map((batch) => [batch.id, batch]) : []);
  const basis: Basis = { input, pins, drawn: drawnFrom(input, wanted, soupById), agreed };
  const classes = new Map(wanted.map(({ allergens }) => [classOf(allergens), allergens]));
  return {
    horizonMin: HORIZON_MIN,
    resources: resourcesOf(
      input.station,
      input.nowMin,
      wanted.flatMap(({ soup }) => soup.steps),
    ),
    units: unitsOf(input.station),
    changeovers: [washOf(input.station, classes)],
    jobs: wanted.map((batch) => jobOf(batch, basis)),
    lines: [],
    weights: DEFAULT_WEIGHTS,
  };
}
