/** Searches of their own for the shops of the textbooks. Apart, because a kitchen's day is none of them and its planner is loaded on a phone. */
export { SHOPS } from './sequence/engine/shops';
