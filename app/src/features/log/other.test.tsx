import { act, fireEvent, render, screen } from '@testing-library/react';
import { addMinutes, makeSoup } from '@broth/core';
import type { DayEvent, Station } from '@broth/core';
import type { DayView, KitchenBook } from '@broth/contract';
import { DEFAULT_PACK, RULE_PACKS, ruleSet } from '@broth/core/packs';
import { useKitchen } from '../../state/kitchen';
import type { NewEvent } from '../../state/kitchen';
import { usePreferences } from '../../state/preferences';
import { useDay } from '../../state/useDay';
import { ThermometersScreen } from '../record/ThermometersScreen';
import { BatchLog } from './BatchLog';
import { OtherScreen } from './OtherScreen';
import { PastDate } from './PastDate';

jest.mock('expo-router', () => ({ useRouter: () => ({ push: () => undefined, canGoBack: () => false, replace: () => undefined }), usePathname: () => '/log' }));

const DAY = '2026-11-25';
const MIDNIGHT = Date.parse(`${DAY}T00:00:00Z`);
const B = `${DAY}.beet.1`;
const station: Station = {
  equipment: [
    { kind: 'vessel', id: 'k1', name: 'Kettle 1', capacityL: 30, minFillL: 5, workingMaxL: 25, inUse: true, powerKw: 9 },
    { kind: 'well', id: 'w1', name: 'Well 1', capacityL: 10, inUse: true },
    { kind: 'cooling', id: 'walkin', name: 'Walk-in', capacityL: 90, ambientC: 3, inUse: true },
    { kind: 'cooling', id: 'bath', name: 'Ice bath', capacityL: 20, ambientC: 0, inUse: true },
  ],
  people: [{ id: 'lead', name: 'Maren Oake', role: 'lead', shift: { fromMin: 0, toMin: 1400 } }],
  services: [],
  rinseMin: 5,
  fullWashMin: 12,
  readyLeadMin: 20,
  aimChance: null,
  laterBatches: false,
  altitudeM: 0,
  thermometers: [
    { id: 'red', name: 'Red probe', unit: 'F', kind: 'hand', inUse: true },
    { id: 'p1', name: 'Probe 1', unit: 'F', kind: 'probe', inUse: true },
  ],
};
/** The default rules with the four hours instead of temperature switched on, as a kitchen has it that has written them down. */
const rules = RULE_PACKS.filter((pack) => pack.id === DEFAULT_PACK).map((pack) => ({
  since: 0,
  by: '',
  set: ruleSet(pack, { packId: pack.id, changes: [{ ruleId: 'us.tphc.4', on: true, instead: null, reason: 'written procedure' }], added: [] }, 1),
}));
const beet = makeSoup({ id: 'beet', name: 'Beetroot' });
let count = 0;
const event = <Kind extends DayEvent['kind']>(kind: Kind, minute: number, data: Extract<DayEvent, { kind: Kind }>['data']): DayEvent =>
  ({ id: `e${String((count += 1))}`, kind, day: DAY, at: addMinutes(MIDNIGHT, minute), by: 'lead', device: 'd', data }) as DayEvent;
const started = (): DayEvent => event('batch.started/1', 400, { batchId: B, soupId: 'beet', soupVersion: 1, name: 'Beetroot 1', ordinal: 1, volumeL: 12, vesselId: 'k1' });
const check = (shown: number, offset: number, usable = true): DayEvent =>
  event('thermometer.checked/1', 300, { thermometerId: 'red', method: 'ice', reading: { value: shown, unit: 'F', rawText: String(shown) }, offset, usable });
const read = (minute: number, value: number, purpose: 'cool' | 'coldHold' | 'reheat' | 'hotHold', heldS: number | null = null): DayEvent =>
  event('reading.taken/1', minute, { batchId: B, purpose, reading: { value, unit: 'F', rawText: String(value) }, heldS, packId: 'us-fda-fc2022', packVersion: 1 });

const recorded: NewEvent[] = [];
function open(events: readonly DayEvent[], lots: DayView['lots'] = []): void {
  recorded.length = 0;
  usePreferences.setState({ who: 'lead' });
  useKitchen.setState({
    book: {
      kitchen: { id: 'k', name: 'K', place: '', timeZone: 'UTC', temperatureUnit: 'F', invented: true },
      soups: [beet],
      station,
      rules,
      thermometers: [],
      today: DAY,
      suggestedDay: DAY,
      now: 0,
    } as unknown as KitchenBook,
    day: { date: DAY, midnight: MIDNIGHT, pars: [], lots, plan: null, events, earlierSoups: [], lastSeq: 0 } as unknown as DayView,
    date: DAY,
    outbox: [],
    clockOffsetMs: 0,
    record: (some) => (recorded.push(...some), []),
  });
}
function Batch() {
  const day = useDay();
  const batch = day?.state.batches[B];
  return day === null || batch === undefined ? null : <BatchLog day={day} batch={batch} />;
}
function Past() {
  const day = useDay();
  return day === null ? null : <PastDate day={day} />;
}
const press = (name: string | RegExp): void => {
  act(() => {
    fireEvent.click(screen.getByRole('button', { name }));
  });
};
const pick = (name: string): void => {
  act(() => {
    fireEvent.click(screen.getByRole('radio', { name }));
  });
};
const fill = (name: string, value: string): void => {
  fireEvent.change(screen.getByRole('textbox', { name }), { target: { value } });
};
const type = (digits: string): void => {
  for (const digit of digits) press(digit === '.' ? 'Point' : digit);
};

beforeAll(() => {
  jest.useFakeTimers({ now: addMinutes(MIDNIGHT, 900) });
});
afterAll(() => {
  jest.useRealTimers();
});

describe('a temperature that is of no batch', () => {
  test('a cold room at its limit is logged; above it says what to look at', () => {
    open([]);
    render(<OtherScreen />);
    type('41');
    press('Log 41 °F for Walk-in');
    expect(screen.getByText('Walk-in: logged.')).toBeTruthy();
    type('42');
    press('Log 42 °F for Walk-in');
    expect(screen.getByText(/^Walk-in is above 41 °F \(5 °C\)\. Check door, load and thermostat/)).toBeTruthy();
    expect(recorded.map((one) => [one.kind, one.kind === 'place.read/1' ? one.data.reading.value : null])).toEqual([
      ['place.read/1', 41],
      ['place.read/1', 42],
    ]);
  });
  test('counts less what the thermometer shows too much: one that shows too little is not taken at its word', () => {
    open([check(30.5, -1.5)]);
    render(<OtherScreen />);
    type('40');
    press('Log 40 °F for Walk-in');
    // It shows 1.5 °F too little: the room is at 41.5 °F.
    expect(screen.getByText(/^Walk-in is above 41 °F/)).toBeTruthy();
    expect(recorded).toMatchObject([{ kind: 'place.read/1', data: { reading: { value: 40 }, thermometerId: 'red', offset: -1.5 } }]);
  });
  test('a delivery needs its name, and one that is too warm is only accepted with a reason', () => {
    open([]);
    render(<OtherScreen />);
    pick('A delivery');
    expect(screen.getByText('Say what it is first.')).toBeTruthy();
    fill('What is it', 'Clams');
    fill('From whom', 'the harbour');
    type('47');
    press('Log 47 °F for Clams');
    expect([recorded.length, screen.getByText('Clams: 47 °F, above 41 °F (5 °C)').textContent]).toEqual([0, 'Clams: 47 °F, above 41 °F (5 °C)']);
    press('Accept it all the same: say why in the note first');
    expect(recorded).toEqual([]);
    press('Refuse');
    expect(recorded).toMatchObject([{ kind: 'item.read/1', data: { purpose: 'receive', what: 'Clams', from: 'the harbour', accepted: false } }]);
    expect(screen.getByText('Clams: refused, logged.')).toBeTruthy();
  });
});

describe('stock past its date', () => {
  const lot = { id: 'lot1', soupId: 'beet', volumeL: 3, state: 'chilled', preparedOn: '2026-11-18', frozenDays: 0 } as const;
  test('is thrown away with litres and a reason, and then is none any more', () => {
    open([], [lot]);
    render(<Past />);
    expect(screen.getByText('Beetroot: 3 L past its date')).toBeTruthy();
    press('Discard Beetroot past its date');
    fill('Why', '');
    press('3 L away');
    expect(recorded).toEqual([]);
    fill('Why', 'nobody used it');
    press('3 L away');
    expect(recorded).toEqual([{ kind: 'lot.discarded/1', data: { lotId: 'lot1', soupId: 'beet', volumeL: 3, reason: 'nobody used it' } }]);
  });
  test('the last day itself is not past it; frozen stock waits; what is gone is not asked for again', () => {
    const lots = [
      { ...lot, id: 'a', preparedOn: '2026-11-19' },
      { ...lot, id: 'b', state: 'frozen' as const },
      { ...lot, id: 'c' },
    ];
    open([event('lot.discarded/1', 500, { lotId: 'c', soupId: 'beet', volumeL: 3, reason: 'past' })], lots);
    render(<Past />);
    expect(screen.queryByText(/past its date/)).toBeNull();
  });
});

describe('where a batch goes next', () => {
  const cooled = (): DayEvent[] => [
    started(),
    event('batch.finished/1', 500, { batchId: B, volumeOutL: 11.5 }),
    event('cooling.started/1', 505, { batchId: B, placeId: 'bath', ambientC: 0 }),
    read(505, 140, 'cool'),
    read(510, 134, 'cool'),
    read(600, 69, 'cool'),
  ];
  test('into the cold only when every stage has passed; there it may be heated again', () => {
    open(cooled());
    const { unmount } = render(<Batch />);
    expect(screen.queryByRole('button', { name: 'Into cold hold' })).toBeNull();
    unmount();
    open([...cooled(), read(800, 41, 'cool'), event('cold.stored/2', 805, { batchId: B, volumeL: 10 }), read(806, 40, 'coldHold')]);
    render(<Batch />);
    press('Start reheating');
    expect(recorded).toEqual([{ kind: 'reheat.started/1', data: { batchId: B } }]);
  });
  test('to the well only when the reheat is proven', () => {
    const reheating = [...cooled(), read(800, 41, 'cool'), event('cold.stored/2', 805, { batchId: B, volumeL: 10 }), event('reheat.started/1', 830, { batchId: B })];
    open([...reheating, read(880, 160, 'reheat')]);
    const { unmount } = render(<Batch />);
    expect(screen.queryByRole('button', { name: 'Hold hot in Well 1' })).toBeNull();
    unmount();
    open([...reheating, read(880, 166, 'reheat', 15)]);
    render(<Batch />);
    press('Hold hot in Well 1');
    expect(recorded).toEqual([{ kind: 'hold.started/1', data: { batchId: B, placeId: 'w1' } }]);
  });
  test('how long the kettle takes is said, and whether that is in time', () => {
    open([...cooled(), read(800, 41, 'cool'), event('cold.stored/2', 805, { batchId: B, volumeL: 10 })]);
    render(<Batch />);
    // 11.5 L from 5 to 74 °C are 11.845 kg x 4 kJ x 69 K at 9 kW: between ten and fifteen minutes by the usual efficiency.
    expect(screen.getByText(/^Kettle 1: about \d+ min$/)).toBeTruthy();
    expect(screen.getByText(/Never in the well: it takes hours\.$/)).toBeTruthy();
  });
  test('ice is stirred in with its kilograms, and what it does to the soup is said', () => {
    open(cooled());
    render(<Batch />);
    press('Ice into the soup');
    expect(screen.getByText(/of drinking-water ice stirred in would do it at once\. It adds/)).toBeTruthy();
    press(/kg of ice is in$/);
    expect(recorded[0]?.kind).toBe('ice.added/1');
  });
  test('a probe goes into it for what it is at, and comes out again', () => {
    open(cooled());
    const { unmount } = render(<Batch />);
    press('Probe 1 goes into it');
    expect(recorded).toEqual([{ kind: 'probe.placed/1', data: { thermometerId: 'p1', batchId: B, purpose: 'cool' } }]);
    unmount();
    open([...cooled(), event('probe.placed/1', 700, { thermometerId: 'p1', batchId: B, purpose: 'cool' })]);
    render(<Batch />);
    press('Probe 1 is out of it');
    expect(recorded).toEqual([{ kind: 'probe.lifted/1', data: { thermometerId: 'p1' } }]);
  });
  test('out by time is asked for with its rule, and there is no way back', () => {
    const held = [
      started(),
      event('batch.finished/1', 500, { batchId: B, volumeOutL: 11.5 }),
      event('hold.started/1', 505, { batchId: B, placeId: 'w1' }),
      read(880, 150, 'hotHold'),
    ];
    open(held);
    const { unmount } = render(<Batch />);
    press('Time instead of temperature');
    expect(screen.getByText(/^Out of temperature control within 4 h, then used or discarded/)).toBeTruthy();
    press('Take it out by time');
    const [out] = recorded;
    expect(out?.kind).toBe('timeControl.started/1');
    unmount();
    open([...held, event('timeControl.started/1', 881, { batchId: B, ruleId: out?.kind === 'timeControl.started/1' ? out.data.ruleId : '' })]);
    render(<Batch />);
    expect(screen.queryByRole('button', { name: /Cool it|Start reheating|Hold hot/ })).toBeNull();
    press('All of it is used');
    expect(recorded).toEqual([{ kind: 'timeControl.ended/1', data: { batchId: B } }]);
  });
});

describe('a thermometer in ice water', () => {
  const checking = (shows: string): void => {
    open([]);
    render(<ThermometersScreen />);
    press('Check Red probe');
    fill('What Red probe shows', shows);
  };
  test('within the tolerance what it is off is taken off every reading', () => {
    checking('33.5');
    expect(screen.getByText('1.5 °F off, within ±2. It is taken off every reading.')).toBeTruthy();
    press('Log the check of Red probe');
    expect(recorded).toMatchObject([{ kind: 'thermometer.checked/1', data: { thermometerId: 'red', method: 'ice', offset: 1.5, usable: true } }]);
  });
  test('beyond it the thermometer is out of use, and what it read is looked through', () => {
    checking('35');
    expect(screen.getByText(/^3 °F off, more than ±2\. Out of use: take another one/)).toBeTruthy();
    press('Log the check of Red probe');
    expect(recorded).toMatchObject([{ kind: 'thermometer.checked/1', data: { usable: false } }]);
  });
  test('what is no number is said, and cannot be logged', () => {
    checking('cold');
    expect(screen.getByText('Type digits, like 32.5.')).toBeTruthy();
    press('Log the check of Red probe');
    expect(recorded).toEqual([]);
  });
});
