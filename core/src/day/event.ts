import type { CalendarDate, Instant, Reading } from '../quantity/index';
import type { Label } from '../food/index';
import type { CheckMethod, CoolingMethod, CorrectiveAction } from '../safety/index';

/** What a temperature was taken for. */
export const PURPOSES = ['cook', 'cool', 'hotHold', 'coldHold', 'reheat', 'timeControl'] as const;
export type Purpose = (typeof PURPOSES)[number];

/** One thing that happened, appended once and never changed. The device that saw it makes the id, so that sending it twice is harmless. */
interface Envelope<Kind extends string, Data> {
  readonly id: string;
  readonly kind: Kind;
  /** The kitchen's business day it belongs to. */
  readonly day: CalendarDate;
  readonly at: Instant;
  /** Person id, and the device it was entered on. */
  readonly by: string;
  readonly device: string;
  readonly data: Data;
}

export type BatchStarted = Envelope<
  'batch.started/1',
  {
    readonly batchId: string;
    readonly soupId: string;
    readonly soupVersion: number;
    readonly name: string;
    readonly ordinal: number;
    readonly volumeL: number;
    readonly vesselId: string | null;
  }
>;
export type StepStarted = Envelope<'step.started/1', { readonly batchId: string; readonly stepId: string }>;
export type StepDone = Envelope<'step.done/1', { readonly batchId: string; readonly stepId: string }>;
/** Why something went into the pot: as the card says, or to put it right. */
export const ADDED_FOR = ['card', 'liquid', 'salt', 'thicken', 'thin', 'swap', 'other'] as const;
/**
 * Something went in: a tick on the sheet, or more of it. `ingredientId` is the card's line; null for what the card does not have. The ledger of a batch, and
 * what its label follows.
 */
export type IngredientAdded = Envelope<
  'ingredient.added/1',
  {
    readonly batchId: string;
    readonly ingredientId: string | null;
    readonly name: string;
    /** null = by eye. */
    readonly amount: number | null;
    readonly unit: 'g' | 'mL' | 'each';
    readonly for: (typeof ADDED_FOR)[number];
    /** Of what the card does not have; null = the line's own. */
    readonly allergens: Label | null;
  }
>;
export type BatchFinished = Envelope<'batch.finished/1', { readonly batchId: string; readonly volumeOutL: number }>;
/** All of a stock or a roast has gone into what it was made for: from then on its temperature is theirs. */
export type BatchUsed = Envelope<'batch.used/1', { readonly batchId: string; readonly intoBatchIds: readonly string[] }>;
export type HoldStarted = Envelope<'hold.started/1', { readonly batchId: string; readonly placeId: string }>;
export type CoolingStarted = Envelope<'cooling.started/1', { readonly batchId: string; readonly placeId: string; readonly ambientC: number }>;
/** As before, and how: the method, and into how many pans of what depth. Each pan then has readings of its own. */
export type CoolingStartedHow = Envelope<
  'cooling.started/2',
  {
    readonly batchId: string;
    readonly placeId: string;
    readonly ambientC: number;
    /** null = nobody said. */
    readonly method: CoolingMethod | null;
    /** null = it stays in one vessel. */
    readonly pans: number | null;
    readonly depthCm: number | null;
  }
>;
/** Drinking-water ice stirred in: it cools, and it is water in the soup. */
export type IceAdded = Envelope<'ice.added/1', { readonly batchId: string; readonly massKg: number }>;
export type ColdStored = Envelope<'cold.stored/1', { readonly batchId: string }>;
/** As before, and how much of it: what is on hand the next day. */
export type ColdStoredLitres = Envelope<'cold.stored/2', { readonly batchId: string; readonly volumeL: number }>;
export type ReheatStarted = Envelope<'reheat.started/1', { readonly batchId: string }>;
export type ReadingTaken = Envelope<
  'reading.taken/1',
  {
    readonly batchId: string;
    readonly purpose: Purpose;
    readonly reading: Reading;
    readonly heldS: number | null;
    /** The pack it was judged by when it was taken: a later change of pack does not re-judge the past. */
    readonly packId: string;
    readonly packVersion: number;
  }
>;
/** As before, and with which thermometer, in which pan, by which of the kitchen's rules, and what was asked about it. */
export type ReadingTakenWith = Envelope<
  'reading.taken/2',
  {
    readonly batchId: string;
    readonly purpose: Purpose;
    /** As the display showed it. */
    readonly reading: Reading;
    readonly heldS: number | null;
    readonly packId: string;
    readonly packVersion: number;
    /** The kitchen's own count of its rules. */
    readonly rulesVersion: number;
    /** 1 = the first pan; null = the whole batch. */
    readonly pan: number | null;
    readonly thermometerId: string | null;
    /** What the thermometer showed too much at its last check, in the reading's unit: it is taken off before anything is compared. */
    readonly offset: number;
    /** What was odd about it and was asked; null = nothing was. */
    readonly doubt: string | null;
    /** Why it is entered later than it was taken; null = it is not. */
    readonly lateReason: string | null;
  }
>;
/** Why a check was not made. It stays a missed check. */
export type CheckExplained = Envelope<'check.explained/1', { readonly batchId: string; readonly dueAt: Instant; readonly reason: string }>;
/** What the person in charge decided where readings prove nothing: kept or not, and why. */
export type DecisionMade = Envelope<'decision.made/1', { readonly batchId: string; readonly ruleId: string; readonly keep: boolean; readonly reason: string }>;
/** Time instead of temperature, by a rule of the kitchen: from now on it is used or thrown away by a time. */
export type TimeControlStarted = Envelope<'timeControl.started/1', { readonly batchId: string; readonly ruleId: string }>;
export type TimeControlEnded = Envelope<'timeControl.ended/1', { readonly batchId: string }>;
/** A fridge, freezer or cold place, by its own thermometer. */
export type PlaceRead = Envelope<
  'place.read/1',
  { readonly equipmentId: string; readonly reading: Reading; readonly thermometerId: string | null; readonly offset: number; readonly rulesVersion: number; readonly note: string }
>;
export const ITEM_PURPOSES = ['receive', 'thaw'] as const;
/** What came in or is thawing: not a batch of the day. */
export type ItemRead = Envelope<
  'item.read/1',
  {
    readonly purpose: (typeof ITEM_PURPOSES)[number];
    readonly what: string;
    readonly from: string;
    readonly reading: Reading;
    readonly thermometerId: string | null;
    readonly offset: number;
    readonly rulesVersion: number;
    readonly accepted: boolean;
    readonly note: string;
  }
>;
/** A thermometer held into ice water or boiling water. `offset` and `usable` are what came of it by the rule then in force. */
export type ThermometerChecked = Envelope<
  'thermometer.checked/1',
  { readonly thermometerId: string; readonly method: CheckMethod; readonly reading: Reading; readonly offset: number; readonly usable: boolean }
>;
/** A probe that reports by itself is put into a batch, or taken out. */
export type ProbePlaced = Envelope<'probe.placed/1', { readonly thermometerId: string; readonly batchId: string; readonly purpose: Purpose }>;
export type ProbeLifted = Envelope<'probe.lifted/1', { readonly thermometerId: string }>;
/** One probe's samples of a minute, in few words. */
export interface ProbeMinute {
  readonly thermometerId: string;
  readonly unit: Reading['unit'];
  /** What it showed too much at its last check, in its own unit: taken off before anything is compared. */
  readonly offset: number;
  readonly count: number;
  readonly min: number;
  readonly max: number;
  readonly lastAt: Instant;
  readonly last: number;
}
/** What probes sent in a minute. The hash is taken over every sample of it, so that none can be changed unseen; the digest of each probe in a batch stands here. */
export type SamplesDigested = Envelope<
  'samples.digested/1',
  {
    readonly from: Instant;
    readonly to: Instant;
    /** What came after its minute was closed has a digest of its own. */
    readonly late: boolean;
    /** Whose samples it is over, and how many. */
    readonly thermometerIds: readonly string[];
    readonly count: number;
    readonly sha256: string;
    readonly rulesVersion: number;
    readonly probes: readonly ProbeMinute[];
  }
>;
/** Something on hand is thrown away: it leaves the stock. */
export type LotDiscarded = Envelope<'lot.discarded/1', { readonly lotId: string; readonly soupId: string; readonly volumeL: number; readonly reason: string }>;
/** The day's record was looked through and signed, as far as this place in the log. What is entered later opens it again. */
export type DaySigned = Envelope<'day.signed/1', { readonly upToSeq: number; readonly hash: string; readonly note: string }>;
export type CorrectiveTaken = Envelope<
  'corrective.taken/1',
  { readonly batchId: string; readonly ruleId: string; readonly action: CorrectiveAction; readonly note: string; readonly volumeL: number | null }
>;
/** It needs so much longer than planned: its clock is put forward. */
export type StepExtended = Envelope<'step.extended/1', { readonly batchId: string; readonly stepId: string; readonly byMin: number }>;
export type StepSkipped = Envelope<'step.skipped/1', { readonly batchId: string; readonly stepId: string; readonly reason: string }>;
/** What a step's clock runs from has come: it boils, it is in, the colour is right. */
export type StepClockStarted = Envelope<'step.clockStarted/1', { readonly batchId: string; readonly stepId: string }>;
/** A unit was washed between two batches. */
export type WashDone = Envelope<'wash.done/1', { readonly unitId: string; readonly kind: 'rinse' | 'full'; readonly afterBatchId: string; readonly beforeBatchId: string }>;
/** Somebody looked and stirred: the next look is due an interval later. */
export type StepLooked = Envelope<'step.looked/1', { readonly batchId: string; readonly stepId: string }>;
/** What the cook has to have seen or done before a step is begun or ended: asked each time, one tap each. */
export const GATES = ['caution', 'device', 'wholeInPot', 'irreversible', 'board'] as const;
export type GateKind = (typeof GATES)[number];
export type GateConfirmed = Envelope<'gate.confirmed/1', { readonly batchId: string; readonly stepId: string; readonly gate: GateKind }>;
/** A line of the card that does not go in this time. */
export type IngredientWaived = Envelope<'ingredient.waived/1', { readonly batchId: string; readonly ingredientId: string; readonly reason: string }>;
export const TEXTURE_RESULTS = ['thin', 'right', 'thick'] as const;
export const TASTE_RESULTS = ['flat', 'right', 'salty', 'sharp', 'burnt'] as const;
/** How it came out, and why where it went wrong. */
export type ResultNoted = Envelope<
  'result.noted/1',
  { readonly batchId: string; readonly texture: (typeof TEXTURE_RESULTS)[number] | null; readonly taste: (typeof TASTE_RESULTS)[number] | null; readonly cause: string }
>;
export type NoteMade = Envelope<'note.made/1', { readonly batchId: string | null; readonly text: string }>;
/** A thing that cannot be used for now: plans do without it until it is back. What stands in it stays. */
export type EquipmentStopped = Envelope<'equipment.stopped/1', { readonly equipmentId: string; readonly reason: string }>;
export type EquipmentResumed = Envelope<'equipment.resumed/1', { readonly equipmentId: string }>;
/** Somebody is gone during the shift; `backAt` null = nobody knows for how long. */
export type PersonLeft = Envelope<'person.left/1', { readonly personId: string; readonly backAt: Instant | null }>;
export type PersonBack = Envelope<'person.back/1', { readonly personId: string }>;
/** A clock somebody set for something that is no step. */
export type TimerSet = Envelope<'timer.set/1', { readonly name: string; readonly durationS: number; readonly batchId: string | null }>;
export type TimerCleared = Envelope<'timer.cleared/1', { readonly timerId: string }>;
/** Litres left of a batch that is being served. */
export type LevelNoted = Envelope<'level.noted/1', { readonly batchId: string; readonly leftL: number; readonly how: 'ladles' | 'eye' }>;
/** 86: there is no more of it at this service. */
export type SoupOut = Envelope<'soup.out/1', { readonly soupId: string; readonly serviceId: string }>;
export type SoupBack = Envelope<'soup.back/1', { readonly soupId: string; readonly serviceId: string }>;
export type ShiftHandedOver = Envelope<'shift.handedOver/1', { readonly toId: string; readonly note: string }>;
/** How far a device's own clock was from the server's. Its entries were put right by this much. */
export type ClockMeasured = Envelope<'clock.measured/1', { readonly offsetMs: number }>;
/** A correction: the named event no longer counts, but stays in the record. */
export type EventVoided = Envelope<'event.voided/1', { readonly eventId: string; readonly reason: string }>;

export type DayEvent =
  | BatchStarted
  | StepStarted
  | StepDone
  | IngredientAdded
  | BatchFinished
  | BatchUsed
  | HoldStarted
  | CoolingStarted
  | CoolingStartedHow
  | IceAdded
  | ColdStored
  | ColdStoredLitres
  | ReheatStarted
  | ReadingTaken
  | ReadingTakenWith
  | CheckExplained
  | DecisionMade
  | TimeControlStarted
  | TimeControlEnded
  | PlaceRead
  | ItemRead
  | ThermometerChecked
  | ProbePlaced
  | ProbeLifted
  | SamplesDigested
  | LotDiscarded
  | DaySigned
  | CorrectiveTaken
  | StepExtended
  | StepSkipped
  | StepLooked
  | StepClockStarted
  | WashDone
  | GateConfirmed
  | IngredientWaived
  | ResultNoted
  | NoteMade
  | EquipmentStopped
  | EquipmentResumed
  | PersonLeft
  | PersonBack
  | TimerSet
  | TimerCleared
  | LevelNoted
  | SoupOut
  | SoupBack
  | ShiftHandedOver
  | ClockMeasured
  | EventVoided;
