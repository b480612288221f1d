import type { BatchStory, Cure, PlanChange, PlanDifference } from '@broth/core';
import { HANDS_ID } from '@broth/core';
import { clock, duration, list } from './numbers';
import type { Names } from './names';

/** What the plan knows, in sentences. */

function shift(byMin: number): string {
  return `${duration(Math.abs(byMin))} ${byMin > 0 ? 'later' : 'earlier'}`;
}

function change(one: PlanChange, names: Names): string {
  switch (one.kind) {
    case 'added':
      return `${names.batch(one.batchId)} is new`;
    case 'gone':
      return `${one.name} is gone`;
    case 'unplaced':
      return `${one.name} finds no place`;
    case 'vessel':
      return `${names.batch(one.batchId)} goes to ${names.resource(one.toId)}`;
    case 'begins':
      return `${names.batch(one.batchId)} begins ${shift(one.byMin)}, ready as before`;
    case 'moved': {
      const begins = one.beginsByMin === null ? '' : `, begins ${one.beginsByMin === 0 ? 'as before' : shift(one.beginsByMin)}`;
      const way = `${names.batch(one.batchId)}: ${one.byMin === 0 ? 'as before' : shift(one.byMin)}${begins}`;
      if (one.lateMin > 0) return `${way}, ${one.wasLateMin > 0 ? '' : 'now '}${duration(one.lateMin)} late`;
      return one.wasLateMin > 0 ? `${way}, now in time` : way;
    }
  }
}

/** How many changes are told before the rest is counted. */
const TOLD = 3;

/** What a change to the plan cost, in two or three short sentences. */
export function planDifference(given: PlanDifference, names: Names): string {
  const { changes, lateMin, washMin, same } = given;
  if (changes.length === 0) return 'Nothing else moved.';
  const told = changes.slice(0, TOLD).map((one) => change(one, names));
  const rest = changes.length - told.length;
  const late = lateMin > 0 ? `${duration(lateMin)} more late in all` : lateMin < 0 ? `${duration(-lateMin)} less late in all` : 'nothing later than it was';
  const wash = washMin === 0 ? '' : `, ${duration(Math.abs(washMin))} ${washMin > 0 ? 'more' : 'less'} washing`;
  const kept = same === 0 ? '' : ` ${String(same)} as ${same === 1 ? 'it was' : 'they were'}.`;
  return `${told.join('; ')}${rest > 0 ? `; ${String(rest)} more` : ''}. In all: ${late}${wash}.${kept}`;
}

/** What keeps a batch from being ready sooner. */
function blocker(given: BatchStory['binding'][number], names: Names): string {
  const by = given.byJobIds.length === 0 ? '' : ` (${list(given.byJobIds.slice(0, 3).map((id) => names.batch(id)))})`;
  switch (given.kind) {
    case 'unit':
      return `${names.resource(given.id)} is taken until ${clock(given.toMin)}, wash and all${by}`;
    case 'resource':
      return given.id === HANDS_ID
        ? `all hands are taken from ${clock(given.fromMin)} to ${clock(given.toMin)}${by}`
        : `${names.resource(given.id)} is full until ${clock(given.toMin)}${by}`;
    case 'excluded':
      return `${names.resource(given.id)} is in use until ${clock(given.toMin)}${by}`;
    case 'input':
      return `${names.batch(given.id)} must be made first, until ${clock(given.toMin)}`;
    case 'pin':
      return `it was put at ${clock(given.fromMin)} by hand`;
    case 'release':
      return `nobody is there before ${clock(given.toMin)}`;
  }
}

/** Why a batch is not ready sooner; null when nothing holds it. */
export function binding(story: BatchStory, names: Names): string | null {
  if (story.binding.length === 0) return null;
  return `It cannot be ready sooner: ${list(story.binding.slice(0, 3).map((one) => blocker(one, names)))}.`;
}

/** How much later it may begin. */
export function slack(story: BatchStory, mostMin: number): string {
  if (story.slackMin === 0) return 'No slack: a minute lost here is lost at service.';
  return story.slackMin >= mostMin ? `More than ${duration(mostMin)} of slack.` : `${duration(story.slackMin)} of slack before something is late.`;
}

/** A chance in words that do not pretend to know it to the point. */
export function chance(share: number): string {
  if (share > 0.975) return 'In time nearly always';
  if (share < 0.025) return 'Hardly ever in time';
  const days = Math.round(share * 20);
  return `In time about ${days === 1 ? 'one day' : `${String(days)} days`} in twenty`;
}

function whatIf({ whatIf: given }: Cure, names: Names): string {
  switch (given.kind) {
    case 'cook':
      return 'One more cook all day';
    case 'equipment':
      return `One more like ${names.resource(given.likeId)}`;
    case 'fasterWash':
      return `Washes in half the time (${duration(given.fullWashMin)} full, ${duration(given.rinseMin)} rinse)`;
    case 'cutting':
      return 'Cutting that may be put down and taken up again';
    case 'split':
      return `${names.soup(given.split.soupId)} in ${String(given.split.batches)} batches`;
    case 'letGo':
      return `${names.batch(given.batchId)} let go from where it was put`;
    case 'without':
      return `Without ${names.soup(given.soupId)}`;
  }
}

/** When somebody is at a step that has a pause in it; null = it is done in one go. */
export function goes(stretches: readonly (readonly [start: string, end: string])[]): string | null {
  return stretches.length < 2 ? null : `In ${String(stretches.length)} goes: ${list(stretches.map(([start, end]) => `${start} to ${end}`))}`;
}

/** Things that would change nothing, or no more than chance does, in one sentence; null when there are none. */
export function noCures(given: readonly Cure[], names: Names): string | null {
  return given.length === 0 ? null : `No measurable effect: ${given.map((one) => whatIf(one, names)).join('; ')}.`;
}

/** What one thing would change. */
export function cure(given: Cure, names: Names): string {
  if (given.places > 0)
    return `${whatIf(given, names)}: ${given.places === 1 ? 'one more batch finds' : `${String(given.places)} more batches find`} a place${given.unplaced === 0 ? '' : `, ${String(given.unplaced)} still without`}.`;
  const left = given.lateMin === 0 ? 'everything in time' : `still ${duration(given.lateMin)} late in all`;
  return `${whatIf(given, names)}: ${duration(given.gainsMin)} less late, ${left}.`;
}
