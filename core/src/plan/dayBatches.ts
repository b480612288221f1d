import type { Allergen } from '../food/index';
import { roundUp } from '../quantity/index';
import { batchIdOf, blenderFor, keptSplit, splitIntoBatches, vesselsOf } from '../batch/index';
import type { Station } from '../batch/index';
import { allocate } from '../lot/index';
import { needFor } from '../par/index';
import type { Need } from '../par/index';
import { allergensOf, componentDemand } from '../soup/index';
import type { Soup, Step } from '../soup/index';
import type { DayInput, DayPlan, Lack, PlanFinding, StartedBatch } from './dayPlan';
import { isCooled } from './placeWays';

/** A batch that is wanted, before it has a time. */
export interface WantedBatch {
  readonly id: string;
  readonly soup: Soup;
  readonly ordinal: number;
  readonly volumeL: number;
  readonly vesselIds: readonly string[];
  readonly serviceId: string | null;
  /** Share of the soup's par that is served before it, 0 to 1. */
  readonly servedBefore: number;
  readonly started: StartedBatch | null;
  readonly allergens: readonly Allergen[];
}

type Soups = ReadonlyMap<string, Soup>;

export interface DayBatches {
  readonly wanted: readonly WantedBatch[];
  readonly needs: readonly Need[];
  readonly components: DayPlan['components'];
  readonly findings: readonly PlanFinding[];
}

function usesVessel(soup: Soup): boolean {
  return soup.steps.some((step) => step.place.kind === 'vessel');
}

/** What a step needs that the station does not have in use; null when it has it. */
function lacking(step: Step, station: Station): Lack | null {
  const wanted = step.place.kind === 'blender' ? step.place.tool : step.place.kind;
  const has = (kind: Lack): boolean => station.equipment.some((thing) => thing.kind === kind && thing.inUse);
  if (wanted !== 'bench' && !has(wanted) && (step.place.kind !== 'blender' || blenderFor(step.place.tool, station) === null)) return wanted;
  return isCooled(step) && !has('cooling') ? 'cooling' : null;
}

/** What is under way, or wanted, and cannot be done as its card says: with the other blender, or not at all for now. */
function doneOtherwise(batches: readonly WantedBatch[], station: Station): PlanFinding[] {
  const open = batches
    .filter(({ started }) => started?.state !== 'finished')
    .flatMap(({ id, soup, started }) =>
      soup.steps.filter((step) => started?.steps.some((record) => record.stepId === step.id && record.endMin !== null) !== true).map((step) => ({ id, soup, started, step })),
    );
  return open.flatMap(({ id, soup, started, step }): PlanFinding[] => {
    const { place } = step;
    if (place.kind === 'blender') {
      const tool = blenderFor(place.tool, station);
      if (tool !== null && tool !== place.tool) return [{ code: 'station.instead', batchId: id, stepId: step.id, soupId: soup.id, lacks: place.tool, instead: tool }];
    }
    const lacks = started === null ? null : lacking(step, station);
    // The kettle it stands in is its own, whatever has become of it.
    return lacks === null || lacks === 'vessel' ? [] : [{ code: 'station.lacks', soupId: soup.id, stepId: step.id, lacks }];
  });
}

/** Batches of a soup that somebody has begun: they stay as they are. */
function begunBatches(soup: Soup, serviceId: string | null, input: DayInput, soupById: Soups): WantedBatch[] {
  return input.started
    .filter((batch) => batch.soupId === soup.id && batch.state !== 'discarded')
    .map((started) => {
      const { batchId: id, ordinal, volumeL, vesselId } = started;
      const own = input.earlierSoups?.find((one) => one.id === soup.id && one.version === started.soupVersion) ?? soup;
      return {
        id,
        soup: own,
        ordinal,
        volumeL,
        vesselIds: vesselId === null ? [] : [vesselId],
        serviceId,
        servedBefore: 0,
        started,
        allergens: allergensOf(own, soupById).contains,
      };
    });
}

function litresOf(batches: readonly WantedBatch[]): number {
  return batches.reduce((sum, batch) => sum + batch.volumeL, 0);
}

/** New batches of one soup or component for the litres still missing. */
function newBatches(soup: Soup, missingL: number, serviceId: string | null, input: DayInput, soupById: Soups): { wanted: WantedBatch[]; findings: PlanFinding[] } {
  const stillL = roundUp(missingL, 0.5);
  if (stillL <= 0) return { wanted: [], findings: [] };
  const lacks = soup.steps.flatMap((step): PlanFinding[] => {
    const missing = lacking(step, input.station);
    return missing === null ? [] : [{ code: 'station.lacks', soupId: soup.id, stepId: step.id, lacks: missing }];
  });
  if (lacks.length > 0) return { wanted: [], findings: lacks };
  const firstOrdinal = Math.max(0, ...input.started.filter((batch) => batch.soupId === soup.id).map((batch) => batch.ordinal)) + 1;
  const allergens = allergensOf(soup, soupById).contains;
  const named = (volumeL: number, vesselIds: readonly string[], index: number): WantedBatch => {
    const ordinal = firstOrdinal + index;
    return { id: batchIdOf(input.date, soup.id, ordinal), soup, ordinal, volumeL, vesselIds, serviceId, servedBefore: 0, started: null, allergens };
  };
  if (!usesVessel(soup)) return { wanted: [named(stillL, [], 0)], findings: [] };
  const begunIds = new Set(input.started.map((batch) => batch.batchId));
  const begun = input.started.filter((batch) => batch.soupId === soup.id && batch.state !== 'discarded').length;
  // What has begun is some of the batches that were asked for.
  const asked = Math.max(1, (input.splits?.find(({ soupId }) => soupId === soup.id)?.batches ?? 1) - begun);
  const vessels = vesselsOf(input.station);
  const fresh = splitIntoBatches(stillL, vessels, asked);
  // Half a litre less is no reason for another plan; another number of batches is.
  const agreedL = (input.agreed?.batches ?? [])
    .filter((batch) => batch.soupId === soup.id && !begunIds.has(batch.id))
    .sort((left, right) => left.ordinal - right.ordinal)
    .map((batch) => batch.volumeL);
  const split = (fresh.kind === 'split' && agreedL.length === fresh.sizes.length ? keptSplit(stillL, agreedL, vessels) : null) ?? fresh;
  switch (split.kind) {
    case 'noVessel':
      return { wanted: [], findings: [{ code: 'batch.noVessel', soupId: soup.id, needL: stillL }] };
    case 'tooMany':
      return { wanted: [], findings: [{ code: 'batch.tooMany', soupId: soup.id, needL: stillL, batches: split.batches, largestL: split.largestL }] };
    case 'split':
      return {
        wanted: split.sizes.map((size, index) => named(size.volumeL, size.vesselIds, index)),
        findings: split.surplusL >= 0.5 ? [{ code: 'batch.surplus', soupId: soup.id, surplusL: split.surplusL }] : [],
      };
  }
}

/** A service with more hot soups than wells in use; a station that has none at all holds in its kettles. */
function wellsLacking(needs: readonly Need[], { station }: DayInput, soupById: ReadonlyMap<string, Soup>): PlanFinding[] {
  const all = station.equipment.filter((thing) => thing.kind === 'well');
  const wells = all.filter((thing) => thing.inUse).length;
  if (all.length === 0) return [];
  return station.services.flatMap(({ id: serviceId }): PlanFinding[] => {
    const hot = needs.filter((need) => need.serviceId === serviceId && need.parL > 0 && soupById.get(need.soupId)?.served === 'hot');
    return hot.length > wells ? [{ code: 'station.wells', serviceId, soups: hot.length, wells }] : [];
  });
}

/** What is on hand is served first, then the batches in their order. */
function inTurn(batches: readonly WantedBatch[], need: Need): readonly WantedBatch[] {
  let servedL = need.onHandL;
  return [...batches]
    .sort((left, right) => left.ordinal - right.ordinal)
    .map((batch) => {
      const servedBefore = Math.min(1, servedL / Math.max(need.parL, 1e-9));
      servedL += batch.volumeL;
      return { ...batch, servedBefore };
    });
}

/** Pars → needs → batches of the soups, then of the components they share. */
export function dayBatches(input: DayInput): DayBatches {
  const soupById = new Map(input.soups.map((soup) => [soup.id, soup]));
  const needs = input.pars.map((par) => needFor(par, input.lots, input.date, input.dateMarkLastDay));
  const findings: PlanFinding[] = needs.flatMap((need) =>
    need.uses.flatMap((use): PlanFinding[] => {
      if (use.kind === 'pastDate') return [{ code: 'lot.pastDate', soupId: need.soupId, volumeL: use.lot.volumeL, byDays: use.byDays }];
      return use.kind === 'frozen' && need.needL > 0 ? [{ code: 'lot.frozen', soupId: need.soupId, volumeL: use.lot.volumeL }] : [];
    }),
  );
  const wanted: WantedBatch[] = [];
  for (const need of needs) {
    const soup = soupById.get(need.soupId);
    if (soup === undefined) continue;
    const begun = begunBatches(soup, need.serviceId, input, soupById);
    const made = newBatches(soup, need.needL - litresOf(begun), need.serviceId, input, soupById);
    wanted.push(...inTurn([...begun, ...made.wanted], need));
    findings.push(...made.findings);
  }
  findings.push(...wellsLacking(needs, input, soupById));
  // Components follow what is cooked, not what is needed: a surplus batch takes its stock too.
  const cooking = wanted.map((batch) => ({ soupId: batch.soup.id, volumeL: batch.volumeL, begunSteps: batch.started?.steps.map((record) => record.stepId) ?? [] }));
  const components: DayPlan['components'][number][] = [];
  for (const demand of componentDemand(cooking, soupById)) {
    const soup = soupById.get(demand.componentId);
    if (soup === undefined) continue;
    const lots = input.lots.filter((lot) => lot.soupId === demand.componentId);
    const onHandL = allocate(lots, demand.demandL + demand.takenL, input.date, input.dateMarkLastDay).reduce((sum, use) => sum + (use.kind === 'counts' ? use.takenL : 0), 0);
    const begun = begunBatches(soup, null, input, soupById);
    const leftL = Math.max(0, onHandL + litresOf(begun) - demand.takenL);
    const needL = roundUp(Math.max(0, demand.demandL - leftL), 0.5);
    const made = newBatches(soup, needL, null, input, soupById);
    wanted.push(...begun, ...made.wanted);
    findings.push(...made.findings);
    components.push({ ...demand, onHandL, needL });
  }
  return { wanted, needs, components, findings: [...findings, ...doneOtherwise(wanted, input.station)] };
}
