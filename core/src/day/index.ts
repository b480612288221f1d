export * from './event';
export * from './fold';
export * from './judge';
export * from './due';
export * from './hands';
