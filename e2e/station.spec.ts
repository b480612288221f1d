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
  await expect(tobi.getByText('Write the time like 13:05.')).toBeInViewport();
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
  await expect(fresh.getByText(/There is a Tobi Lund in this kitchen already/)).toBeInViewport();
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

test('a kettle is measured again, one is added and another taken out of use; batches go by it', async ({ page, stand }) => {
  await holds(page, 'maren');
  await page.goto(`${stand.address}/kitchen`);
  await page.getByRole('button', { name: 'Change Kettle 1', exact: true }).click();
  const kettle = page.getByRole('group', { name: 'Measures of Kettle 1' });
  await kettle.getByRole('textbox', { name: 'Works up to, L, Kettle 1' }).fill('31');
  await kettle.getByRole('button', { name: 'Save Kettle 1' }).click();
  await expect(kettle.getByText(/or it boils over/)).toBeVisible();
  await kettle.getByRole('textbox', { name: 'Works up to, L, Kettle 1' }).fill('26,5');
  await kettle.getByRole('button', { name: 'Save Kettle 1' }).click();
  await expect(page.getByText('30 L, works from 8 L to 26.5 L')).toBeVisible();

  await page.getByRole('button', { name: 'Something new' }).click();
  const fresh = page.getByRole('group', { name: 'Measures of something new' });
  await fresh.getByRole('textbox', { name: 'Name of something new' }).fill('Big kettle');
  for (const [label, value] of [
    ['Holds, L', '50'],
    ['Works from, L', '12'],
    ['Works up to, L', '44'],
  ] as const)
    await fresh.getByRole('textbox', { name: `${label}, something new` }).fill(value);
  await fresh.getByRole('button', { name: 'Save something new' }).click();
  await expect(page.getByText('50 L, works from 12 L to 44 L')).toBeVisible();
  await page.getByRole('switch', { name: 'Kettle 1 in use' }).click();
  await expect(page.getByText('out of use', { exact: true })).toBeVisible();

  await page.goto(`${stand.address}/par`);
  const par = page.getByRole('textbox', { name: /^Par, Red lentil/ });
  await par.fill('40');
  await par.press('Enter');
  await page.goto(`${stand.address}/batches`);
  await expect(page.getByText('Big kettle, 12 L to 44 L').first()).toBeVisible();
});

test('a plan people work by no longer fits when somebody it counts on is off: another is offered', async ({ page, stand }) => {
  await holds(page, 'maren');
  await page.goto(`${stand.address}/board`);
  await page.getByRole('button', { name: 'Use this plan' }).click();
  await expect(page.getByText('Nobody works by it yet.')).toHaveCount(0);
  await page.goto(`${stand.address}/kitchen`);
  await page.getByRole('button', { name: 'Change the hours of Anouk Vale' }).click();
  await page.getByRole('switch', { name: 'Anouk Vale comes in' }).click();
  await page.getByRole('button', { name: 'Save the hours of Anouk Vale' }).click();
  await expect(page.getByText('does not come in')).toBeVisible();
  await page.goto(`${stand.address}/board`);
  await expect(page.getByText('The station has changed')).toBeVisible();
  await page.goto(`${stand.address}/now`);
  await expect(page.getByText('The station has changed').first()).toBeVisible();
});

test('services are changed, added and removed, and a soup goes to another; batches go by it', async ({ page, stand }) => {
  await holds(page, 'maren');
  await page.goto(`${stand.address}/kitchen`);
  await page.getByRole('button', { name: 'Change the times of Early boat' }).click();
  const early = page.getByRole('group', { name: 'Times of Early boat' });
  await early.getByRole('textbox', { name: 'Open to, Early boat' }).fill('7:00');
  await early.getByRole('button', { name: 'Save Early boat' }).click();
  await expect(early.getByText(/It closes before it opens/)).toBeInViewport();
  await early.getByRole('button', { name: 'Remove Early boat' }).click();
  await expect(early.getByText('Barley and root broth: wanted at this service.', { exact: false })).toBeInViewport();
  await early.getByRole('button', { name: 'Leave Early boat as it was' }).click();
  await expect(page.getByText('7:30 to 9:00')).toBeVisible();

  await page.getByRole('button', { name: 'Another service' }).click();
  const fresh = page.getByRole('group', { name: 'Times of a new service' });
  await fresh.getByRole('textbox', { name: 'Name of a new service' }).fill('Crew meal');
  await fresh.getByRole('textbox', { name: 'Open from, a new service' }).fill('15:00');
  await fresh.getByRole('textbox', { name: 'Open to, a new service' }).fill('16:00');
  await fresh.getByRole('button', { name: 'Save a new service' }).click();
  await expect(page.getByText('15:00 to 16:00')).toBeVisible();

  await page.goto(`${stand.address}/par`);
  for (const [soup, at] of [
    ['Barley and root broth', 'Midday boats'],
    ['White bean and kale', 'Crew meal'],
  ] as const) {
    await page.getByRole('button', { name: new RegExp(`Serve ${soup} at another service`) }).click();
    await page
      .getByRole('radiogroup', { name: `When ${soup} is served` })
      .getByRole('radio', { name: at })
      .click();
    await expect(page.getByRole('button', { name: new RegExp(`^${at}, .*Serve ${soup}`) })).toBeVisible();
  }
  await page.goto(`${stand.address}/batches`);
  await expect(page.getByRole('heading', { name: 'Crew meal, 15:00' })).toBeVisible();
  // What is on hand of it lasts for six minutes.
  await expect(page.getByRole('group', { name: 'Bean 1' }).getByText('ready, by 14:46')).toBeVisible();

  await page.goto(`${stand.address}/kitchen`);
  await page.getByRole('button', { name: 'Change the times of Early boat' }).click();
  await early.getByRole('button', { name: 'Remove Early boat' }).click();
  await expect(page.getByText('7:30 to 9:00')).toHaveCount(0);
  await page.getByRole('radio', { name: 'May be put down' }).click();
  await page.reload();
  await expect(page.getByRole('radio', { name: 'May be put down' })).toBeChecked();
  await expect(page.getByRole('button', { name: 'Change the times of Crew meal' })).toBeVisible();
});

test('a service that is not held on a day of the week: its soups are not made on it', async ({ page, stand }) => {
  await holds(page, 'maren');
  await page.goto(`${stand.address}/kitchen`);
  await page.getByRole('button', { name: 'Change the times of Evening boat' }).click();
  await page.getByRole('group', { name: 'Times of Evening boat' }).getByRole('checkbox', { name: 'Wed', exact: true }).click();
  await page.getByRole('button', { name: 'Save Evening boat' }).click();
  await expect(page.getByText('17:30 to 19:30, Mon, Tue, and Thu to Sun')).toBeVisible();
  await page.goto(`${stand.address}/par`);
  await expect(page.getByRole('heading', { name: 'Red lentil and roast carrot' })).toBeVisible();
  await expect(page.getByRole('heading', { name: 'White bean and kale' })).toHaveCount(0);
  await page.getByRole('button', { name: 'Day after' }).click();
  await expect(page.getByRole('heading', { name: 'White bean and kale' })).toBeVisible();
});

test('who does not come in on a day of the week is not planned with on it', async ({ page, stand }) => {
  await holds(page, 'maren');
  await page.goto(`${stand.address}/kitchen`);
  for (const name of ['Maren Oake', 'Tobi Lund', 'Anouk Vale']) {
    await page.getByRole('button', { name: `Change the hours of ${name}` }).click();
    await page
      .getByRole('group', { name: `Hours of ${name}` })
      .getByRole('checkbox', { name: 'Wed', exact: true })
      .click();
    await page.getByRole('button', { name: `Save the hours of ${name}` }).click();
    await expect(page.getByRole('button', { name: `Change the hours of ${name}` })).toBeVisible();
  }
  await expect(page.getByText('6:00 to 14:30, Mon, Tue, and Thu to Sun')).toBeVisible();
  // The demo's day is a Wednesday.
  await page.goto(`${stand.address}/batches`);
  await expect(page.getByText(/^Nobody is there to cook/)).toBeVisible();
  await page.getByRole('button', { name: 'Day after' }).click();
  await expect(page.getByText(/^Nobody is there to cook/)).toHaveCount(0);
  await expect(page.getByText(/ready, by 11:10/).first()).toBeVisible();
});
