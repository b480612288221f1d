import type { Instant, Reading } from '../quantity/index';
import type { CoolingMethod, CorrectiveAction } from '../safety/index';
import type { GateKind, IngredientAdded, ItemRead, LevelNoted, Purpose, ResultNoted, ThermometerChecked } from './event';

/** Where a batch is. A state that cannot be cannot be written. */
export type Stage =
  | { readonly kind: 'cooking' }
  | { readonly kind: 'finished'; readonly at: Instant }
  | { readonly kind: 'used'; readonly at: Instant; readonly intoBatchIds: readonly string[] }
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

/** A stretch in which it has to stay hot: from when it is out of its kettle, in whatever it stands. Carried into a well, or from one to another, it goes on. */
export interface Hold {
  readonly since: Instant;
  /** When it went on to something else; null = it is held still. */
  readonly until: Instant | null;
  /** The well; null = it stood, and nothing kept it hot. */
  readonly placeId: string | null;
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
  readonly holds: readonly Hold[];
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
