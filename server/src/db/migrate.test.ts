import { cp, mkdtemp, readdir, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { MIGRATIONS, testDatabase } from '../../testing/test-database';
import { migrate } from './migrate';
import { one } from './rows';

describe('bringing a database up to date', () => {
  let dir: string;
  let database: Awaited<ReturnType<typeof testDatabase>>;
  beforeEach(async () => {
    dir = await mkdtemp(join(tmpdir(), 'migrations-'));
    await cp(MIGRATIONS, dir, { recursive: true });
    database = await testDatabase({ migrated: false });
  });
  afterEach(async () => {
    await database.drop();
    await rm(dir, { recursive: true });
  });

  it('applies each file once, also when two servers start together', async () => {
    const both = await Promise.all([migrate(database.pool, dir), migrate(database.pool, dir)]);
    const files = (await readdir(MIGRATIONS)).sort();
    expect(files.map((name) => Number(name.slice(0, 4)))).toEqual(files.map((_, at) => at + 1));
    expect(both.flat()).toEqual(files);
    expect(await migrate(database.pool, dir)).toEqual([]);
  });
  it('leaves nothing behind when a file fails', async () => {
    await writeFile(join(dir, '0002-broken.sql'), 'create table fine (id int); create table broken (');
    await expect(migrate(database.pool, dir)).rejects.toThrow(/syntax error/);
    expect(await one(database.pool, "select to_regclass('study') as study, to_regclass('fine') as fine")).toEqual({
      study: null,
      fine: null,
    });
  });
  it('refuses an old file that was edited', async () => {
    await migrate(database.pool, dir);
    await writeFile(join(dir, '0001-record.sql'), 'select 1');
    await expect(migrate(database.pool, dir)).rejects.toThrow(/0001-record.sql was edited after it was applied/);
  });
  it('refuses a database that is newer than the program', async () => {
    await migrate(database.pool, dir);
    await rm(join(dir, '0001-record.sql'));
    await expect(migrate(database.pool, dir)).rejects.toThrow(/newer than this program/);
  });
});
