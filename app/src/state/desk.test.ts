import type { DayPlan, Pin } from '@broth/core';
import { useDesk } from './desk';

const plan = (name: string, pins: readonly Pin[] = []): DayPlan => ({
  date: name,
  needs: [],
  components: [],
  batches: [],
  washes: [],
  findings: [],
  pins,
  splits: [],
  aimChance: null,
  objective: { lateMin: 0, shortMin: 0, earlyMin: 0, changeoverMin: 0, movedMin: 0, makespanMin: 0, cost: 0 },
});
const pin = (startMin: number): Pin => ({ batchId: 'a', stepId: 's', startMin, vesselId: null });
const draft = (name: string) => ({ ticket: 1, plan: plan(name), nowMin: 0, agreedFits: true, improved: true });
const desk = () => useDesk.getState();

beforeEach(() => {
  useDesk.setState({ date: null });
  desk().open('2026-11-25', null);
});

describe('the desk', () => {
  test('a change, one more, both undone and one done again: pins and what is shown follow', () => {
    desk().change(plan('first'), { pins: [pin(10)] });
    useDesk.setState({ draft: draft('second') });
    desk().change(plan('second'), { pins: [pin(20)] });
    useDesk.setState({ draft: draft('third') });
    expect([desk().pins, desk().base?.date]).toEqual([[pin(20)], 'second']);
    desk().undo(plan('third'));
    expect([desk().pins, desk().draft?.plan.date, desk().past.length, desk().future.length]).toEqual([[pin(10)], 'second', 1, 1]);
    desk().undo(plan('second'));
    expect([desk().pins, desk().draft?.plan.date, desk().base]).toEqual([[], 'first', null]);
    desk().redo(plan('first'));
    expect([desk().pins, desk().draft?.plan.date]).toEqual([[pin(10)], 'second']);
  });
  test('a plan of earlier today is taken up with what was put by hand in it, and can be undone', () => {
    useDesk.setState({ draft: draft('now') });
    const before = desk().revision;
    desk().takeUp(plan('now'), plan('earlier', [pin(40)]));
    expect([desk().pins, desk().draft?.plan.date, desk().base?.date, desk().revision]).toEqual([[pin(40)], 'earlier', 'earlier', before + 1]);
    desk().undo(plan('earlier'));
    expect([desk().pins, desk().draft?.plan.date, desk().base]).toEqual([[], 'now', null]);
  });
  test('somebody else was first: what was moved here is planned on top of theirs, and of one batch this hand counts', () => {
    desk().change(plan('mine'), { pins: [pin(10)] });
    const other: Pin = { ...pin(50), batchId: 'b' };
    desk().rebase(plan('theirs', [pin(99), other]), 4);
    expect([desk().pins, desk().base?.date, desk().basedOn, desk().past]).toEqual([[other, pin(10)], 'theirs', 4, []]);
  });
  test('a change after an undo forgets what was undone; undo with nothing to undo does nothing', () => {
    desk().undo(plan('first'));
    expect(desk().pins).toEqual([]);
    desk().change(plan('first'), { pins: [pin(10)] });
    desk().undo(plan('second'));
    desk().change(plan('first'), { pins: [pin(30)] });
    expect([desk().future, desk().pins]).toEqual([[], [pin(30)]]);
  });
  test('every change is planned afresh; another day begins with what its own plan has pinned', () => {
    const before = desk().revision;
    desk().change(plan('first'), { pins: [pin(10)] });
    expect(desk().revision).toBe(before + 1);
    desk().open('2026-11-25', plan('agreed', [pin(99)]));
    expect(desk().pins).toEqual([pin(10)]);
    desk().open('2026-11-26', plan('agreed', [pin(99)]));
    expect([desk().pins, desk().past, desk().base]).toEqual([[pin(99)], [], null]);
  });
  test('somebody who looks longer: a better plan is shown, a worse one is not, and none at all once the draft is another', async () => {
    const late = (lateMin: number): DayPlan => ({ ...plan('one'), objective: { ...plan('one').objective, lateMin } });
    const look = async (found: DayPlan | null, meanwhile: () => void = () => undefined): Promise<readonly [number | undefined, string | undefined]> => {
      useDesk.setState({ draft: { ...draft('one'), plan: late(10) } });
      await desk().lookLonger(() => {
        meanwhile();
        return Promise.resolve(found);
      });
      return [desk().draft?.plan.objective.lateMin, desk().longer?.state];
    };
    expect(await look(late(5))).toEqual([5, 'better']);
    expect(await look(late(10))).toEqual([10, 'same']);
    expect(await look(late(15))).toEqual([10, 'same']);
    expect(await look(null)).toEqual([10, undefined]);
    expect(
      await look(late(5), () => {
        useDesk.setState({ draft: { ...draft('two'), plan: late(12) } });
      }),
    ).toEqual([12, undefined]);
  });
  test('accepted or let go, nothing is left to undo', () => {
    desk().change(plan('first'), { pins: [pin(10)] });
    desk().letGo(plan('agreed', [pin(10)]));
    expect([desk().pins, desk().past, desk().base]).toEqual([[pin(10)], [], null]);
  });
});
