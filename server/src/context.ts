import type { Sequelize } from 'sequelize';
import type { Hub } from './live/hub';

/** What a route is given: everything that touches the outside comes through here. */
export interface Context {
  readonly database: Sequelize;
  readonly hub: Hub;
  readonly now: () => number;
}
