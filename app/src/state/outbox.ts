import type { Problem, StoredEvent, eventsAnswer } from '@broth/contract';
import type { DayEvent } from '@broth/core';
import type { z } from 'zod';

/** An event on its way to the log. It is shown at once; it is gone from here only when the server has said that it is stored. */
export interface OutboxEntry {
  readonly event: DayEvent;
  /** Set when the server refused it: kept and shown until somebody has read why. */
  readonly refused: Problem | null;
}

export type Outbox = readonly OutboxEntry[];

export function enqueue(outbox: Outbox, events: readonly DayEvent[]): Outbox {
  return [...outbox, ...events.map((event) => ({ event, refused: null }))];
}

/** What to send next: everything that waits, in order; at most what one request takes. */
export function waiting(outbox: Outbox): readonly DayEvent[] {
  return outbox.flatMap((entry) => (entry.refused === null ? [entry.event] : [])).slice(0, 500);
}

type Results = z.infer<typeof eventsAnswer>['results'];

/** Takes the server's answers in: stored ones leave, refused ones stay with their reason. Answers nobody waits for change nothing. */
export function settle(outbox: Outbox, results: Results): { readonly outbox: Outbox; readonly stored: readonly StoredEvent[] } {
  const byId = new Map(results.map((result) => [result.id, result]));
  const stored = results.flatMap((result) => (result.status === 'refused' ? [] : [result.event]));
  const left = outbox.flatMap((entry): OutboxEntry[] => {
    const result = byId.get(entry.event.id);
    if (result === undefined) return [entry];
    return result.status === 'refused' ? [{ ...entry, refused: result.problem }] : [];
  });
  return { outbox: left, stored };
}

export function dismiss(outbox: Outbox, id: string): Outbox {
  return outbox.filter((entry) => entry.event.id !== id || entry.refused === null);
}
