export * from './prepList';
export * from './cost';
