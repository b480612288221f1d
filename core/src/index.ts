export * from './quantity/index';
export * from './soup/index';
export * from './lot/index';
export * from './par/index';
export * from './batch/index';
export * from './sequence/index';
export * from './safety/index';
export * from './day/index';
