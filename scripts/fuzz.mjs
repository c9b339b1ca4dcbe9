// npm run fuzz [-- COUNT [SEED]]: sends odd requests to every route; says which were answered 500, and with which seed they come again.
import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { ROOT } from './build.mjs';
import { installPackages } from './install.mjs';
import { needPostgres } from './packages.mjs';

const [count = '20000', seed = String(Date.now() % 1_000_000_000)] = process.argv.slice(2);
if (![count, seed].every((text) => /^\d{1,9}$/.test(text))) {
  process.stderr.write('Say how many requests and which seed as whole numbers: npm run fuzz -- 20000 7\n');
  process.exit(2);
}
installPackages();
needPostgres();
process.stdout.write(`${count} requests, seed ${seed}\n`);
const ran = spawnSync(join(ROOT, 'node_modules/.bin/jest'), ['--selectProjects', 'server', '--testPathPatterns', 'http/fuzz'], {
  cwd: ROOT,
  stdio: 'inherit',
  env: { ...process.env, FUZZ_REQUESTS: count, FUZZ_SEED: seed },
});
process.exit(ran.status ?? 1);
