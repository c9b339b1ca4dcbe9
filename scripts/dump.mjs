// What backup and restore share: where the database is, PostgreSQL's own programs, and the head of a backup file.
import { spawnSync } from 'node:child_process';
import { existsSync, readFileSync } from 'node:fs';
import { join, resolve } from 'node:path';
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
  'piece',
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
export const openDatabase = async () => {
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

/** Rows of each counted table. */
export const counts = (url, database) => {
  if (sql(url, database, "select to_regclass('person')") === '')
    throw new Error('the database holds nothing of this program yet; start the program once first');
  const parts = COUNTED.map((table) => `'${table}', (select count(*) from ${table})`);
  return JSON.parse(sql(url, database, `select json_build_object(${parts.join(', ')})`));
};
