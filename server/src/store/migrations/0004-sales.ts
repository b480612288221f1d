import type { QueryInterface } from 'sequelize';

/** What was sold by day, service and soup, and what was on: the history a forecast is made from. */
export async function createSales(query: QueryInterface): Promise<void> {
  await query.sequelize.query(`
    CREATE TABLE sale (
      kitchen_id text NOT NULL REFERENCES kitchen, day date NOT NULL, service_id text NOT NULL, soup_id text NOT NULL,
      sold integer NOT NULL CHECK (sold >= 0), sold_out_min integer CHECK (sold_out_min >= 0),
      PRIMARY KEY (kitchen_id, day, service_id, soup_id)
    );
    CREATE TABLE day_event (
      kitchen_id text NOT NULL REFERENCES kitchen, day date NOT NULL, events jsonb NOT NULL, PRIMARY KEY (kitchen_id, day)
    );
  `);
}
