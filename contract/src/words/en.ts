import type {
  CoolingForecast,
  CoolingVerdict,
  CorrectiveAction,
  HoldVerdict,
  Phase,
  PlanFinding,
  Purpose,
  ReheatVerdict,
  TemperatureLimit,
  TemperatureUnit,
  VerdictKind,
} from '@broth/core';
import { limitIn } from '@broth/core';
import type { Names } from './names';
import { clock, degrees, duration, litres, number } from './numbers';

export * from './numbers';
export * from './par';
export * from './plan';
export * from './live';
export type { Names } from './names';
export * from './soup';

/** Every sentence the program says about what core found, once. A second language is a second file of the same shape. */

export const PHASE: Readonly<Record<Phase, string>> = {
  gather: 'Gather',
  prep: 'Prep',
  roast: 'Roast',
  sweat: 'Sweat',
  boil: 'To the boil',
  simmer: 'Simmer',
  blend: 'Blend',
  finish: 'Finish',
  hold: 'Empty',
  cool: 'Cool',
  freeze: 'Freeze',
  reheat: 'Reheat',
  wash: 'Wash',
};

export const PURPOSE: Readonly<Record<Purpose, string>> = { cool: 'Cooling', hotHold: 'Hot hold', coldHold: 'Cold hold', reheat: 'Reheat' };

/** The word that stands with a state's mark, so that it never depends on colour. */
export const VERDICT: Readonly<Record<VerdictKind, string>> = {
  pass: 'Passed',
  fail: 'Failed',
  inProgress: 'On the clock',
  overdue: 'Reading overdue',
  undetermined: 'Not proven',
};

export const ACTION: Readonly<Record<CorrectiveAction, { readonly name: string; readonly how: string }>> = {
  faster: { name: 'Cool it faster', how: 'Change the method now: shallow pans, ice bath with stirring, ice wand. Log the move.' },
  reheat: { name: 'Reheat and start over', how: 'Only inside the first window: to the reheat limit, then cool again once, faster.' },
  discard: { name: 'Discard', how: 'Throw it away. No second cooking rescues it. Log litres and reason.' },
  personInCharge: { name: 'Person in charge decides', how: 'The readings prove neither way. Without a written reason: discard.' },
  reheatHot: { name: 'Reheat on the range', how: 'Only if the time below is known to be allowed: in the kettle, not in the well.' },
  moveCold: { name: 'Chill it at once', how: 'Only if the time above is known to be allowed. Check door and load.' },
  cookOn: { name: 'Heat on', how: 'Go on heating, stir, read the coolest spot again.' },
};

export const AUTHORITY = 'Limits from the FDA Food Code 2022, a model code. Your local code and its licensed authority decide.';

/** Both figures as the source prints them, the kitchen's own first: `70 °F (21 °C)`. */
export function limit(given: TemperatureLimit, unit: TemperatureUnit): string {
  const other = unit === 'F' ? 'C' : 'F';
  return `${degrees(limitIn(given, unit), unit)} (${degrees(limitIn(given, other), other)})`;
}

/** What a plan found, and what to do about it. */
export function finding(found: PlanFinding, names: Names): string {
  switch (found.code) {
    case 'batch.noVessel':
      return `${names.soup(found.soupId)}: no kettle or pot in use holds ${litres(found.needL)}. Put one back into use or lower the par.`;
    case 'batch.tooMany':
      return `${names.soup(found.soupId)}: ${litres(found.needL)} would be ${String(found.batches)} batches of ${litres(found.largestL)}, more than a day holds. Check the par.`;
    case 'batch.surplus':
      return `${names.soup(found.soupId)}: ${litres(found.surplusL)} more than needed, the least a vessel takes.`;
    case 'station.lacks':
      return `${names.soup(found.soupId)}: "${names.step(found.soupId, found.stepId)}" needs ${LACKS[found.lacks]}, and none is in use. Put one back into use, or leave this soup out today.`;
    case 'station.instead':
      return `${names.batch(found.batchId)}: "${names.step(found.soupId, found.stepId)}" is planned with ${LACKS[found.instead]}; no ${found.lacks === 'jar' ? 'jar blender' : 'immersion blender'} is in use. It comes out ${found.instead === 'immersion' ? 'less smooth' : 'in fills of the jar: vent the lid'}.`;
    case 'station.wells':
      return `${names.service(found.serviceId)}: ${String(found.soups)} hot ${found.soups === 1 ? 'soup' : 'soups'} and ${found.wells === 0 ? 'no well' : found.wells === 1 ? 'one well' : `${String(found.wells)} wells`} in use. ${found.soups - found.wells === 1 ? 'One has' : `${String(found.soups - found.wells)} have`} to be held in the kettle, or served later.`;
    case 'plan.unplaced':
      return `${names.batch(found.batchId)} finds no place: nobody is on shift, or its kettle is never free. Add hands or lower a par.`;
    case 'plan.overtime': {
      const many = found.batchIds.length > 1;
      return `${found.batchIds.map((id) => names.batch(id)).join(' and ')} ${many ? 'are' : 'is'} under way and cannot be finished before everybody leaves at ${clock(found.shiftEndMin)}. Somebody stays until ${clock(found.untilMin)}, or ${many ? 'they are' : 'it is'} discarded.`;
    }
    case 'plan.pinDropped':
      return `${names.batch(found.batchId)} cannot begin that step at ${clock(found.startMin)}${
        found.soonestMin === null || found.latestMin === null ? '' : `: its own steps leave ${clock(found.soonestMin)} to ${clock(found.latestMin)}`
      }. It was let go there, and planned afresh.`;
    case 'plan.late': {
      const why = found.pinned ? ', where it was put by hand' : found.waitedFor === null ? '' : `: it waits for ${names.resource(found.waitedFor)}`;
      return `${names.batch(found.batchId)} is ${duration(found.lateMin)} late${why}. ${found.pinned ? 'Let it go' : 'Start earlier'}, lower a par, or serve it later.`;
    }
    case 'lot.pastDate':
      return `${names.soup(found.soupId)}: ${litres(found.volumeL)} on hand is ${String(found.byDays)} ${found.byDays === 1 ? 'day' : 'days'} past its date mark. It does not count. Discard it.`;
    case 'lot.frozen':
      return `${names.soup(found.soupId)}: ${litres(found.volumeL)} frozen is not counted. Thaw it the evening before to use it.`;
  }
}
const LACKS = { vessel: 'a kettle or pot', oven: 'an oven', jar: 'a jar blender', immersion: 'an immersion blender' };

/** How the day's plan stands, in one line. */
export function planLine(lateBatches: number, unplaced: number, missing: number): string {
  if (missing > 0) return missing === 1 ? 'One soup cannot be made' : `${String(missing)} soups cannot be made`;
  if (unplaced > 0) return unplaced === 1 ? 'One batch finds no place' : `${String(unplaced)} batches find no place`;
  if (lateBatches > 0) return lateBatches === 1 ? 'One batch late' : `${String(lateBatches)} batches late`;
  return 'All in time';
}

type Rule = { readonly mid: TemperatureLimit; readonly end: TemperatureLimit; readonly start: TemperatureLimit };

/** The cooling verdict in one sentence; with `at`, which tells an instant in the kitchen's own time, it says by when. */
export function cooling(verdict: CoolingVerdict, rule: Rule, unit: TemperatureUnit, at: (instant: number) => string): string {
  const { stage1, stage2 } = verdict;
  const target1 = limit(rule.mid, unit);
  const target2 = limit(rule.end, unit);
  const by = (dueAt: number | null): string => (dueAt === null ? '' : ` by ${at(dueAt)}`);
  const hours = (minutes: number): string => `${number(minutes / 60)} h`;
  if (stage1.kind === 'fail') return `Not below ${target1} within ${hours(stage1.limitMin)}.`;
  if (stage2.kind === 'fail') return `Not below ${target2} within ${hours(stage2.limitMin)}.`;
  if (stage1.kind === 'overdue') return `No reading at or below ${target1} within ${hours(stage1.limitMin)}. Take one now.`;
  if (stage2.kind === 'overdue') return `No reading at or below ${target2} within ${hours(stage2.limitMin)}. Take one now.`;
  if (stage1.kind === 'undetermined') {
    return verdict.clockFrom === null
      ? `The readings do not show when it left ${limit(rule.start, unit)}.`
      : `The readings do not show that it reached ${target1} within ${hours(stage1.limitMin)}.`;
  }
  if (stage2.kind === 'undetermined') return `The readings do not show that it reached ${target2} within ${hours(stage2.limitMin)}.`;
  if (stage1.kind === 'inProgress') return `To be at ${target1}${by(stage1.dueAt)}.`;
  if (stage2.kind === 'inProgress') return `First stage passed. To be at ${target2}${by(stage2.dueAt)}.`;
  return `Both stages passed: ${target2} in time.`;
}

/** Where it is heading: advice, never a verdict. `at` tells an instant in the kitchen's own time. */
export function forecast(given: CoolingForecast, firstStagePassed: boolean, rule: Rule, unit: TemperatureUnit, at: (instant: number) => string): string {
  const [when, spareMin, target] = firstStagePassed ? [given.endAt, given.spareEndMin, rule.end] : [given.midAt, given.spareMidMin, rule.mid];
  const name = degrees(limitIn(target, unit), unit);
  if (when === null || spareMin === null) return `It will not reach ${name} here. Move it to the ice bath.`;
  if (spareMin < 0) return `It will miss ${name} by ${duration(spareMin)}. Cool it faster now: shallow pans, an ice bath that is stirred, an ice wand.`;
  return `On course: ${name} at ${at(when)}, ${duration(spareMin)} to spare.`;
}

export function hold(verdict: HoldVerdict, given: TemperatureLimit, side: 'atLeast' | 'atMost', unit: TemperatureUnit): string {
  const target = `${limit(given, unit)} or ${side === 'atLeast' ? 'above' : 'below'}`;
  switch (verdict.kind) {
    case 'fail':
      return `Not at ${target}${verdict.outAtMostMin === null ? '' : `; out for up to ${duration(verdict.outAtMostMin)}`}.`;
    case 'overdue':
      return 'A reading is overdue. Take one now.';
    case 'pass':
      return `Held at ${target}.`;
    case 'inProgress':
    case 'undetermined':
      return `To be held at ${target}. No reading yet.`;
  }
}

export function reheat(verdict: ReheatVerdict, given: TemperatureLimit, holdS: number, withinMin: number, unit: TemperatureUnit): string {
  const target = `${limit(given, unit)} for ${String(holdS)} s`;
  switch (verdict.kind) {
    case 'pass':
      return `Reached ${target} in time.`;
    case 'fail':
      return `Not at ${target} within ${duration(withinMin)}.`;
    case 'overdue':
      return `The ${duration(withinMin)} are over without ${target}. Take a reading now.`;
    case 'undetermined':
      return `The readings do not show ${target} within ${duration(withinMin)}.`;
    case 'inProgress':
      return `Heat to ${target} within ${duration(withinMin)}.`;
  }
}
