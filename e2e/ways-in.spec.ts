import { randomUUID } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import bwip from 'bwip-js/node';
import sharp from 'sharp';
import { expect, type Page } from '@playwright/test';
import { allKept, change, makeStudy, post, record, rowOf } from './study';
import { test } from './test';

const line = (page: Page): ReturnType<Page['getByLabel']> => page.getByLabel('Entry line');
const card = (page: Page): ReturnType<Page['getByRole']> => page.getByRole('complementary', { name: 'Part' });

test.describe('a first study', () => {
  test.use({ firstSteps: true });
  test('is begun along a path of steps, each tried on a line, and left when one likes', async ({ page, request }) => {
    const study = await makeStudy(request, 'First of all');
    await page.goto(`/studies/${study.id}/bench`);
    const path = page.getByRole('region', { name: 'First steps' });
    await expect(path).toContainText('2 of 6: Record a part');
    await path.getByRole('button', { name: /^Try:/ }).click();
    await expect(line(page)).toHaveValue('2x bracket, hose guide pa66-gf30 inj 41 g');
    await line(page).press('Enter');
    await expect(path).toContainText('3 of 6: Record what holds it');
    await expect(line(page)).toHaveValue('');
    await path.getByRole('button', { name: /^Try:/ }).click();
    await line(page).press('Enter');
    await expect(path).toContainText('4 of 6: Take a mass from the scale');
    await path.getByRole('button', { name: 'Skip this step' }).click();
    await expect(path).toContainText('5 of 6: Record how a part came off');
    await path.getByRole('button', { name: 'Leave the first steps' }).click();
    await expect(path).toHaveCount(0);
    await allKept(page);
    await page.reload();
    await expect(line(page)).toBeVisible();
    await expect(path).toHaveCount(0);
  });
});

test('a figure of the strip opens the list it is made of, each line leading to its place', async ({ page, request }) => {
  const study = await makeStudy(request, 'Behind the figures');
  await page.goto(`/studies/${study.id}/bench`);
  await record(page, '3x bracket dc04 stamp 41 g');
  await record(page, 'lever 12 g');
  await page.getByRole('link', { name: 'Compare' }).click();
  await page.getByRole('button', { name: /^Bench: 4 counted/ }).click();
  const list = page.getByRole('dialog', { name: /^Bench, what is behind 4 counted/ });
  await expect(list.getByRole('listitem')).toHaveText(/Sliding cargo door, Drayman II\s*4 counted/);
  await list.getByRole('link').click();
  await expect(rowOf(page, /bracket/)).toBeVisible();
  // the bracket has material, process and mass; the lever is listed with what it lacks
  await page.getByRole('link', { name: 'Cost' }).click();
  const next = page.getByRole('region', { name: 'Without a cost yet' });
  await expect(next.getByRole('listitem')).toHaveText(/lever.*material/i);
});

test('a table is sorted, its columns are chosen, and the file has what is shown', async ({ page, request }) => {
  const study = await makeStudy(request, 'Tables');
  await page.goto(`/studies/${study.id}/bench`);
  for (const text of ['3x bracket dc04 stamp 41 g', 'plate dc04 stamp 1.2 kg', '=lever 12 g']) await record(page, text);
  await page.getByRole('link', { name: 'Cost' }).click();
  const table = page.getByRole('table', { name: 'Cost by part' });
  const names = table.locator('tbody tr td:first-child button');
  // the dearest first, what has no cost last
  await expect(names).toHaveText(['plate', 'bracket', '=lever']);
  await table.getByRole('columnheader', { name: 'Part', exact: true }).click();
  await expect(names).toHaveText(['=lever', 'bracket', 'plate']);
  await page.getByRole('button', { name: 'Columns' }).click();
  const chooser = page.getByRole('dialog', { name: 'Columns of Cost by part' });
  for (const column of ['Tooling, EUR', 'Conversion, EUR', 'Bought out, EUR', 'Per part, EUR'])
    await chooser.getByRole('checkbox', { name: column }).uncheck();
  await page.keyboard.press('Escape');
  await expect(table.getByRole('columnheader')).toHaveText(['Part', 'On one vehicle', 'Material, EUR', 'Total, EUR']);
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'CSV', exact: true }).click();
  const text = (await readFile(await (await download).path(), 'utf8')).replace('\ufeff', '').split('\n');
  expect(text[0]).toBe('Part,On one vehicle,"Material, EUR","Total, EUR","Total, evidence"');
  // what a spreadsheet would take for a formula is defused; what is not known is empty, never 0
  expect(text[1]).toMatch(/^'=lever,1,,,/);
  expect(text[2]).toMatch(/^bracket,3,0\.\d+,0\.\d+,/);
});

test('pounds and inches are chosen once, shown everywhere and typed as shown, and follow the person to another device', async ({
  browser,
  request,
}) => {
  const study = await makeStudy(request, 'Pounds');
  const account = { login: `sela${Date.now()}`, name: 'Sela Quarr', password: 'pounds on the bench', standing: 'member' };
  const { person } = (await (await post(request, '/api/people', account)).json()) as { readonly person: { readonly id: string } };
  await change(request, study.id, [{ kind: 'member.add', id: randomUUID(), fields: { personId: person.id, role: 'recorder' } }]);
  const onDevice = async (): Promise<Page> => {
    const context = await browser.newContext({ storageState: { cookies: [], origins: [] } });
    const page = await context.newPage();
    await page.addInitScript(() => localStorage.setItem('each-bolt-first-steps-left', 'left'));
    await page.goto(`/studies/${study.id}/bench`);
    await page.getByLabel('Sign-in name').fill(account.login);
    await page.getByLabel('Password').fill(account.password);
    await page.getByRole('button', { name: 'Sign in', exact: true }).click();
    return page;
  };
  const page = await onDevice();
  await record(page, 'plate dc04 stamp 10 lb t2.54 mm 254x127x25.4 mm');
  await page.getByRole('button', { name: 'Units of mass and length' }).click();
  await expect(page.getByRole('columnheader', { name: 'Mass, lb' })).toBeVisible();
  await expect(rowOf(page, /plate/)).toContainText('10.000');
  await rowOf(page, /plate/).click();
  await expect(card(page)).toContainText('10.00 ± 0.58 lb');
  await expect(card(page)).toContainText('10 × 5 × 1 in');
  await card(page).getByRole('button', { name: 'Edit' }).click();
  const wall = card(page).getByLabel('Wall thickness, in');
  await expect(wall).toHaveValue('0.1');
  await wall.fill('0.2');
  await card(page).getByRole('button', { name: 'Save' }).click();
  await expect(card(page)).toContainText(/0\.200\d* ± [\d.]+ in/);
  await allKept(page);
  const elsewhere = await onDevice();
  await expect(elsewhere.getByRole('columnheader', { name: 'Mass, lb' })).toBeVisible();
  await elsewhere.context().close();
  await page.getByRole('button', { name: 'Units of mass and length' }).click();
  await expect(page.getByRole('columnheader', { name: 'Mass, kg' })).toBeVisible();
  await expect(card(page)).toContainText('5.1 ± 1.5 mm  (typed 0.2 in)');
  // without the server they cannot be kept, and stay as they are
  await page.route('**/api/me/units', (route) => route.abort());
  await page.getByRole('button', { name: 'Units of mass and length' }).click();
  await expect(page.getByText(/^Units stay as they are, for they are kept with your account/)).toBeVisible();
  await expect(page.getByRole('columnheader', { name: 'Mass, kg' })).toBeVisible();
  await page.context().close();
});

test.describe('with the camera of a tablet', () => {
  test.use({ hasTouch: true, isMobile: true, viewport: { width: 1024, height: 768 } });

  /** A picture of a part with its label on the bench, a little turned and out of focus. */
  const pictureOf = async (tag: string): Promise<Buffer> => {
    const code = await bwip.toBuffer({ bcid: 'datamatrix', text: tag, scale: 6, padding: 6, backgroundcolor: 'FFFFFF' });
    const label = await sharp(code).resize(220, 220).rotate(9, { background: '#ffffff' }).png().toBuffer();
    return sharp({ create: { width: 1280, height: 960, channels: 3, background: '#8d8a80' } })
      .composite([{ input: label, left: 700, top: 420 }])
      .blur(1.1)
      .jpeg()
      .toBuffer();
  };

  test('the tag in a picture is read and given to the part, or says whose it is', async ({ page, request }) => {
    const study = await makeStudy(request, 'Camera');
    await page.goto(`/studies/${study.id}/bench`);
    await record(page, 'lever 12 g #L-77');
    await record(page, 'bracket 41 g');
    await rowOf(page, /bracket/).click();
    const camera = card(page).getByLabel('Take a picture with the camera');
    await expect(camera).toHaveAttribute('capture', 'environment');
    await camera.setInputFiles({ name: 'bracket.jpg', mimeType: 'image/jpeg', buffer: await pictureOf('Q9-12') });
    await expect(card(page)).toContainText('The picture shows the tag Q9-12, which is on no part yet');
    await card(page).getByRole('button', { name: 'Give it to this part' }).click();
    await expect(card(page).locator('header')).toContainText('Q9-12');
    await camera.setInputFiles({ name: 'lever.jpg', mimeType: 'image/jpeg', buffer: await pictureOf('L-77') });
    await expect(card(page)).toContainText('The tag in the picture, L-77, is on “lever”');
    await card(page).getByRole('button', { name: 'Open that part' }).click();
    await expect(card(page).getByRole('heading', { level: 2, name: 'lever' })).toBeVisible();
    await allKept(page);
  });
});
