import { readFileSync } from 'node:fs';
import path from 'node:path';
import { Worker } from 'node:worker_threads';
import type { Job, Problem } from '../sequence/index';

/**
 * Outside solvers, by MiniZinc 2 in its WASM package: Chuffed (lazy clause generation), Gecode (constraint propagation) and HiGHS (mixed integer programs). They
 * read a made day from a model that shares nothing with the engine.
 */
export type OutsideSolver = 'chuffed' | 'gecode' | 'highs';

const BIN = require.resolve('minizinc/minizinc-worker.js');
/** The package's own Node entry wants a program on the machine: its browser worker is run instead, in a thread that looks like a browser to it. */
const AS_A_BROWSER = `
const { parentPort, workerData } = require('node:worker_threads');
const { readFileSync } = require('node:fs');
const { join } = require('node:path');
globalThis.self = globalThis;
globalThis.WorkerGlobalScope = class {};
globalThis.location = { href: 'http://solver/', pathname: '/' };
globalThis.fetch = async (url) => new Response(readFileSync(join(workerData.folder, new URL(url).pathname)), { headers: { 'content-type': String(url).endsWith('.wasm') ? 'application/wasm' : 'application/octet-stream' } });
globalThis.postMessage = (message) => parentPort.postMessage(message);
globalThis.addEventListener = (kind, hear) => parentPort.on('message', (data) => hear({ data }));
globalThis.process = undefined;
(0, eval)(workerData.source);
`;

interface Message {
  readonly type: string;
  readonly status?: string;
  readonly message?: string;
  readonly output?: { readonly json?: { readonly _objective?: number } };
}

/** What a solver says of a model: `OPTIMAL_SOLUTION`, `UNSATISFIABLE`, `SATISFIED` or `UNKNOWN`; and the cost of the cheapest plan it has found, where it was asked for one. */
export interface Said {
  readonly status: string;
  readonly cost: number | null;
}

/** Asks a solver within so many seconds. */
export function ask(solver: OutsideSolver, model: string, limitS: number): Promise<Said> {
  const worker = new Worker(AS_A_BROWSER, { eval: true, workerData: { folder: path.dirname(BIN), source: readFileSync(BIN, 'utf8') }, stdout: false, stderr: false });
  return new Promise((resolve, reject) => {
    let status = 'UNKNOWN';
    let cost: number | null = null;
    let trouble = '';
    // Not every solver looks at its watch while it reads.
    const over = setTimeout(() => {
      void worker.terminate();
      resolve({ status, cost });
    }, limitS * 1000);
    worker.on('error', reject);
    worker.on('message', (answer: Message) => {
      if (answer.type === 'ready') {
        worker.postMessage({
          jsonStream: true,
          files: { 'day.mzn': model },
          args: [
            '--solver',
            solver,
            ...(solver === 'chuffed' ? ['-f'] : []),
            '-i',
            '--output-mode',
            'json',
            '--output-objective',
            '--time-limit',
            String(limitS * 1000),
            'day.mzn',
          ],
        });
        return;
      }
      if (answer.type === 'solution') {
        status = 'SATISFIED';
        cost = answer.output?.json?._objective ?? null;
      }
      if (answer.type === 'status') status = answer.status ?? status;
      if (answer.type === 'error') trouble = answer.message ?? 'an error without words';
      if (answer.type !== 'exit') return;
      clearTimeout(over);
      void worker.terminate();
      if (trouble === '') resolve({ status, cost });
      else reject(new Error(trouble));
    });
    worker.postMessage({ wasmURL: 'http://solver/minizinc.wasm', dataURL: 'http://solver/minizinc.data' });
  });
}

/** A day without washes that ask for hands, as a MiniZinc model: something cheaper than `below`, or the cheapest there is when that is null. */
export function modelOf(problem: Problem, below: number | null): string {
  const { weights, horizonMin, jobs } = problem;
  const lines: string[] = ['include "cumulative.mzn";'];
  const stepName = (job: Job, id: string): string => `${job.id}_${id}`;
  const start = (job: Job, id: string): string => `s_${stepName(job, id)}`;
  const lasts = (job: Job, id: string): string => `d_${stepName(job, id)}`;
  const end = (job: Job, id: string): string => `(${start(job, id)} + ${lasts(job, id)})`;
  const uses = new Map<string, { s: string; d: string; units: number }[]>(problem.resources.map(({ id }) => [id, []]));
  const holds: { readonly job: Job; readonly unit: string; readonly units: readonly string[]; readonly from: string; readonly to: string }[] = [];
  for (const job of jobs) {
    for (const step of job.steps) {
      lines.push(`var ${String(job.releaseMin)}..${String(horizonMin)}: ${start(job, step.id)};`);
      const [first] = step.modes;
      if (step.modes.length === 1) lines.push(`int: ${lasts(job, step.id)} = ${String(first?.durationMin ?? 0)};`);
      else {
        const durations = step.modes.map((mode) => mode.durationMin);
        lines.push(`var 1..${String(durations.length)}: m_${stepName(job, step.id)};`);
        lines.push(`var ${String(Math.min(...durations))}..${String(Math.max(...durations))}: ${lasts(job, step.id)};`);
        lines.push(`constraint ${lasts(job, step.id)} = [${durations.join()}][m_${stepName(job, step.id)}];`);
      }
      for (const { resourceId, units } of first?.uses ?? []) uses.get(resourceId)?.push({ s: start(job, step.id), d: lasts(job, step.id), units });
      step.modes.forEach((mode, at) => {
        if (mode.unitIds.length > 0)
          holds.push({
            job,
            unit: step.modes.length === 1 ? 'true' : `m_${stepName(job, step.id)} = ${String(at + 1)}`,
            units: mode.unitIds,
            from: start(job, step.id),
            to: end(job, step.id),
          });
      });
      for (const input of step.afterJobs) {
        const other = jobs.find(({ id }) => id === input);
        for (const last of other?.steps ?? []) if (other !== undefined) lines.push(`constraint ${start(job, step.id)} >= ${end(other, last.id)};`);
      }
    }
    for (const lag of job.lags) {
      lines.push(`constraint ${start(job, lag.to)} >= ${end(job, lag.from)} + ${String(lag.minMin)};`);
      if (lag.maxMin !== null) lines.push(`constraint ${start(job, lag.to)} <= ${end(job, lag.from)} + ${String(lag.maxMin)};`);
    }
    for (const span of job.spans) {
      lines.push(`var 1..${String(span.unitIds.length)}: u_${job.id};`);
      span.unitIds.forEach((unitId, at) => {
        holds.push({ job, unit: `u_${job.id} = ${String(at + 1)}`, units: [unitId], from: start(job, span.from), to: end(job, span.to) });
      });
    }
  }
  // Two that hold the same unit: one after the other, with the wash between them.
  const table = problem.changeovers[0];
  const washMin = (before: Job, after: Job): number => table?.min[table.classes.indexOf(before.changeClass ?? '')]?.[table.classes.indexOf(after.changeClass ?? '')] ?? 0;
  holds.forEach((one, at) => {
    for (const other of holds.slice(at + 1)) {
      if (one.job === other.job || one.units[0] !== other.units[0]) continue;
      lines.push(
        `constraint (${one.unit} /\\ ${other.unit}) -> (${other.from} >= ${one.to} + ${String(washMin(one.job, other.job))} \\/ ${one.from} >= ${other.to} + ${String(washMin(other.job, one.job))});`,
      );
    }
  });
  for (const { id, capacity } of problem.resources) {
    const all = uses.get(id) ?? [];
    if (all.length > 0)
      lines.push(`constraint cumulative([${all.map(({ s }) => s).join()}], [${all.map(({ d }) => d).join()}], [${all.map(({ units }) => units).join()}], ${String(capacity)});`);
  }
  const costs = jobs.flatMap((job) => {
    const last = job.steps.at(-1);
    if (last === undefined || job.readyByMin === null) return [];
    const by = `${end(job, last.id)} - ${String(job.readyByMin)}`;
    return [`${String(weights.late * job.lateWeight)} * max(0, ${by})`, `${String(weights.early * job.earlyWeight)} * max(0, -(${by}))`];
  });
  for (const job of jobs)
    for (const step of job.steps)
      for (const input of jobs.filter(({ id, readyByMin }) => step.afterJobs.includes(id) && readyByMin === null)) {
        const [last, made] = [job.steps.at(-1), input.steps.at(-1)];
        if (last !== undefined && made !== undefined) costs.push(`${String(weights.early * input.earlyWeight)} * (${end(job, last.id)} - ${end(input, made.id)})`);
      }
  lines.push(`var 0..${String(horizonMin)}: makespan;`);
  for (const job of jobs) for (const step of job.steps) lines.push(`constraint makespan >= ${end(job, step.id)};`);
  const cost = [...costs, `${String(weights.makespan)} * makespan`].join(' + ');
  if (below === null) lines.push(`solve minimize ${cost};`);
  else lines.push(`constraint ${cost} <= ${String(Math.round(below) - 1)};`, 'solve satisfy;');
  return lines.join('\n');
}

/** The day with washes that take their minutes in the unit and nobody's hands, and that cost nothing: what the model says. */
export function quietWashes(problem: Problem): Problem {
  return { ...problem, changeovers: problem.changeovers.map((one) => ({ ...one, uses: [] })), weights: { ...problem.weights, changeover: 0 } };
}
