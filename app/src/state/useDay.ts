import { words } from '@broth/contract';
import type { DayView, KitchenBook } from '@broth/contract';
import { currentRules, foldDay, minutesBetween, parsAt, readBatchId, readPlace, ruleBook, stationOn, versionKey } from '@broth/core';
import type { DayEvent, DayState, Equipment, RuleBook, RulesInForce, Soup } from '@broth/core';
import { useKitchen } from './kitchen';
import { lastOnly } from './lastOnly';
import type { Outbox } from './outbox';
import { useUnsentPars, withUnsent } from './unsentPars';

/** The open day with everything that is derived from it: the fold of its events, and its pars, stored and still on their way. */
export interface OpenDay {
  /** With the station as it is on this day of the week. */
  readonly book: KitchenBook;
  readonly view: DayView;
  readonly state: DayState;
  readonly soupById: ReadonlyMap<string, Soup>;
  readonly equipmentById: ReadonlyMap<string, Equipment>;
  readonly names: words.Names;
  readonly nameOf: (personId: string) => string;
  /** `8:05` in the kitchen's own time. */
  readonly at: (instant: number) => string;
  readonly minuteOf: (instant: number) => number;
  /** The kitchen's rules since when, and those of now. */
  readonly rules: RuleBook;
  readonly rulesNow: RulesInForce;
}

function namesFor(book: KitchenBook, soupById: ReadonlyMap<string, Soup>, equipmentById: ReadonlyMap<string, Equipment>, view: DayView, state: DayState): words.Names {
  const batch = (id: string): string => {
    const started = state.batches[id]?.name ?? view.plan?.plan.batches.find((planned) => planned.id === id)?.name;
    const { soupId, ordinal } = readBatchId(id);
    return started ?? `${soupById.get(soupId)?.shortName ?? soupId} ${String(ordinal ?? '')}`;
  };
  const shared: Readonly<Record<string, string>> = { hands: 'hands', jar: 'the jar blender', immersion: 'the immersion blender', oven: 'the oven' };
  const thing = (id: string): string => shared[id] ?? equipmentById.get(id)?.name ?? batch(id);
  return {
    soup: (id) => soupById.get(id)?.name ?? id,
    step: (soupId, stepId) => soupById.get(soupId)?.steps.find((step) => step.id === stepId)?.name ?? stepId,
    batch,
    service: (id) => book.station.services.find((service) => service.id === id)?.name ?? id,
    resource: (id) => {
      const { equipmentId, temperatureC } = readPlace(id);
      return temperatureC === null ? thing(equipmentId) : `${thing(equipmentId)} at ${words.ovenHeat(temperatureC, book.kitchen.temperatureUnit)}`;
    },
  };
}

/** A kitchen always has rules: the server gives it the first with its first day. */
function rulesOf(book: KitchenBook): RuleBook {
  const rules = ruleBook(book.rules);
  if (rules === null) throw new Error('Invariant: a kitchen has rules');
  return rules;
}
const rulesOnce = lastOnly(rulesOf);

/** The book with the station as it is on a day of the week. */
const bookOnce = lastOnly((book: KitchenBook, date: string): KitchenBook => ({ ...book, station: stationOn(book.station, date) }) as KitchenBook);

function openDay(whole: KitchenBook, known: DayView, outbox: Outbox, unsent: Readonly<Record<string, number>> | null): OpenDay {
  const book = bookOnce(whole, known.date);
  const pars = parsAt(book.station, unsent === null ? known.pars : withUnsent(known.pars, unsent));
  const view: DayView = { ...known, pars: [...pars] };
  const onTheWay: DayEvent[] = outbox.flatMap((entry) => (entry.refused === null && entry.event.day === view.date ? [entry.event] : []));
  const state = foldDay([...view.events, ...onTheWay]);
  // The newest of each under its id; what a running batch was made from under id and version.
  const soupById = new Map<string, Soup>([
    ...book.soups.map((soup) => [soup.id, soup] as const),
    ...view.earlierSoups.map((soup) => [versionKey(soup.id, soup.version), soup] as const),
  ]);
  const equipmentById = new Map(book.station.equipment.map((thing) => [thing.id, thing as Equipment]));
  const minuteOf = (instant: number): number => minutesBetween(view.midnight, instant);
  const clock = new Intl.DateTimeFormat('en-GB', { timeZone: book.kitchen.timeZone, hour: 'numeric', minute: '2-digit' });
  const at = (instant: number): string => clock.format(instant).replace(/^0/, '');
  const nameOf = (personId: string): string => book.station.people.find((person) => person.id === personId)?.name ?? personId;
  const rules = rulesOnce(whole);
  return { book, rules, rulesNow: currentRules(rules), view, state, soupById, equipmentById, names: namesFor(whole, soupById, equipmentById, view, state), nameOf, at, minuteOf };
}

/** Several parts of a page ask for the same day after every tap: it is folded once. */
const openDayOnce = lastOnly(openDay);

export function useDay(): OpenDay | null {
  const book = useKitchen((kitchen) => kitchen.book);
  const view = useKitchen((kitchen) => kitchen.day);
  const outbox = useKitchen((kitchen) => kitchen.outbox);
  const unsent = useUnsentPars((pars) => (view === null ? null : (pars.byDay[view.date] ?? null)));
  return book === null || view === null ? null : openDayOnce(book, view, outbox, unsent);
}
