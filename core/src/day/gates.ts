import type { Allergen, Origin } from '../food/index';
import type { DayPlan, Wash } from '../plan/index';
import { sheetLines } from '../pot/index';
import type { SheetLine } from '../pot/index';
import type { Soup, Step } from '../soup/index';
import { washKey } from './dayState';
import type { BatchRecord, DayState } from './dayState';
import { soupOf } from './hands';
import type { Task } from './hands';

/** What stands between a tap and what it does: each is confirmed, put right or given a reason. */
export type Gate =
  /** Something that hurts or cannot be undone: the caution is read. */
  | { readonly kind: 'caution'; readonly text: string }
  | { readonly kind: 'irreversible' }
  /** The oven is hot and the tray is in. */
  | { readonly kind: 'device'; readonly temperatureC: number | null }
  /** Pieces that are to stay whole are in the pot, and this blends. */
  | { readonly kind: 'wholeInPot'; readonly lines: readonly string[] }
  /** Board, knives and hands after raw flesh, before anything else is cut. */
  | { readonly kind: 'board'; readonly after: string; readonly lines: readonly string[] }
  | { readonly kind: 'wash'; readonly wash: Wash; readonly carriesOver: readonly Allergen[] }
  /** Lines of the card nobody has ticked or left out. */
  | { readonly kind: 'open'; readonly lines: readonly SheetLine[] };

function isPierced(soup: Soup, step: Step): boolean {
  return soup.ingredients.some((line) => line.stepId === step.id && line.acts.includes('pierce'));
}

/** Lines of the card that are in the pot: ticked, or their step is done and they were neither lifted out nor left out. */
function inPot(soup: Soup, batch: BatchRecord | undefined): ReadonlySet<string> {
  const done = (stepId: string): boolean => (batch?.steps[stepId]?.doneAt ?? null) !== null && batch?.steps[stepId]?.skipped === null;
  const ticked = new Set(batch?.additions.map((added) => added.ingredientId));
  const waived = new Set(batch?.waived.map((one) => one.ingredientId));
  return new Set(
    soup.ingredients
      .filter(
        (line) => !waived.has(line.id) && (line.returnsAtStepId === null ? done(line.stepId) || ticked.has(line.id) : done(line.returnsAtStepId) || ticked.has(backKey(line.id))),
      )
      .map((line) => line.id),
  );
}

/** Under what a line that was lifted out is ticked when it goes back in. */
export function backKey(ingredientId: string): string {
  return `${ingredientId} back`;
}

/** Kept aside after their step, until they go back in: the tray that stays in sight. */
export function heldAside(soup: Soup, batch: BatchRecord): readonly string[] {
  const doneAt = (stepId: string): number | null => batch.steps[stepId]?.doneAt ?? null;
  const back = new Set(batch.additions.map((added) => added.ingredientId));
  return soup.ingredients
    .filter((line) => line.returnsAtStepId !== null && doneAt(line.stepId) !== null && doneAt(line.returnsAtStepId) === null && !back.has(backKey(line.id)))
    .map((line) => line.name);
}

/** Lines nobody has ticked or left out, of one step or of the whole card. */
export function openLines(soup: Soup, batch: BatchRecord, stepId: string | null = null): readonly SheetLine[] {
  const settled = new Set([
    ...batch.additions.filter((added) => added.for === 'card' || added.for === 'swap').map((added) => added.ingredientId),
    ...batch.waived.map((one) => one.ingredientId),
  ]);
  return sheetLines(soup, batch.volumeL).filter((line) => !settled.has(line.ingredientId) && (stepId === null || line.stepId === stepId));
}

const RAW: readonly Origin[] = ['meat', 'fish', 'shellfish'];

/** Raw flesh that goes in at a step; what is made here has been cooked. */
function rawLines(soup: Soup, stepId: string): readonly string[] {
  return soup.ingredients.filter((line) => line.stepId === stepId && line.componentId === null && RAW.includes(line.origin)).map((line) => line.name);
}

/** The last raw flesh on the bench, if nobody has said since that the board is clean. */
function boardGate(day: DayState, soupById: ReadonlyMap<string, Soup>): Gate | null {
  let last: { readonly at: number; readonly gate: Gate } | null = null;
  let cleanAt = Number.NEGATIVE_INFINITY;
  for (const batch of Object.values(day.batches)) {
    const soup = soupOf(batch, soupById);
    for (const step of soup?.steps ?? []) {
      const record = batch.steps[step.id];
      if (record === undefined) continue;
      if (record.confirmed.includes('board')) cleanAt = Math.max(cleanAt, record.startedAt);
      if (step.place.kind !== 'bench' || record.skipped !== null || soup === undefined) continue;
      const lines = rawLines(soup, step.id);
      if (lines.length > 0 && (last === null || record.startedAt > last.at)) last = { at: record.startedAt, gate: { kind: 'board', after: batch.name, lines } };
    }
  }
  return last !== null && last.at >= cleanAt ? last.gate : null;
}

/** What has to be seen before a step begins. */
export function startGates(task: Task, soup: Soup, day: DayState, plan: DayPlan | null, soupById: ReadonlyMap<string, Soup>): readonly Gate[] {
  const { step, batchId } = task;
  const board = step.place.kind === 'bench' && rawLines(soup, step.id).length === 0 ? boardGate(day, soupById) : null;
  const batch = day.batches[batchId];
  const planned = plan?.batches.find((one) => one.id === batchId);
  const unitId = step.place.kind === 'vessel' ? task.vesselId : (planned?.steps.find((one) => one.stepId === step.id)?.unitId ?? null);
  const firstThere = step.place.kind !== 'vessel' || soup.steps.find((one) => one.place.kind === 'vessel')?.id === step.id;
  const washes = firstThere ? (plan?.washes ?? []).filter((wash) => wash.beforeBatchId === batchId && wash.unitId === unitId && day.washed[washKey(wash)] === undefined) : [];
  const inside = inPot(soup, batch);
  const whole = step.phase === 'blend' ? soup.ingredients.filter((line) => line.whole && inside.has(line.id)).map((line) => line.name) : [];
  const hurts = step.irreversible || step.phase === 'blend' || isPierced(soup, step);
  return [
    ...(board === null ? [] : [board]),
    ...washes.map((wash): Gate => ({ kind: 'wash', wash, carriesOver: wash.carriesOver })),
    ...(step.place.kind === 'oven' ? [{ kind: 'device', temperatureC: step.place.temperatureC } as const] : []),
    ...(whole.length > 0 ? [{ kind: 'wholeInPot', lines: whole } as const] : []),
    ...(hurts && step.caution !== null ? [{ kind: 'caution', text: step.caution } as const] : []),
    ...(step.irreversible && step.caution === null ? [{ kind: 'irreversible' } as const] : []),
  ];
}

/** What has to be settled before a step ends: at the last one, every line of the card. */
export function doneGates(task: Task, soup: Soup, day: DayState): readonly Gate[] {
  const batch = day.batches[task.batchId];
  if (batch === undefined || !task.isLast) return [];
  const lines = openLines(soup, batch);
  return lines.length === 0 ? [] : [{ kind: 'open', lines }];
}

/** Something that is about to go into the pot: a line of the card by its id, else by its name. */
export interface Dose {
  readonly ingredientId: string | null;
  readonly name: string;
  readonly amount: number;
  readonly unit: 'g' | 'mL' | 'each';
}

/** How many times the card's amount would be in the pot with a dose; null when the card does not say. */
export function doseFactor(soup: Soup, batch: BatchRecord, dose: Dose): number | null {
  const isIt = (one: { readonly ingredientId: string | null; readonly name: string }): boolean =>
    dose.ingredientId === null || one.ingredientId === null ? one.name.toLowerCase() === dose.name.toLowerCase() : one.ingredientId === dose.ingredientId;
  const lines = sheetLines(soup, batch.volumeL).filter((line) => isIt(line) && line.unit === dose.unit && line.amount !== null && line.amount > 0);
  const most = lines.reduce((sum, line) => sum + (line.upTo ?? line.amount ?? 0), 0);
  if (most <= 0) return null;
  // What is poured or salted by measure is entered beside the tick of its line: the tick is not the same again.
  const already = batch.additions
    .filter((added) => isIt(added) && added.unit === dose.unit && (dose.ingredientId !== null || added.for !== 'card'))
    .reduce((sum, added) => sum + (added.amount ?? 0), 0);
  return (already + dose.amount) / most;
}

/** From so many times the card on a dose is asked about: a line doubled twice, a spoon misread. A design choice. */
export const DOUBTED_DOSE = 2;
