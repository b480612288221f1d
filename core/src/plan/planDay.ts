import { Explained, startSolving, stepWindows } from '../sequence/index';
import type { Blocker, Job, Objective, PlacedJob, Problem, SearchOptions, Sequence } from '../sequence/index';
import { readPlace } from '../batch/index';
import { changeoversOf, placedJobsOf } from './checkDayPlan';
import { inGoes, inOneGo, stepIdOf, wholeSteps } from './cutting';
import { unplacedIn } from './dayPlan';
import type { DayInput, DayPlan, Pin, PlanFinding, PlannedBatch, PlannedStep, Wash } from './dayPlan';
import { dayBatches } from './dayBatches';
import type { DayBatches, WantedBatch } from './dayBatches';
import { dayProblem } from './dayProblem';
import { HANDS_ID } from './hands';
import { stayUntil } from './overtime';
import { shiftEndOf, staying, withPeople } from './shift';
import { firstRoom, roomIn, withRoom } from './room';

/** What a batch waits for: of an oven that is at another heat, the oven. Nothing, where it stands because somebody has put it there. */
function waitedFor(blocker: Blocker | null | undefined): string | null {
  if (blocker == null || blocker.kind === 'pin') return null;
  return blocker.kind === 'resource' || blocker.kind === 'excluded' ? readPlace(blocker.id).equipmentId : blocker.id;
}

function plannedBatch(batch: WantedBatch, job: Job, placed: PlacedJob, explained: Explained): PlannedBatch {
  const readyMin = placed.steps.at(-1)?.endMin ?? 0;
  const state = batch.started === null ? 'planned' : batch.started.state === 'finished' ? 'finished' : 'running';
  const waits = explained.waitsOf(job.id);
  return {
    id: batch.id,
    name: `${batch.soup.shortName} ${String(batch.ordinal)}`,
    soupId: batch.soup.id,
    soupVersion: batch.soup.version,
    ordinal: batch.ordinal,
    volumeL: batch.volumeL,
    vesselId: placed.spanUnitIds[0] ?? batch.started?.vesselId ?? null,
    serviceId: batch.serviceId,
    readyByMin: job.readyByMin,
    bufferMin: job.bufferMin,
    readyMin,
    lateMin: job.readyByMin === null ? 0 : Math.max(0, readyMin - job.readyByMin),
    allergens: batch.allergens,
    steps: wholeSteps(placed.steps).flatMap(({ first, last, parts }): PlannedStep[] => {
      const [begins, ends] = [placed.steps[first], placed.steps[last]];
      const own = job.steps[first];
      if (begins === undefined || ends === undefined) return [];
      const { modeId, unitId, startMin } = begins;
      return [
        {
          stepId: stepIdOf(begins.stepId),
          modeId,
          unitId,
          startMin,
          endMin: ends.endMin,
          uses: own?.modes.find((mode) => mode.id === modeId)?.uses ?? [],
          frozen: own?.fixed?.kind === 'done',
          waitedMin: waits[first]?.waitedMin ?? 0,
          waitedFor: waitedFor(waits[first]?.blocker),
          ...(parts.length > 1 ? { parts } : {}),
        },
      ];
    }),
    state,
  };
}

function washesOf(sequence: Sequence, batches: readonly PlannedBatch[], fullWashMin: number): readonly Wash[] {
  const allergens = new Map(batches.map((batch) => [batch.id, batch.allergens]));
  return sequence.changeovers.map((wash): Wash => {
    const holds = allergens.get(wash.toJobId) ?? [];
    const carriesOver = (allergens.get(wash.fromJobId) ?? []).filter((allergen) => !holds.includes(allergen));
    const kind = carriesOver.length > 0 && wash.endMin - wash.startMin >= fullWashMin ? 'full' : 'rinse';
    return { unitId: wash.unitId, kind, startMin: wash.startMin, endMin: wash.endMin, afterBatchId: wash.fromJobId, beforeBatchId: wash.toJobId, carriesOver };
  });
}

/**
 * Batches of one soup that have not begun are alike, so their numbers follow the clock: the first to be cooked is number one. What was
 * placed stays where it is; only the names change hands.
 */
function numberedByTime(wanted: readonly WantedBatch[], problem: Problem, sequence: Sequence, pins: readonly Pin[]): Sequence {
  const unlike = new Map(problem.jobs.map((job) => [job.id, `${String(job.readyByMin)} ${job.steps.flatMap((step) => step.afterJobs).join()}`]));
  const placed = new Map(sequence.jobs.map((job) => [job.jobId, job]));
  const startOf = (job: PlacedJob): number => job.steps[0]?.startMin ?? 0;
  const alike = new Map<string, WantedBatch[]>();
  for (const batch of wanted) {
    // What others take from is not alike: each has its own takers. Nor are two that take from different batches, or are wanted at different times.
    if (batch.started !== null || batch.serviceId === null || !placed.has(batch.id) || pins.some((pin) => pin.batchId === batch.id)) continue;
    const key = `${batch.soup.id} ${batch.serviceId} ${String(batch.volumeL)} ${unlike.get(batch.id) ?? ''}`;
    alike.set(key, [...(alike.get(key) ?? []), batch]);
  }
  const nameOf = new Map<string, string>();
  for (const batches of alike.values()) {
    const inTime = batches.flatMap((batch) => placed.get(batch.id) ?? []).sort((left, right) => startOf(left) - startOf(right));
    [...batches].sort((left, right) => left.ordinal - right.ordinal).forEach((batch, index) => nameOf.set(inTime[index]?.jobId ?? batch.id, batch.id));
  }
  const named = (id: string): string => nameOf.get(id) ?? id;
  return {
    ...sequence,
    jobs: sequence.jobs.map((job) => ({ ...job, jobId: named(job.jobId) })),
    changeovers: sequence.changeovers.map((wash) => ({ ...wash, fromJobId: named(wash.fromJobId), toJobId: named(wash.toJobId) })),
  };
}

interface Basis {
  /** With those who stay longer, if anybody must. */
  readonly input: DayInput;
  readonly overtime: PlanFinding | null;
  readonly batches: DayBatches;
  readonly problem: Problem;
  readonly pins: readonly Pin[];
  readonly dropped: readonly PlanFinding[];
}

/** The pins that can be kept: a step that is still to come, at a minute its own batch allows. The others are named, with where they could stand. */
function basisOf(input: DayInput): Basis {
  const batches = dayBatches(input);
  let pins = (input.pins ?? []).filter((pin) =>
    batches.wanted.some((batch) => batch.id === pin.batchId && batch.started?.steps.every((step) => step.stepId !== pin.stepId) !== false),
  );
  const dropped: PlanFinding[] = [];
  for (const pin of pins) {
    const problem = dayProblem(input, batches.wanted, pins);
    const job = problem.jobs.find(({ id }) => id === pin.batchId);
    if (job !== undefined && job.steps.some(({ id }) => id === pin.stepId) && stepWindows(job, problem.horizonMin) !== null) continue;
    const window = job === undefined ? undefined : stepWindows(job, problem.horizonMin, pin.stepId)?.get(pin.stepId);
    dropped.push({
      code: 'plan.pinDropped',
      batchId: pin.batchId,
      stepId: pin.stepId,
      startMin: pin.startMin,
      soonestMin: window?.soonestMin ?? null,
      latestMin: window?.latestMin ?? null,
    });
    pins = pins.filter((other) => other !== pin);
  }
  return { input, overtime: null, batches, problem: dayProblem(input, batches.wanted, pins), pins, dropped };
}

/** A pin for which the station has no room at all (nobody there, the kettle taken by what is under way) is let go rather than the batch. */
function withoutRoom(basis: Basis, unplaced: readonly string[]): Basis | null {
  const lost = basis.pins.filter((pin) => unplaced.includes(pin.batchId));
  if (lost.length === 0) return null;
  const pins = basis.pins.filter((pin) => !lost.includes(pin));
  const said = lost.map((pin): PlanFinding => ({ code: 'plan.pinDropped', batchId: pin.batchId, stepId: pin.stepId, startMin: pin.startMin, soonestMin: null, latestMin: null }));
  return { ...basis, pins, problem: dayProblem(basis.input, basis.batches.wanted, pins), dropped: [...basis.dropped, ...said] };
}

/** What stands in a kettle and cannot be finished inside the shift keeps somebody there. */
function withOvertime(basis: Basis, unplaced: readonly string[]): Basis | null {
  const { input, batches, pins } = basis;
  const begun = batches.wanted.filter((batch) => batch.started?.state === 'running' && unplaced.includes(batch.id)).map((batch) => batch.id);
  const problemOf = (given: DayInput): Problem => dayProblem(given, batches.wanted, pins);
  const untilMin = begun.length === 0 ? null : stayUntil(input, begun, problemOf);
  if (untilMin === null) return null;
  const { people } = input.station;
  const longer = withPeople(input, staying(people, untilMin));
  return { ...basis, input: longer, overtime: { code: 'plan.overtime', batchIds: begun, shiftEndMin: shiftEndOf(people), untilMin }, problem: problemOf(longer) };
}

function unplacedOf(problem: Problem, { unplaced }: Sequence): readonly PlanFinding[] {
  const hands = problem.resources.find(({ id }) => id === HANDS_ID)?.windows ?? [];
  const isNobody = unplaced.length > 0 && hands.every(({ fromMin, toMin }) => fromMin >= toMin);
  return [
    ...(isNobody ? [{ code: 'station.nobody' as const }] : []),
    ...unplaced.map((batchId): PlanFinding => {
      const takers = problem.jobs.filter(({ steps }) => steps.some(({ afterJobs }) => afterJobs.includes(batchId)));
      return { code: takers.length > 0 && takers.every(({ id }) => unplaced.includes(id)) ? 'plan.leftOut' : 'plan.unplaced', batchId };
    }),
  ];
}

function planOf({ input, overtime, batches: { wanted, needs, components, findings }, pins, dropped }: Basis, problem: Problem, found: Sequence): DayPlan {
  const sequence = numberedByTime(wanted, problem, found, pins);
  const explained = new Explained(problem, sequence);
  const placedById = new Map(sequence.jobs.map((job) => [job.jobId, job]));
  const batches = wanted.flatMap((batch): PlannedBatch[] => {
    const job = problem.jobs.find((candidate) => candidate.id === batch.id);
    const placed = placedById.get(batch.id);
    return job === undefined || placed === undefined ? [] : [plannedBatch(batch, job, placed, explained)];
  });
  const late = batches
    .filter((batch) => batch.lateMin > 0 && batch.state !== 'finished')
    .map((batch): PlanFinding => {
      const binding = explained.bindingOf(batch.id);
      // One that somebody has put there is late for that, whatever else is in its way.
      const first = binding.find((one) => one.kind === 'pin') ?? binding.find((one) => one.kind !== 'release');
      return {
        code: 'plan.late',
        batchId: batch.id,
        lateMin: batch.lateMin,
        waitedFor: waitedFor(first),
        pinned: first?.kind === 'pin',
      };
    });
  return {
    date: input.date,
    needs,
    components,
    batches: [...batches].sort((left, right) => (left.steps[0]?.startMin ?? 0) - (right.steps[0]?.startMin ?? 0)),
    washes: washesOf(sequence, batches, input.station.fullWashMin),
    findings: [...findings, ...dropped, ...(overtime === null ? [] : [overtime]), ...unplacedOf(problem, sequence), ...late],
    pins,
    splits: input.splits ?? [],
    aimChance: input.station.aimChance,
    objective: sequence.objective,
  };
}

/** Begins from a plan there is, down to its washes where it still holds. Minutes moved against the agreed one count. */
function optionsOf({ input: { agreed }, problem }: Basis, seed: number, from: DayPlan | null = agreed ?? null): SearchOptions {
  return {
    seed,
    ...(from === null ? {} : { from: { jobs: placedJobsOf(from, problem), changeovers: changeoversOf(from) } }),
    ...(agreed == null ? {} : { reference: { jobs: placedJobsOf(agreed, problem) } }),
  };
}

export interface Planning {
  /** Makes moves; the best plan so far is never lost. */
  readonly run: (moves: number) => void;
  readonly plan: () => DayPlan;
  readonly cost: () => number;
}

/** After so many moves in all the room each batch needs is measured again on the plan that has been found. A choice of the search. */
const MEASURED_AFTER = [100, 500, 2500, 12_500];

/** Only a day that is still behind after so many moves has cutting put down: goes are more to put in order, and most days are in time without. A choice of the search. */
const PUT_DOWN_AFTER = 500;

function isBehind({ lateMin }: Objective, unplaced: readonly string[]): boolean {
  return lateMin > 0 || unplaced.length > 0;
}

function isPutDown({ batches }: DayPlan): boolean {
  return batches.some(({ steps }) => steps.some(({ parts }) => parts !== undefined));
}

/** A plan that is being looked for, in slices as long as the caller has time; from another one, if there is one to begin with. */
export function startPlanning(input: DayInput, seed: number, from: DayPlan | null = input.agreed ?? null): Planning {
  // Nothing is put down on a day that is in time without.
  const mayInterrupt = input.station.interruptsCutting === true;
  let interrupts = mayInterrupt && [from, input.agreed].some((plan) => plan != null && (isPutDown(plan) || isBehind(plan.objective, unplacedIn(plan))));
  let basis = basisOf(interrupts ? input : inOneGo(input));
  const chance = input.station.aimChance;
  // Room that was measured for the plan this one begins from stays as it is: other room would be other times for what nobody touched.
  const known = new Map(
    from?.aimChance === chance ? from.batches.filter((batch) => from.pins.every((pin) => pin.batchId !== batch.id)).map((batch) => [batch.id, batch.bufferMin]) : [],
  );
  const first = (): Problem => (chance === null ? basis.problem : withRoom(basis.problem, new Map([...firstRoom(basis.problem, chance), ...known])));
  let problem = first();
  let solving = startSolving(problem, optionsOf(basis, seed, from));
  const again = (changed: Basis | null): void => {
    if (changed === null) return;
    basis = changed;
    problem = first();
    solving = startSolving(problem, optionsOf(basis, seed, from));
  };
  if (basis.pins.length > 0) again(withoutRoom(basis, solving.sequence().unplaced));
  if (input.started.length > 0) again(withOvertime(basis, solving.sequence().unplaced));
  let moves = 0;
  const measure = (): void => {
    const found = solving.sequence();
    const letsPutDown = mayInterrupt && !interrupts && moves >= PUT_DOWN_AFTER && isBehind(found.objective, found.unplaced);
    if (letsPutDown) {
      interrupts = true;
      const given = { ...basis.input, station: { ...basis.input.station, interruptsCutting: true } };
      basis = { ...basis, input: given, problem: dayProblem(given, basis.batches.wanted, basis.pins) };
    } else if (chance === null) return;
    const sequence = { ...found, jobs: inGoes(basis.problem, found.jobs) };
    problem = chance === null ? basis.problem : measured(sequence, chance);
    solving = startSolving(problem, { ...optionsOf(basis, seed, from), from: sequence });
  };
  const measured = (sequence: Sequence, aimed: number): Problem => {
    // What one plan needed the next may need again: room that was found wanting is kept.
    const found = roomIn(basis.problem, sequence, aimed);
    const kept = problem.jobs.map((job): [string, number] => [job.id, known.get(job.id) ?? Math.max(job.bufferMin, found.get(job.id) ?? 0)]);
    return withRoom(basis.problem, new Map(kept));
  };
  return {
    run: (more) => {
      for (let left = more; left > 0;) {
        const next = MEASURED_AFTER.find((after) => after > moves) ?? Number.POSITIVE_INFINITY;
        const now = Math.min(left, next - moves);
        solving.run(now);
        moves += now;
        left -= now;
        if (moves === next) measure();
      }
    },
    cost: () => solving.cost(),
    plan: () => planOf(basis, problem, solving.sequence()),
  };
}

/** The plan of a day: pars → needs → batches → a timed sequence. Deterministic for its input, seed and number of moves. */
export function planDay(input: DayInput, options: { readonly seed: number; readonly moves: number }): DayPlan {
  const planning = startPlanning(input, options.seed);
  planning.run(options.moves);
  return planning.plan();
}
