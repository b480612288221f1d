import type { Page } from '@playwright/test';
import { DAY, expect, holds, startStand, test } from './stand';
import type { Stand } from './stand';

/** The whole path of a lead's day in the real app: par → batches → board → now → log → record. */

const place = (page: Page, name: string) => page.getByRole('link', { name, exact: true }).click();
const tap = (page: Page, name: string | RegExp) => page.getByRole('button', { name }).first().click();

async function setPar(page: Page, soup: string, text: string): Promise<void> {
  const field = page.getByRole('textbox', { name: `Par, ${soup}, litres` });
  await field.fill(text);
  await field.press('Enter');
}

async function logReading(page: Page, temperature: string): Promise<void> {
  for (const digit of temperature) await page.getByRole('button', { name: digit, exact: true }).click();
  await tap(page, new RegExp(`^Log ${temperature} °F`));
  await expect(page.getByRole('group', { name: 'Readings' }).getByText(`${temperature} °F`).first()).toBeVisible();
}

test('a batch from its par to a failed second stage, and the record of it', async ({ page, browser, isMobile: _isMobile }, info) => {
  const wide = info.project.name === 'wide';
  let stand: Stand = await startStand('05:10');
  const faults: string[] = [];
  page.on('pageerror', (error) => faults.push(String(error)));
  await holds(page, 'maren');
  const log = `/log/${DAY}.celeriac.1`;

  await test.step('a par that cannot be is refused beside its field, and kept as typed', async () => {
    await page.goto(`${stand.address}/par`);
    await setPar(page, 'Celeriac and apple velouté', '-3');
    await expect(page.getByText('A par cannot be below 0 L. Put 0 to leave the soup out today.')).toBeInViewport();
    await expect(page.getByRole('textbox', { name: 'Par, Celeriac and apple velouté, litres' })).toHaveValue('-3');
  });

  await test.step('pars change, and the batches with them', async () => {
    await setPar(page, 'Celeriac and apple velouté', '12');
    for (const soup of [
      'Red lentil and roast carrot',
      'Smoked haddock and sweetcorn chowder',
      'Chilled cucumber and yoghurt',
      'White bean and kale',
      'Beetroot with soured cream',
      'Sweet potato and peanut',
    ])
      await setPar(page, soup, '0');
    if (!wide) await place(page, 'Batches');
    const batch = page.getByRole('group', { name: 'Celeriac 1' });
    await expect(batch).toContainText('12 L');
    await expect(batch).toContainText('10 fills of the jar');
    await expect(page.getByRole('group', { name: 'Lentil 1' })).toHaveCount(0);
  });

  await test.step('the board shows it in time, and the plan is taken', async () => {
    await place(page, 'Board');
    await expect(page.getByText('All in time')).toBeVisible();
    await page.getByRole('radio', { name: /Celeriac 1, 12 L/ }).click();
    await expect(page.getByRole('group', { name: 'Celeriac 1 in words' })).toContainText('Blend in the jar, fill by fill');
    await tap(page, 'Use this plan');
    await expect(page.getByRole('button', { name: 'Use this plan' })).toHaveCount(0);
  });

  const other = await browser.newPage();
  await holds(other, 'tobi');
  await other.goto(`${stand.address}/now`);

  await test.step('the batch is cooked on Now: started, boiled, blended, emptied', async () => {
    await place(page, 'Now');
    // It has the day before it is asked whether it hears.
    await expect(other.getByRole('group').first()).toBeVisible();
    await tap(page, /^Start Celeriac 1: prep/);
    await expect(other.getByRole('button', { name: 'Done, Celeriac 1' })).toBeVisible();
    await tap(page, 'Done, Celeriac 1');
    await tap(page, 'Start Celeriac 1: sweat');
    await tap(page, 'Soft: done, Celeriac 1');
    await tap(page, 'Boil reached, Celeriac 1');
    await tap(page, 'Open Celeriac 1');
    await tap(page, 'Simmer done, Celeriac 1');
    // What hurts is read before it begins.
    await tap(page, 'Start Celeriac 1: blend');
    await expect(page.getByText('Vent the lid, cloth over it, start low. Never above the hot-fill line.').first()).toBeVisible();
    await tap(page, /^(Yes: start|Start): blend$/);
    await tap(page, 'Blended, Celeriac 1');
    await tap(page, 'Done, Celeriac 1');
    // Nobody ticked anything: it does not go out before that is settled.
    await expect(page.getByRole('button', { name: 'Emptied, Celeriac 1' })).toBeDisabled();
    await tap(page, /^All \d+ open lines of Celeriac 1 went in$/);
    await tap(page, 'Half a litre less, litres out');
    await tap(page, 'Emptied, Celeriac 1');
    await expect(page.getByText('Celeriac 1 is out: 11.5 L')).toBeVisible();
    await tap(page, 'Cool Celeriac 1 in Ice-bath sink');
  });

  await test.step('cooling: two taps and the digits, the verdict at once', async () => {
    await place(page, 'Log');
    await tap(page, /^Celeriac 1\. /);
    await logReading(page, '141');
    await logReading(page, '134');
    await expect(page.getByText(/^To be at 70 °F \(21 °C\) by 7:1\d\.$/).first()).toBeVisible();
    await expect(page.getByText('FDA Food Code 2022, 3-501.14(A)(1)', { exact: false }).first()).toBeVisible();
  });

  await test.step('what cannot be is asked about and stays typed', async () => {
    for (const digit of '700') await page.getByRole('button', { name: digit, exact: true }).click();
    await tap(page, /^Log 700 °F/);
    await expect(page.getByText('700 °F is above boiling', { exact: false })).toBeVisible();
    await expect(page.getByText('700 °F', { exact: true }).first()).toBeVisible();
  });

  await test.step('at 6:50 it has passed the first stage', async () => {
    await stand.stop();
    stand = await startStand('06:50', stand);
    await page.goto(`${stand.address}${log}`);
    await logReading(page, '69');
    await expect(page.getByText(/^First stage passed\. To be at 41 °F \(5 °C\) by 11:1\d\.$/).first()).toBeVisible();
  });

  await test.step('at 11:40 it has failed the second, and the corrective action is recorded', async () => {
    await stand.stop();
    stand = await startStand('11:40', stand);
    await page.goto(`${stand.address}${log}`);
    await logReading(page, '50');
    await expect(page.getByText('Not below 41 °F (5 °C) within 6 h.').first()).toBeVisible();
    await expect(page.getByText('Failed').first()).toBeVisible();
    await tap(page, 'Discard');
    await page.getByRole('textbox', { name: 'What happened, and why' }).fill('The ice was never renewed');
    await tap(page, 'Record: discard');
    await expect(page.getByText(/^Discarded at 11:4\d$/).first()).toBeVisible();
  });

  await test.step('the CSV holds it all', async () => {
    const answer = await page.request.get(`${stand.address}/api/kitchens/landing/days/${DAY}/record.csv`);
    const lines = (await answer.text()).trim().split('\r\n');
    expect(lines).toHaveLength(6);
    expect(lines.slice(1, 5).map((line) => line.split(',')[9])).toEqual(['141', '134', '69', '50']);
    expect(lines[4]).toContain('fail,Not below 41 °F (5 °C) within 6 h.,"FDA Food Code 2022, 3-501.14(A)(2)"');
    expect(lines[5]).toContain('The ice was never renewed');
    expect(lines[5]).toContain('11.5');
  });

  await test.step('a reload shows the same', async () => {
    await page.reload();
    await expect(page.getByText(/^Discarded at 11:4\d$/).first()).toBeVisible();
    for (const reading of ['141 °F', '134 °F', '69 °F', '50 °F']) await expect(page.getByRole('group', { name: 'Readings' }).getByText(reading).first()).toBeVisible();
    await expect(page.getByText(/Corrective action: discard, 11\.5 L\. The ice was never renewed/)).toBeVisible();
  });
  expect(faults).toEqual([]);
  await other.close();
  await stand.stop();
});
