export { curesOf, startPlanning, storyOf } from './plan/index';
export type { Cures, DayInput, DayPlan, PlanStory } from './plan/index';
