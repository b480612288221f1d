import type { CalendarDate, Instant, Reading } from '../quantity/index';
import type { Label } from '../food/index';
import type { CorrectiveAction } from '../safety/index';

/** What a temperature was taken for. */
export const PURPOSES = ['cool', 'hotHold', 'coldHold', 'reheat'] as const;
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
export type HoldStarted = Envelope<'hold.started/1', { readonly batchId: string; readonly placeId: string }>;
export type CoolingStarted = Envelope<'cooling.started/1', { readonly batchId: string; readonly placeId: string; readonly ambientC: number }>;
export type ColdStored = Envelope<'cold.stored/1', { readonly batchId: string }>;
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
export type CorrectiveTaken = Envelope<
  'corrective.taken/1',
  { readonly batchId: string; readonly ruleId: string; readonly action: CorrectiveAction; readonly note: string; readonly volumeL: number | null }
>;
/** A correction: the named event no longer counts, but stays in the record. */
export type EventVoided = Envelope<'event.voided/1', { readonly eventId: string; readonly reason: string }>;

export type DayEvent =
  | BatchStarted
  | StepStarted
  | StepDone
  | IngredientAdded
  | BatchFinished
  | HoldStarted
  | CoolingStarted
  | ColdStored
  | ReheatStarted
  | ReadingTaken
  | CorrectiveTaken
  | EventVoided;
