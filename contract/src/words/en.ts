import { readBatchId } from '@broth/core';
import type { DayPlan, Phase, PlanFinding } from '@broth/core';
import type { Names } from './names';
import { clock, duration, litres } from './numbers';

export * from './numbers';
export * from './par';
export * from './plan';
export * from './live';
export type { Names } from './names';
export * from './safety';
export * from './ingredients';

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
    case 'station.nobody':
      return 'Nobody is there to cook: what is still to be made finds no place. Say who comes in, and when, behind your initials, under Hands.';
    case 'plan.unplaced':
      return `${names.batch(found.batchId)} finds no place: nobody is on shift, or its kettle is never free. Add hands or lower a par.`;
    case 'plan.leftOut':
      return `${names.batch(found.batchId)} is left out: nothing that takes it finds a place.`;
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

/** What a plan found, in sentences: batches of one soup that find no place in one of them, with what of it can be made. */
export function findings(found: readonly PlanFinding[], plan: Pick<DayPlan, 'batches' | 'needs' | 'findings'>, names: Names): readonly string[] {
  const said = new Set<string>();
  const isNobody = plan.findings.some(({ code }) => code === 'station.nobody');
  return found.flatMap((one) => {
    if (one.code !== 'plan.unplaced' && one.code !== 'plan.leftOut') return [finding(one, names)];
    // Said once, of the day.
    if (isNobody) return [];
    const { soupId } = readBatchId(one.batchId);
    if (said.has(`${one.code} ${soupId}`)) return [];
    said.add(`${one.code} ${soupId}`);
    const out = found.filter((other) => other.code === one.code && readBatchId(other.batchId).soupId === soupId).length;
    const made = plan.batches.filter((batch) => batch.soupId === soupId);
    if (out + made.length === 1) return [finding(one, names)];
    if (one.code === 'plan.leftOut')
      return [`${names.soup(soupId)}: ${out === 1 ? 'one batch is' : `${String(out)} batches are`} left out: nothing that takes from ${out === 1 ? 'it' : 'them'} finds a place.`];
    const needL = plan.needs.find((need) => need.soupId === soupId)?.needL;
    const madeL = made.reduce((sum, batch) => sum + batch.volumeL, 0);
    const of = needL === undefined ? '' : `, ${litres(madeL)} of ${litres(needL)}`;
    const places =
      made.length === 0
        ? `none of ${String(out)} batches finds`
        : made.length === 1
          ? `one batch of ${String(out + 1)} finds`
          : `${String(made.length)} of ${String(out + made.length)} batches find`;
    return [`${names.soup(soupId)}: ${places} a place${of}. For the rest nobody is on shift, or the kettle is never free. Add hands or a kettle, or lower the par.`];
  });
}

const LACKS = { vessel: 'a kettle or pot', oven: 'an oven', jar: 'a jar blender', immersion: 'an immersion blender', cooling: 'a place to cool' };

/** How the day's plan stands, in one line. */
export function planLine(lateBatches: number, unplaced: number, missing: number): string {
  if (missing > 0) return missing === 1 ? 'One soup cannot be made' : `${String(missing)} soups cannot be made`;
  if (unplaced > 0) return unplaced === 1 ? 'One batch finds no place' : `${String(unplaced)} batches find no place`;
  if (lateBatches > 0) return lateBatches === 1 ? 'One batch late' : `${String(lateBatches)} batches late`;
  return 'All in time';
}
