import type { StoredEvent } from '@broth/contract';
import type { DayEvent } from '@broth/core';
import fc from 'fast-check';
import { dismiss, enqueue, settle, waiting } from './outbox';
import type { Outbox } from './outbox';

const event = (id: string): DayEvent => ({ id, kind: 'step.done/1', day: '2026-11-25', at: 1, by: 'maren', device: 'd', data: { batchId: 'b', stepId: 's' } });
const stored = (id: string): StoredEvent => ({ ...event(id), seq: 1, recordedAt: 1, hash: '' });
const problem = { type: '', title: '', status: 422, detail: 'No.', code: 'event.future' };
const ids = (outbox: Outbox): string[] => outbox.map((entry) => entry.event.id);

describe('the outbox', () => {
  const two = enqueue([], [event('a'), event('b')]);
  test('sends in the order things were done', () => {
    expect(waiting(two).map((one) => one.id)).toEqual(['a', 'b']);
  });
  test('what is stored leaves, what was stored before leaves too', () => {
    const settled = settle(two, [
      { status: 'stored', id: 'a', event: stored('a') },
      { status: 'already', id: 'b', event: stored('b') },
    ]);
    expect([ids(settled.outbox), settled.stored.map((one) => one.id)]).toEqual([[], ['a', 'b']]);
  });
  test('what is refused stays with its reason, is not sent again, and goes when it has been read', () => {
    const { outbox } = settle(two, [{ status: 'refused', id: 'a', problem }]);
    expect([ids(outbox), waiting(outbox).map((one) => one.id), ids(dismiss(outbox, 'a'))]).toEqual([['a', 'b'], ['b'], ['b']]);
  });
  test('what still waits cannot be dismissed', () => {
    expect(ids(dismiss(two, 'a'))).toEqual(['a', 'b']);
  });
  test('law: whatever answers are lost, every event is stored once and in order', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 12 }), fc.array(fc.boolean(), { minLength: 30, maxLength: 30 }), (count, answers) => {
        let outbox = enqueue(
          [],
          Array.from({ length: count }, (_, index) => event(String(index))),
        );
        const log: string[] = [];
        for (const arrives of [...answers, true]) {
          const results = waiting(outbox).map((one) => {
            const known = log.includes(one.id);
            if (!known) log.push(one.id);
            return { status: known ? ('already' as const) : ('stored' as const), id: one.id, event: stored(one.id) };
          });
          // The server has stored them either way; only the answer may be lost.
          if (arrives) ({ outbox } = settle(outbox, results));
        }
        expect([log, ids(outbox)]).toEqual([Array.from({ length: count }, (_, index) => String(index)), []]);
      }),
      { seed: 7 },
    );
  });
});
