import { spawn, spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { randomUUID } from 'node:crypto';
import { Api, beginStudy } from '../../testing/api';
import { pngOf, sha256 } from '../../testing/pictures';
import { testDatabase } from '../../testing/test-database';
import { openPool } from '../db/pool';
import { many } from '../db/rows';

const ROOT = join(__dirname, '..', '..', '..');
const run = (script: string, url: string, ...args: readonly string[]) => {
  const { status, stdout, stderr } = spawnSync('node', [join(ROOT, 'scripts', script), ...args], {
    encoding: 'utf8',
    env: { ...process.env, DATABASE_URL: url },
  });
  return { status, said: stdout + stderr };
};

const TABLES = [
  'person',
  'study',
  'member',
  'vehicle',
  'subsystem',
  'part',
  'picture',
  'file',
  'study_file',
  'change',
  'change_row',
  'setting',
];

/** Every row of every table as text, with pictures as their sums. */
const contents = async (url: string): Promise<unknown> => {
  const pool = openPool(url);
  const all: unknown[] = [];
  for (const table of TABLES) all.push(await many(pool, `select md5(t::text) as sum from ${table} t order by 1`));
  await pool.end();
  return all;
};

describe('backup and restore', () => {
  let dir: string;
  let url: string;
  let drop: () => Promise<void>;
  let file: string;
  beforeAll(async () => {
    dir = mkdtempSync(join(tmpdir(), 'backup-'));
    file = join(dir, 'a.backup');
    const database = await testDatabase();
    ({ url, drop } = database);
    const api = await Api.over(database.pool);
    const study = await beginStudy(api);
    const [partId, png] = [randomUUID(), await pngOf()];
    await api.put(`/api/studies/${study.studyId}/files/${sha256(png)}`, png);
    const picture = { partId, sequence: 0, sha256: sha256(png), widthPx: 60, heightPx: 40, shows: '', marks: [] };
    await api.change(study.studyId, [
      { kind: 'part.add', id: partId, fields: study.part() },
      { kind: 'picture.add', id: randomUUID(), fields: picture },
    ]);
    await api.stop();
    await database.pool.end();
  });
  afterAll(async () => {
    rmSync(dir, { recursive: true });
    await drop().catch(() => undefined);
  });

  it('bring back every row and every picture, and keep what was there in between', async () => {
    const before = await contents(url);
    const backed = run('backup.mjs', url, file);
    expect(backed).toEqual({ status: 0, said: expect.stringContaining('Backed up 1 studies, 1 parts and 1 pictures') as string });
    const pool = openPool(url);
    await pool.query('delete from change_row');
    await pool.query('update part set name = $1', ['spoilt']);
    await pool.end();
    const restored = run('restore.mjs', url, file);
    expect(restored.said).toContain('Restored 1 studies');
    expect(restored.said).toMatch(/kept in the database test_\w+_before_\d+/);
    expect(await contents(url)).toEqual(before);
  });
  it('bring back one state, whoever writes meanwhile: twenty people add parts while the backup is made', async () => {
    const { url: busy, pool, drop: dropBusy } = await testDatabase();
    const api = await Api.over(pool);
    const study = await beginStudy(api);
    let [kept, stop] = [0, false];
    const writers = Array.from({ length: 20 }, async () => {
      while (!stop) {
        const { status } = await api.change(study.studyId, [{ kind: 'part.add', id: randomUUID(), fields: study.part() }]);
        if (status === 201) kept += 1;
      }
    });
    while (kept === 0) await new Promise((done) => setTimeout(done, 10));
    const path = join(dir, 'busy.backup');
    const child = spawn('node', [join(ROOT, 'scripts', 'backup.mjs'), path], { env: { ...process.env, DATABASE_URL: busy } });
    const status = await new Promise<number | null>((done) => child.once('close', done));
    stop = true;
    await Promise.all(writers);
    await api.stop();
    const after = Number((await many<{ n: string }>(pool, 'select count(*) as n from part'))[0]!.n);
    await pool.end();
    expect([status, after]).toEqual([0, kept]);
    const restored = run('restore.mjs', busy, path);
    expect(restored).toEqual({ status: 0, said: expect.stringContaining('Restored 1 studies') as string });
    // every part has its change and every change its part: of one moment, in the middle of the writing
    const back = openPool(busy);
    const [{ parts, changes } = { parts: '', changes: '' }] = await many<{ parts: string; changes: string }>(
      back,
      "select (select count(*) from part) as parts, (select count(*) from change_row where entity = 'part') as changes",
    );
    await back.end();
    expect(parts).toBe(changes);
    expect(Number(parts)).toBeGreaterThan(0);
    expect(Number(parts)).toBeLessThan(after);
    await dropBusy();
  });
  it('refuse a damaged file, a file of something else, and no file, and change nothing', async () => {
    const before = await contents(url);
    const bytes = readFileSync(file);
    bytes[bytes.length - 100] = (bytes[bytes.length - 100]! + 1) % 256;
    const [damaged, cut, other] = [join(dir, 'damaged'), join(dir, 'cut'), join(dir, 'other')];
    writeFileSync(damaged, bytes);
    writeFileSync(cut, readFileSync(file).subarray(0, 3000));
    writeFileSync(other, 'a holiday picture');
    for (const [path, why] of [
      [damaged, 'its sum does not agree'],
      [cut, 'its sum does not agree'],
      [other, 'is no backup of this program'],
      [join(dir, 'nowhere'), 'there is no file'],
    ] as const) {
      const answer = run('restore.mjs', url, path);
      expect([answer.status, answer.said]).toEqual([1, expect.stringContaining(why) as string]);
      expect(answer.said).toContain('Nothing was changed');
    }
    expect(await contents(url)).toEqual(before);
  });
  it('does not pull the database from under a running program', async () => {
    const pool = openPool(url);
    await pool.query('select 1');
    const answer = run('restore.mjs', url, file);
    expect([answer.status, answer.said]).toEqual([1, expect.stringContaining('stop it first') as string]);
    await pool.end();
  });
});
