import { createHash } from 'node:crypto';
import { readFile, readdir } from 'node:fs/promises';
import { join } from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { ledgerOfToday } from './ledger-of-today';
import type { Db, Pool } from './pool';
import { many, one } from './rows';
import { transaction } from './transaction';

export class MigrationError extends Error {}

interface Migration {
  readonly name: string;
  readonly sql: string;
  readonly sha256: string;
}

const readMigrations = async (dir: string): Promise<readonly Migration[]> => {
  const names = (await readdir(dir)).filter((name) => /^\d{4}-[a-z0-9-]+\.sql$/.test(name)).sort();
  return Promise.all(
    names.map(async (name) => {
      const sql = await readFile(join(dir, name), 'utf8');
      return { name, sql, sha256: createHash('sha256').update(sql).digest('hex') };
    }),
  );
};

/** Any fixed number: who holds it prepares the database, the others wait. */
const START_LOCK = 4600_0001;
const ASKED_EACH_MS = 100;

/** Waits until no other process prepares the database: until the transaction ends this one does. It may take longer than a statement may. */
export const aloneAtStart = async (db: Db): Promise<void> => {
  while (!(await one<{ alone: boolean }>(db, 'select pg_try_advisory_xact_lock($1) as alone', [START_LOCK])).alone)
    await pause(ASKED_EACH_MS);
};

/** What the program does beside a file, in the same transaction: what SQL alone cannot put into other words. */
const BESIDE: Readonly<Record<string, (db: Db) => Promise<void>>> = { '0013-words-of-the-trade.sql': ledgerOfToday };

const apply = async (db: Db, migrations: readonly Migration[]): Promise<readonly string[]> => {
  await aloneAtStart(db);
  await db.query(
    'create table if not exists migration (name text primary key, sha256 text not null, applied_at timestamptz not null default now())',
  );
  const done = await many<{ name: string; sha256: string }>(db, 'select name, sha256 from migration order by name');
  const known = new Map(migrations.map((m) => [m.name, m]));
  for (const { name, sha256 } of done) {
    const file = known.get(name);
    if (!file) throw new MigrationError(`The database is newer than this program: it has ${name}. Start the newer program.`);
    if (file.sha256 !== sha256)
      throw new MigrationError(`The migration ${name} was edited after it was applied. Put it back and add a new one.`);
  }
  const fresh = migrations.filter((m) => !done.some((d) => d.name === m.name));
  for (const { name, sql, sha256 } of fresh) {
    await db.query(sql);
    await BESIDE[name]?.(db);
    await db.query('insert into migration (name, sha256) values ($1, $2)', [name, sha256]);
  }
  return fresh.map((m) => m.name);
};

/** Brings the database up to this program, forward only, in one transaction. Returns the names of what was applied. */
export const migrate = async (pool: Pool, dir: string): Promise<readonly string[]> => {
  const migrations = await readMigrations(dir);
  return transaction(pool, (db) => apply(db, migrations));
};
