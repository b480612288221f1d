import { readBatchId, splitChoices, vesselsOf } from '../batch/index';
import type { Equipment, Station } from '../batch/index';
import { toCookL } from './dayPlan';
import type { DayInput, DayPlan, Split } from './dayPlan';
import { unpinned } from './pins';
import { startPlanning } from './planDay';

/** One thing that could be otherwise today. */
export type WhatIf =
  | { readonly kind: 'cook' }
  | { readonly kind: 'equipment'; readonly likeId: string }
  | { readonly kind: 'fasterWash'; readonly fullWashMin: number; readonly rinseMin: number }
  | { readonly kind: 'without'; readonly soupId: string }
  /** Cutting put down for what is wanted sooner, and taken up again. */
  | { readonly kind: 'cutting' }
  /** A soup, or what soups are made of, in one batch more. */
  | { readonly kind: 'split'; readonly split: Split }
  /** What was put by hand is let go. */
  | { readonly kind: 'letGo'; readonly batchId: string };

export interface Cure {
  readonly whatIf: WhatIf;
  readonly lateMin: number;
  readonly unplaced: number;
  /** Batches without a place that find one. Comes before lateness: a batch that is left out is late for nobody. */
  readonly places: number;
  /** Minutes late it takes away from the plan as it is; 0 where it is less than chance in the search makes, or where other batches are laid out. */
  readonly gainsMin: number;
}

export interface Cures {
  readonly lateMin: number;
  readonly unplaced: number;
  /** What another search of the same day finds: a gain below it says nothing. Minutes late. */
  readonly noiseMin: number;
  readonly cures: readonly Cure[];
}

function more(station: Station, likeId: string): readonly Equipment[] {
  const like = station.equipment.find((thing) => thing.id === likeId);
  return like === undefined ? station.equipment : [...station.equipment, { ...like, id: `${likeId}.more`, inUse: true }];
}

/** The day as it would be. */
export function changed(input: DayInput, whatIf: WhatIf): DayInput {
  const { station } = input;
  switch (whatIf.kind) {
    case 'cook': {
      const fromMin = Math.min(...station.people.map((person) => person.shift.fromMin));
      const toMin = Math.max(...station.people.map((person) => person.shift.toMin));
      return { ...input, station: { ...station, people: [...station.people, { id: 'one.more', name: '', role: 'cook', shift: { fromMin, toMin } }] } };
    }
    case 'equipment':
      return { ...input, station: { ...station, equipment: more(station, whatIf.likeId) } };
    case 'fasterWash':
      return { ...input, station: { ...station, rinseMin: whatIf.rinseMin, fullWashMin: whatIf.fullWashMin } };
    case 'cutting':
      return { ...input, station: { ...station, interruptsCutting: true } };
    case 'split':
      return { ...input, splits: [...(input.splits ?? []).filter(({ soupId }) => soupId !== whatIf.split.soupId), whatIf.split] };
    case 'letGo':
      return { ...input, pins: unpinned(input.pins ?? [], whatIf.batchId) };
    case 'without':
      return { ...input, pars: input.pars.map((par) => (par.soupId === whatIf.soupId ? { ...par, parL: 0 } : par)) };
  }
}

/** What is worth asking: one more of each thing the plan uses, or of each oven and bath it waits for, one more pair of hands, washes in half the time, cutting that may be put down, one batch more of what is late or soups are made of, each soup left out that has not begun. */
export function questionsOf(input: DayInput, plan: DayPlan): readonly WhatIf[] {
  const used = new Set(plan.batches.flatMap((batch) => [batch.vesselId, ...batch.steps.map((step) => step.unitId)]).filter((id) => id !== null));
  const { equipment, rinseMin, fullWashMin, interruptsCutting = false } = input.station;
  // Of vessels the largest in use stands for all: what fits a small one fits it mostly too.
  const vessels = equipment.flatMap((thing) => (thing.kind === 'vessel' && used.has(thing.id) ? [thing] : [])).sort((left, right) => right.workingMaxL - left.workingMaxL);
  const blenders = (['jar', 'immersion'] as const).flatMap((kind) => equipment.filter((thing) => thing.kind === kind && used.has(thing.id)).slice(0, 1));
  const waited = new Set([
    ...plan.batches.flatMap((batch) => batch.steps.map((step) => step.waitedFor)),
    ...plan.findings.map((found) => (found.code === 'plan.late' ? found.waitedFor : null)),
  ]);
  const places = equipment.filter((thing) => (thing.kind === 'oven' || thing.kind === 'cooling') && waited.has(thing.id));
  const begun = new Set(input.started.map((batch) => batch.soupId));
  const soups = [...new Set(plan.batches.filter((batch) => batch.serviceId !== null).map((batch) => batch.soupId))].filter((id) => !begun.has(id));
  return [
    ...[...new Set(plan.pins.map((pin) => pin.batchId))].map((batchId): WhatIf => ({ kind: 'letGo', batchId })),
    { kind: 'cook' },
    ...[...vessels.slice(0, 1), ...blenders, ...places].map((thing): WhatIf => ({ kind: 'equipment', likeId: thing.id })),
    { kind: 'fasterWash', rinseMin: Math.ceil(rinseMin / 2), fullWashMin: Math.ceil(fullWashMin / 2) },
    ...(interruptsCutting ? [] : [{ kind: 'cutting' as const }]),
    ...splitsOf(input, plan).map((split): WhatIf => ({ kind: 'split', split })),
    ...soups.map((soupId): WhatIf => ({ kind: 'without', soupId })),
  ];
}

/** What is late or finds no place, and what soups are made of, in one batch more, where vessels in use hold smaller ones. */
function splitsOf({ station }: DayInput, plan: DayPlan): readonly Split[] {
  const behind = [
    ...plan.batches.flatMap((batch) => (batch.lateMin > 0 && batch.state === 'planned' ? [batch.soupId] : [])),
    ...plan.findings.flatMap((found) => (found.code === 'plan.unplaced' ? [readBatchId(found.batchId).soupId] : [])),
    ...plan.components.map(({ componentId }) => componentId),
  ];
  return [...new Set(behind)].flatMap((soupId): Split[] => {
    const asked = plan.splits.find((split) => split.soupId === soupId)?.batches ?? 0;
    const now = Math.max(asked, plan.batches.filter((batch) => batch.soupId === soupId && batch.state === 'planned').length);
    const next = now === 0 ? undefined : splitChoices(toCookL(plan, soupId), vesselsOf(station)).find(({ sizes }) => sizes.length > now);
    return next === undefined ? [] : [{ soupId, batches: next.sizes.length }];
  });
}

function unplacedOf(plan: DayPlan): number {
  return plan.findings.filter((found) => found.code === 'plan.unplaced').length;
}

/**
 * What would help a day that is late: each question searched from the plan as it is with the same seed and moves, and never worse than it. Asks one question
 * at a time, so that a caller can stop in between.
 */
export function* curesOf(day: DayInput, plan: DayPlan, options: { readonly seed: number; readonly moves: number }): Generator<Cures, Cures> {
  const input = { ...day, pins: plan.pins, splits: plan.splits };
  const search = (given: DayInput, seed: number): DayPlan => {
    const planning = startPlanning({ ...given, agreed: null }, seed, plan);
    planning.run(options.moves);
    return planning.plan();
  };
  const base = search(input, options.seed);
  const noiseMin = Math.abs(plan.objective.lateMin - Math.min(base.objective.lateMin, search(input, options.seed + 1).objective.lateMin));
  const { lateMin } = plan.objective;
  const unplaced = Math.min(unplacedOf(plan), unplacedOf(base));
  const cures: Cure[] = [];
  const said = (): Cures => ({ lateMin, unplaced, noiseMin, cures: [...cures].sort((left, right) => right.places - left.places || right.gainsMin - left.gainsMin) });
  for (const whatIf of questionsOf(input, plan)) {
    const found = search(changed(input, whatIf), options.seed);
    const gained = Math.min(base.objective.lateMin, lateMin) - found.objective.lateMin;
    const left = unplacedOf(found);
    // A soup left out takes its own batches with it: that those want no place is no cure of anything else.
    const own = whatIf.kind === 'without' ? plan.findings.filter((one) => one.code === 'plan.unplaced' && readBatchId(one.batchId).soupId === whatIf.soupId).length : 0;
    cures.push({
      whatIf,
      // Nobody has to do what makes it worse.
      lateMin: Math.min(found.objective.lateMin, lateMin),
      unplaced: left,
      places: Math.max(0, unplaced - own - left),
      gainsMin: left === unplaced && gained > noiseMin ? gained : 0,
    });
    yield said();
  }
  return said();
}
