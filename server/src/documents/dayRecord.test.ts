import type { StoredEvent } from '@broth/contract';
import type { RecordLine } from '@broth/contract/record';
import { addMinutes, ruleBook } from '@broth/core';
import type { DayEvent, RuleBook } from '@broth/core';
import { RULE_PACKS, ruleSet } from '@broth/core/packs';
import { demo } from '@broth/demo';
import { midnightOf } from '../localTime';
import { dayRecord } from './dayRecord';

/** The record as a document of what was logged: no server and no database. */

const DAY = '2026-11-25';
const MIDNIGHT = midnightOf(demo.kitchen.timeZone, DAY);
const B = `${DAY}.lentil.1`;
let count = 0;
function event<Kind extends DayEvent['kind']>(
  kind: Kind,
  minute: number,
  data: Extract<DayEvent, { kind: Kind }>['data'],
  some: { readonly recordedMin?: number; readonly by?: string } = {},
): StoredEvent {
  count += 1;
  const { recordedMin = minute, by = 'maren' } = some;
  return {
    id: `e${String(count)}`,
    seq: count,
    hash: `hash${String(count)}`,
    kind,
    day: DAY,
    at: addMinutes(MIDNIGHT, minute),
    recordedAt: addMinutes(MIDNIGHT, recordedMin),
    by,
    device: 'phone',
    data,
  } as StoredEvent;
}
const packed = (packId: string, version: number) => {
  const pack = RULE_PACKS.find((one) => one.id === packId);
  if (pack === undefined) throw new Error('no pack');
  return ruleSet(pack, { packId, changes: [], added: [] }, version);
};
function bookSince(...versions: readonly (readonly [packId: string, sinceMin: number])[]): RuleBook {
  const book = ruleBook(versions.map(([packId, sinceMin], index) => ({ since: sinceMin === 0 ? 0 : addMinutes(MIDNIGHT, sinceMin), by: 'maren', set: packed(packId, index + 1) })));
  if (book === null) throw new Error('no book');
  return book;
}
const started = () => event('batch.started/1', 480, { batchId: B, soupId: 'lentil', soupVersion: 1, name: 'Lentil 1', ordinal: 1, volumeL: 18, vesselId: 'kettle1' });
const heatOff = (minute: number) => event('step.done/1', minute, { batchId: B, stepId: 'finish' });
const cooling = (minute: number) => event('cooling.started/1', minute, { batchId: B, placeId: 'icebath', ambientC: 0 });
const read = (minute: number, value: number, recordedMin = minute) =>
  event(
    'reading.taken/1',
    minute,
    { batchId: B, purpose: 'cool', reading: { value, unit: 'F', rawText: String(value) }, heldS: null, packId: 'us-fda-fc2022', packVersion: 1 },
    { recordedMin },
  );
const digest = (minute: number, last: number, late = false) =>
  event('samples.digested/1', minute, {
    from: addMinutes(MIDNIGHT, minute - 1),
    to: addMinutes(MIDNIGHT, minute),
    late,
    thermometerIds: ['p1'],
    count: 60,
    sha256: 'f'.repeat(64),
    rulesVersion: 1,
    probes: [{ thermometerId: 'p1', unit: 'F', offset: 0, count: 60, min: last, max: last + 0.4, last, lastAt: addMinutes(MIDNIGHT, minute) - 1000 }],
  });

const recordOf = (
  events: readonly StoredEvent[],
  some: { readonly nowMin?: number; readonly book?: RuleBook; readonly thermometers?: Parameters<typeof dayRecord>[0]['thermometers'] } = {},
) =>
  dayRecord({
    kitchen: { id: 'landing', name: 'Landing', place: 'Harbour', timeZone: demo.kitchen.timeZone, invented: true, unit: 'F' },
    day: DAY,
    events,
    soups: demo.soups,
    station: demo.station,
    book: some.book ?? bookSince(['us-fda-fc2022', 0]),
    thermometers: some.thermometers ?? [],
    head: { seq: count, hash: `hash${String(count)}` },
    now: addMinutes(MIDNIGHT, some.nowMin ?? 1200),
  });
const short = (lines: readonly RecordLine[]) => lines.map(({ what, verdict, says }) => [what, verdict, says]);

describe('the verdict beside a reading', () => {
  const slow = [started(), heatOff(590), cooling(600), read(601, 150), read(610, 134), read(700, 69), read(1000, 50)];
  test('is the one that stood when it was taken: what came later does not colour it', () => {
    const { lines, verdicts } = recordOf(slow);
    expect(lines.map((line) => [line.takenAt.slice(11, 16), line.temperature, line.verdict])).toEqual([
      ['10:01', 150, 'inProgress'],
      ['10:10', 134, 'inProgress'],
      ['11:40', 69, 'inProgress'],
      ['16:40', 50, 'fail'],
    ]);
    expect(verdicts.find((one) => one.purpose === 'Cooling')).toMatchObject({ verdict: 'fail', batch: 'Lentil 1', says: 'Not below 41 °F (5 °C) within 6 h.' });
  });
  test('does not hear of a reading that was entered for a later time before it was', () => {
    const [start, off, cool, first, second, third, last] = slow as [StoredEvent, StoredEvent, StoredEvent, StoredEvent, StoredEvent, StoredEvent, StoredEvent];
    expect(recordOf([last, third, start, second, off, first, cool]).lines.map((line) => line.verdict)).toEqual(recordOf(slow).lines.map((line) => line.verdict));
  });
  test('is none when it was voided, which is shown with what was typed', () => {
    const slip = read(620, 13.4);
    const { lines } = recordOf([...slow.slice(0, 5), slip, event('event.voided/1', 621, { eventId: slip.id, reason: 'a digit was lost' })]);
    const [line] = lines.filter((one) => one.voided);
    expect([line?.temperature, line?.verdict, line?.says]).toEqual([13.4, null, 'Voided: does not count']);
    expect(lines.find((one) => one.what === 'correction')?.note).toBe(`${slip.id}: a digit was lost`);
  });
  test('goes by the rules of when the cooling began, whatever the kitchen switched to meanwhile', () => {
    const { verdicts } = recordOf(slow, { book: bookSince(['us-fda-fc2022', 0], ['au', 640]) });
    expect(verdicts.find((one) => one.purpose === 'Cooling')?.rule).toContain('Food Code');
  });
});

test('hot holding that is over keeps its verdict, and the check nobody made before it was carried on', () => {
  const hot = (minute: number, value: number) =>
    event('reading.taken/1', minute, {
      batchId: B,
      purpose: 'hotHold',
      reading: { value, unit: 'F', rawText: String(value) },
      heldS: null,
      packId: 'us-fda-fc2022',
      packVersion: 1,
    });
  const held = (...readings: StoredEvent[]) => [started(), heatOff(590), event('hold.started/1', 600, { batchId: B, placeId: 'well1' }), ...readings];
  const ofHolding = (events: readonly StoredEvent[]) =>
    recordOf(events)
      .verdicts.filter((one) => one.purpose === 'Hot hold')
      .map(({ verdict, says }) => [verdict, says]);
  expect(ofHolding(held(hot(610, 160), hot(700, 150), cooling(720)))).toEqual([['pass', 'Held at 135 °F (57 °C) or above.']]);
  const unread = held(hot(610, 160), cooling(900));
  expect(ofHolding(unread)).toEqual([['overdue', 'The last check before it was carried on was not made.']]);
  expect(recordOf(unread).lines.some((line) => line.what === 'missed')).toBe(true);
});

describe('what a probe read', () => {
  const events = () => [
    started(),
    heatOff(590),
    cooling(600),
    event('probe.placed/1', 600, { thermometerId: 'p1', batchId: B, purpose: 'cool' }),
    // From 150 °F by 1.2 °F a minute: below 135 between the 13th and 14th minute, at 70 after 67.
    ...Array.from({ length: 90 }, (_, index) => digest(601 + index, Number((150 - index * 1.2).toFixed(1)))),
  ];
  test('is in the record every tenth minute, and each one a verdict stands on', () => {
    const given = events();
    const { lines, verdicts } = recordOf(given, { nowMin: 700 });
    const probes = lines.filter((line) => line.what === 'probe');
    const minutes = probes.map((line) => Math.round((line.at - MIDNIGHT) / 60_000) - 601);
    expect([0, 10, 20, 30, 40, 50, 60, 70, 80].filter((minute) => !minutes.includes(minute))).toEqual([]);
    const proof = verdicts.find((one) => one.purpose === 'Cooling')?.proof ?? [];
    expect(proof.length).toBeGreaterThan(1);
    // Each line carries the id and hash of the digest that has its samples.
    expect(probes.every((line) => given.some((one) => one.id === line.eventId && one.hash === line.hash))).toBe(true);
    for (const one of proof) expect(probes.map((line) => line.takenAt.slice(11, 16).replace(/^0/, ''))).toContain(one.split(' ')[0]);
    expect(probes.length).toBeLessThan(20);
  });
  test('counts in its own verdict: the line that brought it below the limit has passed the stage', () => {
    const { lines } = recordOf(events(), { nowMin: 700 });
    const firstBelow = lines.filter((line) => line.what === 'probe').find((line) => (line.temperature ?? 99) <= 70);
    expect(firstBelow?.says).toContain('First stage passed.');
  });
  test('is late when its samples were, whenever its minute was closed', () => {
    const lateness = (late: boolean) => recordOf([...events().slice(0, 4), digest(601, 150, late)], { nowMin: 700 }).lines.map((line) => line.late);
    expect([lateness(false), lateness(true)]).toEqual([[false], [true]]);
  });
});

test('everything else that was logged is a line of its own, with who, what and why', () => {
  const { lines } = recordOf([
    event('place.read/1', 420, {
      equipmentId: 'walkin',
      reading: { value: 38, unit: 'F', rawText: '38' },
      thermometerId: null,
      offset: 0,
      note: 'door was open',
      rulesVersion: 1,
    }),
    event('item.read/1', 430, {
      purpose: 'receive',
      what: 'Clams',
      from: 'the harbour',
      reading: { value: 47, unit: 'F', rawText: '47' },
      thermometerId: null,
      offset: 0,
      accepted: false,
      note: 'too warm',
      rulesVersion: 1,
    }),
    event('thermometer.checked/1', 440, { thermometerId: 'p1', method: 'ice', reading: { value: 33.5, unit: 'F', rawText: '33.5' }, offset: 1.5, usable: true }),
    started(),
    event('decision.made/1', 700, { batchId: B, ruleId: 'us.cool.1', keep: false, reason: 'nobody can say' }),
    event('batch.used/1', 702, { batchId: B, intoBatchIds: ['minestrone.1', 'barley.1'] }),
    event('corrective.taken/1', 705, { batchId: B, ruleId: 'us.cool.1', action: 'discard', note: 'binned', volumeL: 17.5 }),
    event('lot.discarded/1', 710, { lotId: 'lot1', soupId: 'lentil', volumeL: 3, reason: 'past its date' }),
    event('note.made/1', 715, { batchId: null, text: 'not a line of the record' }),
  ]);
  expect(short(lines)).toEqual([
    ['place', null, ''],
    ['item', null, 'Clams from the harbour: refused'],
    ['thermometer', 'pass', 'Ice point: +1.5 °F, in use'],
    ['decision', null, 'Person in charge: not kept'],
    ['used', null, 'Gone into minestrone.1 and barley.1'],
    ['action', null, 'Discard'],
    ['discard', null, 'Discarded from stock: lot1'],
  ]);
  expect(lines.map((line) => line.note)).toEqual(['door was open', 'too warm', '', 'nobody can say', '', 'binned', 'past its date']);
  expect([lines[5]?.litres, lines[6]?.litres, lines[0]?.purpose]).toEqual([17.5, 3, demo.station.equipment.find((one) => one.id === 'walkin')?.name]);
});

describe('a signature', () => {
  const day = () => [started(), heatOff(590), cooling(600), read(601, 150)];
  const sign = (upToSeq: number, by = 'maren') => event('day.signed/1', 1100, { upToSeq, hash: 'hash', note: '' }, { by });
  test('holds as long as nothing is entered after it; a clock that a phone measured is no entry', () => {
    const events = [...day(), sign(count)];
    const measured = event('clock.measured/1', 1101, { offsetMs: 400 });
    expect([recordOf(events).signature?.holds, recordOf([...events, measured]).signature?.holds, recordOf([...events, read(1102, 60)]).signature?.holds]).toEqual([
      true,
      true,
      false,
    ]);
  });
  test('says when whoever signed took readings of that day themselves', () => {
    const events = day();
    expect([recordOf([...events, sign(count)]).signature?.recordedThemselves, recordOf([...events, sign(count, 'odell')]).signature?.recordedThemselves]).toEqual([true, false]);
  });
  test('is none where nobody signed', () => {
    expect(recordOf(day()).signature).toBeNull();
  });
});

test('what was entered long after it was taken is late', () => {
  const { lines } = recordOf([started(), heatOff(590), cooling(600), read(601, 150, 602), read(640, 120, 700)]);
  expect(lines.map((line) => line.late)).toEqual([false, true]);
});

test('a reading between the last good check of a thermometer and the one it failed is marked', () => {
  const with_ = (minute: number, value: number) =>
    event('reading.taken/2', minute, {
      batchId: B,
      purpose: 'cool',
      reading: { value, unit: 'F', rawText: String(value) },
      heldS: null,
      packId: 'us-fda-fc2022',
      packVersion: 1,
      rulesVersion: 1,
      pan: null,
      thermometerId: 'p1',
      offset: 0,
      doubt: null,
      lateReason: null,
    });
  const check = (minute: number, usable: boolean) => ({ at: addMinutes(MIDNIGHT, minute), by: 'maren', method: 'ice' as const, shown: 32, offset: 0, unit: 'F' as const, usable });
  const { lines } = recordOf([started(), cooling(600), with_(605, 150), with_(640, 120), with_(700, 100)], {
    thermometers: [{ thermometerId: 'p1', checks: [check(620, true), check(660, false)] }],
  });
  expect(lines.map((line) => line.suspect)).toEqual([false, true, false]);
});

test('a day nobody logged anything on is a record of nothing, with who decides', () => {
  const record = recordOf([]);
  expect([record.lines, record.verdicts, record.open, record.patterns]).toEqual([[], [], [], []]);
  expect(record.notice).toContain('Check with your local authority');
});
