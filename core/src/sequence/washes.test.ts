import { solve, violations } from './index';
import { compile } from './engine/compile';
import { planOf } from './engine/reading';
import { Timetable } from './engine/timetable';
import { makeJob, makeJobStep, makeProblem } from './problem.arbitrary';

describe('when a jar is washed between two batches', () => {
  const blend = [makeJobStep('blend', 20, { unitIds: ['jar'] })];
  const problem = makeProblem({
    resources: [{ id: 'hands', name: '', capacity: 4, windows: [] }],
    units: [{ id: 'jar', name: '', volume: null, changeoverId: 'wash' }],
    changeovers: [{ id: 'wash', classes: ['plain'], min: [[5]], uses: [{ resourceId: 'hands', units: 4 }] }],
    jobs: ['a', 'b'].map((id) => makeJob(id, { steps: blend, changeClass: 'plain' })),
  });
  const washed = (lay: (table: Timetable) => void): readonly [number, number] | null => {
    const table = new Timetable(compile(problem));
    lay(table);
    const plan = planOf(table);
    expect(plan.unplaced).toEqual([]);
    expect(violations(problem, plan)).toEqual([]);
    const [wash] = plan.changeovers;
    return wash === undefined ? null : [wash.startMin, wash.endMin];
  };
  test('as soon as it is free where things are laid out as soon as they fit', () => {
    expect(
      washed((table) => {
        expect(table.placeSoon(0, 0, 0, 0, false)).toBe(20);
        expect(table.placeSoon(1, 0, 0, 100, false)).toBe(100);
      }),
    ).toEqual([20, 25]);
  });
  test('at the last moment where they are laid out from the end: hands stay free for what comes before', () => {
    expect(
      washed((table) => {
        expect(table.placeLate(1, 0, 0, 100)).toBe(100);
        expect(table.placeLate(0, 0, 0, 40)).toBe(40);
      }),
    ).toEqual([75, 80]);
  });
  test('in the plan that is given out as soon as it is free again: what stands dirty dries on', () => {
    expect(
      washed((table) => {
        table.placeLate(1, 0, 0, 100);
        table.placeLate(0, 0, 0, 40);
        table.washSoon();
      }),
    ).toEqual([40, 45]);
    const byTheirTime = { ...problem, jobs: problem.jobs.map((job, at) => ({ ...job, readyByMin: at === 0 ? 40 : 100 })) };
    expect(solve(byTheirTime, { seed: 1, moves: 500 }).changeovers).toEqual([{ unitId: 'jar', fromJobId: 'a', toJobId: 'b', startMin: 40, endMin: 45 }]);
  });
});
