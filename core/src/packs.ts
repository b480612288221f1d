/** The rule packs that ship, and what a kitchen makes of one: for the server, the command line and tests. A phone is given the rules as they stand. */
export * from './safety/packs/index';
export * from './safety/kitchenRules';
