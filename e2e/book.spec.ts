import { expect, holds, onlyCeleriac, test } from './stand';

/** A new user and a handwritten card: into the book, to 26 litres, onto paper, out and back in; two people at one card; swaps; order by keyboard. */

const LINES = `3.5 lb pumpkin, peeled and cubed
2 onions, chopped
2 Tbsp butter
1 Tbsp ginger, grated
4 cups vegetable stock
1/2 cup heavy cream
2 tsp salt`;
const METHOD = `Soften the onions in butter 8-10 min, then the ginger
Add pumpkin and stock, bring to the boil
Simmer 20-30 min until a knife goes through
Blend half of it
Stir in the cream off the heat, salt`;

test('a card becomes a soup, a sheet for 26 litres, a PDF, and comes back from its own recipe file whole', async ({ page, stand }) => {
  await holds(page, 'maren');
  await page.goto(`${stand.address}/par`);
  await page.getByRole('link', { name: 'Soup book' }).click();
  await page.getByRole('button', { name: 'New soup' }).click();
  await page.getByRole('button', { name: 'Read the card' }).click();
  await expect(page.getByText('Give it a name.')).toBeVisible();
  await page.getByRole('textbox', { name: 'Name' }).fill('Pumpkin and ginger');
  await page.getByRole('textbox', { name: 'It makes' }).fill('2 1/2');
  await page.getByRole('combobox', { name: 'of', exact: true }).selectOption({ label: 'quarts' });
  await page.getByRole('textbox', { name: 'What goes in, one a line' }).fill(LINES);
  await page.getByRole('textbox', { name: 'How, one step a line' }).fill(METHOD);
  await page.getByRole('button', { name: 'Read the card' }).click();
  await expect(page.getByRole('heading', { name: 'The checks find nothing' })).toBeVisible();
  await page.getByRole('button', { name: 'Put it into the book' }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'Pumpkin and ginger' })).toBeVisible();

  await page.getByRole('button', { name: 'Batch sheet' }).click();
  await page.getByRole('textbox', { name: 'Litres', exact: true }).fill('26');
  await expect(page.getByText('×10.97 of the card')).toBeVisible();
  // Kettle 1 works up to 25 L: the sheet says so before anything is weighed.
  await expect(page.getByText('Kettle 1 works up to 25 L. Make less, or in two.')).toBeVisible();
  await expect(page.getByRole('checkbox', { name: /^Pumpkin, 12\.2 kg/ })).toBeVisible();
  await page.getByRole('checkbox', { name: /^Pumpkin/ }).click();
  await expect(page.getByRole('checkbox', { name: /^Pumpkin/ })).toBeChecked();

  const pdf = await page.request.get(`${stand.address}/api/kitchens/landing/soups/pumpkin-and-ginger/sheet.pdf?litres=26&vessel=kettle1&paper=letter`);
  expect([pdf.status(), pdf.headers()['content-type'], (await pdf.body()).subarray(0, 5).toString()]).toEqual([200, 'application/pdf', '%PDF-']);
  const recipe = await page.request.get(`${stand.address}/api/kitchens/landing/soups/pumpkin-and-ginger/recipe.jsonld`);
  const file = await recipe.body();

  await page.goto(`${stand.address}/book/new`);
  await page.getByLabel('Recipe file').setInputFiles({ name: 'big.json', mimeType: 'application/json', buffer: Buffer.alloc(3_000_000, 'x') });
  await expect(page.getByRole('alert').getByText('That file has 3 MB')).toBeVisible();
  await page.getByLabel('Recipe file').setInputFiles({ name: 'pumpkin.jsonld', mimeType: 'application/ld+json', buffer: file });
  await page.getByRole('button', { name: 'Put it into the book' }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'Pumpkin and ginger (taken in)' })).toBeVisible();
  const read = async (id: string): Promise<Record<string, unknown>> =>
    ((await (await page.request.get(`${stand.address}/api/kitchens/landing/soups/${id}/soup.json`)).json()) as { soup: Record<string, unknown> }).soup;
  const [first, second] = [await read('pumpkin-and-ginger'), await read('pumpkin-and-ginger-2')];
  expect({ ...second, id: first['id'], name: first['name'] }).toEqual(first);
});

test('vegan by two swaps, bacon for oil and meat stock for vegetable stock, is answered: not vegan, because', async ({ page, stand }) => {
  await holds(page, 'maren');
  await page.goto(`${stand.address}/book/new`);
  await page.getByRole('textbox', { name: 'Name' }).fill('Leek and cheese');
  await page.getByRole('textbox', { name: 'It makes' }).fill('2');
  await page
    .getByRole('textbox', { name: 'What goes in, one a line' })
    .fill('6 leeks, washed and sliced\n100 g bacon\n50 g butter\n1 L meat stock\n200 ml heavy cream\n100 g cheddar');
  await page.getByRole('button', { name: 'Read the card' }).click();
  await page.getByRole('button', { name: 'Put it into the book' }).click();
  await page.getByRole('radio', { name: 'Swaps' }).click();
  const swap = async (from: string, to: string): Promise<void> => {
    await page.getByRole('combobox', { name: 'Instead of' }).selectOption({ label: from });
    await page.getByRole('combobox', { name: 'Take' }).selectOption({ label: to });
    await page.getByRole('button', { name: 'Swap', exact: true }).click();
  };
  await swap('Bacon', 'Olive oil');
  await swap('Meat stock', 'Vegetable stock');
  await expect(page.getByText('Not vegan: Butter is from milk, Heavy cream is from milk, and Cheddar is from milk.')).toBeVisible();
  await expect(page.getByText(/The label of Vegetable stock has not been read/)).toBeVisible();
});

test('two people at one card: the second is told, nothing is lost, and either may go on', async ({ page, stand, browser }) => {
  await holds(page, 'maren');
  await page.goto(`${stand.address}/book/bean/edit`);
  const price = page.getByRole('textbox', { name: 'Sold at' });
  await expect(price).toHaveValue('5.5');
  const other = await (await browser.newContext()).newPage();
  await holds(other, 'tobi');
  await other.goto(`${stand.address}/book/bean/edit`);
  await other.getByRole('textbox', { name: 'Sold at' }).fill('6');
  await other.getByRole('button', { name: 'Save as version 2' }).click();
  await expect(other.getByRole('heading', { level: 1, name: 'White bean and kale' })).toBeVisible();
  await price.fill('7');
  await page.getByRole('button', { name: /^Save as version/ }).click();
  await expect(page.getByRole('alert').getByText(/Tobi Lund saved version 2 while you were writing/)).toBeVisible();
  await expect(price).toHaveValue('7');
  await page.getByRole('button', { name: 'Save mine on top' }).click();
  await page.getByRole('radio', { name: 'Versions' }).click();
  await expect(page.getByText('price: 6 → 7.')).toBeVisible();
});

test('steps are put in order from the keyboard, undone and done again; a draft outlives the page', async ({ page, stand }) => {
  await holds(page, 'maren');
  await page.goto(`${stand.address}/book/barley/edit`);
  const order = async (): Promise<readonly string[]> =>
    page.getByRole('button', { name: /^Step \d+:/ }).evaluateAll((nodes) => nodes.map((node) => (node.getAttribute('aria-label') ?? '').replace(/^Step \d+: /, '')));
  await expect(page.getByRole('button', { name: 'Step 2: Sweat the leek' })).toBeVisible();
  const before = await order();
  await page.getByRole('button', { name: 'Move: Sweat the leek' }).focus();
  await page.keyboard.press('ArrowDown');
  await expect.poll(order).toEqual([before[0], before[2], before[1], ...before.slice(3)]);
  await expect(page.getByRole('button', { name: 'Undo' })).toBeEnabled();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect.poll(order).toEqual(before);
  await page.getByRole('button', { name: 'Redo' }).click();
  await expect.poll(order).toEqual([before[0], before[2], before[1], ...before.slice(3)]);
  // And with a pointer: the handle is dragged over the row above.
  const handle = page.getByRole('button', { name: 'Move: Sweat the leek' });
  await handle.scrollIntoViewIfNeeded();
  const [from, to] = [await handle.boundingBox(), await page.getByRole('button', { name: 'Move: Barley, roots, stock in; to the boil' }).boundingBox()];
  if (from === null || to === null) throw new Error('the handles are not in sight');
  await page.mouse.move(from.x + 20, from.y + 20);
  await page.mouse.down();
  await page.mouse.move(from.x + 20, from.y, { steps: 4 });
  await page.mouse.move(to.x + 20, to.y + 10, { steps: 8 });
  await page.mouse.up();
  await expect.poll(order).toEqual(before);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect.poll(order).toEqual([before[0], before[2], before[1], ...before.slice(3)]);
  await page.getByRole('button', { name: 'Step 3: Sweat the leek' }).click();
  await page.getByRole('button', { name: 'Earlier' }).click();
  await expect.poll(order).toEqual(before);
  await page.getByRole('button', { name: 'Later' }).click();
  await page.getByRole('button', { name: 'Close the step' }).click();
  await page.reload();
  await expect(page.getByText('Your draft from before was taken up. It is not saved yet.')).toBeVisible();
  await expect.poll(order).toEqual([before[0], before[2], before[1], ...before.slice(3)]);
  await page.getByRole('textbox', { name: 'Card makes, L' }).fill('0');
  await page.getByRole('button', { name: /^Save as version/ }).click();
  await expect(page.getByRole('alert').getByText('What the card makes must be above 0.')).toBeVisible();
});

test('a price list with semicolons and decimal commas; one with a wrong line changes nothing', async ({ page, stand }) => {
  await holds(page, 'maren');
  await page.goto(`${stand.address}/pantry`);
  const list = page.getByLabel('List to take in');
  await list.setInputFiles({ name: 'p.csv', mimeType: 'text/csv', buffer: Buffer.from('name;price;per\nOnion;1,35;kg\nCarrot;1,10;kg\n') });
  await expect(page.getByRole('status').getByText('2 things taken in.')).toBeVisible();
  await list.setInputFiles({ name: 'p.csv', mimeType: 'text/csv', buffer: Buffer.from('name;price\nOnion;9,99\nCarrot;cheap\n') });
  await expect(page.getByText('Line 3: "cheap" in price is no number.')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Onion', exact: true })).toContainText('1.35 a kg');
});

test.describe('a batch under way', () => {
  // Late enough that the stock must begin now, whatever else the plan begins with.
  test.use({ clock: '07:20' });

  test('ticks on the sheet of a running batch are in the record, with what went in', async ({ page, stand }) => {
    await holds(page, 'maren');
    await onlyCeleriac(page, stand);
    await page.goto(`${stand.address}/board`);
    await page.getByRole('button', { name: 'Use this plan' }).click();
    await page.getByRole('link', { name: 'Now', exact: true }).click();
    await page.getByRole('button', { name: /^Start Veg stock 1: prep/ }).click();
    await page.getByRole('link', { name: 'Batch sheet of Veg stock 1' }).click();
    await page.getByRole('checkbox', { name: /^Onion/ }).click();
    await expect(page.getByRole('group', { name: 'What went in' }).getByText(/kg Onion|g Onion/)).toBeVisible();
    await page.reload();
    await expect(page.getByRole('checkbox', { name: /^Onion/ })).toBeChecked();
    await page.getByRole('button', { name: 'Take back Onion' }).click();
    await expect(page.getByRole('checkbox', { name: /^Onion/ })).not.toBeChecked();
  });
});
