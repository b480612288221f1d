import type { QueryInterface } from 'sequelize';

/** What is planned and configured: ordinary rows, each led by its kitchen. */
export async function createKitchen(query: QueryInterface): Promise<void> {
  await query.sequelize.query(`
    CREATE TABLE kitchen (
      kitchen_id text PRIMARY KEY, name text NOT NULL, place text NOT NULL, time_zone text NOT NULL,
      temperature_unit text NOT NULL CHECK (temperature_unit IN ('C', 'F')), invented boolean NOT NULL
    );
    CREATE TABLE station (
      kitchen_id text NOT NULL REFERENCES kitchen, version integer NOT NULL, body jsonb NOT NULL, PRIMARY KEY (kitchen_id, version)
    );
    CREATE TABLE soup (
      kitchen_id text NOT NULL REFERENCES kitchen, soup_id text NOT NULL, version integer NOT NULL, position integer NOT NULL, body jsonb NOT NULL,
      PRIMARY KEY (kitchen_id, soup_id, version)
    );
    CREATE TABLE standing_par (
      kitchen_id text NOT NULL REFERENCES kitchen, soup_id text NOT NULL, par_l double precision NOT NULL CHECK (par_l >= 0),
      service_id text NOT NULL, position integer NOT NULL, PRIMARY KEY (kitchen_id, soup_id)
    );
    CREATE TABLE day_par (
      kitchen_id text NOT NULL REFERENCES kitchen, day date NOT NULL, soup_id text NOT NULL, par_l double precision NOT NULL CHECK (par_l >= 0),
      PRIMARY KEY (kitchen_id, day, soup_id)
    );
    CREATE TABLE lot (
      kitchen_id text NOT NULL REFERENCES kitchen, lot_id text NOT NULL, soup_id text NOT NULL, volume_l double precision NOT NULL CHECK (volume_l >= 0),
      state text NOT NULL CHECK (state IN ('hot', 'chilled', 'frozen')), prepared_on date NOT NULL, frozen_days integer NOT NULL CHECK (frozen_days >= 0),
      PRIMARY KEY (kitchen_id, lot_id)
    );
    CREATE TABLE day_plan (
      kitchen_id text NOT NULL REFERENCES kitchen, day date NOT NULL, version integer NOT NULL, accepted_at timestamptz NOT NULL,
      accepted_by text NOT NULL, body jsonb NOT NULL, PRIMARY KEY (kitchen_id, day, version)
    );
  `);
}
