export * from './sequence/index';
export * from './plan/index';
