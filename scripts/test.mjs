// npm test: installs what is missing, then types, lint, format, rules, units and the interface in a browser.
import { spawn } from 'node:child_process';
import { rmSync } from 'node:fs';
import { join } from 'node:path';
import { ROOT, build } from './build.mjs';
import { startDatabase } from './database.mjs';
import { installPackages } from './install.mjs';
import { needChromium, needPostgres } from './packages.mjs';
import { startServer } from './server.mjs';

const BIN = join(ROOT, 'node_modules', '.bin');

/** Runs a program of the project; what it prints is shown as it comes, or kept with what its step prints. */
const run = (name, args, env = {}, printed = null) =>
  new Promise((done) => {
    const to = printed === null ? 'inherit' : 'pipe';
    const child = spawn(join(BIN, name), args, { cwd: ROOT, stdio: ['ignore', to, to], env: { ...process.env, ...env } });
    for (const stream of [child.stdout, child.stderr]) stream?.on('data', (bytes) => printed.push(bytes));
    child.once('close', (code) => done(code ?? 1));
  });

const browserTests = async () => {
  const dir = join(ROOT, '.test-data', 'e2e');
  rmSync(dir, { recursive: true, force: true });
  const database = await startDatabase(dir);
  let server = null;
  try {
    server = await startServer({ DATABASE_URL: database.url, PORT: '0', WEB_DIR: join(ROOT, 'web/dist/browser'), LOG_LEVEL: 'warn' });
    return await run('playwright', ['test', '--config', 'e2e/playwright.config.ts'], { BASE_URL: `http://127.0.0.1:${server.port}` });
  } finally {
    await server?.stop();
    await database.stop();
  }
};

const tsc = (...folders) => [
  `types: ${folders.join(', ')}`,
  async (printed) => {
    for (const folder of folders) if ((await run('tsc', ['-p', folder], {}, printed)) !== 0) return 1;
    return 0;
  },
];
/** What looks at the text only, each on one processor: two rows of steps beside each other. */
const LOOKS = [
  [['lint', (printed) => run('eslint', ['.'], {}, printed)]],
  [
    tsc('core'),
    tsc('server'),
    tsc('web'),
    tsc('scripts', 'bench', 'e2e'),
    ['format', (printed) => run('prettier', ['--check', '--log-level', 'warn', '.'], {}, printed)],
  ],
];
const STEPS = [
  ['units and rules', () => run('jest', ['--ci', '--maxWorkers=2'])],
  ['build', async () => (build(), 0)],
  ['browser', browserTests],
];

const seconds = (since) => ((Date.now() - since) / 1000).toFixed(0);

const taken = async ([name, step], printed) => {
  const since = Date.now();
  if (printed === null) console.log(`\n── ${name}`);
  const code = await step(printed).catch((error) => {
    console.error(error.message);
    return 1;
  });
  if (printed !== null) console.log(`\n── ${name}\n${Buffer.concat(printed).toString('utf8')}`);
  console.log(`── ${name}: ${code === 0 ? 'passed' : 'FAILED'}, ${seconds(since)} s`);
  return { name, passed: code === 0 };
};

const test = async () => {
  installPackages();
  needPostgres();
  needChromium();
  const results = [];
  await Promise.all(
    LOOKS.map(async (row) => {
      for (const step of row) results.push(await taken(step, []));
    }),
  );
  for (const step of STEPS) results.push(await taken(step, null));
  const failed = results.filter((result) => !result.passed);
  if (failed.length > 0) console.log(`\nFailed: ${failed.map((result) => result.name).join(', ')}`);
  console.log(`\n${results.length - failed.length} passed, ${failed.length} failed`);
  process.exit(failed.length === 0 ? 0 : 1);
};

test().catch((error) => {
  console.error(error.message);
  console.log('\n0 passed, 1 failed');
  process.exit(1);
});
