import type { PlacedChangeover, PlacedJob, Sequence } from '../problem';
import type { Timetable } from './timetable';

/** What lies on the table, in the problem's own words. */
export function planOf(table: Timetable): Omit<Sequence, 'objective'> {
  const { compiled } = table;
  const { problem } = compiled;
  const jobs = compiled.jobs
    .filter((job) => table.isPlaced(job.index))
    .map((job): PlacedJob => {
      const variant = table.variant(job.index);
      return {
        jobId: job.job.id,
        steps: job.job.steps.map((step, at) => {
          const startMin = table.start[job.offset + at]!;
          const unit = variant.stepUnit[at]!;
          return {
            stepId: step.id,
            modeId: step.modes[variant.modes[at]!]!.id,
            unitId: unit < 0 ? null : problem.units[unit]!.id,
            startMin,
            endMin: startMin + variant.durations[at]!,
          };
        }),
        spanUnitIds: variant.spanUnit.map((unit) => problem.units[unit]!.id),
      };
    });
  const changeovers = table
    .holdsAt()
    .flatMap((list, unit) =>
      list
        .slice(1)
        .flatMap((hold, at): PlacedChangeover[] =>
          hold.washTo > hold.washFrom && table.isPlaced(hold.job) && table.isPlaced(list[at]!.job)
            ? [{ unitId: problem.units[unit]!.id, fromJobId: problem.jobs[list[at]!.job]!.id, toJobId: problem.jobs[hold.job]!.id, startMin: hold.washFrom, endMin: hold.washTo }]
            : [],
        ),
    );
  const unplaced = compiled.jobs.filter((job) => !table.isPlaced(job.index)).map((job) => job.job.id);
  return { jobs, changeovers, unplaced };
}
