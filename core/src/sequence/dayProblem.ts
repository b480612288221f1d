import { allergensOf, stepDurationMin } from '../soup/index';
import type { Soup, Step } from '../soup/index';
import { jarOf, vesselsOf } from '../batch/index';
import type { Station } from '../batch/index';
import type { DayInput, StartedBatch } from './dayPlan';
import type { WantedBatch } from './dayBatches';
import type { Job, JobStep, Problem, Resource, ResourceUse } from './problem';

/** Hands are shared out in quarters of a cook: chopping takes three, a hot transfer all four, a stir now and then one. Common practice. */
export const HANDS_ID = 'hands';
export const UNITS_PER_PERSON = 4;
const TRAY_L = 4;

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

function usesOf(step: Step, volumeL: number, station: Station): readonly ResourceUse[] {
  const uses: ResourceUse[] = [];
  const hands = handsUnits(step);
  if (hands > 0) uses.push({ resourceId: HANDS_ID, units: hands });
  if (step.place.kind === 'blender') uses.push({ resourceId: step.place.tool, units: 1 });
  if (step.place.kind === 'oven') {
    const trays = station.equipment.reduce((sum, thing) => sum + (thing.kind === 'oven' && thing.inUse ? thing.trays : 0), 0);
    uses.push({ resourceId: 'oven', units: Math.min(trays, Math.ceil(volumeL / TRAY_L)) });
  }
  return uses;
}

function resourcesOf(station: Station): readonly Resource[] {
  const count = (kind: 'jar' | 'immersion'): number => station.equipment.filter((thing) => thing.kind === kind && thing.inUse).length;
  const trays = station.equipment.reduce((sum, thing) => sum + (thing.kind === 'oven' && thing.inUse ? thing.trays : 0), 0);
  return [
    {
      id: HANDS_ID,
      name: 'Hands',
      capacity: station.people.length * UNITS_PER_PERSON,
      windows: station.people.map(({ shift }) => ({ fromMin: shift.fromMin, toMin: shift.toMin, capacity: UNITS_PER_PERSON })),
    },
    { id: 'jar', name: 'Jar blender', capacity: count('jar'), windows: [] },
    { id: 'immersion', name: 'Immersion blender', capacity: count('immersion'), windows: [] },
    { id: 'oven', name: 'Oven', capacity: trays, windows: [] },
  ];
}

/** What has happened of a step: done keeps its times; running ends when its time is up, or in the next minute if that has passed. */
function frozenTimes(started: StartedBatch | null, step: Step, durationMin: number, nowMin: number): JobStep['frozen'] {
  const record = started?.steps.find((candidate) => candidate.stepId === step.id);
  if (record === undefined) return null;
  const endMin = record.endMin ?? Math.max(record.startMin + durationMin, nowMin + 1);
  return { startMin: record.startMin, endMin: Math.max(record.startMin, endMin) };
}

function jobOf(batch: WantedBatch, input: DayInput, soupById: ReadonlyMap<string, Soup>, batchesBySoup: ReadonlyMap<string, readonly WantedBatch[]>): Job {
  const { soup, volumeL, started } = batch;
  const { station } = input;
  const jar = jarOf(station);
  // A finished batch is what happened; a step somebody left out is not planned again.
  const shown = soup.steps.filter((step) => started?.state !== 'finished' || started.steps.some((record) => record.stepId === step.id));
  const steps = shown.map((step): JobStep => {
    const durationMin = stepDurationMin(step, volumeL, jar);
    const afterJobs = soup.ingredients
      .filter((line) => line.componentId !== null && line.stepId === step.id)
      .flatMap((line) => (batchesBySoup.get(line.componentId ?? '') ?? []).map((component) => component.id));
    return {
      id: step.id,
      durationMin,
      uses: usesOf(step, volumeL, station),
      maxWaitMin: step.maxWaitMin,
      afterJobs,
      frozen: frozenTimes(started, step, durationMin, input.nowMin),
    };
  });
  const inVessel = shown.map((step) => step.place.kind === 'vessel');
  const service = station.services.find((candidate) => candidate.id === batch.serviceId);
  return {
    id: batch.id,
    volumeL,
    allergens: allergensOf(soup, soupById).contains,
    steps,
    span: batch.vesselIds.length > 0 && inVessel.includes(true) ? { vesselIds: batch.vesselIds, firstStep: inVessel.indexOf(true), lastStep: inVessel.lastIndexOf(true) } : null,
    releaseMin: Math.max(input.nowMin, Math.min(...station.people.map((person) => person.shift.fromMin)), 0),
    readyByMin: service === undefined ? null : service.startMin - station.readyLeadMin,
  };
}

/** Two days' minutes: what does not fit today is shown as late, not lost. */
const HORIZON_MIN = 2 * 24 * 60;

/** The wanted batches of a day on its station, as a sequencing problem. */
export function dayProblem(input: DayInput, wanted: readonly WantedBatch[]): Problem {
  const soupById = new Map(input.soups.map((soup) => [soup.id, soup]));
  const batchesBySoup = new Map<string, WantedBatch[]>();
  for (const batch of wanted) batchesBySoup.set(batch.soup.id, [...(batchesBySoup.get(batch.soup.id) ?? []), batch]);
  return {
    horizonMin: HORIZON_MIN,
    resources: resourcesOf(input.station),
    vessels: vesselsOf(input.station),
    jobs: wanted.map((batch) => jobOf(batch, input, soupById, batchesBySoup)),
    rinseMin: input.station.rinseMin,
    fullWashMin: input.station.fullWashMin,
  };
}
