import { rmSync } from 'node:fs';
import { join } from 'node:path';
import { migrate } from '../server/src/db/migrate';
import { openPool, type Pool } from '../server/src/db/pool';
import { startDatabase, type Database } from '../scripts/database.mjs';

const DIR = join(process.cwd(), '.test-data', 'bench');

export interface BenchDatabase extends Database {
  readonly pool: Pool;
}

/** An empty, migrated database with PostgreSQL’s own durability, for one benchmark. */
export const benchDatabase = async (): Promise<BenchDatabase> => {
  rmSync(DIR, { recursive: true, force: true });
  const database = await startDatabase(DIR);
  const pool = openPool(database.url);
  pool.on('error', () => undefined);
  await migrate(pool, join(process.cwd(), 'server', 'migrations'));
  return { ...database, pool };
};

export const urlOf = (url: string, name: string): string => {
  const other = new URL(url);
  other.pathname = `/${name}`;
  return other.href;
};
