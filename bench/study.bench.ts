import { randomUUID } from 'node:crypto';
import { join } from 'node:path';
import { chromium, type Page } from '@playwright/test';
import type { Op } from '@each-bolt/core/record';
import { keepChange } from '../server/src/ledger/keep-change';
import { passwordHash } from '../server/src/people/password';
import { insertPerson, type Person } from '../server/src/people/queries';
import { startServer } from '../scripts/server.mjs';
import { benchDatabase } from './database';
import { atMost, type Result } from './harness';
import { referenceStudy } from './reference-study';

const PARTS = 30_000;
const RUNS = 7;
const FLAGS = ['--no-sandbox', '--disable-gpu', '--disable-quic', '--no-first-run', '--disable-background-networking', '--disable-sync'];

/** How long after a key the line is shown as understood, drawn: the median and the slowest key of a line typed letter by letter. */
const keysToPreview = async (page: Page, address: string): Promise<{ readonly medianMs: number; readonly worstMs: number }> => {
  await page.goto(address);
  await page.getByLabel('Entry line').waitFor({ timeout: 60_000 });
  // the words of the study are gathered once, with the first key
  await page.getByLabel('Entry line').fill('warm up');
  const times = await page.getByLabel('Entry line').evaluate(async (input: HTMLInputElement) => {
    const line = '2x bracket, hose guide pa66-gf30 inj t2.2 41 g';
    const all: number[] = [];
    for (let end = 1; end <= line.length; end++) {
      const since = performance.now();
      input.value = line.slice(0, end);
      input.setSelectionRange(end, end);
      input.dispatchEvent(new Event('input', { bubbles: true }));
      // the task after the next frame’s begins when what changed is drawn
      await new Promise<void>((drawn) => {
        requestAnimationFrame(() => {
          const { port1, port2 } = new MessageChannel();
          port1.onmessage = () => drawn();
          port2.postMessage(null);
        });
      });
      all.push(performance.now() - since);
    }
    return all.sort((a, b) => a - b);
  });
  return { medianMs: times[Math.floor(times.length / 2)] ?? Number.NaN, worstMs: times.at(-1) ?? Number.NaN };
};

/** The whole record of a large study, from the server to parsed in the browser; and the memory of server and page. */
export const studyBench = async (): Promise<readonly Result[]> => {
  const database = await benchDatabase();
  const { pool } = database;
  const record = referenceStudy(PARTS);
  const person: Person = { id: randomUUID(), login: 'bench', name: 'Bench', standing: 'lead', demoPassword: false };
  const password = 'four plain words here';
  await insertPerson(pool, { ...person, passwordHash: await passwordHash(password) });
  const added = (entity: string, rows: readonly { readonly id: string; readonly version: number }[]): readonly Op[] =>
    rows.map(({ id, version: _version, ...fields }) => ({ kind: `${entity}.add`, id, fields }) as unknown as Op);
  const ops: readonly Op[] = [
    ...added('study', [record.study]),
    { kind: 'member.add', id: randomUUID(), fields: { personId: person.id, role: 'lead' } },
    ...added('vehicle', record.vehicles),
    ...added('subsystem', record.subsystems),
    ...added('part', record.parts),
    ...added('fasteners', record.fastenerSets),
    ...added('joints', record.jointSets),
  ];
  await keepChange(pool, record.study.id, { id: randomUUID(), ops, undoes: null }, { person, name: person.name, device: 'bench' });
  await pool.end();
  const server = await startServer({
    DATABASE_URL: database.url,
    PORT: '0',
    LOG_LEVEL: 'silent',
    WEB_DIR: join(process.cwd(), 'web', 'dist', 'browser'),
    DEMO: 'no',
  });
  const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: FLAGS });
  const page = await browser.newPage();
  await page.goto(`http://127.0.0.1:${server.port}/sign-in`);
  await page.getByLabel('Sign-in name').fill(person.login);
  await page.getByLabel('Password').fill(password);
  await page.getByRole('button', { name: 'Sign in', exact: true }).click();
  await page.getByRole('heading', { name: 'Studies' }).waitFor();
  const times = await page.evaluate(
    async ({ id, runs }) => {
      const all: number[] = [];
      for (let run = 0; run < runs; run++) {
        const since = performance.now();
        const read = (await (await fetch(`/api/studies/${id}?run=${run}`)).json()) as { parts: readonly unknown[] };
        all.push(performance.now() - since);
        if (read.parts.length !== 30_000) throw new RangeError('not every part arrived');
      }
      return all.sort((a, b) => a - b);
    },
    { id: record.study.id, runs: RUNS },
  );
  const keys = await keysToPreview(page, `http://127.0.0.1:${server.port}/studies/${record.study.id}/bench/record`);
  await browser.close();
  await server.stop();
  await database.stop();
  return [
    atMost(`record of ${PARTS} parts, server to parsed in the browser`, times[Math.floor(RUNS / 2)] ?? Number.NaN, 'ms', 1500),
    atMost(`shorthand at ${PARTS} parts, key press to preview, median`, keys.medianMs, 'ms', 50),
    atMost('  the slowest key of a line', keys.worstMs, 'ms', 50),
  ];
};
