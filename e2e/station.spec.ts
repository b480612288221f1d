import { expect, holds, test } from './stand';

/** Who works when, changed on the phone: what is wrong is said, what was typed stays, and the plan goes by it. */

test('hours and a break are changed, somebody is off, somebody new comes; the plan follows', async ({ page, stand }) => {
  await holds(page, 'maren');
  await page.goto(`${stand.address}/kitchen`);
  await page.getByRole('button', { name: 'Change the hours of Tobi Lund' }).click();
  const tobi = page.getByRole('group', { name: 'Hours of Tobi Lund' });
  const field = (name: string) => tobi.getByRole('textbox', { name: `${name}, Tobi Lund`, exact: true });
  await expect(field('There from')).toHaveValue('6:00');
  await field('There to').fill('5:30');
  await field('Break from').fill('10:00');
  await field('Break to').fill('ten thirty');
  const save = tobi.getByRole('button', { name: 'Save the hours of Tobi Lund' });
  await save.click();
  await expect(tobi.getByText('Write the time like 13:05.')).toBeVisible();
  await field('Break to').fill('10:30');
  await save.click();
  await expect(tobi.getByText(/The shift ends before it begins/)).toBeVisible();
  await expect(field('Break to')).toHaveValue('10:30');
  await field('There to').fill('15:00');
  await save.click();
  await expect(page.getByText('6:00 to 15:00, off the floor 10:00 to 10:30')).toBeVisible();

  await page.getByRole('button', { name: 'Somebody new' }).click();
  const fresh = page.getByRole('group', { name: 'Hours of somebody new' });
  await fresh.getByRole('textbox', { name: 'Name of somebody new' }).fill('Tobi Lund');
  await fresh.getByRole('textbox', { name: 'There from, somebody new' }).fill('7.00');
  await fresh.getByRole('textbox', { name: 'There to, somebody new' }).fill('25:30');
  await fresh.getByRole('button', { name: 'Save the hours of somebody new' }).click();
  await expect(fresh.getByText(/There is a Tobi Lund in this kitchen already/)).toBeVisible();
  await fresh.getByRole('textbox', { name: 'Name of somebody new' }).fill('Ivo Dahl');
  await fresh.getByRole('button', { name: 'Save the hours of somebody new' }).click();
  await expect(page.getByText('7:00 to 1:30 next day')).toBeVisible();

  // Everybody off: nothing can be planned, and that is said; one back, and it can.
  for (const name of ['Maren Oake', 'Tobi Lund', 'Anouk Vale', 'Ivo Dahl']) {
    await page.getByRole('button', { name: `Change the hours of ${name}` }).click();
    await page.getByRole('switch', { name: `${name} comes in` }).click();
    await page.getByRole('button', { name: `Save the hours of ${name}` }).click();
    await expect(page.getByRole('button', { name: `Change the hours of ${name}` })).toBeVisible();
  }
  await expect(page.getByText('does not come in')).toHaveCount(4);
  for (const place of ['batches', 'board']) {
    await page.goto(`${stand.address}/${place}`);
    await expect(page.getByText(/^Nobody is there to cook/)).toBeVisible();
    await expect(page.getByText(/Nothing to cook/)).toHaveCount(0);
  }
});
