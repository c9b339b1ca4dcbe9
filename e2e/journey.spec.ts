import { readFile } from 'node:fs/promises';
import { expect } from '@playwright/test';
import { test } from './test';
import { allKept, record, rowOf } from './study';

const TWO_FAULTS = `no,inside_of,name,quantity,material,made_by,mass,envelope,fasteners
1,,Sun blind module,,,,,,
1.1,1,Blind rail,,aluminium,ext,0.4 kg,900x30x12,
1.2,1,Blind cloth,,plastic-unknown,,210 g,,
2,,Handle trim,2,pc-abs,inj,36,120x30x20,
3,,Cover plate,1,dc04,stamp,0.62 kg,300x200x2,4 M6x16 T30 8.8 -y
`;

test('from the first line at the bench to the comparison, and all of it is there after a reload', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('link', { name: /Last-mile vans/ }).click();
  await expect(page.getByRole('heading', { name: 'Sliding cargo door' })).toBeVisible();
  // 79 parts and 81 fasteners of the demo files
  const total = page.getByRole('row', { name: /^Total/ });
  await expect(total).toContainText('160');

  await test.step('five lines, one of them ambiguous', async () => {
    await record(page, 'Step lamp module');
    await page.keyboard.press('Escape');
    await page.keyboard.press('o');
    await expect(page.getByText('New parts go inside Step lamp module.')).toBeVisible();
    await record(page, '2x bracket, lamp pa66-gf30 inj 41 g');
    await record(page, '4 M6x16 T30 8.8 -z');
    await record(page, '3 snap');
    const line = page.getByLabel('Entry line');
    await line.fill('lens aluminium 36');
    await expect(page.getByRole('group', { name: /“aluminium” is not a grade/ })).toBeVisible();
    await line.press('Enter');
    await expect(line).toHaveValue('lens aluminium 36');
    await page
      .getByRole('group', { name: /“aluminium” is not a grade/ })
      .getByRole('button', { name: 'part of the name' })
      .click();
    await expect(page.getByText('36 of what: g or kg?')).toBeVisible();
    await page.keyboard.press('Alt+1');
    await expect(line).toHaveValue('lens "aluminium" 36 g');
    await line.press('Enter');
    await expect(rowOf(page, /lens aluminium/)).toContainText('0.036');
  });
  // module: two brackets of 41 g with four screws each of 6 g, a lens of 36 g
  await expect(rowOf(page, /Step lamp module/)).toContainText('11');
  await expect(rowOf(page, /bracket, lamp/)).toContainText('injection moulding');

  await test.step('a part is edited in the card, with a fault first', async () => {
    await rowOf(page, /lens aluminium/).click();
    await page.getByRole('button', { name: 'Edit', exact: true }).click();
    await page.getByLabel('Name', { exact: true }).fill('Lens, step lamp');
    await page.getByLabel('Mass each, with unit').fill('38');
    await page.getByRole('button', { name: 'Save' }).click();
    await expect(page.getByText('38 of what: g or kg?')).toBeVisible();
    await page.getByLabel('Mass each, with unit').fill('38 g');
    await page.getByLabel('Material', { exact: true }).click();
    await page.getByRole('option', { name: 'PC/ABS' }).click();
    await page.getByRole('button', { name: 'Save' }).click();
    await expect(rowOf(page, /Lens, step lamp/)).toContainText('PC/ABS');
    await expect(page.getByRole('complementary', { name: 'Part' })).toContainText('0.03800 ± 0.00058 kg');
  });

  await test.step('a file with two faulty rows loads nothing until that is decided', async () => {
    await page.keyboard.press('i');
    await page.getByLabel('CSV or XLSX file').setInputFiles({ name: 'blind.csv', mimeType: 'text/csv', buffer: Buffer.from(TWO_FAULTS) });
    await expect(page.getByText('3 rows can be loaded; 2 have faults. Nothing is loaded until you decide.')).toBeVisible();
    await expect(page.getByText('mass: 36 of what: g or kg?')).toBeVisible();
    await page.getByRole('button', { name: 'Cancel and correct the file' }).click();
    await expect(page.getByText('Cover plate')).toHaveCount(0);
    await page.keyboard.press('i');
    await page.getByLabel('CSV or XLSX file').setInputFiles({ name: 'blind.csv', mimeType: 'text/csv', buffer: Buffer.from(TWO_FAULTS) });
    await page.getByRole('button', { name: 'Load 3 rows, leave out 2' }).click();
    await expect(page.getByText('Loaded 3 rows as one change.')).toBeVisible();
  });
  // 160 + bracket 2 + screws 8 + lens 1 + blind cloth 1 + cover plate 1 + its screws 4
  await expect(total).toContainText('177');

  await test.step('the counting rule is switched', async () => {
    await page.getByRole('button', { name: '+ fasteners' }).click();
    await expect(page.getByRole('button', { name: 'no fasteners' })).toBeVisible();
    await expect(total).toContainText('84');
    await page.getByRole('button', { name: 'loose parts' }).click();
    await expect(page.getByRole('button', { name: 'assemblies as one' })).toBeVisible();
    await expect(
      rowOf(page, /Step lamp module/)
        .getByRole('gridcell')
        .nth(1),
    ).toHaveText('1C');
    await page.getByRole('button', { name: 'assemblies as one' }).click();
    await expect(total).toContainText('84');
  });

  await test.step('the two doors are compared and the table exported', async () => {
    await page.getByRole('link', { name: /Compare/ }).click();
    await expect(page.getByText('84 parts against 89')).toBeVisible();
    await expect(page.getByText(/1\.1\d times as heavy, 1\d % more/)).toBeVisible();
    await expect(page.getByRole('img', { name: /by material family/ }).locator('svg')).toBeVisible();
    const [download] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name: 'Table as CSV' }).click()]);
    expect(download.suggestedFilename()).toBe('Sliding cargo door Drayman II against Pannier.csv');
    const csv = await readFile(await download.path(), 'utf8');
    expect(csv).toContain('counting rule,"loose parts, fasteners left out"');
    expect(csv).toMatch(/total,,parts,,84,89,-5,0\.94382/);
  });

  await test.step('after a reload everything is found again', async () => {
    await allKept(page);
    await page.reload();
    await expect(page.getByText('84 parts against 89')).toBeVisible();
    await page.keyboard.press('b');
    await expect(page.getByRole('button', { name: 'no fasteners' })).toBeVisible();
    await page.getByLabel('Find part, tag or word').fill('lens step');
    await page.getByRole('treeitem', { name: /Lens, step lamp/ }).click();
    await expect(page.getByRole('complementary', { name: 'Part' })).toContainText('0.03800 ± 0.00058 kg');
    await expect(page.getByRole('complementary', { name: 'Part' })).toContainText('PC/ABS');
    await rowOf(page, /bracket, lamp/).click();
    await expect(page.getByRole('complementary', { name: 'Part' })).toContainText('4 M6x16 T30 8.8 -z');
    await expect(page.getByRole('complementary', { name: 'Part' })).toContainText('3 snap');
    await expect(rowOf(page, /Cover plate/)).toContainText('0.620');
  });
});
