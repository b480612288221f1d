import type { DayView, KitchenBook, StoredEvent } from '@broth/contract';
import { api } from './api';
import { useKitchen } from './kitchen';

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
