// One PostgreSQL for all server tests; each test file makes a database of its own from a migrated template.
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { startDatabase } from '../../scripts/database.mjs';

export default async () => {
  const root = fileURLToPath(new URL('../..', import.meta.url));
  const database = await startDatabase(join(root, '.test-data', 'jest'), { fsync: 'off' });
  process.env.TEST_DATABASE_URL = database.url;
  globalThis.eachBoltTestDatabase = database;
};
