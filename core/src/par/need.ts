import { roundUp } from '../quantity/index';
import type { CalendarDate } from '../quantity/index';
import { allocate } from '../lot/index';
import type { Lot, LotUse } from '../lot/index';

/** How much of a soup should stand ready at a service. Typed by the lead. */
export interface Par {
  readonly soupId: string;
  readonly parL: number;
  readonly serviceId: string;
}

/** What is wanted on a day: nothing at what is not served then. */
export function parsAt({ services }: { readonly services: readonly { readonly id: string }[] }, pars: readonly Par[]): readonly Par[] {
  return pars.filter(({ serviceId }) => services.some(({ id }) => id === serviceId));
}

/** What has to be made: the par less what is on hand in date. */
export interface Need {
  readonly soupId: string;
  readonly serviceId: string;
  readonly parL: number;
  readonly onHandL: number;
  /** Litres to make, rounded up to what a kettle's scale shows. */
  readonly needL: number;
  readonly uses: readonly LotUse[];
}

/** Litres a kettle's own scale can be read to. Common practice. */
const KETTLE_SCALE_L = 0.5;

/** `par 20 L, 6 L chilled in date` needs 14 L. Never negative. */
export function needFor(par: Par, lots: readonly Lot[], on: CalendarDate, dateMarkLastDay: number): Need {
  const uses = allocate(
    lots.filter((lot) => lot.soupId === par.soupId),
    par.parL,
    on,
    dateMarkLastDay,
  );
  const onHandL = uses.reduce((sum, use) => sum + (use.kind === 'counts' ? use.takenL : 0), 0);
  return { soupId: par.soupId, serviceId: par.serviceId, parL: par.parL, onHandL, needL: roundUp(Math.max(0, par.parL - onHandL), KETTLE_SCALE_L), uses };
}
