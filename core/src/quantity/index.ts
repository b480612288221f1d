export * from './time';
export * from './volume';
export * from './mass';
export * from './temperature';
export * from './measure';
export * from './amount';
export * from './order';
