import { words } from '@broth/contract';
import type { Gate, SheetLine, Soup, Task } from '@broth/core';
import type { NewEvent } from '../../state/kitchen';

/** After a wait of at most this the next step is taken to begin at once. Minutes. */
const AT_ONCE_MIN = 15;

/** What the tap on "done" records: the step, the start of the next when that follows at once and asks nothing first, and the end of the batch after its last. */
export function doneEvents(task: Task, soup: Soup, volumeOutL: number, asksFirst: (stepId: string) => boolean = () => false): readonly NewEvent[] {
  const { batchId, step } = task;
  const next = soup.steps[soup.steps.findIndex((one) => one.id === step.id) + 1];
  const follows = next !== undefined && step.maxWaitMin !== null && step.maxWaitMin <= AT_ONCE_MIN && !asksFirst(next.id);
  return [
    { kind: 'step.done/1', data: { batchId, stepId: step.id } },
    ...(follows ? [{ kind: 'step.started/1', data: { batchId, stepId: next.id } } as const] : []),
    ...(next === undefined ? [{ kind: 'batch.finished/1', data: { batchId, volumeOutL } } as const] : []),
  ];
}

/** The one tap a step that counts up waits for; null where it waits for none. */
export function clockTap(task: Task, soup: Soup): { readonly label: string; readonly events: readonly NewEvent[] } | null {
  const { batchId, step, state } = task;
  if (state !== 'running') return null;
  if (step.phase === 'boil') return { label: words.CLOCK_TAP.boil, events: doneEvents(task, soup, task.volumeL) };
  return task.waitsForClock ? { label: words.CLOCK_TAP[step.clockFrom], events: [{ kind: 'step.clockStarted/1', data: { batchId, stepId: step.id } }] } : null;
}

/** What the tap on "start" records: the batch, if it has not begun, and the step. */
export function startEvents(task: Task, soup: Soup): readonly NewEvent[] {
  const { batchId, step, batchName, volumeL, vesselId } = task;
  const ordinal = Number(batchId.split('.').at(-1));
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
