// npm start [-- --fresh] [-- --no-demo]: packages, database, build, demo study, server. Ctrl-C stops all of it; a second start keeps the data.
import { join, resolve } from 'node:path';
import { ROOT, build } from './build.mjs';
import { startDatabase } from './database.mjs';
import { installPackages } from './install.mjs';
import { startServer } from './server.mjs';

const dataDir = resolve(ROOT, process.env.DATA_DIR ?? '.data');

/** The sign-ins of the demo study, as long as somebody has one of their passwords. */
const sayDemo = async (base) => {
  const { demo, firstRun } = await (await fetch(`${base}/api/me`)).json();
  if (firstRun) console.log('  There is no account yet: the page makes the first one.');
  if (demo.length > 0) console.log('  Demo sign-ins:');
  for (const { login, password, name, role } of demo) console.log(`    ${login.padEnd(6)} ${password.padEnd(20)} ${name}, ${role}`);
};

const start = async () => {
  installPackages();
  if (process.argv.includes('--fresh') && process.env.DATABASE_URL)
    console.log('--fresh concerns the private database only; DATABASE_URL is left as it is.');
  const database = process.env.DATABASE_URL ? null : await startDatabase(dataDir, {}, null, process.argv.includes('--fresh'));
  const stopDatabase = async () => database?.stop();
  let stopping = false;
  let server = null;
  const stop = async (code) => {
    if (stopping) return;
    stopping = true;
    await server?.stop();
    await stopDatabase();
    process.exit(code);
  };
  for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => void stop(0));
  try {
    build();
    server = await startServer({
      DATABASE_URL: process.env.DATABASE_URL ?? database.url,
      WEB_DIR: join(ROOT, 'web/dist/browser'),
      LOG_LEVEL: process.env.LOG_LEVEL ?? 'warn',
      ...(process.argv.includes('--no-demo') ? { DEMO: 'no' } : {}),
    });
  } catch (error) {
    console.error(error.message);
    await stop(1);
    return;
  }
  const host = process.env.HOST ?? '127.0.0.1';
  database?.tell(`http://${host}:${server.port}`);
  console.log(`\n  Each Bolt is ready at  http://${host}:${server.port}`);
  await sayDemo(`http://127.0.0.1:${server.port}`);
  console.log(`  Ctrl-C stops it; the data stays in ${dataDir}. Back it up with: npm run backup\n`);
  await server.ended;
  await stop(1);
};

start().catch((error) => {
  console.error(error.message);
  process.exit(1);
});
