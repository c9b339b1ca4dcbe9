// The built server, and one PostgreSQL for all server tests, made anew; each test file gets a database of its own from a migrated template.
import { rmSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { build } from '../../scripts/build.mjs';
import { startDatabase } from '../../scripts/database.mjs';

export default async () => {
  const dir = join(fileURLToPath(new URL('../..', import.meta.url)), '.test-data', 'jest');
  // the threads beside the server run what is built
  build(['server']);
  rmSync(dir, { recursive: true, force: true });
  const database = await startDatabase(dir, { fsync: 'off' });
  process.env.TEST_DATABASE_URL = database.url;
  globalThis.eachBoltTestDatabase = database;
};
