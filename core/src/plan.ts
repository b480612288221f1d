export { planDay } from './sequence/index';
export type { DayInput, DayPlan } from './sequence/index';
