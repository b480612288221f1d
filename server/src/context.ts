import type { Sequelize } from 'sequelize';
import type { Hub } from './live/hub';
import type { PlanSearch } from './search/pool';

/** What a route is given: everything that touches the outside comes through here. */
export interface Context {
  readonly database: Sequelize;
  readonly hub: Hub;
  readonly now: () => number;
  /** Whether that clock was chosen, for a demo or a test: then it says nothing of anybody else's. */
  readonly chosenClock: boolean;
  readonly search: PlanSearch;
}
