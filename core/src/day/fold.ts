import { byId } from '../quantity/index';
import type { Instant, Reading } from '../quantity/index';
import { corrected } from '../safety/index';
import type { CoolingMethod, CorrectiveAction } from '../safety/index';
import type { BatchStarted, DayEvent, GateKind, IngredientAdded, ItemRead, LevelNoted, Purpose, ReadingTakenWith, ResultNoted, SamplesDigested, ThermometerChecked } from './event';

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
  /** Minutes it was given beyond its plan. */
  readonly extendedMin: number;
  /** The last look or stir. */
  readonly lookedAt: Instant | null;
  /** When what its clock runs from came, as it was tapped. */
  readonly clockAt: Instant | null;
  /** Why it was left out; null when it was not. */
  readonly skipped: string | null;
  /** What was seen or done before it, as it was asked. */
  readonly confirmed: readonly GateKind[];
}

/** Who entered a thing, when, and under which id it can be corrected. */
export interface Entry {
  readonly eventId: string;
  readonly at: Instant;
  readonly by: string;
}

export interface ReadingRecord extends Entry {
  readonly purpose: Purpose;
  /** As it counts: what the thermometer showed, less its offset. */
  readonly reading: Reading;
  readonly shown: Reading;
  readonly offset: number;
  readonly heldS: number | null;
  readonly packId: string;
  readonly packVersion: number;
  /** null = of before the kitchen's rules were counted. */
  readonly rulesVersion: number | null;
  readonly pan: number | null;
  readonly thermometerId: string | null;
  readonly doubt: string | null;
  readonly lateReason: string | null;
  /** Taken by somebody, or sent by a probe that stays in. */
  readonly source: 'hand' | 'probe';
}

/** What the person in charge decided. */
export type DecisionRecord = Entry & { readonly ruleId: string; readonly keep: boolean; readonly reason: string };
export type ExplanationRecord = Entry & { readonly dueAt: Instant; readonly reason: string };

/** A reading that is of no batch: a fridge, a delivery, a thing that thaws. */
export interface PlaceReadingRecord extends Entry {
  readonly equipmentId: string;
  readonly reading: Reading;
  readonly note: string;
}
export type ItemRecord = Entry & Pick<ItemRead['data'], 'purpose' | 'what' | 'from' | 'accepted' | 'note'> & { readonly reading: Reading };
export type CheckRecord = Entry & ThermometerChecked['data'];

export interface CorrectiveRecord extends Entry {
  readonly ruleId: string;
  readonly action: CorrectiveAction;
  readonly note: string;
  readonly volumeL: number | null;
}

/** Something that went into the pot, as it was entered. */
export type AdditionRecord = Omit<IngredientAdded['data'], 'batchId'> & Entry;
export type WaivedRecord = Entry & { readonly ingredientId: string; readonly reason: string };
export type ResultRecord = Omit<ResultNoted['data'], 'batchId'> & Entry;
export type LevelRecord = Omit<LevelNoted['data'], 'batchId'> & Entry;

/** One way of cooling, from when it began: a new place is a new segment with its own ambient. */
export interface CoolingSegment {
  readonly since: Instant;
  readonly placeId: string;
  readonly ambientC: number;
  /** null = nobody said. */
  readonly method: CoolingMethod | null;
  readonly pans: number | null;
  readonly depthCm: number | null;
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
  readonly waived: readonly WaivedRecord[];
  readonly results: readonly ResultRecord[];
  readonly levels: readonly LevelRecord[];
  readonly finishedAt: Instant | null;
  readonly volumeOutL: number | null;
  readonly stage: Stage;
  readonly coolingSegments: readonly CoolingSegment[];
  readonly holdingSince: Instant | null;
  readonly storedSince: Instant | null;
  /** Litres that went into the cold; null = none did, or nobody said. */
  readonly storedL: number | null;
  readonly reheatingSince: Instant | null;
  readonly readings: readonly ReadingRecord[];
  readonly correctives: readonly CorrectiveRecord[];
  readonly decisions: readonly DecisionRecord[];
  readonly explained: readonly ExplanationRecord[];
  /** Ice that was stirred in: the curve has a step there. */
  readonly iced: readonly (Entry & { readonly massKg: number })[];
  /** Time instead of temperature, since when and by which rule; null = by temperature. */
  readonly timeControl: { readonly since: Instant; readonly ruleId: string; readonly endedAt: Instant | null } | null;
}

/** A clock somebody set. */
export interface TimerRecord extends Entry {
  readonly name: string;
  readonly endsAt: Instant;
  readonly batchId: string | null;
}

/** Two people tapped the same: the first counts, and the second is told. */
export interface SecondTap extends Entry {
  readonly what: 'batch' | 'started' | 'done';
  readonly batchId: string;
  readonly stepId: string | null;
  readonly firstBy: string;
  readonly firstAt: Instant;
}

export interface DayState {
  readonly batches: Readonly<Record<string, BatchRecord>>;
  /** Events that name a batch nobody started, with their ids: kept and shown, never guessed at. */
  readonly unread: readonly string[];
  /** Things that cannot be used for now, by equipment id. */
  readonly stopped: Readonly<Record<string, Entry & { readonly reason: string }>>;
  /** People who are gone for now, by person id. */
  readonly away: Readonly<Record<string, Entry & { readonly backAt: Instant | null }>>;
  /** When anything or anybody last went out or came back; null = not yet. */
  readonly stationSince: Instant | null;
  /** Washes that were done, by `washKey`. */
  readonly washed: Readonly<Record<string, Entry & { readonly kind: 'rinse' | 'full' }>>;
  readonly timers: readonly TimerRecord[];
  readonly notes: readonly (Entry & { readonly batchId: string | null; readonly text: string })[];
  /** What is 86ed, by `serviceOfSoup`. */
  readonly out: Readonly<Record<string, Entry>>;
  readonly handovers: readonly (Entry & { readonly toId: string; readonly note: string })[];
  readonly seconds: readonly SecondTap[];
  /** Each person's last entry: who is where. */
  readonly lastOf: Readonly<Record<string, { readonly at: Instant; readonly batchId: string | null }>>;
  /** How far each device's own clock was out when it was last measured. Milliseconds. */
  readonly clockOffsetMs: Readonly<Record<string, number>>;
  readonly placeReadings: readonly PlaceReadingRecord[];
  readonly items: readonly ItemRecord[];
  readonly checks: readonly CheckRecord[];
  /** Probes that stand in a batch now, by thermometer id. */
  readonly placed: Readonly<Record<string, Entry & { readonly batchId: string; readonly purpose: Purpose }>>;
  /** The last sample each probe sent, as far as digests tell. */
  readonly lastSampleAt: Readonly<Record<string, Instant>>;
  readonly discardedLots: readonly (Entry & { readonly lotId: string; readonly soupId: string; readonly volumeL: number; readonly reason: string })[];
  readonly signatures: readonly (Entry & { readonly upToSeq: number; readonly hash: string; readonly note: string })[];
}

/** The key a soup is 86ed under. */
export function serviceOfSoup(soupId: string, serviceId: string): string {
  return `${soupId} ${serviceId}`;
}

/** The key of a wash: of a unit, between two batches. */
export function washKey(wash: { readonly unitId: string; readonly afterBatchId: string; readonly beforeBatchId: string }): string {
  return `${wash.unitId} ${wash.afterBatchId} ${wash.beforeBatchId}`;
}

type Open<Type> = { -readonly [Key in keyof Type]: Type[Key] extends readonly (infer One)[] ? One[] : Type[Key] };
type Draft = Omit<Open<BatchRecord>, 'steps'> & { readonly steps: Record<string, OpenStep> };
type OpenStep = Open<StepRecord>;
type Day = {
  -readonly [Key in keyof DayState]: DayState[Key] extends readonly (infer One)[]
    ? One[]
    : DayState[Key] extends Readonly<Record<string, infer One>>
      ? Record<string, One>
      : DayState[Key];
};
type BatchEvent = Extract<DayEvent, { data: { batchId: string } }>;

function without<Value>(record: Record<string, Value>, key: string): Record<string, Value> {
  const { [key]: _gone, ...rest } = record;
  return rest;
}

function begin(event: BatchStarted): Draft {
  const { batchId, soupId, soupVersion, name, ordinal, volumeL, vesselId } = event.data;
  // Written out: spread into so long an object it would take ten times as long, and a record folds a batch once for every reading.
  return {
    batchId,
    soupId,
    soupVersion,
    name,
    ordinal,
    volumeL,
    vesselId,
    startedAt: event.at,
    startedBy: event.by,
    steps: {},
    additions: [],
    waived: [],
    results: [],
    levels: [],
    finishedAt: null,
    volumeOutL: null,
    stage: { kind: 'cooking' },
    coolingSegments: [],
    holdingSince: null,
    storedSince: null,
    storedL: null,
    reheatingSince: null,
    readings: [],
    correctives: [],
    decisions: [],
    explained: [],
    iced: [],
    timeControl: null,
  };
}

/** The record of a step, begun now unless it has begun already: one ticked done without a start began when it was done. */
function stepOf(batch: Draft, stepId: string, { at, by }: DayEvent): OpenStep {
  return (batch.steps[stepId] ??= { startedAt: at, doneAt: null, by, extendedMin: 0, lookedAt: null, clockAt: null, skipped: null, confirmed: [] });
}

/** Nothing brings a discarded batch back. */
function move(batch: Draft, stage: Stage): void {
  if (batch.stage.kind !== 'discarded') batch.stage = stage;
}

function segmentOf(event: Extract<DayEvent, { kind: 'cooling.started/1' | 'cooling.started/2' }>): CoolingSegment {
  const { placeId, ambientC } = event.data;
  const how = event.kind === 'cooling.started/2' ? event.data : { method: null, pans: null, depthCm: null };
  return { since: event.at, placeId, ambientC, method: how.method, pans: how.pans, depthCm: how.depthCm };
}

/** A reading as it counts: the value less what its thermometer shows too much. The text stays what was typed. */
function counted(shown: Reading, offset: number): Reading {
  return offset === 0 ? shown : { ...shown, value: corrected(shown.value, offset) };
}

function readingOf(event: ReadingTakenWith): ReadingRecord {
  const { batchId: _batch, reading: shown, ...rest } = event.data;
  return { eventId: event.id, at: event.at, by: event.by, ...rest, shown, reading: counted(shown, rest.offset), source: 'hand' };
}

/** What placed probes sent in a minute counts as a reading each: the last sample, when it was taken. Of probes that were taken out meanwhile nothing counts. */
function applyDigest(day: Day, batches: ReadonlyMap<string, Draft>, event: SamplesDigested): void {
  for (const probe of event.data.probes) {
    day.lastSampleAt[probe.thermometerId] = Math.max(day.lastSampleAt[probe.thermometerId] ?? 0, probe.lastAt);
    const placed = day.placed[probe.thermometerId];
    const batch = placed === undefined ? undefined : batches.get(placed.batchId);
    if (placed === undefined || batch === undefined || probe.lastAt < placed.at) continue;
    const shown: Reading = { value: probe.last, unit: probe.unit, rawText: String(probe.last) };
    batch.readings.push({
      eventId: event.id,
      at: probe.lastAt,
      by: placed.by,
      purpose: placed.purpose,
      reading: counted(shown, probe.offset),
      shown,
      offset: probe.offset,
      heldS: null,
      packId: '',
      packVersion: 0,
      rulesVersion: event.data.rulesVersion,
      pan: null,
      thermometerId: probe.thermometerId,
      doubt: null,
      lateReason: null,
      source: 'probe',
    });
  }
}

function second(day: Day, event: BatchEvent, what: SecondTap['what'], stepId: string | null, firstBy: string, firstAt: Instant): void {
  const { id: eventId, at, by } = event;
  if (firstBy !== by) day.seconds.push({ eventId, at, by, what, batchId: event.data.batchId, stepId, firstBy, firstAt });
}

function applyTo(batch: Draft, event: Exclude<BatchEvent, BatchStarted>, day: Day): void {
  const { id: eventId, at, by } = event;
  switch (event.kind) {
    case 'step.started/1': {
      // The first tap counts: a second phone starting the same step does not move its clock.
      const known = batch.steps[event.data.stepId];
      if (known === undefined) stepOf(batch, event.data.stepId, event);
      else second(day, event, 'started', event.data.stepId, known.by, known.startedAt);
      return;
    }
    case 'step.done/1':
    case 'step.skipped/1': {
      const step = stepOf(batch, event.data.stepId, event);
      if (step.doneAt !== null) {
        second(day, event, 'done', event.data.stepId, step.by, step.doneAt);
        return;
      }
      step.doneAt = at;
      step.by = by;
      if (event.kind === 'step.skipped/1') step.skipped = event.data.reason;
      return;
    }
    case 'step.extended/1':
      stepOf(batch, event.data.stepId, event).extendedMin += event.data.byMin;
      return;
    case 'step.clockStarted/1':
      stepOf(batch, event.data.stepId, event).clockAt ??= at;
      return;
    case 'step.looked/1':
      stepOf(batch, event.data.stepId, event).lookedAt = at;
      return;
    case 'gate.confirmed/1':
      // Asked before a step is begun: it is remembered with the start that follows at once.
      stepOf(batch, event.data.stepId, event).confirmed.push(event.data.gate);
      return;
    case 'ingredient.added/1': {
      const { batchId: _batch, ...added } = event.data;
      batch.additions.push({ ...added, eventId, at, by });
      return;
    }
    case 'ingredient.waived/1':
      batch.waived.push({ eventId, at, by, ingredientId: event.data.ingredientId, reason: event.data.reason });
      return;
    case 'result.noted/1': {
      const { texture, taste, cause } = event.data;
      batch.results.push({ eventId, at, by, texture, taste, cause });
      return;
    }
    case 'level.noted/1':
      batch.levels.push({ eventId, at, by, leftL: event.data.leftL, how: event.data.how });
      return;
    case 'batch.finished/1':
      batch.finishedAt ??= at;
      batch.volumeOutL ??= event.data.volumeOutL;
      move(batch, { kind: 'finished', at });
      return;
    case 'hold.started/1':
      batch.holdingSince = at;
      move(batch, { kind: 'holding', since: at, placeId: event.data.placeId });
      return;
    case 'cooling.started/1':
    case 'cooling.started/2':
      batch.coolingSegments.push(segmentOf(event));
      // Moving on to another bath or cold room goes on cooling: the clock is never set back.
      move(batch, { kind: 'cooling', since: batch.stage.kind === 'cooling' ? batch.stage.since : at });
      return;
    case 'cold.stored/1':
    case 'cold.stored/2':
      batch.storedL = event.kind === 'cold.stored/2' ? event.data.volumeL : null;
      batch.storedSince = at;
      move(batch, { kind: 'stored', since: at });
      return;
    case 'reheat.started/1':
      batch.reheatingSince = at;
      move(batch, { kind: 'reheating', since: at });
      return;
    case 'reading.taken/1': {
      const { purpose, reading, heldS, packId, packVersion } = event.data;
      const plain = { offset: 0, rulesVersion: null, pan: null, thermometerId: null, doubt: null, lateReason: null };
      batch.readings.push({ eventId, at, by, purpose, reading, shown: reading, heldS, packId, packVersion, ...plain, source: 'hand' });
      return;
    }
    case 'reading.taken/2':
      batch.readings.push(readingOf(event));
      return;
    case 'check.explained/1':
      batch.explained.push({ eventId, at, by, dueAt: event.data.dueAt, reason: event.data.reason });
      return;
    case 'decision.made/1': {
      const { ruleId, keep, reason } = event.data;
      batch.decisions.push({ eventId, at, by, ruleId, keep, reason });
      return;
    }
    case 'ice.added/1':
      batch.iced.push({ eventId, at, by, massKg: event.data.massKg });
      return;
    case 'timeControl.started/1':
      batch.timeControl ??= { since: at, ruleId: event.data.ruleId, endedAt: null };
      return;
    case 'timeControl.ended/1':
      if (batch.timeControl !== null) batch.timeControl = { ...batch.timeControl, endedAt: batch.timeControl.endedAt ?? at };
      return;
    case 'probe.placed/1':
      day.placed[event.data.thermometerId] = { eventId, at, by, batchId: event.data.batchId, purpose: event.data.purpose };
      return;
    case 'corrective.taken/1': {
      const { ruleId, action, note, volumeL } = event.data;
      batch.correctives.push({ eventId, at, by, ruleId, action, note, volumeL });
      if (action === 'discard') move(batch, { kind: 'discarded', at, ruleId });
      return;
    }
  }
}

/** What happened to the station rather than to a batch. */
function applyToDay(day: Day, event: Exclude<DayEvent, BatchEvent>, batches: ReadonlyMap<string, Draft>): void {
  const { id: eventId, at, by } = event;
  const entry: Entry = { eventId, at, by };
  switch (event.kind) {
    case 'equipment.stopped/1':
      day.stationSince = at;
      day.stopped[event.data.equipmentId] = { ...entry, reason: event.data.reason };
      return;
    case 'equipment.resumed/1':
      day.stationSince = at;
      day.stopped = without(day.stopped, event.data.equipmentId);
      return;
    case 'person.left/1':
      day.stationSince = at;
      day.away[event.data.personId] = { ...entry, backAt: event.data.backAt };
      return;
    case 'person.back/1':
      day.stationSince = at;
      day.away = without(day.away, event.data.personId);
      return;
    case 'wash.done/1':
      day.washed[washKey(event.data)] ??= { ...entry, kind: event.data.kind };
      return;
    case 'timer.set/1': {
      const { name, durationS, batchId } = event.data;
      day.timers.push({ ...entry, name, endsAt: at + durationS * 1000, batchId });
      return;
    }
    case 'timer.cleared/1':
      day.timers = day.timers.filter((timer) => timer.eventId !== event.data.timerId);
      return;
    case 'note.made/1':
      day.notes.push({ ...entry, batchId: event.data.batchId, text: event.data.text });
      return;
    case 'soup.out/1':
      day.out[serviceOfSoup(event.data.soupId, event.data.serviceId)] ??= entry;
      return;
    case 'soup.back/1':
      day.out = without(day.out, serviceOfSoup(event.data.soupId, event.data.serviceId));
      return;
    case 'shift.handedOver/1':
      day.handovers.push({ ...entry, toId: event.data.toId, note: event.data.note });
      return;
    case 'clock.measured/1':
      day.clockOffsetMs[event.device] = event.data.offsetMs;
      return;
    case 'place.read/1': {
      const { equipmentId, reading, offset, note } = event.data;
      day.placeReadings.push({ ...entry, equipmentId, reading: counted(reading, offset), note });
      return;
    }
    case 'item.read/1': {
      const { purpose, what, from, reading, offset, accepted, note } = event.data;
      day.items.push({ ...entry, purpose, what, from, reading: counted(reading, offset), accepted, note });
      return;
    }
    case 'thermometer.checked/1':
      day.checks.push({ ...entry, ...event.data });
      return;
    case 'probe.lifted/1':
      day.placed = without(day.placed, event.data.thermometerId);
      return;
    case 'samples.digested/1':
      applyDigest(day, batches, event);
      return;
    case 'lot.discarded/1':
      day.discardedLots.push({ ...entry, ...event.data });
      return;
    case 'day.signed/1':
      day.signatures.push({ ...entry, ...event.data });
      return;
    case 'event.voided/1':
      return;
  }
}

function isOfBatch(event: DayEvent): event is BatchEvent {
  // A note and a timer may name a batch; they are the day's all the same.
  return 'batchId' in event.data && event.kind !== 'note.made/1' && event.kind !== 'timer.set/1';
}

/** By when they happened; what happened in the same millisecond in the order of its ids, so that every device agrees. */
function inOrder(events: readonly DayEvent[]): readonly DayEvent[] {
  const seen = new Set<string>();
  const voided = new Set<string>();
  const unique: DayEvent[] = [];
  for (const event of events) {
    if (seen.has(event.id)) continue;
    seen.add(event.id);
    unique.push(event);
    if (event.kind === 'event.voided/1') voided.add(event.data.eventId);
  }
  const counted = voided.size === 0 ? unique : unique.filter((event) => !voided.has(event.id));
  return counted.sort((left, right) => left.at - right.at || byId(left.id, right.id));
}

/**
 * The day's state from its events, in whatever order and however often they arrive: events are taken once each, in the order they
 * happened; a voided one does not count. Pure and total.
 */
export function foldDay(events: readonly DayEvent[]): DayState {
  const ordered = inOrder(events);
  const day: Day = {
    batches: {},
    unread: [],
    stopped: {},
    away: {},
    stationSince: null,
    washed: {},
    timers: [],
    notes: [],
    out: {},
    handovers: [],
    seconds: [],
    lastOf: {},
    clockOffsetMs: {},
    placeReadings: [],
    items: [],
    checks: [],
    placed: {},
    lastSampleAt: {},
    discardedLots: [],
    signatures: [],
  };
  const lastOf: Record<string, { at: Instant; batchId: string | null }> = day.lastOf;
  const batches = new Map<string, Draft>();
  // A step may reach us with an earlier clock than the start of its batch: batches first.
  for (const event of ordered) {
    if (event.kind !== 'batch.started/1') continue;
    const first = batches.get(event.data.batchId);
    if (first === undefined) batches.set(event.data.batchId, begin(event));
    else second(day, event, 'batch', null, first.startedBy, first.startedAt);
  }
  for (const event of ordered) {
    const last = (lastOf[event.by] ??= { at: event.at, batchId: null });
    last.at = event.at;
    if (isOfBatch(event)) last.batchId = event.data.batchId;
    else {
      applyToDay(day, event, batches);
      continue;
    }
    if (event.kind === 'batch.started/1') continue;
    const batch = batches.get(event.data.batchId);
    if (batch === undefined) day.unread.push(event.id);
    else applyTo(batch, event, day);
  }
  for (const [id, batch] of batches) day.batches[id] = batch;
  return day;
}
