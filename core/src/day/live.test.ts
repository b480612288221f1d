import fc from 'fast-check';
import { addMinutes } from '../quantity/index';
import type { Station } from '../batch/index';
import { planDay } from '../plan/index';
import type { DayPlan } from '../plan/index';
import { makeLine, makeSoup, makeStep } from '../soup/index';
import type { Soup, Step } from '../soup/index';
import { DAY, T0, dayEvents, eventAt } from '../testing/events.arbitrary';
import { stationWith } from '../testing/station';
import {
  alarms,
  backKey,
  doneGates,
  doseFactor,
  foldDay,
  replayDay,
  handover,
  heatOffAt,
  heldAside,
  liveStation,
  openLines,
  serving,
  startGates,
  startedBatches,
  tasks,
  upNow,
  washTasks,
} from './index';
import type { BatchRecord, DayEvent, DayState, HandsInput, Task } from './index';

const step = (id: string, some: Partial<Step> = {}): Step =>
  makeStep({ id, phase: 'simmer', name: id, attention: 'looks', duration: { lowMin: 20, highMin: 30, perLitreMin: 0 }, heat: 'low', ...some });
const chowder: Soup = makeSoup({
  id: 'chowder',
  name: 'Chowder',
  ingredients: [
    makeLine({ id: 'fish', name: 'Fish', amount: { low: 100, high: 100, unit: 'g' }, stepId: 'poach', returnsAtStepId: 'pieces', whole: true }),
    makeLine({ id: 'corn', name: 'Corn', amount: { low: 50, high: 50, unit: 'g' }, stepId: 'simmer', whole: true }),
    makeLine({ id: 'salt', name: 'Salt', amount: { low: 7, high: 7, unit: 'g' }, stepId: 'simmer' }),
  ],
  steps: [
    step('poach', { lookEveryMin: 5, maxWaitMin: 10 }),
    step('simmer', { clockFrom: 'boil' }),
    step('blend', { phase: 'blend', place: { kind: 'blender', tool: 'immersion' }, caution: 'Head under the surface.', irreversible: true, heat: 'off' }),
    step('pieces', { phase: 'finish', attention: 'hands' }),
    step('empty', { phase: 'hold', heat: 'off' }),
  ],
});
const station = stationWith({
  equipment: [
    { kind: 'vessel', id: 'k1', name: 'Kettle 1', capacityL: 30, minFillL: 5, workingMaxL: 25, inUse: true },
    { kind: 'immersion', id: 'stick', name: 'Stick', inUse: true },
    { kind: 'jar', id: 'jar', name: 'Jar', capacityL: 2, hotFillL: 1.2, cycleMin: 2.5, inUse: true },
  ],
  people: [
    { id: 'lead', name: 'Lead', role: 'lead', shift: { fromMin: 300, toMin: 840 } },
    { id: 'cook', name: 'Cook', role: 'cook', shift: { fromMin: 300, toMin: 840 } },
  ],
  services: [{ id: 'midday', name: 'Midday', startMin: 690, endMin: 840 }],
});
const book = new Map([[chowder.id, chowder]]);
const B = `${DAY}.chowder.1`;
const begun = (by = 'lead'): DayEvent =>
  eventAt('batch.started/1', 400, { batchId: B, soupId: 'chowder', soupVersion: 1, name: 'Chowder 1', ordinal: 1, volumeL: chowder.makesL, vesselId: 'k1' }, { by });
const start = (stepId: string, minute: number, by = 'lead'): DayEvent => eventAt('step.started/1', minute, { batchId: B, stepId }, { by });
const end = (stepId: string, minute: number, by = 'lead'): DayEvent => eventAt('step.done/1', minute, { batchId: B, stepId }, { by });
const tick = (ingredientId: string, minute = 401, amount = 7): DayEvent =>
  eventAt('ingredient.added/1', minute, { batchId: B, ingredientId, name: ingredientId, amount, unit: 'g', for: 'card', allergens: null });
const at = (minute: number): number => addMinutes(T0, minute);
const batchOf = (events: readonly DayEvent[]): BatchRecord => {
  const batch = foldDay(events).batches[B];
  if (batch === undefined) throw new Error('no batch');
  return batch;
};
const input = (events: readonly DayEvent[], some: Partial<HandsInput> = {}): HandsInput => ({
  day: foldDay(events),
  plan: null,
  soupById: book,
  station,
  midnight: T0,
  named: [],
  ...some,
});
const taskOf = (events: readonly DayEvent[], some: Partial<HandsInput> = {}): Task => {
  const [task] = tasks(input(events, some));
  if (task === undefined) throw new Error('no task');
  return task;
};
const minutes = (...instants: readonly (number | null)[]): readonly (number | null)[] => instants.map((instant) => (instant === null ? null : (instant - T0) / 60_000));

/** The rest of the day as it would be planned now. */
const restOf = (day: DayState, nowMin: number, soup: Soup): DayPlan =>
  planDay(
    {
      date: DAY,
      nowMin,
      soups: [soup],
      station: liveStation(station, day, T0),
      pars: [{ soupId: 'chowder', parL: chowder.makesL, serviceId: 'midday' }],
      lots: [],
      started: startedBatches(day, T0),
      dateMarkLastDay: 7,
    },
    { seed: 1, moves: 10 },
  );

describe('law: a day is the same on every phone and the server', () => {
  test('in whatever order, however often and however late its events arrive', () => {
    fc.assert(
      fc.property(
        dayEvents.chain((events) => fc.tuple(fc.constant(events), fc.shuffledSubarray([...events, ...events], { minLength: events.length * 2 }))),
        ([events, arrived]) => {
          expect(foldDay(arrived)).toEqual(foldDay(events));
        },
      ),
      { seed: 11, numRuns: 300 },
    );
  });
  test('a part of it now and the rest a day later comes to the same as all of it at once', () => {
    fc.assert(
      fc.property(dayEvents, fc.nat(60), (events, part) => {
        foldDay(events.slice(0, part));
        expect(foldDay([...events.slice(part), ...events.slice(0, part)])).toEqual(foldDay(events));
      }),
      { seed: 12, numRuns: 100 },
    );
  });
  test('looked at on the way, it is the day as it stood then: what comes later does not colour it', () => {
    fc.assert(
      fc.property(dayEvents, (events) => {
        const counted: DayEvent[] = [];
        const looks: unknown[] = [];
        const whole = replayDay(events, (event, then) => {
          counted.push(event);
          looks.push(structuredClone(then.batches));
        });
        expect(whole).toEqual(foldDay(events));
        // Batches begin before all else, or a step of a phone whose clock is slow would be lost.
        const starts = counted.filter((event) => event.kind === 'batch.started/1');
        const every = Math.max(1, Math.floor(counted.length / 6));
        for (let index = 0; index < counted.length; index += every) expect(looks[index]).toEqual(foldDay([...counted.slice(0, index + 1), ...starts]).batches);
      }),
      { seed: 13, numRuns: 60 },
    );
  });
  test('nothing is lost: every event of a batch nobody started is kept aside, by its id', () => {
    fc.assert(
      fc.property(dayEvents, (events) => {
        const day = foldDay(events);
        const voided = new Set(events.flatMap((event) => (event.kind === 'event.voided/1' ? [event.data.eventId] : [])));
        const known = new Set(events.map((event) => event.id));
        expect(day.unread.filter((id) => !known.has(id) || voided.has(id))).toEqual([]);
        const orphans = events.filter(
          (event) =>
            !voided.has(event.id) &&
            'batchId' in event.data &&
            event.data.batchId !== null &&
            !['note.made/1', 'timer.set/1'].includes(event.kind) &&
            day.batches[event.data.batchId] === undefined,
        );
        expect([...day.unread].sort()).toEqual(orphans.map((event) => event.id).sort());
      }),
      { seed: 13, numRuns: 100 },
    );
  });
});

describe('two people at the same step', () => {
  test('the first tap counts, and the second is told whose', () => {
    const day = foldDay([begun(), start('poach', 401), start('poach', 402, 'cook'), end('poach', 420, 'cook'), end('poach', 421)]);
    expect(day.batches[B]?.steps['poach']).toMatchObject({ startedAt: at(401), doneAt: at(420) });
    expect(day.seconds.map(({ what, by, firstBy, firstAt }) => [what, by, firstBy, ...minutes(firstAt)])).toEqual([
      ['started', 'cook', 'lead', 401],
      ['done', 'lead', 'cook', 420],
    ]);
  });
  test('two phones that begin the same batch make one batch', () => {
    const day = foldDay([begun(), begun('cook')]);
    expect([Object.keys(day.batches), day.seconds.map((one) => one.what)]).toEqual([[B], ['batch']]);
  });
});

describe('clocks of a step', () => {
  test('look at the low end, limit at the high end; more time moves both', () => {
    const running = [begun(), start('poach', 401)];
    const more = taskOf([...running, eventAt('step.extended/1', 415, { batchId: B, stepId: 'poach', byMin: 5 })]);
    const task = taskOf(running);
    expect([minutes(task.checkAt, task.limitAt, task.lookAt), minutes(more.checkAt, more.limitAt)]).toEqual([
      [421, 431, 406],
      [426, 436],
    ]);
  });
  test('what the plan has put down for a while is looked at, and at its limit, as much later', () => {
    const planned = restOf(foldDay([]), 300, chowder);
    const parts = [
      { startMin: 400, endMin: 410 },
      { startMin: 435, endMin: 450 },
    ];
    const batches = planned.batches.map((batch) => ({
      ...batch,
      id: B,
      steps: batch.steps.map((one) => (one.stepId === 'poach' ? { ...one, startMin: 400, endMin: 450, parts } : one)),
    }));
    const task = taskOf([begun(), start('poach', 401)], { plan: { ...planned, batches } });
    expect([minutes(task.checkAt, task.limitAt, task.upAt), task.goes.map((go) => minutes(...go))]).toEqual([
      [446, 456, 451],
      [
        [400, 410],
        [435, 450],
      ],
    ]);
  });
  test('from the boil: it waits for the tap, and counts from there', () => {
    const running = [begun(), start('poach', 401), end('poach', 410), start('simmer', 410)];
    const waiting = taskOf(running);
    const boiling = taskOf([...running, eventAt('step.clockStarted/1', 428, { batchId: B, stepId: 'simmer' })]);
    expect([waiting.waitsForClock, waiting.checkAt, boiling.waitsForClock, ...minutes(boiling.checkAt, boiling.limitAt)]).toEqual([true, null, false, 448, 458]);
  });
  test('where the boil is a step of its own, its end is the tap', () => {
    const own: Soup = { ...chowder, steps: [step('boil', { phase: 'boil' }), step('simmer', { clockFrom: 'boil' })] };
    const task = taskOf([begun(), start('boil', 401), end('boil', 420), start('simmer', 420)], { soupById: new Map([['chowder', own]]) });
    expect([task.waitsForClock, ...minutes(task.checkAt)]).toEqual([false, 440]);
  });
  test('the next look is an interval after the last; what waits is told before it has waited too long', () => {
    const looked = taskOf([begun(), start('poach', 401), eventAt('step.looked/1', 407, { batchId: B, stepId: 'poach' })]);
    const waits = taskOf([begun(), start('poach', 401), end('poach', 420)]);
    expect([minutes(looked.lookAt), waits.state, minutes(waits.waitUntil)]).toEqual([[412], 'next', [430]]);
    expect(alarms([waits], [], []).map((one) => [one.kind, ...minutes(one.at)])).toEqual([['wait', 428]]);
  });
  test('a step that was left out is over, and heats nothing', () => {
    const skipped = (minute: number): DayEvent => eventAt('step.skipped/1', minute, { batchId: B, stepId: 'pieces', reason: 'Not needed this time' });
    const events = [begun(), start('poach', 401), end('poach', 420), start('simmer', 420), end('simmer', 450), start('blend', 450), end('blend', 460), skipped(480)];
    expect(taskOf(events).step.id).toBe('empty');
    // Had it counted, the clock of cooling would begin half an hour later than the heat went off: kinder than the rule.
    expect(heatOffAt(batchOf(events), chowder)).toBe(at(450));
  });
  test('whoever has hands for a step by the plan is named until somebody begins it', () => {
    const named = [{ batchId: B, batchName: 'Chowder 1', stepId: 'poach', startMin: 400, endMin: 420, units: 1, personId: 'cook' }];
    expect([taskOf([begun()], { named }).personId, taskOf([begun(), start('poach', 401)], { named }).personId]).toEqual(['cook', 'lead']);
  });
});

describe('alarms', () => {
  const running = taskOf([begun(), start('poach', 401)]);
  const kindsAt = (minute: number): unknown => upNow(alarms([running], [], []), at(minute)).map((one) => one.kind);
  test('a look, then the check, then the limit instead of it', () => {
    expect([kindsAt(405), kindsAt(406), kindsAt(421), kindsAt(431)]).toEqual([[], ['look'], ['look', 'check'], ['look', 'limit']]);
  });
  test('timers and readings stand among them, the soonest first, each with a name that stays', () => {
    const day = foldDay([eventAt('timer.set/1', 400, { name: 'Bread oven', durationS: 600, batchId: null }, { id: 'bread' })]);
    const all = alarms([running], [{ batchId: B, purpose: 'cool', dueAt: at(409), deadlineRuleId: null }], day.timers);
    expect(all.map((one) => [one.kind, ...minutes(one.at)])).toEqual([
      ['look', 406],
      ['reading', 409],
      ['timer', 410],
      ['check', 421],
      ['limit', 431],
    ]);
    expect(new Set(all.map((one) => one.key)).size).toBe(5);
    expect(alarms([running], [], day.timers).map((one) => one.key)).toEqual(all.filter((one) => one.kind !== 'reading').map((one) => one.key));
  });
  test('a timer that was ended is none', () => {
    const set = eventAt('timer.set/1', 400, { name: 'Bread', durationS: 60, batchId: null }, { id: 'x' });
    expect(foldDay([set, eventAt('timer.cleared/1', 401, { timerId: 'x' })]).timers).toEqual([]);
  });
});

describe('gates', () => {
  const blending = [begun(), start('poach', 401), end('poach', 420), start('simmer', 420), end('simmer', 450)];
  const gatesOf = (events: readonly DayEvent[]): readonly string[] => startGates(taskOf(events), chowder, foldDay(events), null, book).map((gate) => gate.kind);
  test('no blending while pieces that stay whole are in the pot: fish was lifted out, corn was not', () => {
    const gates = startGates(taskOf(blending), chowder, foldDay(blending), null, book);
    expect(gates).toEqual([
      { kind: 'wholeInPot', lines: ['Corn'] },
      { kind: 'caution', text: 'Head under the surface.' },
    ]);
    const without = [...blending, eventAt('ingredient.waived/1', 440, { batchId: B, ingredientId: 'corn', reason: 'None left' })];
    expect(gatesOf(without)).toEqual(['caution']);
  });
  test('what was lifted out stays in sight until it is back', () => {
    expect([heldAside(chowder, batchOf(blending)), heldAside(chowder, batchOf([...blending, tick(backKey('fish'), 470)])), heldAside(chowder, batchOf([begun()]))]).toEqual([
      ['Fish'],
      [],
      [],
    ]);
  });
  test('the last step lists every line nobody ticked or left out', () => {
    const last = [...blending, start('blend', 450), end('blend', 460), start('pieces', 460), end('pieces', 470), start('empty', 470), tick('fish')];
    const open = (events: readonly DayEvent[]): unknown =>
      doneGates(taskOf(events), chowder, foldDay(events)).flatMap((gate) => (gate.kind === 'open' ? gate.lines.map((line) => line.name) : []));
    expect(open(last)).toEqual(['Corn', 'Salt']);
    expect(open([...last, tick('corn'), eventAt('ingredient.waived/1', 471, { batchId: B, ingredientId: 'salt', reason: 'Left out on purpose' })])).toEqual([]);
    expect(openLines(chowder, batchOf(last), 'simmer').map((line) => line.name)).toEqual(['Corn', 'Salt']);
  });
  test('an oven asks whether it is on, a vessel that was not washed asks for the wash', () => {
    const roasted: Soup = { ...chowder, steps: [step('roast', { place: { kind: 'oven', temperatureC: 190 } })] };
    const events = [begun()];
    expect(startGates(taskOf(events, { soupById: new Map([['chowder', roasted]]) }), roasted, foldDay(events), null, book)).toEqual([{ kind: 'device', temperatureC: 190 }]);
  });
  test('a dose of four times the card is seen to be one; in two halves too', () => {
    const line = openLines(chowder, batchOf([begun()])).find((one) => one.ingredientId === 'salt');
    const card = line?.amount ?? Number.NaN;
    const salt = (amount: number, ingredientId: string | null = 'salt') => ({ ingredientId, name: 'salt', amount, unit: 'g' }) as const;
    expect(doseFactor(chowder, batchOf([begun()]), salt(card * 4))).toBeCloseTo(4, 9);
    expect(doseFactor(chowder, batchOf([begun(), tick('salt', 401, card)]), salt(card))).toBeCloseTo(2, 9);
    // Salt in steps is entered by its name, beside the tick of its line.
    expect(doseFactor(chowder, batchOf([begun(), tick('salt', 401, card)]), salt(card * 2, null))).toBeCloseTo(2, 9);
    expect(doseFactor(chowder, batchOf([begun()]), { ingredientId: null, name: 'Nothing of the card', amount: 5, unit: 'g' })).toBeNull();
  });
});

describe('the board', () => {
  const fishy: Soup = {
    ...chowder,
    ingredients: [makeLine({ id: 'haddock', name: 'Haddock', amount: { low: 100, high: 100, unit: 'g' }, stepId: 'cut', origin: 'fish' })],
    steps: [step('cut', { phase: 'prep', place: { kind: 'bench' } }), step('simmer'), step('empty', { heat: 'off' })],
  };
  const leek: Soup = {
    ...fishy,
    id: 'leek',
    name: 'Leek',
    shortName: 'Leek',
    ingredients: [makeLine({ id: 'leek', name: 'Leek', amount: { low: 100, high: 100, unit: 'g' }, stepId: 'cut' })],
  };
  const both = new Map([fishy, leek].map((soup) => [soup.id, soup]));
  const other = `${DAY}.leek.1`;
  const cut = [begun(), start('cut', 401), end('cut', 410)];
  const gatesOf = (events: readonly DayEvent[], stepId: string): readonly string[] => {
    const day = foldDay(events);
    const task = taskOf([begun()], { soupById: both });
    const found = leek.steps.find((one) => one.id === stepId) ?? task.step;
    return startGates({ ...task, batchId: other, soupId: 'leek', step: found }, leek, day, null, both).map((gate) => gate.kind);
  };
  test('after raw fish nothing else is cut before somebody has said that the board is clean; once is enough', () => {
    expect([gatesOf([begun()], 'cut'), gatesOf(cut, 'cut'), gatesOf(cut, 'simmer')]).toEqual([[], ['board'], []]);
    const leekBegun = eventAt('batch.started/1', 411, { batchId: other, soupId: 'leek', soupVersion: 1, name: 'Leek 1', ordinal: 1, volumeL: 10, vesselId: 'k1' });
    const clean = [
      leekBegun,
      eventAt('step.started/1', 412, { batchId: other, stepId: 'cut' }),
      eventAt('gate.confirmed/1', 412, { batchId: other, stepId: 'cut', gate: 'board' }),
    ];
    expect(gatesOf([...cut, ...clean], 'cut')).toEqual([]);
  });
  test('the next raw fish asks again', () => {
    const again = `${DAY}.chowder.2`;
    const second = [
      eventAt('batch.started/1', 420, { batchId: again, soupId: 'chowder', soupVersion: 1, name: 'Chowder 2', ordinal: 2, volumeL: 10, vesselId: 'k1' }),
      eventAt('step.started/1', 421, { batchId: again, stepId: 'cut' }),
    ];
    const cleaned = eventAt('gate.confirmed/1', 415, { batchId: B, stepId: 'simmer', gate: 'board' });
    expect([gatesOf([...cut, start('simmer', 415), cleaned], 'cut'), gatesOf([...cut, start('simmer', 415), cleaned, ...second], 'cut')]).toEqual([[], ['board']]);
  });
});

test('a batch that is lost is planned anew, with a number of its own', () => {
  const lost = eventAt('corrective.taken/1', 430, { batchId: B, ruleId: 'kitchen.lost', action: 'discard', note: 'Scorched', volumeL: 12 });
  const planned = (events: readonly DayEvent[]) => {
    const day = foldDay(events);
    return restOf(day, 431, chowder).batches.map((batch) => [batch.id, batch.state]);
  };
  expect(planned([begun(), start('poach', 401)])).toEqual([[B, 'running']]);
  expect(planned([begun(), start('poach', 401), lost])).toEqual([[`${DAY}.chowder.2`, 'planned']]);
});

describe('washes', () => {
  const milky: Soup = { ...chowder, id: 'milky', name: 'Milky', shortName: 'Milky' };
  const soups = [chowder, milky];
  const plan = planDay(
    { date: DAY, nowMin: 300, soups, station, pars: soups.map(({ id }) => ({ soupId: id, parL: 12, serviceId: 'midday' })), lots: [], started: [], dateMarkLastDay: 7 },
    { seed: 1, moves: 20 },
  );
  const [wash] = plan.washes.filter((one) => one.unitId === 'k1');
  const of = (events: readonly DayEvent[]) =>
    washTasks({ day: foldDay(events), plan, soupById: new Map(soups.map((soup) => [soup.id, soup])), midnight: T0 })
      .filter((one) => one.wash.unitId === 'k1')
      .map((one) => one.ready);
  test('a wash of the plan waits until what was in the kettle is out, and is gone when it is done', () => {
    if (wash === undefined) throw new Error('no wash');
    const first = wash.afterBatchId;
    const started = eventAt('batch.started/1', 301, { batchId: first, soupId: first.split('.')[1] ?? '', soupVersion: 1, name: 'One', ordinal: 1, volumeL: 12, vesselId: 'k1' });
    const finished = eventAt('batch.finished/1', 500, { batchId: first, volumeOutL: 12 });
    const washed = eventAt('wash.done/1', 510, { unitId: 'k1', kind: wash.kind, afterBatchId: first, beforeBatchId: wash.beforeBatchId });
    expect([of([]), of([started]), of([started, finished]), of([started, finished, washed])]).toEqual([[false], [false], [true], []]);
  });
  test('a batch that is being cut has begun, but not in its kettle: the wash before it stays', () => {
    if (wash === undefined) throw new Error('no wash');
    const id = wash.beforeBatchId;
    const soupId = id.split('.')[1] ?? '';
    const next = eventAt('batch.started/1', 301, { batchId: id, soupId, soupVersion: 1, name: 'Two', ordinal: 1, volumeL: 12, vesselId: 'k1' });
    const inKettle = eventAt('step.started/1', 302, { batchId: id, stepId: 'poach' });
    expect([of([next]), of([next, inKettle])]).toEqual([[false], []]);
  });
  test('the next batch is not begun in an unwashed kettle without being asked', () => {
    if (wash === undefined) throw new Error('no wash');
    const id = wash.beforeBatchId;
    const soup = soups.find((one) => id.includes(one.id)) ?? chowder;
    const next = eventAt('batch.started/1', 511, { batchId: id, soupId: soup.id, soupVersion: 1, name: 'Two', ordinal: 1, volumeL: 12, vesselId: 'k1' });
    const day = foldDay([next]);
    const [task] = tasks({ day, plan, soupById: new Map(soups.map((one) => [one.id, one])), station, midnight: T0, named: [] }).filter((one) => one.batchId === id);
    if (task === undefined) throw new Error('no task');
    expect(startGates(task, soup, day, plan, book).map((gate) => gate.kind)).toContain('wash');
  });
});

describe('the station as it stands', () => {
  const stopped = eventAt('equipment.stopped/1', 640, { equipmentId: 'stick', reason: 'Broken' });
  const left = eventAt('person.left/1', 500, { personId: 'cook', backAt: at(540) });
  const live = (events: readonly DayEvent[]): Station => liveStation(station, foldDay(events), T0);
  test('what is stopped is out of use until it is back; who is away is missing for as long as that', () => {
    const day = live([stopped, left]);
    expect([day.equipment.filter((thing) => !thing.inUse).map((thing) => thing.id), day.people.map((person) => person.away)]).toEqual([
      ['stick'],
      [undefined, [{ fromMin: 500, toMin: 540 }]],
    ]);
    expect(minutes(foldDay([]).stationSince, foldDay([stopped, left]).stationSince)).toEqual([null, 640]);
    expect(live([stopped, eventAt('equipment.resumed/1', 650, { equipmentId: 'stick' }), left, eventAt('person.back/1', 520, { personId: 'cook' })])).toBe(station);
  });
  test('whoever is gone for the day has a shift that ends then', () => {
    const shifts = (minute: number) => live([eventAt('person.left/1', minute, { personId: 'cook', backAt: null })]).people.map((person) => person.shift.toMin);
    expect([shifts(500), shifts(200), shifts(900)]).toEqual([
      [840, 500],
      [840, 300],
      [840, 840],
    ]);
  });
  test('the rest of the day is planned without it, and what needs it is done otherwise, which is said', () => {
    const events = [begun(), start('poach', 401), end('poach', 420), start('simmer', 420), stopped];
    const day = foldDay(events);
    const basis = {
      date: DAY,
      soups: [chowder],
      pars: [{ soupId: 'chowder', parL: chowder.makesL, serviceId: 'midday' }],
      lots: [],
      started: startedBatches(day, T0),
      dateMarkLastDay: 7,
    };
    const plan = planDay({ ...basis, nowMin: 641, station: liveStation(station, day, T0) }, { seed: 1, moves: 10 });
    expect(plan.findings).toContainEqual({ code: 'station.instead', batchId: B, soupId: 'chowder', stepId: 'blend', lacks: 'immersion', instead: 'jar' });
    expect(plan.batches[0]?.steps.find((one) => one.stepId === 'blend')).toMatchObject({ unitId: 'jar', modeId: 'jar' });
  });
  test('a blend that was under way is not taken to be quicker for it, and is said to need the other blender', () => {
    const jarred: Soup = { ...chowder, steps: chowder.steps.map((one) => (one.id === 'blend' ? { ...one, place: { kind: 'blender', tool: 'jar' } } : one)) };
    const events = [begun(), start('poach', 401), end('poach', 420), start('simmer', 420), end('simmer', 450), start('blend', 450)];
    const planned = (more: readonly DayEvent[]) => {
      const day = foldDay([...events, ...more]);
      return restOf(day, 452, jarred);
    };
    const broken = planned([eventAt('equipment.stopped/1', 451, { equipmentId: 'jar', reason: 'Broken' })]);
    const ends = (plan: ReturnType<typeof planned>) => plan.batches[0]?.steps.find((one) => one.stepId === 'blend')?.endMin;
    expect([ends(broken), broken.findings.map((found) => found.code)]).toEqual([ends(planned([])), expect.arrayContaining(['station.instead'])]);
  });
  test('with no blender at all a batch under way says what it lacks', () => {
    const events = [begun(), stopped, eventAt('equipment.stopped/1', 640, { equipmentId: 'jar', reason: 'Broken' })];
    const day = foldDay(events);
    const plan = restOf(day, 641, chowder);
    expect(plan.findings).toContainEqual({ code: 'station.lacks', soupId: 'chowder', stepId: 'blend', lacks: 'immersion' });
  });
  test('nobody is given work while away', () => {
    const alone = { ...station, people: station.people.slice(1), services: [{ id: 'midday', name: 'Midday', startMin: 600, endMin: 700 }] };
    const made = (events: readonly DayEvent[]) =>
      planDay(
        {
          date: DAY,
          nowMin: 480,
          soups: [chowder],
          station: liveStation(alone, foldDay(events), T0),
          pars: [{ soupId: 'chowder', parL: 12, serviceId: 'midday' }],
          lots: [],
          started: [],
          dateMarkLastDay: 7,
        },
        { seed: 1, moves: 10 },
      ).batches.flatMap((batch) => batch.steps.filter((one) => one.uses.length > 0 && one.startMin < 540 && one.endMin > 500));
    expect(made([]).length).toBeGreaterThan(0);
    expect(made([left])).toEqual([]);
  });
});

describe('at the counter', () => {
  const service = { startsAt: at(690), endsAt: at(840) };
  const held = [begun(), eventAt('batch.finished/1', 650, { batchId: B, volumeOutL: 12 }), eventAt('hold.started/1', 655, { batchId: B, placeId: 'well1' })];
  const level = (minute: number, leftL: number): DayEvent => eventAt('level.noted/1', minute, { batchId: B, leftL, how: 'eye' });
  test('before anybody has looked, as the par says: 15 L in 150 min are 0.1 L a minute', () => {
    expect(serving(batchOf(held), 15, service, at(720))).toMatchObject({ leftL: 9, perMin: 0.1, basis: 'par', outAt: at(810) });
  });
  test('then at the pace it goes: 12 L at 11:30, 8 at 12:00, 4 at 12:30 are gone at 13:00', () => {
    const told = serving(batchOf([...held, level(720, 8), level(750, 4)]), 15, service, at(750));
    expect([told?.basis, told?.outAt, told?.leftL]).toEqual(['levels', at(780), 4]);
  });
  test('a level above the one before tells nothing of the pace; what lasts has no end; nobody is served before the doors open', () => {
    expect(serving(batchOf([...held, level(720, 14)]), 15, service, at(720))?.basis).toBe('par');
    expect(serving(batchOf([...held, level(800, 11.5)]), 15, service, at(800))?.outAt).toBeNull();
    expect(serving(batchOf(held), 15, service, at(660))?.leftL).toBe(12);
  });
  test('86 stays until it is back on', () => {
    const out = eventAt('soup.out/1', 780, { soupId: 'chowder', serviceId: 'midday' });
    const back = eventAt('soup.back/1', 790, { soupId: 'chowder', serviceId: 'midday' });
    expect([Object.keys(foldDay([out]).out), Object.keys(foldDay([out, back]).out)]).toEqual([['chowder midday'], []]);
  });
});

test('handing over tells what is under way, what is open, what is aside, the clocks and what was written down', () => {
  const events = [
    begun(),
    start('poach', 401),
    end('poach', 420),
    start('simmer', 420),
    tick('fish'),
    eventAt('note.made/1', 421, { batchId: B, text: 'A little thin' }),
    eventAt('note.made/1', 422, { batchId: null, text: 'Bread is late' }),
    eventAt('timer.set/1', 422, { name: 'Bread oven', durationS: 1200, batchId: null }),
    eventAt('equipment.stopped/1', 423, { equipmentId: 'jar', reason: 'Broken' }),
    eventAt('person.left/1', 424, { personId: 'cook', backAt: null }),
  ];
  const told = handover(foldDay(events), tasks(input(events)), book, at(425));
  expect(told).toMatchObject({ stopped: ['jar'], away: ['cook'], notes: ['Bread is late'], timers: [{ name: 'Bread oven' }] });
  expect(told.batches).toMatchObject([{ name: 'Chowder 1', open: ['Corn', 'Salt'], aside: ['Fish'], lastNote: 'A little thin', task: { step: { id: 'simmer' } } }]);
});
