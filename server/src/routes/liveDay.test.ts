import fc from 'fast-check';
import { foldDay, liveStation, startedBatches } from '@broth/core';
import type { DayEvent } from '@broth/core';
import { planDay } from '@broth/core/planner';
import { postPlan } from '@broth/contract';
import { demo } from '@broth/demo';
import { DAY, LENTIL, at, event, lentilStarted, testKitchen } from '../testing/kitchen';
import type { TestKitchen } from '../testing/kitchen';

let kitchen: TestKitchen;
beforeEach(async () => {
  kitchen = await testKitchen('05:00');
  await kitchen.acceptPlan();
  kitchen.setNow('11:00');
});
afterEach(() => kitchen.close());

const ofDay = async (): Promise<readonly DayEvent[]> =>
  (await kitchen.app.inject({ method: 'GET', url: `/api/kitchens/landing/days/${DAY}` })).json<{ events: readonly DayEvent[] }>().events;
const step = { batchId: LENTIL, stepId: 'sweat' };

/** One of each that the live day adds. */
const ofEachKind = (): readonly DayEvent[] => [
  event('step.extended/1', '10:05', { ...step, byMin: 5 }),
  event('step.looked/1', '10:06', step),
  event('step.clockStarted/1', '10:07', step),
  event('gate.confirmed/1', '10:08', { ...step, gate: 'caution' }),
  event('step.skipped/1', '10:09', { ...step, reason: 'Not needed this time' }),
  event('ingredient.waived/1', '10:10', { batchId: LENTIL, ingredientId: 'salt', reason: 'None left' }),
  event('result.noted/1', '10:11', { batchId: LENTIL, texture: 'thin', taste: 'right', cause: '' }),
  event('note.made/1', '10:12', { batchId: null, text: 'Bread is late' }),
  event('equipment.stopped/1', '10:13', { equipmentId: 'jar', reason: 'Broken' }),
  event('person.left/1', '10:14', { personId: 'tobi', backAt: at('10:54') }),
  event('timer.set/1', '10:15', { name: 'Bread oven', durationS: 600, batchId: null }),
  event('level.noted/1', '10:16', { batchId: LENTIL, leftL: 7.5, how: 'eye' }),
  event('soup.out/1', '10:17', { soupId: 'lentil', serviceId: 'midday' }),
  event('shift.handedOver/1', '10:18', { toId: 'tobi', note: 'Lentil 1: simmering.' }),
  event('clock.measured/1', '10:19', { offsetMs: 90_000 }),
  event('wash.done/1', '10:20', { unitId: 'kettle1', kind: 'rinse', afterBatchId: LENTIL, beforeBatchId: `${DAY}.bean.1` }),
];

describe('the live day on the server', () => {
  test('takes one of each kind, of a batch or of the station, and the chain stays whole', async () => {
    const events = [lentilStarted('10:00'), ...ofEachKind()];
    const { results } = await kitchen.post(events);
    expect(results.map((result) => result.status)).toEqual(events.map(() => 'stored'));
    expect(foldDay(await ofDay())).toEqual(foldDay(events));
  });
  test.each([
    ['no time', event('step.extended/1', '10:05', { ...step, byMin: 0 }), 'Give at least one minute.'],
    ['no reason', event('step.skipped/1', '10:05', { ...step, reason: '' }), 'Say why.'],
    ['an empty note', event('note.made/1', '10:05', { batchId: null, text: '' }), 'Write the note first.'],
    ['a timer without a name', event('timer.set/1', '10:05', { name: '', durationS: 60, batchId: null }), 'Name the timer.'],
  ])('%s is refused with what to do', async (_, wrong, says) => {
    const answer = await kitchen.app.inject({ method: 'POST', url: '/api/kitchens/landing/events', payload: { events: [wrong] } });
    expect([answer.statusCode, answer.body]).toEqual([400, expect.stringContaining(says)]);
  });
  test('a step of a batch nobody started is refused by name; what names no batch is not', async () => {
    const { results } = await kitchen.post([event('step.looked/1', '10:05', step), event('note.made/1', '10:05', { batchId: null, text: 'A note' })]);
    expect(results.map((result) => result.problem?.code ?? result.status)).toEqual(['event.batchUnknown', 'stored']);
  });
  test('law: in random order, each sent up to a hundred times, in whatever pieces: stored once, and the same day', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.shuffledSubarray([...Array(16).keys()], { minLength: 16 }),
        fc.integer({ min: 1, max: 5 }),
        fc.array(fc.nat(15), { maxLength: 100 }),
        async (shuffle, piece, again) => {
          await kitchen.close();
          kitchen = await testKitchen('05:00');
          await kitchen.acceptPlan();
          kitchen.setNow('11:00');
          const told = ofEachKind();
          await kitchen.post([lentilStarted('10:00')]);
          const sent = [...shuffle, ...again].flatMap((index) => told[index] ?? []);
          for (let from = 0; from < sent.length; from += piece * 10) await kitchen.post(sent.slice(from, from + piece * 10));
          const log = await ofDay();
          expect(log.length).toBe(told.length + 1);
          expect(foldDay(log)).toEqual(foldDay([...log].reverse()));
          expect(foldDay(log).batches[LENTIL]?.steps['sweat']).toMatchObject({ extendedMin: 5, skipped: 'Not needed this time', confirmed: ['caution'] });
        },
      ),
      { seed: 5, numRuns: 4 },
    );
  });
  test('a plan that leans on what is out of order is refused; one made without it is taken', async () => {
    kitchen.setNow('05:00');
    await kitchen.post([event('equipment.stopped/1', '04:59', { equipmentId: 'jar', reason: 'Broken' })]);
    const accept = async (station: typeof demo.station) => {
      const plan = planDay(
        { date: DAY, nowMin: 300, soups: demo.soups, station, pars: demo.standingPars, lots: demo.lots(DAY), started: [], dateMarkLastDay: 7 },
        { seed: 1, moves: 0 },
      );
      const payload: ReturnType<typeof postPlan.parse> = postPlan.parse({ by: 'maren', nowMin: 300, plan });
      return kitchen.app.inject({ method: 'POST', url: `/api/kitchens/landing/days/${DAY}/plans`, payload });
    };
    const midnight = at('00:00');
    const day = foldDay(await ofDay());
    expect(startedBatches(day, midnight)).toEqual([]);
    expect((await accept(demo.station)).json()).toMatchObject({ code: 'plan.stale' });
    expect((await accept(liveStation(demo.station, day, midnight))).statusCode).toBe(200);
  });
  test('two leads who take a plan each from the same one: the first counts, the second hears who and when', async () => {
    kitchen.setNow('05:00');
    const plan = planDay(
      { date: DAY, nowMin: 300, soups: demo.soups, station: demo.station, pars: demo.standingPars, lots: demo.lots(DAY), started: [], dateMarkLastDay: 7 },
      { seed: 2, moves: 0 },
    );
    const take = async (by: string, basedOn: number | null) =>
      (
        await kitchen.app.inject({
          method: 'POST',
          url: `/api/kitchens/landing/days/${DAY}/plans`,
          payload: postPlan.parse({ by, nowMin: 300, plan, basedOn }) as Record<string, unknown>,
        })
      ).json<{ version?: number; code?: string; detail?: string }>();
    // Both began from version 1, at the same moment.
    const answers = await Promise.all([take('maren', 1), take('tobi', 1)]);
    expect(answers.map((answer) => answer.version ?? answer.code).sort()).toEqual([2, 'plan.overtaken']);
    expect(answers.find((answer) => answer.code !== undefined)?.detail).toMatch(/^(Maren Oake|Tobi Lund) took another plan at 5:00\./);
    expect((await take('tobi', 2)).version).toBe(3);
    expect((await take('tobi', null)).version).toBe(4);
  });
  test('what was 86ed ran out in the sales of that day, unless it came back or somebody typed another time', async () => {
    const sell = (soupId: string, soldOutMin: number | null) =>
      kitchen.app.inject({ method: 'PUT', url: `/api/kitchens/landing/days/${DAY}/sales/${soupId}`, payload: { serviceId: 'midday', sold: 30, soldOutMin } });
    kitchen.setNow('14:00');
    await kitchen.post([
      event('soup.out/1', '13:05', { soupId: 'lentil', serviceId: 'midday' }),
      event('soup.out/1', '12:40', { soupId: 'celeriac', serviceId: 'midday' }),
      event('soup.back/1', '12:50', { soupId: 'celeriac', serviceId: 'midday' }),
      event('soup.out/1', '12:00', { soupId: 'chowder', serviceId: 'midday' }),
    ]);
    await Promise.all([sell('lentil', null), sell('celeriac', null), sell('chowder', 770)]);
    const { sales } = (await kitchen.app.inject({ method: 'GET', url: '/api/kitchens/landing/sales?until=2026-11-26&days=1' })).json<{
      sales: readonly { soupId: string; soldOutMin: number | null }[];
    }>();
    expect(Object.fromEntries(sales.map((one) => [one.soupId, one.soldOutMin]))).toEqual({ lentil: 785, celeriac: null, chowder: 770 });
  });
});
