import type { Instant, Reading } from '../quantity/index';
import type { CorrectiveAction } from '../safety/index';
import type { BatchStarted, DayEvent, IngredientAdded, Purpose } from './event';

/** Where a batch is. A state that cannot be cannot be written. */
export type Stage =
  | { readonly kind: 'cooking' }
  | { readonly kind: 'finished'; readonly at: Instant }
  | { readonly kind: 'holding'; readonly since: Instant; readonly placeId: string }
  | { readonly kind: 'cooling'; readonly since: Instant }
  | { readonly kind: 'stored'; readonly since: Instant }
  | { readonly kind: 'reheating'; readonly since: Instant }
  | { readonly kind: 'discarded'; readonly at: Instant; readonly ruleId: string };

export interface StepRecord {
  readonly startedAt: Instant;
  readonly doneAt: Instant | null;
  readonly by: string;
}

export interface ReadingRecord {
  readonly eventId: string;
  readonly at: Instant;
  readonly by: string;
  readonly purpose: Purpose;
  readonly reading: Reading;
  readonly heldS: number | null;
  readonly packId: string;
  readonly packVersion: number;
}

export interface CorrectiveRecord {
  readonly eventId: string;
  readonly at: Instant;
  readonly by: string;
  readonly ruleId: string;
  readonly action: CorrectiveAction;
  readonly note: string;
  readonly volumeL: number | null;
}

/** Something that went into the pot, as it was entered. */
export type AdditionRecord = Omit<IngredientAdded['data'], 'batchId'> & { readonly eventId: string; readonly at: Instant; readonly by: string };

/** One way of cooling, from when it began: a new place is a new segment with its own ambient. */
export interface CoolingSegment {
  readonly since: Instant;
  readonly placeId: string;
  readonly ambientC: number;
}

export interface BatchRecord {
  readonly batchId: string;
  readonly soupId: string;
  readonly soupVersion: number;
  readonly name: string;
  readonly ordinal: number;
  readonly volumeL: number;
  readonly vesselId: string | null;
  readonly startedAt: Instant;
  readonly startedBy: string;
  readonly steps: Readonly<Record<string, StepRecord>>;
  readonly additions: readonly AdditionRecord[];
  readonly finishedAt: Instant | null;
  readonly volumeOutL: number | null;
  readonly stage: Stage;
  readonly coolingSegments: readonly CoolingSegment[];
  readonly holdingSince: Instant | null;
  readonly storedSince: Instant | null;
  readonly reheatingSince: Instant | null;
  readonly readings: readonly ReadingRecord[];
  readonly correctives: readonly CorrectiveRecord[];
}

export interface DayState {
  readonly batches: Readonly<Record<string, BatchRecord>>;
  /** Events that name a batch nobody started, with their ids: kept and shown, never guessed at. */
  readonly unread: readonly string[];
}

type Draft = { -readonly [Key in keyof BatchRecord]: BatchRecord[Key] };

function begin(event: BatchStarted): Draft {
  return {
    ...event.data,
    startedAt: event.at,
    startedBy: event.by,
    steps: {},
    additions: [],
    finishedAt: null,
    volumeOutL: null,
    stage: { kind: 'cooking' },
    coolingSegments: [],
    holdingSince: null,
    storedSince: null,
    reheatingSince: null,
    readings: [],
    correctives: [],
  };
}

function applyTo(batch: Draft, event: Exclude<DayEvent, { kind: 'batch.started/1' | 'event.voided/1' }>): void {
  const { id: eventId, at, by } = event;
  const move = (stage: Stage): void => {
    if (batch.stage.kind !== 'discarded') batch.stage = stage;
  };
  switch (event.kind) {
    case 'step.started/1':
      // The first tap counts: a second phone starting the same step does not move its clock.
      batch.steps = { [event.data.stepId]: { startedAt: at, doneAt: null, by }, ...batch.steps };
      return;
    case 'step.done/1': {
      const known = batch.steps[event.data.stepId];
      if (known?.doneAt === undefined || known.doneAt === null) batch.steps = { ...batch.steps, [event.data.stepId]: { startedAt: known?.startedAt ?? at, doneAt: at, by } };
      return;
    }
    case 'ingredient.added/1': {
      const { batchId: _batch, ...added } = event.data;
      batch.additions = [...batch.additions, { ...added, eventId, at, by }];
      return;
    }
    case 'batch.finished/1':
      batch.finishedAt ??= at;
      batch.volumeOutL ??= event.data.volumeOutL;
      move({ kind: 'finished', at });
      return;
    case 'hold.started/1':
      batch.holdingSince = at;
      move({ kind: 'holding', since: at, placeId: event.data.placeId });
      return;
    case 'cooling.started/1':
      batch.coolingSegments = [...batch.coolingSegments, { since: at, placeId: event.data.placeId, ambientC: event.data.ambientC }];
      // Moving on to another bath or cold room goes on cooling: the clock is never set back.
      move({ kind: 'cooling', since: batch.stage.kind === 'cooling' ? batch.stage.since : at });
      return;
    case 'cold.stored/1':
      batch.storedSince = at;
      move({ kind: 'stored', since: at });
      return;
    case 'reheat.started/1':
      batch.reheatingSince = at;
      move({ kind: 'reheating', since: at });
      return;
    case 'reading.taken/1': {
      const { purpose, reading, heldS, packId, packVersion } = event.data;
      batch.readings = [...batch.readings, { eventId, at, by, purpose, reading, heldS, packId, packVersion }];
      return;
    }
    case 'corrective.taken/1': {
      const { ruleId, action, note, volumeL } = event.data;
      batch.correctives = [...batch.correctives, { eventId, at, by, ruleId, action, note, volumeL }];
      if (action === 'discard') move({ kind: 'discarded', at, ruleId });
      return;
    }
  }
}

/**
 * The day's state from its events, in whatever order and however often they arrive: events are taken once each, in the order they
 * happened; a voided one does not count. Pure and total.
 */
export function foldDay(events: readonly DayEvent[]): DayState {
  const unique = new Map(events.map((event) => [event.id, event]));
  const voided = new Set([...unique.values()].flatMap((event) => (event.kind === 'event.voided/1' ? [event.data.eventId] : [])));
  const inOrder = [...unique.values()].filter((event) => !voided.has(event.id)).sort((left, right) => left.at - right.at);
  const batches = new Map<string, Draft>();
  for (const event of inOrder) if (event.kind === 'batch.started/1' && !batches.has(event.data.batchId)) batches.set(event.data.batchId, begin(event));
  const unread: string[] = [];
  for (const event of inOrder) {
    if (event.kind === 'batch.started/1' || event.kind === 'event.voided/1') continue;
    const batch = batches.get(event.data.batchId);
    if (batch === undefined) unread.push(event.id);
    else applyTo(batch, event);
  }
  return { batches: Object.fromEntries(batches), unread };
}
