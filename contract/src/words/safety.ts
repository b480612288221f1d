import type {
  CoolingMethod,
  CoolingStage,
  CoolingTarget,
  CoolingVerdict,
  CorrectiveAction,
  HeatPoint,
  HeatVerdict,
  HoldVerdict,
  Purpose,
  RulesInForce,
  Standing,
  TemperatureLimit,
  TemperatureUnit,
  TimeControlVerdict,
  VerdictKind,
  Wanted,
} from '@broth/core';
import { limitIn } from '@broth/core';
import { degrees, duration, hours, list } from './numbers';

/** What verdicts say, each once: for the app, the log, the paper and the command line. */

export const PURPOSE: Readonly<Record<Purpose, string>> = {
  cook: 'Cooking',
  cool: 'Cooling',
  hotHold: 'Hot hold',
  coldHold: 'Cold hold',
  reheat: 'Reheat',
  timeControl: 'Time as control',
};

/** The word that stands with a state's mark, so that it never depends on colour. */
export const VERDICT: Readonly<Record<VerdictKind, string>> = {
  pass: 'Passed',
  fail: 'Failed',
  inProgress: 'On the clock',
  overdue: 'Reading overdue',
  undetermined: 'Not proven',
  notApplicable: 'No rule',
};

export const ACTION: Readonly<Record<CorrectiveAction, { readonly name: string; readonly how: string }>> = {
  faster: { name: 'Cool it faster', how: 'Change the method now: shallow pans, ice bath with stirring, ice wand. Log the move.' },
  reheat: { name: 'Reheat and start over', how: 'Only inside the first window: to the reheat limit, then cool again once, faster.' },
  discard: { name: 'Discard', how: 'Throw it away. No second cooking rescues it. Log litres and reason.' },
  personInCharge: { name: 'Person in charge decides', how: 'The readings prove neither way. Without a written reason: discard.' },
  reheatHot: { name: 'Reheat on the range', how: 'Only if the time below is known to be allowed: in the kettle, not in the well.' },
  moveCold: { name: 'Chill it at once', how: 'Only if the time above is known to be allowed. Check door and load.' },
  cookOn: { name: 'Heat on', how: 'Go on heating, stir, read the coolest spot again.' },
  relabel: { name: 'Label it now', how: 'Only if the log proves the day it was made. Otherwise discard.' },
  probeOut: { name: 'Thermometer out of use', how: 'Test with another one, and look through every record since its last good check.' },
  clean: { name: 'Clean and sanitize', how: 'Stop, clean, check again; judge what was made since the last good check.' },
};

export const COOLING_METHOD: Readonly<Record<CoolingMethod, string>> = {
  iceBath: 'Ice bath, still',
  iceBathStirred: 'Ice bath, stirred',
  iceWand: 'Ice wand in an ice bath',
  shallowPans: 'Shallow pans in the cold room',
  blast: 'Blast chiller',
  walkIn: 'As it is in the cold room',
};

/** Where limits come from, and who decides. */
export function authority({ name, place }: Pick<RulesInForce, 'name' | 'place'>): string {
  return `Limits: ${name} (${place}), written down from memory. Check with your local authority: it decides.`;
}

/** The figures as the source prints them, the kitchen's own first: `70 °F (21 °C)`. A source that has only one figure is not made to have two. */
export function limit(given: TemperatureLimit, unit: TemperatureUnit): string {
  const other = unit === 'F' ? 'C' : 'F';
  if (given.f === null) return unit === 'C' ? degrees(given.c, 'C') : `${degrees(given.c, 'C')} (${degrees(limitIn(given, 'F'), 'F')})`;
  return `${degrees(limitIn(given, unit), unit)} (${degrees(limitIn(given, other), other)})`;
}

/** A reading beside a limit, with as many digits as it takes to stand on the right side of it. */
export function degreesBeside(value: number, unit: TemperatureUnit, given: TemperatureLimit): string {
  const at = limitIn(given, unit);
  for (const digits of [1, 2, 3]) {
    const shown = Number(value.toFixed(digits));
    if (Math.sign(shown - at) === Math.sign(value - at)) return `${String(shown)} °${unit}`;
  }
  return `${String(value)} °${unit}`;
}

function target(to: CoolingTarget, unit: TemperatureUnit): string {
  if (to.kind === 'temperature') return limit(to.limit, unit);
  return to.event === 'coolingStarted' ? 'being cooled' : 'in the cold room';
}

function stageLine(stage: CoolingStage, unit: TemperatureUnit, at: (instant: number) => string): string {
  const name = target(stage.to, unit);
  const within = hours(stage.limitMin);
  const isPlace = stage.to.kind === 'event';
  switch (stage.kind) {
    case 'fail':
      return isPlace ? `Not ${name} within ${within}.` : `Not below ${name} within ${within}.`;
    case 'overdue':
      return isPlace ? `Not ${name} within ${within}, as far as anybody tapped. Log it now.` : `No reading at or below ${name} within ${within}. Take one now.`;
    case 'undetermined':
      if (stage.clockFrom === null) return 'The readings do not show when it left the heat.';
      return isPlace ? `Nothing shows that it was ${name} within ${within}.` : `The readings do not show that it reached ${name} within ${within}.`;
    case 'inProgress':
      return `To be ${isPlace ? name : `at ${name}`}${stage.dueAt === null ? '' : ` by ${at(stage.dueAt)}`}.`;
    case 'pass':
    case 'notApplicable':
      return isPlace ? `${name[0]?.toUpperCase() ?? ''}${name.slice(1)} in time.` : `At ${name} in time.`;
  }
}

/** The cooling verdict in one sentence; with `at`, which tells an instant in the kitchen's own time, it says by when. */
export function cooling(verdict: CoolingVerdict, unit: TemperatureUnit, at: (instant: number) => string): string {
  const { current, stages, kind } = verdict;
  if (current === null) return 'The rules in force give no number for cooling: as quickly as possible.';
  if (kind === 'pass') return `${stages.length === 1 ? 'Passed' : 'Every stage passed'}: ${target(current.to, unit)} in time.`;
  const telling = stages.find((stage) => stage.kind === kind) ?? current;
  const passed = stages.indexOf(telling) > 0 && telling.kind === 'inProgress' ? 'First stage passed. ' : '';
  return `${passed}${stageLine(telling, unit, at)}`;
}

/** What would decide it. */
export function wanted(given: Wanted, unit: TemperatureUnit, at: (instant: number) => string): string {
  const by = given.by === null ? '' : ` by ${at(given.by)}`;
  if (given.kind === 'reading') return `A reading at or below ${limit(given.limit, unit)}${by} decides it.`;
  switch (given.event) {
    case 'heatOff':
    case 'leftHeat':
      return 'Ticking the last step on the heat, when it went off, would decide it.';
    case 'coolingStarted':
      return `Log that it is being cooled${by}.`;
    case 'inColdPlace':
      return `Log that it is in the cold room${by}.`;
    case 'combined':
    case 'received':
      return 'When its ingredients were put together would decide it.';
  }
}

export function hold(verdict: HoldVerdict, unit: TemperatureUnit): string {
  const wantedAt = `${limit(verdict.limit, unit)} or ${verdict.side === 'atLeast' ? 'above' : 'below'}`;
  const { outAtMostMin, outAtLeastMin, allowedMin } = verdict;
  const out = outAtMostMin === null ? '' : ` for up to ${duration(outAtMostMin)}`;
  const left = allowedMin === null ? '' : allowedMin > 0 ? ` ${duration(allowedMin)} of what is allowed is left.` : ' No time is left.';
  switch (verdict.kind) {
    case 'fail':
      return verdict.actions.length === 1 && outAtLeastMin > 0 ? `Was not at ${wantedAt} for ${duration(outAtLeastMin)} at least.` : `Not at ${wantedAt}; out${out}.${left}`;
    case 'undetermined':
      return outAtMostMin === null ? `No reading shows that it stayed at ${wantedAt}.` : `Was not at ${wantedAt}${out}. The readings do not show for how long.`;
    case 'overdue':
      return 'A reading is overdue. Take one now.';
    case 'pass':
      return outAtMostMin === null ? `Held at ${wantedAt}.` : `Back at ${wantedAt}; was out${out}.${left}`;
    case 'inProgress':
    case 'notApplicable':
      return `To be held at ${wantedAt}. No reading yet.`;
  }
}

/** The same of holding that is over: then no reading can be taken of it any more. */
export function holdEnded(verdict: HoldVerdict, unit: TemperatureUnit): string {
  if (verdict.kind === 'overdue') return 'The last check before it was carried on was not made.';
  return verdict.kind === 'inProgress' ? 'Nobody read it while it was held.' : hold(verdict, unit);
}

function heldFor(seconds: number): string {
  if (seconds === 0) return '';
  return seconds % 60 === 0 ? ` for ${duration(seconds / 60)}` : ` for ${String(seconds)} s`;
}

/** `165 °F (74 °C) for 15 s`; of several the shortest heat that needs no watching, or the last. */
export function heat(points: readonly HeatPoint[], unit: TemperatureUnit): string {
  return list(
    points.map((point) => `${limit(point.limit, unit)}${heldFor(point.holdS)}`),
    'or',
  );
}

export function reheat(verdict: HeatVerdict, unit: TemperatureUnit): string {
  const wantedAt = heat(verdict.points, unit);
  const within = verdict.withinMin === null ? '' : ` within ${duration(verdict.withinMin)}`;
  switch (verdict.kind) {
    case 'pass':
      return `Reached ${wantedAt}${within === '' ? '' : ' in time'}.`;
    case 'fail':
      return `Not at ${wantedAt}${within}.`;
    case 'overdue':
      return `The ${duration(verdict.withinMin ?? 0)} are over without ${wantedAt}. Take a reading now.`;
    case 'undetermined':
      return `The readings do not show ${wantedAt}${within}.`;
    case 'inProgress':
    case 'notApplicable':
      return `Heat to ${wantedAt}${within === '' ? ', quickly' : within}.`;
  }
}

export function cook(verdict: HeatVerdict, unit: TemperatureUnit): string {
  const wantedAt = heat(verdict.points, unit);
  switch (verdict.kind) {
    case 'pass':
      return `Cooked to ${wantedAt}.`;
    case 'fail':
    case 'overdue':
      return `Off the heat, and no reading shows ${wantedAt}. Read the coldest point now, or heat on.`;
    case 'undetermined':
      return `No reading shows that it was cooked to ${wantedAt}, and now none can.`;
    case 'inProgress':
    case 'notApplicable':
      return `Cook to ${wantedAt}, at the coldest point.`;
  }
}

export function timeControl(verdict: TimeControlVerdict, at: (instant: number) => string): string {
  switch (verdict.kind) {
    case 'fail':
      // A reading that fails it is named as proof; time needs none.
      return verdict.proof.length === 0 ? `Its time ended at ${at(verdict.endsAt)}.` : 'It was not at a temperature that this rule allows.';
    case 'overdue':
      return `Take its temperature now: the rule asks for it at the start. Ends at ${at(verdict.endsAt)}.`;
    case 'undetermined':
      return 'Nobody read it when it was taken out, and now nothing shows what it was.';
    case 'pass':
    case 'notApplicable':
      return 'Used within its time.';
    case 'inProgress':
      return `Use or discard by ${at(verdict.endsAt)}. It may not go back into the well or the cold room.`;
  }
}

/** A batch's standing in one sentence. */
export function standing(given: Standing, unit: TemperatureUnit, at: (instant: number) => string): string {
  switch (given.purpose) {
    case 'cook':
      return cook(given.verdict, unit);
    case 'cool':
      return cooling(given.verdict, unit, at);
    case 'hotHold':
    case 'coldHold':
      return hold(given.verdict, unit);
    case 'reheat':
      return reheat(given.verdict, unit);
    case 'timeControl':
      return timeControl(given.verdict, at);
  }
}
