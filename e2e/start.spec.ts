import { rmSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { expect } from '@playwright/test';
import { test } from './test';
import { startDatabase } from '../scripts/database.mjs';
import { startServer } from '../scripts/server.mjs';

const ROOT = join(dirname(fileURLToPath(import.meta.url)), '..');
const fresh = (name: string): string => {
  const dir = join(ROOT, '.test-data', name);
  rmSync(dir, { recursive: true, force: true });
  return dir;
};

test('a server does not open itself to a network while a demo password is unchanged', async () => {
  const database = await startDatabase(fresh('start'));
  const settings = { DATABASE_URL: database.url, PORT: '0', LOG_LEVEL: 'silent' };
  const local = await startServer(settings);
  await local.stop();
  await expect(startServer({ ...settings, HOST: '0.0.0.0' })).rejects.toThrow('The server did not start');
  await database.stop();
});

test('on an empty database the page makes the first account, which begins a study', async ({ browser }) => {
  const database = await startDatabase(fresh('first-run'));
  const server = await startServer({
    DATABASE_URL: database.url,
    PORT: '0',
    LOG_LEVEL: 'silent',
    DEMO: 'no',
    WEB_DIR: join(ROOT, 'web/dist/browser'),
  });
  const context = await browser.newContext({ storageState: { cookies: [], origins: [] } });
  const page = await context.newPage();
  await page.goto(`http://127.0.0.1:${server.port}/`);
  await expect(page.getByRole('heading', { name: 'The first account' })).toBeVisible();
  await page.getByLabel('Your name, as the record shows it').fill('Isolde Marn');
  await page.getByLabel('Sign-in name').fill('isolde');
  await page.getByLabel('Password').fill('short');
  await page.getByRole('button', { name: 'Make it and sign in' }).click();
  await expect(page.getByText('A password needs at least 10 characters')).toBeVisible();
  await page.getByLabel('Password').fill('a door with no hinges');
  await page.getByLabel('Password').press('Enter');
  await expect(page.getByText('You are of no study yet.')).toBeVisible();

  await test.step('the studies page by keyboard alone', async () => {
    await page.keyboard.press('b');
    await page.getByLabel('Title').focus();
    await page.keyboard.type('Cab heaters');
    for (let i = 0; i < 3; i++) {
      await page.keyboard.press('Enter');
      await expect(page.getByRole('listitem').nth(i + 1)).toHaveAttribute('aria-current', 'step');
      if (i === 0) await page.getByLabel('Currency').focus();
      if (i === 1) await page.getByRole('button', { name: 'Next: People' }).focus();
    }
    await page.getByRole('button', { name: 'Begin the study' }).focus();
    await page.keyboard.press('Enter');
    await expect(page.getByText('The study has no vehicle yet.')).toBeVisible();
    await page.goto(`http://127.0.0.1:${server.port}/`);
    const link = page.getByRole('link', { name: /Cab heaters/ });
    await expect(link).toBeVisible();
    for (let i = 0; i < 12 && !(await link.evaluate((a) => a === document.activeElement)); i++) await page.keyboard.press('Tab');
    await expect(link).toBeFocused();
    await page.keyboard.press('Enter');
    await expect(page.getByText('The study has no vehicle yet.')).toBeVisible();
  });
  await context.close();
  await server.stop();
  await database.stop();
});
