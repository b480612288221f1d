import type { Alarm, Gate, Handover, SecondTap, Serving, Step } from '@broth/core';
import { ALLERGEN } from './ingredients';
import { duration, list, litres } from './numbers';
import type { Names } from './names';

/** The live day in sentences. `at` tells an instant in the kitchen's own time. */
type At = (instant: number) => string;

/** What is tapped when a step's clock begins to count. */
export const CLOCK_TAP: Readonly<Record<Step['clockFrom'], string>> = { start: 'Started', boil: 'Boil reached', adding: 'It is in', colour: 'Colour reached' };
/** What it counts up to until then. */
export const CLOCK_WAIT: Readonly<Record<Step['clockFrom'], string>> = { start: '', boil: 'to the boil', adding: 'until it is in', colour: 'until the colour is right' };

/** Why a step is left out, a thing stopped, a batch lost, a line left out: the common ones, one tap each. */
export const SKIP_REASONS = ['Not needed this time', 'Done before', 'Something is missing'] as const;
export const STOP_REASONS = ['Broken', 'In use elsewhere', 'Being cleaned'] as const;
export const LOST_REASONS = ['Scorched', 'Spilled', 'Wrong or forgotten ingredient', 'Dropped or contaminated'] as const;
export const WAIVE_REASONS = ['Left out on purpose', 'None left', 'Something else instead'] as const;

/** Under what a batch that is lost for other reasons than its temperatures is thrown away. */
export const LOST_RULE = 'kitchen.lost';

export const TEXTURE_RESULT = { thin: 'Too thin', right: 'As it should be', thick: 'Too thick' } as const;
export const TASTE_RESULT = { flat: 'Flat', right: 'As it should be', salty: 'Too salty', sharp: 'Too sharp', burnt: 'Burnt' } as const;

export function alarm(given: Alarm, names: Names, step: Step | null): string {
  const batch = given.batchId === null ? '' : names.batch(given.batchId);
  // Nobody ends a boil by the clock: it is looked at.
  if (step?.phase === 'boil' && (given.kind === 'check' || given.kind === 'limit'))
    return `${batch}: ${given.kind === 'check' ? 'it may boil by now' : 'it should boil by now'}. Look.`;
  switch (given.kind) {
    case 'check':
      return `${batch}: look whether it is done${step?.check == null ? '' : ` (${step.check})`}.`;
    case 'limit':
      return `${batch}: its time is up. End it, or give it more.`;
    case 'look':
      return `${batch}: look and stir.`;
    case 'wait':
      return `${batch} has waited as long as it may. Go on with it.`;
    case 'reading':
      return `${batch}: a temperature is due.`;
    case 'timer':
      return 'A timer is up.';
  }
}

/** What is asked before a tap does what it says. */
export function gate(given: Gate, names: Names): string {
  switch (given.kind) {
    case 'caution':
      return given.text;
    case 'irreversible':
      return 'This cannot be undone in the pot. Everything is ready for it.';
    case 'device':
      return given.temperatureC === null
        ? 'The oven is on and hot, and the tray is in.'
        : `The oven is on and at ${String(Math.round(given.temperatureC))} °C, and the tray is in.`;
    case 'wholeInPot':
      return `${list(given.lines)} ${given.lines.length === 1 ? 'is' : 'are'} in and ${given.lines.length === 1 ? 'is' : 'are'} to stay whole. Lifted out before blending.`;
    case 'wash':
      return `${names.resource(given.wash.unitId)} is washed${given.carriesOver.length === 0 ? '' : ` in full: ${list(given.carriesOver.map((one) => ALLERGEN[one]))} must not carry over from ${names.batch(given.wash.afterBatchId)}`}.`;
    case 'board':
      return `Board, knives and hands are washed and sanitised: ${list(given.lines.map((one) => one.toLowerCase()))} for ${given.after} ${given.lines.length === 1 ? 'was' : 'were'} cut here.`;
    case 'open':
      return `Not ticked: ${list(given.lines.map((line) => line.name))}.`;
  }
}

/** Where all of a stock or a roast has gone. */
export function usedIn(into: readonly string[]): string {
  return `into ${list(into)}`;
}

/** What is left of a soup at the counter. */
export function serving(given: Serving, at: At): string {
  const left = `About ${litres(given.leftL)} left`;
  const pace = given.basis === 'levels' ? 'at the pace it goes' : 'if it goes as the par says';
  return given.outAt === null ? `${left}; it lasts, ${pace}.` : `${left}; out about ${at(given.outAt)}, ${pace}.`;
}

/** Whose tap counted. */
export function second(given: SecondTap, nameOf: (person: string) => string, names: Names, at: At): string {
  const what = given.what === 'done' ? 'ended' : 'begun';
  return `${names.batch(given.batchId)}: ${nameOf(given.firstBy)} had ${what} it at ${at(given.firstAt)}. That counts; ${nameOf(given.by)}'s tap of ${at(given.at)} is kept beside it.`;
}

/** What whoever takes over has to know, a line each. */
export function handover(given: Handover, names: Names, nameOf: (person: string) => string, at: At): readonly string[] {
  const lines = given.batches.map(({ name, stage, task, open, aside, lastNote }) => {
    const where = (): string => {
      switch (stage.kind) {
        case 'cooking':
          if (task === null) return 'cooking';
          if (task.state !== 'running') return `next: ${task.step.name}`;
          return `${task.step.name}${task.waitsForClock ? `, ${CLOCK_WAIT[task.step.clockFrom]} since ${task.startedAt === null ? '' : at(task.startedAt)}` : task.upAt === null ? '' : `, check ${at(task.upAt)}`}`;
        case 'finished':
          return 'out of its kettle and nowhere yet';
        case 'holding':
          return `held hot in ${names.resource(stage.placeId)} since ${at(stage.since)}`;
        case 'cooling':
          return `cooling since ${at(stage.since)}`;
        case 'reheating':
          return `reheating since ${at(stage.since)}`;
        case 'stored':
        case 'used':
        case 'discarded':
          return '';
      }
    };
    return `${name}: ${where()}.${open.length === 0 ? '' : ` Not ticked: ${list(open)}.`}${aside.length === 0 ? '' : ` Held aside: ${list(aside)}.`}${lastNote === null ? '' : ` "${lastNote}"`}`;
  });
  return [
    ...lines,
    ...given.timers.map((timer) => `${timer.name}: up at ${at(timer.endsAt)}.`),
    ...given.stopped.map((id) => `${names.resource(id)} is out of use.`),
    ...given.away.map((id) => `${nameOf(id)} is away.`),
    ...given.notes.slice(-3).map((text) => `"${text}"`),
  ];
}

/** `4:05` under four minutes, else whole minutes: seconds only where they matter. */
export function countdown(leftMs: number): string {
  const seconds = Math.max(0, Math.ceil(leftMs / 1000));
  return seconds < 240 ? `${String(Math.floor(seconds / 60))}:${String(seconds % 60).padStart(2, '0')}` : duration(Math.ceil(seconds / 60));
}
