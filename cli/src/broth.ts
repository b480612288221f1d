import * as soupWords from '@broth/contract/soupWords';
import { parseArgs } from 'node:util';
import { soupDocument, words } from '@broth/contract';
import type { SoupDocument } from '@broth/contract';
import { batchSheet, checkSoup, componentDemand, componentLoop, litresFor, variantOf } from '@broth/core';
import type { BatchSheet, Soup, Target } from '@broth/core';
import { HANDBOOK } from '@broth/core/handbook';
import type { Outside } from './outside';
import { cool, verify } from './record';
import { checkPlan, plan } from './sequence';

const HELP = `broth scale FILE --litres 26 | --portions 60 | --kettle 25 [--power 12] [--variant ID] [--json]
    every amount, time and range of a soup for so many litres, bowls, or a full kettle; and what it asks of its components
broth check FILE
    what is wrong or doubtful with a soup; exit 1 when it cannot be made or served as it is
broth plan PROBLEM [--seconds 5] [--seed 1] [--moves N]
    the best sequence found in so long, or in so many moves, with its cost in parts and the bound no plan is below
broth check PROBLEM PLAN
    whether a plan keeps every rule of its problem, worked out apart from the planner; exit 1 when it does not
broth cool READINGS [--pack us-fda-fc2022] [--unit F] [--heat-off 0] [--ambient 38] [--litres 18] [--now 130] [--json]
    the verdict on a cooling, what it stands on and what would decide it; with --ambient where it is heading, with --litres what would cool it; exit 1 when it
    failed, is overdue or not proven
broth verify EVENTS [RECORD]
    whether a log is what was recorded, its chain of hashes worked out again; and whether a day's record is of that log; exit 1 when it is not

READINGS is CSV or JSON with time (minutes, or with its offset) and temperature; EVENTS what GET /api/kitchens/:kitchen/events answers.
FILE is a soup in the format broth-soup/1, PROBLEM broth-problem/1, PLAN broth-sequence/1 (docs/formats.md); - reads what is piped in.`;

type Opened = { readonly kind: 'document'; readonly document: SoupDocument } | { readonly kind: 'trouble'; readonly says: string };

function open(file: string, outside: Outside): Opened {
  let text: string;
  try {
    text = outside.read(file);
  } catch (error) {
    return { kind: 'trouble', says: `${file} cannot be read: ${error instanceof Error ? error.message : String(error)}` };
  }
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    return { kind: 'trouble', says: `${file} is not JSON. Save the soup from its page in the book.` };
  }
  const read = soupDocument.safeParse(value);
  if (read.success) return { kind: 'document', document: read.data };
  const issues = read.error.issues.slice(0, 5).map((issue) => `  ${issue.path.join('.')}: ${issue.message}`);
  return { kind: 'trouble', says: `${file} is not a soup in the format broth-soup/1:\n${issues.join('\n')}` };
}

function bookOf({ soup, components }: SoupDocument): ReadonlyMap<string, Soup> {
  return new Map([...components, soup].map((one) => [one.id, one]));
}

function sheetText(soup: Soup, sheet: BatchSheet): readonly string[] {
  const yields = sheet.yieldL === null ? 'no yield claimed' : `gives ${words.number(sheet.yieldL.low)} to ${words.litres(sheet.yieldL.high)}`;
  const portions = sheet.portions === null ? '' : `, ${String(sheet.portions.low)} to ${String(sheet.portions.high)} portions`;
  return [
    `${soup.name}: ${words.litres(sheet.volumeL)}, x${String(Number(sheet.factor.toFixed(3)))} of the card, ${yields}${portions}`,
    ...sheet.steps.flatMap(({ step, lowMin, highMin, fills }, index) => [
      '',
      `${String(index + 1)}. ${step.name}  (${soupWords.range(lowMin, highMin)}${fills === null ? '' : `, ${String(fills)} fills of the jar`})`,
      ...sheet.lines
        .filter((line) => line.stepId === step.id)
        .map((line) => {
          const amount =
            line.amount === null ? 'by eye' : `${words.amountText(line.amount, line.unit)}${line.upTo === null ? '' : ` to ${words.amountText(line.upTo, line.unit)}`}`;
          const off = Math.abs(line.roundingError) > 0.005 ? `  [rounded ${soupWords.percent(line.roundingError)}]` : '';
          return `   ${amount.padStart(16)}  ${[line.name, line.cut].filter(Boolean).join(', ')}${line.fixed ? '  [not scaled]' : ''}${off}`;
        }),
      ...(step.caution === null ? [] : [`   ! ${step.caution}`]),
    ]),
    ...(sheet.unmeasured.length === 0 ? [] : ['', `Not measured yet: ${words.list(sheet.unmeasured)}.`]),
  ];
}

interface Flags {
  readonly litres?: string | undefined;
  readonly portions?: string | undefined;
  readonly kettle?: string | undefined;
  readonly power?: string | undefined;
  readonly variant?: string | undefined;
  readonly json?: boolean | undefined;
}

function targetOf(flags: Flags, soup: Soup): Target | string {
  const given = (['litres', 'portions', 'kettle'] as const).filter((flag) => flags[flag] !== undefined);
  const [flag, second] = given;
  if (flag === undefined || second !== undefined) return 'Say how much: one of --litres, --portions or --kettle.';
  const value = Number(flags[flag]);
  if (!(value > 0 && value <= 100_000)) return `--${flag} wants a number above 0, not "${flags[flag] ?? ''}".`;
  if (flag === 'litres') return { by: 'litres', volumeL: value };
  if (flag === 'kettle') return { by: 'vessel', workingMaxL: value };
  return { by: 'portions', portions: value, portionMl: soup.portionMl, servingLoss: 0.04 };
}

function scale(document: SoupDocument, flags: Flags, { print, complain }: Outside): number {
  const { soup: base } = document;
  const soupById = bookOf(document);
  if (flags.variant !== undefined && base.variants.every((one) => one.id !== flags.variant)) {
    complain(`${base.name} has no variant "${flags.variant}". It has: ${base.variants.map((one) => one.id).join(', ') || 'none'}.`);
    return 2;
  }
  const loop = componentLoop(base, soupById);
  if (loop !== null) {
    complain(soupWords.soupFinding({ code: 'component.loop', path: loop.map((id) => soupById.get(id)?.name ?? id) }));
    return 1;
  }
  const soup = flags.variant === undefined ? base : variantOf(base, flags.variant);
  const target = targetOf(flags, soup);
  if (typeof target === 'string') {
    complain(target);
    return 2;
  }
  const volumeL = litresFor(soup, target) ?? soup.makesL;
  const power = flags.power === undefined ? undefined : Number(flags.power);
  if (power !== undefined && !(power > 0)) {
    complain(`--power wants kilowatts above 0, not "${flags.power ?? ''}".`);
    return 2;
  }
  const vessel = power === undefined ? null : { capacityL: volumeL * 1.2, workingMaxL: volumeL, powerKw: power };
  const sheet = batchSheet(soup, volumeL, { vessel, soupById });
  const components = componentDemand([{ soupId: soup.id, volumeL, begunSteps: [] }], new Map([...soupById, [soup.id, soup]])).map((demand) => {
    const component = soupById.get(demand.componentId);
    return { ...demand, sheet: component === undefined ? null : batchSheet(component, demand.demandL, { soupById }), name: component?.name ?? demand.componentId };
  });
  if (flags.json === true) print(JSON.stringify({ soup: soup.id, sheet, components }, null, 2));
  else {
    print(sheetText(soup, sheet).join('\n'));
    for (const { componentId, demandL, sheet: inner, name } of components) {
      const component = soupById.get(componentId);
      print(inner === null || component === undefined ? `\n${name}: ${words.litres(demandL)}, and its card is not in the file.` : `\n${sheetText(component, inner).join('\n')}`);
    }
  }
  return 0;
}

function check(document: SoupDocument, { print }: Outside): number {
  const soupById = bookOf(document);
  const found = [...document.components, document.soup].flatMap((soup) => checkSoup(soup, soupById, HANDBOOK).map((finding) => ({ soup, finding })));
  if (found.length === 0) print('The checks find nothing.');
  for (const { soup, finding } of found) print(`${soupWords.isGrave(finding) ? 'stop' : 'look'}  ${soup.shortName}: ${soupWords.soupFinding(finding)}`);
  return found.some(({ finding }) => soupWords.isGrave(finding)) ? 1 : 0;
}

/** Runs a command; answers its exit code: 0 done, 1 the soup is not sound, 2 asked wrongly. */
export function broth(args: readonly string[], outside: Outside): number {
  let parsed;
  try {
    parsed = parseArgs({
      args: [...args],
      allowPositionals: true,
      options: {
        litres: { type: 'string' },
        portions: { type: 'string' },
        kettle: { type: 'string' },
        power: { type: 'string' },
        variant: { type: 'string' },
        json: { type: 'boolean' },
        seconds: { type: 'string' },
        seed: { type: 'string' },
        moves: { type: 'string' },
        pack: { type: 'string' },
        unit: { type: 'string' },
        'heat-off': { type: 'string' },
        ambient: { type: 'string' },
        now: { type: 'string' },
        help: { type: 'boolean' },
      },
    });
  } catch (error) {
    outside.complain(`${error instanceof Error ? error.message : String(error)}\n\n${HELP}`);
    return 2;
  }
  const [command, file, second] = parsed.positionals;
  if (parsed.values.help === true) {
    outside.print(HELP);
    return 0;
  }
  if (command === 'cool' && file !== undefined) return cool(file, parsed.values, outside);
  if (command === 'verify' && file !== undefined) return verify(file, second, outside);
  if (command === 'plan' && file !== undefined) return plan(file, parsed.values, outside);
  if (command === 'check' && file !== undefined && second !== undefined) return checkPlan(file, second, outside);
  if ((command !== 'scale' && command !== 'check') || file === undefined) {
    outside.complain(HELP);
    return 2;
  }
  const opened = open(file, outside);
  if (opened.kind === 'trouble') {
    outside.complain(opened.says);
    return 2;
  }
  return command === 'scale' ? scale(opened.document, parsed.values, outside) : check(opened.document, outside);
}
