import AxeBuilder from '@axe-core/playwright';
import { expect, type Page } from '@playwright/test';
import { test } from './test';
import { makeStudy, record, rowOf } from './study';
import { choose } from './controls';

const openDemo = async (page: Page, stage: string): Promise<void> => {
  await page.goto('/');
  await page.getByRole('link', { name: /Last-mile vans/ }).click();
  await page.waitForURL(/\/studies\/[^/]+\//);
  await page.getByRole('link', { name: new RegExp(stage) }).click();
  await page.waitForURL(new RegExp(`/${stage.toLowerCase()}`));
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
};

const WCAG = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'];
const serious = async (page: Page, rules: readonly string[] | null = null): Promise<readonly string[]> => {
  // the program has no frames within frames, for which axe would open a page of its own each time
  const axe = new AxeBuilder({ page }).setLegacyMode(true);
  const { violations } = await (rules === null ? axe.withTags(WCAG) : axe.withRules([...rules])).analyze();
  return violations
    .filter((v) => v.impact === 'serious' || v.impact === 'critical')
    .flatMap((v) => v.nodes.map((node) => `${v.id}: ${node.target.join(' ')} ${node.failureSummary ?? ''}`));
};
/** Nothing serious by day, and in the bay, which changes colours alone, all can be read as well. */
const nothingSerious = async (page: Page): Promise<void> => {
  expect(await serious(page)).toEqual([]);
  await page.keyboard.press('d');
  await expect(page.locator('html')).toHaveClass(/bay/);
  expect(await serious(page, ['color-contrast', 'link-in-text-block'])).toEqual([]);
  await page.keyboard.press('d');
  await expect(page.locator('html')).not.toHaveClass(/bay/);
};

for (const stage of ['Bench', 'Cost', 'Compare', 'Questions', 'History', 'People']) {
  test(`${stage}: nothing serious against WCAG 2.2 AA, by day and in the bay`, async ({ page }) => {
    await openDemo(page, stage);
    await nothingSerious(page);
  });
}

const VIEWS = {
  Plan: ['choice', 'samples', 'scope', 'packages', 'people', 'schedule', 'precautions', 'rigs'],
  Bench: ['removals', 'closed', 'tags', 'recount', 'instruments', 'wall'],
  Measure: ['scans', 'material', 'sections', 'holes', 'hand', 'gauge-studies', 'runs', 'packs', 'boards', 'supply', 'heating'],
  Reconcile: ['open', 'explained', 'recounts', 'readings', 'sign-off', 'checks'],
};
/** Views that say little until a part is chosen, and one of the demo that has what they show. */
const PART_OF: Readonly<Record<string, string | undefined>> = {
  scans: 'DR2-1-6',
  material: 'PAN-4-1',
  sections: 'DR2-5-1',
  holes: 'PAN-1-9',
  hand: 'DR2-5-1',
  runs: 'DR2-B3',
  packs: 'PAN-B1',
  boards: 'DR2-H1-4',
  supply: 'DR2-H1-4',
};
const partOf = async (page: Page, tag: string): Promise<string> => {
  const id = /studies\/([^/]+)/.exec(page.url())?.[1] ?? '';
  const { parts } = (await (await page.request.get(`/api/studies/${id}`)).json()) as {
    readonly parts: readonly { readonly id: string; readonly tag: string; readonly vehicleId: string }[];
  };
  const part = parts.find((p) => p.tag === tag);
  return `?vehicle=${part?.vehicleId}&part=${part?.id}`;
};
for (const [stage, views] of Object.entries(VIEWS)) {
  test(`${stage}, each of its views: nothing serious either, nothing wider than 1024 and nothing out of reach`, async ({ page }) => {
    test.setTimeout(360_000);
    await page.setViewportSize({ width: 1024, height: 768 });
    await openDemo(page, stage);
    for (const view of views)
      await test.step(view, async () => {
        const tag = PART_OF[view];
        const chosen = tag === undefined ? '' : await partOf(page, tag);
        await page.goto(page.url().replace(/(studies\/[^/]+)\/.*$/, `$1/${stage.toLowerCase()}/${view}${chosen}`));
        await expect(page.getByRole('navigation', { name: /^Views of/ })).toBeVisible();
        await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
        // what is still worked out moves the page under the hands of axe
        await expect(page.getByText(/Making the schedule|The checks are running/)).toHaveCount(0, { timeout: 60_000 });
        expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(1024);
        // what is longer than the page scrolls within it; the page itself would cut it off
        expect(await page.locator('main').evaluate((main) => main.scrollHeight - main.clientHeight)).toBe(0);
        await nothingSerious(page);
      });
  });
}

test('the card, its form and the import have nothing serious either', async ({ page, request }) => {
  const study = await makeStudy(request, 'Accessible');
  await page.goto(`/studies/${study.id}/bench`);
  await record(page, 'plate dc04 stamp 1 kg');
  await record(page, '12 M6x16 T30 8.8 -z');
  expect(await serious(page)).toEqual([]);
  await page.keyboard.press('Escape');
  await page.keyboard.press('e');
  await expect(page.getByLabel('Name', { exact: true })).toBeVisible();
  expect(await serious(page)).toEqual([]);
  await page.getByRole('button', { name: 'Cancel' }).click();
  await page.keyboard.press('i');
  await page
    .getByLabel('CSV or XLSX file')
    .setInputFiles({ name: 'x.csv', mimeType: 'text/csv', buffer: Buffer.from('name,mass\nplate,1 kg\nlever,5') });
  await expect(page.getByText('1 row can be loaded; 1 has faults.')).toBeVisible();
  expect(await serious(page)).toEqual([]);
});

test('keys go to the stages, fold the stack and show themselves on ?', async ({ page }) => {
  await openDemo(page, 'Bench');
  await page.keyboard.press('c');
  await expect(page.getByRole('heading', { name: 'Sliding cargo door, cost' })).toBeVisible();
  await page.keyboard.press('v');
  await expect(page.getByRole('heading', { name: 'Sliding cargo door, side by side' })).toBeVisible();
  await page.keyboard.press('s');
  await expect(page.getByRole('tree')).toHaveCount(0);
  await page.keyboard.press('/');
  await expect(page.getByLabel('Find part, tag or word')).toBeFocused();
  await page.keyboard.press('Escape');
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog', { name: 'Keys' })).toContainText('settle the first question');
});

test('the tree is walked and opened with the arrow keys', async ({ page }) => {
  await openDemo(page, 'Bench');
  const table = page.getByRole('treegrid', { name: 'Parts' });
  await table.focus();
  await page.keyboard.press('ArrowLeft');
  await expect(rowOf(page, /Outer panel/)).toHaveCount(0);
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('complementary', { name: 'Part' })).toContainText('Outer panel');
});

test('a link of before 0.7 still opens the card of its part, and its view', async ({ page }) => {
  await openDemo(page, 'Bench');
  await rowOf(page, /Outer panel/).click();
  await expect(page).toHaveURL(/[?&]part=/);
  const old = page.url().replace('part=', 'piece=');
  await page.goto(old);
  await expect(page.getByRole('complementary', { name: 'Part' })).toContainText('Outer panel');
  await expect(page).toHaveURL(/[?&]part=/);
  await page.goto(old.replace(/bench[^?]*/, 'measure/gauge'));
  await expect(page.getByLabel('Name of the gauge R&R study')).toBeVisible();
  await expect(page).toHaveURL(/gauge-studies/);
});

test('the comparison is turned round, and split by material and process', async ({ page }) => {
  await openDemo(page, 'Compare');
  await expect(page.getByText(/^\s*Drayman II has/).first()).toBeVisible();
  await choose(page.getByLabel('Vehicle spoken of'), 'Pannier');
  await expect(page.getByText(/^\s*Pannier has/).first()).toBeVisible();
  await expect(page.getByLabel('Vehicle compared with')).toHaveText('Drayman II');
  await page.getByRole('tab', { name: 'By material' }).click();
  await expect(page.getByRole('rowheader', { name: 'AlSi10MnMg' })).toBeVisible();
  await page.getByRole('tab', { name: 'By process' }).click();
  await expect(page.getByRole('rowheader', { name: 'high-pressure die casting' })).toBeVisible();
});

test('the stack is made wider, by dragging and by keys', async ({ page }) => {
  await openDemo(page, 'Bench');
  const grip = page.getByRole('separator', { name: 'Width of the stack' });
  const box = await grip.boundingBox();
  if (!box) throw new Error('no grip');
  await page.mouse.move(box.x + 2, 400);
  await page.mouse.down();
  await page.mouse.move(320, 400);
  await page.mouse.up();
  await expect(grip).toHaveAttribute('aria-valuenow', '320');
  await grip.press('ArrowLeft');
  await expect(grip).toHaveAttribute('aria-valuenow', '304');
});

test('the cost of a part is shown term by term, and its sources in the catalogue', async ({ page }) => {
  await openDemo(page, 'Cost');
  await page.getByRole('button', { name: 'Outer panel', exact: true }).click();
  const card = page.getByRole('complementary', { name: 'Part' });
  await expect(card).toContainText('7.92 kg × 0.95 EUR/kg ÷ (1 − 0.35 scrap)');
  // by hand: 7.92 × 0.95 / 0.65; (60 000 + 70 000 × 7.92) / 420 000; 15.88 s × 288 EUR/h / 3600 / 0.985
  for (const figure of ['11.58', '1.46', '1.29', '14.33']) await expect(card).toContainText(`EUR ${figure}`);
  await page.getByRole('tab', { name: 'Materials' }).click();
  await expect(page.getByRole('row', { name: /DC04/ })).toContainText('assumed');
  await page.getByRole('tab', { name: 'Processes' }).click();
  await expect(page.getByRole('row', { name: /high-pressure die casting/ })).toContainText('assumed 2026');
});

test('a study is begun step by step, with a vehicle and people, and a subsystem is added', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('button', { name: 'Begin a new study' }).click();
  await page
    .getByRole('button', { name: /What figures stand on/ })
    .first()
    .click();
  await expect(page.getByText('Title must not be empty')).toBeVisible();
  await page.getByLabel('Title').fill('Cab heaters');
  await page.getByRole('button', { name: 'Next: What figures stand on' }).click();
  await page.getByLabel('Price year').fill('soon');
  await page.getByRole('button', { name: 'Begin now' }).click();
  await expect(page.getByText(/Price year must be a/)).toBeVisible();
  await page.getByLabel('Price year').fill('2026');
  await page.getByRole('button', { name: 'Next: Vehicles' }).click();
  await page.getByLabel('Name of a vehicle').fill('Drayman II');
  await page.getByLabel('Name of a vehicle').press('Enter');
  await page.getByRole('button', { name: 'Next: People' }).click();
  await choose(page.getByLabel('Role of Odo Farrow'), 'recorder');
  await page.getByRole('button', { name: 'Begin the study' }).click();
  await page.getByRole('button', { name: '+ subsystem' }).click();
  await page.getByRole('dialog').getByLabel('Name').fill('Cab heater');
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'Cab heater' })).toBeVisible();
  await record(page, 'heater core aw-6082 1.2 kg');
  await expect(rowOf(page, /heater core/)).toContainText('1.200');
  await page.keyboard.press('Escape');
  await page.getByRole('link', { name: /^People/ }).click();
  await expect(page.getByRole('row', { name: /Odo Farrow/ })).toContainText('records vehicles, parts');
});

for (const [width, height] of [
  [1024, 768],
  [1920, 1080],
] as const) {
  test(`nothing is wider than the screen at ${width} × ${height}`, async ({ page }) => {
    await page.setViewportSize({ width, height });
    for (const stage of ['Bench', 'Cost', 'Compare']) {
      await openDemo(page, stage);
      expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(width);
    }
  });
}

test('sign-in, the studies, a new study and the accounts have nothing serious either', async ({ page, browser }) => {
  await page.goto('/');
  await expect(page.getByRole('heading', { name: 'Studies' })).toBeVisible();
  await page.keyboard.press('b');
  await expect(page.getByLabel('Title')).toBeVisible();
  expect(await serious(page)).toEqual([]);
  await page.goto('/people');
  await expect(page.getByRole('heading', { name: 'Accounts' })).toBeVisible();
  expect(await serious(page)).toEqual([]);
  const nobody = await browser.newContext({ storageState: { cookies: [], origins: [] } });
  const out = await nobody.newPage();
  await out.goto('/');
  await expect(out.getByRole('heading', { name: 'Sign in' })).toBeVisible();
  expect(await serious(out)).toEqual([]);
  await nobody.close();
});

test('single letters are turned off where somebody wants that, and stay off', async ({ page, request }) => {
  const study = await makeStudy(request, 'Letters off');
  await page.goto(`/studies/${study.id}/bench`);
  await expect(page.getByLabel('Entry line')).toBeVisible();
  await page.keyboard.press('?');
  const keys = page.getByRole('dialog', { name: 'Keys' });
  await keys.getByLabel('Single letters act as keys on this device').uncheck();
  await keys.getByRole('button', { name: 'Close' }).click();
  await expect(keys).toBeHidden();
  const isDark = (): Promise<boolean> => page.evaluate(() => document.documentElement.classList.contains('bay'));
  await page.keyboard.press('d');
  await page.keyboard.press('p');
  await page.reload();
  await expect(page.getByLabel('Entry line')).toBeVisible();
  await page.keyboard.press('d');
  expect([await isDark(), page.url().includes('/bench')]).toEqual([false, true]);
  // the help is always to be had, and turns them on again
  await page.keyboard.press('?');
  await keys.getByLabel('Single letters act as keys on this device').check();
  await keys.getByRole('button', { name: 'Close' }).click();
  await expect(keys).toBeHidden();
  await page.keyboard.press('d');
  await expect.poll(isDark).toBe(true);
  await page.keyboard.press('d');
});
