import { demo } from '@broth/demo';
import type { CalendarDate } from '@broth/core';
import type { Sequelize } from 'sequelize';
import { firstRules } from './rules';
import { DayEventRow, KitchenRow, KitchenRulesRow, LotRow, PantryRow, SaleRow, SoupRow, StandingParRow, StationRow } from './models';

/** Loads the invented demo kitchen when there is no kitchen at all. Answers whether it did. */
export async function seedIfEmpty(sequelize: Sequelize, today: (timeZone: string) => CalendarDate): Promise<boolean> {
  return sequelize.transaction(async (transaction) => {
    if ((await KitchenRow.count({ transaction })) > 0) return false;
    const { kitchen } = demo;
    const kitchenId = kitchen.id;
    await KitchenRow.create({ kitchenId, ...kitchen }, { transaction });
    await StationRow.create({ kitchenId, version: 1, body: demo.station }, { transaction });
    await KitchenRulesRow.create({ kitchenId, ...firstRules() }, { transaction });
    await SoupRow.bulkCreate(
      demo.soups.map((body, position) => ({ kitchenId, soupId: body.id, version: body.version, position, body })),
      { transaction },
    );
    await PantryRow.bulkCreate(
      demo.pantry.map((body) => ({ kitchenId, foodId: body.id, body })),
      { transaction },
    );
    const { sales, events } = demo.sales(today(kitchen.timeZone));
    await SaleRow.bulkCreate(
      sales.map((one) => ({ kitchenId, ...one })),
      { transaction },
    );
    await DayEventRow.bulkCreate(
      Object.entries(events).map(([day, on]) => ({ kitchenId, day, events: [...on] })),
      { transaction },
    );
    await StandingParRow.bulkCreate(
      demo.standingPars.map((par, position) => ({ kitchenId, ...par, position })),
      { transaction },
    );
    await LotRow.bulkCreate(
      demo.lots(today(kitchen.timeZone)).map(({ id, ...lot }) => ({ kitchenId, lotId: id, ...lot })),
      { transaction },
    );
    return true;
  });
}
