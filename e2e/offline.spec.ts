import { expect, holds, test } from './stand';

test('what is tapped without a connection is kept, shown at once, and reaches the other phone when it is back', async ({ page, browser, stand }) => {
  await holds(page, 'maren');
  await page.goto(`${stand.address}/board`);
  await page.getByRole('button', { name: 'Use this plan' }).click();
  await page.getByRole('link', { name: 'Now', exact: true }).click();
  // Whatever the plan begins with.
  const name =
    /^Start (.+): /.exec(
      (await page
        .getByRole('button', { name: /^Start / })
        .first()
        .getAttribute('aria-label')) ?? '',
    )?.[1] ?? '';
  const start = page.getByRole('button', { name: `Start ${name}: ` });
  const other = await browser.newPage();
  await holds(other, 'tobi');
  await other.goto(`${stand.address}/now`);
  await expect(other.getByRole('button', { name: `Start ${name}: ` })).toBeVisible();

  await page.context().setOffline(true);
  await start.click();
  await expect(page.getByRole('button', { name: `Done, ${name}` })).toBeVisible();
  await expect(page.getByText('No connection.', { exact: false })).toContainText('2 waiting to be sent');
  await expect(other.getByRole('button', { name: `Start ${name}: ` })).toBeVisible();

  await page.context().setOffline(false);
  await expect(other.getByRole('button', { name: `Done, ${name}` })).toBeVisible({ timeout: 20_000 });
  await expect(page.getByText('No connection.', { exact: false })).toHaveCount(0);
  await other.close();
});

test.describe('with the app on the phone', () => {
  test.use({ serviceWorkers: 'allow' });
  test('a par put without a connection is planned by, outlasts a reload, and is sent before the plan that was made for it', async ({ page, stand }) => {
    await holds(page, 'maren');
    await page.goto(`${stand.address}/par`);
    // The app itself is on the phone once its worker has it.
    await page.evaluate(async () => {
      await navigator.serviceWorker.ready;
    });
    const par = page.getByRole('textbox', { name: 'Par, Beetroot with soured cream, litres' });
    const serverHas = async (): Promise<number | undefined> => {
      const { pars } = (await (await fetch(`${stand.address}/api/kitchens/landing/days/2026-11-25`)).json()) as { pars: { soupId: string; parL: number }[] };
      return pars.find(({ soupId }) => soupId === 'beetroot')?.parL;
    };
    await expect(par).toHaveValue('9');

    await page.context().setOffline(true);
    await par.fill('7.5');
    await par.press('Tab');
    await expect(page.getByText('1 waiting to be sent.', { exact: false })).toBeVisible();
    await page.getByRole('link', { name: 'Batches', exact: true }).click();
    await expect(page.getByRole('group', { name: 'Beetroot 1' })).toContainText('7.5 L');
    await page.getByRole('link', { name: 'Board', exact: true }).click();
    await page.getByRole('button', { name: 'Use this plan' }).click();
    await expect(page.getByText('The server cannot be reached.', { exact: false })).toBeVisible();
    expect(await serverHas()).toBe(9);
    await page.goto(`${stand.address}/batches`);
    await expect(page.getByRole('group', { name: 'Beetroot 1' })).toContainText('7.5 L');
    await page.getByRole('link', { name: 'Board', exact: true }).click();

    await page.context().setOffline(false);
    await page.getByRole('button', { name: 'Use this plan' }).click();
    await expect(page.getByRole('button', { name: 'Use this plan' })).toHaveCount(0);
    expect(await serverHas()).toBe(7.5);
    await expect(page.getByText('No connection.', { exact: false })).toHaveCount(0);
  });
});

test('a page that was never fetched says so without a connection, and the five places go on', async ({ page, stand }) => {
  await holds(page, 'maren');
  // What lies behind the places is fetched early on; here the network goes before that.
  let away = true;
  await page.route('**/later-*.js', (route) => (away ? route.abort() : route.continue()));
  await page.goto(`${stand.address}/par`);
  await expect(page.getByRole('group', { name: 'Red lentil and roast carrot' })).toBeVisible();
  await page.context().setOffline(true);
  await page.getByRole('link', { name: 'Soup book' }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'Not on this phone yet' })).toBeVisible();
  await page.getByRole('link', { name: 'Batches' }).click();
  await expect(page.getByRole('group', { name: 'Lentil 1' })).toBeVisible();
  away = false;
  await page.context().setOffline(false);
  await page.getByRole('link', { name: 'Soup book' }).click();
  await page.getByRole('button', { name: 'Try again' }).click();
  await expect(page.getByRole('heading', { level: 1, name: 'Soup book' })).toBeVisible();
});
