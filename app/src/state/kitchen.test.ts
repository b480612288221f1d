import { CallFailed } from '@broth/contract';
import type { DayView, KitchenBook, StoredEvent } from '@broth/contract';
import { api } from './api';
import { useKitchen } from './kitchen';
import { useUnsentPars, withUnsent } from './unsentPars';

jest.mock('idb-keyval', () => ({
  createStore: () => 'store',
  get: () => Promise.resolve(undefined),
  set: () => Promise.resolve(),
  entries: () => Promise.resolve([]),
  delMany: () => Promise.resolve(),
  setMany: () => Promise.resolve(),
}));

const DAY = '2026-11-25';
const event = (id: string): StoredEvent => ({
  id,
  kind: 'step.done/1',
  day: DAY,
  at: 1,
  by: 'maren',
  device: 'd',
  data: { batchId: 'b', stepId: 's' },
  seq: 1,
  recordedAt: 1,
  hash: '',
});
const view = (events: readonly StoredEvent[], date = DAY): DayView =>
  ({ date, midnight: 0, pars: [], lots: [], plan: null, events, earlierSoups: [], lastSeq: events.length }) as unknown as DayView;
const ids = (): unknown =>
  useKitchen
    .getState()
    .day?.events.map((one) => one.id)
    .sort();

describe('the open day', () => {
  afterEach(() => {
    jest.restoreAllMocks();
  });
  test('an answer that is older than what the stream has brought meanwhile takes nothing away', async () => {
    jest.spyOn(api, 'day').mockImplementation(() => {
      // While the answer is on its way the stream brings another event.
      useKitchen.setState({ day: view([event('a'), event('b')]) });
      return Promise.resolve(view([event('a')]));
    });
    useKitchen.setState({ date: DAY, day: view([event('a')]) });
    await useKitchen.getState().refresh();
    expect(ids()).toEqual(['a', 'b']);
  });
  test('a par that is answered takes nothing away either; another day does not bring its events along', async () => {
    jest.spyOn(api, 'putPar').mockResolvedValue(view([]));
    useKitchen.setState({ date: DAY, day: view([event('a')]) });
    await useKitchen.getState().putPar('lentil', 12);
    expect(ids()).toEqual(['a']);
    jest.spyOn(api, 'day').mockResolvedValue(view([], '2026-11-26'));
    await useKitchen.getState().showDay('2026-11-26');
    expect(ids()).toEqual([]);
  });
});

describe('a par', () => {
  const away = new CallFailed('away', null);
  const put = (soupId: string, parL: number): Promise<string | null> => useKitchen.getState().putPar(soupId, parL);
  const unsent = (): unknown => useUnsentPars.getState().byDay;
  beforeEach(() => {
    useUnsentPars.setState({ byDay: {} });
    useKitchen.setState({ date: DAY, day: view([]), line: 'live', trouble: null });
    jest.useFakeTimers();
  });
  afterEach(() => {
    jest.useRealTimers();
    jest.restoreAllMocks();
  });
  test('that cannot be sent is kept, planned by and sent when the line is back', async () => {
    const server = jest.spyOn(api, 'putPar').mockRejectedValue(away);
    expect(await put('lentil', 24)).toBeNull();
    expect(await put('lentil', 26)).toBeNull();
    expect([unsent(), useKitchen.getState().line, localStorage.getItem('broth-board-unsent-pars')]).toEqual([{ [DAY]: { lentil: 26 } }, 'away', expect.stringContaining('26')]);
    const par = (soupId: string, parL: number) => ({ soupId, parL, serviceId: 'midday' });
    expect(withUnsent([par('bean', 9), par('lentil', 18)], useUnsentPars.getState().byDay[DAY] ?? {})).toEqual([par('bean', 9), par('lentil', 26)]);
    server.mockReset().mockResolvedValue(view([]));
    await useKitchen.getState().sendPars();
    expect([server.mock.calls, unsent()]).toEqual([[['landing', DAY, 'lentil', 26]], {}]);
  });
  test('goes to the server after the one before it, and what is typed meanwhile is not taken for answered', async () => {
    const answers: ((day: DayView) => void)[] = [];
    const server = jest.spyOn(api, 'putPar').mockImplementation(() => new Promise((resolve) => answers.push(resolve)));
    const asked = async (count: number): Promise<void> => {
      for (let turn = 0; turn < 50 && answers.length < count; turn += 1) await Promise.resolve();
      expect(answers).toHaveLength(count);
    };
    const taps = [put('lentil', 19), put('lentil', 20)];
    await asked(1);
    expect(server.mock.calls.map(([, , , parL]) => parL)).toEqual([20]);
    useUnsentPars.getState().keep(DAY, 'lentil', 21);
    answers[0]?.(view([]));
    await asked(2);
    answers[1]?.(view([]));
    await Promise.all(taps);
    expect([server.mock.calls.map(([, , , parL]) => parL), unsent()]).toEqual([[20, 21], {}]);
  });
  test('that is refused is told and not kept; a server in trouble has not refused it', async () => {
    const problem = (status: number) => new CallFailed('no', { type: '', title: '', status, detail: 'no', code: 'internal' });
    jest.spyOn(api, 'putPar').mockRejectedValueOnce(problem(422)).mockRejectedValueOnce(problem(503));
    expect([await put('lentil', 24), unsent()]).toEqual(['no', {}]);
    // Whoever typed it may be on another page by then.
    expect(useKitchen.getState().notice).toBe('The par of lentil, 24 L, was not taken: no');
    expect([await put('bean', 9), unsent(), useKitchen.getState().trouble]).toEqual([null, { [DAY]: { bean: 9 } }, 'no']);
  });
  test('is sent before the plan that was made for it', async () => {
    const asked: string[] = [];
    useUnsentPars.setState({ byDay: { [DAY]: { lentil: 24 } } });
    jest.spyOn(api, 'putPar').mockImplementation(() => (asked.push('par'), Promise.resolve(view([]))));
    jest.spyOn(api, 'postPlan').mockImplementation(() => (asked.push('plan'), Promise.resolve(undefined as never)));
    expect(await useKitchen.getState().postPlan({ date: DAY } as never, 0, 'maren', 0)).toBe('taken');
    expect(asked).toEqual(['par', 'plan']);
  });
});

describe('the station', () => {
  const book = (rinseMin: number): KitchenBook => ({ station: { rinseMin }, now: 0 }) as unknown as KitchenBook;
  const rinseMin = (): number | undefined => useKitchen.getState().book?.station.rinseMin;
  /** The server tells of its book when a food was put into it. */
  const tells = async (told: KitchenBook): Promise<void> => {
    jest.spyOn(api, 'book').mockResolvedValue(told);
    await useKitchen.getState().putFood({} as never);
  };
  beforeEach(async () => {
    jest.spyOn(api, 'putFood').mockResolvedValue(undefined as never);
    await tells(book(5));
  });
  afterEach(() => {
    jest.restoreAllMocks();
  });
  test('tapped quickly it goes on from the last tap, whatever older book arrives in between', async () => {
    const answers: ((answer: KitchenBook) => void)[] = [];
    jest.spyOn(api, 'patchStation').mockImplementation(() => new Promise((resolve) => answers.push(resolve)));
    const tap = (): Promise<void> => useKitchen.getState().patchStation({ rinseMin: (rinseMin() ?? 0) + 1 });
    const taps = [tap(), tap()];
    expect(rinseMin()).toBe(7);
    await tells(book(6));
    expect(rinseMin()).toBe(7);
    taps.push(tap());
    answers.forEach((answer, at) => {
      answer(book(6 + at));
    });
    await Promise.all(taps);
    expect(rinseMin()).toBe(8);
  });
  test('a change that is refused is taken back and said', async () => {
    jest.spyOn(api, 'patchStation').mockRejectedValue(new Error('no'));
    await useKitchen.getState().patchStation({ rinseMin: 900 });
    expect(rinseMin()).toBe(5);
    expect(useKitchen.getState().trouble).not.toBeNull();
  });
});
