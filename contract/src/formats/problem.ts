import { DEFAULT_WEIGHTS } from '@broth/core';
import type { Problem, Sequence } from '@broth/core';
import { z } from 'zod';

/** A sequencing problem and its answer as files: a kitchen day or a textbook problem, said in the same words. Times are whole minutes. */

const id = z.string().min(1, 'An id cannot be empty.').max(200);
const minute = z.int('Times are whole minutes.').min(0, 'A time cannot be below 0.').max(100_000);
const weight = z.number().min(0).max(1e9);
const uses = z.array(z.object({ resourceId: id, units: z.int().min(1, 'A use takes at least one unit.').max(1000) })).default([]);

const fixed = z
  .discriminatedUnion('kind', [z.object({ kind: z.literal('done'), startMin: minute, endMin: minute }), z.object({ kind: z.literal('pinned'), startMin: minute })])
  .nullable()
  .default(null);

const jobStep = z.object({
  id,
  modes: z
    .array(
      z.object({
        id: id.default('only'),
        durationMin: minute,
        /** The least and the most it may take. */
        spreadMin: z.tuple([z.number().min(0), z.number().min(0)]).optional(),
        uses,
        /** One of these is held for as long as the step lasts. */
        unitIds: z.array(id).default([]),
      }),
    )
    .min(1, 'A step needs at least one way of doing it.')
    .max(20),
  afterJobs: z.array(id).default([]),
  fixed,
});

const job = z.object({
  id,
  volumeL: z.number().min(0).default(0),
  steps: z.array(jobStep).min(1, 'A job needs at least one step.').max(60),
  lags: z
    .array(
      z.object({
        from: id,
        to: id,
        kind: z.enum(['startStart', 'startEnd', 'endStart', 'endEnd']).default('endStart'),
        minMin: z.int().default(0),
        maxMin: z.int().nullable().default(null),
      }),
    )
    .default([]),
  spans: z.array(z.object({ id, unitIds: z.array(id).min(1), from: id, to: id, until: z.enum(['end', 'start']).default('end') })).default([]),
  changeClass: id.nullable().default(null),
  releaseMin: minute.default(0),
  readyByMin: minute.nullable().default(null),
  lateWeight: weight.default(1),
  earlyWeight: weight.default(0),
  bufferMin: minute.default(0),
  likesEarlyMin: minute.default(0),
});

const shape = z.object({
  format: z.literal('broth-problem/1'),
  horizonMin: z.int().min(1, 'A horizon is at least a minute.').max(20_160, 'A horizon of more than two weeks is not planned by the minute.'),
  resources: z
    .array(
      z.object({
        id,
        name: z.string().default(''),
        capacity: z.int().min(0).max(10_000),
        windows: z.array(z.object({ fromMin: minute, toMin: minute, capacity: z.int().min(0) })).default([]),
        /** Nothing of these is in use while any of this one is. */
        excludes: z.array(id).default([]),
      }),
    )
    .default([]),
  units: z
    .array(
      z.object({ id, name: z.string().default(''), volume: z.object({ minL: z.number(), maxL: z.number() }).nullable().default(null), changeoverId: id.nullable().default(null) }),
    )
    .default([]),
  changeovers: z.array(z.object({ id, classes: z.array(id).min(1), min: z.array(z.array(minute)), uses })).default([]),
  jobs: z.array(job).max(1000, 'At most 1000 jobs.'),
  lines: z.array(z.array(id)).default([]),
  weights: z.object({ late: weight, short: weight.default(0), early: weight, changeover: weight, moved: weight, makespan: weight }).default(DEFAULT_WEIGHTS),
});

/** What is named must be there: an engine that meets a kettle nobody has leaves the job out, and a file should be told so instead. */
export const problemDocument = shape.superRefine((given, context) => {
  const say = (path: (string | number)[], message: string): void => {
    context.addIssue({ code: 'custom', path, message });
  };
  const once = (ids: readonly string[], what: string, path: string): void => {
    const twice = ids.find((one, index) => ids.indexOf(one) !== index);
    if (twice !== undefined) say([path], `There are two ${what} "${twice}". Give each its own id.`);
  };
  once(
    given.jobs.map((one) => one.id),
    'jobs',
    'jobs',
  );
  once(
    [...given.resources, ...given.units].map((one) => one.id),
    'resources or units',
    'resources',
  );
  const resources = new Set(given.resources.map((one) => one.id));
  const units = new Set(given.units.map((one) => one.id));
  const jobs = new Set(given.jobs.map((one) => one.id));
  given.changeovers.forEach((one, index) => {
    if (one.min.length !== one.classes.length || one.min.some((row) => row.length !== one.classes.length))
      say(['changeovers', index, 'min'], `The table wants ${String(one.classes.length)} rows of ${String(one.classes.length)} minutes, one for each class.`);
  });
  given.resources.forEach((one, index) => {
    for (const other of one.excludes) {
      if (!resources.has(other)) say(['resources', index, 'excludes'], `There is no resource "${other}".`);
      if (other === one.id) say(['resources', index, 'excludes'], `"${other}" cannot exclude itself. Give it a capacity of 1 if one step at a time may use it.`);
    }
  });
  given.jobs.forEach((one, at) => {
    const steps = new Set(one.steps.map((step) => step.id));
    const known = (set: ReadonlySet<string>, name: string, what: string, path: (string | number)[]): void => {
      if (!set.has(name)) say(['jobs', at, ...path], `There is no ${what} "${name}".`);
    };
    once(
      one.steps.map((step) => step.id),
      `steps of ${one.id} called`,
      'jobs',
    );
    one.steps.forEach((step, index) => {
      for (const other of step.afterJobs) known(jobs, other, 'job', ['steps', index, 'afterJobs']);
      for (const mode of step.modes) {
        for (const use of mode.uses) known(resources, use.resourceId, 'resource', ['steps', index, 'modes']);
        for (const unit of mode.unitIds) known(units, unit, 'unit', ['steps', index, 'modes']);
      }
    });
    one.lags.forEach((lag, index) => {
      known(steps, lag.from, 'step', ['lags', index, 'from']);
      known(steps, lag.to, 'step', ['lags', index, 'to']);
      if (lag.maxMin !== null && lag.maxMin < lag.minMin) say(['jobs', at, 'lags', index], `At most ${String(lag.maxMin)} min is less than at least ${String(lag.minMin)} min.`);
    });
    one.spans.forEach((span, index) => {
      known(steps, span.from, 'step', ['spans', index, 'from']);
      known(steps, span.to, 'step', ['spans', index, 'to']);
      for (const unit of span.unitIds) known(units, unit, 'unit', ['spans', index, 'unitIds']);
    });
  });
});
/** As JSON Schema knows it: what is named where cannot be said there. */
export const problemShape = shape;

export const sequenceDocument = z.object({
  format: z.literal('broth-sequence/1'),
  jobs: z.array(
    z.object({
      jobId: id,
      steps: z.array(z.object({ stepId: id, modeId: id, unitId: id.nullable(), startMin: z.int(), endMin: z.int() })),
      spanUnitIds: z.array(id),
    }),
  ),
  changeovers: z.array(z.object({ unitId: id, fromJobId: id, toJobId: id, startMin: z.int(), endMin: z.int() })),
  unplaced: z.array(id),
  objective: z.object({
    lateMin: z.number(),
    shortMin: z.number().default(0),
    earlyMin: z.number(),
    changeoverMin: z.number(),
    movedMin: z.number(),
    makespanMin: z.number(),
    cost: z.number(),
  }),
  /** No plan costs less; `gap` is how far above it this one is, as a share of its cost. */
  bound: z.object({ lateMin: z.number(), changeoverMin: z.number(), makespanMin: z.number(), cost: z.number(), gap: z.number() }),
  /** The same seed and moves give the same plan on any machine. */
  search: z.object({ seed: z.int(), moves: z.int(), seconds: z.number() }),
});
export type SequenceDocument = z.infer<typeof sequenceDocument>;

/** A problem read from a file is one the engine takes. */
export function problemOf(document: z.infer<typeof problemDocument>): Problem {
  const { format: _format, ...problem } = document;
  return problem;
}

export function sequenceOf({ jobs, changeovers, unplaced, objective }: SequenceDocument): Sequence {
  return { jobs, changeovers, unplaced, objective };
}
