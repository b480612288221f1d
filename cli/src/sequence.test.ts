import { readFileSync } from 'node:fs';
import path from 'node:path';
import { broth } from './broth';

const EXAMPLE = readFileSync(path.join(__dirname, '../../docs/formats/flow-shop.problem.json'), 'utf8');

function run(args: readonly string[], files: Readonly<Record<string, string>>): { code: number; out: string; err: string } {
  const out: string[] = [];
  const err: string[] = [];
  let worked = 0;
  const code = broth(args, {
    read: (name) => {
      const text = files[name];
      if (text === undefined) throw new Error('no such file');
      return text;
    },
    print: (said) => out.push(said),
    complain: (said) => err.push(said),
    workedS: () => (worked += 0.05),
  });
  return { code, out: out.join('\n'), err: err.join('\n') };
}
const change = (text: string, edit: (problem: { jobs: { steps: { modes: { durationMin: number; uses: { resourceId: string }[] }[] }[] }[] }) => void): string => {
  const problem = JSON.parse(text) as Parameters<typeof edit>[0];
  edit(problem);
  return JSON.stringify(problem);
};

describe('broth plan', () => {
  test('the five jobs of the two-machine flow shop are done at 205 (Johnson 1954), and the checker finds nothing', () => {
    const { code, out } = run(['plan', 'p.json', '--moves', '400', '--seed', '3'], { 'p.json': EXAMPLE });
    const plan = JSON.parse(out) as { objective: { makespanMin: number }; bound: { cost: number }; search: { moves: number } };
    expect([code, plan.objective.makespanMin, plan.search.moves]).toEqual([0, 205, 400]);
    expect(plan.bound.cost).toBeLessThanOrEqual(205);
    expect(run(['check', 'p.json', 'q.json'], { 'p.json': EXAMPLE, 'q.json': out })).toEqual({ code: 0, out: 'The plan keeps every rule of its problem.', err: '' });
  });
  test('the same seed and moves give the same answer; without moves it stops by the clock', () => {
    const answer = (): unknown => ({ ...(JSON.parse(run(['plan', 'p.json', '--moves', '100'], { 'p.json': EXAMPLE }).out) as object), search: null });
    expect(answer()).toEqual(answer());
    expect(run(['plan', 'p.json', '--seconds', '1'], { 'p.json': EXAMPLE }).code).toBe(0);
  });
  test('what finds no place is named, and the exit says so', () => {
    const late = change(EXAMPLE, (problem) => (problem.jobs[0]!.steps[0]!.modes[0]!.durationMin = 5000));
    expect(run(['plan', 'p.json', '--moves', '20'], { 'p.json': late })).toMatchObject({ code: 1, err: 'Without a place inside the horizon: A.' });
  });
  test('a plan that breaks a rule is told which', () => {
    const { out } = run(['plan', 'p.json', '--moves', '50'], { 'p.json': EXAMPLE });
    const longer = change(EXAMPLE, (problem) => (problem.jobs[0]!.steps[0]!.modes[0]!.durationMin += 1));
    const told = run(['check', 'p.json', 'q.json'], { 'p.json': longer, 'q.json': out });
    expect(told.code).toBe(1);
    expect(told.out).toContain('step.duration  jobId A, stepId first, isMin 32, shouldMin 33');
  });
  test.each([
    ['a file that is not there', {}, 'p.json cannot be read: no such file'],
    ['not JSON', { 'p.json': 'jobs:' }, 'p.json is not JSON.'],
    ['another format', { 'p.json': '{"format":"x"}' }, 'p.json is not in the format broth-problem/1'],
    ['a machine nobody has', { 'p.json': change(EXAMPLE, (problem) => (problem.jobs[0]!.steps[0]!.modes[0]!.uses[0]!.resourceId = 'm9')) }, 'There is no resource "m9".'],
    ['a time below zero', { 'p.json': change(EXAMPLE, (problem) => (problem.jobs[0]!.steps[0]!.modes[0]!.durationMin = -1)) }, 'A time cannot be below 0.'],
  ] as const)('%s', (_, files, says) => {
    const { code, err } = run(['plan', 'p.json'], files);
    expect([code, err]).toEqual([2, expect.stringContaining(says)]);
  });
  test('a wrong number for a flag', () => {
    expect(run(['plan', 'p.json', '--seconds', 'soon'], { 'p.json': EXAMPLE })).toMatchObject({ code: 2, err: expect.stringContaining('--seconds') });
  });
});
