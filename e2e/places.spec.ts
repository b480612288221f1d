import { AxeBuilder } from '@axe-core/playwright';
import { DAY, expect, holds, onlyCeleriac, test } from './stand';

/** The five places and what lies behind them, with a day under way: nothing serious for axe, nothing wider than the screen. */

const PAGES = [
  '/par',
  '/batches',
  '/board',
  '/now',
  '/log',
  `/log/${DAY}.vegstock.1`,
  '/log/other',
  '/record',
  '/thermometers',
  '/rules',
  '/kitchen',
  '/happened',
  '/pass',
  '/book',
  '/book/new',
  '/book/chowder',
  '/book/chowder/edit',
  '/book/celeriac/sheet',
  `/sheet/${DAY}.vegstock.1`,
  '/prep',
  '/pantry',
  '/sales',
];

// Late enough that the stock must begin now, whatever else the plan begins with.
test.use({ clock: '07:20' });

for (const look of ['enamel', 'iron'] as const) {
  test(`axe finds nothing serious in ${look}`, async ({ page, stand }) => {
    // Every page there is, one after the other: on a busy machine that is more than a test's two minutes.
    test.slow();
    await holds(page, 'maren', look);
    await onlyCeleriac(page, stand);
    await page.goto(`${stand.address}/board`);
    await page.getByRole('button', { name: 'Use this plan' }).click();
    await page.getByRole('link', { name: 'Now', exact: true }).click();
    const tap = (name: string | RegExp) => page.getByRole('button', { name }).first().click();
    await tap(/^Start Veg stock 1: prep/);
    await tap('Done, Veg stock 1');
    await tap('Start Veg stock 1: to the boil');
    await tap('Boil reached, Veg stock 1');
    await tap('Open Veg stock 1');
    await tap('Simmer done, Veg stock 1');
    await tap(/^All \d+ open lines of Veg stock 1 went in$/);
    await tap('Emptied, Veg stock 1');
    await tap('Cool Veg stock 1 in Ice-bath sink');
    await tap(/^Start /);
    const found: string[] = [];
    for (const path of PAGES) {
      await page.goto(`${stand.address}${path}`);
      await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
      await expect(page.getByText(/^(Fetching the day|Working out the plan)…$/)).toHaveCount(0);
      if (path === '/board') await page.getByRole('radio', { name: /Veg stock 1/ }).click();
      const { violations } = await new AxeBuilder({ page }).analyze();
      for (const violation of violations) {
        if (violation.impact === 'serious' || violation.impact === 'critical')
          found.push(`${path}: ${violation.id}: ${violation.nodes.map((node) => node.html.slice(0, 120)).join(' | ')}`);
      }
      const overflow = await page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth);
      if (overflow > 0) found.push(`${path}: ${String(overflow)} px wider than the screen`);
    }
    expect(found).toEqual([]);
  });
}
