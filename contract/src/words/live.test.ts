import { makeStep } from '@broth/core';
import type { Alarm, Handover } from '@broth/core';
import * as words from './en';
import type { Names } from './names';

const names: Names = { soup: (id) => id, step: (_, id) => id, batch: (id) => id, resource: (id) => id, service: (id) => id };
const at = (instant: number): string => words.clock(instant / 60_000);
const nameOf = (person: string): string => ({ maren: 'Maren', tobi: 'Tobi' })[person] ?? person;
const alarm = (kind: Alarm['kind']): Alarm => ({ kind, at: 0, batchId: 'Lentil 1', stepId: 's', timerId: null, key: kind });

describe('the live day in words', () => {
  test('every alarm says whose it is and what to do; a boil is looked at, not ended', () => {
    const simmer = makeStep({ id: 's', phase: 'simmer', name: 's', check: 'Soft' });
    const boil = makeStep({ id: 's', phase: 'boil', name: 's' });
    expect((['check', 'limit', 'look', 'wait', 'reading'] as const).map((kind) => words.alarm(alarm(kind), names, simmer))).toEqual([
      'Lentil 1: look whether it is done (Soft).',
      'Lentil 1: its time is up. End it, or give it more.',
      'Lentil 1: look and stir.',
      'Lentil 1 has waited as long as it may. Go on with it.',
      'Lentil 1: a temperature is due.',
    ]);
    expect((['check', 'limit'] as const).map((kind) => words.alarm(alarm(kind), names, boil))).toEqual([
      'Lentil 1: it may boil by now. Look.',
      'Lentil 1: it should boil by now. Look.',
    ]);
  });
  test('every gate says what has to be so', () => {
    const wash = { unitId: 'Kettle 1', kind: 'full', startMin: 0, endMin: 12, afterBatchId: 'Chowder 1', beforeBatchId: 'Lentil 1', carriesOver: ['fish', 'milk'] } as const;
    expect(words.gate({ kind: 'wash', wash, carriesOver: wash.carriesOver }, names)).toBe('Kettle 1 is washed in full: fish and milk must not carry over from Chowder 1.');
    expect(words.gate({ kind: 'wash', wash: { ...wash, kind: 'rinse', carriesOver: [] }, carriesOver: [] }, names)).toBe('Kettle 1 is washed.');
    expect(words.gate({ kind: 'device', temperatureC: 190 }, names)).toBe('The oven is on and at 190 °C, and the tray is in.');
    expect(words.gate({ kind: 'board', after: 'Chowder 1', lines: ['Smoked haddock'] }, names)).toBe(
      'Board, knives and hands are washed and sanitised: smoked haddock for Chowder 1 was cut here.',
    );
    expect(words.gate({ kind: 'wholeInPot', lines: ['Corn'] }, names)).toBe('Corn is in and is to stay whole. Lifted out before blending.');
  });
  test('what is left at the counter, and until when', () => {
    expect([
      words.serving({ leftL: 7.5, perMin: 0.1, basis: 'levels', outAt: 785 * 60_000 }, at),
      words.serving({ leftL: 7.5, perMin: 0.01, basis: 'par', outAt: null }, at),
    ]).toEqual(['About 7.5 L left; out about 13:05, at the pace it goes.', 'About 7.5 L left; it lasts, if it goes as the par says.']);
  });
  test('whose tap counted', () => {
    expect(
      words.second({ eventId: 'e', at: 631 * 60_000, by: 'tobi', what: 'done', batchId: 'Lentil 1', stepId: 's', firstBy: 'maren', firstAt: 630 * 60_000 }, nameOf, names, at),
    ).toBe("Lentil 1: Maren had ended it at 10:30. That counts; Tobi's tap of 10:31 is kept beside it.");
  });
  test('handing over: a line each for what is under way, the clocks, what is out and who is away', () => {
    const given: Handover = {
      batches: [
        { batchId: 'l', name: 'Lentil 1', stage: { kind: 'holding', since: 600 * 60_000, placeId: 'Well 1' }, task: null, open: [], aside: [], lastNote: 'A little thin' },
        { batchId: 'c', name: 'Chowder 1', stage: { kind: 'cooking' }, task: null, open: ['Corn'], aside: ['Fish'], lastNote: null },
      ],
      timers: [{ eventId: 't', at: 0, by: 'maren', name: 'Bread oven', endsAt: 640 * 60_000, batchId: null }],
      stopped: ['Jar blender'],
      away: ['tobi'],
      notes: ['Delivery at noon'],
    };
    expect(words.handover(given, names, nameOf, at)).toEqual([
      'Lentil 1: held hot in Well 1 since 10:00. "A little thin"',
      'Chowder 1: cooking. Not ticked: Corn. Held aside: Fish.',
      'Bread oven: up at 10:40.',
      'Jar blender is out of use.',
      'Tobi is away.',
      '"Delivery at noon"',
    ]);
  });
  test('seconds only where they matter', () => {
    expect([words.countdown(59_000), words.countdown(239_000), words.countdown(240_000), words.countdown(900_000), words.countdown(-5)]).toEqual([
      '0:59',
      '3:59',
      '4 min',
      '15 min',
      '0:00',
    ]);
  });
});
