/**
 * The inner loops of the search for a sequence, compiled to WebAssembly (`npm run kernel`). Each file here has one of its name in core/src/sequence/engine, which writes
 * the tables it reads and runs it: nothing here knows a problem.
 */
export { book, earliestFit } from './minutes';
export { bits, horizon, isLadder, levelAt, levelResource, levelUnits, resourceFrom, resourceLevels, resourceTo, words } from './minutes';
export { jobCount, unitCount, itemCount, pieceCount, slots } from './outline';
export { state, stateBytes, rootState, costAt, start, free, washFrom, washTo, mustEnd, end, unitTo, unitBy, leftBy, heldBy, seen } from './outline';
export { keeps, rowOf, pieceOf, offset, itemJob, itemSteps, itemBefore, stepsInOrder, holdings, washes, washUses } from './outline';
export { readyByMin, bufferMin, latePrice, shortPrice, washPrice, makespanPrice } from './outline';
export { isBackwards, horizonMin, firstStep, standFrom, standPrice, takers, parts, waiting } from './outline';
export { lateCost, place, restore, total } from './outline';
export { sketchOrder, marks, trial, every, sketchFrom, sketchTo, sketch, acceptSketch } from './sketch';
export { own, inside, entry, firstPiece, washedFor, needs, ownNeeds, isChain, nextInside, nextOf, turnOf, might, placeOf, entering, beginning } from './following';
export { isAsItWas, washesFirst, share, getOut } from './following';
export { workOf, whole, alone, shortestWash, comesWith, places, releaseMin, stayUnit, stayMin, throughMin, aheadMin, soonest, likely, comesIn, freeAt, freeBy } from './outlook';
export { order, found, signs, part, alike, isOver, foundCost, prepareBeam, beginBeam, stepBeam, goingOn, setOf } from './beam';

/** Room for tables; never given back. */
export function allocate(bytes: i32): usize {
  return heap.alloc(bytes);
}
