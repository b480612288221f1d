export * from './need';
export * from './normal';
export * from './newsvendor';
export * from './smoothing';
export * from './demand';
export * from './backtest';
