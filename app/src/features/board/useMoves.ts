import { movedPins, unpinned } from '@broth/core';
import type { DayPlan } from '@broth/core';
import { useDesk } from '../../state/desk';
import type { OpenDay } from '../../state/useDay';
import { useEffect, useMemo } from 'react';

export interface Moves {
  readonly move: (batchId: string, byMin: number, vesselId: string | null) => void;
  readonly letGo: (batchId: string) => void;
  readonly isPinned: (batchId: string) => boolean;
  readonly undo: (() => void) | null;
  readonly redo: (() => void) | null;
}

/** Ctrl or ⌘ with Z takes back, with Shift or as Y does again: as everywhere. Not while somebody types. */
export function useUndoKeys({ undo, redo }: Moves): void {
  useEffect(() => {
    const hear = (event: KeyboardEvent): void => {
      if (!(event.ctrlKey || event.metaKey) || event.altKey || (event.target instanceof HTMLElement && /^(input|textarea)$/i.test(event.target.tagName))) return;
      const key = event.key.toLowerCase();
      const act = key === 'y' || (key === 'z' && event.shiftKey) ? redo : key === 'z' ? undo : null;
      if (act === null) return;
      event.preventDefault();
      act();
    };
    document.addEventListener('keydown', hear);
    return () => {
      document.removeEventListener('keydown', hear);
    };
  }, [undo, redo]);
}

const NO_MOVES: Moves = { move: () => undefined, letGo: () => undefined, isPinned: () => false, undo: null, redo: null };

/** What a hand can do to the plan that is shown; each is planned afresh around it, and can be taken back. */
export function useMoves(day: OpenDay | null, plan: DayPlan | null): Moves {
  const canUndo = useDesk((state) => state.past.length > 0);
  const canRedo = useDesk((state) => state.future.length > 0);
  return useMemo(() => {
    if (day === null || plan === null) return NO_MOVES;
    const { change, undo, redo } = useDesk.getState();
    return {
      move: (batchId, byMin, vesselId) => {
        const batch = plan.batches.find((one) => one.id === batchId);
        const soup = day.soupById.get(batch?.soupId ?? '');
        const pins = movedPins(plan, batchId, { byMin, vesselId }, (stepId) => soup?.steps.some((step) => step.id === stepId && step.place.kind === 'vessel') ?? false);
        if (pins !== null) change(plan, { pins });
      },
      letGo: (batchId) => {
        change(plan, { pins: unpinned(plan.pins, batchId) });
      },
      isPinned: (batchId) => plan.pins.some((pin) => pin.batchId === batchId),
      undo: canUndo
        ? () => {
            undo(plan);
          }
        : null,
      redo: canRedo
        ? () => {
            redo(plan);
          }
        : null,
    };
  }, [day, plan, canUndo, canRedo]);
}
