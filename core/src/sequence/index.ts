export * from './problem';
export * from './schedule';
export * from './check';
export * from './dayPlan';
export * from './planDay';
export * from './checkDayPlan';
export { HANDS_ID, UNITS_PER_PERSON } from './dayProblem';
export { seeded } from './random';
export type { Random } from './random';
