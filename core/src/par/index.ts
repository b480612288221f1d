export * from './need';
export * from './componentDemand';
