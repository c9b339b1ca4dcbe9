import { spawn } from 'node:child_process';
import { existsSync, readFileSync, rmSync } from 'node:fs';
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
  await expect(page.getByText('You are not a member of any study yet.')).toBeVisible();

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

/** `npm start` as somebody types it, over a folder of its own. */
const startProgram = (dir: string) => {
  const child = spawn('node', ['scripts/start.mjs', '--no-demo'], {
    cwd: ROOT,
    env: { ...process.env, DATA_DIR: dir, PORT: '0', LOG_LEVEL: 'silent', STAND_INS: 'no' },
    stdio: ['ignore', 'pipe', 'pipe'],
  });
  let said = '';
  for (const stream of [child.stdout, child.stderr]) stream.on('data', (part: Buffer) => (said += part.toString()));
  const ended = new Promise<number | null>((done) => child.once('exit', done));
  return { child, ended, said: () => said };
};
const pidOfDatabase = (dir: string): number => Number(readFileSync(join(dir, 'postgres', 'postmaster.pid'), 'utf8').split('\n')[0]);
const isAlive = (pid: number): boolean => {
  try {
    process.kill(pid, 0);
    return true;
  } catch {
    return false;
  }
};

test('a database that dies under the program is started again, with a word; Ctrl-C then leaves nothing running', async () => {
  const dir = fresh('start-again');
  const program = startProgram(dir);
  await expect.poll(program.said, { timeout: 60_000 }).toContain('Each Bolt is ready at');
  const [, address = ''] = /ready at {2}(\S+)/.exec(program.said()) ?? [];
  const first = pidOfDatabase(dir);
  process.kill(first, 'SIGKILL');
  await expect.poll(program.said, { timeout: 60_000 }).toContain('The database is there again.');
  expect(program.said()).toContain('The database ended by itself; it is started again.');
  await expect.poll(async () => (await fetch(`${address}/api/health`)).status, { timeout: 20_000 }).toBe(200);
  const second = pidOfDatabase(dir);
  program.child.kill('SIGINT');
  expect(await program.ended).toBe(0);
  expect([first, second].map(isAlive)).toEqual([false, false]);
});

test('Ctrl-C while the program is still starting leaves nothing running', async () => {
  // at the first moment, while the cluster is made, once the database runs, and while the server starts
  for (const waitMs of [0, 300, 1500, 2500, 3500]) {
    const dir = fresh('start-stopped');
    const program = startProgram(dir);
    await new Promise((done) => setTimeout(done, waitMs));
    const running = existsSync(join(dir, 'postgres', 'postmaster.pid')) ? pidOfDatabase(dir) : null;
    program.child.kill('SIGINT');
    expect(await program.ended, `stopped after ${waitMs} ms: ${program.said()}`).not.toBe(1);
    expect(existsSync(join(dir, 'postgres', 'postmaster.pid'))).toBe(false);
    if (running !== null) expect(isAlive(running)).toBe(false);
  }
});
