import { expect, type Locator, type Page } from '@playwright/test';
import { test } from './test';
import { choose } from './controls';
import { allKept, makeStudy, record, rowOf } from './study';

/** The names in the table of the bench, each as deep as it hangs. */
const tree = async (page: Page): Promise<readonly string[]> => {
  const rows = page.getByRole('treegrid', { name: 'Parts' }).getByRole('row');
  return rows.evaluateAll((all) =>
    all.flatMap((row) => {
      const level = row.getAttribute('aria-level');
      return level === null ? [] : [`${'  '.repeat(Number(level) - 1)}${row.querySelector('.first')?.textContent ?? ''}`];
    }),
  );
};
const bench = async (page: Page, studyId: string, lines: readonly string[]): Promise<void> => {
  await page.goto(`/studies/${studyId}/bench`);
  for (const line of lines) await record(page, line);
  await page.getByLabel('Entry line').press('Escape');
};
const ask = (page: Page, heading: RegExp): Locator => page.getByRole('dialog', { name: heading });

test('parts chosen together become an assembly, go under another vehicle by search, and come back with one key', async ({
  page,
  request,
}) => {
  const study = await makeStudy(request, 'Moving');
  await bench(page, study.id, ['rail 1 kg', '2x roller 80 g', 'latch 350 g']);
  await rowOf(page, /rail/).click();
  await rowOf(page, /roller/).click({ modifiers: ['Control'] });
  const together = page.getByRole('region', { name: 'Parts chosen together' });
  await expect(together).toContainText('2 parts chosen');
  await together.getByRole('button', { name: 'Assemble …' }).click();
  await ask(page, /^Make an assembly of: rail and 1 more/)
    .getByLabel('Name')
    .fill('roller rail');
  await page.keyboard.press('Enter');
  await expect.poll(() => tree(page)).toEqual(['roller rail', '  rail', '  roller', 'latch']);

  await rowOf(page, /roller rail/).click({ button: 'right' });
  await page.getByRole('menuitem', { name: 'Move to …' }).click();
  const moving = ask(page, /^Move: roller rail/);
  await moving.getByLabel('To').pressSequentially('pannier sliding');
  await page.getByRole('option', { name: 'Pannier › Sliding cargo door' }).click();
  await moving.getByRole('button', { name: 'Move', exact: true }).click();
  await expect.poll(() => tree(page)).toEqual(['latch']);
  const stack = page.getByRole('tree', { name: 'Vehicles, subsystems and parts' });
  await stack.getByText('Sliding cargo door').nth(1).click();
  await expect.poll(() => tree(page)).toEqual(['roller rail', '  rail', '  roller']);
  await page.keyboard.press('z');
  await expect(page.getByText('Nothing is recorded under Sliding cargo door on Pannier yet.')).toBeVisible();
  await allKept(page);
});

test('a part is dragged into another with the mouse; into itself it cannot go', async ({ page, request }) => {
  const study = await makeStudy(request, 'Dragging');
  await bench(page, study.id, ['rail 1 kg', 'latch 350 g']);
  const drag = async (from: RegExp, to: Locator): Promise<void> => {
    const [start, end] = [await rowOf(page, from).boundingBox(), await to.boundingBox()];
    await page.mouse.move(start!.x + 120, start!.y + 12);
    await page.mouse.down();
    await page.mouse.move(start!.x + 120, start!.y + 24, { steps: 3 });
    await page.mouse.move(end!.x + 100, end!.y + 12, { steps: 6 });
    await page.mouse.up();
  };
  await drag(/latch/, rowOf(page, /rail/));
  await expect.poll(() => tree(page)).toEqual(['rail', '  latch']);
  await drag(/rail/, rowOf(page, /latch/));
  await expect(page.getByText('latch would be inside itself; choose a place outside of what is moved')).toBeVisible();
  // onto the subsystem in the stack: out of the assembly again
  await drag(/latch/, page.getByRole('treeitem', { name: /Sliding cargo door/ }).first());
  await expect.poll(() => tree(page)).toEqual(['rail', 'latch']);
  await allKept(page);
});

test('by keyboard alone: two parts are chosen, cut and put into a third; a count is split and merged', async ({ page, request }) => {
  const study = await makeStudy(request, 'Keys of the tree');
  await bench(page, study.id, ['rail', '4x roller 80 g', 'latch 350 g']);
  const table = page.getByRole('treegrid', { name: 'Parts' });
  await table.focus();
  // the latch was recorded last and is chosen; the roller above it is chosen beside it
  await page.keyboard.press('Home');
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Control+Space');
  await expect(page.getByRole('region', { name: 'Parts chosen together' })).toContainText('2 parts chosen');
  await page.keyboard.press('Control+x');
  await expect(page.getByText('and 1 more cut')).toBeVisible();
  await page.keyboard.press('Home');
  await page.keyboard.press('Enter');
  await page.keyboard.press('Control+v');
  await expect.poll(() => tree(page)).toEqual(['rail', '  roller', '  latch']);

  await rowOf(page, /roller/).click();
  await page.getByRole('complementary', { name: 'Part' }).getByRole('button', { name: 'More …' }).press('Enter');
  // the menu takes the keys once it is shown
  await expect(page.getByRole('menu')).toBeFocused();
  const focused = page.locator('[role=menuitem][data-p-focused=true]');
  for (const item of ['Move to …', 'Cut (Ctrl X)', 'Copy to another place …', 'Make an assembly …']) {
    await page.keyboard.press('ArrowDown');
    await expect(focused).toHaveText(item);
  }
  await page.keyboard.press('ArrowDown');
  await expect(focused).toHaveText('Split the count …');
  await page.keyboard.press('Enter');
  await ask(page, /^Split: roller/)
    .getByLabel('How many of the 4 go into a line of their own')
    .fill('5');
  await page.keyboard.press('Enter');
  await expect(ask(page, /^Split: roller/).getByRole('alert')).toHaveText('Say how many of the 4 go into a line of their own: 1 to 3');
  await page.getByLabel('How many of the 4 go into a line of their own').fill('1');
  await page.keyboard.press('Enter');
  await expect.poll(() => tree(page)).toEqual(['rail', '  roller', '  latch', '  roller']);
  await rowOf(page, /roller/)
    .first()
    .click();
  await rowOf(page, /roller/)
    .last()
    .click({ modifiers: ['Shift'] });
  await page.getByRole('button', { name: 'Merge', exact: true }).click();
  await expect.poll(() => tree(page)).toEqual(['rail', '  roller', '  latch']);
  await expect(rowOf(page, /roller/)).toContainText('4');
  await allKept(page);
});

test('what is deleted together with a part is shown first, and several are given one material', async ({ page, request }) => {
  const study = await makeStudy(request, 'Giving');
  await bench(page, study.id, ['rail 1 kg', '6 M6x16 5 g', 'latch 350 g']);
  await rowOf(page, /rail/).click();
  await rowOf(page, /latch/).click({ modifiers: ['Control'] });
  await page.getByRole('button', { name: 'Give …' }).click();
  const giving = ask(page, /^Give the same values to: rail and 1 more/);
  await choose(giving.getByLabel('Material'), 'DC04');
  await giving.getByLabel('Supplier').fill('Tregear Pressings');
  await giving.getByRole('button', { name: 'Give', exact: true }).click();
  await expect(rowOf(page, /rail/)).toContainText('DC04');
  await expect(rowOf(page, /latch/)).toContainText('DC04');
  await rowOf(page, /rail/).click();
  await page.getByRole('treegrid', { name: 'Parts' }).focus();
  await page.keyboard.press('Delete');
  await expect(ask(page, /^Delete: rail/)).toContainText('With it: 1 set of fasteners.');
  await ask(page, /^Delete: rail/)
    .getByRole('button', { name: 'Delete' })
    .click();
  await expect.poll(() => tree(page)).toEqual(['latch']);
  await allKept(page);
});

test('a subtree is copied to another vehicle as a start, all of it to be confirmed there; an assembly is dissolved', async ({
  page,
  request,
}) => {
  const study = await makeStudy(request, 'Copying');
  await bench(page, study.id, ['2x module']);
  await page.keyboard.press('o');
  for (const line of ['plate dc04 stamp 1 kg', '4 M6x16 5 g', '2x guide pom 40 g']) await record(page, line);
  await page.getByLabel('Entry line').press('Escape');
  await rowOf(page, /module/).click({ button: 'right' });
  await page.getByRole('menuitem', { name: 'Copy to another place …' }).click();
  const copying = ask(page, /^Copy: module/);
  await copying.getByRole('button', { name: 'Copy', exact: true }).click();
  await expect(copying.getByRole('alert')).toHaveText('Choose the place from the list; type part of its name to find it');
  await copying.getByLabel('To').pressSequentially('pannier');
  await page.getByRole('option', { name: 'Pannier › Sliding cargo door' }).click();
  await copying.getByRole('button', { name: 'Copy', exact: true }).click();
  const stack = page.getByRole('tree', { name: 'Vehicles, subsystems and parts' });
  await stack.getByText('Sliding cargo door').nth(1).click();
  await expect.poll(() => tree(page)).toEqual(['module', '  plate', '  guide']);
  // two modules, each with 1 kg, 4 × 5 g and 2 × 40 g
  await expect(rowOf(page, /module/)).toContainText('2.200');
  await rowOf(page, /plate/).click();
  const mass = page.getByRole('complementary', { name: 'Part' }).getByText('1.00 ± 0.58 kg');
  await expect(mass).toBeVisible();
  await expect(page.getByRole('button', { name: /^Mass each: how is it known/ })).toContainText('?');

  await rowOf(page, /module/).click({ button: 'right' });
  await page.getByRole('menuitem', { name: 'Dissolve the assembly' }).click();
  await expect.poll(() => tree(page)).toEqual(['plate', 'guide']);
  await expect(rowOf(page, /guide/)).toContainText('4');
  await expect(page.getByRole('row', { name: /^Total/ })).toContainText('2.200');
  await page.keyboard.press('z');
  await expect.poll(() => tree(page)).toEqual(['module', '  plate', '  guide']);
  await allKept(page);
});

test('a subsystem is renamed, merged into another with its parts, and an empty one is deleted', async ({ page, request }) => {
  const study = await makeStudy(request, 'Subsystems');
  await bench(page, study.id, ['rail 1 kg']);
  const stack = page.getByRole('tree', { name: 'Vehicles, subsystems and parts' });
  const act = async (name: string): Promise<void> => {
    await page.getByRole('button', { name: 'subsystem …', exact: true }).click();
    await page.getByRole('menuitem', { name }).click();
  };
  await act('Rename …');
  await ask(page, /^Rename the subsystem/)
    .getByLabel('Name')
    .fill('Side door');
  await page.keyboard.press('Enter');
  await expect(stack.getByText('Side door').first()).toBeVisible();
  await page.getByRole('button', { name: '+ subsystem' }).click();
  await ask(page, /^New subsystem/)
    .getByLabel('Name')
    .fill('Doors');
  await page.keyboard.press('Enter');
  await expect(stack.getByText('Doors').first()).toBeVisible();
  await stack.getByText('Side door').first().click();
  await act('Delete, if nothing is in it');
  await expect(page.getByText('Side door holds 1 part; move or merge them first')).toBeVisible();
  await act('Move below another …');
  await choose(ask(page, /^Move the subsystem/).getByLabel('Other subsystem'), 'Doors');
  await ask(page, /^Move the subsystem/)
    .getByRole('button', { name: 'Move' })
    .click();
  await expect(stack.getByRole('treeitem', { name: /Side door/ }).first()).toHaveAttribute('aria-level', '3');
  await act('Merge into another …');
  await choose(ask(page, /^Merge the subsystem/).getByLabel('Other subsystem'), 'Doors');
  await ask(page, /^Merge the subsystem/)
    .getByRole('button', { name: 'Merge' })
    .click();
  await expect(stack.getByText('Side door')).toHaveCount(0);
  await expect.poll(() => tree(page)).toEqual(['rail']);
  await allKept(page);
});

test.describe('by touch, at the size of a tablet', () => {
  test.use({ viewport: { width: 1024, height: 768 }, hasTouch: true });
  test('a part is moved through the menu of its card', async ({ page, request }) => {
    const study = await makeStudy(request, 'Touch');
    await bench(page, study.id, ['rail 1 kg', 'latch 350 g']);
    await rowOf(page, /latch/).tap();
    await page.getByRole('complementary', { name: 'Part' }).getByRole('button', { name: 'More …' }).tap();
    await page.getByRole('menuitem', { name: 'Move to …' }).tap();
    await ask(page, /^Move: latch/)
      .getByLabel('To')
      .pressSequentially('drayman rail');
    await page.getByRole('option', { name: /› rail$/ }).tap();
    await ask(page, /^Move: latch/)
      .getByRole('button', { name: 'Move', exact: true })
      .tap();
    await expect.poll(() => tree(page)).toEqual(['rail', '  latch']);
    await allKept(page);
  });
});
