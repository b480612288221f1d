export * from './batch';
export * from './batchId';
export * from './station';
export * from './places';
export * from './presence';
