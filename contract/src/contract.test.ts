import { readFileSync } from 'node:fs';
import path from 'node:path';
import { ruleSet } from '@broth/core/packs';
import { RULE_PACKS } from '@broth/core/packs';
import { dayEvent, parsePar, ruleVersion, words } from './index';
import { REFUSALS, refuse } from './refusals';

describe('a par as it is typed', () => {
  test.each([
    ['18', 18],
    ['7,5', 7.5],
    [' 7.5 ', 7.5],
    ['0', 0],
  ])('%p is %d L', (typed, parL) => {
    expect(parsePar(typed)).toEqual({ ok: true, parL });
  });
  test.each([
    ['-3', 'A par cannot be below 0 L. Put 0 to leave the soup out today.'],
    ['−3', 'A par cannot be below 0 L. Put 0 to leave the soup out today.'],
    ['abc', 'A par is a number of litres, like 18 or 7.5.'],
    ['', 'A par is a number of litres, like 18 or 7.5.'],
    ['180000', 'More than 2000 L is a typing slip. Check the digits.'],
  ])('%p is refused with what to do', (typed, message) => {
    expect(parsePar(typed)).toEqual({ ok: false, message });
  });
});

describe('refusals', () => {
  const listed = [...readFileSync(path.join(__dirname, '../../docs/api.md'), 'utf8').matchAll(/^\| `([a-z]+\.[A-Za-z]+)` +\| (\d{3}) +\|/gm)].map(([, code, status]) => [
    code,
    Number(status),
  ]);
  test('docs/api.md lists the table, code and status, and nothing else', () => {
    expect(listed.length).toBeGreaterThan(0);
    expect(listed).toEqual(Object.entries(REFUSALS).map(([code, { status }]) => [code, status]));
  });
  test('a refusal is problem+json (RFC 9457) with a sentence', () => {
    expect(refuse('event.future', { aheadMin: 12 }).problem).toEqual({
      type: 'urn:broth-board:refusal:event.future',
      title: 'That time has not come yet',
      status: 422,
      detail: "This entry is dated 12 min ahead of the server's clock. Set the clock of this device, then log it again.",
      code: 'event.future',
    });
  });
});

describe('events on the wire', () => {
  const reading = {
    id: '3f2b8a0e-5f3a-4c8e-9d1b-2a7c6e5d4f30',
    kind: 'reading.taken/1',
    day: '2026-11-25',
    at: 1,
    by: 'maren',
    device: 'd',
    data: { batchId: 'b', purpose: 'cool', reading: { value: 70, unit: 'F', rawText: '70' }, heldS: null, packId: 'p', packVersion: 1 },
  };
  test('a whole one is taken', () => {
    expect(dayEvent.safeParse(reading).success).toBe(true);
  });
  test.each([
    ['no UUID', { ...reading, id: 'seven' }],
    ['an unknown kind', { ...reading, kind: 'reading.taken/9' }],
    ['a unit that is none', { ...reading, data: { ...reading.data, reading: { value: 70, unit: 'K', rawText: '70' } } }],
    ['a temperature that is no number', { ...reading, data: { ...reading.data, reading: { value: '70', unit: 'F', rawText: '70' } } }],
    ['no time', { ...reading, at: undefined }],
  ])('%s is not', (_, given) => {
    expect(dayEvent.safeParse(given).success).toBe(false);
  });
  test.each(RULE_PACKS.map((pack) => [pack.id, pack] as const))('the rules of %s pass their own schema unchanged', (packId, pack) => {
    const version = { since: 0, by: '', set: ruleSet(pack, { packId, changes: [], added: [] }, 1) };
    expect(ruleVersion.parse(version)).toEqual(version);
  });
});

describe('words', () => {
  const names: words.Names = { soup: (id) => id, step: (_, id) => id, batch: (id) => id, resource: (id) => id, service: (id) => id };
  test.each([
    [words.duration(5), '5 min'],
    [words.duration(65), '1 h 05'],
    [words.clock(485), '8:05'],
    [words.clock(1450), '0:10 next day'],
    [words.clock(-30), '23:30'],
    [words.ovenHeat(220, 'C'), '220 °C'],
    [words.ovenHeat(220, 'F'), '428 °F (220 °C)'],
    [words.litres(14), '14 L'],
    [words.litres(14.5), '14.5 L'],
    [words.limit({ c: 21, f: 70 }, 'F'), '70 °F (21 °C)'],
    [words.limit({ c: 21, f: 70 }, 'C'), '21 °C (70 °F)'],
    [words.planLine(0, 0, 0), 'All in time'],
    [words.planLine(2, 0, 0), '2 batches late'],
    [words.planLine(2, 1, 1), 'One soup cannot be made'],
    [
      words.finding({ code: 'station.lacks', soupId: 'Beetroot', stepId: 'Blend', lacks: 'jar' }, names),
      'Beetroot: "Blend" needs a jar blender, and none is in use. Put one back into use, or leave this soup out today.',
    ],
    [words.finding({ code: 'batch.noVessel', soupId: 'Bean', needL: 12 }, names), 'Bean: no kettle or pot in use holds 12 L. Put one back into use or lower the par.'],
    [
      words.finding({ code: 'plan.late', batchId: 'Bean 1', lateMin: 65, waitedFor: 'Kettle 2', pinned: false }, names),
      'Bean 1 is 1 h 05 late: it waits for Kettle 2. Start earlier, lower a par, or serve it later.',
    ],
    [words.finding({ code: 'lot.pastDate', soupId: 'Bean', volumeL: 2, byDays: 1 }, names), 'Bean: 2 L on hand is 1 day past its date mark. It does not count. Discard it.'],
  ])('says %p', (said, expected) => {
    expect(said).toBe(expected);
  });
  test.each([
    ['8:05', 485],
    [' 08.05 ', 485],
    ['25:30', 1530],
    ['1:30 next day', 1530],
    ['', Number.NaN],
    ['8', Number.NaN],
    ['8:60', Number.NaN],
    ['48:00', Number.NaN],
    ['noon', Number.NaN],
  ])('reads %p as a time', (typed, minute) => {
    expect(words.readClock(typed)).toBe(minute);
  });
});

test.each([
  [[1, 2, 3, 4, 5], 'Mon to Fri'],
  [[6, 1, 3], 'Mon, Wed, and Sat'],
  [[6, 7], 'Sat and Sun'],
  [[1, 2, 3, 5, 6, 7], 'Mon to Wed and Fri to Sun'],
  [[4], 'Thu'],
])('days %j are said as %s', (days, said) => {
  expect(words.weekdays(days)).toBe(said);
});
