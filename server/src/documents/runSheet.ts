import { words } from '@broth/contract';
import { nameHands, placesOf, soupOf, stretchesOf } from '@broth/core';
import type { DayPlan, Soup, Station } from '@broth/core';

/** One line of a day's run sheet: a step of a batch, or a wash. */
export interface RunLine {
  /** What a calendar knows it by: the same step of a newer plan takes its place. */
  readonly key: string;
  readonly startMin: number;
  readonly endMin: number;
  readonly start: string;
  readonly end: string;
  readonly minutes: number;
  /** Who has hands for it; '' when nobody alone, or it needs none. */
  readonly person: string;
  readonly personId: string | null;
  readonly batch: string;
  readonly phase: string;
  readonly what: string;
  readonly place: string;
  readonly litres: number | null;
  readonly check: string;
  readonly caution: string;
}

/** `places`: the ovens or places to cool it takes up. */
function placeOf(step: Soup['steps'][number] | undefined, vessel: string, places: string): string {
  if (step === undefined) return vessel;
  switch (step.place.kind) {
    case 'bench':
      return places === '' ? 'Bench' : places;
    case 'oven':
      return places === '' ? 'Oven' : places;
    case 'vessel':
      return places === '' ? vessel : `${vessel} in ${places}`;
    case 'blender':
      return step.place.tool === 'jar' ? 'Jar blender' : 'Immersion blender';
  }
}

/** Everything that is done on a planned day, in order of its start, with names for the hands. */
export function runSheet(plan: DayPlan, soupById: ReadonlyMap<string, Soup>, station: Station): readonly RunLine[] {
  const named = new Map(nameHands(plan, station.people).map((one) => [`${one.batchId} ${one.stepId} ${String(one.startMin)}`, one.personId]));
  const thing = (id: string | null): string => station.equipment.find((one) => one.id === id)?.name ?? '';
  const timed = (startMin: number, endMin: number) => ({ startMin, endMin, start: words.clock(startMin), end: words.clock(endMin), minutes: endMin - startMin });
  const steps = plan.batches.flatMap((batch) => {
    const soup = soupOf(batch, soupById);
    return batch.steps.flatMap((planned) => {
      const step = soup?.steps.find((one) => one.id === planned.stepId);
      const goes = stretchesOf(planned);
      return goes.map(({ startMin, endMin }, go): RunLine => {
        const personId = named.get(`${batch.id} ${planned.stepId} ${String(startMin)}`) ?? null;
        const name = step?.name ?? planned.stepId;
        return {
          key: go === 0 ? name : `${name}.${String(go + 1)}`,
          ...timed(startMin, endMin),
          person: station.people.find((one) => one.id === personId)?.name ?? '',
          personId,
          batch: batch.name,
          phase: step === undefined ? '' : words.PHASE[step.phase],
          what: `${name}${goes.length === 1 ? '' : ` (${String(go + 1)} of ${String(goes.length)})`}`,
          place: placeOf(step, thing(batch.vesselId), words.list(placesOf(planned, station).map(({ name }) => name))),
          litres: batch.volumeL,
          check: step?.check ?? '',
          caution: step?.caution ?? '',
        };
      });
    });
  });
  const washes = plan.washes.map((wash): RunLine => {
    const next = plan.batches.find((batch) => batch.id === wash.beforeBatchId)?.name ?? '';
    const what = `${wash.kind === 'full' ? 'Full wash' : 'Rinse'} of ${thing(wash.unitId)} before ${next}${wash.carriesOver.length === 0 ? '' : `: it carries ${wash.carriesOver.join(', ')}`}`;
    return {
      key: what,
      ...timed(wash.startMin, wash.endMin),
      person: '',
      personId: null,
      batch: next,
      phase: words.PHASE.wash,
      what,
      place: thing(wash.unitId),
      litres: null,
      check: '',
      caution: '',
    };
  });
  return [...steps, ...washes].sort((left, right) => left.startMin - right.startMin || left.endMin - right.endMin || left.batch.localeCompare(right.batch));
}
