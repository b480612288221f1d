import { act, cleanup, fireEvent, render, screen } from '@testing-library/react';
import { addMinutes, makeLine, makeSoup, makeStep } from '@broth/core';
import { ruleVersions } from '../../testing/rules';
import { planDay } from '@broth/core/planner';
import type { DayEvent, Soup, Station, Step } from '@broth/core';
import type { DayView, KitchenBook } from '@broth/contract';
import { useKitchen } from '../../state/kitchen';
import type { NewEvent } from '../../state/kitchen';
import { usePreferences } from '../../state/preferences';
import { useHands } from '../../state/useHands';
import { useDesk } from '../../state/desk';
import { AtTheCounter } from './AtTheCounter';
import { NowScreen } from './NowScreen';
import type * as Cards from './TaskCard';
import { TaskCard } from './TaskCard';

const pushed: string[] = [];
jest.mock('expo-router', () => ({
  useRouter: () => ({ push: (to: string) => pushed.push(to), navigate: (to: string) => pushed.push(to) }),
  usePathname: () => '/now',
}));

// As it is, and counted: how often a card is drawn is what a tap on it waits for.
jest.mock('./TaskCard', () => ({ TaskCard: jest.fn(jest.requireActual<typeof Cards>('./TaskCard').TaskCard) }));

const DAY = '2026-11-25';
const MIDNIGHT = Date.parse(`${DAY}T00:00:00Z`);
beforeAll(() => {
  jest.useFakeTimers({ now: addMinutes(MIDNIGHT, 540) });
});
afterAll(() => {
  jest.useRealTimers();
});
const B = `${DAY}.beet.1`;
const step = (id: string, some: Partial<Step> = {}): Step =>
  makeStep({
    id,
    phase: 'simmer',
    name: `Do ${id}`,
    duration: { lowMin: 20, highMin: 20, perLitreMin: 0 },
    heat: 'low',
    maxWaitMin: 10,
    check: 'Soft',
    caution: 'It is hot.',
    why: 'Because.',
    ...some,
  });
const soup: Soup = makeSoup({
  id: 'beet',
  name: 'Beetroot',
  toneHex: '#9B2C57',
  ingredients: [makeLine({ id: 'salt', name: 'Salt', amount: { low: 7, high: 7, unit: 'g' }, stepId: 'cook' })],
  steps: [step('cook'), step('empty', { phase: 'hold', heat: 'off', maxWaitMin: null })],
});
const station: Station = {
  equipment: [
    { kind: 'vessel', id: 'k1', name: 'Kettle 1', capacityL: 30, minFillL: 5, workingMaxL: 25, inUse: true },
    { kind: 'well', id: 'w1', name: 'Well 1', capacityL: 10, inUse: true },
    { kind: 'cooling', id: 'bath', name: 'Ice bath', capacityL: 20, ambientC: 0, inUse: true },
  ],
  people: [{ id: 'lead', name: 'Maren Oake', role: 'lead', shift: { fromMin: 0, toMin: 1400 } }],
  services: [{ id: 'midday', name: 'Midday', startMin: 565, endMin: 700 }],
  rinseMin: 5,
  fullWashMin: 12,
  readyLeadMin: 20,
  aimChance: null,
  laterBatches: false,
  altitudeM: 0,
  thermometers: [],
};
const plan = planDay(
  { date: DAY, nowMin: 0, soups: [soup], station, pars: [{ soupId: 'beet', parL: 12, serviceId: 'midday' }], lots: [], started: [], dateMarkLastDay: 7 },
  { seed: 1, moves: 0 },
);
const book = {
  kitchen: { id: 'k', name: 'K', place: '', timeZone: 'UTC', temperatureUnit: 'F', invented: true },
  soups: [soup],
  station,
  rules: ruleVersions,
  thermometers: [],
  today: DAY,
  suggestedDay: DAY,
  now: 0,
} as unknown as KitchenBook;
let count = 0;
const event = <Kind extends DayEvent['kind']>(kind: Kind, minute: number, data: Extract<DayEvent, { kind: Kind }>['data']): DayEvent =>
  ({ id: `e${String((count += 1))}`, kind, day: DAY, at: addMinutes(MIDNIGHT, minute), by: 'lead', device: 'd', data }) as DayEvent;
const begun = (by = 'lead'): DayEvent[] =>
  [
    event('batch.started/1', 530, { batchId: B, soupId: 'beet', soupVersion: 1, name: 'Beetroot 1', ordinal: 1, volumeL: 12, vesselId: 'k1' }),
    event('step.started/1', 530, { batchId: B, stepId: 'cook' }),
  ].map((one) => ({ ...one, by }));
const emptying = (): DayEvent[] => [...begun(), event('step.done/1', 535, { batchId: B, stepId: 'cook' }), event('step.started/1', 535, { batchId: B, stepId: 'empty' })];
const cooked = (): DayEvent[] => [
  ...begun(),
  event('step.done/1', 535, { batchId: B, stepId: 'cook' }),
  event('step.done/1', 536, { batchId: B, stepId: 'empty' }),
  event('batch.finished/1', 536, { batchId: B, volumeOutL: 11.5 }),
];

function Counter() {
  const now = addMinutes(MIDNIGHT, 540);
  const open = useHands(now);
  return open === null ? null : <AtTheCounter day={open.day} plan={open.hands.plan} now={now} onDo={(events) => recorded.push(...events)} />;
}

const recorded: NewEvent[] = [];
/** Whether the soup is one that is looked at every five minutes. */
const looking = { current: false };
function show(events: readonly DayEvent[], withPlan = true, shownSoup: Soup = soup, others: readonly Soup[] = []): void {
  recorded.length = 0;
  const stored = withPlan ? { version: 1, acceptedAt: 0, by: 'lead', plan } : null;
  const day = {
    date: DAY,
    midnight: MIDNIGHT,
    pars: [{ soupId: 'beet', parL: 12, serviceId: 'midday' }],
    lots: [],
    plan: stored,
    events,
    earlierSoups: [],
    lastSeq: 0,
  } as unknown as DayView;
  usePreferences.setState({ who: 'lead' });
  useKitchen.setState({
    book: { ...book, soups: [...others, { ...shownSoup, steps: shownSoup.steps.map((one) => (looking.current ? { ...one, lookEveryMin: 5 } : one)) }] },
    day,
    date: DAY,
    outbox: [],
    line: 'live',
    trouble: null,
    clockOffsetMs: 0,
    record: (some) => (recorded.push(...some), some.map((_, index) => `id${String(index)}`)),
  });
  render(<NowScreen />);
}
const press = (name: string | RegExp): void => {
  act(() => {
    fireEvent.click(screen.getByRole('button', { name }));
  });
};
const kinds = (): string[] => recorded.map((one) => one.kind);

describe('Now', () => {
  test('without a plan it says where to get one', () => {
    show([], false);
    press('To the board');
    expect(pushed.at(-1)).toBe('/board');
  });
  test('the batch to start shows what goes in, when it is done, the caution and why', () => {
    show([]);
    expect(['85 g', 'Salt', 'Done when: Soft.', 'It is hot.', 'Because.'].map((text) => screen.getByText(text).textContent)).toEqual([
      '85 g',
      'Salt',
      'Done when: Soft.',
      'It is hot.',
      'Because.',
    ]);
    press('Start Beetroot 1: simmer');
    expect(kinds()).toEqual(['batch.started/1', 'step.started/1']);
  });
  test('done starts what follows at once, and can be taken back', () => {
    show(begun());
    press('Simmer done, Beetroot 1');
    expect(kinds()).toEqual(['step.done/1', 'step.started/1']);
    press('Undo');
    expect(recorded.slice(2)).toMatchObject([
      { kind: 'event.voided/1', data: { eventId: 'id0' } },
      { kind: 'event.voided/1', data: { eventId: 'id1' } },
    ]);
  });
  test('the last step asks for the litres that came out', () => {
    show(emptying());
    // The salt was not ticked: that comes first.
    const emptied = (): HTMLElement => screen.getByRole('button', { name: 'Emptied, Beetroot 1' });
    expect(emptied()).toHaveProperty('disabled', true);
    press('Salt is in');
    expect(recorded.at(-1)).toMatchObject({ kind: 'ingredient.added/1', data: { ingredientId: 'salt', for: 'card' } });
    cleanup();
    show([...emptying(), event('ingredient.added/1', 536, { batchId: B, ingredientId: 'salt', name: 'Salt', amount: 85, unit: 'g', for: 'card', allergens: null })]);
    press('Half a litre less, litres out');
    press('Emptied, Beetroot 1');
    expect(recorded.at(-1)).toEqual({ kind: 'batch.finished/1', data: { batchId: B, volumeOutL: 11.5 } });
  });
  test('a line that is left out says why', () => {
    show(emptying());
    press('Salt was left out');
    act(() => {
      fireEvent.click(screen.getByRole('radio', { name: 'None left' }));
    });
    expect(recorded).toEqual([{ kind: 'ingredient.waived/1', data: { batchId: B, ingredientId: 'salt', reason: 'None left' } }]);
  });
  test('one tap gives it more time; a step is left out with a reason', () => {
    show(begun());
    press('5 more minutes for Beetroot 1');
    press('Leave out this step of Beetroot 1');
    act(() => {
      fireEvent.click(screen.getByRole('radio', { name: 'Done before' }));
    });
    expect(recorded).toEqual([
      { kind: 'step.extended/1', data: { batchId: B, stepId: 'cook', byMin: 5 } },
      { kind: 'step.skipped/1', data: { batchId: B, stepId: 'cook', reason: 'Done before' } },
    ]);
  });
  test('what is due at the pot comes first: a look, and a timer somebody set', () => {
    looking.current = true;
    show([...begun(), event('timer.set/1', 530, { name: 'Bread oven', durationS: 300, batchId: null })]);
    press('Looked at Beetroot 1');
    press('Seen: Bread oven');
    expect(recorded).toMatchObject([{ kind: 'step.looked/1', data: { batchId: B, stepId: 'cook' } }, { kind: 'timer.cleared/1' }]);
    looking.current = false;
  });
  test('what hurts is read before it begins: one tap, and it is in the record', () => {
    show([], true, { ...soup, steps: [{ ...step('cook'), irreversible: true }, step('empty', { phase: 'hold', heat: 'off', maxWaitMin: null })] });
    press('Start Beetroot 1: simmer');
    expect(recorded).toEqual([]);
    press('Yes: start Beetroot 1');
    expect(kinds()).toEqual(['batch.started/1', 'step.started/1', 'gate.confirmed/1']);
  });
  test('drafts that come while somebody cooks say that the day has changed, and draw no card anew', () => {
    show(begun());
    const cards = jest.mocked(TaskCard).mock.calls;
    const [first] = plan.batches;
    const drawn = cards.length;
    expect(drawn).toBeGreaterThan(0);
    // Of one litre less each time: not the batches that were agreed on.
    [11, 10].forEach((volumeL, index) => {
      act(() => {
        useDesk.setState({ draft: { ticket: index, plan: { ...plan, batches: [{ ...first!, volumeL }] }, nowMin: 540, agreedFits: true, improved: false } });
      });
      expect(screen.getByRole('button', { name: 'Look at the new plan on the board' })).toBeTruthy();
    });
    expect(cards).toHaveLength(drawn);
    act(() => {
      useDesk.setState({ draft: null });
    });
  });
  test('for me: what somebody else is at is not shown as mine', () => {
    show(begun('tobi'));
    expect(screen.getByRole('button', { name: 'Simmer done, Beetroot 1' })).toBeTruthy();
    act(() => {
      fireEvent.click(screen.getByRole('radio', { name: 'For me' }));
    });
    expect(screen.queryByRole('button', { name: 'Simmer done, Beetroot 1' })).toBeNull();
    act(() => {
      usePreferences.setState({ nowFor: 'all' });
    });
  });
  test('somebody was first: the second is told whose tap counted', () => {
    show([...begun('tobi'), { ...event('step.started/1', 531, { batchId: B, stepId: 'cook' }), by: 'lead' }]);
    expect(screen.getByText(/tobi had begun it at .*That counts/)).toBeTruthy();
  });
  test('a held soup at the counter: what is left, entered by eye, 86', () => {
    show([...cooked(), event('hold.started/1', 537, { batchId: B, placeId: 'w1' })]);
    cleanup();
    // By itself: on the page it is fetched when it is first wanted.
    render(<Counter />);
    press('Half a litre less, litres left, by eye');
    press('Beetroot 1: 11 L left');
    press('86: Beetroot');
    expect(recorded).toMatchObject([
      { kind: 'level.noted/1', data: { leftL: 11, how: 'eye' } },
      { kind: 'soup.out/1', data: { soupId: 'beet', serviceId: 'midday' } },
    ]);
  });
  test('what is out of its kettle must go somewhere', () => {
    show(cooked());
    expect(screen.getByText('Beetroot 1 is out: 11.5 L')).toBeTruthy();
    press('Hold Beetroot 1 hot in Well 1');
    expect(recorded).toEqual([{ kind: 'hold.started/1', data: { batchId: B, placeId: 'w1' } }]);
  });
  test('a stock goes into the soup that asks for it', () => {
    const stock = makeSoup({ id: 'stock', name: 'Stock', role: 'component', steps: soup.steps });
    const taking: Soup = { ...soup, ingredients: [makeLine({ id: 'stock', name: 'Stock', componentId: 'stock', amount: { low: 500, high: 500, unit: 'mL' }, stepId: 'cook' })] };
    const id = `${DAY}.stock.1`;
    const out = [
      event('batch.started/1', 530, { batchId: id, soupId: 'stock', soupVersion: 1, name: 'Stock 1', ordinal: 1, volumeL: 6, vesselId: 'k1' }),
      event('batch.finished/1', 536, { batchId: id, volumeOutL: 6 }),
    ];
    show(out, true, taking, [stock]);
    expect(screen.getByText('Out since 8:56, and its temperature counts. It is to go into Beetroot 1: where does it stand until then?')).toBeTruthy();
    cleanup();
    show([...out, ...begun()], true, taking, [stock]);
    press('All of Stock 1 has gone into Beetroot 1');
    expect(recorded).toEqual([{ kind: 'batch.used/1', data: { batchId: id, intoBatchIds: [B] } }]);
  });
  test('a reading that is due is two taps away', () => {
    show([...cooked(), event('cooling.started/1', 538, { batchId: B, placeId: 'bath', ambientC: 0 })]);
    press('Log Beetroot 1');
    expect(pushed.at(-1)).toBe(`/log/${B}`);
  });
  test('entries that wait for the network are counted', () => {
    show(begun());
    act(() => {
      useKitchen.setState({ line: 'away', outbox: [{ event: begun()[1] ?? event('step.started/1', 1, { batchId: B, stepId: 'cook' }), refused: null }] });
    });
    expect(screen.getByText(/No connection\..*1 waiting to be sent\./)).toBeTruthy();
  });
  test('a reading the server would not take is said with its figure and its batch', () => {
    show(begun());
    const taken = event('reading.taken/1', 539, {
      batchId: B,
      purpose: 'cook',
      reading: { value: 148, unit: 'F', rawText: '148' },
      heldS: null,
      packId: 'us-fda-fc2022',
      packVersion: 1,
    });
    const refused = { type: 't', title: 'Too early', status: 422, detail: 'This entry is dated 30 min ahead.', code: 'event.future' };
    act(() => {
      useKitchen.setState({ outbox: [{ event: taken, refused }] });
    });
    expect(screen.getByText('148 °F for Beetroot 1 was not logged. This entry is dated 30 min ahead.')).toBeTruthy();
  });
});
