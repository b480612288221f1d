import { CallFailed, dayView, kitchenBook } from '@broth/contract';
import type { DayView, KitchenBook, StoredEvent } from '@broth/contract';
import type { CalendarDate, DayEvent, DayPlan, Food, Soup } from '@broth/core';
import { get as load, set as keep } from 'idb-keyval';
import type { z } from 'zod';
import { create } from 'zustand';
import { api } from './api';
import { dismiss, enqueue, settle, waiting } from './outbox';
import type { Outbox } from './outbox';
import { askToPersist, restore, write } from './outboxStore';
import { isNews, setBackMs } from './clock';
import { usePreferences } from './preferences';
import { unsentPars, useUnsentPars } from './unsentPars';

type Line = 'connecting' | 'live' | 'away';

interface KitchenState {
  readonly book: KitchenBook | null;
  readonly date: CalendarDate | null;
  readonly day: DayView | null;
  readonly outbox: Outbox;
  readonly line: Line;
  /** What went wrong last, in a sentence; null when it has been put right or read. */
  readonly trouble: string | null;
  /** Something somebody has to have read, whatever else goes well; null when it has been. */
  readonly notice: string | null;
  /** Server clock minus this device's. Milliseconds. */
  readonly clockOffsetMs: number;
  readonly open: () => Promise<void>;
  readonly showDay: (date: CalendarDate) => Promise<void>;
  readonly refresh: () => Promise<void>;
  /** Puts a par: shown and planned by at once, and sent when the line is back. Answers why the server does not take it; null when it does, or cannot be asked yet. */
  readonly putPar: (soupId: string, parL: number) => Promise<string | null>;
  /** Sends the pars that wait; answers by soup what was refused. */
  readonly sendPars: () => Promise<Refusals>;
  /** Changes what the kitchen is: who works when, what stands there, when soups are wanted. Says what was wrong; null = it was taken. */
  readonly changeBook: (ask: (server: typeof api, kitchenId: string) => Promise<KitchenBook>) => Promise<string | null>;
  readonly patchStation: (changes: StationChanges) => Promise<void>;
  /** Saves a soup: a new one with `baseVersion` null, else the next version of one. What was typed stays with whoever asks. */
  readonly saveSoup: (soup: Soup, baseVersion: number | null) => Promise<SoupSaved>;
  readonly putFood: (food: Food) => Promise<string | null>;
  /** Takes in a list; answers how many things it changed, or what is wrong with it. */
  readonly putPantryCsv: (csv: string) => Promise<{ readonly changed: number } | { readonly trouble: string }>;
  /** `basedOn` is the version of the plan it was made to follow. */
  readonly postPlan: (plan: DayPlan, nowMin: number, by: string | null, basedOn: number) => Promise<'taken' | 'overtaken' | 'refused'>;
  /** Has the server look longer; null when it could not, which is said. */
  readonly searchPlan: (from: DayPlan, nowMin: number, forS: number) => Promise<DayPlan | null>;
  /** Puts events into the outbox and shows them at once; answers their ids, so that they can be taken back. */
  readonly record: (events: readonly NewEvent[]) => readonly string[];
  readonly flush: () => Promise<void>;
  readonly dismiss: (id: string) => void;
  readonly clearTrouble: () => void;
  readonly say: (trouble: string) => void;
}

type StationChanges = Partial<Pick<KitchenBook['station'], 'rinseMin' | 'fullWashMin' | 'readyLeadMin' | 'aimChance' | 'laterBatches' | 'interruptsCutting' | 'altitudeM'>>;

type Refusals = ReadonlyMap<string, string>;

type SoupSaved = { readonly kind: 'saved'; readonly soup: Soup } | { readonly kind: 'refused'; readonly says: string; readonly code: string | null };

/** An event before it has an id, a time and a name. `at` is given only when it happened earlier than now. */
export type NewEvent = { [Kind in DayEvent['kind']]: { readonly kind: Kind; readonly data: Extract<DayEvent, { kind: Kind }>['data']; readonly at?: number } }[DayEvent['kind']];

const KITCHEN = 'landing';
const PICK_WHO = 'Pick who holds this phone first: tap the name at the top.';
const WATCH_MS = 2000;
const JITTER_MS = 500;
/** The server speaks this often; after three times that without a word the line is dead. Milliseconds. */
const HEARTBEAT_MS = 15_000;
const SILENT_MS = 3 * HEARTBEAT_MS;
const RETRY_MS = [1000, 2000, 5000, 10_000];

function sentence(error: unknown): string {
  return error instanceof CallFailed ? error.message : `Something went wrong on this device: ${String(error)}`;
}

/** Nobody has answered, or nobody who can decide: asking again later is worth it. */
function isUnanswered(error: unknown): boolean {
  return error instanceof CallFailed && (error.problem === null || error.problem.status >= 500);
}

function merge(day: DayView, events: readonly StoredEvent[]): DayView {
  const known = new Set(day.events.map((event) => event.id));
  const fresh = events.filter((event) => event.day === day.date && !known.has(event.id));
  return fresh.length === 0 ? day : { ...day, events: [...day.events, ...fresh] };
}

/** What this device has kept, read as the contract has it now: an older app may have kept it. What cannot be read is as if it were not there. */
async function kept<Schema extends z.ZodType>(schema: Schema, key: string): Promise<z.infer<Schema> | undefined> {
  const parsed = schema.safeParse(await load(key).catch(() => undefined));
  return parsed.success ? parsed.data : undefined;
}

/** The last place in the log this device has. */
function seqOf(day: DayView | null): number {
  return Math.max(day?.lastSeq ?? 0, ...(day?.events.map((event) => event.seq) ?? []));
}

let stream: EventSource | null = null;
/** When the server was last heard, by the clock that only runs on. */
let heardMs = 0;
let tries = 0;
let retry: ReturnType<typeof setTimeout> | null = null;
let sending = false;
/** The pars that are sent now: one request after the other, so that the last tap is the last to arrive. */
let parsSent: Promise<unknown> = Promise.resolve();
let parsRetry: ReturnType<typeof setTimeout> | null = null;
/** What was changed of the station and is not answered yet, in so many requests; and the book as the server last told it. */
let unanswered = 0;
let changed: StationChanges = {};
let told: KitchenBook | null = null;
/** What an earlier visit left unsent is taken up once, however often opening has to be tried. */
let restored = false;

export const useKitchen = create<KitchenState>()((set, get) => {
  const keepOutbox = (outbox: Outbox): void => {
    const before = get().outbox;
    set({ outbox });
    write(before, outbox).catch(() => {
      set({ trouble: 'This device has no room to keep entries while the network is away. Free some space, and do not close this page until they are sent.' });
    });
  };
  const setOffset = (clockOffsetMs: number): void => {
    // What the network adds and takes is not the clock: a countdown does not jump for it.
    if (Math.abs(clockOffsetMs - get().clockOffsetMs) < JITTER_MS) return;
    set({ clockOffsetMs });
    usePreferences.setState({ clockOffsetMs });
  };
  /** The server's clock was heard: the offset is kept for when it cannot be, and a clock that is wrong goes into the record once. */
  const hearClock = (now: number, chosen: boolean): void => {
    setOffset(now - Date.now());
    const { clockOffsetMs } = get();
    const { recordedOffsetMs, who } = usePreferences.getState();
    // The clock of a demo is chosen: it says nothing of the device's.
    if (chosen || who === null || get().date === null || !isNews(clockOffsetMs, recordedOffsetMs)) return;
    usePreferences.setState({ recordedOffsetMs: clockOffsetMs });
    get().record([{ kind: 'clock.measured/1', data: { offsetMs: Math.round(clockOffsetMs) } }]);
  };
  /** A line can die without a word, above all while a phone sleeps: silence is taken for it. */
  const watchLine = (): void => {
    const again = (): void => {
      if (stream === null) return;
      set({ line: 'away' });
      listen(seqOf(get().day));
    };
    setInterval(() => {
      if (performance.now() - heardMs > SILENT_MS) again();
    }, WATCH_MS);
    document.addEventListener('visibilitychange', () => {
      if (document.visibilityState === 'visible' && performance.now() - heardMs > HEARTBEAT_MS) again();
    });
  };
  /** Somebody may set the device's clock back while the page is open and the server away. */
  const watchClock = (): void => {
    let last = { wallMs: Date.now(), runMs: performance.now() };
    setInterval(() => {
      const next = { wallMs: Date.now(), runMs: performance.now() };
      const backMs = setBackMs(last, next);
      last = next;
      if (backMs > 0) setOffset(get().clockOffsetMs + backMs);
    }, WATCH_MS);
  };
  const keepDay = (answer: DayView): void => {
    // An answer may be older than what the stream has brought meanwhile: events are only ever added.
    const held = get().day;
    const day = held?.date === answer.date ? merge(answer, held.events) : answer;
    set({ day });
    void keep(`day ${day.date}`, day).catch(() => undefined);
  };
  /** What was just tapped stays on the screen, whatever older book arrives in the meantime. */
  const showBook = (book: KitchenBook): void => {
    told = book;
    set({ book: { ...book, station: { ...book.station, ...changed } } });
  };
  /** What is asked without a tap says that the line is away, and nothing more, when nobody answers. */
  const sayOf = (error: unknown): void => {
    set(error instanceof CallFailed && error.problem === null ? { line: 'away' } : { trouble: sentence(error) });
  };
  const isOpen = (): boolean => stream !== null && stream.readyState === EventSource.OPEN;
  const readBook = async (): Promise<KitchenBook> => {
    const book = await api.book(KITCHEN);
    showBook(book);
    setOffset(book.now - Date.now());
    void keep('book', book).catch(() => undefined);
    return book;
  };
  const readDay = async (date: CalendarDate): Promise<void> => {
    const day = await api.day(KITCHEN, date);
    // A slower answer for a day that is no longer shown is dropped.
    if (get().date === date) keepDay(day);
  };
  const listen = (since: number): void => {
    stream?.close();
    stream = new EventSource(`/api/kitchens/${KITCHEN}/live?since=${String(since)}`);
    heardMs = performance.now();
    stream.addEventListener('here', (message) => {
      const { now, chosen } = JSON.parse(message.data as string) as { now: number; chosen: boolean };
      heardMs = performance.now();
      hearClock(now, chosen);
    });
    stream.addEventListener('hello', (message) => {
      const { now, chosen } = JSON.parse(message.data as string) as { now: number; chosen: boolean };
      const wasAway = get().line === 'away';
      set({ line: 'live' });
      hearClock(now, chosen);
      if (wasAway) void get().refresh();
      void get().flush();
      void get().sendPars();
    });
    stream.addEventListener('events', (message) => {
      const { events } = JSON.parse(message.data as string) as { events: StoredEvent[] };
      const { day } = get();
      if (day !== null) keepDay(merge(day, events));
    });
    stream.addEventListener('day', (message) => {
      const { date } = JSON.parse(message.data as string) as { date?: CalendarDate };
      if (date === undefined || date === get().date) void get().refresh();
    });
    // Which soups are wanted, and when, stands in the day.
    stream.addEventListener('book', () => {
      void readBook()
        .then(() => get().refresh())
        .catch(() => undefined);
    });
    stream.onerror = () => {
      set({ line: 'away' });
      // The browser tries again by itself unless the server answered with an error; then we do.
      if (stream?.readyState === EventSource.CLOSED)
        setTimeout(() => {
          listen(seqOf(get().day));
        }, 3000);
    };
  };
  return {
    book: null,
    date: null,
    day: null,
    outbox: [],
    line: 'connecting',
    trouble: null,
    notice: null,
    clockOffsetMs: usePreferences.getState().clockOffsetMs,
    open: async () => {
      if (!restored) {
        restored = true;
        watchClock();
        watchLine();
        const { outbox, lost } = await restore().catch(() => {
          set({ notice: 'What this device kept and has not sent cannot be read. It is still there: open the page again, and tell whoever looks after it if this stays.' });
          return { outbox: [], lost: 0 };
        });
        if (outbox.length > 0) set({ outbox: [...outbox, ...get().outbox] });
        if (lost > 0)
          set({
            notice: `${lost === 1 ? 'One entry' : `${String(lost)} entries`} kept on this device ${lost === 1 ? 'was' : 'were'} never sent and ${lost === 1 ? 'is' : 'are'} gone: its storage was cleared. Enter them again if they are still wanted.`,
          });
      }
      try {
        const book = await readBook();
        await get().showDay(get().date ?? book.suggestedDay);
        set({ trouble: null });
      } catch (error) {
        const book = await kept(kitchenBook, 'book');
        set({ line: 'away' });
        sayOf(error);
        if (book !== undefined && get().book === null) {
          showBook(book);
          const day = await kept(dayView, `day ${book.suggestedDay}`);
          if (day !== undefined) set({ day, date: day.date });
        }
        setTimeout(() => void get().open(), 3000);
        return;
      }
      listen(get().day?.lastSeq ?? 0);
      window.addEventListener('offline', () => {
        set({ line: 'away' });
      });
      window.addEventListener('online', () => {
        // The stream may have died unnoticed: a new one says hello, and the rest follows from that.
        listen(seqOf(get().day));
      });
      void get().flush();
    },
    showDay: async (date) => {
      set({ date });
      // What is kept here shows until the server has answered; the server is asked at once, and what is slow to read here keeps nobody waiting.
      const showKept = async (): Promise<void> => {
        if (get().day?.date === date) return;
        const copy = await kept(dayView, `day ${date}`);
        if (get().date === date && get().day?.date !== date) set({ day: copy ?? null });
      };
      const shown = showKept();
      try {
        await readDay(date);
      } catch (error) {
        await shown;
        if (get().day === null) throw error;
        sayOf(error);
      }
    },
    refresh: async () => {
      const { date } = get();
      if (date === null) return;
      try {
        await readDay(date);
        set({ trouble: null, line: isOpen() ? 'live' : get().line });
      } catch (error) {
        sayOf(error);
      }
    },
    putPar: async (soupId, parL) => {
      const { date } = get();
      if (date === null) return 'No day is open yet.';
      useUnsentPars.getState().keep(date, soupId, parL);
      return (await get().sendPars()).get(soupId) ?? null;
    },
    sendPars: () => {
      const send = async (): Promise<Refusals> => {
        const refusals = new Map<string, string>();
        if (parsRetry !== null) clearTimeout(parsRetry);
        for (const { date, soupId, parL } of unsentPars()) {
          try {
            const day = await api.putPar(KITCHEN, date, soupId, parL);
            if (get().date === date) keepDay(day);
          } catch (error) {
            if (isUnanswered(error)) {
              sayOf(error);
              parsRetry = setTimeout(() => void get().sendPars(), RETRY_MS.at(-1));
              return refusals;
            }
            refusals.set(soupId, sentence(error));
            // It may be hours since it was typed, on another page: it is not dropped without a word.
            const soup = get().book?.soups.find(({ id }) => id === soupId)?.name ?? soupId;
            set({ notice: `The par of ${soup}, ${String(parL)} L, was not taken: ${sentence(error)}` });
          }
          useUnsentPars.getState().drop(date, soupId, parL);
        }
        return refusals;
      };
      // One that went wrong does not hold up those after it.
      const sent = parsSent.then(send, send);
      parsSent = sent;
      return sent;
    },
    changeBook: async (ask) => {
      try {
        showBook(await ask(api, KITCHEN));
        // Which soups are wanted, and when, stands in the day.
        await get().refresh();
        return null;
      } catch (error) {
        return sentence(error);
      }
    },
    patchStation: async (changes) => {
      if (told === null) return;
      changed = { ...changed, ...changes };
      showBook(told);
      unanswered += 1;
      try {
        told = await api.patchStation(KITCHEN, changes);
      } catch (error) {
        changed = {};
        set({ trouble: sentence(error) });
      }
      unanswered -= 1;
      if (unanswered === 0) changed = {};
      showBook(told);
    },
    saveSoup: async (soup, baseVersion) => {
      const { who } = usePreferences.getState();
      if (who === null) return { kind: 'refused', says: PICK_WHO, code: null };
      try {
        const saved = baseVersion === null ? await api.postSoup(KITCHEN, { by: who, soup }) : await api.putSoup(KITCHEN, { by: who, baseVersion, soup });
        // The live stream tells of it too, but whoever saved it goes on with it at once.
        await readBook().catch(() => undefined);
        await get().refresh();
        return { kind: 'saved', soup: saved };
      } catch (error) {
        return { kind: 'refused', says: sentence(error), code: error instanceof CallFailed ? (error.problem?.code ?? null) : null };
      }
    },
    putFood: async (food) => {
      try {
        await api.putFood(KITCHEN, food);
        await readBook();
        return null;
      } catch (error) {
        return sentence(error);
      }
    },
    putPantryCsv: async (csv) => {
      try {
        const { changed } = await api.putPantryCsv(KITCHEN, csv);
        await readBook();
        return { changed };
      } catch (error) {
        return { trouble: sentence(error) };
      }
    },
    postPlan: async (plan, nowMin, by, basedOn) => {
      if (by === null) {
        set({ trouble: PICK_WHO });
        return 'refused';
      }
      try {
        // A plan is taken only with the pars it was made for.
        await get().sendPars();
        await api.postPlan(KITCHEN, plan.date, { by, nowMin, plan, basedOn });
        return 'taken';
      } catch (error) {
        const overtaken = error instanceof CallFailed && error.problem?.code === 'plan.overtaken';
        set(overtaken ? { notice: sentence(error) } : { trouble: sentence(error) });
        return overtaken ? 'overtaken' : 'refused';
      }
    },
    searchPlan: async (from, nowMin, forS) => {
      try {
        return await api.searchPlan(KITCHEN, from.date, { nowMin, from, forS });
      } catch (error) {
        set({ trouble: sentence(error) });
        return null;
      }
    },
    record: (events) => {
      const { date, clockOffsetMs, outbox } = get();
      const { who, device } = usePreferences.getState();
      if (date === null || who === null) {
        set({ trouble: PICK_WHO });
        return [];
      }
      const now = Date.now() + clockOffsetMs;
      const made = events.map(
        (event) => ({ id: crypto.randomUUID(), day: date, by: who, device, kind: event.kind, data: event.data, at: Math.round(event.at ?? now) }) as DayEvent,
      );
      if (outbox.length === 0) askToPersist();
      keepOutbox(enqueue(outbox, made));
      void get().flush();
      return made.map((event) => event.id);
    },
    flush: async () => {
      if (sending) return;
      const events = waiting(get().outbox);
      if (events.length === 0) return;
      sending = true;
      if (retry !== null) clearTimeout(retry);
      try {
        const { results } = await api.postEvents(KITCHEN, events);
        tries = 0;
        const settled = settle(get().outbox, results);
        const { day } = get();
        if (day !== null) keepDay(merge(day, settled.stored));
        keepOutbox(settled.outbox);
        set({ trouble: null, line: isOpen() ? 'live' : get().line });
      } catch (error) {
        sayOf(error);
        retry = setTimeout(() => void get().flush(), RETRY_MS[Math.min(tries, RETRY_MS.length - 1)]);
        tries += 1;
        return;
      } finally {
        sending = false;
      }
      void get().flush();
    },
    dismiss: (id) => {
      keepOutbox(dismiss(get().outbox, id));
    },
    clearTrouble: () => {
      set({ trouble: null, notice: null });
    },
    say: (trouble) => {
      set({ trouble });
    },
  };
});
