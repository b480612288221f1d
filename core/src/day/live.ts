import { minutesBetween } from '../quantity/index';
import type { Instant } from '../quantity/index';
import type { Station } from '../batch/index';
import type { StartedBatch } from '../plan/index';
import type { DayState } from './dayState';

/** The day as it really stands, in the planner's terms. */

/** The batches begun, with real times in minutes after the day's midnight. */
export function startedBatches(day: DayState, midnight: Instant): readonly StartedBatch[] {
  const minute = (at: Instant): number => Math.floor(minutesBetween(midnight, at));
  return Object.values(day.batches).map((batch) => ({
    batchId: batch.batchId,
    soupId: batch.soupId,
    soupVersion: batch.soupVersion,
    ordinal: batch.ordinal,
    volumeL: batch.volumeL,
    vesselId: batch.vesselId,
    steps: Object.entries(batch.steps).map(([stepId, record]) => ({
      stepId,
      startMin: minute(record.startedAt),
      endMin: record.doneAt === null ? null : Math.max(minute(record.startedAt), minute(record.doneAt)),
      ...(record.extendedMin > 0 ? { extendedMin: record.extendedMin } : {}),
    })),
    state: batch.stage.kind === 'discarded' ? 'discarded' : batch.finishedAt === null ? 'running' : 'finished',
  }));
}

/** The station without what cannot be used for now, and without whoever is gone for as long as that. */
export function liveStation(station: Station, day: DayState, midnight: Instant): Station {
  const minute = (at: Instant): number => Math.floor(minutesBetween(midnight, at));
  if (Object.keys(day.stopped).length === 0 && Object.keys(day.away).length === 0) return station;
  return {
    ...station,
    equipment: station.equipment.map((thing) => (day.stopped[thing.id] === undefined ? thing : { ...thing, inUse: false })),
    people: station.people.map((person) => {
      const gone = day.away[person.id];
      if (gone === undefined) return person;
      const fromMin = minute(gone.at);
      // Whoever is gone for good is not the one who stays longer when somebody has to.
      if (gone.backAt === null) return { ...person, shift: { ...person.shift, toMin: Math.min(person.shift.toMin, Math.max(person.shift.fromMin, fromMin)) } };
      return { ...person, away: [{ fromMin, toMin: Math.ceil(minutesBetween(midnight, gone.backAt)) }] };
    }),
  };
}
