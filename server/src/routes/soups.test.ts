import { SCHOOLS, checkSoup, makeLine, makeSoup, makeStep } from '@broth/core';
import type { Food, Soup } from '@broth/core';
import { documentOf, soupDocument } from '@broth/contract';
import { importText } from '@broth/contract/formats';
import { demo } from '@broth/demo';
import { PDFDocument } from 'pdf-lib';
import { DAY, LENTIL, event, lentilStarted, testKitchen } from '../testing/kitchen';
import type { TestKitchen } from '../testing/kitchen';

let kitchen: TestKitchen;
beforeAll(async () => {
  kitchen = await testKitchen('05:00');
  await kitchen.acceptPlan();
  kitchen.setNow('12:00');
});
afterAll(() => kitchen.close());

const BASE = '/api/kitchens/landing';
type Method = 'GET' | 'PUT' | 'POST' | 'DELETE';
// What comes back is said where it is asked for.
// eslint-disable-next-line @typescript-eslint/no-unnecessary-type-parameters -- a test names the answer it expects
async function call<Answer>(method: Method, path: string, payload?: object): Promise<{ status: number; body: Answer }> {
  const answer = await kitchen.app.inject({ method, url: `${BASE}${path}`, ...(payload === undefined ? {} : { payload }) });
  return { status: answer.statusCode, body: answer.json<Answer>() };
}
interface Problem {
  readonly code: string;
  readonly detail: string;
}
const said = ({ status, body }: { status: number; body: unknown }): [number, string] => [status, (body as Problem).code];
const leek = (some: Partial<Soup> = {}): Soup =>
  makeSoup({
    id: 'leek',
    name: 'Leek and potato',
    makesL: 5,
    ingredients: [makeLine({ id: 'leek', name: 'Leek', foodId: 'leek', stepId: 'prep', amount: { low: 2, high: 2, unit: 'lb' }, acts: ['wash'] })],
    steps: [makeStep({ id: 'prep', phase: 'prep', name: 'Wash and slice leeks' })],
    ...some,
  });
const book = async () => (await call<{ soups: Soup[]; pantry: Food[] }>('GET', '')).body;

describe('the soup book', () => {
  test('a new soup gets a place in the book and on the list of pars, at nothing', async () => {
    const added = await call<Soup>('POST', '/soups', { by: 'maren', soup: leek() });
    expect([added.status, added.body.id, added.body.version]).toEqual([200, 'leek', 1]);
    expect((await book()).soups.at(-1)?.name).toBe('Leek and potato');
    expect((await call<{ pars: { soupId: string; parL: number }[] }>('GET', `/days/${DAY}`)).body.pars.at(-1)).toMatchObject({ soupId: 'leek', parL: 0 });
  });
  test('two soups of one name are refused, whatever the capitals; another name gets an id of its own', async () => {
    expect(said(await call('POST', '/soups', { by: 'maren', soup: leek({ name: 'LEEK and potato ' }) }))).toEqual([409, 'soup.nameTaken']);
    expect((await call<Soup>('POST', '/soups', { by: 'maren', soup: leek({ name: 'Leek, thin' }) })).body.id).toBe('leek-2');
  });
  test('the next version is saved on the one it was written on; who comes second is told who came first', async () => {
    expect((await call<Soup>('PUT', '/soups/leek', { by: 'maren', baseVersion: 1, soup: leek({ makesL: 6 }) })).body.version).toBe(2);
    const late = await call<Problem>('PUT', '/soups/leek', { by: 'tobi', baseVersion: 1, soup: leek({ makesL: 7 }) });
    expect([late.status, late.body.code, late.body.detail]).toEqual([409, 'soup.conflict', expect.stringContaining('Maren Oake saved version 2')]);
    const versions = await call<{ versions: { version: number; savedBy: string; soup: Soup }[] }>('GET', '/soups/leek/versions');
    expect(versions.body.versions.map(({ version, savedBy, soup }) => [version, savedBy, soup.makesL])).toEqual([
      [2, 'Maren Oake', 6],
      [1, 'Maren Oake', 5],
    ]);
  });
  test('two people saving at the same instant: one is saved, one is told', async () => {
    const answers = await Promise.all(
      ['maren', 'tobi'].map((by) => call<{ code?: string }>('PUT', '/soups/leek-2', { by, baseVersion: 1, soup: leek({ id: 'leek-2', name: `Leek, thin ${by}` }) })),
    );
    expect(answers.map((answer) => answer.status).sort()).toEqual([200, 409]);
  });
  test('a soup that is made of itself, through others too, is refused with the way round', async () => {
    const stock = demo.soups.find((soup) => soup.id === 'vegstock')!;
    const round = { ...stock, ingredients: [...stock.ingredients, makeLine({ id: 'l', name: 'Lentil', componentId: 'lentil', stepId: 'boil' })] };
    const answer = await call<Problem>('PUT', '/soups/vegstock', { by: 'maren', baseVersion: 1, soup: round });
    expect([answer.status, answer.body.code, answer.body.detail]).toEqual([
      422,
      'soup.loop',
      expect.stringContaining('Vegetable stock is made of Red lentil and roast carrot is made of Vegetable stock'),
    ]);
  });
  test.each<readonly [string, object, string]>([
    ['a card that makes nothing', { makesL: 0 }, 'What the card makes must be above 0.'],
    ['a negative amount', { ingredients: [{ ...leek().ingredients[0], amount: { low: -1, high: 2, unit: 'g' } }] }, 'An amount cannot be below 0.'],
    ['a unit nobody knows', { ingredients: [{ ...leek().ingredients[0], amount: { low: 1, high: 2, unit: 'dollop' } }] }, 'That unit is not known here. Pick one from the list.'],
    ['a range the wrong way round', { ingredients: [{ ...leek().ingredients[0], amount: { low: 3, high: 2, unit: 'g' } }] }, 'A range goes from the smaller to the larger number.'],
    ['a yield of nothing', { ingredients: [{ ...leek().ingredients[0], edibleShare: 0 }] }, 'What is left after peeling must be above 0 %.'],
    ['no name', { name: ' ' }, 'The name of the soup is empty. Type it, or take the line away.'],
  ])('%s is refused with what to do, and nothing is saved', async (_, some, sentence) => {
    const before = (await book()).soups.length;
    const answer = await call<Problem>('POST', '/soups', { by: 'maren', soup: { ...leek({ name: 'Other' }), ...some } });
    expect([answer.status, answer.body.code, answer.body.detail]).toEqual([400, 'body.invalid', `${sentence} Nothing was saved.`]);
    expect((await book()).soups).toHaveLength(before);
  });
  test('a soup others are made of stays; one that nobody needs goes, with its par, and its versions are kept', async () => {
    expect(said(await call('DELETE', '/soups/vegstock'))).toEqual([409, 'soup.used']);
    expect((await call('DELETE', '/soups/leek-2')).status).toBe(200);
    expect((await book()).soups.some((soup) => soup.id === 'leek-2')).toBe(false);
    expect((await call<{ pars: { soupId: string }[] }>('GET', `/days/${DAY}`)).body.pars.some((par) => par.soupId === 'leek-2')).toBe(false);
    expect((await call<{ versions: unknown[] }>('GET', '/soups/leek-2/versions')).body.versions).toHaveLength(2);
    expect(said(await call('DELETE', '/soups/leek-2'))).toEqual([404, 'soup.unknown']);
  });
  test('nobody by that name works here', async () => {
    expect(said(await call('POST', '/soups', { by: 'nobody', soup: leek({ name: 'X' }) }))).toEqual([422, 'event.personUnknown']);
  });
});

describe('a batch keeps the version it was made from', () => {
  const lentil = demo.soups.find((soup) => soup.id === 'lentil')!;
  test('an edit while it cooks is saved; the day still has the old version, and the plan goes by it', async () => {
    await kitchen.post([lentilStarted('08:00'), event('step.started/1', '08:00', { batchId: LENTIL, stepId: 'prep' })]);
    const changed = {
      ...lentil,
      steps: lentil.steps.filter((step) => step.id !== 'finish').map((step) => step),
      ingredients: lentil.ingredients.filter((line) => line.stepId !== 'finish'),
    };
    expect((await call<Soup>('PUT', '/soups/lentil', { by: 'maren', baseVersion: 1, soup: changed })).status).toBe(200);
    const day = (await call<{ earlierSoups: Soup[] }>('GET', `/days/${DAY}`)).body;
    expect(day.earlierSoups.map((soup) => [soup.id, soup.version, soup.steps.length])).toEqual([['lentil', 1, lentil.steps.length]]);
    expect((await kitchen.app.inject({ method: 'GET', url: `${BASE}/soups/lentil/sheet.pdf?version=1&litres=18` })).statusCode).toBe(200);
  });
  test('what batches really took is told by step, voided taps left out', async () => {
    const slip = event('step.done/1', '08:02', { batchId: LENTIL, stepId: 'prep' });
    await kitchen.post([
      slip,
      event('event.voided/1', '08:03', { eventId: slip.id, reason: 'wrong batch' }),
      event('step.done/1', '08:25', { batchId: LENTIL, stepId: 'prep' }),
      event('ingredient.added/1', '08:40', { batchId: LENTIL, ingredientId: 'vegstock', name: 'Vegetable stock', amount: 9000, unit: 'mL', for: 'card', allergens: null }),
      event('batch.finished/1', '10:00', { batchId: LENTIL, volumeOutL: 17.1 }),
    ]);
    expect((await call('GET', '/soups/lentil/history')).body).toEqual({
      stepTimes: { prep: [{ volumeL: 18, minutes: 25 }] },
      liquidPerLitre: [0.5],
      yieldShare: [expect.closeTo(0.95, 9)],
    });
  });
});

describe('open formats', () => {
  test('a soup leaves as broth-soup/1 with its components, and as a Recipe that brings it back whole', async () => {
    const file = await call<unknown>('GET', '/soups/celeriac/soup.json');
    const document = soupDocument.parse(file.body);
    expect([document.soup.id, document.components.map((soup) => soup.id)]).toEqual(['celeriac', ['vegstock']]);
    const recipe = await kitchen.app.inject({ method: 'GET', url: `${BASE}/soups/celeriac/recipe.jsonld` });
    expect(recipe.headers['content-type']).toContain('application/ld+json');
    expect(importText(recipe.body, { pantry: demo.pantry, made: [], measures: 'us' }, 'x')).toEqual({ kind: 'soup', document });
  });
  test('its JSON Schema is served, and says what a soup must have', async () => {
    const schema = (await kitchen.app.inject({ method: 'GET', url: '/api/formats/soup.schema.json' })).json<{
      required: string[];
      properties: { soup: { properties: { schools: { properties: object } } } };
    }>();
    expect(schema.required).toEqual(expect.arrayContaining(['format', 'soup']));
    expect(Object.keys(schema.properties.soup.properties.schools.properties)).toEqual(Object.keys(SCHOOLS));
  });
  test.each([
    ['a4', [595, 842]],
    ['letter', [612, 792]],
  ] as const)('the batch sheet is a PDF on %s with the soup’s name in its title', async (paper, size) => {
    const answer = await kitchen.app.inject({ method: 'GET', url: `${BASE}/soups/chowder/sheet.pdf?litres=26&vessel=kettle1&paper=${paper}` });
    const pdf = await PDFDocument.load(answer.rawPayload);
    expect([pdf.getTitle(), pdf.getPage(0).getSize()]).toEqual([
      expect.stringContaining('Smoked haddock and sweetcorn chowder, 26 L · x2.6'),
      { width: expect.closeTo(size[0], 0) as number, height: expect.closeTo(size[1], 0) as number },
    ]);
  });
  test.each<readonly [string, string, number, string]>([
    ['nothing', '/soups/chowder/sheet.pdf?litres=0', 400, 'litres.invalid'],
    ['a kettle that is not there', '/soups/chowder/sheet.pdf?vessel=x', 404, 'equipment.unknown'],
    ['a soup that is not there', '/soups/x/sheet.pdf', 404, 'soup.unknown'],
    ['a version that is not there', '/soups/chowder/sheet.pdf?version=9', 404, 'soup.versionUnknown'],
  ])('a sheet for %s is refused', async (_, path, status, code) => {
    expect(said(await call('GET', path))).toEqual([status, code]);
  });
  test('everything the demo serves is sound to the same checks the app runs', async () => {
    const { soups, pantry } = await book();
    const soupById = new Map(soups.map((soup) => [soup.id, soup]));
    expect(soups.filter((soup) => soup.version === 1 && soup.id !== 'leek').flatMap((soup) => checkSoup(soup, soupById, pantry).map((found) => found.code))).toEqual([
      'label.unread',
    ]);
    expect(documentOf(soups[0]!, soupById).format).toBe('broth-soup/1');
  });
});

describe('the pantry as a list', () => {
  const put = async (text: string) => {
    const answer = await kitchen.app.inject({ method: 'PUT', url: `${BASE}/pantry.csv`, headers: { 'content-type': 'text/csv' }, payload: text });
    return { status: answer.statusCode, body: answer.json<Problem & { changed: number; pantry: Food[] }>() };
  };
  const food = async (id: string) => (await book()).pantry.find((one) => one.id === id);
  test('leaves as CSV and comes back unchanged', async () => {
    const before = (await book()).pantry;
    const csv = (await kitchen.app.inject({ method: 'GET', url: `${BASE}/pantry.csv` })).body;
    expect((await put(csv)).body.changed).toBe(before.length);
    const round = (given: Food[]) => given.map((one) => ({ ...one, gPerMl: one.gPerMl === null ? null : Number(one.gPerMl.toFixed(4)) }));
    expect(round((await book()).pantry)).toEqual(round(before));
  });
  test('a price list with semicolons, decimal commas and a euro sign is read', async () => {
    const { status } = await put('Name;Yield %;Price;Unit\r\nOnion;89 %;"1,35 €";kg\r\nBlack garlic;;1.234,50;kg\r\n');
    expect([status, (await food('onion'))?.price, (await food('onion'))?.edibleShare]).toEqual([200, { amount: 1.35, per: 'kg' }, 0.89]);
    // New: nobody has read its label yet.
    expect(await food('black-garlic')).toMatchObject({ price: { amount: 1234.5, per: 'kg' }, allergens: 'unknown', origin: 'unknown' });
  });
  test.each<readonly [string, string, string]>([
    ['a word for a price', 'name,price\nOnion,cheap', 'Line 2: "cheap" in price is no number.'],
    ['a yield of nothing', 'name,yield\nOnion,0', 'Line 2: A yield of 0: nothing would be left.'],
    ['an allergen nobody knows', 'name,allergens\nOnion,plutonium', 'Line 2: "plutonium" is no allergen known here.'],
    ['one thing twice', 'name,price\nOnion,1\nonion,2', 'Line 3: Onion stands in line 2 already.'],
    ['no head line', '1,2\n3,4', 'Line 1: No column is called "name".'],
    ['a quotation mark that stays open', 'name,price\n"Onion,1', 'A quotation mark is opened and never closed.'],
    ['a price below nothing', 'name,price\nOnion,-1', 'Line 2: price is below 0.'],
  ])('%s: none of the list is taken, and the line is named', async (_, text, sentence) => {
    const before = await food('onion');
    const { status, body } = await put(text);
    expect([status, body.code, body.detail]).toEqual([422, 'pantry.unreadable', expect.stringContaining(sentence)]);
    expect(await food('onion')).toEqual(before);
  });
  test('one thing is put by itself', async () => {
    const onion = (await food('onion'))!;
    expect((await call<Food>('PUT', '/pantry/onion', { ...onion, edibleShare: 0.85 })).body.edibleShare).toBe(0.85);
    expect(said(await call('PUT', '/pantry/onion', { ...onion, edibleShare: 2 }))).toEqual([400, 'body.invalid']);
  });
  test('a list of 40 MB is too much, and says so', async () => {
    expect(said(await put(`name,price\n${'Onion,1\n'.repeat(300_000)}`))).toEqual([413, 'body.tooLarge']);
  });
});
