import type { Problem } from './requests';

/**
 * Every refusal the server can give: code, status, title, and the sentence a cook reads, with what to do next. A code is never reused.
 * docs/api.md lists the same table; a test holds the two together.
 */
export const REFUSALS = {
  'body.notJson': { status: 400, title: 'Not readable', detail: () => 'What was sent is not JSON. Nothing was saved. Reload the app and try again.' },
  'body.invalid': { status: 400, title: 'Something is missing or wrong', detail: (facts: { first: string }) => `${facts.first} Nothing was saved.` },
  'body.tooLarge': { status: 413, title: 'Too much at once', detail: () => 'That is too much in one go. Nothing was saved. Send it in smaller parts.' },
  'route.unknown': { status: 404, title: 'No such page', detail: (facts: { path: string }) => `There is nothing at ${facts.path}. The list of addresses is at /api/docs.` },
  'kitchen.unknown': { status: 404, title: 'Unknown kitchen', detail: (facts: { id: string }) => `There is no kitchen "${facts.id}" here. Go back and pick one from the list.` },
  'day.invalid': { status: 400, title: 'Not a day', detail: (facts: { text: string }) => `"${facts.text}" is not a day. Write it as YYYY-MM-DD.` },
  'soup.unknown': { status: 404, title: 'Unknown soup', detail: (facts: { id: string }) => `There is no soup "${facts.id}" on this day's list. Add it to the book first.` },
  'soup.versionUnknown': {
    status: 404,
    title: 'Unknown version',
    detail: (facts: { id: string; version: number }) => `There is no version ${String(facts.version)} of "${facts.id}". Pick one from the list of versions.`,
  },
  'soup.conflict': {
    status: 409,
    title: 'Somebody else saved it',
    detail: (facts: { version: number; by: string }) =>
      `${facts.by} saved version ${String(facts.version)} while you were writing. Your draft is kept on this device. Look at what they changed, then save yours on top of it or take theirs.`,
  },
  'soup.nameTaken': {
    status: 409,
    title: 'That name is taken',
    detail: (facts: { name: string }) => `There is a soup called "${facts.name}" in the book already. Give this one another name; nothing was saved, your draft is kept.`,
  },
  'soup.loop': {
    status: 422,
    title: 'It is made of itself',
    detail: (facts: { path: string }) => `${facts.path}: that never ends. Take one of these lines out. Your draft is kept.`,
  },
  'soup.used': {
    status: 409,
    title: 'Other soups are made of it',
    detail: (facts: { names: string }) => `${facts.names} is made with it. Take it out of there first, then out of the book.`,
  },
  'pantry.unreadable': {
    status: 422,
    title: 'The list cannot be read',
    detail: (facts: { first: string; more: number }) =>
      `${facts.first}${facts.more > 0 ? ` And ${String(facts.more)} more like it.` : ''} Nothing was changed. Put it right in the file and send it again.`,
  },
  'sales.unreadable': {
    status: 422,
    title: 'The list cannot be read',
    detail: (facts: { first: string; more: number }) =>
      `${facts.first}${facts.more > 0 ? ` And ${String(facts.more)} more.` : ''} Nothing was taken in. Put it right in the file and send it again.`,
  },
  'litres.invalid': { status: 400, title: 'Not litres', detail: () => 'Say how many litres the sheet is for: a number above 0 and up to 2000.' },
  'equipment.unknown': {
    status: 404,
    title: 'Unknown equipment',
    detail: (facts: { id: string }) => `There is nothing called "${facts.id}" at this station. Reload the station list.`,
  },
  'equipment.nameTaken': {
    status: 409,
    title: 'Two things with one name',
    detail: (facts: { name: string }) => `There is a ${facts.name} at this station already. Give this one a name that tells them apart.`,
  },
  'equipment.otherKind': {
    status: 422,
    title: 'Another kind of thing',
    detail: (facts: { name: string }) => `${facts.name} cannot become another kind of thing: what was logged of it would read wrong. Take it out of use, and add the new one.`,
  },
  'person.unknown': {
    status: 404,
    title: 'Unknown person',
    detail: (facts: { id: string }) => `Nobody called "${facts.id}" works in this kitchen. Reload the kitchen.`,
  },
  'person.nameTaken': {
    status: 409,
    title: 'Two with one name',
    detail: (facts: { name: string }) => `There is a ${facts.name} in this kitchen already. Add a letter of the family name, so that entries tell who it was.`,
  },
  'service.unknown': {
    status: 404,
    title: 'Unknown service',
    detail: (facts: { id: string }) => `There is no service "${facts.id}" in this kitchen. Reload the kitchen.`,
  },
  'service.nameTaken': {
    status: 409,
    title: 'Two with one name',
    detail: (facts: { name: string }) => `There is a service called ${facts.name} already. Give this one a name that tells them apart.`,
  },
  'service.needed': {
    status: 409,
    title: 'Soups are wanted then',
    detail: (facts: { names: string }) => `${facts.names}: wanted at this service. Say on Par when they are served instead, and remove it then.`,
  },
  'service.last': { status: 409, title: 'The only one', detail: () => 'Plans need a time soups are wanted at. Add another service first, or change this one.' },
  'rule.packUnknown': {
    status: 404,
    title: 'Unknown rule pack',
    detail: (facts: { id: string }) => `There is no rule pack "${facts.id}". Pick one from the list.`,
  },
  'rule.leadOnly': { status: 403, title: 'For the lead', detail: () => 'Rules are changed by the lead. Pick who you are at the head of the page; nothing was changed.' },
  'rule.idTaken': { status: 422, title: 'That rule is there already', detail: () => "A rule of the kitchen's own needs an id that no other rule has. Nothing was changed." },
  'rule.otherKind': {
    status: 422,
    title: 'Another kind of rule',
    detail: (facts: { id: string }) =>
      `The rule "${facts.id}" can be given other figures, but not be turned into another kind. Add a rule of your own instead. Nothing was changed.`,
  },
  'rule.overtaken': {
    status: 409,
    title: 'Somebody else changed the rules',
    detail: () => 'The rules were changed while you looked at them. Nothing of yours was saved. Look at the new ones and change them again.',
  },
  'thermometer.unknown': {
    status: 404,
    title: 'Unknown thermometer',
    detail: (facts: { id: string }) => `There is no thermometer "${facts.id}" in this kitchen. Register it first, under Thermometers.`,
  },
  'thermometer.unitFixed': {
    status: 409,
    title: 'Its unit stays',
    detail: (facts: { name: string }) => `"${facts.name}" has readings in its unit already. Register it anew under another name for the other unit.`,
  },
  'thermometer.nameTaken': {
    status: 409,
    title: 'That name is taken',
    detail: (facts: { name: string }) => `There is a thermometer called "${facts.name}" already. Give this one another name, and write it on it.`,
  },
  'sample.future': {
    status: 422,
    title: 'A probe is ahead of time',
    detail: (facts: { thermometerId: string; aheadMin: number }) =>
      `The clock of "${facts.thermometerId}" is ${String(facts.aheadMin)} min ahead. Nothing was taken in. Set it, then send again.`,
  },
  'sample.impossible': {
    status: 422,
    title: 'A probe shows nonsense',
    detail: (facts: { thermometerId: string; value: number; unit: 'C' | 'F' }) =>
      `"${facts.thermometerId}" sent ${String(facts.value)} °${facts.unit}, which no kitchen has. Nothing was taken in. Check its line.`,
  },
  'samples.unreadable': {
    status: 422,
    title: 'The file cannot be read',
    detail: (facts: { first: string; more: number }) =>
      `${facts.first}${facts.more > 0 ? ` And ${String(facts.more)} more.` : ''} Nothing was taken in. Pick other columns, or put it right in the file.`,
  },
  'inspector.leadOnly': { status: 403, title: 'For the lead', detail: () => 'Links for an inspector are made by the lead. Pick who you are at the head of the page.' },
  'inspector.linkUnknown': { status: 404, title: 'Unknown link', detail: () => 'There is no such link. Reload the list.' },
  'inspector.linkEnded': { status: 404, title: 'This link has ended', detail: () => 'This link does not open anything, or not that day. Ask the kitchen for a new one.' },
  'event.serverOnly': { status: 422, title: 'Not from here', detail: () => 'What probes sent is put into the record by the server only. Nothing was saved.' },
  'event.leadOnly': { status: 422, title: 'For the lead', detail: () => 'That is decided and signed by the lead. Pick who you are at the head of the page, or ask the lead.' },
  'event.future': {
    status: 422,
    title: 'That time has not come yet',
    detail: (facts: { aheadMin: number }) => `This entry is dated ${String(facts.aheadMin)} min ahead of the server's clock. Set the clock of this device, then log it again.`,
  },
  'event.batchUnknown': {
    status: 422,
    title: 'Unknown batch',
    detail: (facts: { batchId: string }) => `There is no batch "${facts.batchId}" on this day. Start the batch first, or pick another one from the list.`,
  },
  'event.batchDiscarded': {
    status: 409,
    title: 'Batch was discarded',
    detail: (facts: { name: string }) => `${facts.name} was discarded. Nothing more can be logged for it; correct the discard first if it was a slip.`,
  },
  'event.readingImpossible': {
    status: 422,
    title: 'No soup has that temperature',
    detail: (facts: { value: number; unit: string; lowest: number; highest: number }) =>
      `${String(facts.value)} °${facts.unit} cannot be right: soup lies between ${String(facts.lowest)} and ${String(facts.highest)} °${facts.unit}. Check the digits and the unit, and read the probe again.`,
  },
  'event.personUnknown': {
    status: 422,
    title: 'Who is this?',
    detail: (facts: { by: string }) => `Nobody called "${facts.by}" works in this kitchen. Pick who is holding this phone and try again.`,
  },
  'event.idReused': {
    status: 409,
    title: 'Same entry, other content',
    detail: () => 'An entry with this id is in the log already, with other content. The log keeps the first. Enter it anew.',
  },
  'event.targetUnknown': { status: 422, title: 'Nothing to correct', detail: () => 'The entry to be corrected is not in the log. Reload and pick it again.' },
  'plan.none': {
    status: 404,
    title: 'No plan yet',
    detail: (facts: { day: string }) => `No plan has been accepted for ${facts.day}. Open the board and press "Use this plan" first.`,
  },
  'search.busy': {
    status: 503,
    title: 'The server is searching already',
    detail: () => 'The server is searching for others. Your draft stays as it is; try again in half a minute.',
  },
  'plan.stale': {
    status: 409,
    title: 'The day has moved on',
    detail: () => 'Pars, batches or the clock changed since this plan was made. Look at the new draft and accept that one.',
  },
  'plan.overtaken': {
    status: 409,
    title: 'Somebody else was first',
    detail: (facts: { by: string; at: string }) =>
      `${facts.by} took another plan at ${facts.at}. It is the one that counts; what you moved is still here, planned on top of it. Look at it and take it if it is still wanted.`,
  },
  'plan.infeasible': {
    status: 422,
    title: 'This plan cannot be cooked',
    detail: (facts: { first: string }) => `The plan breaks a limit of the station (${facts.first}). Nothing was saved. Make a new draft.`,
  },
  'database.away': {
    status: 503,
    title: 'The record cannot be reached',
    detail: () => 'The database does not answer. Nothing was saved just now; what you entered stays on this device and is sent when it is back.',
  },
  'server.fault': {
    status: 500,
    title: 'Our mistake',
    detail: (facts: { reference: string }) => `Something went wrong on the server. Nothing was saved. Try again; if it stays, quote ${facts.reference}.`,
  },
} as const;

export type RefusalCode = keyof typeof REFUSALS;
export type RefusalFacts<Code extends RefusalCode> = Parameters<(typeof REFUSALS)[Code]['detail']>[0];

/** Throw this anywhere on the server; it becomes problem+json at the edge. */
export class Refusal extends Error {
  readonly problem: Problem;
  constructor(problem: Problem) {
    super(problem.detail);
    this.name = 'Refusal';
    this.problem = problem;
  }
}

/** `refuse('event.future', { aheadMin: 12 })` is the refusal with its sentence. */
export function refuse<Code extends RefusalCode>(code: Code, ...facts: RefusalFacts<Code> extends undefined ? [] : [RefusalFacts<Code>]): Refusal {
  const { status, title, detail } = REFUSALS[code];
  const say = detail as (given: unknown) => string;
  return new Refusal({ type: `urn:broth-board:refusal:${code}`, title, status, detail: say(facts[0]), code });
}
