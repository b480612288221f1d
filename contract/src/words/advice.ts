import { limitIn } from '@broth/core';
import type { OpenAction, Rule, TemperatureUnit } from '@broth/core';
import type { ReadingDoubt } from '@broth/core/advice';
import type { CoolingForecast, CoolingWay, IceIn, PatternNote, StageForecast } from '@broth/core/advice';
import { degrees, duration, hours, litres, number } from './numbers';
import { ACTION, COOLING_METHOD, heat, limit } from './safety';

/** Sentences of what is reckoned or asked about food: forecasts, ways of cooling, doubts, notes for a reviewer. Apart from the first load. */

/** The clock on the wall and its offset, of a time as the record has it: an hour that there is twice stays two. `2026-11-01T01:30:00-05:00` is 01:30, -05:00. */
export function wall(iso: string): { readonly clock: string; readonly offset: string } {
  return { clock: iso.slice(11, 16), offset: /([+-]\d\d:\d\d|Z)$/.exec(iso)?.[0] ?? '' };
}

/** Where one stage is heading. `at` tells an instant in the kitchen's own time. */
function heading({ at: when, spareMin, limit: given }: StageForecast, unit: TemperatureUnit, at: (instant: number) => string): string {
  const name = degrees(limitIn(given, unit), unit);
  if (when === null) return `It will not reach ${name} here.`;
  if (spareMin === null) return `${name} at ${at(when)}, if it goes on like this.`;
  if (spareMin < 0) return `It will miss ${name} by ${duration(spareMin)}.`;
  return `On course: ${name} at ${at(when)}, ${duration(spareMin)} to spare.`;
}

/** What a way of cooling would do from now on. */
export function way(given: CoolingWay, placeName: string, now: number, at: (instant: number) => string): string {
  const how = given.pans === null ? COOLING_METHOD[given.method] : `${String(given.pans)} pans, ${number(given.depthCm ?? 0)} cm deep, in ${placeName}`;
  if (given.minutes === null) return `${how}: ${placeName} is not cold enough`;
  const ice = given.iceKg === null ? '' : `, ${number(Math.ceil(given.iceKg))} kg of ice`;
  return `${how}${given.pans === null ? ` (${placeName})` : ''}${ice}; there at about ${at(now + given.minutes * 60_000)}`;
}

/** The advice in full: where it is heading and, where that is not good enough, the quickest way out. Advice, never a verdict. */
export function forecast(given: CoolingForecast, best: string | null, unit: TemperatureUnit, at: (instant: number) => string, now: number | null = null): string {
  const { next } = given;
  if (next === null) return '';
  // What lies behind is no course any more: it was reached, or it was not, and only a reading tells.
  if (next.at !== null && now !== null && next.at < now)
    return `It should have reached ${degrees(limitIn(next.limit, unit), unit)} at ${at(next.at)}, had it gone on like that. Only a reading shows it.`;
  const said = heading(next, unit, at);
  const bad = next.at === null || (next.spareMin !== null && next.spareMin < 0);
  if (bad) return best === null ? `${said} Cool it faster now: shallow pans, an ice bath that is stirred, an ice wand.` : `${said} Do this now: ${best}.`;
  const last = given.stages.at(-1);
  const later = last === undefined || last === next || (last.spareMin !== null && last.spareMin >= 0) ? '' : ` ${heading(last, unit, at)}`;
  const warm = given.tooWarmHere && later === '' ? ' What it stands in is hardly colder than the last target: the last degrees will take very long.' : '';
  return `${said}${later}${warm}`;
}

export function ice({ iceKg, addsL, share }: IceIn): string {
  return `${number(iceKg)} kg of drinking-water ice stirred in would do it at once. It adds ${litres(addsL)} of water, ${String(Math.round(share * 100))} % of the soup: take as much from the card's liquid, and season again.`;
}

/** What is asked about a reading before it is kept. */
export function doubt(given: ReadingDoubt, value: number, unit: TemperatureUnit, batchName: (id: string) => string): string {
  const typed = degrees(value, unit);
  switch (given.code) {
    case 'impossible':
      return `${typed} cannot be right: no probe shows less than ${degrees(given.lowest, given.unit)} or more than ${degrees(given.highest, given.unit)}. Check the digits and the unit.`;
    case 'unitSlip':
      return `${typed} is unusual here. Did the probe say ${degrees(value, given.otherUnit)}, which is ${degrees(given.other, unit)}?`;
    case 'decimalSlip':
      return `${typed} is above boiling. Is the decimal point missing: ${degrees(given.likely, unit)}?`;
    case 'minusLost':
      return `${typed} in a freezer? Was it ${degrees(given.likely, unit)}?`;
    case 'aboveBoiling':
      return `Water boils at ${degrees(given.boiling, given.unit)} here, and ${typed} is above it. Check the probe and the digits.`;
    case 'unusual':
      return `${typed} is unusual here: it mostly lies between ${degrees(given.lowest, given.unit)} and ${degrees(given.highest, given.unit)}. Is it right?`;
    case 'rising':
      return `It rose by ${degrees(given.by, given.unit)} while cooling. Is the probe in the warmest place, and this batch the right one?`;
    case 'impossibleDrop':
      return `From ${degrees(given.from, given.unit)} to ${typed} so soon is faster than an ice bath. Was ice stirred in, or is it another batch?`;
    case 'wrongBatch':
      return `That does not go with this batch, and would with ${batchName(given.batchId)}. Which one was it?`;
    case 'future':
      return `That is ${duration(given.byMin)} from now. Put the time it was taken.`;
    case 'backdated':
      return `That was ${duration(given.byMin)} ago. Why is it entered only now?`;
    case 'beforeBatch':
      return `That is ${duration(given.byMin)} before the batch was begun. Check the time and the batch.`;
  }
}

export function pattern(note: PatternNote, person: (id: string) => string, at: (instant: number) => string): string {
  switch (note.code) {
    case 'identical':
      return `${person(note.by)}: ${String(note.count)} readings in a row of ${degrees(note.value, note.unit)}.`;
    case 'onTheHour':
      return `${person(note.by)}: ${String(note.count)} of ${String(note.of)} readings on the full hour.`;
    case 'roundNumbers':
      return `${person(note.by)}: ${String(note.count)} of ${String(note.of)} readings end in 0 or 5.`;
    case 'allAtOnce':
      return `${person(note.by)}: ${String(note.count)} readings of different times were entered between ${at(note.fromAt)} and ${at(note.toAt)}.`;
  }
}

export function openAction(open: OpenAction, batch: string, at: (instant: number) => string): string {
  switch (open.kind) {
    case 'act':
      return `${batch}: out of its rule, and nothing was done about it yet.`;
    case 'decide':
      return `${batch}: waits for the lead's decision since ${at(open.since)}. Until then it is not served.`;
    case 'followUp':
      return `${batch}: ${open.corrective === null ? '' : `"${ACTION[open.corrective.action].name}" at ${at(open.since)}; `}no reading since. Take one.`;
  }
}

const AUTHORITY_KIND = { law: 'law', modelCode: 'model code', standard: 'standard', guidance: 'guidance', kitchen: "the kitchen's own" };
const CONFIDENCE_WORD = { high: 'high confidence', medium: 'medium confidence', low: 'low confidence' };

/** What stands behind a rule: `FDA Food Code 2022, 3-501.14(A)(1); model code; high confidence, from memory`. */
export function source(rule: Rule): string {
  return rule.authority === 'kitchen' ? AUTHORITY_KIND.kitchen : `${rule.citation}; ${AUTHORITY_KIND[rule.authority]}; ${CONFIDENCE_WORD[rule.confidence]}, from memory`;
}

/** The rule in one sentence, from its figures. */
export function ruleLine(rule: Rule, unit: TemperatureUnit): string {
  const time = (minutes: number, strict: boolean): string => `${strict ? 'in less than' : 'within'} ${minutes % 1440 === 0 ? `${number(minutes / 1440)} days` : hours(minutes)}`;
  switch (rule.step) {
    case 'cook':
      return `Cook to ${heat(rule.points, unit)}, coldest point.`;
    case 'cool': {
      const from = rule.from.kind === 'falls' ? `From ${limit(rule.from.limit, unit)}` : rule.from.kind === 'previous' ? 'From there' : FROM[rule.from.event];
      const to = rule.to.kind === 'temperature' ? `to ${limit(rule.to.limit, unit)}` : rule.to.event === 'coolingStarted' ? 'until it is being cooled' : 'into the cold room';
      return `${from} ${to} ${time(rule.withinMin, rule.strict)}, warmest point.`;
    }
    case 'hotHold':
    case 'coldHold':
    case 'frozenHold': {
      const allowed = rule.allowance === null ? '' : ` Out of it ${time(rule.allowance.withinMin, rule.allowance.strict)} at most.`;
      return `${limit(rule.limit, unit)} or ${rule.side === 'atLeast' ? 'above' : 'below'}; read every ${hours(rule.checkEveryMin)}.${allowed}`;
    }
    case 'reheat':
      return `Reheat to ${heat(rule.points, unit)}${rule.withinMin === null ? ', quickly' : ` ${time(rule.withinMin, rule.strict)}`}.`;
    case 'timeControl':
      return `Out of temperature control ${time(rule.withinMin, rule.strict)}, then used or discarded${rule.ceiling === null ? '' : `; never above ${limit(rule.ceiling, unit)}`}.`;
    case 'dateMark':
      return `Day ${rule.food === 'made' ? 'made' : 'opened'} is day 1; used by the end of day ${String(rule.lastDay)}.`;
    case 'thermometer':
      return `Off by at most ±${number(rule.tolerance.f)} °F or ±${number(rule.tolerance.c)} °C.`;
    case 'text':
      return rule.note === '' ? rule.appliesTo : rule.note;
  }
}
const FROM = {
  heatOff: 'From the end of cooking',
  leftHeat: 'From when it leaves the heat',
  coolingStarted: 'From when chilling starts',
  combined: 'From when it is put together',
  received: 'From when it comes in',
};
