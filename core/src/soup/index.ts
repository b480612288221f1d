export * from './soup';
export * from './duration';
export * from './allergens';
export * from './batchSheet';
