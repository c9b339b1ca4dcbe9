// npm run bench [-- NAME]: bundles the benchmarks and runs them, alone on the machine and one after the other.
import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { ROOT, build } from './build.mjs';
import { installPackages } from './install.mjs';

installPackages();
build();
const bundle = join(ROOT, 'bench/built.mjs');
const bundled = spawnSync(
  join(ROOT, 'node_modules/.bin/esbuild'),
  [
    'bench/main.ts',
    '--bundle',
    '--platform=node',
    '--format=esm',
    '--target=node20',
    `--outfile=${bundle}`,
    // constants are folded as in the shipped bundles
    '--minify-syntax',
    '--log-level=warning',
    '--external:hyperformula',
    // they find the project by where they stand
    '--external:../scripts/*',
    '--external:pg',
    '--external:pg-copy-streams',
    '--external:pino',
    '--external:sharp',
    '--external:@node-rs/argon2',
    '--external:@playwright/test',
  ],
  { cwd: ROOT, stdio: 'inherit' },
);
if (bundled.status !== 0) process.exit(1);
const done = spawnSync(process.execPath, [bundle, ...process.argv.slice(2)], { cwd: ROOT, stdio: 'inherit' });
process.exit(done.status ?? 1);
