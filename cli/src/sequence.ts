import { problemDocument, problemOf, sequenceDocument, sequenceOf } from '@broth/contract/formats';
import type { SequenceDocument } from '@broth/contract/formats';
import { boundOf, startSolving, violations } from '@broth/core/planner';
import { SHOPS } from '@broth/core/shops';
import type { Outside } from './outside';

/** Planning and checking over the open formats: any sequencing problem, a kitchen's or a textbook's. */

interface Flags {
  readonly seconds?: string | undefined;
  readonly seed?: string | undefined;
  readonly moves?: string | undefined;
}

const MOVES_A_LOOK = 20;

interface Readable<Document> {
  readonly safeParse: (
    value: unknown,
  ) =>
    | { readonly success: true; readonly data: Document }
    | { readonly success: false; readonly error: { readonly issues: readonly { readonly path: readonly PropertyKey[]; readonly message: string }[] } };
}

/** Reads a file in a format; null when it cannot be, which has been said. */
function read<Document>(file: string, schema: Readable<Document>, format: string, outside: Outside): Document | null {
  let value: unknown;
  try {
    value = JSON.parse(outside.read(file));
  } catch (error) {
    outside.complain(error instanceof SyntaxError ? `${file} is not JSON.` : `${file} cannot be read: ${error instanceof Error ? error.message : String(error)}`);
    return null;
  }
  const parsed = schema.safeParse(value);
  if (parsed.success) return parsed.data;
  const issues = parsed.error.issues.slice(0, 8).map((issue) => `  ${issue.path.join('.')}: ${issue.message}`);
  outside.complain(`${file} is not in the format ${format}:\n${issues.join('\n')}`);
  return null;
}

function numberOf(text: string | undefined, fallback: number, least: number): number | null {
  const value = text === undefined ? fallback : Number(text);
  return Number.isFinite(value) && value >= least ? value : null;
}

export function plan(file: string, flags: Flags, outside: Outside): number {
  const seconds = numberOf(flags.seconds, 5, 0);
  const seed = numberOf(flags.seed, 1, 0);
  const moves = numberOf(flags.moves, Number.POSITIVE_INFINITY, 0) ?? (flags.moves === undefined ? Number.POSITIVE_INFINITY : null);
  if (seconds === null || seed === null || moves === null || !Number.isInteger(seed)) {
    outside.complain('--seconds and --moves want a number from 0, --seed a whole number from 0.');
    return 2;
  }
  const document = read(file, problemDocument, 'broth-problem/1', outside);
  if (document === null) return 2;
  const problem = problemOf(document);
  const from = outside.workedS();
  const search = startSolving(problem, { seed, guides: SHOPS });
  // So many moves are made whatever they take; without a number, as many as fit the time.
  const more = (): number => (flags.moves === undefined ? (outside.workedS() - from < seconds ? MOVES_A_LOOK : 0) : Math.min(MOVES_A_LOOK, moves - search.movesMade()));
  for (let next = more(); next > 0; next = more()) search.run(next);
  const sequence = search.sequence();
  const bound = boundOf(problem);
  const { cost } = sequence.objective;
  const answer: SequenceDocument = {
    format: 'broth-sequence/1',
    jobs: sequence.jobs.map((job) => ({ jobId: job.jobId, steps: job.steps.map((step) => ({ ...step })), spanUnitIds: [...job.spanUnitIds] })),
    changeovers: sequence.changeovers.map((one) => ({ ...one })),
    unplaced: [...sequence.unplaced],
    objective: sequence.objective,
    bound: { ...bound, gap: cost === 0 ? 0 : (cost - bound.cost) / cost },
    search: { seed, moves: search.movesMade(), seconds: Math.round((outside.workedS() - from) * 100) / 100 },
  };
  outside.print(JSON.stringify(answer, null, 2));
  if (sequence.unplaced.length > 0) outside.complain(`Without a place inside the horizon: ${sequence.unplaced.join(', ')}.`);
  return sequence.unplaced.length > 0 ? 1 : 0;
}

export function checkPlan(problemFile: string, planFile: string, outside: Outside): number {
  const document = read(problemFile, problemDocument, 'broth-problem/1', outside);
  const planned = document === null ? null : read(planFile, sequenceDocument, 'broth-sequence/1', outside);
  if (document === null || planned === null) return 2;
  const found = violations(problemOf(document), sequenceOf(planned));
  for (const violation of found) {
    const { code, ...facts } = violation;
    outside.print(
      `${code}  ${Object.entries(facts)
        .map(([name, value]) => `${name} ${String(value)}`)
        .join(', ')}`,
    );
  }
  if (found.length === 0) outside.print('The plan keeps every rule of its problem.');
  return found.length === 0 ? 0 : 1;
}
