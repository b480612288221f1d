import { act, render } from '@testing-library/react';
import { addMinutes, makeSoup, makeStep } from '@broth/core';
import { ruleVersions } from '../testing/rules';
import type { DayEvent } from '@broth/core';
import type { DayView, KitchenBook } from '@broth/contract';
import { useKitchen } from './kitchen';
import { usePreferences } from './preferences';
import { useAlarms } from './useAlarms';

const DAY = '2026-11-25';
const MIDNIGHT = Date.parse(`${DAY}T00:00:00Z`);
const B = `${DAY}.beet.1`;
const shaken: unknown[] = [];
const told: string[] = [];

const Told = Object.assign(
  function Told(_title: string, { body }: { readonly body: string }): void {
    told.push(body);
  },
  { permission: 'granted' },
);

function Mounted() {
  useAlarms();
  return null;
}

beforeAll(() => {
  jest.useFakeTimers({ now: addMinutes(MIDNIGHT, 540) });
  Object.defineProperty(navigator, 'vibrate', { value: (pattern: unknown) => shaken.push(pattern), configurable: true });
  Object.defineProperty(window, 'Notification', { value: Told, configurable: true });
});
afterAll(() => {
  jest.useRealTimers();
});
beforeEach(() => {
  shaken.length = 0;
  told.length = 0;
  jest.setSystemTime(addMinutes(MIDNIGHT, 540));
  usePreferences.setState({ silent: false, who: 'lead' });
});

const event = (kind: DayEvent['kind'], minute: number, data: unknown): DayEvent =>
  ({ id: `${kind} ${String(minute)}`, kind, day: DAY, at: addMinutes(MIDNIGHT, minute), by: 'lead', device: 'd', data }) as DayEvent;

function open(events: readonly DayEvent[]): void {
  const soup = makeSoup({ id: 'beet', name: 'Beetroot', steps: [makeStep({ id: 'cook', phase: 'simmer', name: 'Cook', duration: { lowMin: 20, highMin: 30, perLitreMin: 0 } })] });
  useKitchen.setState({
    book: {
      kitchen: { id: 'k', timeZone: 'UTC', temperatureUnit: 'F' },
      soups: [soup],
      station: { equipment: [], people: [{ id: 'lead', name: 'Lead', role: 'lead', shift: { fromMin: 0, toMin: 1400 } }], services: [] },
      rules: ruleVersions,
      thermometers: [],
    } as unknown as KitchenBook,
    day: { date: DAY, midnight: MIDNIGHT, pars: [], lots: [], plan: null, events, earlierSoups: [], lastSeq: 0 } as unknown as DayView,
    date: DAY,
    outbox: [],
    clockOffsetMs: 0,
  });
  render(<Mounted />);
  window.dispatchEvent(new Event('pointerdown'));
}
const pass = async (minutes: number): Promise<void> => {
  for (let step = 0; step < minutes * 4; step += 1)
    await act(async () => {
      await jest.advanceTimersByTimeAsync(15_000);
    });
};
const cooking = (): readonly DayEvent[] => [
  event('batch.started/1', 539, { batchId: B, soupId: 'beet', soupVersion: 1, name: 'Beetroot 1', ordinal: 1, volumeL: 12, vesselId: 'k1' }),
  event('step.started/1', 539, { batchId: B, stepId: 'cook' }),
];

describe('alarms of a phone', () => {
  test('shake once at the look and once at the limit, longer', async () => {
    open(cooking());
    await pass(15);
    expect(shaken).toEqual([]);
    await pass(5);
    expect(shaken).toEqual([[200, 100, 200]]);
    await pass(8);
    expect(shaken.length).toBe(1);
    await pass(3);
    expect(shaken.at(-1)).toEqual([200, 100, 200, 100, 200]);
  });
  test('what was up before the page was opened is shown, but does not sound again', async () => {
    open([event('timer.set/1', 500, { name: 'Bread oven', durationS: 60, batchId: null })]);
    await pass(1);
    expect(shaken).toEqual([]);
  });
  test('silent is silent', async () => {
    usePreferences.setState({ silent: true });
    open(cooking());
    await pass(40);
    expect(shaken).toEqual([]);
  });
  test('with another page in front it is told in words, and not with this one in front', async () => {
    const timer = event('timer.set/1', 539, { name: 'Bread oven', durationS: 180, batchId: null });
    open([timer]);
    await pass(3);
    expect(told).toEqual([]);
    Object.defineProperty(document, 'visibilityState', { value: 'hidden', configurable: true });
    open([{ ...timer, id: 'another', at: addMinutes(MIDNIGHT, 542) }]);
    await pass(4);
    expect(told.some((text) => text === 'Bread oven: the timer is up.')).toBe(true);
    Object.defineProperty(document, 'visibilityState', { value: 'visible', configurable: true });
  });
});
