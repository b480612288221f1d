export * from './batch';
export * from './station';
