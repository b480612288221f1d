export * from './problem';
export * from './check';
export * from './replay';
export * from './solve';
export * from './bound';
export * from './why';
export * from './windows';
export { seeded } from './random';
export type { Random } from './random';
