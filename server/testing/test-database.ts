import { randomBytes } from 'node:crypto';
import { join } from 'node:path';
import pg from 'pg';
import { migrate } from '../src/db/migrate';
import { openPool, type Pool } from '../src/db/pool';

export const MIGRATIONS = join(__dirname, '..', 'migrations');
const TEMPLATE = 'each_bolt_template';

const admin = async <T>(act: (client: pg.Client) => Promise<T>): Promise<T> => {
  const client = new pg.Client({ connectionString: serverUrl() });
  await client.connect();
  try {
    return await act(client);
  } finally {
    await client.end();
  }
};

const serverUrl = (): string => {
  const url = process.env.TEST_DATABASE_URL;
  if (url === undefined) throw new Error('TEST_DATABASE_URL is not set; run the tests through Jest’s server project');
  return url;
};

const urlOf = (name: string): string => {
  const url = new URL(serverUrl());
  url.pathname = `/${name}`;
  return url.href;
};

/** The migrated template is made once, by whichever test file comes first. */
const ensureTemplate = (): Promise<void> =>
  admin(async (client) => {
    await client.query('select pg_advisory_lock(4600)');
    const found = await client.query('select 1 from pg_database where datname = $1', [TEMPLATE]);
    if (found.rowCount === 0) {
      await client.query(`create database ${TEMPLATE}`);
      const pool = openPool(urlOf(TEMPLATE));
      await migrate(pool, MIGRATIONS);
      await pool.end();
    }
    await client.query('select pg_advisory_unlock(4600)');
  });

/** A database of this test file's own, empty but migrated. Call `drop` when done. */
export const testDatabase = async ({ migrated = true } = {}): Promise<{
  readonly pool: Pool;
  readonly url: string;
  readonly drop: () => Promise<void>;
}> => {
  if (migrated) await ensureTemplate();
  const name = `test_${randomBytes(6).toString('hex')}`;
  await admin((client) => client.query(`create database ${name} template ${migrated ? TEMPLATE : 'template0'}`));
  const pool = openPool(urlOf(name));
  const drop = async (): Promise<void> => {
    // a connection that has not quite gone is ended with the database, and says so
    pool.on('error', () => undefined);
    if (!pool.ended) await pool.end();
    await admin((client) => client.query(`drop database ${name} with (force)`));
  };
  return { pool, url: urlOf(name), drop };
};
