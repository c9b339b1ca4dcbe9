// A private PostgreSQL on loopback: made, started and stopped by this process. Works as root and as an ordinary user.
import { spawn, spawnSync } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import { chmodSync, chownSync, existsSync, mkdirSync, readFileSync, renameSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { connect, createServer } from 'node:net';
import { dirname, join, resolve } from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { own } from './owner.mjs';
import { needPostgres } from './packages.mjs';

const START_LIMIT_MS = 30_000;
const USER = 'eachbolt';

/** The account PostgreSQL runs under: it refuses to run as root. */
const account = () => {
  if (process.getuid?.() !== 0) return null;
  const line = readFileSync('/etc/passwd', 'utf8')
    .split('\n')
    .find((l) => l.startsWith('postgres:'));
  if (!line) throw new Error('There is no account “postgres”; install PostgreSQL from Debian’s packages');
  const [, , uid, gid] = line.split(':');
  return { uid: Number(uid), gid: Number(gid) };
};

const isOpenToOthers = (dir) => {
  for (let at = resolve(dir); ; at = dirname(at)) {
    if ((statSync(at).mode & 0o001) === 0) return false;
    if (at === dirname(at)) return true;
  }
};

/** Command, arguments and options that run a PostgreSQL program under the right account. */
const under = (who, dataRoot, program, args) => {
  const options = { cwd: '/', env: { PATH: process.env.PATH, LC_ALL: 'C' } };
  if (!who) return [program, args, options];
  if (isOpenToOthers(dirname(dataRoot))) return [program, args, { ...options, ...who }];
  const lead = [
    '--reuid=postgres',
    '--regid=postgres',
    '--init-groups',
    '--inh-caps=+dac_read_search',
    '--ambient-caps=+dac_read_search',
    '--',
  ];
  return ['setpriv', [...lead, program, ...args], options];
};

const freePort = () =>
  new Promise((done, fail) => {
    const server = createServer().once('error', fail);
    server.listen(0, '127.0.0.1', () => {
      const { port } = server.address();
      server.close(() => done(port));
    });
  });

const answers = (port) =>
  new Promise((done) => {
    const socket = connect(port, '127.0.0.1');
    socket.once('connect', () => socket.end(() => done(true))).once('error', () => done(false));
  });

/** Makes the cluster beside its place and puts it there once it is whole: an initdb that was killed leaves none. */
const makeCluster = (who, dataRoot, place, programs) => {
  const cluster = `${place}.making`;
  rmSync(cluster, { recursive: true, force: true });
  const passwordFile = join(dataRoot, 'password');
  writeFileSync(passwordFile, randomBytes(18).toString('hex'), { mode: 0o600 });
  mkdirSync(cluster, { recursive: true, mode: 0o700 });
  if (who) {
    chmodSync(dataRoot, 0o711);
    chownSync(cluster, who.uid, who.gid);
    chownSync(passwordFile, who.uid, who.gid);
  }
  const args = ['-D', cluster, '-U', USER, '-A', 'scram-sha-256', `--pwfile=${passwordFile}`, '-E', 'UTF8', '--locale=C.UTF-8'];
  const [command, all, options] = under(who, dataRoot, join(programs, 'initdb'), args);
  const made = spawnSync(command, all, { ...options, encoding: 'utf8' });
  if (made.status !== 0) {
    rmSync(cluster, { recursive: true, force: true });
    throw new Error(`initdb failed:\n${made.stderr || made.error?.message}`);
  }
  renameSync(cluster, place);
};

const stopOrphan = (who, dataRoot, cluster, programs) => {
  if (!existsSync(join(cluster, 'postmaster.pid'))) return;
  const control = (...args) => {
    const [command, all, options] = under(who, dataRoot, join(programs, 'pg_ctl'), ['-D', cluster, ...args]);
    return spawnSync(command, all, { ...options, stdio: 'ignore' }).status;
  };
  if (control('status') === 0) control('stop', '-m', 'fast', '-w');
};

const createDatabase = (programs, url, name) => {
  const env = { PATH: process.env.PATH, LC_ALL: 'C', PGPASSWORD: url.password };
  const args = ['-h', url.hostname, '-p', url.port, '-U', url.username, '-d', 'postgres', '-v', 'ON_ERROR_STOP=1', '-tAc'];
  const sql = (text) => spawnSync(join(programs, 'psql'), [...args, text], { env, encoding: 'utf8' });
  const found = sql(`select 1 from pg_database where datname = '${name}'`);
  if (found.status !== 0) throw new Error(`The database does not answer:\n${found.stderr}`);
  if (found.stdout.trim() === '1') return;
  const made = sql(`create database ${name}`);
  if (made.status !== 0) throw new Error(`The database could not be made:\n${made.stderr}`);
};

const createWhenReady = async (programs, url, since) => {
  for (;;) {
    try {
      createDatabase(programs, url, 'eachbolt');
      return;
    } catch (error) {
      // after a crash it recovers first, and says so in several ways
      if (!/starting up|not yet accepting|recovery/.test(error.message) || Date.now() - since > START_LIMIT_MS) throw error;
      await pause(100);
    }
  }
};

/**
 * Starts PostgreSQL over a folder, making the cluster and the database when there are none. The folder belongs to this
 * process until it stops: a second start is refused with the address of the first.
 * @param dataRoot folder for everything it keeps
 * @param settings settings of PostgreSQL beside its defaults
 * @param wantedPort port to listen on; any free one when not given
 * @param isFresh whether what is there is thrown away first
 * @param say told in words when it ended by itself and is started again; without it, it stays ended
 * @returns {Promise<{ url: string, pid: number, tell: (address: string) => void, stop: () => Promise<void> }>}
 */
export const startDatabase = async (dataRoot, settings = {}, wantedPort = null, isFresh = false, say = null) => {
  const programs = needPostgres();
  const who = account();
  const root = resolve(dataRoot);
  const cluster = join(root, 'postgres');
  mkdirSync(root, { recursive: true });
  const { tell, release } = await own(root);
  try {
    return { ...(await startOwned({ programs, who, root, cluster, settings, wantedPort, isFresh, say, release })), tell };
  } catch (error) {
    release();
    throw error;
  }
};

/** Runs PostgreSQL over a cluster until it ends; leaves nothing running when it does not come to answer. */
const run = async ({ programs, who, root, cluster, settings }, port) => {
  stopOrphan(who, root, cluster, programs);
  const flags = Object.entries({ listen_addresses: '127.0.0.1', unix_socket_directories: '', ...settings }).flatMap(([k, v]) => [
    '-c',
    `${k}=${v}`,
  ]);
  const [command, args, options] = under(who, root, join(programs, 'postgres'), ['-D', cluster, '-p', String(port), ...flags]);
  const log = [];
  // a process group of its own: Ctrl-C reaches the starter alone, which stops the server first and the database last
  const child = spawn(command, args, { ...options, stdio: ['ignore', 'ignore', 'pipe'], detached: true });
  child.stderr.on('data', (chunk) => log.push(chunk) > 200 && log.shift());
  const ended = new Promise((done) => child.once('exit', done));
  const stop = async () => {
    child.kill('SIGINT');
    await ended;
  };
  const since = Date.now();
  const url = new URL(`postgresql://127.0.0.1:${port}/eachbolt`);
  try {
    while (!(await answers(port))) {
      if (child.exitCode !== null || child.signalCode !== null || Date.now() - since > START_LIMIT_MS)
        throw new Error(`PostgreSQL did not start:\n${Buffer.concat(log)}`);
      await pause(50);
    }
    url.username = USER;
    url.password = readFileSync(join(root, 'password'), 'utf8').trim();
    await createWhenReady(programs, url, since);
  } catch (error) {
    if (child.exitCode === null && child.signalCode === null) await stop();
    throw error;
  }
  return { url: url.href, pid: child.pid, ended, stop };
};

const FIRST_WAIT_MS = 500;
const MOST_WAIT_MS = 30_000;

/** Starts what ended by itself again, waiting longer from try to try, until it runs or nobody wants it any more. */
const startAgain = async (start, say, unwanted) => {
  for (let wait = FIRST_WAIT_MS; ; wait = Math.min(2 * wait, MOST_WAIT_MS)) {
    await pause(wait, undefined, { signal: unwanted }).catch(() => undefined);
    if (unwanted.aborted) return null;
    try {
      return await start();
    } catch (error) {
      say(`The database did not start again; the next try is in ${Math.min(2 * wait, MOST_WAIT_MS) / 1000} s. ${error.message}`);
    }
  }
};

const startOwned = async ({ wantedPort, isFresh, say, release, ...place }) => {
  const { programs, who, root, cluster } = place;
  if (isFresh) {
    stopOrphan(who, root, cluster, programs);
    rmSync(cluster, { recursive: true, force: true });
  }
  if (!existsSync(join(cluster, 'PG_VERSION'))) {
    rmSync(cluster, { recursive: true, force: true });
    makeCluster(who, root, cluster, programs);
  }
  const port = wantedPort ?? (await freePort());
  let running = await run(place, port);
  const unwanted = new AbortController();
  const watch = async () => {
    for (;;) {
      await running.ended;
      if (unwanted.signal.aborted) return;
      say('The database ended by itself; it is started again. What was kept is kept.');
      const again = await startAgain(() => run(place, port), say, unwanted.signal);
      if (!again) return;
      running = again;
      if (!unwanted.signal.aborted) say('The database is there again.');
    }
  };
  const watched = say ? watch() : null;
  return {
    url: running.url,
    pid: running.pid,
    stop: async () => {
      unwanted.abort();
      await running.stop();
      if (watched) {
        // one that is just being started again is not left behind
        while (await Promise.race([watched.then(() => false), pause(50).then(() => true)])) await running.stop();
      }
      release();
    },
  };
};
