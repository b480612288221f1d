/** The rule packs that ship: for the server, the command line and tests. A phone is given the rules in force. */
export * from './safety/packs/index';
