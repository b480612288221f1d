import type { Equipment } from '../batch/index';
import { placesOf, readPlace } from '../batch/index';
import { makeSoup, makeStep } from '../soup/index';
import type { Soup, Step } from '../soup/index';
import { stationWith } from '../testing/station';
import { checkDayPlan, curesOf, planDay, storyOf } from './index';
import type { DayInput, DayPlan } from './index';

const lasting = (lowMin: number): Step['duration'] => ({ lowMin, highMin: lowMin, perLitreMin: 0 });
const step = (id: string, some: Partial<Step> & Pick<Step, 'phase'>): Step =>
  makeStep({ id, name: id, attention: 'none', place: { kind: 'bench' }, duration: lasting(30), ...some });
const roasted = (id: string, temperatureC: number | null): Soup =>
  makeSoup({ id, name: id, version: 1, served: 'cold', steps: [step('roast', { phase: 'roast', place: { kind: 'oven', temperatureC } })] });
const chilled = (id: string): Soup => makeSoup({ id, name: id, version: 1, served: 'cold', steps: [step('chill', { phase: 'cool', duration: lasting(60) })] });

const oven = (id: string, trays: number): Equipment => ({ kind: 'oven', id, name: id, trays, inUse: true });
const place = (id: string, capacityL: number, ambientC: number, inUse = true): Equipment => ({ kind: 'cooling', id, name: id, capacityL, ambientC, inUse });
const dayWith = (equipment: readonly Equipment[], litres: Readonly<Record<string, number>>, soups: readonly Soup[]): DayInput => ({
  date: '2026-11-25',
  nowMin: 0,
  soups,
  station: stationWith({
    equipment,
    people: [{ id: 'lead', name: 'Lead', role: 'lead', shift: { fromMin: 300, toMin: 800 } }],
    services: [{ id: 'midday', name: 'Midday', startMin: 690, endMin: 840 }],
  }),
  pars: Object.entries(litres).map(([soupId, parL]) => ({ soupId, parL, serviceId: 'midday' })),
  lots: [],
  started: [],
  dateMarkLastDay: 7,
});
/** When each soup's only step is and where, once the checker has agreed. */
function timesOf(input: DayInput): Readonly<Record<string, readonly [startMin: number, endMin: number, ...places: string[]]>> {
  const plan: DayPlan = planDay(input, { seed: 1, moves: 50 });
  expect(checkDayPlan(input, plan)).toEqual([]);
  return Object.fromEntries(
    plan.batches.map(({ soupId, steps: [only] }) => [soupId, [only?.startMin ?? 0, only?.endMin ?? 0, ...placesOf(only ?? { uses: [] }, input.station).map(({ id }) => id)]]),
  );
}
const apart = ([from, to]: readonly [number, number, ...string[]], [otherFrom, otherTo]: readonly [number, number, ...string[]]): boolean => to <= otherFrom || otherTo <= from;

describe('an oven', () => {
  const soups = [roasted('beet', 190), roasted('squash', 190), roasted('carrot', 220), roasted('any', null)];
  test('takes what wants the same heat at once, as far as its trays go', () => {
    const { beet, squash } = timesOf(dayWith([oven('one', 4)], { beet: 8, squash: 8 }, soups));
    expect([beet, squash]).toEqual([
      [640, 670, 'one'],
      [640, 670, 'one'],
    ]);
    const full = timesOf(dayWith([oven('one', 4)], { beet: 12, squash: 8 }, soups));
    expect(apart(full['beet']!, full['squash']!)).toBe(true);
  });
  test('is at one heat at a time; of what no card says, nothing is assumed', () => {
    const heats = timesOf(dayWith([oven('one', 4)], { beet: 4, carrot: 4, any: 4 }, soups));
    expect([apart(heats['beet']!, heats['carrot']!), apart(heats['beet']!, heats['any']!), apart(heats['carrot']!, heats['any']!)]).toEqual([true, true, true]);
  });
  test('that is at another heat is what is waited for, and one more of it would help', () => {
    // Both heats are wanted of the one oven in the same half hour.
    const early = dayWith([oven('one', 4)], { beet: 4, carrot: 4 }, soups);
    const input = { ...early, station: { ...early.station, services: [{ id: 'midday', name: 'Midday', startMin: 360, endMin: 840 }] } };
    const plan = planDay(input, { seed: 1, moves: 50 });
    const late = plan.batches.find((batch) => batch.lateMin > 0);
    expect([late?.lateMin, plan.findings.find(({ code }) => code === 'plan.late')]).toEqual([
      20,
      { code: 'plan.late', batchId: late?.id, lateMin: 20, waitedFor: 'one', pinned: false },
    ]);
    expect(storyOf(input, plan).batches.find(({ batchId }) => batchId === late?.id)?.binding).toMatchObject([{ kind: 'excluded', byJobIds: [plan.batches[0]?.id] }]);
    expect([...curesOf(input, plan, { seed: 1, moves: 50 })].at(-1)?.cures[0]).toMatchObject({ whatIf: { kind: 'equipment', likeId: 'one' }, lateMin: 0, gainsMin: 20 });
  });
  test('a second one takes the other heat', () => {
    const { beet, carrot } = timesOf(dayWith([oven('one', 4), oven('two', 4)], { beet: 4, carrot: 4 }, soups));
    expect([beet?.slice(0, 2), carrot?.slice(0, 2), new Set([beet?.[2], carrot?.[2]])]).toEqual([[640, 670], [640, 670], new Set(['one', 'two'])]);
  });
  test('what no oven takes alone goes into both, the larger first', () => {
    expect(timesOf(dayWith([oven('small', 2), oven('large', 4)], { beet: 20 }, soups))['beet']).toEqual([640, 670, 'large', 'small']);
  });
  test('is called by its id and heat', () => {
    expect([readPlace('one@190'), readPlace('one@'), readPlace('icebath')]).toEqual([
      { equipmentId: 'one', temperatureC: 190 },
      { equipmentId: 'one', temperatureC: null },
      { equipmentId: 'icebath', temperatureC: null },
    ]);
  });
});

describe('a place to cool', () => {
  const soups = [chilled('gazpacho'), chilled('cucumber')];
  const [bath, walkin] = [place('bath', 24, 0), place('walkin', 60, 3)];
  test('holds so many litres at once', () => {
    const both = timesOf(dayWith([bath], { gazpacho: 12, cucumber: 12 }, soups));
    expect([both['gazpacho'], both['cucumber']]).toEqual([
      [610, 670, 'bath'],
      [610, 670, 'bath'],
    ]);
    const one = timesOf(dayWith([bath], { gazpacho: 14, cucumber: 12 }, soups));
    expect(apart(one['gazpacho']!, one['cucumber']!)).toBe(true);
  });
  test('is the coldest that holds all of it: nothing warm goes into the walk-in while the bath would do', () => {
    const { gazpacho, cucumber } = timesOf(dayWith([walkin, bath], { gazpacho: 20, cucumber: 30 }, soups));
    expect([gazpacho?.[2], cucumber?.[2]]).toEqual(['bath', 'walkin']);
  });
  test('that is out of use is named, and the soup not planned', () => {
    const plan = planDay(dayWith([place('bath', 24, 0, false)], { gazpacho: 10 }, soups), { seed: 1, moves: 0 });
    expect([plan.batches, plan.findings]).toEqual([[], [{ code: 'station.lacks', soupId: 'gazpacho', stepId: 'chill', lacks: 'cooling' }]]);
  });
});
