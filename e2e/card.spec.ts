import { expect, type Page } from '@playwright/test';
import { test } from './test';
import { stateOf } from './sign-in';
import { allKept, change, makeStudy, record, rowOf } from './study';

const card = (page: Page) => page.getByRole('complementary', { name: 'Part' });
const question = (page: Page) => page.getByRole('dialog', { name: 'Not saved yet' });
const edit = async (page: Page, row: RegExp): Promise<void> => {
  await rowOf(page, row).click();
  await card(page).getByRole('button', { name: 'Edit', exact: true }).click();
};
const field = (page: Page, label: string) => card(page).getByLabel(label, { exact: true });
const save = (page: Page): Promise<void> => card(page).getByRole('button', { name: 'Save' }).click();

test('a tag that another part has is refused at its field, and what was typed stays', async ({ page, request }) => {
  const study = await makeStudy(request, 'Tag twice');
  await page.goto(`/studies/${study.id}/bench`);
  await record(page, 'plate 1 kg');
  await record(page, 'lever 2 kg');
  await edit(page, /plate/);
  await field(page, 'Tag').fill('DR2-1');
  await save(page);
  await expect(card(page).getByRole('button', { name: 'Edit', exact: true })).toBeVisible();
  await edit(page, /lever/);
  await field(page, 'Tag').fill('DR2-1');
  await field(page, 'Notes').fill('worn at the pivot');
  await save(page);
  await expect(card(page).getByRole('alert')).toHaveText(['The tag DR2-1 is on “plate” already: a tag belongs to one part']);
  await expect(field(page, 'Tag')).toBeFocused();
  await expect(field(page, 'Notes')).toHaveValue('worn at the pivot');
  await field(page, 'Tag').fill('DR2-2');
  await save(page);
  await expect(card(page)).toContainText('worn at the pivot');
  await expect(card(page)).toContainText('DR2-2');
});

test('a tag that another bench has just given is refused in the open card', async ({ page, request }) => {
  const study = await makeStudy(request, 'Tag at two benches');
  await page.goto(`/studies/${study.id}/bench`);
  await record(page, 'plate 1 kg');
  await record(page, 'lever 2 kg');
  await allKept(page);
  await edit(page, /lever/);
  await field(page, 'Tag').fill('DR2-1');
  // the stream of this bench hears of it too late
  await page.route('**/events?*', (route) => route.abort());
  const { parts } = (await (await request.get(`/api/studies/${study.id}`)).json()) as { parts: { id: string; name: string }[] };
  await page.context().setOffline(true);
  await change(request, study.id, [
    { kind: 'part.edit', id: parts.find(({ name }) => name === 'plate')?.id, was: { tag: '' }, fields: { tag: 'DR2-1' } },
  ]);
  await page.context().setOffline(false);
  await save(page);
  await expect(card(page).getByRole('alert').filter({ hasText: 'a tag belongs to one part' }).first()).toBeVisible();
  await expect(field(page, 'Tag')).toHaveValue('DR2-1');
  await field(page, 'Tag').fill('DR2-2');
  await save(page);
  await expect(card(page)).toContainText('DR2-2');
  await expect(page.getByRole('button', { name: /not kept/ })).toHaveCount(0);
});

test('a value that somebody else changed meanwhile is told at its field; the card stays open and the person decides', async ({
  page,
  browser,
  request,
}) => {
  const study = await makeStudy(request, 'Changed meanwhile');
  const other = await (await browser.newContext({ storageState: stateOf('odo') })).newPage();
  await page.goto(`/studies/${study.id}/bench`);
  await record(page, 'plate 1 kg');
  await allKept(page);
  await other.goto(`/studies/${study.id}/bench`);
  await edit(page, /plate/);
  await edit(other, /plate/);
  await field(page, 'Name').fill('panel, mine');
  await field(page, 'Notes').fill('seen under the lamp');
  await field(other, 'Name').fill('panel, theirs');
  await field(other, 'Location').fill('left door');
  await save(other);
  await allKept(other);
  await expect(rowOf(page, /panel, theirs/)).toBeVisible();
  await save(page);
  await expect(card(page).getByText('Odo Farrow made it panel, theirs meanwhile. Save again to put yours in its place')).toBeVisible();
  await expect(field(page, 'Name')).toHaveValue('panel, mine');
  await expect(field(page, 'Notes')).toHaveValue('seen under the lamp');
  // what was not touched here shows what it is now
  await expect(field(page, 'Location')).toHaveValue('left door');
  await save(page);
  await expect(rowOf(other, /panel, mine/)).toBeVisible();
  await expect(card(page)).toContainText('left door');
  await expect(page.getByRole('button', { name: /not kept/ })).toHaveCount(0);
  await other.context().close();
});

test('what is typed in the card is not dropped by another row, Esc or leaving, unless the person says so', async ({ page, request }) => {
  const study = await makeStudy(request, 'Unsaved');
  await page.goto(`/studies/${study.id}/bench`);
  await record(page, 'plate 1 kg');
  await record(page, 'lever 2 kg');
  await edit(page, /plate/);
  // nothing typed, nothing asked
  await rowOf(page, /lever/).click();
  await expect(card(page).getByRole('heading', { name: 'lever' })).toBeVisible();
  await edit(page, /plate/);
  await field(page, 'Notes').fill('bent at the hook');
  await rowOf(page, /lever/).click();
  await expect(question(page)).toContainText('What you typed of “plate” is not saved');
  await question(page).getByRole('button', { name: 'Stay' }).click();
  await expect(field(page, 'Notes')).toHaveValue('bent at the hook');
  await expect(question(page)).toBeHidden();
  await field(page, 'Notes').press('Escape');
  await page.keyboard.press('Escape');
  await expect(question(page)).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(question(page)).toBeHidden();
  // another view of the same study keeps the card with it
  await page.keyboard.press('c');
  await expect(page).toHaveURL(/\/cost/);
  await expect(field(page, 'Notes')).toHaveValue('bent at the hook');
  await page.goBack();
  await page
    .getByRole('link', { name: /EACH BOLT/ })
    .first()
    .click();
  await question(page).getByRole('button', { name: 'Drop it' }).click();
  await expect(page.getByRole('heading', { name: 'Studies' })).toBeVisible();
});

test('a part taken off by somebody else while it is edited leaves what was typed in the card', async ({ page, request }) => {
  const study = await makeStudy(request, 'Taken off');
  await page.goto(`/studies/${study.id}/bench`);
  await record(page, 'plate 1 kg');
  await allKept(page);
  await edit(page, /plate/);
  await field(page, 'Notes').fill('bent at the hook');
  const { parts } = (await (await request.get(`/api/studies/${study.id}`)).json()) as { parts: ({ id: string } & object)[] };
  const { id, version: _version, ...was } = parts[0] as { id: string; version: number };
  await change(request, study.id, [{ kind: 'part.remove', id, was }]);
  await expect(card(page)).toContainText('Somebody has taken this part off meanwhile');
  await expect(field(page, 'Notes')).toHaveValue('bent at the hook');
  await save(page);
  await expect(card(page)).toContainText('took this part off meanwhile. What you typed is kept under “Not kept”');
  await page.getByRole('button', { name: '1 not kept' }).click();
  await page.getByRole('dialog', { name: 'Not kept' }).getByRole('button', { name: 'Put it back with your values' }).click();
  await expect(rowOf(page, /plate/)).toBeVisible();
});

test('a vehicle that was typed for a new study is one of it, whichever button is pressed next', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('button', { name: 'Begin a new study' }).click();
  await page.getByLabel('Title').fill('Typed and gone on');
  await page.getByRole('button', { name: '3 Vehicles' }).click();
  await page.getByLabel('Name of a vehicle').fill('Drayman II');
  await page.getByRole('button', { name: 'Next: People' }).click();
  await page.getByRole('button', { name: 'Back', exact: true }).click();
  await expect(page.locator('eb-new-study').getByText('Drayman II')).toBeVisible();
  await page.getByLabel('Name of a vehicle').fill('Pannier');
  await page.getByRole('button', { name: 'Begin now' }).click();
  await expect(page).toHaveURL(/\/bench/);
  await expect(page.getByText('Drayman II').first()).toBeVisible();
  await expect(page.getByText('Pannier').first()).toBeVisible();
});
