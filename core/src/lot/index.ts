export * from './lot';
