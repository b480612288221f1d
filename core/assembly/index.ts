/**
 * The inner loops of the search for a sequence, compiled to WebAssembly (`npm run kernel`): the table, and outlines beside it. What it reads is written by
 * core/src/sequence/engine, which runs it: nothing here knows a problem.
 */
export { jobCount, unitCount, washes, washUses } from './day';
export { book, earliestFit, latestFit } from './minutes';
export { bits, horizon, isLadder, levelAt, levelResource, levelUnits, resourceFrom, resourceLevels, resourceTo, words } from './minutes';

export { holds, washTotalAt, insert, washSoon } from './units';
export { jobs, lineOf } from './jobs';
export {
  state as tableState,
  stateBytes as tableBytes,
  start as tableStart,
  end as tableEnd,
  variantOf,
  holdsFrom,
  save as saveTable,
  restore as restoreTable,
  isAt,
} from './state';
export { bound, lower } from './placing';
export { hasWashes } from './booking';
export { found as foundAt, kept as keptAt, justifySpare, remove, placeLate, placeSoon, placeAt, bookAt, finishAt } from './timetable';
export { wantedAt, roomMin, likesEarlyMin, lateWeight, earlyWeight, missingCost, agreedEnd, agreedCosts } from './costs';
export { lateWeighs, shortWeighs, earlyWeighs, washWeighs, movedWeighs, makespanWeighs, jobCost, standsCost, tableCost, certainCost, isLate } from './costs';
export { laid, both, starts } from './weaving';
export { isWanted, wantedMin, aimMin, ends, layingSpare, lay } from './laying';
export { pushSpare, pushOrder, pushRoom, pushEnds, lie, pushBack } from './pushing';

export { itemCount, pieceCount, slots } from './outline';
export { state, stateBytes, rootState, costAt, start, free, washFrom, washTo, mustEnd, end, unitTo, unitBy, leftBy, heldBy, seen } from './outline';
export { keeps, rowOf, pieceOf, offset, itemJob, itemSteps, itemBefore, stepsInOrder, holdings } from './outline';
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

export function copy(to: usize, from: usize, bytes: i32): void {
  memory.copy(to, from, bytes);
}

export function isAlike(one: usize, other: usize, bytes: i32): bool {
  return memory.compare(one, other, bytes) === 0;
}
export { nodeCount, days, floorMin, takesMin, bounds, gapMin, quantiles, quantileShift, begins, over, lastOf, jobOver, chance, playDays } from './replay';
