import { expect, type BrowserContext, type Page } from '@playwright/test';
import { PEOPLE, type Login } from './sign-in';
import { allKept, makeStudy, record, rowOf } from './study';
import { test } from './test';

const state = (page: Page) => page.getByRole('contentinfo').getByRole('status');
const signIn = async (page: Page, login: Login): Promise<void> =>
  page.getByRole('button', { name: new RegExp(PEOPLE[login].name) }).click();
/** Lets no change reach the server, as when it is too busy to answer. */
const changesHeldBack = (context: BrowserContext): Promise<unknown> => context.route('**/changes', (route) => route.abort());
/** Everything in the databases of the device, as text. */
const onDevice = (page: Page): Promise<string> =>
  page.evaluate(async () => {
    const done = <T>(request: IDBRequest<T>): Promise<T> =>
      new Promise((ok, fail) => {
        request.onsuccess = () => ok(request.result);
        request.onerror = () => fail(new Error(request.error?.message));
      });
    const found: string[] = [];
    for (const { name } of await indexedDB.databases()) {
      const db = await done(indexedDB.open(name ?? ''));
      for (const store of db.objectStoreNames)
        found.push(JSON.stringify(await done<unknown[]>(db.transaction(store).objectStore(store).getAll())));
      db.close();
    }
    return found.join('\n');
  });

test('what a closed page left of one study is counted and sent by a page of another', async ({ page, context, request }) => {
  const [first, second] = [await makeStudy(request, 'Left behind'), await makeStudy(request, 'Still open')];
  await page.goto(`/studies/${first.id}/bench`);
  await record(page, 'plate 1 kg');
  await allKept(page);
  await changesHeldBack(context);
  await record(page, 'lever 100 g');
  await expect(state(page)).toContainText('No connection: 1 change waiting here');
  await page.close();
  const other = await context.newPage();
  await other.goto('/');
  const line = other.getByRole('listitem').filter({ hasText: 'Left behind' });
  await expect(line.getByRole('status')).toHaveText('1 change of this device waits to be sent');
  await other.getByRole('link', { name: /Still open/ }).click();
  await expect(state(other)).toContainText('1 change waiting here, 1 of other studies');
  await record(other, 'seat 20 kg');
  await expect(state(other)).toContainText('2 changes waiting here, 1 of other studies');
  await context.unroute('**/changes');
  await allKept(other);
  for (const [study, names] of [
    [first, ['plate', 'lever']],
    [second, ['seat']],
  ] as const) {
    // prettier-ignore
    const { parts } = (await (await request.get(`/api/studies/${study.id}`)).json()) as { readonly parts: readonly { readonly name: string }[] };
    expect(parts.map((part) => part.name)).toEqual(names);
  }
});

test('two pages of one study show what waits in either, and it is kept once', async ({ page, context, request }) => {
  const study = await makeStudy(request, 'Two pages');
  await page.goto(`/studies/${study.id}/bench`);
  const other = await context.newPage();
  await other.goto(`/studies/${study.id}/bench`);
  await expect(other.getByLabel('Entry line')).toBeVisible();
  await changesHeldBack(context);
  await record(page, 'plate 1 kg');
  await expect(rowOf(other, /plate/)).toBeVisible();
  await record(other, 'lever 100 g');
  await expect(rowOf(page, /lever/)).toBeVisible();
  await expect(state(page)).toContainText('2 changes waiting here');
  await context.unroute('**/changes');
  for (const at of [page, other]) {
    await allKept(at);
    await expect(rowOf(at, /plate/)).toHaveCount(1);
    await expect(rowOf(at, /lever/)).toHaveCount(1);
  }
  const { revision } = (await (await request.get(`/api/studies/${study.id}`)).json()) as { readonly revision: number };
  expect(revision).toBe(3);
});

test.describe('a device that several share', () => {
  test.use({ storageState: { cookies: [], origins: [] } });
  test('keeps what one left unsent sealed from the next, who sees nothing of it, until its owner is back', async ({
    page,
    context,
    browser,
  }) => {
    const lead = await (await browser.newContext({ storageState: { cookies: [], origins: [] } })).newPage();
    await lead.goto('/sign-in');
    await signIn(lead, 'wenna');
    await expect(lead.getByRole('heading', { name: 'Studies' })).toBeVisible();
    const study = await makeStudy(lead.request, 'Shared device');
    await lead.context().close();
    await page.goto(`/studies/${study.id}/bench`);
    await signIn(page, 'odo');
    await record(page, 'confidential plate 1 kg');
    await allKept(page);
    await changesHeldBack(context);
    await record(page, 'confidential lever 100 g');
    await expect(state(page)).toContainText('1 change waiting here');
    const beside = await context.newPage();
    await beside.goto(`/studies/${study.id}/bench`);
    await expect(rowOf(beside, /lever/)).toBeVisible();
    await page.goto('/');
    await page.getByRole('button', { name: 'Sign out' }).click();
    await expect(
      page.getByText('1 change of Odo Farrow waits on this device, sealed, and is sent when Odo Farrow signs in here'),
    ).toBeVisible();
    // a page beside it shows nothing more of the account either
    await expect(beside.getByRole('heading', { name: 'Sign in' })).toBeVisible();
    expect(await onDevice(page)).not.toContain('confidential');
    await signIn(page, 'pell');
    await expect(page.getByRole('heading', { name: 'Studies' })).toBeVisible();
    expect(await onDevice(page)).not.toContain('confidential');
    await page.getByRole('button', { name: 'Sign out' }).click();
    await context.unroute('**/changes');
    await signIn(page, 'odo');
    await page.getByRole('link', { name: /Shared device/ }).click();
    await expect(rowOf(page, /lever/)).toBeVisible();
    await allKept(page);
  });
});
