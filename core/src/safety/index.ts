export * from './rulePack';
export * from './verdict';
export * from './cooling';
export * from './coolingForecast';
export * from './holding';
export * from './reheat';
export * from './packs/usFdaFoodCode2022';
export * from './plausible';
