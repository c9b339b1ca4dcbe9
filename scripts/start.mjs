// npm start [-- --fresh] [-- --no-demo]: packages, database, build, demo study, server. Ctrl-C stops all of it; a second start keeps the data.
import { join, resolve } from 'node:path';
import { ROOT, build } from './build.mjs';
import { startDatabase } from './database.mjs';
import { installPackages } from './install.mjs';
import { startServer } from './server.mjs';

const dataDir = resolve(ROOT, process.env.DATA_DIR ?? '.data');

/** The sign-ins of the demo study, as long as somebody has one of their passwords. */
const sayDemo = async (base) => {
  const answer = await fetch(`${base}/api/me`).catch(() => null);
  // a database that has just ended is no reason to end with it: the page shows the sign-ins as well
  if (!answer?.ok) return;
  const { demo, firstRun } = await answer.json();
  if (firstRun) console.log('  There is no account yet: the page makes the first one.');
  if (demo.length > 0) console.log('  Demo sign-ins:');
  for (const { login, password, name, role } of demo) console.log(`    ${login.padEnd(6)} ${password.padEnd(20)} ${name}, ${role}`);
};

/** Set by Ctrl-C, at whatever moment: what runs is then stopped, in order, as soon as it can be. */
const stopping = new AbortController();
for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => stopping.abort());

/** Lets a Ctrl-C be heard that came while something else had this process. */
const stillWanted = async () => {
  await new Promise((done) => setImmediate(done));
  return !stopping.signal.aborted;
};

const serve = async (database) => {
  build();
  if (!(await stillWanted())) return 0;
  const server = await startServer(
    {
      DATABASE_URL: process.env.DATABASE_URL ?? database.url,
      WEB_DIR: join(ROOT, 'web/dist/browser'),
      LOG_LEVEL: process.env.LOG_LEVEL ?? 'warn',
      ...(process.argv.includes('--no-demo') ? { DEMO: 'no' } : {}),
    },
    stopping.signal,
  );
  try {
    const host = process.env.HOST ?? '127.0.0.1';
    database?.tell(`http://${host}:${server.port}`);
    console.log(`\n  Each Bolt is ready at  http://${host}:${server.port}`);
    await sayDemo(`http://127.0.0.1:${server.port}`);
    console.log(`  Ctrl-C stops it; the data stays in ${dataDir}. Back it up with: npm run backup\n`);
    const wish = new Promise((done) => (stopping.signal.aborted ? done() : stopping.signal.addEventListener('abort', () => done())));
    return await Promise.race([wish.then(() => 0), server.ended.then(() => 1)]);
  } finally {
    await server.stop();
  }
};

const start = async () => {
  installPackages();
  if (process.argv.includes('--fresh') && process.env.DATABASE_URL)
    console.log('--fresh concerns the private database only; DATABASE_URL is left as it is.');
  if (!(await stillWanted())) return 0;
  const say = (words) => console.error(`  ${words}`);
  const database = process.env.DATABASE_URL ? null : await startDatabase(dataDir, {}, null, process.argv.includes('--fresh'), say);
  try {
    return (await stillWanted()) ? await serve(database) : 0;
  } catch (error) {
    // a server that was given up before it stood has nothing to say
    if (stopping.signal.aborted) return 0;
    throw error;
  } finally {
    await database?.stop();
  }
};

start().then(
  (code) => process.exit(code),
  (error) => {
    console.error(error.message);
    process.exit(1);
  },
);
