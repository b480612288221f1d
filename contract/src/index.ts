export * from './event';
export * from './soup';
export * from './book';
export * from './rules';
export * from './plan';
export * from './sales';
export * from './requests';
export * from './client';
export * as words from './words/en';
