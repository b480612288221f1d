export * from './allergen';
export * from './food';
export * from './match';
export * from './purchase';
export * from './herb';
