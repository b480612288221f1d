import { DAY_EVENTS } from '@broth/core';
import { z } from 'zod';
import { calendarDate } from './event';

const portions = z.int('Portions are a whole number.').min(0, 'Sold cannot be below 0.').max(10_000, 'More than 10,000 portions is a typing slip. Check the digits.');
const minute = z.int('A time is whole minutes.').min(0).max(2879);

/** What was sold of a soup at a service. Portions; the minute it ran out, or null when some was left. */
export const sale = z.object({ day: calendarDate, serviceId: z.string().max(100), soupId: z.string().max(100), sold: portions, soldOutMin: minute.nullable() });
export type Sale = z.infer<typeof sale>;

export const dayEvents = z.array(z.enum(DAY_EVENTS)).readonly();

/** Sales of a stretch of days with what was on at them; `closed` days were no service. */
export const salesView = z.object({ sales: z.array(sale), events: z.record(z.string(), dayEvents) });
export type SalesView = z.infer<typeof salesView>;

export const putSale = z.object({ serviceId: z.string().max(100), sold: portions, soldOutMin: minute.nullable() });
export const putDayEvents = z.object({ events: dayEvents });
export const salesTaken = z.object({ taken: z.int() });

/** Which columns of a list are what; `dates` tells how its days are written. */
export const salesColumns = z.object({
  day: z.string().min(1),
  soup: z.string().min(1),
  sold: z.string().min(1),
  soldOut: z.string().optional(),
  service: z.string().optional(),
  dates: z.enum(['ymd', 'dmy', 'mdy']).default('ymd'),
});
export type SalesColumns = z.infer<typeof salesColumns>;
