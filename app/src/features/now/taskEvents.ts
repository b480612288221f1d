import { words } from '@broth/contract';
import { readBatchId, startGates } from '@broth/core';
import type { DayPlan, Gate, SheetLine, Soup, Task } from '@broth/core';
import type { NewEvent } from '../../state/kitchen';
import type { OpenDay } from '../../state/useDay';

/** After a wait of at most this the next step is taken to begin at once. Minutes. */
const AT_ONCE_MIN = 15;

/** What the tap on "done" records: the step, the start of the next when that follows at once and asks nothing first, and the end of the batch after its last. */
export function doneEvents(task: Task, soup: Soup, volumeOutL: number, asksFirst: (stepId: string) => boolean): readonly NewEvent[] {
  const { batchId, step } = task;
  const next = soup.steps[soup.steps.findIndex((one) => one.id === step.id) + 1];
  const follows = next !== undefined && step.maxWaitMin !== null && step.maxWaitMin <= AT_ONCE_MIN && !asksFirst(next.id);
  return [
    { kind: 'step.done/1', data: { batchId, stepId: step.id } },
    ...(follows ? [{ kind: 'step.started/1', data: { batchId, stepId: next.id } } as const] : []),
    ...(next === undefined ? [{ kind: 'batch.finished/1', data: { batchId, volumeOutL } } as const] : []),
  ];
}

/** Whether the step after this one asks something before it begins: then it does not begin by itself. */
export function nextAsks(task: Task, soup: Soup, day: OpenDay, plan: DayPlan | null): (stepId: string) => boolean {
  return (stepId) => {
    const next = soup.steps.find((one) => one.id === stepId);
    return next !== undefined && startGates({ ...task, step: next, state: 'next' }, soup, day.state, plan, day.soupById).length > 0;
  };
}

/** The one tap a step that counts up waits for; null where it waits for none. A boil that ends its batch is ended like any last step. */
export function clockTap(task: Task, soup: Soup, asksFirst: (stepId: string) => boolean): { readonly label: string; readonly events: readonly NewEvent[] } | null {
  const { batchId, step, state } = task;
  if (state !== 'running') return null;
  if (step.phase === 'boil' && !task.isLast) return { label: words.CLOCK_TAP.boil, events: doneEvents(task, soup, task.volumeL, asksFirst) };
  return task.waitsForClock ? { label: words.CLOCK_TAP[step.clockFrom], events: [{ kind: 'step.clockStarted/1', data: { batchId, stepId: step.id } }] } : null;
}

/** What the tap on "start" records: the batch, if it has not begun, and the step. */
export function startEvents(task: Task, soup: Soup): readonly NewEvent[] {
  const { batchId, step, batchName, volumeL, vesselId } = task;
  const ordinal = readBatchId(batchId).ordinal ?? 1;
  return [
    ...(task.state === 'toStart'
      ? [{ kind: 'batch.started/1', data: { batchId, soupId: soup.id, soupVersion: soup.version, name: batchName, ordinal, volumeL, vesselId } } as const]
      : []),
    { kind: 'step.started/1', data: { batchId, stepId: step.id } },
  ];
}

/** What confirming a gate records: a wash is done, everything else was seen. */
export function gateEvents(task: Task, gates: readonly Gate[]): readonly NewEvent[] {
  const { batchId, step } = task;
  return gates.flatMap((gate): NewEvent[] => {
    switch (gate.kind) {
      case 'wash': {
        const { unitId, kind, afterBatchId, beforeBatchId } = gate.wash;
        return [{ kind: 'wash.done/1', data: { unitId, kind, afterBatchId, beforeBatchId } }];
      }
      case 'open':
        return [];
      case 'caution':
      case 'irreversible':
      case 'device':
      case 'wholeInPot':
      case 'board':
        return [{ kind: 'gate.confirmed/1', data: { batchId, stepId: step.id, gate: gate.kind } }];
    }
  });
}

export function tickEvent(batchId: string, line: SheetLine): NewEvent {
  return {
    kind: 'ingredient.added/1',
    data: { batchId, ingredientId: line.ingredientId, name: line.name, amount: line.amount, unit: line.unit, for: 'card', allergens: null },
  };
}
