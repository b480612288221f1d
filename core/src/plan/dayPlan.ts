import type { CalendarDate } from '../quantity/index';
import type { Allergen } from '../food/index';
import type { Need, Par } from '../par/index';
import type { Lot } from '../lot/index';
import type { ComponentDemand, Soup } from '../soup/index';
import type { Station } from '../batch/index';
import type { Blocker, Objective, PlacedStep, ResourceUse } from '../sequence/index';

/** A step that has begun; `extendedMin` is what it was given beyond its plan. */
export interface StartedStep {
  readonly stepId: string;
  readonly startMin: number;
  readonly endMin: number | null;
  readonly extendedMin?: number | undefined;
}

/** A batch somebody has begun: its vessel, litres and the times its steps really had. Minutes after the day's local midnight. */
export interface StartedBatch {
  readonly batchId: string;
  readonly soupId: string;
  readonly soupVersion: number;
  readonly ordinal: number;
  readonly volumeL: number;
  readonly vesselId: string | null;
  readonly steps: readonly StartedStep[];
  readonly state: 'running' | 'finished' | 'discarded';
}

export interface DayInput {
  readonly date: CalendarDate;
  /** The present, in minutes after the day's midnight: nothing new is planned before it. Negative on the evening before. */
  readonly nowMin: number;
  readonly soups: readonly Soup[];
  /** Versions that batches begun today were made from, where the book has a newer one by now: a batch keeps its own. */
  readonly earlierSoups?: readonly Soup[] | undefined;
  readonly station: Station;
  readonly pars: readonly Par[];
  readonly lots: readonly Lot[];
  readonly started: readonly StartedBatch[];
  readonly dateMarkLastDay: number;
  /** What the lead has put somewhere by hand. */
  readonly pins?: readonly Pin[] | undefined;
  /** Soups the lead wants in more batches than the fewest. */
  readonly splits?: readonly Split[] | undefined;
  /** The plan people work by: minutes moved against it count. */
  readonly agreed?: DayPlan | null | undefined;
}

/** A step that somebody wants to begin at a minute, in a vessel if it is to be a certain one. */
export interface Pin {
  readonly batchId: string;
  readonly stepId: string;
  readonly startMin: number;
  readonly vesselId: string | null;
}

/** How many batches somebody wants a soup, or a component, cooked in. */
export interface Split {
  readonly soupId: string;
  readonly batches: number;
}

export interface PlannedStep extends PlacedStep {
  readonly uses: readonly ResourceUse[];
  readonly frozen: boolean;
  /** When somebody is at it, where it is put down and taken up again; left out = from its start to its end. */
  readonly parts?: readonly { readonly startMin: number; readonly endMin: number }[] | undefined;
  /** Minutes it stood before this step although the one before was done, and who or what was not free: a resource, a unit or a batch. */
  readonly waitedMin: number;
  readonly waitedFor: string | null;
}

export interface PlannedBatch {
  readonly id: string;
  /** Soup and ordinal: two batches of one soup need names. */
  readonly name: string;
  readonly soupId: string;
  readonly soupVersion: number;
  readonly ordinal: number;
  readonly volumeL: number;
  readonly vesselId: string | null;
  readonly serviceId: string | null;
  readonly readyByMin: number | null;
  /** Room it is to have before that, for steps that take longer than planned. */
  readonly bufferMin: number;
  readonly readyMin: number;
  readonly lateMin: number;
  readonly allergens: readonly Allergen[];
  readonly steps: readonly PlannedStep[];
  readonly state: 'planned' | 'running' | 'finished';
}

/** A wash of a kettle or a blender between two batches. */
export interface Wash {
  readonly unitId: string;
  readonly kind: 'rinse' | 'full';
  readonly startMin: number;
  readonly endMin: number;
  readonly afterBatchId: string;
  readonly beforeBatchId: string;
  readonly carriesOver: readonly Allergen[];
}

/** What a step asks for and a station may not have in use. */
export type Lack = 'vessel' | 'oven' | 'jar' | 'immersion' | 'cooling';

/** What a plan has to tell: a code and its facts. The sentences are in contract/words. */
export type PlanFinding =
  | { readonly code: 'batch.noVessel'; readonly soupId: string; readonly needL: number }
  | { readonly code: 'batch.tooMany'; readonly soupId: string; readonly needL: number; readonly batches: number; readonly largestL: number }
  | { readonly code: 'batch.surplus'; readonly soupId: string; readonly surplusL: number }
  | { readonly code: 'station.lacks'; readonly soupId: string; readonly stepId: string; readonly lacks: Lack }
  /** Done with the other blender than its card asks for. */
  | {
      readonly code: 'station.instead';
      readonly batchId: string;
      readonly soupId: string;
      readonly stepId: string;
      readonly lacks: 'jar' | 'immersion';
      readonly instead: 'jar' | 'immersion';
    }
  /** More hot soups at one service than wells in use. */
  | { readonly code: 'station.wells'; readonly serviceId: string; readonly soups: number; readonly wells: number }
  /** Nobody comes in, or nobody is there any more: that is why batches find no place. */
  | { readonly code: 'station.nobody' }
  | { readonly code: 'plan.unplaced'; readonly batchId: string }
  /** A stock or roast for batches of which none found a place. */
  | { readonly code: 'plan.leftOut'; readonly batchId: string }
  /** What stands in a kettle is not left alone: somebody stays. */
  | { readonly code: 'plan.overtime'; readonly batchIds: readonly string[]; readonly shiftEndMin: number; readonly untilMin: number }
  | {
      readonly code: 'plan.pinDropped';
      readonly batchId: string;
      readonly stepId: string;
      readonly startMin: number;
      readonly soonestMin: number | null;
      readonly latestMin: number | null;
    }
  | { readonly code: 'plan.late'; readonly batchId: string; readonly lateMin: number; readonly waitedFor: string | null; readonly pinned: boolean }
  | { readonly code: 'lot.pastDate'; readonly soupId: string; readonly volumeL: number; readonly byDays: number }
  | { readonly code: 'lot.frozen'; readonly soupId: string; readonly volumeL: number };

export interface DayPlan {
  readonly date: CalendarDate;
  readonly needs: readonly Need[];
  readonly components: readonly (ComponentDemand & { readonly onHandL: number; readonly needL: number })[];
  readonly batches: readonly PlannedBatch[];
  readonly washes: readonly Wash[];
  readonly findings: readonly PlanFinding[];
  readonly pins: readonly Pin[];
  readonly splits: readonly Split[];
  /** The chance it leaves room for; null = on the dot. */
  readonly aimChance: number | null;
  readonly objective: Objective;
}

/** Litres of a soup or component that are still to be cooked: what is needed less what is under way. */
export function toCookL({ components, needs, batches }: DayPlan, soupId: string): number {
  const component = components.find((one) => one.componentId === soupId);
  if (component !== undefined) return component.needL;
  const needL = needs.find((need) => need.soupId === soupId)?.needL ?? 0;
  return batches.reduce((sum, batch) => sum - (batch.soupId === soupId && batch.state !== 'planned' ? batch.volumeL : 0), needL);
}

/** Batches that found no place, and what is made only for such. */
export function unplacedIn({ findings }: DayPlan): readonly string[] {
  return findings.flatMap((finding) => (finding.code === 'plan.unplaced' || finding.code === 'plan.leftOut' ? [finding.batchId] : []));
}

/** What a plan knows of one batch beyond its times. */
export interface BatchStory {
  readonly batchId: string;
  /** Minutes its next step may begin later and nothing is late that is not so already. */
  readonly slackMin: number;
  /** What keeps it from being ready sooner, the nearest to its end first. */
  readonly binding: readonly Blocker[];
  /** Chance to be ready in time, 0 to 1, by the spread of its times and of all before it; null without a ready-by. */
  readonly chance: number | null;
}

export interface PlanStory {
  readonly batches: readonly BatchStory[];
  /** Chance that everything is ready in time on the same day. */
  readonly chanceOfAll: number;
  /** Minutes late in all, and what no plan can be below. */
  readonly lateMin: number;
  readonly leastLateMin: number;
}

/** Slack is not counted further. */
export const MOST_SLACK_MIN = 120;
