import { isBetter, nameHands } from '@broth/core';
import type { DayEvent, DayPlan, Station } from '@broth/core';
import { DAY, LENTIL, event, lentilStarted, reading, testKitchen } from '../testing/kitchen';
import type { TestKitchen } from '../testing/kitchen';

let kitchen: TestKitchen;
beforeEach(async () => {
  kitchen = await testKitchen('05:00');
});
afterEach(() => kitchen.close());

const BASE = `/api/kitchens/landing`;
const get = (url: string) => kitchen.app.inject({ method: 'GET', url });
const put = (url: string, payload: object | string) => kitchen.app.inject({ method: 'PUT', url, payload, headers: { 'content-type': 'application/json' } });
const setInUse = (id: string, inUse: boolean) => kitchen.app.inject({ method: 'PATCH', url: `${BASE}/equipment/${id}`, payload: { inUse } });
const kinds = async (): Promise<string[]> => (await get(`${BASE}/events`)).json<{ events: DayEvent[] }>().events.map((one) => one.kind);
const codeOf = (answer: { json: () => unknown }): unknown => (answer.json() as { code?: string }).code;

describe('the book and the day', () => {
  test('health says that server and database answer', async () => {
    expect((await get('/api/health')).json()).toMatchObject({ ok: true, database: 'up' });
  });
  test('a kitchen comes with its soups, station and rules', async () => {
    const book = (await get(BASE)).json<{ soups: unknown[]; rules: { set: { packId: string } }[]; suggestedDay: string }>();
    expect([book.soups.length, book.rules[0]?.set.packId, book.suggestedDay]).toEqual([12, 'us-fda-fc2022', DAY]);
  });
  test('a day nobody began is not opened in mid-service: the next one is', async () => {
    kitchen.setNow('13:00');
    expect((await get(BASE)).json()).toMatchObject({ today: DAY, suggestedDay: '2026-11-26' });
  });
  test('a par is put for one day and leaves the others as they stand', async () => {
    expect((await put(`${BASE}/days/${DAY}/pars/lentil`, { parL: 24 })).statusCode).toBe(200);
    const parOn = async (date: string): Promise<number | undefined> =>
      (await get(`${BASE}/days/${date}`)).json<{ pars: { soupId: string; parL: number }[] }>().pars.find((par) => par.soupId === 'lentil')?.parL;
    expect([await parOn(DAY), await parOn('2026-11-26')]).toEqual([24, 18]);
  });
  test('the documentation of the API is there', async () => {
    const paths = Object.keys((await get('/api/docs/json')).json<{ paths: object }>().paths);
    expect(paths).toContain('/api/kitchens/{kitchenId}/events');
  });
});

describe('bad input gets a sentence and changes nothing', () => {
  test.each([
    ['a par of −3', `${BASE}/days/${DAY}/pars/lentil`, { parL: -3 }, 400, 'body.invalid', 'A par cannot be below 0 L'],
    ['a par of "abc"', `${BASE}/days/${DAY}/pars/lentil`, { parL: 'abc' }, 400, 'body.invalid', 'A par is a number of litres'],
    ['no par at all', `${BASE}/days/${DAY}/pars/lentil`, {}, 400, 'body.invalid', 'A par is a number of litres'],
    ['a body that is no JSON', `${BASE}/days/${DAY}/pars/lentil`, 'par: 18', 400, 'body.notJson', 'is not JSON'],
    ['an unknown soup', `${BASE}/days/${DAY}/pars/goulash`, { parL: 3 }, 404, 'soup.unknown', 'goulash'],
    ['an unknown kitchen', `/api/kitchens/nowhere/days/${DAY}/pars/lentil`, { parL: 3 }, 404, 'kitchen.unknown', 'nowhere'],
    ['a day that is none', `${BASE}/days/2026-02-30/pars/lentil`, { parL: 3 }, 400, 'day.invalid', 'YYYY-MM-DD'],
    ['unknown equipment', `${BASE}/equipment/cauldron`, { kind: 'immersion', name: 'Cauldron' }, 404, 'equipment.unknown', 'cauldron'],
  ])('%s', async (_, url, payload, status, code, says) => {
    const before = (await get(`${BASE}/days/${DAY}`)).body;
    const answer = await put(url, payload);
    expect([answer.statusCode, codeOf(answer), answer.headers['content-type']]).toEqual([status, code, 'application/problem+json; charset=utf-8']);
    expect(answer.json<{ detail: string }>().detail).toContain(says);
    expect((await get(`${BASE}/days/${DAY}`)).body).toBe(before);
  });
  test('an address that is none', async () => {
    const answer = await get('/api/kettles');
    expect([answer.statusCode, codeOf(answer)]).toEqual([404, 'route.unknown']);
  });
});

describe('plans', () => {
  test('an accepted plan is the next version', async () => {
    await kitchen.acceptPlan();
    await kitchen.acceptPlan();
    expect((await get(`${BASE}/days/${DAY}`)).json()).toMatchObject({ plan: { version: 2, by: 'maren' } });
    expect((await get(`${BASE}/days/${DAY}/plans`)).json<{ plans: { version: number }[] }>().plans.map((plan) => plan.version)).toEqual([2, 1]);
    expect((await get(`${BASE}/days/2026-11-30/plans`)).json()).toEqual({ plans: [] });
  });
  const postPlan = (payload: object) => kitchen.app.inject({ method: 'POST', url: `${BASE}/days/${DAY}/plans`, payload });
  test('a plan that breaks the station is refused by the checker', async () => {
    const plan = await kitchen.acceptPlan();
    const [first, ...rest] = plan.batches;
    const crowded = {
      ...plan,
      batches: first === undefined ? [] : [{ ...first, steps: first.steps.map((step) => ({ ...step, startMin: step.startMin - 60, endMin: step.endMin - 60 })) }, ...rest],
    };
    const answer = await postPlan({ by: 'maren', nowMin: 300, plan: crowded });
    expect([answer.statusCode, codeOf(answer)]).toEqual([422, 'plan.infeasible']);
    expect((await get(`${BASE}/days/${DAY}`)).json()).toMatchObject({ plan: { version: 1 } });
  });
  test('a plan for pars that have changed since is stale', async () => {
    const plan = await kitchen.acceptPlan();
    await put(`${BASE}/days/${DAY}/pars/lentil`, { parL: 40 });
    expect(codeOf(await postPlan({ by: 'maren', nowMin: 300, plan }))).toBe('plan.stale');
  });
  test('a draft from an hour ago is stale', async () => {
    const plan = await kitchen.acceptPlan();
    kitchen.setNow('06:00');
    expect(codeOf(await postPlan({ by: 'maren', nowMin: 300, plan }))).toBe('plan.stale');
  });
  test('what is out of use is in no plan', async () => {
    const plan = await kitchen.acceptPlan();
    await setInUse('kettle1', false);
    expect(codeOf(await postPlan({ by: 'maren', nowMin: 300, plan }))).not.toBeUndefined();
  });
});

describe('looking longer', () => {
  const search = (payload: object) => kitchen.app.inject({ method: 'POST', url: `${BASE}/days/${DAY}/searches`, payload });
  test('finds a plan of the same batches that is no worse, keeps what was put by hand, and accepts nothing', async () => {
    const from = await kitchen.acceptPlan();
    const answer = await search({ nowMin: 300, from, forS: 1 });
    const found = answer.json<DayPlan>();
    expect([answer.statusCode, found.batches.map((batch) => batch.id).sort()]).toEqual([200, from.batches.map((batch) => batch.id).sort()]);
    expect(isBetter(from, found)).toBe(false);
    expect((await get(`${BASE}/days/${DAY}`)).json()).toMatchObject({ plan: { version: 1 } });
  });
  test('a draft from an hour ago is stale; a minute of search is refused', async () => {
    const from = await kitchen.acceptPlan();
    expect((await search({ nowMin: 300, from, forS: 60 })).statusCode).toBe(400);
    kitchen.setNow('06:10');
    expect(codeOf(await search({ nowMin: 300, from, forS: 1 }))).toBe('plan.stale');
  });
});

describe('what plans go by', () => {
  const patch = (payload: object) => kitchen.app.inject({ method: 'PATCH', url: `${BASE}/station`, payload });
  test('is changed one at a time; the rest stays', async () => {
    expect((await patch({ aimChance: null })).json()).toMatchObject({ station: { aimChance: null, rinseMin: 5, readyLeadMin: 20 } });
    expect((await patch({ interruptsCutting: true })).json()).toMatchObject({ station: { interruptsCutting: true, rinseMin: 5 } });
    expect((await patch({ rinseMin: 4 })).json()).toMatchObject({ station: { aimChance: null, rinseMin: 4, fullWashMin: 12, interruptsCutting: true } });
  });
  test('many changes at the same moment take turns: none is lost', async () => {
    const answers = await Promise.all([patch({ rinseMin: 7 }), patch({ fullWashMin: 17 }), patch({ readyLeadMin: 27 }), patch({ aimChance: 0.8 }), setInUse('kettle2', false)]);
    expect(answers.map((answer) => answer.statusCode)).toEqual([200, 200, 200, 200, 200]);
    const { station } = (await get(BASE)).json<{ station: Station }>();
    expect(station).toMatchObject({ rinseMin: 7, fullWashMin: 17, readyLeadMin: 27, aimChance: 0.8 });
    expect(station.equipment.find((thing) => thing.id === 'kettle2')?.inUse).toBe(false);
  });
  test.each([
    ['a chance of one', { aimChance: 1 }, 'nothing is certain'],
    ['half a minute', { rinseMin: 4.5 }, 'whole minutes'],
    ['a wash below nothing', { fullWashMin: -1 }, '0 minutes or more'],
  ])('%s is refused', async (_, payload, says) => {
    const answer = await patch(payload);
    expect([answer.statusCode, answer.json<{ detail: string }>().detail]).toEqual([400, expect.stringContaining(says)]);
  });
});

describe('what stands at the station', () => {
  const kettle = (some: object = {}): object => ({ kind: 'vessel', name: 'Kettle 1', capacityL: 30, minFillL: 8, workingMaxL: 25, ...some });
  const thingsOf = (answer: { json: () => unknown }): Station['equipment'] => (answer.json() as { station: Station }).station.equipment;
  const post = (payload: object) => kitchen.app.inject({ method: 'POST', url: `${BASE}/equipment`, payload });
  test('a kettle measured again keeps its place; what is new comes last, in use', async () => {
    const changed = thingsOf(await put(`${BASE}/equipment/kettle1`, kettle({ name: 'Old kettle', workingMaxL: 26, inUse: false })));
    expect(changed[0]).toEqual({ kind: 'vessel', id: 'kettle1', name: 'Old kettle', capacityL: 30, minFillL: 8, workingMaxL: 26, inUse: false });
    const answer = await post(kettle({ name: 'Kettle 3', workingMaxL: 28 }));
    const added = thingsOf(answer).at(-1);
    expect([answer.statusCode, added]).toMatchObject([200, { id: 'kettle-3', name: 'Kettle 3', inUse: true }]);
  });
  test.each([
    ['works up to more than it holds', 'kettle1', { workingMaxL: 31 }, 400, 'or it boils over'],
    ['works from more than up to', 'kettle1', { minFillL: 26 }, 400, 'It works from less than it works up to'],
    ['holds nothing', 'kettle1', { capacityL: 0 }, 400, 'What it holds is more than 0'],
    ['holds nobody knows what', 'kettle1', { capacityL: null }, 400, 'What it holds is a number'],
    ['has no name', 'kettle1', { name: ' ' }, 400, 'Give it the name it is called by'],
    ["has another's name", 'kettle1', { name: 'KETTLE 2' }, 409, 'There is a KETTLE 2 at this station already'],
    ['would be another kind', 'jar', { name: 'Jar blender' }, 422, 'cannot become another kind of thing'],
    ['is a jar filled above its rim', 'jar', { kind: 'jar', hotFillL: 31, cycleMin: 2 }, 400, 'steam needs the rest'],
    ['is warm and said to cool', 'icebath', { kind: 'cooling', ambientC: 20 }, 400, 'That does not cool'],
  ])('one that %s is refused, and nothing changes', async (_, id, some, status, says) => {
    const before = thingsOf(await get(BASE));
    const answer = await put(`${BASE}/equipment/${id}`, kettle(some));
    expect([answer.statusCode, answer.json<{ detail: string }>().detail]).toEqual([status, expect.stringContaining(says)]);
    expect(thingsOf(await get(BASE))).toEqual(before);
  });
});

describe('who works, and when', () => {
  const person = (some: object = {}): object => ({ name: 'Tobi Lund', shift: { fromMin: 360, toMin: 870 }, breaks: [], off: false, ...some });
  const peopleOf = (answer: { json: () => unknown }): Station['people'] => (answer.json() as { station: Station }).station.people;
  test('a shift, breaks and a day off are kept; what somebody is stays', async () => {
    const changed = await put(`${BASE}/people/tobi`, person({ breaks: [{ fromMin: 600, toMin: 630 }], off: true }));
    expect(peopleOf(changed).find(({ id }) => id === 'tobi')).toEqual({
      id: 'tobi',
      name: 'Tobi Lund',
      role: 'cook',
      shift: { fromMin: 360, toMin: 870 },
      breaks: [{ fromMin: 600, toMin: 630 }],
      off: true,
    });
    expect(peopleOf(await get(BASE))).toEqual(peopleOf(changed));
  });
  test('somebody new comes as a cook, and may make entries', async () => {
    const answer = await kitchen.app.inject({ method: 'POST', url: `${BASE}/people`, payload: person({ name: ' Ívar Dahl ' }) });
    expect(peopleOf(answer).at(-1)).toMatchObject({ name: 'Ívar Dahl', role: 'cook' });
    const plan = await kitchen.acceptPlan();
    expect(nameHands(plan, peopleOf(answer)).some(({ personId }) => personId === peopleOf(answer).at(-1)?.id)).toBe(true);
  });
  test('a plan made with more hands than there are now is refused', async () => {
    const plan = await kitchen.acceptPlan();
    for (const { id, name, shift } of peopleOf(await get(BASE)).filter(({ role }) => role === 'cook')) await put(`${BASE}/people/${id}`, person({ name, shift, off: true }));
    const answer = await kitchen.app.inject({ method: 'POST', url: `${BASE}/days/${DAY}/plans`, payload: { by: 'maren', nowMin: 300, plan } });
    expect(codeOf(answer)).toBe('plan.infeasible');
  });
  test.each([
    ['nobody there', 'goulash', {}, 404, 'Nobody called "goulash"'],
    ['no name', 'tobi', { name: '  ' }, 400, 'Everybody needs a name'],
    ["another's name", 'tobi', { name: 'maren oake' }, 409, 'There is a maren oake in this kitchen already'],
    ['a shift that ends before it begins', 'tobi', { shift: { fromMin: 870, toMin: 360 } }, 400, 'The shift ends before it begins'],
    ['a break outside the shift', 'tobi', { breaks: [{ fromMin: 300, toMin: 400 }] }, 400, 'The break lies outside the shift'],
    ['a break that ends before it begins', 'tobi', { breaks: [{ fromMin: 630, toMin: 600 }] }, 400, 'The break ends before it begins'],
    ['a time that is none', 'tobi', { shift: { fromMin: null, toMin: 600 } }, 400, 'Write the time like 13:05'],
  ])('%s is refused, and nothing changes', async (_, id, some, status, says) => {
    const before = peopleOf(await get(BASE));
    const answer = await put(`${BASE}/people/${id}`, person(some));
    expect([answer.statusCode, answer.json<{ detail: string }>().detail]).toEqual([status, expect.stringContaining(says)]);
    expect(peopleOf(await get(BASE))).toEqual(before);
  });
});

describe('who works on which days', () => {
  const tobi = (some: object): Promise<unknown> => put(`${BASE}/people/tobi`, { name: 'Tobi Lund', shift: { fromMin: 360, toMin: 870 }, ...some });
  const daysOf = async (): Promise<unknown> => (await get(BASE)).json<{ station: Station }>().station.people.find(({ id }) => id === 'tobi')?.days;
  test('days are kept, and left out again', async () => {
    await tobi({ days: [1, 2] });
    expect(await daysOf()).toEqual([1, 2]);
    await tobi({});
    expect(await daysOf()).toBeUndefined();
  });
  test('no day at all, or an eighth, is refused', async () => {
    expect([codeOf((await tobi({ days: [] })) as { json: () => unknown }), codeOf((await tobi({ days: [8] })) as { json: () => unknown }), await daysOf()]).toEqual([
      'body.invalid',
      'body.invalid',
      undefined,
    ]);
  });
  test('a plan with hands that do not come in on its day is refused; one of another day is not', async () => {
    const plan = await kitchen.acceptPlan();
    // 2026-11-25 is a Wednesday.
    const answers = [];
    for (const days of [[1, 2, 4, 5], [3]]) {
      for (const id of ['tobi', 'anouk']) await put(`${BASE}/people/${id}`, { name: id, shift: { fromMin: 360, toMin: 1080 }, days });
      answers.push((await kitchen.app.inject({ method: 'POST', url: `${BASE}/days/${DAY}/plans`, payload: { by: 'maren', nowMin: 300, plan } })).statusCode);
    }
    expect(answers).toEqual([422, 200]);
  });
});

describe('services', () => {
  const lunch = (some: object = {}): object => ({ name: 'Lunch', startMin: 690, endMin: 870, ...some });
  const servicesOf = async (): Promise<Station['services']> => (await get(BASE)).json<{ station: Station }>().station.services;
  const parsAt = async (serviceId: string): Promise<string[]> =>
    (await get(`${BASE}/days/${DAY}`)).json<{ pars: { soupId: string; serviceId: string }[] }>().pars.flatMap((one) => (one.serviceId === serviceId ? [one.soupId] : []));
  const post = (payload: object) => kitchen.app.inject({ method: 'POST', url: `${BASE}/services`, payload });
  const remove = (id: string) => kitchen.app.inject({ method: 'DELETE', url: `${BASE}/services/${id}` });

  test('a new one stands where it is in the day; a changed one keeps its id', async () => {
    expect((await post(lunch({ name: ' Late boat ', startMin: 1230, endMin: 1500 }))).statusCode).toBe(200);
    expect((await put(`${BASE}/services/evening`, lunch({ name: 'Supper', startMin: 400, endMin: 500 }))).statusCode).toBe(200);
    expect((await servicesOf()).map(({ id, name, startMin }) => [id, name, startMin])).toEqual([
      ['evening', 'Supper', 400],
      ['early', 'Early boat', 450],
      ['midday', 'Midday boats', 690],
      ['late-boat', 'Late boat', 1230],
    ]);
  });
  test('soups are moved to another; one that no soup is wanted at is removed', async () => {
    expect(await parsAt('early')).toEqual(['barley']);
    const kept = await remove('early');
    expect([kept.statusCode, kept.json<{ detail: string }>().detail]).toEqual([409, expect.stringContaining('Barley and root broth: wanted at this service')]);
    expect((await put(`${BASE}/soups/barley/service`, { serviceId: 'evening' })).statusCode).toBe(200);
    expect([await parsAt('early'), (await parsAt('evening')).includes('barley')]).toEqual([[], true]);
    expect((await remove('early')).statusCode).toBe(200);
    expect((await servicesOf()).map(({ id }) => id)).toEqual(['midday', 'evening']);
  });
  test('what is not held on a day of the week is not planned for on it', async () => {
    // The day is a Wednesday.
    const evening = (days: readonly number[]): object => lunch({ name: 'Evening boat', startMin: 1050, endMin: 1170, days });
    await put(`${BASE}/services/evening`, evening([1, 2, 4, 5]));
    await expect(kitchen.acceptPlan()).rejects.toThrow('plan.stale');
    await put(`${BASE}/services/evening`, evening([3]));
    expect((await kitchen.acceptPlan()).batches.some(({ serviceId }) => serviceId === 'evening')).toBe(true);
  });
  test('the only one stays', async () => {
    for (const soupId of [...(await parsAt('early')), ...(await parsAt('midday')), ...(await parsAt('evening'))])
      await kitchen.app.inject({ method: 'DELETE', url: `${BASE}/soups/${soupId}` });
    const codes = [];
    for (const id of ['early', 'midday', 'evening']) codes.push(codeOf(await remove(id)));
    expect(codes).toEqual([undefined, undefined, 'service.last']);
  });
  test.each([
    ['no name', 'midday', lunch({ name: ' ' }), 400, 'Give it the name'],
    ["another's name", 'midday', lunch({ name: 'EARLY boat' }), 409, 'There is a service called EARLY boat already'],
    ['one that closes before it opens', 'midday', lunch({ endMin: 600 }), 400, 'It closes before it opens'],
    ['a time that is none', 'midday', lunch({ startMin: null }), 400, 'Write the time like 13:05'],
    ['one on no day', 'midday', lunch({ days: [] }), 400, 'Pick a day at least'],
    ['one that is not there', 'brunch', lunch(), 404, 'There is no service "brunch"'],
  ])('%s is refused, and nothing changes', async (_, id, payload, status, says) => {
    const before = await servicesOf();
    const answer = await put(`${BASE}/services/${id}`, payload);
    expect([answer.statusCode, answer.json<{ detail: string }>().detail, await servicesOf()]).toEqual([status, expect.stringContaining(says), before]);
  });
  test('a soup goes to no service that is not there, and only one that is on the list', async () => {
    const answers = [await put(`${BASE}/soups/lentil/service`, { serviceId: 'brunch' }), await put(`${BASE}/soups/goulash/service`, { serviceId: 'midday' })];
    expect(answers.map(codeOf)).toEqual(['service.unknown', 'soup.unknown']);
  });
});

describe('events', () => {
  beforeEach(async () => {
    await kitchen.acceptPlan();
    kitchen.setNow('12:00');
  });
  test('several at once, each answered, in order', async () => {
    const { results } = await kitchen.post([lentilStarted('08:00'), event('step.started/1', '08:01', { batchId: LENTIL, stepId: 'prep' }), reading('11:00', 150)]);
    expect([results.map((result) => result.status), await kinds()]).toEqual([
      ['stored', 'stored', 'stored'],
      ['batch.started/1', 'step.started/1', 'reading.taken/1'],
    ]);
  });
  test('sent again after a lost answer, they are in the log once', async () => {
    const events = [lentilStarted('08:00'), reading('11:00', 150)];
    await kitchen.post(events);
    expect([(await kitchen.post(events)).results.map((result) => result.status), (await kinds()).length]).toEqual([['already', 'already'], 2]);
  });
  test('since gives only what came after', async () => {
    await kitchen.post([lentilStarted('08:00'), reading('11:00', 150)]);
    expect((await get(`${BASE}/events?since=1`)).json()).toMatchObject({ events: [{ kind: 'reading.taken/1', seq: 2 }], last: 2 });
  });
  test.each<readonly [string, () => DayEvent, string, string]>([
    ['an unknown batch', () => event('step.done/1', '11:00', { batchId: `${DAY}.goulash.1`, stepId: 'boil' }), 'event.batchUnknown', 'Start the batch first'],
    [
      'a batch that no plan has',
      () => event('batch.started/1', '11:00', { batchId: `${DAY}.goulash.1`, soupId: 'goulash', soupVersion: 1, name: 'Goulash 1', ordinal: 1, volumeL: 5, vesselId: null }),
      'event.batchUnknown',
      'goulash',
    ],
    ['700 °F', () => reading('11:00', 700), 'event.readingImpossible', '700 °F cannot be right'],
    ['−60 °C', () => reading('11:00', -60, 'C'), 'event.readingImpossible', 'Check the digits'],
    ['a reading from next week', () => ({ ...reading('11:00', 120), at: Date.UTC(2026, 11, 2) }), 'event.future', 'ahead of the server'],
    ['somebody who does not work here', () => ({ ...reading('11:00', 120), by: 'nobody' }), 'event.personUnknown', 'nobody'],
    [
      'a correction of nothing',
      () => event('event.voided/1', '11:00', { eventId: '00000000-0000-4000-8000-000000000000', reason: 'slip' }),
      'event.targetUnknown',
      'not in the log',
    ],
  ])('%s is refused and nothing is appended', async (_, make, code, says) => {
    await kitchen.post([lentilStarted('08:00')]);
    const [result] = (await kitchen.post([make()])).results;
    expect([result?.status, result?.problem?.code, await kinds()]).toEqual(['refused', code, ['batch.started/1']]);
    expect(result?.problem?.detail).toContain(says);
  });
  test('one refused among several: the others are kept', async () => {
    const { results } = await kitchen.post([lentilStarted('08:00'), reading('11:00', 700), reading('11:01', 120)]);
    expect([results.map((result) => result.status), await kinds()]).toEqual([
      ['stored', 'refused', 'stored'],
      ['batch.started/1', 'reading.taken/1'],
    ]);
  });
  test('nothing can be logged for a discarded batch, until the discard is voided', async () => {
    const discard = event('corrective.taken/1', '11:10', { batchId: LENTIL, ruleId: 'us.cool.1', action: 'discard', note: 'too slow', volumeL: 18 });
    await kitchen.post([lentilStarted('08:00'), discard]);
    const first = await kitchen.post([reading('11:20', 120)]);
    await kitchen.post([event('event.voided/1', '11:30', { eventId: discard.id, reason: 'wrong batch' })]);
    const second = await kitchen.post([reading('11:40', 120)]);
    expect([first.results[0]?.problem?.code, second.results[0]?.status]).toEqual(['event.batchDiscarded', 'stored']);
  });
  test('a body that lacks its time is refused whole', async () => {
    const { at: _at, ...timeless } = reading('11:00', 120);
    const answer = await kitchen.app.inject({ method: 'POST', url: `${BASE}/events`, payload: { events: [timeless] } });
    expect([answer.statusCode, codeOf(answer), await kinds()]).toEqual([400, 'body.invalid', []]);
  });
});
