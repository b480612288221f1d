export { startPlanning, planDay } from './plan/index';
export type { DayInput, DayPlan } from './plan/index';
