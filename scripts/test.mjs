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

const run = (name, args, env = {}) =>
  new Promise((done) => {
    const child = spawn(join(BIN, name), args, { cwd: ROOT, stdio: ['ignore', 'inherit', 'inherit'], env: { ...process.env, ...env } });
    child.once('exit', (code) => done(code ?? 1));
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

const STEPS = [
  ['types: core', () => run('tsc', ['-p', 'core'])],
  ['types: server', () => run('tsc', ['-p', 'server'])],
  ['types: web', () => run('tsc', ['-p', 'web'])],
  [
    'types: scripts, benchmarks, browser tests',
    async () => (await run('tsc', ['-p', 'scripts'])) || (await run('tsc', ['-p', 'bench'])) || (await run('tsc', ['-p', 'e2e'])),
  ],
  ['lint', () => run('eslint', ['.'])],
  ['format', () => run('prettier', ['--check', '--log-level', 'warn', '.'])],
  ['units and rules', () => run('jest', ['--ci'])],
  ['build', async () => (build(), 0)],
  ['browser', browserTests],
];

const seconds = (since) => ((Date.now() - since) / 1000).toFixed(0);

const test = async () => {
  installPackages();
  needPostgres();
  needChromium();
  const results = [];
  for (const [name, step] of STEPS) {
    const since = Date.now();
    console.log(`\n── ${name}`);
    const code = await step().catch((error) => {
      console.error(error.message);
      return 1;
    });
    results.push({ name, passed: code === 0 });
    console.log(`── ${name}: ${code === 0 ? 'passed' : 'FAILED'}, ${seconds(since)} s`);
  }
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
