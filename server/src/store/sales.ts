import type { Sale, SalesView } from '@broth/contract';
import type { CalendarDate, DayEventKind } from '@broth/core';
import { minutesBetween } from '@broth/core';
import { Op } from 'sequelize';
import type { Sequelize } from 'sequelize';
import { midnightOf } from '../localTime';
import { soldOutBetween } from './eventLog';
import { notify } from './kitchenStore';
import { DayEventRow, SaleRow } from './models';

/** Sales from a day on, up to but not including another, with what was on. */
export async function salesBetween(sequelize: Sequelize, kitchen: { readonly id: string; readonly timeZone: string }, from: CalendarDate, until: CalendarDate): Promise<SalesView> {
  const { id: kitchenId, timeZone } = kitchen;
  const day = { [Op.gte]: from, [Op.lt]: until };
  const [sales, events] = await Promise.all([
    SaleRow.findAll({
      where: { kitchenId, day },
      order: [
        ['day', 'ASC'],
        ['soupId', 'ASC'],
      ],
    }),
    // What is on the day itself is wanted too: the forecast is for it.
    DayEventRow.findAll({ where: { kitchenId, day: { [Op.gte]: from, [Op.lte]: until } } }),
  ]);
  const out = new Map(
    (await soldOutBetween(sequelize, kitchenId, from, until)).map((one) => [
      `${one.day} ${one.serviceId} ${one.soupId}`,
      Math.floor(minutesBetween(midnightOf(timeZone, one.day), one.at)),
    ]),
  );
  return {
    // What was 86ed at the counter ran out, whether or not somebody has typed when.
    sales: sales.map(({ day: on, serviceId, soupId, sold, soldOutMin }) => ({
      day: on,
      serviceId,
      soupId,
      sold,
      soldOutMin: soldOutMin ?? out.get(`${on} ${serviceId} ${soupId}`) ?? null,
    })),
    events: Object.fromEntries(events.map((row) => [row.day, row.events])),
  };
}

/** Puts sales, each in the place of what was there. */
export async function putSales(sequelize: Sequelize, kitchenId: string, sales: readonly Sale[]): Promise<void> {
  await sequelize.transaction(async (transaction) => {
    await SaleRow.bulkCreate(
      sales.map((one) => ({ kitchenId, ...one })),
      { transaction, updateOnDuplicate: ['sold', 'soldOutMin'] },
    );
  });
  await notify(sequelize, { kitchen: kitchenId, topic: 'book' });
}

export async function putDayEvents(sequelize: Sequelize, kitchenId: string, day: CalendarDate, events: readonly DayEventKind[]): Promise<void> {
  await DayEventRow.upsert({ kitchenId, day, events: [...events] });
  await notify(sequelize, { kitchen: kitchenId, topic: 'book' });
}
