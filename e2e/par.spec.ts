import { expect, holds, test } from './stand';

/** What was sold becomes what is expected and a par: by hand, from a list with its own columns, on a rough day. */

test('a par explains itself and is taken with one tap; a rough day lowers it', async ({ page, stand }) => {
  await holds(page, 'maren');
  await page.goto(`${stand.address}/par`);
  const lentil = page.getByRole('group', { name: 'Red lentil and roast carrot' });
  await expect(lentil.getByText(/^Wednesdays: .*→ \d+ expected, give or take \d+; \d+ for running out at most one day in ten\.$/)).toBeVisible();
  const take = lentil.getByRole('button', { name: /^Take .* as the par of Red lentil/ });
  const litres = /Take ([\d.]+) L/.exec((await take.getAttribute('aria-label')) ?? '')?.[1] ?? '';
  await take.click();
  await expect(lentil.getByRole('textbox', { name: /^Par, Red lentil/ })).toHaveValue(litres);
  await expect(take).toHaveCount(0);
  await page.getByRole('checkbox', { name: 'rough weather' }).click();
  await expect(lentil.getByText(/expected with rough weather/)).toBeVisible();
  const lower = /Take ([\d.]+) L/.exec((await take.getAttribute('aria-label')) ?? '')?.[1] ?? '';
  expect(Number(lower)).toBeLessThan(Number(litres));
  await page.getByRole('combobox', { name: 'Run out at most' }).selectOption({ label: 'one day in fifty' });
  await expect(lentil.getByText(/at most one day in fifty/)).toBeVisible();
});

test('sales by hand and from a list; what is wrong is said and nothing of it is taken', async ({ page, stand }) => {
  await holds(page, 'maren');
  await page.goto(`${stand.address}/sales`);
  const lentil = page.getByRole('group', { name: 'Red lentil and roast carrot' });
  await lentil.getByRole('textbox', { name: 'Sold, Red lentil and roast carrot' }).fill('-4');
  await lentil.getByRole('button', { name: 'Save Red lentil and roast carrot' }).click();
  await expect(lentil.getByText('Sold is a whole number of portions, 0 or more.')).toBeVisible();
  await lentil.getByRole('textbox', { name: 'Sold, Red lentil and roast carrot' }).fill('61');
  await lentil.getByRole('textbox', { name: 'Ran out at, Red lentil and roast carrot' }).fill('12:55');
  await lentil.getByRole('button', { name: 'Save Red lentil and roast carrot' }).click();
  await expect(lentil.getByText('Saved')).toBeVisible();
  // What is typed and not saved is there when one comes back to it.
  const bean = page.getByRole('textbox', { name: 'Sold, White bean and kale' });
  await bean.fill('23');
  await page.getByRole('button', { name: 'Day before' }).click();
  await expect(bean).not.toHaveValue('23');
  await page.reload();
  await expect(bean).toHaveValue('23');
  await expect(lentil.getByRole('textbox', { name: 'Ran out at, Red lentil and roast carrot' })).toHaveValue('12:55');
  const list = page.getByRole('button', { name: 'List of sales', exact: true });
  await list.setInputFiles({ name: 's.csv', mimeType: 'text/csv', buffer: Buffer.from('Business date;Menu item;Qty\n20.11.2026;Lentil;41\n2026-11-21;Lentil;40\n') });
  await expect(page.getByRole('combobox', { name: 'Soup', exact: true })).toHaveValue('Menu item');
  await page.getByRole('combobox', { name: 'Days are written' }).selectOption({ label: '25.11.2026' });
  await page.getByRole('button', { name: 'Take it in' }).click();
  await expect(page.getByText(/^Line 3: "2026-11-21" is not a day written like/)).toBeVisible();
  await list.setInputFiles({ name: 's.csv', mimeType: 'text/csv', buffer: Buffer.from('Business date;Menu item;Qty\n20.11.2026;Lentil;41\n') });
  await page.getByRole('button', { name: 'Take it in' }).click();
  await expect(page.getByText('One line taken in.')).toBeVisible();
});
