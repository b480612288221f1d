import { byId } from '../quantity/index';
import type { Instant, Reading } from '../quantity/index';
import { corrected } from '../safety/index';
import { serviceOfSoup, washKey } from './dayState';
import type { Stage, StepRecord, Entry, ReadingRecord, CoolingSegment, BatchRecord, SecondTap, DayState } from './dayState';
import type { BatchStarted, DayEvent, ReadingTakenWith, SamplesDigested } from './event';

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
  // Written out: spread into so long an object it would take ten times as long.
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
    holds: [],
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

function endHold(batch: Draft, at: Instant): void {
  const last = batch.holds.at(-1);
  if (last?.until === null) batch.holds[batch.holds.length - 1] = { ...last, until: at };
}

/** Where the batch goes at an instant; what it was held in ends. Nothing brings a discarded batch back. */
function move(batch: Draft, stage: Stage, at: Instant): void {
  if (batch.stage.kind === 'discarded') return;
  if (stage.kind !== 'holding') endHold(batch, at);
  batch.stage = stage;
}

/** Out of its kettle it stands until somebody carries it somewhere, and what is hot has to stay hot from then on. */
function stand(batch: Draft, at: Instant): void {
  if (batch.stage.kind === 'discarded') return;
  move(batch, { kind: 'finished', at }, at);
  batch.holds.push({ since: at, until: null, placeId: null });
}

/** Into a well. From another, or from where it stood, it goes on being held: what it was out of its limit before stays counted. */
function hold(batch: Draft, placeId: string, at: Instant): void {
  if (batch.stage.kind === 'discarded') return;
  const last = batch.holds.at(-1);
  if (last?.until === null) batch.holds[batch.holds.length - 1] = { ...last, placeId };
  else batch.holds.push({ since: at, until: null, placeId });
  move(batch, { kind: 'holding', since: batch.stage.kind === 'holding' ? batch.stage.since : at, placeId }, at);
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
      stand(batch, at);
      return;
    case 'batch.used/1':
      move(batch, { kind: 'used', at, intoBatchIds: event.data.intoBatchIds }, at);
      return;
    case 'hold.started/1':
      hold(batch, event.data.placeId, at);
      return;
    case 'cooling.started/1':
    case 'cooling.started/2':
      batch.coolingSegments.push(segmentOf(event));
      // Moving on to another bath or cold room goes on cooling: the clock is never set back.
      move(batch, { kind: 'cooling', since: batch.stage.kind === 'cooling' ? batch.stage.since : at }, at);
      return;
    case 'cold.stored/1':
    case 'cold.stored/2':
      batch.storedL = event.kind === 'cold.stored/2' ? event.data.volumeL : null;
      batch.storedSince = at;
      move(batch, { kind: 'stored', since: at }, at);
      return;
    case 'reheat.started/1':
      batch.reheatingSince = at;
      move(batch, { kind: 'reheating', since: at }, at);
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
      endHold(batch, at);
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
      if (action === 'discard') move(batch, { kind: 'discarded', at, ruleId }, at);
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
  return replayDay(events);
}

/**
 * Folds a day and stops after each event that counts, to look at the day as it stood then: what came later does not colour it. The state is the one that is
 * being folded, so it is only good during the look.
 */
export function replayDay(events: readonly DayEvent[], look: (event: DayEvent, state: DayState) => void = () => undefined): DayState {
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
  for (const [id, batch] of batches) day.batches[id] = batch;
  for (const event of ordered) {
    const last = (lastOf[event.by] ??= { at: event.at, batchId: null });
    last.at = event.at;
    if (isOfBatch(event)) {
      last.batchId = event.data.batchId;
      const batch = batches.get(event.data.batchId);
      if (batch === undefined) day.unread.push(event.id);
      else if (event.kind !== 'batch.started/1') applyTo(batch, event, day);
    } else applyToDay(day, event, batches);
    look(event, day);
  }
  return day;
}
