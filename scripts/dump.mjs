// What backup and restore share: where the database is, PostgreSQL's own programs, and the head of a backup file.
import { spawnSync } from 'node:child_process';
import { existsSync, readFileSync } from 'node:fs';
import { join, resolve } from 'node:path';
import pg from 'pg';
import { ROOT } from './build.mjs';
import { startDatabase } from './database.mjs';
import { needPostgres } from './packages.mjs';

/** First words of every backup file; what follows on the line is JSON, and after the line the dump. */
export const MAGIC = 'EACH-BOLT-BACKUP 1 ';

/** Tables whose rows are counted before and after, so that a restore can show that nothing is missing. */
const COUNTED = [
  'person',
  'study',
  'member',
  'vehicle',
  'subsystem',
  'part',
  'fastener_set',
  'joint_set',
  'question',
  'picture',
  'file',
  'change',
];

/** The private database when it runs already, for instance under `npm start`. */
const running = (dataDir) => {
  const pidFile = join(dataDir, 'postgres', 'postmaster.pid');
  if (!existsSync(pidFile)) return null;
  const [pid, , , port] = readFileSync(pidFile, 'utf8').split('\n');
  try {
    process.kill(Number(pid), 0);
  } catch (error) {
    if (error.code === 'ESRCH') return null;
  }
  const url = new URL(`postgresql://eachbolt@127.0.0.1:${port}/eachbolt`);
  url.password = readFileSync(join(dataDir, 'password'), 'utf8').trim();
  return { url: url.href, stop: async () => undefined };
};

/** The database to work on: DATABASE_URL, or the private one, started for the time being when it does not run. */
const openDatabase = async () => {
  if (process.env.DATABASE_URL) return { url: process.env.DATABASE_URL, stop: async () => undefined };
  const dataDir = resolve(ROOT, process.env.DATA_DIR ?? '.data');
  return running(dataDir) ?? startDatabase(dataDir);
};

/** Runs one of PostgreSQL's programs on a database and returns what it says; throws with its words when it fails. */
export const program = (name, url, args, stdio = {}) => {
  const { hostname, port, username, password } = new URL(url);
  const done = spawnSync(join(needPostgres(), name), ['-h', hostname, '-p', port || '5432', '-U', decodeURIComponent(username), ...args], {
    env: { PATH: process.env.PATH, LC_ALL: 'C', PGPASSWORD: decodeURIComponent(password) },
    encoding: 'utf8',
    maxBuffer: 64 * 1024 * 1024,
    ...stdio,
  });
  if (done.status !== 0) throw new Error(`${name}: ${(done.stderr || done.error?.message || '').trim()}`);
  return done.stdout;
};

export const sql = (url, database, text) => program('psql', url, ['-d', database, '-v', 'ON_ERROR_STOP=1', '-tAc', text]).trim();

export const nameOf = (url) => decodeURIComponent(new URL(url).pathname.slice(1));

/** A statement that answers with the rows of each counted table. */
const COUNT = `select json_build_object(${COUNTED.map((table) => `'${table}', (select count(*) from ${table})`).join(', ')}) as counts`;

/** Rows of each counted table. */
export const counts = (url, database) => JSON.parse(sql(url, database, COUNT));

/**
 * One state of the database, held while people write on: its name for pg_dump, and the rows of each counted table in it.
 * @returns {Promise<{ snapshot: string, counts: Record<string, number>, release: () => Promise<void> }>}
 */
export const holdState = async (url) => {
  const client = new pg.Client({ connectionString: url });
  // a connection that breaks is told by the statement that needs it
  client.on('error', () => undefined);
  await client.connect();
  const release = () => client.end();
  try {
    await client.query('begin isolation level repeatable read read only');
    const { rows: evidence } = await client.query("select to_regclass('person') is not null as is_there");
    if (!evidence[0].is_there) throw new Error('the database holds nothing of this program yet; start the program once first');
    const { rows: exported } = await client.query('select pg_export_snapshot() as snapshot');
    const { rows: counted } = await client.query(COUNT);
    return { snapshot: exported[0].snapshot, counts: counted[0].counts, release };
  } catch (error) {
    await release();
    throw error;
  }
};

/** Does something with the database, which is stopped again if it was started for this, also after Ctrl-C. */
export const withDatabase = async (work) => {
  const database = await openDatabase();
  const stopAndGo = () => void database.stop().finally(() => process.exit(130));
  const signals = ['SIGINT', 'SIGTERM', 'SIGHUP'];
  for (const signal of signals) process.once(signal, stopAndGo);
  try {
    return await work(database);
  } finally {
    for (const signal of signals) process.removeListener(signal, stopAndGo);
    await database.stop();
  }
};
