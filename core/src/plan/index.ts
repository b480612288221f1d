export * from './dayPlan';
export * from './planDay';
export * from './checkDayPlan';
export { HANDS_ID, UNITS_PER_PERSON } from './dayProblem';
export * from './carryOver';
export * from './nameHands';
