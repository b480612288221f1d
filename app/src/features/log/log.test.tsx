import { act, fireEvent, render, screen, within } from '@testing-library/react';
import { addMinutes, foldDay } from '@broth/core';
import type { DayEvent, Reading } from '@broth/core';
import type { EntryContext } from '@broth/core/advice';
import { ruleVersions, rules, rulesNow } from '../../testing/rules';
import type { OpenDay } from '../../state/useDay';
import { useKitchen } from '../../state/kitchen';
import type { NewEvent } from '../../state/kitchen';
import { BatchLog } from './BatchLog';
import { ReadingPad } from './ReadingPad';
import type { Entered } from './ReadingPad';

const press = (name: string | RegExp): void => {
  fireEvent.click(screen.getByRole('button', { name }));
};
const type = (digits: string): void => {
  for (const digit of digits) press(digit === '.' ? 'Point' : digit);
};

describe('the reading pad', () => {
  const logged: (readonly [Reading, number | null])[] = [];
  let last: Entered | null = null;
  const pad = (purpose: EntryContext['purpose'], some: Partial<Parameters<typeof ReadingPad>[0]> = {}): void => {
    logged.length = 0;
    last = null;
    const onLog = (entered: Entered): void => {
      last = entered;
      logged.push([entered.reading, entered.heldS]);
    };
    render(
      <ReadingPad
        name="Lentil 1"
        kitchenUnit="F"
        point="warmest"
        context={{ purpose }}
        now={1_764_000_000_000}
        thermometers={[]}
        holdS={purpose === 'reheat' ? 15 : 0}
        onLog={onLog}
        {...some}
      />,
    );
  };
  test('the digits and one tap', () => {
    pad('cool');
    type('88');
    press('Log 88 °F for Lentil 1');
    expect(logged).toEqual([[{ value: 88, unit: 'F', rawText: '88' }, null]]);
  });
  test('the other unit is always in sight, and says so before anything is logged', () => {
    pad('cool');
    type('88');
    expect(screen.getByText('is 31.1 °C')).toBeTruthy();
    fireEvent.click(screen.getByRole('radio', { name: '°C' }));
    expect(screen.getByText('is 190.4 °F')).toBeTruthy();
  });
  test('nothing can be logged before a digit is typed', () => {
    pad('cool');
    press(/type the digits first/);
    expect(logged).toEqual([]);
  });
  test('what cannot be is said, not logged, and stays typed', () => {
    pad('cool');
    type('9999');
    press('Log 9999 °F for Lentil 1');
    expect([logged, within(screen.getByRole('alert')).getByText(/9999 °F cannot be right/).textContent]).toEqual([
      [],
      '9999 °F cannot be right: no probe shows less than -49 °F or more than 572 °F. Check the digits and the unit.',
    ]);
    expect(screen.getByRole('button', { name: 'Log 9999 °F for Lentil 1' })).toBeTruthy();
  });
  test('a missing point is asked about, and the digits as typed cannot be kept', () => {
    pad('hotHold');
    type('1355');
    press('Log 1355 °F for Lentil 1');
    expect(screen.queryByRole('button', { name: 'It is 1355 °F' })).toBeNull();
    press('It is 135.5 °F');
    expect(logged).toEqual([[{ value: 135.5, unit: 'F', rawText: '1355' }, null]]);
  });
  test('what was read earlier says when, and after a quarter of an hour why', () => {
    pad('hotHold');
    type('150');
    press('It was read earlier than now');
    for (let count = 0; count < 4; count += 1) press('5 min more, ago');
    press(/^Log 150 °F/);
    expect(logged).toEqual([]);
    fireEvent.change(screen.getByRole('textbox', { name: 'Why it is entered only now' }), { target: { value: 'phone was flat' } });
    press(/^Log 150 °F/);
    expect([last?.minutesAgo, last?.lateReason]).toEqual([20, 'phone was flat']);
  });
  test('which pan and which thermometer go with it', () => {
    pad('cool', { pans: 3, thermometers: [{ id: 'red', label: 'Red probe', unit: 'F', offset: 0.5 }] });
    fireEvent.click(screen.getByRole('radio', { name: 'Pan 2' }));
    type('88');
    press('Log 88 °F for Lentil 1');
    expect([last?.pan, last?.thermometer?.id]).toEqual([2, 'red']);
  });
  test('a unit slip is asked about; the answer is logged with what was typed', () => {
    pad('hotHold');
    type('65');
    press('Log 65 °F for Lentil 1');
    expect(screen.getByText(/Did the probe say 65 °C, which is 149 °F\?/)).toBeTruthy();
    press('It is 65 °C');
    expect(logged).toEqual([[{ value: 65, unit: 'C', rawText: '65' }, null]]);
  });
  test('whoever insists is believed', () => {
    pad('hotHold');
    type('65');
    press('Log 65 °F for Lentil 1');
    press('It is 65 °F');
    expect(logged.map(([reading]) => reading.unit)).toEqual(['F']);
  });
  test('a reheat can be logged with its fifteen seconds', () => {
    pad('reheat');
    type('166');
    press('Log 166 °F, held for 15 s');
    expect(logged).toEqual([[{ value: 166, unit: 'F', rawText: '166' }, 15]]);
  });
  test('the keyboard types too', () => {
    pad('cool');
    act(() => {
      for (const key of ['9', '8', ',', '6', 'Backspace', '5', 'x']) window.dispatchEvent(new KeyboardEvent('keydown', { key }));
    });
    expect(screen.getByRole('button', { name: 'Log 98.5 °F for Lentil 1' })).toBeTruthy();
  });
});

describe("a batch's log", () => {
  const T0 = Date.parse('2026-11-25T10:00:00Z');
  beforeAll(() => {
    jest.useFakeTimers({ now: addMinutes(T0, 480) });
  });
  afterAll(() => {
    jest.useRealTimers();
  });
  const B = '2026-11-25.beet.1';
  const recorded: NewEvent[] = [];
  let count = 0;
  const event = <Kind extends DayEvent['kind']>(kind: Kind, minute: number, data: Extract<DayEvent, { kind: Kind }>['data']): DayEvent =>
    ({ id: `e${String((count += 1))}`, kind, day: '2026-11-25', at: addMinutes(T0, minute), by: 'lead', device: 'd', data }) as DayEvent;
  const reading = (minute: number, value: number): DayEvent =>
    event('reading.taken/1', minute, { batchId: B, purpose: 'cool', reading: { value, unit: 'F', rawText: '' }, heldS: null, packId: 'us-fda-fc2022', packVersion: 1 });
  function show(...readings: DayEvent[]): void {
    recorded.length = 0;
    useKitchen.setState({ record: (events) => (recorded.push(...events), []) });
    const state = foldDay([
      event('batch.started/1', -60, { batchId: B, soupId: 'beet', soupVersion: 1, name: 'Beet 1', ordinal: 1, volumeL: 12, vesselId: null }),
      event('batch.finished/1', -5, { batchId: B, volumeOutL: 11.5 }),
      event('cooling.started/1', 0, { batchId: B, placeId: 'bath', ambientC: 0 }),
      ...readings,
    ]);
    const bath = { kind: 'cooling', id: 'bath', name: 'Ice bath', capacityL: 20, ambientC: 0, inUse: true } as const;
    const walkin = { ...bath, id: 'walkin', name: 'Walk-in', ambientC: 3 };
    const day = {
      book: {
        kitchen: { id: 'k', name: 'K', place: '', timeZone: 'UTC', temperatureUnit: 'F', invented: true },
        soups: [],
        station: {
          equipment: [bath, walkin],
          people: [{ id: 'lead', name: 'Maren Oake', role: 'lead', shift: { fromMin: 0, toMin: 1 } }],
          services: [],
          rinseMin: 5,
          fullWashMin: 12,
          readyLeadMin: 20,
          altitudeM: 0,
          thermometers: [],
        },
        rules: ruleVersions,
        thermometers: [],
        today: '2026-11-25',
        suggestedDay: '2026-11-25',
        now: 0,
      },
      view: { date: '2026-11-25', midnight: 0, pars: [], lots: [], plan: null, events: [], earlierSoups: [], lastSeq: 0 },
      state,
      rules,
      rulesNow,
      soupById: new Map(),
      equipmentById: new Map(),
      minuteOf: () => 0,
      at: () => '10:00',
      nameOf: (id: string) => id,
      names: { soup: (id: string) => id, step: (_: string, id: string) => id, batch: (id: string) => id, resource: () => 'Ice bath', service: (id: string) => id },
    } as unknown as OpenDay;
    const batch = state.batches[B];
    if (batch === undefined) throw new Error('no batch');
    render(<BatchLog day={day} batch={batch} />);
  }
  test('a second stage that failed says so by word, names the rule and leaves only discarding, with litres and reason', () => {
    show(reading(0, 140), reading(5, 134), reading(100, 69), reading(400, 50));
    expect([screen.getByText('Failed').textContent, screen.getByText('Not below 41 °F (5 °C) within 6 h.').textContent]).toEqual(['Failed', 'Not below 41 °F (5 °C) within 6 h.']);
    expect(screen.getByText(/3-501\.14\(A\)\(2\)/)).toBeTruthy();
    press('Discard');
    fireEvent.change(screen.getByRole('textbox', { name: 'What happened, and why' }), { target: { value: 'The ice was gone' } });
    press('Half a litre less, litres discarded');
    press('Record: discard');
    expect(recorded).toEqual([{ kind: 'corrective.taken/1', data: { batchId: B, ruleId: 'us.cool.2', action: 'discard', note: 'The ice was gone', volumeL: 11 } }]);
  });
  test('a batch that passed both stages may go into cold hold, one that failed may not', () => {
    show(reading(0, 140), reading(5, 134), reading(100, 69), reading(300, 41));
    press('Half a litre less, litres into the cold');
    press('Into cold hold');
    expect(recorded).toEqual([{ kind: 'cold.stored/2', data: { batchId: B, volumeL: 11 } }]);
  });
  test('a failed one is offered no way into cold hold', () => {
    show(reading(0, 140), reading(5, 134), reading(130, 80));
    expect(screen.queryByRole('button', { name: 'Into cold hold' })).toBeNull();
  });
  test('a reading is voided with a reason, never removed', () => {
    show(reading(0, 140));
    press(/^Void the reading of/);
    press('Wrong digits');
    expect(recorded).toMatchObject([{ kind: 'event.voided/1', data: { reason: 'Wrong digits' } }]);
  });
  test('moving to another place is a new segment of the same cooling', () => {
    show(reading(0, 140));
    press(/^Cool it another way/);
    press(/^As it is in the cold room \(Walk-in\)/);
    expect(recorded).toEqual([{ kind: 'cooling.started/2', data: { batchId: B, placeId: 'walkin', ambientC: 3, method: 'walkIn', pans: null, depthCm: null } }]);
  });
  test('who decides is always said', () => {
    show();
    expect(screen.getByText(/Check with your local authority: it decides/)).toBeTruthy();
  });
});
