import { expect, type Page } from '@playwright/test';
import { allKept, makeStudy, record, rowOf } from './study';
import { test } from './test';

const line = (page: Page): ReturnType<Page['getByLabel']> => page.getByLabel('Entry line');

test('one part is recorded by ear: every control has its name, and what was understood and kept is told', async ({ page, request }) => {
  const study = await makeStudy(request, 'By ear');
  await page.goto(`/studies/${study.id}/bench`);
  await expect(line(page)).toBeVisible();
  await line(page).focus();
  await expect(line(page)).toHaveAccessibleName('Entry line');
  await page.keyboard.type('2x bracket dc04 stamp 41');
  // what was understood is told while it is typed, and what is asked has a name and choices with names
  const understood = page.locator('#understood');
  await expect(understood).toHaveAttribute('aria-live', 'polite');
  await expect(line(page)).toHaveAccessibleDescription(/count.*2/);
  const question = page.getByRole('group', { name: /41 of what/ });
  await expect(question.getByRole('button').first()).toHaveAccessibleName(/g/);
  await page.keyboard.press('Alt+1');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('status').filter({ hasText: 'Kept: 2x bracket' })).toBeVisible();
  // the row, its place in the tree, and its figures with how they are known
  const row = rowOf(page, /bracket/);
  await expect(row).toHaveAttribute('aria-level', '1');
  await expect(row.getByRole('gridcell').first()).toHaveAccessibleName(/bracket/);
  await expect(row.getByRole('img', { name: 'weakest evidence: measured, 100 % of the mass' })).toBeVisible();
  const card = page.getByRole('complementary', { name: 'Part' });
  await expect(card.getByRole('heading', { level: 2, name: 'bracket' })).toBeVisible();
  await expect(card.getByRole('button', { name: 'Mass each: how is it known?' })).toBeVisible();
  // nothing that can be pressed or typed into is without a name
  for (const role of ['button', 'link', 'textbox', 'combobox', 'checkbox'] as const)
    for (const control of await page.getByRole(role).all()) if (await control.isVisible()) await expect(control).toHaveAccessibleName(/\S/);
  await allKept(page);
});

test('focus goes back to where it was when a dialog is closed, and into the table when a part is deleted', async ({ page, request }) => {
  const study = await makeStudy(request, 'Focus');
  await page.goto(`/studies/${study.id}/bench`);
  await expect(line(page)).toBeVisible();
  for (const text of ['bracket 41 g', 'lever 12 g', 'roller 9 g']) await record(page, text);
  const button = page.getByRole('button', { name: 'Import a file' });
  await button.focus();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('dialog', { name: 'Import a file of parts' })).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toBeHidden();
  await expect(button).toBeFocused();
  // also where it is closed before it was wholly there
  await page.keyboard.press('Enter');
  await page.getByRole('dialog').waitFor({ state: 'attached' });
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toBeHidden();
  await expect(button).toBeFocused();
  const parts = page.getByRole('treegrid', { name: 'Parts' });
  await rowOf(page, /lever/).click();
  await page.keyboard.press('Delete');
  await page
    .getByRole('dialog', { name: /^Delete/ })
    .getByRole('button', { name: 'Delete', exact: true })
    .click();
  await expect(rowOf(page, /lever/)).toHaveCount(0);
  await expect(page.getByRole('dialog')).toBeHidden();
  await expect(parts).toBeFocused();
  await allKept(page);
});

test('who asks for little motion gets none that lasts', async ({ page, request }) => {
  const study = await makeStudy(request, 'Motion');
  await page.emulateMedia({ reducedMotion: 'reduce' });
  await page.goto(`/studies/${study.id}/bench`);
  await expect(line(page)).toBeVisible();
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog', { name: 'Keys' })).toBeVisible();
  const longest = await page.evaluate(() =>
    Math.max(
      ...[...document.querySelectorAll('*')].map((element) => {
        const { animationDuration, transitionDuration } = getComputedStyle(element);
        return Math.max(...`${animationDuration},${transitionDuration}`.split(',').map((text) => Number.parseFloat(text) || 0));
      }),
    ),
  );
  expect(longest).toBeLessThan(0.001);
});

test.describe('at twice the size', () => {
  // a page of 1280×800 magnified to 200 % has 640×400 CSS pixels (WCAG 2.2, 1.4.4 and 1.4.10)
  test.use({ viewport: { width: 640, height: 400 } });
  test('a part is recorded, seen and opened, and the page scrolls one way only', async ({ page, request }) => {
    const study = await makeStudy(request, 'Twice the size');
    await page.goto(`/studies/${study.id}/bench`);
    await line(page).scrollIntoViewIfNeeded();
    await record(page, '2x bracket dc04 stamp 41 g');
    await rowOf(page, /bracket/).click();
    const card = page.getByRole('complementary', { name: 'Part' });
    await card.getByRole('heading', { level: 2, name: 'bracket' }).scrollIntoViewIfNeeded();
    await expect(card.getByRole('heading', { level: 2, name: 'bracket' })).toBeInViewport();
    for (const stage of ['Plan', 'Measure', 'Cost', 'Compare', 'Bench']) {
      await page.getByRole('navigation', { name: 'Stages' }).getByRole('link', { name: stage }).click();
      await expect(page.getByRole('main')).toBeVisible();
      expect([stage, await page.evaluate(() => document.documentElement.scrollWidth)]).toEqual([stage, 640]);
    }
    await page.getByRole('button', { name: 'Show the stack' }).click();
    await expect(page.getByRole('tree')).toBeVisible();
    await allKept(page);
  });
});
