import { fork, type ChildProcess } from 'node:child_process';
import { join } from 'node:path';
import { testDatabase } from '../../testing/test-database';
import { many, one } from '../db/rows';
import type { Pool } from '../db/pool';

const started: { readonly stop: () => Promise<void> }[] = [];

/** The server as it is built, on a database; it says when it listens. */
const start = (url: string): { readonly child: ChildProcess; readonly listens: Promise<boolean> } => {
  const child = fork(join(__dirname, '..', '..', 'dist', 'main.js'), [], {
    env: { ...process.env, DATABASE_URL: url, PORT: '0', LOG_LEVEL: 'silent', STAND_INS: 'no' },
    stdio: ['ignore', 'ignore', 'inherit', 'ipc'],
  });
  const ended = new Promise<boolean>((done) => child.once('exit', () => done(false)));
  const said = new Promise<boolean>((done) => child.once('message', () => done(true)));
  const stop = async (): Promise<void> => {
    child.kill('SIGTERM');
    await ended;
  };
  started.push({ stop });
  return { child, listens: Promise.race([said, ended]) };
};

const loaded = async (pool: Pool): Promise<object> => {
  const count = (table: string): Promise<{ readonly n: number }> => one(pool, `select count(*) as n from ${table}`);
  return {
    people: (await count('person')).n,
    studies: (await many<{ title: string }>(pool, 'select title from study order by title')).map(({ title }) => title),
    scans: (await count('scan')).n,
    files: (await count('file')).n,
  };
};
const WHOLE = { people: 4, studies: ['City vans', 'Last-mile vans', 'Second bench, half recorded'], scans: 8, files: 17 };

describe('the demo study', () => {
  let url: string;
  let pool: Pool;
  let drop: () => Promise<void>;
  beforeEach(async () => {
    ({ url, pool, drop } = await testDatabase({ migrated: false }));
  });
  afterEach(async () => {
    await Promise.all(started.splice(0).map(({ stop }) => stop()));
    await drop();
  });

  it('is loaded once by three servers that are started together on an empty database', async () => {
    const servers = [start(url), start(url), start(url)];
    expect(await Promise.all(servers.map(({ listens }) => listens))).toEqual([true, true, true]);
    expect(await loaded(pool)).toEqual(WHOLE);
  });
  it('is loaded whole by the next start when the first was killed in the middle of it', async () => {
    const first = start(url);
    const isWriting = async (): Promise<boolean> =>
      (
        await one<{ writes: boolean }>(
          pool,
          `select exists (select from pg_locks l join pg_class c on c.oid = l.relation where c.relname = 'part' and l.mode = 'RowExclusiveLock' and l.pid <> pg_backend_pid()) as writes`,
        )
      ).writes;
    while (!(await isWriting())) await new Promise((done) => setTimeout(done, 1));
    first.child.kill('SIGKILL');
    expect(await first.listens).toBe(false);
    expect(await loaded(pool)).toEqual({ people: 0, studies: [], scans: 0, files: 0 });
    const second = start(url);
    expect(await second.listens).toBe(true);
    expect(await loaded(pool)).toEqual(WHOLE);
  });
});
