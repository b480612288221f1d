import type { BatchStory, Cure, PlanDifference } from '@broth/core';
import { words } from '../index';

const names: words.Names = { soup: (id) => id, step: (_, id) => id, batch: (id) => id, resource: (id) => id, service: (id) => id };
const nothing: PlanDifference = { changes: [], lateMin: 0, washMin: 0, same: 0 };
const moved = (batchId: string, byMin: number, lateMin = 0, wasLateMin = 0, beginsByMin: number | null = null): PlanDifference['changes'][number] => ({
  kind: 'moved',
  batchId,
  byMin,
  readyMin: 600,
  lateMin,
  wasLateMin,
  beginsByMin,
});
const story = (some: Partial<BatchStory>): BatchStory => ({ batchId: 'Bean 1', slackMin: 0, binding: [], chance: null, ...some });
const cure = (some: Partial<Cure>): Cure => ({ whatIf: { kind: 'cook' }, lateMin: 20, unplaced: 2, places: 0, gainsMin: 0, ...some });

test.each([
  ['nothing', words.planDifference(nothing, names), 'Nothing else moved.'],
  [
    'the first three of many, and what it costs in all',
    words.planDifference({ changes: [moved('A', -20), moved('B', 5, 5), moved('C', 0, 0, 4), moved('D', 1)], lateMin: 1, washMin: 7, same: 2 }, names),
    'A: 20 min earlier; B: 5 min later, now 5 min late; C: as before, now in time; 1 more. In all: 1 min more late in all, 7 min more washing. 2 as they were.',
  ],
  [
    'one that begins much sooner than it is ready sooner, and one that is ready later and begins as it did',
    words.planDifference({ ...nothing, changes: [moved('A', -5, 0, 0, -129), moved('B', 40, 0, 0, 0)] }, names),
    'A: 5 min earlier, begins 2 h 09 earlier; B: 40 min later, begins as before. In all: nothing later than it was.',
  ],
  [
    'another kettle, one new, one gone, one without a place',
    words.planDifference(
      {
        ...nothing,
        lateMin: -70,
        washMin: -5,
        same: 1,
        changes: [
          { kind: 'vessel', batchId: 'A', fromId: 'k1', toId: 'Kettle 2' },
          { kind: 'added', batchId: 'B' },
          { kind: 'unplaced', batchId: 'C', name: 'Bean 2' },
        ],
      },
      names,
    ),
    'A goes to Kettle 2; B is new; Bean 2 finds no place. In all: 1 h 10 less late in all, 5 min less washing. 1 as it was.',
  ],
  [
    'begun sooner and later, ready as before',
    words.planDifference(
      {
        ...nothing,
        changes: [
          { kind: 'begins', batchId: 'A', byMin: -12 },
          { kind: 'begins', batchId: 'B', byMin: 5 },
        ],
      },
      names,
    ),
    'A begins 12 min earlier, ready as before; B begins 5 min later, ready as before. In all: nothing later than it was.',
  ],
])('a change to the plan: %s', (_, said, expected) => {
  expect(said).toBe(expected);
});

test.each([
  [[{ kind: 'unit', id: 'Kettle 1', byJobIds: ['Chowder 1'], fromMin: 500, toMin: 593 }], 'It cannot be ready sooner: Kettle 1 is taken until 9:53, wash and all (Chowder 1).'],
  [[{ kind: 'resource', id: 'hands', byJobIds: [], fromMin: 570, toMin: 593 }], 'It cannot be ready sooner: all hands are taken from 9:30 to 9:53.'],
  [[{ kind: 'excluded', id: 'The oven at 190 °C', byJobIds: [], fromMin: 570, toMin: 593 }], 'It cannot be ready sooner: The oven at 190 °C is in use until 9:53.'],
  [[{ kind: 'resource', id: 'The oven', byJobIds: [], fromMin: 570, toMin: 593 }], 'It cannot be ready sooner: The oven is full until 9:53.'],
  [
    [
      { kind: 'input', id: 'Stock 1', byJobIds: ['Stock 1'], fromMin: 0, toMin: 603 },
      { kind: 'release', id: 'x', byJobIds: [], fromMin: 0, toMin: 300 },
    ],
    'It cannot be ready sooner: Stock 1 must be made first, until 10:03 and nobody is there before 5:00.',
  ],
  [[{ kind: 'pin', id: 'Bean 1', byJobIds: [], fromMin: 600, toMin: 600 }], 'It cannot be ready sooner: it was put at 10:00 by hand.'],
  [[], null],
] as const)('why not sooner: %j', (binding, expected) => {
  expect(words.binding(story({ binding }), names)).toBe(expected);
});

test.each([
  [0, 'No slack: a minute lost here is lost at service.'],
  [14, '14 min of slack before something is late.'],
  [120, 'More than 2 h 00 of slack.'],
])('%i minutes of slack', (slackMin, expected) => {
  expect(words.slack(story({ slackMin }), 120)).toBe(expected);
});

test.each([
  [1, 'In time nearly always'],
  [0.976, 'In time nearly always'],
  [0.45, 'In time about 9 days in twenty'],
  [0.03, 'In time about one day in twenty'],
  [0, 'Hardly ever in time'],
])('a chance of %f', (share, expected) => {
  expect(words.chance(share)).toBe(expected);
});

test.each([
  [cure({ whatIf: { kind: 'equipment', likeId: 'Kettle 1' }, lateMin: 5, gainsMin: 15 }), 'One more like Kettle 1: 15 min less late, still 5 min late in all.'],
  [cure({ whatIf: { kind: 'without', soupId: 'Bean' }, lateMin: 0, gainsMin: 20 }), 'Without Bean: 20 min less late, everything in time.'],
  [cure({ whatIf: { kind: 'letGo', batchId: 'Bean 1' }, lateMin: 0, gainsMin: 20 }), 'Bean 1 let go from where it was put: 20 min less late, everything in time.'],
  [cure({ whatIf: { kind: 'split', split: { soupId: 'Bean', batches: 2 } }, lateMin: 3, gainsMin: 7 }), 'Bean in 2 batches: 7 min less late, still 3 min late in all.'],
  [cure({ whatIf: { kind: 'cutting' }, lateMin: 0, gainsMin: 9 }), 'Cutting that may be put down and taken up again: 9 min less late, everything in time.'],
  [cure({ places: 2, unplaced: 0 }), 'One more cook all day: 2 more batches find a place.'],
  [cure({ places: 1, unplaced: 1 }), 'One more cook all day: one more batch finds a place, 1 still without.'],
])('what would help: %j', (given, expected) => {
  expect(words.cure(given, names)).toBe(expected);
});

test('cutting with a pause in it says when somebody is at it; without one, nothing', () => {
  expect(words.goes([['8:10', '8:40']])).toBeNull();
  expect(
    words.goes([
      ['8:10', '8:30'],
      ['9:00', '9:20'],
      ['10:00', '10:10'],
    ]),
  ).toBe('In 3 goes: 8:10 to 8:30, 9:00 to 9:20, and 10:00 to 10:10');
});

test('what would not help is told in one sentence', () => {
  const given = [cure({}), cure({ whatIf: { kind: 'fasterWash', fullWashMin: 6, rinseMin: 3 } })];
  expect(words.noCures(given, names)).toBe('No measurable effect: One more cook all day; Washes in half the time (6 min full, 3 min rinse).');
  expect(words.noCures([], names)).toBeNull();
});
