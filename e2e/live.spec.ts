import { foldDay } from '@broth/core';
import type { DayEvent, DayPlan } from '@broth/core';
import type { Page } from '@playwright/test';
import { DAY, expect, holds, startStand, test } from './stand';
import type { Stand } from './stand';

/** The live day: several hands, one record. The clock is moved by starting the server again later in the day, over the same database. */

const API = `/api/kitchens/landing/days/${DAY}`;

/** Cooks as a hurried cook would: whatever the page offers first, again and again. Answers how often it found something. */
const NEXT =
  /^(Looked at|Seen: |All \d+ (open )?lines of|.* is in$|Boil reached|Yes: start|Start |Soft: done|Simmer done|Blended|Emptied|Done,|All of .* has gone into |Hold .* hot|Cold hold|Cool .* in Ice-bath|.* is washed$|Open .* \d$)/;
async function cook(page: Page, taps: number): Promise<number> {
  let done = 0;
  for (; done < taps; done += 1) {
    // Looks and what ends something first; a batch that is not due is opened last.
    const names = await page
      .getByRole('button', { name: NEXT, disabled: false })
      .evaluateAll((buttons) => buttons.map((button) => button.getAttribute('aria-label') ?? button.textContent));
    const [first] = [
      ...names.filter((name) => !/^(Start|Open) /.test(name)),
      ...names.filter((name) => name.startsWith('Start ')),
      ...names.filter((name) => name.startsWith('Open ')),
    ];
    if (first === undefined) break;
    const gate = page.getByRole('group', { name: /^Before: / });
    // Whoever is quicker takes it away under the finger: then the page is looked at again.
    await page
      .getByRole('button', { name: first, exact: true })
      .first()
      .click({ timeout: 2000 })
      .catch(() => undefined);
    // What is asked first is ticked line by line.
    if (/^Start /.test(first)) {
      const lines = gate.getByRole('checkbox');
      if ((await gate.count()) > 0) {
        for (let line = 0; line < (await lines.count()); line += 1) await lines.nth(line).click();
        if ((await lines.count()) > 0) await gate.getByRole('button', { name: /^Start/ }).click();
      }
    }
  }
  return done;
}

/** What a device has of the day: its events as it keeps them. */
async function kept(page: Page): Promise<readonly DayEvent[]> {
  return page.evaluate(
    (key) =>
      new Promise<readonly DayEvent[]>((resolve, reject) => {
        const open = indexedDB.open('keyval-store');
        open.onerror = () => {
          reject(new Error('no store'));
        };
        open.onsuccess = () => {
          const get = open.result.transaction('keyval').objectStore('keyval').get(key);
          get.onsuccess = () => {
            resolve((get.result as { events: readonly DayEvent[] }).events);
          };
        };
      }),
    `day ${DAY}`,
  );
}

async function onlyThree(page: Page, stand: Stand): Promise<void> {
  for (const [soup, parL] of Object.entries({ barley: 0, lentil: 12, chowder: 10, cucumber: 5, bean: 0, beetroot: 0, sweetpotato: 0, celeriac: 0 }))
    await page.request.put(`${stand.address}${API}/pars/${soup}`, { data: { parL } });
}

test('a whole day of three soups: two phones and a wide screen, one phone away for an hour, and all three have the same day', async ({ browser }) => {
  test.setTimeout(300_000);
  let stand = await startStand('05:10');
  const phone = { viewport: { width: 390, height: 844 }, hasTouch: true };
  const [maren, tobi, pass] = await Promise.all([browser.newPage(phone), browser.newPage(phone), browser.newPage({ viewport: { width: 1280, height: 800 } })]);
  const faults: string[] = [];
  for (const page of [maren, tobi, pass]) page.on('pageerror', (error) => faults.push(String(error)));
  await Promise.all([holds(maren, 'maren'), holds(tobi, 'tobi'), holds(pass, 'anouk')]);
  await onlyThree(pass, stand);
  const later = async (clock: string): Promise<void> => {
    await stand.stop();
    stand = await startStand(clock, stand);
  };

  await test.step('the plan is taken on the wide screen, and both phones have it', async () => {
    await pass.goto(`${stand.address}/board`);
    await pass.getByRole('button', { name: 'Use this plan' }).click();
    await expect(pass.getByRole('button', { name: 'Use this plan' })).toHaveCount(0);
    for (const page of [maren, tobi, pass]) await page.goto(`${stand.address}/now`);
    for (const page of [maren, tobi]) await expect(page.getByRole('button', { name: /^Start / }).first()).toBeVisible();
  });

  await test.step('the morning: one phone cooks, the other sees it within a second', async () => {
    await cook(maren, 8);
    const { events } = (await (await maren.request.get(`${stand.address}${API}`)).json()) as { events: readonly DayEvent[] };
    expect(events.length).toBeGreaterThan(8);
    await expect.poll(async () => (await kept(tobi)).length, { timeout: 2000 }).toBe(events.length);
  });

  let offline = 0;
  await test.step('an hour without a network: forty entries and more, kept on the phone', async () => {
    await later('07:30');
    await expect(tobi.getByText('No connection.', { exact: false })).toHaveCount(0);
    await tobi.context().setOffline(true);
    for (let round = 0; round < 30 && offline < 40; round += 1) {
      if ((await cook(tobi, 4)) === 0) break;
      offline = await tobi.evaluate(() => Number(localStorage.getItem('broth-board-unsent')));
    }
    expect(offline).toBeGreaterThanOrEqual(40);
    // The other goes on meanwhile, with what it knows.
    await cook(maren, 6);
    await later('08:30');
    await expect(maren.getByText('No connection.', { exact: false })).toHaveCount(0);
    await cook(maren, 4);
  });

  await test.step('the network is back: everything is sent, in order, and nothing waits any more', async () => {
    await tobi.context().setOffline(false);
    await expect.poll(() => tobi.evaluate(() => Number(localStorage.getItem('broth-board-unsent'))), { timeout: 30_000 }).toBe(0);
    await expect(tobi.getByText(/not logged/i)).toHaveCount(0);
  });

  await test.step('the rest of the day, to the last wash', async () => {
    for (const clock of ['10:00', '11:20']) {
      await later(clock);
      for (const page of [maren, tobi, pass]) await expect(page.getByText('No connection.', { exact: false })).toHaveCount(0);
      for (let round = 0; round < 20; round += 1) {
        const [first, second] = [await cook(maren, 4), await cook(tobi, 4)];
        if (first + second === 0) break;
      }
    }
  });

  await test.step('all three have the same day, equal to the fold of the log: nothing is missing, nothing is there twice', async () => {
    const { events } = (await (await pass.request.get(`${stand.address}${API}`)).json()) as { events: readonly DayEvent[] };
    const log = foldDay(events);
    expect(new Set(events.map((event) => event.id)).size).toBe(events.length);
    expect(log.unread).toEqual([]);
    for (const page of [maren, tobi, pass]) {
      await expect.poll(async () => (await kept(page)).length).toBe(events.length);
      expect(foldDay(await kept(page))).toEqual(log);
    }
    // Every batch of the plan was cooked to its end.
    expect(
      Object.values(log.batches)
        .filter((batch) => batch.stage.kind === 'cooking')
        .map((batch) => batch.name),
    ).toEqual([]);
    expect(Object.values(log.batches).map((batch) => batch.soupId)).toEqual(expect.arrayContaining(['lentil', 'chowder', 'cucumber']));
    expect(faults).toEqual([]);
  });
  await Promise.all([maren, tobi, pass].map((page) => page.close()));
  await stand.stop();
});

test.describe('at 10:40', () => {
  test.use({ clock: '10:40' });

  test('the blender is out: a new plan with its difference in words, taken, and the old one taken up again', async ({ page, browser, stand }) => {
    await holds(page, 'maren');
    // Something that has to be blended and is not begun: the celeriac of the evening.
    await page.goto(`${stand.address}/board`);
    await page.getByRole('button', { name: 'Use this plan' }).click();
    await expect(page.getByRole('button', { name: 'Use this plan' })).toHaveCount(0);
    await page.getByRole('link', { name: 'Now', exact: true }).click();
    await page.getByRole('button', { name: /^Something happened/ }).click();
    await page.getByRole('radio', { name: 'Out of order' }).click();
    await page.getByRole('button', { name: 'Jar blender is out of order' }).click();
    await page.getByRole('radio', { name: 'Broken' }).click();
    await page.getByRole('button', { name: 'Back', exact: true }).click();
    const changed = page.getByRole('group', { name: 'The station has changed' });
    await expect(changed).toContainText(/In all: /);
    await expect(changed).toContainText(/immersion blender/);
    // Another phone is told the same.
    const other = await browser.newPage();
    await holds(other, 'tobi');
    await other.goto(`${stand.address}/now`);
    await expect(other.getByRole('group', { name: 'The station has changed' })).toBeVisible({ timeout: 10_000 });
    await page.getByRole('button', { name: 'Use the new plan' }).click();
    await expect(changed).toHaveCount(0);
    await expect(other.getByRole('group', { name: 'The station has changed' })).toHaveCount(0);
    // It is repaired sooner than thought: the plan of before is taken up again.
    await page.getByRole('button', { name: /^Something happened/ }).click();
    await page.getByRole('radio', { name: 'Out of order' }).click();
    await page.getByRole('button', { name: 'Jar blender is back in use' }).click();
    await page.goto(`${stand.address}/board`);
    await page.getByRole('button', { name: 'All 2, compared' }).click();
    await page.getByRole('button', { name: 'Take up plan 1 again' }).click();
    await page.getByRole('button', { name: 'Use this plan' }).click();
    await expect(page.getByRole('button', { name: 'Take up plan 2 again' })).toBeVisible();
    await other.close();
  });
});

test('a batch begun hours before its time: a new plan is offered, and on the board it stands where it is', async ({ page, stand }) => {
  await holds(page, 'maren');
  await page.goto(`${stand.address}/board`);
  await page.getByRole('button', { name: 'Use this plan' }).click();
  await expect(page.getByRole('button', { name: 'Use this plan' })).toHaveCount(0);
  await page.getByRole('link', { name: 'Now', exact: true }).click();
  // Whatever the draft was that was taken: the next batch of it that is planned for much later is begun at once.
  const taken = (await (await page.request.get(`${stand.address}${API}`)).json()) as { plan: { plan: DayPlan } };
  const [early] = taken.plan.plan.batches
    .map(({ name, steps: [first] }) => ({ name, startMin: first?.startMin ?? 0 }))
    .filter(({ startMin }) => startMin >= 5 * 60 + 10 + 90)
    .sort((left, right) => left.startMin - right.startMin);
  if (early === undefined) throw new Error('every batch of the plan starts within an hour and a half');
  const start = page.getByRole('button', { name: new RegExp(`^Start ${early.name}: `) });
  const open = page.getByRole('button', { name: `Open ${early.name}` });
  await expect(start.or(open)).toBeVisible();
  if (await open.isVisible()) await open.click();
  await start.click();
  const changed = page.getByRole('group', { name: 'The day runs ahead of the plan' });
  await expect(changed).toContainText(/In all: /);
  await page.getByRole('button', { name: 'Use the new plan' }).click();
  await expect(changed).toHaveCount(0);
  const { plan } = (await (await page.request.get(`${stand.address}${API}`)).json()) as { plan: { version: number; plan: DayPlan } };
  const begun = plan.plan.batches.filter(({ state }) => state === 'running');
  expect(begun.map(({ steps: [first] }) => (first?.startMin ?? 0) < 5 * 60 + 20)).toEqual([true]);
});

test('timers are right after a reload, after the page slept, and on another phone', async ({ page, browser }) => {
  let stand = await startStand('09:00');
  await holds(page, 'maren');
  await page.goto(`${stand.address}/happened`);
  await page.getByRole('radio', { name: 'A timer' }).click();
  await page.getByRole('textbox', { name: 'For what' }).fill('Bread oven');
  for (let tap = 0; tap < 5; tap += 1) await page.getByRole('button', { name: '1 min more, from now' }).click();
  await page.getByRole('button', { name: 'Set it' }).click();
  await page.goto(`${stand.address}/now`);
  const timer = page.getByRole('group', { name: 'Timer: Bread oven' });
  const left = async (of = timer): Promise<number> => {
    const text = await of.innerText();
    const minutes = /(\d+) min to go/.exec(text);
    const seconds = /(\d+):(\d\d) to go/.exec(text);
    return minutes === null ? Number(seconds?.[1]) * 60 + Number(seconds?.[2]) : Number(minutes[1]) * 60;
  };
  expect(await left()).toBe(15 * 60);
  await page.reload();
  expect(await left()).toBe(15 * 60);
  const other = await browser.newPage();
  await holds(other, 'tobi');
  await other.goto(`${stand.address}/now`);
  expect(await left(other.getByRole('group', { name: 'Timer: Bread oven' }))).toBe(15 * 60);
  // Twelve minutes pass while nobody looks.
  await stand.stop();
  stand = await startStand('09:12', stand);
  await expect.poll(() => left()).toBeLessThanOrEqual(180);
  expect(await left()).toBeGreaterThan(120);
  await stand.stop();
  stand = await startStand('09:16', stand);
  await expect(timer).toContainText('up since');
  await page.getByRole('button', { name: 'Seen: Bread oven' }).click();
  await expect(other.getByRole('group', { name: 'Timer: Bread oven' })).toHaveCount(0);
  await other.close();
  await stand.stop();
});

test('two people end the same step: the first counts, the second is told whose', async ({ page, browser, stand }) => {
  await holds(page, 'maren');
  await page.goto(`${stand.address}/board`);
  await page.getByRole('button', { name: 'Use this plan' }).click();
  await page.getByRole('link', { name: 'Now', exact: true }).click();
  const start = page.getByRole('button', { name: /^Start / }).first();
  const name = /^Start (.+): /.exec((await start.getAttribute('aria-label')) ?? '')?.[1] ?? '';
  await start.click();
  const other = await browser.newPage();
  await holds(other, 'tobi');
  await other.goto(`${stand.address}/now`);
  await expect(other.getByRole('button', { name: `Done, ${name}` })).toBeVisible();
  await other.context().setOffline(true);
  await other.getByRole('button', { name: `Done, ${name}` }).click();
  // Two phones agree on the time within a second: who was first is told where it was more than that.
  const tappedAt = Date.now();
  await expect.poll(() => Date.now() - tappedAt).toBeGreaterThan(2000);
  await page.getByRole('button', { name: `Done, ${name}` }).click();
  await other.context().setOffline(false);
  await expect(page.getByRole('group', { name: 'Somebody was first' })).toContainText(/Tobi Lund had ended it at .* That counts/);
  await other.close();
});

test.describe('installed', () => {
  test.use({ serviceWorkers: 'allow' });

  test('once it has been there, it opens without a network: the day, a batch sheet and the rules can be read', async ({ page, stand }) => {
    await holds(page, 'maren');
    await page.goto(`${stand.address}/board`);
    await page.getByRole('button', { name: 'Use this plan' }).click();
    await expect(page.getByRole('button', { name: 'Use this plan' })).toHaveCount(0);
    await page.evaluate(async () => {
      await navigator.serviceWorker.ready;
    });
    // Kept in full before the network goes.
    await expect.poll(() => page.evaluate(async () => (await (await caches.open((await caches.keys())[0] ?? '')).keys()).length)).toBeGreaterThan(10);
    await stand.stop();
    await page.goto(`${stand.address}/now`);
    await expect(page.getByRole('button', { name: /^Start / }).first()).toBeVisible();
    await page
      .getByRole('link', { name: /^Batch sheet of/ })
      .first()
      .click();
    await expect(page.getByRole('group', { name: /^Step 1 of/ })).toBeVisible();
    await page.goto(`${stand.address}/kitchen`);
    await expect(page.getByText('FDA Food Code 2022', { exact: false }).first()).toBeVisible();
  });
});
